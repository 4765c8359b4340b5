#include "stages/course_chart.hpp"

#include "theme.hpp"

#include "chapters/heat/heat_chapter.hpp"
#include "chapters/stopping/stopping_chapter.hpp"

#include <algorithm>

namespace deepstop::app {
namespace {

double to(double si, const Style& style, UnitSystem system) { return fromSi(si, style.unit(system)); }

QString symbol(const Style& style, UnitSystem system) { return QString::fromUtf8(style.unit(system).symbol.data()); }

} // namespace

QPolygonF CourseChart::pointsOf(const Study& study, Axle axle, bool after) const
{
    QPolygonF points;
    if (of_ == Of::Rise) {
        const Heat& heat = study.of<Heat>();
        for (const auto& [v, rise] : (after ? heat.after : heat.before).at(axle).riseOverSpeed)
            points << QPointF(to(v, style::speed, study.system), to(rise, style::rise, study.system));
        return points;
    }
    const Stopping& stopping = study.of<Stopping>();
    if (const auto& stop = (after ? stopping.after : stopping.before).stop)
        for (const auto& moment : stop->course)
            points << QPointF(to(moment.distance, style::road, study.system), to(moment.speed, style::speed, study.system));
    return points;
}

void CourseChart::setStudy(const Study& study, Axle axle)
{
    const Theme& t = theme();
    before_ = pointsOf(study, axle, false);
    after_ = pointsOf(study, axle, true);
    double widest = 1;
    double highest = 1;
    for (const QPolygonF* each : { &before_, &after_ })
        for (const QPointF& p : *each) {
            widest = std::max(widest, p.x());
            highest = std::max(highest, p.y());
        }
    const double speed = to(study.build->car.testSpeed.value.value_or(0), style::speed, study.system);
    const bool empty = before_.isEmpty() && after_.isEmpty();
    std::vector<Curve> curves;
    // The dashes on top, to be seen where both agree.
    if (speed > 0 && !empty)
        curves.push_back({ tr("the speed to stop from"),
            of_ == Of::Rise ? QPolygonF { QPointF(speed, 0), QPointF(speed, highest) }
                            : QPolygonF { QPointF(0, speed), QPointF(widest, speed) },
            { t.mute, 1, Qt::DotLine, {}, Hatch::None, {}, 0 } });
    curves.push_back(
        { QString::fromStdString(study.after.setup->name), after_, { t.proposal, 2.4, Qt::SolidLine, {}, Hatch::None, {}, 0 } });
    if (study.before.setup != study.after.setup)
        curves.push_back(
            { QString::fromStdString(study.before.setup->name), before_, { t.found, 2.2, Qt::DashLine, {}, Hatch::None, {}, 0 } });
    const Figure& lacks = of_ == Of::Rise ? study.of<Heat>().after.at(axle).stopRise : study.of<Stopping>().after.distance;
    setEmptyText(tr("Nothing to plot yet. %1.").arg(QString::fromStdString(lacking(study, lacks))));
    if (of_ == Of::Rise)
        setPlot(std::move(curves), { tr("speed that one stop begins at, %1").arg(symbol(style::speed, study.system)) },
            { tr("rise, %1").arg(symbol(style::rise, study.system)) });
    else
        setPlot(std::move(curves), { tr("distance from the brake point, %1").arg(symbol(style::road, study.system)) },
            { tr("speed, %1").arg(symbol(style::speed, study.system)) });
}

} // namespace deepstop::app
