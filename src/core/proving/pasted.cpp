#include "proving/pasted.hpp"

#include "language/language.hpp"
#include "quantity/parse.hpp"
#include "quantity/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <optional>

namespace deepstop::proving {
namespace {

constexpr std::string_view howTo = marked("Write it as: from 60 mph, out: 171 171 178 179 175 ft");
constexpr std::size_t most = 100;

/// Words and numbers, in lower case; what parts them falls away. A comma between digits is a decimal one.
std::vector<std::string> wordsOf(std::string_view text)
{
    const auto digitAt = [&](std::size_t i) { return i < text.size() && isDigit(text[i]); };
    std::vector<std::string> words(1);
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        const bool decimal = c == ',' && i > 0 && digitAt(i - 1) && digitAt(i + 1);
        if ((c == ',' && !decimal) || c == ';' || c == ':' || isSpace(c))
            words.emplace_back();
        else
            words.back() += toLower(c);
    }
    std::erase(words, std::string());
    return words;
}

bool isNumber(const std::string& word) { return !word.empty() && (isDigit(word[0]) || word[0] == '.'); }
bool isPlain(const std::string& word) { return word.find_first_not_of("0123456789.,") == std::string::npos; }

class Line {
public:
    Line(std::string_view text, UnitSystem system) : words_(wordsOf(text)), system_(system) { }

    PastedStops read()
    {
        if (next() == "from")
            ++at_;
        if (!speed() || !distances())
            return std::move(result_);
        if (result_.distances.empty())
            refuse(tr("There are no distances"));
        return std::move(result_);
    }

private:
    [[nodiscard]] std::string next() const { return at_ < words_.size() ? words_[at_] : std::string(); }
    bool refuse(const std::string& why)
    {
        result_ = {};
        result_.refusal = fmt::format("{}. {}.", why, tr(howTo));
        return false;
    }
    bool speed()
    {
        if (!isNumber(next()))
            return refuse(tr("The line begins with the speed the stops were made from"));
        std::string said = words_[at_++];
        if (isPlain(said)) {
            if (next().empty() || isNumber(next()))
                return refuse(tr("“{}” has no unit: km/h or mph", said));
            said += " " + words_[at_++];
        }
        const auto parsed = parseQuantity(said, Dimension::Speed, "km/h");
        if (!parsed || !(*parsed.value > 0))
            return refuse(tr("“{}” is no speed", said));
        result_.speed = *parsed.value;
        return true;
    }
    bool distances()
    {
        struct Said {
            std::string number;
            std::string unit;
        };
        std::vector<Said> said;
        for (; at_ < words_.size(); ++at_) {
            const std::string& word = words_[at_];
            if (isNumber(word)) {
                const auto end = word.find_first_not_of("0123456789.,");
                said.push_back({ word.substr(0, end), end == std::string::npos ? std::string() : word.substr(end) });
            } else if (word == "out" || word == "back") {
                result_.way = word == "out" ? Way::Out : Way::Back;
            } else if (findUnit(word, Dimension::Length) && !said.empty()) {
                // Of all before it that have none.
                for (Said& each : said)
                    if (each.unit.empty())
                        each.unit = word;
            } else {
                return refuse(tr("“{}” is not understood", word));
            }
        }
        if (said.size() > most)
            return refuse(tr("These are {} distances, {} at a time at most", said.size(), most));
        for (const Said& each : said) {
            const auto parsed = parseQuantity(each.number + each.unit, Dimension::Length,
                each.unit.empty() ? system_ == UnitSystem::Us ? "ft" : "m" : std::string_view(each.unit));
            if (!parsed || !(*parsed.value > 0))
                return refuse(tr("“{}{}” is no distance", each.number, each.unit));
            result_.distances.push_back(*parsed.value);
        }
        return true;
    }

    std::vector<std::string> words_;
    UnitSystem system_;
    std::size_t at_ = 0;
    PastedStops result_;
};

} // namespace

PastedStops readStops(std::string_view text, UnitSystem system) { return Line(text, system).read(); }

} // namespace deepstop::proving
