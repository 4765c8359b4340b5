#pragma once
/// A measuring instrument on a serial line or a local TCP port. Whatever it sends, the window goes on and no wrong value comes in.

#include "instruments/indication.hpp"
#include "instruments/wire.hpp"

#include <QElapsedTimer>
#include <QObject>

#include <deque>

namespace deepstop::app {

class Instrument : public QObject {
    Q_OBJECT
public:
    enum class State { Absent, Silent, Moving, Stable, Flooding, Lost };

    explicit Instrument(QObject* parent = nullptr);
    ~Instrument() override;

    /// Opens "/dev/ttyUSB0" or another serial port, or "127.0.0.1:7201"; nothing beyond this machine. The reason where it cannot; opening
    /// a TCP address goes on in the background and may still end in `Lost`.
    QString open(const QString& address);
    void close();

    [[nodiscard]] QString address() const { return wire_.address(); }
    [[nodiscard]] State state() const;
    /// What it last showed, for looking at.
    [[nodiscard]] const std::optional<instruments::Indication>& last() const { return last_; }
    /// A reading to be taken: it says itself that it is stable, the last three agree, and it is fresh. Nothing otherwise.
    [[nodiscard]] std::optional<instruments::Indication> steady() const;
    /// Lines that were no readings, so far.
    [[nodiscard]] quint64 refusedLines() const { return reader_.refused(); }
    /// Tells the instrument that its reading was taken; those that do not care ignore it.
    void saidTaken();
    /// Serial ports of this machine.
    [[nodiscard]] static QStringList ports() { return Wire::ports(); }

signals:
    void changed();
    void indicated(const deepstop::instruments::Indication& indication);

private:
    void take(const QByteArray& bytes, bool flood);

    Wire wire_;
    instruments::LineReader reader_;
    std::optional<instruments::Indication> last_;
    std::deque<instruments::Indication> recent_;
    QElapsedTimer since_;
    QElapsedTimer flooded_;
    State shown_ = State::Absent;
};

} // namespace deepstop::app
