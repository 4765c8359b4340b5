#pragma once
/// Kits of both axles at once.

#include "search/search.hpp"

namespace deepstop::search {

/// The `query.most` whole cars that go and are best in `query.best`: pairs of kits that fit on their axles are judged one after another,
/// the best first, until so many go. Any other is no better in it, or fails.
///
/// Why ranked: which pairs hold balance is told by both brakes together, and there are millions of them; each takes a drive of its own.
[[nodiscard]] Result searchWholeCars(const Query& query, const Progress& progress);

/// The search stops after so many judged cars, however few of them pass.
inline constexpr std::size_t mostJudged = 20'000;

} // namespace deepstop::search
