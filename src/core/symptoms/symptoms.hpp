#pragma once
/// From a symptom of the brakes to its causes: ranked by what this car's figures say, each with the test that tells it from the others and
/// the reading that test gives. Common practice; the figures are the study's own.

#include "study/study.hpp"

#include <string>
#include <string_view>
#include <vector>

namespace deepstop::symptoms {

struct Cause {
    std::string cause; ///< "air in a line"
    std::string test; ///< how it is told from the others
    std::string reading; ///< pointer of the field that the test fills; empty where the document has none
    std::string gives; ///< that reading in words
    std::string figures; ///< what this car's figures say of it; empty where they say nothing
    std::string verdict; ///< id of the verdict that says so; empty
    Level level = Level::Unproven; ///< of that verdict
    bool judged = false; ///< whether a verdict of this car speaks of it
};

struct Symptom {
    std::string_view id; ///< "long-pedal"
    std::string_view title; ///< "Long pedal"
    std::string_view caution; ///< what to do before anything is looked for
};
/// All symptoms there are, in the order of the pedal, the wheels and the heat.
[[nodiscard]] const std::vector<Symptom>& all();
/// Null for no such symptom.
[[nodiscard]] const Symptom* find(std::string_view id);

/// Causes on the car with the setup after, the most suspect first: what its figures call a stop, then cautions, then what is not proven,
/// then what they say nothing of, last what they call good. A figure that is good excludes nothing, for it speaks of sound parts.
/// @pre `symptom` is one of `all()`
[[nodiscard]] std::vector<Cause> causesOf(const Study& study, const Symptom& symptom);

} // namespace deepstop::symptoms
