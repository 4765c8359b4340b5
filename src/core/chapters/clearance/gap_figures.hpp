#pragma once
/// Inside the chapter: its gaps as sums, each at its worst moment (the rotor hot, the shims as thick as they are). Metres; NaN where a
/// reading lacks.

#include "chapters/clearance/wheel_figures.hpp"

namespace deepstop::figures {

/// Rotor's hot edge under the caliper's bridge.
[[nodiscard]] double bridgeGap(Evaluator& s, const Corner& corner, Side side, const Wants& wants);
/// Rotor's face beside the caliper's slot, the hot ring coned and wherever its float lets it stand.
[[nodiscard]] double slotGap(Evaluator& s, const Corner& corner, Side side, const Wants& wants);
/// Caliper's outboard half over the hot hat.
[[nodiscard]] double hotHatGap(Evaluator& s, const Corner& corner, Side side, const Wants& wants);
/// Bracket with what stands proud of it, and the shims under it, beside the rotor's inboard face.
[[nodiscard]] double bracketGap(Evaluator& s, const Corner& corner, const Hub& hub, const Wants& wants);
/// The places of a bracket's edge that were read, at either of its faces, to the wheel and the hot rotor; infinite without such places.
[[nodiscard]] double bracketEdgeGap(Evaluator& s, const Corner& corner, const Wheel* wheel, const Hub& hub, const Wants& wants);
/// Hot rotor to the nearest of the dust shield's rim and plate.
[[nodiscard]] double shieldGap(Evaluator& s, const Corner& corner, const Hub& hub, const Wants& wants);
/// Caliper and bracket to a place that stands still. A place whose angle round the axle is not read may stand at the caliper.
[[nodiscard]] double fixedGap(Evaluator& s, const KeepOut& place, const Corner& corner, Side side, const Hub& hub);
/// What is wanted round a place that stands still: of a hose, and of a place whose kind is not given, the larger.
[[nodiscard]] double wantedRound(const KeepOut& place, const Wants& wants);

} // namespace deepstop::figures
