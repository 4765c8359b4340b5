#pragma once
/// What the connected instrument shows, large enough for arm's length, and the button that takes it.

#include "instruments/instrument.hpp"

#include "quantity/format.hpp"

#include <QLabel>
#include <QPushButton>
#include <QWidget>

namespace deepstop::app {

class InstrumentBar : public QWidget {
    Q_OBJECT
public:
    InstrumentBar(Instrument& instrument, QWidget* parent);
    void setUnits(UnitSystem units) { units_ = units; }
    [[nodiscard]] QString shown() const { return value_->text(); }
    [[nodiscard]] QString word() const { return word_->text(); }
    [[nodiscard]] QPushButton* takeButton() const { return take_; }
    void refresh();

signals:
    void take(bool again);

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Instrument& instrument_;
    UnitSystem units_ = UnitSystem::Metric;
    QLabel* name_;
    QLabel* value_;
    QLabel* word_;
    QPushButton* take_;
};

} // namespace deepstop::app
