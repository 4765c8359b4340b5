#pragma once
/// Stops from a receiver as they are driven: speed, what to do, the last stop, and when the next may be driven.

#include "instruments/receiver_view.hpp"

namespace deepstop::app {

class LiveView : public ReceiverView {
    Q_OBJECT
public:
    explicit LiveView(QWidget* parent);
    /// @param speed the stops begin at, m/s; @param cooling s of driving between two, NaN where it is not known
    void setPlan(double speed, double cooling, UnitSystem units);
    [[nodiscard]] QStringList words() const override;

signals:
    void found(const deepstop::proving::FoundStop& stop);

protected:
    void begin() override;
    [[nodiscard]] QColor colourNow() const override;
    [[nodiscard]] QString caution() const override;

private:
    double speed_ = 0;
    double cooling_ = 0;
};

} // namespace deepstop::app
