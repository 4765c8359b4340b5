#pragma once
/// One corner in section, drawn from its numbers: x is z in millimetres, y runs down from the axis.

#include "chapters/clearance/clearance.hpp"
#include "figures/figures.hpp"
#include "stages/sheets.hpp"
#include "theme.hpp"

namespace deepstop::app {

[[nodiscard]] inline QPointF inSection(double z, double r) { return { z * 1000, -r * 1000 }; }
[[nodiscard]] inline QPointF inSection(geometry::Point p) { return inSection(p.z, p.r); }
[[nodiscard]] QPolygonF polygonOf(const geometry::Chain& chain);
[[nodiscard]] QPainterPath closedPath(const QPolygonF& points);
[[nodiscard]] QPainterPath sectionBox(double z0, double z1, double r0, double r1);

class CornerDrawing {
public:
    CornerDrawing(Sheet& sheet, const CornerClearance& result) : sheet_(sheet), r_(result), s_(result.drawn), t_(theme()) { }

    /// With the stations it was measured at, and what stands into it.
    void wheel();
    void hub();
    void rotor();
    void pads();
    void caliper();
    /// What the wheel sees of the caliper: the ends of its straight back sweep higher than its middle, and what stands proud.
    void envelope();
    /// Where caliper and wheel want the same room.
    void clash();
    /// Everything that changes from setup to setup, as dashed outlines.
    void ghost();
    /// Places that stand still beside what turns, each with its name.
    void keepOuts(const Hub& hub);
    void shield(const figures::ShieldReadings& shield);
    /// The ring as it is when hot, thinly.
    void hotRing(double growth);

private:
    /// Dashed where any of these readings is missing and the part is drawn by proportion.
    [[nodiscard]] Qt::PenStyle lineFor(std::initializer_list<const Reading*> readings) const;

    Sheet& sheet_;
    const CornerClearance& r_;
    const fit::CornerShape& s_;
    const Theme& t_;
    QPainterPath metal_; ///< of the wheel
};

} // namespace deepstop::app
