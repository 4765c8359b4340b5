#pragma once
/// The checks of this chapter: bolted joints.

#include "language/language.hpp"
#include "verdict/check.hpp"

namespace deepstop::checks {

inline constexpr Check jointThread { .name = "joint-#-thread",
    .title = marked("thread engagement"),
    .decides = Decides::Fit,
    .shown = "joints",
    .holds = Holds::DrillingAndGrinding,
    .awaited = Awaited::Everywhere,
    .road = Road::Proves };
inline constexpr Check jointEnd { .name = "joint-#-end",
    .title = marked("bolt protrusion"),
    .decides = Decides::Fit,
    .shown = "joints",
    .holds = Holds::DrillingAndGrinding,
    .road = Road::Proves };
inline constexpr Check jointShank {
    .name = "joint-#-shank", .title = marked("shank length"), .decides = Decides::Fit, .shown = "joints", .road = Road::Proves
};
inline constexpr Check jointHead {
    .name = "joint-#-head", .title = marked("pressure under the heads"), .decides = Decides::Fit, .shown = "joints", .road = Road::Proves
};
inline constexpr Check jointTorque { .name = "joint-#-torque", .title = marked("tightening"), .decides = Decides::Fit, .shown = "joints" };
inline constexpr Check jointSlip {
    .name = "joint-#-slip", .title = marked("slip under braking"), .decides = Decides::Fit, .shown = "joints", .road = Road::Proves
};

inline constexpr Check jointNut {
    .name = "joint-#-nut", .title = marked("nut and washers"), .decides = Decides::Fit, .shown = "joints", .road = Road::Proves
};

inline constexpr const Check* ofJoints[] { &jointThread, &jointEnd, &jointShank, &jointHead, &jointTorque, &jointSlip, &jointNut };

} // namespace deepstop::checks
