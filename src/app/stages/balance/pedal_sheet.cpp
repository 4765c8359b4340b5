#include "stages/balance/balance_sheets.hpp"

#include "chapters/balance/balance_chapter.hpp"
#include "chapters/balance/checks.hpp"
#include "drawing/shapes.hpp"
#include "drawing/plot.hpp"
#include "figures/figures.hpp"
#include "stages/sheets.hpp"
#include "theme.hpp"

#include <QObject>

#include <algorithm>
#include <cmath>

namespace deepstop::app {
Sheet pedalSheet(const Study& study, std::size_t load)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.title = QObject::tr("Pedal feel");
    sheet.extent = QRectF(QPointF(-66, -40), QPointF(724, 536));
    const Balance& balance = study.of<Balance>();
    const LoadBalance* now = balance.after.at(load);
    if (!now || now->curve.empty() || !balance.after.foot) {
        drawWhatLacks(sheet, study, study.verdict(checks::effort));
        return sheet;
    }
    const bool two = study.before.setup != study.after.setup;
    const LoadBalance* was = two ? balance.before.at(load) : nullptr;
    if (was && was->curve.empty())
        was = nullptr;
    sheet.subtitle = QObject::tr("%1%2 · %3")
                         .arg(QString::fromStdString(study.after.setup->name),
                             two ? QObject::tr(" · dashed: %1").arg(QString::fromStdString(study.before.setup->name)) : QString(),
                             QString::fromStdString(now->name));
    const auto force = [&](double si) { return fromSi(si, style::force.unit(study.system)); };
    const auto length = [&](double si) { return fromSi(si, style::frame.unit(study.system)); };
    const QString forceUnit = QString::fromUtf8(style::force.unit(study.system).symbol.data());
    const QString lengthUnit = QString::fromUtf8(style::frame.unit(study.system).symbol.data());
    const Wants& wants = study.build->wants;
    const double greatest = figures::setting(wants.greatestEffort, &Wants::greatestEffort);
    const double light = figures::setting(wants.lightEffort, &Wants::lightEffort);
    const double firm = figures::setting(wants.firmEffort, &Wants::firmEffort);

    const double top = Plot::roundUp(force(greatest * 1.15));
    const hydraulics::Foot& foot = *balance.after.foot;
    const double floor = foot.master.stroke * foot.pedalRatio + foot.freePlay;
    const bool travelKnown = std::isfinite(now->curve.back().pedalTravel);
    const QRectF left(0, 0, 320, 330);
    const QRectF right(390, 0, 310, 330);

    // Force over deceleration, with what is comfortable as a wedge.
    const double grip = std::max(now->brakes->front.grip, now->brakes->rear.grip);
    Plot over(sheet, right, { Plot::roundUp(std::max(1.0, grip)), top });
    QColor wash = t.good;
    wash.setAlphaF(t.dark ? 0.16F : 0.11F);
    over.area({ QPointF(0, 0), QPointF(2, force(2 * light)), QPointF(2, force(2 * firm)) }, { {}, 0, Qt::NoPen, wash, Hatch::None, {}, 0 });
    over.axes(QObject::tr("deceleration, g"), QObject::tr("force on the pedal, %1").arg(forceUnit), 1, 0);
    const Ink limit { t.bad, 1.3, Qt::DashDotLine, {}, Hatch::None, {}, 0 };
    over.level(force(greatest), limit);
    sheet.letter(
        over.at(0, force(greatest)) + QPointF(8, -9), QObject::tr("strong driver"), 12, t.bad, Qt::AlignLeft | Qt::AlignVCenter, false);
    sheet.letter(over.at(Plot::roundUp(std::max(1.0, grip)), force(Plot::roundUp(std::max(1.0, grip)) * light * 1.3)) + QPointF(-6, 0),
        QObject::tr("comfortable"), 12, t.good, Qt::AlignRight | Qt::AlignVCenter, false);

    // Force over travel, to the floor.
    double longest = travelKnown ? floor : 0.1;
    if (!std::isfinite(longest))
        longest = std::max(0.05, now->curve.back().pedalTravel);
    Plot along(sheet, left, { Plot::roundUp(length(longest) * 1.05), top });
    along.axes(QObject::tr("travel of the pedal, %1").arg(lengthUnit), QObject::tr("force on the pedal, %1").arg(forceUnit),
        study.system == UnitSystem::Us ? 1 : 0, 0);
    along.level(force(greatest), limit);
    if (travelKnown && std::isfinite(floor)) {
        along.area(
            { QPointF(length(floor), 0), QPointF(length(floor) * 2, 0), QPointF(length(floor) * 2, top), QPointF(length(floor), top) },
            { {}, 0, Qt::NoPen, {}, Hatch::Rising, t.bad, 8 });
        along.curve({ QPointF(length(floor), 0), QPointF(length(floor), top) }, { t.bad, 1.6, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        const double share = figures::setting(wants.strokeShare, &Wants::strokeShare);
        const double wanted = foot.master.stroke * share * foot.pedalRatio + foot.freePlay;
        along.curve({ QPointF(length(wanted), 0), QPointF(length(wanted), top) }, { t.mute, 1.2, Qt::DashLine, {}, Hatch::None, {}, 0 });
        sheet.letter(along.at(length(wanted), 0) + QPointF(-5, -12),
            QObject::tr("%1 of the stroke").arg(QString::fromStdString(print(share, style::share, study.system))), 11, t.mute,
            Qt::AlignRight | Qt::AlignVCenter, false);
        sheet.letter(along.at(length(floor), top) + QPointF(-5, 12), QObject::tr("stroke ends"), 11, t.bad,
            Qt::AlignRight | Qt::AlignVCenter, false);
    } else {
        const Verdict* v = study.verdict(checks::travel);
        sheet.letter(left.center() - QPointF(0, 60), v ? QString::fromStdString(v->reason).left(44) : QString(), 12, t.unproven,
            Qt::AlignCenter, false);
    }
    const auto drawn = [&](const LoadBalance& b, const Ink& ink) {
        QPolygonF byTravel;
        QPolygonF byStop;
        const double limitZ = std::min({ b.frontLocks ? b.frontLocks->deceleration : 9, b.rearLocks ? b.rearLocks->deceleration : 9 });
        for (const BalancePoint& p : b.curve) {
            if (std::isfinite(p.pedalTravel))
                byTravel << QPointF(length(p.pedalTravel), force(p.pedalForce));
            if (p.deceleration <= limitZ * 1.001)
                byStop << QPointF(p.deceleration, force(p.pedalForce));
        }
        along.curve(byTravel, ink);
        over.curve(byStop, ink);
        if (std::isfinite(limitZ) && limitZ < 9)
            over.mark({ limitZ, force(pointAt(b, limitZ).pedalForce) }, 5, ink.stroke, ink.line == Qt::DashLine);
    };
    if (was)
        drawn(*was, { t.found, 2, Qt::DashLine, {}, Hatch::None, {}, 0 });
    drawn(*now, { t.proposal, 2.6, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    const double knee = hydraulics::forceAtKnee(foot);
    if (std::isfinite(knee)) {
        over.level(force(knee), { t.mute, 1, Qt::DotLine, {}, Hatch::None, {}, 0 });
        sheet.letter(
            over.at(0, force(knee)) + QPointF(8, -9), QObject::tr("booster runs out"), 11, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
    }

    // The trainer's bar: how far and how hard the foot goes.
    const double row = 416;
    const double reach = 560;
    const double scale = std::isfinite(floor) ? reach / floor : reach / 0.15;
    sheet.letter({ 0, row - 22 }, QObject::tr("How far and how hard, the pedal at its real proportion:"), 13, t.ink,
        Qt::AlignLeft | Qt::AlignVCenter, false);
    const auto bar = [&](const LoadBalance& b, double y, const QColor& colour, bool hollow, bool lettersOver) {
        sheet.line({ QPointF(0, y), QPointF(reach, y) }, { t.rule, 1.2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        for (const double z : { 0.3, 0.6, 0.9 }) {
            if (z > b.curve.back().deceleration)
                continue;
            const BalancePoint p = pointAt(b, z);
            if (!std::isfinite(p.pedalTravel))
                continue;
            const double x = p.pedalTravel * scale;
            const double high = 5 + 17 * std::min(1.0, p.pedalForce / greatest);
            sheet.area(
                rectangle(x - 5, y - high, x + 5, y + high), { colour, 1.6, Qt::SolidLine, hollow ? t.paper : colour, Hatch::None, {}, 0 });
            sheet.letter({ x, lettersOver ? y - high - 8 : y + high + 8 },
                QString::fromStdString(print(p.pedalForce, style::force, study.system)), 11, colour, Qt::AlignCenter);
            if (!lettersOver)
                sheet.letter({ x, y + high + 21 },
                    QString::fromStdString(print(z * standardGravity, { Dimension::Acceleration, "g", 1, "g", 1 }, study.system)), 11,
                    t.mute, Qt::AlignCenter);
        }
    };
    if (travelKnown) {
        if (was && std::isfinite(was->curve.back().pedalTravel))
            bar(*was, row + 36, t.found, true, true);
        bar(*now, row + (was ? 76 : 50), t.proposal, false, false);
        sheet.line({ QPointF(reach, row + 6), QPointF(reach, row + 106) }, { t.bad, 2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        sheet.letter({ reach + 8, row + 56 }, QObject::tr("end of the stroke"), 12, t.bad, Qt::AlignLeft | Qt::AlignVCenter, false);
    }

    // Verdicts and what can be set.
    const auto callout = [&](const Check& check, const QString& text, QPointF from, QPointF wish) {
        if (const Verdict* v = study.verdict(check); v)
            sheet.callouts.push_back({ v->id, text, v->level, from, from, wish });
    };
    const double z = limitOf(balance.after);
    if (balance.after.effort.value && std::isfinite(z))
        callout(checks::effort,
            QObject::tr("effort %1").arg(QString::fromStdString(print(*balance.after.effort.value, style::force, study.system))),
            over.at(z, force(pointAt(*now, std::min(z, now->curve.back().deceleration)).pedalForce)),
            over.at(0, 0) + QPointF(96, -right.height() * 0.66));
    if (balance.after.strokeShare.value && travelKnown && std::isfinite(z)) {
        const BalancePoint p = pointAt(*now, std::min(z, now->curve.back().deceleration));
        callout(checks::travel,
            QObject::tr("%1 of the stroke")
                .arg(QString::fromStdString(print(*balance.after.strokeShare.value, style::share, study.system))),
            along.at(length(p.pedalTravel), force(p.pedalForce)), along.at(0, 0) + QPointF(96, -right.height() * 0.72));
    }
    const std::string h = hydraulicsPointer(study, study.after);
    const BalancePoint at = pointAt(*now, std::min(0.6, now->curve.back().deceleration));
    const auto leader = [&](const char* key, QPointF from, QPointF to, const QString& caption) {
        sheet.dimensions.push_back({ h + "/" + key, {}, from, to, Run::Leader, 0, true, caption, 0.5 });
    };
    const QPointF held = over.at(at.deceleration, force(at.pedalForce));
    if (study.after.hydraulics->masterBore.value) {
        // Force goes with the square of the bore.
        sheet.handles.push_back({ h + "/master_bore_mm", held, { 0, -1 },
            *study.after.hydraulics->masterBore.value / 2 / over.millimetresUp(force(at.pedalForce)), 0.1e-3 });
    }
    leader("master_bore_mm", held, over.at(0, 0) + QPointF(200, -28), QObject::tr("master"));
    if (travelKnown && std::isfinite(floor)) {
        leader("free_play_mm", along.at(length(foot.freePlay), 0), along.at(0, 0) + QPointF(50, -70), QObject::tr("free play"));
        leader("master_stroke_mm", along.at(length(floor), top * 0.2), along.at(length(floor), top * 0.2) + QPointF(-70, -10),
            QObject::tr("stroke"));
    }
    return sheet;
}

} // namespace deepstop::app
