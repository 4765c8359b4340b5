/// Which axle locks first, and how near to alike.

#include "chapters/balance/balance_chapter.hpp"

#include "chapters/balance/checks.hpp"
#include "figures/brake_figures.hpp"
#include "language/language.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

namespace deepstop {
namespace {

constexpr std::string_view triedFirst =
    marked("Set the balance on a closed place with no one behind, from low speeds first. A car whose rear locks first "
           "turns round. The program advises; what the law and the maker ask comes first.");

std::string titled(std::string_view title, const LoadBalance& balance)
{
    return balance.load ? fmt::format("{}, {}", title, balance.name) : std::string(title);
}

void addAntilockWord(const Study& study, Verdict& v)
{
    if (study.build->car.antilock == YesNo::Unknown)
        v.reason += tr(" (worked out without antilock)");
}

/// What rests on an estimate proves nothing, unless it is bad as it is.
void settle(const Study& study, Verdict& v)
{
    if (v.figure.provisional() && !isBad(v.level)) {
        v.level = Level::Unproven;
        v.reason += "; " + judge::estimatedIn(study, v.figure);
    }
}

/// Which axle locks first, and how surely: the car must never turn round because a figure was off.
void addLockOrder(Study& study, const LoadBalance& balance, std::size_t number)
{
    const SetupParts& after = study.after;
    Verdict v = verdictOf(checks::lockOrder, { .number = balance.load ? static_cast<int>(number) : 0 });
    v.title = titled(v.title, balance);
    v.style = style::share;
    v.wanted = lockMargin;
    v.lacksInWords = figures::unsaidOf(after);
    v.figure = locksApartOf(study, balance.load);
    v.method =
        tr("Line pressure at which the rear wheels would lock over that of the front ones, less one, at the tyres' grip as read, at a "
           "fifth more and at less of it down to ice (0.15 of it), the least of all. A vendor's friction may be off by 15 %. Good when "
           "it is more than 5 % at worst; when on these "
           "tyres the rear may lock first at worst, it must not be driven hard before that is measured or mended.");
    v.source = tr("Rigid-body load transfer and Coulomb friction; 20 %, 15 % and 5 %: common practice.");
    v.caution = tr(triedFirst);
    const bool antilock = study.build->car.antilock == YesNo::Yes;
    if (!v.figure.value || !v.lacksInWords.empty()) {
        v.figure.value.reset();
        v.reason = lacking(study, v.figure, v.lacksInWords);
        study.verdicts.push_back(std::move(v));
        return;
    }
    const auto apart =
        fmt::format("{} ±{}", printChange(*v.figure.value, v.style, study.system), print(v.figure.worstCase, v.style, study.system));
    const auto at = [&](const std::optional<BalancePoint>& point) {
        return point ? tr(" at {}", print(point->deceleration * standardGravity, style::deceleration, study.system)) : std::string();
    };
    const bool rearFirst = *v.figure.value < 0;
    const double grip = gripThatDecides(*study.build, after, balance.load);
    const std::string_view where = grip > 1 ? tr(" with 20 % more grip") : grip < 0.5 ? tr(" on ice") : grip < 1 ? tr(" in the wet") : "";
    const auto frontHere = [&] {
        return evaluate([&](Evaluator& s) { return locksApart(s, *study.build, after, balance.load, Tyres::AsRead); }).lowest() >= 0;
    };
    if (v.figure.lowest() >= lockMargin) {
        v.level = Level::Good;
        v.reason = *v.figure.value >= 1 ? tr("The front{}; the rear never does", at(balance.frontLocks))
                                        : tr("The front{}, by {} of pressure", at(balance.frontLocks), apart);
    } else if (antilock) {
        // What the driver of a car without it would have met.
        v.level = Level::Caution;
        v.reason = rearFirst
            ? tr("The rear{}, by {}: antilock holds it back, and it brakes less than it could. Without antilock the car would turn round",
                where, apart)
            : tr("The front{}, by {}: not surely; antilock would hold the rear back", where, apart);
    } else if (rearFirst && grip < 1) {
        v.level = Level::Stop;
        v.reason = tr("The rear{}, by {}: the car turns round there. Less rear brake, or a valve", where, apart);
    } else if (rearFirst) {
        v.level = Level::Stop;
        v.reason = tr("The rear{}, by {}: the car turns round. Less rear brake, or a valve", at(balance.rearLocks), apart);
    } else if (v.figure.lowest() < 0 && (grip < 1 || !frontHere())) {
        v.level = Level::Stop;
        v.reason =
            tr("The front{}, by {}: at worst the rear, and the car turns round. Measure friction and valve better, or less rear brake",
                where, apart);
    } else if (v.figure.lowest() < 0) {
        v.level = Level::Caution;
        v.reason = tr("The front, by {} with 20 % more grip than was read: at worst there the rear. Not on these tyres", apart);
    } else {
        v.level = Level::Caution;
        v.reason = tr("The front{}, by {}: too near, 5 % wanted at worst", where, apart);
    }
    addAntilockWord(study, v);
    settle(study, v);
    study.verdicts.push_back(std::move(v));
}

/// Whether the rear does its part: a car whose front locks far too early stops longer than it must.
void addRearUse(Study& study)
{
    const SetupParts& after = study.after;
    Verdict v = verdictOf(checks::rearUse);
    v.style = style::share;
    v.wanted = rearUseWanted;
    v.lacksInWords = figures::unsaidOf(after);
    v.figure = evaluate([&](Evaluator& s) { return rearUse(s, *study.build, after, nullptr); });
    v.method =
        tr("Grip the rear axle uses at the deceleration at which the first axle locks, its driver alone in the car. Over 80 % little is "
           "left to gain by balance.");
    v.source = tr("Rigid-body load transfer; 80 %: common practice.");
    v.caution = tr(triedFirst);
    const LoadBalance* was = study.before.setup != study.after.setup ? study.of<Balance>().before.find(nullptr) : nullptr;
    const LoadBalance* now = study.of<Balance>().after.find(nullptr);
    if (!v.figure.value || !v.lacksInWords.empty()) {
        v.figure.value.reset();
        v.reason = lacking(study, v.figure, v.lacksInWords);
    } else {
        const auto say = [&](double share) { return print(share, style::share, study.system); };
        const bool rearFirst = now && now->locks.rear < now->locks.front;
        const bool rearFirstBefore = was && was->locks.rear < was->locks.front;
        std::string compared;
        if (was && was->car && was->brakes && !rearFirst) {
            const double change = *v.figure.value - was->rearUse;
            // Worse is away from what is wanted, not just less: where the rear locked first, less was wanted.
            if (rearFirstBefore)
                compared = tr("; before, the rear locked first");
            else if (std::abs(change) < 0.005)
                compared = tr("; as before");
            else
                compared = tr("; {} before: {}", say(was->rearUse),
                    change > 0                             ? tr("more")
                        : *v.figure.value >= rearUseWanted ? tr("less, and enough")
                                                           : tr("less, this setup makes it worse"));
        }
        if (rearFirst) {
            v.level = Level::Caution;
            v.reason = tr("All it can, before the front does: it locks first");
        } else if (v.figure.lowest() >= rearUseWanted) {
            v.level = Level::Good;
            v.reason = tr("{} of its grip when the front locks{}", say(*v.figure.value), compared);
        } else if (*v.figure.value >= rearUseWanted) {
            v.reason = tr("{} ±{} of its grip when the front locks: too loosely known to tell{}", say(*v.figure.value),
                say(v.figure.worstCase), compared);
        } else {
            v.level = Level::Caution;
            v.reason =
                tr("{} ±{} of its grip when the front locks, which is early{}", say(*v.figure.value), say(v.figure.worstCase), compared);
        }
        settle(study, v);
    }
    study.verdicts.push_back(std::move(v));
}

void addYardstick(Study& study)
{
    const SetupParts& after = study.after;
    Verdict v = verdictOf(checks::yardstick);
    v.style = style::number;
    v.wanted = 0.0;
    v.lacksInWords = figures::unsaidOf(after);
    v.figure = evaluate([&](Evaluator& s) {
        double least = std::numeric_limits<double>::infinity();
        for (const LoadBalance& each : study.of<Balance>().after.loads) {
            const auto kept =
                stopping::keptTo(figures::carOf(s, study.build->car, each.load), figures::brakesOf(s, *study.build, after, each.load));
            const double worse = std::min(kept.frontOverRear, kept.efficiency);
            least = std::isnan(kept.frontOverRear + kept.efficiency + least) ? std::numeric_limits<double>::quiet_NaN()
                                                                             : std::min(least, worse);
        }
        return least;
    });
    v.method =
        tr("From 0.15 to 0.8 g the front axle uses the more adhesion, and at adhesions k of 0.2 to 0.8 the deceleration is at least "
           "0.1 + 0.7·(k − 0.2); the least of either margin over all loads. A yardstick for comparing, without antilock: only a test house "
           "says what is approved.");
    v.source = tr("UN R13-H, annex on the distribution of braking, from memory.");
    v.caution = tr(triedFirst);
    if (!v.figure.value || !v.lacksInWords.empty()) {
        v.figure.value.reset();
        v.reason = lacking(study, v.figure, v.lacksInWords);
    } else {
        const bool kept = v.figure.lowest() >= 0;
        v.level = kept ? Level::Good : Level::Caution;
        v.reason = kept            ? tr("Within it at every load, as a guide; no approval")
            : *v.figure.value >= 0 ? tr("Within it, but not surely: by {} ±{}", figure(*v.figure.value, v.style, study.system),
                  figure(v.figure.worstCase, v.style, study.system))
            : v.figure.highest() >= 0
            ? tr("Outside it, but not surely: by {} ±{}", figure(-*v.figure.value, v.style, study.system),
                figure(v.figure.worstCase, v.style, study.system))
            : tr("Outside it by {}: below the required efficiency", figure(-*v.figure.value, v.style, study.system));
        settle(study, v);
    }
    study.verdicts.push_back(std::move(v));
}

/// A leading shoe that its own friction holds grabs, and its wheel locks whatever the foot does. Moisture and a cold morning raise friction
/// by a quarter; common practice, no source.
constexpr double dampFriction = 0.25;

void addSelfLocking(Study& study)
{
    for (const Axle axle : { Axle::Front, Axle::Rear }) {
        const Corner* corner = study.after.at(axle).corner;
        if (!corner || corner->brakes != BrakeKind::Drums)
            continue;
        Verdict v = verdictOf(checks::selfLocking, { axle });
        v.style = style::share;
        v.wanted = dampFriction;
        v.figure = evaluate([&](Evaluator& s) { return figures::selfLockingMargin(s, corner->drum); });
        v.method = tr("Friction at which the leading shoe holds itself without being pressed, over the lining's friction, less one: moment "
                      "balance of the shoe about its pivot. Under a quarter a damp morning may lock the wheel.");
        v.source = tr("Shigley's internal expanding shoe, from memory; a quarter: common practice.");
        v.caution = tr(triedFirst);
        if (!v.figure.value) {
            v.reason = lacking(study, v.figure);
        } else {
            const auto say = [&](double share) { return print(share, style::share, study.system); };
            const double lowest = v.figure.lowest();
            v.level = *v.figure.value < 0 ? Level::Stop : lowest >= dampFriction ? Level::Good : Level::Caution;
            v.reason = v.level == Level::Stop ? tr("The leading shoe holds itself: the brake grabs and the wheel locks. Other linings")
                : lowest < 0 ? tr("The leading shoe may hold itself: {} ±{} of friction are left, {} wanted at worst. Other "
                                  "linings, or measure their friction and the shoes",
                      say(*v.figure.value), say(v.figure.worstCase), say(dampFriction))
                             : tr("{} more friction before the leading shoe holds itself, {} at worst, {} wanted", say(*v.figure.value),
                                 say(lowest), say(dampFriction));
            // Shoes of the usual shape hardly move it: far from the limit that stand-in does not matter, an estimated friction does.
            if (isFine(v.level) && (!v.figure.estimated.empty() || lowest < 2 * dampFriction))
                settle(study, v);
        }
        study.verdicts.push_back(std::move(v));
    }
}

} // namespace

void addBalanceVerdicts(Study& study)
{
    if (!study.after.complete())
        return;
    const auto& loads = study.of<Balance>().after.loads;
    for (std::size_t i = 0; i < loads.size(); ++i)
        addLockOrder(study, loads[i], i);
    addRearUse(study);
    addYardstick(study);
    addSelfLocking(study);
}

} // namespace deepstop
