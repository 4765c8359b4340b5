#include "stages/wheel/wheel_sheets.hpp"

#include "chapters/clearance/clearance.hpp"
#include "stages/wheel/corner_drawing.hpp"

#include <QObject>

#include <algorithm>
#include <set>
#include <string>
#include <charconv>
#include <cmath>

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

Sheet wheelSheet(const Study& study, Axle axle)
{
    const Theme& t = theme();
    Sheet sheet;
    const CornerClearance& r = study.of<Clearance>().after.at(axle).left;
    sheet.title = QObject::tr("The wheel, measured");
    if (!r.corner || !r.wheel) {
        sheet.subtitle = QObject::tr("no wheel chosen");
        return sheet;
    }
    const Wheel& wheel = *r.wheel;
    const double face = fit::wheelFace(r.drawn);
    sheet.title += QStringLiteral(" · %1").arg(QString::fromStdString(wheel.name));
    const auto wanted = std::ranges::count(r.stations, false, &fit::PlannedStation::taken);
    sheet.subtitle = unitNote(study) + QStringLiteral(" · ")
        + (r.stations.empty() ? QObject::tr("which stations matter is told when the caliper's outline is read")
                : wanted == 0 ? QObject::tr("every station this caliper needs is taken")
                              : QObject::tr("%n station(s) still to take for this caliper", nullptr, static_cast<int>(wanted)));

    // The wheel as it stands on the corner, with the caliper that asks for it.
    CornerDrawing drawing(sheet, r);
    drawing.wheel();
    drawing.envelope();
    drawing.clash();
    double left = face - 0.10;
    double right = face + 0.055;
    double top = 0.2;
    const double low = r.drawn.hub.pilotRadius - 4e-3;
    for (const geometry::Point p : r.wheelShape.barrel) {
        left = std::min(left, p.z - 0.014);
        right = std::max(right, p.z + 0.03);
        top = std::max(top, p.r + 0.034);
    }
    sheet.line(
        QPolygonF { inSection(face, low - 0.004), inSection(face, top - 0.03) }, { t.ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    sheet.letter(inSection(face - 0.003, low + 0.006), QObject::tr("mounting face"), 12, t.mute, Qt::AlignRight | Qt::AlignVCenter, false);

    // Readings at its right in the order they are taken: depth and radius, radius and distance.
    const std::string at = "/wheels/" + std::to_string(r.wheel - study.build->wheels.data());
    const double height = (top - low) * 1000;
    const double under = 46 + 25.5 * static_cast<double>(wheel.insets.size() + 1);
    const double u = std::max((height + 4) / (496 - under), ((right - left) * 1000 + 8) / 286);
    // Close stations make long lists: their rows move together as far as they can be read.
    std::set<std::string> lines;
    for (const SpokeStation& station : wheel.spokes)
        lines.insert(station.along);
    const double rows = std::max(static_cast<double>(wheel.barrel.size()) + 2,
        static_cast<double>(wheel.spokes.size()) + 2 + 0.7 * static_cast<double>(lines.size()));
    const double rowStep = std::clamp(486 / rows, 23.6, 25.5) * u;
    const double tableTop = -top * 1000 + 4 * u;
    const double column = right * 1000 + 22 * u;
    const double field = 66 * u;
    const auto heading = [&](double x, double y, const QString& text) {
        sheet.letter({ x, y }, text, 13, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
    };
    const auto cell = [&](const std::string& key, double x, double y, QPointF from, const QString& caption = {}, bool mayLack = false) {
        sheet.dimensions.push_back({ at + key, {}, from, { x, y }, Run::Table, 0, false, caption, 0.5, mayLack });
    };
    double y = tableTop;
    heading(column, y, QObject::tr("Barrel: depth, radius"));
    std::vector<std::size_t> order(wheel.barrel.size());
    for (std::size_t i = 0; i < order.size(); ++i)
        order[i] = i;
    // In line with the drawing, inboard first, whatever order they were taken in.
    std::ranges::stable_sort(order, std::greater<> {}, [&](std::size_t i) { return wheel.barrel[i].depth.value.value_or(-1); });
    for (const std::size_t i : order) {
        y += rowStep;
        const BarrelStation& station = wheel.barrel[i];
        const QPointF place = inSection(face - station.depth.value.value_or(0), station.insideRadius.value.value_or(top));
        const std::string key = "/barrel/" + std::to_string(i);
        cell(key + "/depth_mm", column, y, place);
        cell(key + "/inside_radius_mm", column + field, y, place);
        if (station.insideRadius.value && station.depth.value)
            sheet.handles.push_back({ at + key + "/inside_radius_mm", place, { 0, -1 }, 1e-3, 0.1e-3, Known::Estimated });
    }
    y += rowStep;
    cell("/barrel/-/depth_mm", column, y, inSection(face, top));
    sheet.dimensions.back().mayLack = true;
    sheet.dimensions.back().blank = QObject::tr("+ depth");
    const double second = column + 2.5 * field;
    double ySpokes = tableTop;
    heading(second, ySpokes, QObject::tr("Spokes: radius, distance"));
    std::string along;
    for (std::size_t i = 0; i < wheel.spokes.size(); ++i) {
        const SpokeStation& station = wheel.spokes[i];
        if (i == 0 || station.along != along) {
            along = station.along;
            ySpokes += rowStep * 0.7;
            if (!along.empty())
                sheet.letter({ second, ySpokes }, QString::fromStdString(along), 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        }
        ySpokes += rowStep;
        const QPointF place = inSection(face + station.distance.value.value_or(0), station.radius.value.value_or(0.1));
        const std::string key = "/spokes/" + std::to_string(i);
        cell(key + "/radius_mm", second, ySpokes, place);
        cell(key + "/distance_mm", second + field, ySpokes, place);
        if (station.radius.value && station.distance.value)
            sheet.handles.push_back({ at + key + "/distance_mm", place, { 1, 0 }, 1e-3, 0.1e-3, Known::Estimated });
    }
    ySpokes += rowStep;
    cell("/spokes/-/radius_mm", second, ySpokes, inSection(face, low));
    sheet.dimensions.back().mayLack = true;
    sheet.dimensions.back().blank = QObject::tr("+ radius");

    // The wheel itself, at the far right, with the tyre that is on it.
    const double third = second + 2.3 * field;
    double yWheel = tableTop;
    const auto below = [&](const std::string& key, const QString& caption, QPointF from, bool mayLack = false) {
        sheet.letter({ third, yWheel }, caption, 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        cell(key, third, yWheel + 19 * u, from, {}, mayLack);
        yWheel += 42 * u;
    };
    below("/offset_mm", QObject::tr("Offset ET"), inSection(face, low));
    below("/overall_width_mm", QObject::tr("Over flanges"), inSection(left, top), true);
    below("/mass_kg", QObject::tr("With tyre"), inSection(face, low));
    below("/give_mm", QObject::tr("Rim gives"), inSection(left, top), true);
    below("/rolling_radius_mm", QObject::tr("Tyre's rolling radius"), inSection(left, top));
    below("/grip", QObject::tr("Tyre's grip"), inSection(left, top));
    yWheel -= 8 * u;
    sheet.fact(at + "/nominal_diameter", QObject::tr("Printed Ø"), { third, yWheel }, 52);
    sheet.fact(at + "/nominal_width", QObject::tr("Width"), { third + 58 * u, yWheel }, 52);
    yWheel += 44 * u;
    sheet.fact(at + "/balance_weights", QObject::tr("Balance weights"), { third, yWheel }, 110);
    yWheel += 44 * u;
    sheet.fact(at + "/spokes_alike", QObject::tr("Spokes all alike"), { third, yWheel }, 110);

    // What stands into the barrel, under the drawing.
    double yInset = -low * 1000 + 26 * u;
    heading(left * 1000 + 4 * u, yInset, QObject::tr("Inside the barrel: from depth, to depth, height"));
    for (std::size_t i = 0; i <= wheel.insets.size(); ++i) {
        const bool there = i < wheel.insets.size();
        const std::string key = "/insets/" + (there ? std::to_string(i) : std::string("-"));
        yInset += 25.5 * u;
        const double from = there ? wheel.insets[i].from.value.value_or(0) : 0;
        const QPointF place = inSection(face - from, top - 0.03);
        if (!there) {
            cell(key + "/from_mm", left * 1000 + 106 * u, yInset, place, {}, true);
            sheet.dimensions.back().blank = QObject::tr("+ from depth");
            break;
        }
        sheet.fact(at + key + "/kind", QString(), { left * 1000 + 4 * u, yInset - 11 * u }, 100);
        cell(key + "/from_mm", left * 1000 + 106 * u, yInset, place);
        cell(key + "/to_mm", left * 1000 + 170 * u, yInset, place);
        cell(key + "/height_mm", left * 1000 + 234 * u, yInset, place);
    }

    // What the plan still wants, where it wants it.
    for (std::size_t i = 0; i < r.stations.size(); ++i) {
        const fit::PlannedStation& station = r.stations[i];
        if (station.taken)
            continue;
        const bool barrel = station.on == fit::PlannedStation::On::Barrel;
        const double inner = top - 0.032;
        const QPointF place = barrel ? inSection(face - station.place, inner) : inSection(face + 0.034, station.place);
        const auto figureOf = QString::fromStdString(figure(station.place, style::size, study.system));
        sheet.callouts.push_back(
            { stationId(i), barrel ? QObject::tr("read at depth %1").arg(figureOf) : QObject::tr("read at radius %1").arg(figureOf),
                Level::Unproven, place, place, barrel ? place + QPointF(0, -16 * u) : place + QPointF(30 * u, 0) });
    }
    const double bottom = std::max({ yInset + 18 * u, y + 12 * u, ySpokes + 12 * u, yWheel + 40 * u });
    sheet.extent = QRectF(QPointF(left * 1000 - 4, -top * 1000 - 8 * u), QPointF(third + 118 * u, bottom));
    return sheet;
}

} // namespace deepstop::app
