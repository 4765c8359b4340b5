#pragma once
/// Comma-separated values as RFC 4180 has them: fields in quotes may hold separators, line ends and doubled quotes.

#include <cstddef>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace deepstop::files {

/// Reads one record after another out of a text that outlives it. Never reads past the text, whatever is in it.
class CsvReader {
public:
    static constexpr std::size_t longestRecord = 100'000; ///< bytes; a parts list has none such
    static constexpr std::size_t mostFields = 500;

    CsvReader(std::string_view text, char separator);

    /// The next record into `fields`; false at the end. Blank lines are passed over. Throws Refusal, with the line, for a record longer
    /// than `longestRecord` or of more than `mostFields` fields, and for quotes that never close.
    bool next(std::vector<std::string>& fields);
    [[nodiscard]] std::size_t line() const { return recordLine_; } ///< where the last record began, from 1
    [[nodiscard]] double progress() const { return text_.empty() ? 1 : static_cast<double>(at_) / static_cast<double>(text_.size()); }
    /// The last record as it stands in the text, without its end.
    [[nodiscard]] std::string_view raw() const { return raw_; }

private:
    std::string_view text_;
    char separator_;
    std::size_t at_ = 0;
    std::size_t line_ = 1;
    std::size_t recordLine_ = 0;
    std::string_view raw_;
};

/// The separator a first line seems to use: tab, semicolon or comma, whichever it has most of outside quotes.
[[nodiscard]] char guessSeparator(std::string_view text);

/// One field as it is written: in quotes where it has to be. A field that a spreadsheet would take for a formula is set off by an
/// apostrophe.
[[nodiscard]] std::string csvField(std::string_view text);

} // namespace deepstop::files
