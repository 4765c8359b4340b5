/// Why a kit does not go: asked beside the window, told in words.

#include "language/language.hpp"
#include "library_store.hpp"
#include "stages/search/search_page.hpp"
#include "theme.hpp"

#include <QComboBox>
#include <QTextBrowser>

#include <algorithm>

namespace deepstop::app {

using search::Kind;

void SearchPage::offerWhy(const search::Choice& choice, const std::optional<search::Choice>& rear)
{
    if (!query_)
        if (const auto wanted = asked())
            query_ = wanted->with(*library_.sharedParts());
    if (!query_)
        return;
    const auto offer = [&](QComboBox* box, Kind kind, const search::Choice& chosen) {
        const QSignalBlocker quiet(box);
        box->clear();
        for (std::size_t i = 0; i < query_->parts.count(kind); ++i)
            box->addItem(QString::fromStdString(query_->parts.name(kind, i).name));
        box->setCurrentIndex(static_cast<int>(at(chosen, kind)));
    };
    for (const Kind kind : search::kinds)
        offer(why_[static_cast<std::size_t>(kind)], kind, choice);
    rearRow_->setVisible(query_->wholeCar);
    if (query_->wholeCar)
        for (std::size_t i = 0; i < whyRear_.size(); ++i)
            offer(whyRear_[i], search::kinds[i], rear.value_or(choice));
}

std::optional<search::Choice> SearchPage::chosenWhy()
{
    search::Choice choice {};
    for (const Kind kind : search::kinds) {
        const int place = why_[static_cast<std::size_t>(kind)]->currentIndex();
        if (place < 0) {
            whyText_->setText(tr("The library has no %1.").arg(words(deepstop::tr(nameOf(kind)))));
            return {};
        }
        at(choice, kind) = static_cast<std::uint32_t>(place);
    }
    return choice;
}

void SearchPage::showWhy()
{
    const auto choice = chosenWhy();
    if (!choice)
        return;
    std::optional<search::Choice> rear;
    if (query_->wholeCar) {
        rear = search::rearBeside(*query_, *choice);
        for (std::size_t i = 0; i < whyRear_.size(); ++i)
            (*rear)[i] = static_cast<std::uint32_t>(whyRear_[i]->currentIndex());
    }
    whyText_->setText(tr("Being worked out …"));
    asking_.start([query = query_, choice = *choice, rear](const JobTicket&) { return search::whyNot(*query, choice, rear); },
        [this](const search::Why& why) {
            const Theme& t = theme();
            QString html = QStringLiteral("<body style='color:%1'>").arg(t.ink.name());
            const auto reasons = [&](const std::vector<search::Reason>& all) {
                for (const search::Reason& reason : all) {
                    html +=
                        QStringLiteral("<p><b style='color:%1'>%2</b> &nbsp;%3: %4")
                            .arg(colourOf(reason.level).name(), words(deepstop::tr(nameOf(reason.level))),
                                QString::fromStdString(reason.title).toHtmlEscaped(), QString::fromStdString(reason.said).toHtmlEscaped());
                    for (const std::string& remedy : reason.remedies)
                        html += QStringLiteral("<br>&nbsp;&nbsp;&nbsp;→ %1").arg(QString::fromStdString(remedy).toHtmlEscaped());
                    html += QStringLiteral("</p>");
                }
            };
            const bool onlyLimits = std::ranges::all_of(why.fails, &search::Reason::isLimit);
            const bool limitsToo = std::ranges::any_of(why.fails, &search::Reason::isLimit);
            html += QStringLiteral("<h3>%1</h3>")
                        .arg(why.fails.empty() ? tr("It goes, as far as its sheets tell")
                                : onlyLimits   ? tr("It goes, as far as its sheets tell, but not within the limits")
                                : limitsToo    ? tr("It does not go, and is not within the limits either")
                                : !why.mended.empty()
                                ? tr("It does not go; it would with: %1").arg(QString::fromStdString(why.mended).toHtmlEscaped())
                                : tr("It does not go, and no one change mends it"));
            reasons(why.fails);
            if (!why.doubts.empty())
                html += QStringLiteral("<h4>%1</h4>").arg(tr("What remains in doubt"));
            reasons(why.doubts);
            whyText_->setHtml(html + QStringLiteral("</body>"));
        },
        [this](const std::exception& error) { whyText_->setText(QString::fromUtf8(error.what())); });
}

} // namespace deepstop::app
