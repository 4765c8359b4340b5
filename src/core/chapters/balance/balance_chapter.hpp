#pragma once
/// Balance: pedal feel and which axle locks first, for every load of the build.

#include "hydraulics/hydraulics.hpp"
#include "stopping/balance.hpp"
#include "verdict/findings.hpp"

namespace deepstop {

/// One place on the curves over deceleration, at nominal readings and with no wheel locked.
struct BalancePoint {
    double deceleration; ///< over g
    double frontPressure; ///< Pa
    double rearPressure;
    double front; ///< braking force over the car's weight
    double rear;
    double frontAdhesion;
    double rearAdhesion;
    double pedalForce; ///< N; NaN where the foot is not known
    double pedalTravel; ///< m; NaN where the fluid is not known
    double strokeShare;
};

/// The car as laden.
struct LoadBalance {
    std::string name; ///< "driver only"
    const LoadCase* load = nullptr; ///< null: its driver alone
    std::optional<stopping::Car> car; ///< nothing where a reading is missing
    std::optional<stopping::Brakes> brakes;
    stopping::LockPressures locks { 0, 0 };
    std::optional<BalancePoint> frontLocks; ///< where it does, as far as drawn
    std::optional<BalancePoint> rearLocks;
    double rearUse = 0; ///< of its grip when the first axle locks
    std::vector<BalancePoint> curve;
};

/// One of two circuits gone.
struct CircuitGone {
    std::string name; ///< "front circuit gone"
    Figure left; ///< deceleration over g that the other still makes at the greatest effort, least over the loads
    double pedal = 0; ///< where the pedal then is, m; nominal
};

struct SetupBalance {
    std::vector<LoadBalance> loads; ///< the driver alone first
    std::optional<hydraulics::PedalTrain> foot; ///< nominal, where all of it is known
    std::optional<hydraulics::FluidDemand> frontTakeUp;
    std::optional<hydraulics::FluidDemand> rearTakeUp;
    Figure effort; ///< pedal force that uses the tyres up, most over the loads
    Figure strokeShare; ///< of the master cylinder for that
    Figure travel; ///< of the pedal for that, without its interval
    std::vector<CircuitGone> gone;
    Figure fluid; ///< that worn pads draw out of the reservoir

    /// The load of that number, else the driver alone; null where nothing could be found.
    [[nodiscard]] const LoadBalance* at(std::size_t number) const
    {
        return number < loads.size() ? &loads[number] : loads.empty() ? nullptr : &loads.front();
    }
    [[nodiscard]] const LoadBalance* find(const LoadCase* load) const
    {
        for (const LoadBalance& each : loads)
            if (each.load == load)
                return &each;
        return nullptr;
    }
};

using Balance = BeforeAfter<SetupBalance>;

/// What is wanted between the pressures at which the axles lock, and of the rear's grip when the front does; common practice, no source.
inline constexpr double lockMargin = 0.05;
inline constexpr double rearUseWanted = 0.8;

/// Front pressure at which the tyres are used up.
[[nodiscard]] double usefulPressure(Evaluator& s, const Build& build, const SetupParts& setup, const LoadCase* load);
enum class Tyres { AsRead, AllGrips };
/// Front pressure at which the rear locks over that at which the front does, less one: at the tyres' grip, or the least of all grips from
/// ice to 20 % more grip than was read.
[[nodiscard]] double locksApart(
    Evaluator& s, const Build& build, const SetupParts& setup, const LoadCase* load, Tyres tyres = Tyres::AllGrips);
/// Part of the tyres' grip as read at which that is least.
[[nodiscard]] double gripThatDecides(const Build& build, const SetupParts& setup, const LoadCase* load);
/// Of the rear's grip, used when the first axle locks.
[[nodiscard]] double rearUse(Evaluator& s, const Build& build, const SetupParts& setup, const LoadCase* load);
/// Pedal force that uses the tyres up; most over the loads.
[[nodiscard]] double effortOf(Evaluator& s, const Build& build, const SetupParts& setup);
/// How far the pedal and its cylinder go for that.
[[nodiscard]] hydraulics::Travel travelOf(Evaluator& s, const Build& build, const SetupParts& setup);

/// Deceleration over g at which the first axle locks, the driver alone in the car; NaN where none does.
[[nodiscard]] double limitOf(const SetupBalance& balance);

/// Where one is on a curve: straight between its points. @pre the curve has points
[[nodiscard]] BalancePoint pointAt(const LoadBalance& balance, double deceleration);
[[nodiscard]] BalancePoint pointAtPressure(const LoadBalance& balance, double frontPressure);

void addBalance(Study& study);
/// The curves alone, enough to draw.
void drawBalance(Study& study);
void settleBalance(Study& study);

/// The same with its interval, as remembered of the setup that is judged.
[[nodiscard]] Figure locksApartOf(const Study& study, const LoadCase* load);

// Its parts.
/// Which axle locks first, by how much; whatever makes the pressure. @pre drawn
void addBalanceVerdicts(Study& study);
/// Pedal force and travel with their verdicts. @pre drawn
void addPedal(Study& study);
void addPedalVerdicts(Study& study);
/// Metering and residual-pressure valves, where there are any.
void addValveVerdicts(Study& study);
/// Puts into the verdicts the smallest changes that would mend them.
void addBalanceAdvice(Study& study);

} // namespace deepstop
