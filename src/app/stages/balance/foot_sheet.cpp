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
#include <utility>

namespace deepstop::app {
namespace {

QPainterPath rounded(double x0, double y0, double x1, double y1, double r)
{
    QPainterPath path;
    path.addRoundedRect(QRectF(QPointF(x0, y0), QPointF(x1, y1)), r, r);
    return path;
}

/// The hydraulics, part by part.
class HydraulicsDrawing {
public:
    HydraulicsDrawing(Sheet sheet, const Study& study) : sheet_(std::move(sheet)), study_(study) { }

    Sheet drawn()
    {
        pedalAndBooster();
        masterCylinder();
        linesAndBrakes();
        pressures();
        fields();
        return std::move(sheet_);
    }

private:
    /// Title, pedal and booster.
    void pedalAndBooster()
    {
        const bool own = study_.after.setup->hydraulics.has_value();
        sheet_.subtitle = own || study_.before.setup == study_.after.setup
            ? QObject::tr("hydraulics of %1 · not to scale").arg(QString::fromStdString(study_.after.setup->name))
            : QObject::tr("hydraulics as found · not to scale");
        const bool boosted = h_.booster != Booster::None && h_.boosterGain.value.value_or(1) > 1;
        // Pedal.
        sheet_.area(rectangle(44, 10, 54, 176), iron_);
        sheet_.area(rectangle(26, 150, 44, 192), { t_.ink, 1.3, Qt::SolidLine, t_.lining, Hatch::None, {}, 0 });
        sheet_.area(circle({ 49, 16 }, 7), { t_.ink, 1.3, Qt::SolidLine, t_.paper, Hatch::None, {}, 0 });
        sheet_.line({ QPointF(54, axis_), QPointF(190, axis_) }, { t_.ink, 2.4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        // Booster.
        if (boosted)
            sheet_.area(rounded(116, axis_ - 56, 172, axis_ + 56, 24), iron_);
        else
            sheet_.area(rounded(116, axis_ - 30, 172, axis_ + 30, 14), { t_.mute, 1, Qt::DotLine, {}, Hatch::None, {}, 0 });
    }

    void masterCylinder()
    {
        if (twins_) {
            sheet_.line({ QPointF(184, axis_ - 34), QPointF(184, axis_ + 34) }, { t_.ink, 4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
            cylinder(axis_ - 34, 1);
            cylinder(axis_ + 34, 1);
        } else {
            cylinder(axis_, 2);
            sheet_.area(rounded(216, axis_ - 52, 306, axis_ - 20, 6), { t_.ink, 1.2, Qt::SolidLine, t_.paper, Hatch::None, {}, 0 });
            sheet_.area(rectangle(218, axis_ - 38, 304, axis_ - 21), fluid_);
        }
    }

    void linesAndBrakes()
    {
        sheet_.line({ QPointF(330, twins_ ? axis_ - 34 : axis_ - 8), QPointF(366, twins_ ? axis_ - 34 : axis_ - 8), QPointF(366, frontY_),
                        QPointF(560, frontY_) },
            line_);
        sheet_.line({ QPointF(330, twins_ ? axis_ + 34 : axis_ + 8), QPointF(366, twins_ ? axis_ + 34 : axis_ + 8), QPointF(366, rearY_),
                        QPointF(560, rearY_) },
            line_);
        if (valve_) {
            sheet_.area(rounded(410, rearY_ - 18, 456, rearY_ + 18, 5), iron_);
            sheet_.line({ QPointF(416, rearY_ + 12), QPointF(432, rearY_ - 4), QPointF(450, rearY_ - 10) },
                { t_.ink, 2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        }
        const auto brake = [&](Axle axle, double y) {
            const Corner& c = *study_.after.at(axle).corner;
            if (c.brakes == BrakeKind::Drums) {
                sheet_.area(circle({ 590, y }, 32), iron_);
                sheet_.area(circle({ 590, y }, 24), { t_.ink, 1.2, Qt::SolidLine, t_.paper, Hatch::None, {}, 0 });
                sheet_.area(rectangle(578, y - 22, 602, y - 12), fluid_);
                return;
            }
            sheet_.area(rectangle(588, y - 34, 596, y + 34), iron_);
            sheet_.area(rounded(562, y - 24, 622, y + 8, 8), { t_.proposal, 1.5, Qt::SolidLine, t_.proposalWash, Hatch::None, {}, 0 });
            const double most = 14;
            double x = 0;
            for (const Reading& bore : c.caliper.pistons) {
                const double high = std::min(most, bore.value.value_or(0.03) * 1000 / 4);
                sheet_.area(rectangle(570, y - 8 - high / 2 + x, 584, y - 8 + high / 2 + x),
                    { t_.ink, 1, Qt::SolidLine, t_.paper, Hatch::None, {}, 0 });
                x += 3;
            }
        };
        brake(Axle::Front, frontY_);
        brake(Axle::Rear, rearY_);
    }

    /// What comes of the foot this driver brakes with.
    void pressures()
    {
        const LoadBalance* alone = now_.find(nullptr);
        if (alone && !alone->curve.empty() && now_.foot && h_.pedalForce.value) {
            const double made = hydraulics::frontPressure(*now_.foot, *h_.pedalForce.value);
            const double rear = alone->brakes->rearPressure(made);
            const auto say = [&](double pressure) { return QString::fromStdString(print(pressure, style::pressure, study_.system)); };
            sheet_.letter({ 380, frontY_ - 10 }, say(made), 14, t_.proposal, Qt::AlignLeft | Qt::AlignBottom);
            sheet_.letter({ 470, rearY_ - 10 }, say(rear), 14, t_.proposal, Qt::AlignLeft | Qt::AlignBottom);
            const auto forces = stopping::brakeForces(*alone->brakes, made);
            for (const auto& [at, force] : { std::pair { frontY_, forces.front }, std::pair { rearY_, forces.rear } }) {
                sheet_.letter({ 640, at - 8 },
                    QObject::tr("%1 at the road").arg(QString::fromStdString(print(force, style::force, study_.system))), 13, t_.ink,
                    Qt::AlignLeft | Qt::AlignVCenter, false);
                sheet_.letter(
                    { 640, at + 8 }, QObject::tr("if the tyres could hold it"), 11, t_.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
            }
        } else if (const Verdict* v = study_.verdict(checks::effort)) {
            sheet_.letter(
                { 380, frontY_ - 10 }, QString::fromStdString(v->reason).left(60), 12, t_.unproven, Qt::AlignLeft | Qt::AlignBottom, false);
        }
    }

    /// Under the drawing, column by column.
    void fields()
    {
        constexpr double first = 226;
        constexpr double step = 46;
        double x = 0;
        double y = first;
        const auto column = [&](double at, const QString& heading) {
            x = at;
            y = first;
            sheet_.letter({ x, y - 6 }, heading, 14, t_.ink, Qt::AlignLeft | Qt::AlignBottom, false);
            sheet_.line({ QPointF(x, y), QPointF(x + 140, y) }, { t_.rule, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
            y += 16;
        };
        const auto value = [&](const std::string& pointer, const QString& what, bool mayLack = false, const QString& blank = {}) {
            sheet_.letter({ x, y }, what, 11, t_.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
            sheet_.dimensions.push_back({ pointer, {}, { x, y + 20 }, { x, y + 20 }, Run::Table, 0, true, {}, 0.5, mayLack, blank });
            y += step;
        };
        const auto fact = [&](const std::string& pointer, const QString& what) {
            sheet_.fact(pointer, what, { x, y - 7 }, 132);
            y += step;
        };
        column(0, QObject::tr("Pedal"));
        value(p_ + "/pedal_force_n", QObject::tr("this driver's pedal force"));
        value(p_ + "/pedal_ratio", QObject::tr("ratio"));
        value(p_ + "/free_play_mm", QObject::tr("free play"));
        value(p_ + "/line_pressure_bar", QObject::tr("front line, read at that force"), true, QObject::tr("no gauge"));
        value(p_ + "/metering_bar", QObject::tr("metering valve opens at"), true);
        column(160, QObject::tr("Booster"));
        fact(p_ + "/booster", QObject::tr("kind"));
        if (h_.booster != Booster::None) {
            value(p_ + "/booster_gain", QObject::tr("gain"));
            fact(p_ + "/booster_test", QObject::tr("pump, hold, start"));
            value(p_ + "/booster_knee_n", QObject::tr("run-out force"));
        }
        value(p_ + "/residual_front_bar", QObject::tr("residual pressure, front line"), true);
        value(p_ + "/residual_rear_bar", QObject::tr("residual pressure, rear line"), true);
        column(320, QObject::tr("Master cylinder"));
        fact(p_ + "/master", QObject::tr("kind"));
        value(p_ + "/master_bore_mm", twins_ ? QObject::tr("front bore") : QObject::tr("bore"));
        if (twins_) {
            value(p_ + "/rear_master_bore_mm", QObject::tr("rear bore"));
            value(p_ + "/bar_front_percent", QObject::tr("bar's share to the front"));
        }
        value(p_ + "/master_stroke_mm", QObject::tr("whole stroke"));
        if (!twins_)
            value(p_ + "/front_stroke_percent", QObject::tr("of it for the front circuit"));
        value(p_ + "/reservoir_cm3", QObject::tr("reservoir, min to max"));
        column(480, QObject::tr("Lines"));
        fact(p_ + "/circuits", QObject::tr("circuits"));
        fact(p_ + "/valve", QObject::tr("valve to the rear"));
        if (valve_ || h_.valve == ValveKind::Unknown) {
            value(p_ + "/rear_knee_bar", QObject::tr("split pressure"), h_.valve == ValveKind::Unknown);
            value(p_ + "/rear_slope", QObject::tr("ratio above it"), h_.valve == ValveKind::Unknown);
        }
        if (h_.valve == ValveKind::LoadDependent)
            value(p_ + "/knee_per_load_bar_per_kn", QObject::tr("split pressure per load"));
        column(636, QObject::tr("Compliance at %1").arg(QString::fromStdString(print(70e5, style::pressure, study_.system))));
        for (const Axle axle : { Axle::Front, Axle::Rear }) {
            const Corner& c = *study_.after.at(axle).corner;
            const std::string at = cornerPointer(study_, study_.after, axle);
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
    }

    /// Master cylinder or twins, each piston where its chamber ends.
    void cylinder(double y, double parts)
    {
        sheet_.area(rectangle(190, y - 20, 330, y + 20), iron_);
        sheet_.area(rectangle(200, y - 12, 322, y + 12), fluid_);
        for (double i = 0; i < parts; ++i)
            sheet_.area(rectangle(204 + i * 58, y - 12, 212 + i * 58, y + 12), iron_);
    }

    Sheet sheet_;
    const Study& study_;
    const Theme& t_ = theme();
    const SetupBalance& now_ = study_.of<Balance>().after;
    const Hydraulics& h_ = *study_.after.hydraulics;
    const std::string p_ = hydraulicsPointer(study_, study_.after);
    const Ink iron_ { t_.ink, 1.3, Qt::SolidLine, t_.metalWash, Hatch::Rising, t_.metal, 7 };
    const Ink fluid_ { t_.ink, 1.1, Qt::SolidLine, t_.proposalWash, Hatch::None, {}, 0 };
    const Ink line_ { t_.proposal, 2.4, Qt::SolidLine, {}, Hatch::None, {}, 0 };
    const double axis_ = 96;
    const bool twins_ = h_.master == MasterKind::Twin;
    // Lines, valve and brakes.
    const double frontY_ = axis_ - 52;
    const double rearY_ = axis_ + 62;
    const bool valve_ = h_.valve != ValveKind::None && (h_.valve != ValveKind::Unknown || h_.rearKneePressure.value);
};

} // namespace

/// From left to right: pedal, booster, master cylinder, valve, and the brakes at both ends of the lines; under each what is entered of it.
Sheet footSheet(const Study& study)
{
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.title = QObject::tr("From pedal to wheels");
    sheet.extent = QRectF(QPointF(-14, -34), QPointF(788, 536));
    if (!study.after.complete()) {
        sheet.subtitle = QObject::tr("both axles are needed");
        return sheet;
    }
    return HydraulicsDrawing(std::move(sheet), study).drawn();
}

Sheet practiceSheet(const Study& study)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.title = QObject::tr("Limits for the pedal");
    sheet.subtitle =
        QObject::tr("and the defaults where nothing was measured, with their spread; at first common practice, without a source");
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
    row("light_effort_n", QObject::tr("Lowest pedal force for 1 g"));
    row("firm_effort_n", QObject::tr("Highest pedal force for 1 g"));
    row("greatest_effort_n", QObject::tr("Strong driver"));
    heading(380, QObject::tr("Defaults, not measured"));
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
