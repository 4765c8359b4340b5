#include "chapters/stopping/stopping_chapter.hpp"
#include "chapters/proving/checks.hpp"
#include "stages/sheets.hpp"

#include "drawing/shapes.hpp"
#include "theme.hpp"

#include <QObject>

#include <algorithm>
#include <cmath>

namespace deepstop::app {
namespace {

/// A car seen from above, its nose at `x`.
QPainterPath carFromAbove(double nose, double y, double length)
{
    QPainterPath path;
    const double wide = length * 0.4;
    path.addRoundedRect(QRectF(nose - length, y - wide / 2, length, wide), wide * 0.35, wide * 0.35);
    path.addRoundedRect(QRectF(nose - length * 0.68, y - wide * 0.38, length * 0.45, wide * 0.76), wide * 0.2, wide * 0.2);
    return path;
}

} // namespace

Sheet roadSheet(const Study& study)
{
    const Theme& t = theme();
    Sheet sheet;
    const Build& build = *study.build;
    const bool two = study.before.setup != study.after.setup;
    sheet.title = QObject::tr("The stop, to scale along the road");
    const auto speed = build.car.testSpeed.value;
    sheet.subtitle = speed
        ? QObject::tr("from %1 on the level, tyre grip %2, %3")
              .arg(QString::fromStdString(print(*speed, style::speed, study.system)),
                  study.after.front.wheel && study.after.front.wheel->grip.value
                      ? QString::fromStdString(figure(*study.after.front.wheel->grip.value, style::number, study.system))
                      : QStringLiteral("?"),
                  build.car.antilock == YesNo::Yes ? QObject::tr("with antilock")
                                                   : QObject::tr("no antilock: the driver holds the first axle at its limit"))
        : QObject::tr("the speed to stop from is not known yet");
    double longest = 30;
    const Stopping& stopping = study.of<Stopping>();
    for (const SetupStopping* r : { &stopping.before, &stopping.after })
        longest = std::max(longest, r->distance.highest() > 0 ? r->distance.highest() : 0);
    for (const TestSession& session : build.tests)
        for (const MeasuredStop& stop : session.stops)
            longest = std::max(longest, stop.distance.value.value_or(0));
    const double metre = 1000;
    const double end = longest * metre * 1.10;
    const double lane = end * 0.075;
    const double length = end * 0.075;
    sheet.extent = QRectF(QPointF(-end * 0.12, -lane * 2.1), QPointF(end * 1.12, lane * 3.3));
    const Ink tarmac { {}, 0, Qt::NoPen, t.metalWash, Hatch::None, {}, 0 };
    sheet.area(rectangle(-end * 0.1, -lane, end * 1.1, lane), tarmac);
    for (const double y : { -lane, lane })
        sheet.line(QPolygonF { QPointF(-end * 0.1, y), QPointF(end * 1.1, y) }, { t.ink, 1.5, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    sheet.line(QPolygonF { QPointF(-end * 0.1, 0), QPointF(end * 1.1, 0) }, { t.mute, 1.2, Qt::DashLine, {}, Hatch::None, {}, 0 });
    sheet.line(QPolygonF { QPointF(0, -lane * 1.25), QPointF(0, lane * 1.6) }, { t.ink, 1.4, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    sheet.letter({ 0, -lane * 1.5 }, QObject::tr("brake point"), 12, t.mute);

    const auto drive = [&](const Setup& setup, const SetupStopping& r, double y, const QColor& colour, const QColor& wash,
                           Qt::PenStyle line) {
        const double nose = r.distance.value.value_or(NAN) * metre;
        sheet.area(carFromAbove(0, y, length), { t.mute, 1, Qt::DotLine, {}, Hatch::None, {}, 0 });
        if (!std::isfinite(nose))
            return;
        // Where it comes to rest, and how far off that may be.
        sheet.area(rectangle(0, y + lane * 0.14, nose - length, y + lane * 0.24), { {}, 0, Qt::NoPen, colour, Hatch::None, {}, 0 });
        sheet.area(carFromAbove(nose, y, length), { colour, 1.8, line, wash, Hatch::None, {}, 0 });
        const double unsure = r.distance.rootSumSquare * metre;
        sheet.line(QPolygonF { QPointF(nose - unsure, y - lane * 0.36), QPointF(nose - unsure, y + lane * 0.36) },
            { colour, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        sheet.line(QPolygonF { QPointF(nose + unsure, y - lane * 0.36), QPointF(nose + unsure, y + lane * 0.36) },
            { colour, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        sheet.letter({ nose * 0.45, y - lane * 0.14 },
            QStringLiteral("%1   %2 ±%3")
                .arg(QString::fromStdString(setup.name), QString::fromStdString(print(*r.distance.value, style::road, study.system)),
                    QString::fromStdString(figure(r.distance.rootSumSquare, style::road, study.system))),
            15, colour);
    };
    if (two)
        drive(*study.before.setup, stopping.before, -lane * 0.5, t.found, t.paper, Qt::DashLine);
    drive(*study.after.setup, stopping.after, lane * 0.5, t.proposal, t.proposalWash, Qt::SolidLine);

    // Stops measured on the road, as pegs beside it.
    std::size_t measured = 0;
    for (const TestSession& session : build.tests)
        measured += session.stops.size();
    constexpr std::size_t named = 3; // more are pegs, but those that are doubted
    int number = 0;
    for (const TestSession& session : build.tests)
        for (const MeasuredStop& stop : session.stops) {
            ++number;
            if (!stop.distance.value)
                continue;
            const double x = *stop.distance.value * metre;
            const Verdict* v = study.verdict(checks::measuredStop, { .number = static_cast<int>(number) });
            sheet.line(QPolygonF { QPointF(x, lane), QPointF(x, lane * 1.16) },
                { session.setup == study.after.setup->id ? t.proposal : t.found, 1.4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
            if (!v || (measured > named && isFine(v->level)))
                continue; // still being worked out, or one of many
            sheet.callouts.push_back({ v->id,
                QObject::tr("stop %1: %2").arg(number).arg(QString::fromStdString(print(*stop.distance.value, style::road, study.system))),
                v->level, { x, lane }, { x, lane * 1.42 }, { x, lane * 1.75 } });
        }
    const auto leader = [&](const std::string& pointer, QPointF from, QPointF to, const QString& caption) {
        sheet.dimensions.push_back({ pointer, {}, from, to, Run::Leader, 0, true, caption, 0.5 });
    };
    leader("/car/test_speed_kmh", { 0, -lane * 0.4 }, { -end * 0.02, lane * 2.2 }, QObject::tr("speed"));
    const auto hydraulics = hydraulicsPointer(study, study.after);
    leader(hydraulics + "/build_up_s", { end * 0.02, lane * 0.2 }, { end * 0.12, lane * 3.0 }, QObject::tr("brake build-up time"));
    if (study.after.front.wheel)
        leader(wheelPointer(study, *study.after.front.wheel) + "/grip", { end * 0.34, lane * 0.8 }, { end * 0.34, lane * 2.6 },
            QObject::tr("tyre grip"));
    leader(hydraulics + "/pedal_force_n", { end * 0.5, lane * 0.6 }, { end * 0.5, lane * 2.9 }, QObject::tr("on the pedal"));
    const auto front = cornerPointer(study, study.after, Axle::Front);
    leader(front + "/pad/friction", { end * 0.66, lane * 0.6 }, { end * 0.72, lane * 2.4 }, QObject::tr("front pad friction"));
    return sheet;
}

} // namespace deepstop::app
