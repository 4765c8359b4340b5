#include "stages/stop/live_view.hpp"

#include "report/log_session.hpp"
#include "theme.hpp"

#include <QComboBox>
#include <QLineEdit>
#include <QPainter>
#include <QPushButton>

#include <cmath>

namespace deepstop::app {

LiveView::LiveView(QWidget* parent) : QWidget(parent), address_(new QComboBox(this)), connect_(new QPushButton(tr("Listen"), this))
{
    setObjectName(QStringLiteral("live"));
    clock_.start();
    address_->setEditable(true);
    address_->setAccessibleName(tr("Line of the receiver"));
    address_->setToolTip(tr("A serial port, or 127.0.0.1 with a port: a receiver that speaks NMEA 0183"));
    address_->lineEdit()->setPlaceholderText(tr("/dev/ttyUSB0 or 127.0.0.1:7201"));
    address_->addItems(Wire::ports());
    address_->setCurrentText({});
    connect(connect_, &QPushButton::clicked, this, &LiveView::open);
    connect(address_->lineEdit(), &QLineEdit::returnPressed, this, &LiveView::open);
    connect(&wire_, &Wire::came, this, [this](const QByteArray& bytes, bool flood) {
        recorder_->take({ bytes.constData(), static_cast<std::size_t>(bytes.size()) }, now(), flood);
    });
    connect(&wire_, &Wire::looked, this, qOverload<>(&QWidget::update));
    connect(&wire_, &Wire::lost, this, [this] {
        connect_->setText(tr("Listen"));
        update();
    });
    begin();
}

void LiveView::begin()
{
    recorder_ = std::make_unique<proving::LiveRecorder>(speed_, [this](const proving::FoundStop& stop) { emit found(stop); });
}

void LiveView::open()
{
    if (wire_.isOpen()) {
        wire_.close();
        connect_->setText(tr("Listen"));
        update();
        return;
    }
    const QString address = address_->currentText().trimmed();
    if (address.isEmpty()) {
        emit refused(tr("Say where the receiver sends: a serial port, or 127.0.0.1 with a port."));
        return;
    }
    begin();
    if (const QString why = wire_.open(address); !why.isEmpty()) {
        emit refused(why);
        return;
    }
    connect_->setText(tr("Stop listening"));
    update();
}

void LiveView::setPlan(double speed, double cooling, UnitSystem units)
{
    const bool other = speed != speed_ && !(std::isnan(speed) && std::isnan(speed_));
    speed_ = speed;
    cooling_ = cooling;
    units_ = units;
    if (other && !wire_.isOpen())
        begin();
    update();
}

QStringList LiveView::words() const
{
    QStringList all;
    const auto speed = recorder_->speed();
    const bool open = wire_.isOpen();
    const auto state = recorder_->stateAt(now());
    using State = proving::LiveRecorder::State;
    const bool heard = open && !wire_.isLost() && state != State::Silent && state != State::NoFix && state != State::Flooding;
    all << (heard && speed ? QString::fromStdString(print(*speed, style::speed, units_)) : QStringLiteral("–"));
    all << (!open ? tr("not listening") : wire_.isLost() ? tr("the receiver is gone") : QString::fromUtf8(proving::nameOf(state).data()));
    if (const auto& last = recorder_->last())
        all << (last->good()
                ? tr("stop %1: %2 from %3")
                      .arg(recorder_->found())
                      .arg(QString::fromStdString(print(last->distance, style::road, units_)),
                          QString::fromStdString(print(last->speed, style::speed, units_)))
                : tr("stop %1 does not count: %2").arg(recorder_->found()).arg(QString::fromStdString(report::qualityOf(*last))));
    else
        all << tr("no stop yet");
    if (const auto at = recorder_->lastAt(); at && std::isfinite(cooling_)) {
        const int left = static_cast<int>(std::ceil(cooling_ - (now() - *at)));
        all << (left > 0 ? tr("next stop in %1:%2, driving").arg(left / 60).arg(left % 60, 2, 10, QLatin1Char('0'))
                         : tr("cool enough for the next"));
    } else {
        all << tr("from %1 at the mark").arg(QString::fromStdString(print(speed_, style::speed, units_)));
    }
    return all;
}

void LiveView::resizeEvent(QResizeEvent*)
{
    address_->setGeometry(24, height() - 48, 260, 30);
    connect_->setGeometry(296, height() - 48, 140, 30);
}

void LiveView::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.fillRect(rect(), t.paper);
    const QStringList all = words();
    using State = proving::LiveRecorder::State;
    const auto state = recorder_->stateAt(now());
    const QColor colour = !wire_.isOpen() || wire_.isLost() || state == State::Silent || state == State::NoFix ? t.unproven
        : state == State::Flooding                                                                             ? t.bad
        : state == State::Ready                                                                                ? t.good
                                                                                                               : t.ink;
    const double room = height() - 80;
    const double big = std::min(room * 0.42, width() / 5.5);
    double y = 18;
    const auto line = [&](const QString& text, double pixels, const QColor& ink) {
        p.setFont(figures(pixels));
        p.setPen(ink);
        p.drawText(QRectF(24, y, width() - 48, pixels * 1.3), Qt::AlignLeft | Qt::AlignVCenter, text);
        y += pixels * 1.3;
    };
    line(all[0], big, t.ink);
    line(all[1], big * 0.42, colour);
    line(all[2], big * 0.28, t.ink);
    line(all[3], big * 0.28, t.mute);
    p.setFont(reading(12));
    p.setPen(t.bad);
    p.drawText(QRectF(452, height() - 50, width() - 470, 34), Qt::AlignLeft | Qt::AlignVCenter | Qt::TextWordWrap,
        tr("Closed road, nobody behind, run-out of twice the stop. The driver drives: somebody else reads this."));
}

} // namespace deepstop::app
