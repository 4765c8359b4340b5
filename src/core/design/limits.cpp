#include "design/limits.hpp"

#include "build/choices.hpp"
#include "chapters/clearance/checks.hpp"
#include "chapters/clearance/clearance_parts.hpp"
#include "chapters/clearance/gap_figures.hpp"
#include "chapters/clearance/tried.hpp"
#include "language/language.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace deepstop::design {
namespace {

class Limits {
public:
    explicit Limits(const Maker& maker)
        : maker_(maker), basis_(maker.basis()), build_(basis_.build()), hub_(basis_.hub()), axle_(basis_.axle)
    {
    }

    std::vector<Limit> all()
    {
        for (const Wheel* wheel : basis_.wheels) {
            toWheel(*wheel, WheelGap::Barrel, deepstop::checks::barrelGap, Along::Falls);
            if (strikes(WheelGap::Insets, *wheel))
                toWheel(*wheel, WheelGap::Insets, deepstop::checks::insetGap, Along::Falls);
            toWheel(*wheel, WheelGap::Spokes, deepstop::checks::spokeGap, Along::Either);
            goesWithSlot(Along::Falls);
        }
        ofCorner();
        places();
        making();
        return std::move(limits_);
    }

private:
    void add(const Check& check, double wanted, Along along, std::function<Figure(const Proposal&, const Corner&)> gap, int number = 0,
        const std::string& of = {}, bool moves = true)
    {
        const std::string title(tr(check.title));
        limits_.push_back({ idOf(check, { axle_, {}, number }), of.empty() ? title : tr("{}: {}", title, of), wanted, along, Along::Either,
            moves, std::move(gap) });
    }

    void toWheel(const Wheel& wheel, WheelGap which, const Check& check, Along along)
    {
        add(
            check, figures::wantedOf(which, wheel, build_.wants), along,
            [which, &wheel, &build = build_](const Proposal& proposal, const Corner& corner) {
                if (proposal.offset == 0)
                    return Tried(build, corner, wheel).fully(which);
                // Another offset with the same barrel and spokes is the same wheel pushed along the axle.
                Corner pushed = corner;
                pushed.spacer.value = corner.spacer.value.value_or(0) - proposal.offset;
                return Tried(build, pushed, wheel).fully(which);
            },
            0, basis_.wheels.size() > 1 ? wheel.name : std::string());
    }

    /// Of the one put in last.
    void goesWithSlot(Along across) { limits_.back().across = across; }

    [[nodiscard]] double setting(Reading Wants::*which) const { return figures::setting(build_.wants.*which, which); }

    /// Gaps within the corner. Both sides are made alike.
    void ofCorner()
    {
        const Wants& wants = build_.wants;
        const auto evaluated = [](auto sum) {
            return [sum](const Proposal&, const Corner& c) { return evaluate([&](Evaluator& s) { return sum(s, c); }); };
        };
        add(deepstop::checks::bridgeGap, setting(&Wants::bridgeGap), Along::Falls,
            evaluated([&wants](Evaluator& s, const Corner& c) { return figures::bridgeGap(s, c, Side::Left, wants); }));
        add(deepstop::checks::faceGap, setting(&Wants::faceGap), Along::Either,
            evaluated([&wants](Evaluator& s, const Corner& c) { return figures::slotGap(s, c, Side::Left, wants); }), 0, {}, false);
        add(deepstop::checks::hatGap, setting(&Wants::hatGap), Along::Rises,
            evaluated([&wants](Evaluator& s, const Corner& c) { return figures::hotHatGap(s, c, Side::Left, wants); }));
        add(deepstop::checks::bracketGap, setting(&Wants::faceGap), Along::Either,
            evaluated([&wants, &hub = hub_](Evaluator& s, const Corner& c) { return figures::bracketGap(s, c, hub, wants); }));
    }

    void places()
    {
        const Wants& wants = build_.wants;
        for (std::size_t i = 0; i < hub_.keepOuts.size(); ++i) {
            const KeepOut& place = hub_.keepOuts[i];
            const int number = static_cast<int>(i) + 1;
            const std::string name = !place.name.empty() ? place.name : std::string(wordFor(place.kind, choices::keepOut));
            for (const Wheel* wheel : basis_.wheels)
                add(
                    deepstop::checks::keepOut, figures::wantedRound(place, wants), Along::Falls,
                    [&place, wheel, &hub = hub_, &wants](const Proposal& proposal, const Corner& corner) {
                        const auto gap = [&](const Corner& c) {
                            return evaluate([&](Evaluator& s) { return figures::keepOutGap(s, place, c, wheel, hub, wants); });
                        };
                        if (proposal.offset == 0)
                            return gap(corner);
                        Corner pushed = corner;
                        pushed.spacer.value = corner.spacer.value.value_or(0) - proposal.offset;
                        return gap(pushed);
                    },
                    number, name);
            add(
                deepstop::checks::fixedParts, figures::wantedRound(place, wants), Along::Either,
                [&place, &hub = hub_, wanted = figures::wantedRound(place, wants)](const Proposal&, const Corner& c) {
                    Figure gap = evaluate([&](Evaluator& s) { return figures::fixedGap(s, place, c, Side::Left, hub); });
                    // As the chapter has it: a place that may stand elsewhere strikes nothing for certain.
                    const Level level = gapLevel(gap, wanted);
                    if ((level == Level::Tight || level == Level::Hits) && !(place.clock.value && c.mount.clock.value)) {
                        gap.lacks.emplace_back(place.clock.value ? c.mount.clock : place.clock);
                        gap.value.reset();
                    }
                    return gap;
                },
                number, name);
            // Whatever moves outboard moves away from a place inboard of the lugs.
            if (place.depth.value && hub_.lugDepth.value && *place.depth.value > *hub_.lugDepth.value)
                goesWithSlot(Along::Rises);
        }
    }

    /// What can be made: lengths of the kit, which rest on the readings that placed it and are made to them.
    void making()
    {
        const Maker& maker = maker_;
        const Hub& hub = hub_;
        const auto made = [&](auto length, std::vector<const Reading*> of) {
            return [&maker, length, of](const Proposal& proposal, const Corner& c) {
                return evaluate([&](Evaluator& s) {
                    double known = 0;
                    for (const Reading* reading : of)
                        known += 0 * s.certain(*reading);
                    return length(maker.sizes(proposal), c) + known;
                });
            };
        };
        const Caliper& caliper = basis_.corner.caliper;
        add(checks::plateThickness, bracket::thinnestPlate, Along::Either,
            made([](const Kit& k, const Corner&) { return k.adapter.thickness; }, { &hub.lugDepth, &caliper.mountDepth }));
        const std::vector<const Reading*> holes { &hub.lugSpacing, &hub.lugRadius, &caliper.mountSpacing, &caliper.mountDrop };
        // A wall of half the widest hole is wanted; the thinnest may be exactly that.
        constexpr double exact = 1e-9;
        const auto drilled = maker.sizes(maker.start()).adapter;
        double wanted = 0;
        double knuckleHole = NAN;
        for (const bracket::Hole& hole : drilled.holes) {
            wanted = std::max(wanted, bracket::wallWanted(hole.diameter));
            if (hole.toKnuckle)
                knuckleHole = hole.diameter;
        }
        for (const bracket::EdgeBore& bore : drilled.bores)
            wanted = std::max(wanted, bracket::wallWanted(bore.diameter));
        add(checks::plateWalls, wanted, Along::Either, made([](const Kit& k, const Corner&) { return k.adapter.wall + exact; }, holes));
        if (basis_.corner.mount.kind == MountKind::Radial) {
            add(checks::plateEdges, wanted, Along::Either, made([](const Kit& k, const Corner&) { return k.adapter.edge + exact; }, holes));
            add(checks::plateSeat, 0, Along::Rises,
                made(
                    [&hub, wanted, knuckleHole](const Kit& k, const Corner&) {
                        return k.adapter.caliperHeight - (hub.lugRadius.value.value_or(NAN) + knuckleHole / 2 + wanted);
                    },
                    holes));
        }
        add(checks::hatRoom, 0, Along::Rises,
            made([](const Kit& k, const Corner&) { return k.neckRoom; }, { &hub.flangeDiameter, &basis_.corner.pad.height }));
        add(checks::hatDepth, 0, Along::Either, made([](const Kit& k, const Corner&) { return k.neckDepth; }, { &caliper.slotWidth }));
    }

    const Maker& maker_;
    const Basis& basis_;
    const Build& build_;
    const Hub& hub_;
    Axle axle_;
    std::vector<Limit> limits_;
};

} // namespace

std::vector<Limit> limitsOf(const Maker& maker) { return Limits(maker).all(); }

std::vector<Verdict> fixedVerdicts(const Maker& maker, const Proposal& proposal)
{
    const Basis& basis = maker.basis();
    const Corner made = maker.corner(proposal, Known::Vendor);
    std::vector<Verdict> all;
    for (const Wheel* wheel : basis.wheels) {
        Corner on = made;
        on.wheel = wheel->id;
        Study s = trialOf(basis, std::move(on));
        s.remedies = Remedies::LeftOut;
        s.directory = std::make_shared<const Directory>(*s.build);
        s.keep(clearance::clearanceOn(s, basis.axle, {}));
        clearance::addSeatVerdicts(s, basis.axle);
        clearance::addHubRingVerdicts(s, basis.axle);
        clearance::addSpacerVerdicts(s, basis.axle);
        for (Verdict& v : s.verdicts)
            all.push_back(std::move(v));
    }
    return all;
}

} // namespace deepstop::design
