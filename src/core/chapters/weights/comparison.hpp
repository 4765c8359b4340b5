#pragma once
/// Old against each proposal, like for like: what the parts are, hold, weigh and cost.

#include "verdict/findings.hpp"

namespace deepstop {

enum class Better { More, Less, Neither };

/// One property over all setups compared.
struct ComparisonRow {
    std::string id; ///< "ring-area"
    std::string title;
    Style style;
    Better better = Better::Neither;
    std::vector<Figure> figures; ///< one a setup, in their order
    bool money = false; ///< in the build's currency

    /// How much more setup `i` has than the first, 0.5 = half as much again; nothing where either is not known or the first has none.
    [[nodiscard]] std::optional<double> change(std::size_t i) const;
};

struct Comparison {
    Axle axle = Axle::Front;
    std::vector<const Setup*> setups; ///< the one compared against first
    std::vector<ComparisonRow> rows;
    /// Whether no other setup is at once lighter in the corner and larger in heat store; one a setup, false where either is not known.
    std::vector<bool> unbeaten;

    [[nodiscard]] const ComparisonRow& row(std::string_view id) const;
};

/// Compares every setup of the build that equips `axle` itself, the setup before first. A setup whose corner lacks a weighing has no
/// corner weight, and says so in the figure: a bare caliper is never compared with a dressed one.
[[nodiscard]] Comparison compare(const Study& study, Axle axle);

/// One heap on the scale, or what was worked out because nobody weighed it.
struct MassShare {
    std::string name; ///< "caliper + pads + bracket"
    Figure mass;
    bool computed = false;
};

/// Where the weight of one corner lies. Heaps in the order of weighing, then what is computed of the rotor.
[[nodiscard]] std::vector<MassShare> massShares(const Corner& corner);

/// Weights of one axle's corner and of the car, before and after.
struct WeightLine {
    std::string id; ///< "corner", "unsprung", "rotating", "equivalent", "inertia", "axle", "car"
    std::string title;
    Style style = style::partMass;
    Figure before;
    Figure after;
    Figure change;
    std::vector<std::string> lacksInWords;
};
[[nodiscard]] std::vector<WeightLine> weightLines(const Study& study, Axle axle);

} // namespace deepstop
