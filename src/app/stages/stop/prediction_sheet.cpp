#include "stages/stop/stop_sheets.hpp"

#include "chapters/proving/checks.hpp"
#include "drawing/plot.hpp"
#include "drawing/shapes.hpp"
#include "chapters/heat/duty_heat.hpp"
#include "stages/sheets.hpp"
#include "theme.hpp"

#include <QObject>

#include <algorithm>
#include <cmath>

namespace deepstop::app {
namespace {

/// What holds a stretch, told apart by hatching and by its word.
Ink inkOf(stopping::Hold hold)
{
    const Theme& t = theme();
    using enum stopping::Hold;
    switch (hold) {
    case Foot:
        return { t.mute, 1, Qt::SolidLine, t.paper, Hatch::None, {}, 0 };
    case Effort:
        return { t.ink, 1, Qt::SolidLine, t.paper, Hatch::Rising, t.caution, 6 };
    case Fade:
        return { t.ink, 1, Qt::SolidLine, t.paper, Hatch::Dense, t.bad, 5 };
    case RearTyres:
        return { t.ink, 1, Qt::SolidLine, t.paper, Hatch::Falling, t.bad, 6 };
    case FrontTyres:
    case Tyres:
        return { t.ink, 1, Qt::SolidLine, t.metalWash, Hatch::None, {}, 0 };
    }
    return {};
}

struct Shown {
    QString name;
    const stopping::StopSimulation* run;
    std::optional<Predicted::Range> range;
    QColor colour;
    Qt::PenStyle line;
    QString why; ///< where there is none
};

/// The longest stop and the fastest speed of all.
std::pair<double, double> reachOf(const std::vector<Shown>& runs)
{
    double longest = 0;
    double fastest = 0;
    for (const Shown& each : runs)
        if (each.run) {
            longest = std::max({ longest, each.run->distance, each.range ? each.range->high : 0 });
            fastest = std::max(fastest, each.run->course.front().speed);
        }
    if (!std::isfinite(longest))
        for (const Shown& each : runs)
            longest = each.run ? std::max(std::isfinite(longest) ? longest : 0, 1.5 * each.run->distance) : longest;
    return { longest, fastest };
}

double metresOf(double si, UnitSystem system) { return fromSi(si, style::road.unit(system)); }
double speedOf(double si, UnitSystem system) { return fromSi(si, style::speed.unit(system)); }

/// Speed over distance of each.
void addCurves(Plot& plot, const std::vector<Shown>& runs, UnitSystem system)
{
    const auto metres = [&](double si) { return metresOf(si, system); };
    const auto speeds = [&](double si) { return speedOf(si, system); };
    for (const Shown& each : runs) {
        if (!each.run)
            continue;
        QPolygonF curve;
        for (const stopping::SpeedAt& at : stopping::speedOverDistance(each.run->course))
            curve << QPointF(metres(at.distance), speeds(at.speed));
        plot.curve(curve, { each.colour, each.line == Qt::SolidLine ? 2.0 : 1.6, each.line, {}, Hatch::None, {}, 0 });
    }
}

/// The same distances as bars, cut where something else begins to hold. Gives where the next row begins.
double addBars(Sheet& sheet, const Plot& plot, const std::vector<Shown>& runs, UnitSystem system, double low)
{
    const Theme& t = theme();
    const auto metres = [&](double si) { return metresOf(si, system); };
    for (const Shown& each : runs) {
        sheet.letter({ -8, low + 10 }, each.name, 13, each.colour, Qt::AlignRight | Qt::AlignVCenter, false);
        if (!each.run) {
            sheet.letter({ 4, low + 10 }, each.why, 13, each.why == QObject::tr("not known") ? t.unproven : t.bad,
                Qt::AlignLeft | Qt::AlignVCenter, false);
            low += 40;
            continue;
        }
        const auto& course = each.run->course;
        for (std::size_t i = 0; i + 1 < course.size();) {
            std::size_t k = i + 1;
            while (k + 1 < course.size() && course[k].hold == course[i].hold)
                ++k;
            const double x0 = plot.at(metres(course[i].distance), 0).x();
            const double x1 = plot.at(metres(course[k].distance), 0).x();
            sheet.area(rectangle(x0, low, x1, low + 20), inkOf(course[i].hold));
            if (const QString word = QString::fromUtf8(deepstop::tr(stopping::nameOf(course[i].hold)).data());
                x1 - x0 > 7.0 * static_cast<double>(word.size()))
                sheet.letter({ (x0 + x1) / 2, low + 10 }, word, 12, t.ink, Qt::AlignCenter, false);
            i = k;
        }
        const double end = plot.at(metres(each.run->distance), 0).x();
        if (each.range) {
            const double from = plot.at(std::min(metres(each.range->low), plot.most().x()), 0).x();
            const double to = plot.at(std::min(metres(each.range->high), plot.most().x()), 0).x();
            sheet.line({ QPointF(from, low + 26), QPointF(to, low + 26) }, { each.colour, 1.6, Qt::SolidLine, {}, Hatch::None, {}, 0 });
            for (const double x : { from, to })
                sheet.line({ QPointF(x, low + 22), QPointF(x, low + 30) }, { each.colour, 1.6, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        }
        sheet.letter({ end + 8, low + 9 }, QString::fromStdString(print(each.run->distance, style::road, system)), 14, each.colour,
            Qt::AlignLeft | Qt::AlignVCenter);
        low += 40;
    }
    return low;
}

} // namespace

Sheet predictionSheet(const Study& study)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.title = QObject::tr("Predicted, cold and hot");
    sheet.extent = QRectF(QPointF(-150, -30), QPointF(720, 560));
    const ProvingStudy& p = study.of<ProvingStudy>();
    const Verdict* says = study.verdict(checks::saves);
    const bool two = study.before.setup != study.after.setup;
    sheet.subtitle = p.duty.empty()
        ? QObject::tr("%1. Without a duty only the cold stop is predicted.").arg(QString::fromStdString(noJudgedDuty(*study.build)))
        : QObject::tr("cold, and after %1 brakings of %2; bars show what holds the stop, whiskers 90 of 100 draws")
              .arg(p.brakings)
              .arg(QString::fromStdString(p.duty));
    const auto hotName = [&](const Predicted& of) { return of.lost.empty() ? QObject::tr("not known") : QString::fromStdString(of.lost); };
    std::vector<Shown> runs;
    const auto add = [&](const QString& setup, const Predicted& of, const QColor& colour) {
        runs.push_back({ QObject::tr("%1, cold").arg(setup), of.coldRun ? &*of.coldRun : nullptr, of.coldRange, colour, Qt::SolidLine,
            QObject::tr("not known") });
        if (!p.duty.empty())
            runs.push_back(
                { QObject::tr("%1, hot").arg(setup), of.hotRun ? &*of.hotRun : nullptr, of.hotRange, colour, Qt::DashLine, hotName(of) });
    };
    if (two)
        add(QObject::tr("before"), p.before, t.found);
    add(two ? QObject::tr("after") : QObject::tr("as found"), p.after, two ? t.proposal : t.found);

    const auto [longest, fastest] = reachOf(runs);
    double low = 250;
    if (longest > 0) {
        Plot plot(sheet, QRectF(0, 0, 690, 190),
            { Plot::roundUp(metresOf(longest, study.system) * 1.02), Plot::roundUp(speedOf(fastest, study.system)) });
        plot.axes(QObject::tr("distance, %1").arg(QString::fromUtf8(style::road.unit(study.system).symbol.data())),
            QObject::tr("speed, %1").arg(QString::fromUtf8(style::speed.unit(study.system).symbol.data())), 0, 0);
        addCurves(plot, runs, study.system);
        low = addBars(sheet, plot, runs, study.system, low);
    } else {
        sheet.letter({ 0, 60 }, says ? QString::fromStdString(says->reason).left(110) : QObject::tr("both axles are needed"), 13,
            t.unproven, Qt::AlignLeft | Qt::AlignVCenter, false);
    }
    // Other speeds, roads and loads; and what the tyres and the foot are taken to be.
    low = std::max(low + 14, 430.0);
    double x = 0;
    for (const OtherStop& other : p.others) {
        if (x > 560)
            break;
        QString what = QObject::tr("from %1").arg(QString::fromStdString(print(other.speed, style::speed, study.system)));
        if (!other.load.empty())
            what = QString::fromStdString(other.load).left(18);
        if (other.wet)
            what = QObject::tr("wet");
        sheet.letter({ x, low }, what, 11, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        const auto say = [&](double y, double metresLong, const QColor& colour) {
            sheet.letter({ x, low + y },
                std::isfinite(metresLong) ? QString::fromStdString(print(metresLong, style::road, study.system)) : QObject::tr("not known"),
                13, colour, Qt::AlignLeft | Qt::AlignVCenter);
        };
        if (two)
            say(18, other.before, t.found);
        say(two ? 36 : 18, other.after, two ? t.proposal : t.found);
        x += 104;
    }
    low += 58;
    x = 0;
    const auto value = [&](const std::string& pointer, const QString& what, double wide) {
        sheet.letter({ x, low }, what, 11, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.dimensions.push_back({ pointer, {}, { x, low + 20 }, { x, low + 20 }, Run::Table, 0, true, {}, 0.5 });
        x += wide;
    };
    value("/car/test_speed_kmh", QObject::tr("stop from"), 104);
    if (study.after.front.wheel)
        value(wheelPointer(study, *study.after.front.wheel) + "/grip", QObject::tr("tyres' grip"), 104);
    const auto hydraulics = hydraulicsPointer(study, study.after);
    value(hydraulics + "/pedal_force_n", QObject::tr("on the pedal"), 104);
    value(hydraulics + "/build_up_s", QObject::tr("foot builds up in"), 120);
    value("/wants/wet_grip_percent", QObject::tr("grip left in the wet"), 130);
    if (says && longest > 0)
        sheet.callouts.push_back({ says->id,
            p.before.hot.value && p.after.hot.value ? QObject::tr("hot %1").arg(
                QString::fromStdString(printChange(*p.after.hot.value - *p.before.hot.value, style::road, study.system)))
                                                    : QObject::tr("what it saves"),
            says->level, { 640, 40 }, { 640, 40 }, { 640, 40 } });
    return sheet;
}

} // namespace deepstop::app
