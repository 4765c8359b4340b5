#pragma once
/// The stages in working order along the edge of a steel rule, each with its state as a shape and a word.

#include "study/study.hpp"

#include <QAbstractButton>
#include <QWidget>

#include <vector>

namespace deepstop::app {

class StageButton : public QAbstractButton {
    Q_OBJECT
public:
    StageButton(Stage stage, QWidget* parent);
    [[nodiscard]] Stage stage() const { return stage_; }
    [[nodiscard]] QString state() const { return state_; }
    void setState(Level level, const QString& word);
    [[nodiscard]] QSize sizeHint() const override { return { 172, 58 }; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Stage stage_;
    Level level_ = Level::Unproven;
    QString state_;
};

class WorkRail : public QWidget {
    Q_OBJECT
public:
    explicit WorkRail(QWidget* parent = nullptr);
    void setStudy(const Study& study);
    void setCurrent(Stage stage);
    [[nodiscard]] StageButton* button(Stage stage) const;

signals:
    void chosen(Stage stage);

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    std::vector<StageButton*> buttons_;
};

/// The stages there are, in working order.
[[nodiscard]] const std::vector<Stage>& workingOrder();

} // namespace deepstop::app
