#pragma once
/// A drive that a logger wrote down, as a duty of a build.

#include "build/edit.hpp"
#include "files/log_columns.hpp"
#include "heat/duty.hpp"

#include <functional>
#include <optional>
#include <string>

namespace deepstop::report {

/// A duty's phases as legs under a name. Throws files::Refusal for more than a build's duty may have.
[[nodiscard]] DutyPlan planOf(const heat::Duty& duty, std::string id, std::string name);

/// The brakings of a log in CSV or GPX, as `files::speedLogIn` takes them, named after its file, without an id.
/// Throws files::Refusal for what cannot be read, has no braking in it, or more legs than a duty may have.
[[nodiscard]] heat::Duty driveIn(const std::string& path, const std::optional<files::LogColumns>& columns = {},
    const std::function<bool(double)>& progress = {});
[[nodiscard]] DutyPlan dutyOutOfLog(const std::string& path, const std::optional<files::LogColumns>& columns = {},
    const std::function<bool(double)>& progress = {});
/// Puts a duty at the end, under an id that no other has, and judges the brakes by it.
[[nodiscard]] Edit withDuty(DutyPlan plan);

} // namespace deepstop::report
