#pragma once
/// The checks of this chapter: stops, predicted and measured.

#include "verdict/check.hpp"

namespace deepstop::checks {

inline constexpr Check saves {
    .name = "stop/saves", .title = "Stopping distance gained, cold and hot", .of = CheckOf::Car, .shown = "prediction"
};
inline constexpr Check proven { .name = "stop/proven", .title = "Before against after, as measured", .of = CheckOf::Car, .shown = "runs" };
inline constexpr Check measuredStop { .name = "stop/measured-#", .title = "Measured stop", .of = CheckOf::Car };
inline constexpr Check fades { .name = "stop/fades-#", .title = "Repeated stops", .of = CheckOf::Car, .shown = "fade" };
inline constexpr Check fadeModel {
    .name = "stop/fade-model-#", .title = "Fade: measured / predicted", .of = CheckOf::Car, .shown = "fade"
};
inline constexpr Check coldModel {
    .name = "stop/cold-model-#", .title = "Cold stops: measured / predicted", .of = CheckOf::Car, .shown = "runs"
};

inline constexpr Check lockObserved {
    .name = "stop/locked-first-#", .title = "Wheels that locked first", .of = CheckOf::Car, .shown = "observed"
};
inline constexpr Check testerFront {
    .name = "stop/tester-front-#", .title = "Brake tester, front left and right", .of = CheckOf::Car, .shown = "observed"
};
inline constexpr Check testerRear {
    .name = "stop/tester-rear-#", .title = "Brake tester, rear left and right", .of = CheckOf::Car, .shown = "observed"
};
inline constexpr Check testerShare {
    .name = "stop/tester-share-#", .title = "Brake tester, front share", .of = CheckOf::Car, .shown = "observed"
};
inline constexpr Check fadeFelt { .name = "stop/fade-felt-#", .title = "Fade as felt", .of = CheckOf::Car, .shown = "observed" };
inline constexpr Check boosterTest { .name = "stop/booster-test", .title = "Booster test", .of = CheckOf::Car, .shown = "observed" };
inline constexpr const Check* ofProving[] { &saves, &proven, &measuredStop, &fades, &fadeModel, &coldModel, &lockObserved, &testerFront,
    &testerRear, &testerShare, &fadeFelt, &boosterTest };

} // namespace deepstop::checks
