#pragma once
/// A sheet on the screen: drawn to scale, zoomed and panned, its dimensions typed into where they stand.

#include "drawing/callout_button.hpp"
#include "drawing/handle_drag.hpp"
#include "drawing/layers.hpp"

#include <QWidget>

#include <map>

namespace deepstop::app {

class DimensionField;
class FactField;
class Document;

class DrawingView : public QWidget {
    Q_OBJECT
public:
    explicit DrawingView(Document& document, QWidget* parent = nullptr);

    void setSheet(Sheet sheet);
    [[nodiscard]] const Sheet& sheet() const { return sheet_; }
    [[nodiscard]] DimensionField* field(const std::string& pointer) const;
    [[nodiscard]] FactField* fact(const std::string& pointer) const;
    /// Whatever is entered at `pointer`: dimension or fact. Null where the sheet has none.
    [[nodiscard]] QWidget* entry(const std::string& pointer) const;
    [[nodiscard]] CalloutButton* callout(const std::string& verdict) const;
    /// Smaller than this the sheet's boxes, which are as large at every scale, would lie over each other: it scrolls then.
    [[nodiscard]] QSize minimumSizeHint() const override;
    /// Screen position of a point of the sheet.
    [[nodiscard]] QPointF toScreen(QPointF millimetres) const;
    [[nodiscard]] double pixelsPerMillimetre() const;
    /// As it is shown: letters that would run under an entry or off the paper are smaller, down to 8 pixels, where that helps.
    [[nodiscard]] Lettering fitted(const Lettering& letters) const;
    /// Letters, as they are shown, stand over nothing that is entered.
    [[nodiscard]] bool standsClear(const Lettering& letters) const;

    void zoomBy(double factor, QPointF about);
    void zoomIn() { zoomBy(1.25, rect().center()); }
    void zoomOut() { zoomBy(0.8, rect().center()); }
    void zoomToFit();
    void focusFirst();
    /// A handle is being dragged.
    [[nodiscard]] bool isHolding() const { return drag_.isHolding(); }
    /// How the last painting went about it.
    [[nodiscard]] const Layers& layers() const { return layers_; }
    /// Moves on from one entry to the next in measuring order; `finished` after the last.
    void goOnFrom(const std::string& pointer);
    /// Keeps the right end of the title line free for buttons.
    void setTitleMargin(int pixels) { titleMargin_ = pixels; }

signals:
    void dimensionEntered(const std::string& pointer);
    void verdictChosen(const std::string& id);
    void finished(); ///< Enter in the last entry of the sheet

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void placeLabels();
    void chainFocus();
    [[nodiscard]] QRectF drawingArea() const;
    [[nodiscard]] const Handle* handleAt(QPointF screen) const;
    void add(const Likeness& likeness, const QRectF& bounds, int effort, std::function<void(QPainter&)> ink);
    /// Has only that painted again which looks different; entries see to themselves.
    void updateWhatChanged();
    void gatherStrokes();
    void addAreas();
    void addDimensionLines();
    void addLetters();
    void addHandles();
    void addTitle();
    void drawBorder(QPainter& p) const;
    void addScaleBar();

    Document& document_;
    Sheet sheet_;
    std::map<std::string, DimensionField*> fields_;
    std::map<std::string, FactField*> facts_;
    std::map<std::string, CalloutButton*> callouts_;
    std::vector<QRect> captions_; ///< one per dimension, empty where it has none
    int titleMargin_ = 0;
    double zoom_ = 1;
    QPointF pan_;
    QPointF grabbed_;
    bool dragging_ = false;
    HandleDrag drag_;
    std::vector<Stroke> strokes_; ///< of the painting going on
    Layers layers_;
    bool settling_ = false; ///< between two sheets: labels wait
};

} // namespace deepstop::app
