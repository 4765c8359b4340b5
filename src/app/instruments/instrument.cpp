#include "instruments/instrument.hpp"

#include <QHostAddress>
#include <QSerialPort>
#include <QSerialPortInfo>
#include <QTcpSocket>

#include <cmath>
#include <poll.h>
#include <utility>

namespace deepstop::app {
namespace {

constexpr int tick = 25; ///< ms between two looks at the line
constexpr qint64 mostBytes = 16 * 1024; ///< taken at one look; an instrument sends a hundredth of that
constexpr qint64 fresh = 1500; ///< ms a reading stays good
constexpr qint64 floodPause = 2000; ///< ms of quiet after a flood before readings count again
constexpr std::size_t agreeing = 3;
constexpr std::size_t mostLines = 60; ///< at one look; more is no instrument but a flood

bool hasHungUp(const QSerialPort& port)
{
    pollfd line { port.handle(), 0, 0 };
    return ::poll(&line, 1, 0) > 0 && (line.revents & (POLLHUP | POLLERR | POLLNVAL)) != 0;
}

} // namespace

Instrument::Instrument(QObject* parent) : QObject(parent)
{
    ticker_.setInterval(tick);
    connect(&ticker_, &QTimer::timeout, this, &Instrument::take);
}

Instrument::~Instrument() { close(); }

QStringList Instrument::ports()
{
    QStringList names;
    for (const QSerialPortInfo& port : QSerialPortInfo::availablePorts())
        names << port.systemLocation();
    return names;
}

void Instrument::close()
{
    ticker_.stop();
    if (device_) {
        device_->disconnect(this);
        device_->close();
        device_->deleteLater();
        device_ = nullptr;
    }
    address_.clear();
    last_.reset();
    recent_.clear();
    reader_ = {};
    lost_ = false;
    flooded_.invalidate();
    emit changed();
}

QString Instrument::open(const QString& given)
{
    close();
    const auto address = given.trimmed();
    const auto colon = address.lastIndexOf(QLatin1Char(':'));
    if (!address.startsWith(QLatin1Char('/')) && colon > 0) {
        const auto host =
            address.left(colon) == QLatin1String("localhost") ? QHostAddress(QHostAddress::LocalHost) : QHostAddress(address.left(colon));
        bool isNumber = false;
        const auto port = address.mid(colon + 1).toUShort(&isNumber);
        if (!isNumber || port == 0)
            return tr("%1: after the colon a port from 1 to 65535 is wanted.").arg(address);
        if (host.isNull() || !host.isLoopback())
            return tr("%1: only instruments on this machine are read; write 127.0.0.1:%2.").arg(address).arg(port);
        auto* socket = new QTcpSocket(this);
        socket->setReadBufferSize(mostBytes);
        connect(socket, &QTcpSocket::disconnected, this, &Instrument::lose);
        connect(socket, &QTcpSocket::errorOccurred, this, &Instrument::lose);
        device_ = socket;
        socket->connectToHost(host, port);
    } else {
        auto* serial = new QSerialPort(this);
        serial->setPortName(address);
        serial->setReadBufferSize(mostBytes);
        if (!serial->open(QIODevice::ReadWrite)) {
            const auto why = serial->errorString();
            delete serial;
            return tr("%1 cannot be opened: %2.").arg(address, why);
        }
        serial->setBaudRate(QSerialPort::Baud9600);
        connect(serial, &QSerialPort::errorOccurred, this, [this](QSerialPort::SerialPortError error) {
            if (error == QSerialPort::ResourceError || error == QSerialPort::DeviceNotFoundError || error == QSerialPort::PermissionError
                || error == QSerialPort::ReadError)
                lose();
        });
        device_ = serial;
    }
    address_ = address;
    since_.start();
    ticker_.start();
    emit changed();
    return {};
}

void Instrument::lose()
{
    if (std::exchange(lost_, true))
        return;
    last_.reset();
    recent_.clear();
    // Nobody listens to it any more: a line whose other end is gone stays ready to be read for ever.
    ticker_.stop();
    device_->disconnect(this);
    QMetaObject::invokeMethod(device_, &QIODevice::close, Qt::QueuedConnection);
    emit changed();
}

void Instrument::take()
{
    if (device_ && !lost_) {
        // A serial port does not always say that it is gone.
        if (auto* serial = qobject_cast<QSerialPort*>(device_); serial && hasHungUp(*serial)) {
            lose();
            return;
        }
        const auto bytes = device_->read(mostBytes);
        const auto lines = static_cast<std::size_t>(bytes.count('\n'));
        if (lines > mostLines || bytes.size() == mostBytes) {
            // What still waits in such a flood is old: nothing of it counts.
            flooded_.start();
            recent_.clear();
            last_.reset();
            (void)reader_.take({ bytes.constData(), static_cast<std::size_t>(bytes.size()) });
        } else {
            for (const auto& indication : reader_.take({ bytes.constData(), static_cast<std::size_t>(bytes.size()) })) {
                if (flooded_.isValid() && flooded_.elapsed() < floodPause)
                    continue;
                last_ = indication;
                since_.start();
                recent_.push_back(indication);
                if (recent_.size() > agreeing)
                    recent_.pop_front();
                emit indicated(indication);
            }
        }
    }
    if (const State now = state(); now != shown_ || now == State::Moving || now == State::Stable) {
        shown_ = now;
        emit changed();
    }
}

Instrument::State Instrument::state() const
{
    if (!device_)
        return State::Absent;
    if (lost_)
        return State::Lost;
    if (flooded_.isValid() && flooded_.elapsed() < floodPause)
        return State::Flooding;
    if (!last_ || since_.elapsed() > fresh)
        return State::Silent;
    return steady() ? State::Stable : State::Moving;
}

std::optional<instruments::Indication> Instrument::steady() const
{
    if (lost_ || !last_ || recent_.size() < agreeing || since_.elapsed() > fresh || (flooded_.isValid() && flooded_.elapsed() < floodPause))
        return {};
    for (const auto& one : recent_)
        if (!one.stable || one.dimension != last_->dimension || one.instrument != last_->instrument
            || std::abs(one.value - last_->value) > 2.01 * last_->resolution)
            return {};
    return last_;
}

void Instrument::saidTaken()
{
    // What it shows next is another thing.
    recent_.clear();
    if (device_ && !lost_)
        device_->write("taken\n");
}

} // namespace deepstop::app
