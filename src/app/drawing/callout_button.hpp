#pragma once

#include "drawing/sheet.hpp"

#include <QAbstractButton>

namespace deepstop::app {

/// A result's label on the drawing.
class CalloutButton : public QAbstractButton {
    Q_OBJECT
public:
    explicit CalloutButton(QWidget* parent);
    void show(const Callout& callout);
    [[nodiscard]] Level level() const { return level_; }
    [[nodiscard]] QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Level level_ = Level::Unproven;
};

} // namespace deepstop::app
