#pragma once
/// The page of one drawing: the car.

#include "stages/stage_page.hpp"

namespace deepstop::app {

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

} // namespace deepstop::app
