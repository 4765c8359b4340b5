#pragma once
/// Build files of earlier versions, brought to the version of today.

#include "files/json_fields.hpp"

namespace deepstop::files {

/// A word of version 2 as its token in version 3: without commas and apostrophes, blanks as underlines. A token stays as it is.
[[nodiscard]] std::string tokenOfWord(const std::string& word);
/// The same for every choice that `schema` describes, in place.
void wordsToTokens(Json& json, const Json& schema);
/// Rewrites a build of version 2 as one of version 3, in place: words become tokens. What version 2 wrote where nobody had said anything
/// is taken for nothing said when it is read.
void fromVersion2(Json& build, const Json& schema);

/// Rewrites a build of version 1 as one of version 2, in place. What is not as version 1 has it is left for the schema to refuse.
///
/// Version 1 said once what holds for two sides, two setups or several tyres; only what it was read of keeps its proof:
/// - readings of slot, pad edge, runout and thickness variation go to the left and count as estimated on the right; stacks of shims go to
///   both, on the right as estimated where a plan was ever put in on that axle;
/// - tyre radius and grip go to the wheels the car came with, and count as estimated on the wheels other setups run;
/// - hydraulics go to the car as found;
/// - stations 30 mm apart, the old default, become the new one;
/// - a fact that was never written down (material, kind, condition, direction) is not said, where version 1 took the usual one.
void fromVersion1(Json& build);

} // namespace deepstop::files
