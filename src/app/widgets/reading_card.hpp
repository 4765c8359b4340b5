#pragma once
/// The reading in hand: how it is known, with what, how sure.

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QWidget>

#include <string>

namespace deepstop {
struct Reading;
}

namespace deepstop::app {

class Document;

class ReadingCard : public QWidget {
    Q_OBJECT
public:
    explicit ReadingCard(Document& document, QWidget* parent = nullptr);

    /// Empty: hides the card.
    void setReading(const std::string& pointer);
    void refresh();
    [[nodiscard]] const std::string& pointer() const { return pointer_; }
    [[nodiscard]] QComboBox* known() const { return known_; }
    [[nodiscard]] QLineEdit* width() const { return width_; }
    [[nodiscard]] QComboBox* instrument() const { return instrument_; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    void put();

    Document& document_;
    std::string pointer_;
    QLabel* title_;
    QLabel* value_;
    QLabel* trouble_;
    QComboBox* known_;
    QComboBox* instrument_;
    QLineEdit* width_;
    bool filling_ = false;
};

} // namespace deepstop::app
