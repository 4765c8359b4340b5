#pragma once
/// States of a build as undo keeps them: what two states have in common is kept once.

#include "build/build.hpp"

#include <cstddef>
#include <memory>
#include <vector>

namespace deepstop {

/// One state. Wheels, setups, sessions with their stops, mock-ups, cards and log entries are shared with the state it was taken after,
/// as far as they are equal.
class Snapshot {
public:
    /// @param before the state that `build` came from; null: nothing is shared
    static std::shared_ptr<const Snapshot> of(const Build& build, const Snapshot* before);
    /// The build again, equal to the one it was taken of.
    [[nodiscard]] Build build() const;
    /// Elements of its lists that are not shared with `before`; for tests of what an edit costs.
    [[nodiscard]] std::size_t ownElements(const Snapshot& before) const;

private:
    template <class T>
    using List = std::shared_ptr<const std::vector<std::shared_ptr<const T>>>;

    std::shared_ptr<const Build> rest_; ///< all but the lists
    List<Wheel> wheels_;
    List<Setup> setups_;
    List<MockUp> mockUps_;
    List<JobCard> cards_;
    List<LogEntry> log_;
    List<TestSession> sessions_; ///< without their stops
    std::vector<List<MeasuredStop>> stops_; ///< of each session
};

} // namespace deepstop
