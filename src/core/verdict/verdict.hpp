#pragma once
/// What a chapter says: verdicts with their reasons and remedies, and lines of before and after.

#include "build/edit.hpp"
#include "quantity/figure.hpp"
#include "quantity/format.hpp"
#include "verdict/check.hpp"

#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace deepstop {

/// Gaps are clear, tight or hit; other checks good, caution or stop; either may be unproven.
enum class Level { Clear, Good, Unproven, Tight, Caution, Hits, Stop };
[[nodiscard]] std::string_view nameOf(Level level);
[[nodiscard]] constexpr bool isBad(Level level) { return level == Level::Hits || level == Level::Stop; }
[[nodiscard]] constexpr bool isFine(Level level) { return level == Level::Clear || level == Level::Good; }
/// A gap against what is wanted, on its worst case: the one author of such a level. Certain contact is *hits* even on estimates; a worst
/// case that touches hits, too; anything else that rests on an estimate or lacks a reading is *unproven*.
[[nodiscard]] Level gapLevel(const Figure& gap, double wanted);

/// One way out, what it gains and what it costs elsewhere. Each was tried on the numbers before it is named.
struct Remedy {
    std::string title; ///< "Spacer 6.0 mm"
    Figure gap; ///< the same gap afterwards
    std::vector<std::string> costs;
    Edit edit; ///< puts it in; empty where there is nothing to be put in

    /// The build with it in; null where it does not apply.
    [[nodiscard]] std::shared_ptr<const Build> in(const Build& build) const;
};

struct Verdict {
    std::string id; ///< "front/barrel-gap"
    const Check* check = nullptr; ///< what it is a verdict of
    int number = 0; ///< of one of several
    bool found = false; ///< of the parts that the setup replaces
    std::string_view chapter; ///< id of the one that says it
    Axle axle = Axle::Front;
    std::optional<Side> side {}; ///< whose it is, where both sides were judged and differ
    std::string title; ///< "Caliper to wheel barrel"
    Level level = Level::Unproven;
    std::string reason; ///< one line
    Figure figure; ///< the number behind it
    Style style = style::number;
    std::optional<double> wanted;
    std::string method; ///< formula in words
    std::string source;
    std::string caution; ///< what can hurt, where something can
    std::vector<Remedy> remedies;
    std::vector<std::string> lacksInWords; ///< what is missing that is not a single reading, for example a wheel's spoke stations
};

/// A check's verdict, with its id, its place and its title, to be judged.
[[nodiscard]] Verdict verdictOf(const Check& check, const Where& where = {});

/// One figure before and after.
struct LedgerLine {
    std::string id;
    std::string title;
    Style style;
    Figure before;
    Figure after;
    Figure change; ///< worked out as a difference, so that readings shared by both setups cancel
    std::string word; ///< "tight", "tyres limit"
    Level level = Level::Unproven;
    std::vector<std::string> lacksInWords;
    std::string_view chapter; ///< id of the one that says it
    bool ofPlaces = false; ///< of where rotor, caliper and wheel sit: what stays and was driven is known to be as it was
};

} // namespace deepstop
