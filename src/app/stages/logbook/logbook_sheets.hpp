#pragma once
/// The log as drawings.

#include "drawing/sheet.hpp"

#include <optional>

namespace deepstop::app {

/// Entries along their dates, the one in hand to be written, and what is due.
[[nodiscard]] Sheet lifeSheet(const Study& study, std::optional<std::size_t> entry, const std::string& today);
/// Thickness left over the odometer, each part towards its minimum.
[[nodiscard]] Sheet wearSheet(const Study& study, std::optional<std::size_t> entry);
/// What to buy for the setup after, and what its vendor was asked.
[[nodiscard]] Sheet buyingSheet(const Study& study);

} // namespace deepstop::app
