#pragma once
/// What is still to be read, most hangs on the first: to go to, to print, to send.

#include "report/ask.hpp"

#include <QTextBrowser>
#include <QWidget>

class QPushButton;

namespace deepstop::app {

class Document;

class AskList : public QWidget {
    Q_OBJECT
public:
    explicit AskList(Document& document, QWidget* parent);
    void refresh();
    [[nodiscard]] QString plainText() const { return text_->toPlainText(); }
    [[nodiscard]] QTextBrowser* browser() const { return text_; }
    [[nodiscard]] QPushButton* button(const QString& name) const { return findChild<QPushButton*>(name); }

signals:
    void readingWanted(const std::string& pointer);
    void refused(const QString& why);

public slots:
    /// Writes the sheet or the letter to a file: PDF by its ending, else text. False, with `refused`, where it cannot.
    bool write(const QString& path, bool letter);

private:
    void ask(bool letter);
    Document& document_;
    QTextBrowser* text_;
};

} // namespace deepstop::app
