#include "widgets/symptom_window.hpp"

#include "document.hpp"
#include "symptoms/symptoms.hpp"
#include "theme.hpp"
#include "widgets/words.hpp"

#include <QHBoxLayout>
#include <QListWidget>
#include <QTextBrowser>
#include <QUrl>

namespace deepstop::app {
namespace {

QString escaped(std::string_view text) { return string(text).toHtmlEscaped(); }

/// One cause: what it is, how it is told, what its test gives, what this car's figures say.
QString cardOf(const symptoms::Cause& c, int number)
{
    const Theme& t = theme();
    const auto level = [&] {
        return isBad(c.level) ? t.bad : isFine(c.level) ? t.good : c.level == Level::Unproven ? t.unproven : t.caution;
    };
    QString html = QStringLiteral("<p><b>%1. %2</b><br>%3<br>").arg(number).arg(escaped(c.cause), escaped(c.test));
    html += c.reading.empty() ? QObject::tr("It gives: %1").arg(escaped(c.gives))
                              : QObject::tr("It gives: <a href=\"reading:%1\">%2</a>").arg(escaped(c.reading), escaped(c.gives));
    if (c.judged)
        html += QStringLiteral("<br><span style=\"color:%1\">%2</span>").arg(level().name(), escaped(c.figures));
    return html + QStringLiteral("</p>");
}

} // namespace

SymptomWindow::SymptomWindow(Document& document, QWidget* parent)
    : QDialog(parent), document_(document), list_(new QListWidget(this)), text_(new QTextBrowser(this))
{
    setWindowTitle(tr("Causes of a symptom"));
    resize(860, 620);
    for (const auto& symptom : symptoms::all())
        list_->addItem(string(symptom.title));
    list_->setAccessibleName(tr("Symptom"));
    list_->setMaximumWidth(190);
    list_->setSpacing(3);
    text_->setAccessibleName(tr("Causes on this car, the most suspect first"));
    text_->setOpenLinks(false);
    auto* row = new QHBoxLayout(this);
    row->addWidget(list_);
    row->addWidget(text_, 1);
    connect(list_, &QListWidget::currentRowChanged, this, [this] { show(document_.study()); });
    connect(&document, &Document::studied, this, [this] {
        if (isVisible())
            show(document_.study());
    });
    connect(text_, &QTextBrowser::anchorClicked, this,
        [this](const QUrl& link) { emit readingWanted(link.path(QUrl::FullyDecoded).toStdString()); });
    list_->setCurrentRow(0);
    list_->setFocus();
}

void SymptomWindow::show(const Study& study)
{
    const int row = list_->currentRow();
    if (row < 0)
        return;
    const auto& symptom = symptoms::all()[static_cast<std::size_t>(row)];
    QString html = QStringLiteral("<h3>%1</h3><p style=\"color:%2\">%3</p>")
                       .arg(escaped(symptom.title), theme().bad.name(), escaped(symptom.caution));
    if (study.underWay) {
        html += QStringLiteral("<p>%1</p>").arg(tr("This car's figures are being worked out."));
    } else {
        int number = 0;
        for (const auto& cause : symptoms::causesOf(study, symptom))
            html += cardOf(cause, ++number);
        html += QStringLiteral("<p>%1</p>")
                    .arg(tr("The order is that of this car's figures: what they call a stop first, what they call good last. A good figure "
                            "speaks of sound parts and excludes nothing. Common practice; have brakes judged by a licensed mechanic."));
    }
    text_->setHtml(html);
}

} // namespace deepstop::app
