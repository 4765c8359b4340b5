#pragma once
/// For chapters: turning figures into levels and sentences.

#include "verdict/findings.hpp"

#include <functional>
#include <string_view>

namespace deepstop::judge {

/// The sentence that goes with `gapLevel`.
[[nodiscard]] std::string gapReason(
    const Study& study, const Figure& gap, double wanted, const std::vector<std::string>& lacksInWords = {});

/// "rests on an estimate: …", for a figure that has a value but no proof; empty otherwise.
[[nodiscard]] std::string estimatedIn(const Study& study, const Figure& figure);

/// Lets a figure rest on all that another rests on, lack what it lacks and assume what it assumes, each once; its value stays. What each
/// moves it by is no longer known.
void restAlsoOn(Figure& figure, const Figure& also);

/// Fills level and reason of a verdict whose figure has no value or only estimates behind it. False if there is nothing to fill.
bool unproven(const Study& study, Verdict& verdict);

/// The room one thing leaves for another, and what it means to have too little or too much of it.
struct Allowance {
    double least; ///< below: stop
    double most; ///< above: caution
    double hopeless; ///< certainly above: stop
    std::string_view tooSmall;
    std::string_view tooLarge;
};
/// Judges such a room. Certain misfits stand even on estimates; everything else on estimates is unproven.
void rate(const Study& study, Verdict& verdict, const Allowance& allowance);

/// Of one check made on both sides of the car the worse, which says whose it is and asks for whatever either side lacks.
[[nodiscard]] Verdict worseSide(Verdict left, Verdict right);

/// A verdict whose figure is a length of `style::gap`.
[[nodiscard]] Verdict gapVerdict(const Check& check, const Where& where, std::string title, Figure figure);
/// The same, appended to be judged.
Verdict& startGapVerdict(Study& study, const Check& check, const Where& where, std::string title, Figure figure);

/// Joins with commas and "and", at most `most` of them.
[[nodiscard]] std::string joined(const std::vector<std::string>& words, std::size_t most = 3);

/// The axles whose brakes the setup after brings itself; the front where it brings none.
[[nodiscard]] std::vector<Axle> axlesOf(const Study& study);
/// "front" or "rear", as ids and sentences use it.
[[nodiscard]] std::string wordFor(Axle axle);
[[nodiscard]] std::string wordFor(Side side);
[[nodiscard]] std::string wordFor(Level level);

/// "74 %"
[[nodiscard]] std::string percentOf(double share);
/// "+12 %", "−3 %", "0 %"
[[nodiscard]] std::string percentChange(double after, double before);

/// A line of the ledger: before, after, and the difference as one sum, in which what both rest on cancels.
[[nodiscard]] LedgerLine ledgerLine(
    std::string id, std::string title, const Style& style, const Figure& before, const Figure& after, Figure change);
/// "+1.2 kg", or *unproven*.
[[nodiscard]] std::string changeWord(const Study& study, const LedgerLine& line);

} // namespace deepstop::judge
