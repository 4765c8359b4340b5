#pragma once
/// From a symptom to its causes on this car: the symptoms on the left, the causes of the one in hand with their tests on the right; a
/// reading that a test gives is a link to where it is typed.

#include <QDialog>

class QListWidget;
class QTextBrowser;

namespace deepstop {
struct Study;
}

namespace deepstop::app {

class Document;

class SymptomWindow : public QDialog {
    Q_OBJECT
public:
    explicit SymptomWindow(Document& document, QWidget* parent);
    [[nodiscard]] QListWidget* symptoms() const { return list_; }
    [[nodiscard]] QTextBrowser* causes() const { return text_; }

signals:
    void readingWanted(const std::string& pointer);

private:
    void show(const Study& study);

    Document& document_;
    QListWidget* list_;
    QTextBrowser* text_;
};

} // namespace deepstop::app
