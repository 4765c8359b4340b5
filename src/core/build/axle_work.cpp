#include "build/axle_work.hpp"

#include <algorithm>
#include <cmath>
#include <tuple>

namespace deepstop {

AxleWork workBetween(const Corner* before, const Corner& after)
{
    if (!before || before->brakes != after.brakes)
        return {};
    const auto shims = [](const Corner& c) {
        return std::tie(c.left.shimTop, c.left.shimBottom, c.left.radialTop, c.left.radialBottom, c.right.shimTop, c.right.shimBottom,
            c.right.radialTop, c.right.radialBottom);
    };
    const bool drums = after.brakes == BrakeKind::Drums;
    Drum shoesOnly = before->drum;
    shoesOnly.friction = after.drum.friction;
    shoesOnly.frictionOverTemperature = after.drum.frictionOverTemperature;
    shoesOnly.liningThickness = after.drum.liningThickness;
    AxleWork work;
    work.rotor = drums ? shoesOnly != after.drum : before->rotor != after.rotor;
    work.caliper = before->caliper != after.caliper || before->mount != after.mount || before->bracket != after.bracket;
    const auto slot = [](const Corner& c) { return c.caliper.slotWidth.value.value_or(NAN); };
    constexpr double told = 0.5e-3;
    work.widened = before->caliper.split == YesNo::Yes && after.caliper.split == YesNo::Yes && before->caliper.name == after.caliper.name
        && slot(after) - slot(*before) > told;
    work.pads = drums ? before->drum != after.drum : before->pad != after.pad;
    const auto alike = [&](Reading Pad::*which) {
        constexpr double sameSize = 0.1e-3;
        const auto& then = (before->pad.*which).value;
        const auto& now = (after.pad.*which).value;
        return then && now && std::abs(*then - *now) <= sameSize;
    };
    work.otherPadShape = work.pads && !(alike(&Pad::thickness) && alike(&Pad::backing) && alike(&Pad::length) && alike(&Pad::height));
    const auto thick = [](const Corner& c) {
        return c.pad.thickness.value || !c.pad.overall.value ? c.pad.thickness.value.value_or(NAN) + c.pad.backing.value.value_or(0)
                                                             : *c.pad.overall.value;
    };
    work.thickerPads = work.pads && !(thick(after) <= thick(*before) + 0.1e-3);
    work.hose = before->hose != after.hose;
    work.place = before->ring != after.ring || before->spacer != after.spacer || before->wheel != after.wheel
        || before->spacerPart != after.spacerPart || before->adapter != after.adapter || before->shield != after.shield
        || shims(*before) != shims(after);
    work.cuts = before->cuts != after.cuts && !after.cuts.empty();
    return work;
}

bool drivenAsFound(const Build& build)
{
    if (build.setups.empty())
        return false;
    const std::string& asFound = build.setups.front().id;
    const auto drives = [&](const LogEntry& e) {
        return (e.event == LogEvent::Drive || e.event == LogEvent::TrackDay) && (e.setup.empty() || e.setup == asFound);
    };
    return std::ranges::any_of(build.log, drives)
        || std::ranges::any_of(build.tests, [&](const TestSession& t) { return t.setup == asFound && !t.stops.empty(); });
}

} // namespace deepstop
