/// From a symptom to its causes: all there, ranked by this car's figures, each with a test whose reading has its place.

#include "build/address.hpp"
#include "core/support.hpp"
#include "symptoms/symptoms.hpp"

#include <QTest>

using namespace deepstop;

namespace {

std::vector<symptoms::Cause> causes(const Build& build, std::string_view symptom, const SetupPair& pair = {})
{
    return symptoms::causesOf(study(build, pair), *symptoms::find(symptom));
}

std::ptrdiff_t placeOf(const std::vector<symptoms::Cause>& all, const std::string& part)
{
    return std::ranges::find_if(all, [&](const auto& c) { return c.cause.find(part) != std::string::npos; }) - all.begin();
}

} // namespace

class SymptomsTest : public QObject {
    Q_OBJECT
private slots:
    void everySymptomHasCausesWithTests()
    {
        QVERIFY(symptoms::all().size() >= 8 && symptoms::find("long-pedal") && !symptoms::find("long pedal"));
        for (const char* name : { "halden-merle", "linnet", "drover-camper" }) {
            const Build build = demo(name);
            const Study s = study(build);
            for (const auto& symptom : symptoms::all()) {
                const auto all = symptoms::causesOf(s, symptom);
                QVERIFY2(all.size() >= 4, std::string(symptom.id).c_str());
                QVERIFY(!symptom.caution.empty());
                for (const auto& c : all) {
                    QVERIFY2(!c.cause.empty() && c.test.size() > 15 && !c.gives.empty(), c.cause.c_str());
                    // Where the reading goes is a place of this document.
                    QVERIFY2(c.reading.empty() || s.directory->at(c.reading) || factAt(build, c.reading), c.reading.c_str());
                    QVERIFY2(c.judged == !c.verdict.empty() && (!c.judged || s.verdict(c.verdict)), c.verdict.c_str());
                }
            }
        }
    }

    /// A figure that is a stop comes first, what is not proven before what is good; what is good is still named.
    void thisCarsFiguresRank()
    {
        for (const auto& symptom : symptoms::all()) {
            const auto all = causes(demo("drover-camper"), symptom.id);
            const auto suspect = [](const symptoms::Cause& c) {
                return !c.judged ? 3 : isBad(c.level) ? 0 : isFine(c.level) ? 4 : c.level == Level::Unproven ? 2 : 1;
            };
            QVERIFY2(std::ranges::is_sorted(all, {}, suspect), std::string(symptom.id).c_str());
        }
        // The Linnet as found locks its rear first: that is the first cause of it, with its figure.
        const auto rear = causes(demo("linnet"), "rear-locks-first", { "as-found", "as-found" });
        QVERIFY2(rear.front().cause.find("oo much rear brake") != std::string::npos && rear.front().level == Level::Stop,
            rear.front().cause.c_str());
        QVERIFY(rear.front().figures.find("The rear at") != std::string::npos);
    }

    /// A rotor that runs out moves to the front of what makes a pedal long, and back when it is true again.
    void aReadingMovesACause()
    {
        Build build = demo();
        for (const Side side : { Side::Left, Side::Right })
            build.setups[1].front->at(side).runout = { 0.03e-3, 0.005e-3, Known::Measured, "dial gauge", {} };
        const auto fine = causes(build, "long-pedal");
        build.setups[1].front->right.runout.value = 0.3e-3;
        const auto bent = causes(build, "long-pedal");
        QVERIFY(placeOf(bent, "Front: pads knocked back") < placeOf(fine, "Front: pads knocked back"));
        QVERIFY(bent[static_cast<std::size_t>(placeOf(bent, "Front: pads knocked back"))].reading.ends_with("/right/runout_mm"));
    }

    /// Drums have the causes of drums, discs those of discs.
    void brakesHaveTheirOwnCauses()
    {
        const auto camper = causes(demo("drover-camper"), "hard-pedal");
        QVERIFY(placeOf(camper, "Rear: drum linings") < static_cast<std::ptrdiff_t>(camper.size()));
        QVERIFY(placeOf(camper, "Rear: linings glazed") == static_cast<std::ptrdiff_t>(camper.size()));
        const auto merle = causes(demo(), "hard-pedal");
        QVERIFY(placeOf(merle, "drum") == static_cast<std::ptrdiff_t>(merle.size()));
        QVERIFY(symptoms::causesOf(study(Build {}), *symptoms::find("drags")).empty());
    }
};

DEEPSTOP_TEST(SymptomsTest)
#include "symptoms_test.moc"
