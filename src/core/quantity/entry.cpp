#include "quantity/entry.hpp"

#include "language/language.hpp"

#include <cmath>

namespace deepstop {
namespace {

std::string_view trimmed(std::string_view text)
{
    while (!text.empty() && text.front() == ' ')
        text.remove_prefix(1);
    while (!text.empty() && text.back() == ' ')
        text.remove_suffix(1);
    return text;
}

} // namespace

Entry readEntry(std::string_view text, const Style& style, UnitSystem system, const Reading& before, std::string_view today)
{
    text = trimmed(text);
    if (text.empty())
        return { Reading {}, {} };
    bool guessed = text.ends_with('?');
    if (guessed)
        text = trimmed(text.substr(0, text.size() - 1));
    // As people write it down beside a tape measure.
    for (const std::string_view about : { "about ", "approx. ", "approx ", "ca. ", "ca ", "c. ", "~", "≈" })
        if (text.starts_with(about)) {
            guessed = true;
            text = trimmed(text.substr(about.size()));
            break;
        }
    std::string_view value = text;
    std::string_view width;
    for (const std::string_view mark : { "±", "+/-", "+-" })
        if (const auto at = text.find(mark); at != std::string_view::npos) {
            value = trimmed(text.substr(0, at));
            width = trimmed(text.substr(at + mark.size()));
            if (width.empty())
                return { {}, tr("After ± a number is wanted.") };
            break;
        }
    const Unit& plain = style.unit(system);
    const Parsed parsedWidth = width.empty() ? Parsed {} : parseQuantity(width, style.dimension, plain);
    if (!width.empty() && !parsedWidth)
        return { {}, parsedWidth.refusal };
    // In "28 ±0.05 in" the unit at the end is meant for both.
    const Unit& valueUnit = !width.empty() && parsedWidth.unit ? *parsedWidth.unit : plain;
    std::vector<double> several;
    Parsed parsed;
    for (bool more = true; more;) {
        const auto cut = value.find(';');
        more = cut != std::string_view::npos;
        parsed = parseQuantity(trimmed(value.substr(0, cut)), style.dimension, valueUnit);
        if (!parsed)
            return { {}, several.empty() && !more ? parsed.refusal : tr("Between semicolons: {}", parsed.refusal) };
        several.push_back(*parsed.value);
        value = more ? value.substr(cut + 1) : value;
    }
    parsed.value = repeated({}, several).value;
    Reading reading = before;
    const bool changed = several.size() > 1 ? several != before.repeats
                                            : !before.value || !before.repeats.empty()
            || std::abs(*before.value - *parsed.value) > 1e-12 * std::max(1.0, std::abs(*parsed.value));
    if (changed) {
        reading.value = parsed.value;
        if (!before.value)
            reading = { parsed.value, {}, Known::Measured, {}, {} };
        reading.plusMinus.reset();
        reading.date = today;
        reading = repeated(std::move(reading), several);
    }
    // An estimate that names an instrument was foretold, and a designed part waits for being read: whatever is typed over it, the same
    // number too, is that reading.
    if ((before.known == Known::Estimated && !before.instrument.empty()) || before.known == Known::Design) {
        reading.known = Known::Measured;
        if (before.known == Known::Design)
            reading.plusMinus.reset();
        reading.date = today;
    }
    if (!width.empty()) {
        const Unit& widthUnit = parsedWidth.unit ? *parsedWidth.unit : parsed.unit ? *parsed.unit : plain;
        const Parsed again = parseQuantity(width, style.dimension, widthUnit);
        if (!again)
            return { {}, again.refusal };
        const double half = *again.value - widthUnit.offset;
        if (half < 0)
            return { {}, tr("A plus-or-minus cannot be less than 0.") };
        reading.plusMinus = half;
    }
    if (guessed) {
        reading.known = Known::Estimated;
        reading.instrument.clear();
    }
    return { reading, {} };
}

std::string entryText(const Reading& reading, const Style& style, UnitSystem system)
{
    if (!reading.value)
        return {};
    std::string text;
    for (const double value : reading.repeats)
        text += (text.empty() ? "" : "; ") + editable(value, style.unit(system));
    return text.empty() ? editable(*reading.value, style.unit(system)) : text;
}

} // namespace deepstop
