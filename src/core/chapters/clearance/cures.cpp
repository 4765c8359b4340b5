#include "chapters/clearance/cures.hpp"

#include "fit/stance.hpp"
#include "chapters/clearance/wheel_figures.hpp"
#include "language/language.hpp"
#include "verdict/judge.hpp"
#include "chapters/clearance/clearance_parts.hpp"
#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"
#include "chapters/clearance/tried.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <set>
#include <limits>

namespace deepstop {
namespace {

/// Rotors step down by 2 mm, at most 60 mm.
constexpr double rotorStep = 2e-3;
constexpr int rotorSteps = 30;
/// At most so many wheels and calipers of a library are named.
constexpr std::size_t mostOfLibrary = 2;
/// Wheels of a library may differ so much in offset.
constexpr double offsetReach = 15e-3;

/// A change to a corner that is to be tried.
struct Change {
    Cure::Kind kind;
    std::string title;
    const Wheel* wheel; ///< that is then on it
    std::function<void(Corner&)> make;
    std::vector<std::string> costs;
};

/// A spacer that is offered is a plain ring, unless the one that is there is bolted.
void slippedOn(Corner& own)
{
    if (own.spacerPart.kind == SpacerKind::Unknown)
        own.spacerPart.kind = SpacerKind::SlipOn;
}

class Search {
public:
    Search(const Study& study, Axle axle, const library::Library* library)
        : study_(study), build_(*study.build), axle_(axle), result_(study.after.at(axle)), gaps_(clearance::gapsNow(study, axle)),
          library_(library)
    {
        for (const WheelGap which : wheelGaps)
            allowance_[static_cast<std::size_t>(which)] = allowanceOf(gaps_, which);
    }

    std::vector<Cure> all()
    {
        if (!result_.corner || !result_.wheel)
            return {};
        spacer();
        smallerRotor();
        wheelsOfBuild();
        if (library_) {
            wheelsOfLibrary();
            calipersOfLibrary();
        }
        return std::move(cures_);
    }

private:
    std::string say(double length) const { return print(length, style::gap, study_.system); }

public:
    /// What a change does, whether it cures or not.
    Cure weigh(const Change& change, const Corner& corner) const
    {
        const Wheel& wheel = *change.wheel;
        Cure cure { change.kind, change.title, {}, {}, Level::Unproven, {}, {}, {}, {}, 1, {}, {} };
        std::tie(cure.gaps, cure.level) = judged(change, corner);
        for (const WheelGap which : wheelGaps)
            cure.wanted[static_cast<std::size_t>(which)] = figures::wantedOf(which, wheel, build_.wants);
        const Corner& now = *result_.corner;
        const Hub& hub = hubOf(build_, axle_);
        cure.outward =
            evaluate([&](Evaluator& s) { return figures::wheelMiddle(s, corner, wheel) - figures::wheelMiddle(s, now, *result_.wheel); });
        cure.inNut = evaluate([&](Evaluator& s) { return figures::studEngagement(s, corner, wheel, hub).inNut; });
        cure.heatStore = evaluate([&](Evaluator& s) { return figures::heatStore(s, corner); });
        if (&wheel != result_.wheel)
            cure.wheelMass = evaluate([&](Evaluator& s) { return s(wheel.mass, false) - s(result_.wheel->mass, false); });
        const auto torque = [&](const Corner& c) {
            return nominal([&](Evaluator& s) { return figures::effectiveRadius(s, c) * figures::pistonArea(s, c); });
        };
        cure.torqueShare = torque(corner) / torque(now);
        cure.costs = change.costs;
        for (std::string& cost : commonCosts(cure, now, wheel))
            cure.costs.push_back(std::move(cost));
        cure.edit = editOf(change);
        return cure;
    }

private:
    /// Gaps with a change made. Those in another wheel of the build have nothing to do with the wheel that is on, and are kept.
    [[nodiscard]] std::pair<Gaps, Level> judged(const Change& change, const Corner& corner) const
    {
        const Tried tried(build_, corner, *change.wheel);
        const bool otherOfBuild = change.wheel != result_.wheel && change.kind == Cure::Kind::Wheel && findWheel(build_, change.wheel->id);
        if (library_ || !otherOfBuild)
            return tried.judged(library_ || change.wheel != result_.wheel ? nullptr : &gaps_);
        return study_.recall(
            fmt::format("in {}{}", change.wheel->id, (axle_ == Axle::Front ? ", front" : ", rear")), [&] { return tried.judged(); });
    }

    enum class Does { Nothing, HelpsOne, CuresAll };

    /// Whether a wheel certainly does nothing, by its nominal gaps alone: no gap is wider at worst than it is nominally.
    bool doesNothing(const Corner& corner, const Wheel& wheel) const
    {
        const Tried tried(build_, corner, wheel);
        return std::ranges::any_of(wheelGaps, [&](WheelGap which) {
            if (!strikes(which, wheel))
                return false;
            const Figure& was = gaps_[static_cast<std::size_t>(which)];
            const double gap = tried.nominally(which);
            if (std::isnan(gap))
                return was.value.has_value();
            const bool failed = was.value && gapLevel(was, figures::wantedOf(which, *result_.wheel, build_.wants)) != Level::Clear;
            return gap < tried.wanted(which) - 1e-9 && (!failed || gap < was.lowest() - 1e-8 || !(gap > 0));
        });
    }

    /// Whether every gap is then wide enough, or at least one that was not is, and none that was not has become worse.
    Does does(const Cure& cure, const Wheel& wheel) const
    {
        bool all = true;
        bool helps = false;
        for (const WheelGap which : wheelGaps) {
            const Figure& gap = cure.gap(which);
            const Figure& was = gaps_[static_cast<std::size_t>(which)];
            if (!strikes(which, wheel))
                continue;
            if (!gap.value) {
                if (was.value)
                    return Does::Nothing;
                continue;
            }
            // What was not proven before need not be now; what cures here and strikes there is no cure.
            const bool wide = gap.lowest() >= figures::wantedOf(which, wheel, build_.wants) - 1e-12
                && (!gap.provisional() || was.provisional() || !was.value);
            const bool failed = was.value && gapLevel(was, figures::wantedOf(which, *result_.wheel, build_.wants)) != Level::Clear;
            if (wide)
                helps = helps || failed;
            else if (failed && gap.lowest() >= was.lowest() - 1e-9 && gap.lowest() > 0)
                all = false;
            else
                return Does::Nothing;
        }
        return all ? Does::CuresAll : helps ? Does::HelpsOne : Does::Nothing;
    }

    /// The chapter's verdicts on this axle of a build with such gaps to the wheel, without cures.
    [[nodiscard]] std::vector<Verdict> verdictsOf(std::shared_ptr<const Build> build, const Gaps& gaps) const
    {
        Study s;
        s.build = std::move(build);
        s.system = study_.system;
        s.remedies = Remedies::LeftOut;
        s.directory = study_.directory;
        s.before = partsOf(*s.build, *findSetup(*s.build, study_.before.setup->id));
        s.after = partsOf(*s.build, *findSetup(*s.build, study_.after.setup->id));
        s.keep(clearance::clearanceOn(s, axle_, gaps));
        clearance::addRoomVerdicts(s, axle_);
        clearance::addSeatVerdicts(s, axle_);
        return std::move(s.verdicts);
    }

    /// What gains clearance and takes the thread out of the nuts, the wheel off its pilot or the tyre into the fender is no cure.
    [[nodiscard]] bool stopsElsewhere(const Cure& cure)
    {
        if (!badNow_) {
            badNow_.emplace();
            for (const Verdict& v : verdictsOf(study_.build, gaps_))
                if (isBad(v.level))
                    badNow_->insert(v.id);
        }
        return std::ranges::any_of(verdictsOf(applied(cure.edit, build_), cure.gaps),
            [&](const Verdict& v) { return isBad(v.level) && !badNow_->contains(v.id); });
    }

    /// Keeps it if it does anything.
    Does offer(const Change& change, const Corner& corner)
    {
        Cure cure = weigh(change, corner);
        const Does what = does(cure, *change.wheel);
        if (what == Does::Nothing || stopsElsewhere(cure))
            return Does::Nothing;
        cures_.push_back(std::move(cure));
        return what;
    }

    /// Of steps from gentle to strong the first that cures everything, else the first that helps.
    template <class Step>
    void gentlest(int steps, Step step)
    {
        std::optional<Cure> helps;
        for (int i = 0; i < steps; ++i) {
            const std::size_t before = cures_.size();
            const Does what = step(i);
            if (what == Does::CuresAll)
                return;
            if (cures_.size() > before) {
                if (!helps)
                    helps = std::move(cures_.back());
                cures_.pop_back();
            }
        }
        if (helps)
            cures_.push_back(std::move(*helps));
    }

    std::vector<std::string> commonCosts(const Cure& cure, const Corner& now, const Wheel& wheel) const
    {
        std::vector<std::string> costs;
        if (cure.outward.value && std::abs(*cure.outward.value) >= 0.05e-3)
            costs.push_back(tr("wheel {} further {}", say(std::abs(*cure.outward.value)), *cure.outward.value > 0 ? tr("out") : tr("in")));
        if (cure.kind == Cure::Kind::Spacer || &wheel != result_.wheel)
            costs.push_back(
                cure.inNut.value ? tr("{} of stud in the nut", say(*cure.inNut.value)) : std::string(tr("measure the studs first")));
        const double store = nominal([&](Evaluator& s) { return figures::heatStore(s, now); });
        if (cure.kind == Cure::Kind::Rotor)
            costs.push_back(cure.heatStore.value && std::isfinite(store)
                    ? tr("heat store {}", judge::percentChange(*cure.heatStore.value, store))
                    : std::string(tr("heat store not known")));
        if (cure.kind == Cure::Kind::Rotor || cure.kind == Cure::Kind::Caliper)
            costs.push_back(std::isfinite(cure.torqueShare) ? tr("torque {}", judge::percentChange(cure.torqueShare, 1))
                                                            : std::string(tr("torque not known")));
        if (cure.wheelMass.value && *cure.wheelMass.value != 0)
            costs.push_back(tr("wheel {}", printChange(*cure.wheelMass.value, style::partMass, study_.system)));
        for (const auto& [which, word] : { std::pair { WheelGap::Barrel, "barrel" }, std::pair { WheelGap::Spokes, "spokes" } })
            costs.push_back(cure.gap(which).value ? fmt::format("{} {}", word, say(*cure.gap(which).value)) : tr("{} not known", word));
        return costs;
    }

    Edit editOf(const Change& change) const
    {
        // One of a library comes into the build.
        auto wheel = findWheel(build_, change.wheel->id) ? std::nullopt : std::optional(*change.wheel);
        return [setup = study_.after.setup->id, axle = axle_, id = change.wheel->id, wheel = std::move(wheel), make = change.make](
                   const Build& build) -> std::optional<Build> {
            Build changed = build;
            if (!setupIn(changed, setup) || (!wheel && !findWheel(changed, id)))
                return {};
            if (wheel && !findWheel(changed, id))
                changed.wheels.push_back(*wheel);
            Corner& corner = ownCorner(changed, setup, axle);
            corner.wheel = id;
            make(corner);
            return changed;
        };
    }

    Corner cornerWith(const Change& change) const
    {
        Corner corner = *result_.corner;
        corner.wheel = change.wheel->id;
        change.make(corner);
        return corner;
    }

    void spacer()
    {
        const double there = result_.corner->spacer.value.value_or(0);
        const auto& sizes = fit::spacerSizes();
        gentlest(static_cast<int>(sizes.size()), [&](int i) {
            const double size = sizes[static_cast<std::size_t>(i)];
            if (size <= there)
                return Does::Nothing;
            const Change change { Cure::Kind::Spacer, tr("Spacer {}", say(size)), result_.wheel,
                [size](Corner& own) {
                    own.spacer = { size, 0.05e-3, Known::Vendor, {}, {} };
                    slippedOn(own);
                },
                {} };
            const Corner corner = cornerWith(change);
            return Tried(build_, corner, *result_.wheel).mayHelp(allowance_, gaps_) ? offer(change, corner) : Does::Nothing;
        });
    }

    void smallerRotor()
    {
        const Reading& diameter = result_.corner->rotor.outerDiameter;
        if (!diameter.value)
            return;
        gentlest(rotorSteps, [&](int i) {
            const double smaller = *diameter.value - (i + 1) * rotorStep;
            const Change change { Cure::Kind::Rotor, tr("Rotor {}, caliper lower", say(smaller)), result_.wheel,
                [smaller](Corner& own) { changeTo(own.rotor.outerDiameter, smaller); },
                { tr("caliper {} nearer the axle: its bracket is another", say((i + 1) * rotorStep / 2)) } };
            const Corner corner = cornerWith(change);
            return Tried(build_, corner, *result_.wheel).mayHelp(allowance_, gaps_) ? offer(change, corner) : Does::Nothing;
        });
    }

    void wheelsOfBuild()
    {
        for (const Wheel& wheel : build_.wheels) {
            if (&wheel == result_.wheel)
                continue;
            std::vector<std::string> costs;
            if (wheel.offset.value && result_.wheel->offset.value && *wheel.offset.value != *result_.wheel->offset.value)
                costs.push_back(
                    tr("offset {}", printChange(*wheel.offset.value - *result_.wheel->offset.value, style::gap, study_.system)));
            const Change change { Cure::Kind::Wheel, wheel.name, &wheel, [](Corner&) {}, std::move(costs) };
            if (const Corner corner = cornerWith(change); !doesNothing(corner, wheel))
                offer(change, corner);
        }
    }

    void wheelsOfLibrary()
    {
        std::vector<const Wheel*> wheels;
        for (const auto& shelved : library_->wheels)
            if (!findWheel(build_, shelved.part.id) && shelved.part.barrel.size() >= 2 && shelved.part.offset.value
                && result_.wheel->offset.value && std::abs(*shelved.part.offset.value - *result_.wheel->offset.value) <= offsetReach)
                wheels.push_back(&shelved.part);
        // The nearest in size, then in offset.
        std::ranges::stable_sort(wheels, {}, [this](const Wheel* w) {
            return std::pair { std::abs(w->nominalDiameter - result_.wheel->nominalDiameter),
                std::abs(*w->offset.value - *result_.wheel->offset.value) };
        });
        std::size_t named = 0;
        for (const Wheel* wheel : wheels) {
            if (named == mostOfLibrary)
                return;
            const Change change { Cure::Kind::Wheel, wheel->name, wheel, [](Corner&) {},
                { tr("from the parts library: bolt circle and bore to be checked") } };
            const Corner corner = cornerWith(change);
            if (Tried(build_, corner, *wheel).mayClear({}) && offer(change, corner) != Does::Nothing)
                ++named;
        }
    }

    void calipersOfLibrary()
    {
        struct Found {
            Corner corner;
            std::function<void(Corner&)> make;
            double area;
        };
        std::vector<Found> found;
        const double now = nominal([&](Evaluator& s) { return figures::pistonArea(s, *result_.corner); });
        for (const auto& shelved : library_->calipers) {
            const auto make = [part = shelved.part, id = shelved.id](Corner& own) {
                own.caliper = part;
                own.caliper.from = id;
            };
            Corner corner = *result_.corner;
            make(corner);
            // The rotor has to turn in it.
            const double beside = nominal([&](Evaluator& s) { return (s(corner.caliper.slotWidth) - s(corner.rotor.thickness)) / 2; });
            if (!(beside >= figures::setting(build_.wants.faceGap, &Wants::faceGap)) || !Tried(build_, corner, *result_.wheel).mayClear({}))
                continue;
            found.push_back({ corner, make, nominal([&](Evaluator& s) { return figures::pistonArea(s, corner); }) });
        }
        // The one nearest in piston area changes the pedal least.
        std::ranges::stable_sort(
            found, {}, [now](const Found& f) { return std::isfinite(f.area / now) ? std::abs(f.area / now - 1) : 1e9; });
        std::size_t named = 0;
        for (const Found& f : found) {
            if (named == mostOfLibrary)
                return;
            std::vector<std::string> costs;
            const auto spacing = f.corner.caliper.mountSpacing.value;
            const auto was = result_.corner->mount.boltSpacing.value;
            if (spacing && was && std::abs(*spacing - *was) > 0.5e-3)
                costs.push_back(tr("holes {} apart, not {}: another bracket", say(*spacing), say(*was)));
            costs.push_back(tr("pads of its own; read its slot and centring again"));
            if (offer({ Cure::Kind::Caliper, tr("Caliper: {}", f.corner.caliper.name), result_.wheel, f.make, std::move(costs) }, f.corner)
                != Does::Nothing)
                ++named;
        }
    }

    const Study& study_;
    const Build& build_;
    Axle axle_;
    AxleParts result_;
    Gaps gaps_; ///< the worse side of each
    const library::Library* library_;
    std::array<double, wheelGaps.size()> allowance_ {};
    std::vector<Cure> cures_;
    std::optional<std::set<std::string>> badNow_; ///< ids of what hits or stops as it is, once it is known
};

} // namespace

std::vector<Cure> curesOf(const Study& study, Axle axle, const library::Library* library) { return Search(study, axle, library).all(); }

namespace {

/// So many wheels of a library are judged in full.
constexpr std::size_t mostCandidates = 40;

/// Those of a library that leave the caliper the widest smallest gap at nominal readings; those whose gaps nobody can tell come last.
std::vector<const Wheel*> mostPromising(const Study& study, const Corner& corner, const library::Library& library)
{
    std::vector<std::pair<double, const Wheel*>> sieved;
    for (const auto& shelved : library.wheels) {
        if (findWheel(*study.build, shelved.part.id))
            continue;
        const Tried tried(*study.build, corner, shelved.part);
        double smallest = std::numeric_limits<double>::infinity();
        for (const WheelGap which : wheelGaps)
            if (strikes(which, shelved.part))
                if (const double gap = tried.nominally(which); std::isfinite(gap))
                    smallest = std::min(smallest, gap);
        sieved.emplace_back(std::isfinite(smallest) ? -smallest : std::numeric_limits<double>::infinity(), &shelved.part);
    }
    std::ranges::stable_sort(sieved, {}, &std::pair<double, const Wheel*>::first);
    std::vector<const Wheel*> best;
    for (std::size_t i = 0; i < sieved.size() && i < mostCandidates; ++i)
        best.push_back(sieved[i].second);
    return best;
}

} // namespace

std::vector<Candidate> candidateWheels(const Study& study, Axle axle, const library::Library* library)
{
    std::vector<Candidate> candidates;
    const CornerClearance& result = study.of<Clearance>().after.at(axle).left;
    if (!result.corner)
        return candidates;
    const Corner* found = study.build->setups.empty() ? nullptr : cornerOf(*study.build, study.build->setups.front(), axle);
    const auto add = [&](const Wheel& wheel, bool ofBuild) {
        Corner corner = *result.corner;
        corner.wheel = wheel.id;
        Candidate candidate { &wheel, ofBuild, {}, Level::Unproven, {}, {} };
        std::tie(candidate.gaps, candidate.level) = Tried(*study.build, corner, wheel).judged();
        for (const Figure& gap : candidate.gaps)
            if (gap.value)
                candidate.smallest = std::min(candidate.smallest.value_or(1e9), *gap.value);
        if (found) {
            const double offset =
                nominal([&](Evaluator& s) { return s(wheel.offset) - figures::wheelFace(s, corner) + figures::wheelFace(s, *found); });
            if (std::isfinite(offset))
                candidate.offset = offset;
        }
        candidates.push_back(std::move(candidate));
    };
    for (const Wheel& wheel : study.build->wheels)
        add(wheel, true);
    if (library)
        for (const Wheel* wheel : mostPromising(study, *result.corner, *library))
            add(*wheel, false);
    // Clear and tight ones by their room, then those nobody can tell, then those that hit.
    const auto rank = [](const Candidate& c) {
        return std::pair { isBad(c.level) ? 2 : c.level == Level::Unproven ? 1 : 0, -c.smallest.value_or(-1e9) };
    };
    std::ranges::stable_sort(candidates, {}, rank);
    return candidates;
}

namespace clearance {

Remedy spacerRemedy(const Study& study, Axle axle, std::string title, double size)
{
    const AxleParts& result = study.after.at(axle);
    const Change change { Cure::Kind::Spacer, std::move(title), result.wheel,
        [size](Corner& own) {
            // What lay behind the wheel in the trial stays what it was, whichever spacer comes now.
            if (own.spacerInTrial == YesNo::Yes && own.washers.value)
                changeTo(own.washers, *own.washers.value + own.spacer.value.value_or(0));
            own.spacerInTrial = YesNo::No;
            own.spacer = { size, 0.05e-3, Known::Vendor, {}, {} };
            slippedOn(own);
        },
        {} };
    Corner corner = *result.corner;
    change.make(corner);
    const Cure tried = Search(study, axle, nullptr).weigh(change, corner);
    Figure thickness;
    thickness.value = size;
    return { tried.title, std::move(thickness), tried.costs, tried.edit };
}

std::vector<Remedy> roomRemedies(const std::vector<Cure>& cures, WheelGap which)
{
    std::vector<Remedy> remedies;
    for (const Cure& cure : cures)
        if (const Figure& gap = cure.gap(which); !gap.value || gap.lowest() >= cure.wanted[static_cast<std::size_t>(which)] - 1e-12)
            remedies.push_back({ cure.title, gap, cure.costs, cure.edit });
    return remedies;
}

} // namespace clearance

} // namespace deepstop
