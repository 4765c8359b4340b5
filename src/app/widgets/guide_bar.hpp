#pragma once
/// A first kit, guided: the next reading that one question waits for, how to take it, and its answer as soon as it stands.

#include "window/start_page.hpp"

#include "study/study.hpp"

#include <QWidget>

#include <string_view>

class QLabel;
class QPushButton;

namespace deepstop::app {

/// How an instrument is held for a reading.
enum class Hold { Outside, Inside, Depth, Other };
/// By what the reading is called.
[[nodiscard]] Hold holdOf(std::string_view label);

class GuideBar : public QWidget {
    Q_OBJECT
public:
    explicit GuideBar(QWidget* parent);
    void ask(GuidedQuestion question);
    void end();
    [[nodiscard]] bool asks() const { return question_ != GuidedQuestion::Everything; }
    void refresh(const Study& study);
    [[nodiscard]] const std::string& next() const { return next_; }
    [[nodiscard]] QString text() const;
    [[nodiscard]] QPushButton* goButton() const { return go_; }

signals:
    void readingWanted(const std::string& pointer);
    void verdictWanted(const std::string& id);

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    void say(const QString& what, const QString& how);

    GuidedQuestion question_ = GuidedQuestion::Everything;
    std::string next_; ///< pointer of the reading, or id of the verdict where nothing single is to be read
    bool isVerdict_ = false;
    Level level_ = Level::Unproven;
    Hold hold_ = Hold::Other;
    QLabel* what_;
    QLabel* how_;
    QPushButton* go_;
    QPushButton* end_;
};

} // namespace deepstop::app
