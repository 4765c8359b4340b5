#pragma once
/// Inside the chapter: a wheel's inside as chains, from its stations.

#include "build/build.hpp"
#include "fit/fit.hpp"
#include "quantity/figure.hpp"

#include <algorithm>
#include <span>
#include <vector>

namespace deepstop::figures {

/// Inside of the barrel, from inboard; estimated by its printed size where not measured.
[[nodiscard]] geometry::Chain barrelOf(Evaluator& s, const Wheel& wheel, double face);
/// The barrel's outboard station alone, where spokes go over into it; nothing for an unmeasured barrel.
[[nodiscard]] geometry::Chain barrelsEnd(Evaluator& s, const Wheel& wheel, double face);
/// @param named each line by what it was measured along; a gap alone needs no names
[[nodiscard]] std::vector<fit::Outline> spokesOf(Evaluator& s, const Wheel& wheel, double face, bool named);
[[nodiscard]] std::vector<fit::Outline> insetsOf(Evaluator& s, const Wheel& wheel, const geometry::Chain& barrel, double face);
/// Where its chains run straight from point to point.
void addBends(Evaluator& s, const Wheel& wheel, double face, fit::WheelShape& shape);
/// Whether somebody has said that there are no weights inside, or where they are.
[[nodiscard]] bool weightsPlaced(const Wheel& wheel);

} // namespace deepstop::figures
