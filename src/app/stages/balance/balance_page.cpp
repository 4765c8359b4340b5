#include "stages/balance/balance_page.hpp"

#include "chapters/balance/balance_chapter.hpp"
#include "document.hpp"
#include "stages/balance/balance_sheets.hpp"

#include <QComboBox>

#include <algorithm>
#include <charconv>

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
    return { tr("From the foot"), tr("Balance"), tr("Adhesion"), tr("Pedal"), tr("Loads"), tr("Wanted") };
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
    if (verdict.id.starts_with("balance/lock-order")) {
        // The plot is that of the load the verdict speaks of.
        const auto number = verdict.id.rfind('-');
        int which = 0;
        std::from_chars(verdict.id.data() + number + 1, verdict.id.data() + verdict.id.size(), which);
        load_->setCurrentIndex(std::clamp(which, 0, std::max(0, load_->count() - 1)));
        return place() == Loads ? Loads : Split;
    }
    if (verdict.id == "balance/rear-use" || verdict.id == "balance/yardstick")
        return place() == Split && verdict.id == "balance/rear-use" ? Split : Adhesion;
    if (verdict.id == "balance/effort" || verdict.id == "balance/travel")
        return Pedal;
    return Foot;
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
