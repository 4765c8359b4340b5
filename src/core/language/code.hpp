#pragma once

#include <string>

namespace deepstop {

/// Of the language that sentences come in, as in HTML: "de"; "en" where there is no catalogue.
[[nodiscard]] std::string languageCode();

} // namespace deepstop
