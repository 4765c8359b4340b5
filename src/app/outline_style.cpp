#include "outline_style.hpp"

#include "theme.hpp"

#include <QStyleOption>

namespace deepstop::app {

OutlineStyle::OutlineStyle() : QProxyStyle(QStringLiteral("Fusion")) { }

void OutlineStyle::drawPrimitive(PrimitiveElement element, const QStyleOption* option, QPainter* painter, const QWidget* widget) const
{
    // Fusion draws an edge darker than the window: on a dark one that is none.
    const auto draw = [&](const auto& given) {
        auto edged = given;
        edged.palette.setColor(QPalette::Window, theme().mute);
        QProxyStyle::drawPrimitive(element, &edged, painter, widget);
    };
    const bool box = element == PE_IndicatorCheckBox || element == PE_IndicatorRadioButton || element == PE_IndicatorItemViewItemCheck;
    if (theme().dark && box)
        if (const auto* button = qstyleoption_cast<const QStyleOptionButton*>(option))
            return draw(*button);
    if (theme().dark && box)
        if (const auto* item = qstyleoption_cast<const QStyleOptionViewItem*>(option))
            return draw(*item);
    if (theme().dark && element == PE_FrameLineEdit)
        if (const auto* frame = qstyleoption_cast<const QStyleOptionFrame*>(option))
            return draw(*frame);
    QProxyStyle::drawPrimitive(element, option, painter, widget);
}

} // namespace deepstop::app
