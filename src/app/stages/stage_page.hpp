#pragma once
/// A stage's page: its drawing, with whatever stands above or below it.

#include "drawing/drawing_view.hpp"

#include <QWidget>

#include <functional>

class QButtonGroup;
class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;
class QHBoxLayout;
class QVBoxLayout;

namespace deepstop::app {

class AskList;
class CheckList;
class CureBoard;
class Document;
class CourseChart;
class LibraryStore;

class StagePage : public QWidget {
    Q_OBJECT
public:
    StagePage(Document& document, LibraryStore& library, Stage stage, QWidget* parent);

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
    [[nodiscard]] CureBoard* cureBoard() const { return cures_; }
    /// Which axle's parts are shown, where that is chosen beside the places.
    [[nodiscard]] QComboBox* axleChoice() const { return axleChoice_; }
    /// Centring errors as large as they are.
    [[nodiscard]] QCheckBox* trueProportion() const { return trueProportion_; }
    [[nodiscard]] int placeCount() const { return static_cast<int>(placeNames_.size()); }
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
    void makeAxleChoice();
    /// The choice of what readings are typed from.
    void makeInHand(QWidget* parent);
    void refreshChoice();
    void choose(int index);
    void chooseInView(const std::string& id);
    [[nodiscard]] bool hasBenches() const { return stage_ == Stage::PartsBench || stage_ == Stage::WheelRoom || stage_ == Stage::Centring; }
    /// Centring: how many of its places are corners, the one still to be mocked up included.
    [[nodiscard]] int cornerPlaces() const;
    void mockUpAnother();
    [[nodiscard]] bool isDrawn(int place) const;
    void refreshDrawer();
    void putDrawer();
    void alignPlaces();
    /// The choice in the corner of the sheet, the places in a row over it.
    void putChoiceAside();
    [[nodiscard]] Sheet sheet() const { return sheet(place_); }
    [[nodiscard]] Sheet sheet(int place) const;

    Document& document_;
    Stage stage_;
    DrawingView* view_;
    CourseChart* chart_ = nullptr;
    QComboBox* choice_ = nullptr;
    QLineEdit* drawer_ = nullptr;
    QLabel* drawerTrouble_ = nullptr;
    QWidget* drawerStrip_ = nullptr;
    QComboBox* inHand_ = nullptr;
    CheckList* checks_ = nullptr;
    AskList* asks_ = nullptr;
    CureBoard* cures_ = nullptr;
    QComboBox* axleChoice_ = nullptr;
    QCheckBox* trueProportion_ = nullptr;
    QLabel* listTitle_ = nullptr;
    QWidget* places_; ///< which axle, which mock-up
    QHBoxLayout* placesRow_;
    QButtonGroup* placeButtons_;
    QVBoxLayout* column_;
    int place_ = 0;
    QStringList placeNames_;
};

} // namespace deepstop::app
