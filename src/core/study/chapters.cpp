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
#include "language/language.hpp"

#include <algorithm>
#include <stdexcept>

namespace deepstop {

std::span<const Chapter> chapters()
{
    static constexpr Chapter all[] {
        { "car", marked("Car"), marked("What to do"), marked("then"), checks::ofCar, addCar },
        { "parts", marked("Parts"), marked("What to do"), marked("then"), checks::ofParts, addParts },
        { "weights", marked("Weights"), marked("What would be worked out"), marked("makes"), checks::ofWeights, addWeights },
        { "clearance", marked("Clearance"), marked("How to gain clearance"), marked("gap"), checks::ofClearance, addClearance,
            drawClearance, 1, settleClearance },
        { "centring", marked("Centring"), marked("What to put in"), marked("leaves"), checks::ofCentring, addCentring, drawCentring, 0,
            settleCentring },
        { "joints", marked("Joints"), marked("What to do"), marked("then"), checks::ofJoints, addJoints },
        { "balance", marked("Balance"), marked("What would mend it"), marked("then"), checks::ofBalance, addBalance, drawBalance, 0,
            settleBalance },
        { "heat", marked("Heat"), marked("What to do"), marked("then"), checks::ofHeat, addHeat, drawHeat, 2, settleHeat },
        { "stopping", marked("Stopping"), marked("What to do"), marked("then"), checks::ofStopping, addStopping, drawStopping },
        { "proving", marked("Proving"), marked("What to do"), marked("then"), checks::ofProving, addProving, drawProving, 2,
            settleProving },
    };
    return all;
}

const Chapter& chapterOf(std::string_view id)
{
    const auto found = std::ranges::find(chapters(), id, &Chapter::id);
    if (found == chapters().end())
        throw std::out_of_range(fmt::format("no such chapter: {}", std::string(id)));
    return *found;
}

} // namespace deepstop
