#include "build/choices.hpp"
#include "chapters/clearance/checks.hpp"
#include "chapters/clearance/cures.hpp"
#include "chapters/clearance/gap_figures.hpp"
#include "language/language.hpp"
#include "verdict/judge.hpp"
#include "chapters/clearance/clearance_parts.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

namespace deepstop::clearance {
namespace {

constexpr std::string_view turnByHand =
    marked("A wheel that touches a caliper locks or breaks. Turn it by hand through a full turn, then drive slowly, then look again.");

class Room {
public:
    Room(Study& study, Axle axle)
        : study_(study), axle_(axle), sides_(study.of<Clearance>().after.at(axle)), result_(sides_.left), corner_(*result_.corner),
          drums_(corner_.brakes == BrakeKind::Drums), hub_(hubOf(*study.build, axle))
    {
    }

    void add()
    {
        if (result_.wheel)
            wheelGaps();
        if (!drums_) {
            bridge();
            slot();
            hat();
            bracket();
            bracketEdge();
            padEdge();
        }
        for (std::size_t i = 0; i < hub_.keepOuts.size(); ++i)
            keepOut(i);
        if (!drums_)
            shield();
    }

private:
    // Settings are looked at where a sum wants them: what is remembered hangs on what was looked at for it.
    double hotRise() const { return figures::setting(study_.build->wants.hotRise, &Wants::hotRise); }
    [[nodiscard]] const Wants& wants() const { return study_.build->wants; }
    std::string expansionInWords() const
    {
        return fmt::format("{:g}·10⁻⁶", figures::ringSolid(corner_.rotor).expansionOver(hotRise()) * 1e6);
    }
    /// Whose gap it is, where the two sides differ.
    static void nameSide(Verdict& v, const figures::Sided& of)
    {
        v.side = of.side;
        if (of.side)
            v.reason = fmt::format("{}: {}", *of.side == Side::Left ? tr("Left") : tr("Right"), v.reason);
    }

    std::string say(double length) const { return print(length, style::gap, study_.system); }

    Verdict& start(const Check& check, std::string title, const std::function<double(Evaluator&)>& sum, int number = 0)
    {
        return start(check, std::move(title), study_.recall(idOf(check, { axle_, {}, number }), [&] { return evaluate(sum); }), number);
    }

    figures::Sided lesserSide(const Check& check, const std::function<double(Evaluator&, Side)>& sum) const
    {
        return study_.recall(idOf(check, { axle_ }), [&] { return figures::lesserSide(sum); });
    }

    Verdict& start(const Check& check, std::string title, Figure figure, int number = 0)
    {
        return judge::startGapVerdict(study_, check, { axle_, {}, number }, std::move(title), std::move(figure));
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
        const bool wanting = !drums_ && std::ranges::any_of(deepstop::wheelGaps, [&](WheelGap which) {
            const auto level = gapLevel(gapOf(which).figure, result_.room(which).wanted);
            return level == Level::Hits || level == Level::Tight;
        });
        if (study_.remedies == Remedies::Sought && wanting)
            cures = study_.recall(fmt::format("cures, {}", judge::wordFor(axle_)), [&] { return curesOf(study_, axle_); });
        const auto what = drums_ ? tr("Drum") : tr("Caliper");
        wheelGap(WheelGap::Barrel, checks::barrelGap, tr("{} to wheel barrel", what), tr("stations along the barrel's inside"), cures);
        if (!result_.wheel->insets.empty())
            wheelGap(WheelGap::Insets, checks::insetGap, tr("{} to balance weights and valve", what),
                tr("stations of the barrel under the weights and valve"), cures);
        wheelGap(WheelGap::Spokes, checks::spokeGap, tr("{} to spokes", what), tr("stations along the back of the spokes"), cures);
    }

    figures::Sided gapOf(WheelGap which) const { return figures::lesserOf(sides_.left.room(which).gap, sides_.right.room(which).gap); }

    void wheelGap(WheelGap which, const Check& check, std::string title, const std::string& stations, const std::vector<Cure>& cures)
    {
        const figures::Sided gapAt = gapOf(which);
        const WheelRoom& room = sides_.at(gapAt.side.value_or(Side::Left)).room(which);
        Verdict& v = start(check, std::move(title), gapAt.figure);
        if (!v.figure.value && v.figure.lacks.empty())
            v.lacksInWords.push_back(tr("{} of {} where the caliper is", stations, result_.wheel->name));
        gap(v, room.wanted);
        const Spun& spun = sides_.at(gapAt.side.value_or(Side::Left)).corner->at(gapAt.side.value_or(Side::Left)).spun;
        if (v.figure.value && spunGap(spun, which, *result_.wheel)) {
            v.reason = tr("Wheel on and spun: {}",
                v.level == Level::Hits && *v.figure.value < 0 ? tr("touches, {} too far in", say(-*v.figure.value)) : v.reason);
            nameSide(v, gapAt);
            v.method = tr(
                "Read directly with clay or a feeler, the wheel on and turned by hand; \"cleared by n\" counts as n. It outranks what is "
                "worked out from dimensions, until wheel, spacer, ring, hat, caliper, bracket, shims or pads change.");
            v.source = tr("A reading.");
            return;
        }
        if (room.drawn && v.figure.value && v.level != Level::Clear)
            v.reason += tr(". {} at {}", *v.figure.value < 0 ? tr("Deepest") : tr("Nearest"),
                room.drawn->caliperPart.empty() ? std::string(fit::placeOnCaliper(result_.drawn, room.drawn->onCaliper))
                                                : room.drawn->caliperPart);
        if (room.drawn && v.figure.value && !room.drawn->wheelPart.empty() && v.level != Level::Clear)
            v.reason +=
                which == WheelGap::Spokes ? tr(", on the line “{}”", room.drawn->wheelPart) : tr(", under {}", room.drawn->wheelPart);
        if (room.drawn && !room.drawn->covered() && v.level == Level::Unproven && !result_.barrelEstimated)
            v.reason += ". " + bare(which, room.drawn->bare.front());
        nameSide(v, gapAt);
        v.method = tr(
            "The caliper is swept round the axle: at each depth its largest distance from the axis, √((h−ρ)² + (w−ρ)²) + ρ at the ends of "
            "a "
            "straight back of half-length w at height h, rounded by ρ; bleeders, bolt heads and pipes likewise. The gap is the shortest "
            "distance from that outline to the wheel's measured profile, on the worst line down the spokes; between two stations the "
            "barrel "
            "counts as the smaller and a spoke as the nearer of both, unless both are marked as ends of a bend; an overlap is taken along "
            "the radius at the barrel, along the axle at the spokes. The worse side of the car speaks. Worst case: every reading at its "
            "limit.");
        v.source = tr("Plane geometry; wanted gap and how far apart stations may lie: common practice, under Limits.");
        v.caution = tr(turnByHand);
        if (which == WheelGap::Barrel && result_.wheel->balanceWeights != YesNo::No && result_.wheel->insets.empty())
            v.caution +=
                tr(" Balance weights and the valve stand inside the barrel too: enter them under Wheel, or say that there are none.");
        if (v.level == Level::Hits || v.level == Level::Tight)
            v.remedies = roomRemedies(cures, which);
        if (study_.remedies == Remedies::Sought && v.level == Level::Hits && v.remedies.empty())
            v.reason += tr(". No spacer, wheel or rotor in this build cures it");
    }

    /// "No station between 52.0 and 110.0 mm deep", as the builder measures: from the wheel's mounting face, or from the axis.
    std::string bare(WheelGap which, std::pair<double, double> stretch) const
    {
        if (which == WheelGap::Spokes)
            return tr("No spoke station between radius {} and {}", say(stretch.first), say(stretch.second));
        const double face = fit::wheelFace(result_.drawn);
        return tr("No barrel station between {} and {} deep", say(face - stretch.second), say(face - stretch.first));
    }

    void bridge()
    {
        const auto of =
            lesserSide(checks::bridgeGap, [&](Evaluator& s, Side side) { return figures::bridgeGap(s, corner_, side, wants()); });
        Verdict& v = start(checks::bridgeGap, tr("Rotor to caliper bridge (hot)"), of.figure);
        gap(v, figures::setting(study_.build->wants.bridgeGap, &Wants::bridgeGap));
        nameSide(v, of);
        v.method = tr("Gap read at rest, moved by shims under the studs of a radial mount since, less the rotor's growth in radius, "
                      "D/2 · {} · {}.",
            expansionInWords(), print(hotRise(), style::rise, study_.system));
        v.source = tr("Linear expansion of the ring's material (iron by EN 1561), from memory; hot rise and wanted gap: common practice.");
        v.caution = tr("A rotor that grows into the bridge tears it open.");
    }

    void slot()
    {
        const auto of = lesserSide(checks::faceGap, [&](Evaluator& s, Side side) { return figures::slotGap(s, corner_, side, wants()); });
        Verdict& v = start(checks::faceGap, tr("Rotor in the caliper's slot"), of.figure);
        gap(v, figures::setting(study_.build->wants.faceGap, &Wants::faceGap));
        nameSide(v, of);
        v.method =
            tr("Half of slot less rotor thickness, less how far the slot stands off the rotor's middle, less the hot ring's coning, half "
               "of its growth and half of a floating ring's play. The worse side of the car speaks.");
        v.source = tr("Linear expansion of the ring's material (iron by EN 1561), from memory; coning, hot rise and wanted gap: common "
                      "practice, under Limits.");
    }

    /// The edge of a plate that reaches past what its holes need, against what turns round it. Both its faces count.
    void bracketEdge()
    {
        const Bracket& plate = corner_.bracket;
        if (plate.outline.empty())
            return;
        Verdict& v = start(checks::bracketEdge, tr("Bracket's edge in the wheel"),
            [&](Evaluator& s) { return figures::bracketEdgeGap(s, corner_, result_.wheel, hub_, wants()); });
        gap(v, figures::setting(study_.build->wants.barrelGap, &Wants::barrelGap));
        v.method =
            tr("Shortest distance from each point of the bracket's edge, at either face of it, to the wheel's inside, what stands into it, "
               "and the hot rotor.");
        v.source = tr("Plane geometry; wanted gap: common practice, under Limits.");
        v.caution = tr(turnByHand);
    }

    /// A plate between knuckle and caliper, with whatever stands proud of it, beside the rotor's inboard face.
    void bracket()
    {
        const Bracket& plate = corner_.bracket;
        if (plate.name.empty() && !plate.thickness.value && !plate.knuckleSpacing.value)
            return;
        Verdict& v =
            start(checks::bracketGap, tr("Bracket to rotor"), [&](Evaluator& s) { return figures::bracketGap(s, corner_, hub_, wants()); });
        gap(v, figures::setting(study_.build->wants.faceGap, &Wants::faceGap));
        v.method =
            tr("Rotor's inboard face less the outboard face of the plate, which lies on the lugs, less what stands proud of it and the hot "
               "ring's coning.");
        v.source = tr("Plane geometry; coning and wanted gap: common practice, under Limits.");
        v.caution =
            tr("A bracket or a bolt's head that reaches the rotor is cut away by it. Turn the rotor by hand with everything tight.");
    }

    void hat()
    {
        const auto of = lesserSide(checks::hatGap, [&](Evaluator& s, Side side) { return figures::hotHatGap(s, corner_, side, wants()); });
        Verdict& v = start(checks::hatGap, tr("Caliper to hat"), of.figure);
        gap(v, figures::setting(study_.build->wants.hatGap, &Wants::hatGap));
        nameSide(v, of);
        v.method =
            tr("Rotor's radius less the caliper's reach and the hat's radius, beside the hat, less the hat's growth at half the ring's "
               "rise; where the caliper's outboard half begins outboard of the hat, the distance along the axle.");
        v.source = tr("Plane geometry; wanted gap: common practice.");
        v.caution = tr(turnByHand);
    }

    void keepOut(std::size_t i)
    {
        const KeepOut& place = hub_.keepOuts[i];
        const bool unnamed = place.kind == KeepOutKind::Unknown;
        const std::string what = !place.name.empty() ? place.name
            : unnamed                                ? tr("keep-out {}", i + 1)
                                                     : fmt::format("{} {}", wordFor(place.kind, choices::keepOut), i + 1);
        // A keep-out of unknown kind may be a hose: the larger gap holds.
        const bool hose = unnamed || place.kind == KeepOutKind::Hose;
        Verdict& v = start(
            checks::keepOut, tr("Clearance to {}", what),
            [&](Evaluator& s) { return figures::keepOutGap(s, place, corner_, result_.wheel, hub_, wants()); }, static_cast<int>(i) + 1);
        gap(v, figures::wantedRound(place, study_.build->wants));
        if (const auto& room = result_.keepOuts[i]; room && v.figure.value && v.level != Level::Clear)
            v.reason += tr(". Nearest is {}", room->wheelPart);
        v.method = tr("Shortest distance from the place to the wheel's inside, what stands into it, and the hot rotor with its hat.");
        v.source = tr("Plane geometry; wanted gaps: common practice, under Limits.");
        v.caution =
            hose ? tr("A hose that rubs bursts. Look at it at full lock both ways, at droop and at bump.") : std::string(tr(turnByHand));
    }

    void shield()
    {
        const ShieldPart& part = corner_.shield;
        if (part.state == ShieldState::Removed) {
            removedShield();
            return;
        }
        const auto changed = part.state == ShieldState::Trimmed || part.state == ShieldState::Replaced;
        const auto read = figures::shieldOf(corner_, hub_);
        if (!changed && !read.diameter->value && !read.depth->value)
            return;
        // Room between the hot rotor and the nearest of rim and plate.
        Verdict& v =
            start(checks::shield, tr("Rotor to dust shield"), [&](Evaluator& s) { return figures::shieldGap(s, corner_, hub_, wants()); });
        gap(v, figures::setting(wants().shieldGap, &Wants::shieldGap));
        v.method =
            tr("Plate of the shield less the rotor's inboard face; rim of the shield less the hot rotor's radius where the rim reaches "
               "over the rotor; the plate's rib and the ring's inboard lip come off the first.");
        v.source = tr("Plane geometry; margin: common practice, under Limits.");
        v.caution = tr("Trimming a shield cannot be undone: not before caliper, rotor and wheel are proven. Keep the part that spaces or "
                       "covers the parking brake.");
        // Metal that can be taken away is no obstacle to the kit, but the car must not turn a wheel before it is.
        if (v.level == Level::Hits || v.level == Level::Tight) {
            v.level = Level::Caution;
            v.reason += tr(": trim it, the sheet Behind has the line to cut along");
        }
    }

    /// Nothing is left beside the rotor, and nothing that the shield covered is covered.
    void removedShield()
    {
        Verdict& v = start(checks::shield, tr("Rotor to dust shield"), Figure {});
        v.method = tr("A shield that was taken off is in nobody's way; what it covered is left bare.");
        v.source = tr("Common practice.");
        v.caution = tr("Without a shield grit gets to the rotor's inboard face, and its heat to ball joint, sensor and tyre.");
        const bool shoes = hub_.parkingBrake == ParkingBrake::DrumInHat;
        v.level = shoes ? Level::Caution : Level::Good;
        v.reason = shoes ? tr("Removed: it covered the parking brake's shoes, which now stand in the dirt") : "Removed";
        if (hub_.parkingBrake == ParkingBrake::Unknown)
            v.lacksInWords.push_back(tr("kind of parking brake ({})", judge::wordFor(axle_)));
        if (!v.lacksInWords.empty()) {
            v.level = Level::Unproven;
            v.reason = lacking(study_, v.figure, v.lacksInWords);
        }
    }

    /// Where the pad's ends were read at the mock-up, those readings speak for that side (Centring).
    [[nodiscard]] bool readAtMockUp(Side side) const
    {
        return std::ranges::any_of(study_.build->mockUps, [&](const MockUp& m) {
            return m.setup == study_.after.setup->id && m.axle == axle_ && m.side == side && (m.padEdgeTop.value || m.padEdgeBottom.value);
        });
    }
    void padEdge()
    {
        const bool left = !readAtMockUp(Side::Left);
        const bool right = !readAtMockUp(Side::Right);
        if (left && right)
            study_.verdicts.push_back(judge::worseSide(padEdge(Side::Left), padEdge(Side::Right)));
        else if (left || right)
            study_.verdicts.push_back(padEdge(left ? Side::Left : Side::Right));
    }

    Verdict padEdge(Side side) const
    {
        const Reading& padInset = corner_.at(side).padInset;
        Verdict v = judge::gapVerdict(
            checks::padEdge, { axle_ }, std::string(tr(checks::padEdge.title)), evaluate([&](Evaluator& s) { return s(padInset); }));
        v.method = tr("Pad's outer edge inward of the rotor's edge: 0 to 1 mm. Its inner edge must stay on the friction ring.");
        v.source = tr("Common practice.");
        const Figure inner = evaluate([&](Evaluator& s) {
            return s(corner_.rotor.outerDiameter) / 2 - s(padInset) - s(corner_.pad.height) - s(corner_.rotor.ringInnerDiameter) / 2;
        });
        mergeDependencies(v.figure, inner);
        v.figure.effects.resize(v.figure.value ? v.figure.restsOn.size() : 0);
        if (!inner.value)
            v.figure.value.reset();
        if (judge::unproven(study_, v))
            return v;
        // Judged on its worst case: readings too coarse to tell the edge from its two sides prove nothing.
        constexpr double most = 1e-3;
        const Figure& inset = v.figure;
        const auto coarse = [&](std::string_view what) {
            v.level = Level::Unproven;
            v.reason = tr("{} ±{}: {}, the readings are too coarse to tell", say(*inset.value), say(inset.worstCase), what);
        };
        if (inset.highest() < 0) {
            v.level = Level::Stop;
            v.reason = tr("Rides {} over the rotor's edge: move the caliper inward, a lip would form", say(-*inset.value));
        } else if (inner.highest() < 0) {
            v.level = Level::Caution;
            v.reason = tr("Hangs {} off the inside of the ring", say(-*inner.value));
        } else if (inset.lowest() > most + 1e-9) {
            v.level = Level::Caution;
            v.reason = tr("{} below the edge: a rim of rust and lip is left outside the pad", say(*inset.value));
        } else if (inset.lowest() < -1e-9) {
            coarse(tr("it may ride over the rotor's edge"));
        } else if (inner.lowest() < -1e-9) {
            coarse(tr("it may hang off the inside of the ring"));
        } else if (inset.highest() > most + 1e-9) {
            coarse(tr("it may stand too far below the edge"));
        } else {
            v.level = Level::Good;
            v.reason = tr("{} below the edge, all of it on the ring", say(*inset.value));
        }
        return v;
    }

    Study& study_;
    Axle axle_;
    const AxleClearance& sides_;
    const CornerClearance& result_; ///< of the left; what both sides share is read from it
    const Corner& corner_;
    bool drums_;
    const Hub& hub_;
};

} // namespace

void addRoomVerdicts(Study& study, Axle axle)
{
    if (study.of<Clearance>().after.at(axle).left.corner)
        Room(study, axle).add();
}

} // namespace deepstop::clearance
