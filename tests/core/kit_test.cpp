/// A kit on its way from one car to another, and the papers that go with it.

#include "build/fields.hpp"
#include "build/address.hpp"
#include "chapters/parts/receiving.hpp"
#include "core/support.hpp"
#include "files/disk.hpp"
#include "files/exports.hpp"
#include "files/paper_files.hpp"
#include "files/photo.hpp"
#include "files/refusal.hpp"
#include "jobcard/jobcard.hpp"
#include "library/kit.hpp"
#include "library/import.hpp"
#include "library/kit_file.hpp"
#include "library/library_file.hpp"
#include "report/ask.hpp"
#include "report/letters.hpp"
#include "report/purchases.hpp"
#include "report/sheets.hpp"

#include <QFile>
#include <QImage>
#include <QTemporaryDir>
#include <QTest>

#include <nlohmann/json.hpp>

#include <set>

using namespace deepstop;

namespace {

/// Every reading of a part, by how it is known.
class Readings : public ConstVisitor {
public:
    std::vector<std::pair<std::string, Reading>> all;
    void reading(const ReadingField& field, const Reading& r) override
    {
        if (r.value)
            all.emplace_back(std::string(field.key), r);
    }
    [[nodiscard]] auto measured() const
    {
        return std::ranges::count_if(all, [](const auto& each) { return each.second.known == Known::Measured; });
    }
    [[nodiscard]] auto traces() const
    {
        return std::ranges::count_if(all,
            [](const auto& each) { return !each.second.instrument.empty() || !each.second.date.empty() || !each.second.repeats.empty(); });
    }
};

Readings readingsOf(const Setup& setup)
{
    Readings readings;
    describe(readings, setup);
    return readings;
}

/// The demo with every reading of its kit measured on this car, with an instrument, a day and a repeat.
Build measuredThroughout()
{
    Build build = demo();
    const Directory directory(build);
    for (const Directory::Entry& entry : directory.entries()) {
        const auto& pointer = entry.address.pointer;
        if (!pointer.starts_with("/setups/1/") || !entry.reading->value)
            continue;
        Reading r = *entry.reading;
        r.known = Known::Measured;
        r.instrument = "micrometer";
        r.date = "2026-04-01";
        r.plusMinus = 1e-6;
        build = withReading(std::move(build), pointer, r);
    }
    return build;
}

std::string said(const report::Leaf& leaf)
{
    std::string all = leaf.title + "\n" + leaf.subtitle + "\n";
    for (const report::Block& b : leaf.blocks) {
        all += b.text + "\n" + b.under + "\n";
        for (const auto& cell : b.cells)
            all += cell + " | ";
    }
    return all;
}

bool names(const std::string& text, const std::string& what) { return text.find(what) != std::string::npos; }

} // namespace

class KitTest : public QObject {
    Q_OBJECT
private slots:
    /// Nothing of the first car stands as measured in the second, not even where a file claims so.
    void nothingOfTheFirstCarIsMeasuredInTheSecond()
    {
        const Build first = measuredThroughout();
        QVERIFY(readingsOf(first.setups[1]).measured() > 50);
        const Setup kit = files::parseKit(files::writeKit(first.setups[1]));
        QVERIFY(readingsOf(kit).measured() == 0 && readingsOf(kit).traces() == 0);
        const auto second = applied(library::kitTakenIn(kit), demo("linnet"));
        QVERIFY(second);
        QCOMPARE(readingsOf(second->setups.back()).measured(), 0);
        // A file written by hand, with the readings as the first car had them.
        const auto forced = applied(library::kitTakenIn(first.setups[1]), demo("linnet"));
        QCOMPARE(readingsOf(forced->setups.back()).measured(), 0);
        QCOMPARE(readingsOf(forced->setups.back()).traces(), 0);
    }

    /// What a vernier said of one rotor is known of the next no better than from a vendor's sheet; a wide reading stays as wide.
    void partsOfAnotherExampleAreNoNarrowerThanAVendors()
    {
        Build build = measuredThroughout();
        build.setups[1].front->rotor.overallHeight.plusMinus = 2e-3;
        const Setup kit = library::kitOf(build.setups[1]);
        const Reading& diameter = kit.front->rotor.outerDiameter;
        QVERIFY(diameter.known == Known::Vendor);
        QCOMPARE(*diameter.value, *build.setups[1].front->rotor.outerDiameter.value);
        QVERIFY(uncertainty(diameter, true) >= 0.25e-3);
        QCOMPARE(uncertainty(kit.front->rotor.overallHeight, true), 2e-3);
    }

    /// Where to begin on the next car is an estimate; what belongs to the first alone stays behind.
    void slotAndShimsGoAlongAsEstimates()
    {
        const Build build = measuredThroughout();
        const Corner& here = *build.setups[1].front;
        QVERIFY(here.left.slotCentre.value && here.left.runout.value);
        const Corner there = *library::kitOf(build.setups[1]).front;
        QVERIFY(there.left.slotCentre.known == Known::Estimated && *there.left.slotCentre.value == *here.left.slotCentre.value);
        QVERIFY(uncertainty(there.left.slotCentre, true) >= 1e-3);
        QVERIFY(!there.left.runout.value && !there.left.padInset.value && !there.left.ringThickness.value && there.left.spun.wheel.empty());
        QVERIFY(there.wheel.empty() && !there.washers.value && !there.cooling.value && there.left.rotorMark.empty());
        QVERIFY(library::kitOf(build.setups[1]).received.empty());
    }

    /// The imported kit is judged on the second car: nothing of it fits or is centred because it did on the first.
    void whatWasProvenOnOneCarIsNotOnAnother()
    {
        const Build first = demo();
        QVERIFY(study(first).headline.fits != Headline::Fits::Unproven);
        const Build second = *applied(library::kitTakenIn(library::kitOf(first.setups[1])), first);
        QCOMPARE(second.setups.size(), first.setups.size() + 1);
        const auto s = study(second, { {}, second.setups.back().id });
        QVERIFY(s.headline.fits == Headline::Fits::Unproven || s.headline.fits == Headline::Fits::No);
        QVERIFY(s.headline.centred != Headline::Centred::Yes);
        for (const Verdict& v : s.verdicts)
            if (v.check && v.check->decides == Decides::CentringNeeded)
                QVERIFY2(!isFine(v.level), v.id.c_str());
    }

    void aKitComesBackAsItWentAndIsPublished()
    {
        for (const char* name : { "halden-merle", "linnet", "drover-camper" })
            for (const Setup& setup : demo(name).setups) {
                if (!setup.front && !setup.rear)
                    continue;
                // Widths are rounded once, to what a file holds.
                const Setup kit = files::parseKit(files::writeKit(setup));
                QVERIFY(files::parseKit(files::writeKit(kit)) == kit);
                // Cleaning it again makes nothing wider.
                QCOMPARE(files::writeKit(library::kitOf(kit)), files::writeKit(kit));
                QCOMPARE(kit.front.has_value(), setup.front.has_value());
                QCOMPARE(readingsOf(kit).all.size(), readingsOf(library::kitOf(setup)).all.size());
            }
        QFile published(DEEPSTOP_DATA "/schema/kit-1.schema.json");
        QVERIFY(published.open(QIODevice::ReadOnly));
        QVERIFY(nlohmann::json::parse(published.readAll().toStdString()) == files::kitSchema());
    }

    void aKitTakenInTwiceIsTwoSetupsOfTheCarsOwnWheels()
    {
        const Setup kit = library::kitOf(demo().setups[1]);
        const Build once = *applied(library::kitTakenIn(kit), demo("linnet"));
        const Build twice = *applied(library::kitTakenIn(kit), once);
        const Setup& a = twice.setups[twice.setups.size() - 2];
        const Setup& b = twice.setups.back();
        QVERIFY(a.id != b.id && !b.id.empty());
        QVERIFY(findWheel(twice, b.front->wheel));
        QTemporaryDir folder;
        const auto path = folder.filePath("car.deepstop").toStdString();
        files::saveBuild(path, { twice, {} });
        QVERIFY(files::loadBuild(path).build.setups.size() == twice.setups.size());
    }

    /// Through the library and back, whole; kept again it replaces itself.
    void aKitGoesThroughTheLibrary()
    {
        const Build first = measuredThroughout();
        library::Library kept;
        const auto id = library::keepKit(kept, first.setups[1]);
        QCOMPARE(library::keepKit(kept, first.setups[1]), id);
        QCOMPARE(kept.kits.size(), std::size_t { 1 });
        QVERIFY(library::keepKit(kept, {}).empty() && kept.kits.size() == 1);
        library::Library other;
        library::merge(other, files::parseLibrary(files::writeLibrary(kept)));
        QCOMPARE(readingsOf(other.kits.at(0).part).measured(), 0);
        const auto found = library::search(other, library::Kind::Kit, "varnik four");
        QCOMPARE(found.size(), std::size_t { 1 });
        const Build linnet = demo("linnet");
        const Build with = library::withPart(linnet, linnet.setups[1].id, Axle::Front, other, library::Kind::Kit, id);
        QCOMPARE(with.setups.size(), linnet.setups.size() + 1);
        QCOMPARE(with.setups.back().front->rotor.name, first.setups[1].front->rotor.name);
        QVERIFY(with.setups[1] == linnet.setups[1]);
        QVERIFY(library::withPart(linnet, linnet.setups[1].id, Axle::Front, other, library::Kind::Kit, "no-such-kit") == linnet);
        QVERIFY(library::fieldsOf(library::Kind::Kit).empty());
    }

    /// The same of a single part: read with a micrometer on one car, it is no measured one in another.
    void aPartKeptIsNotMeasuredInAnotherCar()
    {
        const Build first = measuredThroughout();
        library::Library kept;
        const auto id = library::keep(kept, *first.setups[1].front, first, library::Kind::Rotor);
        const Build linnet = demo("linnet");
        // As kept today, and as an older library may hold it.
        library::Library older = kept;
        older.rotors.at(0).part = first.setups[1].front->rotor;
        for (const library::Library& each : { kept, older }) {
            const Build with = library::withPart(linnet, linnet.setups[1].id, Axle::Front, each, library::Kind::Rotor, id);
            const Rotor& rotor = with.setups[1].front->rotor;
            QCOMPARE(*rotor.outerDiameter.value, *first.setups[1].front->rotor.outerDiameter.value);
            QVERIFY(rotor.outerDiameter.known == Known::Vendor && rotor.from == id);
            Readings readings;
            describe(readings, rotor);
            QVERIFY(readings.measured() == 0 && readings.traces() == 0);
        }
    }

    void whatIsNoKitIsRefusedWithItsPlace_data()
    {
        QTest::addColumn<QString>("text");
        QTest::addColumn<QString>("says");
        QTest::newRow("empty") << ""
                               << "empty";
        QTest::newRow("a build") << R"({"deepstop": 3, "setups": []})"
                                 << "/deepstop_kit";
        QTest::newRow("a later one") << R"({"deepstop_kit": 2, "kit": {"front": {}}})"
                                     << "/deepstop_kit";
        QTest::newRow("no kit") << R"({"deepstop_kit": 1})"
                                << "/kit: missing";
        QTest::newRow("no axle") << R"({"deepstop_kit": 1, "kit": {"name": "K"}})"
                                 << "/kit: holds brakes for no axle";
        QTest::newRow("a wrong shape") << R"({"deepstop_kit": 1, "kit": {"front": {"rotor": 7}}})"
                                       << "/kit/front/rotor";
    }
    void whatIsNoKitIsRefusedWithItsPlace()
    {
        QFETCH(QString, text);
        QFETCH(QString, says);
        try {
            (void)files::parseKit(text.toStdString());
            QFAIL("was taken");
        } catch (const files::Refusal& refusal) {
            QVERIFY2(QString::fromUtf8(refusal.what()).contains(says), refusal.what());
        }
    }

    void theListCountsBothSides()
    {
        const Setup kit = library::kitOf(demo().setups[1]);
        const auto lines = library::linesOf(kit);
        const auto line = [&](const std::string& part) { return std::ranges::find(lines, part, &library::KitLine::part); };
        QVERIFY(line("rotor") != lines.end());
        QCOMPARE(line("rotor")->pieces, 2);
        QCOMPARE(line("pad")->pieces, 4);
        QCOMPARE(line("rotor")->name, kit.front->rotor.name);
        int bolts = 0;
        for (const Joint& j : kit.front->joints)
            bolts += 2 * j.bolts;
        int listed = 0;
        for (const auto& l : lines)
            if (l.part.starts_with("bolt"))
                listed += l.pieces;
        QCOMPARE(listed, bolts);
        // A part that nobody described has no line, a count nobody gave no number.
        Setup bare = kit;
        bare.front->bracket = {};
        bare.front->joints.front().bolts = notCounted;
        const auto less = library::linesOf(bare);
        QVERIFY(std::ranges::find(less, "bracket", &library::KitLine::part) == less.end());
        QVERIFY(std::ranges::any_of(less, [](const auto& l) { return l.part.starts_with("bolt") && l.pieces == 0; }));
    }

    /// A sheet for others claims no more than the first car proved, and prints no torque that is in doubt.
    void theFittingSheetSaysHowFarTheKitIsProven()
    {
        Build build = demo();
        const auto sheet = [](const Build& of) { return said(report::fittingSheet(study(of), "2026-06-01")); };
        const auto whole = sheet(build);
        QVERIFY(!names(whole, "NOT PROVEN"));
        QVERIFY(names(whole, "In the box") && names(whole, "N·m") && names(whole, "Tools") && names(whole, "Check on your car"));
        build.setups[1].front->rotor.overallHeight = {};
        QVERIFY(names(sheet(build), "NOT PROVEN"));
        Build doubtful = demo();
        const auto torques = [](const std::string& text) {
            int count = 0;
            for (std::size_t at = 0; (at = text.find("N·m", at)) != std::string::npos; ++at)
                ++count;
            return count;
        };
        for (Joint& j : doubtful.setups[1].front->joints)
            j.thread = std::string();
        QVERIFY(torques(sheet(doubtful)) < torques(whole));
        QVERIFY(names(sheet(doubtful), "ask its maker"));
        QVERIFY(!doubtful.setups[1].front->joints.empty());
        doubtful.setups[1].front->joints.clear();
        QVERIFY(names(sheet(doubtful), "none guessed"));
    }

    void theFittingSheetHoldsNoReadingOfTheCar()
    {
        Build build = demo();
        // Figures that could stand there only because they were read here.
        auto& left = build.setups[1].front->left;
        left.slotCentre = { 37.1357e-3, 0.01e-3, Known::Measured, "vernier", "2026-04-01" };
        left.runout = { 0.0731e-3, 0.01e-3, Known::Measured, "dial gauge", "2026-04-01" };
        left.rotorMark = "tagged by Ada";
        const auto text = said(report::fittingSheet(study(build), "2026-06-01"));
        for (const char* own : { "37.1", "0.07", "tagged by Ada", "2026-04-01", "vernier across the slot" })
            QVERIFY2(!names(text, own), own);
    }

    /// The letter says what was done with the parts: never that nothing was, once something is ticked, logged or driven.
    void theFaultLetterSaysWhatWasDone()
    {
        Build build = demo();
        build.cards.clear();
        build.tests.clear();
        build.log.clear();
        build.mockUps.clear();
        const std::string kit = build.setups[1].id;
        build = *applied(received(kit, "front/left/hose", Checked::Fault, WhichHand::Unknown, "kinked"), build);
        const auto letter = [](const Build& of) { return report::faultLetter(study(of)); };
        QVERIFY(names(letter(build), "kinked") && names(letter(build), "nothing fitted, drilled or altered"));
        const auto card = jobcard::cardOf(study(build));
        const auto stepIn = [&](jobcard::Phase phase) {
            return std::ranges::find_if(card.steps, [&](const auto& s) { return s.phase == phase; })->id;
        };
        for (const auto& [phase, says] :
            { std::pair { jobcard::Phase::Assemble, "Fitted: front left" }, std::pair { jobcard::Phase::BedIn, "Fitted: car" },
                std::pair { jobcard::Phase::MockUp, "Put on loose, to try it: front left" } }) {
            Build done = build;
            jobcard::tickIn(jobcard::recordOf(done, kit), stepIn(phase), Checked::Fine, { "Ada", "2026-05-01" });
            QVERIFY2(names(letter(done), says), letter(done).c_str());
            QVERIFY(!names(letter(done), "nothing fitted"));
        }
        Build gone = build;
        jobcard::tickIn(jobcard::recordOf(gone, kit), "front/left/no-such-step", Checked::Fine, { "Ada", "2026-05-01" });
        QVERIFY(!names(letter(gone), "nothing fitted") && names(letter(gone), "1 more step was ticked"));
        Build driven = build;
        driven.log.emplace_back();
        driven.log.back().date = "2026-05-09";
        driven.log.back().event = LogEvent::PartsOn;
        driven.log.back().setup = kit;
        QVERIFY(names(letter(driven), "Put on the car 2026-05-09") && !names(letter(driven), "nothing fitted"));
        Build read = build;
        read.mockUps.emplace_back();
        read.mockUps.back().setup = kit;
        read.mockUps.back().innerTop = { 1e-3, 0.05e-3, Known::Measured, "feeler gauge", {} };
        QVERIFY(!names(letter(read), "nothing fitted"));
    }

    void aLetterIsAboutAllOfAVendorsSetups()
    {
        Build build = demo();
        build.setups[1].vendor = "Varnik, the workshop";
        build.setups[2].vendor = "Varnik, the workshop";
        build = *applied(received(build.setups[1].id, "front/left/hose", Checked::Fault, WhichHand::Unknown, "kinked"), build);
        QCOMPARE(report::vendorsOf(build), std::vector<std::string> { "Varnik, the workshop" });
        std::vector<Study> studies;
        for (const std::size_t i : { 1, 2 })
            studies.push_back(study(build, { {}, build.setups[i].id }));
        const auto text = said(report::letterTo("Varnik, the workshop", studies, "2026-06-01", {}));
        QVERIFY(names(text, build.setups[1].name) && names(text, build.setups[2].name) && names(text, "kinked"));
        QVERIFY(names(text, "tightening torques"));
    }

    /// Asked, answered, and not asked twice; a vendor who has not answered is told since when.
    void questionsToAVendorAreKept()
    {
        Build build = demo();
        const Study first = study(build, { {}, build.setups[2].id });
        const auto questions = report::questionsFor(first);
        QVERIFY(std::ranges::find(questions, "fitting instructions: none came with the kit") != questions.end());
        build = *applied(report::questionsAsked(first, "2026-05-01"), build);
        const auto asked = build.setups[2].questions.size();
        QVERIFY(asked >= questions.size());
        // Asked again another day, each keeps its day and none is there twice.
        const Study second = study(build, { {}, build.setups[2].id });
        build = *applied(report::questionsAsked(second, "2026-05-20"), build);
        QCOMPARE(build.setups[2].questions.size(), asked);
        for (VendorQuestion& q : build.setups[2].questions)
            QVERIFY(q.asked == "2026-05-01" || !q.answered.empty());
        VendorQuestion& price = *std::ranges::find_if(
            build.setups[2].questions, [](const VendorQuestion& q) { return q.about.starts_with("prices of a pair"); });
        price.answered = "2026-05-10";
        price.answer = "420 and 150";
        const Study third = study(build, { {}, build.setups[2].id });
        for (const auto& question : report::questionsFor(third))
            QVERIFY(!question.starts_with("prices of a pair"));
        const auto letter = said(report::letterTo("Varnik, the workshop", { third }, "2026-06-01", {}));
        QVERIFY(names(letter, "asked on 2026-05-01, not answered")
            && names(letter, "420 and 150 (asked on 2026-05-01, answered on 2026-05-10)"));
        // A question of the builder's own goes out with the others.
        build.setups[2].questions.push_back({ "which wheels it has been tried in now", {}, {}, {}, {} });
        const auto out = report::questionsFor(study(build, { {}, build.setups[2].id }));
        QVERIFY(std::ranges::find(out, "which wheels it has been tried in now") != out.end());
    }

    /// The picture itself goes into the letter; one that cannot be read is named with the reason. Against poppler's list of pictures.
    void photographsGoIntoTheLetter()
    {
        QTemporaryDir dir;
        QImage picture(64, 48, QImage::Format_RGB32);
        picture.fill(Qt::darkGreen);
        QVERIFY(picture.save(dir.filePath("kink.png")) && picture.save(dir.filePath("thread.jpg")));
        Build build = demo();
        build = *applied(received(build.setups[1].id, "front/left/hose", Checked::Fault, WhichHand::Unknown, "kinked"), build);
        build.setups[1].received[0].photo = "kink.png";
        JobCard& card = jobcard::recordOf(build, build.setups[1].id);
        for (const char* photo : { "thread.jpg", "gone.png" }) {
            card.ticks.emplace_back();
            card.ticks.back().step = std::string("car/") + photo;
            card.ticks.back().photo = photo;
        }
        const auto leaf =
            report::letterTo("Varnik, the workshop", { study(build, { {}, build.setups[1].id }) }, "2026-06-01", dir.path().toStdString());
        const auto html = report::htmlOf(leaf);
        QVERIFY(names(html, "data:image/png;base64,iVBORw0KGgo") && names(html, "data:image/jpeg;base64,/9j/"));
        QVERIFY(names(html, "not in this letter") && names(html, "gone.png"));
        const QString pdf = dir.filePath("letter.pdf");
        files::exportFile(pdf.toStdString(), files::pdfOf(report::sheetsOf(leaf, paper::a4()), leaf.title));
        const auto list = answerOf("pdfimages", { "-list", pdf });
        QCOMPARE(list.count("64    48"), 2);
        QVERIFY(list.contains("jpeg"));
    }

    void whatIsNoPictureIsRefused()
    {
        const auto refused = [](std::string bytes) {
            try {
                (void)files::photoFrom(std::move(bytes));
            } catch (const files::Refusal&) {
                return true;
            }
            return false;
        };
        QVERIFY(refused("") && refused("PK\x03\x04") && refused("\x89PNG\r\n\x1a\n") && refused("\xff\xd8\xff\xe0"));
        // Cut off anywhere, nothing worse than a refusal.
        QImage picture(20, 10, QImage::Format_RGB32);
        picture.fill(Qt::red);
        QTemporaryDir dir;
        QVERIFY(picture.save(dir.filePath("a.jpg")));
        const auto whole = files::readFile(dir.filePath("a.jpg").toStdString());
        for (std::size_t n = 0; n < whole.size(); ++n)
            (void)refused(whole.substr(0, n));
        QCOMPARE(files::photoFrom(whole).wide, 20);
        QCOMPARE(files::base64("any carnal pleasure"), std::string("YW55IGNhcm5hbCBwbGVhc3VyZQ==")); // RFC 4648's kind of example
    }

    /// By hand: 1480 + 4 · 1.20 + 2 · 11.90 = 1508.60; a line without a price makes a total that is not known, never a smaller one.
    void aListToBuyIsTotalled()
    {
        Build build = demo();
        const auto list = report::purchasesOf(build.setups[1]);
        QVERIFY(list.total.value && near(*list.total.value, 1508.60, 1e-9));
        QVERIFY(names(said(report::purchaseSheet(build, "2026-06-01")), "Against"));
        build.setups[1].purchases[2].price = {};
        const auto open = report::purchasesOf(build.setups[1]);
        QVERIFY(!open.total.value && open.without == 1 && near(open.known, 1484.80, 1e-9));
        const auto sheet = said(report::purchaseSheet(build, "2026-06-01"));
        QVERIFY(names(sheet, "at least 1484.80 EUR: 1 line has no price") && names(sheet, "not known while a line has no price"));
        build.setups[1].purchases[0].pieces = notCounted;
        QCOMPARE(report::purchasesOf(build.setups[1]).without, 2);
        QVERIFY(report::purchasesCsv(build).find("varnik-330,total,,,,,\r\n") != std::string::npos);
    }

    /// A kit takes its nuts, rings, papers and list along, and nothing of the car's shield, cable or hard line.
    void theNewPartsOfAKitGoAlong()
    {
        Build build = demo();
        Setup& setup = build.setups[1];
        Corner& c = *setup.front;
        c.adapter.inside = { 66.6e-3, 0.02e-3, Known::Measured, "vernier", "2026-05-01" };
        c.shield.state = ShieldState::Removed;
        c.leverReturns = YesNo::Yes;
        c.joints[0].underNut = ThreadIn::Iron;
        setup.papers = "certificate 12";
        const Setup kit = library::kitOf(setup);
        QVERIFY(kit.front->shield == ShieldPart {} && kit.front->leverReturns == YesNo::Unknown);
        QVERIFY(kit.front->hose.heldAtStrut == YesNo::Unknown && kit.front->hose.grommet == YesNo::Unknown);
        for (const LinePart& part : kit.front->hose.chain)
            QVERIFY(part.kind != LinePartKind::HardLine && part.newWashers == YesNo::Unknown);
        QCOMPARE(kit.front->adapter.inside.known, Known::Vendor);
        QVERIFY(*kit.front->adapter.inside.plusMinus >= 0.25e-3);
        QCOMPARE(kit.front->joints[2].nutClass, NutClass::C10);
        QVERIFY(kit.front->joints[2].underNut == ThreadIn::Iron); // between parts of the kit alone all of it is the kit's
        QVERIFY(kit.front->joints[0].underNut == ThreadIn::Unknown);
        QVERIFY(kit.papers == "certificate 12" && kit.purchases.size() == setup.purchases.size() && kit.questions.empty());
        const auto lines = library::linesCsv(kit);
        for (const char* part : { "adapter ring", "banjo bolt", "nut, ring to hat" })
            QVERIFY2(names(lines, part), lines.c_str());
    }
};

DEEPSTOP_TEST(KitTest)
#include "kit_test.moc"
