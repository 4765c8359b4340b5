#pragma once
/// A study and a sum as a sheet to read and as JSON.

#include "study/study.hpp"
#include "sums/sums.hpp"

#include <nlohmann/json_fwd.hpp>

#include <string>

namespace deepstop::cli {

[[nodiscard]] std::string studySheet(const Study& study);
/// Satisfies data/schema/study-2.schema.json. Numbers are SI.
[[nodiscard]] nlohmann::ordered_json studyJson(const Study& study);

[[nodiscard]] std::string answerSheet(const sums::Answer& answer);
[[nodiscard]] nlohmann::ordered_json answerJson(const sums::Answer& answer);
[[nodiscard]] std::string sumsSheet();
[[nodiscard]] nlohmann::ordered_json sumsJson();

} // namespace deepstop::cli
