#include "stages/centring/centring_page.hpp"

#include "chapters/centring/centring_chapter.hpp"
#include "centring/drawer.hpp"
#include "document.hpp"
#include "stages/hardware/hardware_sheets.hpp"
#include "stages/sheets.hpp"
#include "theme.hpp"
#include "widgets/in_hand.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace deepstop::app {

CentringPage::CentringPage(Document& document, QWidget* parent)
    : StagePage(document, CentringPage::id, Row::Over, parent), trueProportion_(new QCheckBox(tr("true proportion"), view())),
      direction_(new QComboBox(view())), drawerStrip_(new QWidget(this)), drawer_(new QLineEdit(drawerStrip_)),
      drawerTrouble_(new QLabel(drawerStrip_)), inHand_(new InHand(document, nullptr))
{
    addAxleChoice();
    placesRow()->addWidget(inHand_);
    trueProportion_->setToolTip(tr("Draws errors as large as they are, not eight times"));
    connect(trueProportion_, &QCheckBox::toggled, this, &StagePage::refresh);
    direction_->setObjectName(QStringLiteral("choice"));
    direction_->setAccessibleName(tr("Where a thicker stack of shims moves the caliper"));
    direction_->setToolTip(tr("Where a thicker stack of shims moves the caliper: it depends on the side of the ear they lie on"));
    direction_->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    connect(direction_, &QComboBox::activated, this, &CentringPage::setDirection);

    auto* row = new QHBoxLayout(drawerStrip_);
    row->setContentsMargins(22, 4, 22, 8);
    drawer_->setObjectName(QStringLiteral("drawer"));
    drawer_->setFont(figures(13));
    drawer_->setAccessibleName(tr("Shims in the drawer, thickness times count"));
    drawer_->setToolTip(
        tr("Every shim there is for the whole car, those now under the calipers included: thickness × count, parted by commas"));
    drawerTrouble_->setWordWrap(true);
    row->addWidget(new QLabel(tr("In the drawer"), drawerStrip_));
    row->addWidget(drawer_, 2);
    row->addWidget(drawerTrouble_, 1);
    column()->addWidget(drawerStrip_);
    connect(drawer_, &QLineEdit::editingFinished, this, &CentringPage::putDrawer);
    document.drafts().watch(drawer_, [this] { return putDrawer(); });
}

Axle CentringPage::axle() const
{
    const auto& corners = document().study().of<Centring>().corners;
    const auto shown = static_cast<std::size_t>(place());
    return shown < corners.size() ? corners[shown].mockUp->axle : chosenAxle();
}

std::optional<Side> CentringPage::sideToCome() const
{
    for (const Side side : { Side::Left, Side::Right })
        if (std::ranges::none_of(document().study().of<Centring>().corners,
                [&](const CentringResult& r) { return r.mockUp->axle == chosenAxle() && r.mockUp->side == side; }))
            return side;
    return {};
}

int CentringPage::cornerPlaces() const
{
    return static_cast<int>(document().study().of<Centring>().corners.size()) + (sideToCome() ? 1 : 0);
}

QStringList CentringPage::placeNames() const
{
    QStringList names;
    for (const CentringResult& r : document().study().of<Centring>().corners)
        names << QStringLiteral("%1 %2").arg(
            r.mockUp->axle == Axle::Front ? tr("Front") : tr("Rear"), r.mockUp->side == Side::Left ? tr("left") : tr("right"));
    if (const auto side = sideToCome())
        names << tr("+ %1 side").arg(*side == Side::Left ? tr("left") : tr("right"));
    return names << tr("Bolts") << tr("Bracket") << tr("Halves");
}

Sheet CentringPage::sheet(int place) const
{
    const Study& study = document().study();
    switch (place - cornerPlaces()) {
    case 0:
        return jointSheet(study, chosenAxle());
    case 1:
        return bracketSheet(study, chosenAxle());
    case 2:
        return halvesSheet(study, chosenAxle());
    default:
        return centringSheet(study, static_cast<std::size_t>(place), trueProportion_->isChecked());
    }
}

int CentringPage::placeFor(const Verdict& verdict) const
{
    if (shownIn(verdict, { { "joints", 0 } }))
        return cornerPlaces();
    const auto& corners = document().study().of<Centring>().corners;
    for (std::size_t i = 0; i < corners.size(); ++i) {
        const MockUp& m = *corners[i].mockUp;
        if (verdict.check && verdict.check->of == CheckOf::Corner && verdict.axle == m.axle && verdict.side == m.side)
            return static_cast<int>(i);
    }
    return place();
}

void CentringPage::refreshRest()
{
    const Corner* corner = document().study().after.at(axle()).corner;
    offer(direction_, { tr("Thicker: not said"), tr("Thicker: inboard"), tr("Thicker: outboard") },
        corner ? static_cast<int>(*corner->mount.shimMoves) : -1);
    const bool ofCorner = place() < cornerPlaces();
    trueProportion_->setVisible(ofCorner);
    direction_->setVisible(ofCorner);
    drawerStrip_->setVisible(ofCorner);
    inHand_->refresh();
    refreshDrawer();
}

void CentringPage::arrange()
{
    StagePage::arrange();
    putInCorner({ direction_, trueProportion_ });
}

void CentringPage::placeClicked(int place)
{
    setPlace(place);
    if (const auto side = sideToCome(); side && place == cornerPlaces() - 1)
        mockUp(*side);
}

/// A corner nobody has mocked up yet gets its empty readings.
void CentringPage::mockUp(Side side)
{
    MockUp mockUp;
    mockUp.setup = document().study().after.setup->id;
    mockUp.axle = chosenAxle();
    mockUp.side = side;
    document().edit(tr("mock-up"), [&](const Build& now) -> std::optional<Build> {
        const auto same = [&](const MockUp& m) { return m.setup == mockUp.setup && m.axle == mockUp.axle && m.side == mockUp.side; };
        if (!findSetup(now, mockUp.setup) || std::ranges::any_of(now.mockUps, same))
            return {};
        Build build = now;
        build.mockUps.push_back(mockUp);
        return build;
    });
}

void CentringPage::setDirection(int index)
{
    const Study& study = document().study();
    if (!study.after.at(axle()).corner)
        return;
    document().edit(direction_->itemText(index), [&, setup = study.after.setup->id](const Build& now) -> std::optional<Build> {
        if (!findSetup(now, setup))
            return {};
        Build build = now;
        ownCorner(build, setup, axle()).mount.shimMoves = static_cast<Direction>(index);
        return build;
    });
}

void CentringPage::refreshDrawer()
{
    if (document().drafts().has(drawer_->objectName())) {
        drawer_->setText(document().drafts().text(drawer_->objectName()));
        return;
    }
    std::vector<centring::ShimKind> drawer;
    for (const ShimStock& stock : document().study().build->drawer)
        drawer.push_back({ stock.thickness.value.value_or(0), stock.count });
    drawer_->setText(QString::fromStdString(centring::drawerText(drawer, style::fine.unit(document().units()))));
    drawerTrouble_->clear();
}

bool CentringPage::putDrawer()
{
    if (!document().drafts().has(drawer_->objectName()))
        return true;
    const auto read = centring::readDrawer(drawer_->text().toStdString(), style::fine.unit(document().units()), true);
    drawerTrouble_->setText(QString::fromStdString(read.refusal));
    if (!read.refusal.empty())
        return false;
    document().drafts().settle(drawer_->objectName());
    document().edit(tr("drawer"), [&](Build build) {
        std::vector<ShimStock> drawer;
        for (const centring::ShimKind& kind : read.drawer) {
            // A size that was there keeps how it is known.
            const auto known = std::ranges::find_if(build.drawer,
                [&](const ShimStock& s) { return s.thickness.value && std::abs(*s.thickness.value - kind.thickness) < 1e-8; });
            drawer.push_back(
                { known != build.drawer.end() ? known->thickness : Reading { kind.thickness, {}, Known::Measured, {}, {} }, kind.count });
        }
        build.drawer = std::move(drawer);
        return build;
    });
    refreshDrawer();
    return true;
}

} // namespace deepstop::app
