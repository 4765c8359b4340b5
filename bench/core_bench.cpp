/// How long the core takes. `hash` is the yardstick of the machine: quote results as ratios to it, from one run.

#include "centring/car_plan.hpp"
#include "files/build_file.hpp"
#include "files/disk.hpp"
#include "library/library_file.hpp"
#include "instruments/indication.hpp"
#include "library/import.hpp"
#include "quantity/parse.hpp"
#include "files/track_log.hpp"
#include "instruments/receiver.hpp"
#include "proving/stops.hpp"
#include "stopping/drive.hpp"
#include "chapters/weights/comparison.hpp"
#include "chapters/clearance/cures.hpp"
#include "design/best.hpp"
#include "search/search.hpp"
#include "study/study.hpp"
#include "chapters/heat/duty_heat.hpp"

#include <benchmark/benchmark.h>

#include <algorithm>
#include <chrono>
#include <numeric>

using namespace deepstop;

namespace {

const std::string merle = DEEPSTOP_DATA "/demo/halden-merle.deepstop";

/// A million multiply-adds: what this machine does in a fixed piece of plain arithmetic.
void yardstick(benchmark::State& state)
{
    for (auto _ : state) {
        unsigned long h = 1469598103934665603UL;
        for (unsigned long i = 0; i < 1000000; ++i)
            h = (h ^ i) * 1099511628211UL;
        benchmark::DoNotOptimize(h);
    }
}
BENCHMARK(yardstick)->Unit(benchmark::kMicrosecond);

void studyOfTheDemo(benchmark::State& state, const char* setup)
{
    const auto build = std::make_shared<const Build>(files::loadBuild(merle).build);
    for (auto _ : state)
        benchmark::DoNotOptimize(study(build, { {}, setup }).verdicts.size());
}
BENCHMARK_CAPTURE(studyOfTheDemo, fits, "varnik-330")->Unit(benchmark::kMicrosecond);
BENCHMARK_CAPTURE(studyOfTheDemo, doesNotFit, "varnik-355")->Unit(benchmark::kMicrosecond);

/// Every reading of a demo moved by a ten-thousandth in turn, the study that follows it: median and worst over the readings.
void studyAfterOneEdit(benchmark::State& state, const char* demo)
{
    const auto build = std::make_shared<const Build>(files::loadBuild(std::string(DEEPSTOP_DATA "/demo/") + demo + ".deepstop").build);
    const std::atomic<bool> wanted = false;
    const auto last = std::make_shared<const Study>(*study(build, StudyOf {}, wanted));
    StudyOf of;
    of.last = last;
    std::vector<double> milliseconds;
    for (auto _ : state) {
        milliseconds.clear();
        for (const auto& entry : last->directory->entries()) {
            if (!entry.reading->value)
                continue;
            Reading moved = *entry.reading;
            moved.value = *moved.value == 0 ? 1e-5 : *moved.value * 1.0001;
            const auto changed = std::make_shared<const Build>(withReading(*last->build, entry.address.pointer, moved));
            const auto begun = std::chrono::steady_clock::now();
            benchmark::DoNotOptimize(study(changed, of, wanted)->verdicts.size());
            milliseconds.push_back(std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begun).count());
        }
    }
    std::ranges::sort(milliseconds);
    state.counters["median_ms"] = milliseconds[milliseconds.size() / 2];
    state.counters["nine_of_ten_ms"] = milliseconds[milliseconds.size() * 9 / 10];
    state.counters["worst_ms"] = milliseconds.back();
}
BENCHMARK_CAPTURE(studyAfterOneEdit, merle, "halden-merle")->Unit(benchmark::kMillisecond)->Iterations(1);
BENCHMARK_CAPTURE(studyAfterOneEdit, linnet, "linnet")->Unit(benchmark::kMillisecond)->Iterations(1);
BENCHMARK_CAPTURE(studyAfterOneEdit, camper, "drover-camper")->Unit(benchmark::kMillisecond)->Iterations(1);

/// A session of 120 brakings, both axles, two setups; SciPy's time for it is printed by bench/heat_scipy.py.
void twelveLaps(benchmark::State& state)
{
    const auto build = files::loadBuild(DEEPSTOP_DATA "/demo/halden-merle.deepstop").build;
    const auto duty = *dutyCalled(build, "twelve-laps");
    std::vector<heat::Car> cars;
    for (const std::size_t i : { 0, 1 }) {
        Evaluator s;
        cars.push_back(figures::runnable(figures::thermalCar(s, build, partsOf(build, build.setups[i]))));
    }
    for (auto _ : state)
        for (const auto& car : cars)
            benchmark::DoNotOptimize(heat::run(car, duty).frontPeak);
}
BENCHMARK(twelveLaps)->Unit(benchmark::kMillisecond);

/// Two hundred draws of the same, on all cores; two thousand take ten times as long.
void drawsOfTwelveLaps(benchmark::State& state)
{
    const auto build = files::loadBuild(DEEPSTOP_DATA "/demo/halden-merle.deepstop").build;
    const auto duty = *dutyCalled(build, "twelve-laps");
    std::vector<heat::Car> cars;
    for (const std::size_t i : { 0, 1 }) {
        Evaluator s;
        cars.push_back(figures::runnable(figures::thermalCar(s, build, partsOf(build, build.setups[i]))));
    }
    for (auto _ : state)
        benchmark::DoNotOptimize(heat::spread(cars, duty, 200, {}, 1).size());
}
BENCHMARK(drawsOfTwelveLaps)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(1);

void loadTheDemo(benchmark::State& state)
{
    const auto text = files::readFile(merle);
    for (auto _ : state)
        benchmark::DoNotOptimize(files::parseBuild(text).build.setups.size());
}
BENCHMARK(loadTheDemo)->Unit(benchmark::kMicrosecond);

void shimsForBothBolts(benchmark::State& state)
{
    std::vector<centring::ShimKind> drawer;
    for (const double mm : { 0.1, 0.25, 0.381, 0.5, 0.75, 0.762, 0.8, 0.9, 1.0, 1.6, 2.0, 3.0 })
        drawer.push_back({ mm / 1000, 8 });
    const centring::Position now { -0.7e-3, 0, -0.83e-3, -0.57e-3 };
    for (auto _ : state)
        benchmark::DoNotOptimize(centring::plan(now, { 1.5e-3, 1.5e-3, 0.1, 0.14, 1 }, drawer, 0.05e-3).possible);
}
BENCHMARK(shimsForBothBolts)->Unit(benchmark::kMicrosecond);

void shimsForTheWholeCar(benchmark::State& state)
{
    std::vector<centring::ShimKind> drawer;
    for (const double mm : { 0.1, 0.25, 0.381, 0.5, 0.75, 0.762, 0.8, 0.9, 1.0, 1.6, 2.0, 3.0 })
        drawer.push_back({ mm / 1000, 8 });
    const std::vector targets { 2.33e-3, 2.07e-3, 2.41e-3, 1.98e-3 };
    for (auto _ : state)
        benchmark::DoNotOptimize(centring::carPlan(targets, drawer, 0.125e-3).shims);
}
BENCHMARK(shimsForTheWholeCar)->Unit(benchmark::kMillisecond);

void importFiftyThousandLines(benchmark::State& state)
{
    std::string text = "name,outer_diameter_mm,thickness_mm,ring_inner_diameter_mm,overall_height_mm,hat_thickness_mm,bore_mm,bolt_circle_"
                       "mm,bolt_holes,vent_gap_mm,vanes,face\n";
    for (int i = 0; i < 50000; ++i)
        text += "Rotor " + std::to_string(i) + "," + std::to_string(240 + i % 150)
            + (i % 100 == 7 ? ",thin" : "," + std::to_string(8 + i % 28)) + ",180,46,7.5,66.6,112,5,8.5,48,plain\n";
    for (auto _ : state)
        benchmark::DoNotOptimize(library::importParts(text, library::guessPlan(text)).refused.size());
}
BENCHMARK(importFiftyThousandLines)->Unit(benchmark::kMillisecond);

void searchTheShippedLibrary(benchmark::State& state)
{
    const auto parts = files::loadLibrary(DEEPSTOP_DATA "/library/parts.json");
    for (auto _ : state)
        benchmark::DoNotOptimize(library::search(parts, library::Kind::Rotor, "varnik 330").size());
}
BENCHMARK(searchTheShippedLibrary)->Unit(benchmark::kMicrosecond);

void largestRotorInTheDemosWheel(benchmark::State& state)
{
    const auto s = study(files::loadBuild(merle).build);
    for (auto _ : state)
        benchmark::DoNotOptimize(largestRotor(s, Axle::Front).diameter);
}
BENCHMARK(largestRotorInTheDemosWheel)->Unit(benchmark::kMillisecond);

void curesWithTheShippedLibrary(benchmark::State& state)
{
    const auto s = study(files::loadBuild(merle).build, { {}, "varnik-355" });
    const auto parts = files::loadLibrary(DEEPSTOP_DATA "/library/parts.json");
    for (auto _ : state)
        benchmark::DoNotOptimize(curesOf(s, Axle::Front, &parts).size());
}
BENCHMARK(curesWithTheShippedLibrary)->Unit(benchmark::kMillisecond);

void compareTheDemosSetups(benchmark::State& state)
{
    const auto s = study(files::loadBuild(merle).build);
    for (auto _ : state)
        benchmark::DoNotOptimize(compare(s, Axle::Front).rows.size());
}
BENCHMARK(compareTheDemosSetups)->Unit(benchmark::kMicrosecond);

void readInstrumentLines(benchmark::State& state)
{
    std::string bytes;
    for (int i = 0; i < 1000; ++i)
        bytes += instruments::formatLine("vernier", i * 0.01, 2, "mm", true);
    for (auto _ : state)
        benchmark::DoNotOptimize(instruments::LineReader().take(bytes).size());
}
BENCHMARK(readInstrumentLines)->Unit(benchmark::kMicrosecond);

/// An hour of a receiver at 25 moments a second: 90,000 of them, three sentences each, and the stops in it.
void anHourOfALog(benchmark::State& state)
{
    instruments::ReceiverScene scene;
    scene.rate = 25;
    scene.traffic = 3600;
    scene.noise = 0.1;
    instruments::Receiver receiver(scene);
    std::string log;
    while (!receiver.over())
        log += receiver.next();
    for (auto _ : state) {
        proving::StopFinder finder([](const proving::FoundStop& stop) { benchmark::DoNotOptimize(stop.distance); });
        files::TrackReader reader([&](const files::Fix& fix) { finder.take({ fix.time, fix.speed }); });
        reader.take(log);
        reader.finish();
        benchmark::DoNotOptimize(reader.count().fixes);
    }
}
BENCHMARK(anHourOfALog)->Unit(benchmark::kMillisecond);

/// One stop in steps, as the draws run it.
void aStopInSteps(benchmark::State& state)
{
    const stopping::Car car { 1460, 2.7, 0.52, 0.54, 0.65 };
    const stopping::Brakes brakes { { 20e-4, 0.14, 0.8, 0.31, 1.0 }, { 9e-4, 0.13, 0.8, 0.31, 1.0 } };
    stopping::Circumstances how { 70e5, 0.25 };
    how.pitchTime = 0.25;
    how.gripFall = 0.1;
    for (auto _ : state)
        benchmark::DoNotOptimize(stopping::drive(car, brakes, how, 100 / 3.6).distance);
}
BENCHMARK(aStopInSteps)->Unit(benchmark::kMicrosecond);

void parseAQuantity(benchmark::State& state)
{
    for (auto _ : state)
        benchmark::DoNotOptimize(parseQuantity("1-1/8 in", Dimension::Length, "mm").value);
}
BENCHMARK(parseAQuantity);

/// A kit designed for the Merle's front: the map of 100 slots by 100 diameters and more, one place of it, and the best place.
struct Designed {
    design::Basis basis;
    std::unique_ptr<design::Maker> maker;
    Designed()
    {
        basis.study = std::make_shared<const Study>(
            study(std::make_shared<const Build>(files::loadBuild(merle).build), SetupPair { {}, "varnik-330" }));
        basis.corner = *basis.study->after.front.corner;
        basis.wheels = { basis.study->after.front.wheel };
        maker = std::make_unique<design::Maker>(basis);
    }
};

void designMap(benchmark::State& state)
{
    const Designed d;
    for (auto _ : state)
        benchmark::DoNotOptimize(design::mapOf(*d.maker, d.maker->start(), 100).changes.size());
}
BENCHMARK(designMap)->Unit(benchmark::kMillisecond)->UseRealTime();

void designPoint(benchmark::State& state)
{
    const Designed d;
    const auto map = design::mapOf(*d.maker, d.maker->start(), 9);
    auto at = map.at;
    for (auto _ : state) {
        at.rotor += 1e-7;
        benchmark::DoNotOptimize(design::placeOf(*d.maker, map, at).level);
    }
}
BENCHMARK(designPoint)->Unit(benchmark::kMillisecond);

void designBorders(benchmark::State& state)
{
    const Designed d;
    const auto map = design::mapOf(*d.maker, d.maker->start(), 100);
    for (auto _ : state)
        benchmark::DoNotOptimize(design::bordersOf(*d.maker, map).size());
}
BENCHMARK(designBorders)->Unit(benchmark::kMillisecond)->UseRealTime();

void designBest(benchmark::State& state)
{
    const Designed d;
    const auto map = design::mapOf(*d.maker, d.maker->start(), 100);
    for (auto _ : state)
        benchmark::DoNotOptimize(design::bestOf(*d.maker, map, design::Aim::Rotor).proposal.has_value());
}
BENCHMARK(designBest)->Unit(benchmark::kMillisecond)->UseRealTime();

/// All of the shipped library for the front axle, in the wheel that is on, with the master cylinder there is; counters say how many kits
/// that are and how many were judged whole.
void searchShipped(benchmark::State& state)
{
    search::Query query;
    query.study = std::make_shared<const Study>(study(std::make_shared<const Build>(files::loadBuild(merle).build)));
    query.parts = search::partsFor(files::loadLibrary(DEEPSTOP_DATA "/library/parts.json"), *query.study->build, { "w17" });
    query.parts.masters.resize(1);
    for (auto _ : state) {
        const auto result = search::search(query);
        state.counters["kits"] = static_cast<double>(result.combinations);
        state.counters["go"] = static_cast<double>(result.kits.size());
    }
}
BENCHMARK(searchShipped)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(1);

} // namespace

BENCHMARK_MAIN();
