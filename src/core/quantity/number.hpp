#pragma once
/// Numbers as text and back. The only place of the program where figures become a double: it hears no locale, whatever the desktop's
/// language. (Whole numbers are read with `std::from_chars` where they stand.)

#include <optional>
#include <string_view>

namespace deepstop {

/// The number that `text` is, whole: "28", "-1.5", "1e-3"; nothing for anything else, for what is beyond a double, and for NaN or infinity.
[[nodiscard]] std::optional<double> readNumber(std::string_view text);

/// `value` to that many significant digits, 1 to 17; what is not finite comes back as it is.
[[nodiscard]] double rounded(double value, int digits);

} // namespace deepstop
