#pragma once
/// The chapters of a study, in order. A discipline joins by a line here.

#include "verdict/findings.hpp"

#include <span>

namespace deepstop {

struct Chapter {
    std::string_view id; ///< "clearance": what its verdicts and ledger lines are known by
    std::string_view title; ///< over its verdicts, where they are printed
    std::string_view cures; ///< over its remedies
    std::string_view gain; ///< before what a remedy makes of the figure: "gap", "leaves"
    std::span<const Check* const> checks; ///< all that it makes
    void (*add)(Study&); ///< keeps what it found, and appends its verdicts and its lines of the ledger
    void (*draw)(Study&) = nullptr; ///< of one that takes its time: what a picture needs at once; null where all of it is quick
    int thread = 0; ///< those that take long are worked out beside the others, each number on a thread of its own
    void (*settle)(Study&) = nullptr; ///< points what it found in an earlier study into this one's build; null: it points nowhere
};

[[nodiscard]] std::span<const Chapter> chapters();
/// Throws std::out_of_range for an id that is none.
[[nodiscard]] const Chapter& chapterOf(std::string_view id);

/// Calls what rests on parts that stay, and were driven, good where they are not read.
void proveByRoad(Study& study);

/// Does it fit, is it centred, from what the chapters said and what they still ask for.
[[nodiscard]] Headline headlineOf(const Study& study);
/// The headline and what the setup gains, in one line.
[[nodiscard]] std::string summaryOf(const Study& study);

} // namespace deepstop
