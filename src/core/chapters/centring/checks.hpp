#pragma once
/// The checks of this chapter: rotor and caliper as read at the mock-up.

#include "verdict/check.hpp"

namespace deepstop::checks {

inline constexpr Check axial { .name = "axial",
    .title = "centring",
    .of = CheckOf::Corner,
    .decides = Decides::CentringNeeded,
    .holds = Holds::AllCuts,
    .awaited = Awaited::OnDiscs,
    .road = Road::Proves };
inline constexpr Check tilt { .name = "tilt",
    .title = "parallelism",
    .of = CheckOf::Corner,
    .decides = Decides::CentringNeeded,
    .holds = Holds::AllCuts,
    .awaited = Awaited::OnDiscs,
    .road = Road::Proves };
inline constexpr Check conditions { .name = "conditions",
    .title = "measuring conditions",
    .of = CheckOf::Corner,
    .decides = Decides::CentringNeeded,
    .holds = Holds::AllCuts,
    .awaited = Awaited::OnDiscs,
    .road = Road::Proves };
inline constexpr Check padEdgeRead { .name = "pad-edge",
    .title = "pad at the rotor's edge",
    .of = CheckOf::Corner,
    .decides = Decides::Centring,
    .holds = Holds::AllCuts,
    .road = Road::UnlessOtherPads };
inline constexpr Check agreement {
    .name = "agreement", .title = "gaps against dimensions", .of = CheckOf::Corner, .decides = Decides::Centring, .road = Road::Proves
};
inline constexpr Check slotSum { .name = "slot-sum",
    .title = "gaps and rotor against the slot",
    .of = CheckOf::Corner,
    .decides = Decides::Centring,
    .road = Road::Proves };
inline constexpr Check axialByDimensions {
    .name = "axial", .title = "Centring, from dimensions", .decides = Decides::Centring, .road = Road::Proves
};

inline constexpr const Check* ofCentring[] { &axial, &tilt, &conditions, &padEdgeRead, &agreement, &slotSum, &axialByDimensions };

} // namespace deepstop::checks
