#include "stages/design/section_view.hpp"

#include "drawing/inking.hpp"
#include "stages/wheel/corner_drawing.hpp"
#include "theme.hpp"

#include <QPainter>
#include <QTransform>

#include <algorithm>
#include <cmath>

namespace deepstop::app {
namespace {

/// The plate, from the lugs' face to the caliper's.
void addBracket(Sheet& sheet, const Study& study, Axle axle, const CornerClearance& r, const design::Kit& kit)
{
    const double lugs = -nominal([&](Evaluator& s) { return figures::lugDepth(s, *r.corner, hubOf(*study.build, axle)); });
    const auto& holes = kit.adapter.holes;
    if (!std::isfinite(lugs + kit.adapter.thickness) || holes.size() < 2)
        return;
    const double low = std::min(holes[0].y, kit.adapter.caliperHeight) - 0.014;
    const double high = std::max(holes[0].y, kit.adapter.caliperHeight) + 0.014;
    sheet.area(sectionBox(lugs, lugs + kit.adapter.thickness, low, high), { theme().proposal, 1.4, Qt::DashLine, {}, Hatch::None, {}, 0 });
}

} // namespace

SectionView::SectionView(QWidget* parent) : QWidget(parent)
{
    setMinimumSize(220, 190);
    setAccessibleName(tr("The corner in section"));
}

void SectionView::setKit(const design::Maker& maker, const design::Proposal& proposal)
{
    const design::Basis& basis = maker.basis();
    Corner on = maker.corner(proposal, Known::Design);
    if (!basis.wheels.empty())
        on.wheel = basis.wheels.front()->id;
    study_ = design::trialOf(basis, std::move(on));
    study_.directory = basis.study->directory;
    drawClearance(study_);
    axle_ = basis.axle;
    kit_ = maker.kit(proposal);
    update();
}

void SectionView::clear()
{
    study_ = {};
    update();
}

void SectionView::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), theme().paper);
    if (!study_.build)
        return;
    const CornerClearance& r = study_.of<Clearance>().after.at(axle_).left;
    if (!r.corner)
        return;
    Sheet sheet;
    CornerDrawing drawing(sheet, r);
    drawing.hub();
    drawing.wheel();
    drawing.rotor();
    drawing.pads();
    drawing.caliper();
    drawing.envelope();
    drawing.clash();
    addBracket(sheet, study_, axle_, r, kit_);
    double left = -0.11;
    double right = 0.06;
    double top = r.drawn.rotor.outerRadius + 0.03;
    for (const geometry::Point point : r.wheelShape.barrel) {
        left = std::min(left, point.z - 0.008);
        right = std::max(right, point.z + 0.012);
        top = std::max(top, point.r + 0.02);
    }
    left = std::max(left, -0.13);
    const QRectF extent(inSection(left, top), inSection(right, -0.012));
    const double scale = std::min(width() / extent.width(), height() / extent.height());
    QTransform onto;
    onto.translate(width() / 2.0 - extent.center().x() * scale, height() / 2.0 - extent.center().y() * scale);
    onto.scale(scale, scale);
    sheet.line(QPolygonF { inSection(left, 0), inSection(right, 0) }, { theme().ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    p.setClipRect(rect());
    for (const Area& area : sheet.areas)
        inkArea(p, onto.map(area.path), area.ink);
    p.setFont(reading(11));
    p.setPen(theme().mute);
    p.drawText(rect().adjusted(6, 4, -6, -4), Qt::AlignTop | Qt::AlignRight, tr("to scale; outboard is right"));
}

} // namespace deepstop::app
