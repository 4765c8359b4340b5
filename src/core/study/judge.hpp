#pragma once
/// Inside study/: turning figures into levels and sentences.

#include "study/study.hpp"

namespace deepstop::judge {

/// The sentence that goes with `gapLevel`.
[[nodiscard]] std::string gapReason(
    const Study& study, const Figure& gap, double wanted, const std::vector<std::string>& lacksInWords = {});

/// "rests on an estimate: …", for a figure that has a value but no proof; empty otherwise.
[[nodiscard]] std::string estimatedIn(const Study& study, const Figure& figure);

/// Fills level and reason of a verdict whose figure has no value or only estimates behind it. False if there is nothing to fill.
bool unproven(const Study& study, Verdict& verdict);

/// Appends a verdict of the wheel room on `axle`, its figure a length of `style::gap`, and returns it to be judged.
Verdict& startRoomVerdict(Study& study, Axle axle, std::string_view id, std::string title, Figure figure);

/// Joins with commas and "and", at most `most` of them.
[[nodiscard]] std::string joined(const std::vector<std::string>& words, std::size_t most = 3);

} // namespace deepstop::judge
