#include "files/csv.hpp"

#include "files/refusal.hpp"
#include "language/language.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>

namespace deepstop::files {

CsvReader::CsvReader(std::string_view text, char separator) : text_(text), separator_(separator)
{
    if (text_.starts_with("\xef\xbb\xbf"))
        text_.remove_prefix(3);
}

bool CsvReader::next(std::vector<std::string>& fields)
{
    while (at_ < text_.size() && (text_[at_] == '\n' || text_[at_] == '\r'))
        line_ += text_[at_++] == '\n';
    if (at_ >= text_.size())
        return false;
    recordLine_ = line_;
    const std::size_t begin = at_;
    fields.clear();
    fields.emplace_back();
    bool quoted = false;
    std::size_t quoteLine = 0;
    for (;; ++at_) {
        if (at_ - begin > longestRecord)
            throw Refusal(quoted ? tr("line {}: the quotes opened here do not close within {} kB.", quoteLine, longestRecord / 1000)
                                 : tr("line {}: is longer than {} kB: this is not a parts list.", recordLine_, longestRecord / 1000));
        if (at_ >= text_.size()) {
            if (quoted)
                throw Refusal(tr("line {}: the quotes opened here never close.", quoteLine));
            break;
        }
        const char c = text_[at_];
        if (quoted) {
            if (c == '"' && at_ + 1 < text_.size() && text_[at_ + 1] == '"')
                fields.back() += text_[++at_];
            else if (c == '"')
                quoted = false;
            else
                fields.back() += c;
            line_ += c == '\n';
        } else if (c == '"' && fields.back().empty()) {
            quoted = true;
            quoteLine = line_;
        } else if (c == separator_) {
            if (fields.size() == mostFields)
                throw Refusal(tr("line {}: has more than {} columns: this is not a parts list.", recordLine_, mostFields));
            fields.emplace_back();
        } else if (c == '\n' || c == '\r') {
            break;
        } else {
            fields.back() += c;
        }
    }
    raw_ = text_.substr(begin, at_ - begin);
    return true;
}

char guessSeparator(std::string_view text)
{
    const auto first = text.substr(0, std::min(text.find('\n'), std::size_t(CsvReader::longestRecord)));
    constexpr std::array candidates { ',', ';', '\t' };
    std::array<int, 3> counts {};
    bool quoted = false;
    for (const char c : first) {
        quoted = quoted != (c == '"');
        for (std::size_t i = 0; i < candidates.size(); ++i)
            counts[i] += !quoted && c == candidates[i];
    }
    return candidates[static_cast<std::size_t>(std::ranges::max_element(counts) - counts.begin())];
}

std::string csvField(std::string_view text)
{
    const bool formula = !text.empty() && std::string_view("=+@").find(text.front()) != std::string_view::npos;
    if (!formula && text.find_first_of(",;\t\"\r\n") == std::string_view::npos)
        return std::string(text);
    std::string out = formula ? "\"'" : "\"";
    for (const char c : text)
        out += c == '"' ? std::string("\"\"") : std::string(1, c);
    return out + '"';
}

} // namespace deepstop::files
