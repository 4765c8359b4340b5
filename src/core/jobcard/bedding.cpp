#include "jobcard/bedding.hpp"

#include "chapters/heat/duty_heat.hpp"
#include "language/language.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

namespace deepstop::jobcard {
namespace {

constexpr double unknown = std::numeric_limits<double>::quiet_NaN();
constexpr double kmh = 1 / 3.6;
constexpr double gathers = 2; // m/s², back to speed
constexpr double cold = 373.15; // K
constexpr double minute = 60;
/// The model's rises may be off by so much while no thermometer has set it: so much longer is driven on.
constexpr double modelOff = 1.3;

/// Slow-downs as the procedures have them; common practice.
void addPasses(BeddingPlan& plan, int count, double from, double to, double deceleration, double apart)
{
    const double braking = (from - to) * kmh / deceleration;
    for (int i = 0; i < count; ++i)
        plan.passes.push_back({ from * kmh, to * kmh, deceleration, std::max(0.0, apart - braking), unknown });
}

double gatheringTime(const SlowDown& pass, double from) { return std::max(0.0, pass.from - from) / gathers; }

/// The plan as a duty, driven on for `longer` times as long between the slow-downs.
heat::Duty dutyOf(const BeddingPlan& plan, double longer)
{
    heat::Duty duty { "bedding", "", {}, 0, 0 };
    double speed = 0;
    int stop = 0;
    for (const SlowDown& pass : plan.passes) {
        duty.phases.push_back({ speed, pass.from, std::max(1.0, gatheringTime(pass, speed)), false, 0, stop });
        duty.phases.push_back({ pass.from, pass.to, (pass.from - pass.to) / pass.deceleration, true, 0, ++stop });
        const double held = longer * pass.driveOn - gatheringTime(pass, pass.to);
        if (held > 0.5)
            duty.phases.push_back({ pass.to, pass.to, held, false, 0, stop });
        speed = pass.to;
    }
    constexpr double longest = 2400;
    duty.phases.push_back({ speed, plan.coolSpeed, 5, false, 0, stop });
    duty.phases.push_back({ plan.coolSpeed, plan.coolSpeed, longest, false, 0, stop });
    return duty;
}

/// Whether the slow-downs ask more than fluid, or on the road pads, bear; the words for it.
std::string givesUp(const BeddingPlan& plan, const DutyHeat& heat)
{
    for (const HeatLimit& limit : heat.limits) {
        // Pads for the track are meant to smoke once: only what they boil counts there.
        const bool counts =
            limit.node == heat::Node::Fluid || (limit.node == heat::Node::Surface && plan.procedure != Bedding::WarmThenHard);
        if (limit.critical && limit.stop && counts)
            return tr("{} at slow-down {}", limit.what, *limit.stop);
    }
    return {};
}

/// Seconds from the last slow-down until the hotter faces are cold, by that run; nothing where they are not by its end.
std::optional<double> coolingIn(const heat::Run& run, int last)
{
    constexpr auto surface = static_cast<std::size_t>(heat::Node::Surface);
    double ended = 0;
    for (const heat::Moment& m : run.course) {
        if (m.power > 0 && m.stop >= 1 && m.stop <= last)
            ended = m.time;
        else if (m.time > ended && ended > 0 && m.stop == last && std::max(m.front[surface], m.rear[surface]) < cold)
            return m.time - ended;
    }
    return {};
}

/// The same brakes with pads that never lose their friction: what is put into the rings does not fall with the pads.
struct TirelessPads {
    std::optional<Corner> front;
    std::optional<Corner> rear;
    SetupParts parts;

    explicit TirelessPads(const SetupParts& own) : front(*own.front.corner), rear(*own.rear.corner), parts(own)
    {
        const auto level = [](double temperature) {
            return FrictionPoint { { temperature, 0.0, Known::Vendor, {}, {} }, { 1.0, 0.0, Known::Vendor, {}, {} }, {} };
        };
        for (Corner* corner : { &*front, &*rear }) {
            auto& curve = corner->brakes == BrakeKind::Drums ? corner->drum.frictionOverTemperature : corner->pad.frictionOverTemperature;
            const double quoted =
                (corner->brakes == BrakeKind::Drums ? corner->drum.friction : corner->pad.friction).value.value_or(unknown);
            curve = { level(273.15), level(1473.15) };
            for (FrictionPoint& point : curve)
                point.friction.value = quoted;
        }
        parts.front.corner = &*front;
        parts.rear.corner = &*rear;
    }
    TirelessPads(const TirelessPads&) = delete;
    TirelessPads& operator=(const TirelessPads&) = delete;
};

/// Drives on for longer until no limit is reached, and says how hot it gets and how long it has to cool. Where no drive helps, the
/// procedure's own schedule stands, with its own figures and the warning.
void heatPlan(BeddingPlan& plan, const Study& study)
{
    if (!study.after.complete()) {
        plan.lacks = tr("brakes of both axles");
        return;
    }
    const auto runOf = [&](double longer) { return dutyHeatOf(*study.build, study.after, dutyOf(plan, longer)); };
    const DutyHeat asSaid = runOf(1);
    if (!asSaid.run || !asSaid.run->complete) {
        plan.lacks = asSaid.known.lacks.empty() ? tr("a run of the heat model") : lacking(study, asSaid.known);
        return;
    }
    DutyHeat heat = asSaid;
    plan.warning = givesUp(plan, asSaid);
    constexpr int attempts = 3;
    double longer = 1;
    for (int attempt = 0; attempt < attempts && !plan.warning.empty(); ++attempt) {
        longer *= 1.6;
        heat = runOf(longer);
        if (!heat.run || !heat.run->complete)
            break;
        if (givesUp(plan, heat).empty()) {
            plan.warning.clear();
            plan.stretched = true;
        }
    }
    if (!plan.stretched)
        heat = asSaid;
    for (SlowDown& pass : plan.passes)
        pass.driveOn *= plan.stretched ? longer : 1;
    for (const heat::Moment& m : heat.run->course)
        if (m.power > 0 && m.stop >= 1 && m.stop <= static_cast<int>(plan.passes.size())) {
            double& hottest = plan.passes[static_cast<std::size_t>(m.stop) - 1].hottest;
            constexpr auto surface = static_cast<std::size_t>(heat::Node::Surface);
            hottest = std::fmax(hottest, std::max(m.front[surface], m.rear[surface]));
        }
    // Neither pads that fade nor longer times between shorten the cooling; the procedure's own time is the least.
    const TirelessPads tireless(study.after);
    auto asked = plan;
    for (SlowDown& pass : asked.passes)
        pass.driveOn /= plan.stretched ? longer : 1;
    const DutyHeat hottest = dutyHeatOf(*study.build, tireless.parts, dutyOf(asked, 1));
    if (hottest.run && hottest.run->complete)
        if (const auto cooling = coolingIn(*hottest.run, static_cast<int>(plan.passes.size()))) {
            plan.coolFor = std::max(plan.coolFor, modelOff * *cooling);
            plan.coolByModel = true;
        }
}

} // namespace

BeddingPlan beddingPlanOf(const Study& study, const JobCard& choices)
{
    BeddingPlan plan;
    plan.procedure = choices.bedding;
    plan.coolSpeed = 60 * kmh;
    switch (choices.bedding) {
    case Bedding::Unknown:
    case Bedding::SlowDowns:
        addPasses(plan, 10, 97, 48, 4, minute);
        plan.coolFor = 10 * minute;
        break;
    case Bedding::WarmThenHard:
        addPasses(plan, 5, 80, 40, 2.5, 30);
        addPasses(plan, 8, 110, 40, 6, 0);
        plan.coolFor = 15 * minute;
        break;
    case Bedding::Street:
    case Bedding::Maker:
        return plan;
    }
    heatPlan(plan, study);
    return plan;
}

std::optional<Edit> beddedIn(const Study& study, const Author& hand, int stoodHot)
{
    if (!study.after.setup)
        return {};
    const auto note = stoodHot > 0 ? tr("guided drive; it stood {} times while hot", stoodHot) : std::string(tr("guided drive"));
    const Card card = cardOf(study);
    if (std::ranges::find(card.steps, Phase::BedIn, &Step::phase) == card.steps.end())
        return {};
    std::vector<std::string> steps;
    for (const Step& step : card.steps)
        if (step.phase == Phase::BedIn)
            steps.push_back(step.id);
    LogEntry entry;
    entry.date = hand.when.substr(0, std::string_view("2026-01-01").size());
    entry.event = LogEvent::Bedded;
    entry.setup = study.after.setup->id;
    entry.note = note;
    return
        [setup = card.setup->id, steps = std::move(steps), entry = std::move(entry), hand, note](const Build& now) -> std::optional<Build> {
            if (!findSetup(now, setup))
                return {};
            Build build = now;
            for (const auto& step : steps)
                tickIn(recordOf(build, setup), step, Checked::Fine, hand, note);
            build.log.push_back(entry);
            return build;
        };
}

void BeddingDrive::take(double time, double speed)
{
    if (!std::isfinite(time) || !std::isfinite(speed) || (!last_.empty() && time <= last_.back().first))
        return;
    // Over a gap nothing is told: a slow-down with one in it does not count.
    constexpr double gap = 1.5;
    if (!last_.empty() && time - last_.back().first > gap) {
        last_.clear();
        top_.reset();
    }
    now_ = time;
    speed_ = speed;
    last_.emplace_back(time, speed);
    constexpr double kept = 1;
    while (last_.back().first - last_.front().first > kept)
        last_.pop_front();
    constexpr double standsUnder = 0.6;
    const bool stands = speed < standsUnder;
    if (stands && !stands_ && counted_ > 0 && left() > 0)
        ++stoodHot_;
    stands_ = stands;
    if (counted_ >= static_cast<int>(plan_.passes.size()))
        return;
    // Braking is slowing by more than an engine does.
    constexpr double brakes = 1.2;
    const auto& [then, was] = last_.front();
    const double slowing = time - then > 0.3 ? (was - speed) / (time - then) : 0;
    if (!top_) {
        if (slowing > brakes)
            top_ = *std::ranges::max_element(last_, {}, &std::pair<double, double>::second);
    } else if (slowing < brakes / 2) {
        ended();
        top_.reset();
    }
}

void BeddingDrive::ended()
{
    const SlowDown& wanted = plan_.passes[static_cast<std::size_t>(counted_)];
    const auto lowest = *std::ranges::min_element(last_, {}, &std::pair<double, double>::second);
    const double fell = top_->second - lowest.second;
    constexpr double little = 3; // m/s: traffic
    if (fell < little)
        return;
    constexpr double nearly = 0.93;
    constexpr double firm = 0.6;
    const double rested = restFrom_ < 0 ? INFINITY : top_->first - restFrom_;
    if (top_->second < nearly * wanted.from)
        notCounted_ = tr("it began too slow");
    else if (lowest.second > wanted.to / nearly)
        notCounted_ = tr("it ended too fast");
    else if (lowest.second < 1)
        notCounted_ = tr("the car came to a stand");
    else if (fell / std::max(0.1, lowest.first - top_->first) < firm * wanted.deceleration)
        notCounted_ = tr("it was too gentle");
    // Too early it heats as it was not meant to: the next waits for longer.
    else if (counted_ > 0 && rested < nearly * plan_.passes[static_cast<std::size_t>(counted_) - 1].driveOn)
        notCounted_ = tr("it came before the brakes had cooled");
    else {
        notCounted_.clear();
        ++counted_;
    }
    restFrom_ = lowest.first;
}

double BeddingDrive::left() const
{
    if (restFrom_ < 0 || counted_ == 0)
        return 0;
    const bool all = counted_ == static_cast<int>(plan_.passes.size());
    const double wanted = all ? plan_.coolFor : plan_.passes[static_cast<std::size_t>(counted_) - 1].driveOn;
    return std::max(0.0, restFrom_ + wanted - now_);
}

BeddingDrive::Task BeddingDrive::task() const
{
    if (counted_ == static_cast<int>(plan_.passes.size()))
        return left() > 0 ? Task::Cool : Task::Done;
    if (top_)
        return Task::Braking;
    const SlowDown& next = plan_.passes[static_cast<std::size_t>(counted_)];
    // Time to gather speed is part of the time between two.
    if (left() > std::max(0.0, next.from - speed_) / gathers)
        return Task::DriveOn;
    constexpr double nearly = 0.97;
    return speed_ < nearly * next.from ? Task::SpeedUp : left() > 0 ? Task::DriveOn : Task::SlowDown;
}

} // namespace deepstop::jobcard
