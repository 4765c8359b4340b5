#pragma once
/// What is still to be read, as a sheet for the bench and as a letter to the vendor.

#include "build/edit.hpp"
#include "verdict/findings.hpp"

#include <optional>

namespace deepstop::report {

/// One thing to find out.
struct Ask {
    std::string pointer; ///< of the reading; empty for what is no reading
    std::string what; ///< "rotor's minimum thickness (Kit B, front)"
    std::string now; ///< "missing", or "estimated 12.0 mm"
    std::string instrument; ///< what to take it with
    std::size_t verdicts = 0; ///< how many hang on it
    std::vector<std::string> titles; ///< theirs
    bool vendorKnows = false; ///< a part's own dimension of the setup after, that its vendor can say
    std::string estimate {}; ///< what it is worked with meanwhile; empty where it is missing
};

/// Everything missing or only estimated that a verdict rests on; most hangs on the first.
[[nodiscard]] std::vector<Ask> asksOf(const Study& study);

/// What to read next: of the check nearest to an answer the reading that most others wait for as well.
struct NextReading {
    Ask ask;
    std::string settles; ///< that check; empty where nothing is missing and an estimate is to be read
    std::size_t more = 0; ///< readings it lacks, this one among them
};
/// Nothing where nothing is asked for.
[[nodiscard]] std::optional<NextReading> nextReading(const Study& study);
/// The same as a sentence: "Next: pad height (Kit, front), with a vernier: with 3 more it settles Gap to the barrel (front)".
[[nodiscard]] std::string nextToRead(const Study& study);

/// A sheet to take to the bench: what to read, with what, room to write. Text, 78 columns.
[[nodiscard]] std::string benchSheet(const Study& study);

/// Whether a question noted earlier is this one, whatever we reckon with meanwhile.
[[nodiscard]] bool sameQuestion(const std::string& about, const std::string& question);
/// Notes each open question to the vendor as asked on that day; one that was asked before keeps its day.
[[nodiscard]] Edit questionsAsked(const Study& study, const std::string& date);

/// What the vendor of the setup after is asked: dimensions of his parts that are missing or estimated, prices, torques, and what the
/// builder wrote down himself; not what he has answered. One sentence each.
[[nodiscard]] std::vector<std::string> questionsFor(const Study& study);

/// A letter to the vendor of the setup after: what the sheet does not say, torques and threads included. Text.
[[nodiscard]] std::string vendorLetter(const Study& study);

} // namespace deepstop::report
