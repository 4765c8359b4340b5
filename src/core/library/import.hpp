#pragma once
/// Parts from a list in CSV: which column is what, in which unit, and which lines cannot be taken and why.

#include "library/library.hpp"

#include <functional>
#include <string>
#include <string_view>
#include <vector>

namespace deepstop::library {

/// A field a column can be put into.
struct FieldName {
    std::string key; ///< as in files, "outer_diameter_mm"
    std::string label; ///< as the table of fields has it; in the reader's language where it is shown
    const Unit* unit = nullptr; ///< that a bare number is in by the key; null for what is no quantity
    Dimension dimension = Dimension::Number;
};
/// Every field of a kind of part, in their order; the first is its id, the second the note. None of a kit: it comes as a file of its own.
[[nodiscard]] const std::vector<FieldName>& fieldsOf(Kind kind);

struct Column {
    std::string header; ///< as it stands in the list
    std::string key; ///< the field; empty: passed over
    const Unit* unit = nullptr; ///< of bare numbers in this column
    std::string why; ///< the header names a field, but this keeps the column from being taken
};

struct Plan {
    Kind kind = Kind::Rotor;
    char separator = ',';
    Known known = Known::Vendor; ///< how a figure from this list is known
    std::vector<Column> columns;
};

/// A plan from the list's first line: headers are understood as keys ("outer_diameter_mm"), as labels with or without a unit
/// ("Rotor diameter [in]"), or as words of the trade. The kind is the one that most columns fit. Throws files::Refusal for a text without a
/// first line, one that is not UTF-8, or holds bytes that no text has.
[[nodiscard]] Plan guessPlan(std::string_view text);
/// The same for a kind already decided.
[[nodiscard]] Plan guessPlan(std::string_view text, Kind kind);

struct RefusedLine {
    std::size_t line;
    std::string text; ///< the line, cut where it is long
    std::string why;
};

struct Import {
    Library parts;
    std::size_t taken = 0;
    std::vector<RefusedLine> refused; ///< every one of them; columns that cannot be taken stand for line 1
    bool cancelled = false;
};

/// Reads the list by the plan. A line that cannot be taken is refused whole and said why; the others are taken. Needs a name in every line.
/// @param goOn called now and then with the part done, 0 … 1; false ends the import
/// Throws files::Refusal for a text that is no list at all.
[[nodiscard]] Import importParts(std::string_view text, const Plan& plan, const std::function<bool(double)>& goOn = {});

/// A shelf as CSV with the keys as headers; what is read back is the same parts, how their figures are known apart.
[[nodiscard]] std::string exportParts(const Library& library, Kind kind);

} // namespace deepstop::library
