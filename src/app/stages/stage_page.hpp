#pragma once
/// A stage's page: its drawing, with whatever stands above or below it.

#include "drawing/drawing_view.hpp"

#include <QWidget>

#include <functional>

class QButtonGroup;
class QHBoxLayout;
class QVBoxLayout;

namespace deepstop::app {

class Document;
class CourseChart;

class StagePage : public QWidget {
    Q_OBJECT
public:
    StagePage(Document& document, Stage stage, QWidget* parent);

    [[nodiscard]] Stage stage() const { return stage_; }
    [[nodiscard]] DrawingView* view() const { return view_; }
    [[nodiscard]] CourseChart* chart() const { return chart_; }
    /// Draws the document's study.
    void refresh();
    /// Shows the place a verdict speaks of, where the page has several.
    void reveal(const Verdict& verdict);

signals:
    void dimensionEntered(const std::string& pointer);
    void verdictChosen(const std::string& id);

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    void refreshPlaces();
    void alignPlaces();
    [[nodiscard]] Sheet sheet() const;

    Document& document_;
    Stage stage_;
    DrawingView* view_;
    CourseChart* chart_ = nullptr;
    QWidget* places_; ///< which axle, which mock-up
    QHBoxLayout* placesRow_;
    QButtonGroup* placeButtons_;
    QVBoxLayout* column_;
    int place_ = 0;
    QStringList placeNames_;
};

} // namespace deepstop::app
