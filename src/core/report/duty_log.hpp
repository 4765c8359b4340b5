#pragma once
/// A drive that a logger wrote down, as a duty of a build.

#include "build/build.hpp"
#include "files/log_columns.hpp"
#include "heat/duty.hpp"

#include <set>
#include <string>

namespace deepstop::report {

/// A duty's phases as legs under a name. Throws files::Refusal for more than a build's duty may have.
[[nodiscard]] DutyPlan planOf(const heat::Duty& duty, std::string id, std::string name);

/// The brakings of a log in CSV or GPX, as `files::readSpeedLog` takes them, named after its file, with an id that is not among `taken`.
/// Throws files::Refusal for what cannot be read, has no braking in it, or more legs than a duty may have.
[[nodiscard]] heat::Duty driveIn(const std::string& path, const std::optional<files::LogColumns>& columns = {});
[[nodiscard]] DutyPlan dutyOutOfLog(
    const std::string& path, const std::set<std::string>& taken, const std::optional<files::LogColumns>& columns = {});

} // namespace deepstop::report
