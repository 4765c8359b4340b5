#pragma once
/// A CSV log whose names do not say what its columns are: somebody says it, with the first rows before his eyes.

#include "files/log_columns.hpp"

#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>

namespace deepstop::app {

class LogColumnsWindow : public QDialog {
    Q_OBJECT
public:
    LogColumnsWindow(const QString& path, files::LogHead head, QWidget* parent);
    [[nodiscard]] const files::LogColumns& columns() const { return head_.columns; }
    /// What a column is, and its unit.
    [[nodiscard]] QComboBox* kind(int column) const;
    [[nodiscard]] QComboBox* unit(int column) const;
    [[nodiscard]] QPushButton* takeButton() const { return take_; }
    [[nodiscard]] QString summary() const { return summary_->text(); }

private:
    void choose(int column);
    void fillUnits(int column);
    void judge();

    files::LogHead head_;
    QTableWidget* table_;
    QLabel* summary_;
    QPushButton* take_;
};

/// The columns of a log that is about to be read: nothing where it says itself what they are or is no CSV. `given` is false where somebody
/// was asked and went away.
struct AskedColumns {
    bool given = true;
    std::optional<files::LogColumns> columns;
};
[[nodiscard]] AskedColumns askColumns(const QString& path, QWidget* parent);

} // namespace deepstop::app
