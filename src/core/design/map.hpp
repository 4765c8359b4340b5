#pragma once
/// The map of what goes: rotor diameter against where its slot stands, every place judged by the limits.

#include "design/limits.hpp"

#include <functional>

namespace deepstop::design {

/// Where one limit's level changes with the rotor's diameter, at one slot: below the first change it is `first`.
struct Changes {
    Level first = Level::Unproven;
    std::vector<std::pair<double, Level>> at; ///< diameter, and the level from there up

    [[nodiscard]] Level level(double rotor) const;
};

/// A line on the map where the worst of all limits changes, of one limit.
struct Border {
    std::size_t limit = 0; ///< among the map's
    Level below = Level::Clear; ///< levels on its two sides
    Level above = Level::Tight;
    std::vector<paper::Point> points; ///< x: slot, y: diameter
    bool upright = false; ///< it is crossed along the slot: `below` is the level inboard of it
    bool decides = false; ///< somewhere on it the kits on one side go and on the other do not, by this limit alone
};

struct Map {
    Proposal at; ///< what is the same all over it
    std::vector<double> columns; ///< slots it was worked out for, rising
    double least = 0; ///< diameters it shows
    double most = 0;
    std::vector<Limit> limits;
    std::vector<std::vector<Changes>> changes; ///< of each limit at each slot
    Level everywhere = Level::Clear; ///< worst of what does not move
    std::vector<Verdict> fixed; ///< those verdicts: studs, pilot, fender …
    std::string lacks; ///< one sentence where there can be no map

    /// The worst level at a place and the limit that says so; no limit where it is one of `fixed`, or none is worse than clear.
    struct Judged {
        Level level = Level::Unproven;
        std::optional<std::size_t> limit;
    };
    [[nodiscard]] Judged judged(std::size_t slot, double rotor) const;
    /// The worst level along the diameter at a slot between two columns, counted from the first; straight between two that are alike, else
    /// as at the nearer.
    using Column = Changes;
    [[nodiscard]] Column column(double index) const;
};

/// Every line of the map along which one limit's level changes. Those that run between two columns, where one of them clears, are found by
/// root finding along the slot.
[[nodiscard]] std::vector<Border> bordersOf(const Maker& maker, const Map& map);

/// What all limits say of one place, worked out for that place: the map's own columns are only as fine as they stand apart.
struct Place {
    Level level = Level::Unproven; ///< the worst, of what does not move too
    const Limit* decides = nullptr; ///< the limit that says so, of some the one with least left; into the map; nothing: one of `fixed`
    Figure gap; ///< of that limit
};
[[nodiscard]] Place placeOf(const Maker& maker, const Map& map, const Proposal& proposal);

/// How far it has come, 0 to 1; called from any thread.
using Progress = std::function<void(double)>;

/// The whole map, on all cores. Cancelled by the flag bound to this thread (task/cancel.hpp).
/// Borders stand within 0.05 mm of where a level changes.
/// @param columns slots it is worked out for, at least 9
[[nodiscard]] Map mapOf(const Maker& maker, const Proposal& at, int columns = 100, const Progress& progress = {});

} // namespace deepstop::design
