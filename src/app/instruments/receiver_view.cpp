#include "instruments/receiver_view.hpp"

#include "theme.hpp"

#include <QComboBox>
#include <QLineEdit>
#include <QPainter>
#include <QPushButton>

namespace deepstop::app {

using State = proving::LiveRecorder::State;

ReceiverView::ReceiverView(QWidget* parent) : QWidget(parent), address_(new QComboBox(this)), connect_(new QPushButton(tr("Listen"), this))
{
    clock_.start();
    address_->setEditable(true);
    address_->setAccessibleName(tr("Line of the receiver"));
    address_->setToolTip(tr("A serial port, or 127.0.0.1 with a port: a receiver that speaks NMEA 0183"));
    address_->lineEdit()->setPlaceholderText(tr("/dev/ttyUSB0 or 127.0.0.1:7201"));
    address_->addItems(Wire::ports());
    address_->setCurrentText({});
    connect(connect_, &QPushButton::clicked, this, &ReceiverView::open);
    connect(address_->lineEdit(), &QLineEdit::returnPressed, this, &ReceiverView::open);
    connect(&wire_, &Wire::came, this, [this](const QByteArray& bytes, bool flood) {
        recorder_->take({ bytes.constData(), static_cast<std::size_t>(bytes.size()) }, now(), flood);
    });
    connect(&wire_, &Wire::polled, this, &ReceiverView::showChanges);
    connect(&wire_, &Wire::lost, this, [this] {
        recorder_->cut();
        connect_->setText(tr("Listen"));
        update();
    });
}

void ReceiverView::record(double speed, std::function<void(const proving::FoundStop&)> found)
{
    recorder_ = std::make_unique<proving::LiveRecorder>(speed, std::move(found));
}

void ReceiverView::open()
{
    // One that is gone is listened to again at once.
    if (wire_.isOpen() && !wire_.isLost()) {
        stopListening();
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
    shown_.clear();
    connect_->setText(tr("Stop listening"));
    update();
}

void ReceiverView::stopListening()
{
    if (!wire_.isOpen())
        return;
    recorder_->cut();
    wire_.close();
    connect_->setText(tr("Listen"));
    update();
}

void ReceiverView::showChanges()
{
    if (isVisible() && words() != shown_)
        update();
}

bool ReceiverView::isHeard() const
{
    const auto state = recorder_->stateAt(now());
    return isOpen() && !wire_.isLost() && state != State::Silent && state != State::NoFix && state != State::Flooding;
}

QString ReceiverView::trouble() const
{
    if (!isOpen())
        return tr("not connected");
    if (wire_.isLost())
        return tr("the receiver is gone");
    return isHeard() ? QString() : QString::fromUtf8(deepstop::tr(proving::nameOf(recorder_->stateAt(now()))).data());
}

QString ReceiverView::speedWords() const
{
    const auto speed = recorder_->speed();
    return isHeard() && speed ? QString::fromStdString(print(*speed, style::speed, units_)) : QStringLiteral("–");
}

void ReceiverView::resizeEvent(QResizeEvent*)
{
    address_->setGeometry(24, height() - 48, 260, 30);
    connect_->setGeometry(296, height() - 48, 140, 30);
}

void ReceiverView::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.fillRect(rect(), t.paper);
    const QStringList all = shown_ = words();
    const bool flooding = isOpen() && recorder_->stateAt(now()) == State::Flooding;
    const QColor colour = isHeard() ? colourNow() : flooding ? t.bad : t.unproven;
    const double room = height() - 80;
    const double big = std::min(room * 0.42, width() / 5.5);
    double y = 18;
    const auto line = [&](const QString& text, double pixels, const QColor& ink) {
        p.setFont(figures(pixels));
        // A long one is set smaller rather than cut off.
        const double wide = QFontMetricsF(p.font()).horizontalAdvance(text);
        if (wide > width() - 48)
            p.setFont(figures(pixels * (width() - 48) / wide));
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
    p.drawText(QRectF(452, height() - 50, width() - 470, 34), Qt::AlignLeft | Qt::AlignVCenter | Qt::TextWordWrap, caution());
}

} // namespace deepstop::app
