#pragma once
/// A job card or build sheet as it will be printed: looked at, printed, or saved as PDF or HTML.

#include "print/template_window.hpp"
#include "report/leaf.hpp"

namespace deepstop::app {

class LeafWindow : public QDialog {
    Q_OBJECT
public:
    LeafWindow(report::Leaf leaf, QWidget* parent);
    [[nodiscard]] PageView* view() const { return view_; }
    [[nodiscard]] QComboBox* paper() const { return paper_; }
    /// Writes it by the ending of its name, .pdf or .html. Why it could not; empty: it could.
    QString save(const QString& path) const;

private:
    void refresh();
    void print();

    report::Leaf leaf_;
    PageView* view_;
    QComboBox* paper_;
    QLabel* says_;
};

} // namespace deepstop::app
