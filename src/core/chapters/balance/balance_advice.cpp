/// The smallest changes that bring balance, travel and effort into what is wanted, each tried in full.

#include "chapters/balance/balance_chapter.hpp"

#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"
#include "materials/sold.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace deepstop {
namespace {

/// What a change is tried for, in the order of what hurts most.
struct Outcome {
    Figure apart; ///< least over the loads
    double rearUse;
    Figure strokeShare;
    Figure effort;
};

struct Change {
    std::string title;
    std::shared_ptr<const Build> applied;
    double size; ///< how far from what is there, for putting the smallest first
    int trouble; ///< 0: a screw is turned, 1: pads, 2: hydraulics come apart, 3: calipers are bought
    std::vector<std::string> costs;
};

Reading chosen(double value) { return { value, 0.0, Known::Vendor, {}, {} }; }

class Adviser {
public:
    explicit Adviser(Study& study) : study_(study), build_(*study.build), setup_(study.after.setup->id), now_(outcomeOf(build_)) { }

    void advise()
    {
        Verdict* order = find("balance/lock-order");
        for (Verdict& v : study_.verdicts)
            if (v.id.starts_with("balance/lock-order") && order && v.level > order->level)
                order = &v;
        // What readings could mend wants readings, not parts. Antilock makes good what is not certain.
        const bool antilock = build_.car.antilock == YesNo::Yes;
        if (order && isOff(*order) && *now_.apart.value < lockMargin)
            offer(
                *order, lessRear(), [&](const Outcome& o) { return (antilock ? *o.apart.value : o.apart.lowest()) >= lockMargin; },
                [](const Outcome& o) { return o.apart; });
        if (Verdict* use = find("balance/rear-use"); use && isOff(*use) && *use->figure.value<rearUseWanted&& * now_.apart.value> 0)
            offer(
                *use, moreRear(), [&](const Outcome& o) { return o.rearUse >= rearUseWanted && *o.apart.value >= lockMargin; },
                [](const Outcome& o) {
                    Figure f;
                    f.value = o.rearUse;
                    return f;
                });
        const double share = figures::setting(build_.wants.strokeShare, &Wants::strokeShare);
        const double greatest = figures::setting(build_.wants.greatestEffort, &Wants::greatestEffort);
        if (Verdict* travel = find("balance/travel"); travel && isOff(*travel) && *travel->figure.value > share)
            offer(
                *travel, masters(+1),
                [&](const Outcome& o) {
                    return o.strokeShare.value && *o.strokeShare.value <= share && o.effort.value
                        && *o.effort.value <= std::max(greatest, now_.effort.value.value_or(0));
                },
                [](const Outcome& o) { return o.strokeShare; });
        if (Verdict* effort = find("balance/effort"); effort && isOff(*effort)) {
            const double z = limitOf(study_.of<Balance>().after);
            const double light = figures::setting(build_.wants.lightEffort, &Wants::lightEffort) * z;
            const double firm = figures::setting(build_.wants.firmEffort, &Wants::firmEffort) * z;
            const bool hard = *effort->figure.value >= firm;
            auto changes = masters(hard ? -1 : +1);
            add(changes, pads(Axle::Front, hard ? +1 : -1));
            offer(
                *effort, std::move(changes),
                [&](const Outcome& o) {
                    const bool reaches =
                        !o.strokeShare.value || *o.strokeShare.value <= std::max(share, now_.strokeShare.value.value_or(share));
                    const bool holds = o.apart.lowest() >= std::min(lockMargin, now_.apart.lowest());
                    return reaches && holds && o.effort.value && (hard ? *o.effort.value <= firm : *o.effort.value >= light);
                },
                [](const Outcome& o) { return o.effort; });
        }
    }

private:
    [[nodiscard]] Verdict* find(std::string_view id)
    {
        const auto found = std::ranges::find(study_.verdicts, id, &Verdict::id);
        return found != study_.verdicts.end() && found->figure.value ? &*found : nullptr;
    }
    [[nodiscard]] static bool isOff(const Verdict& v) { return v.level == Level::Stop || v.level == Level::Caution; }
    static void add(std::vector<Change>& to, std::vector<Change> more)
    {
        to.insert(to.end(), std::make_move_iterator(more.begin()), std::make_move_iterator(more.end()));
    }

    [[nodiscard]] SetupParts partsIn(const Build& build) const { return partsOf(build, *findSetup(build, setup_)); }

    [[nodiscard]] Outcome outcomeOf(const Build& build) const
    {
        const SetupParts setup = partsIn(build);
        Outcome o;
        o.apart = evaluate([&](Sample& s) { return locksApart(s, build, setup, nullptr); });
        for (const LoadCase& load : build.loads) {
            Figure laden = evaluate([&](Sample& s) { return locksApart(s, build, setup, &load); });
            if (!laden.value || (o.apart.value && laden.lowest() < o.apart.lowest()))
                o.apart = std::move(laden);
        }
        o.rearUse = nominal([&](Sample& s) { return rearUse(s, build, setup, nullptr); });
        o.strokeShare = evaluate([&](Sample& s) { return travelOf(s, build, setup).strokeShare; });
        o.effort = evaluate([&](Sample& s) { return effortOf(s, build, setup); });
        return o;
    }

    /// Of each title's kind the smallest change that does it, four at most, the least trouble first.
    template <class Does, class Gain>
    void offer(Verdict& verdict, std::vector<Change> changes, Does does, Gain gain)
    {
        std::ranges::stable_sort(changes, {}, [](const Change& c) { return std::pair { c.trouble, c.size }; });
        std::vector<std::string> kinds;
        for (Change& change : changes) {
            const std::string kind = change.title.substr(0, change.title.find(':'));
            if (verdict.remedies.size() >= 4 || std::ranges::find(kinds, kind) != kinds.end())
                continue;
            const Outcome o = outcomeOf(*change.applied);
            if (!o.apart.value || !does(o))
                continue;
            kinds.push_back(kind);
            auto costs = change.costs;
            add(costs, o);
            verdict.remedies.push_back({ change.title, gain(o), std::move(costs), std::move(change.applied) });
        }
    }

    /// What the change does elsewhere.
    void add(std::vector<std::string>& costs, const Outcome& o) const
    {
        const auto moved = [&](std::string_view what, const std::optional<double>& was, const std::optional<double>& is,
                               const Style& style) {
            if (!was || !is)
                return;
            const auto a = print(*was, style, study_.system);
            const auto b = print(*is, style, study_.system);
            if (a != b)
                costs.push_back(fmt::format("{} {} → {}", what, a, b));
        };
        moved("effort", now_.effort.value, o.effort.value, style::force);
        moved("stroke", now_.strokeShare.value, o.strokeShare.value, style::share);
        moved("rear's grip used", now_.rearUse, o.rearUse, style::share);
        moved("between the locks", now_.apart.value, o.apart.value, style::share);
    }

    template <class Make>
    [[nodiscard]] std::shared_ptr<const Build> with(Make make) const
    {
        auto changed = std::make_shared<Build>(build_);
        make(*changed);
        return changed;
    }
    /// The same with hydraulics of the setup's own.
    template <class Make>
    [[nodiscard]] std::shared_ptr<const Build> withHydraulics(Make make) const
    {
        return with([&](Build& b) {
            for (Setup& each : b.setups)
                if (each.id == setup_) {
                    Hydraulics own = hydraulicsOf(b, each);
                    make(own);
                    // What was read on the line was read with what has just been changed.
                    each.hydraulics = own;
                }
        });
    }
    [[nodiscard]] const Hydraulics& hydraulics() const { return *study_.after.hydraulics; }

    /// The valve's knee, at steps of 5 bar, or a valve where there is none.
    [[nodiscard]] std::vector<Change> knees(int way) const
    {
        std::vector<Change> changes;
        const Hydraulics& h = hydraulics();
        const bool there = h.valve == ValveKind::Adjustable || h.valve == ValveKind::LoadDependent;
        if (there && !h.rearKneePressure.value)
            return changes;
        if (!there && (way > 0 && h.valve != ValveKind::Fixed))
            return changes;
        constexpr double step = 5e5;
        constexpr double usualSlope = 0.35;
        const double from = h.rearKneePressure.value.value_or(80e5);
        for (int i = 1; i <= 14; ++i) {
            const double knee = std::round((from + way * i * step) / step) * step;
            if (knee < 15e5 || knee > 120e5)
                continue;
            auto applied = withHydraulics([&](Hydraulics& own) {
                own.rearKneePressure = chosen(knee);
                if (!there) {
                    own.valve = ValveKind::Adjustable;
                    own.rearSlope = chosen(h.rearSlope.value.value_or(usualSlope));
                }
            });
            const auto at = print(knee, style::pressure, study_.system);
            changes.push_back(there
                    ? Change { fmt::format("Valve: set its knee to {}", at), std::move(applied), std::abs(knee - from), 0,
                        { "trial stops on a closed place after each turn" } }
                    : Change { fmt::format("Adjustable valve: knee at {}", at), std::move(applied), std::abs(knee - from), 2,
                        { "a valve to buy, two joints in the rear line, bleeding at the rear", "a fixed valve comes out" } });
            if (!there && h.valve != ValveKind::Fixed)
                changes.back().costs.pop_back();
        }
        return changes;
    }

    /// Turns of the balance bar, in hundredths of the force.
    [[nodiscard]] std::vector<Change> bars(int way) const
    {
        std::vector<Change> changes;
        const Hydraulics& h = hydraulics();
        if (h.master != MasterKind::Twin || !h.barPosition.value)
            return changes;
        for (int i = 1; i <= 15; ++i) {
            const double bar = std::round(*h.barPosition.value * 100 - way * i) / 100;
            if (bar < 0.3 || bar > 0.8)
                continue;
            changes.push_back({ fmt::format("Balance bar: {} to the front", print(bar, style::share, study_.system)),
                withHydraulics([&](Hydraulics& own) { own.barPosition = chosen(bar); }), std::abs(bar - *h.barPosition.value), 0,
                { "trial stops on a closed place after each turn" } });
        }
        return changes;
    }

    [[nodiscard]] std::vector<Change> pads(Axle axle, int way) const
    {
        std::vector<Change> changes;
        const Corner* corner = study_.after.at(axle).corner;
        if (corner->brakes != BrakeKind::Discs || !corner->pad.friction.value)
            return changes;
        const double now = *corner->pad.friction.value;
        std::vector<std::string> costs { fmt::format("pads to buy and bed in{}",
            corner->costs.pads.value
                ? fmt::format(", {} {}", print(*corner->costs.pads.value, style::money, study_.system), build_.currency)
                : "") };
        for (const double friction : materials::padFrictions)
            if (way * (friction - now) > 0.01)
                changes.push_back(
                    { fmt::format("{} {} pads: friction {:.2f}", way > 0 ? "Fiercer" : "Milder", judge::wordFor(axle), friction),
                        with([&](Build& b) {
                            Corner& own = ownCorner(b, setup_, axle);
                            own.pad.friction = chosen(friction);
                            own.pad.frictionOverTemperature.clear();
                        }),
                        std::abs(friction - now), 1, costs });
        return changes;
    }

    [[nodiscard]] std::vector<Change> wheelCylinders(int way) const
    {
        std::vector<Change> changes;
        const Corner* corner = study_.after.rear.corner;
        if (corner->brakes != BrakeKind::Drums || !corner->drum.cylinderBore.value)
            return changes;
        const double now = *corner->drum.cylinderBore.value;
        for (const auto& sold : materials::wheelCylinderBores)
            if (way * (sold.bore - now) > 0.05e-3)
                changes.push_back({ fmt::format("Rear wheel cylinders: {}", sold.name),
                    with([&](Build& b) { ownCorner(b, setup_, Axle::Rear).drum.cylinderBore = chosen(sold.bore); }),
                    std::abs(sold.bore - now), 2, { "two cylinders to buy, drums off, bleeding at the rear" } });
        return changes;
    }

    /// Single pistons only: what stands beside others has its order.
    [[nodiscard]] std::vector<Change> frontPistons() const
    {
        std::vector<Change> changes;
        const Corner* corner = study_.after.front.corner;
        if (corner->brakes != BrakeKind::Discs || corner->caliper.pistons.size() != 1 || !corner->caliper.pistons[0].value)
            return changes;
        const double now = *corner->caliper.pistons[0].value;
        for (const double bore : materials::pistonBores)
            if (bore - now > 0.5e-3)
                changes.push_back({ fmt::format("Front calipers: {} pistons", print(bore, style::size, study_.system)), with([&](Build& b) {
                                       Caliper& own = ownCorner(b, setup_, Axle::Front).caliper;
                                       own.pistons[0] = chosen(bore);
                                       own.give = {};
                                   }),
                    bore - now, 3, { "other calipers: every clearance and bolt is to be checked again, bleeding at the front" } });
        return changes;
    }

    [[nodiscard]] std::vector<Change> lessRear() const
    {
        auto changes = knees(-1);
        add(changes, bars(-1));
        add(changes, pads(Axle::Rear, -1));
        add(changes, pads(Axle::Front, +1));
        add(changes, wheelCylinders(-1));
        add(changes, frontPistons());
        return changes;
    }
    [[nodiscard]] std::vector<Change> moreRear() const
    {
        auto changes = knees(+1);
        add(changes, bars(+1));
        add(changes, pads(Axle::Rear, +1));
        add(changes, wheelCylinders(+1));
        add(changes, bothAxles());
        add(changes, pads(Axle::Front, -1));
        return changes;
    }

    /// A proposal that also does the rear, where this one leaves it as found.
    [[nodiscard]] std::vector<Change> bothAxles() const
    {
        std::vector<Change> changes;
        if (study_.after.setup->rear)
            return changes;
        for (const Setup& other : build_.setups)
            if (&other != &build_.setups.front() && other.rear)
                changes.push_back({ fmt::format("Both axles: with the rear of {}", other.name),
                    with([&](Build& b) { ownCorner(b, setup_, Axle::Rear) = *other.rear; }), 1, 3,
                    { "a rear kit to buy; what replaces a parking brake is to be seen to" } });
        return changes;
    }

    [[nodiscard]] std::vector<Change> masters(int way) const
    {
        std::vector<Change> changes;
        const Hydraulics& h = hydraulics();
        if (h.master == MasterKind::Twin || !h.masterBore.value)
            return changes;
        const double now = *h.masterBore.value;
        for (const auto& sold : materials::masterBores)
            if (way * (sold.bore - now) > 0.05e-3)
                changes.push_back({ fmt::format("Master cylinder: {} ({})", sold.name, print(sold.bore, style::fine, study_.system)),
                    withHydraulics([&](Hydraulics& own) {
                        own.masterBore = chosen(sold.bore);
                        own.linePressure = {};
                    }),
                    std::abs(sold.bore - now), 2, { "a master cylinder to buy that fits booster and lines, bleeding all round" } });
        return changes;
    }

    Study& study_;
    const Build& build_;
    std::string setup_;
    Outcome now_;
};

} // namespace

void addBalanceAdvice(Study& study)
{
    if (!study.after.complete())
        return;
    const Verdict* order = study.verdict("balance/lock-order");
    if (order && order->figure.value)
        Adviser(study).advise();
}

} // namespace deepstop
