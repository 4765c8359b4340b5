#include "quantity/instrument_names.hpp"

#include "language/language.hpp"

#include <algorithm>
#include <array>

namespace deepstop {
namespace {

constexpr std::array names { marked("tape"), marked("rule"), marked("straightedge"), marked("vernier"), marked("micrometer"),
    marked("dial gauge"), marked("feeler gauge"), marked("scale"), marked("kitchen scale"), marked("bench scale"), marked("hanging scale"),
    marked("bathroom scale"), marked("corner scales"), marked("thermometer"), marked("scan"), marked("solid") };

} // namespace

std::span<const char* const> namedInstruments() { return names; }

std::string instrumentInWords(std::string_view kept)
{
    const auto found = std::ranges::find(names, kept, [](const char* name) { return std::string_view(name); });
    return found == names.end() ? std::string(kept) : std::string(tr(*found));
}

std::string instrumentFrom(std::string_view words)
{
    const auto found = std::ranges::find(names, words, [](const char* name) { return std::string_view(tr(name)); });
    return found == names.end() ? std::string(words) : std::string(*found);
}

} // namespace deepstop
