#include "report/balance.hpp"

#include "chapters/balance/balance_chapter.hpp"
#include "files/csv.hpp"
#include "language/language.hpp"

#include <fmt/format.h>

#include <array>
#include <cmath>

namespace deepstop::report {
namespace {

constexpr std::array asked { 0.3, 0.6, 0.9 };

/// Both setups where there are two, the one that was there first.
std::vector<std::pair<const Setup*, const SetupBalance*>> setupsOf(const Study& study)
{
    const Balance& balance = study.of<Balance>();
    std::vector<std::pair<const Setup*, const SetupBalance*>> setups;
    if (study.before.setup != study.after.setup)
        setups.emplace_back(study.before.setup, &balance.before);
    setups.emplace_back(study.after.setup, &balance.after);
    return setups;
}

std::string locked(const Study& study, const std::optional<BalancePoint>& point)
{
    return point ? tr("locks at {}", print(point->deceleration * standardGravity, style::deceleration, study.system)) : tr("never locks");
}

std::string field(double value) { return std::isfinite(value) ? fmt::format("{:.9g}", value) : std::string(); }

} // namespace

std::vector<std::string> loadNames(const Study& study)
{
    std::vector<std::string> names;
    for (const LoadBalance& each : study.of<Balance>().after.loads)
        names.push_back(each.name);
    return names;
}

std::string balanceSheet(const Study& study, const std::string& load)
{
    std::string out = tr("{}: balance of {} against {}\n\n", study.build->car.name, study.after.setup->name, study.before.setup->name);
    for (const Verdict& v : study.verdicts) {
        if (v.chapter != "balance")
            continue;
        out += fmt::format("  {:<9} {}. {}.\n", tr(nameOf(v.level)), v.title, v.reason);
        for (const Remedy& r : v.remedies) {
            std::string costs;
            for (const auto& cost : r.costs)
                costs += "; " + cost;
            out += tr("            would mend it: {}{}\n", r.title, costs);
        }
    }
    for (const auto& [setup, balance] : setupsOf(study))
        for (const LoadBalance& each : balance->loads) {
            if (!load.empty() && each.name != load)
                continue;
            out += fmt::format("\n{}, {}\n", setup->name, each.name);
            if (each.curve.empty()) {
                out += tr("  not known\n");
                continue;
            }
            out += tr("  the front {}, the rear {}; when the first does, the rear uses {} of its grip\n", locked(study, each.frontLocks),
                locked(study, each.rearLocks), print(each.rearUse, style::share, study.system));
            for (const double z : asked) {
                if (each.curve.back().deceleration < z)
                    continue;
                const BalancePoint p = pointAt(each, z);
                out += tr("  {}: front {} of the braking, {} in the front line and {} at the rear",
                    print(z * standardGravity, style::deceleration, study.system),
                    print(p.front / (p.front + p.rear), style::share, study.system), print(p.frontPressure, style::pressure, study.system),
                    print(p.rearPressure, style::pressure, study.system));
                if (std::isfinite(p.pedalForce))
                    out += tr(", {} on the pedal", print(p.pedalForce, style::force, study.system));
                if (std::isfinite(p.pedalTravel))
                    out += tr(", {} down", print(p.pedalTravel, style::frame, study.system));
                out += "\n";
            }
        }
    out += tr(
        "\nThis program advises; it approves nothing. Set the balance on a closed place, from low speeds first; what the law and the maker "
        "ask comes first.\n");
    return out;
}

std::string balanceCsv(const Study& study, const std::string& load)
{
    std::string out = "setup,load,deceleration_g,front_pressure_Pa,rear_pressure_Pa,front_force_over_weight,rear_force_over_weight,"
                      "front_adhesion,rear_adhesion,ideal_front_share,pedal_force_N,pedal_travel_m,stroke_share\n";
    for (const auto& [setup, balance] : setupsOf(study))
        for (const LoadBalance& each : balance->loads) {
            if (!load.empty() && each.name != load)
                continue;
            for (const BalancePoint& p : each.curve) {
                out += files::csvField(setup->id) + "," + files::csvField(each.name);
                for (const double value : { p.deceleration, p.frontPressure, p.rearPressure, p.front, p.rear, p.frontAdhesion,
                         p.rearAdhesion, stopping::idealFrontShare(*each.car, p.deceleration), p.pedalForce, p.pedalTravel, p.strokeShare })
                    out += "," + field(value);
                out += "\n";
            }
        }
    return out;
}

} // namespace deepstop::report
