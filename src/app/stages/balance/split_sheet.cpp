#include "stages/balance/balance_sheets.hpp"

#include "chapters/balance/balance_chapter.hpp"
#include "chapters/balance/checks.hpp"
#include "drawing/plot.hpp"
#include "stages/sheets.hpp"
#include "theme.hpp"

#include <QObject>

#include <algorithm>
#include <cmath>
#include <utility>

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

namespace {

/// Braking of the rear axle over that of the front, part by part.
class SplitDrawing {
public:
    SplitDrawing(Sheet sheet, const Study& study, std::size_t load) : sheet_(std::move(sheet)), study_(study), load_(load) { }

    Sheet drawn()
    {
        axes();
        tyreLimits();
        lines();
        lockPoints();
        settings();
        pistons();
        return std::move(sheet_);
    }

private:
    /// Title, axes, and the field in which the rear locks first.
    void axes()
    {
        sheet_.subtitle = two_
            ? QObject::tr("%1 · dashed: %2 · %3")
                  .arg(QString::fromStdString(study_.after.setup->name), QString::fromStdString(study_.before.setup->name),
                      QString::fromStdString(now_->name))
            : QObject::tr("%1 · %2").arg(QString::fromStdString(study_.after.setup->name), QString::fromStdString(now_->name));
        // Over the ideal line the rear locks first.
        QPolygonF danger = splitsOf(ideal_);
        danger << QPointF(2, ideal_.back().rear) << QPointF(2, 2) << QPointF(0, 2);
        QColor wash = t_.bad;
        wash.setAlphaF(t_.dark ? 0.13F : 0.07F);
        plot_.area(danger, { {}, 0, Qt::NoPen, wash, Hatch::None, {}, 0 });
        plot_.axes(
            QObject::tr("braking of the front axle over the car's weight"), QObject::tr("of the rear axle over the car's weight"), 1, 2);
    }

    /// Equal decelerations, and what the tyres hold: as they are, less, and more.
    void tyreLimits()
    {
        const Ink even { t_.mute, 0.9, Qt::DotLine, {}, Hatch::None, {}, 0 };
        const double right = plot_.box().right();
        for (const double z : { 0.2, 0.4, 0.6, 0.8, 1.0, 1.2 }) {
            plot_.curve({ QPointF(0, z), QPointF(z, 0) }, even);
            const QPointF foot = plot_.at(z, 0);
            if (foot.x() < right - 40)
                sheet_.letter(foot + QPointF(5, -9), says(z, study_.system), 11, t_.mute, Qt::AlignLeft | Qt::AlignVCenter);
        }
        // What the tyres hold: as they are, less, and more.
        for (const double factor : { lessGrip, 1.0, moreGrip }) {
            const bool asRead = factor == 1.0;
            const Ink limit { asRead ? t_.ink : t_.mute, asRead ? 1.3 : 1.0, asRead ? Qt::DashDotLine : Qt::DashLine, {}, Hatch::None, {},
                0 };
            const double frontGrip = factor * now_->brakes->front.grip;
            const double rearGrip = factor * now_->brakes->rear.grip;
            const auto limits = stopping::lockLimits(*now_->car, frontGrip, rearGrip);
            const QPolygonF front = splitsOf(limits.front);
            const QPolygonF rear = splitsOf(limits.rear);
            plot_.curve(front, limit);
            plot_.curve(rear, limit);
            if (!front.isEmpty() && plot_.holds(front.back()))
                sheet_.letter(plot_.at(front.back().x(), front.back().y()) + QPointF(4, -8),
                    QObject::tr("grip %1").arg(QString::fromStdString(figure(frontGrip, style::number, study_.system))), 11,
                    asRead ? t_.ink : t_.mute, Qt::AlignLeft | Qt::AlignBottom, false);
        }
    }

    /// The ideal line and both setups.
    void lines()
    {
        plot_.curve(splitsOf(ideal_), { t_.ink, 1.6, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        if (was_ && !was_->curve.empty())
            plot_.curve(lineOf(*was_), { t_.found, 2, Qt::DashLine, {}, Hatch::None, {}, 0 });
        plot_.curve(lineOf(*now_), { t_.proposal, 2.6, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        const auto third = ideal_[ideal_.size() / 3];
        sheet_.letter(plot_.at(third.front, third.rear) + QPointF(-8, -10), QObject::tr("ideal"), 12, t_.ink,
            Qt::AlignRight | Qt::AlignBottom, false);
        sheet_.letter(plot_.box().topRight() + QPointF(-10, 66), QObject::tr("here the rear locks first"), 13, t_.bad,
            Qt::AlignRight | Qt::AlignVCenter, false);
    }

    /// Where they lock.
    void lockPoints()
    {
        const auto lockMark = [&](const LoadBalance& b, const QColor& colour, bool hollow) {
            const bool frontFirst = b.locks.front <= b.locks.rear;
            const auto& first = frontFirst ? b.frontLocks : b.rearLocks;
            const auto& other = frontFirst ? b.rearLocks : b.frontLocks;
            if (first)
                plot_.mark({ first->front, first->rear }, 6, colour, hollow);
            if (other)
                plot_.mark({ other->front, other->rear }, 4, colour, true);
            return first;
        };
        if (was_ && !was_->curve.empty())
            lockMark(*was_, t_.found, true);
        const auto first = lockMark(*now_, t_.proposal, false);
        if (const Verdict* v = lockOrderOf(study_, load_); v && first) {
            const QPointF at = plot_.at(first->front, first->rear);
            const bool frontFirst = now_->locks.front <= now_->locks.rear;
            sheet_.callouts.push_back({ v->id,
                (frontFirst ? QObject::tr("front locks, %1") : QObject::tr("rear locks, %1")).arg(says(first->deceleration, study_.system)),
                v->level, at, at + QPointF(0, 30), { std::min(at.x() - 20, plot_.box().right() - 130), plot_.box().bottom() - 40 } });
        }
    }

    /// What can be set: on the plot and in its field.
    void settings()
    {
        const std::string hydraulics = hydraulicsPointer(study_, study_.after);
        const Hydraulics& h = *study_.after.hydraulics;
        const double kneeAt = now_->brakes->kneeAtFront();
        const auto frictionOf = [](const Corner& corner) {
            return (corner.brakes == BrakeKind::Drums ? corner.drum.friction : corner.pad.friction).value.value_or(0);
        };
        if (low_.front > 0)
            sheet_.handles.push_back({ frontFriction_, plot_.at(low_.front, low_.rear), { 1, 0 },
                frictionOf(*study_.after.front.corner) / plot_.millimetresAcross(low_.front), 0.01 });
        if (hold_.rear > 0)
            sheet_.handles.push_back(
                { rearFriction_, grab_, { 0, -1 }, frictionOf(*study_.after.rear.corner) / plot_.millimetresUp(hold_.rear), 0.01 });
        if (h.rearKneePressure.value && kneeAt < now_->curve.back().frontPressure) {
            const auto at =
                std::ranges::min_element(now_->curve, {}, [&](const BalancePoint& p) { return std::abs(p.frontPressure - kneeAt); });
            const QPointF knee = plot_.at(at->front, at->rear);
            const QPointF out = knee - plot_.at(0, 0);
            const double length = std::hypot(out.x(), out.y());
            sheet_.handles.push_back({ hydraulics + "/rear_knee_bar", knee, out / length, *h.rearKneePressure.value / length, 1e5 });
            leader(hydraulics + "/rear_knee_bar", knee, plot_.at(0, 0) + QPointF(330, -plot_.box().height() + 24),
                QObject::tr("split pressure"));
            leader(hydraulics + "/rear_slope", knee + QPointF(30, -6), plot_.at(0, 0) + QPointF(520, -plot_.box().height() + 24),
                QObject::tr("ratio above it"));
        }
        if (h.master == MasterKind::Twin && h.barPosition.value) {
            const QPointF at = plot_.at(hold_.front * 0.8, hold_.rear * 0.8);
            sheet_.handles.push_back({ hydraulics + "/bar_front_percent", at, { 1, 0 },
                *h.barPosition.value / plot_.millimetresAcross(hold_.front * 0.8) / 2, 0.01 });
            leader(hydraulics + "/bar_front_percent", at, plot_.at(0, 0) + QPointF(330, -plot_.box().height() + 60),
                QObject::tr("bar to the front"));
        }
    }

    /// A single piston: force with its bore squared.
    void pistons()
    {
        const auto piston = [&](Axle axle, const BalancePoint& there) {
            const Corner& c = *study_.after.at(axle).corner;
            const bool drum = c.brakes == BrakeKind::Drums;
            if (!drum && c.caliper.pistons.size() != 1)
                return;
            const double bore = (drum ? c.drum.cylinderBore : c.caliper.pistons.front()).value.value_or(0);
            const bool isFront = axle == Axle::Front;
            const double force = isFront ? plot_.millimetresAcross(there.front) : plot_.millimetresUp(there.rear);
            if (!(bore > 0 && force > 0))
                return;
            const QPointF at = plot_.at(there.front, there.rear);
            sheet_.handles.push_back({ (isFront ? frontCorner_ : rearCorner_) + (drum ? "/drum/cylinder_bore_mm" : "/caliper/pistons_mm/0"),
                at, isFront ? QPointF(1, 0) : QPointF(0, -1), bore / 2 / force, 0.1e-3 });
            sheet_.letter(at + (isFront ? QPointF(9, 10) : QPointF(-9, -9)),
                isFront    ? QObject::tr("front piston")
                    : drum ? QObject::tr("wheel cylinder")
                           : QObject::tr("rear piston"),
                11, t_.mute, isFront ? Qt::AlignLeft | Qt::AlignVCenter : Qt::AlignRight | Qt::AlignVCenter, false);
        };
        piston(Axle::Front, pointAtPressure(*now_, 16e5));
        piston(Axle::Rear, pointAtPressure(*now_, 29e5));
        leader(frontFriction_, plot_.at(low_.front, low_.rear), plot_.at(0, 0) + QPointF(plot_.box().width() * 0.62, -80),
            QObject::tr("front friction"));
        leader(rearFriction_, grab_, plot_.at(0, 0) + QPointF(90, -plot_.box().height() * 0.62), QObject::tr("rear friction"));
        if (study_.after.front.wheel)
            leader(wheelPointer(study_, *study_.after.front.wheel) + "/grip", onLimit_, plot_.box().topRight() + QPointF(-76, 250),
                QObject::tr("tyre grip"));
    }

    double mostOfRear()
    {
        double most = 0.1;
        for (const auto& p : ideal_)
            most = std::max(most, p.rear);
        for (const LoadBalance* each : { now_, was_ })
            if (each && each->frontLocks)
                most = std::max(most, each->frontLocks->rear * 1.2);
        return most;
    }

    void leader(const std::string& pointer, QPointF from, QPointF to, const QString& caption, bool mayLack = false)
    {
        sheet_.dimensions.push_back({ pointer, {}, from, to, Run::Leader, 0, true, caption, 0.5, mayLack });
    }

    Sheet sheet_;
    const Study& study_;
    const std::size_t load_;
    const Theme& t_ = theme();
    const Balance& balance_ = study_.of<Balance>();
    const LoadBalance* now_ = balance_.after.at(load_);
    const bool two_ = study_.before.setup != study_.after.setup;
    const LoadBalance* was_ = two_ ? balance_.before.at(load_) : nullptr;
    const double grip_ = std::max(now_->brakes->front.grip, now_->brakes->rear.grip);
    const std::vector<stopping::Split> ideal_ = stopping::idealLine(*now_->car, moreGrip* grip_ * 1.15);
    const double widest_ = now_->frontLocks ? now_->frontLocks->front : ideal_.back().front;
    Plot plot_ = Plot(sheet_, QRectF(0, 0, 700, 450),
        { Plot::roundUp(std::max(widest_, ideal_.back().front) * 1.02), Plot::roundUp(mostOfRear() * 1.25) });
    const std::vector<stopping::Split> held_ = stopping::frontLimit(*now_->car, now_->brakes->front.grip);
    const QPointF onLimit_ = held_.empty()
        ? plot_.at(0, 0)
        : plot_.at(std::lerp(held_[0].front, held_[1].front, 0.1), std::lerp(held_[0].rear, held_[1].rear, 0.1));
    const std::string frontCorner_ = cornerPointer(study_, study_.after, Axle::Front);
    const std::string rearCorner_ = cornerPointer(study_, study_.after, Axle::Rear);
    // Held at pressures that stay while friction changes, so that the handles follow the hand.
    static constexpr double frontHold_ = 11e5;
    static constexpr double rearHold_ = 22e5;
    const BalancePoint low_ = pointAtPressure(*now_, frontHold_);
    const BalancePoint hold_ = pointAtPressure(*now_, rearHold_);
    const QPointF grab_ = plot_.at(hold_.front, hold_.rear);
    const std::string frontFriction_ =
        frontCorner_ + (study_.after.front.corner->brakes == BrakeKind::Drums ? "/drum/friction" : "/pad/friction");
    const std::string rearFriction_ =
        rearCorner_ + (study_.after.rear.corner->brakes == BrakeKind::Drums ? "/drum/friction" : "/pad/friction");
};

} // namespace

Sheet splitSheet(const Study& study, std::size_t load)
{
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
    return SplitDrawing(std::move(sheet), study, load).drawn();
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
    sheet.letter(plot.at(yard::least(0.2), 0.79) + QPointF(6, 10), QObject::tr("below required efficiency"), 12, t.caution,
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
        sheet.callouts.push_back({ v->id, QObject::tr("yardstick: %1").arg(QString::fromUtf8(deepstop::tr(nameOf(v->level)).data())),
            v->level, plot.at(0.5, 0.772), plot.at(0.42, 0.9), plot.at(0.30, 0.98) });
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
