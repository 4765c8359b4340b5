#include "stages/stage_page.hpp"

#include "centring/drawer.hpp"
#include "document.hpp"
#include "stages/bench/bench_sheets.hpp"
#include "stages/course_chart.hpp"
#include "stages/hardware/hardware_sheets.hpp"
#include "stages/sheets.hpp"
#include "stages/wheel/wheel_sheets.hpp"
#include "theme.hpp"
#include "widgets/ask_list.hpp"
#include "widgets/check_list.hpp"
#include "widgets/cure_board.hpp"
#include "widgets/dimension_field.hpp"

#include <QButtonGroup>
#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace deepstop::app {

namespace {

/// The benches, in the order a kit goes over them.
enum Bench { RotorBench, CaliperBench, PadBench, FittingsBench, ScalesBench, ComparisonBench, UnpackingBench, AskBench };

/// What the wheel room shows, in the order it is worked through.
enum WheelPlace { SectionPlace, FacePlace, WheelPlaceItself, StudPlace, BehindPlace, CurePlace, WantedPlace };

QStringList wheelPlaceNames()
{
    return { QObject::tr("Section"), QObject::tr("Outboard"), QObject::tr("Wheel"), QObject::tr("Studs"), QObject::tr("Behind"), QObject::tr("Room to win"), QObject::tr("Wanted") };
}

/// The place that draws most of what a verdict of the wheel room rests on.
WheelPlace placeOf(const std::string& part)
{
    if (part == "bleeder" || part == "piston-order")
        return FacePlace;
    if (part == "studs" || part == "nut-seat" || part == "pilot" || part == "washers" || part == "wheel-place" || part == "fender-room" || part == "inner-room")
        return StudPlace;
    if (part == "shield" || part == "hat-gap" || part.starts_with("keep-out"))
        return BehindPlace;
    return SectionPlace;
}

QStringList benchNames()
{
    return { QObject::tr("Rotor"), QObject::tr("Caliper"), QObject::tr("Pads"), QObject::tr("Fittings"), QObject::tr("Scales"), QObject::tr("Old and new"), QObject::tr("Unpacking"), QObject::tr("To ask") };
}

} // namespace

StagePage::StagePage(Document& document, LibraryStore& library, Stage stage, QWidget* parent)
    : QWidget(parent), document_(document), stage_(stage), view_(new DrawingView(document, this)), places_(new QWidget(hasBenches() ? static_cast<QWidget*>(this) : view_)),
      placesRow_(new QHBoxLayout(places_)), placeButtons_(new QButtonGroup(this)), column_(new QVBoxLayout(this))
{
    setObjectName(QStringLiteral("page-") + QString::fromUtf8(nameOf(stage).data()));
    column_->setContentsMargins(0, 0, 0, 0);
    column_->setSpacing(0);
    column_->addWidget(view_, 3);
    placesRow_->setContentsMargins(0, 0, 0, 0);
    placesRow_->setSpacing(4);
    connect(placeButtons_, &QButtonGroup::idClicked, this, [this](int id) {
        setPlace(id);
        if (stage_ == Stage::Centring && id >= static_cast<int>(document_.study().centring.size()) && id < cornerPlaces())
            mockUpAnother();
    });
    if (stage == Stage::PartsBench) {
        checks_ = new CheckList(document, this);
        asks_ = new AskList(document, this);
        column_->addWidget(checks_, 3);
        column_->addWidget(asks_, 3);
        connect(checks_, &CheckList::verdictChosen, this, &StagePage::verdictChosen);
        connect(asks_, &AskList::readingWanted, this, &StagePage::readingWanted);
        connect(asks_, &AskList::refused, this, &StagePage::refused);
        listTitle_ = new QLabel(this);
        listTitle_->setFont(drafting(20));
        listTitle_->move(22, 44);
        makeInHand(view_);
        connect(view_, &DrawingView::finished, this, [this] {
            if (place_ < ScalesBench) {
                setPlace(place_ + 1);
                view_->focusFirst();
            }
        });
    }
    if (stage == Stage::Centring) {
        makeAxleChoice();
        makeInHand(places_);
        placesRow_->addWidget(inHand_);
        trueProportion_ = new QCheckBox(tr("true proportion"), view_);
        trueProportion_->setToolTip(tr("Draws errors as large as they are, not eight times"));
        connect(trueProportion_, &QCheckBox::toggled, this, &StagePage::refresh);
    }
    if (stage == Stage::WheelRoom) {
        cures_ = new CureBoard(document, library, this);
        column_->addWidget(cures_, 3);
        listTitle_ = new QLabel(this);
        listTitle_->setFont(drafting(20));
        makeAxleChoice();
    }
    if (stage == Stage::PartsBench || stage == Stage::Car || stage == Stage::WheelRoom || stage == Stage::Centring) {
        choice_ = new QComboBox(stage == Stage::WheelRoom || stage == Stage::Centring ? static_cast<QWidget*>(view_) : places_);
        choice_->setObjectName(QStringLiteral("choice"));
        choice_->setSizeAdjustPolicy(QComboBox::AdjustToContents);
        choice_->setMaximumWidth(190);
        if (stage != Stage::WheelRoom && stage != Stage::Centring)
            placesRow_->addWidget(choice_);
        connect(choice_, &QComboBox::activated, this, &StagePage::choose);
    }
    if (stage == Stage::Centring) {
        drawerStrip_ = new QWidget(this);
        auto* strip = drawerStrip_;
        auto* row = new QHBoxLayout(strip);
        row->setContentsMargins(22, 4, 22, 8);
        drawer_ = new QLineEdit(strip);
        drawer_->setObjectName(QStringLiteral("drawer"));
        drawer_->setFont(figures(13));
        drawer_->setAccessibleName(tr("Shims in the drawer, thickness times count"));
        drawer_->setToolTip(tr("Every shim there is for the whole car, those now under the calipers included: thickness × count, parted by commas"));
        drawerTrouble_ = new QLabel(strip);
        drawerTrouble_->setWordWrap(true);
        row->addWidget(new QLabel(tr("In the drawer"), strip));
        row->addWidget(drawer_, 2);
        row->addWidget(drawerTrouble_, 1);
        column_->addWidget(strip);
        connect(drawer_, &QLineEdit::editingFinished, this, &StagePage::putDrawer);
    }
    if (stage == Stage::Heat || stage == Stage::Stop) {
        chart_ = new CourseChart(stage, this);
        column_->addWidget(chart_, 2);
    }
    connect(view_, &DrawingView::dimensionEntered, this, &StagePage::dimensionEntered);
    connect(view_, &DrawingView::verdictChosen, this, &StagePage::chooseInView);
}

void StagePage::makeAxleChoice()
{
    axleChoice_ = new QComboBox(places_);
    axleChoice_->setObjectName(QStringLiteral("axle"));
    axleChoice_->setAccessibleName(tr("Axle"));
    placesRow_->addWidget(axleChoice_);
    connect(axleChoice_, &QComboBox::activated, this, &StagePage::refresh);
}

void StagePage::makeInHand(QWidget* parent)
{
    inHand_ = new QComboBox(parent);
    inHand_->setObjectName(QStringLiteral("in-hand"));
    inHand_->setAccessibleName(tr("What readings are typed from"));
    inHand_->setToolTip(tr("Readings typed from now on were taken with this"));
    inHand_->addItem(tr("in hand: as before"), QString());
    for (const QString& one : { tr("tape"), tr("rule"), tr("vernier"), tr("micrometer"), tr("dial gauge"), tr("kitchen scale"), tr("hanging scale"), tr("bathroom scale"), tr("vendor sheet"), tr("estimate") })
        inHand_->addItem(one, one);
    connect(inHand_, &QComboBox::activated, this, [this] { document_.setInHand(inHand_->currentData().toString()); });
}

void StagePage::refreshPlaces()
{
    QStringList names;
    const Study& study = document_.study();
    if (stage_ == Stage::Centring) {
        for (const CentringResult& r : study.centring)
            names << QStringLiteral("%1 %2").arg(r.mockUp->axle == Axle::Front ? tr("Front") : tr("Rear"), r.mockUp->side == Side::Left ? tr("left") : tr("right"));
        if (cornerPlaces() > names.size())
            names << tr("+ %1 side").arg(std::ranges::any_of(study.centring, [this](const CentringResult& r) { return r.mockUp->axle == (axleChoice_->currentIndex() == 1 ? Axle::Rear : Axle::Front) && r.mockUp->side == Side::Left; }) ? tr("right") : tr("left"));
        names << tr("Bolts") << tr("Bracket") << tr("Halves");
    } else if (stage_ == Stage::PartsBench) {
        names = benchNames();
    } else if (stage_ == Stage::WheelRoom) {
        names = wheelPlaceNames();
    } else if (stage_ == Stage::Heat) {
        if (study.after.front.corner)
            names << tr("Front");
        if (study.after.rear.corner)
            names << tr("Rear");
    }
    place_ = std::clamp(place_, 0, std::max(0, static_cast<int>(names.size()) - 1));
    if (names != placeNames_) {
        placeNames_ = names;
        qDeleteAll(placeButtons_->buttons());
        for (int i = 0; i < names.size(); ++i) {
            auto* button = new QPushButton(names[i], places_);
            button->setCheckable(true);
            button->setFocusPolicy(Qt::TabFocus);
            button->setObjectName(QStringLiteral("place-%1").arg(i));
            button->setMinimumWidth(button->fontMetrics().horizontalAdvance(names[i]) + 16);
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
    places_->setVisible(names.size() > 1 || choice_);
}

void StagePage::putChoiceAside()
{
    choice_->adjustSize();
    choice_->move(view_->width() - choice_->width() - 22, 18);
    view_->setTitleMargin(choice_->isHidden() ? 0 : choice_->width() + 10);
    places_->setGeometry(0, 0, width(), places_->sizeHint().height());
    column_->setContentsMargins(0, places_->height(), 0, 0);
}

void StagePage::alignPlaces()
{
    places_->adjustSize();
    if (stage_ == Stage::Centring) {
        putChoiceAside();
        trueProportion_->adjustSize();
        trueProportion_->move(choice_->x() - trueProportion_->width() - 12, 21);
        if (!trueProportion_->isHidden())
            view_->setTitleMargin(choice_->width() + trueProportion_->width() + 24);
        return;
    }
    if (stage_ == Stage::WheelRoom) {
        putChoiceAside();
        listTitle_->setVisible(place_ == CurePlace);
        listTitle_->move(22, places_->height() + 16);
        listTitle_->setText(axle() == Axle::Front ? tr("Room for the front caliper") : tr("Room for the rear caliper"));
        listTitle_->adjustSize();
        listTitle_->raise();
        return;
    }
    if (stage_ == Stage::PartsBench) {
        choice_->setMinimumWidth(choice_->sizeHint().width());
        inHand_->adjustSize();
        inHand_->move(view_->width() - inHand_->width() - 22, 18);
        view_->setTitleMargin(inHand_->width() + 10);
        // So many benches stand in a row of their own over the sheet.
        places_->setGeometry(0, 0, width(), places_->sizeHint().height());
        column_->setContentsMargins(0, places_->height(), 0, 0);
        listTitle_->setVisible(place_ >= UnpackingBench);
        listTitle_->move(22, places_->height() + 16);
        listTitle_->setText(place_ == UnpackingBench ? (axle() == Axle::Front ? tr("Front kit, unpacked") : tr("Rear kit, unpacked")) : tr("Still to be read"));
        listTitle_->adjustSize();
        listTitle_->raise();
        return;
    }
    places_->move(std::max(200, width() - places_->width() - 22), 18);
    places_->raise();
    view_->setTitleMargin(places_->isHidden() ? 0 : places_->width() + 10);
}

void StagePage::resizeEvent(QResizeEvent*) { alignPlaces(); }

Axle StagePage::axle() const
{
    const auto& centring = document_.study().centring;
    if (stage_ == Stage::Centring)
        return static_cast<std::size_t>(place_) < centring.size() ? centring[static_cast<std::size_t>(place_)].mockUp->axle : axleChoice_->currentIndex() == 1 ? Axle::Rear : Axle::Front;
    if (stage_ == Stage::PartsBench)
        return choice_->currentIndex() == 1 ? Axle::Rear : Axle::Front;
    if (stage_ == Stage::WheelRoom)
        return axleChoice_->currentIndex() == 1 ? Axle::Rear : Axle::Front;
    return place_ == 0 ? Axle::Front : Axle::Rear;
}

void StagePage::refreshChoice()
{
    if (!choice_)
        return;
    const Study& study = document_.study();
    if (axleChoice_) {
        const int rows = study.after.rear.corner ? 2 : 1;
        if (axleChoice_->count() != rows) {
            axleChoice_->clear();
            axleChoice_->addItem(tr("Front"));
            if (rows == 2)
                axleChoice_->addItem(tr("Rear"));
        }
    }
    const Corner* corner = study.after.at(axle()).corner;
    QStringList items;
    int current = -1;
    if (stage_ == Stage::PartsBench) {
        items = { tr("Front axle"), tr("Rear axle") };
        current = std::max(0, choice_->currentIndex());
        choice_->setToolTip(tr("Whose parts lie on the bench"));
    } else if (stage_ == Stage::Car) {
        items = { tr("Antilock: not known"), tr("Antilock: yes"), tr("Antilock: no") };
        current = static_cast<int>(study.build->car.antilock);
    } else if (stage_ == Stage::WheelRoom) {
        for (const Wheel& wheel : study.build->wheels) {
            items << QString::fromStdString(wheel.name);
            if (corner && wheel.id == corner->wheel)
                current = static_cast<int>(items.size()) - 1;
        }
        choice_->setToolTip(tr("The wheel on this axle"));
    } else {
        items = { tr("Thicker: inboard"), tr("Thicker: outboard") };
        current = corner ? static_cast<int>(corner->mount.shimMoves) : -1;
        choice_->setToolTip(tr("Where a thicker stack of shims moves the caliper: it depends on the side of the ear they lie on"));
    }
    QStringList shown;
    for (int i = 0; i < choice_->count(); ++i)
        shown << choice_->itemText(i);
    if (shown != items) {
        choice_->clear();
        choice_->addItems(items);
    }
    choice_->setCurrentIndex(current);
}

void StagePage::choose(int index)
{
    if (stage_ == Stage::PartsBench) {
        refresh();
        return;
    }
    const Study& study = document_.study();
    Build build = document_.build();
    if (stage_ == Stage::Car) {
        build.car.antilock = static_cast<YesNo>(index);
    } else if (const Corner* corner = study.after.at(axle()).corner) {
        // A setup that left this axle alone begins to differ here.
        Setup& setup = *std::ranges::find(build.setups, study.after.setup->id, &Setup::id);
        auto& own = axle() == Axle::Front ? setup.front : setup.rear;
        if (!own)
            own = *corner;
        if (stage_ == Stage::WheelRoom)
            own->wheel = build.wheels[static_cast<std::size_t>(index)].id;
        else
            own->mount.shimMoves = static_cast<Direction>(index);
    }
    if (!(build == document_.build()))
        document_.setBuild(std::move(build), choice_->itemText(index));
}

int StagePage::cornerPlaces() const
{
    const auto& centring = document_.study().centring;
    const Axle chosen = axleChoice_ && axleChoice_->currentIndex() == 1 ? Axle::Rear : Axle::Front;
    const auto ofAxle = std::ranges::count_if(centring, [chosen](const CentringResult& r) { return r.mockUp->axle == chosen; });
    return static_cast<int>(centring.size()) + (ofAxle < 2 ? 1 : 0);
}

/// A corner nobody has mocked up yet gets its empty readings.
void StagePage::mockUpAnother()
{
    Build build = document_.build();
    MockUp mockUp;
    mockUp.setup = document_.study().after.setup->id;
    mockUp.axle = axleChoice_->currentIndex() == 1 ? Axle::Rear : Axle::Front;
    const bool leftThere = std::ranges::any_of(document_.study().centring, [&](const CentringResult& r) { return r.mockUp->axle == mockUp.axle && r.mockUp->side == Side::Left; });
    mockUp.side = leftThere ? Side::Right : Side::Left;
    build.mockUps.push_back(mockUp);
    document_.setBuild(std::move(build), tr("mock-up"));
}

bool StagePage::isDrawn(int place) const
{
    return stage_ == Stage::PartsBench ? place < UnpackingBench : stage_ != Stage::WheelRoom || place != CurePlace;
}

/// A result opens its check; a station still to be taken makes room for its reading and waits for it.
void StagePage::chooseInView(const std::string& id)
{
    const auto index = stationOf(id);
    if (!index) {
        emit verdictChosen(id);
        return;
    }
    const CornerResult& r = document_.study().after.at(axle());
    if (!r.wheel || *index >= r.stations.size())
        return;
    const fit::PlannedStation station = r.stations[*index];
    Build build = document_.build();
    const auto which = static_cast<std::size_t>(r.wheel - document_.study().build->wheels.data());
    Wheel& wheel = build.wheels[which];
    const std::string at = "/wheels/" + std::to_string(which);
    // The straightedge is set to where the plan says; what it reads there is still to come.
    const Reading place { station.place, {}, Known::Measured, "straightedge", {} };
    std::string wanted;
    if (station.on == fit::PlannedStation::On::Barrel) {
        wheel.barrel.push_back({ place, {} });
        wanted = at + "/barrel/" + std::to_string(wheel.barrel.size() - 1) + "/inside_radius_mm";
    } else {
        wheel.spokes.push_back({ place, {}, wheel.spokes.empty() ? std::string() : wheel.spokes.front().along });
        wanted = at + "/spokes/" + std::to_string(wheel.spokes.size() - 1) + "/distance_mm";
    }
    document_.setBuild(std::move(build), tr("station of %1").arg(QString::fromStdString(wheel.name)));
    emit readingWanted(wanted);
}

void StagePage::refreshDrawer()
{
    if (!drawer_ || drawer_->isModified())
        return;
    std::vector<centring::ShimKind> drawer;
    for (const ShimStock& stock : document_.study().build->drawer)
        drawer.push_back({ stock.thickness.value.value_or(0), stock.count });
    drawer_->setText(QString::fromStdString(centring::drawerText(drawer, style::fine.unit(document_.units()))));
    drawerTrouble_->clear();
}

void StagePage::putDrawer()
{
    if (!drawer_->isModified())
        return;
    const auto read = centring::readDrawer(drawer_->text().toStdString(), style::fine.unit(document_.units()), true);
    drawerTrouble_->setText(QString::fromStdString(read.refusal));
    if (!read.refusal.empty())
        return;
    Build build = document_.build();
    std::vector<ShimStock> drawer;
    for (const centring::ShimKind& kind : read.drawer) {
        // A size that was there keeps how it is known.
        const auto known = std::ranges::find_if(build.drawer, [&](const ShimStock& s) { return s.thickness.value && std::abs(*s.thickness.value - kind.thickness) < 1e-8; });
        drawer.push_back({ known != build.drawer.end() ? known->thickness : Reading { kind.thickness, {}, Known::Measured, {}, {} }, kind.count });
    }
    build.drawer = std::move(drawer);
    drawer_->setModified(false);
    if (!(build == document_.build()))
        document_.setBuild(std::move(build), tr("drawer"));
    refreshDrawer();
}

Sheet StagePage::sheet(int place) const
{
    const Study& study = document_.study();
    const Axle axle = this->axle();
    switch (stage_) {
    case Stage::Car: return carSheet(study);
    case Stage::PartsBench:
        switch (place) {
        case RotorBench: return rotorSheet(study, axle);
        case CaliperBench: return caliperSheet(study, axle);
        case PadBench: return padSheet(study, axle);
        case FittingsBench: return fittingsSheet(study, axle);
        case ScalesBench: return scalesSheet(study, axle);
        case ComparisonBench: return comparisonSheet(study, axle);
        default: return {};
        }
    case Stage::WheelRoom:
        switch (place) {
        case FacePlace: return faceSheet(study, axle);
        case WheelPlaceItself: return wheelSheet(study, axle);
        case StudPlace: return studSheet(study, axle);
        case BehindPlace: return behindSheet(study, axle);
        case CurePlace: return {};
        case WantedPlace: return wantedSheet(study);
        default: return wheelRoomSheet(study, axle);
        }
    case Stage::Centring:
        switch (place - cornerPlaces()) {
        case 0: return jointSheet(study, axle);
        case 1: return bracketSheet(study, axle);
        case 2: return halvesSheet(study, axle);
        default: return centringSheet(study, static_cast<std::size_t>(place), trueProportion_->isChecked());
        }
    case Stage::Heat: return heatSheet(study, axle);
    case Stage::Stop: return roadSheet(study);
    }
    return {};
}

void StagePage::refresh()
{
    refreshPlaces();
    refreshChoice();
    refreshDrawer();
    alignPlaces();
    if (checks_) {
        view_->setVisible(place_ < UnpackingBench);
        checks_->setVisible(place_ == UnpackingBench);
        asks_->setVisible(place_ == AskBench);
        if (place_ == UnpackingBench)
            checks_->refresh(axle());
        if (place_ == AskBench)
            asks_->refresh();
        inHand_->setVisible(place_ <= ScalesBench);
        inHand_->setCurrentIndex(std::max(0, inHand_->findData(document_.inHand())));
    }
    if (cures_) {
        view_->setVisible(isDrawn(place_));
        cures_->setVisible(place_ == CurePlace);
        choice_->setVisible(place_ != WantedPlace);
        // A board nobody sees is not worked out; while somebody types or drags, it waits as well.
        if (place_ == CurePlace && !document_.isPreviewing())
            cures_->refresh(axle());
    }
    if (trueProportion_) {
        trueProportion_->setVisible(place_ < cornerPlaces());
        choice_->setVisible(place_ < cornerPlaces());
        drawerStrip_->setVisible(place_ < cornerPlaces());
        inHand_->setCurrentIndex(std::max(0, inHand_->findData(document_.inHand())));
        alignPlaces();
    }
    view_->setSheet(sheet());
    if (chart_)
        chart_->setStudy(document_.study(), axle());
}

void StagePage::setPlace(int place)
{
    place_ = place;
    refresh();
    emit placeChanged();
}

bool StagePage::showReading(const std::string& pointer)
{
    refresh();
    const auto drawn = [&](const Sheet& s) { return std::ranges::find(s.dimensions, pointer, &DimensionLine::pointer) != s.dimensions.end(); };
    if (drawn(view_->sheet()))
        return true;
    if (!hasBenches())
        return false;
    QComboBox* axles = stage_ == Stage::PartsBench ? choice_ : axleChoice_;
    const int wasAxle = axles->currentIndex();
    const int wasPlace = place_;
    for (const int side : { wasAxle, 1 - wasAxle }) {
        axles->setCurrentIndex(side);
        for (int place = 0; place < placeCount(); ++place) {
            // A corner's sheet is of its own axle, whatever is chosen.
            place_ = place;
            if (isDrawn(place) && drawn(sheet(place))) {
                setPlace(place);
                return true;
            }
        }
    }
    place_ = wasPlace;
    axles->setCurrentIndex(wasAxle);
    return false;
}

void StagePage::reveal(const Verdict& verdict)
{
    int place = place_;
    if (stage_ == Stage::PartsBench) {
        // The verdict's axle, and the bench on which most of what it rests on is drawn.
        choice_->setCurrentIndex(verdict.axle == Axle::Front ? 0 : 1);
        const auto part = verdict.id.substr(verdict.id.find('/') + 1);
        place = part == "received" ? UnpackingBench
            : part == "weight"     ? ScalesBench
            : part == "pad-slot" || part == "pad-window" || part == "mount-spacing" ? CaliperBench
            : part.starts_with("worn-pad")                                          ? PadBench
            : part == "bolt-thread" || part.starts_with("hose")                     ? FittingsBench
                                                                                    : RotorBench;
        // Nothing is turned over that shows it already.
        if (place_ == UnpackingBench || place_ == AskBench)
            place = place_;
        refresh();
    } else if (stage_ == Stage::Centring) {
        for (std::size_t i = 0; i < document_.study().centring.size(); ++i) {
            const auto& m = *document_.study().centring[i].mockUp;
            const auto id = std::string(m.axle == Axle::Front ? "front-" : "rear-") + (m.side == Side::Left ? "left/" : "right/");
            if (verdict.id.starts_with(id))
                place = static_cast<int>(i);
        }
        if (verdict.id.find("/joint-") != std::string::npos) {
            axleChoice_->setCurrentIndex(verdict.axle == Axle::Front ? 0 : 1);
            place = cornerPlaces();
        }
    } else if (stage_ == Stage::WheelRoom) {
        axleChoice_->setCurrentIndex(verdict.axle == Axle::Front ? 0 : 1);
        place = placeOf(verdict.id.substr(verdict.id.find('/') + 1));
        // The gaps to the wheel are seen on the wheel's own sheet and on the board as well.
        if (place == SectionPlace && (place_ == WheelPlaceItself || place_ == CurePlace))
            place = place_;
        refresh();
    } else if (stage_ == Stage::Heat) {
        place = verdict.axle == Axle::Front ? 0 : 1;
    }
    if (place != place_) {
        place_ = place;
        refresh();
    }
}

} // namespace deepstop::app
