#include "study/chapters.hpp"

#include "chapters/balance/balance_chapter.hpp"
#include "chapters/balance/checks.hpp"
#include "chapters/car/car_chapter.hpp"
#include "chapters/car/checks.hpp"
#include "chapters/centring/centring_chapter.hpp"
#include "chapters/centring/checks.hpp"
#include "chapters/clearance/checks.hpp"
#include "chapters/clearance/clearance.hpp"
#include "chapters/heat/checks.hpp"
#include "chapters/heat/heat_chapter.hpp"
#include "chapters/joints/checks.hpp"
#include "chapters/joints/joints_chapter.hpp"
#include "chapters/parts/checks.hpp"
#include "chapters/parts/parts.hpp"
#include "chapters/proving/checks.hpp"
#include "chapters/proving/proving_chapter.hpp"
#include "chapters/stopping/checks.hpp"
#include "chapters/stopping/stopping_chapter.hpp"
#include "chapters/weights/checks.hpp"
#include "chapters/weights/weights_chapter.hpp"

#include <algorithm>
#include <stdexcept>

namespace deepstop {

std::span<const Chapter> chapters()
{
    static constexpr Chapter all[] {
        { "car", "Car", "What to do", "then", checks::ofCar, addCar },
        { "parts", "Parts", "What to do", "then", checks::ofParts, addParts },
        { "weights", "Weights", "What would be worked out", "makes", checks::ofWeights, addWeights },
        { "clearance", "Clearance", "How to gain clearance", "gap", checks::ofClearance, addClearance, drawClearance, 1, settleClearance },
        { "centring", "Centring", "What to put in", "leaves", checks::ofCentring, addCentring, drawCentring, 0, settleCentring },
        { "joints", "Joints", "What to do", "then", checks::ofJoints, addJoints },
        { "balance", "Balance", "What would mend it", "then", checks::ofBalance, addBalance, drawBalance, 0, settleBalance },
        { "heat", "Heat", "What to do", "then", checks::ofHeat, addHeat, drawHeat, 2, settleHeat },
        { "stopping", "Stopping", "What to do", "then", checks::ofStopping, addStopping, drawStopping },
        { "proving", "Proving", "What to do", "then", checks::ofProving, addProving, drawProving, 2, settleProving },
    };
    return all;
}

const Chapter& chapterOf(std::string_view id)
{
    const auto found = std::ranges::find(chapters(), id, &Chapter::id);
    if (found == chapters().end())
        throw std::out_of_range("no such chapter: " + std::string(id));
    return *found;
}

} // namespace deepstop
