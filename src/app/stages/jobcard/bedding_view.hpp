#pragma once
/// Bedding in, guided by a receiver: which slow-down is next, whether the last one counts, how long to drive on.

#include "instruments/receiver_view.hpp"
#include "jobcard/bedding.hpp"

namespace deepstop::app {

class BeddingView : public ReceiverView {
    Q_OBJECT
public:
    explicit BeddingView(QWidget* parent);
    /// A drive that goes on is not disturbed.
    void setPlan(const jobcard::BeddingPlan& plan, UnitSystem units);
    [[nodiscard]] const jobcard::BeddingDrive& drive() const { return drive_; }
    [[nodiscard]] QStringList words() const override;

signals:
    /// All slow-downs were driven and the brakes have cooled.
    void bedded(int stoodHot);

protected:
    void begin() override;
    [[nodiscard]] QColor colourNow() const override;
    [[nodiscard]] QString caution() const override;

private:
    jobcard::BeddingPlan plan_;
    jobcard::BeddingDrive drive_;
    bool told_ = false;
};

} // namespace deepstop::app
