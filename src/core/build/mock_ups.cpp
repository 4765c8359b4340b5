#include "build/mock_ups.hpp"

#include "build/edit.hpp"
#include "language/language.hpp"

#include <string>

#include <algorithm>
#include <cmath>

namespace deepstop {
namespace {

/// By how much a dimension is another one now; nothing where it only came to be known, or lies within what it was known to.
double changeOf(const Reading& before, const Reading& now)
{
    if (!before.value || !now.value)
        return 0;
    const double by = *now.value - *before.value;
    const double known = std::max(before.plusMinus.value_or(0), now.plusMinus.value_or(0));
    return std::abs(by) > known + 1e-9 ? by : 0;
}

/// Of what is not there at all where it is not said: a hub-face ring.
double changeOfRing(const Reading& before, const Reading& now) { return now.value.value_or(0) - before.value.value_or(0); }

/// How far a shield's clamped plate holds the rotor outboard of the knuckle: under it on the flange, or under the hub.
double plateUnder(const Corner& c)
{
    const bool clamped = c.shield.lies == PlateLies::FlangeAndRotor || c.shield.lies == PlateLies::KnuckleAndHub;
    return clamped && c.shield.state != ShieldState::Removed ? c.shield.plate.value.value_or(0) : 0;
}

/// Of a stack somebody had said.
double changeOfStack(const Reading& before, const Reading& now) { return before.value ? now.value.value_or(0) - *before.value : 0; }

struct GapShift {
    double shimTop;
    double shimBottom;
    double radialTop;
    double radialBottom;
    double rotorFace; ///< inboard face, outboard positive
    double thickness; ///< of the rotor
    double unsure; ///< moves the caliper, nobody can say which way

    [[nodiscard]] bool any() const
    {
        const auto moved = [](double by) { return std::abs(by) > 1e-9; };
        return moved(shimTop) || moved(shimBottom) || moved(radialTop) || moved(radialBottom) || moved(rotorFace) || moved(thickness)
            || moved(unsure);
    }
};

GapShift shiftOf(const Corner& before, const Corner& now, Side side)
{
    const Fitted& was = before.at(side);
    const Fitted& is = now.at(side);
    return { changeOfStack(was.shimTop, is.shimTop), changeOfStack(was.shimBottom, is.shimBottom),
        changeOfStack(was.radialTop, is.radialTop), changeOfStack(was.radialBottom, is.radialBottom),
        changeOfRing(before.ring, now.ring) + plateUnder(now) - plateUnder(before)
            + changeOf(before.rotor.hatThickness, now.rotor.hatThickness) - changeOf(before.rotor.overallHeight, now.rotor.overallHeight),
        changeOf(before.rotor.thickness, now.rotor.thickness), std::abs(changeOf(before.bracket.thickness, now.bracket.thickness)) };
}

constexpr Reading MockUp::*gaps[] { &MockUp::innerTop, &MockUp::outerTop, &MockUp::innerBottom, &MockUp::outerBottom };
constexpr Reading MockUp::*edges[] { &MockUp::padEdgeTop, &MockUp::padEdgeBottom };

bool anyRead(const MockUp& m)
{
    const auto read = [&](Reading MockUp::*each) { return (m.*each).value && !provesNothing((m.*each).known); };
    return std::ranges::any_of(gaps, read) || std::ranges::any_of(edges, read);
}

bool sameGaps(const MockUp& a, const MockUp& b)
{
    const auto same = [&](Reading MockUp::*each) { return a.*each == b.*each; };
    return std::ranges::all_of(gaps, same) && std::ranges::all_of(edges, same);
}

/// To the micrometre, as a file in millimetres gives it back.
double toMicrometre(double length) { return std::round(length * 1e6) / 1e3 * 1e-3; }

void move(Reading& reading, double by, double unsure = 0)
{
    if (!reading.value || (std::abs(by) <= 1e-9 && unsure <= 0))
        return;
    std::optional<double> width = reading.plusMinus;
    if (unsure > 0)
        width = toMicrometre(uncertainty(reading, true) + unsure);
    reading = { toMicrometre(*reading.value + by), width, Known::Estimated, reading.instrument, {} };
}

/// @param own the corner of the setup itself, whose sides' readings go along; null where it has another setup's
void foretell(MockUp& m, const GapShift& c, const Corner& was, const Corner& now, Corner* own)
{
    const Fitted& then = was.at(m.side);
    m.passes.push_back({ m.innerTop.date, m.innerTop, m.outerTop, m.innerBottom, m.outerBottom, m.padEdgeTop, m.padEdgeBottom, then.shimTop,
        then.shimBottom, then.radialTop, then.radialBottom });
    const bool told = now.mount.shimMoves != Direction::Unknown;
    const double way = !told ? 0 : now.mount.shimMoves == Direction::Outboard ? 1 : -1;
    const double unsure = c.unsure + (told ? 0 : std::max(std::abs(c.shimTop), std::abs(c.shimBottom)));
    const double middle = way * (c.shimTop + c.shimBottom) / 2;
    const double spread = m.gapSpacing.value.value_or(0) / now.mount.boltSpacing.value.value_or(INFINITY);
    const double tilted = way * (c.shimTop - c.shimBottom) / 2 * spread;
    for (const auto& [inner, outer, caliper] :
        { std::tuple { &m.innerTop, &m.outerTop, middle + tilted }, std::tuple { &m.innerBottom, &m.outerBottom, middle - tilted } }) {
        move(*inner, c.rotorFace - caliper, unsure);
        move(*outer, caliper - c.rotorFace - c.thickness, unsure);
    }
    // Thicker under the studs is outward.
    const double ratio = now.pad.length.value.value_or(0) / now.mount.boltSpacing.value.value_or(1) / 2;
    const double outward = (c.radialTop + c.radialBottom) / 2;
    move(m.padEdgeTop, -outward - (c.radialTop - c.radialBottom) * ratio);
    move(m.padEdgeBottom, -outward + (c.radialTop - c.radialBottom) * ratio);
    if (!own)
        return;
    // What the caliper's place was read with has changed as well.
    Fitted& fitted = own->at(m.side);
    if (fitted.slotCentre == then.slotCentre)
        move(fitted.slotCentre, middle, unsure);
    if (fitted.padInset == then.padInset)
        move(fitted.padInset, -outward);
}

} // namespace

namespace {

constexpr Reading Spun::*spunGaps[] { &Spun::barrel, &Spun::spokes, &Spun::insets };

bool sameSpun(const Spun& a, const Spun& b)
{
    return std::ranges::all_of(spunGaps, [&](Reading Spun::*each) { return a.*each == b.*each; });
}

/// What of a corner's side a spun wheel's gaps hang on is another now, in words; empty: nothing.
std::string changedUnder(const Corner& was, const Corner& is, Side side)
{
    std::string all;
    const auto say = [&](bool changed, const char* what) {
        if (changed)
            all += (all.empty() ? "" : ", ") + std::string(what);
    };
    const GapShift shift = shiftOf(was, is, side);
    const auto moved = [](double by) { return std::abs(by) > 1e-9; };
    say(was.wheel != is.wheel, "wheel");
    say(moved(changeOfRing(was.spacer, is.spacer)), "spacer");
    say(moved(changeOfRing(was.ring, is.ring)), tr("hub-face ring"));
    say(moved(plateUnder(is) - plateUnder(was)), tr("dust shield's plate"));
    say(moved(changeOf(was.rotor.hatThickness, is.rotor.hatThickness)), "hat");
    say(was.caliper != is.caliper, "caliper");
    say(was.mount != is.mount || was.bracket != is.bracket, tr("bracket or mount"));
    say(moved(shift.shimTop) || moved(shift.shimBottom) || moved(shift.radialTop) || moved(shift.radialBottom), "shims");
    // A floating caliper's body follows its pads.
    say(is.caliper.kind != CaliperKind::Fixed
            && (was.pad.thickness.value != is.pad.thickness.value || was.pad.overall.value != is.pad.overall.value),
        "pads");
    return all;
}

void age(Spun& spun, const Corner& was, const Corner& is, Side side, const std::string& what)
{
    const GapShift shift = shiftOf(was, is, side);
    const double wheelOut = changeOfRing(was.spacer, is.spacer) + changeOfRing(was.ring, is.ring) + plateUnder(is) - plateUnder(was)
        + changeOf(was.rotor.hatThickness, is.rotor.hatThickness);
    const bool told = is.mount.shimMoves != Direction::Unknown;
    const double way = !told ? 0 : is.mount.shimMoves == Direction::Outboard ? 1 : -1;
    const double caliperOut = way * (shift.shimTop + shift.shimBottom) / 2;
    const double outward = (shift.radialTop + shift.radialBottom) / 2;
    for (Reading Spun::*each : spunGaps) {
        Reading& gap = spun.*each;
        if (!gap.value)
            continue;
        const double by = each == &Spun::spokes ? wheelOut - caliperOut : -outward;
        const double unsure = told ? 0 : std::max(std::abs(shift.shimTop), std::abs(shift.shimBottom));
        gap = { toMicrometre(*gap.value + by), toMicrometre(uncertainty(gap, true) + unsure), Known::Estimated, gap.instrument, {} };
    }
    if (spun.changed.find(what) == std::string::npos)
        spun.changed += (spun.changed.empty() ? "" : ", ") + what;
}

} // namespace

void foretellSpun(const Build& before, Build& now)
{
    for (Setup& setup : now.setups)
        for (const Axle axle : { Axle::Front, Axle::Rear }) {
            auto& corner = axle == Axle::Front ? setup.front : setup.rear;
            const Setup* then = findSetup(before, setup.id);
            const auto& was = then ? (axle == Axle::Front ? then->front : then->rear) : std::optional<Corner> {};
            if (!corner || !was)
                continue;
            for (const Side side : { Side::Left, Side::Right }) {
                Spun& spun = corner->at(side).spun;
                const bool any = std::ranges::any_of(spunGaps, [&](Reading Spun::*each) { return (spun.*each).value.has_value(); });
                if (!any)
                    continue;
                if (!sameSpun(was->at(side).spun, spun)) {
                    spun.wheel = corner->wheel;
                    spun.changed.clear();
                } else if (const auto what = changedUnder(*was, *corner, side); !what.empty()) {
                    age(spun, *was, *corner, side, what);
                }
            }
        }
}

void foretellGaps(const Build& before, Build& now)
{
    if (before.mockUps.size() != now.mockUps.size() || before.setups.size() != now.setups.size())
        return;
    for (std::size_t i = 0; i < now.mockUps.size(); ++i) {
        const MockUp& then = before.mockUps[i];
        MockUp& m = now.mockUps[i];
        const bool same = then.setup == m.setup && then.axle == m.axle && then.side == m.side;
        const Setup* was = findSetup(before, m.setup);
        const Setup* is = findSetup(now, m.setup);
        if (!same || !was || !is || !anyRead(m) || !sameGaps(then, m))
            continue;
        const Corner* old = cornerOf(before, *was, m.axle);
        const Corner* corner = cornerOf(now, *is, m.axle);
        if (!old || !corner)
            continue;
        const GapShift change = shiftOf(*old, *corner, m.side);
        Setup* own = setupIn(now, m.setup);
        auto& ownCorner = m.axle == Axle::Front ? own->front : own->rear;
        if (change.any())
            foretell(m, change, *old, Corner(*corner), ownCorner ? &*ownCorner : nullptr);
    }
}

} // namespace deepstop
