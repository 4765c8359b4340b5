#include "stages/balance/balance_sheets.hpp"

#include "chapters/balance/balance_chapter.hpp"
#include "chapters/balance/checks.hpp"
#include "drawing/plot.hpp"
#include "stages/sheets.hpp"
#include "theme.hpp"

#include <QObject>

#include <algorithm>
#include <cmath>

namespace deepstop::app {
namespace {

QPolygonF splitsOf(const std::vector<stopping::Split>& line)
{
    QPolygonF points;
    for (const auto& p : line)
        points << QPointF(p.front, p.rear);
    return points;
}

QPolygonF lineOf(const LoadBalance& balance)
{
    QPolygonF points;
    for (const BalancePoint& p : balance.curve)
        points << QPointF(p.front, p.rear);
    return points;
}

QString says(double z, UnitSystem system) { return QString::fromStdString(print(z * standardGravity, style::deceleration, system)); }

/// Tyres that grip less and more than those that are on.
constexpr double lessGrip = 0.6;
constexpr double moreGrip = 1.2;

} // namespace

void drawWhatLacks(Sheet& sheet, const Study& study, const Verdict* verdict)
{
    sheet.subtitle = QObject::tr("both axles are needed");
    if (!verdict)
        return;
    sheet.subtitle = QString::fromStdString(verdict->reason);
    double y = 40;
    sheet.letter({ 0, y - 30 }, QObject::tr("Still to be read:"), 14, theme().ink, Qt::AlignLeft | Qt::AlignVCenter, false);
    for (const ReadingId reading : verdict->figure.lacks)
        if (const Address* address = study.directory->of(reading)) {
            sheet.letter({ 0, y }, QString::fromStdString(address->full()), 13, theme().unproven, Qt::AlignLeft | Qt::AlignVCenter, false);
            sheet.dimensions.push_back({ address->pointer, {}, { 330, y }, { 330, y }, Run::Table, 0, true, {}, 0.5 });
            y += 34;
        }
    for (const auto& words : verdict->lacksInWords) {
        sheet.letter({ 0, y }, QString::fromStdString(words), 13, theme().unproven, Qt::AlignLeft | Qt::AlignVCenter, false);
        y += 34;
    }
}

const Verdict* lockOrderOf(const Study& study, std::size_t load)
{
    return study.verdict(checks::lockOrder, { .number = static_cast<int>(load) });
}

Sheet splitSheet(const Study& study, std::size_t load)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.title = QObject::tr("Which axle locks first");
    sheet.extent = QRectF(QPointF(-66, -40), QPointF(724, 506));
    const Balance& balance = study.of<Balance>();
    const LoadBalance* now = balance.after.at(load);
    if (!now || now->curve.empty()) {
        drawWhatLacks(sheet, study, lockOrderOf(study, load));
        return sheet;
    }
    const bool two = study.before.setup != study.after.setup;
    const LoadBalance* was = two ? balance.before.at(load) : nullptr;
    sheet.subtitle = two ? QObject::tr("%1 · dashed: %2 · %3")
                               .arg(QString::fromStdString(study.after.setup->name), QString::fromStdString(study.before.setup->name),
                                   QString::fromStdString(now->name))
                         : QObject::tr("%1 · %2").arg(QString::fromStdString(study.after.setup->name), QString::fromStdString(now->name));

    const double grip = std::max(now->brakes->front.grip, now->brakes->rear.grip);
    const auto ideal = stopping::idealLine(*now->car, moreGrip * grip * 1.15);
    double highest = 0.1;
    for (const auto& p : ideal)
        highest = std::max(highest, p.rear);
    for (const LoadBalance* each : { now, was })
        if (each && each->frontLocks)
            highest = std::max(highest, each->frontLocks->rear * 1.2);
    const double widest = now->frontLocks ? now->frontLocks->front : ideal.back().front;
    Plot plot(sheet, QRectF(0, 0, 700, 450), { Plot::roundUp(std::max(widest, ideal.back().front) * 1.02), Plot::roundUp(highest * 1.25) });
    // Over the ideal line the rear locks first.
    QPolygonF danger = splitsOf(ideal);
    danger << QPointF(2, ideal.back().rear) << QPointF(2, 2) << QPointF(0, 2);
    QColor wash = t.bad;
    wash.setAlphaF(t.dark ? 0.13F : 0.07F);
    plot.area(danger, { {}, 0, Qt::NoPen, wash, Hatch::None, {}, 0 });
    plot.axes(QObject::tr("braking of the front axle over the car's weight"), QObject::tr("of the rear axle over the car's weight"), 1, 2);

    const Ink even { t.mute, 0.9, Qt::DotLine, {}, Hatch::None, {}, 0 };
    const double right = plot.box().right();
    for (const double z : { 0.2, 0.4, 0.6, 0.8, 1.0, 1.2 }) {
        plot.curve({ QPointF(0, z), QPointF(z, 0) }, even);
        const QPointF foot = plot.at(z, 0);
        if (foot.x() < right - 40)
            sheet.letter(foot + QPointF(5, -9), says(z, study.system), 11, t.mute, Qt::AlignLeft | Qt::AlignVCenter);
    }
    // What the tyres hold: as they are, less, and more.
    for (const double factor : { lessGrip, 1.0, moreGrip }) {
        const bool asRead = factor == 1.0;
        const Ink limit { asRead ? t.ink : t.mute, asRead ? 1.3 : 1.0, asRead ? Qt::DashDotLine : Qt::DashLine, {}, Hatch::None, {}, 0 };
        const double frontGrip = factor * now->brakes->front.grip;
        const double rearGrip = factor * now->brakes->rear.grip;
        const double meet = (frontGrip + rearGrip) / 2 * 1.02;
        const auto upTo = [&](std::vector<stopping::Split> line, bool front) {
            // As far as the other axle has not locked long before.
            if (line.size() == 2) {
                const double end = front
                    ? meet * (1 - stopping::idealFrontShare(*now->car, std::min(meet, stopping::liftsAt(*now->car) * 0.99)))
                    : meet * stopping::idealFrontShare(*now->car, std::min(meet, stopping::liftsAt(*now->car) * 0.99));
                const double span = front ? line[1].rear - line[0].rear : line[1].front - line[0].front;
                const double part = std::clamp(end / span, 0.0, 1.0);
                line[1] = { std::lerp(line[0].front, line[1].front, part), std::lerp(line[0].rear, line[1].rear, part) };
            }
            return splitsOf(line);
        };
        const QPolygonF front = upTo(stopping::frontLimit(*now->car, frontGrip), true);
        const QPolygonF rear = upTo(stopping::rearLimit(*now->car, rearGrip), false);
        plot.curve(front, limit);
        plot.curve(rear, limit);
        if (!front.isEmpty() && plot.holds(front.back()))
            sheet.letter(plot.at(front.back().x(), front.back().y()) + QPointF(4, -8),
                QObject::tr("grip %1").arg(QString::fromStdString(figure(frontGrip, style::number, study.system))), 11,
                asRead ? t.ink : t.mute, Qt::AlignLeft | Qt::AlignBottom, false);
    }
    const auto held = stopping::frontLimit(*now->car, now->brakes->front.grip);
    const QPointF onLimit =
        held.empty() ? plot.at(0, 0) : plot.at(std::lerp(held[0].front, held[1].front, 0.1), std::lerp(held[0].rear, held[1].rear, 0.1));
    plot.curve(splitsOf(ideal), { t.ink, 1.6, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    if (was && !was->curve.empty())
        plot.curve(lineOf(*was), { t.found, 2, Qt::DashLine, {}, Hatch::None, {}, 0 });
    plot.curve(lineOf(*now), { t.proposal, 2.6, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    const auto third = ideal[ideal.size() / 3];
    sheet.letter(
        plot.at(third.front, third.rear) + QPointF(-8, -10), QObject::tr("ideal"), 12, t.ink, Qt::AlignRight | Qt::AlignBottom, false);
    sheet.letter(plot.box().topRight() + QPointF(-10, 66), QObject::tr("here the rear locks first"), 13, t.bad,
        Qt::AlignRight | Qt::AlignVCenter, false);

    // Where they lock.
    const auto lockMark = [&](const LoadBalance& b, const QColor& colour, bool hollow) {
        const bool frontFirst = b.locks.front <= b.locks.rear;
        const auto& first = frontFirst ? b.frontLocks : b.rearLocks;
        const auto& other = frontFirst ? b.rearLocks : b.frontLocks;
        if (first)
            plot.mark({ first->front, first->rear }, 6, colour, hollow);
        if (other)
            plot.mark({ other->front, other->rear }, 4, colour, true);
        return first;
    };
    if (was && !was->curve.empty())
        lockMark(*was, t.found, true);
    const auto first = lockMark(*now, t.proposal, false);
    if (const Verdict* v = lockOrderOf(study, load); v && first) {
        const QPointF at = plot.at(first->front, first->rear);
        const bool frontFirst = now->locks.front <= now->locks.rear;
        sheet.callouts.push_back({ v->id,
            (frontFirst ? QObject::tr("front locks, %1") : QObject::tr("rear locks, %1")).arg(says(first->deceleration, study.system)),
            v->level, at, at + QPointF(0, 30), { std::min(at.x() - 20, plot.box().right() - 130), plot.box().bottom() - 40 } });
    }

    // What can be set: on the plot and in its field.
    const std::string hydraulics = hydraulicsPointer(study, study.after);
    const Hydraulics& h = *study.after.hydraulics;
    const auto front = cornerPointer(study, study.after, Axle::Front);
    const auto rear = cornerPointer(study, study.after, Axle::Rear);
    const auto leader = [&](const std::string& pointer, QPointF from, QPointF to, const QString& caption, bool mayLack = false) {
        sheet.dimensions.push_back({ pointer, {}, from, to, Run::Leader, 0, true, caption, 0.5, mayLack });
    };
    const double kneeAt = now->brakes->kneeAtFront();
    // Held at pressures that stay while friction changes, so that the handles follow the hand.
    constexpr double frontHold = 11e5;
    constexpr double rearHold = 22e5;
    const BalancePoint low = pointAtPressure(*now, frontHold);
    const BalancePoint hold = pointAtPressure(*now, rearHold);
    const QPointF grab = plot.at(hold.front, hold.rear);
    const std::string frontFriction = front + (study.after.front.corner->brakes == BrakeKind::Drums ? "/drum/friction" : "/pad/friction");
    const std::string rearFriction = rear + (study.after.rear.corner->brakes == BrakeKind::Drums ? "/drum/friction" : "/pad/friction");
    const auto frictionOf = [](const Corner& corner) {
        return (corner.brakes == BrakeKind::Drums ? corner.drum.friction : corner.pad.friction).value.value_or(0);
    };
    if (low.front > 0)
        sheet.handles.push_back({ frontFriction, plot.at(low.front, low.rear), { 1, 0 },
            frictionOf(*study.after.front.corner) / plot.millimetresAcross(low.front), 0.01 });
    if (hold.rear > 0)
        sheet.handles.push_back(
            { rearFriction, grab, { 0, -1 }, frictionOf(*study.after.rear.corner) / plot.millimetresUp(hold.rear), 0.01 });
    if (h.rearKneePressure.value && kneeAt < now->curve.back().frontPressure) {
        const auto at = std::ranges::min_element(now->curve, {}, [&](const BalancePoint& p) { return std::abs(p.frontPressure - kneeAt); });
        const QPointF knee = plot.at(at->front, at->rear);
        const QPointF out = knee - plot.at(0, 0);
        const double length = std::hypot(out.x(), out.y());
        sheet.handles.push_back({ hydraulics + "/rear_knee_bar", knee, out / length, *h.rearKneePressure.value / length, 1e5 });
        leader(hydraulics + "/rear_knee_bar", knee, plot.at(0, 0) + QPointF(330, -plot.box().height() + 24), QObject::tr("valve's knee"));
        leader(hydraulics + "/rear_slope", knee + QPointF(30, -6), plot.at(0, 0) + QPointF(520, -plot.box().height() + 24),
            QObject::tr("slope over it"));
    }
    if (h.master == MasterKind::Twin && h.barPosition.value) {
        const QPointF at = plot.at(hold.front * 0.8, hold.rear * 0.8);
        sheet.handles.push_back(
            { hydraulics + "/bar_front_percent", at, { 1, 0 }, *h.barPosition.value / plot.millimetresAcross(hold.front * 0.8) / 2, 0.01 });
        leader(hydraulics + "/bar_front_percent", at, plot.at(0, 0) + QPointF(330, -plot.box().height() + 60),
            QObject::tr("bar to the front"));
    }
    // A single piston: force with its bore squared.
    const auto piston = [&](Axle axle, const BalancePoint& there) {
        const Corner& c = *study.after.at(axle).corner;
        const bool drum = c.brakes == BrakeKind::Drums;
        if (!drum && c.caliper.pistons.size() != 1)
            return;
        const double bore = (drum ? c.drum.cylinderBore : c.caliper.pistons.front()).value.value_or(0);
        const bool isFront = axle == Axle::Front;
        const double force = isFront ? plot.millimetresAcross(there.front) : plot.millimetresUp(there.rear);
        if (!(bore > 0 && force > 0))
            return;
        const QPointF at = plot.at(there.front, there.rear);
        sheet.handles.push_back({ (isFront ? front : rear) + (drum ? "/drum/cylinder_bore_mm" : "/caliper/pistons_mm/0"), at,
            isFront ? QPointF(1, 0) : QPointF(0, -1), bore / 2 / force, 0.1e-3 });
        sheet.letter(at + (isFront ? QPointF(9, 10) : QPointF(-9, -9)),
            isFront    ? QObject::tr("front piston")
                : drum ? QObject::tr("wheel cylinder")
                       : QObject::tr("rear piston"),
            11, t.mute, isFront ? Qt::AlignLeft | Qt::AlignVCenter : Qt::AlignRight | Qt::AlignVCenter, false);
    };
    piston(Axle::Front, pointAtPressure(*now, 16e5));
    piston(Axle::Rear, pointAtPressure(*now, 29e5));
    leader(frontFriction, plot.at(low.front, low.rear), plot.at(0, 0) + QPointF(plot.box().width() * 0.62, -80),
        QObject::tr("front friction"));
    leader(rearFriction, grab, plot.at(0, 0) + QPointF(90, -plot.box().height() * 0.62), QObject::tr("rear friction"));
    if (study.after.front.wheel)
        leader(wheelPointer(study, *study.after.front.wheel) + "/grip", onLimit, plot.box().topRight() + QPointF(-76, 250),
            QObject::tr("tyre grip"));
    return sheet;
}

Sheet adhesionSheet(const Study& study, std::size_t load)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.title = QObject::tr("Adhesion that each axle uses");
    sheet.extent = QRectF(QPointF(-66, -40), QPointF(724, 506));
    const Balance& balance = study.of<Balance>();
    const LoadBalance* now = balance.after.at(load);
    if (!now || now->curve.empty()) {
        drawWhatLacks(sheet, study, study.verdict(checks::yardstick));
        return sheet;
    }
    const bool two = study.before.setup != study.after.setup;
    const LoadBalance* was = two ? balance.before.at(load) : nullptr;
    sheet.subtitle = QObject::tr("%1%2 · %3 · yardstick of UN R13-H as guidance, no approval")
                         .arg(QString::fromStdString(study.after.setup->name),
                             two ? QObject::tr(" · dashed: %1").arg(QString::fromStdString(study.before.setup->name)) : QString(),
                             QString::fromStdString(now->name));
    const double grip = std::max(now->brakes->front.grip, now->brakes->rear.grip);
    Plot plot(sheet, QRectF(0, 0, 700, 450), { Plot::roundUp(std::max(1.0, grip * 1.05)), Plot::roundUp(std::max(1.2, grip * 1.2)) });
    // More adhesion than this at so little deceleration is outside the yardstick.
    namespace yard = stopping::yardstick;
    QColor wash = t.caution;
    wash.setAlphaF(t.dark ? 0.16F : 0.10F);
    plot.area({ QPointF(yard::least(0.2), 0.2), QPointF(yard::least(0.8), 0.8), QPointF(yard::least(0.2), 0.8) },
        { {}, 0, Qt::NoPen, wash, Hatch::None, {}, 0 });
    plot.axes(QObject::tr("deceleration, g"), QObject::tr("adhesion used: braking of an axle over its load"), 1, 1);
    plot.curve(
        { QPointF(yard::least(0.2), 0.2), QPointF(yard::least(0.8), 0.8) }, { t.caution, 1.4, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    sheet.letter(plot.at(yard::least(0.2), 0.79) + QPointF(6, 10), QObject::tr("too much for so little"), 12, t.caution,
        Qt::AlignLeft | Qt::AlignTop, false);
    plot.curve({ QPointF(0, 0), QPointF(2, 2) }, { t.mute, 1, Qt::DotLine, {}, Hatch::None, {}, 0 });
    for (const double z : { yard::from, yard::to })
        plot.curve({ QPointF(z, 0), QPointF(z, 3) }, { t.rule, 1.4, Qt::DashLine, {}, Hatch::None, {}, 0 });
    sheet.letter(plot.at((yard::from + yard::to) / 2, 0) + QPointF(0, -14), QObject::tr("here the front line has to lie over the rear one"),
        12, t.mute, Qt::AlignHCenter | Qt::AlignVCenter, false);
    plot.level(grip, { t.ink, 1.3, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    sheet.letter(plot.at(0, grip) + QPointF(10, -10), QObject::tr("the tyres' grip"), 12, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
    const auto drawn = [&](const LoadBalance& b, const QColor& colour, Qt::PenStyle line, double width, bool named) {
        for (const bool front : { true, false }) {
            QPolygonF points;
            for (const BalancePoint& p : b.curve)
                points << QPointF(p.deceleration, front ? p.frontAdhesion : p.rearAdhesion);
            plot.curve(points, { colour, front ? width : width * 0.6, line, {}, Hatch::None, {}, 0 });
            if (!named)
                continue;
            const BalancePoint end = pointAt(b, std::min(0.55, b.curve.back().deceleration));
            const double k = front ? end.frontAdhesion : end.rearAdhesion;
            sheet.letter(plot.at(end.deceleration, k)
                    + QPointF(front == (end.frontAdhesion > end.rearAdhesion) ? -10 : 12,
                        front == (end.frontAdhesion > end.rearAdhesion) ? -12 : 12),
                front ? QObject::tr("front") : QObject::tr("rear"), 13, colour,
                front == (end.frontAdhesion > end.rearAdhesion) ? Qt::AlignRight | Qt::AlignVCenter : Qt::AlignLeft | Qt::AlignVCenter,
                false);
        }
    };
    if (was && !was->curve.empty())
        drawn(*was, t.found, Qt::DashLine, 2, false);
    drawn(*now, t.proposal, Qt::SolidLine, 2.8, true);
    if (const Verdict* v = study.verdict(checks::yardstick))
        sheet.callouts.push_back({ v->id, QObject::tr("yardstick: %1").arg(QString::fromStdString(std::string(nameOf(v->level)))), v->level,
            plot.at(0.5, 0.772), plot.at(0.42, 0.9), plot.at(0.30, 0.98) });
    if (const Verdict* v = study.verdict(checks::rearUse)) {
        const auto& first = now->locks.front <= now->locks.rear ? now->frontLocks : now->rearLocks;
        if (first)
            sheet.callouts.push_back(
                { v->id, QObject::tr("rear uses %1").arg(QString::fromStdString(print(now->rearUse, style::share, study.system))), v->level,
                    plot.at(first->deceleration, first->rearAdhesion), plot.at(first->deceleration, 0.35),
                    plot.at(std::min(first->deceleration, 0.9), 0.3) });
    }
    return sheet;
}

} // namespace deepstop::app
