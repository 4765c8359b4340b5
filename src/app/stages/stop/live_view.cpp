#include "stages/stop/live_view.hpp"

#include "report/log_session.hpp"
#include "theme.hpp"

#include <cmath>

namespace deepstop::app {

LiveView::LiveView(QWidget* parent) : ReceiverView(parent)
{
    setObjectName(QStringLiteral("live"));
    begin();
}

void LiveView::begin()
{
    record(speed_, [this](const proving::FoundStop& stop) { emit found(stop); });
}

void LiveView::setPlan(double speed, double cooling, UnitSystem units)
{
    const bool other = speed != speed_ && !(std::isnan(speed) && std::isnan(speed_));
    speed_ = speed;
    cooling_ = cooling;
    units_ = units;
    if (other && !isOpen())
        begin();
    update();
}

QStringList LiveView::words() const
{
    QStringList all { speedWords() };
    const auto wrong = trouble();
    all << (wrong.isEmpty() ? QString::fromUtf8(deepstop::tr(proving::nameOf(recorder().stateAt(now()))).data()) : wrong);
    if (const auto& last = recorder().last())
        all << (last->good()
                ? tr("stop %1: %2 from %3")
                      .arg(recorder().found())
                      .arg(QString::fromStdString(print(last->distance, style::road, units_)),
                          QString::fromStdString(print(last->speed, style::speed, units_)))
                : tr("stop %1 does not count: %2").arg(recorder().found()).arg(QString::fromStdString(report::qualityOf(*last))));
    else
        all << tr("no stop yet");
    if (const auto at = recorder().lastAt(); at && std::isfinite(cooling_)) {
        const int left = static_cast<int>(std::ceil(cooling_ - (now() - *at)));
        all << (left > 0 ? tr("next stop in %1:%2, driving").arg(left / 60).arg(left % 60, 2, 10, QLatin1Char('0'))
                         : tr("cool enough for the next"));
    } else {
        all << tr("from %1 at the mark").arg(QString::fromStdString(print(speed_, style::speed, units_)));
    }
    return all;
}

QColor LiveView::colourNow() const { return recorder().stateAt(now()) == proving::LiveRecorder::State::Ready ? theme().good : theme().ink; }

QString LiveView::caution() const
{
    return tr("Closed road, nobody behind, run-out of twice the stop. The driver drives: somebody else reads this.");
}

} // namespace deepstop::app
