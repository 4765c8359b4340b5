#pragma once
/// The checks of this chapter: bolted joints.

#include "verdict/check.hpp"

namespace deepstop::checks {

inline constexpr Check jointThread { .name = "joint-#-thread",
    .title = "thread engagement",
    .decides = Decides::Fit,
    .shown = "joints",
    .holds = Holds::DrillingAndGrinding,
    .awaited = Awaited::Everywhere,
    .road = Road::Proves };
inline constexpr Check jointEnd { .name = "joint-#-end",
    .title = "bolt protrusion",
    .decides = Decides::Fit,
    .shown = "joints",
    .holds = Holds::DrillingAndGrinding,
    .road = Road::Proves };
inline constexpr Check jointShank {
    .name = "joint-#-shank", .title = "shank length", .decides = Decides::Fit, .shown = "joints", .road = Road::Proves
};
inline constexpr Check jointHead {
    .name = "joint-#-head", .title = "pressure under the heads", .decides = Decides::Fit, .shown = "joints", .road = Road::Proves
};
inline constexpr Check jointTorque { .name = "joint-#-torque", .title = "tightening", .decides = Decides::Fit, .shown = "joints" };
inline constexpr Check jointSlip {
    .name = "joint-#-slip", .title = "slip under braking", .decides = Decides::Fit, .shown = "joints", .road = Road::Proves
};

inline constexpr Check jointNut {
    .name = "joint-#-nut", .title = "nut and washers", .decides = Decides::Fit, .shown = "joints", .road = Road::Proves
};

inline constexpr const Check* ofJoints[] { &jointThread, &jointEnd, &jointShank, &jointHead, &jointTorque, &jointSlip, &jointNut };

} // namespace deepstop::checks
