#include "theme.hpp"

#include <QApplication>
#include <QFontDatabase>
#include <QFontMetrics>
#include <QPainter>
#include <QPalette>
#include <QWidget>

namespace deepstop::app {
namespace {

constexpr Theme dayTheme()
{
    return { false, QColor(0xF6, 0xF2, 0xE7), QColor(0xE8, 0xE1, 0xD0), QColor(0xFD, 0xFB, 0xF4), QColor(0x1C, 0x26, 0x31),
        QColor(0x5C, 0x5F, 0x5C), QColor(0xC6, 0xBC, 0xA5), QColor(0x1B, 0x47, 0x7C), QColor(0xD5, 0xE0, 0xEA), QColor(0xA4, 0x5F, 0x2B),
        QColor(0x7C, 0x85, 0x8A), QColor(0xE9, 0xE8, 0xE0), QColor(0xD3, 0xAE, 0x6A), QColor(0x22, 0x2E, 0x3A), QColor(0xF1, 0xEB, 0xDC),
        QColor(0xA9, 0xAF, 0xAE), QColor(0x2C, 0x6E, 0x49), QColor(0x86, 0x4E, 0x00), QColor(0xB4, 0x23, 0x18), QColor(0x6A, 0x5A, 0x86),
        QColor(0x1B, 0x47, 0x7C) };
}

constexpr Theme nightTheme()
{
    return { true, QColor(0x18, 0x22, 0x2C), QColor(0x11, 0x19, 0x21), QColor(0x23, 0x30, 0x3C), QColor(0xEC, 0xE6, 0xD8),
        QColor(0xA3, 0xAA, 0xAA), QColor(0x3B, 0x4A, 0x56), QColor(0x8C, 0xBD, 0xF0), QColor(0x24, 0x3C, 0x54), QColor(0xDD, 0xA0, 0x6B),
        QColor(0x83, 0x90, 0x97), QColor(0x25, 0x31, 0x3A), QColor(0x9A, 0x7B, 0x3F), QColor(0x0B, 0x11, 0x17), QColor(0xEC, 0xE6, 0xD8),
        QColor(0x8E, 0x98, 0x9B), QColor(0x7F, 0xC8, 0x9B), QColor(0xEB, 0xB3, 0x55), QColor(0xF2, 0x85, 0x7A), QColor(0xB9, 0xA8, 0xDB),
        QColor(0x8C, 0xBD, 0xF0) };
}

Theme& current()
{
    static Theme theme = dayTheme();
    return theme;
}

} // namespace

const Theme& theme() { return current(); }

void setDark(bool dark)
{
    current() = dark ? nightTheme() : dayTheme();
    const Theme& t = current();
    QPalette palette;
    palette.setColor(QPalette::Window, t.board);
    palette.setColor(QPalette::WindowText, t.ink);
    palette.setColor(QPalette::Base, t.raised);
    palette.setColor(QPalette::AlternateBase, t.board);
    palette.setColor(QPalette::Text, t.ink);
    palette.setColor(QPalette::PlaceholderText, t.mute);
    palette.setColor(QPalette::Button, t.raised);
    palette.setColor(QPalette::ButtonText, t.ink);
    palette.setColor(QPalette::Highlight, t.focus);
    palette.setColor(QPalette::HighlightedText, t.dark ? QColor(0x10, 0x18, 0x20) : QColor(Qt::white));
    palette.setColor(QPalette::Link, t.proposal);
    palette.setColor(QPalette::LinkVisited, t.proposal);
    palette.setColor(QPalette::ToolTipBase, t.raised);
    palette.setColor(QPalette::ToolTipText, t.ink);
    palette.setColor(QPalette::Light, t.raised);
    palette.setColor(QPalette::Midlight, t.board);
    palette.setColor(QPalette::Mid, t.rule);
    palette.setColor(QPalette::Dark, t.rule);
    palette.setColor(QPalette::Shadow, t.rule);
    for (const auto role : { QPalette::WindowText, QPalette::Text, QPalette::ButtonText })
        palette.setColor(QPalette::Disabled, role, t.mute);
    QApplication::setPalette(palette);
    for (QWidget* widget : QApplication::allWidgets())
        widget->update();
}

void loadFonts()
{
    for (const char* file : { "routed-gothic.ttf", "Lato-Regular.ttf", "Lato-Semibold.ttf", "Lato-Bold.ttf", "B612-Regular.otf",
             "DejaVuSans.ttf", "Symbola.ttf" })
        QFontDatabase::addApplicationFont(QStringLiteral(":/fonts/") + QLatin1String(file));
    QApplication::setFont(reading(13));
}

namespace {

/// A font of ours, and behind it those with the letters it lacks: other alphabets, then symbols and emoji.
QFont withFallback(const char* family)
{
    QFont font;
    font.setFamilies({ QString::fromLatin1(family), QStringLiteral("DejaVu Sans"), QStringLiteral("Symbola") });
    return font;
}

} // namespace

QFont drafting(double pixels)
{
    QFont font = withFallback("Routed Gothic");
    font.setPixelSize(qRound(pixels));
    return font;
}

QFont figures(double pixels)
{
    QFont font = withFallback("B612");
    font.setPixelSize(qRound(pixels));
    return font;
}

QFont reading(double pixels, QFont::Weight weight)
{
    QFont font = withFallback("Lato");
    font.setPixelSize(qRound(pixels));
    font.setWeight(weight);
    return font;
}

QFont readingWithin(double pixels, QFont::Weight weight, const QString& text, int width)
{
    QFont font = reading(pixels, weight);
    for (double smaller = pixels - 1; smaller >= 8 && QFontMetrics(font).horizontalAdvance(text) > width; --smaller)
        font = reading(smaller, weight);
    return font;
}

QColor colourOf(Level level)
{
    const Theme& t = theme();
    switch (level) {
    case Level::Clear:
    case Level::Good:
        return t.good;
    case Level::Unproven:
        return t.unproven;
    case Level::Tight:
    case Level::Caution:
        return t.caution;
    case Level::Hits:
    case Level::Stop:
        return t.bad;
    }
    return t.ink;
}

void drawLevel(QPainter& p, const QRectF& box, Level level, const QColor& colour)
{
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    const double s = std::min(box.width(), box.height());
    const QRectF r(box.center().x() - s / 2, box.center().y() - s / 2, s, s);
    p.setPen(Qt::NoPen);
    p.setBrush(colour);
    switch (level) {
    case Level::Clear:
    case Level::Good:
        p.drawEllipse(r.adjusted(s * .08, s * .08, -s * .08, -s * .08));
        break;
    case Level::Unproven: {
        QPen pen(colour, s * .16);
        pen.setCapStyle(Qt::FlatCap);
        pen.setDashPattern({ 1.3, 1.0 });
        p.setPen(pen);
        p.setBrush(Qt::NoBrush);
        p.drawEllipse(r.adjusted(s * .14, s * .14, -s * .14, -s * .14));
        break;
    }
    case Level::Tight:
    case Level::Caution:
        p.drawPolygon(QPolygonF { QPointF(r.center().x(), r.top() + s * .04), QPointF(r.right(), r.bottom() - s * .06),
            QPointF(r.left(), r.bottom() - s * .06) });
        break;
    case Level::Hits:
    case Level::Stop: {
        p.drawRect(r.adjusted(s * .06, s * .06, -s * .06, -s * .06));
        p.setPen(QPen(theme().dark ? QColor(0x10, 0x18, 0x20) : QColor(Qt::white), s * .15));
        p.drawLine(QPointF(r.left() + s * .27, r.top() + s * .27), QPointF(r.right() - s * .27, r.bottom() - s * .27));
        p.drawLine(QPointF(r.left() + s * .27, r.bottom() - s * .27), QPointF(r.right() - s * .27, r.top() + s * .27));
        break;
    }
    }
    p.restore();
}

} // namespace deepstop::app
