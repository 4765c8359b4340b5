#include "report/heat.hpp"

#include "build/words.hpp"
#include "files/csv.hpp"
#include "language/language.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace deepstop::report {
namespace {

constexpr double zeroCelsius = 273.15;
constexpr std::array shownNodes { heat::Node::Ring, heat::Node::Surface, heat::Node::Hat, heat::Node::Lining, heat::Node::Caliper,
    heat::Node::Fluid };

const heat::Temperatures& onAxle(const heat::Moment& m, Axle axle) { return axle == Axle::Front ? m.front : m.rear; }

} // namespace

std::string heatSheet(const Study& study, const heat::Duty& duty, const std::vector<DutyRun>& runs)
{
    // A segment without its time or speed leaves the length of all of it unknown.
    const double length = heat::durationOf(duty);
    const double road = heat::distanceOf(duty);
    std::string out = tr("{}: {}, {}, {}, {} brakings\n", study.build->car.name, duty.name,
        std::isfinite(length) ? fmt::format("{:.0f} s", length) : std::string(tr("duration not known")),
        std::isfinite(road) ? print(road, style::road, study.system) : std::string(tr("distance not known")), heat::stopsIn(duty));
    const auto hot = [&](double kelvin) { return print(kelvin, style::temperature, study.system); };
    for (const auto& [setup, heat] : runs) {
        out += fmt::format("\n{}\n", setup->name);
        if (!heat.run || !heat.run->complete) {
            out += tr(
                "  not known: {}\n", (heat.known.lacks.empty() ? std::string(tr("this duty cannot be run")) : lacking(study, heat.known)));
            continue;
        }
        const HeatLimit& first = heat.limits.front();
        const auto fails = firstFailure(heat, heat::stopsIn(duty));
        out += fails ? tr("  first limit reached: {}\n", fails->words()) : std::string(tr("  no limit reached\n"));
        out += first.stop ? tr("  {} after {:.0f} s, {} of {}\n", first.what, first.time, hot(first.peak), hot(first.limit))
                          : tr("  nearest: {}, {} of {}, at worst {} more\n", first.what, hot(first.peak), hot(first.limit),
                              print(first.unsure, style::rise, study.system));
        if (heat.tyresFail)
            out += tr("  from braking {} it asks for more than the tyres hold\n", *heat.tyresFail);
        if (heat.footFails)
            out += tr("  from braking {} the driver's largest pedal force is no longer enough\n", *heat.footFails);
        else if (std::isfinite(heat.hardestFoot))
            out += tr("  the foot presses {} at most\n", print(heat.hardestFoot, style::force, study.system));
        for (const Axle axle : { Axle::Front, Axle::Rear }) {
            const auto& peak = axle == Axle::Front ? heat.run->frontPeak : heat.run->rearPeak;
            out += tr("  {} peaks:", tr(wordOf(axle)));
            for (const auto node : shownNodes)
                out += fmt::format(" {} {}", tr(nameOf(node)), hot(peak[static_cast<std::size_t>(node)]));
            out += "\n";
        }
        if (const auto red = glow(heat.hottestRing); !red.empty())
            out += tr("  the ring glows {}\n", red);
        out += tr("  temperature rises ±{:.0f} %{}\n", 100 * heat.mostUnsure(),
            heat.mostUnsure() > 0.2 ? tr(" until a thermometer has set the cooling") : "");
    }
    out +=
        tr("\nThis program advises; it approves nothing. Hot brakes lose their bite without a word: closed place, stop at the first soft "
           "or long "
           "pedal, smell or smoke.\n");
    return out;
}

std::string heatCsv(const std::vector<DutyRun>& runs)
{
    std::string out = "time_s,distance_m,speed_mps";
    std::vector<const DutyRun*> ran;
    for (const DutyRun& each : runs)
        if (each.heat.run && each.heat.run->complete)
            ran.push_back(&each);
    for (const DutyRun* each : ran)
        for (const Axle axle : { Axle::Front, Axle::Rear }) {
            const std::string name = each->setup->id + (axle == Axle::Front ? ".front." : ".rear.");
            out += "," + files::csvField(name + "power_W");
            for (const auto node : shownNodes)
                out += "," + files::csvField(name + std::string(nameOf(node)) + "_degC");
        }
    out += "\n";
    if (ran.empty())
        return out;
    for (const heat::Moment& at : ran.front()->heat.run->course) {
        out += fmt::format("{:.6g},{:.7g},{:.6g}", at.time, at.distance, at.speed);
        for (const DutyRun* each : ran) {
            const heat::Moment m = each == ran.front() ? at : heat::momentAt(*each->heat.run, at.time);
            for (const Axle axle : { Axle::Front, Axle::Rear }) {
                out += fmt::format(",{:.6g}", m.power * (axle == Axle::Front ? m.frontShare : 1 - m.frontShare) / 2);
                for (const auto node : shownNodes)
                    out += fmt::format(",{:.6g}", onAxle(m, axle)[static_cast<std::size_t>(node)] - zeroCelsius);
            }
        }
        out += "\n";
    }
    return out;
}

} // namespace deepstop::report
