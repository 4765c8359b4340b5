#include "stages/stage_page.hpp"

#include "document.hpp"
#include "theme.hpp"

#include <QApplication>
#include <QButtonGroup>
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>
#include <tuple>

namespace deepstop::app {
namespace {

constexpr int usualAround = 16; ///< pixels round the words of a button
constexpr int smallestLetters = 9;
constexpr int margin = 22; ///< between the sheet's edge and what floats in its corner

} // namespace

StagePage::StagePage(Document& document, StageId stage, Row row, QWidget* parent)
    : QWidget(parent), document_(document), stage_(stage), row_(row), view_(new DrawingView(document, nullptr)),
      scroll_(new QScrollArea(this)), places_(new QWidget(row == Row::Over ? static_cast<QWidget*>(this) : view_)),
      placesRow_(new QHBoxLayout(places_)), placeButtons_(new QButtonGroup(this)), column_(new QVBoxLayout(this))
{
    setObjectName(QStringLiteral("page-") + QString::fromUtf8(stage.data(), qsizetype(stage.size())));
    column_->setContentsMargins(0, 0, 0, 0);
    column_->setSpacing(0);
    scroll_->setWidget(view_);
    scroll_->setWidgetResizable(true);
    scroll_->setFrameShape(QFrame::NoFrame);
    scroll_->setFocusPolicy(Qt::NoFocus);
    scroll_->setMinimumSize(420, 240);
    column_->addWidget(scroll_, 3);
    // Whatever is gone to, by Tab, by a link, by Enter, is seen.
    connect(qApp, &QApplication::focusChanged, this, [this](QWidget*, QWidget* now) {
        if (now && view_->isAncestorOf(now))
            scroll_->ensureWidgetVisible(now, 24, 40);
    });
    placesRow_->setContentsMargins(0, 0, 0, 0);
    placesRow_->setSpacing(4);
    connect(placeButtons_, &QButtonGroup::idClicked, this, [this](int place) { placeClicked(place); });
    connect(view_, &DrawingView::dimensionEntered, this, &StagePage::dimensionEntered);
    connect(view_, &DrawingView::verdictChosen, this, [this](const std::string& id) { chosenInView(id); });
}

void StagePage::addAxleChoice()
{
    axleChoice_ = new QComboBox(places_);
    axleChoice_->setObjectName(QStringLiteral("axle"));
    axleChoice_->setAccessibleName(tr("Axle"));
    axleChoice_->setToolTip(tr("Whose parts are shown"));
    placesRow_->addWidget(axleChoice_);
    connect(axleChoice_, &QComboBox::activated, this, &StagePage::refresh);
}

void StagePage::addSideChoice()
{
    sideChoice_ = new QComboBox(places_);
    sideChoice_->setObjectName(QStringLiteral("side"));
    sideChoice_->setAccessibleName(tr("Side"));
    sideChoice_->setToolTip(tr("Whose side's readings are shown: shims, slot, pad edge, runout and wear are read on either side"));
    sideChoice_->addItems({ tr("Left"), tr("Right") });
    placesRow_->addWidget(sideChoice_);
    connect(sideChoice_, &QComboBox::activated, this, &StagePage::refresh);
}

Side StagePage::side() const { return sideChoice_ && sideChoice_->currentIndex() == 1 ? Side::Right : Side::Left; }

void StagePage::setSide(Side side)
{
    if (sideChoice_)
        sideChoice_->setCurrentIndex(side == Side::Right ? 1 : 0);
    refresh();
}

Axle StagePage::chosenAxle() const { return axleChoice_ && axleChoice_->currentIndex() == 1 ? Axle::Rear : Axle::Front; }

void StagePage::offer(QComboBox* box, const QStringList& items, int current)
{
    QStringList shown;
    for (int i = 0; i < box->count(); ++i)
        shown << box->itemText(i);
    if (shown != items) {
        box->clear();
        box->addItems(items);
    }
    box->setCurrentIndex(current);
}

void StagePage::refreshPlaces()
{
    const QStringList names = placeNames();
    place_ = std::clamp(place_, 0, std::max(0, static_cast<int>(names.size()) - 1));
    if (names != shownPlaces_) {
        shownPlaces_ = names;
        qDeleteAll(placeButtons_->buttons());
        for (int i = 0; i < names.size(); ++i) {
            auto* button = new QPushButton(names[i], places_);
            button->setCheckable(true);
            button->setFocusPolicy(Qt::TabFocus);
            button->setObjectName(QStringLiteral("place-%1").arg(i));
            button->setMinimumWidth(button->fontMetrics().horizontalAdvance(names[i]) + usualAround);
            placeButtons_->addButton(button, i);
            placesRow_->addWidget(button);
            button->show();
        }
    }
    if (auto* chosen = placeButtons_->button(place_))
        chosen->setChecked(true);
    // Told apart by night as well.
    for (QAbstractButton* button : placeButtons_->buttons()) {
        QFont font = button->font();
        font.setUnderline(button->isChecked());
        if (font != button->font())
            button->setFont(font);
    }
}

void StagePage::refresh()
{
    if (axleChoice_) {
        const bool rear = document_.study().after.rear.corner;
        offer(axleChoice_, rear ? QStringList { tr("Front"), tr("Rear") } : QStringList { tr("Front") },
            rear ? std::max(0, axleChoice_->currentIndex()) : 0);
    }
    refreshPlaces();
    refreshRest();
    arrange();
    scroll_->setVisible(isDrawn(place_));
    view_->setSheet(sheet(place_));
}

void StagePage::fitPlaces()
{
    const auto set = [this](int pixels, int around) {
        for (QAbstractButton* button : placeButtons_->buttons()) {
            QFont font = button->font();
            font.setPixelSize(pixels);
            button->setFont(font);
            button->setMinimumWidth(QFontMetrics(font).horizontalAdvance(button->text()) + around);
            button->setMaximumWidth(around < usualAround ? button->minimumWidth() : QWIDGETSIZE_MAX);
        }
        placesRow_->invalidate();
    };
    int pixels = QFontInfo(places_->font()).pixelSize();
    set(pixels, usualAround);
    // Longer words of another language: smaller letters, closer together, rather than a wider window.
    for (int around = usualAround - 6; pixels >= smallestLetters && placesRow_->sizeHint().width() > width(); --pixels)
        set(pixels, around);
}

void StagePage::arrange()
{
    if (row_ == Row::Over) {
        if (width() > 0)
            fitPlaces();
        const int height = places_->sizeHint().height();
        places_->setGeometry(0, 0, width(), height);
        column_->setContentsMargins(0, height, 0, 0);
        return;
    }
    // One place alone is no choice; whatever else stands in the row is.
    places_->setVisible(placesRow_->count() > (shownPlaces_.isEmpty() ? 0 : 1));
    places_->adjustSize();
    places_->move(std::max(200, width() - places_->width() - margin), 18);
    places_->raise();
    view_->setTitleMargin(places_->isHidden() ? 0 : places_->width() + 10);
}

void StagePage::putInCorner(std::initializer_list<QWidget*> widgets)
{
    int right = view_->width() - margin;
    int taken = 0;
    for (QWidget* widget : widgets) {
        widget->adjustSize();
        widget->move(right - widget->width(), 18);
        if (widget->isHidden())
            continue;
        right = widget->x() - 12;
        taken = view_->width() - margin - widget->x() + 10;
    }
    view_->setTitleMargin(taken);
}

void StagePage::setListTitle(const QString& text)
{
    if (!listTitle_) {
        listTitle_ = new QLabel(this);
        listTitle_->setFont(drafting(20));
    }
    listTitle_->setVisible(!text.isEmpty());
    listTitle_->move(margin, places_->height() + 16);
    listTitle_->setText(text);
    listTitle_->adjustSize();
    listTitle_->raise();
}

void StagePage::resizeEvent(QResizeEvent*) { arrange(); }

void StagePage::setPlace(int place)
{
    place_ = place;
    refresh();
    emit placeChanged();
}

bool StagePage::showReading(const std::string& pointer)
{
    refresh();
    const auto drawn = [&](const Sheet& s) {
        return std::ranges::find(s.dimensions, pointer, &DimensionLine::pointer) != s.dimensions.end();
    };
    if (drawn(view_->sheet()))
        return true;
    const int wasAxle = axleChoice_ ? axleChoice_->currentIndex() : 0;
    // A reading of one side is shown on that side.
    const int wasSide = sideChoice_ ? sideChoice_->currentIndex() : 0;
    if (sideChoice_)
        sideChoice_->setCurrentIndex(pointer.find("/right/") != std::string::npos ? 1
                : pointer.find("/left/") != std::string::npos                     ? 0
                                                                                  : wasSide);
    const int wasPlace = place_;
    const int axles = axleChoice_ ? axleChoice_->count() : 1;
    for (int turn = 0; turn < axles; ++turn) {
        if (axleChoice_)
            axleChoice_->setCurrentIndex((wasAxle + turn) % axles);
        // What is drawn at a place may hang on which place it is: a mock-up's sheet is of its own axle, whatever is chosen.
        for (place_ = 0; place_ < placeNames().size(); ++place_)
            if (isDrawn(place_) && drawn(sheet(place_))) {
                setPlace(place_);
                return true;
            }
    }
    place_ = wasPlace;
    if (sideChoice_)
        sideChoice_->setCurrentIndex(wasSide);
    if (axleChoice_)
        axleChoice_->setCurrentIndex(wasAxle);
    return false;
}

void StagePage::reveal(const Verdict& verdict)
{
    const auto before = std::tuple { axle(), side(), place_ };
    if (axleChoice_)
        axleChoice_->setCurrentIndex(verdict.axle == Axle::Front ? 0 : 1);
    if (sideChoice_ && verdict.side)
        sideChoice_->setCurrentIndex(*verdict.side == Side::Right ? 1 : 0);
    place_ = placeFor(verdict);
    if (before != std::tuple { axle(), side(), place_ })
        refresh();
}

std::optional<int> StagePage::shownIn(const Verdict& verdict, Pictures pictures)
{
    if (verdict.check)
        for (const auto& [name, place] : pictures)
            if (verdict.check->shown == name)
                return place;
    return {};
}

} // namespace deepstop::app
