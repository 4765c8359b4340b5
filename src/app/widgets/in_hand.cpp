#include "widgets/in_hand.hpp"

#include "document.hpp"
#include "quantity/instrument_names.hpp"
#include "widgets/words.hpp"

namespace deepstop::app {

InHand::InHand(Document& document, QWidget* parent) : QComboBox(parent), document_(document)
{
    setObjectName(QStringLiteral("in-hand"));
    setAccessibleName(tr("Instrument used"));
    setToolTip(tr("Readings typed from now on were taken with this"));
    addItem(tr("instrument used: as before"), QString());
    for (const char* one : { "tape", "rule", "vernier", "micrometer", "dial gauge", "kitchen scale", "hanging scale", "bathroom scale" })
        addItem(string(instrumentInWords(one)), QString::fromUtf8(one));
    addItem(tr("vendor sheet"), Document::fromVendorSheet);
    addItem(tr("estimate"), Document::fromEstimate);
    connect(this, &QComboBox::activated, this, [this] { document_.setInHand(currentData().toString()); });
}

void InHand::refresh() { setCurrentIndex(std::max(0, findData(document_.inHand()))); }

} // namespace deepstop::app
