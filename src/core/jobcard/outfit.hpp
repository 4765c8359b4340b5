#pragma once
/// What is laid out before a job begins: tools with their sizes, the torque wrench's range, what is used up, the shims of the plan.

#include "jobcard/jobcard.hpp"

#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace deepstop::jobcard {

struct Outfit {
    std::vector<std::string> tools; ///< as the steps name them, each once
    std::vector<std::string> sizes; ///< "M14 × 1.5: spanner 21 mm (older heads 22), or key 12 mm"
    std::optional<std::pair<double, double>> torques; ///< least and greatest on the card, N·m
    std::vector<std::string> used; ///< washers, threadlocker, fluid
    std::vector<std::string> shims; ///< "front left: 1.00 mm at the top bolt, 1.00 mm at the bottom bolt"; empty: none were put in
};
/// Of the steps that are on the card. Widths across flats by ISO 272 as ISO 4014 has them, and the older DIN 931's; keys by ISO 4762; from
/// memory. A thread that stands in neither has no size.
[[nodiscard]] Outfit outfitOf(const Study& study, const Card& card);

/// Width across flats of a hexagon head, mm, by ISO 4014 and by the older DIN 931; nothing for a diameter they do not have. @param diameter
/// m
struct HeadSizes {
    int spanner;
    int olderSpanner;
    int key; ///< of a socket head, ISO 4762
};
[[nodiscard]] std::optional<HeadSizes> headSizesOf(double diameter);

} // namespace deepstop::jobcard
