#pragma once
/// Words of the core for widgets.

#include <QString>

#include <string_view>

namespace deepstop::app {

[[nodiscard]] inline QString string(std::string_view text) { return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size())); }

} // namespace deepstop::app
