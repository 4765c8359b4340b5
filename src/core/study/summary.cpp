#include "quantity/text.hpp"
#include "study/chapters.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <cmath>

namespace deepstop {

std::string summaryOf(const Study& study)
{
    std::vector<std::string> parts;
    const auto level = [&](std::initializer_list<std::string_view> chapters) {
        const Verdict* worst = study.worst(chapters);
        return worst ? worst->level : Level::Unproven;
    };
    const Level centred = level({ "centring", "joints" });
    const LedgerLine* gap = study.line("wheel-gap");
    if (gap) {
        const bool elsewhere = gap->level != Level::Hits && (isBad(level({ "clearance" })) || isBad(level({ "parts", "weights" })));
        parts.push_back(gap->level == Level::Clear && !elsewhere ? "fits"
                : gap->level == Level::Tight && !elsewhere       ? "fits, tight"
                : gap->level == Level::Unproven && !elsewhere    ? "fit unproven"
                                                                 : "does not fit");
    }
    parts.push_back(isFine(centred) ? "centred" : centred == Level::Unproven ? "centring unproven" : "to be centred");
    if (const LedgerLine* weight = study.line("corner-weight"); weight && weight->change.value && *weight->change.value != 0)
        parts.push_back(printChange(*weight->change.value, style::partMass, study.system) + " a corner");
    if (const LedgerLine* store = study.line("heat-store"); store && store->after.value && store->before.value)
        parts.push_back("heat store " + store->word);
    if (const Verdict* v = study.verdict("stop/distance"); v && v->figure.value)
        parts.push_back(std::abs(*v->figure.value) < 0.05
                ? std::string("cold stop as before")
                : fmt::format("cold stop {}", printChange(*v->figure.value, style::road, study.system)));
    auto text = judge::joined(parts, parts.size());
    if (!text.empty())
        text[0] = toUpper(text[0]);
    return text;
}

} // namespace deepstop
