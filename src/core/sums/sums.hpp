#pragma once
/// Quick sums without a build: a name, keys in any unit, results in SI under keys that carry the unit.

#include "quantity/format.hpp"

#include <map>
#include <optional>
#include <span>
#include <stdexcept>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

namespace deepstop::sums {

/// One input of a sum.
struct Key {
    std::string_view name;
    std::optional<Dimension> dimension; ///< nothing: text
    std::string_view plainUnit; ///< of a number written without one
    std::string_view siKey; ///< its name in the answer, with the SI unit
    std::string_view otherwise; ///< used when the key is left out; empty: `required` decides
    bool required = true;
    std::string_view help;
};

using Value = std::variant<std::monostate, double, bool, std::vector<double>, std::string>;
using Named = std::vector<std::pair<std::string, Value>>;

/// How a result is printed for people: its key, and the style of its number.
struct ResultKey {
    std::string_view name;
    Style style;
    std::string_view help;
};

struct Answer {
    std::string name;
    Named inputs; ///< SI
    Named results; ///< SI
    std::vector<std::string> notes;
    std::string source;
};

/// The request cannot be answered; one line: which key, what is wrong, what to do.
class BadRequest : public std::runtime_error {
public:
    using std::runtime_error::runtime_error;
};

struct Sum {
    std::string_view name;
    std::string_view summary;
    std::vector<Key> keys;
    std::vector<ResultKey> results;
    std::string_view source;
};

[[nodiscard]] std::span<const Sum> allSums();

/// Answers `name` from `key=value` arguments. Throws BadRequest for an unknown sum or key, a key given twice or missing, a value that
/// cannot be read, or numbers the sum has no answer for.
[[nodiscard]] Answer calculate(std::string_view name, std::span<const std::string> arguments);

/// One result as a person reads it.
struct PrintedResult {
    std::string name;
    std::string title; ///< the same in words, "Heat store"
    std::string text; ///< "0.81", "yes", "1.000 mm + 0.500 mm", "not known"
    std::string help;
};
[[nodiscard]] std::vector<PrintedResult> printed(const Answer& answer, UnitSystem system = UnitSystem::Metric);

} // namespace deepstop::sums
