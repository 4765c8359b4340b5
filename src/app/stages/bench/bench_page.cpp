#include "stages/bench/bench_page.hpp"

#include "document.hpp"
#include "stages/bench/bench_sheets.hpp"
#include "stages/bench/part_file_window.hpp"
#include "widgets/ask_list.hpp"
#include "widgets/check_list.hpp"
#include "widgets/in_hand.hpp"

#include <QPushButton>
#include <QVBoxLayout>

namespace deepstop::app {

BenchPage::BenchPage(Document& document, QWidget* parent)
    : StagePage(document, BenchPage::id, Row::Over, parent), checks_(new CheckList(document, this)), asks_(new AskList(document, this)),
      inHand_(new InHand(document, view())), fromFile_(new QPushButton(tr("From a file…"), view()))
{
    addAxleChoice();
    addSideChoice();
    column()->addWidget(checks_, 3);
    column()->addWidget(asks_, 3);
    connect(checks_, &CheckList::verdictChosen, this, &StagePage::verdictChosen);
    connect(asks_, &AskList::readingWanted, this, &StagePage::readingWanted);
    connect(asks_, &AskList::refused, this, &StagePage::refused);
    fromFile_->setObjectName(QStringLiteral("from-file"));
    fromFile_->setToolTip(tr("A caliper, a rotor or a knuckle from a scan or a maker's solid"));
    connect(fromFile_, &QPushButton::clicked, this, [this] {
        if (!partFile_)
            partFile_ = new PartFileWindow(this->document(), this);
        partFile_->setPart(axle(),
            place() == Rotor         ? PartFileWindow::RotorPart
                : place() == Caliper ? PartFileWindow::CaliperPart
                                     : PartFileWindow::KnucklePart);
        partFile_->show();
        partFile_->raise();
    });
    // The last reading of one bench leads on to the next, up to the scales.
    connect(view(), &DrawingView::finished, this, [this] {
        if (place() < Scales) {
            setPlace(place() + 1);
            view()->focusFirst();
        }
    });
}

QStringList BenchPage::placeNames() const
{
    return { tr("Rotor"), tr("Caliper"), tr("Pads"), tr("Fittings"), tr("Line"), tr("Parking"), tr("Scales"), tr("Compare"), tr("Unpack"),
        tr("To measure") };
}

Sheet BenchPage::sheet(int place) const
{
    const Study& study = document().study();
    const Corner* corner = study.after.at(axle()).corner;
    if (corner && corner->brakes == BrakeKind::Drums && place <= Pads)
        return drumSheet(study, axle());
    switch (place) {
    case Rotor:
        return rotorSheet(study, axle(), side());
    case Caliper:
        return caliperSheet(study, axle());
    case Pads:
        return padSheet(study, axle());
    case Fittings:
        return fittingsSheet(study, axle());
    case Line:
        return lineSheet(study, axle());
    case Parking:
        return parkingSheet(study, axle());
    case Scales:
        return scalesSheet(study, axle());
    case Comparison:
        return comparisonSheet(study, axle());
    default:
        return {};
    }
}

int BenchPage::placeFor(const Verdict& verdict) const
{
    // Nothing is turned over that shows it already.
    if (place() == Unpacking || place() == Ask)
        return place();
    return shownIn(verdict,
        { { "unpacking", Unpacking }, { "scales", Scales }, { "caliper", Caliper }, { "pads", Pads }, { "fittings", Fittings },
            { "line", Line }, { "parking", Parking } })
        .value_or(Rotor);
}

void BenchPage::refreshRest()
{
    checks_->setVisible(place() == Unpacking);
    asks_->setVisible(place() == Ask);
    if (place() == Unpacking)
        checks_->refresh(axle());
    if (place() == Ask)
        asks_->refresh();
    inHand_->setVisible(place() <= Scales);
    inHand_->refresh();
    const Corner* corner = document().study().after.at(axle()).corner;
    fromFile_->setVisible(corner && corner->brakes == BrakeKind::Discs && (place() == Rotor || place() == Caliper || place() == Fittings));
}

void BenchPage::arrange()
{
    StagePage::arrange();
    putInCorner({ inHand_, fromFile_ });
    setListTitle(place() == Unpacking ? (axle() == Axle::Front ? tr("Front kit, unpacked") : tr("Rear kit, unpacked"))
            : place() == Ask          ? tr("Still to measure")
                                      : QString());
}

} // namespace deepstop::app
