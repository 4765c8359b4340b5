#include "build/choices.hpp"
#include "chapters/clearance/checks.hpp"
#include "chapters/clearance/clearance_parts.hpp"
#include "chapters/clearance/gap_figures.hpp"
#include "language/language.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace deepstop::clearance {
namespace {

/// Least that a relief may leave of a bracket's plate, as a part of its thickness; common practice, no source.
constexpr double plateLeft = 0.5;

/// What stands still with hub and knuckle, against the caliper and the bracket that are bolted to it.
class Fixed {
public:
    Fixed(Study& study, Axle axle) : study_(study), axle_(axle), corner_(*study.after.at(axle).corner), hub_(hubOf(*study.build, axle)) { }

    void add()
    {
        for (std::size_t i = 0; i < hub_.keepOuts.size(); ++i)
            place(i);
        relief();
        plate();
    }

private:
    std::string say(double length) const { return print(length, style::gap, study_.system); }

    void place(std::size_t i)
    {
        const KeepOut& place = hub_.keepOuts[i];
        const std::string what = !place.name.empty() ? place.name
            : place.kind == KeepOutKind::Unknown     ? tr("keep-out {}", i + 1)
                                                     : fmt::format("{} {}", wordFor(place.kind, choices::keepOut), i + 1);
        const auto of = figures::lesserSide([&](Evaluator& s, Side side) { return figures::fixedGap(s, place, corner_, side, hub_); });
        const double wanted = figures::wantedRound(place, study_.build->wants);
        Verdict& v = judge::startGapVerdict(
            study_, checks::fixedParts, { axle_, {}, static_cast<int>(i) + 1 }, tr("Caliper and bracket to {}", what), of.figure);
        v.method =
            tr("Shortest distance from the place to the caliper's section and to the bracket's plate with its bolt heads, less reliefs in "
               "the plate's back; past their ends the distance across as well. A place whose angle is not read may stand at the caliper.");
        v.source = tr("Plane geometry; wanted gaps, metal round holes: common practice.");
        v.caution =
            tr("What is bolted on rubs or breaks where it bears on a corner: look at it with everything tight, at full lock both ways.");
        v.wanted = wanted;
        v.level = gapLevel(v.figure, wanted);
        v.reason = judge::gapReason(study_, v.figure, wanted);
        if (v.level == Level::Clear || v.level == Level::Unproven)
            return;
        // It hits only where it stands.
        const Reading& angle = place.clock.value ? corner_.mount.clock : place.clock;
        if (!angle.value) {
            v.figure.lacks.emplace_back(angle);
            v.figure.value.reset();
            v.level = Level::Unproven;
            v.reason = lacking(study_, v.figure, {});
        }
    }

    void relief()
    {
        const Bracket& b = corner_.bracket;
        if (b.reliefs.empty())
            return;
        Verdict& v = judge::startGapVerdict(study_, checks::relief, { axle_ }, tr("Metal left in the bracket"), evaluate([&](Evaluator& s) {
            double left = s(b.thickness);
            for (const Relief& each : b.reliefs)
                left = std::min(left, s(b.thickness) - s(each.depth)) + 0 * s(each.depth);
            return left;
        }));
        v.method = tr("The bracket's thickness less its deepest relief; half of the plate is wanted.");
        v.source = tr("Common practice, no source.");
        v.caution = tr("A bracket bends and breaks where it is thinnest: have it judged by a qualified engineer. Bending is not proven by "
                       "this program.");
        if (judge::unproven(study_, v))
            return;
        const double wanted = plateLeft * b.thickness.value.value_or(0);
        v.wanted = wanted;
        v.level = v.figure.highest() <= 0 ? Level::Stop : v.figure.lowest() >= wanted ? Level::Good : Level::Caution;
        v.reason = tr("{} left, {} wanted", say(*v.figure.value), say(wanted));
    }

    /// A plate between knuckle and hub that is not as it was when the car was read.
    void plate()
    {
        const ShieldPart& part = corner_.shield;
        const bool mayHaveBeen = part.lies == PlateLies::Unknown && part.state == ShieldState::Removed;
        if ((part.lies != PlateLies::KnuckleAndHub && !mayHaveBeen) || part.state == ShieldState::AsFound
            || part.state == ShieldState::Trimmed)
            return;
        Verdict& v = judge::startGapVerdict(study_, checks::shieldPlate, { axle_ }, tr("Clamped plate of the shield"),
            evaluate([&](Evaluator& s) { return part.state == ShieldState::Removed ? s(part.plate) : 0 * s(part.plate); }));
        v.method = tr(
            "A plate between knuckle and hub that is taken out lets the hub in by its thickness: rotor, wheel and studs with it, not the "
            "caliper.");
        v.source = tr("Plane geometry.");
        v.caution = tr("A bearing unit whose plate was taken out may stand loose on its bolts: ask the maker of the bearing.");
        if (part.readWith == YesNo::Yes) {
            v.figure.lacks.clear();
            v.level = Level::Good;
            v.reason = tr("Hub and slot were read with the plate as it is here");
            return;
        }
        v.level = Level::Unproven;
        if (mayHaveBeen) {
            v.figure = {};
            v.lacksInWords.push_back(tr("whether the shield's plate was clamped between knuckle and hub, {}", judge::wordFor(axle_)));
            v.reason = lacking(study_, v.figure, v.lacksInWords);
            return;
        }
        if (!v.figure.value)
            v.reason = lacking(study_, v.figure, {});
        else if (part.state == ShieldState::Removed)
            v.reason = tr("Taken out, it lets hub, rotor and wheel in by {}: read lugs, slot's middle and gaps again, then say so",
                say(*v.figure.value));
        else
            v.reason = tr("Another plate may move hub, rotor and wheel: read lugs, slot's middle and gaps again, then say so");
        v.figure.value.reset();
    }

    Study& study_;
    Axle axle_;
    const Corner& corner_;
    const Hub& hub_;
};

} // namespace

void addFixedVerdicts(Study& study, Axle axle)
{
    const Corner* corner = study.after.at(axle).corner;
    if (corner && corner->brakes == BrakeKind::Discs)
        Fixed(study, axle).add();
}

} // namespace deepstop::clearance
