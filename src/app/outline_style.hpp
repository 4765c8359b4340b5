#pragma once
/// Fusion whose boxes to tick and fields to type in have an edge that is seen at night, too.

#include <QProxyStyle>

namespace deepstop::app {

class OutlineStyle : public QProxyStyle {
    Q_OBJECT
public:
    OutlineStyle();
    void drawPrimitive(PrimitiveElement element, const QStyleOption* option, QPainter* painter, const QWidget* widget) const override;
};

} // namespace deepstop::app
