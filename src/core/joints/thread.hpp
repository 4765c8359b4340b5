#pragma once
/// Screw threads by the names people write on the bag.

#include <optional>
#include <string>
#include <string_view>

namespace deepstop::joints {

struct Thread {
    double diameter; ///< nominal, m
    double pitch; ///< m
    bool operator==(const Thread&) const = default;
};

/// Reads "M12x1.5", "m 12 × 1,5", "M12" (coarse pitch, ISO 261), "3/8-24", "7/16-20 UNF", "10 mm x 1.0". Nothing for anything else.
[[nodiscard]] std::optional<Thread> parseThread(std::string_view text);

/// Whether a bolt of one goes into the other: same diameter within 0.05 mm and pitch within 0.02 mm.
[[nodiscard]] bool fits(const Thread& bolt, const Thread& hole);

/// "M12 × 1.5", or inch threads as "3/8-24".
[[nodiscard]] std::string nameOf(const Thread& thread);

} // namespace deepstop::joints
