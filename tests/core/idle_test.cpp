/// What a gap's uncertainty is made of, against moving every reading to its limits and asking again.

#include "build/address.hpp"
#include "core/support.hpp"
#include "chapters/clearance/wheel_figures.hpp"

#include <QTest>

#include <functional>

using namespace deepstop;

namespace {

/// A gap of the front corner: to a surface of the wheel, or from the first place that stands still.
using Gap = std::function<double(Evaluator&, const Build&)>;

Gap toWheel(WheelGap which)
{
    return [which](Evaluator& s, const Build& build) {
        const Corner& corner = *build.setups[1].front;
        return figures::wheelGap(s, which, corner, Side::Left, *findWheel(build, corner.wheel), build.wants);
    };
}

double fromPlace(Evaluator& s, const Build& build)
{
    const Corner& corner = *build.setups[1].front;
    return figures::keepOutGap(s, build.frontHub.keepOuts.front(), corner, findWheel(build, corner.wheel), build.frontHub, build.wants);
}

void nudge(Reading& reading, double by) { reading.value = *reading.value + by * between(-1, 1); }

/// The demo's front corner with its wheel pushed about: other stations, other places of what stands proud, other uncertainties, sometimes
/// struck, sometimes with lines that do not reach the barrel.
Build shaken(const Build& demo)
{
    Build build = demo;
    Corner& corner = *build.setups[1].front;
    Wheel& wheel = *std::ranges::find(build.wheels, corner.wheel, &Wheel::id);
    std::erase_if(wheel.barrel, [](const auto&) { return among(0, 7) == 0; });
    std::erase_if(wheel.spokes, [](const auto&) { return among(0, 7) == 0; });
    const auto unsure = [](Reading& reading) { reading.plusMinus = among(0, 3) == 0 ? between(0, 8e-3) : between(0, 0.4e-3); };
    for (BarrelStation& station : wheel.barrel) {
        nudge(station.depth, 6e-3);
        nudge(station.insideRadius, 4e-3);
        unsure(station.depth);
        unsure(station.insideRadius);
    }
    for (SpokeStation& station : wheel.spokes) {
        nudge(station.radius, 6e-3);
        nudge(station.distance, 4e-3);
        unsure(station.radius);
        unsure(station.distance);
    }
    for (Inset& inset : wheel.insets) {
        for (Reading* reading : { &inset.from, &inset.to }) {
            nudge(*reading, 4e-3);
            unsure(*reading);
        }
        inset.height.value = between(1e-3, 40e-3);
        inset.height.plusMinus = between(0, 0.9e-3);
    }
    for (Bump& bump : corner.caliper.bumps)
        for (Reading* reading : { &bump.overEdge, &bump.height, &bump.atDepth, &bump.width, &bump.fromMiddle }) {
            nudge(*reading, 5e-3);
            unsure(*reading);
        }
    nudge(corner.rotor.outerDiameter, 30e-3);
    nudge(corner.left.slotCentre, 15e-3);
    for (Reading* reading : { &build.frontHub.keepOuts.front().depth, &build.frontHub.keepOuts.front().radius }) {
        nudge(*reading, 25e-3);
        unsure(*reading);
    }
    corner.spacer = { between(0, 12e-3), 0.05e-3, Known::Vendor, {}, {} };
    return build;
}

} // namespace

class IdleTest : public QObject {
    Q_OBJECT
private slots:
    void everyEffectIsWhatMovingTheReadingDoes_data()
    {
        QTest::addColumn<Gap>("gap");
        QTest::newRow("barrel") << toWheel(WheelGap::Barrel);
        QTest::newRow("weights and valve") << toWheel(WheelGap::Insets);
        QTest::newRow("spokes") << toWheel(WheelGap::Spokes);
        QTest::newRow("place that stands still") << Gap(fromPlace);
    }
    void everyEffectIsWhatMovingTheReadingDoes()
    {
        QFETCH(Gap, gap);
        const Build demonstration = demo();
        int compared = 0;
        int moving = 0;
        int struck = 0;
        for (int i = 0; i < 250; ++i) {
            const auto known = numbered(std::make_shared<const Build>(i == 0 ? demonstration : shaken(demonstration)));
            const Build& build = *known;
            const Figure figure = evaluate([&](Evaluator& s) { return gap(s, build); });
            if (!figure.value)
                continue;
            struck += *figure.value < 0;
            const Directory directory(build);
            for (std::size_t k = 0; k < figure.restsOn.size(); ++k) {
                const auto* entry = directory.find(figure.restsOn[k]);
                const Reading& reading = *entry->reading;
                const auto& pointer = entry->address.pointer;
                double effect = 0;
                for (const double sign : { 1.0, -1.0 }) {
                    Reading moved = reading;
                    moved.value = *reading.value + sign * uncertainty(reading, true);
                    const Build there = withReading(build, pointer, moved);
                    const double size = nominal([&](Evaluator& s) { return gap(s, there); });
                    effect = std::isfinite(size) ? std::max(effect, std::abs(size - *figure.value)) : INFINITY;
                }
                QVERIFY2(figure.effects[k] == effect || std::abs(figure.effects[k] - effect) < 1e-12,
                    qPrintable(QStringLiteral("corner %1, %2: %3 but moving it does %4")
                                   .arg(i)
                                   .arg(QString::fromStdString(pointer))
                                   .arg(figure.effects[k])
                                   .arg(effect)));
                ++compared;
                moving += effect > 0;
            }
        }
        QVERIFY(compared > 5000);
        QVERIFY(moving > 300);
        QVERIFY(struck > 10);
    }
};

DEEPSTOP_TEST(IdleTest)
#include "idle_test.moc"
