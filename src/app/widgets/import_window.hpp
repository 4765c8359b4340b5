#pragma once
/// Taking in a list: which column is what and in which unit, what would be taken, and every line that would not, with the reason.

#include "job.hpp"
#include "library/import.hpp"

#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QTableWidget>

#include <memory>

namespace deepstop::app {

class LibraryStore;

class ImportWindow : public QDialog {
    Q_OBJECT
public:
    ImportWindow(LibraryStore& store, QWidget* parent);

    /// Begins to read the list and to guess its columns; what is no list says so.
    void open(const QString& path);
    /// What is said under the columns: what can be taken, or why nothing can.
    [[nodiscard]] QString summary() const { return summary_->text(); }
    [[nodiscard]] bool busy() const { return opening_.isRunning() || importing_.isRunning(); }
    [[nodiscard]] QTableWidget* columns() const { return columns_; }
    [[nodiscard]] QTableWidget* refusedLines() const { return refused_; }
    [[nodiscard]] QPushButton* takeButton() const { return take_; }
    [[nodiscard]] QPushButton* cancelButton() const { return cancel_; }
    [[nodiscard]] QProgressBar* progress() const { return progress_; }

private:
    struct Opened {
        std::string text;
        library::Plan plan;
        QString trouble;
    };
    void opened(std::shared_ptr<const Opened> list);
    void guess(int kind);
    void lay();
    void readAgain();
    void finished(std::shared_ptr<library::Import> read);
    void stop();

    LibraryStore& store_;
    std::shared_ptr<const Opened> list_;
    library::Plan plan_;
    QComboBox* kind_;
    QTableWidget* columns_;
    QTableWidget* refused_;
    QLabel* summary_;
    QProgressBar* progress_;
    QPushButton* take_;
    QPushButton* cancel_;
    Job<std::shared_ptr<const Opened>> opening_;
    Job<std::shared_ptr<library::Import>> importing_;
    std::shared_ptr<library::Import> read_; ///< what was read with the columns as they are; null while it is being read
};

} // namespace deepstop::app
