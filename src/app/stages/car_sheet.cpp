#include "stages/sheets.hpp"

#include "chapters/clearance/clearance.hpp"
#include "drawing/shapes.hpp"
#include "theme.hpp"

#include <QObject>

#include <cmath>
#include <utility>

namespace deepstop::app {
namespace {

/// A body over two axles: front axle at x = 0, heights from the ground, proportions of a small estate. Only an aid to the eye.
QPainterPath silhouette(double wheelbase, double roof)
{
    const auto p = [&](double x, double y) { return QPointF(x * wheelbase, -y * roof); };
    QPainterPath body(p(-0.30, 0.16));
    body.cubicTo(p(-0.335, 0.22), p(-0.335, 0.36), p(-0.305, 0.42));
    body.cubicTo(p(-0.27, 0.49), p(-0.10, 0.545), p(0.02, 0.57));
    body.cubicTo(p(0.08, 0.585), p(0.16, 0.60), p(0.20, 0.615));
    body.cubicTo(p(0.30, 0.75), p(0.40, 0.92), p(0.47, 0.965));
    body.cubicTo(p(0.60, 1.01), p(0.92, 1.01), p(1.10, 0.955));
    body.cubicTo(p(1.14, 0.94), p(1.16, 0.92), p(1.175, 0.88));
    body.lineTo(p(1.255, 0.60));
    body.cubicTo(p(1.275, 0.52), p(1.285, 0.32), p(1.265, 0.18));
    body.closeSubpath();
    return body;
}

/// Its side windows and the line of its doors.
QPainterPath glass(double wheelbase, double roof)
{
    const auto p = [&](double x, double y) { return QPointF(x * wheelbase, -y * roof); };
    QPainterPath path(p(0.29, 0.63));
    path.cubicTo(p(0.36, 0.74), p(0.43, 0.87), p(0.49, 0.91));
    path.lineTo(p(0.62, 0.935));
    path.lineTo(p(0.62, 0.63));
    path.closeSubpath();
    path.moveTo(p(0.645, 0.63));
    path.lineTo(p(0.645, 0.937));
    path.cubicTo(p(0.78, 0.945), p(0.95, 0.935), p(1.08, 0.90));
    path.lineTo(p(1.165, 0.63));
    path.closeSubpath();
    return path;
}

void drawArrowUp(Sheet& sheet, QPointF foot, double length, const QColor& colour)
{
    const double head = 55;
    QPainterPath path;
    path.addRect(QRectF(foot.x() - 14, foot.y() - 0, 28, length - head));
    path.moveTo(foot.x(), foot.y() - head);
    path.lineTo(foot.x() + 42, foot.y() + 6);
    path.lineTo(foot.x() - 42, foot.y() + 6);
    path.closeSubpath();
    sheet.area(path, { {}, 0, Qt::NoPen, colour, Hatch::None, {}, 0 });
}

/// The car from its side, part by part.
class CarDrawing {
public:
    CarDrawing(Sheet sheet, const Study& study) : sheet_(std::move(sheet)), study_(study) { }

    Sheet drawn()
    {
        heading();
        body();
        axleLoads();
        readings();
        pedal();
        return std::move(sheet_);
    }

private:
    /// Name, note and extent.
    void heading()
    {
        sheet_.title = QString::fromStdString(car_.name.empty() ? "The car" : car_.name);
        sheet_.subtitle = car_.note.empty() ? unitNote(study_) : QString::fromStdString(car_.note);
        sheet_.extent = QRectF(QPointF(-0.55 * wheelbase_, -std::max(roof_, 1100.0) - 1500), QPointF(1.5 * wheelbase_, 620));
    }

    /// Outline, road, wheels and rotors.
    void body()
    {
        sheet_.area(
            silhouette(wheelbase_, roof_), { t_.mute, 1.4, known_ ? Qt::SolidLine : Qt::DashLine, t_.metalWash, Hatch::None, {}, 0 });
        sheet_.area(glass(wheelbase_, roof_), { t_.mute, 1, Qt::SolidLine, t_.paper, Hatch::None, {}, 0 });
        sheet_.line(QPolygonF { QPointF(-0.5 * wheelbase_, 0), QPointF(1.45 * wheelbase_, 0) },
            { t_.ink, 1.6, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        for (const auto& [x, radius, axle] :
            { std::tuple { 0.0, frontRadius_, Axle::Front }, std::tuple { wheelbase_, rearRadius_, Axle::Rear } }) {
            const QPointF hub(x, -radius);
            sheet_.area(circle(hub, radius), { t_.ink, 1.6, Qt::SolidLine, t_.paper, Hatch::Dense, t_.metal, 6 });
            sheet_.area(circle(hub, radius * 0.70), { t_.ink, 1.1, Qt::SolidLine, t_.paper, Hatch::None, {}, 0 });
            const CornerClearance& after = study_.of<Clearance>().after.at(axle).left;
            const CornerClearance& before = study_.of<Clearance>().before.at(axle).left;
            if (after.corner)
                sheet_.area(circle(hub, after.drawn.rotor.outerRadius * 1000),
                    { t_.proposal, 1.8, Qt::SolidLine, t_.proposalWash, Hatch::None, {}, 0 });
            if (before.corner && study_.before.setup != study_.after.setup)
                sheet_.area(circle(hub, before.drawn.rotor.outerRadius * 1000), { t_.found, 1.3, Qt::DashLine, {}, Hatch::None, {}, 0 });
            sheet_.area(circle(hub, 30), { t_.ink, 1, Qt::SolidLine, t_.ink, Hatch::None, {}, 0 });
        }
    }

    /// Loads on the axles: at rest, and at the hardest braking where it is known.
    void axleLoads()
    {
        const double perLoad = 760;
        const double frontLoad = share_;
        drawArrowUp(sheet_, { 0, 40 }, perLoad * frontLoad, t_.mute);
        drawArrowUp(sheet_, { wheelbase_, 40 }, perLoad * (1 - frontLoad), t_.mute);
        const double dot = 62;
        sheet_.area(circle(mass_, dot), { t_.ink, 1.5, Qt::SolidLine, t_.paper, Hatch::None, {}, 0 });
        for (const double from : { 0.0, 180.0 }) {
            QPainterPath quarter(mass_);
            quarter.arcTo(QRectF(mass_ - QPointF(dot, dot), QSizeF(2 * dot, 2 * dot)), from, 90);
            quarter.closeSubpath();
            sheet_.area(quarter, { {}, 0, Qt::NoPen, t_.ink, Hatch::None, {}, 0 });
        }
    }

    /// What is read of the car.
    void readings()
    {
        leader("/car/mass_kg", mass_, { mass_.x() + 420, mass_.y() - 260 }, QObject::tr("with driver"));
        sheet_.dimensions.push_back({ "/car/wheelbase_mm", {}, { 0, -frontRadius_ }, { wheelbase_, -rearRadius_ }, Run::Horizontal, 520,
            true, QObject::tr("wheelbase"), 0.5 });
        sheet_.dimensions.push_back({ "/car/centre_of_mass_height_mm", {}, { mass_.x(), -height_ }, { mass_.x(), 0 }, Run::Vertical,
            mass_.x() - 330, true, {}, 0.5 });
        leader("/car/front_load_percent", { 0, 120 }, { -0.30 * wheelbase_, 330 }, QObject::tr("of the weight in front"));
        const Wheel* front = study_.before.front.wheel;
        if (front) {
            sheet_.dimensions.push_back({ wheelPointer(study_, *front) + "/rolling_radius_mm", {}, { 0, -frontRadius_ }, { 0, 0 },
                Run::Vertical, -0.40 * wheelbase_, true, front == rear_ ? QObject::tr("all four tyres") : QString(), 0.5 });
            if (front == rear_)
                leader(wheelPointer(study_, *front) + "/grip", { wheelbase_, 0 }, { 1.18 * wheelbase_, 300 }, QObject::tr("tyre grip"));
            else
                leader(wheelPointer(study_, *front) + "/grip", { 0, 0 }, { 0.16 * wheelbase_, 250 }, QObject::tr("front tyres' grip"));
        } else {
            sheet_.letter({ -0.30 * wheelbase_, -frontRadius_ }, QObject::tr("tyres: choose a wheel under Wheel clearance"), 12,
                t_.unproven, Qt::AlignCenter, false);
        }
        if (rear_ && rear_ != front) {
            sheet_.dimensions.push_back({ wheelPointer(study_, *rear_) + "/rolling_radius_mm", {}, { wheelbase_, -rearRadius_ },
                { wheelbase_, 0 }, Run::Vertical, 1.385 * wheelbase_, true, {}, 0.5 });
            leader(wheelPointer(study_, *rear_) + "/grip", { wheelbase_, 0 }, { 1.18 * wheelbase_, 300 }, QObject::tr("rear tyres' grip"));
        }
        leader("/car/drag_area_m2", { -0.30 * wheelbase_, -0.44 * roof_ }, { -0.34 * wheelbase_, -0.78 * roof_ },
            QObject::tr("drag area, m²"));
        leader(
            "/car/test_speed_kmh", { 0.31 * wheelbase_, -0.78 * roof_ }, { 0.06 * wheelbase_, -1.0 * roof_ }, QObject::tr("to stop from"));
    }

    /// The pedal, drawn five times as large as the car.
    void pedal()
    {
        const Hydraulics& h = *study_.before.hydraulics;
        const auto hydraulics = hydraulicsPointer(study_, study_.before);
        const double k = 5;
        const QPointF pivot(0.36 * wheelbase_, sheet_.extent.top() + 60);
        const double lever = 230 * k;
        const double ratio = h.pedalRatio.value.value_or(4);
        const QPointF pad = pivot + QPointF(0, lever);
        const QPointF rod = pivot + QPointF(0, lever / std::max(1.2, ratio));
        const double bore = h.masterBore.value.value_or(0.0206) * 1000 * k;
        const Ink iron { t_.ink, 1.4, Qt::SolidLine, t_.metalWash, Hatch::Rising, t_.metal, 7 };
        QPainterPath arm;
        arm.addRect(QRectF(pivot.x() - 22, pivot.y() - 50, 44, lever + 50));
        sheet_.area(arm, iron);
        QPainterPath foot;
        foot.addRect(QRectF(pad.x() - 60, pad.y() - 110, 45, 170));
        sheet_.area(foot, { t_.ink, 1.4, Qt::SolidLine, t_.lining, Hatch::None, {}, 0 });
        const double boosterEnd = rod.x() + 480;
        if (h.boosterGain.value.value_or(1) > 1) {
            QPainterPath booster;
            booster.addRoundedRect(QRectF(rod.x() + 190, rod.y() - 300, 260, 600), 90, 90);
            sheet_.area(booster, iron);
        }
        sheet_.line(QPolygonF { rod, QPointF(boosterEnd, rod.y()) }, { t_.ink, 2.4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        QPainterPath cylinder;
        cylinder.addRect(QRectF(boosterEnd, rod.y() - bore / 2 - 36, 760, bore + 72));
        sheet_.area(cylinder, iron);
        QPainterPath inside;
        inside.addRect(QRectF(boosterEnd + 70, rod.y() - bore / 2, 640, bore));
        sheet_.area(inside, { t_.ink, 1, Qt::SolidLine, t_.proposalWash, Hatch::None, {}, 0 });
        sheet_.area(circle(pivot, 40), { t_.ink, 1.4, Qt::SolidLine, t_.paper, Hatch::None, {}, 0 });
        leader(hydraulics + "/pedal_force_n", pad + QPointF(-60, -15), pad + QPointF(-400, 30), QObject::tr("pedal"));
        leader(hydraulics + "/pedal_ratio", rod, rod + QPointF(-450, 40), QObject::tr("pedal ratio"));
        leader(
            hydraulics + "/booster_gain", { rod.x() + 320, rod.y() + 240 }, { rod.x() + 330, rod.y() + 420 }, QObject::tr("booster gain"));
        sheet_.dimensions.push_back({ hydraulics + "/master_bore_mm", QStringLiteral("Ø "), { boosterEnd + 700, rod.y() - bore / 2 },
            { boosterEnd + 700, rod.y() + bore / 2 }, Run::Vertical, boosterEnd + 860, true, {}, -1.6 });
        leader(hydraulics + "/rear_knee_bar", { boosterEnd + 560, rod.y() + bore / 2 + 36 }, { boosterEnd + 560, rod.y() + 280 },
            QObject::tr("rear valve: split pressure"));
        leader(hydraulics + "/rear_slope", { boosterEnd + 560, rod.y() + bore / 2 + 36 }, { boosterEnd + 560, rod.y() + 470 },
            QObject::tr("and slope"));
    }

    /// Its tyres are those of the wheels it came on.
    double tyreOf(const AxleParts& axle) { return axle.wheel ? axle.wheel->rollingRadius.value.value_or(0.31) * 1000 : 310; }

    void leader(const std::string& pointer, QPointF from, QPointF to, const QString& caption)
    {
        sheet_.dimensions.push_back({ pointer, {}, from, to, Run::Leader, 0, true, caption, 0.5 });
    }

    Sheet sheet_;
    const Study& study_;
    const Theme& t_ = theme();
    const Car& car_ = study_.build->car;
    // What is not measured yet is drawn at a usual size, dashed; the field says that it is missing.
    const double wheelbase_ = car_.wheelbase.value.value_or(2.6) * 1000;
    const double height_ = car_.centreOfMassHeight.value.value_or(0.52) * 1000;
    const double share_ = car_.frontLoadShare.value.value_or(0.5);
    const double frontRadius_ = tyreOf(study_.before.front);
    const double rearRadius_ = tyreOf(study_.before.rear);
    const double roof_ = 2.62 * height_;
    const bool known_ = car_.wheelbase.value && car_.centreOfMassHeight.value;
    const QPointF mass_ = QPointF(wheelbase_ * (1 - share_), -height_);
    const Wheel* rear_ = study_.before.rear.wheel;
};

} // namespace

Sheet carSheet(const Study& study)
{
    Sheet sheet;
    return CarDrawing(std::move(sheet), study).drawn();
}

} // namespace deepstop::app
