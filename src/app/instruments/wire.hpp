#pragma once
/// A serial line or a TCP port of this machine that something sends on. Whatever comes, the window goes on.

#include <QByteArray>
#include <QIODevice>
#include <QObject>
#include <QStringList>
#include <QTimer>

namespace deepstop::app {

class Wire : public QObject {
    Q_OBJECT
public:
    explicit Wire(QObject* parent = nullptr);
    ~Wire() override;

    /// Opens "/dev/ttyUSB0" or another serial port, or "127.0.0.1:7201"; nothing beyond this machine. The reason where it cannot; opening
    /// a TCP address goes on in the background and may still be `lost`.
    QString open(const QString& address);
    void close();
    void write(const QByteArray& bytes);
    [[nodiscard]] QString address() const { return address_; }
    [[nodiscard]] bool isOpen() const { return device_ != nullptr; }
    [[nodiscard]] bool isLost() const { return lost_; }
    /// Serial ports of this machine.
    [[nodiscard]] static QStringList ports();

signals:
    /// @param flood more than anything that measures sends: what still waits is old, and nothing of it counts
    void came(const QByteArray& bytes, bool flood);
    /// The other end is gone.
    void lost();
    /// A look at the line is over, whether anything came or not.
    void polled();

private:
    void take();
    void lose();

    QString address_;
    QIODevice* device_ = nullptr;
    QTimer ticker_;
    bool lost_ = false;
};

} // namespace deepstop::app
