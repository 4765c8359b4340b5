#pragma once
/// Everything a build says when two of its setups are compared.

#include "verdict/findings.hpp"

#include <atomic>

namespace deepstop {

/// Which two setups are compared, by id; empty: the first, and the second (or the first again where there is only one).
struct SetupPair {
    std::string before;
    std::string after;
    bool operator==(const SetupPair&) const = default;
};

/// What is asked of a study.
struct StudyOf {
    SetupPair pair; ///< an unknown id counts as empty
    UnitSystem system = UnitSystem::Metric; ///< that sentences are written in; numbers are SI either way
    Remedies remedies = Remedies::Sought; ///< left out, every figure and every level is the same
    /// The one before it: what it worked out and still holds is not worked out again. Null: all is worked out.
    std::shared_ptr<const Study> last;
};

/// Studies `build`, chapter by chapter. Pure: the same build and question give the same study. A reading that is missing lacks wherever it
/// matters, by name, and every other result stands.
/// @param unwanted looked at throughout, from any thread: once it is true nothing comes back, within some milliseconds
[[nodiscard]] std::optional<Study> study(std::shared_ptr<const Build> build, const StudyOf& of, const std::atomic<bool>& unwanted);
[[nodiscard]] Study study(std::shared_ptr<const Build> build, const SetupPair& pair = {}, UnitSystem system = UnitSystem::Metric,
    Remedies remedies = Remedies::Sought);
[[nodiscard]] Study study(const Build& build, const SetupPair& pair = {}, UnitSystem system = UnitSystem::Metric);

/// How some chapters stand, as rail and headline say it: their worst verdict; of centring never better than the headline, which also counts
/// corners without readings. @return the level and the reason in words; empty where the chapters have no verdict
[[nodiscard]] std::optional<std::pair<Level, std::string>> standing(const Study& study, std::span<const std::string_view> chapters);

/// What can be drawn of `build` at once: the quick chapters whole, of the others geometry alone. What they said in `last` stands in it
/// *unproven* and without a figure, as being worked out.
[[nodiscard]] Study drawn(std::shared_ptr<const Build> build, const StudyOf& of, const Study& last);

} // namespace deepstop
