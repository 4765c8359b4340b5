#pragma once
/// Hardware worked out from a study: an adapter bracket, a ring, and a split caliper made wider.

#include "bracket/bracket.hpp"
#include "joints/split_caliper.hpp"
#include "verdict/findings.hpp"

namespace deepstop {

/// A bracket for the caliper and rotor of the setup after, on this axle's knuckle.
struct BracketStudy {
    std::optional<bracket::Adapter> adapter;
    std::string lacks; ///< one sentence where there is none
    std::vector<std::string> faults; ///< what is wrong with it: holes that meet, too little metal, too thin a plate
    std::vector<std::string> strikes; ///< what of it reaches the rotor: it must not be made so
    double slipMargin = 0; ///< of its knuckle bolts, M12 10.9 where nobody has said; NaN while the brake's torque is not known
    double bearingMargin = 0; ///< of one of them in shear alone
    std::vector<std::string> loadCase; ///< for the engineer who has to judge it: forces and moments at the largest brake torque
    std::string bolts; ///< "2 × M12 × 1.5, 10.9, 75 % of proof"
};
[[nodiscard]] BracketStudy bracketOf(const Study& study, Axle axle);

/// The plate, named and dated, with its drawing.
struct PlateDrawing {
    bracket::Plate plate;
    paper::Drawing drawing;
};
[[nodiscard]] PlateDrawing drawingOfBracket(const Study& study, Axle axle, const bracket::Adapter& adapter, const std::string& date);
/// The hub-face ring that the setup after has. Nothing where it has none, or a reading of hub or ring lacks, named in `lacks`.
[[nodiscard]] std::optional<PlateDrawing> drawingOfRing(const Study& study, Axle axle, const std::string& date, std::string& lacks);

/// A shim for the bolts of this axle's knuckle, `thickness` thick: half a millimetre of room round the bolt, twice as wide. Nothing while
/// the thread of the lugs is not known, said in `lacks`.
[[nodiscard]] std::optional<PlateDrawing> drawingOfShim(
    const Study& study, Axle axle, double thickness, const std::string& date, std::string& lacks);

/// A split caliper widened by what the rotor grew, everything that goes with it, and the build with it done.
struct WideningStudy {
    std::optional<joints::Widening> widening;
    std::string lacks;
    std::vector<std::string> lines; ///< what to get and to do, in order
    std::vector<std::string> cautions;
    std::shared_ptr<const Build> applied;
};
/// @param growth thickness of the new rotor less that of the old, m, > 0
[[nodiscard]] WideningStudy wideningOf(const Study& study, Axle axle, double growth);

} // namespace deepstop
