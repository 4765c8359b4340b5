#include "widgets/ask_list.hpp"

#include "widgets/save_dialog.hpp"
#include "document.hpp"
#include "files/exports.hpp"
#include "files/refusal.hpp"
#include "theme.hpp"

#include <QAbstractTextDocumentLayout>
#include <QBuffer>
#include <QClipboard>
#include <QDate>
#include <QGuiApplication>
#include <QHBoxLayout>
#include <QPdfWriter>
#include <QPushButton>
#include <QTextDocument>
#include <QVBoxLayout>

namespace deepstop::app {

AskList::AskList(Document& document, QWidget* parent) : QWidget(parent), document_(document), text_(new QTextBrowser(this))
{
    text_->setFrameShape(QFrame::NoFrame);
    text_->setOpenLinks(false);
    text_->setObjectName(QStringLiteral("ask-list"));
    text_->setAccessibleName(tr("Still to measure"));
    connect(text_, &QTextBrowser::anchorClicked, this,
        [this](const QUrl& link) { emit readingWanted(link.path(QUrl::FullyDecoded).toStdString()); });
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(20, 62, 20, 14);
    column->addWidget(text_, 1);
    auto* row = new QHBoxLayout;
    const auto add = [&](const QString& text, const QString& name, auto what) {
        auto* button = new QPushButton(text, this);
        button->setObjectName(name);
        connect(button, &QPushButton::clicked, this, what);
        row->addWidget(button);
    };
    add(tr("Bench sheet…"), QStringLiteral("save-sheet"), [this] { ask(false); });
    add(tr("Letter to the vendor…"), QStringLiteral("save-letter"), [this] { ask(true); });
    add(tr("Copy the letter"), QStringLiteral("copy-letter"),
        [this] { QGuiApplication::clipboard()->setText(QString::fromStdString(report::vendorLetter(document_.wholeStudy()))); });
    add(tr("Note as asked today"), QStringLiteral("note-asked"), [this] {
        document_.edit(tr("questions to the vendor"),
            report::questionsAsked(document_.wholeStudy(), QDate::currentDate().toString(Qt::ISODate).toStdString()));
    });
    row->addStretch();
    column->addLayout(row);
}

void AskList::refresh()
{
    const Theme& t = theme();
    QPalette look = palette();
    look.setColor(QPalette::Window, t.paper);
    look.setColor(QPalette::Base, t.paper);
    setPalette(look);
    setAutoFillBackground(true);
    // Nothing is known to be missing while it is being worked out.
    if (document_.study().underWay) {
        text_->setHtml(QStringLiteral("<p>%1</p>").arg(tr("Being worked out …")));
        return;
    }
    const auto asks = report::asksOf(document_.study());
    auto html = QStringLiteral("<style>a{text-decoration:none;color:%1} td{padding:3px 6px}</style>").arg(t.ink.name());
    if (asks.empty())
        html += QStringLiteral("<p>%1</p>").arg(tr("Nothing: every check rests on a reading somebody has taken."));
    else
        html += QStringLiteral("<p><b>%1</b></p>").arg(QString::fromStdString(report::nextToRead(document_.study())).toHtmlEscaped());
    html += QStringLiteral("<table width='100%' cellspacing='0'>");
    for (const auto& ask : asks) {
        QStringList titles;
        for (const auto& title : ask.titles)
            titles << QString::fromStdString(title).toHtmlEscaped();
        auto what = QString::fromStdString(ask.what).toHtmlEscaped();
        what[0] = what[0].toUpper();
        if (!ask.pointer.empty())
            what = QStringLiteral("<a href='reading:%1'>%2</a>").arg(QString::fromStdString(ask.pointer), what);
        html += QStringLiteral("<tr><td width='78' style='color:%1'>%2</td><td><b>%3</b><br><span style='color:%4'>%5</span></td><td "
                               "width='150' style='color:%6'>%7%8</td></tr>")
                    .arg(t.proposal.name(), ask.verdicts == 1 ? tr("1 check") : tr("%1 checks").arg(ask.verdicts), what, t.mute.name(),
                        tr("decides %1").arg(titles.join(QStringLiteral(", "))), t.unproven.name(), QString::fromStdString(ask.now),
                        ask.instrument.empty() ? QString()
                                               : QStringLiteral("<br><span style='color:%1'>%2</span>")
                                                     .arg(t.mute.name(), tr("take a %1").arg(QString::fromStdString(ask.instrument))));
    }
    text_->setFont(reading(13));
    text_->setHtml(html + QStringLiteral("</table>"));
}

void AskList::ask(bool letter)
{
    const auto path = askWhereToSave(this, letter ? tr("Letter to the vendor") : tr("Bench sheet"),
        letter ? QStringLiteral("letter.pdf") : QStringLiteral("bench-sheet.pdf"), tr("PDF (*.pdf);;Text (*.txt)"), QStringLiteral("pdf"));
    if (!path.isEmpty())
        write(path, letter);
}

bool AskList::write(const QString& path, bool letter)
{
    const auto text = letter ? report::vendorLetter(document_.wholeStudy()) : report::benchSheet(document_.wholeStudy());
    QByteArray bytes = QByteArray::fromStdString(text);
    if (path.endsWith(QLatin1String(".pdf"), Qt::CaseInsensitive)) {
        QBuffer buffer(&bytes);
        bytes.clear();
        buffer.open(QIODevice::WriteOnly);
        QPdfWriter writer(&buffer);
        writer.setTitle(letter ? tr("Letter to the vendor") : tr("Bench sheet"));
        writer.setPageSize(document_.units() == UnitSystem::Us ? QPageSize(QPageSize::Letter) : QPageSize(QPageSize::A4));
        writer.setPageMargins(QMarginsF(18, 18, 18, 18), QPageLayout::Millimeter);
        writer.setResolution(300);
        QTextDocument page;
        QFont font = letter ? reading(11) : figures(9);
        font.setPointSizeF(letter ? 11 : 8.6);
        page.setDefaultFont(font);
        page.documentLayout()->setPaintDevice(&writer);
        page.setPageSize(QSizeF(writer.width(), writer.height()));
        page.setPlainText(QString::fromStdString(text));
        page.print(&writer);
    }
    try {
        files::exportFile(path.toStdString(), bytes.toStdString());
    } catch (const files::Refusal& refusal) {
        emit refused(QString::fromUtf8(refusal.what()));
        return false;
    }
    return true;
}

} // namespace deepstop::app
