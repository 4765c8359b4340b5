#include "stages/stage_page.hpp"

#include "document.hpp"
#include "stages/course_chart.hpp"
#include "stages/sheets.hpp"
#include "theme.hpp"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace deepstop::app {

StagePage::StagePage(Document& document, Stage stage, QWidget* parent)
    : QWidget(parent), document_(document), stage_(stage), view_(new DrawingView(document, this)), places_(new QWidget(view_)),
      placesRow_(new QHBoxLayout(places_)), placeButtons_(new QButtonGroup(this)), column_(new QVBoxLayout(this))
{
    setObjectName(QStringLiteral("page-") + QString::fromUtf8(nameOf(stage).data()));
    column_->setContentsMargins(0, 0, 0, 0);
    column_->setSpacing(0);
    column_->addWidget(view_, 3);
    placesRow_->setContentsMargins(0, 0, 0, 0);
    placesRow_->setSpacing(4);
    connect(placeButtons_, &QButtonGroup::idClicked, this, [this](int id) {
        place_ = id;
        if (stage_ == Stage::Centring) {
            // A corner nobody has mocked up yet gets its four empty readings.
            const bool known = id < static_cast<int>(document_.study().centring.size());
            if (!known) {
                Build build = document_.build();
                const bool leftThere = std::ranges::any_of(document_.study().centring, [](const CentringResult& r) { return r.mockUp->side == Side::Left; });
                MockUp mockUp;
                mockUp.setup = document_.study().after.setup->id;
                mockUp.side = leftThere ? Side::Right : Side::Left;
                build.mockUps.push_back(mockUp);
                document_.setBuild(std::move(build), tr("mock-up"));
                return;
            }
        }
        refresh();
    });
    if (stage == Stage::Heat || stage == Stage::Stop) {
        chart_ = new CourseChart(stage, this);
        column_->addWidget(chart_, 2);
    }
    connect(view_, &DrawingView::dimensionEntered, this, &StagePage::dimensionEntered);
    connect(view_, &DrawingView::verdictChosen, this, &StagePage::verdictChosen);
}

void StagePage::refreshPlaces()
{
    QStringList names;
    const Study& study = document_.study();
    if (stage_ == Stage::Centring) {
        for (const CentringResult& r : study.centring)
            names << QStringLiteral("%1 %2").arg(r.mockUp->axle == Axle::Front ? tr("Front") : tr("Rear"), r.mockUp->side == Side::Left ? tr("left") : tr("right"));
        if (study.centring.size() < 2)
            names << tr("+ mock up the %1 side").arg(names.isEmpty() || names.front().endsWith(tr("right")) ? tr("left") : tr("right"));
    } else if (stage_ == Stage::WheelRoom || stage_ == Stage::Heat) {
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
            placeButtons_->addButton(button, i);
            placesRow_->addWidget(button);
            button->show();
        }
    }
    if (auto* button = placeButtons_->button(place_))
        button->setChecked(true);
    places_->setVisible(names.size() > 1 || stage_ == Stage::Centring);
    alignPlaces();
}

void StagePage::alignPlaces()
{
    places_->adjustSize();
    places_->move(std::max(200, width() - places_->width() - 22), 18);
    places_->raise();
    view_->setTitleMargin(places_->isHidden() ? 0 : places_->width() + 10);
}

void StagePage::resizeEvent(QResizeEvent*) { alignPlaces(); }

Sheet StagePage::sheet() const
{
    const Study& study = document_.study();
    const Axle axle = place_ == 0 ? Axle::Front : Axle::Rear;
    switch (stage_) {
    case Stage::Car: return carSheet(study);
    case Stage::WheelRoom: return wheelRoomSheet(study, axle);
    case Stage::Centring: return centringSheet(study, static_cast<std::size_t>(place_));
    case Stage::Heat: return heatSheet(study, axle);
    case Stage::Stop: return roadSheet(study);
    }
    return {};
}

void StagePage::refresh()
{
    refreshPlaces();
    view_->setSheet(sheet());
    if (chart_)
        chart_->setStudy(document_.study(), place_ == 0 ? Axle::Front : Axle::Rear);
}

void StagePage::reveal(const Verdict& verdict)
{
    int place = place_;
    if (stage_ == Stage::Centring) {
        for (std::size_t i = 0; i < document_.study().centring.size(); ++i) {
            const auto& m = *document_.study().centring[i].mockUp;
            const auto id = std::string(m.axle == Axle::Front ? "front-" : "rear-") + (m.side == Side::Left ? "left/" : "right/");
            if (verdict.id.starts_with(id))
                place = static_cast<int>(i);
        }
    } else if (stage_ == Stage::WheelRoom || stage_ == Stage::Heat) {
        place = verdict.axle == Axle::Front ? 0 : 1;
    }
    if (place != place_) {
        place_ = place;
        refresh();
    }
}

} // namespace deepstop::app
