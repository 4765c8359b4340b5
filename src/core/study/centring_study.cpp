#include "centring/car_plan.hpp"
#include "study/figures.hpp"
#include "study/parts.hpp"

#include <algorithm>
#include <cmath>

namespace deepstop {

double CentringResult::effect() const
{
    // A real effect learnt from readings counts where it is believable; otherwise one of them is wrong. Common practice, no source.
    constexpr double least = 0.7;
    constexpr double most = 1.3;
    return learnt && learnt->ratio >= least && learnt->ratio <= most ? learnt->ratio : 1;
}

} // namespace deepstop

namespace deepstop::parts {
namespace {

/// Moves smaller than this teach nothing: the readings' own error is as large.
constexpr double leastMove = 0.2e-3;

centring::Gaps gapsOf(Sample& s, const MockUp& m) { return { s(m.innerTop), s(m.outerTop), s(m.innerBottom), s(m.outerBottom) }; }

double valueOr(const Reading& reading, double otherwise) { return reading.value.value_or(otherwise); }

/// From the earlier readings of a corner: what a shim really moved the caliper, over what it should have.
std::optional<LearntEffect> learn(const MockUp& m, const Corner& corner)
{
    struct State {
        double axial;
        double stack;
    };
    std::vector<State> states;
    const auto mean = [](const Reading& it, const Reading& ot, const Reading& ib, const Reading& ob) {
        for (const Reading* r : { &it, &ot, &ib, &ob })
            if (!r->value || r->known == Known::Estimated)
                return std::numeric_limits<double>::quiet_NaN();
        return centring::position({ *it.value, *ot.value, *ib.value, *ob.value }, 1, 1).axial;
    };
    for (const Pass& p : m.passes)
        states.push_back({ mean(p.innerTop, p.outerTop, p.innerBottom, p.outerBottom), (valueOr(p.shimTop, 0) + valueOr(p.shimBottom, 0)) / 2 });
    states.push_back({ mean(m.innerTop, m.outerTop, m.innerBottom, m.outerBottom), (valueOr(corner.mount.shimTop, 0) + valueOr(corner.mount.shimBottom, 0)) / 2 });
    const int direction = corner.mount.shimMoves == Direction::Outboard ? 1 : -1;
    double nominal = 0;
    double measured = 0;
    int moves = 0;
    for (std::size_t i = 1; i < states.size(); ++i) {
        const double stack = states[i].stack - states[i - 1].stack;
        const double moved = states[i].axial - states[i - 1].axial;
        if (!std::isfinite(moved) || std::abs(stack) < leastMove)
            continue;
        // Least squares through the origin, every move by its size.
        nominal += stack * stack;
        measured += stack * direction * moved;
        ++moves;
    }
    return moves ? std::optional(LearntEffect { measured / nominal, moves }) : std::nullopt;
}

/// How far the pad's edge lies under the rotor's at the two bolts, from its two ends.
std::pair<double, double> insetAtBolts(const MockUp& m, const Corner& corner)
{
    const double top = valueOr(m.padEdgeTop, NAN);
    const double bottom = valueOr(m.padEdgeBottom, NAN);
    const double slope = (top - bottom) / valueOr(corner.pad.length, NAN);
    const double half = valueOr(corner.mount.boltSpacing, NAN) / 2;
    return { (top + bottom) / 2 + slope * half, (top + bottom) / 2 - slope * half };
}

/// The part of a plan for the car that is this corner's.
centring::Plan planOf(const centring::CarPlan& car, const CentringResult& r, std::size_t first, double tolerance)
{
    centring::Plan plan;
    plan.top = car.stacks[first];
    plan.bottom = car.stacks[first + 1];
    const int direction = r.corner->mount.shimMoves == Direction::Outboard ? 1 : -1;
    const double effect = r.effect();
    const double top = direction * plan.top.residual * effect;
    const double bottom = direction * plan.bottom.residual * effect;
    plan.remaining = { (top + bottom) / 2, (top - bottom) / valueOr(r.corner->mount.boltSpacing, 1), top, bottom };
    plan.possible = std::abs(plan.top.residual) <= tolerance + 1e-9 && std::abs(plan.bottom.residual) <= tolerance + 1e-9;
    if (r.targets.size() == 4) {
        plan.radialTop = car.stacks[first + 2];
        plan.radialBottom = car.stacks[first + 3];
        plan.possible = plan.possible && std::abs(plan.radialTop->residual) <= tolerance + 1e-9 && std::abs(plan.radialBottom->residual) <= tolerance + 1e-9;
    }
    return plan;
}

} // namespace

void addCentring(Study& study)
{
    const Build& build = *study.build;
    const Setup& setup = *study.after.setup;
    const double aim = figures::setting(build.wants.padEdge, &Wants::padEdge);
    // Half of what is aimed at, so that the readings' own error has room inside it.
    const double tolerance = figures::setting(build.wants.centred, &Wants::centred) / 2;
    const int most = static_cast<int>(std::clamp(figures::setting(build.wants.shimsPerBolt, &Wants::shimsPerBolt), 1.0, 8.0));
    std::vector<double> targets;
    std::vector<std::size_t> firsts;
    for (const MockUp& mockUp : build.mockUps) {
        if (mockUp.setup != setup.id)
            continue;
        const Corner* corner = cornerOf(build, setup, mockUp.axle);
        if (!corner)
            continue;
        CentringResult r;
        r.mockUp = &mockUp;
        r.corner = corner;
        r.axial = evaluate([&](Sample& s) { return centring::position(gapsOf(s, mockUp), 1, 1).axial; });
        r.tilt = evaluate([&](Sample& s) { return centring::position(gapsOf(s, mockUp), 1, 1).tilt; });
        if (mockUp.padEdgeTop.value || mockUp.padEdgeBottom.value) {
            r.padEdge = evaluate([&](Sample& s) { return (s(mockUp.padEdgeTop) + s(mockUp.padEdgeBottom)) / 2; });
            r.padTilt = evaluate([&](Sample& s) { return s(mockUp.padEdgeTop) - s(mockUp.padEdgeBottom); });
        }
        // Play that nobody has taken up the same way each time is error of the reading.
        if (mockUp.play.value && mockUp.settled != YesNo::Yes)
            for (Figure* figure : { &r.axial, &r.tilt }) {
                figure->worstCase += *mockUp.play.value / 2;
                figure->rootSumSquare = std::hypot(figure->rootSumSquare, *mockUp.play.value / 2);
            }
        r.learnt = learn(mockUp, *corner);
        Sample s;
        const double gapSpacing = s(mockUp.gapSpacing);
        const double boltSpacing = s(corner->mount.boltSpacing);
        const auto position = centring::position(gapsOf(s, mockUp), gapSpacing, boltSpacing);
        if (std::isfinite(position.atTopBolt) && std::isfinite(position.atBottomBolt)) {
            r.position = position;
            const int direction = corner->mount.shimMoves == Direction::Outboard ? 1 : -1;
            const double effect = r.effect();
            r.targets = { valueOr(corner->mount.shimTop, 0) - direction * position.atTopBolt / effect, valueOr(corner->mount.shimBottom, 0) - direction * position.atBottomBolt / effect };
            const auto [insetTop, insetBottom] = insetAtBolts(mockUp, *corner);
            if (corner->mount.kind == MountKind::Radial && std::isfinite(insetTop + insetBottom)) {
                r.targets.push_back(valueOr(corner->mount.radialTop, 0) + insetTop - aim);
                r.targets.push_back(valueOr(corner->mount.radialBottom, 0) + insetBottom - aim);
            }
            constexpr double senseless = 0.2; // m
            if (std::ranges::all_of(r.targets, [](double t) { return std::abs(t) < senseless; })) {
                firsts.push_back(targets.size());
                targets.insert(targets.end(), r.targets.begin(), r.targets.end());
            } else {
                r.targets.clear();
                r.why = "The gaps cannot be right: no caliper is that far off.";
            }
        }
        study.centring.push_back(std::move(r));
    }
    if (targets.empty())
        return;
    std::vector<centring::ShimKind> drawer;
    for (const ShimStock& stock : build.drawer)
        if (stock.thickness.value)
            drawer.push_back({ *stock.thickness.value, stock.count });
    // Both sides draw on one drawer, so both are planned at once.
    const auto plans = centring::carPlans(targets, drawer, tolerance, most);
    std::size_t known = 0;
    for (CentringResult& r : study.centring) {
        if (r.targets.empty())
            continue;
        const std::size_t first = firsts[known++];
        for (std::size_t i = 0; i < plans.size() && i < 2; ++i)
            (i == 0 ? r.plan : r.next) = planOf(plans[i], r, first, tolerance);
        const double least = *std::ranges::min_element(r.targets);
        if (r.plan && !r.plan->possible) {
            if (least < -tolerance - 1e-9)
                r.plan->why = "Cannot be shimmed: more would have to come out than is in.";
            else if (drawer.empty())
                r.plan->why = "The drawer is empty.";
            else
                r.plan->why = "The drawer does not hold the right sizes: this is the nearest it can do.";
        }
    }
    if (!plans.empty() && !plans.front().within())
        study.shimsToBuy = centring::toBuy(targets, drawer, tolerance, most);
}

} // namespace deepstop::parts
