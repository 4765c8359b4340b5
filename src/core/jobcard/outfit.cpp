#include "jobcard/outfit.hpp"

#include "build/axle_work.hpp"
#include "build/words.hpp"
#include "joints/thread.hpp"
#include "language/language.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace deepstop::jobcard {
namespace {

void addOnce(std::vector<std::string>& to, std::string what)
{
    if (!what.empty() && std::ranges::find(to, what) == to.end())
        to.push_back(std::move(what));
}

/// "vernier, scale" as its tools.
void addTools(std::vector<std::string>& to, const std::string& list)
{
    for (std::size_t at = 0; at < list.size();) {
        const auto end = std::min(list.find(", ", at), list.size());
        addOnce(to, list.substr(at, end - at));
        at = end + 2;
    }
}

std::string sizeOf(const joints::Thread& thread)
{
    const auto sizes = headSizesOf(thread.diameter);
    if (!sizes)
        return tr("{}: measure the heads", joints::nameOf(thread));
    return tr("{}: spanner {} mm{}, or key {} mm", joints::nameOf(thread), sizes->spanner,
        sizes->olderSpanner != sizes->spanner ? tr(" (older heads {})", sizes->olderSpanner) : std::string(), sizes->key);
}

/// What a wheel takes to be bled clear; common practice, no source.
constexpr double fluidOfAWheel = 150; // cm³

} // namespace

std::optional<HeadSizes> headSizesOf(double diameter)
{
    static constexpr std::array<std::pair<int, HeadSizes>, 9> table { { { 5, { 8, 8, 4 } }, { 6, { 10, 10, 5 } }, { 7, { 11, 11, 6 } },
        { 8, { 13, 13, 6 } }, { 10, { 16, 17, 8 } }, { 12, { 18, 19, 10 } }, { 14, { 21, 22, 12 } }, { 16, { 24, 24, 14 } },
        { 18, { 27, 27, 14 } } } };
    for (const auto& [size, sizes] : table)
        if (std::abs(diameter * 1000 - size) < 0.05)
            return sizes;
    return {};
}

Outfit outfitOf(const Study& study, const Card& card)
{
    Outfit outfit;
    bool washers = false;
    bool bled = false;
    for (const Step& step : card.steps) {
        if (!card.shows(step))
            continue;
        addTools(outfit.tools, step.tools);
        if (step.torque)
            outfit.torques = outfit.torques
                ? std::pair { std::min(outfit.torques->first, *step.torque), std::max(outfit.torques->second, *step.torque) }
                : std::pair { *step.torque, *step.torque };
        if (step.threads == tr("threadlocker") || step.threads == tr("anti-seize"))
            addOnce(outfit.used, step.threads);
        washers = washers || step.id.ends_with("/washers") || step.id.ends_with("/hose");
        bled = bled || step.id.starts_with("car/bleed");
    }
    if (washers)
        outfit.used.emplace_back(tr("new crush washers, two a banjo"));
    if (bled) {
        const bool four = card.step("car/bleed-4") && card.shows(*card.step("car/bleed-4"));
        outfit.used.push_back(tr("fresh fluid, {:.0f} ml at least", (four ? 4 : 2) * fluidOfAWheel));
    }
    for (const Axle axle : judge::axlesOf(study)) {
        const Corner* corner = study.after.at(axle).corner;
        if (!corner)
            continue;
        for (const Joint& joint : corner->joints)
            if (const auto thread = joints::parseThread(*joint.thread))
                addOnce(outfit.sizes, sizeOf(*thread));
        for (const Side side : { Side::Left, Side::Right }) {
            const Fitted& in = corner->at(side);
            const auto none = [](const Reading& r) { return r.value && !(*r.value > 0); };
            if (corner->brakes == BrakeKind::Drums || (none(in.shimTop) && none(in.shimBottom)))
                continue;
            // Where rotor and caliper stay no shims are laid out, read or not.
            const bool read = in.shimTop.value || in.shimBottom.value;
            if (!read && !workBetween(study.before.at(axle).corner, *corner).mockedUp())
                continue;
            const auto say = [&](const Reading& r) {
                return !r.value ? std::string(tr("not read")) : none(r) ? std::string("none") : print(*r.value, style::fine, study.system);
            };
            outfit.shims.push_back(tr("{} {}: {} at the top bolt, {} at the bottom bolt", judge::wordFor(axle), tr(wordOf(side)),
                say(in.shimTop), say(in.shimBottom)));
        }
    }
    return outfit;
}

} // namespace deepstop::jobcard
