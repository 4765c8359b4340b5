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
#include <utility>

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

/// What decides stands under the plot whatever can be drawn over it.
void addFields(Sheet& sheet, const Study& study, Axle axle)
{
    const Theme& t = theme();
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
}

/// Temperatures over the duty, part by part.
class DutyDrawing {
public:
    DutyDrawing(Sheet sheet, const Study& study, Axle axle, double fraction)
        : sheet_(std::move(sheet)), study_(study), axle_(axle), fraction_(fraction)
    {
    }

    Sheet drawn()
    {
        axes();
        limits();
        curves();
        readings();
        speedUnder();
        moment();
        firstLimit();
        return std::move(sheet_);
    }

private:
    /// Title and axes.
    void axes()
    {
        sheet_.subtitle = QObject::tr("%1 · %2%3 · rises ±%4 %")
                              .arg(QString::fromStdString(d_.duty.name), QString::fromStdString(study_.after.setup->name),
                                  two_ ? QObject::tr(", dashed: %1").arg(QString::fromStdString(study_.before.setup->name)) : QString())
                              .arg(100 * now_.unsure.at(axle_), 0, 'f', 0);
        plot_.axes(minutes_ ? QObject::tr("time, min") : QObject::tr("time, s"),
            QObject::tr("temperature, %1").arg(QString::fromUtf8(style::temperature.unit(study_.system).symbol.data())), 0, 0);
    }

    /// What each part bears, named on its line; the critical ones in red.
    void limits()
    {
        auto limits = now_.limits;
        std::ranges::stable_sort(limits, {}, [](const HeatLimit& l) { return !l.critical; });
        std::vector<double> lettered;
        for (const HeatLimit& l : limits) {
            if (l.axle != axle_ || !plot_.holds({ 0, shown(l.limit) }))
                continue;
            const QColor colour = l.stop ? t_.bad : l.critical ? t_.caution : t_.mute;
            plot_.level(
                shown(l.limit), { colour, l.critical ? 1.4 : 0.9, l.critical ? Qt::DashDotLine : Qt::DotLine, {}, Hatch::None, {}, 0 });
            const QPointF at = plot_.at(0, shown(l.limit));
            if (std::ranges::any_of(lettered, [&](double y) { return std::abs(y - at.y()) < 13; }))
                continue;
            const QString what = QString::fromStdString(l.what);
            sheet_.letter(at + QPointF(plot_.box().width() - 5, -8), what.mid(what.indexOf(' ') + 1), 11, colour,
                Qt::AlignRight | Qt::AlignVCenter, false);
            lettered.push_back(at.y());
        }
    }

    /// Faces, pads and fluid, and how far off the face may be.
    void curves()
    {
        const auto curve = [&](const DutyHeat& of, heat::Node node, const Ink& ink) {
            QPolygonF points;
            for (const heat::Moment& m : of.run->course)
                points << QPointF(clock(m.time), shown(hotOf(m, axle_, node)));
            plot_.curve(points, ink);
        };
        if (two_) {
            curve(d_.before, heat::Node::Surface, { t_.found, 1.3, Qt::DashLine, {}, Hatch::None, {}, 0 });
            curve(d_.before, heat::Node::Fluid, { t_.found, 1.1, Qt::DashLine, {}, Hatch::None, {}, 0 });
        }
        // How far off its rises may be.
        QPolygonF band;
        for (const double way : { 1.0, -1.0 })
            for (std::size_t i = 0; i < now_.run->course.size(); ++i) {
                const auto& m = now_.run->course[way > 0 ? i : now_.run->course.size() - 1 - i];
                const double hot = hotOf(m, axle_, heat::Node::Surface);
                band << QPointF(
                    clock(m.time), std::clamp(shown(hot + way * now_.unsure.at(axle_) * (hot - now_.car.ambient)), 0.0, plot_.most().y()));
            }
        plot_.area(band, { Qt::transparent, 0, Qt::NoPen, t_.proposalWash, Hatch::None, {}, 0 });
        curve(now_, heat::Node::Surface, { t_.proposal, 1.8, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        curve(now_, heat::Node::Lining, { t_.proposal, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        curve(now_, heat::Node::Fluid, { t_.proposal, 1.3, Qt::DotLine, {}, Hatch::None, {}, 0 });
        const heat::Moment& end = now_.run->course.back();
        for (const auto& [node, word] : { std::pair { heat::Node::Surface, QObject::tr("face") },
                 std::pair { heat::Node::Lining, QObject::tr("pads") }, std::pair { heat::Node::Fluid, QObject::tr("fluid") } })
            sheet_.letter(plot_.at(clock(length_), shown(hotOf(end, axle_, node))) + QPointF(6, 0), word, 12, t_.proposal,
                Qt::AlignLeft | Qt::AlignVCenter, false);
    }

    /// What a thermometer read, with its width.
    void readings()
    {
        for (const heat::Taken& taken : temperaturesOf(*study_.build, study_.after, *d_.plan, d_.duty).taken) {
            if (taken.front != (axle_ == Axle::Front))
                continue;
            const QPointF at(clock(taken.time), shown(taken.temperature));
            plot_.curve(
                { QPointF(at.x(), shown(taken.temperature - taken.width)), QPointF(at.x(), shown(taken.temperature + taken.width)) },
                { t_.ink, 1.4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
            plot_.mark(at, 4, t_.ink, true);
        }
    }

    void speedUnder()
    {
        QPolygonF course { QPointF(0, 0) };
        for (const heat::Moment& m : now_.run->course)
            course << QPointF(clock(m.time), fromSi(m.speed, style::speed.unit(study_.system)));
        course << QPointF(clock(length_), 0);
        speed_.area(course, { t_.mute, 1, Qt::SolidLine, t_.metalWash, Hatch::None, {}, 0 });
        sheet_.letter({ 0, 384 },
            QObject::tr("speed, to %1")
                .arg(QString::fromStdString(
                    print(std::ranges::max(now_.run->course, {}, &heat::Moment::speed).speed, style::speed, study_.system))),
            11, t_.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
    }

    /// The moment in hand.
    void moment()
    {
        const heat::Moment inHand = heat::momentAt(*now_.run, fraction_ * length_);
        const Ink hand { t_.focus, 1.4, Qt::SolidLine, {}, Hatch::None, {}, 0 };
        plot_.curve({ QPointF(clock(inHand.time), 0), QPointF(clock(inHand.time), 1e9) }, hand);
        speed_.curve({ QPointF(clock(inHand.time), 0), QPointF(clock(inHand.time), 1e9) }, hand);
        drawCorner(sheet_, study_, { 586, 30 }, inHand, axle_);
        const double rows = 232;
        const auto say = [&](double y, const QString& text, const QColor& colour = theme().ink) {
            sheet_.letter({ 542, rows + y }, text, 12, colour, Qt::AlignLeft | Qt::AlignVCenter, false);
        };
        say(0, QObject::tr("%1 s, braking %2 of %3").arg(inHand.time, 0, 'f', 0).arg(inHand.stop).arg(heat::stopsIn(d_.duty)));
        say(18, QString::fromStdString(print(inHand.speed, style::speed, study_.system)));
        say(36,
            QObject::tr("friction %1 of the quoted")
                .arg(QString::fromStdString(
                    print(axle_ == Axle::Front ? inHand.frontFriction : inHand.rearFriction, style::share, study_.system))));
        say(54,
            inHand.power > 0
                ? QObject::tr("the front does %1").arg(QString::fromStdString(print(inHand.frontShare, style::share, study_.system)))
                : QObject::tr("brakes off"));
        if (const auto red = glow(hotOf(inHand, axle_, heat::Node::Surface)); !red.empty())
            say(72, QObject::tr("glows %1").arg(QString::fromStdString(red)), t_.bad);
    }

    /// The first limit of this axle, where it is reached.
    void firstLimit()
    {
        if (verdict_) {
            const HeatLimit* first = nullptr;
            for (const HeatLimit& l : now_.limits)
                if (l.axle == axle_ && (!first || (l.stop && (!first->stop || l.time < first->time))))
                    first = &l;
            if (first) {
                const QPointF at = first->stop && !first->standing ? plot_.at(clock(first->time), shown(std::min(first->limit, hottest_)))
                                                                   : plot_.at(clock(length_ * 0.6), shown(std::min(first->peak, hottest_)));
                sheet_.callouts.push_back({ verdict_->id,
                    first->standing ? QObject::tr("limit when standing")
                        : first->stop
                        ? QObject::tr("limit at braking %1").arg(*first->stop)
                        : QObject::tr("%1 left").arg(QString::fromStdString(print(first->limit - first->peak, style::rise, study_.system))),
                    verdict_->level, at, at, at + QPointF(40, -46) });
            }
        }
    }

    double shown(double kelvin) { return fromSi(kelvin, style::temperature.unit(study_.system)); }

    double clock(double seconds) { return minutes_ ? seconds / 60 : seconds; }

    double hottestShown()
    {
        double most = 0;
        for (const DutyHeat* each : { &now_, two_ ? &d_.before : &now_ })
            for (const heat::Moment& moment : each->run->course)
                most = std::max(most, hotOf(moment, axle_, heat::Node::Surface));
        for (const HeatLimit& limit : now_.limits)
            if (limit.axle == axle_ && limit.critical && std::isfinite(limit.limit) && limit.limit < 1.35 * most)
                most = std::max(most, limit.limit);
        return most;
    }

    Sheet sheet_;
    const Study& study_;
    const Axle axle_;
    const double fraction_;
    const Theme& t_ = theme();
    const DutyStudy& d_ = study_.of<DutyStudy>();
    const Verdict* verdict_ = study_.verdict(checks::firstLimit);
    const DutyHeat& now_ = d_.after;
    const bool two_ = study_.before.setup != study_.after.setup && d_.before.run && d_.before.run->complete;
    const double length_ = heat::durationOf(d_.duty);
    const bool minutes_ = length_ > 240;
    const double hottest_ = hottestShown();
    Plot plot_ = Plot(sheet_, QRectF(0, 0, 504, 330), { clock(length_), Plot::roundUp(shown(hottest_) * 1.04) });
    // Speed and foot under it, on the same time.
    const double fastest_ = fromSi(std::ranges::max(now_.run->course, {}, &heat::Moment::speed).speed, style::speed.unit(study_.system));
    Plot speed_ = Plot(sheet_, QRectF(0, 392, 504, 62), { clock(length_), Plot::roundUp(fastest_) });
};

} // namespace

Sheet dutySheet(const Study& study, Axle axle, double fraction)
{
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.extent = QRectF(QPointF(-54, -36), QPointF(740, 532));
    const DutyStudy& d = study.of<DutyStudy>();
    sheet.title = axle == Axle::Front ? QObject::tr("Front, over the duty") : QObject::tr("Rear, over the duty");
    const Verdict* verdict = study.verdict(checks::firstLimit);
    addFields(sheet, study, axle);
    const DutyHeat& now = d.after;
    if (!now.run || !now.run->complete) {
        sheet.subtitle = verdict ? QString::fromStdString(verdict->reason)
            : d.plan             ? QObject::tr("both axles are needed")
                                 : QString::fromStdString(noJudgedDuty(*study.build));
        return sheet;
    }
    return DutyDrawing(std::move(sheet), study, axle, fraction).drawn();
}

} // namespace deepstop::app
