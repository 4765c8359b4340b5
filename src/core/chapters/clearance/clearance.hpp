#pragma once
/// Clearance: caliper, rotor and wheel in one corner, where the wheel has to be measured, and how the wheel sits on its hub.

#include "fit/measuring.hpp"
#include "fit/shield.hpp"
#include "fit/stance.hpp"
#include "joints/studs.hpp"
#include "verdict/findings.hpp"

#include <array>

namespace deepstop {

/// Surfaces of a wheel that a caliper may strike.
enum class WheelGap { Barrel, Insets, Spokes };
inline constexpr std::array wheelGaps { WheelGap::Barrel, WheelGap::Insets, WheelGap::Spokes };

/// Room to one of them.
struct WheelRoom {
    std::optional<fit::Room> drawn; ///< where to dimension it; the verdict has its own figure
    Figure gap;
    double wanted = 0;
};

/// One side of an axle.
struct CornerClearance {
    const Corner* corner = nullptr; ///< null where the build has none
    Side side = Side::Left;
    const Wheel* wheel = nullptr;
    fit::CornerShape shape {}; ///< NaN where not read
    fit::CornerShape drawn {}; ///< the same with stand-ins for drawing, from the car as found or by proportion
    std::vector<ReadingId> standIns; ///< readings whose place in `drawn` is a stand-in
    fit::WheelShape wheelShape; ///< in the hub's frame, on `drawn`
    bool barrelEstimated = false;
    std::array<WheelRoom, wheelGaps.size()> rooms;
    Figure smallestGap; ///< to the wheel
    std::vector<std::optional<fit::Room>> keepOuts; ///< on `drawn`, one each of the hub's
    std::vector<fit::PlannedStation> stations; ///< where to measure the wheel for this caliper; empty while its outline is not known
    double hotGrowth = 0; ///< of the rotor's radius, on `drawn`
    std::optional<fit::ShieldCut> shieldCut; ///< at nominal readings; nothing while one of them lacks
    joints::StudStack studs {}; ///< NaN where not read
    fit::Stance stance {}; ///< of the wheel; NaN likewise

    [[nodiscard]] const WheelRoom& room(WheelGap which) const { return rooms[static_cast<std::size_t>(which)]; }
};

using AxleClearance = PerSide<CornerClearance>;
using Clearance = BeforeAfter<PerAxle<AxleClearance>>;

/// Shapes and nominal gaps alone, enough to draw: what follows a value under the hand.
void drawClearance(Study& study);
/// Everything: gaps with their uncertainty, verdicts, the smallest gap of the ledger.
void addClearance(Study& study);
void settleClearance(Study& study);

} // namespace deepstop
