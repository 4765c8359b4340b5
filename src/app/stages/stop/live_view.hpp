#pragma once
/// A receiver in the car, read at arm's length: speed, what to do, the last stop, and when the next may be driven.

#include "instruments/wire.hpp"
#include "proving/live.hpp"
#include "quantity/format.hpp"

#include <QElapsedTimer>
#include <QWidget>

class QComboBox;
class QPushButton;

namespace deepstop::app {

class LiveView : public QWidget {
    Q_OBJECT
public:
    explicit LiveView(QWidget* parent);
    /// @param speed the stops begin at, m/s; @param cooling s of driving between two, NaN where it is not known
    void setPlan(double speed, double cooling, UnitSystem units);
    [[nodiscard]] QComboBox* address() const { return address_; }
    [[nodiscard]] QPushButton* connection() const { return connect_; }
    /// The words shown, from the largest to the smallest.
    [[nodiscard]] QStringList words() const;

signals:
    void found(const deepstop::proving::FoundStop& stop);
    void refused(const QString& why);

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    void open();
    void begin();
    [[nodiscard]] double now() const { return static_cast<double>(clock_.elapsed()) / 1000; }

    Wire wire_;
    std::unique_ptr<proving::LiveRecorder> recorder_;
    QElapsedTimer clock_;
    QComboBox* address_;
    QPushButton* connect_;
    double speed_ = 0;
    double cooling_ = 0;
    UnitSystem units_ = UnitSystem::Metric;
};

} // namespace deepstop::app
