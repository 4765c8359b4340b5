#include "stages/heat/duty_sheets.hpp"

#include "drawing/plot.hpp"
#include "theme.hpp"

#include <QObject>

#include <algorithm>
#include <cmath>

namespace deepstop::app {

Sheet legsSheet(const Study& study)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.title = QObject::tr("The duty, segment by segment");
    sheet.extent = QRectF(QPointF(-54, -36), QPointF(776, 540));
    const Build& build = *study.build;
    const DutyPlan* plan = figures::judgedDuty(build);
    if (!plan) {
        sheet.subtitle = QString::fromStdString(noJudgedDuty(build));
        return sheet;
    }
    const std::string at = "/duties/" + std::to_string(plan - build.duties.data());
    sheet.subtitle = QObject::tr("one round of %1, speed over distance; brakings drawn thick; drag a corner or type its speed")
                         .arg(QString::fromStdString(plan->name));
    DutyPlan once = *plan;
    once.repeats = 1;
    Evaluator s;
    const heat::Duty duty = figures::dutyOf(s, build, once);
    const auto speedOf = [&](double si) { return fromSi(si, style::speed.unit(study.system)); };
    const auto roadOf = [&](double si) { return fromSi(si, style::road.unit(study.system)); };
    const double length = heat::distanceOf(duty);
    double fastest = 0;
    for (const heat::Phase& p : duty.phases)
        fastest = std::max({ fastest, p.from, p.to });
    if (std::isfinite(length) && length > 0 && fastest > 0) {
        Plot plot(sheet, QRectF(0, 0, 700, 200), { roadOf(length), Plot::roundUp(speedOf(fastest) * 1.1) });
        plot.axes(QObject::tr("distance, %1").arg(QString::fromUtf8(style::road.unit(study.system).symbol.data())),
            QObject::tr("speed, %1").arg(QString::fromUtf8(style::speed.unit(study.system).symbol.data())), 0, 0);
        const auto lines = heat::speedOverRoad(duty);
        for (std::size_t i = 0; i < lines.size(); ++i) {
            QPolygonF curve;
            for (const auto& place : lines[i].places)
                curve << QPointF(roadOf(place.distance), speedOf(place.speed));
            const bool braking = lines[i].braking;
            plot.curve(curve, { braking ? t.proposal : t.mute, braking ? 2.8 : 1.2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
            const auto& end = lines[i].places.back();
            if (lines.size() <= 30)
                sheet.handles.push_back({ at + "/legs/" + std::to_string(i) + "/to_kmh", plot.at(roadOf(end.distance), speedOf(end.speed)),
                    { 0, -1 }, fastest / plot.millimetresUp(speedOf(fastest)), 1 / 3.6 });
        }
    }
    // The legs, in columns of six.
    sheet.fact(at + "/name", QObject::tr("duty"), { 0, 252 }, 190);
    sheet.fact(at + "/repeats", QObject::tr("repetitions"), { 210, 252 }, 80);
    sheet.letter({ 310, 259 }, QObject::tr("engine braking"), 11, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
    sheet.dimensions.push_back(
        { at + "/engine_braking_g", {}, { 310, 279 }, { 310, 279 }, Run::Table, 0, true, {}, 0.5, true, QObject::tr("none") });
    sheet.fact(at + "/load", QObject::tr("driven laden as"), { 430, 252 }, 130);
    sheet.letter({ 580, 259 }, QObject::tr("trailer without brakes"), 11, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
    sheet.dimensions.push_back(
        { at + "/towed_kg", {}, { 580, 279 }, { 580, 279 }, Run::Table, 0, true, {}, 0.5, true, QObject::tr("none") });
    constexpr std::size_t rows = 7;
    constexpr std::size_t most = 3 * rows;
    const std::size_t legs = std::min(plan->legs.size(), most - 1);
    for (std::size_t i = 0; i <= legs; ++i) {
        const bool blank = i == plan->legs.size();
        if (i == legs && !blank)
            break;
        const double left = static_cast<double>(i / rows) * 245;
        const double y = 318 + static_cast<double>(i % rows) * 31;
        const std::string leg = at + "/legs/" + (blank ? std::string("-") : std::to_string(i));
        const auto value = [&](const char* key, double across, const QString& none) {
            sheet.dimensions.push_back(
                { leg + key, {}, { left + across, y }, { left + across, y }, Run::Table, 0, true, {}, 0.5, true, none });
        };
        sheet.letter({ left, y }, blank ? QStringLiteral("+") : QString::number(i + 1), 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter);
        value("/to_kmh", 22, blank ? QObject::tr("to") : QStringLiteral("?"));
        if (!blank) {
            sheet.letter({ left + 116, y }, QObject::tr("over"), 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
            value("/time_s", 147, QStringLiteral("?"));
        }
    }
    if (plan->legs.size() > legs)
        sheet.letter(
            { 756, 530 }, QObject::tr("and %1 more").arg(plan->legs.size() - legs), 12, t.mute, Qt::AlignRight | Qt::AlignVCenter, false);
    return sheet;
}

} // namespace deepstop::app
