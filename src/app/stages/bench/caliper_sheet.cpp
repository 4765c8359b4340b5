#include "stages/bench/bench_sheets.hpp"
#include "stages/bench/part_sheet.hpp"

#include <algorithm>
#include <utility>

namespace deepstop::app {
namespace {

/// Seen from outboard: straight back, falling shoulders, legs down to where it reaches; the rotor's edge at y = 0 in its middle.
QPainterPath sideView(const fit::CaliperShape& c, QPointF at)
{
    const double half = c.backHalfLength * 1000;
    const double back = -c.backOverEdge * 1000;
    const double low = c.reach * 1000;
    const double fall = c.shoulder * 1000;
    QPainterPath path;
    path.addPolygon(QPolygonF { at + QPointF(-half, back), at + QPointF(half, back), at + QPointF(half + fall * 1.4, back + fall),
        at + QPointF(half + fall * 1.2, low - fall * 0.6), at + QPointF(half * 0.8, low), at + QPointF(-half * 0.8, low),
        at + QPointF(-half - fall * 1.2, low - fall * 0.6), at + QPointF(-half - fall * 1.4, back + fall) });
    path.closeSubpath();
    return path;
}

/// Cut across: both halves and the bridge over the rotor; outboard to the right.
QPainterPath section(const fit::CaliperShape& c, QPointF at)
{
    const double back = -c.backOverEdge * 1000;
    const double low = c.reach * 1000;
    const double fall = c.shoulder * 1000;
    const double out = c.outboardDepth * 1000;
    const double in = -c.inboardDepth * 1000;
    const double slot = c.slotWidth * 500;
    const double under = -c.bridgeGap * 1000;
    QPainterPath path;
    path.addPolygon(QPolygonF { at + QPointF(in + fall, back), at + QPointF(out - fall, back), at + QPointF(out, back + fall),
        at + QPointF(out, low), at + QPointF(slot, low), at + QPointF(slot, under), at + QPointF(-slot, under), at + QPointF(-slot, low),
        at + QPointF(in, low), at + QPointF(in, back + fall) });
    path.closeSubpath();
    return path;
}

/// From above: both halves, the bridge across the slot at its ends, the opening for the pads.
QPainterPath plan(const fit::CaliperShape& c, double window, QPointF at)
{
    const double half = c.backHalfLength * 1000 + c.shoulder * 1400;
    QPainterPath path = rectangle(at.x() - half, at.y() - c.outboardDepth * 1000, at.x() + half, at.y() + c.inboardDepth * 1000);
    if (window > 0)
        path.addPath(rectangle(at.x() - window / 2, at.y() - c.slotWidth * 500, at.x() + window / 2, at.y() + c.slotWidth * 500));
    return path;
}

/// The caliper in three views, part by part.
class CaliperDrawing {
public:
    CaliperDrawing(PartSheet p, const Study& study, Axle axle) : p_(std::move(p)), study_(study), axle_(axle) { }

    Sheet drawn()
    {
        views();
        pistons();
        cutAndPlan();
        fields();
        return std::move(p_.sheet);
    }

private:
    void views()
    {
        const double R = p_.after.drawn.rotor.outerRadius * 1000;
        QPainterPath edge;
        edge.arcMoveTo(QRectF(-R, 0, 2 * R, 2 * R), 90 + 26);
        edge.arcTo(QRectF(-R, 0, 2 * R, 2 * R), 90 + 26, -52);
        if (old_) {
            sheet_.area(sideView(*old_, side_), PartSheet::ghost());
            sheet_.area(section(*old_, cut_), PartSheet::ghost());
            sheet_.area(plan(*old_, 0, above_), PartSheet::ghost());
        }
        sheet_.area(sideView(c_, side_), { t_.proposal, 1.8, Qt::SolidLine, t_.proposalWash, Hatch::None, {}, 0 });
        sheet_.area(edge, { t_.metal, 1.2, Qt::DashLine, {}, Hatch::None, {}, 0 });
    }

    /// Pistons of one side, small one where the rotor comes in, on the pad's middle.
    void pistons()
    {
        double total = 0;
        for (const Reading& bore : caliper_.pistons)
            total += bore.value.value_or(0.03) * 1000 + 4;
        along_ = -total / 2;
        for (const Reading& bore : caliper_.pistons) {
            const double size = bore.value.value_or(0.03) * 1000;
            centres_.emplace_back(along_ + 2 + size / 2, row_);
            sheet_.area(circle(centres_.back(), size / 2), PartSheet::plate());
            sheet_.area(circle(centres_.back(), size / 2 - 4), PartSheet::thin());
            along_ += size + 4;
        }
    }

    /// Cut through, and from above.
    void cutAndPlan()
    {
        sheet_.area(section(c_, cut_), PartSheet::cut());
        const double T = p_.after.drawn.rotor.thickness * 500;
        sheet_.area(rectangle(cut_.x() - T, 0, cut_.x() + T, low_ + 12), { t_.metal, 1, Qt::DashLine, {}, Hatch::None, {}, 0 });
        p_.axisLine(cut_ + QPointF(0, -c_.backOverEdge * 1000 - 12), cut_ + QPointF(0, low_ + 16));
        sheet_.area(plan(c_, window_, above_), { t_.proposal, 1.8, Qt::SolidLine, t_.proposalWash, Hatch::None, {}, 0 });
        p_.axisLine(above_ - QPointF(widest_ + 10, 0), above_ + QPointF(widest_ + 10, 0));
        for (const double x : { -spacing_, spacing_ }) {
            sheet_.area(rectangle(x - 9, ear_ - 9, x + 9, ear_ + 9), PartSheet::plate());
            sheet_.area(circle({ x, ear_ }, 5), PartSheet::hole());
        }
        sheet_.letter({ side_.x(), low_ + 6 }, QObject::tr("from outboard"), 12, t_.mute, Qt::AlignHCenter | Qt::AlignTop, false);
        sheet_.letter(
            { cut_.x(), low_ + 20 }, QObject::tr("cut, outboard to the right"), 12, t_.mute, Qt::AlignHCenter | Qt::AlignTop, false);
        sheet_.letter({ above_.x(), above_.y() - deepOut_ - 4 }, QObject::tr("from above, outboard up"), 12, t_.mute,
            Qt::AlignHCenter | Qt::AlignBottom, false);
        sheet_.extent = QRectF(QPointF(-widest_ - 12, -std::max(c_.backOverEdge, old_ ? old_->backOverEdge : 0) * 1000 - 26),
            QPointF(cut_.x() + deepOut_ + 44, above_.y() + deepIn_ + 24));
    }

    /// What is read and said of it.
    void fields()
    {
        const double px = p_.pixel();
        const double facts = sheet_.extent.right() - 310 * px;
        double line = low_ + 52;
        int column = 0;
        const auto fact = [&](const char* key, const QString& caption) {
            sheet_.fact(p_.corner + "/caliper/" + key, caption, { facts + column * 156 * px, line }, 146);
            column = 1 - column;
            line += column == 0 ? 40 * px : 0;
        };
        fact("name", QObject::tr("Name"));
        fact("kind", QObject::tr("Kind"));
        p_.vertical("/caliper/back_over_edge_mm", -c_.backOverEdge * 1000, 0, cut_.x() + c_.outboardDepth * 600, cut_.x() + deepOut_ + 16,
            QObject::tr("its back"), {}, -0.2);
        p_.horizontal("/caliper/back_length_mm", -c_.backHalfLength * 1000, c_.backHalfLength * 1000, -c_.backOverEdge * 1000,
            -c_.backOverEdge * 1000 - 13, QObject::tr("straight"));
        p_.vertical("/caliper/bridge_gap_mm", -c_.bridgeGap * 1000, 0, cut_.x(), cut_.x() + 4, QObject::tr("bridge"), {}, 3.5);
        p_.vertical("/caliper/reach_mm", 0, c_.reach * 1000, cut_.x() + c_.outboardDepth * 1000, cut_.x() + deepOut_ + 16,
            QObject::tr("reach"), {}, 0.7);
        p_.horizontal("/caliper/outboard_depth_mm", cut_.x(), cut_.x() + c_.outboardDepth * 1000, -c_.backOverEdge * 1000 + 8,
            -c_.backOverEdge * 1000 - 13, QObject::tr("outboard"));
        p_.horizontal("/caliper/inboard_depth_mm", cut_.x() - c_.inboardDepth * 1000, cut_.x(), -c_.backOverEdge * 1000 + 8,
            -c_.backOverEdge * 1000 - 13, QObject::tr("inboard"));
        p_.leader("/caliper/shoulder_mm",
            { cut_.x() - c_.inboardDepth * 1000 + c_.shoulder * 500, -c_.backOverEdge * 1000 + c_.shoulder * 500 },
            { cut_.x() - c_.inboardDepth * 1000 - 16, -c_.backOverEdge * 1000 - 2 }, QObject::tr("shoulder"));
        p_.horizontal("/caliper/slot_width_mm", cut_.x() - c_.slotWidth * 500, cut_.x() + c_.slotWidth * 500, c_.reach * 1000, low_ + 8,
            QObject::tr("slot"));
        for (std::size_t i = 0; i < caliper_.pistons.size(); ++i)
            p_.leader("/caliper/pistons_mm/" + std::to_string(i), centres_[i] + QPointF(0, 4), { centres_[i].x(), row_ + 2 }, {},
                QStringLiteral("Ø "));
        p_.leader("/caliper/pistons_mm/-", { along_ + 2, row_ }, { half_ - 2, low_ - 6 },
            caliper_.pistons.empty() ? QObject::tr("bores, one side") : QObject::tr("one more"), QStringLiteral("Ø "), false,
            !caliper_.pistons.empty(), QStringLiteral("+"));
        p_.leader("/caliper/pad_room_mm", { cut_.x() + c_.slotWidth * 500 + 2, row_ }, { cut_.x() + c_.outboardDepth * 500 + 8, row_ + 10 },
            QObject::tr("between pistons"));
        p_.horizontal(
            "/caliper/pad_window_mm", -window_ / 2, window_ / 2, above_.y() - c_.slotWidth * 500, above_.y(), QObject::tr("pads go in"));
        p_.horizontal("/caliper/mount_spacing_mm", -spacing_, spacing_, ear_, above_.y() + deepIn_ + 10, QObject::tr("holes"));
        p_.leader("/caliper/piston_stroke_mm", { cut_.x() - c_.slotWidth * 500 - 6, row_ },
            { cut_.x() - c_.inboardDepth * 500 - 16, row_ + 18 }, QObject::tr("a piston comes out by"));
        if (caliper_.kind == CaliperKind::Floating)
            p_.leader("/caliper/slide_travel_mm", { cut_.x() - c_.inboardDepth * 1000, -c_.backOverEdge * 300 },
                { cut_.x() - c_.inboardDepth * 1000 - 20, c_.reach * 500 }, QObject::tr("slides by"));
        fact("bleeders", QObject::tr("Bleeders at"));
        fact("hose_thread", QObject::tr("Thread for the hose"));
        fact("material", QObject::tr("Body of"));
        fact("piston_material", QObject::tr("Pistons of"));
    }

    PartSheet p_;
    const Study& study_;
    const Axle axle_;
    const Theme& t_ = theme();
    Sheet& sheet_ = p_.sheet;
    const Caliper& caliper_ = p_.after.corner->caliper;
    const fit::CaliperShape& c_ = p_.after.drawn.caliper;
    const fit::CaliperShape* old_ = p_.two && p_.before.corner ? &p_.before.drawn.caliper : nullptr;
    const double half_ = c_.backHalfLength * 1000 + c_.shoulder * 1400;
    const double widest_ = std::max(half_, old_ ? old_->backHalfLength * 1000 + old_->shoulder * 1400 : 0);
    const double deepIn_ = std::max(c_.inboardDepth, old_ ? old_->inboardDepth : 0) * 1000;
    const double deepOut_ = std::max(c_.outboardDepth, old_ ? old_->outboardDepth : 0) * 1000;
    const double low_ = std::max(c_.reach, old_ ? old_->reach : 0) * 1000;
    const double window_ = std::min(
        caliper_.padWindow.value.value_or(p_.after.corner->pad.length.value.value_or(c_.backHalfLength * 2) + 1e-3) * 1000, 2 * half_ - 8);
    // Side at the left, cut at the right of it, from above below the side.
    const QPointF side_ = QPointF(0, 0);
    const QPointF cut_ = QPointF(widest_ + deepIn_ + 52, 0);
    const QPointF above_ = QPointF(0, low_ + 62 + deepOut_);
    // Pistons of one side, small one where the rotor comes in, on the pad's middle.
    const double row_ = p_.after.drawn.pad.height * 500 + p_.after.drawn.pad.inset * 1000;
    double along_ = 0;
    std::vector<QPointF> centres_ {};
    const double spacing_ = caliper_.mountSpacing.value.value_or(2 * c_.backHalfLength + 0.05) * 500;
    const double ear_ = above_.y() + c_.inboardDepth * 1000 - 9;
};

} // namespace

Sheet caliperSheet(const Study& study, Axle axle)
{
    PartSheet p(study, axle, QObject::tr("caliper"));
    if (!p.after.corner)
        return p.sheet;
    return CaliperDrawing(std::move(p), study, axle).drawn();
}

} // namespace deepstop::app
