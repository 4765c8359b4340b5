#pragma once
/// What a setup costs to buy: its list, totalled, and held against another's.

#include "report/leaf.hpp"
#include "verdict/findings.hpp"

#include <string>
#include <vector>

namespace deepstop::report {

/// One line of the list.
struct PurchaseLine {
    const Purchase* bought;
    Figure price; ///< of all its pieces; no value where pieces or price are not said
};

struct PurchaseList {
    std::vector<PurchaseLine> lines;
    Figure total; ///< no value while a line has no price: what is known is then `known`
    double known = 0; ///< sum of the lines that have a price, at their nominal prices
    int without = 0; ///< lines without price or pieces
};

/// What a setup has to have bought. Empty for one that lists nothing.
[[nodiscard]] PurchaseList purchasesOf(const Setup& setup);

/// All setups of a build that list anything: their lines with number, source and price, their totals, and each total less the first
/// one's.
[[nodiscard]] Leaf purchaseSheet(const Build& build, const std::string& date);
/// The same as CSV: setup, what, number, source, pieces, price of one, price; a last line for each setup's total.
[[nodiscard]] std::string purchasesCsv(const Build& build);

} // namespace deepstop::report
