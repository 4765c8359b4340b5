#include "stages/heat/duty_sheets.hpp"

#include "chapters/heat/checks.hpp"
#include "chapters/heat/duty_heat.hpp"
#include "chapters/proving/calibrated.hpp"
#include "drawing/plot.hpp"
#include "drawing/shapes.hpp"
#include "report/heat.hpp"
#include "stages/sheets.hpp"
#include "theme.hpp"

#include <QObject>

#include <algorithm>
#include <cmath>

namespace deepstop::app {
namespace {

const heat::Temperatures& onAxle(const heat::Moment& m, Axle axle) { return axle == Axle::Front ? m.front : m.rear; }

double hotOf(const heat::Moment& m, Axle axle, heat::Node node) { return onAxle(m, axle)[static_cast<std::size_t>(node)]; }

/// From cold to glowing, so that more is darker in grey by day and lighter by night as well.
QColor tint(double kelvin)
{
    const double t = std::clamp((kelvin - 293) / 700, 0.0, 1.0);
    const bool dark = theme().dark;
    const QColor cold = dark ? QColor(44, 58, 70) : QColor(226, 230, 232);
    const QColor warm = dark ? QColor(214, 120, 62) : QColor(214, 138, 72);
    const QColor hot = dark ? QColor(255, 214, 150) : QColor(120, 24, 20);
    const auto mix = [](const QColor& a, const QColor& b, double by) {
        return QColor::fromRgbF(static_cast<float>(std::lerp(a.redF(), b.redF(), by)),
            static_cast<float>(std::lerp(a.greenF(), b.greenF(), by)), static_cast<float>(std::lerp(a.blueF(), b.blueF(), by)));
    };
    return t < 0.5 ? mix(cold, warm, 2 * t) : mix(warm, hot, 2 * t - 1);
}

/// The corner cut through, each part in the colour of its temperature.
void drawCorner(Sheet& sheet, const Study& study, QPointF at, const heat::Moment& m, Axle axle)
{
    const Theme& t = theme();
    const auto part = [&](const QPainterPath& path, heat::Node node) {
        sheet.area(path, { t.ink, 1.1, Qt::SolidLine, tint(hotOf(m, axle, node)), Hatch::None, {}, 0 });
    };
    const auto box = [&](double x0, double y0, double x1, double y1) {
        return rectangle(at.x() + x0, at.y() + y0, at.x() + x1, at.y() + y1);
    };
    const bool drum = study.after.at(axle).corner && study.after.at(axle).corner->brakes == BrakeKind::Drums;
    struct Says {
        heat::Node node;
        QString name;
        QPointF from;
        QPointF to;
    };
    std::vector<Says> words;
    if (drum) {
        part(box(0, 0, 90, 12), heat::Node::Ring);
        part(box(78, 12, 90, 130), heat::Node::Hat);
        part(box(8, 14, 66, 24), heat::Node::Lining);
        part(box(8, 24, 66, 34), heat::Node::Backing);
        part(box(26, 40, 56, 64), heat::Node::Fluid);
        part(box(0, 36, 6, 130), heat::Node::Caliper);
        part(box(66, 108, 78, 160), heat::Node::Hub);
        words = { { heat::Node::Surface, QObject::tr("face"), { 40, 12 }, { 120, -14 } },
            { heat::Node::Ring, QObject::tr("drum"), { 84, 6 }, { 120, 8 } },
            { heat::Node::Lining, QObject::tr("linings"), { 60, 19 }, { 120, 30 } },
            { heat::Node::Fluid, QObject::tr("fluid"), { 50, 52 }, { 120, 52 } },
            { heat::Node::Caliper, QObject::tr("plate"), { 3, 90 }, { 120, 96 } },
            { heat::Node::Hat, QObject::tr("its face"), { 84, 90 }, { 120, 74 } },
            { heat::Node::Hub, QObject::tr("hub"), { 72, 140 }, { 120, 140 } } };
    } else {
        // Two plates with air between, the pads on them, the caliper round it, the hat down to the hub.
        part(box(-44, -16, 58, 0), heat::Node::Caliper);
        part(box(-44, 0, -26, 92), heat::Node::Caliper);
        part(box(40, 0, 58, 92), heat::Node::Caliper);
        part(box(-26, 20, -14, 76), heat::Node::Fluid);
        part(box(28, 20, 40, 76), heat::Node::Fluid);
        part(box(-14, 12, -9, 86), heat::Node::Backing);
        part(box(23, 12, 28, 86), heat::Node::Backing);
        part(box(-9, 14, -2, 84), heat::Node::Lining);
        part(box(16, 14, 23, 84), heat::Node::Lining);
        part(box(-2, 6, 4, 112), heat::Node::Ring);
        part(box(10, 6, 16, 112), heat::Node::Ring);
        part(box(16, 104, 42, 112), heat::Node::Hat);
        part(box(36, 112, 42, 160), heat::Node::Hat);
        part(box(42, 136, 60, 180), heat::Node::Hub);
        words = { { heat::Node::Surface, QObject::tr("face"), { 16, 92 }, { 84, 70 } },
            { heat::Node::Ring, QObject::tr("ring"), { 13, 108 }, { 84, 92 } },
            { heat::Node::Lining, QObject::tr("pads"), { 20, 30 }, { 84, 26 } },
            { heat::Node::Fluid, QObject::tr("fluid"), { 34, 50 }, { 84, 48 } },
            { heat::Node::Caliper, QObject::tr("caliper"), { 50, -8 }, { 84, 4 } },
            { heat::Node::Hat, QObject::tr("hat"), { 40, 140 }, { 84, 126 } },
            { heat::Node::Hub, QObject::tr("hub"), { 54, 170 }, { 84, 160 } } };
    }
    for (const Says& w : words) {
        sheet.line({ at + w.from, at + w.to - QPointF(4, 0) }, { t.mute, 0.8, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        sheet.letter(at + w.to,
            QObject::tr("%1 %2").arg(w.name, QString::fromStdString(print(hotOf(m, axle, w.node), style::temperature, study.system))), 12,
            t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
    }
}

} // namespace

Sheet dutySheet(const Study& study, Axle axle, double fraction)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.extent = QRectF(QPointF(-54, -36), QPointF(740, 532));
    const DutyStudy& d = study.of<DutyStudy>();
    sheet.title = axle == Axle::Front ? QObject::tr("Front, over the duty") : QObject::tr("Rear, over the duty");
    const Verdict* verdict = study.verdict(checks::firstLimit);
    // What decides stands under the plot whatever can be drawn over it.
    const std::string h = hydraulicsPointer(study, study.after);
    const auto corner = cornerPointer(study, study.after, axle);
    double x = 0;
    const double low = 496;
    const auto value = [&](const std::string& pointer, const QString& what, double wide, bool mayLack = false, const QString& blank = {}) {
        sheet.letter({ x, low }, what, 11, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.dimensions.push_back({ pointer, {}, { x, low + 20 }, { x, low + 20 }, Run::Table, 0, true, {}, 0.5, mayLack, blank });
        x += wide;
    };
    value("/wants/ambient_degC", QObject::tr("air"), 80);
    value("/wants/altitude_m", QObject::tr("altitude"), 84);
    value(corner + "/duct", QObject::tr("duct factor"), 96, true, QObject::tr("no duct"));
    value(corner + "/cooling", QObject::tr("cooling, calibrated"), 134, true, QObject::tr("not measured"));
    sheet.fact(h + "/fluid", QObject::tr("brake fluid"), { x, low - 7 }, 104);
    x += 118;
    value(h + "/fluid_age_months", QObject::tr("age of the fluid"), 112);
    value(h + "/dry_boiling_degC", QObject::tr("dry boiling point"), 130, true, QObject::tr("least of class"));

    const DutyHeat& now = d.after;
    if (!now.run || !now.run->complete) {
        sheet.subtitle = verdict ? QString::fromStdString(verdict->reason)
            : d.plan             ? QObject::tr("both axles are needed")
                                 : QString::fromStdString(noJudgedDuty(*study.build));
        return sheet;
    }
    const bool two = study.before.setup != study.after.setup && d.before.run && d.before.run->complete;
    sheet.subtitle = QObject::tr("%1 · %2%3 · rises ±%4 %")
                         .arg(QString::fromStdString(d.duty.name), QString::fromStdString(study.after.setup->name),
                             two ? QObject::tr(", dashed: %1").arg(QString::fromStdString(study.before.setup->name)) : QString())
                         .arg(100 * now.unsure.at(axle), 0, 'f', 0);

    const auto shown = [&](double kelvin) { return fromSi(kelvin, style::temperature.unit(study.system)); };
    const double length = heat::durationOf(d.duty);
    const bool minutes = length > 240;
    const auto clock = [&](double seconds) { return minutes ? seconds / 60 : seconds; };
    double hottest = 0;
    for (const DutyHeat* each : { &now, two ? &d.before : &now })
        for (const heat::Moment& m : each->run->course)
            hottest = std::max(hottest, hotOf(m, axle, heat::Node::Surface));
    for (const HeatLimit& l : now.limits)
        if (l.axle == axle && l.critical && std::isfinite(l.limit) && l.limit < 1.35 * hottest)
            hottest = std::max(hottest, l.limit);
    Plot plot(sheet, QRectF(0, 0, 504, 330), { clock(length), Plot::roundUp(shown(hottest) * 1.04) });
    plot.axes(minutes ? QObject::tr("time, min") : QObject::tr("time, s"),
        QObject::tr("temperature, %1").arg(QString::fromUtf8(style::temperature.unit(study.system).symbol.data())), 0, 0);
    // What each part bears, named on its line; the critical ones in red.
    auto limits = now.limits;
    std::ranges::stable_sort(limits, {}, [](const HeatLimit& l) { return !l.critical; });
    std::vector<double> lettered;
    for (const HeatLimit& l : limits) {
        if (l.axle != axle || !plot.holds({ 0, shown(l.limit) }))
            continue;
        const QColor colour = l.stop ? t.bad : l.critical ? t.caution : t.mute;
        plot.level(shown(l.limit), { colour, l.critical ? 1.4 : 0.9, l.critical ? Qt::DashDotLine : Qt::DotLine, {}, Hatch::None, {}, 0 });
        const QPointF at = plot.at(0, shown(l.limit));
        if (std::ranges::any_of(lettered, [&](double y) { return std::abs(y - at.y()) < 13; }))
            continue;
        const QString what = QString::fromStdString(l.what);
        sheet.letter(at + QPointF(plot.box().width() - 5, -8), what.mid(what.indexOf(' ') + 1), 11, colour,
            Qt::AlignRight | Qt::AlignVCenter, false);
        lettered.push_back(at.y());
    }
    const auto curve = [&](const DutyHeat& of, heat::Node node, const Ink& ink) {
        QPolygonF points;
        for (const heat::Moment& m : of.run->course)
            points << QPointF(clock(m.time), shown(hotOf(m, axle, node)));
        plot.curve(points, ink);
    };
    if (two) {
        curve(d.before, heat::Node::Surface, { t.found, 1.3, Qt::DashLine, {}, Hatch::None, {}, 0 });
        curve(d.before, heat::Node::Fluid, { t.found, 1.1, Qt::DashLine, {}, Hatch::None, {}, 0 });
    }
    // How far off its rises may be.
    QPolygonF band;
    for (const double way : { 1.0, -1.0 })
        for (std::size_t i = 0; i < now.run->course.size(); ++i) {
            const auto& m = now.run->course[way > 0 ? i : now.run->course.size() - 1 - i];
            const double hot = hotOf(m, axle, heat::Node::Surface);
            band << QPointF(
                clock(m.time), std::clamp(shown(hot + way * now.unsure.at(axle) * (hot - now.car.ambient)), 0.0, plot.most().y()));
        }
    plot.area(band, { Qt::transparent, 0, Qt::NoPen, t.proposalWash, Hatch::None, {}, 0 });
    curve(now, heat::Node::Surface, { t.proposal, 1.8, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    curve(now, heat::Node::Lining, { t.proposal, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    curve(now, heat::Node::Fluid, { t.proposal, 1.3, Qt::DotLine, {}, Hatch::None, {}, 0 });
    const heat::Moment& end = now.run->course.back();
    for (const auto& [node, word] : { std::pair { heat::Node::Surface, QObject::tr("face") },
             std::pair { heat::Node::Lining, QObject::tr("pads") }, std::pair { heat::Node::Fluid, QObject::tr("fluid") } })
        sheet.letter(plot.at(clock(length), shown(hotOf(end, axle, node))) + QPointF(6, 0), word, 12, t.proposal,
            Qt::AlignLeft | Qt::AlignVCenter, false);

    // What a thermometer read, with its width.
    for (const heat::Taken& taken : temperaturesOf(*study.build, study.after, *d.plan, d.duty).taken) {
        if (taken.front != (axle == Axle::Front))
            continue;
        const QPointF at(clock(taken.time), shown(taken.temperature));
        plot.curve({ QPointF(at.x(), shown(taken.temperature - taken.width)), QPointF(at.x(), shown(taken.temperature + taken.width)) },
            { t.ink, 1.4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        plot.mark(at, 4, t.ink, true);
    }

    // Speed and foot under it, on the same time.
    const double fastest = fromSi(std::ranges::max(now.run->course, {}, &heat::Moment::speed).speed, style::speed.unit(study.system));
    Plot speed(sheet, QRectF(0, 392, 504, 62), { clock(length), Plot::roundUp(fastest) });
    QPolygonF course { QPointF(0, 0) };
    for (const heat::Moment& m : now.run->course)
        course << QPointF(clock(m.time), fromSi(m.speed, style::speed.unit(study.system)));
    course << QPointF(clock(length), 0);
    speed.area(course, { t.mute, 1, Qt::SolidLine, t.metalWash, Hatch::None, {}, 0 });
    sheet.letter({ 0, 384 },
        QObject::tr("speed, to %1")
            .arg(QString::fromStdString(
                print(std::ranges::max(now.run->course, {}, &heat::Moment::speed).speed, style::speed, study.system))),
        11, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);

    // The moment in hand.
    const heat::Moment m = report::momentAt(*now.run, fraction * length);
    const Ink hand { t.focus, 1.4, Qt::SolidLine, {}, Hatch::None, {}, 0 };
    plot.curve({ QPointF(clock(m.time), 0), QPointF(clock(m.time), 1e9) }, hand);
    speed.curve({ QPointF(clock(m.time), 0), QPointF(clock(m.time), 1e9) }, hand);
    drawCorner(sheet, study, { 586, 30 }, m, axle);
    const double rows = 232;
    const auto say = [&](double y, const QString& text, const QColor& colour = theme().ink) {
        sheet.letter({ 542, rows + y }, text, 12, colour, Qt::AlignLeft | Qt::AlignVCenter, false);
    };
    say(0, QObject::tr("%1 s, braking %2 of %3").arg(m.time, 0, 'f', 0).arg(m.stop).arg(heat::stopsIn(d.duty)));
    say(18, QString::fromStdString(print(m.speed, style::speed, study.system)));
    say(36,
        QObject::tr("friction %1 of the quoted")
            .arg(QString::fromStdString(print(axle == Axle::Front ? m.frontFriction : m.rearFriction, style::share, study.system))));
    say(54,
        m.power > 0 ? QObject::tr("the front does %1").arg(QString::fromStdString(print(m.frontShare, style::share, study.system)))
                    : QObject::tr("brakes off"));
    if (const auto red = glow(hotOf(m, axle, heat::Node::Surface)); !red.empty())
        say(72, QObject::tr("glows %1").arg(QString::fromStdString(red)), t.bad);
    if (verdict) {
        const HeatLimit* first = nullptr;
        for (const HeatLimit& l : now.limits)
            if (l.axle == axle && (!first || (l.stop && (!first->stop || l.time < first->time))))
                first = &l;
        if (first) {
            const QPointF at = first->stop && !first->standing ? plot.at(clock(first->time), shown(std::min(first->limit, hottest)))
                                           : plot.at(clock(length * 0.6), shown(std::min(first->peak, hottest)));
            sheet.callouts.push_back({ verdict->id,
                first->standing ? QObject::tr("limit when standing")
                    : first->stop
                    ? QObject::tr("limit at braking %1").arg(*first->stop)
                    : QObject::tr("%1 left").arg(QString::fromStdString(print(first->limit - first->peak, style::rise, study.system))),
                verdict->level, at, at, at + QPointF(40, -46) });
        }
    }
    return sheet;
}

} // namespace deepstop::app
