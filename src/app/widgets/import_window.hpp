#pragma once
/// Taking in a list: which column is what and in which unit, what would be taken, and every line that would not, with the reason.

#include "library/import.hpp"

#include <QComboBox>
#include <QDialog>
#include <QFutureWatcher>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QTableWidget>
#include <QTimer>

#include <atomic>
#include <memory>

namespace deepstop::app {

class LibraryStore;

class ImportWindow : public QDialog {
    Q_OBJECT
public:
    ImportWindow(LibraryStore& store, QWidget* parent);
    ~ImportWindow() override;

    /// Reads the list and guesses its columns. False, with `trouble`, for what is no list.
    bool open(const QString& path);
    [[nodiscard]] QString trouble() const { return summary_->text(); }
    [[nodiscard]] bool busy() const { return watcher_.isRunning(); }
    [[nodiscard]] QTableWidget* columns() const { return columns_; }
    [[nodiscard]] QTableWidget* refusedLines() const { return refused_; }
    [[nodiscard]] QPushButton* takeButton() const { return take_; }
    [[nodiscard]] QPushButton* cancelButton() const { return cancel_; }
    [[nodiscard]] QProgressBar* progress() const { return progress_; }

private:
    void guess(int kind);
    void lay();
    void readAgain();
    void finished();
    void stop();

    LibraryStore& store_;
    std::shared_ptr<const std::string> text_;
    library::Plan plan_;
    QComboBox* kind_;
    QTableWidget* columns_;
    QTableWidget* refused_;
    QLabel* summary_;
    QProgressBar* progress_;
    QPushButton* take_;
    QPushButton* cancel_;
    std::shared_ptr<std::atomic<bool>> goOn_;
    std::shared_ptr<std::atomic<int>> permille_;
    QFutureWatcher<std::shared_ptr<library::Import>> watcher_;
    QTimer ticker_;
};

} // namespace deepstop::app
