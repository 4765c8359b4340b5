#pragma once
/// The checks of this chapter: parts against each other, and as worn.

#include "verdict/check.hpp"

namespace deepstop::checks {

inline constexpr Check bore { .name = "bore",
    .title = "Rotor bore over the hub pilot",
    .decides = Decides::Fit,
    .holds = Holds::AllCuts,
    .awaited = Awaited::OnDiscs,
    .curedBy = Cut::MachineHub,
    .road = Road::Proves,
    .byDimensions = true };
inline constexpr Check hubPocket { .name = "hub-pocket",
    .title = "Hub flange in the hat's pocket",
    .decides = Decides::Fit,
    .holds = Holds::AllCuts,
    .curedBy = Cut::MachineHub,
    .road = Road::Proves,
    .byDimensions = true };
inline constexpr Check boltCircle { .name = "bolt-circle",
    .title = "Bolt circle and studs",
    .decides = Decides::Fit,
    .holds = Holds::AllCuts,
    .road = Road::Proves,
    .byDimensions = true };
inline constexpr Check drumInHat {
    .name = "drum", .title = "Drum in the hat over the parking shoes", .decides = Decides::Fit, .road = Road::Proves
};
inline constexpr Check mountSpacing { .name = "mount-spacing",
    .title = "Mounting holes against the lugs",
    .decides = Decides::Fit,
    .shown = "caliper",
    .holds = Holds::AllCuts,
    .curedBy = Cut::DrillLugs,
    .road = Road::Proves,
    .byDimensions = true };
inline constexpr Check boltThread { .name = "bolt-thread",
    .title = "Bolts in the knuckle's lugs",
    .decides = Decides::Fit,
    .shown = "fittings",
    .road = Road::Proves,
    .byDimensions = true };
inline constexpr Check hoseThread {
    .name = "hose-thread", .title = "Hose ends", .decides = Decides::Fit, .shown = "fittings", .road = Road::UnlessOtherHose
};
inline constexpr Check lineJoint {
    .name = "line-joint-#", .title = "Joint of the brake line", .decides = Decides::Fit, .shown = "line", .road = Road::UnlessOtherHose
};
inline constexpr Check hoseHeld {
    .name = "hose-held", .title = "Hose held and led", .decides = Decides::Fit, .shown = "line", .road = Road::UnlessOtherHose
};
inline constexpr Check liningEven { .name = "lining-even", .title = "Linings worn evenly", .shown = "pads" };
inline constexpr Check hoseLength {
    .name = "hose-length", .title = "Hose length", .decides = Decides::Fit, .shown = "fittings", .road = Road::UnlessOtherHose
};
inline constexpr Check pistonStroke {
    .name = "piston-stroke", .title = "Pistons in their bores, all worn", .decides = Decides::Fit, .road = Road::UnlessOtherPads
};
inline constexpr Check slides {
    .name = "slides", .title = "Slides of the floating caliper", .decides = Decides::Fit, .road = Road::UnlessOtherPads
};
inline constexpr Check padSlot { .name = "pad-slot",
    .title = "Rotor and new pads between the pistons",
    .decides = Decides::Fit,
    .shown = "caliper",
    .road = Road::UnlessOtherPads };
inline constexpr Check padWindow {
    .name = "pad-window", .title = "Pads in their opening", .decides = Decides::Fit, .shown = "caliper", .road = Road::UnlessOtherPads
};
inline constexpr Check wornRotor { .name = "worn-rotor", .title = "Rotor thickness left", .decides = Decides::Fit };
inline constexpr Check wornPad { .name = "worn-pad", .title = "Lining left", .decides = Decides::Fit, .shown = "pads" };
inline constexpr Check runout { .name = "runout", .title = "Runout on the car", .decides = Decides::Fit };
inline constexpr Check thicknessVariation { .name = "thickness-variation", .title = "Thickness variation", .decides = Decides::Fit };
inline constexpr Check wornDrum { .name = "worn-drum", .title = "Drum left to wear", .decides = Decides::Fit };
inline constexpr Check wornShoe { .name = "worn-shoe", .title = "Lining left on the shoes", .decides = Decides::Fit };
inline constexpr Check parkingBrake {
    .name = "parking-brake", .title = "Parking brake", .decides = Decides::Fit, .shown = "parking", .road = Road::Proves
};
inline constexpr Check construction { .name = "construction", .title = "Rotor of one piece or of two" };
inline constexpr Check received { .name = "received", .title = "Unpacking", .decides = Decides::Fit, .shown = "unpacking" };

inline constexpr const Check* ofParts[] { &bore, &hubPocket, &boltCircle, &drumInHat, &mountSpacing, &boltThread, &hoseThread, &hoseLength,
    &pistonStroke, &slides, &padSlot, &padWindow, &wornRotor, &wornPad, &runout, &thicknessVariation, &wornDrum, &wornShoe, &parkingBrake,
    &construction, &received, &lineJoint, &hoseHeld, &liningEven };

} // namespace deepstop::checks
