#include "widgets/in_hand.hpp"

#include "document.hpp"

namespace deepstop::app {

InHand::InHand(Document& document, QWidget* parent) : QComboBox(parent), document_(document)
{
    setObjectName(QStringLiteral("in-hand"));
    setAccessibleName(tr("Instrument used"));
    setToolTip(tr("Readings typed from now on were taken with this"));
    addItem(tr("instrument used: as before"), QString());
    for (const QString& one : { tr("tape"), tr("rule"), tr("vernier"), tr("micrometer"), tr("dial gauge"), tr("kitchen scale"),
             tr("hanging scale"), tr("bathroom scale"), tr("vendor sheet"), tr("estimate") })
        addItem(one, one);
    connect(this, &QComboBox::activated, this, [this] { document_.setInHand(currentData().toString()); });
}

void InHand::refresh() { setCurrentIndex(std::max(0, findData(document_.inHand()))); }

} // namespace deepstop::app
