#pragma once
/// What a chapter says of each of its checks once, beside it: its name, what it decides, which work waits for it, where it is shown.

#include "build/build.hpp"

#include <optional>
#include <string>
#include <string_view>

namespace deepstop {

/// What a verdict of a check is of.
enum class CheckOf { Car, Axle, Corner };
/// What the headline takes from it. *Needed*: without it nothing is decided.
enum class Decides { Nothing, Fit, FitNeeded, Centring, CentringNeeded };
/// Work that cannot be undone and waits for it: all of it, or one kind.
enum class Holds { Nothing, AllCuts, TrimmingTheShield, DrillingAndGrinding };
/// Where such work waits for it even if nobody has made it yet; elsewhere only where it speaks.
enum class Awaited { WhereItSpeaks, OnDiscs, Everywhere };

/// What driving the car as found tells of a check of parts that stay as they are: nothing (wear, torques, what is received), all of it, or
/// all of it unless the pads or the hose are others.
enum class Road { TellsNothing, Proves, UnlessOtherPads, UnlessThickerPads, UnlessOtherHose };

struct Check {
    std::string_view name; ///< in ids: "barrel-gap"; a # stands for the number of one of several
    std::string_view title; ///< "Barrel gap"
    CheckOf of = CheckOf::Axle;
    Decides decides = Decides::Nothing;
    std::string_view shown {}; ///< the picture on its page that shows it; empty: the page's first
    Holds holds = Holds::Nothing;
    Awaited awaited = Awaited::WhereItSpeaks;
    std::optional<Cut> curedBy {}; ///< the work that is done because of it, and does not wait for it
    Road road = Road::TellsNothing;
    bool byDimensions = false; ///< told before the kit goes on, from what was measured on the bench and of the wheel
};

/// Which of a check's verdicts.
struct Where {
    Axle axle = Axle::Front;
    Side side = Side::Left; ///< of a corner's check
    int number = 0; ///< of one of several, from 1; 0: the only one, or the first without a number
    bool found = false; ///< of the parts that the setup replaces
};

/// "front/barrel-gap", "front-left/axial", "rear/joint-2-thread", "front/worn-pad-found", "stop/distance"
[[nodiscard]] std::string idOf(const Check& check, const Where& where = {});

} // namespace deepstop
