#include "stages/jobcard/bedding_view.hpp"

#include "theme.hpp"

#include <cmath>

namespace deepstop::app {

using Task = jobcard::BeddingDrive::Task;

BeddingView::BeddingView(QWidget* parent) : ReceiverView(parent), drive_(plan_)
{
    setObjectName(QStringLiteral("bedding"));
    begin();
}

void BeddingView::begin()
{
    drive_ = jobcard::BeddingDrive(plan_);
    told_ = false;
    record(0, [](const proving::FoundStop&) {});
    recorder().onMoment([this](const proving::Speed& moment) {
        drive_.take(moment.time, moment.speed);
        if (drive_.task() == Task::Done && !plan_.passes.empty() && !told_) {
            told_ = true;
            emit bedded(drive_.stoodHot());
        }
    });
}

void BeddingView::setPlan(const jobcard::BeddingPlan& plan, UnitSystem units)
{
    units_ = units;
    if (!isOpen()) {
        plan_ = plan;
        begin();
    }
    update();
}

QStringList BeddingView::words() const
{
    const auto v = [&](double speed) { return QString::fromStdString(print(speed, style::speed, units_)); };
    QStringList all { speedWords() };
    const int passes = static_cast<int>(plan_.passes.size());
    const int next = std::min(drive_.counted(), passes - 1);
    const auto* pass = next >= 0 ? &plan_.passes[static_cast<std::size_t>(next)] : nullptr;
    const int left = static_cast<int>(std::ceil(drive_.left()));
    const auto clock = QStringLiteral("%1:%2").arg(left / 60).arg(left % 60, 2, 10, QLatin1Char('0'));
    QString task;
    switch (drive_.task()) {
    case Task::SpeedUp:
        task = pass ? tr("to %1").arg(v(pass->from)) : QString();
        break;
    case Task::SlowDown:
        task = tr("slow down to %1").arg(v(pass->to));
        break;
    case Task::Braking:
        task = tr("until %1, then off the pedal").arg(v(pass->to));
        break;
    case Task::DriveOn:
        task = tr("drive on %1").arg(clock);
        break;
    case Task::Cool:
        task = tr("cool them: %1 without the brakes").arg(clock);
        break;
    case Task::Done:
        task = passes > 0 ? tr("bedded in") : tr("this procedure is not counted");
        break;
    }
    const auto wrong = trouble();
    all << (wrong.isEmpty() ? task : wrong);
    all << (passes == 0 ? tr("it is no drive of slow-downs: see the card")
            : !drive_.notCounted().empty()
            ? tr("%1 of %2; the last does not count: %3").arg(drive_.counted()).arg(passes).arg(QString::fromStdString(drive_.notCounted()))
            : tr("%1 of %2 slow-downs").arg(drive_.counted()).arg(passes));
    if (drive_.stoodHot() > 0)
        all << tr("it stood while hot: %1 times. Never hold the pedal then").arg(drive_.stoodHot());
    else if (!plan_.warning.empty())
        all << tr("heat model: %1. Ask the pads' maker first").arg(QString::fromStdString(plan_.warning));
    else if (pass)
        all << (std::isfinite(pass->hottest)
                ? tr("from %1 to %2, about %3 on the faces")
                      .arg(v(pass->from), v(pass->to), QString::fromStdString(print(pass->hottest, style::temperature, units_)))
                : tr("from %1 to %2").arg(v(pass->from), v(pass->to)));
    else
        all << QString();
    return all;
}

QColor BeddingView::colourNow() const
{
    const auto task = drive_.task();
    return drive_.stoodHot() > 0 && task == Task::DriveOn ? theme().caution
        : task == Task::SlowDown || task == Task::Done    ? theme().good
                                                          : theme().ink;
}

QString BeddingView::caution() const
{
    return tr("Only where it is legal and nobody is behind; stop at a soft or long pedal. The driver drives: somebody else reads this.");
}

} // namespace deepstop::app
