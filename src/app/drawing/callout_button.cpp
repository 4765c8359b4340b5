#include "drawing/callout_button.hpp"

#include "theme.hpp"

#include <QPainter>

#include <utility>

namespace deepstop::app {

CalloutButton::CalloutButton(QWidget* parent) : QAbstractButton(parent)
{
    setFont(figures(13.5));
    setCursor(Qt::PointingHandCursor);
    setFocusPolicy(Qt::TabFocus);
}

void CalloutButton::show(const Callout& callout)
{
    if (level_ != callout.level || working_)
        update();
    level_ = callout.level;
    working_ = false;
    setText(callout.text);
    setAccessibleName(QStringLiteral("%1, %2").arg(callout.text, QString::fromUtf8(deepstop::tr(nameOf(callout.level)).data())));
    setVisible(true);
}

void CalloutButton::setVerdict(const Verdict& verdict)
{
    QStringList remedies;
    for (const Remedy& remedy : verdict.remedies)
        remedies << QString::fromStdString(remedy.title);
    setAccessibleName(
        QStringLiteral("%1: %2, %3")
            .arg(QString::fromStdString(verdict.title), text(), QString::fromUtf8(deepstop::tr(nameOf(verdict.level)).data())));
    setAccessibleDescription(remedies.isEmpty()
            ? QString::fromStdString(verdict.reason)
            : tr("%1. What would mend it: %2").arg(QString::fromStdString(verdict.reason), remedies.join(QStringLiteral("; "))));
}

void CalloutButton::showWorking()
{
    if (!std::exchange(working_, true))
        update();
    level_ = Level::Unproven;
    setAccessibleName(tr("being worked out"));
    setAccessibleDescription({});
}

QSize CalloutButton::sizeHint() const
{
    const QFontMetrics metrics(font());
    return { metrics.horizontalAdvance(text()) + 34, metrics.height() + 7 };
}

void CalloutButton::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const QColor colour = working_ ? t.mute : colourOf(level_);
    p.setPen(QPen(hasFocus() ? t.focus : colour, hasFocus() || underMouse() ? 2 : 1.4));
    p.setBrush(t.raised);
    p.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 2, 2);
    drawLevel(p, QRectF(7, height() / 2.0 - 6, 12, 12), level_, colour);
    p.setFont(font());
    p.setPen(working_ ? t.mute : t.ink);
    p.drawText(rect().adjusted(24, 0, -6, 0), Qt::AlignVCenter | Qt::AlignLeft, working_ ? QStringLiteral("…") : text());
}

} // namespace deepstop::app
