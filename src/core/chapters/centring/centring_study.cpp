#include "centring/car_plan.hpp"
#include "chapters/centring/centring_parts.hpp"
#include "chapters/centring/checks.hpp"
#include "figures/figures.hpp"
#include "language/language.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <utility>
#include <cmath>
#include <limits>

namespace deepstop {

double CentringResult::effect() const
{
    // A real effect learnt from readings counts where it is believable; otherwise one of them is wrong. Common practice, no source.
    constexpr double least = 0.7;
    constexpr double most = 1.3;
    return learnt && learnt->ratio >= least && learnt->ratio <= most ? learnt->ratio : 1;
}

} // namespace deepstop

namespace deepstop::mock_ups {

double meanOf(Evaluator& s, const std::vector<const MockUp*>& all, Reading MockUp::*which)
{
    // Narrower than any instrument is as narrow as this.
    constexpr double narrowest = 1e-6;
    double sum = 0;
    double weights = 0;
    for (const MockUp* m : all)
        if (const Reading& reading = m->*which; reading.value) {
            const double width = std::max(narrowest, uncertainty(reading, true));
            sum += s(reading) / (width * width);
            weights += 1 / (width * width);
        }
    return weights > 0 ? sum / weights : s(all.back()->*which);
}

centring::Gaps gapsOf(Evaluator& s, const std::vector<const MockUp*>& all)
{
    return { meanOf(s, all, &MockUp::innerTop), meanOf(s, all, &MockUp::outerTop), meanOf(s, all, &MockUp::innerBottom),
        meanOf(s, all, &MockUp::outerBottom) };
}

namespace {

/// Moves smaller than this teach nothing: the readings' own error is as large.
constexpr double leastMove = 0.2e-3;

double valueOr(const Reading& reading, double otherwise) { return reading.value.value_or(otherwise); }

/// From the earlier readings of a corner: what a shim really moved the caliper, over what it should have.
std::optional<LearntEffect> learn(const MockUp& m, const Corner& corner)
{
    const Fitted& fitted = corner.at(m.side);
    struct State {
        double axial;
        double stack;
    };
    std::vector<State> states;
    const auto mean = [](const Reading& it, const Reading& ot, const Reading& ib, const Reading& ob) {
        for (const Reading* r : { &it, &ot, &ib, &ob })
            if (!r->value || provesNothing(r->known))
                return std::numeric_limits<double>::quiet_NaN();
        return centring::position({ *it.value, *ot.value, *ib.value, *ob.value }, 1, 1).axial;
    };
    for (const Pass& p : m.passes)
        states.push_back(
            { mean(p.innerTop, p.outerTop, p.innerBottom, p.outerBottom), (valueOr(p.shimTop, 0) + valueOr(p.shimBottom, 0)) / 2 });
    states.push_back(
        { mean(m.innerTop, m.outerTop, m.innerBottom, m.outerBottom), (valueOr(fitted.shimTop, 0) + valueOr(fitted.shimBottom, 0)) / 2 });
    if (corner.mount.shimMoves == Direction::Unknown)
        return {};
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
std::pair<double, double> insetAtBolts(const CentringResult& r)
{
    Evaluator s;
    const double top = meanOf(s, r.all, &MockUp::padEdgeTop);
    const double bottom = meanOf(s, r.all, &MockUp::padEdgeBottom);
    const double slope = (top - bottom) / valueOr(r.corner->pad.length, NAN);
    const double half = valueOr(r.corner->mount.boltSpacing, NAN) / 2;
    return { (top + bottom) / 2 + slope * half, (top + bottom) / 2 - slope * half };
}

/// A mock-up whose readings that are missing are taken from the others: what it has still tells.
MockUp filled(const MockUp& mockUp, const CentringResult& r)
{
    Evaluator s;
    MockUp whole = mockUp;
    for (Reading MockUp::*which : { &MockUp::innerTop, &MockUp::outerTop, &MockUp::innerBottom, &MockUp::outerBottom, &MockUp::gapSpacing,
             &MockUp::padEdgeTop, &MockUp::padEdgeBottom })
        if (!(whole.*which).value)
            if (const double mean = meanOf(s, r.all, which); std::isfinite(mean))
                (whole.*which).value = mean;
    return whole;
}

/// How far one gap was read apart at two mock-ups, beyond what either may be off, at most; of the gaps a figure rests on.
double contradiction(const Figure& figure, const std::vector<const MockUp*>& all)
{
    double most = 0;
    for (Reading MockUp::*which :
        { &MockUp::innerTop, &MockUp::outerTop, &MockUp::innerBottom, &MockUp::outerBottom, &MockUp::padEdgeTop, &MockUp::padEdgeBottom }) {
        double highest = -std::numeric_limits<double>::infinity();
        double lowest = std::numeric_limits<double>::infinity();
        for (const MockUp* m : all)
            if (const Reading& r = m->*which; r.value && std::ranges::find(figure.restsOn, ReadingId(r)) != figure.restsOn.end()) {
                highest = std::max(highest, *r.value - uncertainty(r, true));
                lowest = std::min(lowest, *r.value + uncertainty(r, true));
            }
        most = std::max(most, highest - lowest);
    }
    return most;
}

/// A figure is no better than what a mock-up, by itself, differs from it, where that is more than the mock-up may be off. One read so
/// coarsely that it could as well agree says nothing against the others. Nor is it better than half of what one gap was read apart.
Figure evaluated(const CentringResult& r, const std::function<double(Evaluator&, const std::vector<const MockUp*>&)>& sum)
{
    auto figure = evaluate([&](Evaluator& s) { return sum(s, r.all); });
    if (r.all.size() < 2 || !figure.value)
        return figure;
    for (const MockUp* m : r.all) {
        const MockUp whole = filled(*m, r);
        const Figure alone = evaluate([&](Evaluator& s) { return sum(s, { &whole }); });
        const double apart = alone.value ? std::abs(*alone.value - *figure.value) : 0;
        if (apart > alone.worstCase) {
            figure.worstCase = std::max(figure.worstCase, apart);
            figure.rootSumSquare = std::max(figure.rootSumSquare, apart);
        }
    }
    const double half = contradiction(figure, r.all) / 2;
    figure.worstCase = std::max(figure.worstCase, half);
    figure.rootSumSquare = std::max(figure.rootSumSquare, half);
    return figure;
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
        plan.possible = plan.possible && std::abs(plan.radialTop->residual) <= tolerance + 1e-9
            && std::abs(plan.radialBottom->residual) <= tolerance + 1e-9;
    }
    return plan;
}

} // namespace

/// Each corner's mock-ups and parts, in this study's build.
void pointInto(Centring& found, const Study& study)
{
    for (CentringResult& r : found.corners) {
        r.all.clear();
        for (const MockUp& mockUp : study.build->mockUps)
            if (mockUp.setup == study.after.setup->id && mockUp.axle == r.axle && mockUp.side == r.side)
                r.all.push_back(&mockUp);
        r.mockUp = r.all.back();
        r.corner = study.after.at(r.axle).corner;
    }
}

Centring positionsOf(const Study& study)
{
    Centring found;
    const Build& build = *study.build;
    const Setup& setup = *study.after.setup;
    for (const MockUp& mockUp : build.mockUps)
        if (mockUp.setup == setup.id && cornerOf(build, setup, mockUp.axle)
            && std::ranges::none_of(
                found.corners, [&](const CentringResult& r) { return r.axle == mockUp.axle && r.side == mockUp.side; })) {
            CentringResult& r = found.corners.emplace_back();
            r.axle = mockUp.axle;
            r.side = mockUp.side;
        }
    pointInto(found, study);
    const double aim = figures::setting(build.wants.padEdge, &Wants::padEdge);
    for (CentringResult& r : found.corners) {
        const Corner* corner = r.corner;
        r.axial = evaluated(r, [](Evaluator& s, const auto& all) { return centring::position(gapsOf(s, all), 1, 1).axial; });
        r.tilt = evaluated(r, [corner](Evaluator& s, const auto& all) {
            return centring::position(gapsOf(s, all), meanOf(s, all, &MockUp::gapSpacing), 1).tilt * s(corner->pad.length);
        });
        if (std::ranges::any_of(r.all, [](const MockUp* m) { return m->padEdgeTop.value || m->padEdgeBottom.value; })) {
            r.padEdge = evaluated(r, [](Evaluator& s, const auto& all) {
                return (meanOf(s, all, &MockUp::padEdgeTop) + meanOf(s, all, &MockUp::padEdgeBottom)) / 2;
            });
            r.padTilt = evaluated(r,
                [](Evaluator& s, const auto& all) { return meanOf(s, all, &MockUp::padEdgeTop) - meanOf(s, all, &MockUp::padEdgeBottom); });
        }
        // Play that nobody has taken up the same way each time is error of the reading.
        double play = 0;
        for (const MockUp* m : r.all)
            if (m->play.value && m->settled != YesNo::Yes)
                play = std::max(play, *m->play.value);
        for (Figure* figure : { &r.axial, &r.tilt }) {
            figure->worstCase += play / 2;
            figure->rootSumSquare = std::hypot(figure->rootSumSquare, play / 2);
        }
        r.learnt = learn(*r.mockUp, *corner);
        Evaluator s;
        const double gapSpacing = meanOf(s, r.all, &MockUp::gapSpacing);
        const double boltSpacing = s(corner->mount.boltSpacing);
        const auto position = centring::position(gapsOf(s, r.all), gapSpacing, boltSpacing);
        if (std::isfinite(position.atTopBolt) && std::isfinite(position.atBottomBolt)) {
            r.position = position;
            if (corner->mount.shimMoves == Direction::Unknown) {
                r.why = tr("Say which way a thicker shim moves this caliper, and the shims can be worked out.");
                continue;
            }
            const Fitted& fitted = corner->at(r.mockUp->side);
            const int direction = corner->mount.shimMoves == Direction::Outboard ? 1 : -1;
            const double effect = r.effect();
            r.targets = { valueOr(fitted.shimTop, 0) - direction * position.atTopBolt / effect,
                valueOr(fitted.shimBottom, 0) - direction * position.atBottomBolt / effect };
            const auto [insetTop, insetBottom] = insetAtBolts(r);
            if (corner->mount.kind == MountKind::Radial && std::isfinite(insetTop + insetBottom)) {
                r.targets.push_back(valueOr(fitted.radialTop, 0) + insetTop - aim);
                r.targets.push_back(valueOr(fitted.radialBottom, 0) + insetBottom - aim);
            }
            constexpr double senseless = 0.2; // m
            if (std::ranges::any_of(r.targets, [](double t) { return !(std::abs(t) < senseless); })) {
                r.targets.clear();
                r.why = tr("The gaps cannot be right: no caliper is that far off.");
            }
        }
    }
    return found;
}

namespace {

/// Nothing is to be bought for a corner that is as it should be.
bool isGood(const CentringResult& r, const Study& study)
{
    const double aim = figures::setting(study.build->wants.centred, &Wants::centred);
    constexpr double mostInset = 1e-3;
    const auto within = [](const Figure& figure, double low, double high) {
        return figure.value && *figure.value - figure.rootSumSquare >= low && *figure.value + figure.rootSumSquare <= high;
    };
    return within(r.axial, -aim, aim) && within(r.tilt, -aim, aim) && (r.padEdge.restsOn.empty() || within(r.padEdge, 0, mostInset));
}

} // namespace

void planShims(Centring& found, const Study& study)
{
    const Build& build = *study.build;
    // Half of what is aimed at, so that the readings' own error has room inside it.
    const double tolerance = figures::setting(build.wants.centred, &Wants::centred) / 2;
    const int most = static_cast<int>(std::clamp(figures::setting(build.wants.shimsPerBolt, &Wants::shimsPerBolt), 1.0, 8.0));
    std::vector<double> targets;
    for (const CentringResult& r : found.corners)
        targets.insert(targets.end(), r.targets.begin(), r.targets.end());
    if (targets.empty())
        return;
    std::vector<centring::ShimKind> drawer;
    for (const ShimStock& stock : build.drawer)
        if (stock.thickness.value)
            drawer.push_back({ *stock.thickness.value, stock.count });
    // All corners draw on one drawer, so all are planned at once.
    const auto plan = centring::carPlan(targets, drawer, tolerance, most);
    std::size_t next = 0;
    for (CentringResult& r : found.corners) {
        if (r.targets.empty())
            continue;
        const std::size_t first = std::exchange(next, next + r.targets.size());
        if (plan.stacks.empty())
            continue;
        r.plan = planOf(plan, r, first, tolerance);
        if (const auto other = centring::otherStacks(plan, first, r.targets.size(), targets, drawer, tolerance, most);
            !other.stacks.empty())
            r.next = planOf(other, r, 0, tolerance);
        if (!plan.proven)
            r.unproven = plan.couldGain > 0
                ? tr("found in the time there is; another sharing of the drawer might miss less by up to {}, over all bolts",
                    print(plan.couldGain, style::fine, study.system))
                : tr("found in the time there is; another sharing of the drawer might do with up to {} fewer shims", plan.couldSave);
        const double least = *std::ranges::min_element(r.targets);
        if (r.plan && !r.plan->possible) {
            if (least < -tolerance - 1e-9)
                r.plan->why = tr("Cannot be shimmed: more would have to come out than is in.");
            else if (drawer.empty())
                r.plan->why = tr("The drawer is empty.");
            else
                r.plan->why = tr("The drawer does not hold the right sizes: this is the nearest it can do.");
        }
    }
    if (!plan.stacks.empty() && !plan.within()
        && !std::ranges::all_of(found.corners, [&](const CentringResult& r) { return isGood(r, study); }))
        found.shimsToBuy = centring::toBuy(targets, drawer, tolerance, most);
}

} // namespace deepstop::mock_ups

namespace deepstop {

void settleCentring(Study& study)
{
    Centring found = study.of<Centring>();
    mock_ups::pointInto(found, study);
    study.keep(std::move(found));
}

void drawCentring(Study& study) { study.keep(mock_ups::positionsOf(study)); }

void addCentring(Study& study)
{
    auto found = mock_ups::positionsOf(study);
    mock_ups::planShims(found, study);
    study.keep(std::move(found));
    const std::size_t first = study.verdicts.size();
    mock_ups::addVerdicts(study);
    LedgerLine line;
    line.id = "off-centre";
    line.ofPlaces = true;
    line.title = tr("Off centre");
    line.style = style::fine;
    // The mock-up that is farthest off speaks for the axle.
    const Verdict* axial = nullptr;
    const Verdict* worst = nullptr;
    for (const Verdict& v : std::span(study.verdicts).subspan(first)) {
        if (!worst || v.level > worst->level)
            worst = &v;
        if ((v.check == &checks::axial || v.check == &checks::axialByDimensions)
            && (!axial || std::abs(v.figure.value.value_or(0)) > std::abs(axial->figure.value.value_or(0))))
            axial = &v;
    }
    if (axial)
        line.after = axial->figure;
    if (worst) {
        line.level = worst->level;
        line.word = tr(nameOf(worst->level));
    }
    study.ledger.push_back(std::move(line));
}

} // namespace deepstop
