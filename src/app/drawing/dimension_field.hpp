#pragma once
/// A dimension on the drawing that is the input field of its reading.

#include "drawing/sheet.hpp"
#include "quantity/format.hpp"

#include <QLineEdit>
#include <QPixmap>

namespace deepstop::app {

class Document;

/// Shows the figure as lettering; clicked or tabbed into it takes text in any unit. Typing shows at once what would be; Enter and Tab
/// put it in and go on to the next; Escape leaves the reading as it was. Text that is not understood stays, with the reason under it.
class DimensionField : public QLineEdit {
    Q_OBJECT
public:
    DimensionField(Document& document, std::string pointer, QWidget* parent);

    [[nodiscard]] const std::string& pointer() const { return pointer_; }
    [[nodiscard]] bool isMissing() const { return missing_; }
    /// Why the text now in it was refused; empty while it is fine.
    [[nodiscard]] QString refusal() const { return refusal_; }
    void setLook(const DimensionLine& line) { prefix_ = line.prefix, unit_ = line.unit, mayLack_ = line.mayLack, blank_ = line.blank; }
    /// Puts a reading taken by an instrument in, instead of anything half typed, and goes on.
    void take(const Reading& reading, bool again);
    /// Takes the reading from the document's study, unless somebody is typing.
    void refresh();
    [[nodiscard]] QSize sizeHint() const override;

signals:
    void entered(const std::string& pointer); ///< focus came
    void leftToSheet(); ///< Escape
    void goOn(const std::string& from); ///< Enter; `from` is where the reading now stands
    void grew(); ///< wants another size

protected:
    bool event(QEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void paintEvent(QPaintEvent* event) override;

private:
    bool commit();
    void giveUp();
    [[nodiscard]] std::pair<std::optional<Reading>, QString> understood(const QString& text) const;
    [[nodiscard]] QString whyNot(const QString& text) const;
    void tryText(const QString& text);
    void say(const QString& refusal);
    void setShown();
    /// Gives its figures the colour that says how they are known.
    void dress();

    Document& document_;
    std::string pointer_;
    QString prefix_;
    QString blank_;
    bool unit_ = false;
    bool mayLack_ = false;
    bool missing_ = false;
    bool estimated_ = false;
    QColor dressedIn_; ///< of its figures
    QPixmap picture_; ///< without the focus
    std::size_t pictured_ = 0;
    bool editing_ = false;
    bool beginsAnew_ = false; ///< the next key replaces all that stands there
    UnitSystem typedIn_ = UnitSystem::Metric; ///< units that a plain number typed here is in
    QString refusal_;
};

} // namespace deepstop::app
