#include "report/duty_log.hpp"

#include "files/refusal.hpp"
#include "files/speed_log.hpp"
#include "language/language.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>

namespace deepstop::report {

DutyPlan planOf(const heat::Duty& duty, std::string id, std::string name)
{
    constexpr std::size_t most = 2000;
    if (duty.phases.size() > most)
        throw files::Refusal(tr("{} brakings and stretches between them are more than the {} a duty can have: cut the log to one session.",
            duty.phases.size(), most));
    DutyPlan plan;
    plan.id = std::move(id);
    plan.name = std::move(name);
    const auto read = [](double value) { return Reading { value, {}, Known::Measured, "logger", {} }; };
    for (const heat::Phase& p : duty.phases) {
        Leg leg;
        if (plan.legs.empty())
            leg.from = read(p.from);
        leg.to = read(p.to);
        leg.time = read(p.duration);
        if (p.slope != 0)
            leg.slope = read(p.slope);
        leg.braking = p.braking ? YesNo::Yes : YesNo::No;
        plan.legs.push_back(std::move(leg));
    }
    return plan;
}

heat::Duty driveIn(const std::string& path, const std::optional<files::LogColumns>& columns, const std::function<bool(double)>& progress)
{
    std::vector<heat::Driven> drive;
    try {
        for (const auto& each : files::speedLogIn(path, columns, progress))
            drive.push_back({ each.time, each.speed, each.height });
    } catch (const files::Refusal& refusal) {
        const std::string why = refusal.what();
        throw files::Refusal(why.starts_with(path) ? why : path + ": " + why);
    }
    heat::Duty duty = heat::drivenDuty(drive);
    if (heat::stopsIn(duty) == 0)
        throw files::Refusal(tr("{}: no braking is in it.", path));
    return duty;
}

DutyPlan dutyOutOfLog(const std::string& path, const std::optional<files::LogColumns>& columns, const std::function<bool(double)>& progress)
{
    return planOf(driveIn(path, columns, progress), {}, std::filesystem::path(path).stem().string());
}

Edit withDuty(DutyPlan plan)
{
    return [plan = std::move(plan)](Build build) {
        auto own = plan;
        for (int n = 1; own.id.empty() || std::ranges::find(build.duties, own.id, &DutyPlan::id) != build.duties.end(); ++n)
            own.id = n == 1 ? "log" : fmt::format("log-{}", n);
        build.car.duty = own.id;
        build.duties.push_back(std::move(own));
        return build;
    };
}

} // namespace deepstop::report
