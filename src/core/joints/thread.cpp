#include "joints/thread.hpp"

#include "quantity/text.hpp"

#include <fmt/format.h>

#include <array>
#include <charconv>
#include <cmath>
#include <numeric>

namespace deepstop::joints {
namespace {

constexpr double inch = 0.0254;
// Bolts of cars.
constexpr double thinnest = 3e-3;
constexpr double thickest = 64e-3;
constexpr double coarsest = 6; // mm, of M64

/// Coarse pitches, mm (ISO 261, from memory).
constexpr std::array<std::pair<double, double>, 10> coarse { { { 4, 0.7 }, { 5, 0.8 }, { 6, 1 }, { 8, 1.25 }, { 10, 1.5 }, { 12, 1.75 },
    { 14, 2 }, { 16, 2 }, { 18, 2.5 }, { 20, 2.5 } } };

} // namespace

std::optional<Thread> parseThread(std::string_view given)
{
    if (given.size() > 40)
        return {};
    std::string text;
    for (std::size_t i = 0; i < given.size(); ++i) {
        if (given.substr(i, 2) == "×") {
            text += 'x';
            ++i;
        } else if (!isSpace(given[i])) {
            text += given[i] == ',' ? '.' : toLower(given[i]);
        }
    }
    std::string_view rest = text;
    const auto skip = [&rest](std::string_view what) {
        const bool there = rest.starts_with(what);
        rest.remove_prefix(there ? what.size() : 0);
        return there;
    };
    const auto number = [&rest]() -> std::optional<double> {
        double value = 0;
        const auto read = std::from_chars(rest.data(), rest.data() + rest.size(), value, std::chars_format::fixed);
        if (read.ec != std::errc {} || !(value > 0 && value <= 99)) // "nan" is a number to the library
            return {};
        rest.remove_prefix(static_cast<std::size_t>(read.ptr - rest.data()));
        return value;
    };
    const bool named = skip("m");
    const auto first = number();
    if (!first)
        return {};
    if (!named && skip("/")) {
        // 3/8-24: so many parts of an inch, so many turns to the inch.
        const auto over = number();
        if (over && !skip("in"))
            skip("\"");
        if (!over || !skip("-"))
            return {};
        const auto turns = number();
        for (const std::string_view series : { "tpi", "unef", "unf", "unc" })
            if (skip(series))
                break;
        const double diameter = *first / *over * inch;
        if (!turns || *turns < 4 || !rest.empty() || diameter < thinnest || diameter > thickest || inch / *turns >= diameter / 2)
            return {};
        return Thread { diameter, inch / *turns };
    }
    skip("mm");
    if (*first * 1e-3 < thinnest || *first * 1e-3 > thickest)
        return {};
    if (skip("x") || skip("*") || skip("-")) {
        const auto pitch = number();
        skip("mm");
        return pitch && rest.empty() && *pitch <= coarsest && *pitch < *first / 2 ? std::optional(Thread { *first * 1e-3, *pitch * 1e-3 })
                                                                                  : std::nullopt;
    }
    // A size alone is a coarse thread, when it says that it is a thread.
    for (const auto& [size, pitch] : coarse)
        if (named && rest.empty() && size == *first)
            return Thread { *first * 1e-3, pitch * 1e-3 };
    return {};
}

bool fits(const Thread& bolt, const Thread& hole)
{
    return std::abs(bolt.diameter - hole.diameter) < 0.05e-3 && std::abs(bolt.pitch - hole.pitch) < 0.02e-3;
}

std::string nameOf(const Thread& t)
{
    const double sixteenths = t.diameter / inch * 32;
    const double turns = inch / t.pitch;
    const bool whole = std::abs(t.diameter * 1e4 - std::round(t.diameter * 1e4)) < 1e-6;
    if (!whole && std::abs(sixteenths - std::round(sixteenths)) < 1e-6 && std::abs(turns - std::round(turns)) < 1e-6) {
        const int top = static_cast<int>(std::lround(sixteenths));
        const int common = std::gcd(top, 32);
        return fmt::format("{}/{}-{}", top / common, 32 / common, static_cast<int>(std::lround(turns)));
    }
    return fmt::format("M{:g} × {:g}", t.diameter * 1e3, t.pitch * 1e3);
}

} // namespace deepstop::joints
