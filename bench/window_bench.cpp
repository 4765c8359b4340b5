/// How long the window takes, offscreen: from a key pressed in a dimension to the drawing painted again.

#include "main_window.hpp"
#include "theme.hpp"
#include "widgets/dimension_field.hpp"

#include <QApplication>
#include <QStandardPaths>
#include <QTest>

#include <benchmark/benchmark.h>

using namespace deepstop;
using namespace deepstop::app;

namespace {

/// Counts how often a widget was painted.
class Paints : public QObject {
public:
    using QObject::QObject;
    int count = 0;
    bool eventFilter(QObject*, QEvent* event) override
    {
        count += event->type() == QEvent::Paint;
        return false;
    }
};

void keystrokeToPaintedDrawing(benchmark::State& state, Stage stage, const char* pointer)
{
    MainWindow window;
    window.openDemo(MainWindow::demoFolder() + "/halden-merle.deepstop");
    window.resize(1280, 800);
    window.setStage(stage);
    window.show();
    QTest::qWait(100);
    auto* field = window.page(stage)->view()->field(pointer);
    field->setFocus();
    QTest::keyClick(field, Qt::Key_A, Qt::ControlModifier);
    QTest::keyClicks(field, "33");
    Paints paints;
    window.page(stage)->view()->installEventFilter(&paints);
    bool add = true;
    for (auto _ : state) {
        // A digit typed and taken back in turn, until the drawing has been painted with it.
        const int before = paints.count;
        QTest::keyClick(field, add ? Qt::Key_1 : Qt::Key_Backspace);
        add = !add;
        while (paints.count == before)
            QCoreApplication::processEvents();
    }
    window.document().undoStack().setClean();
}
BENCHMARK_CAPTURE(keystrokeToPaintedDrawing, wheelRoom, Stage::WheelRoom, "/setups/1/front/rotor/outer_diameter_mm")->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(keystrokeToPaintedDrawing, benchRotor, Stage::PartsBench, "/setups/1/front/rotor/outer_diameter_mm")->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(keystrokeToPaintedDrawing, heat, Stage::Heat, "/setups/1/front/rotor/thickness_mm")->Unit(benchmark::kMillisecond);

/// A handle dragged back and forth by a millimetre, until the drawing has been painted with it.
void dragToPaintedDrawing(benchmark::State& state, int place, const char* ending)
{
    MainWindow window;
    window.openDemo(MainWindow::demoFolder() + "/halden-merle.deepstop");
    window.resize(1280, 800);
    window.setStage(Stage::WheelRoom);
    window.page(Stage::WheelRoom)->setPlace(place);
    window.show();
    QTest::qWait(100);
    auto* view = window.page(Stage::WheelRoom)->view();
    const auto& handles = view->sheet().handles;
    const auto grip = *std::ranges::find_if(handles, [&](const Handle& h) { return h.pointer.ends_with(ending); });
    QTest::mousePress(view, Qt::LeftButton, {}, view->toScreen(grip.at).toPoint());
    Paints paints;
    view->installEventFilter(&paints);
    bool out = true;
    for (auto _ : state) {
        const int before = paints.count;
        QTest::mouseMove(view, view->toScreen(grip.at + grip.along * (out ? 4 : 3)).toPoint());
        out = !out;
        while (paints.count == before)
            QCoreApplication::processEvents();
    }
    QTest::keyClick(view, Qt::Key_Escape);
    window.document().undoStack().setClean();
}
BENCHMARK_CAPTURE(dragToPaintedDrawing, spacer, 0, "/spacer_mm")->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(dragToPaintedDrawing, profilePoint, 2, "/barrel/4/inside_radius_mm")->Unit(benchmark::kMillisecond);

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
