#include "joints/nuts.hpp"

#include <array>
#include <cmath>
#include <limits>

namespace deepstop::joints {
namespace {

/// Up to a diameter, the stress in MPa of classes 5, 6, 8, 10 and 12.
struct Row {
    double upTo; ///< mm
    std::array<double, 5> stress;
};
constexpr std::array<Row, 5> proof { { { 4, { 520, 600, 800, 1040, 1140 } }, { 7, { 580, 670, 855, 1040, 1140 } },
    { 10, { 590, 680, 870, 1040, 1140 } }, { 16, { 610, 700, 880, 1050, 1170 } }, { 39, { 630, 720, 920, 1060, 1200 } } } };

} // namespace

double nutProofStress(NutGrade grade, double diameter)
{
    for (const Row& row : proof)
        if (diameter * 1000 <= row.upTo + 1e-6)
            return row.stress[static_cast<std::size_t>(grade)] * 1e6;
    return std::numeric_limits<double>::quiet_NaN();
}

double nutProofLoad(const Thread& thread, NutGrade grade) { return nutProofStress(grade, thread.diameter) * stressArea(thread); }

NutGrade nutWantedFor(Grade bolt)
{
    switch (bolt) {
    case Grade::G8_8:
    case Grade::A2_70:
    case Grade::SAE5:
        return NutGrade::N8;
    case Grade::G10_9:
    case Grade::A4_80:
    case Grade::SAE8:
        return NutGrade::N10;
    case Grade::G12_9:
        break;
    }
    return NutGrade::N12;
}

bool carries(NutGrade nut, Grade bolt) { return nut >= nutWantedFor(bolt); }

std::string_view nameOf(NutGrade grade)
{
    constexpr std::array<std::string_view, 5> names { "5", "6", "8", "10", "12" };
    return names[static_cast<std::size_t>(grade)];
}

std::optional<double> leastNutHeight(double diameter)
{
    constexpr std::array<std::pair<double, double>, 9> table { { { 5, 4.4 }, { 6, 4.9 }, { 8, 6.44 }, { 10, 8.04 }, { 12, 10.37 },
        { 14, 12.1 }, { 16, 14.1 }, { 18, 15.1 }, { 20, 16.9 } } };
    for (const auto& [size, height] : table)
        if (std::abs(diameter * 1000 - size) < 0.05)
            return height / 1000;
    return {};
}

} // namespace deepstop::joints
