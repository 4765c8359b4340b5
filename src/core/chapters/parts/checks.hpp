#pragma once
/// The checks of this chapter: parts against each other, and as worn.

#include "language/language.hpp"
#include "verdict/check.hpp"

namespace deepstop::checks {

inline constexpr Check bore { .name = "bore",
    .title = marked("Rotor bore over the hub pilot"),
    .decides = Decides::Fit,
    .holds = Holds::AllCuts,
    .awaited = Awaited::OnDiscs,
    .curedBy = Cut::MachineHub,
    .road = Road::Proves,
    .byDimensions = true };
inline constexpr Check hubPocket { .name = "hub-pocket",
    .title = marked("Hub flange in the hat's pocket"),
    .decides = Decides::Fit,
    .holds = Holds::AllCuts,
    .curedBy = Cut::MachineHub,
    .road = Road::Proves,
    .byDimensions = true };
inline constexpr Check boltCircle { .name = "bolt-circle",
    .title = marked("Bolt circle and studs"),
    .decides = Decides::Fit,
    .holds = Holds::AllCuts,
    .road = Road::Proves,
    .byDimensions = true };
inline constexpr Check drumInHat {
    .name = "drum", .title = marked("Drum in the hat over the parking shoes"), .decides = Decides::Fit, .road = Road::Proves
};
inline constexpr Check mountSpacing { .name = "mount-spacing",
    .title = marked("Mounting holes against the lugs"),
    .decides = Decides::Fit,
    .shown = "caliper",
    .holds = Holds::AllCuts,
    .curedBy = Cut::DrillLugs,
    .road = Road::Proves,
    .byDimensions = true };
inline constexpr Check boltThread { .name = "bolt-thread",
    .title = marked("Bolts in the knuckle's lugs"),
    .decides = Decides::Fit,
    .shown = "fittings",
    .road = Road::Proves,
    .byDimensions = true };
inline constexpr Check hoseThread {
    .name = "hose-thread", .title = marked("Hose ends"), .decides = Decides::Fit, .shown = "fittings", .road = Road::UnlessOtherHose
};
inline constexpr Check lineJoint { .name = "line-joint-#",
    .title = marked("Joint of the brake line"),
    .decides = Decides::Fit,
    .shown = "line",
    .road = Road::UnlessOtherHose };
inline constexpr Check hoseHeld {
    .name = "hose-held", .title = marked("Hose held and led"), .decides = Decides::Fit, .shown = "line", .road = Road::UnlessOtherHose
};
inline constexpr Check liningEven { .name = "lining-even", .title = marked("Linings worn evenly"), .shown = "pads" };
inline constexpr Check hoseLength {
    .name = "hose-length", .title = marked("Hose length"), .decides = Decides::Fit, .shown = "fittings", .road = Road::UnlessOtherHose
};
inline constexpr Check pistonStroke {
    .name = "piston-stroke", .title = marked("Pistons in their bores, all worn"), .decides = Decides::Fit, .road = Road::UnlessOtherPads
};
inline constexpr Check slides {
    .name = "slides", .title = marked("Slides of the floating caliper"), .decides = Decides::Fit, .road = Road::UnlessOtherPads
};
inline constexpr Check padSlot { .name = "pad-slot",
    .title = marked("Rotor and new pads between the pistons"),
    .decides = Decides::Fit,
    .shown = "caliper",
    .road = Road::UnlessOtherPads };
inline constexpr Check padWindow { .name = "pad-window",
    .title = marked("Pads in their opening"),
    .decides = Decides::Fit,
    .shown = "caliper",
    .road = Road::UnlessOtherPads };
inline constexpr Check wornRotor { .name = "worn-rotor", .title = marked("Rotor thickness left"), .decides = Decides::Fit };
inline constexpr Check wornPad { .name = "worn-pad", .title = marked("Lining left"), .decides = Decides::Fit, .shown = "pads" };
inline constexpr Check runout { .name = "runout", .title = marked("Runout on the car"), .decides = Decides::Fit };
inline constexpr Check thicknessVariation {
    .name = "thickness-variation", .title = marked("Thickness variation"), .decides = Decides::Fit
};
inline constexpr Check wornDrum { .name = "worn-drum", .title = marked("Drum left to wear"), .decides = Decides::Fit };
inline constexpr Check wornShoe { .name = "worn-shoe", .title = marked("Lining left on the shoes"), .decides = Decides::Fit };
inline constexpr Check parkingBrake {
    .name = "parking-brake", .title = marked("Parking brake"), .decides = Decides::Fit, .shown = "parking", .road = Road::Proves
};
inline constexpr Check construction { .name = "construction", .title = marked("Rotor of one piece or of two") };
inline constexpr Check received { .name = "received", .title = marked("Unpacking"), .decides = Decides::Fit, .shown = "unpacking" };

inline constexpr const Check* ofParts[] { &bore, &hubPocket, &boltCircle, &drumInHat, &mountSpacing, &boltThread, &hoseThread, &hoseLength,
    &pistonStroke, &slides, &padSlot, &padWindow, &wornRotor, &wornPad, &runout, &thicknessVariation, &wornDrum, &wornShoe, &parkingBrake,
    &construction, &received, &lineJoint, &hoseHeld, &liningEven };

} // namespace deepstop::checks
