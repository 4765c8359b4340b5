#include "stages/hardware/hardware_sheets.hpp"

#include "chapters/clearance/clearance.hpp"
#include "chapters/joints/checks.hpp"
#include "joints/bolts.hpp"
#include "stages/bench/part_sheet.hpp"

namespace deepstop::app {
namespace {

/// One joint cut along its bolt, head to the left: grip, shims, thread, and what lies behind. Millimetres, to scale, `y` its middle.
void addJoint(Sheet& sheet, const Joint& joint, double shims, const QColor& ink, QPointF at, double scale)
{
    const Theme& t = theme();
    const auto mm = [](const Reading& reading, double otherwise) { return reading.value.value_or(otherwise) * 1000; };
    const auto thread = joints::parseThread(*joint.thread);
    const double d = (thread ? thread->diameter : 10e-3) * 1000;
    const double pitch = (thread ? thread->pitch : 1.5e-3) * 1000;
    const double grip = mm(joint.grip, 14e-3);
    const double depth = mm(joint.threadDepth, 16e-3);
    const double length = mm(joint.length, 30e-3);
    const double behind = mm(joint.roomBehind, 0);
    const auto box = [&](double x0, double x1, double y0, double y1) {
        return rectangle(at.x() + x0 * scale, at.y() + y0 * scale, at.x() + x1 * scale, at.y() + y1 * scale);
    };
    const auto style = [](const Reading& reading) { return reading.value ? Qt::SolidLine : Qt::DashLine; };
    const double high = d * 1.15;
    for (const double side : { -1.0, 1.0 }) {
        sheet.area(
            box(0, grip, side * d / 2, side * high), { t.proposal, 1.3, style(joint.grip), t.proposalWash, Hatch::Falling, t.proposal, 6 });
        if (shims > 0)
            sheet.area(box(grip, grip + shims, side * d / 2, side * high), { t.ink, 1, Qt::SolidLine, t.lining, Hatch::None, {}, 0 });
        const bool nut = joint.nut == NutKind::Plain || joint.nut == NutKind::NylonInsert || joint.nut == NutKind::AllMetal;
        const bool washer = joint.washers == WashersUnder::Nut || joint.washers == WashersUnder::Both;
        sheet.area(box(grip + shims, grip + shims + depth, side * d / 2, side * (nut ? d * 0.85 : high)),
            { t.ink, 1.2, style(joint.threadDepth), nut ? t.raised : t.metalWash, Hatch::Rising, t.metal, 7 });
        if (nut && washer)
            sheet.area(
                box(grip + shims - 2, grip + shims, side * d / 2, side * d), { t.ink, 1, Qt::SolidLine, t.lining, Hatch::None, {}, 0 });
        // The part of a lock nut that grips.
        if (nut && joint.nutHeight.value && mm(joint.nutHeight, 0) > depth)
            sheet.area(box(grip + shims + depth, grip + shims + mm(joint.nutHeight, 0), side * d / 2, side * d * 0.75),
                { t.ink, 1.2, Qt::SolidLine, t.lining, Hatch::Dense, t.ink, 4 });
    }
    // A blind hole has a bottom; behind a through hole stands whatever must not be struck.
    const double end = grip + shims + depth + behind;
    const bool open = joint.nut != NutKind::Unknown && joint.nut != NutKind::None;
    if (open && !joint.roomBehind.value) {
        // Nothing is known of what stands behind a nut.
    } else if (joint.roomBehind.value)
        sheet.area(box(end, end + 3, -high, high), { t.ink, 1.2, Qt::SolidLine, t.metalWash, Hatch::Dense, t.ink, 5 });
    else
        sheet.area(box(end, end + 3, -high, high), { t.ink, 1.2, Qt::SolidLine, t.metalWash, Hatch::Rising, t.metal, 7 });
    sheet.area(box(-d * 0.65, 0, -d * 0.85, d * 0.85), { t.ink, 1.3, Qt::SolidLine, t.raised, Hatch::None, {}, 0 });
    sheet.area(box(0, length, -d / 2, d / 2), { ink, 1.4, style(joint.length), t.raised, Hatch::None, {}, 0 });
    for (double x = std::max(grip * 0.7, length - depth - 8); x < length - pitch; x += pitch)
        sheet.line(QPolygonF { at + QPointF(x, -d / 2) * scale, at + QPointF(x + pitch / 2, d / 2) * scale },
            { t.metal, 0.7, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    sheet.line(QPolygonF { at + QPointF(-d * 0.9, 0) * scale, at + QPointF(std::max(length, end) + 4, 0) * scale },
        { t.ink, 0.8, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
}

/// Heads in their circle or row, numbered in the order they are tightened.
void addOrder(Sheet& sheet, int bolts, QPointF centre, double radius)
{
    const Theme& t = theme();
    const auto order = joints::tighteningOrder(bolts);
    for (std::size_t i = 0; i < order.size(); ++i) {
        const double angle = 2 * std::numbers::pi * order[i] / bolts - std::numbers::pi / 2;
        const QPointF at = centre + QPointF(std::cos(angle), std::sin(angle)) * radius;
        sheet.area(circle(at, radius * std::min(0.42, 1.9 / bolts)), { t.ink, 1, Qt::SolidLine, t.raised, Hatch::None, {}, 0 });
        sheet.letter(at, QString::number(i + 1), bolts > 6 ? 8.5 : 10.5, t.ink);
    }
}

/// What a check says of one joint.
struct JointVerdict {
    const Study& study;
    Axle axle;
    int number;

    const Verdict* operator()(const Check& check) const { return study.verdict(check, { .axle = axle, .number = number }); }
};

/// The joint cut along its bolt, and the order of tightening.
void addPicture(Sheet& sheet, const Corner& corner, const Joint& joint, const JointVerdict& verdict, double y)
{
    const Theme& t = theme();
    double shims = 0;
    for (const Fitted* in : { &corner.left, &corner.right })
        for (const Reading* stack : { joint.shims == ShimsIn::Radial ? &in->radialTop : &in->shimTop,
                 joint.shims == ShimsIn::Radial ? &in->radialBottom : &in->shimBottom })
            if (joint.shims == ShimsIn::Axial || joint.shims == ShimsIn::Radial)
                shims = std::max(shims, stack->value.value_or(0) * 1000);
    // The bolt has the colour of what the checks of its length say, at worst.
    const auto bad = [&](const Check& check) { return verdict(check) && isBad(verdict(check)->level); };
    addJoint(sheet, joint, shims, bad(checks::jointEnd) || bad(checks::jointThread) || bad(checks::jointShank) ? t.bad : t.ink,
        { 26, y + 52 }, 2.0);
    if (joint.bolts > 1)
        addOrder(sheet, joint.bolts, { 158, y + 46 }, joint.bolts > 4 ? 29 : 17);
}

void addFields(Sheet& sheet, const Joint& joint, const std::string& key, double y)
{
    const Theme& t = theme();
    constexpr double fields = 196;
    double x = fields;
    double line = y;
    const auto fact = [&](const char* field, const QString& caption, double width) {
        sheet.fact(key + field, caption, { x, line }, width);
        x += width + 6;
    };
    fact("/name", QObject::tr("Joint"), 104);
    fact("/joins", QObject::tr("It holds"), 74);
    fact("/bolts", QObject::tr("Bolts"), 42);
    fact("/thread", QObject::tr("Thread"), 66);
    fact("/class", QObject::tr("Class"), 60);
    fact("/condition", QObject::tr("Threads are"), 100);
    fact("/thread_in", QObject::tr("Thread in"), 80);
    x = fields;
    double row = y + 62;
    const auto cell = [&](const char* field, const QString& caption, bool unit = false, bool mayLack = false, const QString& blank = {}) {
        sheet.letter({ x, row - 15 }, caption, 11, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.dimensions.push_back({ key + field, {}, {}, { x, row + 4 }, Run::Table, 0, unit, {}, 0.5, mayLack, blank });
        x += 76;
    };
    cell("/length_mm", QObject::tr("bolt"));
    cell("/shank_mm", QObject::tr("its shank"));
    cell("/grip_mm", QObject::tr("grip"));
    cell("/thread_depth_mm", QObject::tr("thread"));
    cell("/room_behind_mm", QObject::tr("behind"), false, true, QObject::tr("blind"));
    cell("/maker_torque_nm", QObject::tr("maker's torque"), true, true, QStringLiteral("–"));
    x += 14;
    cell("/mount_radius_mm", QObject::tr("from axis"), false, true, QStringLiteral("–"));
    x = fields;
    line = y + 81;
    fact("/shims", QObject::tr("Shims in the grip"), 96);
    fact("/torque_for", QObject::tr("Torque is for"), 96);
    fact("/faces", QObject::tr("Clamped faces"), 156);
    fact("/under_head", QObject::tr("Heads bear on"), 86);
    fact("/hard_washers", QObject::tr("Hard washers"), 80);
    if (joint.underHead != ThreadIn::Steel && joint.underHead != ThreadIn::Iron && joint.hardWashers != YesNo::Yes) {
        sheet.letter({ 118, y + 93 }, QObject::tr("heads bear Ø"), 11, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.dimensions.push_back({ key + "/head_diameter_mm", {}, {}, { 146, y + 111 }, Run::Table, 0, false, {}, 0.5 });
    }
    sheet.fact(key + "/car_makers", QObject::tr("Car maker's own"), { 26, y + 88 }, 84);
    x = fields;
    line = y + 118;
    fact("/fastener", QObject::tr("Bolts or studs"), 74);
    fact("/nut", QObject::tr("Nut"), 150);
    fact("/washers", QObject::tr("Washers"), 132);
    const bool locks = joint.nut == NutKind::NylonInsert || joint.nut == NutKind::AllMetal;
    if (locks || joint.nut == NutKind::Plain) {
        fact("/nut_class", QObject::tr("Its class"), 62);
        fact("/under_nut", QObject::tr("It bears on"), 78);
    }
    if (locks)
        fact("/nut_single_use", QObject::tr("Single use"), 66);
    x = fields;
    row = y + 174;
    if (joint.boltClass == BoltClass::Other)
        cell("/proof_stress_mpa", QObject::tr("proof stress"), true);
    if (locks) {
        cell("/nut_height_mm", QObject::tr("nut, overall"));
        cell("/running_torque_nm", QObject::tr("running torque"), true);
        x += 20;
        sheet.fact(key + "/times_used", QObject::tr("Done up before"), { x, y + 158 }, 90);
    }
}

/// Sheet units of one joint; one unit is one pixel in the smallest window. A lock nut and a class of its own want a line more.
double heightOf(const Joint& joint)
{
    const bool more = joint.boltClass == BoltClass::Other || joint.nut == NutKind::NylonInsert || joint.nut == NutKind::AllMetal;
    return more ? 232 : 190;
}

/// Its checks in one row.
void addVerdicts(Sheet& sheet, UnitSystem system, const JointVerdict& verdict, double y)
{
    double wish = 60;
    for (const auto& [check, text] : { std::pair { &checks::jointThread, QObject::tr("thread") },
             std::pair { &checks::jointEnd, QObject::tr("end") }, std::pair { &checks::jointShank, QObject::tr("shank") },
             std::pair { &checks::jointTorque, QObject::tr("torque") }, std::pair { &checks::jointHead, QObject::tr("head") },
             std::pair { &checks::jointNut, QObject::tr("nut") }, std::pair { &checks::jointSlip, QObject::tr("slip") } })
        if (const Verdict* v = verdict(*check)) {
            const auto said = v->figure.value ? QStringLiteral(" ")
                    + QString::fromStdString(v->style.dimension == Dimension::Torque ? print(*v->figure.value, v->style, system)
                                                                                     : figure(*v->figure.value, v->style, system))
                                              : QString();
            sheet.callouts.push_back({ v->id, text + said, v->level, { wish, y }, { wish, y }, { wish, y } });
            wish += check == &checks::jointTorque ? 124 : 104;
        }
}

} // namespace

Sheet jointSheet(const Study& study, Axle axle)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.title = axle == Axle::Front ? QObject::tr("Front bolts") : QObject::tr("Rear bolts");
    sheet.scaleBar = false;
    const CornerClearance& r = study.of<Clearance>().after.at(axle).left;
    if (!r.corner)
        return sheet;
    sheet.title += QStringLiteral(" · %1").arg(QString::fromStdString(study.after.setup->name));
    sheet.subtitle = QObject::tr(
        "%1 · each cut along its bolt, to one scale · numbers: order of tightening · the maker's torque outranks a computed one")
                         .arg(unitNote(study));
    const std::string at = cornerPointer(study, study.after, axle);
    const auto& joints = r.corner->joints;
    double y = 0;
    for (std::size_t i = 0; i <= joints.size(); ++i) {
        const bool there = i < joints.size();
        const std::string key = at + "/joints/" + (there ? std::to_string(i) : std::string("-"));
        if (!there) {
            sheet.fact(key + "/name", joints.empty() ? QObject::tr("First joint: its name") : QObject::tr("Another joint"), { 0, y }, 200);
            break;
        }
        const Joint& joint = joints[i];
        const JointVerdict verdict { study, axle, static_cast<int>(i) + 1 };
        addPicture(sheet, *r.corner, joint, verdict, y);
        addFields(sheet, joint, key, y);
        const double step = heightOf(joint);
        addVerdicts(sheet, study.system, verdict, y + step - 17);
        y += step;
        sheet.line(QPolygonF { QPointF(0, y - 4), QPointF(762, y - 4) }, { t.rule, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    }
    sheet.extent = QRectF(QPointF(-4, -6), QPointF(768, std::max(502.0, y + 40)));
    return sheet;
}

} // namespace deepstop::app
