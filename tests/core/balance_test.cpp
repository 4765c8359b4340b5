/// Which axle locks first, and by how much: against a textbook, against itself, and in the demos.

#include "chapters/balance/balance_chapter.hpp"
#include "core/support.hpp"
#include "figures/brake_figures.hpp"
#include "report/balance.hpp"
#include "stopping/balance.hpp"
#include "stopping/drum.hpp"
#include "sums/sums.hpp"

#include <QTest>

#include <cmath>

using namespace deepstop;
using namespace deepstop::stopping;

namespace {

deepstop::stopping::Car randomCar() { return { between(500, 3500), between(2, 3.6), between(0.3, 1.1), between(0.35, 0.65), 0.6 }; }

Brakes randomBrakes()
{
    return { { between(1e-3, 5e-3), between(0.1, 0.16), between(0.6, 1), between(0.28, 0.36), between(0.5, 1.4) },
        { between(5e-4, 2.5e-3), between(0.1, 0.16), between(0.6, 1), between(0.28, 0.36), between(0.5, 1.4) },
        among(0, 1) ? between(10e5, 60e5) : 1e12, between(0.2, 1), between(0.6, 1.5) };
}

const Verdict& said(const Study& s, const char* id)
{
    const Verdict* v = s.verdict(id);
    if (!v)
        qFatal("no verdict %s", id);
    return *v;
}

double answer(const char* sum, const std::vector<std::string>& arguments, std::string_view key)
{
    for (const auto& [name, value] : sums::calculate(sum, arguments).results)
        if (name == key)
            return std::get<double>(value);
    return NAN;
}

} // namespace

class BalanceTest : public QObject {
    Q_OBJECT
private slots:
    /// What cannot be worked out at one limit of a reading is not "as far off as can be": brakes without a factor have no lock order.
    void noLockOrderOfNothing()
    {
        Build build = demo("linnet");
        build.setups[0].rear->pad.friction = {};
        const SetupParts parts = partsOf(build, build.setups[0]);
        Evaluator s;
        QVERIFY(std::isnan(locksApart(s, build, parts, nullptr)));
        QVERIFY(std::isnan(locksApart(s, build, parts, nullptr, Tyres::AsRead)));
    }

    /// By hand, of a lining over 100° with its pivot at 0.83 of the drum's radius: ∫sin θ = 1.5321, ∫sin² θ = 1.3651, ∫sin θ cos θ = 0, so
    /// the shoe holds itself from a friction of 0.83 · 1.3651 / 1.5321 = 0.7395 on.
    void aShoeHoldsItselfFromAFrictionOn()
    {
        const auto at = [](double friction) { return usualShoes(0.127, friction); };
        QVERIFY(near(selfLockingFriction(at(0.3)), 0.7395, 1e-4));
        const double holds = selfLockingFriction(at(0.3));
        for (const auto kind :
            { stopping::DrumKind::LeadingTrailing, stopping::DrumKind::TwoLeading, stopping::DrumKind::SelfEnergising }) {
            QVERIFY(std::isfinite(brakeFactor(kind, at(holds * 0.999))));
            QVERIFY(std::isnan(brakeFactor(kind, at(holds * 1.001))));
        }
        QVERIFY(std::isnan(selfLockingFriction({ 0.127, 0.2, 1.7, 0.3 }))); // a pivot outside the drum
    }

    void drumsNearSelfLockingAreSaid_data()
    {
        QTest::addColumn<double>("friction");
        QTest::addColumn<double>("width");
        QTest::addColumn<int>("level");
        QTest::newRow("usual linings") << 0.34 << 0.02 << int(Level::Good);
        QTest::newRow("near it") << 0.62 << 0.01 << int(Level::Caution);
        QTest::newRow("perhaps over it") << 0.55 << 0.25 << int(Level::Caution);
        QTest::newRow("over it") << 0.80 << 0.01 << int(Level::Stop);
    }
    void drumsNearSelfLockingAreSaid()
    {
        QFETCH(double, friction);
        QFETCH(double, width);
        QFETCH(int, level);
        Build build = demo("drover-camper");
        build.setups[0].rear->drum.friction = { friction, width, Known::Measured, {}, {} };
        const Study s = study(build, { "as-found", "as-found" });
        const Verdict& v = said(s, "rear/drum-self-locking");
        QVERIFY2(v.level == static_cast<Level>(level), (std::string(nameOf(v.level)) + ": " + v.reason).c_str());
        // Where it may hold itself at a limit, the lock order is not good for having no number there.
        if (v.figure.lowest() < 0)
            QVERIFY(!isFine(said(s, "balance/lock-order").level));
        QVERIFY(!s.verdict("front/drum-self-locking"));
    }

    /// To a car whose antilock does its work nobody sells a valve or calipers.
    void antilockIsSoldNoValve()
    {
        Build build = demo("linnet");
        const auto sells = [&](YesNo antilock) {
            build.car.antilock = antilock;
            const Study s = study(build, { build.setups[0].id, build.setups[0].id });
            const Verdict& v = said(s, "balance/lock-order");
            if (isFine(v.level))
                qFatal("the rear should lock first");
            return std::ranges::any_of(v.remedies,
                [](const Remedy& r) { return r.title.find("alve") != std::string::npos || r.title.find("alipers") != std::string::npos; });
        };
        QVERIFY(sells(YesNo::No));
        QVERIFY(!sells(YesNo::Yes));
    }

    /// A valve that only bites at high pressure leaves the rear too much of it on ice: the order holds for all grips, and the wet is named.
    void theRearThatLocksOnlyOnIceIsSaid()
    {
        Build build = demo("linnet");
        build.car.antilock = YesNo::No;
        Hydraulics& h = *build.setups[0].hydraulics;
        h.valve = ValveKind::Fixed;
        h.rearKneePressure = { 8e5, 0.0, Known::Measured, {}, {} };
        h.rearSlope = { 0.25, 0.0, Known::Measured, {}, {} };
        bool seen = false;
        for (double more = 1; more < 4 && !seen; more += 0.05) {
            Build tried = build;
            Reading& friction = tried.setups[0].rear->pad.friction;
            friction.value = *friction.value * more;
            const SetupParts parts = partsOf(tried, tried.setups[0]);
            const double here = nominal([&](Evaluator& s) { return locksApart(s, tried, parts, nullptr, Tyres::AsRead); });
            const double all = nominal([&](Evaluator& s) { return locksApart(s, tried, parts, nullptr); });
            QVERIFY(all <= here + 1e-12);
            seen = here > 0.1 && all < -0.05;
            if (!seen)
                continue;
            QVERIFY(gripThatDecides(tried, parts, nullptr) < 0.5);
            const Study s = study(std::make_shared<const Build>(tried), { {}, "as-found" }, UnitSystem::Metric, Remedies::LeftOut);
            QCOMPARE(said(s, "balance/lock-order").level, Level::Stop);
            QVERIFY2(
                said(s, "balance/lock-order").reason.find("on ice") != std::string::npos, said(s, "balance/lock-order").reason.c_str());
        }
        QVERIFY(seen);
    }

    /// The car of Wong, Theory of Ground Vehicles, example 3.3 (from memory, rolling resistance left out): wheelbase 2.87 m, centre of mass
    /// 1.27 m behind the front axle and 0.508 m high, 60 % of the braking in front, adhesion 0.6. By hand the front would lock at
    /// 0.6·(1.60/2.87)/(0.6 − 0.6·0.177) = 0.677 g, the rear at 0.6·(1.27/2.87)/(0.4 + 0.6·0.177) = 0.5245 g: the rear first.
    void aTextbooksCar()
    {
        const auto order = lockOrder(1.60 / 2.87, 0.508 / 2.87, 0.6, 0.6);
        QCOMPARE(order.first, First::Rear);
        QVERIFY(std::abs(order.deceleration - 0.5245) < 0.0005);
        QVERIFY(near(order.rearUse, 1, 1e-12));
        QVERIFY(order.frontUse < 1);
        const auto more = lockOrder(1.60 / 2.87, 0.508 / 2.87, 0.75, 0.6);
        QCOMPARE(more.first, First::Front);
        // Where the share is the ideal one at the grip, both lock together, at the grip.
        const auto both = lockOrder(0.53, 0.2, 0.53 + 0.2 * 0.9, 0.9);
        QCOMPARE(both.first, First::Both);
        QVERIFY(near(both.deceleration, 0.9, 1e-9));
    }

    /// Limpert's parabola of ideal forces (Brake Design and Safety, from memory): Xr = √(((1−ψ)/2χ)² + Xf/χ) − (1−ψ)/2χ − Xf, with ψ the
    /// rear's share at rest and χ the height over the wheelbase.
    void theIdealLineIsLimpertsParabola()
    {
        for (int i = 0; i < 500; ++i) {
            const auto car = randomCar();
            const double z = between(0.01, 0.95) * std::min(1.2, liftsAt(car));
            const double front = z * idealFrontShare(car, z);
            const double chi = car.centreOfMassHeight / car.wheelbase;
            const double half = car.frontLoadShare / (2 * chi);
            QVERIFY(near(z - front, std::sqrt(half * half + front / chi) - half - front, 1e-8));
        }
    }

    /// Loads add up to the weight and balance about the rear axle; forces to the deceleration; pressure for it and back.
    void forcesAndMomentsClose()
    {
        for (int i = 0; i < 2000; ++i) {
            const auto car = randomCar();
            const auto brakes = randomBrakes();
            const double z = between(0.05, 1);
            const double weight = car.mass * standardGravity;
            const double pressure = pressureFor(car, brakes, z);
            const AxleForces forces = brakeForces(brakes, pressure);
            QVERIFY(near(forces.sum(), z * weight, 1e-9));
            const AxleForces load = axleLoads(car, z);
            QVERIFY(near(load.sum(), weight, 1e-9));
            if (z < liftsAt(car))
                QVERIFY(near(
                    load.front * car.wheelbase, weight * car.frontLoadShare * car.wheelbase + forces.sum() * car.centreOfMassHeight, 1e-9));
            const auto locks = lockPressures(car, brakes, 1e9);
            for (const auto& [p, front] : { std::pair { locks.front, true }, std::pair { locks.rear, false } })
                if (std::isfinite(p)) {
                    const auto use = adhesion(car, brakeForces(brakes, p));
                    QVERIFY(near(front ? use.front : use.rear, front ? brakes.front.grip : brakes.rear.grip, 1e-8));
                }
        }
    }

    /// What is put over an axle loads that axle alone; taken out again, the car is as before.
    void loadsAddUp()
    {
        for (int i = 0; i < 500; ++i) {
            const auto car = randomCar();
            const PointLoad over { between(10, 300), car.wheelbase, between(0.2, 1.5) };
            const auto full = laden(car, std::array { over });
            QVERIFY(near(full.mass * full.frontLoadShare, car.mass * car.frontLoadShare, 1e-12));
            const auto empty = laden(full, std::array { PointLoad { -over.mass, over.behindFrontAxle, over.height } });
            QVERIFY(near(empty.frontLoadShare, car.frontLoadShare, 1e-9));
            QVERIFY(near(empty.centreOfMassHeight, car.centreOfMassHeight, 1e-9));
        }
        // A trailer's nose far behind lifts the front: that is no car any more.
        const deepstop::stopping::Car small { 500, 2, 0.5, 0.4, 0 };
        QVERIFY(std::isnan(laden(small, std::array { PointLoad { 2000, 4, 0.5 } }).mass));
    }

    /// What cannot be worked out is not a number, and no exception: a grip, a friction or a mass that nobody can say.
    void whatIsNoNumberIsNone()
    {
        for (int i = 0; i < 200; ++i) {
            auto car = randomCar();
            auto brakes = randomBrakes();
            double* numbers[] { &car.mass, &car.centreOfMassHeight, &car.frontLoadShare, &car.wheelbase, &brakes.front.grip,
                &brakes.rear.grip, &brakes.front.brakeFactor, &brakes.rear.brakeFactor, &brakes.front.pistonArea };
            *numbers[i % std::size(numbers)] =
                std::array<double, 4> { NAN, INFINITY, -INFINITY, -0.2 }[static_cast<std::size_t>(i) / std::size(numbers) % 4];
            const double z = decelerationOf(car, brakes, { 1, 1 }, 60e5);
            QVERIFY(std::isnan(z) || z >= 0);
            for (const bool antilock : { false, true })
                QVERIFY(!(hardestBraking(car, brakes, 60e5, antilock, 0.9).deceleration < 0));
        }
    }

    /// One circuit never stops better than both, more pressure never worse; a part of nothing stops nothing.
    void partOfTheBrakesIsLess()
    {
        for (int i = 0; i < 500; ++i) {
            const auto car = randomCar();
            const auto brakes = randomBrakes();
            const double p = between(5e5, 120e5);
            const double all = decelerationOf(car, brakes, { 1, 1 }, p);
            for (const Circuit part : { Circuit { 1, 0 }, Circuit { 0, 1 }, Circuit { 0.5, 0.5 } }) {
                const double left = decelerationOf(car, brakes, part, p);
                QVERIFY(left > 0 && left <= all * (1 + 1e-9));
                QVERIFY(decelerationOf(car, brakes, part, 1.1 * p) >= left * (1 - 1e-9));
            }
            QCOMPARE(decelerationOf(car, brakes, { 0, 0 }, p), 0.0);
        }
    }

    /// In 5,000 draws of every reading within its width the figure lies inside what is stated of it.
    void intervalsAreHonest_data()
    {
        QTest::addColumn<QString>("demo");
        for (const char* name : { "halden-merle", "linnet", "drover-camper" })
            QTest::newRow(name) << name;
    }
    void intervalsAreHonest()
    {
        QFETCH(QString, demo);
        Build drawn = ::demo(demo.toUtf8().constData());
        const Build build = drawn;
        const Directory directory(drawn);
        const SetupParts setup = partsOf(drawn, drawn.setups[1]);
        const LoadCase* load = &drawn.loads.front();
        const std::array<std::function<double(Evaluator&)>, 5> sums {
            [&](Evaluator& s) { return locksApart(s, drawn, setup, nullptr); },
            [&](Evaluator& s) { return locksApart(s, drawn, setup, load); },
            [&](Evaluator& s) { return rearUse(s, drawn, setup, nullptr); },
            [&](Evaluator& s) { return effortOf(s, drawn, setup); },
            [&](Evaluator& s) { return travelOf(s, drawn, setup).strokeShare; },
        };
        std::array<Figure, 5> figures;
        for (std::size_t i = 0; i < sums.size(); ++i) {
            figures[i] = evaluate(sums[i]);
            QVERIFY(figures[i].value && figures[i].worstCase > 0);
        }
        std::map<Reading*, double> width;
        std::map<Reading*, double> middle;
        for (const Figure& f : figures)
            for (const ReadingId id : f.restsOn) {
                const Address* address = directory.of(id);
                const Reading* r = directory.find(id)->reading;
                auto* reading = const_cast<Reading*>(r);
                double u = uncertainty(*r, address->style.dimension == Dimension::Length);
                if (address->pointer.ends_with("/friction") && r->known == Known::Vendor)
                    u = std::max(u, 0.15 * *r->value);
                width[reading] = u;
                middle[reading] = *r->value;
            }
        int outside = 0;
        for (int draw = 0; draw < 5000; ++draw) {
            for (auto& [reading, u] : width)
                reading->value = middle[reading] + between(-u, u);
            for (std::size_t i = 0; i < sums.size(); ++i) {
                const double value = nominal(sums[i]);
                outside += !(value >= figures[i].lowest() - 1e-9 && value <= figures[i].highest() + 1e-9);
            }
        }
        QCOMPARE(outside, 0);
    }

    /// The front-only kit moves the balance forward, and the advice brings the rear back to what is wanted without locking it first.
    void theMerlesKitMovesTheBalanceForward()
    {
        const Study s = study(demo());
        const auto* was = s.of<Balance>().before.find(nullptr);
        const auto* now = s.of<Balance>().after.find(nullptr);
        QVERIFY(now->rearUse < was->rearUse - 0.05);
        QVERIFY(pointAt(*now, 0.6).front / 0.6 > pointAt(*was, 0.6).front / 0.6);
        const Verdict& use = said(s, "balance/rear-use");
        QCOMPARE(use.level, Level::Caution);
        QVERIFY(use.reason.find("makes it worse") != std::string::npos);
        QVERIFY(!use.remedies.empty());
        for (const Remedy& remedy : use.remedies) {
            const Study mended = study(*remedy.in(*s.build));
            QVERIFY(*said(mended, "balance/rear-use").figure.value >= rearUseWanted);
            QVERIFY(*said(mended, "balance/lock-order").figure.value >= lockMargin);
            QVERIFY(remedy.costs.size() >= 2);
        }
    }

    /// A figure as wide as itself is none, and a middle that lies well says nothing where its width does not.
    void aWidthThatSwallowsTheFigureIsNotKnown()
    {
        const Verdict camper = said(study(demo("drover-camper")), "balance/effort");
        QCOMPARE(camper.level, Level::Unproven);
        QVERIFY2(camper.reason.find("Not known") == 0, camper.reason.c_str());
        const Verdict distance = said(study(demo("drover-camper")), "stop/distance");
        QCOMPARE(distance.level, Level::Unproven);
        QVERIFY2(distance.reason.find("No difference is known") == 0, distance.reason.c_str());
        // The Merle's pedal is in its middle, and its width lies within what is comfortable or says that it does not.
        const Verdict merle = said(study(demo()), "balance/effort");
        QVERIFY(merle.level != Level::Good || merle.figure.rootSumSquare < *merle.figure.value);
        Build wide = demo();
        Reading& ratio = wide.setups[0].hydraulics->pedalRatio;
        ratio.plusMinus = *ratio.value * 0.6;
        QVERIFY(!isFine(said(study(wide), "balance/effort").level));
    }

    void theLinnetsBiggerFrontKitIsSaidToMakeItWorse()
    {
        const Study s = study(demo("linnet"));
        QVERIFY(!isFine(said(s, "balance/rear-use").level));
        // As found its rear locks first: less of it was wanted, and there was no better stop to lose.
        QVERIFY2(said(s, "balance/rear-use").reason.ends_with("before, the rear locked first"), said(s, "balance/rear-use").reason.c_str());
        QVERIFY(said(s, "stop/distance").reason.find("without the car turning round") != std::string::npos);
        // With milder pads at the rear its front locks first already, and the kit takes more away.
        Build milder = demo("linnet");
        *milder.setups[0].rear->pad.friction.value *= 0.55;
        const Study worse = study(milder);
        QVERIFY2(said(worse, "balance/rear-use").reason.find("this setup makes it worse") != std::string::npos,
            said(worse, "balance/rear-use").reason.c_str());
        QVERIFY(said(worse, "stop/distance").reason.find("turning round") == std::string::npos);
    }

    /// Full and empty are judged each on its own; empty the rear comes sooner.
    void theDroverIsJudgedFullAndEmpty()
    {
        const Study s = study(demo("drover-camper"));
        const Verdict& full = said(s, "balance/lock-order-1");
        const Verdict& empty = said(s, "balance/lock-order-2");
        QVERIFY(full.title.ends_with(", full") && empty.title.ends_with(", empty"));
        QVERIFY(*empty.figure.value < *full.figure.value);
        // Without its load-dependent valve's answer to the load the empty car is worse off.
        auto fixed = demo("drover-camper");
        fixed.setups[0].hydraulics->valve = ValveKind::Fixed;
        QVERIFY(*said(study(fixed), "balance/lock-order-2").figure.value < *empty.figure.value);
    }

    /// Each verdict at its edge: what would have to be true for it to be wrong and harmful.
    void edges_data()
    {
        QTest::addColumn<QString>("file");
        QTest::addColumn<QString>("id");
        QTest::addColumn<Level>("level");
        QTest::addColumn<QString>("word");
        QTest::addColumn<std::function<void(Build&)>>("change");
        const auto row = [](const char* what, const char* file, const char* id, Level level, const char* word,
                             std::function<void(Build&)> change) {
            QTest::newRow(what) << file << id << level << word << std::move(change);
        };
        const auto vendor = [](double value, double width) { return Reading { value, width, Known::Vendor, {}, {} }; };
        row("the rear may lock first at worst, on these very tyres", "halden-merle", "balance/lock-order", Level::Stop, "at worst the rear",
            [](Build& b) { b.car.antilock = YesNo::No; });
        row("only on better tyres, at worst", "linnet", "balance/lock-order", Level::Caution, "Not on these tyres", [](Build&) {});
        row("the rear locks first", "linnet", "balance/lock-order", Level::Stop, "turns round",
            [](Build& b) { b.setups[0].rear->pad.friction.value = *b.setups[0].rear->pad.friction.value * 1.5; });
        row("nobody said whether there is a valve", "linnet", "balance/lock-order", Level::Unproven, "valve",
            [](Build& b) { b.setups[0].hydraulics->valve = ValveKind::Unknown; });
        row("a load that turns the order about", "linnet", "balance/lock-order-2", Level::Stop, "turns round", [vendor](Build& b) {
            b.loads.push_back({ "nose up", { { "ballast over the front", vendor(200, 1), vendor(-0.3, 0.01), vendor(0.4, 0.01) } } });
            b.setups[0].rear->pad.friction.value = 0.7;
        });
        row("a load nobody has weighed", "linnet", "balance/lock-order-1", Level::Unproven, "mass carried",
            [](Build& b) { b.loads[0].carried[0].mass = {}; });
        row("a foot that is far too small", "linnet", "balance/effort", Level::Stop, "too weak",
            [](Build& b) { b.setups[0].hydraulics->masterBore.value = 0.045; });
        row("a hard pedal", "linnet", "balance/effort", Level::Caution, "hard pedal",
            [](Build& b) { b.setups[0].hydraulics->masterBore.value = 0.028; });
        row("a booster whose gain nobody knows", "halden-merle", "balance/effort", Level::Unproven, "booster gain",
            [](Build& b) { b.setups[0].hydraulics->boosterGain = {}; });
        row("where the booster runs out is common practice", "halden-merle", "balance/booster", Level::Unproven,
            "where the booster runs out", [](Build& b) { b.setups[0].hydraulics->boosterKnee = {}; });
        row("the booster runs out before the tyres", "halden-merle", "balance/booster", Level::Caution, "before the tyres",
            [](Build& b) { b.setups[0].hydraulics->boosterKnee.value = 1500; });
        row("a gain below one", "halden-merle", "balance/lock-order", Level::Unproven, "gain of 1 or more",
            [](Build& b) { b.setups[0].hydraulics->boosterGain.value = 0.5; });
        row("the cylinder ends first", "halden-merle", "balance/travel", Level::Stop, "ends before",
            [](Build& b) { b.setups[0].hydraulics->masterStroke.value = 0.010; });
        row("fixed or floating is not said", "halden-merle", "balance/travel", Level::Unproven, "fixed or floating",
            [](Build& b) { b.setups[1].front->caliper.kind = CaliperKind::Unknown; });
        row("how much it gives is common practice", "halden-merle", "balance/travel", Level::Unproven, "calipers give",
            [](Build& b) { b.setups[1].front->caliper.give = {}; });
        row("circuits nobody has traced", "halden-merle", "balance/circuits", Level::Unproven, "diagonal",
            [](Build& b) { b.setups[0].hydraulics->circuits = Circuits::Unknown; });
        row("one circuit stops next to nothing", "halden-merle", "balance/circuits", Level::Stop, "next to nothing", [](Build& b) {
            b.setups[0].rear->pad.friction.value = 0.12;
            b.setups[0].rear->caliper.pistons[0].value = 0.02;
        });
        row("pads drink the reservoir", "halden-merle", "balance/fluid", Level::Caution, "top up",
            [](Build& b) { b.setups[0].hydraulics->reservoir.value = 80e-6; });
        row("nobody has measured the reservoir", "halden-merle", "balance/fluid", Level::Unproven, "reservoir",
            [](Build& b) { b.setups[0].hydraulics->reservoir = {}; });
        row("far from the yardstick", "linnet", "balance/yardstick", Level::Caution, "Outside it",
            [](Build& b) { b.setups[0].rear->pad.friction.value = 1.2; });
    }
    void edges()
    {
        QFETCH(QString, file);
        QFETCH(QString, id);
        QFETCH(Level, level);
        QFETCH(QString, word);
        QFETCH(std::function<void(Build&)>, change);
        Build build = demo(file.toUtf8().constData());
        change(build);
        const Study s = study(build);
        const Verdict& v = said(s, id.toUtf8().constData());
        QVERIFY2(v.level == level && v.reason.find(word.toStdString()) != std::string::npos,
            (std::string(nameOf(v.level)) + ": " + v.reason).c_str());
        QVERIFY(!v.caution.empty() && !v.method.empty() && !v.source.empty());
    }

    /// What is the worse part makes the figure worse: each reading moved a little the one way moves the figure the one way.
    void directions_data()
    {
        QTest::addColumn<QString>("file");
        QTest::addColumn<QString>("pointer");
        QTest::addColumn<int>("figure");
        QTest::addColumn<int>("sign");
        enum { Apart, Effort, Share, Pedal };
        const auto row = [](const char* file, const char* pointer, int figure, int sign) {
            QTest::addRow("%s %s %d", file, pointer, figure) << file << pointer << figure << sign;
        };
        row("halden-merle", "/setups/0/rear/pad/friction", Apart, -1);
        row("halden-merle", "/setups/1/front/pad/friction", Apart, +1);
        row("halden-merle", "/setups/0/rear/caliper/pistons_mm/0", Apart, -1);
        row("halden-merle", "/setups/0/hydraulics/rear_knee_bar", Apart, -1);
        row("halden-merle", "/setups/0/hydraulics/rear_slope", Apart, -1);
        row("halden-merle", "/car/centre_of_mass_height_mm", Apart, -1);
        row("halden-merle", "/car/front_load_percent", Apart, -1);
        row("drover-camper", "/setups/0/rear/drum/friction", Apart, -1);
        row("drover-camper", "/setups/0/rear/drum/cylinder_bore_mm", Apart, -1);
        row("halden-merle", "/setups/0/hydraulics/master_bore_mm", Effort, +1);
        row("halden-merle", "/setups/0/hydraulics/pedal_ratio", Effort, -1);
        row("halden-merle", "/setups/0/hydraulics/booster_gain", Effort, -1);
        row("halden-merle", "/setups/1/front/pad/friction", Effort, -1);
        row("halden-merle", "/setups/0/hydraulics/master_bore_mm", Share, -1);
        row("halden-merle", "/setups/0/hydraulics/master_stroke_mm", Share, -1);
        row("halden-merle", "/setups/1/front/caliper/give_cm3", Share, +1);
        row("halden-merle", "/setups/1/front/hose/give_cm3", Share, +1);
        row("halden-merle", "/setups/1/front/pad/squeeze_mm", Share, +1);
        row("halden-merle", "/wants/roll_back_mm", Share, +1);
        row("drover-camper", "/setups/0/rear/drum/shoe_play_mm", Pedal, +1);
        row("halden-merle", "/setups/0/hydraulics/pedal_ratio", Pedal, +1);
        row("halden-merle", "/setups/0/hydraulics/free_play_mm", Pedal, +1);
    }
    void directions()
    {
        QFETCH(QString, file);
        QFETCH(QString, pointer);
        QFETCH(int, figure);
        QFETCH(int, sign);
        const auto worth = [&](const Build& build) {
            const SetupParts setup = partsOf(build, build.setups[1]);
            return nominal([&](Evaluator& s) {
                switch (figure) {
                case 0:
                    return locksApart(s, build, setup, nullptr);
                case 1:
                    return effortOf(s, build, setup);
                case 2:
                    return travelOf(s, build, setup).strokeShare;
                default:
                    return travelOf(s, build, setup).pedal;
                }
            });
        };
        const Build build = demo(file.toUtf8().constData());
        const Directory directory(build);
        const auto* entry = directory.at(pointer.toStdString());
        QVERIFY(entry && entry->reading->value);
        Reading more = *entry->reading;
        more.repeats.clear();
        more.value = *more.value * 1.02;
        const double change = worth(withReading(build, pointer.toStdString(), more)) - worth(build);
        QVERIFY2(change * sign > 0, QByteArray::number(change).constData());
    }

    void quickSums()
    {
        QVERIFY(near(
            answer("pressure", { "pedal-force=320N", "pedal-ratio=3.8", "booster-gain=4.5", "booster-knee=4100N", "master-bore=23.81mm" },
                "pushrod_N"),
            4100 + 1216 - 4100 / 4.5, 1e-9));
        QVERIFY(near(answer("brake-torque", { "friction=0.4", "pressure=60bar", "piston-area=25cm2", "radius=140mm" }, "torque_Nm"),
            2 * 0.4 * 60e5 * 25e-4 * 0.14, 1e-9));
        QVERIFY(near(
            answer("pedal-travel", { "volume=0.008L", "master-bore=7/8in", "pedal-ratio=4", "free-play=5", "stroke=36" }, "pedal_travel_m"),
            8e-6 / (std::numbers::pi / 4 * 0.022225 * 0.022225) * 4 + 0.005, 1e-9));
        QVERIFY(near(answer("ideal-split", { "front-load=53%", "height=540", "wheelbase=2720", "deceleration=0.8" }, "front_share"),
            0.53 + 0.8 * 540 / 2720, 1e-9));
        QVERIFY(near(
            answer("lock-order", { "front-load=0.55749", "height=508", "wheelbase=2870", "front-share=60%", "grip=0.6" }, "deceleration_g"),
            0.6 * (1 - 0.55749) / (0.4 + 0.6 * 508 / 2870), 1e-6));
        const double two = answer(
            "drum-torque", { "kind=two-leading", "pressure=40bar", "cylinder-bore=22.2", "drum=270", "friction=0.38" }, "brake_factor");
        const double one = answer("drum-torque",
            { "kind=leading-trailing", "pressure=40bar", "cylinder-bore=22.2", "drum=270", "friction=0.38" }, "brake_factor");
        // Common practice: about 2 for leading and trailing, 3 for two leading.
        QVERIFY(one > 1.7 && one < 2.6 && two > 2.6 && two < 4);
    }

    void nonsenseGetsClearWords_data()
    {
        QTest::addColumn<QString>("sum");
        QTest::addColumn<QStringList>("arguments");
        QTest::addColumn<QString>("word");
        QTest::newRow("negative bore") << "pressure" << QStringList { "pedal-force=300", "pedal-ratio=4", "master-bore=-20" }
                                       << "master-bore";
        QTest::newRow("zero ratio") << "pressure" << QStringList { "pedal-force=300", "pedal-ratio=0", "master-bore=20" } << "pedal-ratio";
        QTest::newRow("gain below one") << "pressure"
                                        << QStringList { "pedal-force=300", "pedal-ratio=4", "master-bore=20", "booster-gain=0.5" }
                                        << "booster-gain";
        QTest::newRow("share over one") << "lock-order"
                                        << QStringList { "front-load=0.5", "height=500", "wheelbase=2500", "front-share=1.2", "grip=1" }
                                        << "front-share";
        QTest::newRow("all the load in front") << "ideal-split"
                                               << QStringList { "front-load=1", "height=500", "wheelbase=2500", "deceleration=0.5" }
                                               << "front-load";
        QTest::newRow("past the lift") << "ideal-split"
                                       << QStringList { "front-load=0.5", "height=500", "wheelbase=2500", "deceleration=3" }
                                       << "leave the road";
        QTest::newRow("no such drum") << "drum-torque"
                                      << QStringList { "kind=simplex", "pressure=40", "cylinder-bore=20", "drum=250", "friction=0.4" }
                                      << "kind";
        QTest::newRow("a pivot outside") << "drum-torque"
                                         << QStringList { "kind=two-leading", "pressure=40", "cylinder-bore=20", "drum=250", "friction=0.4",
                                                "anchor=200" }
                                         << "anchor";
        QTest::newRow("a shoe that grabs") << "drum-torque"
                                           << QStringList { "kind=duo-servo", "pressure=40", "cylinder-bore=20", "drum=250",
                                                  "friction=0.95" }
                                           << "grabs";
    }
    void nonsenseGetsClearWords()
    {
        QFETCH(QString, sum);
        QFETCH(QStringList, arguments);
        QFETCH(QString, word);
        std::vector<std::string> given;
        for (const QString& each : arguments)
            given.push_back(each.toStdString());
        try {
            (void)sums::calculate(sum.toStdString(), given);
            QFAIL("was answered");
        } catch (const sums::BadRequest& refusal) {
            QVERIFY2(std::string(refusal.what()).find(word.toStdString()) != std::string::npos, refusal.what());
        }
    }

    void theReportNamesLoadsAndWritesCurves()
    {
        const Study s = study(demo());
        const auto names = report::loadNames(s);
        QCOMPARE(names.size(), std::size_t { 3 });
        QCOMPARE(names.front(), "driver only");
        const auto csv = QString::fromStdString(report::balanceCsv(s, "full")).split('\n', Qt::SkipEmptyParts);
        QVERIFY(csv.size() > 100);
        const auto columns = csv.front().split(',');
        for (int i = 1; i < csv.size(); ++i) {
            const auto fields = csv[i].split(',');
            QCOMPARE(fields.size(), columns.size());
            QCOMPARE(fields[1], "full");
            const double z = fields[2].toDouble();
            QVERIFY(std::abs(fields[5].toDouble() + fields[6].toDouble() - z) < 1e-6);
        }
        const auto sheet = report::balanceSheet(s, "full");
        QVERIFY(sheet.find("full") != std::string::npos && sheet.find("\nAs found, driver only\n") == std::string::npos);
        QVERIFY(sheet.find("approves nothing") != std::string::npos);
    }
};

DEEPSTOP_TEST(BalanceTest)
#include "balance_test.moc"
