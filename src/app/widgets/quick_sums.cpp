#include "widgets/quick_sums.hpp"

#include "widgets/words.hpp"
#include "sums/sums.hpp"
#include "theme.hpp"

#include <QVBoxLayout>

#include <algorithm>

namespace deepstop::app {
QuickSums::QuickSums(QWidget* parent)
    : QDialog(parent), which_(new QComboBox(this)), keys_(new QWidget(this)), form_(new QFormLayout(keys_)), answer_(new QLabel(this)),
      notes_(new QLabel(this))
{
    setWindowTitle(tr("Calculator"));
    setMinimumWidth(460);
    for (const sums::Sum& sum : sums::allSums())
        which_->addItem(string(sum.summary), string(sum.name));
    which_->setAccessibleName(tr("Which calculation"));
    answer_->setFont(figures(15));
    answer_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    answer_->setWordWrap(true);
    notes_->setWordWrap(true);
    form_->setContentsMargins(0, 6, 0, 6);
    auto* column = new QVBoxLayout(this);
    column->addWidget(which_);
    column->addWidget(keys_);
    column->addWidget(answer_);
    column->addWidget(notes_);
    column->addStretch();
    connect(which_, &QComboBox::currentIndexChanged, this, &QuickSums::layOut);
    layOut();
}

void QuickSums::setUnits(UnitSystem units)
{
    units_ = units;
    work();
}

void QuickSums::choose(const QString& name) { which_->setCurrentIndex(which_->findData(name)); }

QLineEdit* QuickSums::input(const std::string& key) const
{
    const auto found = inputs_.find(key);
    return found == inputs_.end() ? nullptr : found->second;
}

void QuickSums::layOut()
{
    inputs_.clear();
    while (form_->rowCount() > 0)
        form_->removeRow(0);
    const auto& sum = sums::allSums()[static_cast<std::size_t>(which_->currentIndex())];
    for (const sums::Key& key : sum.keys) {
        auto* line = new QLineEdit(keys_);
        line->setPlaceholderText(!key.otherwise.empty() ? string(key.otherwise)
                : key.plainUnit.empty()                 ? string(key.help)
                                                        : string(key.plainUnit));
        line->setToolTip(string(key.help));
        line->setAccessibleName(string(key.help));
        form_->addRow(string(key.help), line);
        inputs_.emplace(key.name, line);
        connect(line, &QLineEdit::textChanged, this, &QuickSums::work);
        if (inputs_.size() == 1)
            line->setFocus();
    }
    work();
}

void QuickSums::work()
{
    const auto& sum = sums::allSums()[static_cast<std::size_t>(which_->currentIndex())];
    std::vector<std::string> arguments;
    for (const auto& [key, line] : inputs_)
        if (!line->text().trimmed().isEmpty())
            arguments.push_back(key + "=" + line->text().trimmed().toStdString());
    try {
        const auto answer = sums::calculate(sum.name, arguments);
        // Name and value, and in grey how it comes about.
        QString lines;
        for (const auto& result : sums::printed(answer, units_))
            lines += QStringLiteral("<tr><td style='padding-right:16px'>%1</td><td style='padding-right:16px'><b>%2</b></td><td "
                                    "style='color:%4'><small>%3</small></td></tr>")
                         .arg(QString::fromStdString(result.title).toHtmlEscaped(), QString::fromStdString(result.text).toHtmlEscaped(),
                             QString::fromStdString(result.help).toHtmlEscaped(), theme().mute.name());
        answer_->setText(QStringLiteral("<table>%1</table>").arg(lines));
        QStringList notes;
        for (const auto& note : answer.notes)
            notes << QString::fromStdString(note);
        notes_->setText(notes.join(QLatin1Char('\n')) + QStringLiteral("\n") + QString::fromStdString(answer.source));
    } catch (const sums::BadRequest& bad) {
        answer_->setText(QString());
        notes_->setText(arguments.empty() ? string(sum.source) : QString::fromUtf8(bad.what()));
    }
}

} // namespace deepstop::app
