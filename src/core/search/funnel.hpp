#pragma once
/// Where kits are lost, counted while a search goes on.

#include "search/trial.hpp"

#include <map>

namespace deepstop::search {

class Funnel {
public:
    /// @param loser with what it shares with all the kits it stands for
    void lose(const Outcome& outcome, Loser loser);
    /// In the order the checks are asked, whatever order they first lost a kit in.
    [[nodiscard]] std::vector<Lost> told(const Query& query, std::uint64_t combinations);
    [[nodiscard]] std::uint64_t lost() const { return lost_; }

private:
    /// What one check loses.
    struct Tally {
        std::uint64_t lost = 0;
        std::vector<Loser> nearest; ///< a heap, the farthest first
        Style style;
    };
    std::map<std::string, Tally> tallies_;
    std::uint64_t lost_ = 0;
};

/// Of those limits of a query that are of certain gains, the first that a kit breaks. What is not known is not within a limit.
[[nodiscard]] Outcome withinLimits(const Query& query, const Gains& gains, std::initializer_list<Gain> which);
/// What only a drive tells.
inline constexpr std::initializer_list<Gain> ofDriving { Gain::Effort, Gain::HeatMargin, Gain::HotStop };

} // namespace deepstop::search
