#pragma once
/// Honest statistics of few stops: means, their difference, what it takes to see one, and trends over the runs. Any unit; nothing throws.

#include <optional>
#include <span>

namespace deepstop::proving {

/// Of one set of runs.
struct Sample {
    int count = 0;
    double mean = 0; ///< NaN for none
    double deviation = 0; ///< standard deviation, n − 1 under the sum; NaN for fewer than two
    double low = 0; ///< of the mean, in 95 of 100 cases (Student); NaN for fewer than two
    double high = 0;
};
[[nodiscard]] Sample sampleOf(std::span<const double> values);

/// Welch's test of two means whose scatter may differ.
struct Difference {
    double difference; ///< first mean less second
    double low; ///< where the true one lies in 95 of 100 cases
    double high;
    double freedom; ///< Welch and Satterthwaite's
    double p; ///< of so large a difference, either way, where there is none
    int wanted; ///< runs each side to see this difference at 80 %; 0: more than `mostRuns`, or there is none
    [[nodiscard]] bool real() const { return low > 0 || high < 0; }
};
inline constexpr int mostRuns = 10'000;
/// @return nothing for fewer than two runs on a side, or two sides without any scatter
[[nodiscard]] std::optional<Difference> welch(std::span<const double> first, std::span<const double> second);

/// Runs each side that show a difference of `difference` between means, whose single runs scatter by `one` and `other`, at 5 % two-sided
/// in `power` of such tests. Noncentral t with Welch's freedom (Boost.Math). 0 for more than `mostRuns`, or numbers that make no sense.
[[nodiscard]] int runsWanted(double difference, double one, double other, double power = 0.8);

/// A straight line through values in their order.
struct Trend {
    double slope; ///< a run
    double low; ///< of it, in 95 of 100 cases
    double high;
    double p;
    [[nodiscard]] bool real() const { return low > 0 || high < 0; }
};
/// Least squares with Student's interval. @return nothing for fewer than four values: any three lie near some line
[[nodiscard]] std::optional<Trend> trendOf(std::span<const double> values);

/// Distance past which a series has faded: `past` times the mean of its first three; nothing for fewer.
[[nodiscard]] std::optional<double> fadeBound(std::span<const double> distances, double past);
/// Stops of a series that are past its bound one after the other.
struct Faded {
    std::size_t from; ///< place in the list, from 0
    std::size_t to; ///< of the last of them
};
/// The longest run of distances past `past` times the mean of the first three, two of them at least; of equals the first. It may have
/// recovered later. Nothing where there is none, or for fewer than five values.
[[nodiscard]] std::optional<Faded> fadeIn(std::span<const double> distances, double past = 1.2);
/// How far a series rises over its first three: the largest mean of two in a row over theirs, with its scatter from what lies between
/// neighbours. NaN for fewer than five values.
struct FadeLevel {
    double level;
    double scatter; ///< of `level`, in 95 of 100 cases
    int single; ///< stops past the bound that stand alone
};
[[nodiscard]] FadeLevel fadeLevel(std::span<const double> distances, double past = 1.2);

/// Longest stop from a speed that UN R13-H allows a car, 0.1 v + 0.0060 v² (v in km/h; from memory), m. A yardstick, no approval.
[[nodiscard]] double yardstick(double speed);

/// A distance brought to the speed meant: d·(v₀/v)². NaN unless both speeds are positive.
[[nodiscard]] double speedCorrected(double distance, double speed, double nominal);
/// Mean fully developed deceleration between two speeds, (v₁² − v₂²)/(2 (s₂ − s₁)), m/s², as UN R13 has it between 80 and 10 % of the
/// speed. NaN unless it slows over some distance.
[[nodiscard]] double meanFullyDeveloped(double beginSpeed, double endSpeed, double beginDistance, double endDistance);

} // namespace deepstop::proving
