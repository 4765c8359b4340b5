#pragma once
/// Inside study/: its chapters, each in a file of its own.

#include "study/study.hpp"

namespace deepstop {
struct Cure;
}

namespace deepstop::parts {

/// Positions of all mock-ups of the setup after, and the shims for all of them from the one drawer.
void addCentring(Study& study);

/// Appends all verdicts: the car, the wheel room of each axle the setup equips, centring, heat and weight, stopping.
void addVerdicts(Study& study);
/// What meets what: hub and hat, bolts and lugs, hoses, pads, drum; wear; weight; runout; what was found at unpacking.
void addBenchVerdicts(Study& study, Axle axle);
void addWeightVerdicts(Study& study, Axle axle);
void addRoomVerdicts(Study& study, Axle axle);
void addCentringVerdicts(Study& study);
/// Thread, room, torque and slip of every bolted joint.
void addJointVerdicts(Study& study, Axle axle);
void addHeatVerdicts(Study& study, Axle axle);
void addStopVerdicts(Study& study);

/// Studs, nuts, pilot, spacer trial, and where the wheel then stands.
void addSeatVerdicts(Study& study, Axle axle);
/// A spacer of that thickness, with what it does to the gaps and the studs, wanted or not.
[[nodiscard]] Remedy spacerRemedy(const Study& study, Axle axle, std::string title, double size);
/// Cures as remedies of one gap.
[[nodiscard]] std::vector<Remedy> roomRemedies(const std::vector<Cure>& cures, WheelGap which);

[[nodiscard]] std::vector<LedgerLine> ledgerOf(const Study& study);
[[nodiscard]] std::string summaryOf(const Study& study);

/// The axles whose brakes the setup after brings itself; the front where it brings none.
[[nodiscard]] std::vector<Axle> axlesOf(const Study& study);

/// "+12 %", "−3 %", "0 %"
[[nodiscard]] std::string percentChange(double after, double before);

/// "front" or "rear", as ids and sentences use it.
[[nodiscard]] std::string wordFor(Axle axle);

} // namespace deepstop::parts
