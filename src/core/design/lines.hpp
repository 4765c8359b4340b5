#pragma once
/// Inside the design: a limit followed along lines over the map, and what changes there.

#include "design/map.hpp"

namespace deepstop::design {

/// A change of level is found to this; what a level says holds to either side of it.
inline constexpr double exactly = 10e-6;
/// A point half as far between two that were worked out may be off by so much, else it is worked out too.
inline constexpr double alike = 40e-6;
/// A body moved by half a diameter's growth nears nothing by more; a little more for the swept ends of a straight back.
inline constexpr double steepest = 0.55;

/// Limits along a line over the map: at one slot along the diameter, or at one diameter along the slot.
class Line {
public:
    enum class Moves { Rotor, Slot };
    Line(const Maker& maker, const Proposal& at, const Corner& made, Moves moves = Moves::Rotor)
        : maker_(maker), proposal_(at), corner_(made), moves_(moves)
    {
    }

    /// @param held the slot, or the diameter, of the line
    /// @param hint what a line near by has; where it still holds about, its changes are found from there
    [[nodiscard]] Changes changes(const Limit& limit, double held, double least, double most, const Changes* hint = nullptr);
    /// Whether the level goes from one to the other within `alike` of `place`.
    [[nodiscard]] bool changesAt(const Limit& limit, double held, double place, Level below, Level above);
    [[nodiscard]] Figure figure(const Limit& limit, double slot, double rotor);

private:
    struct Place {
        double where;
        Level level;
        double lowest; ///< of the gap at worst; NaN where it has no value
    };

    void hold(double held) { (moves_ == Moves::Rotor ? proposal_.slot : proposal_.rotor) = held; }
    [[nodiscard]] Along wayOf(const Limit& limit) const { return moves_ == Moves::Rotor ? limit.along : limit.across; }
    Figure figureAt(const Limit& limit, double where);
    Place at(const Limit& limit, double where);
    static std::optional<double> aimOf(const Limit& limit, Level one, Level other);
    [[nodiscard]] bool nothingBetween(const Limit& limit, const Place& low, const Place& high) const;
    void search(const Limit& limit, const Place& low, const Place& high, Changes& found);
    static double guess(const Limit& limit, const Place& low, const Place& high);
    bool fromHint(const Limit& limit, double least, double most, const Changes& hint, Changes& found);
    std::optional<double> enclosed(const Limit& limit, double aim, std::pair<Level, Level> levels, Place a, std::pair<double, double> ends);

    const Maker& maker_;
    Proposal proposal_;
    Corner corner_;
    Moves moves_;
};

/// Whether two lines have the same levels one after another.
[[nodiscard]] bool sameShape(const Changes& a, const Changes& b);
/// Of two such lines what lies a share of the way from one to the other, or beyond.
[[nodiscard]] Changes between(const Changes& a, const Changes& b, double share);

/// A limit along parallel lines at `places`: every eighth is worked out, and those between wherever a straight line would be off.
[[nodiscard]] std::vector<Changes> lines(Line& along, const Limit& limit, const std::vector<double>& places, double least, double most);
/// Lines along the slots, one a diameter, as lines along the diameter, one a slot.
/// @param between what changes at a slot from one of the diameters to the next, where the lines do not tell
[[nodiscard]] std::vector<Changes> inColumns(const std::vector<double>& rotors, const std::vector<Changes>& rows,
    const std::vector<double>& columns, const std::function<Changes(double slot, double least, double most)>& between);

} // namespace deepstop::design
