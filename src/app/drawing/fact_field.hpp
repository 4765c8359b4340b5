#pragma once
/// What is named, counted or chosen about a part, entered where it stands on the sheet.

#include "build/address.hpp"
#include "build/edit.hpp"

#include <QComboBox>
#include <QLineEdit>
#include <QWidget>

namespace deepstop::app {

class Document;
class FittingLabel;

/// Ticks in a row as one field: a letter toggles its word, arrows move, Space toggles where the mark stands.
class TickRow : public QWidget {
    Q_OBJECT
public:
    explicit TickRow(QWidget* parent);
    void setWords(const std::vector<std::string>& words, const std::string& ticked);
    [[nodiscard]] QString ticked() const;
    [[nodiscard]] QSize sizeHint() const override;

signals:
    void changed();
    void done(); ///< Enter

protected:
    void paintEvent(QPaintEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

private:
    void toggle(int index);
    [[nodiscard]] QRect cell(int index) const;
    [[nodiscard]] int letterOf(int index) const;

    QStringList words_;
    std::vector<bool> on_;
    int mark_ = 0;
};

/// A caption over its editor. Enter puts it in and goes on; Escape leaves it as it was; what cannot be taken stays, with the reason.
class FactField : public QWidget {
    Q_OBJECT
public:
    /// @param made makes what the fact is of, where the build does not have that yet
    FactField(Document& document, std::string pointer, Edit made, QWidget* parent);

    [[nodiscard]] const std::string& pointer() const { return pointer_; }
    [[nodiscard]] QWidget* editor() const;
    [[nodiscard]] QString shown() const;
    [[nodiscard]] QString refusal() const { return refusal_; }
    void setCaption(const QString& caption);
    void refresh();

signals:
    void goOn(); ///< Enter

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    /// The build with what the fact is of in it.
    [[nodiscard]] std::optional<Build> withPlace(const Build& build) const;
    [[nodiscard]] std::optional<StatedFact> fact() const;
    bool put(const QString& text);
    bool putLine();

    Document& document_;
    std::string pointer_;
    Edit made_;
    FittingLabel* caption_;
    QLineEdit* line_ = nullptr;
    QComboBox* box_ = nullptr;
    TickRow* ticks_ = nullptr;
    QString refusal_;
    bool filling_ = false;
};

} // namespace deepstop::app
