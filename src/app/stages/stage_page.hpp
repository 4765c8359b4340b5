#pragma once
/// A stage's page: its drawing, the row of places it can show, and whatever stands above or below. One kind of page a stage.

#include "drawing/drawing_view.hpp"
#include "stage.hpp"

#include <QWidget>

class QButtonGroup;
class QComboBox;
class QHBoxLayout;
class QScrollArea;
class QLabel;
class QVBoxLayout;

namespace deepstop::app {

class Document;

class StagePage : public QWidget {
    Q_OBJECT
public:
    [[nodiscard]] StageId stage() const { return stage_; }
    [[nodiscard]] DrawingView* view() const { return view_; }
    /// What the view is seen through: it scrolls where the window is too small for a sheet.
    [[nodiscard]] QScrollArea* scroll() const { return scroll_; }
    /// Which axle's parts are shown, where that is chosen beside the places; else null.
    [[nodiscard]] QComboBox* axleChoice() const { return axleChoice_; }
    /// Whose side's readings are shown, where that is chosen; else null.
    [[nodiscard]] QComboBox* sideChoice() const { return sideChoice_; }
    [[nodiscard]] Side side() const;
    void setSide(Side side);
    /// The axle whose parts are shown.
    [[nodiscard]] virtual Axle axle() const { return chosenAxle(); }
    [[nodiscard]] int placeCount() const { return static_cast<int>(shownPlaces_.size()); }
    /// Which of the page's places is shown.
    [[nodiscard]] int place() const { return place_; }
    void setPlace(int place);
    /// Shows a place that draws this reading: the one shown, else the first of either axle. False where none does.
    bool showReading(const std::string& pointer);
    /// Draws the document's study.
    void refresh();
    /// Shows the place a verdict speaks of.
    void reveal(const Verdict& verdict);

signals:
    void dimensionEntered(const std::string& pointer);
    void verdictChosen(const std::string& id);
    void readingWanted(const std::string& pointer);
    void refused(const QString& why);
    void placeChanged();

protected:
    /// Where the row of places stands: over the sheet, or in its corner.
    enum class Row { Over, Corner };
    StagePage(Document& document, StageId stage, Row row, QWidget* parent);

    /// What the page can show, in working order; a page with one sheet names none.
    [[nodiscard]] virtual QStringList placeNames() const { return {}; }
    /// What is drawn at a place; an empty sheet where a list stands instead.
    [[nodiscard]] virtual Sheet sheet(int place) const = 0;
    [[nodiscard]] virtual bool isDrawn(int) const { return true; }
    /// The place that shows most of what this verdict of the page's stage rests on, its axle being chosen already.
    [[nodiscard]] virtual int placeFor(const Verdict&) const { return place_; }
    /// Where the picture that a verdict's check names stands; nothing where it is none of these.
    using Pictures = std::initializer_list<std::pair<std::string_view, int>>;
    [[nodiscard]] static std::optional<int> shownIn(const Verdict& verdict, Pictures pictures);
    /// Whatever else the page shows of the study.
    virtual void refreshRest() { }
    /// A result was clicked on the sheet.
    virtual void chosenInView(const std::string& id) { emit verdictChosen(id); }
    virtual void placeClicked(int place) { setPlace(place); }
    /// Puts what floats over the sheet where there is room.
    virtual void arrange();
    void resizeEvent(QResizeEvent* event) override;

    void addAxleChoice();
    void addSideChoice();
    [[nodiscard]] Axle chosenAxle() const;
    /// A list's title, where a sheet would have its own; empty hides it.
    void setListTitle(const QString& text);
    /// Puts `widgets` into the sheet's top right corner, the first outermost, and keeps the title clear of those that are shown.
    void putInCorner(std::initializer_list<QWidget*> widgets);
    [[nodiscard]] Document& document() const { return document_; }
    [[nodiscard]] QHBoxLayout* placesRow() const { return placesRow_; }
    [[nodiscard]] QVBoxLayout* column() const { return column_; }
    /// Says `items` in `box` with `current` chosen, without a flicker where they are said already.
    static void offer(QComboBox* box, const QStringList& items, int current);

private:
    void refreshPlaces();
    /// The row over the sheet within the page, whatever the language.
    void fitPlaces();

    Document& document_;
    StageId stage_;
    Row row_;
    DrawingView* view_;
    QScrollArea* scroll_;
    QWidget* places_;
    QHBoxLayout* placesRow_;
    QButtonGroup* placeButtons_;
    QVBoxLayout* column_;
    QComboBox* axleChoice_ = nullptr;
    QComboBox* sideChoice_ = nullptr;
    QLabel* listTitle_ = nullptr;
    QStringList shownPlaces_;
    int place_ = 0;
};

} // namespace deepstop::app
