#pragma once
/// Reading a quantity as people write it on the bench.

#include "quantity/unit.hpp"

#include <optional>
#include <string>
#include <string_view>

namespace deepstop {

/// Either an SI value, or the reason for refusing the text. The reason names the part that was not understood.
struct Parsed {
    std::optional<double> value; ///< SI
    const Unit* unit = nullptr; ///< the (first) unit written, or null where none was
    std::string refusal; ///< a sentence for the person who typed; empty on success

    explicit operator bool() const { return value.has_value(); }
};

/// Parses `text` as a quantity of `dimension`.
///
/// Accepts a plain number in `plainUnit` (`330`), a unit with or without space (`12.99in`), fractions (`1-1/8 in`, `1 1/8"`, `3/8`,
/// `1½ in`), compounds of falling size (`5 ft 11 in`, `11 lb 2 oz`), a decimal comma (`2,5`), the unicode minus and vulgar fractions.
/// A comma or point that could as well group thousands (`1,460`) is refused with both ways of writing it; `1,460.5` is not ambiguous.
///
/// @param plainUnit  the unit of a number without one; must be of `dimension`
/// @return the SI value; never NaN or infinite. Refuses the empty text, unknown units, a unit of another dimension, division by
///         zero and trailing text. The sign is not judged: a field knows its own range.
[[nodiscard]] Parsed parseQuantity(std::string_view text, Dimension dimension, const Unit& plainUnit);

/// As above, the plain unit given by its spelling, for example `parseQuantity("330", Dimension::Length, "mm")`.
[[nodiscard]] Parsed parseQuantity(std::string_view text, Dimension dimension, std::string_view plainUnit);

} // namespace deepstop
