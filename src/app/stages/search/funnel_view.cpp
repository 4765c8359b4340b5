#include "stages/search/funnel_view.hpp"

#include "theme.hpp"

#include <QKeyEvent>
#include <QLocale>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace deepstop::app {
namespace {

constexpr int lineHeight = 34;
constexpr int top = 6;

QString countsOf(const search::Lost& lost)
{
    return FunnelView::tr("%1 lost, %2 left")
        .arg(QLocale().toString(static_cast<qulonglong>(lost.lost)), QLocale().toString(static_cast<qulonglong>(lost.left)));
}

} // namespace

FunnelView::FunnelView(QWidget* parent) : QWidget(parent)
{
    setFocusPolicy(Qt::StrongFocus);
    setObjectName(QStringLiteral("funnel"));
    setAccessibleName(tr("Where kits are lost"));
}

void FunnelView::setFunnel(std::shared_ptr<const search::Result> result)
{
    result_ = std::move(result);
    chosen_ = -1;
    countsWide_ = 0;
    const QFontMetrics letters(figures(11.5));
    for (int i = 0; i < count(); ++i)
        countsWide_ = std::max(countsWide_, letters.horizontalAdvance(countsOf(result_->funnel[static_cast<std::size_t>(i)])));
    setMinimumHeight(sizeHint().height());
    updateGeometry();
    update();
}

QSize FunnelView::sizeHint() const { return { 360, 2 * top + lineHeight * std::max(1, count()) }; }

QRectF FunnelView::bar(int check) const
{
    // As a root: a check that loses few is seen beside one that loses nearly all.
    const auto& funnel = result_->funnel;
    std::uint64_t most = 1;
    for (const search::Lost& each : funnel)
        most = std::max(most, each.lost);
    const double share = std::sqrt(static_cast<double>(funnel[static_cast<std::size_t>(check)].lost) / static_cast<double>(most));
    return { 10.0, top + check * lineHeight + 20.0, std::max(2.0, share * (width() - 30 - countsWide_)), 9.0 };
}

void FunnelView::choose(int check)
{
    if (check < 0 || check >= count() || check == chosen_)
        return;
    chosen_ = check;
    const search::Lost& lost = result_->funnel[static_cast<std::size_t>(check)];
    setAccessibleDescription(tr("%1: %2 kits lost, %3 left")
                                 .arg(QString::fromStdString(lost.title), QLocale().toString(static_cast<qulonglong>(lost.lost)),
                                     QLocale().toString(static_cast<qulonglong>(lost.left))));
    update();
    emit checkChosen(check);
}

void FunnelView::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), t.paper);
    for (int i = 0; i < count(); ++i) {
        const search::Lost& lost = result_->funnel[static_cast<std::size_t>(i)];
        const QRectF line(0, top + i * lineHeight, width(), lineHeight);
        if (i == chosen_) {
            p.fillRect(line, t.proposalWash);
            p.fillRect(QRectF(line.topLeft(), QSizeF(4, line.height())), t.proposal);
        }
        p.setFont(reading(12.5));
        p.setPen(t.ink);
        const QRectF name(10, line.top(), width() - 20, 18);
        p.drawText(name, Qt::AlignVCenter,
            p.fontMetrics().elidedText(QString::fromStdString(lost.title), Qt::ElideRight, static_cast<int>(name.width())));
        p.setFont(figures(11.5));
        p.drawText(QRectF(0, line.top() + 16, width() - 10, 17), Qt::AlignRight | Qt::AlignVCenter, countsOf(lost));
        p.setPen(Qt::NoPen);
        p.setBrush(t.bad);
        p.drawRect(bar(i));
    }
    if (hasFocus()) {
        p.setPen(QPen(t.focus, 2));
        p.setBrush(Qt::NoBrush);
        p.drawRect(rect().adjusted(1, 1, -2, -2));
    }
}

void FunnelView::mousePressEvent(QMouseEvent* event) { choose(static_cast<int>((event->position().y() - top) / lineHeight)); }

void FunnelView::keyPressEvent(QKeyEvent* event)
{
    switch (event->key()) {
    case Qt::Key_Up:
        return choose(chosen_ - 1);
    case Qt::Key_Down:
        return choose(chosen_ + 1);
    default:
        QWidget::keyPressEvent(event);
    }
}

} // namespace deepstop::app
