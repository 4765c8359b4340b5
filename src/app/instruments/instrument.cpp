#include "instruments/instrument.hpp"

#include <cmath>

namespace deepstop::app {
namespace {

constexpr qint64 fresh = 1500; ///< ms a reading stays good
constexpr qint64 floodPause = 2000; ///< ms of quiet after a flood before readings count again
constexpr std::size_t agreeing = 3;

} // namespace

Instrument::Instrument(QObject* parent) : QObject(parent)
{
    connect(&wire_, &Wire::came, this, &Instrument::take);
    connect(&wire_, &Wire::lost, this, [this] {
        last_.reset();
        recent_.clear();
        emit changed();
    });
    connect(&wire_, &Wire::polled, this, [this] {
        if (const State now = state(); now != shown_ || now == State::Moving || now == State::Stable) {
            shown_ = now;
            emit changed();
        }
    });
}

Instrument::~Instrument() { close(); }

void Instrument::close()
{
    wire_.close();
    last_.reset();
    recent_.clear();
    reader_ = {};
    flooded_.invalidate();
    emit changed();
}

QString Instrument::open(const QString& address)
{
    close();
    const QString why = wire_.open(address);
    if (why.isEmpty()) {
        since_.start();
        emit changed();
    }
    return why;
}

void Instrument::take(const QByteArray& bytes, bool flood)
{
    const std::string_view text(bytes.constData(), static_cast<std::size_t>(bytes.size()));
    if (flood) {
        flooded_.start();
        recent_.clear();
        last_.reset();
        (void)reader_.take(text);
        return;
    }
    for (const auto& indication : reader_.take(text)) {
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

Instrument::State Instrument::state() const
{
    if (!wire_.isOpen())
        return State::Absent;
    if (wire_.isLost())
        return State::Lost;
    if (flooded_.isValid() && flooded_.elapsed() < floodPause)
        return State::Flooding;
    if (!last_ || since_.elapsed() > fresh)
        return State::Silent;
    return steady() ? State::Stable : State::Moving;
}

std::optional<instruments::Indication> Instrument::steady() const
{
    if (wire_.isLost() || !last_ || recent_.size() < agreeing || since_.elapsed() > fresh
        || (flooded_.isValid() && flooded_.elapsed() < floodPause))
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
    wire_.write("taken\n");
}

} // namespace deepstop::app
