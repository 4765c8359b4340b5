#include "print/template_window.hpp"

#include "widgets/save_dialog.hpp"
#include "document.hpp"
#include "files/paper_files.hpp"
#include "print/page_painter.hpp"
#include "quantity/parse.hpp"
#include "report/template.hpp"
#include "theme.hpp"

#include <QDate>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QPageLayout>
#include <QPainter>
#include <QPrintDialog>
#include <QPrinter>
#include <QVBoxLayout>

#include <cmath>

namespace deepstop::app {
namespace {

constexpr double gapBetweenSheets = 14;

paper::Size sizeOf(int index) { return index == 1 ? paper::letter() : paper::a4(); }

} // namespace

void PageView::setPages(std::vector<paper::Page> pages)
{
    pages_ = std::move(pages);
    updateGeometry();
    update();
}

double PageView::pixelsPerMetre() const
{
    if (pages_.empty())
        return 1;
    // One sheet fills the view; several stand in as square a block as they make.
    const int columns = static_cast<int>(std::ceil(std::sqrt(static_cast<double>(pages_.size()))));
    const int rows = (static_cast<int>(pages_.size()) + columns - 1) / columns;
    return std::max(100.0,
        std::min((width() - gapBetweenSheets * (columns + 1)) / (columns * pages_.front().width),
            (height() - gapBetweenSheets * (rows + 1)) / (rows * pages_.front().height)));
}

QRectF PageView::sheet(std::size_t index) const
{
    const int columns = static_cast<int>(std::ceil(std::sqrt(static_cast<double>(pages_.size()))));
    const double scale = pixelsPerMetre();
    const QSizeF size(pages_[index].width * scale, pages_[index].height * scale);
    const int used = std::min<int>(columns, static_cast<int>(pages_.size()));
    const double left = (width() - used * size.width() - (used - 1) * gapBetweenSheets) / 2;
    return { QPointF(left + (static_cast<int>(index) % columns) * (size.width() + gapBetweenSheets),
                 gapBetweenSheets + (static_cast<int>(index) / columns) * (size.height() + gapBetweenSheets)),
        size };
}

QSize PageView::sizeHint() const { return { 560, 640 }; }

void PageView::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.fillRect(rect(), t.board);
    for (std::size_t i = 0; i < pages_.size(); ++i) {
        const QRectF there = sheet(i);
        p.fillRect(there.translated(2, 2), t.rule);
        p.fillRect(there, Qt::white);
        p.save();
        p.setClipRect(there);
        p.translate(there.topLeft());
        paintPage(p, pages_[i], pixelsPerMetre());
        p.restore();
    }
}

TemplateWindow::TemplateWindow(Document& document, QWidget* parent)
    : QDialog(parent), document_(document), view_(new PageView(this)), what_(new QComboBox(this)), paper_(new QComboBox(this)),
      across_(new QLineEdit(this)), down_(new QLineEdit(this)), trouble_(new QLabel(this)), print_(new QPushButton(tr("Print…"), this)),
      save_(new QPushButton(tr("Save as PDF, SVG or DXF…"), this))
{
    setWindowTitle(tr("Template to print and cut"));
    resize(880, 680);
    what_->addItems({ tr("Caliper, to try in a wheel"), tr("Dust shield, line to cut along") });
    what_->setAccessibleName(tr("What to print"));
    paper_->addItems({ QStringLiteral("A4"), QStringLiteral("Letter") });
    paper_->setAccessibleName(tr("Paper"));
    if (document_.units() == UnitSystem::Us)
        paper_->setCurrentIndex(1);
    for (QLineEdit* field : { across_, down_ }) {
        field->setText(document_.units() == UnitSystem::Us ? QStringLiteral("100 mm") : QStringLiteral("100"));
        field->setFont(figures(13));
        connect(field, &QLineEdit::textEdited, this, &TemplateWindow::refresh);
    }
    across_->setAccessibleName(tr("What the bar across measured"));
    down_->setAccessibleName(tr("What the upright bar measured"));
    auto* explain = new QLabel(tr("Print at 100 %, without fitting to the page. Then measure both bars with a vernier: where they are not "
                                  "100 mm, say what they are and print once more."),
        this);
    explain->setWordWrap(true);
    trouble_->setWordWrap(true);
    trouble_->setTextFormat(Qt::PlainText);
    auto* caution = new QLabel(tr("A template shows where the caliper is. It does not prove that a wheel clears: turn the wheel by hand, "
                                  "then drive slowly, then look again."),
        this);
    caution->setWordWrap(true);
    auto* form = new QFormLayout;
    form->addRow(tr("Print"), what_);
    form->addRow(tr("On"), paper_);
    form->addRow(tr("Bar across is"), across_);
    form->addRow(tr("Upright bar is"), down_);
    auto* side = new QVBoxLayout;
    side->addLayout(form);
    side->addWidget(explain);
    side->addWidget(trouble_);
    side->addStretch();
    side->addWidget(caution);
    side->addWidget(save_);
    side->addWidget(print_);
    print_->setDefault(true);
    auto* row = new QHBoxLayout(this);
    auto* left = new QWidget(this);
    left->setLayout(side);
    left->setFixedWidth(296);
    row->addWidget(left);
    row->addWidget(view_, 1);
    connect(what_, &QComboBox::activated, this, &TemplateWindow::refresh);
    connect(paper_, &QComboBox::activated, this, &TemplateWindow::refresh);
    connect(&document_, &Document::studied, this, [this] {
        if (isVisible())
            refresh();
    });
    connect(save_, &QPushButton::clicked, this, [this] {
        document_.settle();
        const auto path = askWhereToSave(this, tr("Save the template"),
            what_->currentIndex() == 0 ? QStringLiteral("caliper-template.pdf") : QStringLiteral("shield-cut.pdf"),
            tr("PDF (*.pdf);;SVG (*.svg);;DXF (*.dxf)"), QStringLiteral("pdf"));
        if (!path.isEmpty())
            save(path);
    });
    connect(print_, &QPushButton::clicked, this, [this] {
        document_.settle();
        QPrinter printer(QPrinter::HighResolution);
        printer.setPageSize(paper_->currentIndex() == 1 ? QPageSize(QPageSize::Letter) : QPageSize(QPageSize::A4));
        QPrintDialog ask(&printer, this);
        if (ask.exec() == QDialog::Accepted)
            print(printer);
    });
}

void TemplateWindow::setAxle(Axle axle)
{
    axle_ = axle;
    refresh();
}

double TemplateWindow::bar(QLineEdit* field) const
{
    const auto parsed = parseQuantity(field->text().toStdString(), Dimension::Length, "mm");
    return parsed ? *parsed.value : 0;
}

void TemplateWindow::refresh()
{
    // What is not worked out yet is not drawn to be cut by.
    if (document_.study().underWay)
        return;
    const auto today = QDate::currentDate().toString(Qt::ISODate).toStdString();
    auto made = what_->currentIndex() == 1 ? report::shieldDrawing(document_.study(), axle_, today)
                                           : report::caliperTemplate(document_.study(), axle_, today);
    drawing_ = std::move(made.drawing);
    QString why = QString::fromStdString(made.lacks);
    std::vector<paper::Page> pages;
    if (drawing_) {
        pages = paper::pagesOf(*drawing_, sizeOf(paper_->currentIndex()), { bar(across_), bar(down_) });
        if (pages.empty())
            why = tr("The bars are 100 mm; no printer makes that of them. Measure between the outer ticks.");
        else if (pages.size() > 1)
            why = tr("%n sheet(s): cut along the dashed frames, lay mark on mark.", nullptr, static_cast<int>(pages.size()));
    }
    trouble_->setText(why);
    QPalette look = trouble_->palette();
    look.setColor(QPalette::WindowText, pages.empty() ? theme().bad : theme().ink);
    trouble_->setPalette(look);
    print_->setEnabled(!pages.empty());
    save_->setEnabled(!pages.empty());
    view_->setPages(std::move(pages));
}

bool TemplateWindow::save(const QString& path)
{
    if (!drawing_)
        return false;
    try {
        files::writePaper(path.toStdString(), *drawing_, sizeOf(paper_->currentIndex()), { bar(across_), bar(down_) });
    } catch (const files::Refusal& refusal) {
        trouble_->setText(QString::fromUtf8(refusal.what()));
        return false;
    }
    return true;
}

void TemplateWindow::print(QPrinter& printer) const
{
    printer.setFullPage(true);
    QPainter p;
    bool begun = false;
    for (const paper::Page& page : view_->pages()) {
        printer.setPageOrientation(page.width > page.height ? QPageLayout::Landscape : QPageLayout::Portrait);
        if (!begun)
            begun = p.begin(&printer);
        else
            printer.newPage();
        if (!begun)
            return;
        paintPage(p, page, printer.resolution() / 0.0254);
    }
}

} // namespace deepstop::app
