/// Nuts, brake lines, rings, spacers, shields, parking brakes and what is bought: every field of them is entered by keyboard, and the
/// picture and its verdicts follow.

#include "app/shown.hpp"
#include "build/address.hpp"
#include "chapters/joints/checks.hpp"
#include "chapters/parts/checks.hpp"
#include "drawing/fact_field.hpp"
#include "quantity/text.hpp"

#include <QComboBox>

#include <set>

namespace {

/// The Merle with one of everything, so that every field has a place.
Build withEverything()
{
    Build build = demo();
    Corner& c = *build.setups[1].front;
    c.joints[0].nut = NutKind::AllMetal;
    c.spacer = { 25e-3, 0.1e-3, Known::Measured, "vernier", "2026-05-01" };
    c.spacerPart.kind = SpacerKind::Bolted;
    c.rotor.capped = YesNo::Yes;
    c.rotor.ringMaterial = RingMaterial::CarbonCeramic;
    c.shield.state = ShieldState::Replaced;
    c.shield.lies = PlateLies::KnuckleAndHub;
    c.bracket.reliefs.emplace_back();
    c.hose.chain[2].inner.seat = Seat::CrushWasher;
    c.caliper.parking = CaliperParking::Lever;
    build.frontHub.heldBy = WheelHeldBy::CentreLock;
    build.setups[1].questions.emplace_back();
    TestSession* session = nullptr;
    for (TestSession& each : build.tests)
        if (each.setup == build.setups[1].id)
            session = &each;
    if (session && session->temperatures.empty())
        session->temperatures.emplace_back();
    giveIds(build);
    return build;
}

/// Everything of the document that came with these parts, on the front axle of the demo's kit.
std::vector<std::string> allFields(const Build& build)
{
    std::vector<std::string> all;
    const auto add = [&](const std::string& at, std::initializer_list<const char*> keys) {
        for (const char* key : keys)
            all.push_back(at + key);
    };
    add(corner + "/joints/0/",
        { "fastener", "nut_class", "nut_single_use", "under_nut", "washers", "nut_height_mm", "running_torque_nm", "times_used", "nut" });
    add(corner + "/hose/", { "held_at_strut", "grommet" });
    add(corner + "/hose/chain/1/", { "kind", "name", "crush_washers", "new_washers", "inner/thread", "inner/seat", "inner/gender" });
    add(corner + "/hose/chain/2/", { "outer/thread", "outer/seat", "outer/gender" });
    add(corner + "/caliper/", { "parking", "lever_eye_mm", "lever_free_mm", "lever_travel_mm" });
    add(corner + "/", { "lever_returns" });
    add("/front_hub/",
        { "cable_end_mm", "cable_free_mm", "cable_travel_mm", "pin_length_mm", "nut_locked", "shield_rib_mm", "keep_outs/0/clock_deg" });
    add(corner + "/adapter_ring/", { "sits", "inside_mm", "outside_mm", "step_mm", "step_side" });
    add(corner + "/rotor/", { "capped", "cap_depth_mm", "cap_diameter_mm", "cap_height_mm", "inboard_lip_mm", "minimum_mass_kg" });
    add(corner + "/spacer_part/", { "kind", "seat_mm", "nut_thread_mm", "torque_nm", "stud_length_mm", "stud_thread" });
    add(corner + "/dust_shield/",
        { "state", "plate_lies", "diameter_mm", "depth_mm", "rim_mm", "plate_mm", "read_with", "spot_welds_drilled" });
    add(corner + "/bracket/reliefs/0/", { "across_mm", "radius_mm", "width_mm", "depth_mm" });
    add(corner + "/pad/", { "ends" });
    add(corner + "/left/", { "inner_lining_mm", "outer_lining_mm", "entry_lining_mm", "exit_lining_mm", "wear_sensor", "rotor_mass_kg" });
    add("/wheels/0/", { "back_pocket_mm" });
    add("/setups/1/",
        { "instructions", "papers", "purchases/0/what", "purchases/0/number", "purchases/0/source", "purchases/0/pieces",
            "purchases/0/price", "questions/0/about", "questions/0/asked", "questions/0/answered", "questions/0/answer" });
    add("/setups/0/hydraulics/", { "metering_bar", "residual_front_bar", "residual_rear_bar" });
    for (std::size_t i = 0; i < build.tests.size(); ++i)
        if (build.tests[i].setup == build.setups[1].id && !build.tests[i].temperatures.empty()) {
            all.push_back("/tests/" + std::to_string(i) + "/temperatures/0/highest_only");
            break;
        }
    return all;
}

/// The page that shows this reading or fact.
StagePage* pageOf(Shown& s, const std::string& pointer)
{
    for (const StageId id : stageIds()) {
        s.window.setStage(id);
        StagePage* page = s.window.page(id);
        for (int place = 0; page && place < page->placeCount(); ++place) {
            page->setPlace(place);
            s.waited();
            const auto order = page->view()->sheet().inOrder();
            if (std::ranges::find(order, pointer) != order.end())
                return page;
        }
    }
    return nullptr;
}

/// Types another value into a field and puts it in with Enter. @return what the document then says
QString typed(Shown& s, StagePage& page, const std::string& pointer)
{
    if (auto* field = page.view()->field(pointer)) {
        field->setFocus(Qt::TabFocusReason);
        s.type(field, "75");
        QTest::keyClick(field, Qt::Key_Return);
        s.waited();
        const Directory directory(s.build());
        const auto* entry = directory.at(pointer);
        return entry && entry->reading->value ? QString::number(*entry->reading->value) : QString();
    }
    auto* fact = page.view()->fact(pointer);
    if (!fact || !fact->editor())
        return {};
    fact->editor()->setFocus(Qt::TabFocusReason);
    const auto was = factAt(s.build(), pointer);
    if (auto* box = qobject_cast<QComboBox*>(fact->editor())) {
        QTest::keyClick(box, box->currentIndex() + 1 < box->count() ? Qt::Key_Down : Qt::Key_Up);
        QTest::keyClick(box, Qt::Key_Return);
    } else {
        s.type(fact->editor(), was && was->kind == StatedFact::Kind::Count ? "3" : "M10x1.25");
        QTest::keyClick(fact->editor(), Qt::Key_Return);
    }
    s.waited();
    const auto now = factAt(s.build(), pointer);
    return now && was && now->value != was->value ? QString::fromStdString(now->value) : QString();
}

} // namespace

class FittingsWindowTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init() { freshSettings(); }

    void everyFieldIsEnteredByKeyboard()
    {
        Shown s;
        s.window.resize(1280, 800);
        const Build everything = withEverything();
        QStringList missing;
        const auto all = allFields(everything);
        QVERIFY(all.size() > 75);
        put(s.window.document(), everything, "one of everything");
        s.waited();
        // Places are found once for each sheet: fields that stand together are typed together.
        std::set<std::string> left(all.begin(), all.end());
        while (!left.empty()) {
            StagePage* page = pageOf(s, *left.begin());
            if (!page) {
                missing << QString::fromStdString(*left.begin()) + " has no place";
                left.erase(left.begin());
                continue;
            }
            const auto shown = page->view()->sheet().inOrder();
            for (const std::string& pointer : shown) {
                if (!left.erase(pointer))
                    continue;
                if (typed(s, *page, pointer).isEmpty())
                    missing << QString::fromStdString(pointer) + " was not taken";
                // What one choice hides is there again for the next.
                put(s.window.document(), everything, "one of everything");
                s.waited();
            }
        }
        QVERIFY2(missing.isEmpty(), qPrintable(missing.join(", ")));
    }

    /// A nut chosen on the sheet of bolts: what it lacks is asked for, and what is wrong is said.
    void aLockNutIsChosenAndJudged()
    {
        Shown s;
        const std::string joint = corner + "/joints/1";
        StagePage* page = pageOf(s, joint + "/nut");
        QVERIFY(page);
        auto* nut = page->view()->fact(joint + "/nut");
        nut->editor()->setFocus(Qt::TabFocusReason);
        QTest::keyClicks(nut->editor(), "lock nut, all");
        QTest::keyClick(nut->editor(), Qt::Key_Return);
        const Check& check = checks::jointNut;
        QCOMPARE(s.known().verdict(check, { .axle = Axle::Front, .number = 2 })->level, Level::Unproven);
        QVERIFY(page->view()->callout("front/joint-2-nut"));
        QVERIFY(page->view()->fact(joint + "/nut_class"));
        QVERIFY(page->view()->field(joint + "/running_torque_nm"));
    }

    /// The line begins at an empty sheet: the first part makes room for the next.
    void aBrakeLineIsBegunFromNothing()
    {
        Shown s;
        Build build = demo();
        build.setups[1].front->hose.chain.clear();
        put(s.window.document(), build, "bare");
        StagePage* page = pageOf(s, corner + "/hose/chain/-/name");
        QVERIFY(page);
        const auto add = [&](const std::string& index, const char* name, const char* kind) {
            auto* free = page->view()->fact(corner + "/hose/chain/-/name");
            QVERIFY(free && free->editor());
            free->editor()->setFocus(Qt::TabFocusReason);
            QTest::keyClicks(free->editor(), name);
            QTest::keyClick(free->editor(), Qt::Key_Return);
            s.waited();
            auto* what = page->view()->fact(corner + "/hose/chain/" + index + "/kind");
            QVERIFY(what && what->editor());
            what->editor()->setFocus(Qt::TabFocusReason);
            QTest::keyClicks(what->editor(), kind);
            QTest::keyClick(what->editor(), Qt::Key_Return);
            s.waited();
        };
        add("0", "front caliper", "caliper");
        add("1", "braided", "hose");
        const auto& chain = s.build().setups[1].front->hose.chain;
        QCOMPARE(chain.size(), std::size_t(2));
        QVERIFY(chain[0].kind == LinePartKind::CaliperPort && chain[1].kind == LinePartKind::Hose);
        QCOMPARE(s.known().verdict(checks::hoseThread, { Axle::Front })->level, Level::Unproven);
        QVERIFY(page->view()->callout("front/line-joint-1"));
    }
};

DEEPSTOP_TEST(FittingsWindowTest)
#include "fittings_window_test.moc"
