#include "stages/wheel/wheel_page.hpp"

#include "chapters/clearance/clearance.hpp"
#include "document.hpp"
#include "stages/sheets.hpp"
#include "stages/wheel/scan_window.hpp"
#include "stages/wheel/wheel_sheets.hpp"
#include "widgets/cure_board.hpp"

#include <QComboBox>
#include <QPushButton>
#include <QVBoxLayout>

namespace deepstop::app {

WheelPage::WheelPage(Document& document, LibraryStore& library, QWidget* parent)
    : StagePage(document, WheelPage::id, Row::Over, parent), cures_(new CureBoard(document, library, this)), wheel_(new QComboBox(view())),
      scan_(new QPushButton(tr("From a scan…"), view()))
{
    addAxleChoice();
    addSideChoice();
    column()->addWidget(cures_, 3);
    wheel_->setObjectName(QStringLiteral("choice"));
    wheel_->setAccessibleName(tr("Wheel"));
    wheel_->setToolTip(tr("The wheel on this axle"));
    wheel_->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    wheel_->setMaximumWidth(190);
    connect(wheel_, &QComboBox::activated, this, &WheelPage::putOn);
    scan_->setToolTip(tr("The wheel's inside from a scanner's mesh or a maker's solid"));
    connect(scan_, &QPushButton::clicked, this, &WheelPage::scan);
}

QStringList WheelPage::placeNames() const
{
    return { tr("Section"), tr("Outboard"), tr("Wheel"), tr("Studs"), tr("Hub stack"), tr("Behind"), tr("More clearance"), tr("Limits"),
        tr("Spun") };
}

Sheet WheelPage::sheet(int place) const
{
    const Study& study = document().study();
    switch (place) {
    case Outboard:
        return faceSheet(study, axle());
    case Wheel:
        return wheelSheet(study, axle());
    case Studs:
        return studSheet(study, axle());
    case Stack:
        return stackSheet(study, axle());
    case Behind:
        return behindSheet(study, axle());
    case Cures:
        return {};
    case Wanted:
        return wantedSheet(study);
    case Spun:
        return spunSheet(study, axle());
    default:
        return wheelRoomSheet(study, axle(), side());
    }
}

int WheelPage::placeFor(const Verdict& verdict) const
{
    // The gaps to the wheel are seen on the wheel's own sheet and on the board as well.
    return shownIn(verdict, { { "outboard", Outboard }, { "studs", Studs }, { "stack", Stack }, { "behind", Behind } })
        .value_or(place() == Wheel || place() == Cures || place() == Spun ? place() : Section);
}

void WheelPage::refreshRest()
{
    const Study& study = document().study();
    const Corner* corner = study.after.at(axle()).corner;
    QStringList names;
    int current = -1;
    for (const deepstop::Wheel& each : study.build->wheels) {
        names << QString::fromStdString(each.name);
        if (corner && each.id == corner->wheel)
            current = static_cast<int>(names.size()) - 1;
    }
    offer(wheel_, names, current);
    wheel_->setVisible(place() != Wanted);
    scan_->setVisible(place() == Wheel && corner && findWheel(*study.build, corner->wheel));
    cures_->setVisible(place() == Cures);
    // A board nobody sees is not worked out; while somebody types or drags, it waits as well.
    if (place() == Cures && !document().isPreviewing())
        cures_->refresh(axle());
}

void WheelPage::arrange()
{
    StagePage::arrange();
    putInCorner({ wheel_, scan_ });
    setListTitle(place() != Cures   ? QString()
            : axle() == Axle::Front ? tr("Clearance for the front caliper")
                                    : tr("Clearance for the rear caliper"));
}

void WheelPage::scan()
{
    const Corner* corner = document().study().after.at(axle()).corner;
    if (!corner)
        return;
    if (!scanWindow_)
        scanWindow_ = new ScanWindow(document(), this);
    scanWindow_->setWheel(axle(), corner->wheel);
    scanWindow_->show();
    scanWindow_->raise();
}

void WheelPage::putOn(int index)
{
    const Study& study = document().study();
    if (!study.after.at(axle()).corner)
        return;
    document().edit(wheel_->itemText(index),
        [setup = study.after.setup->id, axle = axle(), wheel = study.build->wheels[static_cast<std::size_t>(index)].id](
            const Build& now) -> std::optional<Build> {
            if (!findSetup(now, setup) || !findWheel(now, wheel))
                return {};
            Build build = now;
            ownCorner(build, setup, axle).wheel = wheel;
            return build;
        });
}

void WheelPage::chosenInView(const std::string& what)
{
    if (const auto station = stationOf(what))
        takeStation(*station);
    else
        emit verdictChosen(what);
}

void WheelPage::takeStation(std::size_t index)
{
    const CornerClearance& r = document().study().of<Clearance>().after.at(axle()).left;
    if (!r.wheel || index >= r.stations.size())
        return;
    const fit::PlannedStation station = r.stations[index];
    // The straightedge is set to where the plan says; what it reads there is still to come.
    const Reading place { station.place, {}, Known::Measured, "straightedge", {} };
    std::string wanted;
    document().edit(
        tr("station of %1").arg(QString::fromStdString(r.wheel->name)), [&, id = r.wheel->id](const Build& now) -> std::optional<Build> {
            Build build = now;
            const auto found = std::ranges::find(build.wheels, id, &deepstop::Wheel::id);
            if (found == build.wheels.end())
                return {};
            deepstop::Wheel& wheel = *found;
            const std::string at = "/wheels/" + std::to_string(found - build.wheels.begin());
            if (station.on == fit::PlannedStation::On::Barrel) {
                wheel.barrel.push_back({ place, {}, YesNo::Unknown });
                wanted = at + "/barrel/" + std::to_string(wheel.barrel.size() - 1) + "/inside_radius_mm";
            } else {
                wheel.spokes.push_back({ place, {}, YesNo::Unknown, wheel.spokes.empty() ? std::string() : wheel.spokes.front().along });
                wanted = at + "/spokes/" + std::to_string(wheel.spokes.size() - 1) + "/distance_mm";
            }
            return build;
        });
    emit readingWanted(wanted);
}

} // namespace deepstop::app
