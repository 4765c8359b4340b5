#pragma once
/// Inside study/: its chapters, each in a file of its own.

#include "study/study.hpp"

namespace deepstop::parts {

[[nodiscard]] std::vector<CentringResult> centringOf(const Build& build, const Setup& setup);

/// Appends all verdicts: the car, the wheel room of each axle the setup equips, centring, heat and weight, stopping.
void addVerdicts(Study& study);
/// What meets what: hub and hat, bolts and lugs, hoses, pads, drum; wear; weight; runout; what was found at unpacking.
void addBenchVerdicts(Study& study, Axle axle);
void addWeightVerdicts(Study& study, Axle axle);
void addRoomVerdicts(Study& study, Axle axle);
void addCentringVerdicts(Study& study);
void addHeatVerdicts(Study& study, Axle axle);
void addStopVerdicts(Study& study);

/// What would give a gap the room it lacks, cheapest change first; every remedy named was tried on the numbers.
[[nodiscard]] std::vector<Remedy> roomRemedies(const Study& study, Axle axle, double (*gap)(Sample&, const Corner&, const Wheel&), double wanted);

[[nodiscard]] std::vector<LedgerLine> ledgerOf(const Study& study);
[[nodiscard]] std::string summaryOf(const Study& study);

/// The axles whose brakes the setup after brings itself; the front where it brings none.
[[nodiscard]] std::vector<Axle> axlesOf(const Study& study);

/// "+12 %", "−3 %", "0 %"
[[nodiscard]] std::string percentChange(double after, double before);

/// "front" or "rear", as ids and sentences use it.
[[nodiscard]] std::string wordFor(Axle axle);

} // namespace deepstop::parts
