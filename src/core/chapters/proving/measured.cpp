#include "chapters/proving/measured.hpp"

#include "chapters/proving/checks.hpp"
#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"
#include "language/language.hpp"
#include "materials/materials.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <set>

namespace deepstop {
namespace {

constexpr double unmeasured = std::numeric_limits<double>::quiet_NaN();
/// How much a road may fall that nobody has put a level on.
constexpr double looksLevel = 0.03;

} // namespace

SetupParts partsThatRan(const Build& build, const TestSession& session)
{
    static const Setup none;
    const Setup* setup = session.ran ? &*session.ran : findSetup(build, session.setup);
    return partsOf(build, setup ? *setup : none);
}

bool asNow(const Build& build, const TestSession& session)
{
    const Setup* now = findSetup(build, session.setup);
    if (!session.ran || !now)
        return true;
    const auto same = [&](const std::optional<Corner>& ran, Axle axle) {
        const Corner* corner = cornerOf(build, *now, axle);
        if (!ran || !corner)
            return true;
        // A cooling set since then is the model's, not the car's.
        Corner then = *ran;
        then.cooling = corner->cooling;
        return then == *corner;
    };
    return same(session.ran->front, Axle::Front) && same(session.ran->rear, Axle::Rear)
        && (!session.ran->hydraulics || *session.ran->hydraulics == hydraulicsOf(build, *now));
}

std::vector<MeasuredRun> runsIn(const Build& build, std::size_t index)
{
    const TestSession& session = build.tests[index];
    const SetupParts ran = partsThatRan(build, session);
    std::vector<MeasuredRun> runs;
    for (std::size_t i = 0; i < session.stops.size(); ++i) {
        const MeasuredStop& stop = session.stops[i];
        MeasuredRun run { index, i, &stop, unmeasured, stop.leftOut };
        if (stop.speed.value && stop.distance.value && build.car.testSpeed.value)
            run.distance = proving::speedCorrected(*stop.distance.value, *stop.speed.value, *build.car.testSpeed.value);
        if (run.leftOut.empty() && !std::isfinite(run.distance))
            run.leftOut = !stop.speed.value ? tr("its speed was not read")
                : !stop.distance.value      ? tr("its distance was not read")
                                            : tr("no speed to stop from is said");
        if (run.leftOut.empty() && impossible(decelerationOf(stop), mostDeceleration(build, session, stop, ran)))
            run.leftOut = tr("no tyre can do it: a mistake of speed, brake point or tape");
        // Far from the speed meant, the square no longer brings it there: build-up and drag go otherwise.
        constexpr double far = 0.15;
        if (run.leftOut.empty() && std::abs(*stop.speed.value / *build.car.testSpeed.value - 1) > far)
            run.leftOut = tr("its speed is too far from the one to stop from");
        runs.push_back(std::move(run));
    }
    return runs;
}

namespace {

void addTo(std::vector<std::string>& unsure, std::string what)
{
    if (std::ranges::find(unsure, what) == unsure.end())
        unsure.push_back(std::move(what));
}

constexpr const char* otherRoad = marked("one was on a dry road, the other was not");
constexpr const char* otherPoint = marked("the tape was not laid on at the same point");

} // namespace

std::vector<std::string> unlikeOf(const Build& build, const RunsOf& a, const RunsOf& b)
{
    std::vector<std::string> unsure = a.unsure;
    for (const auto& each : b.unsure)
        addTo(unsure, each);
    const auto first = [&](const RunsOf& r) -> const TestSession* {
        for (const MeasuredRun& run : r.runs)
            if (run.leftOut.empty())
                return &build.tests[run.session];
        return nullptr;
    };
    const TestSession* x = first(a);
    const TestSession* y = first(b);
    if (x && y) {
        if (x->surface != y->surface && x->surface != Surface::Unknown && y->surface != Surface::Unknown)
            addTo(unsure, tr(otherRoad));
        if (x->from != y->from && x->from != MeasuredFrom::Unknown && y->from != MeasuredFrom::Unknown)
            addTo(unsure, tr(otherPoint));
    }
    return unsure;
}

void restOn(Figure& figure, const Build& build, const std::vector<MeasuredRun>& runs)
{
    const auto add = [](std::vector<ReadingId>& into, ReadingId reading) {
        if (std::ranges::find(into, reading) == into.end())
            into.push_back(reading);
    };
    add(figure.restsOn, build.car.testSpeed);
    if (!build.car.testSpeed.value)
        add(figure.lacks, build.car.testSpeed);
    add(figure.restsOn, build.wants.windLimit);
    add(figure.restsOn, build.wants.fadePast);
    add(figure.restsOn, build.wants.dayGrip);
    for (const MeasuredRun& run : runs) {
        const TestSession& session = build.tests[run.session];
        for (const Reading* reading : { &run.measured->speed, &run.measured->distance, &session.slope, &session.wind })
            add(figure.restsOn, *reading);
        // Where nobody can say what tyres can do, no stop is known to be one.
        const Figure most = mostDeceleration(build, session, *run.measured, partsThatRan(build, session));
        for (const ReadingId reading : most.restsOn)
            add(figure.restsOn, reading);
        for (const ReadingId reading : most.lacks)
            if (reading != ReadingId(run.measured->speed))
                add(figure.lacks, reading);
    }
}

void doubtWhatLacks(const Study& study, Verdict& v)
{
    if (v.figure.lacks.empty())
        return;
    v.figure.value.reset();
    if (!isBad(v.level))
        v.level = Level::Unproven;
    v.reason += "; " + lacking(study, v.figure);
}

Figure mostDeceleration(const Build& build, const TestSession& session, const MeasuredStop& stop, const SetupParts& ran)
{
    Figure most = evaluate([&](Evaluator& s) {
        double grip = 0;
        for (const AxleParts* axle : { &ran.front, &ran.rear })
            grip = axle->wheel ? std::max(grip, s(axle->wheel->grip, false)) + 0 * s(axle->wheel->grip, false) : unmeasured;
        const auto car = figures::carOf(s, build.car);
        const double speed = s(stop.speed, false);
        const double slope = s.orElse(session.slope, 0, false);
        // Uphill helps; where nobody said which way it went, it may have been that one.
        const double up = stop.way == Way::Out ? -slope : stop.way == Way::Back ? slope : std::abs(slope);
        return (grip + up) * standardGravity + 0.5 * materials::airDensity * car.dragArea * speed * speed / (2 * car.mass);
    });
    // A drag area nobody gave is not none: it may be that of a van.
    constexpr double largestDrag = 3; // m²; common practice, no source
    if (!build.car.dragArea.value && stop.speed.value && build.car.mass.value) {
        const double drag = 0.5 * materials::airDensity * largestDrag * *stop.speed.value * *stop.speed.value / (2 * *build.car.mass.value);
        most.worstCase += drag;
        most.rootSumSquare = std::hypot(most.rootSumSquare, drag);
    }
    if (!session.slope.value) {
        most.worstCase += looksLevel * standardGravity;
        most.rootSumSquare = std::hypot(most.rootSumSquare, looksLevel * standardGravity);
    }
    return most;
}

Figure decelerationOf(const MeasuredStop& stop)
{
    return evaluate([&](Evaluator& s) { return stopping::judge(s(stop.speed, false), s(stop.distance, false), {}).meanDeceleration; });
}

bool impossible(const Figure& deceleration, const Figure& most)
{
    return deceleration.value && most.value && deceleration.lowest() > most.highest();
}

namespace {

/// A repair, a fault or other parts of that setup logged between two of its days; null where none was. ISO dates sort as text.
const LogEntry* workBetween(const Build& build, const Setup& setup, std::string_view one, std::string_view other)
{
    const auto [from, to] = std::minmax(one, other);
    for (const LogEntry& entry : build.log) {
        const bool work = entry.event == LogEvent::PartsOn || entry.event == LogEvent::Fault || entry.event == LogEvent::Fluid;
        if (work && (entry.setup.empty() || entry.setup == setup.id) && !from.empty() && entry.date > from && entry.date <= to)
            return &entry;
    }
    return nullptr;
}

} // namespace

RunsOf runsOf(const Build& build, const Setup& setup)
{
    RunsOf all;
    all.setup = &setup;
    int out = 0;
    int back = 0;
    int wayless = 0;
    bool level = true;
    const TestSession* first = nullptr;
    for (std::size_t i = 0; i < build.tests.size(); ++i) {
        const TestSession& session = build.tests[i];
        if (session.setup != setup.id || session.series != Series::Compare || session.stops.empty())
            continue;
        // Days of one setup that are not alike make one mean of two things.
        first = first ? first : &session;
        if (session.surface != first->surface)
            addTo(all.unsure, tr(otherRoad));
        if (session.from != first->from)
            addTo(all.unsure, tr(otherPoint));
        if (session.surface == Surface::Unknown)
            addTo(all.unsure, tr("whether the road was dry is not said"));
        if (session.from == MeasuredFrom::Unknown)
            addTo(all.unsure, tr("from where the tape was laid is not said"));
        if (!asNow(build, session))
            addTo(all.unsure, tr("the parts have changed since {}", session.date.empty() ? tr("that day") : session.date));
        if (std::ranges::find(session.inspected, Checked::Fault, &Tick::state) != session.inspected.end())
            addTo(all.unsure, tr("the inspection of {} found a fault", session.date.empty() ? tr("that day") : session.date));
        if (const LogEntry* repair = workBetween(build, setup, first->date, session.date))
            addTo(all.unsure, tr("work on the car was logged on {}, between its sessions", repair->date));
        // A road that falls by half a percent adds that much to every stop one way and takes it the other.
        constexpr double even = 0.005;
        level = level && session.slope.value && std::abs(*session.slope.value) < even
            && std::abs(session.wind.value.value_or(0)) <= figures::setting(build.wants.windLimit, &Wants::windLimit);
        for (MeasuredRun& run : runsIn(build, i)) {
            if (run.leftOut.empty()) {
                all.counted.push_back(run.distance);
                (run.measured->way == Way::Out ? out : run.measured->way == Way::Back ? back : wayless)++;
            }
            all.runs.push_back(std::move(run));
        }
    }
    if (!all.counted.empty() && !level && (wayless > 0 || out != back))
        addTo(all.unsure, tr("the stops do not go both ways as often, on a road that was not found level"));
    all.sample = proving::sampleOf(all.counted);
    all.trend = proving::trendOf(all.counted);
    return all;
}

bool onOneDay(const Build& build, const RunsOf& a, const RunsOf& b)
{
    const auto daysOf = [&](const RunsOf& r) {
        std::set<std::string> days;
        for (const MeasuredRun& run : r.runs)
            if (run.leftOut.empty())
                days.insert(build.tests[run.session].date);
        return days;
    };
    const auto days = daysOf(a);
    return days == daysOf(b) && !days.contains(std::string());
}

namespace {

/// Mean over the stops that count; nothing where one of them lacks it.
std::optional<double> meanOf(const RunsOf& runs, Reading MeasuredStop::*which)
{
    double sum = 0;
    int count = 0;
    for (const MeasuredRun& run : runs.runs)
        if (run.leftOut.empty()) {
            if (!run.measured || !(run.measured->*which).value)
                return {};
            sum += *(run.measured->*which).value;
            ++count;
        }
    return count > 0 ? std::optional(sum / count) : std::nullopt;
}

/// Part of a distance by which two sets of stops may differ though their brakes are the same.
double apartFromBrakes(const Build& build, const RunsOf& a, const RunsOf& b)
{
    const double day = figures::setting(build.wants.dayGrip, &Wants::dayGrip);
    // As much as another day at this much warmer rings, or this much more pedal force; common practice, no source.
    constexpr double warmer = 100; // K
    constexpr double harder = 0.15;
    constexpr double full = 0.02; // of the distance, where it was not read or differs by as much
    const auto part = [&](Reading MeasuredStop::*which, auto differ) {
        const auto one = meanOf(a, which);
        const auto other = meanOf(b, which);
        return one && other ? full * std::min(1.0, differ(*one, *other)) : full;
    };
    const double start = part(&MeasuredStop::ring, [](double x, double y) { return std::abs(x - y) / warmer; });
    const double pedal = part(&MeasuredStop::pedal, [](double x, double y) { return std::abs(x / y - 1) / harder; });
    return std::hypot(onOneDay(build, a, b) ? 0 : day, start, pedal);
}

} // namespace

std::optional<proving::Difference> acrossDays(
    const Build& build, const RunsOf& a, const RunsOf& b, std::optional<proving::Difference> difference)
{
    if (!difference)
        return difference;
    // Either set may be off by so much, in 95 of 100.
    const double other = apartFromBrakes(build, a, b) * std::hypot(a.sample.mean, b.sample.mean);
    const double half = std::hypot((difference->high - difference->low) / 2, other);
    difference->low = difference->difference - half;
    difference->high = difference->difference + half;
    return difference;
}

} // namespace deepstop
