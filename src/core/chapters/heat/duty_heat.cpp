#include "chapters/heat/duty_heat.hpp"

#include "chapters/heat/checks.hpp"
#include "chapters/heat/duty_words.hpp"
#include "chapters/heat/pad_life.hpp"

#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"
#include "heat/wear.hpp"
#include "language/language.hpp"
#include "quantity/quantile.hpp"
#include "quantity/text.hpp"
#include "task/cancel.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <atomic>
#include <chrono>
#include <deque>
#include <future>
#include <limits>
#include <mutex>

namespace deepstop {
namespace {

constexpr double zeroCelsius = 273.15;
constexpr double nothing = std::numeric_limits<double>::quiet_NaN();
/// How far off a rise may be while no thermometer has set the cooling, and with one; common practice, no source.
constexpr double unsureUnmeasured = 0.30;
constexpr double unsureMeasured = 0.10;
/// A thermometer on the ring proves the ring: what is warmed through pads, air and bolts may rise twice as far.
constexpr double unsureBeside = 1.0;
constexpr double unsureHat = 0.5;

/// What parts bear, °C; common practice, no source.
constexpr double sealsBear = 200;
constexpr double paintBears = 230;
constexpr double greaseBears = 160;
constexpr double alloyHatBears = 230;
constexpr double drilledFacesBear = 500;
constexpr double ironBears = 700;

/// Whether a run is through in which the foot never made less than was asked.
bool footDidAll(const std::shared_future<std::shared_ptr<const heat::Run>>& running)
{
    if (running.wait_for(std::chrono::seconds(0)) != std::future_status::ready)
        return false;
    const auto run = running.get();
    return run && run->complete && !run->footFellShort;
}

/// Whether two cars are alike but for a foot that makes as much pressure, or more.
bool alikeWithMore(const figures::ThermalCar& car, figures::ThermalCar other)
{
    if (!(other.mostPressure >= car.mostPressure))
        return false;
    other.mostPressure = car.mostPressure;
    return other == car;
}

/// The last few runs, so that what is typed elsewhere costs none. More pressure than was ever needed makes no other run.
std::shared_ptr<const heat::Run> remembered(const figures::ThermalCar& car, const heat::Duty& duty, const heat::Accuracy& accuracy)
{
    struct Key {
        figures::ThermalCar car;
        std::vector<std::tuple<double, double, double, bool, double>> phases;
        double engine;
        double added;
        double cell;
    };
    Key key { car, {}, duty.engineBraking, duty.added, accuracy.cell };
    for (const heat::Phase& p : duty.phases)
        key.phases.emplace_back(p.from, p.to, p.duration, p.braking, p.slope);
    using Running = std::shared_future<std::shared_ptr<const heat::Run>>;
    static std::mutex cacheMutex;
    struct Remembered {
        Key key;
        Running run;
        unsigned long number;
    };
    static std::deque<Remembered> last;
    static std::atomic<unsigned long> count = 0;
    constexpr std::size_t most = 16;
    while (true) {
        std::promise<std::shared_ptr<const heat::Run>> promise;
        Running there;
        const auto mine = promise.get_future().share();
        const auto number = ++count;
        {
            const std::lock_guard lock(cacheMutex);
            for (const auto& [known, run, of] : last)
                if (known.cell == key.cell && known.engine == key.engine && known.added == key.added && known.phases == key.phases
                    && (known.car == key.car || (footDidAll(run) && alikeWithMore(known.car, key.car))))
                    there = run;
            if (!there.valid()) {
                last.push_front({ key, mine, number });
                if (last.size() > most)
                    last.pop_back();
            }
        }
        if (!there.valid()) {
            try {
                auto run = std::make_shared<const heat::Run>(heat::run(figures::runnable(car), duty, accuracy));
                promise.set_value(run);
                return run;
            } catch (...) {
                // Not run is not remembered; whoever waits for it runs it himself.
                {
                    const std::lock_guard lock(cacheMutex);
                    std::erase_if(last, [&](const auto& each) { return each.number == number; });
                }
                promise.set_value(nullptr);
                throw;
            }
        }
        // Whoever wants one that is being run waits for it, as long as it is wanted.
        constexpr auto lookAgain = std::chrono::milliseconds(5);
        while (there.wait_for(lookAgain) != std::future_status::ready)
            endIfCancelled();
        if (auto run = there.get())
            return run;
    }
}

void addLimits(const Build& build, const SetupParts& setup, DutyHeat& r)
{
    using heat::Node;
    const double fade = figures::setting(build.wants.fadeAt, &Wants::fadeAt);
    const Figure boils = evaluate([&](Evaluator& s) { return figures::fluidBoils(s, build, *setup.hydraulics); });
    for (const Axle axle : { Axle::Front, Axle::Rear }) {
        const Corner& c = *setup.at(axle).corner;
        const std::string word = judge::wordFor(axle);
        const bool drum = c.brakes == BrakeKind::Drums;
        const auto add = [&](std::string what, Node node, double limit, bool critical, double unsure = 0) {
            if (std::isfinite(limit))
                r.limits.push_back({ word + " " + std::move(what), axle, node, limit, 0, critical, {}, 0, false, unsure });
        };
        const Figure fades = evaluate([&](Evaluator& s) { return figures::fadesAt(figures::frictionCurve(s, c), fade); });
        add(drum ? tr("linings fade") : tr("pads fade"), Node::Surface, fades.value.value_or(nothing), true, fades.rootSumSquare);
        add(tr("fluid boils"), Node::Fluid, boils.value.value_or(nothing), true, boils.rootSumSquare);
        add(drum ? tr("cylinder's seals harden") : tr("caliper's seals harden"), Node::Caliper, sealsBear + zeroCelsius, false);
        if (!drum)
            add(tr("caliper's paint browns"), Node::Caliper, paintBears + zeroCelsius, false);
        add(tr("hub's grease runs"), Node::Hub, greaseBears + zeroCelsius, false);
        if (!drum && c.rotor.hatMaterial == HatMaterial::Aluminium)
            add(tr("hat softens"), Node::Hat, alloyHatBears + zeroCelsius, false);
        // An unknown face counts as drilled.
        if (!drum && (c.rotor.face == RotorFace::Drilled || c.rotor.face == RotorFace::Unknown))
            add(c.rotor.face == RotorFace::Drilled ? tr("drilled face cracks") : tr("face cracks, if it is drilled"), Node::Surface,
                drilledFacesBear + zeroCelsius, false);
        else if (drum || c.rotor.ringMaterial != RingMaterial::CarbonCeramic)
            add(drum ? tr("drum cracks") : tr("face cracks"), Node::Surface, ironBears + zeroCelsius, false);
    }
    for (HeatLimit& limit : r.limits) {
        const auto node = static_cast<std::size_t>(limit.node);
        limit.peak = (limit.axle == Axle::Front ? r.run->frontPeak : r.run->rearPeak)[node];
        limit.unsure = std::hypot(limit.unsure, r.unsureOf(limit.axle, limit.node) * std::max(0.0, limit.peak - r.car.ambient));
        for (const auto* moments : { &r.run->course, &r.run->standing })
            for (const heat::Moment& m : *moments)
                if (!limit.stop && of(m, limit.axle)[node] > limit.limit) {
                    limit.stop = m.stop;
                    limit.time = m.time;
                    limit.standing = moments == &r.run->standing;
                }
    }
    // Passed first, then by how near, over what there was to rise.
    std::ranges::stable_sort(r.limits, {}, [&](const HeatLimit& l) {
        return std::tuple { !l.stop, l.stop ? l.time : 0.0, (l.limit - l.peak) / std::max(1.0, l.limit - r.car.ambient), !l.critical };
    });
}

void addFoot(const Build& build, const SetupParts& setup, double added, DutyHeat& r)
{
    Evaluator s;
    const auto foot = figures::footOf(s, build, *setup.hydraulics);
    const double weight = (r.car.road.mass + added) * standardGravity;
    r.hardestFoot = 0;
    const heat::Moment* hardest = nullptr;
    for (const heat::Moment& m : r.run->course) {
        if (m.power <= 0)
            continue;
        const double force = hydraulics::pedalForceFor(foot, figures::pressureFor(r.car, m.force, m.frontFriction, m.rearFriction));
        if (std::isnan(force)) {
            r.hardestFoot = nothing;
            return;
        }
        if (!hardest || force > r.hardestFoot) {
            hardest = &m;
            r.hardestFoot = force;
        }
        // What the brakes do not make, either foot and friction do not or the tyres.
        constexpr double rounding = 1e-6;
        if (m.asked > m.force * (1 + rounding)) {
            auto& fails = m.force >= r.car.grip * weight * (1 - rounding) ? r.tyresFail : r.footFails;
            if (!fails)
                fails = m.stop;
        }
    }
    if (hardest)
        r.footUnsure = evaluate([&](Evaluator& at) {
            figures::ThermalCar car = r.car;
            car.brakes = figures::brakesOf(at, build, setup);
            car.balance = figures::carOf(at, build.car);
            const double pressure = figures::pressureFor(car, hardest->force, hardest->frontFriction, hardest->rearFriction);
            return hydraulics::pedalForceFor(figures::footOf(at, build, *setup.hydraulics), pressure);
        }).rootSumSquare;
}

Figure hottest(const DutyHeat& d)
{
    Figure f = d.known;
    f.value.reset();
    f.effects.clear();
    if (d.run && d.run->complete) {
        f.value = d.hottestRing;
        f.worstCase = d.mostUnsure() * (d.hottestRing - d.car.ambient);
        f.rootSumSquare = f.worstCase / 2;
    }
    return f;
}

} // namespace

std::optional<FirstFailure> firstFailure(const DutyHeat& heat, int stops)
{
    const HeatLimit* limit = heat.limits.empty() || !heat.limits.front().stop ? nullptr : &heat.limits.front();
    const auto before = [&](const std::optional<int>& fails) { return fails && (!limit || limit->standing || *fails <= *limit->stop); };
    if (before(heat.footFails))
        return FirstFailure { tr("the foot"), whenIn(*heat.footFails, stops), tr("foot at braking {}", *heat.footFails) };
    if (before(heat.tyresFail))
        return FirstFailure { tr("more than the tyres hold"), whenIn(*heat.tyresFail, stops), tr("tyres at braking {}", *heat.tyresFail) };
    if (!limit)
        return {};
    return FirstFailure { limit->what, limit->standing ? std::string(tr(standingAfterwards)) : whenIn(*limit->stop, stops),
        limit->standing ? std::string(tr("limit when standing")) : tr("limit at braking {}", *limit->stop), limit->critical };
}

double DutyHeat::unsureOf(Axle axle, heat::Node node) const
{
    switch (node) {
    case heat::Node::Caliper:
    case heat::Node::Fluid:
    case heat::Node::Hub:
        return unsure.at(axle) + unsureBeside;
    case heat::Node::Hat:
        return unsure.at(axle) + unsureHat;
    default:
        return unsure.at(axle);
    }
}

std::string_view nameOf(heat::Node node)
{
    switch (node) {
    case heat::Node::Ring:
        return marked("ring");
    case heat::Node::Surface:
        return marked("surface");
    case heat::Node::Hat:
        return marked("hat");
    case heat::Node::Lining:
        return marked("pad");
    case heat::Node::Backing:
        return marked("backing");
    case heat::Node::Caliper:
        return marked("caliper");
    case heat::Node::Fluid:
        return marked("fluid");
    case heat::Node::Hub:
        return marked("hub");
    }
    return "";
}

std::string glow(double t)
{
    // The colours a smith names, °C; common practice, no source.
    const double c = t - zeroCelsius;
    return c < 520 ? ""
        : c < 600  ? tr("a faint dark red in the dark")
        : c < 700  ? tr("dark red")
        : c < 800  ? tr("cherry red")
        : c < 900  ? tr("bright cherry")
                   : marked("orange");
}

std::vector<std::string> dutyIds(const Build& build)
{
    std::vector<std::string> ids;
    for (const DutyPlan& each : build.duties)
        ids.push_back(each.id);
    ids.emplace_back("one-stop");
    ids.emplace_back("heating-procedure");
    return ids;
}

std::optional<heat::Duty> dutyCalled(const Build& build, const std::string& id)
{
    for (const DutyPlan& each : build.duties)
        if (each.id == id) {
            Evaluator s;
            return figures::dutyOf(s, build, each);
        }
    constexpr double usual = 100 / 3.6;
    const double speed = build.car.testSpeed.value.value_or(usual);
    if (id == "one-stop")
        return heat::oneStop(speed, 0.8 * standardGravity, 60);
    if (id == "heating-procedure")
        return heat::heatingProcedure(std::min(speed * 1.2, 120 / 3.6));
    return std::nullopt;
}

namespace {

/// Part by which an axle's rise may be off for the widths of the readings of car and brakes: its heat over what its rings store.
double unsureShareOfBrakes(const Build& build, const SetupParts& setup, Axle axle)
{
    constexpr double some = 50e5; // Pa
    const Figure rise = evaluate([&](Evaluator& s) {
        const auto forces = stopping::brakeForces(figures::brakesOf(s, build, setup), some);
        const double share = (axle == Axle::Front ? forces.front : forces.rear) / forces.sum();
        return figures::carOf(s, build.car).mass * share / figures::thermalBrake(s, setup, axle).ringMass;
    });
    return rise.value && *rise.value > 0 ? rise.rootSumSquare / *rise.value : 0;
}

} // namespace

DutyHeat dutyHeatOf(const Build& build, const SetupParts& setup, const heat::Duty& duty, const heat::Accuracy& accuracy)
{
    const auto of = std::ranges::find(build.duties, duty.id, &DutyPlan::id);
    const double plan = of == build.duties.end() ? 0 : figures::unsureShareOf(build, *of);
    DutyHeat r;
    if (!setup.complete())
        return r;
    r.known = asRead([&](Evaluator& s) {
        r.car = figures::thermalCar(s, build, setup);
        return r.car.road.mass + r.car.front.ringMass + r.car.rear.ringMass + r.car.front.vaneArea + r.car.rear.vaneArea
            + r.car.front.hatStore + r.car.rear.hatStore + r.car.front.liningStore + r.car.rear.liningStore + r.car.front.tyreRadius
            + r.car.rear.tyreRadius + r.car.brakes.front.brakeFactor + r.car.brakes.rear.brakeFactor + r.car.brakes.kneePressure
            + r.car.brakes.slope + r.car.brakes.front.pistonArea + r.car.brakes.rear.pistonArea;
    });
    for (const Axle axle : { Axle::Front, Axle::Rear }) {
        // Only a thermometer narrows it, and no further than it was sure itself.
        const Corner& corner = *setup.at(axle).corner;
        const Reading& cooling = corner.cooling;
        r.unsure.at(axle) = cooling.value && cooling.known == Known::Measured
            ? std::max(unsureMeasured, uncertainty(cooling, false) / *cooling.value)
            : unsureUnmeasured;
        r.unsure.at(axle) = std::hypot(r.unsure.at(axle), unsureShareOfBrakes(build, setup, axle), plan);
        Evaluator s;
        r.measuredTo.at(axle) = figures::measuredTo(s, corner);
    }
    if (!r.known.value || duty.phases.empty() || !figures::unsaidOf(setup).empty())
        return r;
    r.run = remembered(r.car, duty, accuracy);
    if (!r.run->complete)
        return r;
    r.hottestRing = std::max(r.run->frontPeak[1], r.run->rearPeak[1]);
    addLimits(build, setup, r);
    addFoot(build, setup, duty.added, r);
    for (const Axle axle : { Axle::Front, Axle::Rear })
        r.worn.at(axle) = heat::wornVolume(*r.run, axle == Axle::Front)
            / nominal([&](Evaluator& s) { return figures::liningArea(s, *setup.at(axle).corner); });
    return r;
}

std::vector<LimitSpread> spreadOf(const DutyHeat& heat, const std::vector<heat::Drawn>& draws)
{
    std::vector<LimitSpread> all;
    for (const HeatLimit& limit : heat.limits) {
        std::vector<double> peaks;
        for (const heat::Drawn& each : draws)
            peaks.push_back((limit.axle == Axle::Front ? each.frontPeak : each.rearPeak)[static_cast<std::size_t>(limit.node)]);
        all.push_back(peaks.empty() ? LimitSpread { nothing, nothing } : LimitSpread { quantile(peaks, 0.1), quantile(peaks, 0.9) });
    }
    return all;
}

double partThatFails(const DutyHeat& heat, const std::vector<heat::Drawn>& draws)
{
    const auto failed = std::ranges::count_if(draws, [&](const heat::Drawn& each) {
        return std::ranges::any_of(heat.limits, [&](const HeatLimit& l) {
            return l.critical && (l.axle == Axle::Front ? each.frontPeak : each.rearPeak)[static_cast<std::size_t>(l.node)] > l.limit;
        });
    });
    return draws.empty() ? nothing : static_cast<double>(failed) / static_cast<double>(draws.size());
}

void settleHeat(Study& study)
{
    DutyStudy d = study.of<DutyStudy>();
    d.plan = figures::judgedDuty(*study.build);
    study.keep(std::move(d));
}

std::string noJudgedDuty(const Build& build)
{
    return build.car.duty.empty() ? tr("No duty yet") : tr("The duty “{}” is not in this build: choose another", build.car.duty);
}

void addDuty(Study& study)
{
    DutyStudy d;
    d.plan = figures::judgedDuty(*study.build);
    if (!d.plan || !study.before.complete() || !study.after.complete()) {
        if (!d.plan && !study.build->car.duty.empty()) {
            Verdict v = verdictOf(checks::firstLimit);
            v.style = style::rise;
            v.reason = noJudgedDuty(*study.build);
            v.lacksInWords.push_back(v.reason);
            study.verdicts.push_back(std::move(v));
        }
        study.keep(std::move(d));
        return;
    }
    Figure plan = asRead([&](Evaluator& s) {
        d.duty = figures::dutyOf(s, *study.build, *d.plan);
        return heat::durationOf(d.duty) + heat::distanceOf(d.duty);
    });
    d.after = dutyHeatOf(*study.build, study.after, d.duty);
    d.before = study.after.setup == study.before.setup ? d.after : dutyHeatOf(*study.build, study.before, d.duty);
    for (Figure* known : { &d.before.known, &d.after.known })
        judge::restAlsoOn(*known, plan);
    addDutyVerdict(study, d);
    addPadLife(study, d);
    LedgerLine line;
    line.id = "hottest-ring";
    line.title = tr("Hottest face");
    line.style = style::temperature;
    line.before = hottest(d.before);
    line.after = hottest(d.after);
    const Verdict* v = study.verdict(checks::firstLimit);
    line.level = v->level;
    const auto fails = firstFailure(d.after, heat::stopsIn(d.duty));
    line.word = v->level == Level::Unproven ? judge::wordFor(Level::Unproven)
        : fails                             ? fails->brief
        : v->figure.value                   ? tr("{} left", print(*v->figure.value, style::rise, study.system))
                                            : judge::wordFor(Level::Unproven);
    if (line.before.value && line.after.value) {
        line.change = line.after;
        line.change.value = *line.after.value - *line.before.value;
        // What the model is off by is off alike in both; what is not alike in them comes on top: common practice, a tenth of either rise.
        constexpr double notAlike = 0.1;
        const double own = notAlike * std::hypot(d.after.hottestRing - d.after.car.ambient, d.before.hottestRing - d.before.car.ambient);
        line.change.worstCase = d.after.mostUnsure() * std::abs(*line.change.value) + own;
        line.change.rootSumSquare = line.change.worstCase / 2;
    }
    study.ledger.push_back(std::move(line));
    study.keep(std::move(d));
}

} // namespace deepstop
