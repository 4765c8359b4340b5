#pragma once
/// The checks of this chapter: the car.

#include "language/language.hpp"
#include "verdict/check.hpp"

namespace deepstop::checks {

inline constexpr Check known { .name = "car/known", .title = marked("What is known of the car"), .of = CheckOf::Car };

inline constexpr const Check* ofCar[] { &known };

} // namespace deepstop::checks
