#pragma once
/// Of everything a library holds, the kits that go on a car, those that no other beats, and where the others fail.
///
/// Every kit is judged by the checks of the chapters, in one order; what looks at few parts is asked first and once for all kits that share
/// them. What a check says does not depend on parts it does not look at, so this is what a study of every single kit would say.

#include "search/parts.hpp"

#include <functional>
#include <limits>

namespace deepstop::search {

/// What a kit gains or costs: of the worst case, but the stop after the duty and which axle locks first at nominal readings.
enum class Gain { Weight, HeatMargin, HotStop, Clearance, Effort, Price, Locks };
inline constexpr std::array allGains { Gain::Weight, Gain::HeatMargin, Gain::HotStop, Gain::Clearance, Gain::Effort, Gain::Price,
    Gain::Locks };
/// SI, in the order of `Gain`; NaN where it is not known: that is never better than any figure.
using Gains = std::array<double, allGains.size()>;
inline constexpr Gains allUnknown = [] {
    Gains gains = allUnknown;
    gains.fill(std::numeric_limits<double>::quiet_NaN());
    return gains;
}();
struct GainOf {
    std::string_view key; ///< "weight_kg"
    std::string_view title;
    Style style;
    double unit; ///< of the key, SI
    bool lessIsBetter;
    bool isCompared = true; ///< makes a kit better than another; otherwise it is only held against a limit
};
[[nodiscard]] const GainOf& about(Gain gain);
/// Of one axle's kits or of whole cars.
[[nodiscard]] std::string titleFor(Gain gain, bool wholeCar);
/// Whether it is put together of both axles' own: by these whole cars can be ranked.
[[nodiscard]] constexpr bool addsUp(Gain gain) { return gain == Gain::Weight || gain == Gain::Clearance || gain == Gain::Price; }
[[nodiscard]] inline double of(const Gains& gains, Gain gain) { return gains[static_cast<std::size_t>(gain)]; }

/// The most, or the least, that is wanted of a gain.
struct Limit {
    Gain gain = Gain::Weight;
    double value = 0;
};

struct Query {
    std::shared_ptr<const Study> study; ///< of the build; what the kit replaces is `after`
    Axle axle = Axle::Front;
    Parts parts;
    MountKind mount = MountKind::Unknown; ///< how the calipers are bolted on; unknown: as the setup's own
    std::vector<std::string> alsoClear; ///< wheels of the build that must clear too
    std::vector<Limit> limits; ///< what is not known is not within one
    std::string duty; ///< id; empty: the one the build is judged by
    /// Kits of both axles at once, with one master cylinder; `axle` is the front. Both axles have the same wheels if the car has now;
    /// otherwise they keep those they have.
    bool wholeCar = false;
    Gain best = Gain::Price; ///< of whole cars: those that go and are best in it are found; one that adds up
    std::size_t most = 200; ///< of whole cars
};

/// A check that neither fails nor is good.
struct Doubt {
    std::string id;
    Level level = Level::Unproven;
    bool operator==(const Doubt&) const = default;
};

struct Kit {
    Choice choice {}; ///< of a whole car the front's
    std::optional<Choice> rear; ///< of a whole car
    Gains gains = allUnknown;
    std::vector<Doubt> doubts;
    [[nodiscard]] Level level() const; ///< unproven where one of them is, else the worst
    [[nodiscard]] bool isOfSameParts(const Kit& other) const { return choice == other.choice && rear == other.rear; }
};

/// Kits that are lost at one check.
struct Loser {
    Choice choice {}; ///< `every` where it does not matter which part
    std::optional<Choice> rear; ///< of a whole car; then `choice` is the front's
    double shortBy = 0; ///< what the check wants more; NaN where it has no figure
    std::uint64_t kits = 0; ///< that share these parts and came so far
};
struct Lost {
    std::string check; ///< "front/spoke-gap", or "limit/price"
    std::string title;
    Style style; ///< of what its losers are short by
    std::uint64_t lost = 0;
    std::uint64_t left = 0; ///< after it
    std::vector<Loser> nearest; ///< at most `mostLosers`, the one that fails by least first
};
inline constexpr std::size_t mostLosers = 400;

struct Result {
    std::uint64_t combinations = 0;
    std::vector<Lost> funnel; ///< checks that lose any, in the order they are asked
    std::vector<Kit> kits; ///< that go, in the order of their parts; of whole cars the best first
    std::vector<std::size_t> front; ///< of `kits`: no other is as good in all and better in one
    std::uint64_t notLooked = 0; ///< whole cars that are no better in what is ranked by than those looked at
    bool gaveUp = false; ///< of so many whole cars looked at so few go that the rest was left
    double seconds = 0;
    std::string lacks; ///< one sentence where nothing can be searched
};

/// Called now and then from one of the searching threads at a time: part done, 0 to 1, and the kits found since.
using Progress = std::function<void(double part, std::span<const Kit> found)>;

/// Searches on all cores. Cancelled by the flag bound to this thread (task/cancel.hpp).
[[nodiscard]] Result search(const Query& query, const Progress& progress = {});

/// Whether `a` is at least as good as `b` in all and better in one; what is not known is worse than anything that is.
[[nodiscard]] bool beats(const Gains& a, const Gains& b);
/// Places of those that none beats.
[[nodiscard]] std::vector<std::size_t> frontOf(std::span<const Kit> kits);

/// Of a whole car: a choice for the rear beside that of the front, in the wheel that then stands there and with the same master cylinder.
[[nodiscard]] Choice rearBeside(const Query& query, const Choice& front);
/// The build with a kit as a setup `setup` of its own, known as from sheets and made as drawn: what the search judged.
[[nodiscard]] Build triedBuild(
    const Query& query, const Choice& choice, const std::optional<Choice>& rear = {}, std::string* setup = nullptr);
/// Ids of the checks a kit is judged by, in the order they are asked; those with a number stand for all their numbers.
[[nodiscard]] std::vector<const Check*> orderOfChecks();

} // namespace deepstop::search
