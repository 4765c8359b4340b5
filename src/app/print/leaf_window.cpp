#include "print/leaf_window.hpp"

#include "widgets/save_dialog.hpp"
#include "files/exports.hpp"
#include "files/paper_files.hpp"
#include "print/page_painter.hpp"

#include <QHBoxLayout>
#include <QPainter>
#include <QPrintDialog>
#include <QPrinter>
#include <QVBoxLayout>

namespace deepstop::app {

LeafWindow::LeafWindow(report::Leaf leaf, QWidget* parent)
    : QDialog(parent), leaf_(std::move(leaf)), view_(new PageView(this)), paper_(new QComboBox), says_(new QLabel)
{
    setWindowTitle(QString::fromStdString(leaf_.title));
    resize(900, 760);
    paper_->addItems({ tr("A4"), tr("Letter") });
    paper_->setAccessibleName(tr("Paper"));
    auto* scroll = new QScrollArea;
    scroll->setWidget(view_);
    scroll->setWidgetResizable(true);
    auto* row = new QHBoxLayout;
    row->addWidget(paper_);
    auto* save = new QPushButton(tr("Save as PDF or HTML…"));
    auto* print = new QPushButton(tr("Print…"));
    row->addWidget(save);
    row->addWidget(print);
    row->addWidget(says_, 1);
    auto* column = new QVBoxLayout(this);
    column->addWidget(scroll, 1);
    column->addLayout(row);
    connect(paper_, &QComboBox::currentIndexChanged, this, &LeafWindow::refresh);
    connect(print, &QPushButton::clicked, this, &LeafWindow::print);
    connect(save, &QPushButton::clicked, this, [this] {
        const auto path =
            askWhereToSave(this, windowTitle(), QStringLiteral("card.pdf"), tr("PDF (*.pdf);;Web page (*.html)"), QStringLiteral("pdf"));
        if (path.isEmpty())
            return;
        const auto why = this->save(path);
        says_->setText(why.isEmpty() ? tr("Saved as %1").arg(path) : why);
    });
    refresh();
}

void LeafWindow::refresh() { view_->setPages(report::sheetsOf(leaf_, paper_->currentIndex() == 1 ? paper::letter() : paper::a4())); }

QString LeafWindow::save(const QString& path) const
{
    try {
        if (path.endsWith(QLatin1String(".pdf"), Qt::CaseInsensitive))
            files::exportFile(path.toStdString(), files::pdfOf(view_->pages(), leaf_.title));
        else if (path.endsWith(QLatin1String(".html"), Qt::CaseInsensitive) || path.endsWith(QLatin1String(".htm"), Qt::CaseInsensitive))
            files::exportFile(path.toStdString(), report::htmlOf(leaf_));
        else
            return tr("%1: the name has to end in .pdf or .html.").arg(path);
    } catch (const files::Refusal& refusal) {
        return QString::fromUtf8(refusal.what());
    }
    return {};
}

void LeafWindow::print()
{
    QPrinter printer(QPrinter::HighResolution);
    printer.setPageSize(paper_->currentIndex() == 1 ? QPageSize(QPageSize::Letter) : QPageSize(QPageSize::A4));
    QPrintDialog ask(&printer, this);
    if (ask.exec() != QDialog::Accepted)
        return;
    printer.setFullPage(true);
    QPainter p;
    if (!p.begin(&printer))
        return;
    for (std::size_t i = 0; i < view_->pages().size(); ++i) {
        if (i > 0)
            printer.newPage();
        paintPage(p, view_->pages()[i], printer.resolution() / 0.0254);
    }
}

} // namespace deepstop::app
