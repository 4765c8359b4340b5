#pragma once
/// The checks of this chapter: rotor and caliper as read at the mock-up.

#include "language/language.hpp"
#include "verdict/check.hpp"

namespace deepstop::checks {

inline constexpr Check axial { .name = "axial",
    .title = marked("centring"),
    .of = CheckOf::Corner,
    .decides = Decides::CentringNeeded,
    .holds = Holds::AllCuts,
    .awaited = Awaited::OnDiscs,
    .road = Road::Proves };
inline constexpr Check tilt { .name = "tilt",
    .title = marked("parallelism"),
    .of = CheckOf::Corner,
    .decides = Decides::CentringNeeded,
    .holds = Holds::AllCuts,
    .awaited = Awaited::OnDiscs,
    .road = Road::Proves };
inline constexpr Check conditions { .name = "conditions",
    .title = marked("measuring conditions"),
    .of = CheckOf::Corner,
    .decides = Decides::CentringNeeded,
    .holds = Holds::AllCuts,
    .awaited = Awaited::OnDiscs,
    .road = Road::Proves };
inline constexpr Check padEdgeRead { .name = "pad-edge",
    .title = marked("pad at the rotor's edge"),
    .of = CheckOf::Corner,
    .decides = Decides::Centring,
    .holds = Holds::AllCuts,
    .road = Road::UnlessOtherPads };
inline constexpr Check agreement { .name = "agreement",
    .title = marked("gaps against dimensions"),
    .of = CheckOf::Corner,
    .decides = Decides::Centring,
    .road = Road::Proves };
inline constexpr Check slotSum { .name = "slot-sum",
    .title = marked("gaps and rotor against the slot"),
    .of = CheckOf::Corner,
    .decides = Decides::Centring,
    .road = Road::Proves };
inline constexpr Check axialByDimensions {
    .name = "axial", .title = marked("Centring, from dimensions"), .decides = Decides::Centring, .road = Road::Proves
};

inline constexpr const Check* ofCentring[] { &axial, &tilt, &conditions, &padEdgeRead, &agreement, &slotSum, &axialByDimensions };

} // namespace deepstop::checks
