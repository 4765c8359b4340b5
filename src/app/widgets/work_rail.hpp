#pragma once
/// The stages in working order along the edge of a steel rule, each with its state as a shape and a word.

#include "stage.hpp"
#include "study/study.hpp"

#include <QAbstractButton>
#include <QWidget>

#include <vector>

namespace deepstop::app {

class StageButton : public QAbstractButton {
    Q_OBJECT
public:
    StageButton(const Stage& stage, QWidget* parent);
    [[nodiscard]] const Stage& stage() const { return stage_; }
    [[nodiscard]] QString state() const { return state_; }
    void setState(Level level, const QString& word);
    [[nodiscard]] QSize sizeHint() const override { return { 172, 54 }; }
    /// Eleven of them on a screen of 768 lines; on a smaller one they draw together.
    [[nodiscard]] QSize minimumSizeHint() const override { return { 172, 42 }; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    const Stage& stage_;
    Level level_ = Level::Unproven;
    QString state_;
};

class WorkRail : public QWidget {
    Q_OBJECT
public:
    WorkRail(const std::vector<Stage>& stages, QWidget* parent);
    void setStudy(const Study& study);
    void setCurrent(StageId stage);
    [[nodiscard]] StageButton* button(StageId stage) const;

signals:
    void chosen(deepstop::app::StageId stage);

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    std::vector<StageButton*> buttons_;
    StageButton* toggled_ = nullptr; ///< chosen already by the toggle of a click under way
};

} // namespace deepstop::app
