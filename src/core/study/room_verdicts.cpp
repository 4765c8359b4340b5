#include "materials/materials.hpp"
#include "study/figures.hpp"
#include "study/judge.hpp"
#include "study/parts.hpp"

#include <fmt/format.h>

#include <cmath>
#include <limits>

namespace deepstop::parts {
namespace {

constexpr std::string_view turnByHand
    = "A wheel that touches a caliper locks or breaks. Turn it by hand through a full turn, then drive slowly, then look again.";
constexpr double unknown = std::numeric_limits<double>::quiet_NaN();

class Room {
public:
    Room(Study& study, Axle axle) : study_(study), axle_(axle), result_(study.after.at(axle)), corner_(*result_.corner) { }

    void add()
    {
        if (result_.wheel) {
            wheelGap("barrel-gap", "Barrel over the caliper", result_.barrel, result_.barrelGap, &figures::barrelGap, study_.build->wants.barrelGap,
                "stations along the barrel's inside");
            wheelGap("spoke-gap", "Spokes outboard of the caliper", result_.spokes, result_.spokeGap, &figures::spokeGap, study_.build->wants.spokeGap,
                "stations along the back of the spokes");
        }
        bridge();
        slot();
        padEdge();
        wheelPlace();
    }

private:
    std::string say(double length) const { return print(length, style::gap, study_.system); }

    Verdict& start(std::string_view id, std::string title, const std::function<double(Sample&)>& sum)
    {
        return start(id, std::move(title), evaluate(sum));
    }

    Verdict& start(std::string_view id, std::string title, Figure figure)
    {
        Verdict v;
        v.id = wordFor(axle_) + "/" + std::string(id);
        v.stage = Stage::WheelRoom;
        v.axle = axle_;
        v.title = std::move(title);
        v.style = style::gap;
        v.figure = std::move(figure);
        study_.verdicts.push_back(std::move(v));
        return study_.verdicts.back();
    }

    void gap(Verdict& v, double wanted)
    {
        v.wanted = wanted;
        v.level = judge::gapLevel(v.figure, wanted);
        v.reason = judge::gapReason(study_, v.figure, wanted, v.lacksInWords);
    }

    void wheelGap(std::string_view id, std::string title, const std::optional<fit::Room>& room, const Figure& figure, double (*sum)(Sample&, const Corner&, const Wheel&),
        const Reading& want, const std::string& stations)
    {
        Verdict& v = start(id, std::move(title), figure);
        if (!v.figure.value && v.figure.lacks.empty())
            v.lacksInWords.push_back(stations + " of " + result_.wheel->name + " where the caliper is");
        gap(v, want.value.value_or(3e-3));
        if (room && v.figure.value && v.level != Level::Clear)
            v.reason += fmt::format(". {} at {}", *v.figure.value < 0 ? "Deepest" : "Nearest", fit::placeOnCaliper(result_.drawn, room->onCaliper));
        v.method = "The caliper is swept round the axle: at each depth its largest distance from the axis, √(h² + w²) at the ends of a straight "
                   "back of half-length w at height h. The gap is the shortest distance from that outline to the wheel's measured profile; "
                   "an overlap is taken along the radius at the barrel, along the axle at the spokes. Worst case: every reading at its limit.";
        v.source = "Plane geometry; wanted gap: common practice.";
        v.caution = turnByHand;
        if (v.level == Level::Hits || v.level == Level::Tight)
            v.remedies = roomRemedies(study_, axle_, sum, *v.wanted);
        if (v.level == Level::Hits && v.remedies.empty())
            v.reason += ". No spacer, wheel or rotor in this build cures it";
    }

    void bridge()
    {
        Verdict& v = start("bridge-gap", "Bridge over the hot rotor", [&](Sample& s) {
            return s(corner_.caliper.bridgeGap) - fit::growth(s(corner_.rotor.outerDiameter), materials::hotRotorRise) / 2;
        });
        gap(v, study_.build->wants.bridgeGap.value.value_or(2e-3));
        v.method = "Gap read at rest less the rotor's growth in radius, D/2 · 11·10⁻⁶ · 500 K.";
        v.source = "Linear expansion of grey iron, from memory; hot rise and wanted gap: common practice.";
        v.caution = "A rotor that grows into the bridge tears it open.";
    }

    void slot()
    {
        Verdict& v = start("face-gap", "Rotor in the caliper's slot", [&](Sample& s) {
            return (s(corner_.caliper.slotWidth) - s(corner_.rotor.thickness)) / 2 - std::abs(figures::axialOffset(s, corner_));
        });
        gap(v, study_.build->wants.faceGap.value.value_or(1.5e-3));
        v.method = "Half of slot less rotor thickness, less how far the slot stands off the rotor's middle.";
        v.source = "Wanted gap: common practice.";
    }

    void padEdge()
    {
        Verdict& v = start("pad-edge", "Pad on the friction ring", [&](Sample& s) { return s(corner_.mount.padInset); });
        v.style = style::gap;
        v.method = "Pad's outer edge inward of the rotor's edge: 0 to 1 mm. Its inner edge must stay on the friction ring.";
        v.source = "Common practice.";
        const Figure inner = evaluate([&](Sample& s) {
            return s(corner_.rotor.outerDiameter) / 2 - s(corner_.mount.padInset) - s(corner_.pad.height) - s(corner_.rotor.ringInnerDiameter) / 2;
        });
        v.figure.restsOn.insert(v.figure.restsOn.end(), inner.restsOn.begin(), inner.restsOn.end());
        v.figure.lacks.insert(v.figure.lacks.end(), inner.lacks.begin(), inner.lacks.end());
        v.figure.estimated.insert(v.figure.estimated.end(), inner.estimated.begin(), inner.estimated.end());
        if (!inner.value)
            v.figure.value.reset();
        if (judge::unproven(study_, v))
            return;
        const double inset = *v.figure.value;
        if (inset < 0) {
            v.level = Level::Stop;
            v.reason = fmt::format("Rides {} over the rotor's edge: move the caliper inward, a lip would form", say(-inset));
        } else if (*inner.value < 0) {
            v.level = Level::Caution;
            v.reason = fmt::format("Hangs {} off the inside of the ring", say(-*inner.value));
        } else if (inset > 1e-3 + 1e-9) {
            v.level = Level::Caution;
            v.reason = fmt::format("{} below the edge: a rim of rust and lip is left outside the pad", say(inset));
        } else {
            v.level = Level::Good;
            v.reason = fmt::format("{} below the edge, all of it on the ring", say(inset));
        }
    }

    void wheelPlace()
    {
        const Corner* found = study_.before.at(axle_).corner;
        if (!found || !result_.wheel)
            return;
        Verdict& v = start("wheel-place", "Where the wheel stands", [&](Sample& s) {
            return fit::offsetChange(0, s(found->rotor.hatThickness), s(corner_.rotor.hatThickness),
                s.orElse(corner_.spacer, 0) - s.orElse(found->spacer, 0), s.orElse(corner_.ring, 0) - s.orElse(found->ring, 0))
                .outboardShift;
        });
        v.method = "Hat, ring and spacer now, less the same before. The effective offset falls by as much.";
        v.source = "Plane geometry.";
        v.caution = "Wheel nuts need at least one stud diameter of full thread.";
        if (judge::unproven(study_, v))
            return;
        const double shift = *v.figure.value;
        v.level = std::abs(shift) > 5e-3 ? Level::Caution : Level::Good;
        v.reason = std::abs(shift) < 0.05e-3 ? std::string("As before")
                                             : fmt::format("{} further {} than before", say(std::abs(shift)), shift > 0 ? "out" : "in");
        if (const auto offset = result_.wheel->offset.value)
            v.reason += fmt::format(", effective offset {}",
                say(fit::offsetChange(*offset, found->rotor.hatThickness.value.value_or(0), corner_.rotor.hatThickness.value.value_or(0),
                    corner_.spacer.value.value_or(0), corner_.ring.value.value_or(0))
                        .effectiveOffset));
        if (v.level == Level::Caution)
            v.reason += ": check studs, pilot and fender";
    }

    Study& study_;
    Axle axle_;
    const CornerResult& result_;
    const Corner& corner_;
};

} // namespace

void addRoomVerdicts(Study& study, Axle axle)
{
    if (study.after.at(axle).corner)
        Room(study, axle).add();
}

} // namespace deepstop::parts
