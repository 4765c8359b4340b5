#pragma once
/// The checks of this chapter: stops, predicted and measured.

#include "language/language.hpp"
#include "verdict/check.hpp"

namespace deepstop::checks {

inline constexpr Check saves {
    .name = "stop/saves", .title = marked("Stopping distance gained, cold and hot"), .of = CheckOf::Car, .shown = "prediction"
};
inline constexpr Check proven {
    .name = "stop/proven", .title = marked("Before against after, as measured"), .of = CheckOf::Car, .shown = "runs"
};
inline constexpr Check measuredStop { .name = "stop/measured-#", .title = marked("Measured stop"), .of = CheckOf::Car };
inline constexpr Check fades { .name = "stop/fades-#", .title = marked("Repeated stops"), .of = CheckOf::Car, .shown = "fade" };
inline constexpr Check fadeModel {
    .name = "stop/fade-model-#", .title = marked("Fade: measured / predicted"), .of = CheckOf::Car, .shown = "fade"
};
inline constexpr Check coldModel {
    .name = "stop/cold-model-#", .title = marked("Cold stops: measured / predicted"), .of = CheckOf::Car, .shown = "runs"
};

inline constexpr Check lockObserved {
    .name = "stop/locked-first-#", .title = marked("Wheels that locked first"), .of = CheckOf::Car, .shown = "observed"
};
inline constexpr Check testerFront {
    .name = "stop/tester-front-#", .title = marked("Brake tester, front left and right"), .of = CheckOf::Car, .shown = "observed"
};
inline constexpr Check testerRear {
    .name = "stop/tester-rear-#", .title = marked("Brake tester, rear left and right"), .of = CheckOf::Car, .shown = "observed"
};
inline constexpr Check testerShare {
    .name = "stop/tester-share-#", .title = marked("Brake tester, front share"), .of = CheckOf::Car, .shown = "observed"
};
inline constexpr Check fadeFelt { .name = "stop/fade-felt-#", .title = marked("Fade as felt"), .of = CheckOf::Car, .shown = "observed" };
inline constexpr Check boosterTest {
    .name = "stop/booster-test", .title = marked("Booster test"), .of = CheckOf::Car, .shown = "observed"
};
inline constexpr const Check* ofProving[] { &saves, &proven, &measuredStop, &fades, &fadeModel, &coldModel, &lockObserved, &testerFront,
    &testerRear, &testerShare, &fadeFelt, &boosterTest };

} // namespace deepstop::checks
