/// How long the window takes, offscreen: from a key pressed in a dimension to the drawing painted again.

#include "window/main_window.hpp"
#include "stages/balance/balance_page.hpp"
#include "stages/bench/bench_page.hpp"
#include "stages/centring/centring_page.hpp"
#include "stages/heat/heat_page.hpp"
#include "stages/search/search_page.hpp"
#include "stages/single_pages.hpp"
#include "library_store.hpp"
#include "widgets/library_window.hpp"
#include "library/library_file.hpp"
#include "stages/wheel/wheel_page.hpp"
#include "theme.hpp"
#include "drawing/dimension_field.hpp"

#include <QApplication>
#include <QDir>
#include <QElapsedTimer>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QStandardPaths>
#include <QTableView>
#include <QTest>
#include <QTextBrowser>
#include <QThread>

#include <benchmark/benchmark.h>
#include <fmt/format.h>

#include <random>

using namespace deepstop;
using namespace deepstop::app;

namespace {

/// Counts how often a widget was painted, and when the window that it lies in was done with painting.
class Paints : public QObject {
public:
    explicit Paints(QWidget* watched) : watched_(watched)
    {
        watched->installEventFilter(this);
        watched->window()->installEventFilter(this);
    }
    int count = 0;
    QElapsedTimer since;
    double last = 0; ///< ms from `since` to when the last one was done
    bool eventFilter(QObject* of, QEvent* event) override
    {
        if (of == watched_ && event->type() == QEvent::Paint)
            painted_ = true;
        if (of != watched_->window() || event->type() != QEvent::UpdateRequest || painting_)
            return false;
        painting_ = true;
        painted_ = false;
        QCoreApplication::sendEvent(of, event);
        painting_ = false;
        if (painted_) {
            ++count;
            last = static_cast<double>(since.nsecsElapsed()) * 1e-6;
        }
        return true;
    }

private:
    QWidget* watched_;
    bool painting_ = false;
    bool painted_ = false;
};

/// The hardest car for the shims: radial mounts on all four corners, each mocked up with its pads, from the demo's own drawer.
Build radialCar(Build build)
{
    auto& setup = build.setups[1];
    setup.front->mount.kind = MountKind::Radial;
    setup.rear = setup.front;
    const auto first = build.mockUps.front();
    build.mockUps.clear();
    for (const Axle axle : { Axle::Front, Axle::Rear })
        for (const Side side : { Side::Left, Side::Right }) {
            auto m = first;
            m.axle = axle;
            m.side = side;
            const double off = 1e-4 * static_cast<double>(build.mockUps.size());
            m.innerTop.value = *m.innerTop.value + off;
            m.outerTop.value = *m.outerTop.value - off;
            m.padEdgeTop = { 0.9e-3 + off, 0.03e-3, Known::Measured, "vernier", {} };
            m.padEdgeBottom = { 0.7e-3 + off, 0.03e-3, Known::Measured, "vernier", {} };
            build.mockUps.push_back(m);
        }
    return build;
}

/// Lists as long as the table of fields lets them be.
Build longestLists(Build build)
{
    Wheel& wheel = build.wheels.front();
    wheel.barrel.clear();
    wheel.spokes.clear();
    for (int i = 0; i < 1000; ++i) {
        const auto read = [](double si) { return Reading { si, {}, Known::Measured, "vernier", {} }; };
        wheel.barrel.push_back({ read(0.18 - 0.0002 * i), read(0.197) });
        wheel.spokes.push_back({ read(0.06 + 0.00012 * i), read(0.058), YesNo::Unknown, "middle" });
    }
    while (build.wheels.size() < 200) {
        auto more = build.wheels[1];
        more.id = "more-" + std::to_string(build.wheels.size());
        build.wheels.push_back(std::move(more));
    }
    return build;
}

/// Between two keys even the fastest hand leaves time for what comes after the drawing.
void rest(MainWindow& window)
{
    window.document().settle();
    for (int i = 0; i < 3; ++i)
        QCoreApplication::processEvents();
}

void keystrokeToPaintedDrawing(benchmark::State& state, StageId stage, const char* pointer, Build (*changed)(Build) = nullptr)
{
    MainWindow window;
    window.openDemo(MainWindow::demoFolder() + "/halden-merle.deepstop");
    if (changed)
        window.document().edit(QStringLiteral("changed"), changed);
    window.resize(1280, 800);
    window.setStage(stage);
    window.show();
    QTest::qWait(100);
    auto* field = window.page(stage)->view()->field(pointer);
    field->setFocus();
    QTest::keyClick(field, Qt::Key_A, Qt::ControlModifier);
    QTest::keyClicks(field, "33");
    Paints paints(window.page(stage)->view());
    bool add = true;
    double longest = 0;
    for (auto _ : state) {
        paints.since.start();
        // A digit typed and taken back in turn, until the drawing has been painted with it.
        const int before = paints.count;
        QTest::keyClick(field, add ? Qt::Key_1 : Qt::Key_Backspace);
        add = !add;
        while (paints.count == before)
            QCoreApplication::processEvents();
        const double took = paints.last;
        longest = std::max(longest, took);
        state.SetIterationTime(took * 1e-3);
        rest(window);
    }
    state.counters["longest_ms"] = longest;
    window.document().undoStack().setClean();
}
BENCHMARK_CAPTURE(keystrokeToPaintedDrawing, radialCar, CentringPage::id, "/mock_ups/0/inner_top_mm", radialCar)
    ->Unit(benchmark::kMillisecond)
    ->UseManualTime()
    ->Iterations(100);
BENCHMARK_CAPTURE(keystrokeToPaintedDrawing, longestLists, WheelPage::id, "/setups/1/front/rotor/outer_diameter_mm", longestLists)
    ->Unit(benchmark::kMillisecond)
    ->UseManualTime()
    ->Iterations(100);
BENCHMARK_CAPTURE(keystrokeToPaintedDrawing, wheelRoom, WheelPage::id, "/setups/1/front/rotor/outer_diameter_mm")
    ->Unit(benchmark::kMillisecond)
    ->UseManualTime()
    ->Iterations(100);
BENCHMARK_CAPTURE(keystrokeToPaintedDrawing, benchRotor, BenchPage::id, "/setups/1/front/rotor/outer_diameter_mm")
    ->Unit(benchmark::kMillisecond)
    ->UseManualTime()
    ->Iterations(100);
BENCHMARK_CAPTURE(keystrokeToPaintedDrawing, heat, HeatPage::id, "/setups/1/front/rotor/thickness_mm")
    ->Unit(benchmark::kMillisecond)
    ->UseManualTime()
    ->Iterations(100);

/// A reading put in: the whole study with its ways out, and what is seen of it painted. So long the window is blocked by Enter.
void enterToPaintedDrawing(benchmark::State& state, StageId stage, const char* pointer, Build (*changed)(Build))
{
    MainWindow window;
    window.openDemo(MainWindow::demoFolder() + "/halden-merle.deepstop");
    if (changed)
        window.document().edit(QStringLiteral("changed"), changed);
    window.resize(1280, 800);
    window.setStage(stage);
    window.show();
    QTest::qWait(100);
    double longest = 0;
    double value = *window.document().study().directory->at(pointer)->reading->value;
    for (auto _ : state) {
        QElapsedTimer timer;
        timer.start();
        window.document().setReading(pointer, { value += 1e-6, {}, Known::Measured, "vernier", {} });
        QCoreApplication::processEvents();
        const double took = static_cast<double>(timer.nsecsElapsed()) * 1e-6;
        longest = std::max(longest, took);
        state.SetIterationTime(took * 1e-3);
        rest(window);
    }
    state.counters["longest_ms"] = longest;
    window.document().undoStack().setClean();
}
BENCHMARK_CAPTURE(enterToPaintedDrawing, radialCar, CentringPage::id, "/mock_ups/0/inner_top_mm", radialCar)
    ->Unit(benchmark::kMillisecond)
    ->UseManualTime()
    ->Iterations(100);
BENCHMARK_CAPTURE(enterToPaintedDrawing, longestLists, WheelPage::id, "/setups/1/front/rotor/outer_diameter_mm", longestLists)
    ->Unit(benchmark::kMillisecond)
    ->UseManualTime()
    ->Iterations(100);

/// A handle dragged back and forth by a millimetre, until the drawing has been painted with it.
void dragToPaintedDrawing(benchmark::State& state, StageId stage, int place, const char* ending)
{
    MainWindow window;
    window.openDemo(MainWindow::demoFolder() + "/halden-merle.deepstop");
    window.resize(1280, 800);
    window.setStage(stage);
    window.page(stage)->setPlace(place);
    window.show();
    QTest::qWait(100);
    auto* view = window.page(stage)->view();
    const auto& handles = view->sheet().handles;
    const auto grip = *std::ranges::find_if(handles, [&](const Handle& h) { return h.pointer.ends_with(ending); });
    QTest::mousePress(view, Qt::LeftButton, {}, view->toScreen(grip.at).toPoint());
    Paints paints(view);
    bool out = true;
    double longest = 0;
    // Far enough that the dragged value is another one.
    const double by = std::max(1.0, 1.5 * grip.step / std::abs(grip.metresPerMillimetre));
    for (auto _ : state) {
        paints.since.start();
        const int before = paints.count;
        QTest::mouseMove(view, view->toScreen(grip.at + grip.along * (3 + (out ? by : 0))).toPoint());
        out = !out;
        while (paints.count == before)
            QCoreApplication::processEvents();
        const double took = paints.last;
        longest = std::max(longest, took);
        state.SetIterationTime(took * 1e-3);
        rest(window);
    }
    state.counters["longest_ms"] = longest;
    QTest::keyClick(view, Qt::Key_Escape);
    window.document().undoStack().setClean();
}
BENCHMARK_CAPTURE(dragToPaintedDrawing, spacer, WheelPage::id, 0, "/spacer_mm")
    ->Unit(benchmark::kMillisecond)
    ->UseManualTime()
    ->Iterations(100);
BENCHMARK_CAPTURE(dragToPaintedDrawing, profilePoint, WheelPage::id, 2, "/barrel/4/inside_radius_mm")
    ->Unit(benchmark::kMillisecond)
    ->UseManualTime()
    ->Iterations(100);
BENCHMARK_CAPTURE(dragToPaintedDrawing, knee, BalancePage::id, BalancePage::Split, "/rear_knee_bar")
    ->Unit(benchmark::kMillisecond)
    ->UseManualTime()
    ->Iterations(100);
BENCHMARK_CAPTURE(dragToPaintedDrawing, masterBore, BalancePage::id, BalancePage::Pedal, "/master_bore_mm")
    ->Unit(benchmark::kMillisecond)
    ->UseManualTime()
    ->Iterations(100);

/// 50,000 parts, each a little other than one of the shipped library.
library::Library hugeLibrary(std::size_t each)
{
    const auto shipped =
        files::loadLibrary(std::filesystem::path(MainWindow::demoFolder().toStdString()).parent_path() / "library" / "parts.json");
    library::Library huge;
    std::mt19937 rng(5);
    std::uniform_real_distribution<double> off(-3e-3, 3e-3);
    const auto fill = [&](auto& shelf, const auto& from, auto change) {
        for (std::size_t i = 0; i < each; ++i) {
            auto part = from[i % from.size()];
            part.id += fmt::format("-{}", i);
            change(part.part);
            shelf.push_back(std::move(part));
        }
    };
    const auto shift = [&](Reading& reading) {
        if (reading.value)
            *reading.value += off(rng);
    };
    fill(huge.rotors, shipped.rotors, [&](Rotor& rotor) { shift(rotor.outerDiameter); });
    fill(huge.calipers, shipped.calipers, [&](Caliper& caliper) { shift(caliper.padWindow); });
    fill(huge.pads, shipped.pads, [&](Pad& pad) { shift(pad.length); });
    fill(huge.wheels, shipped.wheels, [&](Wheel& wheel) { shift(wheel.offset); });
    fill(huge.masters, shipped.masters, [&](library::MasterCylinder& master) { shift(master.stroke); });
    return huge;
}

/// A library of 50,000 parts shown, filtered, searched until the first kits are there, cancelled, and one kit asked about. Its time is the
/// longest that the window did not answer.
void hugeLibraryAnswers(benchmark::State& state)
{
    QStandardPaths::setTestModeEnabled(true);
    const QString path = LibraryStore().path();
    QDir().mkpath(QFileInfo(path).path());
    files::saveLibrary(path.toStdString(), hugeLibrary(static_cast<std::size_t>(state.range(0)) / 5));
    double blocked = 0;
    const auto until = [&](const char* what, auto done) {
        QElapsedTimer all;
        all.start();
        double longest = 0;
        constexpr qint64 patience = 120'000;
        while (!done() && all.elapsed() < patience) {
            QElapsedTimer one;
            one.start();
            QCoreApplication::processEvents();
            longest = std::max(longest, static_cast<double>(one.nsecsElapsed()) * 1e-6);
            QThread::msleep(1);
        }
        blocked = std::max(blocked, longest);
        state.counters[std::string(what) + "_blocked_ms"] = longest;
        state.counters[std::string(what) + "_ms"] = static_cast<double>(all.elapsed());
    };
    const auto at = [&](const char* what, auto does, auto done) {
        QElapsedTimer one;
        one.start();
        does();
        const double took = static_cast<double>(one.nsecsElapsed()) * 1e-6;
        until(what, done);
        blocked = std::max(blocked, took);
        state.counters[std::string(what) + "_click_ms"] = took;
    };
    for (auto _ : state) {
        MainWindow window;
        window.openDemo(MainWindow::demoFolder() + "/halden-merle.deepstop");
        window.resize(1280, 800);
        window.setStage(BenchPage::id);
        window.show();
        QTest::qWait(200);
        LibraryWindow* shown = nullptr;
        at(
            "shown", [&] { shown = window.showLibrary(); }, [&] { return shown->list()->count() > 20; });
        at(
            "filtered", [&] { QTest::keyClicks(shown->search(), "pillar 325"); }, [&] { return shown->list()->count() > 0; });
        shown->close();
        window.setStage(SearchPage::id);
        auto* page = dynamic_cast<SearchPage*>(window.page());
        at(
            "searched", [&] { QTest::mouseClick(page->searchButton(), Qt::LeftButton); },
            [&] { return page->table()->model()->rowCount() > 0; });
        at(
            "cancelled", [&] { QTest::mouseClick(page->cancelButton(), Qt::LeftButton); }, [&] { return !page->isSearching(); });
        at(
            "why", [&] { page->setPlace(SearchPage::WhyNot); }, [&] { return page->whyText()->toPlainText().size() > 40; });
        state.SetIterationTime(blocked * 1e-3);
    }
    QFile::remove(path);
}
BENCHMARK(hugeLibraryAnswers)->Arg(500)->Arg(50'000)->Unit(benchmark::kMillisecond)->UseManualTime()->Iterations(1);

} // namespace

int main(int argc, char** argv)
{
    if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM"))
        qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication application(argc, argv);
    QStandardPaths::setTestModeEnabled(true);
    loadFonts();
    setDark(false);
    benchmark::Initialize(&argc, argv);
    benchmark::RunSpecifiedBenchmarks();
    return 0;
}
