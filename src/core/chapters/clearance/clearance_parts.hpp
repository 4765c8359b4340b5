#pragma once
/// Inside the chapter: its verdicts, each kind in a file of its own.

#include "chapters/clearance/clearance.hpp"

namespace deepstop {
struct Cure;
}

namespace deepstop::clearance {

/// The gap as it was read with this wheel on and spun; null where nobody did.
[[nodiscard]] const Reading* spunGap(const Spun& spun, WheelGap which, const Wheel& wheel);

void addRoomVerdicts(Study& study, Axle axle);
/// Caliper and bracket against places that stand still, and a bracket's reliefs.
void addFixedVerdicts(Study& study, Axle axle);
/// An adapter ring on the pilot, and a cap over it.
void addHubRingVerdicts(Study& study, Axle axle);
/// A spacer's own nuts and studs.
void addSpacerVerdicts(Study& study, Axle axle);
/// Studs, nuts, pilot, spacer trial, and where the wheel then stands.
void addSeatVerdicts(Study& study, Axle axle);
/// How far the wheel has moved against the car as found, and its room at fender and strut.
void addWheelPlace(Study& study, Axle axle);
/// The gaps of the setup after, the worse side of each: as remembered while the study is worked out, afterwards as it found them.
[[nodiscard]] std::array<Figure, wheelGaps.size()> gapsNow(const Study& study, Axle axle);
/// What the verdicts on one axle rest on, and no more: both setups as drawn, the one after with gaps that are known, of either side.
[[nodiscard]] Clearance clearanceOn(const Study& study, Axle axle, const std::array<Figure, wheelGaps.size()>& gaps);
/// A spacer of that thickness, with what it does to the gaps and the studs, wanted or not.
[[nodiscard]] Remedy spacerRemedy(const Study& study, Axle axle, std::string title, double size);
/// Cures as remedies of one gap.
[[nodiscard]] std::vector<Remedy> roomRemedies(const std::vector<Cure>& cures, WheelGap which);

} // namespace deepstop::clearance
