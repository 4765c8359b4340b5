#include "chapters/clearance/clearance.hpp"

#include "build/words.hpp"
#include "chapters/clearance/checks.hpp"
#include "chapters/clearance/clearance_parts.hpp"
#include "chapters/clearance/tried.hpp"
#include "chapters/clearance/wheel_figures.hpp"
#include "language/language.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace deepstop {

namespace clearance {

const Reading* spunGap(const Spun& spun, WheelGap which, const Wheel& wheel)
{
    if (spun.wheel != wheel.id)
        return nullptr;
    const Reading& gap = which == WheelGap::Barrel ? spun.barrel : which == WheelGap::Spokes ? spun.spokes : spun.insets;
    return gap.value ? &gap : nullptr;
}

} // namespace clearance

namespace {

/// A copy of `corner` with a plausible length wherever one is not read, for drawing only; says which were filled.
Corner filledForDrawing(const Corner& corner, const Corner* reference, Side side, std::vector<ReadingId>& standIns)
{
    Corner filled = corner;
    const auto fill = [&](auto select, double proportion) {
        const Reading& own = select(corner);
        if (own.value)
            return;
        standIns.emplace_back(own);
        const Reading* known = reference ? &select(*reference) : nullptr;
        select(filled).value = known && known->value ? *known->value : proportion;
    };
    const double diameter = corner.rotor.outerDiameter.value.value_or(
        reference && reference->rotor.outerDiameter.value ? *reference->rotor.outerDiameter.value : 0.3);
    // Proportions of a usual corner; a picture has to be drawn even of what is not read yet.
    fill(
        [](auto& c) -> auto& { return c.rotor.outerDiameter; }, 0.3);
    fill(
        [](auto& c) -> auto& { return c.rotor.thickness; }, 0.08 * diameter);
    fill(
        [](auto& c) -> auto& { return c.rotor.ringInnerDiameter; }, 0.62 * diameter);
    fill(
        [](auto& c) -> auto& { return c.rotor.overallHeight; }, 0.16 * diameter);
    fill(
        [](auto& c) -> auto& { return c.rotor.hatThickness; }, 7e-3);
    fill(
        [](auto& c) -> auto& { return c.rotor.hatOuterDiameter; }, 0.5 * diameter);
    fill(
        [](auto& c) -> auto& { return c.rotor.hatWall; }, 7e-3);
    fill(
        [](auto& c) -> auto& { return c.rotor.bore; }, 0.068);
    fill(
        [](auto& c) -> auto& { return c.rotor.ventGap; }, 0.0);
    fill(
        [](auto& c) -> auto& { return c.caliper.backOverEdge; }, 0.022);
    fill(
        [](auto& c) -> auto& { return c.caliper.backLength; }, 0.1);
    fill(
        [](auto& c) -> auto& { return c.caliper.bridgeGap; }, 4e-3);
    fill(
        [](auto& c) -> auto& { return c.caliper.reach; }, 0.055);
    fill(
        [](auto& c) -> auto& { return c.caliper.outboardDepth; }, 0.055);
    fill(
        [](auto& c) -> auto& { return c.caliper.inboardDepth; }, 0.06);
    fill(
        [](auto& c) -> auto& { return c.caliper.shoulder; }, 0.012);
    fill(
        [](auto& c) -> auto& { return c.caliper.slotWidth; }, filled.rotor.thickness.value.value_or(0.025) + 0.016);
    fill(
        [](auto& c) -> auto& { return c.pad.height; }, 0.15 * diameter);
    fill(
        [](auto& c) -> auto& { return c.pad.thickness; },
        filled.pad.overall.value ? *filled.pad.overall.value - filled.pad.backing.value.value_or(figures::usualBacking) : 0.010);
    fill(
        [](auto& c) -> auto& { return c.pad.backing; }, 0.005);
    // A spacer or a plate that is said to be there, but was not measured.
    if (corner.spacerPart.kind != SpacerKind::Unknown)
        fill(
            [](auto& c) -> auto& { return c.spacer; }, 10e-3);
    if (corner.shield.lies != PlateLies::Unknown && corner.shield.state == ShieldState::Removed)
        fill(
            [](auto& c) -> auto& { return c.shield.plate; }, 1.5e-3);
    fill(
        [side](auto& c) -> auto& { return c.at(side).padInset; }, 0.5e-3);
    fill(
        [side](auto& c) -> auto& { return c.at(side).slotCentre; },
        filled.ring.value.value_or(0) + *filled.rotor.hatThickness.value - *filled.rotor.overallHeight.value
            + *filled.rotor.thickness.value / 2);
    return filled;
}

fit::WheelShape drawable(fit::WheelShape shape)
{
    const auto unknown = [](geometry::Point p) { return !std::isfinite(p.z) || !std::isfinite(p.r); };
    std::erase_if(shape.barrel, unknown);
    for (fit::Outline& line : shape.spokes)
        std::erase_if(line.chain, unknown);
    std::erase_if(shape.insets, [](const fit::Outline& inset) { return inset.chain.empty(); });
    return shape;
}

/// The smallest of the gaps to the wheel; one that is not known at all does not hide another's being small, but the smallest is then not
/// proven.
Figure smallestOf(const CornerClearance& r, bool insets)
{
    Figure smallest;
    bool known = true;
    for (const WheelGap which : wheelGaps) {
        const Figure& gap = r.room(which).gap;
        if (which == WheelGap::Insets && !insets)
            continue;
        known = known && gap.value;
        auto lacks = smallest.lacks;
        for (const ReadingId reading : gap.lacks)
            if (std::ranges::find(lacks, reading) == lacks.end())
                lacks.push_back(reading);
        if (which == WheelGap::Barrel || (gap.value && (!smallest.value || *gap.value < *smallest.value)))
            smallest = gap;
        smallest.lacks = std::move(lacks);
    }
    if (!known)
        smallest.value.reset();
    return smallest;
}

/// Where the wheel has to be measured for this caliper. What is bare is told by the stations taken, one alone included, though no gap can
/// be had from one.
std::vector<fit::PlannedStation> stationsFor(const CornerClearance& r, const Wants& wants)
{
    const double spacing = figures::setting(wants.stationSpacing, &Wants::stationSpacing);
    const double face = fit::wheelFace(r.shape);
    constexpr double beyond = 1; // m; farther than any wheel reaches
    std::vector<double> along;
    for (const BarrelStation& station : r.wheel->barrel)
        if (station.depth.value && station.insideRadius.value)
            along.push_back(face - *station.depth.value);
    std::ranges::sort(along);
    const auto barrel = fit::bareStretches(along, -beyond, beyond, spacing);
    std::vector<std::pair<double, double>> spokes;
    if (const auto& room = r.room(WheelGap::Spokes).drawn) {
        spokes = room->bare;
    } else {
        std::vector<double> up;
        for (const SpokeStation& station : r.wheel->spokes)
            if (station.radius.value && station.distance.value)
                up.push_back(*station.radius.value);
        std::ranges::sort(up);
        spokes = fit::bareStretches(up, -beyond, beyond, spacing);
    }
    auto plan = fit::measuringPlan(fit::caliperOutlines(r.shape), face, barrel, spokes, spacing);
    // Taken is what somebody took: at its place, or near it where the stations there tell enough.
    constexpr double atIt = 3e-3;
    for (fit::PlannedStation& station : plan) {
        const double near = station.taken ? spacing / 2 + 1e-9 : atIt;
        if (station.on == fit::PlannedStation::On::Barrel)
            station.taken = std::ranges::any_of(along, [&](double z) { return std::abs(face - z - station.place) <= near; });
        else
            station.taken = std::ranges::any_of(r.wheel->spokes, [&](const SpokeStation& s) {
                return s.radius.value && s.distance.value && std::abs(*s.radius.value - station.place) <= near;
            });
    }
    return plan;
}

std::optional<fit::ShieldCut> shieldCutOf(const CornerClearance& r, const Hub& hub, const Wants& wants)
{
    using figures::setting;
    const auto value = [](const Reading& reading) { return reading.value.value_or(NAN); };
    const fit::CornerShape& s = r.shape;
    if (r.corner->shield.state == ShieldState::Removed)
        return {};
    const auto shield = figures::shieldOf(*r.corner, hub);
    const auto cut = fit::shieldCut({ value(*shield.diameter) / 2, value(*shield.depth), value(*shield.rim) },
        s.rotor.outerRadius
            + fit::growth(s.rotor.outerRadius, setting(wants.hotRise, &Wants::hotRise),
                figures::ringSolid(r.corner->rotor).expansionOver(setting(wants.hotRise, &Wants::hotRise))),
        -fit::frictionFaces(s).inboard, s.rotor.ringInnerRadius, s.rotor.outerRadius - s.caliper.reach,
        s.caliper.inboardDepth - s.slotCentre, s.caliper.backHalfLength, setting(wants.shieldGap, &Wants::shieldGap));
    return cut;
}

/// What a picture of the corner needs: shapes, and where the gaps are at nominal readings.
CornerClearance drawnCorner(const Build& build, const Corner& corner, Side side, const Corner* reference, const Hub& hub)
{
    using namespace figures;
    CornerClearance r;
    r.corner = &corner;
    r.side = side;
    r.wheel = findWheel(build, corner.wheel);
    Evaluator once;
    r.shape = shapeOf(once, corner, side, hub);
    Evaluator drawing;
    r.drawn = shapeOf(drawing, filledForDrawing(corner, reference, side, r.standIns), side, hub);
    if (!std::isfinite(r.drawn.hub.flangeRadius))
        r.drawn.hub.flangeRadius = 0.07;
    if (!std::isfinite(r.drawn.hub.pilotRadius))
        r.drawn.hub.pilotRadius = 0.033;
    if (!std::isfinite(r.drawn.hub.pilotHeight))
        r.drawn.hub.pilotHeight = 0.012;
    if (r.wheel) {
        const Wheel& wheel = *r.wheel;
        r.barrelEstimated = wheel.barrel.size() < 2;
        r.wheelShape = drawable(wheelOf(drawing, wheel, fit::wheelFace(r.drawn)));
        for (const WheelGap which : wheelGaps) {
            if (which == WheelGap::Insets && wheel.insets.empty())
                continue;
            WheelRoom& room = r.rooms[static_cast<std::size_t>(which)];
            room.drawn = roomOf(which, corner, r.drawn, r.wheelShape, build.wants);
            room.wanted = wantedOf(which, wheel, build.wants);
        }
        r.stations = stationsFor(r, build.wants);
        r.studs = studStack(once, corner, wheel, hub);
        r.stance = stanceOf(once, corner, wheel);
    }
    r.hotGrowth = fit::growth(r.drawn.rotor.outerRadius, setting(build.wants.hotRise, &Wants::hotRise),
        ringSolid(corner.rotor).expansionOver(setting(build.wants.hotRise, &Wants::hotRise)));
    const auto rotor = corner.brakes == BrakeKind::Discs ? fit::rotorSection(r.drawn, r.hotGrowth) : geometry::Chain {};
    for (const KeepOut& place : hub.keepOuts)
        r.keepOuts.push_back(fit::keepOutRoom({ -place.depth.value.value_or(NAN), place.radius.value.value_or(NAN) }, r.wheelShape, rotor));
    r.shieldCut = shieldCutOf(r, hub, build.wants);
    return r;
}

/// Which of a study's corners.
struct Which {
    bool judged; ///< of the setup after, or shared by both
    Axle axle;
    Side side;
    [[nodiscard]] std::string name() const
    {
        return fmt::format("{} {} {}", judged ? "after" : "before", judge::wordFor(axle), wordOf(side));
    }
};

/// What was read directly outranks what is worked out from dimensions; a wheel that was not turned all the way, or not at the locks of an
/// axle that steers, proves no more than where it stood.
Figure readGap(const Reading& gap, const Spun& spun, Axle axle)
{
    return evaluate([&](Evaluator& s) {
        if (spun.wholeTurn != YesNo::Yes)
            s.assume(tr("that the wheel clears all the way round"));
        if (axle == Axle::Front && spun.atLocks != YesNo::Yes)
            s.assume(tr("that the wheel clears at droop and both locks"));
        if (!spun.changed.empty())
            s.assume(tr("the wheel was spun before {} changed", spun.changed));
        return s(gap);
    });
}

/// One gap with its uncertainty. What each reading does to it is asked of the setup that is judged.
Figure gapAt(const Study& study, const Which& of, WheelGap which, const Corner& corner, const Wheel& wheel)
{
    const Spun& spun = corner.at(of.side).spun;
    if (const Reading* read = clearance::spunGap(spun, which, wheel))
        return study.recall(
            fmt::format("gap {}, {}, spun", static_cast<int>(which), of.name()), [&] { return readGap(*read, spun, of.axle); });
    return study.recall(fmt::format("gap {}, {}", static_cast<int>(which), of.name()), [&] {
        return figures::wheelGapOf(
            which, corner, of.side, wheel, study.build->wants, of.judged ? figures::Effects::Named : figures::Effects::LeftOut);
    });
}

/// The gaps with their uncertainty.
void addGaps(CornerClearance& r, const Study& study, const Which& of)
{
    if (!r.wheel)
        return;
    for (const WheelGap which : wheelGaps)
        if (strikes(which, *r.wheel))
            r.rooms[static_cast<std::size_t>(which)].gap = gapAt(study, of, which, *r.corner, *r.wheel);
    r.smallestGap = smallestOf(r, !r.wheel->insets.empty());
}

/// Both sides were read, and read the same: one tells of the other.
bool readAlike(const Corner& corner)
{
    return corner.left == corner.right && corner.left.slotCentre.value && !provesNothing(corner.left.slotCentre.known);
}

/// What one side's figure rests on, it rests on as read on the other.
void restOnBoth(Figure& figure, const Corner& corner)
{
    for (const auto& [left, right] :
        { std::pair { &corner.left.slotCentre, &corner.right.slotCentre }, std::pair { &corner.left.radialTop, &corner.right.radialTop },
            std::pair { &corner.left.radialBottom, &corner.right.radialBottom } })
        if (std::ranges::find(figure.restsOn, ReadingId(*left)) != figure.restsOn.end()) {
            figure.restsOn.emplace_back(*right);
            figure.effects.resize(figure.value ? figure.restsOn.size() : 0);
        }
}

/// Works on both sides of each axle of both setups; an axle the two share is worked out once.
template <class Work>
Clearance ofBoth(const Study& study, Work work)
{
    Clearance all;
    for (const Axle axle : { Axle::Front, Axle::Rear }) {
        const Corner* before = study.before.at(axle).corner;
        const Corner* after = study.after.at(axle).corner;
        const auto both = [&](const Corner& corner, const AxleClearance& was, AxleClearance& now) {
            now.left = work(axle, Side::Left, corner, was.left);
            if (readAlike(corner)) {
                now.right = now.left;
                now.right.side = Side::Right;
                for (WheelRoom& room : now.left.rooms)
                    restOnBoth(room.gap, corner);
                restOnBoth(now.left.smallestGap, corner);
            } else {
                now.right = work(axle, Side::Right, corner, was.right);
            }
        };
        if (before)
            both(*before, study.of<Clearance>().before.at(axle), all.before.at(axle));
        if (after == before)
            all.after.at(axle) = all.before.at(axle);
        else if (after)
            both(*after, study.of<Clearance>().after.at(axle), all.after.at(axle));
    }
    return all;
}

void addClearanceLedger(Study& study)
{
    const Axle axle = judge::axlesOf(study).front();
    const AxleClearance& was = study.of<Clearance>().before.at(axle);
    const AxleClearance& now = study.of<Clearance>().after.at(axle);
    if (!was.left.corner || !now.left.corner)
        return;
    LedgerLine gap;
    gap.id = "wheel-gap";
    gap.ofPlaces = true;
    gap.title = tr("Smallest wheel gap");
    gap.style = style::gap;
    gap.before = figures::lesserOf(was.left.smallestGap, was.right.smallestGap).figure;
    gap.after = figures::lesserOf(now.left.smallestGap, now.right.smallestGap).figure;
    if (now.left.wheel) {
        // Weights and valve count as the wheel itself; what nobody knows of one surface is not made good by another.
        std::vector<const Verdict*> all;
        for (const Check* check : { &checks::barrelGap, &checks::insetGap, &checks::spokeGap })
            if (const Verdict* v = study.verdict(*check, { axle }))
                all.push_back(v);
        const auto worst = std::ranges::max_element(all, {}, &Verdict::level);
        gap.level = worst == all.end() ? Level::Unproven : (*worst)->level;
        if (gap.level < Level::Hits && std::ranges::any_of(all, [](const Verdict* v) { return v->level == Level::Unproven; }))
            gap.level = Level::Unproven;
        gap.word = tr(nameOf(gap.level));
        // A gap that certainly hits is worth its figure, whatever is not known of the others.
        for (const Verdict* v : all)
            if (v->level == Level::Hits && v->figure.value && (!gap.after.value || *v->figure.value < *gap.after.value))
                gap.after = v->figure;
    } else {
        gap.word = tr("no wheel chosen");
    }
    study.ledger.push_back(std::move(gap));
}

} // namespace

namespace clearance {

Gaps gapsNow(const Study& study, Axle axle)
{
    const auto& [corner, wheel] = study.after.at(axle);
    if (!study.working || !corner || !wheel)
        return gapsOf(study.of<Clearance>().after.at(axle));
    Gaps gaps;
    for (const WheelGap which : wheelGaps)
        if (strikes(which, *wheel)) {
            Figure left = gapAt(study, { true, axle, Side::Left }, which, *corner, *wheel);
            gaps[static_cast<std::size_t>(which)] = readAlike(*corner)
                ? std::move(left)
                : figures::lesserOf(std::move(left), gapAt(study, { true, axle, Side::Right }, which, *corner, *wheel)).figure;
        }
    return gaps;
}

Clearance clearanceOn(const Study& study, Axle axle, const std::array<Figure, wheelGaps.size()>& gaps)
{
    Clearance found;
    const Corner* asFound = cornerOf(*study.build, study.build->setups.front(), axle);
    const Hub& hub = hubOf(*study.build, axle);
    for (const Side side : { Side::Left, Side::Right }) {
        if (const Corner* before = study.before.at(axle).corner)
            found.before.at(axle).at(side) = drawnCorner(*study.build, *before, side, asFound, hub);
        if (const Corner* after = study.after.at(axle).corner) {
            CornerClearance& r = found.after.at(axle).at(side) = drawnCorner(*study.build, *after, side, asFound, hub);
            for (const WheelGap which : wheelGaps)
                r.rooms[static_cast<std::size_t>(which)].gap = gaps[static_cast<std::size_t>(which)];
        }
    }
    return found;
}

} // namespace clearance

void drawClearance(Study& study)
{
    const Setup& asFound = study.build->setups.front();
    study.keep(ofBoth(study, [&](Axle axle, Side side, const Corner& corner, const CornerClearance&) {
        const Which of { study.after.at(axle).corner == &corner, axle, side };
        auto drawn = study.recall(fmt::format("drawn {}", of.name()),
            [&] { return drawnCorner(*study.build, corner, side, cornerOf(*study.build, asFound, axle), hubOf(*study.build, axle)); });
        drawn.corner = &corner;
        drawn.wheel = findWheel(*study.build, corner.wheel);
        return drawn;
    }));
}

void settleClearance(Study& study)
{
    Clearance all = study.of<Clearance>();
    for (const auto& [parts, found] : { std::pair { &study.before, &all.before }, std::pair { &study.after, &all.after } })
        for (const Axle axle : { Axle::Front, Axle::Rear })
            for (CornerClearance* r : { &found->at(axle).left, &found->at(axle).right }) {
                r->corner = parts->at(axle).corner;
                r->wheel = r->corner ? findWheel(*study.build, r->corner->wheel) : nullptr;
            }
    study.keep(std::move(all));
}

void addClearance(Study& study)
{
    if (!study.has<Clearance>())
        drawClearance(study);
    study.keep(ofBoth(study, [&](Axle axle, Side side, const Corner& corner, CornerClearance drawn) {
        addGaps(drawn, study, { study.after.at(axle).corner == &corner, axle, side });
        return drawn;
    }));
    for (const Axle axle : judge::axlesOf(study)) {
        clearance::addRoomVerdicts(study, axle);
        clearance::addFixedVerdicts(study, axle);
        clearance::addHubRingVerdicts(study, axle);
        clearance::addSeatVerdicts(study, axle);
        clearance::addSpacerVerdicts(study, axle);
    }
    addClearanceLedger(study);
}

} // namespace deepstop
