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
    [[nodiscard]] QString text() const { return text_->text(); }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    QLabel* text_;
    QHBoxLayout* row_;
    std::vector<QWidget*> buttons_;
    bool bad_ = false;
};

} // namespace deepstop::app
