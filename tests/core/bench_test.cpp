/// The parts bench: what meets what, what was in the box, what it weighs and how it compares, and what is still to be asked.

#include "chapters/weights/weights_chapter.hpp"
#include "build/address.hpp"
#include "core/support.hpp"
#include "geometry/lining.hpp"
#include "joints/thread.hpp"
#include "report/ask.hpp"
#include "report/letters.hpp"
#include "chapters/weights/comparison.hpp"
#include "chapters/parts/receiving.hpp"

#include <QTest>

#include <set>

using namespace deepstop;

namespace {

Corner& kit(Build& build) { return *build.setups[1].front; }

void set(Reading& reading, double millimetres)
{
    reading.value = millimetres * 1e-3;
    reading.plusMinus.reset();
    reading.repeats.clear();
}

bool names(const std::string& text, const std::string& part) { return text.find(part) != std::string::npos; }

Level levelOf(const Build& build, const char* id)
{
    const auto s = study(build);
    return s.verdict(id)->level;
}

/// The line of the check list that a person answers.
const ReceivingItem& item(const std::vector<ReceivingItem>& items, const std::string& id)
{
    return *std::ranges::find(items, id, &ReceivingItem::id);
}

/// Lining of the demo's kit: 112 × 48 mm with ends along radii, on a rotor of 330 mm.
double padOfTheKit()
{
    const double inset = *demo().setups[1].front->left.padInset.value;
    return geometry::liningBetweenRadii(0.165 - inset, 0.048, 0.112);
}

} // namespace

class BenchTest : public QObject {
    Q_OBJECT
private slots:
    void theMerlesKitGoesOn()
    {
        const auto s = study(demo());
        QCOMPARE(s.worst({ "parts", "weights" })->level, Level::Good);
        QVERIFY(report::faultLetter(s).empty());
    }

    /// What came on the car and stays on it is not as thick as new because nobody has looked.
    void whatStaysOnTheCarHasWorn()
    {
        Build build = demo();
        const auto lining = [&] {
            return *study(std::make_shared<const Build>(build), { {}, "as-found" }, UnitSystem::Metric, Remedies::LeftOut)
                        .verdict("front/worn-pad");
        };
        QCOMPARE(lining().level, Level::Unproven);
        QVERIFY2(lining().reason.find("as thick as new") != std::string::npos, lining().reason.c_str());
        for (const Side side : { Side::Left, Side::Right })
            build.setups[0].front->at(side).liningThickness = { 8e-3, 0.1e-3, Known::Measured, "vernier", {} };
        QCOMPARE(lining().level, Level::Good);
        // Of what is taken off nothing hangs on it.
        QCOMPARE(study(demo()).verdict("front/worn-pad-found")->level, Level::Good);
    }

    /// Two metals are two pieces.
    void aCastingIsOfOneMetal()
    {
        Build build = demo();
        QVERIFY(!study(build).verdict("front/construction"));
        build.setups[1].front->rotor.construction = RotorBuild::OnePiece;
        QCOMPARE(study(build).verdict("front/construction")->level, Level::Caution);
    }

    void aBoreTooSmallIsFoundAndNamed()
    {
        auto build = demo();
        set(kit(build).rotor.bore, 65.0);
        const auto s = study(build);
        const Verdict& v = *s.verdict("front/bore");
        QCOMPARE(v.level, Level::Stop);
        QVERIFY2(names(v.reason, "1.40 mm too small"), v.reason.c_str());
        QVERIFY(names(s.summary, "Does not fit"));
        QVERIFY(names(report::faultLetter(s), "Rotor bore over the hub pilot"));
        // Only just passing is not called good, and far too wide is not centred.
        set(kit(build).rotor.bore, 66.43);
        QCOMPARE(levelOf(build, "front/bore"), Level::Caution);
        set(kit(build).rotor.bore, 67.5);
        QCOMPARE(levelOf(build, "front/bore"), Level::Caution);
    }

    void wrongBoltsAreFoundAndNamed()
    {
        auto build = demo();
        kit(build).bracket.boltThread = "M12x1.75";
        const auto s = study(build);
        QCOMPARE(s.verdict("front/bolt-thread")->level, Level::Stop);
        QVERIFY2(names(s.verdict("front/bolt-thread")->reason, "M12 × 1.75 does not go with thread of the knuckle's lugs M14 × 1.5"),
            s.verdict("front/bolt-thread")->reason.c_str());
        kit(build).bracket.boltThread = {};
        QCOMPARE(levelOf(build, "front/bolt-thread"), Level::Unproven);
        kit(build).bracket.boltThread = "the long ones";
        QCOMPARE(levelOf(build, "front/bolt-thread"), Level::Unproven);
    }

    void twoFrontHosesAreFoundAndNamed()
    {
        auto build = demo();
        build.setups[1].rear = *build.setups[0].rear;
        set(build.setups[1].rear->hose.length, 350);
        const auto s = study(build);
        const Verdict& v = *s.verdict("rear/hose-length");
        QCOMPARE(v.level, Level::Stop);
        QVERIFY2(names(v.reason, "does not reach") && names(v.reason, "two front hoses"), v.reason.c_str());
        QCOMPARE(s.verdict("front/hose-length")->level, Level::Good);
        QVERIFY(names(report::faultLetter(s), "two front hoses"));
    }

    void oneLeftRotorTwiceIsFoundAndNamed()
    {
        auto build = demo();
        const auto s = study(build);
        build = *received(s.after.setup->id, "front/right/rotor-hand", Checked::Open, WhichHand::Left, "stamped L")(build);
        const auto after = study(build);
        const auto items = receivingOf(after, Axle::Front);
        QCOMPARE(item(items, "front/left/rotor-hand").state, Checked::Fine);
        const auto& wrong = item(items, "front/right/rotor-hand");
        QCOMPARE(wrong.state, Checked::Fault);
        QVERIFY2(names(wrong.said, "two left rotors in the box"), wrong.said.c_str());
        QCOMPARE(after.verdict("front/received")->level, Level::Stop);
        QVERIFY(names(report::faultLetter(after), "two left rotors in the box") && names(report::faultLetter(after), "stamped L"));
        // Who has the part in hand may overrule a check that found nothing.
        const auto overruled = study(
            *received(study(demo()).after.setup->id, "front/both/pad-window", Checked::Fault, WhichHand::Unknown, "ears bent")(demo()));
        QCOMPARE(overruled.verdict("front/pad-window")->level, Level::Good);
        QCOMPARE(overruled.verdict("front/received")->level, Level::Stop);
        QVERIFY(names(report::faultLetter(overruled), "Pads in their opening (front axle): ears bent"));
        // A rotor that fits either side is not asked for its hand.
        kit(build).rotor.handed = Handed::Either;
        const auto either = receivingOf(study(build), Axle::Front);
        QVERIFY(std::ranges::none_of(either, [](const ReceivingItem& i) { return i.id.ends_with("rotor-hand"); }));
    }

    void aDrumEightMillimetresTooLargeIsFoundAndNamed()
    {
        auto build = demo();
        build.setups[1].rear = *build.setups[0].rear;
        QCOMPARE(levelOf(build, "rear/drum"), Level::Good);
        set(build.setups[1].rear->rotor.drumDiameter, 176);
        const auto s = study(build);
        QCOMPARE(s.verdict("rear/drum")->level, Level::Stop);
        QVERIFY2(names(s.verdict("rear/drum")->reason, "cannot reach the drum: 8.0 mm too large"), s.verdict("rear/drum")->reason.c_str());
        set(build.setups[1].rear->rotor.drumDiameter, 166);
        QVERIFY(names(study(build).verdict("rear/drum")->reason, "does not go over the shoes"));
        // Without such a parking brake nobody asks.
        build.rearHub.parkingBrake = ParkingBrake::InCaliper;
        QVERIFY(!study(build).verdict("rear/drum"));
    }

    void misfitsOfEveryKindAreStops_data()
    {
        QTest::addColumn<QString>("verdict");
        QTest::addColumn<int>("which");
        int i = 0;
        for (const char* id : { "front/hub-pocket", "front/bolt-circle", "front/bolt-circle", "front/bolt-circle", "front/mount-spacing",
                 "front/mount-spacing", "front/hose-thread", "front/pad-slot", "front/pad-window", "front/worn-rotor",
                 "front/worn-rotor-found", "front/worn-pad-found", "front/runout", "front/thickness-variation" })
            QTest::addRow("%d %s", i, id) << id << i, ++i;
    }
    void misfitsOfEveryKindAreStops()
    {
        QFETCH(QString, verdict);
        QFETCH(int, which);
        auto build = demo();
        Corner& c = kit(build);
        Corner& found = *build.setups[0].front;
        switch (which) {
        case 0:
            set(c.rotor.pocketDiameter, 137);
            break;
        case 1:
            set(c.rotor.boltCircle, 114.3);
            break;
        case 2:
            c.rotor.boltHoles = 4;
            break;
        case 3:
            set(c.rotor.boltHoleDiameter, 11.5);
            break;
        case 4:
            set(c.bracket.knuckleSpacing, 140);
            break;
        case 5:
            set(c.caliper.mountSpacing, 165);
            break;
        case 6:
            c.hose.caliperEnd = "3/8-24";
            break;
        case 7:
            set(c.caliper.padRoom, 58);
            break;
        case 8:
            set(c.caliper.padWindow, 110);
            break;
        case 9:
            set(c.rotor.thickness, 25.8);
            break;
        case 10:
            set(found.rotor.thickness, 22.9);
            break;
        case 11:
            set(found.pad.thickness, 1.5);
            break;
        case 12:
            set(c.left.runout, 0.15);
            break;
        case 13:
            c.rotor.thickness = repeated(c.rotor.thickness, { 28.00e-3, 28.02e-3, 28.04e-3, 27.99e-3 });
            break;
        }
        const auto s = study(build);
        QVERIFY(s.verdict(verdict.toStdString()));
        QVERIFY2(s.verdict(verdict.toStdString())->level == Level::Stop, s.verdict(verdict.toStdString())->reason.c_str());
    }

    /// Deleting a reading leaves every verdict alone that did not rest on it, and the ask list names it where one did.
    void deletingAReadingTouchesOnlyWhatRestsOnIt()
    {
        for (const char* name : { "halden-merle", "linnet" }) {
            const auto build = demo(name);
            const auto base = study(build);
            int moved = 0;
            for (const auto& entry : base.directory->entries()) {
                const auto& pointer = entry.address.pointer;
                if (!entry.reading->value || pointer.starts_with("/wheels/") || pointer.starts_with("/drawer/")
                    || pointer.starts_with("/wants/") || pointer.starts_with("/tests/") || isOneOfMany(pointer))
                    continue;
                const auto s = study(withReading(build, pointer, {}));
                const ReadingId gone = *s.directory->at(pointer)->reading;
                bool matters = false;
                for (const Verdict& v : base.verdicts) {
                    const auto rests = [&](const Verdict& on, ReadingId what) {
                        return std::ranges::find(on.figure.restsOn, what) != on.figure.restsOn.end();
                    };
                    const Verdict* after = s.verdict(v.id);
                    // What the check list repeats is the check's own business.
                    if (v.id.ends_with("/received") || v.id.starts_with("stop/measured"))
                        continue;
                    if (!rests(v, *entry.reading)) {
                        QVERIFY2(after && after->level == v.level && after->figure.value == v.figure.value,
                            (pointer + " moved " + v.id).c_str());
                    } else if (after && std::ranges::find(after->figure.lacks, gone) != after->figure.lacks.end()) {
                        matters = true;
                        QVERIFY2(!after->figure.value && (after->level == Level::Unproven || isBad(after->level)),
                            (pointer + " / " + v.id).c_str());
                    }
                }
                const auto asks = report::asksOf(s);
                const auto ask = std::ranges::find(asks, pointer, &report::Ask::pointer);
                QCOMPARE(ask != asks.end(), matters);
                if (matters)
                    QCOMPARE(ask->now, std::string("missing"));
                moved += matters;
            }
            QVERIFY2(moved > 25, qPrintable(QString::number(moved)));
        }
    }

    void theAskListIsRankedAndKnowsWhomToAsk()
    {
        const auto build = demo();
        const auto s = study(build, { {}, "varnik-355" });
        const auto asks = report::asksOf(s);
        QVERIFY(asks.size() >= 10);
        QVERIFY(std::ranges::is_sorted(asks, std::greater<> {}, &report::Ask::verdicts));
        const auto room = std::ranges::find_if(asks, [](const auto& a) { return a.pointer == "/setups/2/front/caliper/pad_room_mm"; });
        QVERIFY(room != asks.end() && room->vendorKnows);
        const auto letter = report::vendorLetter(s);
        QVERIFY(names(letter, "Varnik, the workshop") && names(letter, "opening between pistons pushed home") && names(letter, "torques")
            && names(letter, "prices of a pair of rotors"));
        // The vendor is not asked about the car.
        QVERIFY(!names(letter, "knuckle's lugs") && !names(letter, "hard line (front)"));
        const auto sheet = report::benchSheet(s);
        QVERIFY(names(sheet, "take a vernier") && names(sheet, "read: ____"));
        std::istringstream lines(sheet);
        for (std::string line; std::getline(lines, line);)
            QVERIFY2(QString::fromStdString(line).size() <= 80, line.c_str());
        // With every estimate measured there is nothing left to ask.
        auto known = build;
        for (const auto& ask : report::asksOf(study(known))) {
            Reading reading = *Directory(known).at(ask.pointer)->reading;
            QVERIFY2(reading.value && reading.known == Known::Estimated, ask.what.c_str());
            reading.known = Known::Measured;
            known = withReading(known, ask.pointer, reading);
        }
        QVERIFY(report::asksOf(study(known)).empty());
        QVERIFY(names(report::benchSheet(study(known)), "Nothing is missing"));
    }

    void aBareCaliperIsNotComparedWithADressedOne()
    {
        auto build = demo();
        std::erase_if(kit(build).weighings,
            [](const Weighing& w) { return w.contains == std::vector { Part::Bracket } || w.contains == std::vector { Part::Pads }; });
        const auto s = study(build);
        const Verdict& v = *s.verdict("front/weight");
        QCOMPARE(v.level, Level::Unproven);
        QVERIFY(!v.figure.value && !s.line("corner-weight")->change.value);
        QVERIFY2(
            names(v.reason, "weight of the bracket (Varnik 330 × 28, front)") && names(v.reason, "weight of the pads"), v.reason.c_str());
        // What it would estimate, and what then comes out.
        QCOMPARE(v.remedies.size(), std::size_t(1));
        QVERIFY(names(v.remedies[0].costs[0] + v.remedies[0].costs[1], "bracket")
            && names(v.remedies[0].costs[0] + v.remedies[0].costs[1], "pads"));
        const auto then = study(*v.remedies[0].in(build));
        QVERIFY(then.verdict("front/weight")->figure.value);
        QCOMPARE(then.verdict("front/weight")->level, Level::Unproven);
        QVERIFY(near(*then.verdict("front/weight")->figure.value, *v.remedies[0].gap.value, 1e-9));
        // Pads by their dimensions: twice their area × (11 × 2500 + 5 × 7850) in mm and kg/m³.
        const auto& pads = then.build->setups[1].front->weighings;
        const auto estimated = std::ranges::find_if(pads, [](const Weighing& w) { return w.contains == std::vector { Part::Pads }; });
        QVERIFY(near(*estimated->mass.value, 2 * padOfTheKit() * (0.011 * 2500 + 0.005 * 7850), 1e-9));
    }

    void aPartWeighedTwiceIsSaid()
    {
        auto build = demo();
        kit(build).weighings.push_back({ { 3.3, {}, Known::Measured, {}, {} }, { Part::Caliper } });
        const auto s = study(build);
        QCOMPARE(s.verdict("front/weight")->level, Level::Unproven);
        QVERIFY(names(s.verdict("front/weight")->reason, "one weighing of the caliper, not two"));
    }

    void ringAndHatWeighedApartAreARotor()
    {
        auto build = demo();
        auto& corner = kit(build);
        const auto whole = study(build);
        corner.weighings.push_back({ { 7.5, {}, Known::Measured, {}, {} }, { Part::Ring } });
        const auto ring = study(build);
        QVERIFY(near(*ring.of<Weights>().after.front.cornerMass.value - *whole.of<Weights>().after.front.cornerMass.value,
            7.5 - *whole.of<Weights>().after.front.ringMass.value, 1e-9));
        corner.weighings.push_back({ { 0.9, {}, Known::Measured, {}, {} }, { Part::Hat } });
        const auto shares = massShares(corner);
        QVERIFY(std::ranges::none_of(shares, &MassShare::computed));
        double sum = 0;
        for (const auto& share : shares)
            sum += *share.mass.value;
        QVERIFY(near(sum, *study(build).of<Weights>().after.front.cornerMass.value, 1e-12));
    }

    void aComputedRotorQuestionsItsScale()
    {
        auto build = demo();
        kit(build).weighings.push_back(
            { { *study(build).of<Weights>().after.front.rotorMass.value * 1.14, {}, Known::Measured, {}, {} }, { Part::Rotor } });
        QVERIFY(!study(build).verdict("front/weighed-rotor"));
        kit(build).weighings.back().mass.value = *kit(build).weighings.back().mass.value / 1.14 * 1.17;
        QCOMPARE(levelOf(build, "front/weighed-rotor"), Level::Caution);
        *build.setups[0].front->weighings[0].mass.value = 4.4;
        QCOMPARE(levelOf(build, "front/weighed-rotor-found"), Level::Caution);
    }

    void cornerAxleAndCarAddUp()
    {
        const auto s = study(demo());
        const auto lines = weightLines(s, Axle::Front);
        const auto line = [&](const char* id) { return *std::ranges::find(lines, id, &WeightLine::id); };
        QVERIFY(near(*line("axle").after.value, 2 * *line("corner").after.value, 1e-12));
        const auto rear = weightLines(s, Axle::Rear);
        QVERIFY(near(
            *line("car").after.value, *line("axle").after.value + *std::ranges::find(rear, "axle", &WeightLine::id)->after.value, 1e-12));
        QVERIFY(near(*line("unsprung").after.value - *line("corner").after.value, 19.6, 1e-9));
        // Equivalent mass J/R² at the 311 mm tyre.
        QVERIFY(near(*line("equivalent").after.value, *line("inertia").after.value / (0.311 * 0.311), 1e-9));
        QVERIFY(near(*line("corner").change.value, *line("corner").after.value - *line("corner").before.value, 1e-9));
    }

    /// No setup that is called unbeaten is beaten by another, over random corners.
    void theFrontOfLightAndCoolIsRight()
    {
        for (int round = 0; round < 50; ++round) {
            auto build = demo();
            for (int i = 0; i < 5; ++i) {
                Setup setup = build.setups[1];
                setup.id = "s" + std::to_string(i);
                set(setup.front->rotor.thickness, between(20, 36));
                setup.front->weighings.push_back({ { between(5, 11), {}, Known::Measured, {}, {} }, { Part::Rotor } });
                build.setups.push_back(std::move(setup));
            }
            const auto s = study(build);
            const auto c = compare(s, Axle::Front);
            QCOMPARE(c.setups.size(), build.setups.size());
            const auto& mass = c.row("corner-mass").figures;
            const auto& store = c.row("heat-store").figures;
            QVERIFY(std::ranges::find(c.unbeaten, true) != c.unbeaten.end());
            for (std::size_t i = 0; i < c.setups.size(); ++i) {
                bool beaten = !mass[i].value || !store[i].value;
                for (std::size_t k = 0; k < c.setups.size(); ++k)
                    if (i != k && mass[i].value && mass[k].value && store[k].value && store[i].value)
                        beaten = beaten || (*mass[k].value < *mass[i].value && *store[k].value >= *store[i].value)
                            || (*mass[k].value <= *mass[i].value && *store[k].value > *store[i].value);
                QCOMPARE(bool(c.unbeaten[i]), !beaten);
            }
        }
    }

    void theComparisonSaysWhatTheNumbersSay()
    {
        const auto s = study(demo());
        const auto c = compare(s, Axle::Front);
        const auto value = [&](const char* id, std::size_t setup) { return *c.row(id).figures[setup].value; };
        QVERIFY(near(value("ring-area", 1), M_PI / 4 * (0.330 * 0.330 - 0.216 * 0.216), 1e-9));
        QVERIFY(near(value("pad-area", 0), 48.5e-4, 1e-9)); // as measured
        QVERIFY(near(value("pad-area", 1), padOfTheKit(), 1e-9)); // by its size
        QVERIFY(near(value("pad-volume", 1), padOfTheKit() * 0.009, 1e-9));
        QVERIFY(near(value("running", 1), 395 + 142, 1e-9));
        QVERIFY(near(*c.row("diameter").change(1), 330.0 / 288 - 1, 1e-9));
        QCOMPARE(*c.row("diameter").change(0), 0.0);
        QVERIFY(!c.row("corner-mass").change(2) && !c.row("price").change(1)); // not weighed; nothing to compare a price with
        QVERIFY(!c.row("corner-mass").figures[2].value); // the third was never weighed complete
        QVERIFY(!c.unbeaten[2] && c.unbeaten[1]);
        // A solid rotor has no vanes; a vented one whose vanes nobody counted is not known.
        auto build = demo("linnet");
        QCOMPARE(*compare(study(build), Axle::Front).row("vanes").figures[0].value, 0.0);
        QVERIFY(!compare(study(build), Axle::Front).row("vanes").figures[1].value);
    }

    void threads_data()
    {
        QTest::addColumn<QString>("text");
        QTest::addColumn<double>("diameter");
        QTest::addColumn<double>("pitch");
        // ISO 261 coarse pitches and UNF threads per inch (from memory).
        QTest::newRow("fine") << "M12x1.5" << 12.0 << 1.5;
        QTest::newRow("spaced") << "m 12 × 1,5" << 12.0 << 1.5;
        QTest::newRow("coarse") << "M10" << 10.0 << 1.5;
        QTest::newRow("coarse 14") << "M14" << 14.0 << 2.0;
        QTest::newRow("unf") << "7/16-20 UNF" << 11.1125 << 1.27;
        QTest::newRow("inch") << "3/8\"-24" << 9.525 << 25.4 / 24;
        QTest::newRow("hose") << "10 mm x 1.0" << 10.0 << 1.0;
        for (const char* no : { "", "12", "M99x1", "M12x9", "long", "3/0-24", "M12x1.5 and more" })
            QTest::newRow(qPrintable(QString("not: %1").arg(no))) << no << 0.0 << 0.0;
    }
    void threads()
    {
        QFETCH(QString, text);
        QFETCH(double, diameter);
        QFETCH(double, pitch);
        const auto thread = joints::parseThread(text.toStdString());
        QCOMPARE(thread.has_value(), diameter > 0);
        if (!thread)
            return;
        QVERIFY(near(thread->diameter, diameter * 1e-3, 1e-9) && near(thread->pitch, pitch * 1e-3, 1e-9));
        QVERIFY(joints::fits(*thread, *joints::parseThread(joints::nameOf(*thread))));
        QVERIFY(!joints::fits(*thread, { thread->diameter, thread->pitch + 0.25e-3 }));
    }

    void repeatsKeepMeanAndSpread()
    {
        const Reading once { 28e-3, {}, Known::Measured, "micrometer", {} };
        QVERIFY(near(uncertainty(once, true), 0.005e-3, 1e-12));
        const auto thrice = repeated(once, { 28.00e-3, 28.03e-3, 28.06e-3 });
        QVERIFY(near(*thrice.value, 28.03e-3, 1e-12));
        // Never better than its own spread, whatever the instrument promises.
        QVERIFY(near(uncertainty(thrice, true), 0.03e-3, 1e-9));
        QCOMPARE(repeated(once, { 28e-3 }).repeats.size(), std::size_t(0));
        auto build = demo();
        kit(build).rotor.thickness = thrice;
        const auto again = files::parseBuild(files::writeBuild({ build, nullptr })).build;
        QCOMPARE(again.setups[1].front->rotor.thickness.repeats.size(), std::size_t(3));
        QVERIFY(near(*again.setups[1].front->rotor.thickness.value, 28.03e-3, 1e-12));
    }

    void scalesAreAsGoodAsTheyAre()
    {
        QVERIFY(near(uncertainty({ 8.0, {}, Known::Measured, "kitchen scale", {} }, false), 0.005, 1e-12));
        QVERIFY(near(uncertainty({ 8.0, {}, Known::Measured, "bathroom scale", {} }, false), 0.2, 1e-12));
        QVERIFY(near(uncertainty({ 8.0, {}, Known::Measured, {}, {} }, false), 0.08, 1e-12));
    }

    /// A fact put in reads back as the same; every kind of fact is reached.
    void factsAreSaidAndRead()
    {
        const auto build = demo();
        const auto put = [&](const char* pointer, const char* text) {
            const auto entry = withFact(build, pointer, text);
            return entry.build && factAt(*entry.build, pointer)->value == text && !(*entry.build == build);
        };
        QVERIFY(put("/setups/1/front/rotor/name", "Another"));
        QVERIFY(put("/setups/1/front/rotor/vanes", "64"));
        QVERIFY(put("/setups/1/front/rotor/vane_shape", "pillars"));
        QVERIFY(put("/setups/1/front/weighings/0/contains", "rotor,hose"));
        QVERIFY(put("/wheels/0/nominal_width", "8.5"));
        QCOMPARE(factAt(build, "/setups/1/front/rotor/vane_shape")->words.size(), std::size_t(4));
        QCOMPARE(factAt(build, "/setups/1/front/rotor/vane_shape")->full(), std::string("vane shape (Varnik 330 × 28, front)"));
        for (const auto& [pointer, text] : { std::pair { "/setups/1/front/rotor/vanes", "many" },
                 std::pair { "/setups/1/front/rotor/vanes", "-3" }, std::pair { "/setups/1/front/rotor/face", "shiny" },
                 std::pair { "/wheels/0/nominal_width", "wide" }, std::pair { "/setups/9/name", "x" } })
            QVERIFY2(!withFact(build, pointer, text).build && !withFact(build, pointer, text).refusal.empty(), pointer);
        QVERIFY(!factAt(build, "/nowhere"));
    }

    /// A list ends in a free place; what is put there stands at its end, and can be taken away again.
    void listsGrowAtTheirFreePlace()
    {
        const auto build = demo();
        const Directory directory(build);
        const Reading bore { 0.036, {}, Known::Measured, "vernier", {} };
        QVERIFY(
            directory.at("/setups/1/front/caliper/pistons_mm/-") && !directory.at("/setups/1/front/caliper/pistons_mm/-")->reading->value);
        const auto more = withReading(build, "/setups/1/front/caliper/pistons_mm/-", bore);
        QCOMPARE(more.setups[1].front->caliper.pistons.size(), std::size_t(3));
        QVERIFY(withoutElement(more, "/setups/1/front/caliper/pistons_mm/2") == build);
        const auto heap = withReading(build, "/setups/1/front/weighings/-/mass_kg", { 1.5, {}, Known::Measured, {}, {} });
        QCOMPARE(heap.setups[1].front->weighings.size(), build.setups[1].front->weighings.size() + 1);
        QVERIFY(withoutElement(heap, "/setups/1/front/weighings/5") == build);
        QVERIFY(withoutElement(build, "/setups/1/front/weighings/99") == build);
        QVERIFY(withReading(build, "/setups/-/name", bore) == build);
        // Free places are no readings that anybody is asked for.
        for (const auto& entry : directory.entries())
            QVERIFY(entry.address.pointer.find("/-") == std::string::npos);
    }
};

DEEPSTOP_TEST(BenchTest)
#include "bench_test.moc"
