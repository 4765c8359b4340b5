#include "stages/balance/balance_sheets.hpp"

#include "chapters/balance/balance_chapter.hpp"
#include "chapters/balance/checks.hpp"
#include "drawing/shapes.hpp"
#include "stages/sheets.hpp"
#include "theme.hpp"

#include <QObject>

#include <algorithm>
#include <array>
#include <cmath>

namespace deepstop::app {
namespace {

QPainterPath rounded(double x0, double y0, double x1, double y1, double r)
{
    QPainterPath path;
    path.addRoundedRect(QRectF(QPointF(x0, y0), QPointF(x1, y1)), r, r);
    return path;
}

} // namespace

/// From left to right: pedal, booster, master cylinder, valve, and the brakes at both ends of the lines; under each what is entered of it.
Sheet footSheet(const Study& study)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.title = QObject::tr("From pedal to wheels");
    sheet.extent = QRectF(QPointF(-14, -34), QPointF(806, 536));
    if (!study.after.complete()) {
        sheet.subtitle = QObject::tr("both axles are needed");
        return sheet;
    }
    const SetupBalance& now = study.of<Balance>().after;
    const Hydraulics& h = *study.after.hydraulics;
    const bool own = study.after.setup->hydraulics.has_value();
    sheet.subtitle = own || study.before.setup == study.after.setup
        ? QObject::tr("hydraulics of %1 · not to scale").arg(QString::fromStdString(study.after.setup->name))
        : QObject::tr("hydraulics as found · not to scale");
    const std::string p = hydraulicsPointer(study, study.after);
    const Ink iron { t.ink, 1.3, Qt::SolidLine, t.metalWash, Hatch::Rising, t.metal, 7 };
    const Ink fluid { t.ink, 1.1, Qt::SolidLine, t.proposalWash, Hatch::None, {}, 0 };
    const Ink line { t.proposal, 2.4, Qt::SolidLine, {}, Hatch::None, {}, 0 };
    const double axis = 96;
    const bool twins = h.master == MasterKind::Twin;
    const bool boosted = h.booster != Booster::None && h.boosterGain.value.value_or(1) > 1;

    // Pedal.
    sheet.area(rectangle(44, 10, 54, 176), iron);
    sheet.area(rectangle(26, 150, 44, 192), { t.ink, 1.3, Qt::SolidLine, t.lining, Hatch::None, {}, 0 });
    sheet.area(circle({ 49, 16 }, 7), { t.ink, 1.3, Qt::SolidLine, t.paper, Hatch::None, {}, 0 });
    sheet.line({ QPointF(54, axis), QPointF(190, axis) }, { t.ink, 2.4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    // Booster.
    if (boosted)
        sheet.area(rounded(116, axis - 56, 172, axis + 56, 24), iron);
    else
        sheet.area(rounded(116, axis - 30, 172, axis + 30, 14), { t.mute, 1, Qt::DotLine, {}, Hatch::None, {}, 0 });
    // Master cylinder or twins, each piston where its chamber ends.
    const auto cylinder = [&](double y, double parts) {
        sheet.area(rectangle(190, y - 20, 330, y + 20), iron);
        sheet.area(rectangle(200, y - 12, 322, y + 12), fluid);
        for (double i = 0; i < parts; ++i)
            sheet.area(rectangle(204 + i * 58, y - 12, 212 + i * 58, y + 12), iron);
    };
    if (twins) {
        sheet.line({ QPointF(184, axis - 34), QPointF(184, axis + 34) }, { t.ink, 4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        cylinder(axis - 34, 1);
        cylinder(axis + 34, 1);
    } else {
        cylinder(axis, 2);
        sheet.area(rounded(216, axis - 52, 306, axis - 20, 6), { t.ink, 1.2, Qt::SolidLine, t.paper, Hatch::None, {}, 0 });
        sheet.area(rectangle(218, axis - 38, 304, axis - 21), fluid);
    }
    // Lines, valve and brakes.
    const double frontY = axis - 52;
    const double rearY = axis + 62;
    sheet.line({ QPointF(330, twins ? axis - 34 : axis - 8), QPointF(366, twins ? axis - 34 : axis - 8), QPointF(366, frontY),
                   QPointF(560, frontY) },
        line);
    sheet.line({ QPointF(330, twins ? axis + 34 : axis + 8), QPointF(366, twins ? axis + 34 : axis + 8), QPointF(366, rearY),
                   QPointF(560, rearY) },
        line);
    const bool valve = h.valve != ValveKind::None && (h.valve != ValveKind::Unknown || h.rearKneePressure.value);
    if (valve) {
        sheet.area(rounded(410, rearY - 18, 456, rearY + 18, 5), iron);
        sheet.line({ QPointF(416, rearY + 12), QPointF(432, rearY - 4), QPointF(450, rearY - 10) },
            { t.ink, 2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    }
    const auto brake = [&](Axle axle, double y) {
        const Corner& c = *study.after.at(axle).corner;
        if (c.brakes == BrakeKind::Drums) {
            sheet.area(circle({ 590, y }, 32), iron);
            sheet.area(circle({ 590, y }, 24), { t.ink, 1.2, Qt::SolidLine, t.paper, Hatch::None, {}, 0 });
            sheet.area(rectangle(578, y - 22, 602, y - 12), fluid);
            return;
        }
        sheet.area(rectangle(588, y - 34, 596, y + 34), iron);
        sheet.area(rounded(562, y - 24, 622, y + 8, 8), { t.proposal, 1.5, Qt::SolidLine, t.proposalWash, Hatch::None, {}, 0 });
        const double most = 14;
        double x = 0;
        for (const Reading& bore : c.caliper.pistons) {
            const double high = std::min(most, bore.value.value_or(0.03) * 1000 / 4);
            sheet.area(
                rectangle(570, y - 8 - high / 2 + x, 584, y - 8 + high / 2 + x), { t.ink, 1, Qt::SolidLine, t.paper, Hatch::None, {}, 0 });
            x += 3;
        }
    };
    brake(Axle::Front, frontY);
    brake(Axle::Rear, rearY);

    // What comes of the foot this driver brakes with.
    const LoadBalance* alone = now.find(nullptr);
    if (alone && !alone->curve.empty() && now.foot && h.pedalForce.value) {
        const double made = hydraulics::frontPressure(*now.foot, *h.pedalForce.value);
        const double rear = alone->brakes->rearPressure(made);
        const auto say = [&](double pressure) { return QString::fromStdString(print(pressure, style::pressure, study.system)); };
        sheet.letter({ 380, frontY - 10 }, say(made), 14, t.proposal, Qt::AlignLeft | Qt::AlignBottom);
        sheet.letter({ 470, rearY - 10 }, say(rear), 14, t.proposal, Qt::AlignLeft | Qt::AlignBottom);
        const auto forces = stopping::brakeForces(*alone->brakes, made);
        for (const auto& [at, force] : { std::pair { frontY, forces.front }, std::pair { rearY, forces.rear } }) {
            sheet.letter({ 640, at - 8 },
                QObject::tr("%1 at the road").arg(QString::fromStdString(print(force, style::force, study.system))), 13, t.ink,
                Qt::AlignLeft | Qt::AlignVCenter, false);
            sheet.letter({ 640, at + 8 }, QObject::tr("if the tyres could hold it"), 11, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        }
    } else if (const Verdict* v = study.verdict(checks::effort)) {
        sheet.letter(
            { 380, frontY - 10 }, QString::fromStdString(v->reason).left(60), 12, t.unproven, Qt::AlignLeft | Qt::AlignBottom, false);
    }

    // Under the drawing, column by column.
    constexpr double first = 226;
    constexpr double step = 46;
    double x = 0;
    double y = first;
    const auto column = [&](double at, const QString& heading) {
        x = at;
        y = first;
        sheet.letter({ x, y - 6 }, heading, 14, t.ink, Qt::AlignLeft | Qt::AlignBottom, false);
        sheet.line({ QPointF(x, y), QPointF(x + 140, y) }, { t.rule, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        y += 16;
    };
    const auto value = [&](const std::string& pointer, const QString& what, bool mayLack = false, const QString& blank = {}) {
        sheet.letter({ x, y }, what, 11, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.dimensions.push_back({ pointer, {}, { x, y + 20 }, { x, y + 20 }, Run::Table, 0, true, {}, 0.5, mayLack, blank });
        y += step;
    };
    const auto fact = [&](const std::string& pointer, const QString& what) {
        sheet.fact(pointer, what, { x, y - 7 }, 132);
        y += step;
    };
    column(0, QObject::tr("Pedal"));
    value(p + "/pedal_force_n", QObject::tr("this driver's force"));
    value(p + "/pedal_ratio", QObject::tr("ratio"));
    value(p + "/free_play_mm", QObject::tr("free play"));
    value(p + "/line_pressure_bar", QObject::tr("front line, read at that force"), true, QObject::tr("no gauge"));
    column(164, QObject::tr("Booster"));
    fact(p + "/booster", QObject::tr("kind"));
    if (h.booster != Booster::None) {
        value(p + "/booster_gain", QObject::tr("gain"));
        value(p + "/booster_knee_n", QObject::tr("push where it runs out"));
    }
    column(328, QObject::tr("Master cylinder"));
    fact(p + "/master", QObject::tr("kind"));
    value(p + "/master_bore_mm", twins ? QObject::tr("front bore") : QObject::tr("bore"));
    if (twins) {
        value(p + "/rear_master_bore_mm", QObject::tr("rear bore"));
        value(p + "/bar_front_percent", QObject::tr("bar's share to the front"));
    }
    value(p + "/master_stroke_mm", QObject::tr("whole stroke"));
    if (!twins)
        value(p + "/front_stroke_percent", QObject::tr("of it for the front circuit"));
    value(p + "/reservoir_cm3", QObject::tr("fluid between the marks"));
    column(492, QObject::tr("Lines"));
    fact(p + "/circuits", QObject::tr("circuits"));
    fact(p + "/valve", QObject::tr("valve to the rear"));
    if (valve || h.valve == ValveKind::Unknown) {
        value(p + "/rear_knee_bar", QObject::tr("knee"), h.valve == ValveKind::Unknown);
        value(p + "/rear_slope", QObject::tr("slope over it"), h.valve == ValveKind::Unknown);
    }
    if (h.valve == ValveKind::LoadDependent)
        value(p + "/knee_per_load_bar_per_kn", QObject::tr("knee per rear load"));
    column(656, QObject::tr("Compliance at 70 bar"));
    for (const Axle axle : { Axle::Front, Axle::Rear }) {
        const Corner& c = *study.after.at(axle).corner;
        const std::string at = cornerPointer(study, study.after, axle);
        const QString where = axle == Axle::Front ? QObject::tr("front") : QObject::tr("rear");
        const QString usual = QObject::tr("usual");
        if (c.brakes == BrakeKind::Drums) {
            value(at + "/drum/shoe_play_mm", QObject::tr("%1 cylinder's play").arg(where), true, usual);
        } else {
            value(at + "/caliper/give_cm3", QObject::tr("a %1 caliper").arg(where), true, usual);
            value(at + "/pad/squeeze_mm", QObject::tr("a %1 pad").arg(where), true, usual);
        }
        value(at + "/hose/give_cm3", QObject::tr("a %1 hose").arg(where), true, usual);
    }
    return sheet;
}

Sheet practiceSheet(const Study& study)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.title = QObject::tr("Limits for the pedal");
    sheet.subtitle =
        QObject::tr("and what stands in where nobody has measured, with its spread; at first common practice, without a source");
    sheet.extent = QRectF(QPointF(-6, -24), QPointF(790, 420));
    static const Build usual;
    static const Directory usualDirectory(usual);
    double x = 0;
    double y = 0;
    const auto heading = [&](double at, const QString& text) {
        x = at;
        y = 0;
        sheet.letter({ x, y }, text, 15, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.line({ QPointF(x, y + 12), QPointF(x + 364, y + 12) }, { t.rule, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        y += 32;
    };
    const auto row = [&](const char* key, const QString& what) {
        const std::string pointer = std::string("/wants/") + key;
        const auto* entry = usualDirectory.at(pointer);
        sheet.letter({ x, y }, what, 13, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.dimensions.push_back({ pointer, {}, { x + 184, y }, { x + 184, y }, Run::Table, 0, true, {}, 0.5 });
        const Reading& r = *entry->reading;
        const auto value = QString::fromStdString(print(*r.value, entry->address.style, study.system));
        const auto width = r.plusMinus.value_or(0) > 0
            ? QStringLiteral(" ±") + QString::fromStdString(figure(*r.plusMinus, entry->address.style, study.system))
            : QString();
        sheet.letter({ x + 268, y }, QObject::tr("usual: %1%2").arg(value, width), 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        y += 32;
    };
    heading(0, QObject::tr("Limits"));
    row("stroke_percent", QObject::tr("Stroke for a hard stop, at most"));
    row("light_effort_n", QObject::tr("Lightest foot for 1 g"));
    row("firm_effort_n", QObject::tr("Highest pedal force for 1 g"));
    row("greatest_effort_n", QObject::tr("Strong driver"));
    heading(380, QObject::tr("Where nobody has measured"));
    row("booster_run_out_bar", QObject::tr("Booster runs out at, in front"));
    row("roll_back_mm", QObject::tr("Roll-back of a piston"));
    row("pad_squeeze_mm", QObject::tr("Pad compliance, 70 bar"));
    row("caliper_give_cm3", QObject::tr("Of a caliper or drum"));
    row("rubber_give_cm3", QObject::tr("Of a metre of rubber hose"));
    row("braided_give_cm3", QObject::tr("Of a metre of braided hose"));
    row("shoe_play_mm", QObject::tr("Play of a wheel cylinder"));
    row("day_grip_percent", QObject::tr("Grip from day to day, off by"));
    return sheet;
}

} // namespace deepstop::app
