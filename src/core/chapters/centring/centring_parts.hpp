#pragma once
/// Inside the chapter: its sums, and its verdicts.

#include "chapters/centring/centring_chapter.hpp"

namespace deepstop::mock_ups {

/// Mean of one reading over the mock-ups of a corner that have it; of the last where none has.
[[nodiscard]] double meanOf(Sample& s, const std::vector<const MockUp*>& all, Reading MockUp::*which);
/// The four gaps, each so.
[[nodiscard]] centring::Gaps gapsOf(Sample& s, const std::vector<const MockUp*>& all);

/// Positions of all mock-ups of the setup after, and the shims for all of them from the one drawer.
[[nodiscard]] Centring centringOf(const Study& study);
void addVerdicts(Study& study);

} // namespace deepstop::mock_ups
