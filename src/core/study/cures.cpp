#include "study/cures.hpp"

#include "fit/stance.hpp"
#include "study/figures.hpp"
#include "study/judge.hpp"
#include "study/parts.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
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

bool strikes(WheelGap which, const Wheel& wheel) { return which != WheelGap::Insets || !wheel.insets.empty(); }

/// Room of one corner in one wheel.
class Tried {
public:
    Tried(const Build& build, const Corner& corner, const Wheel& wheel) : build_(build), corner_(corner), wheel_(wheel) { }

    double nominally(WheelGap which) const
    {
        return nominal([&](Sample& s) { return figures::wheelGap(s, which, corner_, wheel_, build_.wants); });
    }
    Figure fully(WheelGap which) const
    {
        return evaluate([&](Sample& s) { return figures::wheelGap(s, which, corner_, wheel_, build_.wants); });
    }
    double wanted(WheelGap which) const { return figures::wantedOf(which, wheel_, build_.wants); }

    /// Every gap wide enough at nominal readings, allowing as much uncertainty as `allowance` has; a cheap sieve before `fully`.
    bool mayClear(const std::array<double, wheelGaps.size()>& allowance) const
    {
        return std::ranges::all_of(wheelGaps, [&](WheelGap which) { return mayClear(which, allowance); });
    }
    bool mayClear(WheelGap which, const std::array<double, wheelGaps.size()>& allowance) const
    {
        // A gap that is not known is for the full evaluation to judge.
        return !strikes(which, wheel_) || !(nominally(which) < wanted(which) + allowance[static_cast<std::size_t>(which)] - 1e-12);
    }
    /// The same sieve for what helps one gap and worsens none that was not wide enough.
    bool mayHelp(const std::array<double, wheelGaps.size()>& allowance, const CornerResult& was) const
    {
        bool helps = false;
        for (const WheelGap which : wheelGaps) {
            if (!strikes(which, wheel_))
                continue;
            const auto before = was.room(which).gap.value;
            const bool failed = before && judge::gapLevel(was.room(which).gap, was.room(which).wanted) != Level::Clear;
            if (mayClear(which, allowance))
                helps = helps || failed;
            else if (!failed || !(nominally(which) >= *before - 1e-9) || !(nominally(which) > 0))
                return false;
        }
        return helps;
    }

    /// @param was what the gaps are now: one that is wide enough by far, now and then, is taken at its nominal size with today's uncertainty;
    ///            null: every gap in full
    std::pair<std::array<Figure, wheelGaps.size()>, Level> judged(const CornerResult* was = nullptr) const
    {
        std::array<Figure, wheelGaps.size()> gaps;
        Level worst = Level::Clear;
        for (const WheelGap which : wheelGaps)
            if (strikes(which, wheel_)) {
                Figure& gap = gaps[static_cast<std::size_t>(which)];
                const Figure* now = was && was->wheel == &wheel_ ? &was->room(which).gap : nullptr;
                const double size = now && judge::gapLevel(*now, wanted(which)) == Level::Clear ? nominally(which) : std::numeric_limits<double>::quiet_NaN();
                if (now && size >= wanted(which) + 2 * now->worstCase) {
                    gap = *now;
                    gap.value = size;
                } else {
                    gap = fully(which);
                }
                worst = std::max(worst, judge::gapLevel(gap, wanted(which)));
            }
        return { std::move(gaps), worst };
    }

private:
    const Build& build_;
    const Corner& corner_;
    const Wheel& wheel_;
};

/// What a gap's uncertainty will be about, elsewhere. Beside weights and valve it jumps where they come over the caliper, so nothing is taken.
double allowanceOf(const CornerResult& result, WheelGap which)
{
    const Figure& gap = result.room(which).gap;
    return gap.value && which != WheelGap::Insets ? gap.worstCase : 0;
}

class Search {
public:
    Search(const Study& study, Axle axle, const library::Library* library)
        : study_(study), build_(*study.build), axle_(axle), result_(study.after.at(axle)), library_(library)
    {
        for (const WheelGap which : wheelGaps)
            allowance_[static_cast<std::size_t>(which)] = allowanceOf(result_, which);
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
    Cure weigh(Cure::Kind kind, std::string title, const Corner& corner, const Wheel& wheel, std::vector<std::string> costs) const
    {
        Cure cure { kind, std::move(title), {}, {}, Level::Unproven, {}, {}, {}, {}, 1, {}, nullptr };
        std::tie(cure.gaps, cure.level) = Tried(build_, corner, wheel).judged(library_ ? nullptr : &result_);
        for (const WheelGap which : wheelGaps)
            cure.wanted[static_cast<std::size_t>(which)] = figures::wantedOf(which, wheel, build_.wants);
        const Corner& now = *result_.corner;
        const Hub& hub = hubOf(build_, axle_);
        cure.outward = evaluate([&](Sample& s) { return figures::wheelMiddle(s, corner, wheel) - figures::wheelMiddle(s, now, *result_.wheel); });
        cure.inNut = evaluate([&](Sample& s) { return figures::studEngagement(s, corner, wheel, hub).inNut; });
        cure.heatStore = evaluate([&](Sample& s) { return figures::heatStore(s, corner.rotor); });
        if (&wheel != result_.wheel)
            cure.wheelMass = evaluate([&](Sample& s) { return s(wheel.mass, false) - s(result_.wheel->mass, false); });
        const auto torque = [&](const Corner& c) { return nominal([&](Sample& s) { return figures::effectiveRadius(s, c) * figures::pistonArea(s, c); }); };
        cure.torqueShare = torque(corner) / torque(now);
        cure.costs = std::move(costs);
        for (std::string& cost : commonCosts(cure, now, wheel))
            cure.costs.push_back(std::move(cost));
        cure.applied = applied(corner, wheel);
        return cure;
    }

private:
    enum class Does { Nothing, HelpsOne, CuresAll };

    /// Whether every gap is then wide enough, or at least one that was not is, and none that was not has become worse.
    Does does(const Cure& cure, const Wheel& wheel) const
    {
        bool all = true;
        bool helps = false;
        for (const WheelGap which : wheelGaps) {
            const Figure& gap = cure.gap(which);
            const Figure& was = result_.room(which).gap;
            if (!strikes(which, wheel))
                continue;
            if (!gap.value) {
                if (was.value)
                    return Does::Nothing;
                continue;
            }
            // What was not proven before need not be now; what cures here and strikes there is no cure.
            const bool wide = gap.lowest() >= figures::wantedOf(which, wheel, build_.wants) - 1e-12 && (!gap.provisional() || was.provisional() || !was.value);
            const bool failed = was.value && judge::gapLevel(was, result_.room(which).wanted) != Level::Clear;
            if (wide)
                helps = helps || failed;
            else if (failed && gap.lowest() >= was.lowest() - 1e-9 && gap.lowest() > 0)
                all = false;
            else
                return Does::Nothing;
        }
        return all ? Does::CuresAll : helps ? Does::HelpsOne : Does::Nothing;
    }

    /// Keeps it if it does anything.
    Does offer(Cure::Kind kind, std::string title, const Corner& corner, const Wheel& wheel, std::vector<std::string> costs)
    {
        Cure cure = weigh(kind, std::move(title), corner, wheel, std::move(costs));
        const Does what = does(cure, wheel);
        if (what != Does::Nothing)
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
            costs.push_back(fmt::format("wheel {} further {}", say(std::abs(*cure.outward.value)), *cure.outward.value > 0 ? "out" : "in"));
        if (cure.kind == Cure::Kind::Spacer || &wheel != result_.wheel)
            costs.push_back(cure.inNut.value ? fmt::format("{} of stud in the nut", say(*cure.inNut.value)) : std::string("measure the studs first"));
        const double store = nominal([&](Sample& s) { return figures::heatStore(s, now.rotor); });
        if (cure.kind == Cure::Kind::Rotor)
            costs.push_back(cure.heatStore.value && std::isfinite(store) ? fmt::format("heat store {}", parts::percentChange(*cure.heatStore.value, store)) : std::string("heat store not known"));
        if (cure.kind == Cure::Kind::Rotor || cure.kind == Cure::Kind::Caliper)
            costs.push_back(std::isfinite(cure.torqueShare) ? fmt::format("torque {}", parts::percentChange(cure.torqueShare, 1)) : std::string("torque not known"));
        if (cure.wheelMass.value && *cure.wheelMass.value != 0)
            costs.push_back(fmt::format("wheel {}", printChange(*cure.wheelMass.value, style::partMass, study_.system)));
        for (const auto& [which, word] : { std::pair { WheelGap::Barrel, "barrel" }, std::pair { WheelGap::Spokes, "spokes" } })
            costs.push_back(cure.gap(which).value ? fmt::format("{} {}", word, say(*cure.gap(which).value)) : fmt::format("{} not known", word));
        return costs;
    }

    std::shared_ptr<const Build> applied(Corner corner, const Wheel& wheel) const
    {
        auto build = std::make_shared<Build>(build_);
        if (!findWheel(*build, wheel.id))
            build->wheels.push_back(wheel);
        corner.wheel = wheel.id;
        auto& setup = *std::ranges::find(build->setups, study_.after.setup->id, &Setup::id);
        (axle_ == Axle::Front ? setup.front : setup.rear) = std::move(corner);
        return build;
    }

    void spacer()
    {
        const double there = result_.corner->spacer.value.value_or(0);
        const auto& sizes = fit::spacerSizes();
        gentlest(static_cast<int>(sizes.size()), [&](int i) {
            const double size = sizes[static_cast<std::size_t>(i)];
            if (size <= there)
                return Does::Nothing;
            Corner corner = *result_.corner;
            corner.spacer = { size, 0.05e-3, Known::Vendor, {}, {} };
            return Tried(build_, corner, *result_.wheel).mayHelp(allowance_, result_) ? offer(Cure::Kind::Spacer, fmt::format("Spacer {}", say(size)), corner, *result_.wheel, {}) : Does::Nothing;
        });
    }

    void smallerRotor()
    {
        const Reading& diameter = result_.corner->rotor.outerDiameter;
        if (!diameter.value)
            return;
        gentlest(rotorSteps, [&](int i) {
            Corner corner = *result_.corner;
            corner.rotor.outerDiameter.value = *diameter.value - (i + 1) * rotorStep;
            if (!Tried(build_, corner, *result_.wheel).mayHelp(allowance_, result_))
                return Does::Nothing;
            return offer(Cure::Kind::Rotor, fmt::format("Rotor {}, caliper lower", say(*corner.rotor.outerDiameter.value)), corner, *result_.wheel,
                { fmt::format("caliper {} nearer the axle: its bracket is another", say((i + 1) * rotorStep / 2)) });
        });
    }

    void wheelsOfBuild()
    {
        for (const Wheel& wheel : build_.wheels) {
            if (&wheel == result_.wheel)
                continue;
            Corner corner = *result_.corner;
            corner.wheel = wheel.id;
            std::vector<std::string> costs;
            if (wheel.offset.value && result_.wheel->offset.value && *wheel.offset.value != *result_.wheel->offset.value)
                costs.push_back(fmt::format("offset {}", printChange(*wheel.offset.value - *result_.wheel->offset.value, style::gap, study_.system)));
            offer(Cure::Kind::Wheel, wheel.name, corner, wheel, std::move(costs));
        }
    }

    void wheelsOfLibrary()
    {
        std::vector<const Wheel*> wheels;
        for (const auto& shelved : library_->wheels)
            if (!findWheel(build_, shelved.part.id) && shelved.part.barrel.size() >= 2 && shelved.part.offset.value && result_.wheel->offset.value
                && std::abs(*shelved.part.offset.value - *result_.wheel->offset.value) <= offsetReach)
                wheels.push_back(&shelved.part);
        // The nearest in size, then in offset.
        std::ranges::stable_sort(wheels, {}, [this](const Wheel* w) { return std::pair { std::abs(w->nominalDiameter - result_.wheel->nominalDiameter), std::abs(*w->offset.value - *result_.wheel->offset.value) }; });
        std::size_t named = 0;
        for (const Wheel* wheel : wheels) {
            if (named == mostOfLibrary)
                return;
            Corner corner = *result_.corner;
            corner.wheel = wheel->id;
            if (Tried(build_, corner, *wheel).mayClear({}) && offer(Cure::Kind::Wheel, wheel->name, corner, *wheel, { "from the parts library: bolt circle and bore to be checked" }) != Does::Nothing)
                ++named;
        }
    }

    void calipersOfLibrary()
    {
        struct Found {
            Corner corner;
            double area;
        };
        std::vector<Found> found;
        const double now = nominal([&](Sample& s) { return figures::pistonArea(s, *result_.corner); });
        for (const auto& shelved : library_->calipers) {
            Corner corner = *result_.corner;
            corner.caliper = shelved.part;
            corner.caliper.from = shelved.id;
            // The rotor has to turn in it.
            const double beside = nominal([&](Sample& s) { return (s(corner.caliper.slotWidth) - s(corner.rotor.thickness)) / 2; });
            if (!(beside >= figures::setting(build_.wants.faceGap, &Wants::faceGap)) || !Tried(build_, corner, *result_.wheel).mayClear({}))
                continue;
            found.push_back({ corner, nominal([&](Sample& s) { return figures::pistonArea(s, corner); }) });
        }
        // The one nearest in piston area changes the pedal least.
        std::ranges::stable_sort(found, {}, [now](const Found& f) { return std::isfinite(f.area / now) ? std::abs(f.area / now - 1) : 1e9; });
        std::size_t named = 0;
        for (const Found& f : found) {
            if (named == mostOfLibrary)
                return;
            std::vector<std::string> costs;
            const auto spacing = f.corner.caliper.mountSpacing.value;
            const auto was = result_.corner->mount.boltSpacing.value;
            if (spacing && was && std::abs(*spacing - *was) > 0.5e-3)
                costs.push_back(fmt::format("holes {} apart, not {}: another bracket", say(*spacing), say(*was)));
            costs.push_back("pads of its own; read its slot and centring again");
            if (offer(Cure::Kind::Caliper, "Caliper: " + f.corner.caliper.name, f.corner, *result_.wheel, std::move(costs)) != Does::Nothing)
                ++named;
        }
    }

    const Study& study_;
    const Build& build_;
    Axle axle_;
    const CornerResult& result_;
    const library::Library* library_;
    std::array<double, wheelGaps.size()> allowance_ {};
    std::vector<Cure> cures_;
};

/// Why nothing can be searched for on this axle, or empty.
std::string nothingToSearch(const CornerResult& result)
{
    if (!result.corner || !result.wheel)
        return "no wheel chosen";
    for (const WheelGap which : wheelGaps) {
        if (!strikes(which, *result.wheel))
            continue;
        const Figure& gap = result.room(which).gap;
        if (!gap.value)
            return "the gaps to the wheel are not known yet";
        if (gap.provisional() && which != WheelGap::Spokes)
            return "the wheel's barrel is not measured where the caliper is";
    }
    return {};
}

} // namespace

std::vector<Cure> curesOf(const Study& study, Axle axle, const library::Library* library) { return Search(study, axle, library).all(); }

std::vector<Candidate> candidateWheels(const Study& study, Axle axle, const library::Library* library)
{
    std::vector<Candidate> candidates;
    const CornerResult& result = study.after.at(axle);
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
            const double offset = nominal([&](Sample& s) { return s(wheel.offset) - figures::wheelFace(s, corner) + figures::wheelFace(s, *found); });
            if (std::isfinite(offset))
                candidate.offset = offset;
        }
        candidates.push_back(std::move(candidate));
    };
    for (const Wheel& wheel : study.build->wheels)
        add(wheel, true);
    if (library)
        for (const auto& shelved : library->wheels)
            if (!findWheel(*study.build, shelved.part.id))
                add(shelved.part, false);
    // Clear and tight ones by their room, then those nobody can tell, then those that hit.
    const auto rank = [](const Candidate& c) { return std::pair { isBad(c.level) ? 2 : c.level == Level::Unproven ? 1 : 0, -c.smallest.value_or(-1e9) }; };
    std::ranges::stable_sort(candidates, {}, rank);
    return candidates;
}

LargestRotor largestRotor(const Study& study, Axle axle)
{
    const CornerResult& result = study.after.at(axle);
    LargestRotor answer;
    answer.why = nothingToSearch(result);
    if (!answer.why.empty())
        return answer;
    Corner corner = *result.corner;
    const Wheel& wheel = *result.wheel;
    const Tried tried(*study.build, corner, wheel);
    std::array<double, wheelGaps.size()> allowance {};
    for (const WheelGap which : wheelGaps)
        allowance[static_cast<std::size_t>(which)] = allowanceOf(result, which);
    // Under the barrel room shrinks as the rotor grows, so halving finds where it ends; beside the spokes it may come and go, so from there
    // every millimetre is tried, and the last word is a full evaluation.
    constexpr int least = 200;
    const auto under = [&](int millimetres) {
        corner.rotor.outerDiameter.value = millimetres * 1e-3;
        return tried.mayClear(WheelGap::Barrel, allowance);
    };
    int low = least;
    int high = 600;
    if (!under(low)) {
        answer.why = "not even a rotor of 200 mm clears this wheel";
        return answer;
    }
    while (high - low > 1) {
        const int middle = (low + high) / 2;
        (under(middle) ? low : high) = middle;
    }
    const auto proven = [&](int millimetres) {
        corner.rotor.outerDiameter.value = millimetres * 1e-3;
        if (millimetres <= low && !tried.mayClear(allowance))
            return false;
        const auto gaps = tried.judged().first;
        for (const WheelGap which : wheelGaps)
            if (strikes(which, wheel) && !(gaps[static_cast<std::size_t>(which)].lowest() >= tried.wanted(which) - 1e-12)) {
                answer.limit = which;
                return false;
            }
        return true;
    };
    for (int size = low + 1; size >= least; --size)
        if (proven(size)) {
            // What the next one would strike.
            (void)proven(size + 1);
            answer.diameter = size * 1e-3;
            return answer;
        }
    answer.why = "no rotor from 200 mm up clears this wheel with this caliper";
    return answer;
}

OffsetRange offsetRange(const Study& study, Axle axle)
{
    const CornerResult& result = study.after.at(axle);
    OffsetRange answer;
    answer.why = nothingToSearch(result);
    if (!answer.why.empty())
        return answer;
    if (!result.wheel->offset.value) {
        answer.why = "the wheel's own offset is not known";
        return answer;
    }
    // Another offset with the same barrel and spokes is the same wheel pushed along the axle.
    constexpr int steps = 80;
    constexpr double step = 0.5e-3;
    Corner corner = *result.corner;
    const double there = corner.spacer.value.value_or(0);
    const Tried tried(*study.build, corner, *result.wheel);
    std::array<double, wheelGaps.size()> allowance {};
    for (const WheelGap which : wheelGaps)
        allowance[static_cast<std::size_t>(which)] = allowanceOf(result, which);
    const auto clears = [&](int i) {
        corner.spacer.value = there + i * step;
        return tried.mayClear(allowance);
    };
    std::optional<int> nearest;
    for (int i = 0; i <= steps && !nearest; ++i)
        nearest = clears(i) ? std::optional(i) : clears(-i) ? std::optional(-i) : std::nullopt;
    if (!nearest) {
        answer.why = "no offset within 40 mm of this wheel's clears";
        return answer;
    }
    int out = *nearest;
    int in = *nearest;
    while (out < steps && clears(out + 1))
        ++out;
    while (in > -steps && clears(in - 1))
        --in;
    const double own = *result.wheel->offset.value;
    answer.offsets = { own - out * step, own - in * step };
    answer.openLow = out == steps;
    answer.openHigh = in == -steps;
    return answer;
}

SmallestWheel smallestWheel(const Study& study, Axle axle, const library::Library* library)
{
    SmallestWheel answer;
    const CornerResult& result = study.after.at(axle);
    if (!result.corner || !result.standIns.empty())
        return answer;
    double top = 0;
    for (const fit::Outline& part : fit::caliperOutlines(result.shape))
        for (const geometry::Point p : part.chain)
            top = std::max(top, p.r);
    constexpr double leastMetal = 3e-3;
    for (int size = 14; size <= 20 && top > 0; ++size)
        if (*fit::beadSeatDiameter(size) / 2 - leastMetal < top)
            answer.impossible = size;
    for (const Candidate& candidate : candidateWheels(study, axle, library))
        if (candidate.level == Level::Clear && (!answer.proven || candidate.wheel->nominalDiameter < answer.proven->nominalDiameter))
            answer.proven = candidate.wheel;
    return answer;
}

std::string inWords(const LargestRotor& answer, UnitSystem system)
{
    if (!answer.diameter)
        return "Largest rotor with this caliper in this wheel: " + answer.why + ".";
    constexpr std::array limits { "the barrel", "the weights or the valve", "the spokes" };
    return fmt::format("Largest rotor with this caliper in this wheel: {}; the next comes too near {}.", print(*answer.diameter, style::size, system), limits[static_cast<std::size_t>(answer.limit)]);
}

std::string inWords(const OffsetRange& answer, UnitSystem system)
{
    if (!answer.offsets)
        return "Offsets of a wheel of this shape that clear: " + answer.why + ".";
    return fmt::format("Offsets of a wheel of this shape that clear: ET {} to {}{}.", print(answer.offsets->first, style::gap, system), print(answer.offsets->second, style::gap, system),
        answer.openLow || answer.openHigh ? ", and perhaps beyond, where nobody looked" : "");
}

std::string inWords(const SmallestWheel& answer)
{
    std::string text = "Smallest wheel for this kit: ";
    text += answer.proven ? fmt::format("{} clears on its readings", answer.proven->name) : std::string("none of the measured ones is proven to clear");
    if (answer.impossible)
        text += fmt::format("; {} inches and under cannot, whatever their shape", *answer.impossible);
    return text + ".";
}

namespace parts {

Remedy spacerRemedy(const Study& study, Axle axle, std::string title, double size)
{
    const CornerResult& result = study.after.at(axle);
    Corner corner = *result.corner;
    corner.spacer = { size, 0.05e-3, Known::Vendor, {}, {} };
    const Cure tried = Search(study, axle, nullptr).weigh(Cure::Kind::Spacer, std::move(title), corner, *result.wheel, {});
    Figure thickness;
    thickness.value = size;
    return { tried.title, std::move(thickness), tried.costs, tried.applied };
}

std::vector<Remedy> roomRemedies(const std::vector<Cure>& cures, WheelGap which)
{
    std::vector<Remedy> remedies;
    for (const Cure& cure : cures)
        if (const Figure& gap = cure.gap(which); !gap.value || gap.lowest() >= cure.wanted[static_cast<std::size_t>(which)] - 1e-12)
            remedies.push_back({ cure.title, gap, cure.costs, cure.applied });
    return remedies;
}

} // namespace parts

} // namespace deepstop
