#pragma once
#include <string>

namespace deepstop::solids {

/// SHA-256 (FIPS 180-4) in hexadecimal.
[[nodiscard]] std::string sha256(const std::string& bytes);

} // namespace deepstop::solids
