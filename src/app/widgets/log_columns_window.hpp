#pragma once
/// A CSV log whose names do not say what its columns are: somebody says it, with the first rows before his eyes.

#include "files/log_columns.hpp"

#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>

#include <functional>
#include <optional>

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

/// The columns of a log that is about to be read.
struct AskedColumns {
    std::optional<files::LogColumns> columns; ///< absent: as its names say, or it is no CSV
};
/// Looks into the log beside the window, asks where its names leave something open, and calls `then` with what was said; nothing is called
/// where whoever was asked gave it up, or `parent` is gone by then. @param failed called with the reason where the log cannot be looked
/// into
void askColumns(const QString& path, QWidget* parent, std::function<void(const AskedColumns&)> then,
    std::function<void(const QString&)> failed);

} // namespace deepstop::app
