#include "study/figures.hpp"
#include "study/judge.hpp"
#include "study/parts.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace deepstop::parts {
namespace {

centring::Gaps gapsOf(Sample& s, const MockUp& m) { return { s(m.innerTop), s(m.outerTop), s(m.innerBottom), s(m.outerBottom) }; }

} // namespace

std::vector<CentringResult> centringOf(const Build& build, const Setup& setup)
{
    std::vector<CentringResult> results;
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
        Sample s;
        const double gapSpacing = s(mockUp.gapSpacing);
        const double boltSpacing = s(corner->mount.boltSpacing);
        const auto position = centring::position(gapsOf(s, mockUp), gapSpacing, boltSpacing);
        if (std::isfinite(position.atTopBolt) && std::isfinite(position.atBottomBolt)) {
            r.position = position;
            std::vector<centring::ShimKind> drawer;
            for (const ShimStock& stock : build.drawer)
                if (stock.thickness.value)
                    drawer.push_back({ *stock.thickness.value, stock.count });
            const centring::Mounting mounting { corner->mount.shimTop.value.value_or(0), corner->mount.shimBottom.value.value_or(0), gapSpacing,
                boltSpacing, corner->mount.shimMoves == Direction::Outboard ? 1 : -1 };
            // Half of what is aimed at, so that the readings' own error has room inside it.
            r.plan = centring::plan(position, mounting, drawer, build.wants.centred.value.value_or(0.25e-3) / 2);
        }
        results.push_back(std::move(r));
    }
    return results;
}

namespace {

/// The plan put in: new stacks, the slot moved with them, and gaps foretold, hence only estimated until they are read again.
std::shared_ptr<const Build> fitted(const Study& study, const CentringResult& r)
{
    auto build = std::make_shared<Build>(*study.build);
    const auto mockUp = r.mockUp - study.build->mockUps.data();
    auto& m = build->mockUps[static_cast<std::size_t>(mockUp)];
    auto& setup = *std::ranges::find(build->setups, study.after.setup->id, &Setup::id);
    auto& corner = m.axle == Axle::Front ? setup.front : setup.rear;
    if (!corner)
        return nullptr;
    const auto foretell = [](Reading& reading, double by) { reading = { reading.value.value_or(0) + by, reading.plusMinus, Known::Estimated, {}, {} }; };
    const double moved = r.plan->remaining.axial - r.position->axial;
    const double tilted = (r.plan->remaining.tilt - r.position->tilt) * m.gapSpacing.value.value_or(0) / 2;
    foretell(m.outerTop, moved + tilted);
    foretell(m.innerTop, -moved - tilted);
    foretell(m.outerBottom, moved - tilted);
    foretell(m.innerBottom, -moved + tilted);
    corner->mount.shimTop = { r.plan->top.total, {}, Known::Measured, "micrometer", {} };
    corner->mount.shimBottom = { r.plan->bottom.total, {}, Known::Measured, "micrometer", {} };
    if (corner->mount.slotCentre.value)
        *corner->mount.slotCentre.value += moved;
    return build;
}

std::string pile(const Study& study, const centring::Stack& stack)
{
    std::string text;
    for (const double shim : stack.shims)
        text += (text.empty() ? "" : " + ") + figure(shim, style::fine, study.system);
    return text.empty() ? "no shims" : text + " " + std::string(style::fine.unit(study.system).symbol);
}

Remedy planned(const Study& study, const CentringResult& r)
{
    Remedy remedy;
    remedy.title = fmt::format("Top {}, bottom {}", pile(study, r.plan->top), pile(study, r.plan->bottom));
    remedy.gap.value = r.plan->remaining.axial;
    const auto now = [&](const Reading& reading) { return print(reading.value.value_or(0), style::fine, study.system); };
    remedy.costs = { fmt::format("in now: {} and {}", now(r.corner->mount.shimTop), now(r.corner->mount.shimBottom)), "then read the four gaps again" };
    remedy.applied = fitted(study, r);
    return remedy;
}

} // namespace

void addCentringVerdicts(Study& study)
{
    const auto say = [&](double length) { return print(length, style::fine, study.system); };
    const double aim = study.build->wants.centred.value.value_or(0.25e-3);
    const double usable = study.build->wants.usable.value.value_or(0.5e-3);
    const auto judgeOffset = [&](Verdict& v) {
        const double off = std::abs(*v.figure.value);
        v.wanted = aim;
        const double unsure = v.figure.rootSumSquare;
        v.level = off + unsure <= aim ? Level::Good : off - unsure > usable ? Level::Stop : off > aim ? Level::Caution : Level::Unproven;
        // Readings coarser than what is judged prove neither good nor bad.
        if (v.level == Level::Unproven || (unsure > usable && v.level != Level::Stop)) {
            v.level = Level::Unproven;
            v.reason = fmt::format("{} off, but the readings are only good to ±{}: use a vernier or feeler gauges", say(off), say(unsure));
            return;
        }
        v.reason = off < 0.005e-3 ? std::string("In the middle")
                                  : fmt::format("Caliper {} too far {}", say(off), *v.figure.value > 0 ? "outboard" : "inboard");
        if (v.level != Level::Good)
            v.reason += fmt::format(", {} wanted", say(aim));
    };
    for (const CentringResult& r : study.centring) {
        const auto where = fmt::format("{}-{}", wordFor(r.mockUp->axle), r.mockUp->side == Side::Left ? "left" : "right");
        Verdict v;
        v.id = where + "/axial";
        v.stage = Stage::Centring;
        v.axle = r.mockUp->axle;
        v.title = fmt::format("{} {}: rotor in the middle", wordFor(r.mockUp->axle), wordFor(r.mockUp->side, choices::side));
        v.title[0] = static_cast<char>(std::toupper(v.title[0]));
        v.style = style::fine;
        v.figure = r.axial;
        v.method = "Half the difference of outer and inner gap, mean of top and bottom. Shims: exact search of the drawer, fewest shims that bring "
                   "each bolt within half of what is aimed at.";
        v.source = "Plane geometry; 0.25 mm aimed at, 0.5 mm usable: common practice.";
        v.caution = "Read with the rotor flat on a clean hub, held by at least three nuts, the caliper's play settled the same way each time.";
        if (!judge::unproven(study, v)) {
            judgeOffset(v);
            if (r.plan && !r.plan->possible)
                v.reason += ". " + r.plan->why;
            if (r.plan && v.level != Level::Good && std::abs(r.plan->remaining.axial) < std::abs(*v.figure.value) - 1e-6)
                v.remedies.push_back(planned(study, r));
        }
        study.verdicts.push_back(v);

        Verdict tilt = v;
        tilt.remedies.clear();
        tilt.id = where + "/tilt";
        tilt.title = fmt::format("{} {}: caliper square to the rotor", wordFor(r.mockUp->axle), wordFor(r.mockUp->side, choices::side));
        tilt.title[0] = static_cast<char>(std::toupper(tilt.title[0]));
        tilt.figure = r.tilt;
        tilt.method = "Error at the top less error at the bottom: different shims on the two bolts take it out.";
        if (!judge::unproven(study, tilt)) {
            const double off = std::abs(*tilt.figure.value);
            tilt.wanted = aim;
            tilt.level = off <= aim ? Level::Good : off <= usable ? Level::Caution : Level::Stop;
            tilt.reason = fmt::format("{} from top to bottom", say(off));
        }
        study.verdicts.push_back(tilt);

        // Dimensions and gaps tell of the same thing; where they disagree, one of them is wrong.
        const CornerResult& corner = study.after.at(r.mockUp->axle);
        const Figure apart = evaluate([&](Sample& s) {
            return figures::axialOffset(s, *corner.corner) - centring::position(gapsOf(s, *r.mockUp), 1, 1).axial;
        });
        if (apart.value && std::abs(*apart.value) > apart.worstCase + 0.05e-3) {
            Verdict cross;
            cross.id = where + "/agreement";
            cross.stage = Stage::Centring;
            cross.axle = r.mockUp->axle;
            cross.title = "Gaps against dimensions";
            cross.level = Level::Caution;
            cross.style = style::fine;
            cross.figure = apart;
            cross.reason = fmt::format("They differ by {}: one of the readings is wrong, or the rotor did not sit flat", say(std::abs(*apart.value)));
            cross.method = "Slot's middle less rotor's middle from the dimensions, less the same from the four gaps.";
            cross.source = "Plane geometry.";
            study.verdicts.push_back(std::move(cross));
        }
    }
    if (!study.centring.empty())
        return;
    for (const Axle axle : axlesOf(study)) {
        const CornerResult& corner = study.after.at(axle);
        if (!corner.corner)
            continue;
        Verdict v;
        v.id = wordFor(axle) + "/axial";
        v.stage = Stage::Centring;
        v.axle = axle;
        v.title = "Rotor in the middle, from dimensions";
        v.style = style::fine;
        v.figure = evaluate([&](Sample& s) { return figures::axialOffset(s, *corner.corner); });
        v.method = "Slot's middle less rotor's middle, both from the hub's face.";
        v.source = "Plane geometry; 0.25 mm aimed at, 0.5 mm usable: common practice.";
        if (!judge::unproven(study, v))
            judgeOffset(v);
        study.verdicts.push_back(std::move(v));
    }
}

} // namespace deepstop::parts
