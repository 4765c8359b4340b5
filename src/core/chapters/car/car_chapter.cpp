#include "chapters/car/car_chapter.hpp"

#include "chapters/car/checks.hpp"
#include "figures/brake_figures.hpp"
#include "language/language.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <limits>

namespace deepstop {

/// The car's own readings: everything later rests on them.
void addCar(Study& study)
{
    Verdict v = verdictOf(checks::known);
    v.style = style::number;
    v.figure = evaluate([&](Evaluator& s) {
        const auto car = figures::carOf(s, study.build->car);
        double rest = figures::pressure(s, *study.build, *study.before.hydraulics) + s(study.build->car.testSpeed, false);
        // Its tyres are those of the wheels it came on.
        for (const AxleParts* axle : { &study.before.front, &study.before.rear })
            rest += axle->wheel ? s(axle->wheel->rollingRadius) + s(axle->wheel->grip, false) : std::numeric_limits<double>::quiet_NaN();
        return car.mass + car.wheelbase + car.centreOfMassHeight + car.frontLoadShare + rest;
    });
    for (const auto& [axle, word] : { std::pair { &study.before.front, "front" }, std::pair { &study.before.rear, "rear" } })
        if (!axle->wheel)
            v.lacksInWords.push_back(tr("a wheel with its tyre ({})", word));
    // What counts here is how many readings stand, not the sum that asked for them.
    if (v.figure.value)
        v.figure.value = static_cast<double>(v.figure.restsOn.size());
    v.figure.worstCase = v.figure.rootSumSquare = 0;
    v.figure.effects.clear();
    v.style = style::count;
    v.method = tr("Mass, wheelbase, height of the centre of mass, axle load, tyres and pedal decide how hard any brake can stop this car.");
    v.source = tr("Weigh each axle on the level for the load share; raise one axle to find the height.");
    if (!v.figure.value) {
        v.level = Level::Unproven;
        v.reason = lacking(study, v.figure, v.lacksInWords);
    } else if (v.figure.provisional()) {
        v.level = Level::Unproven;
        v.reason = v.figure.estimated.empty() ? judge::estimatedIn(study, v.figure)
                                              : tr("{} of {} readings only estimated", v.figure.estimated.size(), v.figure.restsOn.size());
    } else {
        v.level = Level::Good;
        v.reason = tr("All {} readings are there", v.figure.restsOn.size());
    }
    study.verdicts.push_back(std::move(v));
}

} // namespace deepstop
