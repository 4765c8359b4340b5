#include "build/choices.hpp"
#include "chapters/clearance/cures.hpp"
#include "chapters/clearance/wheel_figures.hpp"
#include "verdict/judge.hpp"
#include "chapters/clearance/clearance_parts.hpp"

#include <fmt/format.h>

#include <cmath>
#include <limits>

namespace deepstop::clearance {
namespace {

constexpr std::string_view turnByHand =
    "A wheel that touches a caliper locks or breaks. Turn it by hand through a full turn, then drive slowly, then look again.";
constexpr double unknown = std::numeric_limits<double>::quiet_NaN();

class Room {
public:
    Room(Study& study, Axle axle)
        : study_(study), axle_(axle), result_(study.of<Clearance>().after.at(axle)), corner_(*result_.corner),
          hub_(hubOf(*study.build, axle)), hotRise_(figures::setting(study.build->wants.hotRise, &Wants::hotRise))
    {
    }

    void add()
    {
        if (result_.wheel)
            wheelGaps();
        bridge();
        slot();
        hat();
        padEdge();
        for (std::size_t i = 0; i < hub_.keepOuts.size(); ++i)
            keepOut(i);
        shield();
    }

private:
    /// Of what the ring is made of.
    double expansion() const { return figures::ringSolid(corner_.rotor).expansionOver(hotRise_); }

    std::string say(double length) const { return print(length, style::gap, study_.system); }

    Verdict& start(std::string_view id, std::string title, const std::function<double(Sample&)>& sum)
    {
        return start(id, std::move(title), evaluate(sum));
    }

    Verdict& start(std::string_view id, std::string title, Figure figure)
    {
        return judge::startGapVerdict(study_, axle_, id, std::move(title), std::move(figure));
    }

    void gap(Verdict& v, double wanted)
    {
        v.wanted = wanted;
        v.level = gapLevel(v.figure, wanted);
        v.reason = judge::gapReason(study_, v.figure, wanted, v.lacksInWords);
    }

    void wheelGaps()
    {
        std::vector<Cure> cures;
        if (study_.remedies == Remedies::Sought && std::ranges::any_of(deepstop::wheelGaps, [&](WheelGap which) {
                const auto level = gapLevel(result_.room(which).gap, result_.room(which).wanted);
                return level == Level::Hits || level == Level::Tight;
            }))
            cures = curesOf(study_, axle_);
        wheelGap(WheelGap::Barrel, "barrel-gap", "Barrel over the caliper", "stations along the barrel's inside", cures);
        if (!result_.wheel->insets.empty())
            wheelGap(WheelGap::Insets, "inset-gap", "Weights and valve over the caliper",
                "stations of the barrel under the weights and valve", cures);
        wheelGap(WheelGap::Spokes, "spoke-gap", "Spokes outboard of the caliper", "stations along the back of the spokes", cures);
    }

    void wheelGap(WheelGap which, std::string_view id, std::string title, const std::string& stations, const std::vector<Cure>& cures)
    {
        const WheelRoom& room = result_.room(which);
        Verdict& v = start(id, std::move(title), room.gap);
        if (!v.figure.value && v.figure.lacks.empty())
            v.lacksInWords.push_back(stations + " of " + result_.wheel->name + " where the caliper is");
        gap(v, room.wanted);
        if (room.drawn && v.figure.value && v.level != Level::Clear)
            v.reason += fmt::format(". {} at {}", *v.figure.value < 0 ? "Deepest" : "Nearest",
                room.drawn->caliperPart.empty() ? std::string(fit::placeOnCaliper(result_.drawn, room.drawn->onCaliper))
                                                : room.drawn->caliperPart);
        if (room.drawn && !room.drawn->wheelPart.empty() && v.level != Level::Clear)
            v.reason +=
                which == WheelGap::Spokes ? fmt::format(", on the line “{}”", room.drawn->wheelPart) : ", under " + room.drawn->wheelPart;
        if (room.drawn && !room.drawn->covered() && v.level == Level::Unproven && !result_.barrelEstimated)
            v.reason += ". " + bare(which, room.drawn->bare.front());
        v.method =
            "The caliper is swept round the axle: at each depth its largest distance from the axis, √((h−ρ)² + (w−ρ)²) + ρ at the ends of "
            "a "
            "straight back of half-length w at height h, rounded by ρ; bleeders, bolt heads and pipes likewise. The gap is the shortest "
            "distance from that outline to the wheel's measured profile, on the worst line down the spokes; an overlap is taken along the "
            "radius at the barrel, along the axle at the spokes. Worst case: every reading at its limit.";
        v.source = "Plane geometry; wanted gap and how far apart stations may lie: common practice, under Wanted.";
        v.caution = turnByHand;
        if (which == WheelGap::Barrel && result_.wheel->insets.empty())
            v.caution += " Balance weights and the valve stand inside the barrel too: enter them under Wheel.";
        if (v.level == Level::Hits || v.level == Level::Tight)
            v.remedies = roomRemedies(cures, which);
        if (study_.remedies == Remedies::Sought && v.level == Level::Hits && v.remedies.empty())
            v.reason += ". No spacer, wheel or rotor in this build cures it";
    }

    /// "No station between 52.0 and 110.0 mm deep", as the builder measures: from the wheel's mounting face, or from the axis.
    std::string bare(WheelGap which, std::pair<double, double> stretch) const
    {
        if (which == WheelGap::Spokes)
            return fmt::format("No spoke station between radius {} and {}", say(stretch.first), say(stretch.second));
        const double face = fit::wheelFace(result_.drawn);
        return fmt::format("No barrel station between {} and {} deep", say(face - stretch.second), say(face - stretch.first));
    }

    void bridge()
    {
        Verdict& v = start("bridge-gap", "Bridge over the hot rotor", [&](Sample& s) {
            return s(corner_.caliper.bridgeGap) - fit::growth(s(corner_.rotor.outerDiameter), hotRise_, expansion()) / 2;
        });
        gap(v, figures::setting(study_.build->wants.bridgeGap, &Wants::bridgeGap));
        v.method = fmt::format("Gap read at rest less the rotor's growth in radius, D/2 · {:g}·10⁻⁶ · {}.", expansion() * 1e6,
            print(hotRise_, style::rise, study_.system));
        v.source = "Linear expansion of the ring's material (iron by EN 1561), from memory; hot rise and wanted gap: common practice.";
        v.caution = "A rotor that grows into the bridge tears it open.";
    }

    void slot()
    {
        const double coning = figures::setting(study_.build->wants.coning, &Wants::coning);
        Verdict& v = start("face-gap", "Rotor in the caliper's slot", [&](Sample& s) {
            const double thickness = s(corner_.rotor.thickness);
            return (s(corner_.caliper.slotWidth) - thickness - fit::growth(thickness, hotRise_, expansion())) / 2 - coning
                - std::abs(figures::axialOffset(s, corner_));
        });
        gap(v, figures::setting(study_.build->wants.faceGap, &Wants::faceGap));
        v.method = "Half of slot less rotor thickness, less how far the slot stands off the rotor's middle, less the hot ring's coning and "
                   "half of its growth.";
        v.source = "Linear expansion of the ring's material (iron by EN 1561), from memory; coning, hot rise and wanted gap: common "
                   "practice, under Wanted.";
    }

    void hat()
    {
        Verdict& v = start("hat-gap", "Caliper over the hat", [&](Sample& s) { return figures::hatGap(s, corner_); });
        gap(v, figures::setting(study_.build->wants.hatGap, &Wants::hatGap));
        v.method = "Rotor's radius less the caliper's reach and the hat's radius, beside the hat; where the caliper's outboard half begins "
                   "outboard of the hat, the distance along the axle.";
        v.source = "Plane geometry; wanted gap: common practice.";
        v.caution = turnByHand;
    }

    void keepOut(std::size_t i)
    {
        const KeepOut& place = hub_.keepOuts[i];
        const std::string what = place.name.empty() ? fmt::format("{} {}", wordFor(place.kind, choices::keepOut), i + 1) : place.name;
        const bool hose = place.kind == KeepOutKind::Hose;
        const Wants& wants = study_.build->wants;
        Verdict& v = start(fmt::format("keep-out-{}", i + 1), "Clearance to " + what,
            [&](Sample& s) { return figures::keepOutGap(s, place, corner_, result_.wheel, hub_, wants); });
        gap(v, hose ? figures::setting(wants.hoseGap, &Wants::hoseGap) : figures::setting(wants.keepOutGap, &Wants::keepOutGap));
        if (const auto& room = result_.keepOuts[i]; room && v.figure.value && v.level != Level::Clear)
            v.reason += ". Nearest is " + room->wheelPart;
        v.method = "Shortest distance from the place to the wheel's inside, what stands into it, and the hot rotor with its hat.";
        v.source = "Plane geometry; wanted gaps: common practice, under Wanted.";
        v.caution = hose ? "A hose that rubs bursts. Look at it at full lock both ways, at droop and at bump." : std::string(turnByHand);
    }

    void shield()
    {
        if (!hub_.shieldDiameter.value && !hub_.shieldDepth.value)
            return;
        const double margin = figures::setting(study_.build->wants.shieldGap, &Wants::shieldGap);
        // Room between the hot rotor and the nearest of rim and plate.
        Verdict& v = start("shield", "Rotor inside the dust shield", [&](Sample& s) {
            const double face = -figures::inboardFace(s, corner_);
            const double edge = (s(corner_.rotor.outerDiameter) + fit::growth(s(corner_.rotor.outerDiameter), hotRise_, expansion())) / 2;
            const double plate = s(hub_.shieldDepth) - face;
            const double rim = plate - s(hub_.shieldRim) >= margin ? plate : s(hub_.shieldDiameter) / 2 - edge;
            return std::min(plate, rim);
        });
        gap(v, margin);
        v.method = "Plate of the shield less the rotor's inboard face; rim of the shield less the hot rotor's radius where the rim reaches "
                   "over the rotor.";
        v.source = "Plane geometry; margin: common practice, under Wanted.";
        v.caution = "Trimming a shield cannot be undone: not before caliper, rotor and wheel are proven. Keep the part that spaces or "
                    "covers the parking brake.";
        // Metal that can be taken away is no obstacle to the kit, but the car must not turn a wheel before it is.
        if (v.level == Level::Hits || v.level == Level::Tight) {
            v.level = Level::Caution;
            v.reason += ": trim it, the sheet Behind has the line to cut along";
        }
    }

    void padEdge()
    {
        Verdict& v = start("pad-edge", "Pad on the friction ring", [&](Sample& s) { return s(corner_.mount.padInset); });
        v.style = style::gap;
        v.method = "Pad's outer edge inward of the rotor's edge: 0 to 1 mm. Its inner edge must stay on the friction ring.";
        v.source = "Common practice.";
        const Figure inner = evaluate([&](Sample& s) {
            return s(corner_.rotor.outerDiameter) / 2 - s(corner_.mount.padInset) - s(corner_.pad.height)
                - s(corner_.rotor.ringInnerDiameter) / 2;
        });
        v.figure.restsOn.insert(v.figure.restsOn.end(), inner.restsOn.begin(), inner.restsOn.end());
        v.figure.lacks.insert(v.figure.lacks.end(), inner.lacks.begin(), inner.lacks.end());
        v.figure.estimated.insert(v.figure.estimated.end(), inner.estimated.begin(), inner.estimated.end());
        if (!inner.value)
            v.figure.value.reset();
        if (judge::unproven(study_, v))
            return;
        // Judged on its worst case: readings too coarse to tell the edge from its two sides prove nothing.
        constexpr double most = 1e-3;
        const Figure& inset = v.figure;
        const auto coarse = [&](std::string_view what) {
            v.level = Level::Unproven;
            v.reason = fmt::format("{} ±{}: {}, the readings are too coarse to tell", say(*inset.value), say(inset.worstCase), what);
        };
        if (inset.highest() < 0) {
            v.level = Level::Stop;
            v.reason = fmt::format("Rides {} over the rotor's edge: move the caliper inward, a lip would form", say(-*inset.value));
        } else if (inner.highest() < 0) {
            v.level = Level::Caution;
            v.reason = fmt::format("Hangs {} off the inside of the ring", say(-*inner.value));
        } else if (inset.lowest() > most + 1e-9) {
            v.level = Level::Caution;
            v.reason = fmt::format("{} below the edge: a rim of rust and lip is left outside the pad", say(*inset.value));
        } else if (inset.lowest() < -1e-9) {
            coarse("it may ride over the rotor's edge");
        } else if (inner.lowest() < -1e-9) {
            coarse("it may hang off the inside of the ring");
        } else if (inset.highest() > most + 1e-9) {
            coarse("it may stand too far below the edge");
        } else {
            v.level = Level::Good;
            v.reason = fmt::format("{} below the edge, all of it on the ring", say(*inset.value));
        }
    }

    Study& study_;
    Axle axle_;
    const CornerClearance& result_;
    const Corner& corner_;
    const Hub& hub_;
    double hotRise_;
};

} // namespace

void addRoomVerdicts(Study& study, Axle axle)
{
    if (study.of<Clearance>().after.at(axle).corner)
        Room(study, axle).add();
}

} // namespace deepstop::clearance
