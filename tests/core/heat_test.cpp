/// What the brakes take: one stop against closed forms, repeated stops against the series, energy, and that the better part is never
/// hotter.

#include "core/support.hpp"
#include "heat/convection.hpp"
#include "heat/heat.hpp"
#include "heat/network.hpp"
#include "task/cancel.hpp"

#include <QTest>

#include <cmath>
#include <numbers>

using namespace deepstop::heat;

namespace {

/// A vented iron ring of 288 × 24.6 with all that hangs on it.
Brake merlesFront()
{
    Brake b;
    b.ringMass = 5.2;
    b.heatedArea = 2 * std::numbers::pi / 4 * (0.288 * 0.288 - 0.186 * 0.186);
    b.depth = 7.8e-3;
    b.openFaces = 0.85 * b.heatedArea;
    b.vaneArea = 0.1;
    b.channel = 9e-3;
    b.channelLength = 0.05;
    b.diameter = 0.288;
    b.tyreRadius = 0.31;
    b.hatStore = 700;
    b.hatArea = 0.05;
    b.ringToHat = 4;
    b.hatToHub = 20;
    b.hubStore = 3000;
    b.hubToAir = 2;
    b.liningStore = 250;
    b.liningConductance = 2.2;
    b.liningShare = 0.03;
    b.backingStore = 300;
    b.backingToCaliper = 1;
    b.backingToFluid = 1;
    b.caliperStore = 3000;
    b.caliperArea = 0.08;
    b.caliperToFluid = 4;
    b.fluidStore = 100;
    return b;
}

/// The ring alone: nothing flows to hat or linings.
Brake ringAlone(Brake b)
{
    b.ringToHat = b.liningConductance = b.liningShare = b.hatToHub = b.hubToAir = b.backingToCaliper = b.backingToFluid = b.caliperToFluid =
        0;
    b.metal.cRise = b.metal.kRise = 0;
    return b;
}

Car carOf(const Brake& front, double mass = 1460)
{
    Car car;
    car.road = { mass, 0, 0, 1 };
    car.front = front;
    car.rear = front;
    car.frontShare = [](double, double ours, double theirs) { return 0.7 * ours / (0.7 * ours + 0.3 * theirs); };
    car.frontFriction = car.rearFriction = [](double) { return 1.0; };
    return car;
}

Duty laps(int brakings)
{
    Duty duty { "laps", "laps", {}, 0 };
    for (int i = 1; i <= brakings; ++i) {
        duty.phases.push_back({ 40, 20, 20 / 8.0, true, 0, i });
        duty.phases.push_back({ 20, 40, 8, false, 0, i });
    }
    return duty;
}

} // namespace

class HeatTest : public QObject {
    Q_OBJECT
private slots:
    /// Semi-infinite body, flux falling linearly to nothing: ΔT = 4/(3√(2π))·q0·√(t/(kρc)) at t/2 (Carslaw and Jaeger's solution, from
    /// memory). A plate thick beside √(αt) is one.
    void theFlashOfOneStopIsTheClosedForm()
    {
        const double v = 30;
        const double z = 8;
        const double seconds = v / z;
        Brake body = ringAlone(merlesFront());
        body.coefficient = 0;
        body.depth = 0.02;
        body.ringMass = body.metal.density * body.heatedArea * body.depth;
        const Run fine = run(carOf(body), oneStop(v, z), { 1e-4, 2.5e-3, 0.01 });
        const double q0 = 0.7 * 1460 * z * v / 2 / body.heatedArea;
        const double closed = 4 / (3 * std::sqrt(2 * std::numbers::pi)) * q0
            * std::sqrt(seconds / (body.metal.conductivity * body.metal.density * body.metal.specificHeat));
        const double peak = fine.frontPeak[static_cast<std::size_t>(Node::Surface)] - 293.15;
        QVERIFY2(near(peak, closed, 0.01), (QByteArray::number(peak) + " / " + QByteArray::number(closed)).constData());
        const auto hottest = std::ranges::max_element(fine.course, {}, [](const Moment& m) { return m.front[1]; });
        QVERIFY(std::abs(hottest->time - seconds / 2) < 0.1 * seconds);
    }

    /// Equal quick stops with constant cooling: after n of them the ring is ΔT·(1 − e^(−n b))/(1 − e^(−b)) warm, b = h·A·t/(m·c).
    void repeatedStopsAreTheGeometricSeries()
    {
        Brake b = ringAlone(merlesFront());
        b.coefficient = 60;
        b.vaneArea = 0;
        b.metal.conductivity = 5e3; // no gradient, as the series has it
        Duty duty { "n", "n", {}, 0 };
        constexpr int stops = 12;
        const double interval = 40;
        for (int i = 1; i <= stops; ++i) {
            duty.phases.push_back({ 25, 0, 0.02, true, 0, i });
            duty.phases.push_back({ 0, 25, interval - 0.02, false, 0, i });
        }
        const Run r = run(carOf(b), duty, { 1e-5, 4e-3, 1 });
        QVERIFY(r.complete);
        const double store = b.ringMass * b.metal.specificHeat;
        const double rise = 0.7 * 0.5 * 1460 * 625 / 2 / store;
        const double decay = b.coefficient * b.openFaces * interval / store;
        const double series = rise * (1 - std::exp(-stops * decay)) / (1 - std::exp(-decay));
        QVERIFY2(near(r.frontPeak[0] - 293.15, series, 1e-3),
            (QByteArray::number(r.frontPeak[0] - 293.15) + " / " + QByteArray::number(series)).constData());
    }

    /// In is stored and lost, over every kind of duty; and what the wheels make is what the car gave up.
    void energyIsConserved()
    {
        for (const Duty& duty : { oneStop(40, 8, 60), heatingProcedure(120 / 3.6), laps(30), descent(8000, 0.09, 14, 0.3) }) {
            const Car car = carOf(merlesFront());
            const Run r = run(car, duty);
            QVERIFY(r.complete);
            QVERIFY(near(r.front.in, r.front.stored + r.front.lost, 1e-6));
            QVERIFY(near(r.rear.in, r.rear.stored + r.rear.lost, 1e-6));
            double given = 0;
            for (const Phase& p : duty.phases)
                if (p.braking)
                    given += 0.5 * car.road.mass * (p.from * p.from - p.to * p.to)
                        + car.road.mass * 9.80665 * p.slope * (p.from + p.to) / 2 * p.duration
                        - duty.engineBraking * car.road.mass * (p.from + p.to) / 2 * p.duration;
            QVERIFY2(near(2 * (r.front.in + r.rear.in), given, 1e-4), duty.id.c_str());
        }
    }

    void aFinerStepChangesNothing()
    {
        const Car car = carOf(merlesFront());
        const Run coarse = run(car, laps(40), { 1e-3, 2e-3, 0.5 });
        const Run fine = run(car, laps(40), { 5e-4, 2e-3, 0.5 });
        for (std::size_t i = 0; i < nodeCount; ++i)
            QVERIFY2(std::abs(coarse.frontPeak[i] - fine.frontPeak[i]) < 0.1,
                QByteArray::number(coarse.frontPeak[i] - fine.frontPeak[i]).constData());
        // And thinner layers little.
        const Run thin = run(car, laps(40), { 1e-3, 1e-3, 0.5 });
        QVERIFY(std::abs(coarse.frontPeak[1] - thin.frontPeak[1]) < 0.01 * (thin.frontPeak[1] - 293.15));
    }

    /// Over random corners: more ring, more vanes, a duct, a lighter car: never hotter while it drives. (At rest a heavier ring gives what
    /// hangs on it more.)
    void theBetterPartIsNeverHotter()
    {
        for (int i = 0; i < 40; ++i) {
            Brake b = merlesFront();
            b.ringMass = between(3, 12);
            b.depth = between(4e-3, 12e-3);
            b.vaneArea = between(0.02, 0.2);
            b.ringToHat = between(0.3, 8);
            const double mass = between(600, 3000);
            const Duty duty = laps(15);
            Accuracy driving;
            driving.standing = 0;
            const Run was = run(carOf(b, mass), duty, driving);
            const auto better = [&](const Brake& brake, double of) {
                const Run now = run(carOf(brake, of), duty, driving);
                for (const Node node : { Node::Ring, Node::Lining, Node::Fluid })
                    QVERIFY2(now.frontPeak[static_cast<std::size_t>(node)] <= was.frontPeak[static_cast<std::size_t>(node)] + 0.05,
                        QByteArray::number(now.frontPeak[static_cast<std::size_t>(node)] - was.frontPeak[static_cast<std::size_t>(node)])
                            .constData());
            };
            Brake more = b;
            more.ringMass *= 1.2;
            better(more, mass);
            more = b;
            more.vaneArea *= 1.3;
            better(more, mass);
            more = b;
            more.duct = 2;
            better(more, mass);
            better(b, 0.9 * mass);
        }
    }

    /// What fades on one axle the other makes up: its share rises and the sum stays.
    void fadeMovesTheShare()
    {
        Car car = carOf(merlesFront());
        car.frontFriction = [](double surface) { return surface < 500 ? 1.0 : std::max(0.3, 1 - (surface - 500) / 600); };
        const Run r = run(car, laps(40));
        const Moment& first = r.course.front();
        double least = 1;
        for (const Moment& m : r.course)
            if (m.power > 0) {
                least = std::min(least, m.frontShare);
                QVERIFY(near(m.frontShare, 0.7 * m.frontFriction / (0.7 * m.frontFriction + 0.3 * m.rearFriction), 1e-9));
            }
        QVERIFY(least < first.frontShare - 0.05);
    }

    /// Order of magnitude: correlations against each other. A plate of 0.3 m at 30 m/s by 0.037 of the rough flat plate (Incropera,
    /// from memory) gives within a factor of two what Limpert's disc does.
    void convectionAgainstTheFlatPlate()
    {
        const double v = 30;
        const double d = 0.3;
        const Air air = airAt(350);
        const double re = v * d / air.viscosity;
        const double plate = 0.037 * std::pow(re, 0.8) * std::cbrt(0.7) * air.conductivity / d;
        const double disc = discFaces(d, v, 350);
        QVERIFY2(disc / plate > 0.5 && disc / plate < 3, QByteArray::number(disc / plate).constData());
        // Tables at 300 and 500 K, from memory: 0.0263 and 0.0407 W/(m K), 15.9 and 38.8e-6 m²/s.
        QVERIFY(near(airAt(500).conductivity, 0.0407, 0.04) && near(airAt(500).viscosity, 38.8e-6, 0.04));
        for (double speed = 1; speed < 60; speed += 1)
            QVERIFY(vaneChannels(9e-3, 0.05, speed + 1, 400) > vaneChannels(9e-3, 0.05, speed, 400));
    }

    /// UN R13-H type I and FMVSS 135 heating snubs (from memory): 15 from 120 to 60 km/h, 45 s apart, 11 min in all.
    void theHeatingProcedure()
    {
        const Duty duty = heatingProcedure(120 / 3.6);
        QCOMPARE(stopsIn(duty), 15);
        QVERIFY(near(durationOf(duty), 15 * 45, 1e-9));
        QVERIFY(snubs(3, 20, 30, 3, 45).phases.empty() && snubs(3, 30, 20, 3, 2).phases.empty() && snubs(0, 30, 20, 3, 45).phases.empty());
        // A stop of 1000 kg from 108 km/h gives up 450 kJ.
        const Run r = run(carOf(merlesFront(), 1000), oneStop(30, 8));
        QVERIFY(near(2 * (r.front.in + r.rear.in), 450e3, 1e-4));
        QVERIFY(near(stopEnergy(1000, 30, 0), 450e3, 1e-12));
    }

    void nonsenseRunsNothing()
    {
        Car car = carOf(merlesFront());
        QVERIFY(!run(car, {}).complete);
        Duty backwards = oneStop(30, 8);
        backwards.phases[0].duration = -1;
        QVERIFY(!run(car, backwards).complete);
        QVERIFY(!run(car, { "fast", "fast", { { 10'000 / 3.6, 0, 10, true, 0, 1 } }, 0 }).complete);
        car.front.ringMass = 0;
        QVERIFY(!run(car, oneStop(30, 8)).complete);
        // A lining of a milligram would want steps of microseconds; a duty of a week has no end.
        Car stiff = carOf(merlesFront());
        stiff.front.liningStore = 1e-6;
        QVERIFY(!run(stiff, laps(100)).complete);
        QVERIFY(!run(carOf(merlesFront()), oneStop(30, 8, 7 * 86400.0)).complete);
        const std::atomic<bool> unwanted { true };
        const deepstop::CancelScope scope(&unwanted);
        QVERIFY_THROWS_EXCEPTION(deepstop::Cancelled, (void)run(carOf(merlesFront()), laps(5)));
    }
};

DEEPSTOP_TEST(HeatTest)
#include "heat_test.moc"
