#pragma once
/// The reading in hand: how it is known, with what, how sure.

#include <QComboBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QWidget>

#include <string>

namespace deepstop {
struct Reading;
}

namespace deepstop::app {

class Document;
class DimensionField;
class FactField;

class ReadingCard : public QWidget {
    Q_OBJECT
public:
    explicit ReadingCard(Document& document, QWidget* parent = nullptr);

    /// Empty: hides the card.
    void setReading(const std::string& pointer);
    void refresh();
    [[nodiscard]] const std::string& pointer() const { return pointer_; }
    /// The reading itself, for those that no drawing shows; null while there is none in hand.
    [[nodiscard]] DimensionField* field() const { return field_; }
    /// Of a wheel's station: whether a bend begins or ends there; null for any other reading.
    [[nodiscard]] FactField* bend() const { return bend_; }
    [[nodiscard]] QComboBox* known() const { return known_; }
    [[nodiscard]] QLineEdit* width() const { return width_; }
    [[nodiscard]] QComboBox* instrument() const { return instrument_; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    bool put();
    /// Puts in what is typed in a line of the card, if anything is.
    bool putLine(QLineEdit* line);

    Document& document_;
    std::string pointer_;
    QLabel* title_;
    QLabel* other_; ///< the same in the other units
    DimensionField* field_ = nullptr;
    FactField* bend_ = nullptr;
    QFormLayout* form_;
    QLabel* trouble_;
    QComboBox* known_;
    QComboBox* instrument_;
    QLineEdit* width_;
    bool filling_ = false;
};

} // namespace deepstop::app
