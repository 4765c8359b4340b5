#pragma once
/// Inside the chapter: its sums, and its verdicts.

#include "chapters/centring/centring_chapter.hpp"

namespace deepstop::mock_ups {

/// Mean of one reading over the mock-ups of a corner that have it, each by the square of its width; of the last where none has.
[[nodiscard]] double meanOf(Evaluator& s, const std::vector<const MockUp*>& all, Reading MockUp::*which);
/// The four gaps, each so.
[[nodiscard]] centring::Gaps gapsOf(Evaluator& s, const std::vector<const MockUp*>& all);

/// Where the caliper stands in every mock-up of the setup after, and what stack each of its bolts wants.
[[nodiscard]] Centring positionsOf(const Study& study);
/// The shims for all of them from the one drawer; a search.
void planShims(Centring& found, const Study& study);
void addVerdicts(Study& study);

} // namespace deepstop::mock_ups
