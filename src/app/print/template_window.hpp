#pragma once
/// The caliper's template and the shield's cutting line: seen as they will be printed, corrected for the printer, printed or saved.

#include "build/build.hpp"
#include "paper/paper.hpp"

#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>

class QPrinter;

namespace deepstop::app {

class Document;

/// The sheets side by side on a grey table.
class PageView : public QWidget {
    Q_OBJECT
public:
    explicit PageView(QWidget* parent) : QWidget(parent) { }
    void setPages(std::vector<paper::Page> pages);
    [[nodiscard]] const std::vector<paper::Page>& pages() const { return pages_; }
    [[nodiscard]] QSize sizeHint() const override;
    /// Where sheet `index` lies, and how many pixels a metre has.
    [[nodiscard]] QRectF sheet(std::size_t index) const;
    [[nodiscard]] double pixelsPerMetre() const;

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    std::vector<paper::Page> pages_;
};

class TemplateWindow : public QDialog {
    Q_OBJECT
public:
    TemplateWindow(Document& document, QWidget* parent);

    void setAxle(Axle axle);
    void refresh();
    [[nodiscard]] PageView* view() const { return view_; }
    [[nodiscard]] QLineEdit* across() const { return across_; }
    [[nodiscard]] QLineEdit* down() const { return down_; }
    [[nodiscard]] QComboBox* what() const { return what_; }
    [[nodiscard]] QComboBox* paper() const { return paper_; }
    [[nodiscard]] QString trouble() const { return trouble_->text(); }
    /// Writes what is seen; false with the reason under the options.
    bool save(const QString& path);
    /// Draws what is seen on a printer, a page each.
    void print(QPrinter& printer) const;

private:
    [[nodiscard]] double bar(QLineEdit* field) const;

    Document& document_;
    Axle axle_ = Axle::Front;
    std::optional<paper::Drawing> drawing_;
    PageView* view_;
    QComboBox* what_;
    QComboBox* paper_;
    QLineEdit* across_;
    QLineEdit* down_;
    QLabel* trouble_;
    QPushButton* print_;
    QPushButton* save_;
};

} // namespace deepstop::app
