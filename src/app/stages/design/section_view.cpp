#include "stages/design/section_view.hpp"

#include "drawing/inking.hpp"
#include "stages/wheel/corner_drawing.hpp"
#include "theme.hpp"

#include <QMouseEvent>
#include <QPainter>
#include <QTransform>

#include <algorithm>
#include <cmath>

namespace deepstop::app {
namespace {

constexpr double farthestInboard = -0.13;
constexpr double underneath = 34; ///< pixels for what is written under the drawing

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
    setMouseTracking(true);
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

void SectionView::setBuild(std::shared_ptr<const Build> build, const SetupPair& pair, Axle axle)
{
    study_ = {};
    study_.build = std::move(build);
    study_.directory = std::make_shared<const Directory>(*study_.build);
    study_.before = partsOf(*study_.build, *findSetup(*study_.build, pair.before));
    study_.after = partsOf(*study_.build, *findSetup(*study_.build, pair.after));
    drawClearance(study_);
    axle_ = axle;
    kit_.reset();
    held_ = {};
    update();
}

void SectionView::clear()
{
    study_ = {};
    held_ = {};
    update();
}

const CornerClearance* SectionView::clearance() const
{
    if (!study_.build)
        return nullptr;
    const CornerClearance& r = study_.of<Clearance>().after.at(axle_).left;
    return r.corner ? &r : nullptr;
}

QTransform SectionView::onto() const
{
    const CornerClearance& r = *clearance();
    double left = -0.11;
    double right = 0.06;
    double top = r.drawn.rotor.outerRadius + 0.03;
    for (const geometry::Point point : r.wheelShape.barrel) {
        left = std::min(left, point.z - 0.008);
        right = std::max(right, point.z + 0.012);
        top = std::max(top, point.r + 0.02);
    }
    left = std::max(left, farthestInboard);
    const QRectF extent(inSection(left, top), inSection(right, -0.012));
    const double high = height() - underneath;
    const double scale = std::min(width() / extent.width(), high / extent.height());
    QTransform onto;
    onto.translate(width() / 2.0 - extent.center().x() * scale, high / 2 - extent.center().y() * scale);
    onto.scale(scale, scale);
    return onto;
}

QRectF SectionView::handle(Handle handle) const
{
    const CornerClearance* r = clearance();
    if (!r || !kit_ || (handle == Shims && !kit_->radial))
        return {};
    // On the wheel where it is bolted on, and beside the caliper's back.
    const QPointF at = handle == Spacer ? inSection(kit_->proposal.hatThickness + kit_->proposal.spacer + 0.012, 0.045)
                                        : inSection(kit_->proposal.slot, r->drawn.rotor.outerRadius + 0.012);
    QRectF box({}, QSizeF(26, 22));
    box.moveCenter(onto().map(at));
    return std::isfinite(box.x() + box.y()) ? box : QRectF();
}

std::optional<SectionView::Handle> SectionView::handleAt(QPointF at) const
{
    for (const Handle each : { Spacer, Shims })
        if (handle(each).contains(at))
            return each;
    return {};
}

void SectionView::mousePressEvent(QMouseEvent* event)
{
    held_ = event->button() == Qt::LeftButton ? handleAt(event->position()) : std::nullopt;
    if (!held_)
        return;
    from_ = event->position();
    fromValue_ = *held_ == Spacer ? kit_->proposal.spacer : kit_->proposal.lift;
    scale_ = onto().m11();
}

void SectionView::mouseMoveEvent(QMouseEvent* event)
{
    if (!held_) {
        const auto over = handleAt(event->position());
        setCursor(!over ? Qt::ArrowCursor : *over == Spacer ? Qt::SizeHorCursor : Qt::SizeVerCursor);
        return;
    }
    const QPointF by = (event->position() - from_) / scale_;
    // Spacers and shims as they are sold: half and a quarter of a millimetre.
    const double step = *held_ == Spacer ? 0.5e-3 : 0.25e-3;
    const double value = std::max(0.0, std::round((fromValue_ + (*held_ == Spacer ? by.x() : -by.y())) / step) * step);
    if (value != (*held_ == Spacer ? kit_->proposal.spacer : kit_->proposal.lift))
        emit dragged(*held_, value);
}

void SectionView::mouseReleaseEvent(QMouseEvent*) { held_ = {}; }

void SectionView::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), t.paper);
    const CornerClearance* r = clearance();
    if (!r)
        return;
    Sheet sheet;
    CornerDrawing drawing(sheet, *r);
    drawing.hub();
    drawing.wheel();
    drawing.rotor();
    drawing.pads();
    drawing.caliper();
    drawing.envelope();
    drawing.clash();
    if (kit_)
        addBracket(sheet, study_, axle_, *r, *kit_);
    sheet.line(
        QPolygonF { inSection(farthestInboard, 0), inSection(-farthestInboard, 0) }, { t.ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    const QTransform drawn = onto();
    for (const Area& area : sheet.areas)
        inkArea(p, drawn.map(area.path), area.ink);
    for (const Handle each : { Spacer, Shims }) {
        const QRectF box = handle(each);
        if (box.isEmpty())
            continue;
        p.setPen(QPen(t.proposal, 1.4));
        p.setBrush(t.paper);
        p.drawRoundedRect(box, 4, 4);
        p.setFont(reading(14, QFont::DemiBold));
        p.drawText(box, Qt::AlignCenter, each == Spacer ? QStringLiteral("↔") : QStringLiteral("↕"));
    }
    p.setFont(reading(11));
    p.setPen(t.mute);
    p.drawText(QRectF(0, height() - underneath, width(), underneath), Qt::AlignCenter | Qt::TextWordWrap,
        !kit_              ? tr("to scale; outboard is right")
            : kit_->radial ? tr("to scale; outboard is right. Drag ↔ for a spacer, ↕ for shims.")
                           : tr("to scale; outboard is right. Drag ↔ for a spacer."));
}

} // namespace deepstop::app
