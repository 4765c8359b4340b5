/// The car's life: what was on when, wear that runs to its end, what is due, a calendar that folds.

#include "core/support.hpp"
#include "logbook/logbook.hpp"

#include <QTest>

#include <cmath>

using namespace deepstop;
using namespace deepstop::logbook;

namespace {

Reading read(double value) { return { value, {}, Known::Measured, {}, {} }; }

LogEntry entry(const char* date, double km, LogEvent event, const char* setup = "")
{
    LogEntry e;
    e.date = date;
    e.odometer = read(km * 1000);
    e.event = event;
    e.setup = setup;
    return e;
}

LogEntry worn(const char* date, double km, double lining)
{
    LogEntry e = entry(date, km, LogEvent::Measured);
    e.wear.push_back({ Axle::Front, Side::Left, read(lining * 1e-3), {} });
    return e;
}

} // namespace

class LogbookTest : public QObject {
    Q_OBJECT
private slots:
    void datesGoByTheCalendar()
    {
        QCOMPARE(*dayOf("1970-01-01"), 0);
        QCOMPARE(*dayOf("2026-03-14"), 20526);
        QCOMPARE(dateOf(20526), "2026-03-14");
        QVERIFY(!dayOf("2026-02-30") && !dayOf("soon") && !dayOf(""));
        QCOMPARE(dateOf(*dayOf("2024-02-28") + 1), "2024-02-29");
    }

    void itIsKnownWhatWasOnTheCar()
    {
        Build b = demo();
        b.log = { entry("2026-05-20", 200, LogEvent::PartsOn, "as-found"), entry("2026-05-01", 100, LogEvent::PartsOn, "varnik-330") };
        QCOMPARE(onCar(b, "2026-04-30")->id, "as-found");
        QCOMPARE(onCar(b, "2026-05-01")->id, "varnik-330");
        QCOMPARE(onCar(b, "2026-05-19")->id, "varnik-330");
        QCOMPARE(onCar(b, "2026-05-20")->id, "as-found");
    }

    /// 10 mm at 0 and 8 mm at 10,000 km, minimum 2 mm: 40,000 km, by hand. How sure that is, the readings' own widths say.
    void wearRunsToItsMinimum()
    {
        Build b = demo();
        b.log = { worn("2026-01-01", 0, 10), worn("2026-04-11", 10'000, 8) };
        b.setups[0].front->pad.minimumThickness = read(2e-3);
        const auto wear = wearOf(b);
        QCOMPARE(wear.size(), std::size_t { 1 });
        QVERIFY(near(*wear[0].endsAt, 40e6, 1e-9));
        QVERIFY(*wear[0].endsEarliest < *wear[0].endsAt && *wear[0].endsOnEarliest < *wear[0].endsOn);
        // Reminded of is the early end, and a coarser reading makes it earlier.
        const auto due = [&](const Build& build) {
            const auto all = remindersOf(build);
            return std::ranges::find_if(all, [](const Reminder& r) { return r.id == "wear-front-left-lining"; })->day;
        };
        QCOMPARE(due(b), *wear[0].endsOnEarliest);
        Build coarse = b;
        for (LogEntry& e : coarse.log)
            e.wear[0].lining.plusMinus = 1e-3;
        QVERIFY(due(coarse) < due(b));
        // Readings that may not have worn at all may have: the early end is there.
        coarse.log[1].wear[0].lining.value = 10.1e-3;
        QVERIFY(!wearOf(coarse)[0].endsAt && wearOf(coarse)[0].endsEarliest);
        QCOMPARE(dateOf(*wear[0].endsOn), dateOf(*dayOf("2026-04-11") + 300));
        b.log.push_back(worn("2026-06-01", 15'000, 7.2));
        const auto three = wearOf(b);
        QVERIFY(three[0].endsEarliest && *three[0].endsEarliest < *three[0].endsAt);
        // Nobody has read the minimum: no end, and why.
        b.setups[0].front->pad.minimumThickness = {};
        QVERIFY(!wearOf(b)[0].endsAt && wearOf(b)[0].lacks.find("minimum") != std::string::npos);
        b.log.resize(1);
        QVERIFY(!wearOf(b)[0].endsAt && wearOf(b)[0].lacks.find("second") != std::string::npos);
    }

    /// Two to ten readings, each off by up to half a millimetre: the earliest end is missed in at most 5 of 100.
    void theEarliestEndIsSeldomMissed()
    {
        std::mt19937 rng(3);
        std::normal_distribution<double> normal(0, 1);
        Build b = demo();
        b.setups[0].front->pad.minimumThickness = read(2e-3);
        for (const int readings : { 2, 3, 5, 10 }) {
            int missed = 0;
            constexpr int lives = 400;
            for (int i = 0; i < lives; ++i) {
                b.log.clear();
                // 12 mm new, 0.25 mm a thousand kilometres: 2 mm at 40,000 km.
                for (int k = 0; k < readings; ++k) {
                    const double km = 2000.0 * (k + 1);
                    b.log.push_back(worn(dateOf(20'000 + 30 * k).c_str(), km, 12 - km * 0.25e-3 + 0.5 / 1.96 * normal(rng)));
                    b.log.back().wear[0].lining.plusMinus = 0.5e-3;
                }
                const auto wear = wearOf(b).front();
                missed += wear.endsEarliest && *wear.endsEarliest > 40e6;
            }
            QVERIFY2(missed <= 0.05 * lives, (QByteArray::number(readings) + ": " + QByteArray::number(missed)).constData());
        }
    }

    /// New parts begin anew: what was read of the old does not count for them. What got thicker has not worn.
    void newPartsBeginAnew()
    {
        Build b = demo();
        b.log = { worn("2026-01-01", 0, 10), worn("2026-02-01", 5'000, 6), entry("2026-03-01", 6'000, LogEvent::PartsOn, "varnik-330"),
            worn("2026-03-02", 6'010, 17), worn("2026-06-01", 9'000, 17.4) };
        const auto wear = wearOf(b);
        QCOMPARE(wear[0].points.size(), std::size_t { 2 });
        QVERIFY(!wear[0].endsAt && wear[0].lacks.size() > 5);
    }

    void whatIsDueComesAndGoes()
    {
        Build b = demo();
        b.log = { entry("2026-05-01", 100, LogEvent::PartsOn, "varnik-330"), entry("2026-05-01", 100, LogEvent::Fluid) };
        auto due = remindersOf(b);
        const auto find = [&](const char* id) { return std::ranges::find(due, id, &Reminder::id); };
        QCOMPARE(dateOf(find("first-drive")->day), "2026-05-02");
        QVERIFY(!find("first-drive")->done);
        QCOMPARE(dateOf(find("fluid")->day), "2028-04-30");
        b.log.push_back(entry("2026-05-03", 130, LogEvent::TorqueCheck));
        b.log.push_back(entry("2026-05-10", 300, LogEvent::TrackDay));
        due = remindersOf(b);
        // The first look is not the second.
        QVERIFY(find("first-drive")->done && !find("again")->done);
        QCOMPARE(dateOf(find("fluid")->day), "2027-05-01"); // it sees a track now
        b.log.push_back(entry("2026-05-14", 210, LogEvent::TorqueCheck));
        due = remindersOf(b);
        QVERIFY(find("again")->done);
        QVERIFY(remindersOf(Build {}).empty());
    }

    void anHourCostsWhatItCosts()
    {
        Build b = demo();
        b.log.clear();
        QVERIFY(!costPerTrackHour(b));
        LogEntry e = entry("2026-05-01", 1, LogEvent::TrackDay);
        e.hours = read(5400);
        b.log.push_back(e);
        QVERIFY(!costPerTrackHour(b));
        b.log[0].cost = read(300);
        QVERIFY(near(*costPerTrackHour(b), 200, 1e-12));
    }

    void theCalendarIsFolded()
    {
        Build b = demo();
        b.car.name = "A car with a very long name; with, commas and an ä that must not be cut anywhere at all";
        b.log = { entry("2026-05-01", 100, LogEvent::PartsOn, "varnik-330") };
        const auto ics = calendarOf(b, "20260501T120000Z");
        QVERIFY(ics.starts_with("BEGIN:VCALENDAR\r\n") && ics.ends_with("END:VCALENDAR\r\n"));
        std::size_t at = 0;
        while (at < ics.size()) {
            const auto end = ics.find("\r\n", at);
            QVERIFY(end != std::string::npos && end - at <= 75);
            QVERIFY((static_cast<unsigned char>(ics[at]) & 0xC0) != 0x80);
            at = end + 2;
        }
        QVERIFY(ics.find("\\;") != std::string::npos && ics.find("\\,") != std::string::npos);
    }
};

DEEPSTOP_TEST(LogbookTest)
#include "logbook_test.moc"
