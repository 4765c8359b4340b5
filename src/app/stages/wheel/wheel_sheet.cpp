#include "stages/wheel/wheel_sheets.hpp"

#include "chapters/clearance/clearance.hpp"
#include "stages/wheel/corner_drawing.hpp"

#include <QObject>

#include <algorithm>
#include <set>
#include <string>
#include <charconv>
#include <cmath>
#include <utility>

namespace deepstop::app {
namespace {

constexpr std::string_view stationMark = "station:";

} // namespace

std::string stationId(std::size_t index) { return std::string(stationMark) + std::to_string(index); }

std::optional<std::size_t> stationOf(const std::string& id)
{
    std::size_t index = 0;
    if (!id.starts_with(stationMark))
        return {};
    const auto read = std::from_chars(id.data() + stationMark.size(), id.data() + id.size(), index);
    return read.ec == std::errc {} && read.ptr == id.data() + id.size() ? std::optional(index) : std::nullopt;
}

namespace {

/// The wheel as measured, part by part.
class WheelDrawing {
public:
    WheelDrawing(Sheet sheet, const Study& study, Axle axle) : sheet_(std::move(sheet)), study_(study), axle_(axle) { }

    Sheet drawn()
    {
        heading();
        section();
        layOut();
        barrelTable();
        spokeTable();
        wheelFields();
        insetTable();
        stationsLeft();
        return std::move(sheet_);
    }

private:
    /// Which wheel, and how much of it is still to be read.
    void heading()
    {
        sheet_.title += QStringLiteral(" · %1").arg(QString::fromStdString(wheel_.name));
        const auto wanted = std::ranges::count(r_.stations, false, &fit::PlannedStation::taken);
        sheet_.subtitle = unitNote(study_) + QStringLiteral(" · ")
            + (r_.stations.empty() ? QObject::tr("which stations matter is told when the caliper's outline is read")
                    : wanted == 0  ? QObject::tr("every station this caliper needs is taken")
                                   : QObject::tr("%n station(s) still to take for this caliper", nullptr, static_cast<int>(wanted)));
    }

    /// The wheel as it stands on the corner, with the caliper that asks for it.
    void section()
    {
        CornerDrawing drawing(sheet_, r_);
        drawing.wheel();
        drawing.envelope();
        drawing.clash();
        for (const geometry::Point p : r_.wheelShape.barrel) {
            left_ = std::min(left_, p.z - 0.014);
            right_ = std::max(right_, p.z + 0.03);
            top_ = std::max(top_, p.r + 0.034);
        }
        sheet_.line(QPolygonF { inSection(face_, low_ - 0.004), inSection(face_, top_ - 0.03) },
            { t_.ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
        sheet_.letter(
            inSection(face_ - 0.003, low_ + 0.006), QObject::tr("mounting face"), 12, t_.mute, Qt::AlignRight | Qt::AlignVCenter, false);
    }

    void layOut()
    {
        const double under = 46 + 25.5 * static_cast<double>(wheel_.insets.size() + 1);
        u_ = std::max((height_ + 4) / (496 - under), ((right_ - left_) * 1000 + 8) / 286);
        // Close stations make long lists: their rows move together as far as they can be read.
        std::set<std::string> lines;
        for (const SpokeStation& station : wheel_.spokes)
            lines.insert(station.along);
        const double rows = std::max(static_cast<double>(wheel_.barrel.size()) + 2,
            static_cast<double>(wheel_.spokes.size()) + 2 + 0.7 * static_cast<double>(lines.size()));
        rowStep_ = std::clamp(486 / rows, 23.6, 25.5) * u_;
        tableTop_ = -top_ * 1000 + 4 * u_;
        column_ = right_ * 1000 + 22 * u_;
        field_ = 66 * u_;
    }

    /// Stations of the barrel.
    void barrelTable()
    {
        y_ = tableTop_;
        heading(column_, y_, QObject::tr("Barrel: depth, radius"));
        std::vector<std::size_t> order(wheel_.barrel.size());
        for (std::size_t i = 0; i < order.size(); ++i)
            order[i] = i;
        // In line with the drawing, inboard first, whatever order they were taken in.
        std::ranges::stable_sort(order, std::greater<> {}, [&](std::size_t i) { return wheel_.barrel[i].depth.value.value_or(-1); });
        for (const std::size_t i : order) {
            y_ += rowStep_;
            const BarrelStation& station = wheel_.barrel[i];
            const QPointF place = inSection(face_ - station.depth.value.value_or(0), station.insideRadius.value.value_or(top_));
            const std::string key = "/barrel/" + std::to_string(i);
            cell(key + "/depth_mm", column_, y_, place);
            cell(key + "/inside_radius_mm", column_ + field_, y_, place);
            if (station.insideRadius.value && station.depth.value)
                sheet_.handles.push_back({ at_ + key + "/inside_radius_mm", place, { 0, -1 }, 1e-3, 0.1e-3, Known::Estimated });
        }
        y_ += rowStep_;
        cell("/barrel/-/depth_mm", column_, y_, inSection(face_, top_));
        sheet_.dimensions.back().mayLack = true;
        sheet_.dimensions.back().blank = QObject::tr("+ depth");
    }

    /// Stations of the spokes, line by line.
    void spokeTable()
    {
        second_ = column_ + 2.5 * field_;
        ySpokes_ = tableTop_;
        heading(second_, ySpokes_, QObject::tr("Spokes: radius, distance"));
        std::string along;
        for (std::size_t i = 0; i < wheel_.spokes.size(); ++i) {
            const SpokeStation& station = wheel_.spokes[i];
            if (i == 0 || station.along != along) {
                along = station.along;
                ySpokes_ += rowStep_ * 0.7;
                if (!along.empty())
                    sheet_.letter(
                        { second_, ySpokes_ }, QString::fromStdString(along), 12, t_.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
            }
            ySpokes_ += rowStep_;
            const QPointF place = inSection(face_ + station.distance.value.value_or(0), station.radius.value.value_or(0.1));
            const std::string key = "/spokes/" + std::to_string(i);
            cell(key + "/radius_mm", second_, ySpokes_, place);
            cell(key + "/distance_mm", second_ + field_, ySpokes_, place);
            if (station.radius.value && station.distance.value)
                sheet_.handles.push_back({ at_ + key + "/distance_mm", place, { 1, 0 }, 1e-3, 0.1e-3, Known::Estimated });
        }
        ySpokes_ += rowStep_;
        cell("/spokes/-/radius_mm", second_, ySpokes_, inSection(face_, low_));
        sheet_.dimensions.back().mayLack = true;
        sheet_.dimensions.back().blank = QObject::tr("+ radius");
    }

    /// The wheel itself, at the far right, with the tyre that is on it.
    void wheelFields()
    {
        third_ = second_ + 2.3 * field_;
        yWheel_ = tableTop_;
        const auto below = [&](const std::string& key, const QString& caption, QPointF from, bool mayLack = false) {
            sheet_.letter({ third_, yWheel_ }, caption, 12, t_.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
            cell(key, third_, yWheel_ + 19 * u_, from, {}, mayLack);
            yWheel_ += 42 * u_;
        };
        below("/offset_mm", QObject::tr("Offset ET"), inSection(face_, low_));
        below("/overall_width_mm", QObject::tr("Over flanges"), inSection(left_, top_), true);
        below("/mass_kg", QObject::tr("With tyre"), inSection(face_, low_));
        below("/give_mm", QObject::tr("Rim gives"), inSection(left_, top_), true);
        below("/rolling_radius_mm", QObject::tr("Tyre's rolling radius"), inSection(left_, top_));
        below("/grip", QObject::tr("Tyre's grip"), inSection(left_, top_));
        yWheel_ -= 8 * u_;
        sheet_.fact(at_ + "/nominal_diameter", QObject::tr("Printed Ø"), { third_, yWheel_ }, 52);
        sheet_.fact(at_ + "/nominal_width", QObject::tr("Width"), { third_ + 58 * u_, yWheel_ }, 52);
        yWheel_ += 44 * u_;
        sheet_.fact(at_ + "/balance_weights", QObject::tr("Balance weights"), { third_, yWheel_ }, 110);
        yWheel_ += 44 * u_;
        sheet_.fact(at_ + "/spokes_alike", QObject::tr("Spokes all alike"), { third_, yWheel_ }, 110);
    }

    /// What stands into the barrel, under the drawing.
    void insetTable()
    {
        yInset_ = -low_ * 1000 + 26 * u_;
        heading(left_ * 1000 + 4 * u_, yInset_, QObject::tr("Inside the barrel: from depth, to depth, height"));
        for (std::size_t i = 0; i <= wheel_.insets.size(); ++i) {
            const bool there = i < wheel_.insets.size();
            const std::string key = "/insets/" + (there ? std::to_string(i) : std::string("-"));
            yInset_ += 25.5 * u_;
            const double from = there ? wheel_.insets[i].from.value.value_or(0) : 0;
            const QPointF place = inSection(face_ - from, top_ - 0.03);
            if (!there) {
                cell(key + "/from_mm", left_ * 1000 + 106 * u_, yInset_, place, {}, true);
                sheet_.dimensions.back().blank = QObject::tr("+ from depth");
                break;
            }
            sheet_.fact(at_ + key + "/kind", QString(), { left_ * 1000 + 4 * u_, yInset_ - 11 * u_ }, 100);
            cell(key + "/from_mm", left_ * 1000 + 106 * u_, yInset_, place);
            cell(key + "/to_mm", left_ * 1000 + 170 * u_, yInset_, place);
            cell(key + "/height_mm", left_ * 1000 + 234 * u_, yInset_, place);
        }
    }

    /// What the plan still wants, where it wants it.
    void stationsLeft()
    {
        for (std::size_t i = 0; i < r_.stations.size(); ++i) {
            const fit::PlannedStation& station = r_.stations[i];
            if (station.taken)
                continue;
            const bool barrel = station.on == fit::PlannedStation::On::Barrel;
            const double inner = top_ - 0.032;
            const QPointF place = barrel ? inSection(face_ - station.place, inner) : inSection(face_ + 0.034, station.place);
            const auto figureOf = QString::fromStdString(figure(station.place, style::size, study_.system));
            sheet_.callouts.push_back(
                { stationId(i), barrel ? QObject::tr("read at depth %1").arg(figureOf) : QObject::tr("read at radius %1").arg(figureOf),
                    Level::Unproven, place, place, barrel ? place + QPointF(0, -16 * u_) : place + QPointF(30 * u_, 0) });
        }
        const double bottom = std::max({ yInset_ + 18 * u_, y_ + 12 * u_, ySpokes_ + 12 * u_, yWheel_ + 40 * u_ });
        sheet_.extent = QRectF(QPointF(left_ * 1000 - 4, -top_ * 1000 - 8 * u_), QPointF(third_ + 118 * u_, bottom));
    }

    void heading(double x, double y, const QString& text)
    {
        sheet_.letter({ x, y }, text, 13, t_.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
    }

    void cell(const std::string& key, double x, double y, QPointF from, const QString& caption = {}, bool mayLack = false)
    {
        sheet_.dimensions.push_back({ at_ + key, {}, from, { x, y }, Run::Table, 0, false, caption, 0.5, mayLack });
    }

    Sheet sheet_;
    const Study& study_;
    const Axle axle_;
    const Theme& t_ = theme();
    const CornerClearance& r_ = study_.of<Clearance>().after.at(axle_).left;
    const Wheel& wheel_ = *r_.wheel;
    const double face_ = fit::wheelFace(r_.drawn);
    double left_ = face_ - 0.10;
    double right_ = face_ + 0.055;
    double top_ = 0.2;
    const double low_ = r_.drawn.hub.pilotRadius - 4e-3;
    // Readings at its right in the order they are taken: depth and radius, radius and distance.
    const std::string at_ = "/wheels/" + std::to_string(r_.wheel - study_.build->wheels.data());
    const double height_ = (top_ - low_) * 1000;
    double u_ = 0;
    double rowStep_ = 0;
    double tableTop_ = 0;
    double column_ = 0;
    double field_ = 0;
    double y_ = 0;
    double second_ = 0;
    double ySpokes_ = 0;
    double third_ = 0;
    double yWheel_ = 0;
    double yInset_ = 0;
};

} // namespace

Sheet wheelSheet(const Study& study, Axle axle)
{
    Sheet sheet;
    const CornerClearance& r = study.of<Clearance>().after.at(axle).left;
    sheet.title = QObject::tr("The wheel, measured");
    if (!r.corner || !r.wheel) {
        sheet.subtitle = QObject::tr("no wheel chosen");
        return sheet;
    }
    return WheelDrawing(std::move(sheet), study, axle).drawn();
}

} // namespace deepstop::app
