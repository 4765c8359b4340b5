#pragma once
/// Pages of one drawing each: the car, and the stop with a plot under it.

#include "stages/stage_page.hpp"

namespace deepstop::app {

class CourseChart;

class CarPage : public StagePage {
    Q_OBJECT
public:
    static constexpr StageId id = "car";
    CarPage(Document& document, QWidget* parent);
    /// Whether the car has antilock brakes.
    [[nodiscard]] QComboBox* antilock() const { return antilock_; }

protected:
    [[nodiscard]] Sheet sheet(int place) const override;
    void refreshRest() override;

private:
    void choose(int index);

    QComboBox* antilock_;
};

class StopPage : public StagePage {
    Q_OBJECT
public:
    static constexpr StageId id = "stop";
    StopPage(Document& document, QWidget* parent);
    [[nodiscard]] CourseChart* chart() const { return chart_; }

protected:
    [[nodiscard]] Sheet sheet(int place) const override;
    void refreshRest() override;

private:
    CourseChart* chart_;
};

} // namespace deepstop::app
