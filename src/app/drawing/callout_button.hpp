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
    /// Its result is being worked out anew: until that is there its place stays, without a word or a level.
    void showWorking();
    [[nodiscard]] bool isWorking() const { return working_; }
    [[nodiscard]] Level level() const { return level_; }
    [[nodiscard]] QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Level level_ = Level::Unproven;
    bool working_ = false;
};

} // namespace deepstop::app
