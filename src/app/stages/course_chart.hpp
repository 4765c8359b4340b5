#pragma once
/// A plot under the drawing: rise over speed on the Heat stage, speed over distance on the Stop stage.

#include "drawing/plot_view.hpp"
#include "study/study.hpp"

namespace deepstop::app {

class CourseChart : public PlotView {
    Q_OBJECT
public:
    enum class Of { Rise, Speed };
    CourseChart(Of of, QWidget* parent) : PlotView(parent), of_(of) { }
    void setStudy(const Study& study, Axle axle);
    [[nodiscard]] const QPolygonF& before() const { return before_; }
    [[nodiscard]] const QPolygonF& after() const { return after_; }

private:
    [[nodiscard]] QPolygonF pointsOf(const Study& study, Axle axle, bool after) const;

    Of of_;
    QPolygonF before_;
    QPolygonF after_;
};

} // namespace deepstop::app
