#include "stages/single_pages.hpp"

#include "document.hpp"
#include "stages/sheets.hpp"

#include <QComboBox>
#include <QHBoxLayout>

namespace deepstop::app {

CarPage::CarPage(Document& document, QWidget* parent) : StagePage(document, CarPage::id, Row::Corner, parent), antilock_(new QComboBox)
{
    antilock_->setObjectName(QStringLiteral("choice"));
    antilock_->setAccessibleName(tr("Antilock brakes"));
    antilock_->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    placesRow()->addWidget(antilock_);
    connect(antilock_, &QComboBox::activated, this, &CarPage::choose);
}

Sheet CarPage::sheet(int) const { return carSheet(document().study()); }

void CarPage::refreshRest()
{
    offer(antilock_, { tr("Antilock: not known"), tr("Antilock: yes"), tr("Antilock: no") },
        static_cast<int>(*document().build().car.antilock));
}

void CarPage::choose(int index)
{
    document().edit(antilock_->itemText(index), [index](Build now) {
        now.car.antilock = static_cast<YesNo>(index);
        return now;
    });
}

} // namespace deepstop::app
