#pragma once
/// The parts library: search, put on the bench, keep from the bench, take in and give out as lists.

#include "library/library.hpp"

#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>

namespace deepstop::app {

class Document;
class LibraryStore;

class LibraryWindow : public QDialog {
    Q_OBJECT
public:
    LibraryWindow(Document& document, LibraryStore& store, QWidget* parent);

    /// Which axle parts go to and come from.
    void setAxle(Axle axle);
    void setKind(library::Kind kind);
    void refresh();

    [[nodiscard]] QLineEdit* search() const { return search_; }
    [[nodiscard]] QListWidget* list() const { return list_; }
    [[nodiscard]] QPushButton* putButton() const { return put_; }
    [[nodiscard]] QPushButton* keepButton() const { return keep_; }
    [[nodiscard]] QString state() const { return state_->text(); }

private:
    void put();
    void keep();
    void keepKit();
    void importKit();
    void exportKit();
    void importList();
    void exportList();
    [[nodiscard]] library::Kind kind() const;
    [[nodiscard]] const Corner* corner() const;

    Document& document_;
    LibraryStore& store_;
    Axle axle_ = Axle::Front;
    QComboBox* kinds_;
    QLineEdit* search_;
    QListWidget* list_;
    QLabel* state_;
    QPushButton* put_;
    QPushButton* keep_;
    QPushButton* import_;
    QPushButton* export_;
};

} // namespace deepstop::app
