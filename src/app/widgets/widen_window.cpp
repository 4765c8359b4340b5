#include "widgets/widen_window.hpp"

#include "document.hpp"
#include "quantity/parse.hpp"
#include "theme.hpp"

#include <QFormLayout>
#include <QVBoxLayout>

namespace deepstop::app {

WidenWindow::WidenWindow(Document& document, QWidget* parent)
    : QDialog(parent), document_(document), growth_(new QLineEdit(this)), lines_(new QLabel(this)),
      do_(new QPushButton(tr("Widen it in this setup"), this))
{
    setWindowTitle(tr("Widen a split caliper"));
    resize(520, 420);
    growth_->setAccessibleName(tr("How much thicker the new rotor is"));
    growth_->setPlaceholderText(tr("as 8, or 5/16 in"));
    growth_->setFont(figures(13));
    lines_->setWordWrap(true);
    lines_->setTextFormat(Qt::RichText);
    lines_->setAlignment(Qt::AlignTop);
    auto* form = new QFormLayout;
    form->addRow(tr("The new rotor is thicker by"), growth_);
    auto* column = new QVBoxLayout(this);
    column->addLayout(form);
    column->addWidget(lines_, 1);
    column->addWidget(do_);
    do_->setDefault(true);
    connect(growth_, &QLineEdit::textEdited, this, &WidenWindow::refresh);
    // It stays open while one edits elsewhere: what it says is of the build as it is.
    connect(&document_, &Document::studied, this, [this] {
        if (isVisible() && !document_.isPreviewing())
            refresh();
    });
    connect(&document_, &Document::replaced, this, [this] {
        growth_->clear();
        reject();
    });
    connect(do_, &QPushButton::clicked, this, [this] {
        if (study_.applied && document_.putIn(tr("caliper widened"), of_, base_, study_.applied))
            accept();
    });
}

void WidenWindow::setAxle(Axle axle)
{
    axle_ = axle;
    // What the rotors of the two setups say, where they say it.
    const Study& s = document_.study();
    const Corner* after = s.after.at(axle).corner;
    const Corner* before = s.before.at(axle).corner;
    if (growth_->text().isEmpty() && after && before && after->rotor.thickness.value && before->rotor.thickness.value
        && *after->rotor.thickness.value > *before->rotor.thickness.value)
        growth_->setText(
            QString::fromStdString(print(*after->rotor.thickness.value - *before->rotor.thickness.value, style::fine, document_.units())));
    refresh();
}

void WidenWindow::refresh()
{
    const auto parsed = parseQuantity(growth_->text().toStdString(), Dimension::Length, style::fine.unit(document_.units()));
    of_ = document_.stamp();
    base_ = document_.study().build;
    study_ = wideningOf(document_.study(), axle_, parsed ? *parsed.value : 0);
    QString html;
    const auto escaped = [](const std::string& text) { return QString::fromStdString(text).toHtmlEscaped(); };
    if (!study_.widening) {
        html = QStringLiteral("<p style='color:%1'>%2</p>")
                   .arg(theme().bad.name(),
                       growth_->text().isEmpty() ? tr("Say by how much.")
                           : !parsed             ? escaped(parsed.refusal)
                                                 : escaped(study_.lacks));
    } else {
        html = QStringLiteral("<ol style='margin-left:-18px'>");
        for (const auto& line : study_.lines)
            html += QStringLiteral("<li>%1</li>").arg(escaped(line));
        html += QStringLiteral("</ol>");
        for (const auto& caution : study_.cautions)
            html += QStringLiteral("<p style='color:%1'>%2</p>").arg(theme().bad.name(), escaped(caution));
    }
    lines_->setText(html);
    do_->setEnabled(study_.applied != nullptr);
}

} // namespace deepstop::app
