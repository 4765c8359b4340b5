#pragma once
/// A stage's page: its drawing, with whatever stands above or below it.

#include "drawing/drawing_view.hpp"

#include <QWidget>

#include <functional>

class QButtonGroup;
class QComboBox;
class QLabel;
class QLineEdit;
class QHBoxLayout;
class QVBoxLayout;

namespace deepstop::app {

class AskList;
class CheckList;
class Document;
class CourseChart;

class StagePage : public QWidget {
    Q_OBJECT
public:
    StagePage(Document& document, Stage stage, QWidget* parent);

    [[nodiscard]] Stage stage() const { return stage_; }
    [[nodiscard]] DrawingView* view() const { return view_; }
    [[nodiscard]] CourseChart* chart() const { return chart_; }
    /// What is chosen on this stage rather than measured: antilock, the wheel, which way shims move the caliper. Null where nothing is.
    [[nodiscard]] QComboBox* choice() const { return choice_; }
    /// The drawer of shims, as one line of text; on the Centring stage only.
    [[nodiscard]] QLineEdit* drawer() const { return drawer_; }
    /// What readings are typed from, on the parts bench.
    [[nodiscard]] QComboBox* inHand() const { return inHand_; }
    [[nodiscard]] CheckList* checkList() const { return checks_; }
    [[nodiscard]] AskList* askList() const { return asks_; }
    /// Which of the page's places is shown: axle, mock-up, or bench.
    [[nodiscard]] int place() const { return place_; }
    void setPlace(int place);
    /// The axle whose parts are shown.
    [[nodiscard]] Axle axle() const;
    /// Shows the place that draws this reading, if any does. On the bench several do; the first in their order.
    bool showReading(const std::string& pointer);
    /// Draws the document's study.
    void refresh();
    /// Shows the place a verdict speaks of, where the page has several.
    void reveal(const Verdict& verdict);

signals:
    void dimensionEntered(const std::string& pointer);
    void verdictChosen(const std::string& id);
    void readingWanted(const std::string& pointer);
    void refused(const QString& why);
    void placeChanged();

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    void refreshPlaces();
    void refreshChoice();
    void choose(int index);
    void refreshDrawer();
    void putDrawer();
    void alignPlaces();
    [[nodiscard]] Sheet sheet() const { return sheet(place_); }
    [[nodiscard]] Sheet sheet(int place) const;

    Document& document_;
    Stage stage_;
    DrawingView* view_;
    CourseChart* chart_ = nullptr;
    QComboBox* choice_ = nullptr;
    QLineEdit* drawer_ = nullptr;
    QLabel* drawerTrouble_ = nullptr;
    QComboBox* inHand_ = nullptr;
    CheckList* checks_ = nullptr;
    AskList* asks_ = nullptr;
    QLabel* listTitle_ = nullptr;
    QWidget* places_; ///< which axle, which mock-up
    QHBoxLayout* placesRow_;
    QButtonGroup* placeButtons_;
    QVBoxLayout* column_;
    int place_ = 0;
    QStringList placeNames_;
};

} // namespace deepstop::app
