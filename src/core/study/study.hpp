#pragma once
/// Everything a build says when two of its setups are compared: results, verdicts, remedies, and what is still to be read.

#include "build/address.hpp"
#include "build/build.hpp"
#include "centring/centring.hpp"
#include "fit/measuring.hpp"
#include "fit/shield.hpp"
#include "fit/stance.hpp"
#include "joints/studs.hpp"
#include "quantity/figure.hpp"
#include "quantity/format.hpp"
#include "stopping/stopping.hpp"

#include <array>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace deepstop {

enum class Stage { Car, PartsBench, WheelRoom, Centring, Heat, Stop };
[[nodiscard]] std::string_view nameOf(Stage stage);

/// Gaps are clear, tight or hit; other checks good, caution or stop; either may be unproven.
enum class Level { Clear, Good, Unproven, Tight, Caution, Hits, Stop };
[[nodiscard]] std::string_view nameOf(Level level);
[[nodiscard]] constexpr bool isBad(Level level) { return level == Level::Hits || level == Level::Stop; }
/// A gap against what is wanted, on its worst case: the one author of such a level. Certain contact is *hits* even on estimates; a worst
/// case that touches hits, too; anything else that rests on an estimate or lacks a reading is *unproven*.
[[nodiscard]] Level gapLevel(const Figure& gap, double wanted);
[[nodiscard]] constexpr bool isFine(Level level) { return level == Level::Clear || level == Level::Good; }

/// One way out, what it gains and what it costs elsewhere. Each was tried on the numbers before it is named.
struct Remedy {
    std::string title; ///< "Spacer 6.0 mm"
    Figure gap; ///< the same gap afterwards
    std::vector<std::string> costs;
    std::shared_ptr<const Build> applied; ///< the build with this remedy in it
};

struct Verdict {
    std::string id; ///< "front/barrel-gap"
    Stage stage;
    Axle axle = Axle::Front;
    std::string title; ///< "Barrel over the caliper"
    Level level = Level::Unproven;
    std::string reason; ///< one line
    Figure figure; ///< the number behind it
    Style style = style::number;
    std::optional<double> wanted;
    std::string method; ///< formula in words
    std::string source;
    std::string caution; ///< what can hurt, where something can
    std::vector<Remedy> remedies;
    std::vector<std::string> lacksInWords; ///< what is missing that is not a single reading, for example a wheel's spoke stations
};

/// One figure before and after.
struct LedgerLine {
    std::string id;
    std::string title;
    Stage stage;
    Style style;
    Figure before;
    Figure after;
    Figure change; ///< worked out as a difference, so that readings shared by both setups cancel
    std::string word; ///< "tight", "tyres limit"
    Level level = Level::Unproven;
    std::vector<std::string> lacksInWords;
};

/// Surfaces of a wheel that a caliper may strike.
enum class WheelGap { Barrel, Insets, Spokes };
inline constexpr std::array wheelGaps { WheelGap::Barrel, WheelGap::Insets, WheelGap::Spokes };

/// Room to one of them.
struct WheelRoom {
    std::optional<fit::Room> drawn; ///< where to dimension it; the verdict has its own figure
    Figure gap;
    double wanted = 0;
};

/// One axle of one setup.
struct CornerResult {
    const Corner* corner = nullptr; ///< into `Study::build`; null where the build has none
    const Wheel* wheel = nullptr;
    fit::CornerShape shape {}; ///< NaN where nobody has read
    fit::CornerShape drawn {}; ///< the same with stand-ins for drawing, from the car as found or by proportion
    std::vector<const Reading*> standIns; ///< readings whose place in `drawn` is a stand-in
    fit::WheelShape wheelShape; ///< in the hub's frame, on `drawn`
    bool barrelEstimated = false;
    std::array<WheelRoom, wheelGaps.size()> rooms;
    Figure smallestGap; ///< to the wheel
    std::vector<std::optional<fit::Room>> keepOuts; ///< on `drawn`, one each of the hub's
    std::vector<fit::PlannedStation> stations; ///< where to measure the wheel for this caliper; empty while its outline is not known
    double hotGrowth = 0; ///< of the rotor's radius, on `drawn`
    std::optional<fit::ShieldCut> shieldCut; ///< at nominal readings; nothing while one of them lacks
    joints::StudStack studs {}; ///< NaN where nobody has read
    fit::Stance stance {}; ///< of the wheel; NaN likewise
    Figure ringMass;
    Figure rotorMass;
    Figure cornerMass;
    std::vector<std::string> massLacks;
    Figure rotatingInertia;
    Figure heatStore; ///< of one ring
    Figure stopRise; ///< of one ring in one stop from the test speed
    std::vector<std::pair<double, double>> riseOverSpeed; ///< speed, rise of one ring in one stop from it; at nominal readings
    Figure effectiveRadius;
    Figure pistonArea;
    Figure torque; ///< at one wheel at full pressure

    [[nodiscard]] const WheelRoom& room(WheelGap which) const { return rooms[static_cast<std::size_t>(which)]; }
};

/// A whole setup.
struct SetupResult {
    const Setup* setup = nullptr;
    CornerResult front;
    CornerResult rear;
    std::optional<stopping::Braking> braking; ///< at nominal readings
    Figure deceleration; ///< over g
    Figure frontShare; ///< of the braking
    Figure distance; ///< from the test speed
    std::optional<stopping::Stop> stop;
    [[nodiscard]] const CornerResult& at(Axle axle) const { return axle == Axle::Front ? front : rear; }
};

/// What shims really did on a corner, by its earlier readings.
struct LearntEffect {
    double ratio; ///< moved over what the shims should have moved
    int moves; ///< it was learnt from
};

/// One corner's answer. Mocked up several times, its mean counts, never better than what they differ by.
struct CentringResult {
    const MockUp* mockUp = nullptr; ///< the last of them
    std::vector<const MockUp*> all; ///< every one of this corner
    const Corner* corner = nullptr;
    Figure axial;
    Figure tilt; ///< as a difference of gaps from top to bottom, m
    Figure padEdge; ///< pad's edge inward of the rotor's, mean of its two ends; without value where nobody has read it
    Figure padTilt; ///< upper end less lower end
    std::optional<centring::Position> position;
    std::optional<LearntEffect> learnt;
    std::vector<double> targets; ///< stacks wanted: top and bottom bolt, and of a radial mount its studs
    std::optional<centring::Plan> plan; ///< this corner's part of the best plan for the whole car
    std::optional<centring::Plan> next; ///< the next best for this corner, the others staying as planned
    std::string unproven; ///< of the plan: how much better one could be at most, in words; empty where it is proven best
    std::string why; ///< no plan, in words

    /// What a shim is reckoned to do: as learnt where that is believable, else its own thickness.
    [[nodiscard]] double effect() const;
};

/// A reading still missing or only estimated, and how much hangs on it.
struct Question {
    Address address;
    bool missing;
    std::vector<std::string> verdicts; ///< ids of those that rest on it
};

/// Something not yet said that is no reading: a thread, a count, the kind of parking brake.
struct OpenFact {
    std::string what; ///< "thread of the bracket's bolts"
    std::vector<std::string> verdicts; ///< ids of those that wait for it
};

/// Ways out are dear to work out and of no use while a value is still moving.
enum class Remedies { Sought, LeftOut };

struct Study {
    std::shared_ptr<const Build> build; ///< everything below points into it
    Remedies remedies = Remedies::Sought; ///< left out, verdicts name none
    UnitSystem system = UnitSystem::Metric; ///< that its sentences are written in
    std::shared_ptr<const Directory> directory;
    SetupResult before;
    SetupResult after;
    std::vector<CentringResult> centring; ///< mock-ups of the setup after
    std::vector<centring::ShimKind> shimsToBuy; ///< where the drawer does not do for all of them
    std::vector<Verdict> verdicts;
    std::vector<LedgerLine> ledger;
    std::vector<Question> questions; ///< most hangs on the first
    std::vector<OpenFact> openFacts; ///< most hangs on the first
    std::string summary; ///< does it fit, is it centred, is it better: one line

    [[nodiscard]] const Verdict* verdict(std::string_view id) const;
    [[nodiscard]] const LedgerLine* line(std::string_view id) const;
    /// The worst level of a stage, and the one line that says why.
    [[nodiscard]] const Verdict* worst(Stage stage) const;
};

/// Which two setups are compared, by id; empty: the first, and the second (or the first again where there is only one).
struct SetupPair {
    std::string before;
    std::string after;
};

/// Studies `build`. Pure: the same build and pair give the same study. An unknown id counts as empty.
/// A reading that is missing lacks wherever it matters, by name, and every other result stands.
/// @param system the units that sentences are written in; numbers are SI either way
/// @param remedies left out, every figure and every level is the same, and about a third of the work is saved
/// @param alike of a build that differs in nothing but what its readings say, to share its addresses
[[nodiscard]] Study study(std::shared_ptr<const Build> build, const SetupPair& pair = {}, UnitSystem system = UnitSystem::Metric,
    Remedies remedies = Remedies::Sought, const Directory* alike = nullptr);
[[nodiscard]] Study study(const Build& build, const SetupPair& pair = {}, UnitSystem system = UnitSystem::Metric);

/// "front: rotor thickness" and its like for every reading a figure lacks, joined for a sentence.
[[nodiscard]] std::string lacking(const Study& study, const Figure& figure, const std::vector<std::string>& inWords = {});

} // namespace deepstop
