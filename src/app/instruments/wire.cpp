#include "instruments/wire.hpp"

#include <QHostAddress>
#include <QSerialPort>
#include <QSerialPortInfo>
#include <QTcpSocket>

#include <poll.h>
#include <utility>

namespace deepstop::app {
namespace {

constexpr int tick = 25; ///< ms between two looks at the line
constexpr qint64 mostBytes = 16 * 1024; ///< taken at one look; an instrument sends a hundredth of that
constexpr qsizetype mostLines = 60; ///< at one look; more is no instrument but a flood

bool hasHungUp(const QSerialPort& port)
{
    pollfd line { port.handle(), 0, 0 };
    return ::poll(&line, 1, 0) > 0 && (line.revents & (POLLHUP | POLLERR | POLLNVAL)) != 0;
}

} // namespace

Wire::Wire(QObject* parent) : QObject(parent)
{
    ticker_.setInterval(tick);
    connect(&ticker_, &QTimer::timeout, this, &Wire::take);
}

Wire::~Wire() { close(); }

QStringList Wire::ports()
{
    QStringList names;
    for (const QSerialPortInfo& port : QSerialPortInfo::availablePorts())
        names << port.systemLocation();
    return names;
}

void Wire::close()
{
    ticker_.stop();
    if (device_) {
        device_->disconnect(this);
        device_->close();
        device_->deleteLater();
        device_ = nullptr;
    }
    address_.clear();
    lost_ = false;
}

QString Wire::open(const QString& given)
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
        connect(socket, &QTcpSocket::disconnected, this, &Wire::lose);
        connect(socket, &QTcpSocket::errorOccurred, this, &Wire::lose);
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
    ticker_.start();
    return {};
}

void Wire::write(const QByteArray& bytes)
{
    if (device_ && !lost_)
        device_->write(bytes);
}

void Wire::lose()
{
    if (std::exchange(lost_, true))
        return;
    // Nobody listens to it any more: a line whose other end is gone stays ready to be read for ever.
    ticker_.stop();
    device_->disconnect(this);
    QMetaObject::invokeMethod(device_, &QIODevice::close, Qt::QueuedConnection);
    emit lost();
}

void Wire::take()
{
    if (device_ && !lost_) {
        // A serial port does not always say that it is gone.
        if (auto* serial = qobject_cast<QSerialPort*>(device_); serial && hasHungUp(*serial)) {
            lose();
            return;
        }
        const auto bytes = device_->read(mostBytes);
        if (!bytes.isEmpty())
            emit came(bytes, bytes.count('\n') > mostLines || bytes.size() == mostBytes);
    }
    emit polled();
}

} // namespace deepstop::app
