#include "widgets/instrument_bar.hpp"

#include "theme.hpp"

#include <QHBoxLayout>
#include <QPainter>

namespace deepstop::app {
namespace {

Level levelOf(Instrument::State state)
{
    switch (state) {
    case Instrument::State::Stable:
        return Level::Good;
    case Instrument::State::Lost:
    case Instrument::State::Flooding:
        return Level::Stop;
    case Instrument::State::Silent:
        return Level::Caution;
    default:
        return Level::Unproven;
    }
}

} // namespace

InstrumentBar::InstrumentBar(Instrument& instrument, QWidget* parent)
    : QWidget(parent), instrument_(instrument), name_(new QLabel(this)), value_(new QLabel(this)), word_(new QLabel(this)),
      take_(new QPushButton(tr("Take reading  F4"), this))
{
    setFixedHeight(44);
    value_->setFont(figures(22));
    value_->setMinimumWidth(150);
    value_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    value_->setAccessibleName(tr("What the instrument shows"));
    name_->setFont(reading(13, QFont::DemiBold));
    auto* again = new QPushButton(tr("Once more  Shift+F4"), this);
    auto* away = new QPushButton(tr("Disconnect"), this);
    take_->setToolTip(tr("Puts the stable reading into the dimension you are in, and goes on to the next"));
    again->setToolTip(tr("Adds it to the readings already there; their mean and spread count"));
    for (QPushButton* button : { take_, again, away })
        button->setFocusPolicy(Qt::NoFocus);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(40, 4, 14, 4);
    row->addWidget(name_);
    row->addWidget(value_);
    row->addWidget(word_, 1);
    row->addWidget(take_);
    row->addWidget(again);
    row->addWidget(away);
    connect(take_, &QPushButton::clicked, this, [this] { emit take(false); });
    connect(again, &QPushButton::clicked, this, [this] { emit take(true); });
    connect(away, &QPushButton::clicked, &instrument_, &Instrument::close);
    connect(&instrument_, &Instrument::changed, this, &InstrumentBar::refresh);
    refresh();
}

void InstrumentBar::refresh()
{
    const auto state = instrument_.state();
    setVisible(state != Instrument::State::Absent);
    if (state == Instrument::State::Absent)
        return;
    const auto& last = instrument_.last();
    if (last)
        name_->setText(QString::fromStdString(last->instrument));
    else if (name_->text().isEmpty())
        name_->setText(instrument_.address());
    const bool live = last && (state == Instrument::State::Stable || state == Instrument::State::Moving);
    if (live) {
        const bool fine = last->resolution < 0.05e-3;
        const Style style = last->dimension == Dimension::Mass ? Style { Dimension::Mass, "kg", 3, "lb", 3 }
            : last->dimension == Dimension::Temperature
            ? Style { Dimension::Temperature, "°C", 1, "°F", 1 }
            : Style { Dimension::Length, "mm", fine ? (last->resolution < 5e-6 ? 3 : 2) : 1, "in", 4 };
        value_->setText(QString::fromStdString(print(last->value, style, units_)));
    } else {
        value_->setText(QStringLiteral("–"));
    }
    switch (state) {
    case Instrument::State::Stable:
        word_->setText(tr("stable"));
        break;
    case Instrument::State::Moving:
        word_->setText(tr("moving"));
        break;
    case Instrument::State::Silent:
        word_->setText(tr("no data for a while"));
        break;
    case Instrument::State::Flooding:
        word_->setText(tr("sends more than any instrument does: nothing is taken"));
        break;
    case Instrument::State::Lost:
        word_->setText(tr("gone: look at the cable, then connect it again"));
        break;
    case Instrument::State::Absent:
        break;
    }
    setAccessibleName(QStringLiteral("%1, %2, %3").arg(name_->text(), value_->text(), word_->text()));
    take_->setEnabled(state == Instrument::State::Stable);
    update();
}

void InstrumentBar::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.fillRect(rect(), t.board);
    p.setPen(t.rule);
    p.drawLine(0, 0, width(), 0);
    const Level level = levelOf(instrument_.state());
    drawLevel(p, QRectF(16, 15, 14, 14), level, colourOf(level));
}

} // namespace deepstop::app
