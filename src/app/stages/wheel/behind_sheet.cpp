#include "stages/wheel/wheel_sheets.hpp"

#include "chapters/clearance/checks.hpp"
#include "chapters/clearance/clearance.hpp"
#include "stages/wheel/corner_drawing.hpp"
#include "stages/bench/part_sheet.hpp"

#include <algorithm>
#include <cmath>

namespace deepstop::app {
namespace {

/// The shield from outboard, whole and as it is to be cut; the window's middle at the caliper's clock position on the car's left.
void addShieldFace(Sheet& sheet, const CornerClearance& r, const Hub& hub, QPointF centre, double scale)
{
    const Theme& t = theme();
    const double whole = *hub.shieldDiameter.value / 2;
    const auto at = [&](double angle, double radius) { return centre + QPointF(std::sin(angle), -std::cos(angle)) * radius * scale; };
    const double clock = r.corner->mount.clock.value.value_or(std::numbers::pi / 2);
    const fit::ShieldCut* cut = r.shieldCut ? &*r.shieldCut : nullptr;
    const double left = cut ? cut->radius.value_or(whole) : whole;
    QPainterPath stays = circle(centre, left * scale);
    QPainterPath window;
    if (cut && cut->windowRadius) {
        QPolygonF opening;
        const double half = cut->halfWidth;
        const auto point = [&](double along, double height) {
            return at(clock, 0) + (at(clock, height) - centre) + (at(clock - std::numbers::pi / 2, along) - centre);
        };
        opening << point(-half, *cut->windowRadius) << point(half, *cut->windowRadius) << point(half, whole + 0.01)
                << point(-half, whole + 0.01);
        window.addPolygon(opening);
        window.closeSubpath();
        stays = stays.subtracted(window);
    }
    sheet.area(circle(centre, whole * scale), { t.found, 1.3, Qt::DashLine, {}, Hatch::None, {}, 0 });
    sheet.area(stays, { cut && (cut->radius || cut->windowRadius) ? t.bad : t.ink, 2, Qt::SolidLine, t.metalWash, Hatch::None, {}, 0 });
    sheet.area(circle(centre, r.drawn.rotor.outerRadius * scale), { t.proposal, 1.1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    sheet.area(circle(centre, r.drawn.hub.flangeRadius * scale), { t.ink, 1.2, Qt::SolidLine, t.paper, Hatch::None, {}, 0 });
}

} // namespace

Sheet behindSheet(const Study& study, Axle axle)
{
    const Theme& t = theme();
    Sheet sheet;
    const CornerClearance& r = study.of<Clearance>().after.at(axle).left;
    sheet.title = axle == Axle::Front ? QObject::tr("Behind the front rotor") : QObject::tr("Behind the rear rotor");
    if (!r.corner)
        return sheet;
    sheet.subtitle =
        QObject::tr("%1 · red: the hot ring, and the line to cut a shield along · crosses: places that stand still").arg(unitNote(study));
    const Hub& hub = hubOf(*study.build, axle);
    const std::string at = axle == Axle::Front ? "/front_hub" : "/rear_hub";
    CornerDrawing drawing(sheet, r);
    drawing.hub();
    drawing.rotor();
    drawing.hotRing(r.hotGrowth);
    drawing.shield(hub);
    drawing.keepOuts(hub);
    double left = -0.075;
    double top = r.drawn.rotor.outerRadius + 0.02;
    for (const KeepOut& place : hub.keepOuts) {
        left = std::min(left, -place.depth.value.value_or(0) - 0.012);
        top = std::max(top, place.radius.value.value_or(0) + 0.012);
    }
    if (hub.shieldDiameter.value)
        top = std::max(top, *hub.shieldDiameter.value / 2 + 0.015);
    const double right = r.drawn.ring + r.drawn.rotor.hatThickness + 0.02;
    sheet.line(QPolygonF { inSection(left, 0), inSection(right, 0) }, { t.ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    const double u = std::max((top + 0.012) * 1000 / 496, (right - left) * 1000 / 316);

    // The shield in section is read here.
    if (hub.shieldDepth.value && hub.shieldDiameter.value) {
        const double plate = -*hub.shieldDepth.value;
        const double edge = *hub.shieldDiameter.value / 2;
        sheet.dimensions.push_back({ at + "/shield_depth_mm", {}, inSection(plate, 0.06), inSection(0, 0.06), Run::Horizontal, -20, false,
            QObject::tr("shield's plate"), 0.5, true });
        sheet.dimensions.push_back(
            { at + "/shield_rim_mm", {}, inSection(plate, edge), inSection(plate + hub.shieldRim.value.value_or(0.01), edge),
                Run::Horizontal, -(edge * 1000 + 6), false, QObject::tr("rim"), -1.2, true });
        sheet.dimensions.push_back({ at + "/shield_diameter_mm", QStringLiteral("Ø "), inSection(plate, 0), inSection(plate, edge),
            Run::Vertical, plate * 1000 - 14, false, QObject::tr("shield"), 0.42, true });
    } else {
        double y = -66;
        for (const auto& [key, caption] : { std::pair { "/shield_diameter_mm", QObject::tr("shield, Ø") },
                 std::pair { "/shield_depth_mm", QObject::tr("shield's plate from the hub face") },
                 std::pair { "/shield_rim_mm", QObject::tr("its rim") } }) {
            sheet.letter({ left * 1000 + 62 * u, y }, caption, 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
            sheet.dimensions.push_back({ at + key, {}, {}, { left * 1000, y }, Run::Table, 0, false, {}, 0.5, true });
            y += 25.5 * u;
        }
    }

    // Places that stand still: a table, each tied to its cross while it is typed.
    const double column = right * 1000 + 18 * u;
    double y = -top * 1000 + 2 * u;
    sheet.letter({ column, y }, QObject::tr("Must not be reached: name, from the hub face inboard, from the axis"), 13, t.ink,
        Qt::AlignLeft | Qt::AlignVCenter, false);
    for (std::size_t i = 0; i <= hub.keepOuts.size(); ++i) {
        const bool there = i < hub.keepOuts.size();
        const std::string key = at + "/keep_outs/" + (there ? std::to_string(i) : std::string("-"));
        y += 27 * u;
        const QPointF place =
            there ? inSection(-hub.keepOuts[i].depth.value.value_or(0), hub.keepOuts[i].radius.value.value_or(0)) : QPointF();
        if (there) {
            sheet.fact(key + "/kind", {}, { column, y - 11 * u }, 84);
            sheet.fact(key + "/name", {}, { column + 90 * u, y - 11 * u }, 168);
        }
        sheet.dimensions.push_back({ key + "/depth_mm", {}, place, { column + 264 * u, y }, Run::Table, 0, false, {}, 0.5, !there,
            there ? QString() : QObject::tr("+ depth") });
        if (there)
            sheet.dimensions.push_back({ key + "/radius_mm", {}, place, { column + 330 * u, y }, Run::Table, 0, false, {}, 0.5 });
    }

    const double faceTop = y + 30 * u;
    const double bottom = 12;
    if (hub.shieldDiameter.value) {
        const double room = std::clamp(bottom - faceTop, 60 * u, 190 * u);
        const double whole = *hub.shieldDiameter.value / 2;
        const double scale = room / 2 / (std::max(whole, r.drawn.rotor.outerRadius) + 0.004);
        const QPointF centre(column + 206 * u + room / 2, faceTop + room / 2);
        addShieldFace(sheet, r, hub, centre, scale);
        double line = faceTop + 14 * u;
        const auto say = [&](const QString& text, const QColor& colour) {
            sheet.letter({ column, line }, text, 12.5, colour, Qt::AlignLeft | Qt::AlignVCenter, false);
            line += 19 * u;
        };
        const auto length = [&](double metres) { return QString::fromStdString(print(metres, style::size, study.system)); };
        say(QObject::tr("Dust shield, from outboard, left side"), t.ink);
        if (r.shieldCut && (r.shieldCut->radius || r.shieldCut->windowRadius)) {
            if (r.shieldCut->radius)
                say(QObject::tr("cut down to Ø %1").arg(length(2 * *r.shieldCut->radius)), t.bad);
            if (r.shieldCut->windowRadius) {
                say(QObject::tr("window %1 wide,").arg(length(2 * r.shieldCut->halfWidth)), t.bad);
                say(QObject::tr("down to %1 from the axis").arg(length(*r.shieldCut->windowRadius)), t.bad);
            }
            say(QObject::tr("Cannot be undone: last of all,"), t.ink);
            say(QObject::tr("when everything else is proven."), t.ink);
        } else {
            say(r.shieldCut ? QObject::tr("nothing has to be cut") : QObject::tr("lacks a reading for a cutting line"), t.mute);
        }
    }

    for (std::size_t i = 0; i < hub.keepOuts.size(); ++i) {
        const auto& room = i < r.keepOuts.size() ? r.keepOuts[i] : std::nullopt;
        const Verdict* v = study.verdict(checks::keepOut, { .axle = axle, .number = static_cast<int>(i) + 1 });
        if (!v || !room)
            continue;
        const QPointF place = inSection(room->onCaliper);
        sheet.callouts.push_back(
            { v->id, v->figure.value ? QString::fromStdString(figure(*v->figure.value, style::gap, study.system)) : QStringLiteral("?"),
                v->level, place, place, place + QPointF(-16, -9) });
    }
    if (const Verdict* v = study.verdict(checks::shield, { axle }); v && hub.shieldDepth.value)
        sheet.callouts.push_back(
            { v->id, v->figure.value ? QString::fromStdString(figure(*v->figure.value, style::gap, study.system)) : QStringLiteral("?"),
                v->level, inSection(-*hub.shieldDepth.value, r.drawn.rotor.outerRadius - 0.012),
                inSection(fit::frictionFaces(r.drawn).inboard, r.drawn.rotor.outerRadius - 0.012),
                inSection(0.0, r.drawn.rotor.outerRadius + 0.008) });
    if (const Verdict* v = study.verdict(checks::hatGap, { axle }))
        sheet.callouts.push_back({ v->id,
            QObject::tr("caliper over hat %1")
                .arg(v->figure.value ? QString::fromStdString(figure(*v->figure.value, style::gap, study.system)) : QStringLiteral("?")),
            v->level, inSection(0, r.drawn.rotor.hatOuterRadius), inSection(0, r.drawn.rotor.hatOuterRadius), inSection(0.034, 0.034) });
    sheet.extent = QRectF(QPointF(left * 1000 - 16 * u, -top * 1000 - 8 * u), QPointF(column + 400 * u, bottom));
    return sheet;
}

} // namespace deepstop::app
