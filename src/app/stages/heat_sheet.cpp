#include "stages/sheets.hpp"

#include "chapters/heat/heat_chapter.hpp"
#include "chapters/clearance/clearance.hpp"
#include "drawing/shapes.hpp"
#include "theme.hpp"

#include <QObject>

#include <algorithm>
#include <cmath>
#include <utility>

namespace deepstop::app {
namespace {

QPainterPath halfRing(QPointF centre, double outer, double inner, bool rightHalf)
{
    QPainterPath path;
    const double start = rightHalf ? -90 : 90;
    path.arcMoveTo(QRectF(centre - QPointF(outer, outer), QSizeF(2 * outer, 2 * outer)), start);
    path.arcTo(QRectF(centre - QPointF(outer, outer), QSizeF(2 * outer, 2 * outer)), start, 180);
    path.arcTo(QRectF(centre - QPointF(inner, inner), QSizeF(2 * inner, 2 * inner)), start + 180, -180);
    path.closeSubpath();
    return path;
}

/// Rings before and after and what one stop does to them, part by part.
class HeatDrawing {
public:
    HeatDrawing(Sheet sheet, const Study& study, Axle axle) : sheet_(std::move(sheet)), study_(study), axle_(axle) { }

    Sheet drawn()
    {
        faces();
        sections();
        rises();
        dimensions();
        return std::move(sheet_);
    }

private:
    /// The faces, half as found and half as proposed.
    void faces()
    {
        sheet_.subtitle = two_ ? QStringLiteral("%1 %2 · %3 %4 · %5")
                                     .arg(QObject::tr("left half:"), QString::fromStdString(study_.before.setup->name),
                                         QObject::tr("right half:"), QString::fromStdString(study_.after.setup->name), unitNote(study_))
                               : unitNote(study_);
        const QPointF o(0, 0);
        // The face, half as found and half as proposed.
        sheet_.area(halfRing(o, a_.outerRadius * 1000, a_.ringInnerRadius * 1000, false),
            { t_.found, 1.6, Qt::DashLine, t_.metalWash, Hatch::None, {}, 0 });
        sheet_.area(halfRing(o, b_.outerRadius * 1000, b_.ringInnerRadius * 1000, true),
            { t_.proposal, 2, Qt::SolidLine, t_.proposalWash, Hatch::None, {}, 0 });
        sheet_.area(
            halfRing(o, a_.hatOuterRadius * 1000, a_.boreRadius * 1000, false), { t_.found, 1.2, Qt::DashLine, {}, Hatch::None, {}, 0 });
        sheet_.area(halfRing(o, b_.hatOuterRadius * 1000, b_.boreRadius * 1000, true),
            { t_.ink, 1.3, Qt::SolidLine, t_.metalWash, Hatch::Rising, t_.metal, 8 });
        sheet_.line(QPolygonF { QPointF(0, -R_ - 14), QPointF(0, R_ + 14) }, { t_.ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
        sheet_.line(QPolygonF { QPointF(-R_ - 14, 0), QPointF(R_ + 14, 0) }, { t_.ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    }

    /// Both rings cut through, at the same scale.
    void sections()
    {
        const auto section = [&](const fit::RotorShape& r, double x, const Ink& ink) {
            const double half = r.thickness * 500;
            const double top = -r.outerRadius * 1000;
            const double low = -r.ringInnerRadius * 1000;
            if (r.ventGap > 0 && r.ventGap < r.thickness) {
                const double gap = r.ventGap * 500;
                sheet_.area(rectangle(QRectF(QPointF(x - gap, top + 4), QPointF(x + gap, low - 4))),
                    { ink.stroke, 0.8, Qt::SolidLine, t_.paper, Hatch::None, {}, 0 });
                sheet_.area(rectangle(QRectF(QPointF(x - half, top), QPointF(x - gap, low))), ink);
                sheet_.area(rectangle(QRectF(QPointF(x + gap, top), QPointF(x + half, low))), ink);
            } else {
                sheet_.area(rectangle(QRectF(QPointF(x - half, top), QPointF(x + half, low))), ink);
            }
        };
        section(a_, sectionX_, { t_.found, 1.5, Qt::DashLine, t_.metalWash, Hatch::Falling, t_.found, 7 });
        if (two_)
            section(b_, sectionX_ + 130, { t_.proposal, 1.8, Qt::SolidLine, t_.proposalWash, Hatch::Falling, t_.proposal, 6 });
    }

    void rises()
    {
        const double highest = 2 * R_;
        const double largest =
            std::max({ heat_.before.at(axle_).stopRise.value.value_or(0), heat_.after.at(axle_).stopRise.value.value_or(0), 60.0 });
        const double scale = largest <= 100 ? 100
            : largest <= 200                ? 200
            : largest <= 400                ? 400
            : largest <= 800                ? 800
                                            : std::ceil(largest / 500) * 500;
        const auto y = [&](double kelvin) { return zero_ - kelvin / scale * highest; };
        for (int i = 0; i <= 4; ++i) {
            const double kelvin = scale * i / 4;
            sheet_.line(QPolygonF { QPointF(barX_ - 14, y(kelvin)), QPointF(barX_ + 190, y(kelvin)) },
                { t_.rule, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
            sheet_.letter({ barX_ - 22, y(kelvin) }, QString::fromStdString(figure(kelvin, style::rise, study_.system)), 12, t_.mute,
                Qt::AlignRight | Qt::AlignVCenter);
        }
        sheet_.letter({ barX_ - 22, y(scale) - 26 }, QString::fromUtf8(style::rise.unit(study_.system).symbol.data()), 12, t_.mute,
            Qt::AlignRight | Qt::AlignVCenter);
        const auto bar = [&](const Figure& rise, double x, const Ink& ink, const QString& name) {
            sheet_.letter({ x + 30, zero_ + 20 }, name, 12, t_.mute);
            if (!rise.value) {
                sheet_.letter({ x + 30, zero_ - 24 }, QStringLiteral("?"), 18, t_.unproven);
                return;
            }
            sheet_.area(rectangle(QRectF(QPointF(x, y(*rise.value)), QPointF(x + 60, zero_))), ink);
            sheet_.letter({ x + 30, y(*rise.value) - 18 }, QString::fromStdString(printChange(*rise.value, style::rise, study_.system)), 15,
                ink.stroke);
        };
        bar(heat_.before.at(axle_).stopRise, barX_ + 10, { t_.found, 1.5, Qt::SolidLine, t_.paper, Hatch::Rising, t_.found, 6 },
            QObject::tr("before"));
        if (two_)
            bar(heat_.after.at(axle_).stopRise, barX_ + 110,
                { t_.proposal, 1.8, Qt::SolidLine, t_.proposalWash, Hatch::Dense, t_.proposal, 7 }, QObject::tr("after"));
    }

    void dimensions()
    {
        sheet_.extent = QRectF(QPointF(-R_ - 95, -R_ - 40), QPointF(barX_ + 230, R_ + 52));
        const auto corner = cornerPointer(study_, study_.after, axle_);
        const double right = b_.outerRadius * 1000;
        sheet_.dimensions.push_back({ corner + "/rotor/outer_diameter_mm", QStringLiteral("Ø "),
            { right * std::cos(-0.8), right * std::sin(-0.8) }, { right * 0.72 + 66, -right * 0.86 }, Run::Leader, 0, false, {}, 0.5 });
        sheet_.dimensions.push_back({ corner + "/rotor/ring_inner_diameter_mm", QStringLiteral("Ø "),
            { b_.ringInnerRadius * 1000 * std::cos(0.75), b_.ringInnerRadius * 1000 * std::sin(0.75) }, { right * 0.72 + 66, right * 0.86 },
            Run::Leader, 0, false, {}, 0.5 });
        sheet_.dimensions.push_back({ corner + "/rotor/thickness_mm", {}, { newX_ - b_.thickness * 500, -right },
            { newX_ + b_.thickness * 500, -right }, Run::Horizontal, -right - 22, false, {}, 0.5 });
        sheet_.dimensions.push_back({ corner + "/rotor/vent_gap_mm", {}, { newX_ - b_.ventGap * 500, -b_.ringInnerRadius * 1000 },
            { newX_ + b_.ventGap * 500, -b_.ringInnerRadius * 1000 }, Run::Horizontal, -b_.ringInnerRadius * 1000 + 30, false,
            QObject::tr("vent"), 0.5 });
        sheet_.dimensions.push_back({ corner + "/rotor/vane_share_percent", {}, { newX_, -(b_.ringInnerRadius + b_.outerRadius) * 500 },
            { newX_ + 10, 0.05 * R_ }, Run::Leader, 0, true, QObject::tr("vanes"), 0.5, b_.ventGap == 0 });
        sheet_.dimensions.push_back({ "/car/test_speed_kmh", {}, { barX_ + 150, zero_ - 40 }, { newX_ + 20, zero_ - 20 }, Run::Leader, 0,
            true, QObject::tr("one stop from"), 0.5 });
    }

    Sheet sheet_;
    const Study& study_;
    const Axle axle_;
    const Theme& t_ = theme();
    const Heat& heat_ = study_.of<Heat>();
    const CornerClearance& after_ = study_.of<Clearance>().after.at(axle_).left;
    const CornerClearance& before_ = study_.of<Clearance>().before.at(axle_).left;
    const bool two_ = study_.before.setup != study_.after.setup;
    const fit::RotorShape& a_ = before_.drawn.rotor;
    const fit::RotorShape& b_ = after_.drawn.rotor;
    const double R_ = std::max(a_.outerRadius, b_.outerRadius) * 1000;
    // Both rings cut through, at the same scale.
    const double sectionX_ = R_ + 150;
    const double newX_ = two_ ? sectionX_ + 130 : sectionX_;
    // Thermometers: rise of one ring in one stop, 1 mm of paper for 1 K.
    const double barX_ = newX_ + 190;
    const double zero_ = R_;
};

} // namespace

Sheet heatSheet(const Study& study, Axle axle)
{
    Sheet sheet;
    const CornerClearance& after = study.of<Clearance>().after.at(axle).left;
    const CornerClearance& before = study.of<Clearance>().before.at(axle).left;
    sheet.title = axle == Axle::Front ? QObject::tr("Front rings and what one stop does to them")
                                      : QObject::tr("Rear rings and what one stop does to them");
    if (!after.corner || !before.corner)
        return sheet;
    return HeatDrawing(std::move(sheet), study, axle).drawn();
}

} // namespace deepstop::app
