#include "drawing/drawing_view.hpp"

#include "document.hpp"
#include "theme.hpp"
#include "drawing/dimension_field.hpp"
#include "drawing/fact_field.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QWheelEvent>

#include <cmath>

namespace deepstop::app {

DrawingView::DrawingView(Document& document, QWidget* parent) : QWidget(parent), document_(document), drag_(document)
{
    setFocusPolicy(Qt::ClickFocus);
    setAttribute(Qt::WA_OpaquePaintEvent);
    setMouseTracking(true);
}

DimensionField* DrawingView::field(const std::string& pointer) const
{
    const auto found = fields_.find(pointer);
    return found == fields_.end() ? nullptr : found->second;
}

FactField* DrawingView::fact(const std::string& pointer) const
{
    const auto found = facts_.find(pointer);
    return found == facts_.end() ? nullptr : found->second;
}

QWidget* DrawingView::entry(const std::string& pointer) const
{
    QWidget* dimension = field(pointer);
    return dimension ? dimension : fact(pointer);
}

CalloutButton* DrawingView::callout(const std::string& verdict) const
{
    const auto found = callouts_.find(verdict);
    return found == callouts_.end() ? nullptr : found->second;
}

void DrawingView::setSheet(Sheet sheet)
{
    settling_ = true;
    // What is held stays under the hand: the sheet fits itself to the window again when it is let go.
    if (drag_.isHolding())
        sheet.extent = sheet_.extent;
    // What is being typed stays, whatever its value so far makes of the rest of the sheet.
    for (const DimensionLine& line : sheet_.dimensions) {
        const auto typed = fields_.find(line.pointer);
        if (typed != fields_.end() && typed->second->hasFocus()
            && std::ranges::find(sheet.dimensions, line.pointer, &DimensionLine::pointer) == sheet.dimensions.end())
            sheet.dimensions.push_back(line);
    }
    const auto leastBefore = minimumSizeHint();
    const bool sameSheet = sheet.title == sheet_.title;
    sheet_ = std::move(sheet);
    setAccessibleName(sheet_.title.isEmpty() ? tr("Drawing") : sheet_.title);
    setAccessibleDescription(sheet_.subtitle);
    if (minimumSizeHint() != leastBefore)
        updateGeometry();
    std::map<std::string, DimensionField*> fields;
    bool chained = true;
    for (const DimensionLine& line : sheet_.dimensions) {
        auto node = fields_.extract(line.pointer);
        DimensionField* field = node ? node.mapped() : nullptr;
        if (!field) {
            chained = false;
            field = new DimensionField(document_, line.pointer, this);
            connect(field, &DimensionField::entered, this, &DrawingView::dimensionEntered);
            connect(field, &DimensionField::leftToSheet, this, [this] { setFocus(); });
            connect(field, &DimensionField::grew, this, &DrawingView::placeLabels);
            connect(field, &DimensionField::goOn, this, &DrawingView::goOnFrom);
            field->show();
        }
        field->setLook(line);
        field->refresh();
        fields[line.pointer] = field;
    }
    for (auto& [pointer, field] : fields_) {
        field->hide();
        field->deleteLater();
    }
    fields_ = std::move(fields);
    std::map<std::string, FactField*> facts;
    for (const FactLine& line : sheet_.facts) {
        auto node = facts_.extract(line.pointer);
        FactField* field = node ? node.mapped() : nullptr;
        if (!field) {
            chained = false;
            field = new FactField(document_, line.pointer, line.made, this);
            connect(field, &FactField::goOn, this, [this, pointer = line.pointer] { goOnFrom(pointer); });
            field->show();
        }
        field->setCaption(line.caption);
        field->refresh();
        facts[line.pointer] = field;
    }
    for (auto& [pointer, field] : facts_) {
        field->hide();
        field->deleteLater();
    }
    facts_ = std::move(facts);
    std::map<std::string, CalloutButton*> callouts;
    for (const Callout& callout : sheet_.callouts) {
        auto node = callouts_.extract(callout.verdict);
        CalloutButton* button = node ? node.mapped() : nullptr;
        if (!button) {
            chained = false;
            button = new CalloutButton(this);
            connect(button, &QAbstractButton::clicked, this, [this, id = callout.verdict] { emit verdictChosen(id); });
        }
        button->show(callout);
        if (const Verdict* verdict = document_.study().verdict(callout.verdict))
            button->setVerdict(*verdict);
        callouts[callout.verdict] = button;
    }
    for (auto& [id, button] : callouts_)
        if (const Study& study = document_.study(); sameSheet && study.underWay && study.verdict(id)) {
            button->showWorking();
            callouts[id] = button;
        } else {
            button->hide();
            button->deleteLater();
        }
    callouts_ = std::move(callouts);
    if (!chained)
        chainFocus();
    settling_ = false;
    placeLabels();
    updateWhatChanged();
}

void DrawingView::chainFocus()
{
    QWidget* last = this;
    for (const auto& pointer : sheet_.inOrder()) {
        FactField* said = fact(pointer);
        QWidget* next = said ? said->editor() : entry(pointer);
        setTabOrder(last, next);
        last = next;
    }
    for (const Callout& callout : sheet_.callouts) {
        setTabOrder(last, callouts_[callout.verdict]);
        last = callouts_[callout.verdict];
    }
}

void DrawingView::focusFirst()
{
    if (const auto order = sheet_.inOrder(); !order.empty())
        entry(order.front())->setFocus(Qt::TabFocusReason);
}

void DrawingView::goOnFrom(const std::string& pointer)
{
    const auto order = sheet_.inOrder();
    const auto here = std::ranges::find(order, pointer);
    if (here == order.end())
        return;
    if (here + 1 != order.end()) {
        entry(*(here + 1))->setFocus(Qt::TabFocusReason);
        return;
    }
    // After the last entry come the results, where the sheet has any.
    if (!sheet_.callouts.empty())
        callouts_[sheet_.callouts.front().verdict]->setFocus(Qt::TabFocusReason);
    emit finished();
}

QSize DrawingView::minimumSizeHint() const
{
    constexpr int least = 240;
    // A sheet of boxes in rows; of a drawing the labels find room of their own.
    const bool rows = !sheet_.facts.empty()
        || std::ranges::count(sheet_.dimensions, Run::Table, &DimensionLine::run) > 6;
    if (!rows || sheet_.shrinks || sheet_.extent.isEmpty())
        return { 420, least };
    constexpr double leastScale = 0.93; // pixels a millimetre
    return { static_cast<int>(sheet_.extent.width() * leastScale) + 52,
        std::max(least, static_cast<int>(sheet_.extent.height() * leastScale) + 92) };
}

QRectF DrawingView::drawingArea() const { return QRectF(rect()).adjusted(26, 66, -26, -26); }

double DrawingView::pixelsPerMillimetre() const
{
    const QRectF area = drawingArea();
    if (sheet_.extent.isEmpty() || area.isEmpty())
        return 1;
    return zoom_ * std::min(area.width() / sheet_.extent.width(), area.height() / sheet_.extent.height());
}

QPointF DrawingView::toScreen(QPointF millimetres) const
{
    return drawingArea().center() + pan_ + (millimetres - sheet_.extent.center()) * pixelsPerMillimetre();
}

void DrawingView::zoomBy(double factor, QPointF about)
{
    const double next = std::clamp(zoom_ * factor, 0.5, 40.0);
    const double applied = next / zoom_;
    const QPointF centre = drawingArea().center();
    pan_ = about - centre - (about - centre - pan_) * applied;
    zoom_ = next;
    placeLabels();
    update();
}

void DrawingView::zoomToFit()
{
    zoom_ = 1;
    pan_ = {};
    placeLabels();
    update();
}

namespace {

/// Where the label of a dimension would like its middle.
QPointF wishOf(const DimensionLine& line, const DrawingView& view)
{
    const QPointF a = view.toScreen(line.from);
    const QPointF b = view.toScreen(line.to);
    switch (line.run) {
    case Run::Horizontal:
        return { a.x() + (b.x() - a.x()) * line.along, view.toScreen({ 0, line.line }).y() };
    case Run::Vertical:
        return { view.toScreen({ line.line, 0 }).x(), a.y() + (b.y() - a.y()) * line.along };
    case Run::Leader:
        return b;
    case Run::Table:
        return b;
    }
    return b;
}

} // namespace

void DrawingView::placeLabels()
{
    if (settling_)
        return;
    std::vector<QRectF> taken; // each with a little room around it
    const auto take = [&taken](const QRectF& box) { taken.push_back(box.adjusted(-2, -2, 2, 2)); };
    for (const QRectF& clear : sheet_.keepClear)
        take({ toScreen(clear.topLeft()), toScreen(clear.bottomRight()) });
    for (const FactLine& line : sheet_.facts) {
        FactField* field = facts_[line.pointer];
        const QPointF corner = toScreen(line.at);
        field->setGeometry(QRectF(corner, QSizeF(line.width, field->sizeHint().height())).toRect());
        take(field->geometry());
    }
    const QRectF sheet = QRectF(rect()).adjusted(10, 60, -10, -10);
    const auto place = [&](QPointF wish, QSizeF size, bool alongFirst) {
        QRectF best(wish - QPointF(size.width() / 2, size.height() / 2), size);
        double bestCost = 1e18;
        // Nearest free place on a grid of small steps, first along its own line.
        for (int ring = 0; ring <= 14; ++ring) {
            // Farther out nothing costs less.
            if (bestCost < ring * 8.0)
                break;
            for (int i = -ring; i <= ring; ++i)
                for (int j = -ring; j <= ring; ++j) {
                    if (std::max(std::abs(i), std::abs(j)) != ring)
                        continue;
                    double cost = std::hypot(i * (alongFirst ? 9.0 : 16.0), j * (alongFirst ? 16.0 : 8.0));
                    if (cost >= bestCost)
                        continue;
                    const QRectF box = QRectF(wish - QPointF(size.width() / 2, size.height() / 2), size).translated(i * 9.0, j * 8.0);
                    if (!sheet.contains(box) && sheet.contains(wish))
                        cost += 1e4;
                    if (cost < bestCost && std::ranges::any_of(taken, [&](const QRectF& t) { return t.intersects(box); }))
                        cost += 1e6;
                    if (cost < bestCost) {
                        bestCost = cost;
                        best = box;
                    }
                }
        }
        take(best);
        return best;
    };
    // What has its place in a table keeps it. Then results: their place says where; then the other inputs.
    captions_.assign(sheet_.dimensions.size(), {});
    for (const DimensionLine& line : sheet_.dimensions)
        if (line.run == Run::Table) {
            DimensionField* field = fields_[line.pointer];
            const QSize size = field->sizeHint();
            const QPointF left = toScreen(line.to);
            field->setGeometry(QRectF(QPointF(left.x(), left.y() - size.height() / 2.0), size).toRect());
            take(field->geometry());
        }
    for (const Callout& callout : sheet_.callouts) {
        CalloutButton* button = callouts_[callout.verdict];
        button->setGeometry(place(toScreen(callout.wish), button->sizeHint(), true).toRect());
    }
    for (std::size_t i = 0; i < sheet_.dimensions.size(); ++i) {
        const DimensionLine& line = sheet_.dimensions[i];
        if (line.run == Run::Table)
            continue;
        DimensionField* field = fields_[line.pointer];
        QSizeF size = field->sizeHint();
        const QFontMetrics metrics(reading(11));
        const double caption = line.caption.isEmpty() ? 0 : metrics.horizontalAdvance(line.caption) + 5;
        const QRectF box =
            place(wishOf(line, *this) + QPointF(caption / 2, 0), { size.width() + caption, size.height() }, line.run != Run::Vertical);
        field->setGeometry(QRectF(box.left(), box.top(), size.width(), size.height()).toRect());
        if (caption > 0)
            captions_[i] = QRectF(box.left() + size.width() + 4, box.top(), caption, size.height()).toRect();
    }
}

void DrawingView::resizeEvent(QResizeEvent*) { placeLabels(); }

void DrawingView::wheelEvent(QWheelEvent* event)
{
    // Where not all of it is seen the wheel moves it; with Ctrl it comes nearer.
    if (const auto* seen = parentWidget(); seen && (height() > seen->height() || width() > seen->width())
        && !(event->modifiers() & Qt::ControlModifier)) {
        event->ignore();
        return;
    }
    zoomBy(std::pow(1.0015, event->angleDelta().y()), event->position());
    event->accept();
}

const Handle* DrawingView::handleAt(QPointF screen) const
{
    constexpr double reach = 9; // pixels
    const Handle* nearest = nullptr;
    double least = reach;
    for (const Handle& handle : sheet_.handles) {
        const QPointF away = toScreen(handle.at) - screen;
        if (const double distance = std::hypot(away.x(), away.y()); distance < least) {
            least = distance;
            nearest = &handle;
        }
    }
    return nearest;
}

void DrawingView::mousePressEvent(QMouseEvent* event)
{
    if (event->button() != Qt::LeftButton && event->button() != Qt::MiddleButton)
        return;
    grabbed_ = event->position();
    setFocus();
    if (const Handle* handle = event->button() == Qt::LeftButton ? handleAt(grabbed_) : nullptr) {
        drag_.take(*handle);
        emit dimensionEntered(handle->pointer);
        update();
        return;
    }
    dragging_ = true;
    setCursor(Qt::ClosedHandCursor);
}

void DrawingView::mouseMoveEvent(QMouseEvent* event)
{
    if (drag_.isHolding()) {
        drag_.moveBy((event->position() - grabbed_) / pixelsPerMillimetre());
        return;
    }
    if (!dragging_) {
        if (handleAt(event->position()))
            setCursor(Qt::SizeAllCursor);
        else
            unsetCursor();
        return;
    }
    pan_ += event->position() - grabbed_;
    grabbed_ = event->position();
    placeLabels();
    update();
}

void DrawingView::mouseReleaseEvent(QMouseEvent*)
{
    drag_.letGo(true);
    update();
    dragging_ = false;
    unsetCursor();
}

void DrawingView::mouseDoubleClickEvent(QMouseEvent*) { zoomToFit(); }

void DrawingView::keyPressEvent(QKeyEvent* event)
{
    const double step = 40;
    switch (event->key()) {
    case Qt::Key_Escape:
        drag_.letGo(false);
        update();
        return;
    case Qt::Key_Left:
        pan_ += QPointF(step, 0);
        break;
    case Qt::Key_Right:
        pan_ += QPointF(-step, 0);
        break;
    case Qt::Key_Up:
        pan_ += QPointF(0, step);
        break;
    case Qt::Key_Down:
        pan_ += QPointF(0, -step);
        break;
    default:
        QWidget::keyPressEvent(event);
        return;
    }
    placeLabels();
    update();
}

} // namespace deepstop::app
