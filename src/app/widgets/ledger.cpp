#include "widgets/ledger.hpp"

#include "theme.hpp"

#include <QHBoxLayout>
#include <QPainter>

#include <algorithm>

namespace deepstop::app {

LedgerCell::LedgerCell(QWidget* parent) : QAbstractButton(parent)
{
    setCursor(Qt::PointingHandCursor);
    setFocusPolicy(Qt::TabFocus);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void LedgerCell::setLine(const LedgerLine& line, const Study& study)
{
    const auto shown = [this] { return std::tuple { before_, after_, unit_, word_, text(), line_.level }; };
    const auto was = shown();
    line_ = line;
    const auto said = [&](const Figure& f) {
        return f.value
            ? QString::fromStdString(figure(*f.value, line.style, study.system)) + (f.provisional() ? QStringLiteral("?") : QString())
            : QStringLiteral("–");
    };
    before_ = said(line.before);
    after_ = said(line.after);
    unit_ = QString::fromUtf8(line.style.unit(study.system).symbol.data());
    word_ = QString::fromStdString(line.word);
    setText(QString::fromStdString(line.title));
    setObjectName(QStringLiteral("ledger-") + QString::fromStdString(line.id));
    auto tip = QStringLiteral("%1: %2 %3, %4").arg(text(), beforeAfter(), unit_, word_);
    for (const auto& [name, f] : { std::pair { tr("before"), &line.before }, std::pair { tr("after"), &line.after } })
        if (!f->value)
            tip += QStringLiteral("\n%1: %2").arg(name, QString::fromStdString(lacking(study, *f, line.lacksInWords)));
    if (line.change.value)
        tip += QStringLiteral("\n")
            + tr("difference %1 ±%2")
                  .arg(QString::fromStdString(printChange(*line.change.value, line.style, study.system)),
                      QString::fromStdString(print(line.change.rootSumSquare, ofDifference(line.style), study.system)));
    if (line.before.provisional() || line.after.provisional())
        tip += QStringLiteral("\n") + tr("? rests on an estimate");
    setToolTip(tip);
    setAccessibleName(QStringLiteral("%1: %2 %3, %4").arg(text(), beforeAfter(), unit_, word_));
    setAccessibleDescription(tip.section(QLatin1Char('\n'), 1));
    // Most edits change few of the figures, and lettering is dear.
    if (shown() != was)
        update();
}

void LedgerCell::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (underMouse() || hasFocus()) {
        p.setPen(QPen(hasFocus() ? t.blockInk : t.blockMute, hasFocus() ? 2 : 1));
        p.drawRect(QRectF(rect()).adjusted(3, 4, -3, -4));
    }
    const int left = 12;
    p.setFont(reading(12));
    p.setPen(t.blockMute);
    p.drawText(QRect(left, 9, width() - left - 4, 18), Qt::AlignLeft | Qt::AlignVCenter,
        QFontMetrics(reading(12)).elidedText(text(), Qt::ElideRight, width() - left - 4));

    QFont font = figures(16);
    const auto whole = [&] { return QFontMetrics(font).horizontalAdvance(beforeAfter() + QLatin1Char(' ') + unit_); };
    while (whole() > width() - left - 6 && font.pixelSize() > 11)
        font.setPixelSize(font.pixelSize() - 1);
    p.setFont(font);
    const QFontMetrics metrics(font);
    int x = left;
    const auto write = [&](const QString& s, const QColor& colour) {
        p.setPen(colour);
        p.drawText(QRect(x, 30, width() - x, 26), Qt::AlignLeft | Qt::AlignVCenter, s);
        x += metrics.horizontalAdvance(s);
    };
    write(before_, QColor(0xDD, 0xA9, 0x7B));
    write(QStringLiteral(" → "), t.blockMute);
    write(after_, t.blockInk);
    write(QLatin1Char(' ') + unit_, t.blockMute);

    // On the dark block the night colours of the levels are the readable ones, by day too.
    const auto onBlock = [&](Level level) {
        switch (level) {
        case Level::Clear:
        case Level::Good:
            return QColor(0x8C, 0xCB, 0xA2);
        case Level::Unproven:
            return QColor(0xC2, 0xB4, 0xDE);
        case Level::Tight:
        case Level::Caution:
            return QColor(0xEE, 0xBB, 0x66);
        default:
            return QColor(0xF4, 0x94, 0x88);
        }
    };
    const QColor colour = onBlock(line_.level);
    drawLevel(p, QRectF(left, 63, 11, 11), line_.level, colour);
    p.setFont(reading(12));
    p.setPen(colour);
    p.drawText(QRect(left + 18, 59, width() - left - 20, 18), Qt::AlignLeft | Qt::AlignVCenter,
        QFontMetrics(reading(12)).elidedText(word_, Qt::ElideRight, width() - left - 20));
}

Ledger::Ledger(QWidget* parent) : QWidget(parent)
{
    setFixedHeight(88);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
}

void Ledger::setStudy(const Study& study)
{
    while (cells_.size() > study.ledger.size()) {
        cells_.back()->hide();
        cells_.back()->deleteLater();
        cells_.pop_back();
    }
    while (cells_.size() < study.ledger.size()) {
        auto* cell = new LedgerCell(this);
        connect(cell, &QAbstractButton::clicked, this, [this, cell] { emit chosen(cell->line().chapter); });
        layout()->addWidget(cell);
        cells_.push_back(cell);
    }
    for (std::size_t i = 0; i < cells_.size(); ++i)
        cells_[i]->setLine(study.ledger[i], study);
}

LedgerCell* Ledger::cell(std::string_view id) const
{
    const auto found = std::ranges::find_if(cells_, [id](const LedgerCell* c) { return c->line().id == id; });
    return found == cells_.end() ? nullptr : *found;
}

void Ledger::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.fillRect(rect(), t.block);
    QColor line = t.blockMute;
    line.setAlphaF(0.35f);
    p.setPen(QPen(line, 1));
    for (std::size_t i = 1; i < cells_.size(); ++i)
        p.drawLine(cells_[i]->x(), 10, cells_[i]->x(), height() - 10);
}

} // namespace deepstop::app
