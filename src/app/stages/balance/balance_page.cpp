#include "stages/balance/balance_page.hpp"

#include "chapters/balance/balance_chapter.hpp"
#include "chapters/balance/checks.hpp"
#include "document.hpp"
#include "stages/balance/balance_sheets.hpp"

#include <QComboBox>

#include <algorithm>

namespace deepstop::app {

BalancePage::BalancePage(Document& document, QWidget* parent)
    : StagePage(document, BalancePage::id, Row::Over, parent), load_(new QComboBox(view()))
{
    load_->setObjectName(QStringLiteral("choice"));
    load_->setAccessibleName(tr("Load"));
    load_->setToolTip(tr("What the car carries in these plots; all loads are judged"));
    load_->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    load_->setMaximumWidth(190);
    connect(load_, &QComboBox::activated, this, [this] { refresh(); });
}

QStringList BalancePage::placeNames() const
{
    return { tr("Hydraulics"), tr("Balance"), tr("Adhesion"), tr("Pedal"), tr("Loads"), tr("Limits") };
}

std::size_t BalancePage::shownLoad() const { return static_cast<std::size_t>(std::max(0, load_->currentIndex())); }

Sheet BalancePage::sheet(int place) const
{
    const Study& study = document().study();
    switch (place) {
    case Split:
        return splitSheet(study, shownLoad());
    case Adhesion:
        return adhesionSheet(study, shownLoad());
    case Pedal:
        return pedalSheet(study, shownLoad());
    case Loads:
        return loadsSheet(study);
    case Wanted:
        return practiceSheet(study);
    default:
        return footSheet(study);
    }
}

int BalancePage::placeFor(const Verdict& verdict) const
{
    const int shown = shownIn(verdict, { { "split", Split }, { "adhesion", Adhesion }, { "pedal", Pedal } }).value_or(Foot);
    // The plot is that of the load the verdict speaks of.
    if (verdict.check == &checks::lockOrder)
        load_->setCurrentIndex(std::clamp(verdict.number, 0, std::max(0, load_->count() - 1)));
    // What is seen on two sheets turns over to neither from the other.
    const bool here = (shown == Split && place() == Loads) || (verdict.check == &checks::rearUse && place() == Split);
    return here ? place() : shown;
}

void BalancePage::refreshRest()
{
    QStringList names;
    for (const LoadBalance& each : document().study().of<Balance>().after.loads)
        names << QString::fromStdString(each.name);
    const auto before = load_->currentIndex();
    offer(load_, names, std::clamp(before, 0, std::max(0, static_cast<int>(names.size()) - 1)));
    load_->setVisible(names.size() > 1 && place() >= Split && place() <= Pedal);
}

void BalancePage::arrange()
{
    StagePage::arrange();
    putInCorner({ load_ });
}

} // namespace deepstop::app
