/// Build files of version 1: brought over without loss, and nothing in them proves more than it did.

#include "core/support.hpp"
#include "files/disk.hpp"

#include <nlohmann/json.hpp>

#include <set>

using namespace deepstop;
using nlohmann::json;

namespace {

json older(const char* name) { return json::parse(files::readFile(DEEPSTOP_TESTS "/data/version-1/" + std::string(name) + ".deepstop")); }
Build read(const json& file) { return files::parseBuild(file.dump()).build; }

/// Every number that stands in a file as a reading's value or plus-or-minus.
void collect(const json& from, std::multiset<double>& into)
{
    if (from.is_object() && from.contains("value") && from["value"].is_number())
        into.insert(from["value"].get<double>());
    if (from.is_structured())
        for (const auto& [key, value] : from.items())
            collect(value, into);
}

} // namespace

class OlderBuildsTest : public QObject {
    Q_OBJECT
private slots:
    void nothingThatWasReadIsLost()
    {
        for (const char* name : { "halden-merle", "linnet" }) {
            const json before = older(name);
            const auto file = files::parseBuild(before.dump());
            QVERIFY2(!file.unknown, name);
            const json after = json::parse(files::writeBuild(file));
            QCOMPARE(after["deepstop"].get<int>(), files::buildVersion);
            std::multiset<double> had;
            std::multiset<double> has;
            collect(before, had);
            collect(after, has);
            // Two axles' tyres on one wheel are one reading afterwards.
            for (const double value : std::set<double>(had.begin(), had.end()))
                QVERIFY2(has.contains(value) && (value == 311 || has.count(value) >= had.count(value)), qPrintable(QString::number(value)));
            // Written as it is today it comes back the same.
            QVERIFY(files::parseBuild(after.dump()).build == file.build);
        }
    }

    void whatWasReadOnceIsAnEstimateOnTheRight()
    {
        const Build build = read(older("halden-merle"));
        const Corner& corner = *build.setups[1].front;
        QVERIFY(near(*corner.left.slotCentre.value, -24.45e-3, 1e-9) && corner.left.slotCentre.known == Known::Measured);
        QVERIFY(near(*corner.right.slotCentre.value, -24.45e-3, 1e-9) && corner.right.slotCentre.known == Known::Estimated);
        QCOMPARE(corner.right.runout.known, Known::Estimated);
        // No plan was ever put in, so the stacks are those of both sides.
        QCOMPARE(corner.right.shimTop.known, Known::Measured);
        json planned = older("halden-merle");
        planned["mock_ups"][0]["passes"] = json::array({ { { "date", "2026-05-01" } } });
        QCOMPARE(read(planned).setups[1].front->right.shimTop.known, Known::Estimated);
        // Nothing is proven by it that one side alone had proven.
        const auto s = study(build);
        QVERIFY(s.headline.fits == Headline::Fits::Unproven);
        QCOMPARE(s.verdict("front/barrel-gap")->level, Level::Unproven);
    }

    void hydraulicsGoToTheCarAsFoundAndTyresToItsWheels()
    {
        const Build build = read(older("halden-merle"));
        QVERIFY(near(*build.setups[0].hydraulics->pedalRatio.value, 3.8, 1e-9));
        QVERIFY(!build.setups[1].hydraulics);
        QVERIFY(&hydraulicsOf(build, build.setups[1]) == &*build.setups[0].hydraulics);
        QVERIFY(near(*build.wheels[0].rollingRadius.value, 0.311, 1e-9) && build.wheels[0].grip.known == Known::Measured);
        // Nobody has said anything of tyres on a wheel that no setup runs.
        QVERIFY(!build.wheels[2].rollingRadius.value);
        json other = older("halden-merle");
        other["setups"][1]["front"]["wheel"] = "w18";
        QCOMPARE(read(other).wheels[1].grip.known, Known::Estimated);
    }

    void tyresOfTwoSizesOnOneWheelBecomeTwo()
    {
        const Build build = read(older("linnet"));
        const Wheel* front = findWheel(build, build.setups[0].front->wheel);
        const Wheel* rear = findWheel(build, build.setups[0].rear->wheel);
        QVERIFY(front && rear && front != rear);
        QVERIFY(near(*front->rollingRadius.value, 0.279, 1e-9) && near(*rear->rollingRadius.value, 0.286, 1e-9));
        QVERIFY(front->barrel == rear->barrel);
    }

    void aCarWithoutAWheelKeepsItsTyres()
    {
        json bare = { { "deepstop", 1 }, { "car", { { "grip", 0.9 }, { "front_tyre_radius_mm", 300 } } },
            { "setups", json::array({ { { "id", "as-found" } } }) } };
        const Build build = read(bare);
        QVERIFY(near(*findWheel(build, build.setups[0].front->wheel)->rollingRadius.value, 0.3, 1e-9));
        QVERIFY(near(*findWheel(build, build.setups[0].rear->wheel)->grip.value, 0.9, 1e-9));
    }

    void whatNobodyWroteDownIsNotSaid()
    {
        json bare = { { "deepstop", 1 },
            { "setups", json::array({ { { "id", "as-found" }, { "front", { { "rotor", json::object() } } } } }) } };
        const Corner corner = *read(bare).setups[0].front;
        QVERIFY(corner.rotor.ringMaterial == RingMaterial::Unknown && corner.caliper.kind == CaliperKind::Unknown);
        QVERIFY(corner.mount.shimMoves == Direction::Unknown);
    }

    void keysNobodyKnowsMoveAlong()
    {
        json file = older("halden-merle");
        file["hydraulics"]["hose_colour"] = "blue";
        file["setups"][1]["front"]["mount"]["slot_centre_mm"]["by"] = "both of us";
        const auto read = files::parseBuild(file.dump());
        const json after = json::parse(files::writeBuild(read));
        QCOMPARE(after["setups"][0]["hydraulics"]["hose_colour"].get<std::string>(), std::string("blue"));
        QCOMPARE(after["setups"][1]["front"]["left"]["slot_centre_mm"]["by"].get<std::string>(), std::string("both of us"));
    }
};

DEEPSTOP_TEST(OlderBuildsTest)
#include "older_builds_test.moc"
