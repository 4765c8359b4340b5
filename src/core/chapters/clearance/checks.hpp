#pragma once
/// The checks of this chapter: room in the wheel and wheels on their hubs.

#include "language/language.hpp"
#include "verdict/check.hpp"

namespace deepstop::checks {

inline constexpr Check barrelGap { .name = "barrel-gap",
    .title = marked("Gap to the barrel"),
    .decides = Decides::FitNeeded,
    .holds = Holds::AllCuts,
    .awaited = Awaited::OnDiscs,
    .road = Road::UnlessThickerPads,
    .byDimensions = true };
inline constexpr Check insetGap { .name = "inset-gap",
    .title = marked("Gap to weights and valve"),
    .decides = Decides::Fit,
    .holds = Holds::AllCuts,
    .road = Road::UnlessThickerPads };
inline constexpr Check spokeGap { .name = "spoke-gap",
    .title = marked("Gap to the spokes"),
    .decides = Decides::FitNeeded,
    .holds = Holds::AllCuts,
    .awaited = Awaited::OnDiscs,
    .road = Road::UnlessThickerPads,
    .byDimensions = true };
inline constexpr Check bridgeGap { .name = "bridge-gap",
    .title = marked("Rotor to caliper bridge (hot)"),
    .decides = Decides::Fit,
    .holds = Holds::AllCuts,
    .road = Road::Proves };
inline constexpr Check faceGap { .name = "face-gap",
    .title = marked("Rotor in the caliper's slot"),
    .decides = Decides::Fit,
    .holds = Holds::AllCuts,
    .road = Road::Proves };
inline constexpr Check hatGap { .name = "hat-gap",
    .title = marked("Caliper to hat"),
    .decides = Decides::Fit,
    .shown = "behind",
    .holds = Holds::AllCuts,
    .road = Road::Proves };
inline constexpr Check bracketGap {
    .name = "bracket-gap", .title = marked("Bracket to rotor"), .decides = Decides::Fit, .holds = Holds::AllCuts, .road = Road::Proves
};
inline constexpr Check bracketEdge {
    .name = "bracket-edge", .title = marked("Bracket's edge in the wheel"), .decides = Decides::Fit, .road = Road::Proves
};
inline constexpr Check padEdge { .name = "pad-edge",
    .title = marked("Pad on the friction ring"),
    .decides = Decides::Fit,
    .holds = Holds::AllCuts,
    .road = Road::UnlessOtherPads };
inline constexpr Check studs { .name = "studs",
    .title = marked("Studs"),
    .decides = Decides::Fit,
    .shown = "studs",
    .holds = Holds::AllCuts,
    .awaited = Awaited::Everywhere,
    .curedBy = Cut::PressStuds,
    .road = Road::Proves };
inline constexpr Check nutSeat { .name = "nut-seat",
    .title = marked("Nuts on their seats"),
    .decides = Decides::Fit,
    .shown = "studs",
    .holds = Holds::AllCuts,
    .road = Road::Proves };
inline constexpr Check boltEnd {
    .name = "bolt-end", .title = marked("Ends of the wheel bolts"), .decides = Decides::Fit, .holds = Holds::AllCuts, .road = Road::Proves
};
inline constexpr Check wheelPlace { .name = "wheel-place",
    .title = marked("Wheel position"),
    .decides = Decides::Fit,
    .shown = "studs",
    .holds = Holds::AllCuts,
    .road = Road::Proves };
inline constexpr Check nutBottom {
    .name = "nut-bottom", .title = marked("Studs in closed nuts"), .decides = Decides::Fit, .road = Road::Proves
};
inline constexpr Check pilot {
    .name = "pilot", .title = marked("Pilot left for the wheel"), .decides = Decides::Fit, .shown = "studs", .road = Road::Proves
};
inline constexpr Check washers { .name = "washers", .title = marked("Washer trial"), .decides = Decides::Fit, .shown = "studs" };
inline constexpr Check fenderRoom {
    .name = "fender-room", .title = marked("Tyre to fender"), .decides = Decides::Fit, .shown = "studs", .road = Road::Proves
};
inline constexpr Check innerRoom {
    .name = "inner-room", .title = marked("Tyre to strut"), .decides = Decides::Fit, .shown = "studs", .road = Road::Proves
};
inline constexpr Check keepOut { .name = "keep-out-#",
    .title = marked("Room to what stands still"),
    .decides = Decides::Fit,
    .shown = "behind",
    .holds = Holds::TrimmingTheShield,
    .road = Road::UnlessThickerPads };
inline constexpr Check shield {
    .name = "shield", .title = marked("Rotor to dust shield"), .decides = Decides::Fit, .shown = "behind", .road = Road::Proves
};
inline constexpr Check bleeder {
    .name = "bleeder", .title = marked("Bleeder at the top"), .decides = Decides::Fit, .shown = "outboard", .road = Road::Proves
};
inline constexpr Check pistonOrder { .name = "piston-order",
    .title = marked("Small piston at the rotor's entry"),
    .decides = Decides::Fit,
    .shown = "outboard",
    .road = Road::Proves };

inline constexpr Check fixedParts { .name = "fixed-#",
    .title = marked("Caliper and bracket to what stands still"),
    .decides = Decides::Fit,
    .shown = "behind",
    .holds = Holds::TrimmingTheShield,
    .road = Road::Proves };
inline constexpr Check relief {
    .name = "bracket-relief", .title = marked("Metal left in the bracket"), .decides = Decides::Fit, .shown = "behind", .road = Road::Proves
};
inline constexpr Check spacerNuts {
    .name = "spacer-nuts", .title = marked("Nuts that hold the spacer"), .decides = Decides::Fit, .shown = "stack", .road = Road::Proves
};
inline constexpr Check proudStuds {
    .name = "proud-studs", .title = marked("Hub's studs inside the spacer"), .decides = Decides::Fit, .shown = "stack", .road = Road::Proves
};
inline constexpr Check drivePins {
    .name = "drive-pins", .title = marked("Drive pins in the wheel"), .decides = Decides::Fit, .shown = "stack", .road = Road::Proves
};
inline constexpr Check shieldPlate {
    .name = "shield-plate", .title = marked("Clamped plate of the shield"), .decides = Decides::Fit, .shown = "behind", .road = Road::Proves
};

inline constexpr Check adapterRing { .name = "adapter-ring",
    .title = marked("Adapter ring on the hub pilot"),
    .decides = Decides::Fit,
    .shown = "stack",
    .holds = Holds::AllCuts,
    .curedBy = Cut::MachineHub,
    .road = Road::Proves,
    .byDimensions = true };
inline constexpr Check cap { .name = "cap",
    .title = marked("Hub pilot under the rotor's cap"),
    .decides = Decides::Fit,
    .shown = "stack",
    .holds = Holds::AllCuts,
    .curedBy = Cut::MachineHub,
    .road = Road::Proves,
    .byDimensions = true };

inline constexpr const Check* ofClearance[] { &barrelGap, &insetGap, &spokeGap, &bridgeGap, &faceGap, &hatGap, &bracketGap, &bracketEdge,
    &padEdge, &studs, &nutSeat, &boltEnd, &wheelPlace, &nutBottom, &pilot, &washers, &fenderRoom, &innerRoom, &keepOut, &shield, &bleeder,
    &pistonOrder, &fixedParts, &relief, &spacerNuts, &proudStuds, &drivePins, &shieldPlate, &adapterRing, &cap };

} // namespace deepstop::checks
