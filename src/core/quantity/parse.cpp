#include "quantity/parse.hpp"

#include "language/language.hpp"
#include "quantity/number.hpp"
#include "quantity/text.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>
#include <vector>

#include <utility>

namespace deepstop {
namespace {

/// Replaces what keyboards, web pages and phones put in place of plain characters.
std::string plain(std::string_view text)
{
    static constexpr std::array<std::pair<std::string_view, std::string_view>, 24> replacements { {
        { "\u2212", "-" },
        { "\u2013", "-" },
        { "\u2010", "-" },
        { "\u2011", "-" },
        { "\u00a0", " " },
        { "\u202f", " " },
        { "\u2009", " " },
        { "\t", " " },
        { "\u2033", "\"" },
        { "\u201d", "\"" },
        { "\u2032", "'" },
        { "\u2019", "'" },
        { "''", "\"" },
        { "\u22c5", "\u00b7" },
        { "\u2044", "/" },
        { "\u2103", "°C" },
        { "\u2109", "°F" },
        { "\u212a", "K" },
        { "½", " 1/2" },
        { "¼", " 1/4" },
        { "¾", " 3/4" },
        { "⅛", " 1/8" },
        { "⅜", " 3/8" },
        { "⅝", " 5/8" },
    } };
    std::string out;
    for (std::size_t at = 0; at < text.size();) {
        bool replaced = false;
        for (const auto& [from, to] : replacements)
            if (text.substr(at).starts_with(from)) {
                out += to;
                at += from.size();
                replaced = true;
                break;
            }
        if (!replaced && text.substr(at).starts_with("⅞")) {
            out += " 7/8";
            at += std::string_view("⅞").size();
            replaced = true;
        }
        if (!replaced)
            out += text[at++];
    }
    return out;
}

struct Refused {
    std::string why;
};

class Scanner {
public:
    Scanner(std::string text, Dimension dimension) : text_(std::move(text)), dimension_(dimension) { }

    void skipSpace()
    {
        while (at_ < text_.size() && text_[at_] == ' ')
            ++at_;
    }
    bool done() const { return at_ >= text_.size(); }
    bool take(char c)
    {
        if (done() || text_[at_] != c)
            return false;
        ++at_;
        return true;
    }

    /// A decimal, a fraction or a whole number with a fraction.
    double number()
    {
        const double whole = decimal();
        if (take('/'))
            return whole / divisor();
        // "1-1/8" and "1 1/8": only a complete fraction belongs to the number in front of it.
        const auto mark = at_;
        skipSpace();
        if (take('-'))
            skipSpace();
        const auto digits = at_;
        while (!done() && isDigit(text_[at_]))
            ++at_;
        if (at_ > digits && take('/')) {
            const double numerator = valueOf(text_.substr(digits, at_ - digits - 1));
            return whole + numerator / divisor();
        }
        at_ = mark;
        return whole;
    }

    /// The unit that stands here, the longest spelling that fits, or null where no unit begins.
    const Unit* unit()
    {
        skipSpace();
        if (done() || isDigit(text_[at_]) || text_[at_] == '-' || text_[at_] == '+')
            return nullptr;
        for (auto end = text_.size(); end > at_; --end) {
            const auto candidate = std::string_view(text_).substr(at_, end - at_);
            if (candidate.back() == ' ')
                continue;
            const bool cutsWord = end < text_.size() && isLetter(text_[end]) && isLetter(candidate.back());
            if (cutsWord)
                continue;
            if (const Unit* found = findUnit(candidate, dimension_)) {
                at_ = end;
                return found;
            }
        }
        const auto word = restWord();
        if (const Unit* other = findUnit(word))
            throw Refused { tr("“{}” measures {}, but {} is wanted here.", word, tr(nameOf(other->dimension)), tr(nameOf(dimension_))) };
        throw Refused { tr("“{}” is not a unit of {}.", word, tr(nameOf(dimension_)).substr(tr(nameOf(dimension_)).find(' ') + 1)) };
    }

    std::string restWord() const
    {
        auto end = at_;
        while (end < text_.size() && !isDigit(text_[end]))
            ++end;
        auto word = text_.substr(at_, end - at_);
        while (!word.empty() && word.back() == ' ')
            word.pop_back();
        return word.empty() ? text_.substr(at_) : word;
    }

private:
    double divisor()
    {
        const auto start = at_;
        while (!done() && isDigit(text_[at_]))
            ++at_;
        if (at_ == start)
            throw Refused { tr("A fraction needs a number below the line, as in 3/8.") };
        const double below = valueOf(text_.substr(start, at_ - start));
        if (below == 0)
            throw Refused { tr("A fraction cannot have 0 below the line.") };
        return below;
    }

    double decimal()
    {
        const auto start = at_;
        while (!done() && (isDigit(text_[at_]) || ((text_[at_] == '.' || text_[at_] == ',') && at_ + 1 <= text_.size())))
            ++at_;
        auto body = text_.substr(start, at_ - start);
        if (body.empty() || body.find_first_of("0123456789") == std::string::npos)
            throw Refused { body.empty() && done() ? std::string(tr("A number is missing."))
                                                   : tr("“{}” is not a number.", body + restWord()) };
        // A mark that ends a number is punctuation typed by habit; it changes nothing and is refused rather than guessed.
        const auto commas = std::count(body.begin(), body.end(), ',');
        const auto points = std::count(body.begin(), body.end(), '.');
        const auto asWritten = body;
        if (commas && points) {
            const char decimalMark = body.rfind(',') > body.rfind('.') ? ',' : '.';
            const char groupMark = decimalMark == ',' ? '.' : ',';
            if (std::count(body.begin(), body.end(), decimalMark) > 1 || !groupedInThrees(body, groupMark, body.find(decimalMark)))
                throw Refused { tr("“{}” is not a number.", asWritten) };
            std::erase(body, groupMark);
        } else if (commas + points > 1) {
            throw Refused { tr("“{}” has more than one decimal mark.", asWritten) };
        } else if (commas == 1) {
            const auto comma = body.find(',');
            const bool couldGroup = body.size() - comma == 4 && comma >= 1 && comma <= 3 && body[0] != '0';
            if (couldGroup) {
                auto ungrouped = body;
                std::erase(ungrouped, ',');
                auto pointed = body;
                pointed[comma] = '.';
                throw Refused { tr("“{}” can be read as {} or as {}: write one of these.", asWritten, ungrouped, pointed) };
            }
        }
        for (char& c : body)
            if (c == ',')
                c = '.';
        if (at_ < text_.size() && (text_[at_] == 'e' || text_[at_] == 'E')) {
            auto end = at_ + 1;
            if (end < text_.size() && (text_[end] == '-' || text_[end] == '+'))
                ++end;
            if (end < text_.size() && isDigit(text_[end])) {
                while (end < text_.size() && isDigit(text_[end]))
                    ++end;
                body += text_.substr(at_, end - at_);
                at_ = end;
            }
        }
        if (body.front() == '.')
            body.insert(0, "0");
        return valueOf(body);
    }

    /// Of figures that are known to make a number, so that only its size can be wrong.
    static double valueOf(const std::string& figures)
    {
        const auto value = readNumber(figures);
        if (!value)
            throw Refused { tr("“{}” is beyond any size this program can hold.", shortened(figures)) };
        return *value;
    }

    static bool groupedInThrees(const std::string& body, char mark, std::size_t end)
    {
        auto from = body.find(mark);
        if (from == 0 || from > 3)
            return false;
        while (from != std::string::npos && from < end) {
            const auto next = std::min(body.find(mark, from + 1), end);
            if (next - from != 4)
                return false;
            from = next == end ? std::string::npos : next;
        }
        return true;
    }

    std::string text_;
    Dimension dimension_;
    std::size_t at_ = 0;
};

struct Term {
    double value;
    const Unit* unit;
};

} // namespace

Parsed parseQuantity(std::string_view text, Dimension dimension, const Unit& plainUnit)
{
    // Nobody writes a quantity of more letters than a line holds.
    constexpr std::size_t longest = 200;
    if (text.size() > longest)
        return { {}, nullptr, tr("“{}” is too long for a quantity.", shortened(text)) };
    Scanner scan(plain(text), dimension);
    try {
        scan.skipSpace();
        if (scan.done())
            return { {}, nullptr, tr("Nothing is written here; {} is wanted.", tr(nameOf(dimension))) };
        const bool negative = scan.take('-');
        if (!negative)
            scan.take('+');
        scan.skipSpace();
        std::vector<Term> terms;
        while (true) {
            const double value = scan.number();
            const Unit* unit = scan.unit();
            terms.push_back({ value, unit });
            scan.skipSpace();
            if (scan.done())
                break;
            if (!unit)
                throw Refused { tr("“{}” is left over: two numbers need a unit between them.", scan.restWord()) };
        }
        double si = 0;
        for (std::size_t i = 0; i < terms.size(); ++i) {
            const auto& [value, unit] = terms[i];
            if (i > 0 && (!unit || unit->factor >= terms[i - 1].unit->factor || unit->offset != 0))
                throw Refused { tr("Parts of one quantity go from the larger unit to the smaller, each with its unit, as in 5 ft 11 in.") };
            const Unit& in = unit ? *unit : plainUnit;
            const double signedValue = negative ? -value : value;
            si += terms.size() == 1 ? toSi(signedValue, in) : signedValue * in.factor;
        }
        if (!std::isfinite(si))
            throw Refused { tr("The number is beyond any size this program can hold.") };
        return { si, terms.front().unit, {} };
    } catch (const Refused& refused) {
        return { {}, nullptr, onOneLine(refused.why) };
    }
}

Parsed parseQuantity(std::string_view text, Dimension dimension, std::string_view plainUnit)
{
    const Unit* unit = findUnit(plainUnit, dimension);
    if (!unit)
        return { {}, nullptr, tr("“{}” is not a unit of {}.", plainUnit, tr(nameOf(dimension))) };
    return parseQuantity(text, dimension, *unit);
}

} // namespace deepstop
