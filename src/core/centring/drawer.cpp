#include "centring/drawer.hpp"

#include "build/range.hpp"
#include "language/language.hpp"
#include "quantity/parse.hpp"
#include "quantity/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace deepstop::centring {

DrawerText readDrawer(std::string_view text, const Unit& plainUnit, bool mayBeEmpty)
{
    DrawerText result;
    if (mayBeEmpty && text.find_first_not_of(' ') == std::string_view::npos)
        return result;
    std::size_t at = 0;
    while (at <= text.size()) {
        const auto end = std::min(text.find(',', at), text.size());
        const auto entry = text.substr(at, end - at);
        at = end + 1;
        const auto refuse = [&](std::string_view why) {
            return DrawerText { {}, tr("“{}”: {} Write THICKNESSxCOUNT, as in 0.75x4,1/16 inx2.", shortened(entry), why) };
        };
        auto cross = entry.find_last_of("xX*");
        std::size_t length = 1;
        if (const auto sign = entry.rfind("×"); cross == std::string_view::npos && sign != std::string_view::npos) {
            cross = sign;
            length = std::string_view("×").size();
        }
        if (cross == std::string_view::npos)
            return refuse(tr("the count is missing."));
        const auto thickness = parseQuantity(entry.substr(0, cross), Dimension::Length, plainUnit);
        if (!thickness)
            return refuse(thickness.refusal);
        const auto count = parseQuantity(entry.substr(cross + length), Dimension::Number, "");
        if (!count || *count.value < 0 || *count.value > 1000 || *count.value != std::floor(*count.value))
            return refuse(tr("the count must be a whole number from 0 to 1000."));
        if (!range::shim.holds(*thickness.value))
            return refuse(tr("the thickness must be from {} to {}.", bound(range::shim.least, style::fine, UnitSystem::Metric),
                bound(range::shim.most, style::fine, UnitSystem::Metric)));
        if (result.drawer.size() == mostSizes)
            return refuse(tr("a drawer has at most {} sizes.", mostSizes));
        result.drawer.push_back({ *thickness.value, static_cast<int>(*count.value) });
    }
    return result;
}

namespace {

bool isWhole(double length, double of) { return std::abs(length / of - std::round(length / of)) < 1e-5; }

/// Of sizes that are whole in both, metric ones are what people mean. Null for a size that is whole in neither.
const Unit* soldIn(double thickness)
{
    const Unit& mm = *findUnit("mm");
    const Unit& thou = *findUnit("thou");
    return isWhole(thickness, 0.01 * mm.factor) ? &mm : isWhole(thickness, thou.factor) ? &thou : nullptr;
}

/// Figures and unit.
std::pair<std::string, std::string> partsOf(double thickness, UnitSystem system)
{
    const Unit* sold = soldIn(thickness);
    if (sold && sold->symbol == "thou")
        return { editable(thickness, *sold), std::string(sold->symbol) };
    const auto shown = sold ? UnitSystem::Metric : system;
    return { figure(thickness, style::fine, shown), std::string(style::fine.unit(shown).symbol) };
}

} // namespace

std::string shimText(double thickness, UnitSystem system)
{
    const auto [figures, unit] = partsOf(thickness, system);
    return figures + " " + unit;
}

std::string pileText(std::span<const double> shims, UnitSystem system)
{
    if (shims.empty())
        return tr("no shims");
    // One unit for all of them stands once.
    const auto unit = partsOf(shims.front(), system).second;
    const bool same = std::ranges::all_of(shims, [&](double shim) { return partsOf(shim, system).second == unit; });
    std::string text;
    for (const double shim : shims)
        text += (text.empty() ? "" : " + ") + (same ? partsOf(shim, system).first : shimText(shim, system));
    return same ? text + " " + unit : text;
}

std::string drawerText(std::span<const ShimKind> drawer, const Unit& unit)
{
    std::string text;
    for (const ShimKind& kind : drawer) {
        const Unit* own = soldIn(kind.thickness);
        const Unit& sold = own ? *own : unit;
        text += fmt::format("{}{}{} × {}", text.empty() ? "" : ", ", editable(kind.thickness, sold),
            &sold == &unit ? std::string() : fmt::format(" {}", sold.symbol), kind.count);
    }
    return text;
}

} // namespace deepstop::centring
