#include "chapters/heat/duty_heat.hpp"

#include "chapters/heat/pad_life.hpp"

#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"
#include "heat/wear.hpp"
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

/// What parts bear, °C; common practice, no source.
constexpr double sealsBear = 200;
constexpr double paintBears = 230;
constexpr double greaseBears = 160;
constexpr double alloyHatBears = 230;
constexpr double drilledFacesBear = 500;
constexpr double ironBears = 700;

/// The last few runs, so that what is typed elsewhere costs none.
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
                    && known.car == key.car)
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

const heat::Temperatures& of(const heat::Moment& m, Axle axle) { return axle == Axle::Front ? m.front : m.rear; }

/// Surface temperature at which the friction has fallen to a part of the quoted one; infinite where it never does.
double fadesAt(const figures::FrictionCurve& curve, double part)
{
    for (std::size_t i = 1; i < curve.points.size(); ++i) {
        const auto& [t0, f0] = curve.points[i - 1];
        const auto& [t1, f1] = curve.points[i];
        if (f1 < part && f0 >= part)
            return t0 + (f0 - part) / (f0 - f1) * (t1 - t0);
    }
    return std::numeric_limits<double>::infinity();
}

void addLimits(const Build& build, const SetupParts& setup, DutyHeat& r)
{
    using heat::Node;
    const double fade = figures::setting(build.wants.fadeAt, &Wants::fadeAt);
    const double boils = nominal([&](Sample& s) { return figures::fluidBoils(s, *setup.hydraulics); });
    for (const Axle axle : { Axle::Front, Axle::Rear }) {
        const Corner& c = *setup.at(axle).corner;
        const std::string word = judge::wordFor(axle);
        const bool drum = c.brakes == BrakeKind::Drums;
        const auto add = [&](std::string what, Node node, double limit, bool critical) {
            if (std::isfinite(limit))
                r.limits.push_back({ word + " " + std::move(what), axle, node, limit, 0, critical, {}, 0 });
        };
        add(drum ? "linings fade" : "pads fade", Node::Surface,
            fadesAt(axle == Axle::Front ? r.car.frontFriction : r.car.rearFriction, fade), true);
        add("fluid boils", Node::Fluid, boils, true);
        add(drum ? "cylinder's seals harden" : "caliper's seals harden", Node::Caliper, sealsBear + zeroCelsius, false);
        if (!drum)
            add("caliper's paint browns", Node::Caliper, paintBears + zeroCelsius, false);
        add("hub's grease runs", Node::Hub, greaseBears + zeroCelsius, false);
        if (!drum && c.rotor.hatMaterial == HatMaterial::Aluminium)
            add("hat softens", Node::Hat, alloyHatBears + zeroCelsius, false);
        // An unknown face counts as drilled.
        if (!drum && (c.rotor.face == RotorFace::Drilled || c.rotor.face == RotorFace::Unknown))
            add(c.rotor.face == RotorFace::Drilled ? "drilled face cracks" : "face cracks, if it is drilled", Node::Surface,
                drilledFacesBear + zeroCelsius, false);
        else if (drum || c.rotor.ringMaterial != RingMaterial::CarbonCeramic)
            add(drum ? "drum cracks" : "face cracks", Node::Surface, ironBears + zeroCelsius, false);
    }
    for (HeatLimit& limit : r.limits) {
        const auto node = static_cast<std::size_t>(limit.node);
        limit.peak = (limit.axle == Axle::Front ? r.run->frontPeak : r.run->rearPeak)[node];
        for (const heat::Moment& m : r.run->course)
            if (of(m, limit.axle)[node] > limit.limit) {
                limit.stop = m.stop;
                limit.time = m.time;
                break;
            }
    }
    // Passed first, then by how near, over what there was to rise.
    std::ranges::stable_sort(r.limits, {}, [&](const HeatLimit& l) {
        return std::tuple { !l.stop, l.stop ? l.time : 0.0, (l.limit - l.peak) / std::max(1.0, l.limit - r.car.ambient), !l.critical };
    });
}

void addFoot(const Build& build, const SetupParts& setup, DutyHeat& r)
{
    Sample s;
    const auto foot = figures::footOf(s, build, *setup.hydraulics);
    const double greatest = figures::setting(build.wants.greatestEffort, &Wants::greatestEffort);
    r.hardestFoot = 0;
    for (const heat::Moment& m : r.run->course) {
        if (m.power <= 0)
            continue;
        const double pressure = figures::pressureFor(r.car, m.force, m.frontFriction, m.rearFriction);
        const double force = hydraulics::pedalForceFor(foot, pressure);
        if (std::isnan(force)) {
            r.hardestFoot = nothing;
            return;
        }
        r.hardestFoot = std::max(r.hardestFoot, force);
        if (force > greatest && !r.footFails)
            r.footFails = m.stop;
    }
}

std::string celsius(const Study& study, double kelvin) { return print(kelvin, style::temperature, study.system); }

void addDutyVerdict(Study& study, const DutyStudy& d)
{
    const DutyHeat& now = d.after;
    Verdict v;
    v.id = "heat/gives-up";
    v.title = fmt::format("First limit reached: {}", d.duty.name);
    v.style = style::rise;
    v.wanted = 0.0;
    v.figure = now.known;
    v.lacksInWords = figures::unsaidOf(study.after);
    if (d.plan && !d.plan->load.empty()
        && std::ranges::find(study.build->loads, d.plan->load, &LoadCase::name) == study.build->loads.end())
        v.lacksInWords.push_back(fmt::format("the load “{}” of this duty", d.plan->load));
    v.method =
        "Ring in layers, hat, hub, linings, backings, caliper and fluid as a network of heat, cooled by air at the car's speed and by "
        "radiation; "
        "both axles run through the duty together, the share from the balance with each axle's friction as hot as it is. A margin is what "
        "a "
        "part bears less its peak. A rise may be off by 30 % until a thermometer has set the cooling, then by 10 %. Glaze, green fade, "
        "hot spots and water are not modelled.";
    v.source =
        "Limpert's correlations of disc and vanes, from memory; FMVSS 116 for the fluid; what pads, seals, grease, hats and faces bear: "
        "common practice.";
    v.caution =
        "Hot brakes burn skin, boil fluid and lose their bite without a word. Try such a duty only on a closed place, stop at the first "
        "soft or long pedal, smell or smoke, and let them cool by driving.";
    const Hydraulics& h = *study.after.hydraulics;
    // Whether fluid or foot hold is said of no car whose fluid or pedal nobody knows.
    constexpr double some = 10e5;
    judge::leanOn(v.figure, asRead([&](Sample& s) { return figures::fluidBoils(s, h); }));
    judge::leanOn(v.figure, asRead([&](Sample& s) { return hydraulics::pedalForceFor(figures::footOf(s, *study.build, h), some); }));
    if (h.fluid == FluidClass::Unknown && !(h.dryBoiling.value && h.wetBoiling.value))
        v.lacksInWords.emplace_back("class of the brake fluid");
    if (!now.run || !now.run->complete || now.limits.empty() || !v.lacksInWords.empty() || !v.figure.lacks.empty()) {
        v.figure.value.reset();
        v.reason = v.figure.lacks.empty() && v.lacksInWords.empty()
            ? "This duty cannot be run: look at its speeds and times, masses and sizes"
            : lacking(study, v.figure, v.lacksInWords);
        study.verdicts.push_back(std::move(v));
        return;
    }
    const HeatLimit* worst = &now.limits.front();
    // Of those that hold, the one with the least certain margin speaks.
    const auto lowest = [&](const HeatLimit& l) { return l.limit - l.peak - now.unsure.at(l.axle) * (l.peak - now.car.ambient); };
    if (!worst->stop)
        worst = &*std::ranges::min_element(now.limits, {}, [&](const HeatLimit& l) {
            return std::pair { !(l.critical || lowest(l) < 0), lowest(l) };
        });
    const double margin = worst->limit - worst->peak;
    v.figure.value = margin;
    v.figure.worstCase = now.unsure.at(worst->axle) * (worst->peak - now.car.ambient);
    v.figure.rootSumSquare = v.figure.worstCase / 2;
    v.figure.effects.clear();
    const int stops = heat::stopsIn(d.duty);
    const auto at = [&](int stop) { return stops > 1 ? fmt::format("at braking {} of {}", stop, stops) : std::string("on the way"); };
    const auto numbers = fmt::format("{} of {}", celsius(study, worst->peak), celsius(study, worst->limit));
    std::string compared;
    if (study.before.setup != study.after.setup && d.before.run && !d.before.limits.empty()) {
        const HeatLimit& was = d.before.limits.front();
        compared = was.stop ? fmt::format("; before: {} {}", was.what, at(*was.stop)) : std::string("; before: nothing does either");
        if (worst->stop && was.stop && *was.stop <= *worst->stop)
            compared = fmt::format("; before: {} {}", was.what, at(*was.stop));
        else if (worst->stop && !was.stop)
            compared = "; before: nothing does";
    }
    std::string what = worst->what;
    what[0] = toUpper(what[0]);
    if (now.footFails && (!worst->stop || *now.footFails <= *worst->stop)) {
        v.level = Level::Stop;
        v.reason = fmt::format("The foot {}: more than its greatest effort; {}{}", at(*now.footFails), numbers, compared);
    } else if (worst->stop) {
        v.level = worst->critical ? Level::Stop : Level::Caution;
        // Something harmless that gives up first hides nothing that is not.
        for (const HeatLimit& each : now.limits)
            if (each.critical && each.stop) {
                v.level = Level::Stop;
                if (&each != worst)
                    what += fmt::format(" {}, then {}", at(*worst->stop), each.what);
                worst = &each;
                break;
            }
        v.reason = fmt::format("{} {}, {}{}", what, at(*worst->stop), numbers, compared);
    } else if (v.figure.lowest() < 0) {
        v.level = Level::Caution;
        v.reason = fmt::format("Nothing, but not surely: {} at worst, {} ±{}{}", worst->what, numbers,
            print(v.figure.worstCase, style::rise, study.system), compared);
    } else {
        v.level = Level::Good;
        v.reason = fmt::format("Nothing; nearest {}, {}{}", worst->what, numbers, compared);
    }
    if (const auto red = glow(now.hottestRing); !red.empty())
        v.reason += fmt::format(". The ring glows {}", red);
    if (v.figure.provisional() && !isBad(v.level)) {
        v.level = Level::Unproven;
        v.reason += "; " + judge::estimatedIn(study, v.figure);
    }
    study.verdicts.push_back(std::move(v));
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

std::string_view nameOf(heat::Node node)
{
    switch (node) {
    case heat::Node::Ring:
        return "ring";
    case heat::Node::Surface:
        return "surface";
    case heat::Node::Hat:
        return "hat";
    case heat::Node::Lining:
        return "pad";
    case heat::Node::Backing:
        return "backing";
    case heat::Node::Caliper:
        return "caliper";
    case heat::Node::Fluid:
        return "fluid";
    case heat::Node::Hub:
        return "hub";
    }
    return "";
}

std::string glow(double t)
{
    // The colours a smith names, °C; common practice, no source.
    const double c = t - zeroCelsius;
    return c < 520 ? ""
        : c < 600  ? "a faint dark red in the dark"
        : c < 700  ? "dark red"
        : c < 800  ? "cherry red"
        : c < 900  ? "bright cherry"
                   : "orange";
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
            Sample s;
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

DutyHeat dutyHeatOf(const Build& build, const SetupParts& setup, const heat::Duty& duty, const heat::Accuracy& accuracy)
{
    DutyHeat r;
    if (!setup.complete())
        return r;
    r.known = asRead([&](Sample& s) {
        r.car = figures::thermalCar(s, build, setup);
        return r.car.road.mass + r.car.front.ringMass + r.car.rear.ringMass + r.car.front.vaneArea + r.car.rear.vaneArea
            + r.car.front.hatStore + r.car.rear.hatStore + r.car.front.liningStore + r.car.rear.liningStore + r.car.front.tyreRadius
            + r.car.rear.tyreRadius + r.car.brakes.front.brakeFactor + r.car.brakes.rear.brakeFactor + r.car.brakes.kneePressure
            + r.car.brakes.slope + r.car.brakes.front.pistonArea + r.car.brakes.rear.pistonArea;
    });
    for (const Axle axle : { Axle::Front, Axle::Rear }) {
        // Only a thermometer narrows it, and no further than it was sure itself.
        const Reading& cooling = setup.at(axle).corner->cooling;
        r.unsure.at(axle) = cooling.value && cooling.known == Known::Measured
            ? std::max(unsureMeasured, uncertainty(cooling, false) / *cooling.value)
            : unsureUnmeasured;
    }
    if (!r.known.value || duty.phases.empty() || !figures::unsaidOf(setup).empty())
        return r;
    r.run = remembered(r.car, duty, accuracy);
    if (!r.run->complete)
        return r;
    r.hottestRing = std::max(r.run->frontPeak[1], r.run->rearPeak[1]);
    addLimits(build, setup, r);
    addFoot(build, setup, r);
    for (const Axle axle : { Axle::Front, Axle::Rear })
        r.worn.at(axle) = heat::wornVolume(*r.run, axle == Axle::Front)
            / nominal([&](Sample& s) { return figures::liningArea(s, *setup.at(axle).corner); });
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
    return build.car.duty.empty() ? "No duty yet" : fmt::format("The duty “{}” is not in this build: choose another", build.car.duty);
}

void addDuty(Study& study)
{
    DutyStudy d;
    d.plan = figures::judgedDuty(*study.build);
    if (!d.plan || !study.before.complete() || !study.after.complete()) {
        if (!d.plan && !study.build->car.duty.empty()) {
            Verdict v;
            v.id = "heat/gives-up";
            v.title = "First limit reached";
            v.style = style::rise;
            v.reason = noJudgedDuty(*study.build);
            v.lacksInWords.push_back(v.reason);
            study.verdicts.push_back(std::move(v));
        }
        study.keep(std::move(d));
        return;
    }
    Figure plan = asRead([&](Sample& s) {
        d.duty = figures::dutyOf(s, *study.build, *d.plan);
        return heat::durationOf(d.duty) + heat::distanceOf(d.duty);
    });
    d.after = dutyHeatOf(*study.build, study.after, d.duty);
    d.before = study.after.setup == study.before.setup ? d.after : dutyHeatOf(*study.build, study.before, d.duty);
    for (Figure* known : { &d.before.known, &d.after.known })
        judge::leanOn(*known, plan);
    addDutyVerdict(study, d);
    addPadLife(study, d);
    LedgerLine line;
    line.id = "hottest-ring";
    line.title = "Hottest face";
    line.style = style::temperature;
    line.before = hottest(d.before);
    line.after = hottest(d.after);
    const Verdict* v = study.verdict("heat/gives-up");
    line.level = v->level;
    line.word = !v->figure.value      ? "unproven"
        : d.after.limits.front().stop ? fmt::format("gives up at {}", *d.after.limits.front().stop)
                                      : fmt::format("{} left", print(*v->figure.value, style::rise, study.system));
    if (line.before.value && line.after.value) {
        line.change = line.after;
        line.change.value = *line.after.value - *line.before.value;
        line.change.worstCase = d.after.mostUnsure() * std::abs(*line.change.value);
        line.change.rootSumSquare = line.change.worstCase / 2;
    }
    study.ledger.push_back(std::move(line));
    study.keep(std::move(d));
}

} // namespace deepstop
