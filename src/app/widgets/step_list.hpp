#pragma once
/// Steps to be gone through one after the other, each ticked as it is done: an inspection, a job card.

#include "build/build.hpp"
#include "widgets/ticked_line.hpp"

#include <QScrollArea>

#include <vector>

namespace deepstop::app {

/// One step as it is shown.
struct StepRow {
    std::string id;
    QString group; ///< heads the first of its group
    QString text;
    QString under; ///< what it rests on, a torque, tools
    QString caution;
    QString done; ///< "A. B., 14:05"
    Checked state = Checked::Open;
    bool shut = false; ///< cannot be ticked yet; `under` says why
    bool operator==(const StepRow&) const = default;
};

/// Keys: Space or F fine and on to the next, X fault, Enter and arrows go on.
class StepLine : public QWidget, public TickedLine {
    Q_OBJECT
public:
    explicit StepLine(QWidget* parent);
    void show(const StepRow& row, bool heads);
    [[nodiscard]] const StepRow& row() const { return row_; }
    [[nodiscard]] int heightForWidth(int width) const override;
    [[nodiscard]] QSize sizeHint() const override { return { 400, heightForWidth(width()) }; }
    [[nodiscard]] Checked ticked() const override { return row_.state; }
    /// A shut step too: pressing it says why.
    [[nodiscard]] bool takes(Checked) const override { return true; }
    void tick(Checked state) override { say(state); }

signals:
    void said(const std::string& id, deepstop::Checked state);
    /// A shut step was to be ticked.
    void shutTicked(const std::string& id);
    void goOn(int by);
    void reached(const std::string& id);

protected:
    void paintEvent(QPaintEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    void say(Checked state);
    [[nodiscard]] QRect button(int index) const;
    [[nodiscard]] QRect textRect(int width) const;
    StepRow row_;
    bool heads_ = false;
};

class StepList : public QScrollArea {
    Q_OBJECT
public:
    explicit StepList(QWidget* parent);
    void setRows(const std::vector<StepRow>& rows);
    [[nodiscard]] StepLine* line(const std::string& id) const;
    [[nodiscard]] const std::vector<StepLine*>& lines() const { return lines_; }
    /// Room left at the top for what floats there.
    void setHeadroom(int pixels);
    /// Puts the focus on the first open step, and shows it.
    void goToFirstOpen();

signals:
    void said(const std::string& id, deepstop::Checked state);
    void shutTicked(const std::string& id);
    void reached(const std::string& id);

private:
    std::vector<StepLine*> lines_;
    QWidget* inside_;
};

} // namespace deepstop::app
