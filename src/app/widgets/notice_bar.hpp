#pragma once
/// One line across the top for what went wrong or has to be decided, without stopping the work.

#include <QHBoxLayout>
#include <QLabel>
#include <QWidget>

#include <functional>
#include <vector>

namespace deepstop::app {

class NoticeBar : public QWidget {
    Q_OBJECT
public:
    struct Choice {
        QString text;
        std::function<void()> act;
    };

    explicit NoticeBar(QWidget* parent = nullptr);
    /// Shows `text` with the choices and a way to put it away.
    void say(const QString& text, bool bad, std::vector<Choice> choices = {});
    [[nodiscard]] const QString& text() const { return said_; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    QLabel* text_;
    QString said_;
    QHBoxLayout* row_; ///< of the choices, where there are several
    QHBoxLayout* beside_ = nullptr; ///< the words, and the one thing there is to do
    std::vector<QWidget*> buttons_;
    bool bad_ = false;
};

} // namespace deepstop::app
