#pragma once
/// Pages of one drawing each: the car, and heat and stop with a plot under them.

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

/// One ring a place.
class HeatPage : public StagePage {
    Q_OBJECT
public:
    static constexpr StageId id = "heat";
    HeatPage(Document& document, QWidget* parent);
    [[nodiscard]] CourseChart* chart() const { return chart_; }
    [[nodiscard]] Axle axle() const override;

protected:
    [[nodiscard]] QStringList placeNames() const override;
    [[nodiscard]] Sheet sheet(int place) const override;
    [[nodiscard]] int placeFor(const Verdict& verdict) const override;
    void refreshRest() override;

private:
    [[nodiscard]] Axle axleAt(int place) const;

    CourseChart* chart_;
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
