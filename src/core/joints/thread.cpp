#include "joints/thread.hpp"

#include <fmt/format.h>

#include <array>
#include <cctype>
#include <cmath>
#include <numeric>
#include <regex>

namespace deepstop::joints {
namespace {

constexpr double inch = 0.0254;

/// Coarse pitches, mm (ISO 261, from memory).
constexpr std::array<std::pair<double, double>, 10> coarse { { { 4, 0.7 }, { 5, 0.8 }, { 6, 1 }, { 8, 1.25 }, { 10, 1.5 }, { 12, 1.75 }, { 14, 2 },
    { 16, 2 }, { 18, 2.5 }, { 20, 2.5 } } };

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
        } else if (!std::isspace(static_cast<unsigned char>(given[i]))) {
            text += given[i] == ',' ? '.' : static_cast<char>(std::tolower(static_cast<unsigned char>(given[i])));
        }
    }
    static const std::regex metric(R"(m?(\d{1,2}(?:\.\d{1,2})?)(?:mm)?(?:[x*-](\d(?:\.\d{1,3})?)(?:mm)?)?)");
    static const std::regex inches(R"((\d{1,2})/(\d{1,2})(?:in|")?-(\d{1,2})(?:tpi)?(?:unf|unc|unef)?)");
    std::smatch m;
    if (std::regex_match(text, m, metric)) {
        const double diameter = std::stod(m[1]);
        if (diameter < 3 || diameter > 64)
            return {};
        if (m[2].matched) {
            const double pitch = std::stod(m[2]);
            return pitch > 0 && pitch < diameter / 2 ? std::optional(Thread { diameter * 1e-3, pitch * 1e-3 }) : std::nullopt;
        }
        for (const auto& [size, pitch] : coarse)
            if (size == diameter && text[0] == 'm')
                return Thread { diameter * 1e-3, pitch * 1e-3 };
        return {};
    }
    if (std::regex_match(text, m, inches)) {
        const double over = std::stod(m[2]);
        const double turns = std::stod(m[3]);
        if (over == 0 || turns < 4)
            return {};
        return Thread { std::stod(m[1]) / over * inch, inch / turns };
    }
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
