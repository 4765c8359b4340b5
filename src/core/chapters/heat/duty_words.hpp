#pragma once
/// Inside the chapter: what its limits and its verdict say in the same words.

#include "chapters/heat/duty_heat.hpp"
#include "language/language.hpp"
#include "quantity/format.hpp"

#include <fmt/format.h>

#include <string>

namespace deepstop {

/// Part of the greatest effort from which on the foot is near it.
inline constexpr double nearGreatest = 0.85;
inline constexpr std::string_view standingAfterwards = marked("standing afterwards");

inline const heat::Temperatures& of(const heat::Moment& m, Axle axle) { return axle == Axle::Front ? m.front : m.rear; }

inline std::string celsius(const Study& study, double kelvin) { return print(kelvin, style::temperature, study.system); }

inline std::string whenIn(int stop, int stops)
{
    return stops > 1 ? tr("at braking {} of {}", stop, stops) : std::string(tr("on the way"));
}

void addDutyVerdict(Study& study, const DutyStudy& duty);

} // namespace deepstop
