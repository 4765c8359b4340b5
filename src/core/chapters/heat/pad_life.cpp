#include "chapters/heat/pad_life.hpp"

#include "chapters/heat/checks.hpp"
#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"
#include "heat/wear.hpp"
#include "language/language.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace deepstop {

Figure dutiesLeft(const Corner& corner, double worn)
{
    return figures::lesserSide([&](Evaluator& s, Side side) {
        const bool drums = corner.brakes == BrakeKind::Drums;
        const Reading& least = drums ? corner.drum.minimumLining : corner.pad.minimumThickness;
        const auto read = figures::liningsRead(corner.at(side));
        double lining = !read.empty() ? INFINITY : drums ? s(corner.drum.liningThickness) : figures::padLining(s, corner.pad);
        for (const Reading* each : read)
            lining = std::min(lining, s(*each));
        return (lining - s(least)) / worn;
    }).figure;
}

void addPadLife(Study& study, const DutyStudy& d)
{
    const DutyHeat& now = d.after;
    Verdict v = verdictOf(checks::padsLast);
    v.title += ": " + d.duty.name;
    v.style = { Dimension::Number, "", 1, "", 1 };
    v.wanted = 1.0;
    v.method =
        tr("Lining over its minimum, by what one such duty wears off: heat made times a wear rate that doubles every 100 K over 100 °C. "
           "A compound may wear half or twice as fast; what was read before and after a day settles it.");
    v.source = tr("Wear with the friction's work, as in brake handbooks; the rate is common practice.");
    v.caution = tr("Look at the linings before and after every such day, both sides, inner and outer pad.");
    std::optional<Axle> worst;
    PerAxle<Figure> of;
    for (const Axle axle : { Axle::Front, Axle::Rear }) {
        of.at(axle) = dutiesLeft(*study.after.at(axle).corner, now.worn.at(axle));
        if (of.at(axle).value && (!worst || of.at(axle).lowest() < of.at(*worst).lowest()))
            worst = axle;
    }
    // What is certainly worn down speaks whatever is not known of the other axle.
    const bool both = of.front.value && of.rear.value;
    const bool certain = worst && of.at(*worst).highest() * heat::wearUnsure < 1;
    v.lacksInWords = figures::unsaidOf(study.after);
    v.figure = worst && (both || certain) ? of.at(*worst) : of.front.value ? of.rear : of.front;
    // How hot it gets hangs on all that the run hangs on; which axle speaks, on both.
    Figure others;
    for (const Figure* each : { &of.front, &of.rear })
        others.restsOn.insert(others.restsOn.end(), each->restsOn.begin(), each->restsOn.end());
    judge::restAlsoOn(v.figure, others);
    judge::restAlsoOn(v.figure, now.known);
    if (!v.figure.lacks.empty())
        v.figure.value.reset();
    if (!v.figure.value || !v.lacksInWords.empty()) {
        v.figure.value.reset();
        v.reason = v.figure.lacks.empty() && v.lacksInWords.empty()
            ? tr("This duty cannot be run: look at its speeds and times, masses and sizes")
            : lacking(study, v.figure, v.lacksInWords);
        study.verdicts.push_back(std::move(v));
        return;
    }
    const double least = v.figure.lowest() / heat::wearUnsure;
    const double most = v.figure.highest() * heat::wearUnsure;
    const auto times = [](double n) {
        return n < 10 ? fmt::format("{:.1f}", std::max(0.0, n)) : fmt::format("{:.0f}", std::min(n, 9999.0));
    };
    const auto range = tr("{} linings: {} to {} times", judge::wordFor(*worst), times(least), times(most));
    if (most < 1) {
        v.level = Level::Stop;
        v.reason = tr("{}, not once: they are down to their minimum on the way", range);
    } else if (least < 1) {
        v.level = Level::Caution;
        v.reason = tr("{}; perhaps not once: take a second set", range);
    } else {
        v.level = Level::Good;
        v.reason = range;
    }
    if (v.figure.provisional() && !isBad(v.level)) {
        v.level = Level::Unproven;
        v.reason += "; " + judge::estimatedIn(study, v.figure);
    }
    study.verdicts.push_back(std::move(v));
}

} // namespace deepstop
