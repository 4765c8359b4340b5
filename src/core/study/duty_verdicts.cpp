#include "heat/heat.hpp"
#include "materials/materials.hpp"
#include "study/figures.hpp"
#include "study/judge.hpp"
#include "study/parts.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace deepstop::parts {
namespace {

/// A ring that warms by more than this in one stop has no reserve for a second; common practice, no source.
constexpr double largeRise = 300;

constexpr std::string_view closedRoad =
    "Try brakes only on a closed place with no one behind and run-out of twice the distance; stop at the first leak, soft pedal or pull.";

} // namespace

std::string percentChange(double after, double before)
{
    const auto text = figure(after / before - 1, style::share, UnitSystem::Metric);
    return (text.starts_with("\u2212") || text == "0" ? text : "+" + text) + " %";
}

std::string wordFor(Axle axle) { return axle == Axle::Front ? "front" : "rear"; }

std::vector<Axle> axlesOf(const Study& study)
{
    std::vector<Axle> axles;
    if (study.after.setup && study.after.setup->front)
        axles.push_back(Axle::Front);
    if (study.after.setup && study.after.setup->rear)
        axles.push_back(Axle::Rear);
    return axles.empty() ? std::vector { Axle::Front } : axles;
}

void addHeatVerdicts(Study& study, Axle axle)
{
    const CornerResult& after = study.after.at(axle);
    const CornerResult& before = study.before.at(axle);
    if (!after.corner)
        return;
    Verdict v;
    v.id = wordFor(axle) + "/stop-rise";
    v.stage = Stage::Heat;
    v.axle = axle;
    v.title = fmt::format("One stop into the {} rings", wordFor(axle));
    v.style = style::rise;
    v.figure = after.stopRise;
    if (after.corner->caliper.pistons.empty())
        v.lacksInWords.push_back("piston bores");
    v.method = fmt::format("Energy ½·m·v² × the axle's share of the braking ÷ 2 rings ÷ (ring mass × {:g} J/kgK). Only the friction ring "
                           "takes heat within one stop. "
                           "Air and rolling drag are left out, so the true rise is a little smaller.",
        figures::ringSolid(after.corner->rotor).specificHeat);
    v.source = "Conservation of energy; specific heat of the ring's material from memory; 300 K taken as large: common practice.";
    v.caution = "Hot rotors burn skin and crack in water. Let them cool by driving, not by standing on the pedal.";
    if (!v.figure.value) {
        v.reason = lacking(study, v.figure, v.lacksInWords);
    } else {
        const bool large = *v.figure.value > largeRise;
        v.level = large ? Level::Caution : v.figure.provisional() ? Level::Unproven : Level::Good;
        v.reason = fmt::format("{} from {}", printChange(*v.figure.value, style::rise, study.system),
            print(study.build->car.testSpeed.value.value_or(0), style::speed, study.system));
        if (before.stopRise.value && study.before.setup != study.after.setup)
            v.reason += fmt::format(", {} before", printChange(*before.stopRise.value, style::rise, study.system));
        if (large)
            v.reason += ": no reserve for a second stop";
        if (v.figure.provisional())
            v.reason += "; " + judge::estimatedIn(study, v.figure);
    }
    study.verdicts.push_back(v);

    if (after.corner->rotor.face == RotorFace::Drilled) {
        Verdict drilled;
        drilled.id = wordFor(axle) + "/drilled";
        drilled.stage = Stage::Heat;
        drilled.axle = axle;
        drilled.title = "Drilled faces";
        drilled.level = Level::Caution;
        drilled.reason = "Cracks start at the holes when run red hot: plain or slotted faces for track and mountain";
        drilled.source = "Common practice.";
        study.verdicts.push_back(std::move(drilled));
    }
}

void addStopVerdicts(Study& study)
{
    const auto& after = study.after;
    const auto& before = study.before;
    const bool compared = after.setup != before.setup;
    const Build& build = *study.build;

    Verdict limit;
    limit.id = "stop/limit";
    limit.stage = Stage::Stop;
    limit.title = "What limits the stop";
    limit.style = style::deceleration;
    limit.figure = after.deceleration;
    if (after.front.corner && after.rear.corner)
        for (const Corner* corner : { after.front.corner, after.rear.corner })
            if (corner->caliper.pistons.empty())
                limit.lacksInWords.push_back("piston bores");
    if (limit.figure.value)
        *limit.figure.value *= standardGravity, limit.figure.worstCase *= standardGravity, limit.figure.rootSumSquare *= standardGravity;
    limit.method =
        "Torque at a wheel 2·μ·p·A·r, A the pistons of one side, r the middle of the pad. Front load W·(share + z·h/L). Without antilock "
        "the "
        "driver holds the pressure at which the first axle locks; with it each axle takes what its load allows; never more than the "
        "pedal force presses.";
    limit.source = "Rigid-body load transfer and Coulomb friction, as in any vehicle-dynamics text.";
    limit.caution = closedRoad;
    if (!limit.figure.value) {
        limit.reason = lacking(study, limit.figure, limit.lacksInWords);
    } else if (after.braking) {
        const auto& b = *after.braking;
        const auto z = print(b.deceleration * standardGravity, style::deceleration, study.system);
        switch (b.limit) {
        case stopping::Limit::Tyres:
            limit.level = Level::Good;
            limit.reason = fmt::format("The tyres, at {}: no brake stops this car shorter", z);
            break;
        case stopping::Limit::FrontLocks:
            limit.level = b.rearUse < 0.8 ? Level::Caution : Level::Good;
            limit.reason = fmt::format(
                "The front tyres, at {}; the rear could give {} more of its own", z, print(1 - b.rearUse, style::share, study.system));
            break;
        case stopping::Limit::RearLocks:
            limit.level = Level::Stop;
            limit.reason = fmt::format("The rear locks first, at {}: the car turns round. Less rear brake, or a valve", z);
            break;
        case stopping::Limit::Pedal:
            limit.level = Level::Caution;
            limit.reason = fmt::format("The pedal: {} at full force, the tyres would hold more", z);
            break;
        }
        if (build.car.antilock == YesNo::Unknown)
            limit.reason += " (reckoned without antilock)";
        if (limit.figure.provisional() && !isBad(limit.level)) {
            limit.level = Level::Unproven;
            limit.reason += "; " + judge::estimatedIn(study, limit.figure);
        }
    }
    study.verdicts.push_back(limit);

    if (compared) {
        Verdict distance;
        distance.id = "stop/distance";
        distance.stage = Stage::Stop;
        distance.title = "Stopping distance";
        distance.style = style::road;
        distance.lacksInWords = limit.lacksInWords;
        if (before.front.corner && before.rear.corner && after.front.corner && after.rear.corner)
            distance.figure = evaluate([&](Sample& s) {
                return figures::stop(s, build, *after.front.corner, *after.rear.corner, false).distance
                    - figures::stop(s, build, *before.front.corner, *before.rear.corner, false).distance;
            });
        distance.method = "Each stop integrated over speed: brakes as limited above, air drag ½·ρ·CdA·v², half the build-up time at full "
                          "speed. The difference is "
                          "worked out as one sum, so that what both setups share cancels in its uncertainty.";
        distance.source = "Newton; integrator Dormand–Prince 5.";
        distance.caution = closedRoad;
        if (!distance.figure.value) {
            distance.reason = lacking(study, distance.figure, distance.lacksInWords);
        } else {
            const double change = *distance.figure.value;
            const double unsure = distance.figure.rootSumSquare;
            const auto by = print(std::abs(change), style::road, study.system);
            const auto width = print(unsure, style::road, study.system);
            if (std::abs(change) < 0.05) {
                distance.level = Level::Good;
                distance.reason = "One cold stop is as long as before: gains show hot, in pedal force and in control";
            } else if (change > 0) {
                distance.level = Level::Caution;
                distance.reason = fmt::format("{} longer than before (±{}{}): {} hold it now", by, width,
                    change < unsure ? ", so not certain" : "", nameOf(after.braking ? after.braking->limit : stopping::Limit::Pedal));
            } else {
                distance.level = Level::Good;
                distance.reason = fmt::format("{} shorter than before (±{}{})", by, width, -change < unsure ? ", so not certain" : "");
            }
            if (distance.figure.provisional() && distance.level != Level::Caution) {
                distance.level = Level::Unproven;
                distance.reason += "; " + judge::estimatedIn(study, distance.figure);
            }
        }
        study.verdicts.push_back(distance);
    }

    int number = 0;
    for (const TestSession& session : build.tests)
        for (const MeasuredStop& measured : session.stops) {
            Verdict v;
            v.id = fmt::format("stop/measured-{}", ++number);
            v.stage = Stage::Stop;
            v.title = fmt::format("Measured stop {}", number);
            v.style = style::deceleration;
            v.figure = evaluate(
                [&](Sample& s) { return stopping::judge(s(measured.speed, false), s(measured.distance, false), {}).meanDeceleration; });
            v.method = "Mean deceleration v²/(2·d), against the grip of the tyres.";
            v.source = "Kinematics.";
            v.lacksInWords = {};
            if (!v.figure.value) {
                v.reason = lacking(study, v.figure);
            } else {
                const auto g = print(*v.figure.value, style::deceleration, study.system);
                const auto said = stopping::judge(*measured.speed.value, *measured.distance.value, build.car.grip.value);
                const auto what = fmt::format("{} in {}", print(*measured.speed.value, style::speed, study.system),
                    print(*measured.distance.value, style::road, study.system));
                if (!said.plausible) {
                    v.reason = fmt::format("{} is {}; lacks tyre grip to judge it", what, g);
                } else if (*said.plausible) {
                    v.level = Level::Good;
                    v.reason = fmt::format("{} is {}: within these tyres", what, g);
                } else {
                    v.level = Level::Caution;
                    v.reason = fmt::format("{} is {}, beyond tyres of {}: a mistake of speed, brake point or tape", what, g,
                        print(*build.car.grip.value * standardGravity, style::deceleration, study.system));
                }
            }
            study.verdicts.push_back(std::move(v));
        }
}

namespace {

/// The car's own readings: everything later rests on them.
void addCarVerdict(Study& study)
{
    Verdict v;
    v.id = "car/known";
    v.stage = Stage::Car;
    v.title = "What is known of the car";
    v.style = style::number;
    v.figure = evaluate([&](Sample& s) {
        const auto car = figures::carOf(s, study.build->car);
        const double rest = figures::pressure(s, study.build->hydraulics) + s(study.build->car.frontTyreRadius)
            + s(study.build->car.rearTyreRadius) + s(study.build->car.testSpeed, false);
        return car.mass + car.wheelbase + car.centreOfMassHeight + car.frontLoadShare + car.grip + rest;
    });
    // What counts here is how many readings stand, not the sum that asked for them.
    if (v.figure.value)
        v.figure.value = static_cast<double>(v.figure.restsOn.size());
    v.figure.worstCase = v.figure.rootSumSquare = 0;
    v.figure.effects.clear();
    v.style = style::count;
    v.method = "Mass, wheelbase, height of the centre of mass, axle load, tyres and pedal decide how hard any brake can stop this car.";
    v.source = "Weigh each axle on the level for the load share; raise one axle to find the height.";
    if (!v.figure.value) {
        v.level = Level::Unproven;
        v.reason = lacking(study, v.figure);
    } else if (v.figure.provisional()) {
        v.level = Level::Unproven;
        v.reason = fmt::format("{} of {} readings only estimated", v.figure.estimated.size(), v.figure.restsOn.size());
    } else {
        v.level = Level::Good;
        v.reason = fmt::format("All {} readings are there", v.figure.restsOn.size());
    }
    study.verdicts.push_back(std::move(v));
}

} // namespace

void addVerdicts(Study& study)
{
    addCarVerdict(study);
    for (const Axle axle : axlesOf(study)) {
        addBenchVerdicts(study, axle);
        addWeightVerdicts(study, axle);
    }
    for (const Axle axle : axlesOf(study)) {
        addRoomVerdicts(study, axle);
        addSeatVerdicts(study, axle);
    }
    addCentringVerdicts(study);
    for (const Axle axle : axlesOf(study))
        addJointVerdicts(study, axle);
    for (const Axle axle : axlesOf(study))
        addHeatVerdicts(study, axle);
    addStopVerdicts(study);
}

} // namespace deepstop::parts
