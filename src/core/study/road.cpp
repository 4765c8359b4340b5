/// What the road has proven: parts of the car as found that stay where they are, and were driven, fit where they stand.

#include "build/axle_work.hpp"
#include "language/language.hpp"
#include "study/chapters.hpp"
#include "verdict/judge.hpp"

#include <algorithm>

namespace deepstop {
namespace {

bool proves(Road road, const AxleWork& work, const Corner& corner)
{
    switch (road) {
    case Road::Proves:
        return true;
    case Road::UnlessOtherPads:
        return !work.otherPadShape;
    case Road::UnlessThickerPads:
        // A fixed caliper stays where it is whatever the pads are.
        return !work.thickerPads || corner.caliper.kind == CaliperKind::Fixed;
    case Road::UnlessOtherHose:
        return !work.hose;
    case Road::TellsNothing:
        break;
    }
    return false;
}

} // namespace

void proveByRoad(Study& study)
{
    // The car as found is what the evidence is of; of itself it proves nothing new.
    if (study.build->setups.empty() || study.after.setup == &study.build->setups.front() || !drivenAsFound(*study.build))
        return;
    const SetupParts found = partsOf(*study.build, study.build->setups.front());
    for (const Axle axle : judge::axlesOf(study)) {
        const Corner* now = study.after.at(axle).corner;
        const Corner* was = found.at(axle).corner;
        if (!now || !was || now == was)
            continue;
        const AxleWork work = workBetween(was, *now);
        if (work.mockedUp() || work.cuts)
            continue;
        study.stays.at(axle) = true;
        for (Verdict& v : study.verdicts) {
            // What the readings say stands; where they say nothing, the road does.
            if (!v.check || v.found || v.axle != axle || v.check->of == CheckOf::Car || v.level != Level::Unproven
                || !proves(v.check->road, work, *now))
                continue;
            v.level = Level::Good;
            v.reason = tr("Stays as it is, and was driven on this car as found");
            v.figure = {};
            v.lacksInWords.clear();
            v.remedies.clear();
        }
    }
    if (std::ranges::all_of(judge::axlesOf(study), [&](Axle axle) { return study.stays.at(axle); }))
        for (LedgerLine& line : study.ledger)
            if (line.ofPlaces && line.level == Level::Unproven && !line.after.value) {
                line.level = Level::Good;
                line.word = tr("stays as it is");
            }
}

} // namespace deepstop
