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
#include <utility>

namespace deepstop::app {
namespace {

/// Force and travel of the pedal, part by part.
class PedalDrawing {
public:
    PedalDrawing(Sheet sheet, const Study& study, std::size_t load) : sheet_(std::move(sheet)), study_(study), load_(load) { }

    Sheet drawn()
    {
        heading();
        forceOverDeceleration();
        forceOverTravel();
        curves();
        bars();
        settings();
        return std::move(sheet_);
    }

private:
    void heading()
    {
        if (was_ && was_->curve.empty())
            was_ = nullptr;
        sheet_.subtitle = QObject::tr("%1%2 · %3")
                              .arg(QString::fromStdString(study_.after.setup->name),
                                  two_ ? QObject::tr(" · dashed: %1").arg(QString::fromStdString(study_.before.setup->name)) : QString(),
                                  QString::fromStdString(now_->name));
    }

    void forceOverDeceleration()
    {
        QColor wash = t_.good;
        wash.setAlphaF(t_.dark ? 0.16F : 0.11F);
        over_.area(
            { QPointF(0, 0), QPointF(2, force(2 * light_)), QPointF(2, force(2 * firm_)) }, { {}, 0, Qt::NoPen, wash, Hatch::None, {}, 0 });
        over_.axes(QObject::tr("deceleration, g"), QObject::tr("force on the pedal, %1").arg(forceUnit_), 1, 0);
        over_.level(force(greatest_), limit_);
        sheet_.letter(over_.at(0, force(greatest_)) + QPointF(8, -9), QObject::tr("strong driver"), 12, t_.bad,
            Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet_.letter(
            over_.at(Plot::roundUp(std::max(1.0, grip_)), force(Plot::roundUp(std::max(1.0, grip_)) * light_ * 1.3)) + QPointF(-6, 0),
            QObject::tr("comfortable"), 12, t_.good, Qt::AlignRight | Qt::AlignVCenter, false);
    }

    void forceOverTravel()
    {
        along_.axes(QObject::tr("travel of the pedal, %1").arg(lengthUnit_), QObject::tr("force on the pedal, %1").arg(forceUnit_),
            study_.system == UnitSystem::Us ? 1 : 0, 0);
        along_.level(force(greatest_), limit_);
        if (travelKnown_ && std::isfinite(floor_)) {
            along_.area({ QPointF(length(floor_), 0), QPointF(length(floor_) * 2, 0), QPointF(length(floor_) * 2, top_),
                            QPointF(length(floor_), top_) },
                { {}, 0, Qt::NoPen, {}, Hatch::Rising, t_.bad, 8 });
            along_.curve(
                { QPointF(length(floor_), 0), QPointF(length(floor_), top_) }, { t_.bad, 1.6, Qt::SolidLine, {}, Hatch::None, {}, 0 });
            const double share = figures::setting(wants_.strokeShare, &Wants::strokeShare);
            const double wanted = foot_.master.stroke * share * foot_.pedalRatio + foot_.freePlay;
            along_.curve(
                { QPointF(length(wanted), 0), QPointF(length(wanted), top_) }, { t_.mute, 1.2, Qt::DashLine, {}, Hatch::None, {}, 0 });
            sheet_.letter(along_.at(length(wanted), 0) + QPointF(-5, -12),
                QObject::tr("%1 of the stroke").arg(QString::fromStdString(print(share, style::share, study_.system))), 11, t_.mute,
                Qt::AlignRight | Qt::AlignVCenter, false);
            sheet_.letter(along_.at(length(floor_), top_) + QPointF(-5, 12), QObject::tr("stroke ends"), 11, t_.bad,
                Qt::AlignRight | Qt::AlignVCenter, false);
        } else {
            const Verdict* v = study_.verdict(checks::travel);
            sheet_.letter(left_.center() - QPointF(0, 60), v ? QString::fromStdString(v->reason).left(44) : QString(), 12, t_.unproven,
                Qt::AlignCenter, false);
        }
    }

    /// Both setups in both pictures.
    void curves()
    {
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
            along_.curve(byTravel, ink);
            over_.curve(byStop, ink);
            if (std::isfinite(limitZ) && limitZ < 9)
                over_.mark({ limitZ, force(pointAt(b, limitZ).pedalForce) }, 5, ink.stroke, ink.line == Qt::DashLine);
        };
        if (was_)
            drawn(*was_, { t_.found, 2, Qt::DashLine, {}, Hatch::None, {}, 0 });
        drawn(*now_, { t_.proposal, 2.6, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        const double knee = hydraulics::forceAtKnee(foot_);
        if (std::isfinite(knee)) {
            over_.level(force(knee), { t_.mute, 1, Qt::DotLine, {}, Hatch::None, {}, 0 });
            sheet_.letter(over_.at(0, force(knee)) + QPointF(8, -9), QObject::tr("booster runs out"), 11, t_.mute,
                Qt::AlignLeft | Qt::AlignVCenter, false);
        }
    }

    /// The trainer's bar: how far and how hard the foot goes.
    void bars()
    {
        const double row = 416;
        const double reach = 560;
        const double scale = std::isfinite(floor_) ? reach / floor_ : reach / 0.15;
        sheet_.letter({ 0, row - 22 }, QObject::tr("How far and how hard, the pedal at its real proportion:"), 13, t_.ink,
            Qt::AlignLeft | Qt::AlignVCenter, false);
        const auto bar = [&](const LoadBalance& b, double y, const QColor& colour, bool hollow, bool lettersOver) {
            sheet_.line({ QPointF(0, y), QPointF(reach, y) }, { t_.rule, 1.2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
            for (const double z : { 0.3, 0.6, 0.9 }) {
                if (z > b.curve.back().deceleration)
                    continue;
                const BalancePoint p = pointAt(b, z);
                if (!std::isfinite(p.pedalTravel))
                    continue;
                const double x = p.pedalTravel * scale;
                const double high = 5 + 17 * std::min(1.0, p.pedalForce / greatest_);
                sheet_.area(rectangle(x - 5, y - high, x + 5, y + high),
                    { colour, 1.6, Qt::SolidLine, hollow ? t_.paper : colour, Hatch::None, {}, 0 });
                sheet_.letter({ x, lettersOver ? y - high - 8 : y + high + 8 },
                    QString::fromStdString(print(p.pedalForce, style::force, study_.system)), 11, colour, Qt::AlignCenter);
                if (!lettersOver)
                    sheet_.letter({ x, y + high + 21 },
                        QString::fromStdString(print(z * standardGravity, { Dimension::Acceleration, "g", 1, "g", 1 }, study_.system)), 11,
                        t_.mute, Qt::AlignCenter);
            }
        };
        if (travelKnown_) {
            if (was_ && std::isfinite(was_->curve.back().pedalTravel))
                bar(*was_, row + 36, t_.found, true, true);
            bar(*now_, row + (was_ ? 76 : 50), t_.proposal, false, false);
            sheet_.line({ QPointF(reach, row + 6), QPointF(reach, row + 106) }, { t_.bad, 2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
            sheet_.letter({ reach + 8, row + 56 }, QObject::tr("end of the stroke"), 12, t_.bad, Qt::AlignLeft | Qt::AlignVCenter, false);
        }
    }

    /// Verdicts and what can be set.
    void settings()
    {
        const auto callout = [&](const Check& check, const QString& text, QPointF from, QPointF wish) {
            if (const Verdict* v = study_.verdict(check); v)
                sheet_.callouts.push_back({ v->id, text, v->level, from, from, wish });
        };
        const double z = limitOf(balance_.after);
        if (balance_.after.effort.value && std::isfinite(z))
            callout(checks::effort,
                QObject::tr("effort %1").arg(QString::fromStdString(print(*balance_.after.effort.value, style::force, study_.system))),
                over_.at(z, force(pointAt(*now_, std::min(z, now_->curve.back().deceleration)).pedalForce)),
                over_.at(0, 0) + QPointF(96, -right_.height() * 0.66));
        if (balance_.after.strokeShare.value && travelKnown_ && std::isfinite(z)) {
            const BalancePoint p = pointAt(*now_, std::min(z, now_->curve.back().deceleration));
            callout(checks::travel,
                QObject::tr("%1 of the stroke")
                    .arg(QString::fromStdString(print(*balance_.after.strokeShare.value, style::share, study_.system))),
                along_.at(length(p.pedalTravel), force(p.pedalForce)), along_.at(0, 0) + QPointF(96, -right_.height() * 0.72));
        }
        const std::string h = hydraulicsPointer(study_, study_.after);
        const auto leader = [&](const char* key, QPointF from, QPointF to, const QString& caption) {
            sheet_.dimensions.push_back({ h + "/" + key, {}, from, to, Run::Leader, 0, true, caption, 0.5 });
        };
        const QPointF held = over_.at(at_.deceleration, force(at_.pedalForce));
        if (study_.after.hydraulics->masterBore.value) {
            // Force goes with the square of the bore.
            sheet_.handles.push_back({ h + "/master_bore_mm", held, { 0, -1 },
                *study_.after.hydraulics->masterBore.value / 2 / over_.millimetresUp(force(at_.pedalForce)), 0.1e-3 });
        }
        leader("master_bore_mm", held, over_.at(0, 0) + QPointF(200, -28), QObject::tr("master"));
        if (travelKnown_ && std::isfinite(floor_)) {
            leader("free_play_mm", along_.at(length(foot_.freePlay), 0), along_.at(0, 0) + QPointF(50, -70), QObject::tr("free play"));
            leader("master_stroke_mm", along_.at(length(floor_), top_ * 0.2), along_.at(length(floor_), top_ * 0.2) + QPointF(-70, -10),
                QObject::tr("stroke"));
        }
    }

    double force(double si) { return fromSi(si, style::force.unit(study_.system)); }

    double length(double si) { return fromSi(si, style::frame.unit(study_.system)); }

    Sheet sheet_;
    const Study& study_;
    const std::size_t load_;
    const Theme& t_ = theme();
    const Balance& balance_ = study_.of<Balance>();
    const LoadBalance* now_ = balance_.after.at(load_);
    const bool two_ = study_.before.setup != study_.after.setup;
    const LoadBalance* was_ = two_ ? balance_.before.at(load_) : nullptr;
    const QString forceUnit_ = QString::fromUtf8(style::force.unit(study_.system).symbol.data());
    const QString lengthUnit_ = QString::fromUtf8(style::frame.unit(study_.system).symbol.data());
    const Wants& wants_ = study_.build->wants;
    const double greatest_ = figures::setting(wants_.greatestEffort, &Wants::greatestEffort);
    const double light_ = figures::setting(wants_.lightEffort, &Wants::lightEffort);
    const double firm_ = figures::setting(wants_.firmEffort, &Wants::firmEffort);
    const double top_ = Plot::roundUp(force(greatest_ * 1.15));
    const hydraulics::PedalTrain& foot_ = *balance_.after.foot;
    const double floor_ = foot_.master.stroke * foot_.pedalRatio + foot_.freePlay;
    const bool travelKnown_ = std::isfinite(now_->curve.back().pedalTravel);
    const QRectF left_ = QRectF(0, 0, 320, 330);
    const QRectF right_ = QRectF(390, 0, 310, 330);
    // Force over deceleration, with what is comfortable as a wedge.
    const double grip_ = std::max(now_->brakes->front.grip, now_->brakes->rear.grip);
    Plot over_ = Plot(sheet_, right_, { Plot::roundUp(std::max(1.0, grip_)), top_ });
    const Ink limit_ { t_.bad, 1.3, Qt::DashDotLine, {}, Hatch::None, {}, 0 };
    // Force over travel, to the floor.
    const double longest_ = !travelKnown_ ? 0.1 : std::isfinite(floor_) ? floor_ : std::max(0.05, now_->curve.back().pedalTravel);
    Plot along_ = Plot(sheet_, left_, { Plot::roundUp(length(longest_) * 1.05), top_ });
    const BalancePoint at_ = pointAt(*now_, std::min(0.6, now_->curve.back().deceleration));
};

} // namespace

Sheet pedalSheet(const Study& study, std::size_t load)
{
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
    return PedalDrawing(std::move(sheet), study, load).drawn();
}

} // namespace deepstop::app
