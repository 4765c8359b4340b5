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
    using SharedList = std::shared_ptr<const std::vector<std::shared_ptr<const T>>>;

    std::shared_ptr<const Build> rest_; ///< all but the lists
    SharedList<Wheel> wheels_;
    SharedList<Setup> setups_;
    SharedList<MockUp> mockUps_;
    SharedList<JobCard> cards_;
    SharedList<LogEntry> log_;
    SharedList<TestSession> sessions_; ///< without their stops
    std::vector<SharedList<MeasuredStop>> stops_; ///< of each session
};

} // namespace deepstop
