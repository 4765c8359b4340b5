#pragma once
/// A plot under the drawing: rise over speed on the Heat stage, speed over distance on the Stop stage.

#include "study/study.hpp"

#include <QChartView>
#include <QLineSeries>
#include <QValueAxis>

namespace deepstop::app {

class CourseChart : public QChartView {
    Q_OBJECT
public:
    enum class Of { Rise, Speed };
    CourseChart(Of of, QWidget* parent);
    void setStudy(const Study& study, Axle axle);
    [[nodiscard]] const QLineSeries* before() const { return before_; }
    [[nodiscard]] const QLineSeries* after() const { return after_; }

private:
    void dress(const Study& study);

    Of of_;
    QLineSeries* before_;
    QLineSeries* after_;
    QLineSeries* mark_; ///< the test speed
    QValueAxis* across_;
    QValueAxis* up_;
};

} // namespace deepstop::app
