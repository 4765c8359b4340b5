#pragma once

#include "drawing/sheet.hpp"
#include "verdict/verdict.hpp"

#include <QAbstractButton>

namespace deepstop::app {

/// A result's label on the drawing.
class CalloutButton : public QAbstractButton {
    Q_OBJECT
public:
    explicit CalloutButton(QWidget* parent);
    void show(const Callout& callout);
    /// What is heard of it: its verdict's title before its figure, then the reason and what would mend it.
    void setVerdict(const Verdict& verdict);
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
