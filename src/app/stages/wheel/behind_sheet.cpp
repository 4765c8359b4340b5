#include "stages/wheel/wheel_sheets.hpp"

#include "chapters/clearance/checks.hpp"
#include "chapters/clearance/clearance.hpp"
#include "figures/figures.hpp"
#include "stages/wheel/corner_drawing.hpp"
#include "stages/bench/part_sheet.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

namespace deepstop::app {
namespace {

/// The shield from outboard, whole and as it is to be cut; the window's middle at the caliper's clock position on the car's left.
void addShieldFace(Sheet& sheet, const CornerClearance& r, double whole, QPointF centre, double scale)
{
    const Theme& t = theme();
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

/// Behind the rotor, part by part.
class BehindDrawing {
public:
    BehindDrawing(Sheet sheet, const Study& study, Axle axle) : sheet_(std::move(sheet)), study_(study), axle_(axle) { }

    Sheet drawn()
    {
        picture();
        shieldSection();
        keepOutTable();
        shieldFace();
        callouts();
        return std::move(sheet_);
    }

private:
    /// Hub, hot ring, shield and what must not be reached.
    void picture()
    {
        CornerDrawing drawing(sheet_, r_);
        drawing.hub();
        drawing.rotor();
        drawing.hotRing(r_.hotGrowth);
        if (r_.corner->shield.state != ShieldState::Removed)
            drawing.shield(figures::shieldOf(*r_.corner, hub_));
        drawing.keepOuts(hub_);
        for (const KeepOut& place : hub_.keepOuts) {
            left_ = std::min(left_, -place.depth.value.value_or(0) - 0.012);
            top_ = std::max(top_, place.radius.value.value_or(0) + 0.012);
        }
        if (hub_.shieldDiameter.value)
            top_ = std::max(top_, *hub_.shieldDiameter.value / 2 + 0.015);
        sheet_.line(QPolygonF { inSection(left_, 0), inSection(right_, 0) }, { t_.ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
        u_ = std::max((top_ + 0.012) * 1000 / 496, (right_ - left_) * 1000 / 316);
    }

    /// The shield in section is read here.
    void shieldSection()
    {
        if (hub_.shieldDepth.value && hub_.shieldDiameter.value) {
            const double plate = -*hub_.shieldDepth.value;
            const double edge = *hub_.shieldDiameter.value / 2;
            sheet_.dimensions.push_back({ at_ + "/shield_depth_mm", {}, inSection(plate, 0.06), inSection(0, 0.06), Run::Horizontal, -20,
                false, QObject::tr("shield's plate"), 0.5, true });
            sheet_.dimensions.push_back(
                { at_ + "/shield_rim_mm", {}, inSection(plate, edge), inSection(plate + hub_.shieldRim.value.value_or(0.01), edge),
                    Run::Horizontal, -(edge * 1000 + 6), false, QObject::tr("rim"), -1.2, true });
            sheet_.dimensions.push_back({ at_ + "/shield_diameter_mm", QStringLiteral("Ø "), inSection(plate, 0), inSection(plate, edge),
                Run::Vertical, plate * 1000 - 14, false, QObject::tr("shield"), 0.42, true });
        } else {
            double y = -66;
            for (const auto& [key, caption] : { std::pair { "/shield_diameter_mm", QObject::tr("shield, Ø") },
                     std::pair { "/shield_depth_mm", QObject::tr("shield's plate from the hub face") },
                     std::pair { "/shield_rim_mm", QObject::tr("its rim") } }) {
                sheet_.letter({ left_ * 1000 + 62 * u_, y }, caption, 12, t_.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
                sheet_.dimensions.push_back({ at_ + key, {}, {}, { left_ * 1000, y }, Run::Table, 0, false, {}, 0.5, true });
                y += 25.5 * u_;
            }
        }
    }

    /// Places that stand still: a table, each tied to its cross while it is typed.
    void keepOutTable()
    {
        column_ = right_ * 1000 + 18 * u_;
        y_ = -top_ * 1000 + 2 * u_;
        sheet_.letter({ column_, y_ }, QObject::tr("Must not be reached: from the hub face inboard, from the axis, angle"), 13, t_.ink,
            Qt::AlignLeft | Qt::AlignVCenter, false);
        for (std::size_t i = 0; i <= hub_.keepOuts.size(); ++i) {
            const bool there = i < hub_.keepOuts.size();
            const std::string key = at_ + "/keep_outs/" + (there ? std::to_string(i) : std::string("-"));
            y_ += 27 * u_;
            const QPointF place =
                there ? inSection(-hub_.keepOuts[i].depth.value.value_or(0), hub_.keepOuts[i].radius.value.value_or(0)) : QPointF();
            if (there) {
                sheet_.fact(key + "/kind", {}, { column_, y_ - 11 * u_ }, 84);
                sheet_.fact(key + "/name", {}, { column_ + 90 * u_, y_ - 11 * u_ }, 160);
            }
            sheet_.dimensions.push_back({ key + "/depth_mm", {}, place, { column_ + 264 * u_, y_ }, Run::Table, 0, false, {}, 0.5, !there,
                there ? QString() : QObject::tr("+ depth") });
            if (there)
                for (const auto& [field, x, lack] : { std::tuple { "/radius_mm", 330.0, false }, std::tuple { "/clock_deg", 394.0, true } })
                    sheet_.dimensions.push_back(
                        { key + field, {}, place, { column_ + x * u_, y_ }, Run::Table, 0, lack, {}, 0.5, lack, QObject::tr("any") });
        }
        y_ += 18 * u_;
        sheet_.fact(at_ + "/shield_in_the_way", QObject::tr("Shield keeps rotor or bracket from going on"), { column_, y_ }, 250);
        y_ += 42 * u_;
        shieldPart();
    }

    /// What this setup does with the shield.
    void shieldPart()
    {
        const ShieldPart& part = r_.corner->shield;
        const std::string at = cornerPointer(study_, study_.after, axle_) + "/dust_shield";
        sheet_.fact(at + "/state", QObject::tr("Shield in this setup"), { column_, y_ }, 130);
        sheet_.fact(at + "/plate_lies", QObject::tr("Its plate lies"), { column_ + 138 * u_, y_ }, 184);
        if (part.state == ShieldState::Removed || part.state == ShieldState::Replaced)
            sheet_.fact(at + "/spot_welds_drilled", QObject::tr("Welds drilled out"), { column_ + 330 * u_, y_ }, 104);
        y_ += 42 * u_;
        double x = column_;
        const auto cell = [&](const std::string& key, const QString& caption, double wide) {
            sheet_.letter({ x, y_ }, caption, 12, t_.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
            sheet_.dimensions.push_back({ key, {}, {}, { x, y_ + 18 * u_ }, Run::Table, 0, false, {}, 0.5, true, QStringLiteral("–") });
            x += wide * u_;
        };
        if (part.state == ShieldState::Trimmed || part.state == ShieldState::Replaced) {
            cell(at + "/diameter_mm", QObject::tr("now Ø"), 62);
            cell(at + "/depth_mm", QObject::tr("its plate"), 66);
            cell(at + "/rim_mm", QObject::tr("its rim"), 62);
        }
        if (part.lies == PlateLies::KnuckleAndHub || part.lies == PlateLies::FlangeAndRotor)
            cell(at + "/plate_mm", QObject::tr("plate thick"), 78);
        cell(at_ + "/shield_rib_mm", QObject::tr("its rib"), 62);
        cell(cornerPointer(study_, study_.after, axle_) + "/rotor/inboard_lip_mm", QObject::tr("rotor's lip"), 76);
        if (part.lies == PlateLies::KnuckleAndHub)
            sheet_.fact(at + "/read_with", QObject::tr("Hub and slot read with it so"), { x, y_ - 8 * u_ }, 140);
        y_ += 34 * u_;
    }

    /// The dust shield from outboard, and where it is cut.
    void shieldFace()
    {
        const double faceTop = y_ + 30 * u_;
        const Reading& diameter = *figures::shieldOf(*r_.corner, hub_).diameter;
        if (diameter.value && r_.corner->shield.state != ShieldState::Removed) {
            const double room = std::clamp(bottom_ - faceTop, 60 * u_, 190 * u_);
            const double whole = *diameter.value / 2;
            const double scale = room / 2 / (std::max(whole, r_.drawn.rotor.outerRadius) + 0.004);
            const QPointF centre(column_ + 206 * u_ + room / 2, faceTop + room / 2);
            addShieldFace(sheet_, r_, whole, centre, scale);
            double line = faceTop + 14 * u_;
            const auto say = [&](const QString& text, const QColor& colour) {
                sheet_.letter({ column_, line }, text, 12.5, colour, Qt::AlignLeft | Qt::AlignVCenter, false);
                line += 19 * u_;
            };
            const auto length = [&](double metres) { return QString::fromStdString(print(metres, style::size, study_.system)); };
            say(QObject::tr("Dust shield, from outboard, left side"), t_.ink);
            if (r_.shieldCut && (r_.shieldCut->radius || r_.shieldCut->windowRadius)) {
                if (r_.shieldCut->radius)
                    say(QObject::tr("cut down to Ø %1").arg(length(2 * *r_.shieldCut->radius)), t_.bad);
                if (r_.shieldCut->windowRadius) {
                    say(QObject::tr("window %1 wide,").arg(length(2 * r_.shieldCut->halfWidth)), t_.bad);
                    say(QObject::tr("down to %1 from the axis").arg(length(*r_.shieldCut->windowRadius)), t_.bad);
                }
                say(QObject::tr("Cannot be undone: last of all,"), t_.ink);
                say(QObject::tr("when everything else is proven."), t_.ink);
            } else {
                say(r_.shieldCut ? QObject::tr("nothing has to be cut") : QObject::tr("lacks a reading for a cutting line"), t_.mute);
            }
        }
    }

    /// Verdicts, where they are seen.
    void callouts()
    {
        for (std::size_t i = 0; i < hub_.keepOuts.size(); ++i) {
            const auto& room = i < r_.keepOuts.size() ? r_.keepOuts[i] : std::nullopt;
            const Verdict* v = study_.verdict(checks::keepOut, { .axle = axle_, .number = static_cast<int>(i) + 1 });
            if (!v || !room)
                continue;
            const QPointF place = inSection(room->onCaliper);
            sheet_.callouts.push_back({ v->id,
                v->figure.value ? QString::fromStdString(figure(*v->figure.value, style::gap, study_.system)) : QStringLiteral("?"),
                v->level, place, place, place + QPointF(-16, -9) });
        }
        for (std::size_t i = 0; i < hub_.keepOuts.size(); ++i) {
            const KeepOut& place = hub_.keepOuts[i];
            const Verdict* v = study_.verdict(checks::fixedParts, { .axle = axle_, .number = static_cast<int>(i) + 1 });
            if (!v || !place.depth.value || !place.radius.value || isFine(v->level))
                continue;
            const QPointF at = inSection(-*place.depth.value, *place.radius.value);
            sheet_.callouts.push_back({ v->id,
                QObject::tr("to caliper %1")
                    .arg(v->figure.value ? QString::fromStdString(figure(*v->figure.value, style::gap, study_.system))
                                         : QStringLiteral("?")),
                v->level, at, at, at + QPointF(-22, 9) });
        }
        if (const Verdict* v = study_.verdict(checks::relief, { axle_ }))
            sheet_.callouts.push_back({ v->id, QObject::tr("metal in the bracket"), v->level, inSection(left_ + 0.02, 0.02),
                inSection(left_ + 0.02, 0.02), inSection(left_ + 0.02, 0.02) });
        if (const Verdict* v = study_.verdict(checks::shieldPlate, { axle_ }))
            sheet_.callouts.push_back({ v->id, QObject::tr("shield's plate"), v->level, inSection(0, 0.055), inSection(0, 0.055),
                inSection(left_ + 0.03, 0.055) });
        if (const Verdict* v = study_.verdict(checks::shield, { axle_ }); v && hub_.shieldDepth.value)
            sheet_.callouts.push_back({ v->id,
                v->figure.value ? QString::fromStdString(figure(*v->figure.value, style::gap, study_.system)) : QStringLiteral("?"),
                v->level, inSection(-*hub_.shieldDepth.value, r_.drawn.rotor.outerRadius - 0.012),
                inSection(fit::frictionFaces(r_.drawn).inboard, r_.drawn.rotor.outerRadius - 0.012),
                inSection(0.0, r_.drawn.rotor.outerRadius + 0.008) });
        if (const Verdict* v = study_.verdict(checks::hatGap, { axle_ }))
            sheet_.callouts.push_back({ v->id,
                QObject::tr("caliper over hat %1")
                    .arg(v->figure.value ? QString::fromStdString(figure(*v->figure.value, style::gap, study_.system))
                                         : QStringLiteral("?")),
                v->level, inSection(0, r_.drawn.rotor.hatOuterRadius), inSection(0, r_.drawn.rotor.hatOuterRadius),
                inSection(-0.016, 0.014) });
        sheet_.extent =
            QRectF(QPointF(left_ * 1000 - 16 * u_, -top_ * 1000 - 8 * u_), QPointF(column_ + 452 * u_, std::max(bottom_, y_ + 8 * u_)));
    }

    Sheet sheet_;
    const Study& study_;
    const Axle axle_;
    const Theme& t_ = theme();
    const CornerClearance& r_ = study_.of<Clearance>().after.at(axle_).left;
    const Hub& hub_ = hubOf(*study_.build, axle_);
    const std::string at_ = axle_ == Axle::Front ? "/front_hub" : "/rear_hub";
    double left_ = -0.075;
    double top_ = r_.drawn.rotor.outerRadius + 0.02;
    const double right_ = r_.drawn.ring + r_.drawn.rotor.hatThickness + 0.02;
    double u_ = 0;
    double column_ = 0;
    double y_ = 0;
    const double bottom_ = 12;
};

} // namespace

Sheet behindSheet(const Study& study, Axle axle)
{
    Sheet sheet;
    const CornerClearance& r = study.of<Clearance>().after.at(axle).left;
    sheet.title = axle == Axle::Front ? QObject::tr("Behind the front rotor") : QObject::tr("Behind the rear rotor");
    if (!r.corner)
        return sheet;
    sheet.subtitle =
        QObject::tr("%1 · red: the hot ring, and the line to cut a shield along · crosses: places that stand still").arg(unitNote(study));
    return BehindDrawing(std::move(sheet), study, axle).drawn();
}

} // namespace deepstop::app
