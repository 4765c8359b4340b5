/// The smallest changes that bring balance, travel and effort into what is wanted, each tried in full.

#include "chapters/balance/balance_chapter.hpp"

#include "chapters/balance/checks.hpp"
#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"
#include "language/language.hpp"
#include "materials/sold.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <limits>
#include <map>

namespace deepstop {
namespace {

/// What a change is tried for, in the order of what hurts most; at the readings' own values but for what the axles lock apart.
struct Outcome {
    double apart; ///< least over the loads
    double rearUse;
    double strokeShare;
    double effort;
};

constexpr int comesApart = 2;

/// One change of hydraulics or of one corner.
struct BalanceChange {
    std::string title;
    std::function<void(Hydraulics&)> ofHydraulics;
    Axle axle = Axle::Front;
    std::function<void(Corner&)> ofCorner;
    std::string rearOf; ///< id of the setup whose rear brake is put on as well
    double size; ///< how far from what is there, for putting the smallest first
    int trouble; ///< 0: a screw is turned, 1: pads, 2: hydraulics come apart (`comesApart`), 3: calipers are bought
    std::vector<std::string> costs;
};

/// Parts of a setup with a change in them, without a build of their own.
struct Trial {
    Hydraulics hydraulics;
    std::optional<Corner> corner;
    SetupParts parts;

    Trial(const Build& build, const SetupParts& now, const BalanceChange& change) : parts(now)
    {
        if (change.ofHydraulics) {
            hydraulics = *now.hydraulics;
            change.ofHydraulics(hydraulics);
            parts.hydraulics = &hydraulics;
        } else if (change.ofCorner) {
            AxleParts& axle = change.axle == Axle::Front ? parts.front : parts.rear;
            corner = *axle.corner;
            change.ofCorner(*corner);
            axle.corner = &*corner;
        } else if (const Setup* other = findSetup(build, change.rearOf); other && other->rear) {
            parts.rear = { &*other->rear, findWheel(build, other->rear->wheel) };
        }
    }
    Trial(const Trial&) = delete;
    Trial& operator=(const Trial&) = delete;
};

Edit editOf(const std::string& setup, const BalanceChange& change)
{
    return [setup, ofHydraulics = change.ofHydraulics, axle = change.axle, ofCorner = change.ofCorner, rearOf = change.rearOf](
               const Build& build) -> std::optional<Build> {
        Build changed = build;
        Setup* own = setupIn(changed, setup);
        if (!own)
            return {};
        if (ofHydraulics) {
            // What was read on the line was read with what has just been changed.
            Hydraulics hydraulics = hydraulicsOf(changed, *own);
            ofHydraulics(hydraulics);
            own->hydraulics = std::move(hydraulics);
        } else if (ofCorner) {
            ofCorner(ownCorner(changed, setup, axle));
        } else {
            const Setup* other = findSetup(build, rearOf);
            if (!other || !other->rear)
                return {};
            ownCorner(changed, setup, Axle::Rear) = *other->rear;
        }
        return changed;
    };
}

bool isOff(const Verdict& v) { return v.level == Level::Stop || v.level == Level::Caution; }

/// Of a valve without a setting; common practice, no source.
constexpr double usualSlope = 0.35;

Reading chosen(double value) { return { value, 0.0, Known::Vendor, {}, {} }; }

class Adviser {
public:
    explicit Adviser(const Study& study) : study_(study), build_(*study.build), now_(outcomeOf(study.after)), apartNow_(apartOf(nullptr))
    {
        now_.apart = apartNow_.value.value_or(now_.apart);
    }

    /// Remedies of verdicts, by the verdicts' ids.
    std::map<std::string, std::vector<Remedy>> advise()
    {
        const Verdict* order = find(checks::lockOrder);
        for (const Verdict& v : study_.verdicts)
            if (v.check == &checks::lockOrder && order && v.level > order->level)
                order = &v;
        // What readings could mend wants readings, not parts. Antilock makes good what is not certain.
        // There nobody buys a valve or calipers: a screw is turned, or pads are chosen.
        const bool antilock = build_.car.antilock == YesNo::Yes;
        auto less = lessRear();
        if (antilock)
            std::erase_if(less, [](const BalanceChange& c) { return c.trouble >= comesApart; });
        if (order && isOff(*order) && *apartNow_.value < lockMargin)
            offer(
                *order, std::move(less), [&](const Outcome& o) { return antilock || o.apart >= lockMargin; },
                [&](const Figure& apart) { return (antilock ? *apart.value : apart.lowest()) >= lockMargin; },
                [](const Trial&, const Outcome&, const Figure& apart) { return apart; });
        if (const Verdict* use = find(checks::rearUse); use && isOff(*use) && *use->figure.value<rearUseWanted&& * apartNow_.value> 0)
            offer(
                *use, moreRear(), [](const Outcome& o) { return o.rearUse >= rearUseWanted; },
                [](const Figure& apart) { return *apart.value >= lockMargin; },
                [](const Trial&, const Outcome& o, const Figure&) {
                    Figure f;
                    f.value = o.rearUse;
                    return f;
                });
        const double share = figures::setting(build_.wants.strokeShare, &Wants::strokeShare);
        const double greatest = figures::setting(build_.wants.greatestEffort, &Wants::greatestEffort);
        const auto anyOrder = [](const Figure&) { return true; };
        if (const Verdict* travel = find(checks::travel); travel && isOff(*travel) && *travel->figure.value > share)
            offer(
                *travel, masters(+1),
                [&](const Outcome& o) {
                    return o.strokeShare <= share && o.effort <= std::max(greatest, std::isfinite(now_.effort) ? now_.effort : 0);
                },
                anyOrder,
                [&](const Trial& trial, const Outcome&, const Figure&) {
                    return evaluate([&](Evaluator& s) { return travelOf(s, build_, trial.parts).strokeShare; });
                });
        if (const Verdict* effort = find(checks::effort); effort && isOff(*effort)) {
            const double z = limitOf(study_.of<Balance>().after);
            const double light = figures::setting(build_.wants.lightEffort, &Wants::lightEffort) * z;
            const double firm = figures::setting(build_.wants.firmEffort, &Wants::firmEffort) * z;
            const bool hard = *effort->figure.value >= firm;
            auto changes = masters(hard ? -1 : +1);
            add(changes, pads(Axle::Front, hard ? +1 : -1));
            offer(
                *effort, std::move(changes),
                [&](const Outcome& o) {
                    const bool reaches = !std::isfinite(o.strokeShare)
                        || o.strokeShare <= std::max(share, std::isfinite(now_.strokeShare) ? now_.strokeShare : share);
                    return reaches && (hard ? o.effort <= firm : o.effort >= light);
                },
                [&](const Figure& apart) { return apart.lowest() >= std::min(lockMargin, apartNow_.lowest()); },
                [&](const Trial& trial, const Outcome&, const Figure&) {
                    return evaluate([&](Evaluator& s) { return effortOf(s, build_, trial.parts); });
                });
        }
        return std::move(found_);
    }

private:
    [[nodiscard]] const Verdict* find(const Check& check) const
    {
        const Verdict* found = study_.verdict(check);
        return found && found->figure.value ? found : nullptr;
    }
    static void add(std::vector<BalanceChange>& to, std::vector<BalanceChange> more)
    {
        to.insert(to.end(), std::make_move_iterator(more.begin()), std::make_move_iterator(more.end()));
    }

    [[nodiscard]] std::vector<const LoadCase*> loads() const
    {
        std::vector<const LoadCase*> all { nullptr };
        for (const LoadCase& load : build_.loads)
            all.push_back(&load);
        return all;
    }

    [[nodiscard]] Outcome outcomeOf(const SetupParts& setup) const
    {
        Outcome o;
        o.apart = std::numeric_limits<double>::infinity();
        for (const LoadCase* load : loads())
            o.apart = std::min(o.apart, nominal([&](Evaluator& s) { return locksApart(s, build_, setup, load); }));
        o.rearUse = nominal([&](Evaluator& s) { return rearUse(s, build_, setup, nullptr); });
        o.strokeShare = nominal([&](Evaluator& s) { return travelOf(s, build_, setup).strokeShare; });
        o.effort = nominal([&](Evaluator& s) { return effortOf(s, build_, setup); });
        return o;
    }

    /// With its interval, of the load that leaves least; without a value where one of them is not known.
    /// @param setup null: as it is
    [[nodiscard]] Figure apartOf(const SetupParts* setup) const
    {
        std::optional<Figure> least;
        for (const LoadCase* load : loads()) {
            Figure laden = setup ? evaluate([&](Evaluator& s) { return locksApart(s, build_, *setup, load); }) : locksApartOf(study_, load);
            if (!least || !laden.value || (least->value && laden.lowest() < least->lowest()))
                least = std::move(laden);
            if (!least->value)
                break;
        }
        return *least;
    }

    /// Of each title's kind the smallest change that does it, four at most, the least trouble first.
    /// @param may a cheap look at what it does, at the readings' own values
    /// @param holds what has to be so of how far the axles lock apart
    template <class May, class Holds, class Gain>
    void offer(const Verdict& verdict, std::vector<BalanceChange> changes, May may, Holds holds, Gain gain)
    {
        std::ranges::stable_sort(changes, {}, [](const BalanceChange& c) { return std::pair { c.trouble, c.size }; });
        std::vector<std::string> kinds;
        auto& remedies = found_[verdict.id];
        for (BalanceChange& change : changes) {
            const std::string kind = change.title.substr(0, change.title.find(':'));
            if (remedies.size() >= 4 || std::ranges::find(kinds, kind) != kinds.end())
                continue;
            const Trial trial(build_, study_.after, change);
            Outcome o = outcomeOf(trial.parts);
            if (!std::isfinite(o.apart) || !may(o))
                continue;
            const Figure apart = apartOf(&trial.parts);
            if (!apart.value || !holds(apart))
                continue;
            o.apart = *apart.value;
            kinds.push_back(kind);
            auto costs = change.costs;
            add(costs, o);
            remedies.push_back({ change.title, gain(trial, o, apart), std::move(costs), editOf(study_.after.setup->id, change) });
        }
    }

    /// What the change does elsewhere.
    void add(std::vector<std::string>& costs, const Outcome& o) const
    {
        const auto moved = [&](std::string_view what, double was, double is, const Style& style) {
            if (!std::isfinite(was) || !std::isfinite(is))
                return;
            const auto a = print(was, style, study_.system);
            const auto b = print(is, style, study_.system);
            if (a != b)
                costs.push_back(fmt::format("{} {} → {}", what, a, b));
        };
        moved("effort", now_.effort, o.effort, style::force);
        moved("stroke", now_.strokeShare, o.strokeShare, style::share);
        moved(tr("rear's grip used"), now_.rearUse, o.rearUse, style::share);
        moved(tr("between the locks"), now_.apart, o.apart, style::share);
    }

    [[nodiscard]] static BalanceChange ofHydraulics(
        std::string title, std::function<void(Hydraulics&)> make, double size, int trouble, std::vector<std::string> costs)
    {
        return { std::move(title), std::move(make), Axle::Front, {}, {}, size, trouble, std::move(costs) };
    }
    [[nodiscard]] static BalanceChange ofCorner(
        std::string title, Axle axle, std::function<void(Corner&)> make, double size, int trouble, std::vector<std::string> costs)
    {
        return { std::move(title), {}, axle, std::move(make), {}, size, trouble, std::move(costs) };
    }
    [[nodiscard]] const Hydraulics& hydraulics() const { return *study_.after.hydraulics; }

    /// The valve's knee, at steps of 5 bar, or a valve where there is none.
    [[nodiscard]] std::vector<BalanceChange> knees(int way) const
    {
        std::vector<BalanceChange> changes;
        const Hydraulics& h = hydraulics();
        const bool there = h.valve == ValveKind::Adjustable || h.valve == ValveKind::LoadDependent;
        if (there && !h.rearKneePressure.value)
            return changes;
        if (!there && (way > 0 && h.valve != ValveKind::Fixed))
            return changes;
        constexpr double step = 5e5;
        const double from = h.rearKneePressure.value.value_or(80e5);
        for (int i = 1; i <= 14; ++i) {
            const double knee = std::round((from + way * i * step) / step) * step;
            if (knee < 15e5 || knee > 120e5)
                continue;
            const auto make = [knee, there](Hydraulics& own) {
                own.rearKneePressure = chosen(knee);
                if (!there) {
                    own.valve = ValveKind::Adjustable;
                    own.rearSlope = chosen(own.rearSlope.value.value_or(usualSlope));
                }
            };
            const auto at = print(knee, style::pressure, study_.system);
            changes.push_back(there
                    ? ofHydraulics(tr("Valve: set its split pressure to {}", at), make, std::abs(knee - from), 0,
                        { tr("trial stops on a closed place after each turn") })
                    : ofHydraulics(tr("Adjustable valve: split pressure {}", at), make, std::abs(knee - from), 2,
                        { tr("a valve to buy, two joints in the rear line, bleeding at the rear"), tr("a fixed valve comes out") }));
            if (!there && h.valve != ValveKind::Fixed)
                changes.back().costs.pop_back();
        }
        return changes;
    }

    /// Turns of the balance bar, in hundredths of the force.
    [[nodiscard]] std::vector<BalanceChange> bars(int way) const
    {
        std::vector<BalanceChange> changes;
        const Hydraulics& h = hydraulics();
        if (h.master != MasterKind::Twin || !h.barPosition.value)
            return changes;
        for (int i = 1; i <= 15; ++i) {
            const double bar = std::round(*h.barPosition.value * 100 - way * i) / 100;
            if (bar < 0.3 || bar > 0.8)
                continue;
            changes.push_back(ofHydraulics(tr("Balance bar: {} to the front", print(bar, style::share, study_.system)),
                [bar](Hydraulics& own) { own.barPosition = chosen(bar); }, std::abs(bar - *h.barPosition.value), 0,
                { tr("trial stops on a closed place after each turn") }));
        }
        return changes;
    }

    [[nodiscard]] std::vector<BalanceChange> pads(Axle axle, int way) const
    {
        std::vector<BalanceChange> changes;
        const Corner* corner = study_.after.at(axle).corner;
        if (corner->brakes != BrakeKind::Discs || !corner->pad.friction.value)
            return changes;
        const double now = *corner->pad.friction.value;
        std::vector<std::string> costs { tr("pads to buy and bed in{}",
            corner->costs.pads.value
                ? fmt::format(", {} {}", print(*corner->costs.pads.value, style::money, study_.system), build_.currency)
                : "") };
        for (const double friction : materials::padFrictions)
            if (way * (friction - now) > 0.01)
                changes.push_back(ofCorner(
                    tr("{} {} pads: friction {:.2f}", way > 0 ? tr("Fiercer") : tr("Milder"), judge::wordFor(axle), friction), axle,
                    [friction](Corner& own) {
                        own.pad.friction = chosen(friction);
                        own.pad.frictionOverTemperature.clear();
                    },
                    std::abs(friction - now), 1, costs));
        return changes;
    }

    [[nodiscard]] std::vector<BalanceChange> wheelCylinders(int way) const
    {
        std::vector<BalanceChange> changes;
        const Corner* corner = study_.after.rear.corner;
        if (corner->brakes != BrakeKind::Drums || !corner->drum.cylinderBore.value)
            return changes;
        const double now = *corner->drum.cylinderBore.value;
        for (const auto& sold : materials::wheelCylinderBores)
            if (way * (sold.bore - now) > 0.05e-3)
                changes.push_back(ofCorner(tr("Rear wheel cylinders: {}", sold.name), Axle::Rear,
                    [bore = sold.bore](Corner& own) { own.drum.cylinderBore = chosen(bore); }, std::abs(sold.bore - now), 2,
                    { tr("two cylinders to buy, drums off, bleeding at the rear") }));
        return changes;
    }

    /// Single pistons only: what stands beside others has its order.
    [[nodiscard]] std::vector<BalanceChange> frontPistons() const
    {
        std::vector<BalanceChange> changes;
        const Corner* corner = study_.after.front.corner;
        if (corner->brakes != BrakeKind::Discs || corner->caliper.pistons.size() != 1 || !corner->caliper.pistons[0].value)
            return changes;
        const double now = *corner->caliper.pistons[0].value;
        for (const double bore : materials::pistonBores)
            if (bore - now > 0.5e-3)
                changes.push_back(ofCorner(tr("Front calipers: {} pistons", print(bore, style::size, study_.system)), Axle::Front,
                    [bore](Corner& own) {
                        own.caliper.pistons.assign(1, chosen(bore));
                        own.caliper.give = {};
                    },
                    bore - now, 3, { tr("other calipers: every clearance and bolt is to be checked again, bleeding at the front") }));
        return changes;
    }

    [[nodiscard]] std::vector<BalanceChange> lessRear() const
    {
        auto changes = knees(-1);
        add(changes, bars(-1));
        add(changes, pads(Axle::Rear, -1));
        add(changes, pads(Axle::Front, +1));
        add(changes, wheelCylinders(-1));
        add(changes, frontPistons());
        return changes;
    }
    [[nodiscard]] std::vector<BalanceChange> moreRear() const
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
    [[nodiscard]] std::vector<BalanceChange> bothAxles() const
    {
        std::vector<BalanceChange> changes;
        if (study_.after.setup->rear)
            return changes;
        for (const Setup& other : build_.setups)
            if (&other != &build_.setups.front() && other.rear)
                changes.push_back({ tr("Both axles: with the rear of {}", other.name), {}, Axle::Rear, {}, other.id, 1, 3,
                    { tr("a rear kit to buy; what replaces a parking brake is to be seen to") } });
        return changes;
    }

    [[nodiscard]] std::vector<BalanceChange> masters(int way) const
    {
        std::vector<BalanceChange> changes;
        const Hydraulics& h = hydraulics();
        if (h.master == MasterKind::Twin || !h.masterBore.value)
            return changes;
        const double now = *h.masterBore.value;
        for (const auto& sold : materials::masterBores)
            if (way * (sold.bore - now) > 0.05e-3)
                changes.push_back(ofHydraulics(tr("Master cylinder: {} ({})", sold.name, print(sold.bore, style::fine, study_.system)),
                    [bore = sold.bore](Hydraulics& own) {
                        own.masterBore = chosen(bore);
                        own.linePressure = {};
                    },
                    std::abs(sold.bore - now), 2, { tr("a master cylinder to buy that fits booster and lines, bleeding all round") }));
        return changes;
    }

    const Study& study_;
    const Build& build_;
    std::map<std::string, std::vector<Remedy>> found_;
    Outcome now_;
    Figure apartNow_;
};

} // namespace

namespace {

/// The advice that these verdicts want: what it takes from them stands in its name, the rest it looks at itself.
std::string whatIsAsked(const Study& study)
{
    std::string name = fmt::format("advice for a stop of {:a}", limitOf(study.of<Balance>().after));
    for (const Verdict& v : study.verdicts)
        if (std::ranges::find(checks::ofBalance, v.check) != std::end(checks::ofBalance) && v.figure.value && isOff(v))
            name += fmt::format(", {} {} {:a}", v.id, static_cast<int>(v.level), *v.figure.value);
    return name;
}

} // namespace

void addBalanceAdvice(Study& study)
{
    if (!study.after.complete())
        return;
    const Verdict* order = study.verdict(checks::lockOrder);
    if (order && order->figure.value)
        for (auto& [id, remedies] : study.recall(whatIsAsked(study), [&] { return Adviser(study).advise(); }))
            std::ranges::find(study.verdicts, id, &Verdict::id)->remedies = remedies;
}

} // namespace deepstop
