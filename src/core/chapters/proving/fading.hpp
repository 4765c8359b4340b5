#pragma once
/// Stop after stop until it fades: as measured, as the heat model has it, and what that tells of the model.

#include "chapters/proving/proving_chapter.hpp"
#include "heat/calibration.hpp"

namespace deepstop {

/// The series until it fades, of these setups; null is passed over.
/// @param withModel with the duty they drove run by the heat model, which takes its time
[[nodiscard]] std::vector<FadeRuns> fadesOf(const Build& build, const std::vector<const Setup*>& setups, bool withModel);
/// Whether each series fades, and whether the model had it so.
void addFades(Study& study, const ProvingStudy& proving);

/// A series as a thermometer of the pads.
struct FadeEvidence {
    std::optional<heat::FadeSeries> series; ///< holds on to the build it is of
    std::vector<std::string> lacks; ///< why it tells nothing, in words; empty where it does
};
/// Of one session with the duty it drove. It tells nothing unless the foot's force was read at every stop, since a foot that presses harder
/// hides what the pads lose; unless both axles' friction over temperature is known; or where its stops are not the duty's.
[[nodiscard]] FadeEvidence fadeEvidence(const Build& build, const FadeRuns& fade, const heat::Duty& duty);

} // namespace deepstop
