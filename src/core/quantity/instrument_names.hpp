#pragma once
/// Instruments by name: files hold the English one, from which widths follow; people see and type it in their own language.

#include <span>
#include <string>
#include <string_view>

namespace deepstop {

/// Those a reading is usually taken with, as files have them.
[[nodiscard]] std::span<const char* const> namedInstruments();
/// In the reader's language; as it is where it is none of these.
[[nodiscard]] std::string instrumentInWords(std::string_view kept);
/// The other way round, of what somebody typed or chose.
[[nodiscard]] std::string instrumentFrom(std::string_view words);

} // namespace deepstop
