#pragma once
/// The plots read as tables: for whoever does not see them, and to be taken along into a spreadsheet.

#include <QDialog>

class QComboBox;
class QTableView;

namespace deepstop::app {

class Document;

class PlotTables : public QDialog {
    Q_OBJECT
public:
    PlotTables(const Document& document, QWidget* parent);
    [[nodiscard]] QComboBox* plots() const { return plots_; }
    [[nodiscard]] QTableView* table() const { return table_; }

protected:
    void showEvent(QShowEvent* event) override;

private:
    class Model;
    /// The plots of the study as it is now; the one in hand stays, where it is still there.
    void refresh();
    void copy() const;

    const Document& document_;
    QComboBox* plots_;
    QTableView* table_;
    Model* model_;
};

} // namespace deepstop::app
