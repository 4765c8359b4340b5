#pragma once
/// The corner at the dot of the map, in section; it follows while the dot is dragged. What the map does not show is dragged here: the wheel
/// outboard by a spacer, and on a radial mount the caliper outward by shims.

#include "chapters/clearance/clearance.hpp"
#include "design/kit.hpp"
#include "study/study.hpp"

#include <QWidget>

#include <optional>

namespace deepstop::app {

class SectionView : public QWidget {
    Q_OBJECT
public:
    explicit SectionView(QWidget* parent);
    /// The corner of a basis with that kit on, in the first of its wheels.
    void setKit(const design::Maker& maker, const design::Proposal& proposal);
    /// A corner of any build, without handles.
    void setBuild(std::shared_ptr<const Build> build, const SetupPair& pair, Axle axle);
    void clear();
    enum Handle { Spacer, Shims };
    /// Where a handle is drawn; empty where the kit has none.
    [[nodiscard]] QRectF handle(Handle handle) const;

signals:
    /// A handle was dragged: what the spacer, or the lift by shims, is to be.
    void dragged(int handle, double value);

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;

private:
    [[nodiscard]] const CornerClearance* clearance() const;
    /// From the section onto the widget.
    [[nodiscard]] QTransform onto() const;
    [[nodiscard]] std::optional<Handle> handleAt(QPointF at) const;

    Study study_;
    Axle axle_ = Axle::Front;
    std::optional<design::Kit> kit_; ///< that is designed; nothing: a corner of a build
    std::optional<Handle> held_;
    QPointF from_; ///< where it was taken hold of
    double fromValue_ = 0;
    double scale_ = 1; ///< pixels a metre when it was
};

} // namespace deepstop::app
