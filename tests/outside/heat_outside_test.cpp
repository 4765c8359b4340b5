/// The thermal network against a finite-element program and against SciPy's stiff integrator.

#include "core/support.hpp"
#include "heat/network.hpp"

#include <QFile>
#include <QTemporaryDir>
#include <QTest>
#include <QTextStream>

#include <numbers>

using namespace deepstop::heat;

namespace {

Brake plate(double depth)
{
    Brake b;
    b.metal = { 7200, 480, 0, 50, 0 };
    b.heatedArea = 0.076;
    b.depth = depth;
    b.ringMass = b.metal.density * b.heatedArea * b.depth;
    b.openFaces = b.heatedArea;
    b.diameter = 0.29;
    b.tyreRadius = 0.31;
    b.hatStore = b.hubStore = b.liningStore = b.backingStore = b.caliperStore = b.fluidStore = 500;
    b.coefficient = 0;
    return b;
}

Car carOf(const Brake& b, double mass)
{
    Car car;
    car.road = { mass, 0, 0, 1 };
    car.front = car.rear = b;
    car.frontShare = [](double, double, double) { return 0.5; };
    car.frontFriction = car.rearFriction = [](double) { return 1.0; };
    return car;
}

} // namespace

class HeatOutsideTest : public QObject {
    Q_OBJECT
private slots:
    /// Outside: CalculiX. A slab with a flux that falls linearly over the stop, insulated behind; mesh and step halved change less than 0.2
    /// %.
    void oneStopAgainstCalculix_data()
    {
        QTest::addColumn<double>("depth");
        QTest::addColumn<double>("speed");
        QTest::newRow("a plate of 8 mm") << 0.008 << 30.0;
        QTest::newRow("half a solid ring of 12 mm") << 0.006 << 40.0;
    }
    void oneStopAgainstCalculix()
    {
        QFETCH(double, depth);
        QFETCH(double, speed);
        const Brake b = plate(depth);
        const double mass = 1500;
        const double z = 8;
        const double seconds = speed / z;
        const double flux = mass * z * speed / 4 / b.heatedArea;
        const auto theirs = [&](int elements, int steps) {
            QTemporaryDir folder;
            QFile file(folder.filePath("slab.inp"));
            if (!file.open(QIODevice::WriteOnly))
                return 0.0;
            QTextStream out(&file);
            out << "*NODE,NSET=ALL\n";
            const double w = 1e-3;
            int number = 0;
            for (int i = 0; i <= elements; ++i)
                for (const auto& [x, y] : { std::pair { 0.0, 0.0 }, std::pair { w, 0.0 }, std::pair { w, w }, std::pair { 0.0, w } })
                    out << ++number << "," << x << "," << y << "," << depth * i / elements << "\n";
            out << "*ELEMENT,TYPE=C3D8,ELSET=SLAB\n";
            for (int i = 0; i < elements; ++i) {
                out << i + 1;
                for (int k = 1; k <= 8; ++k)
                    out << "," << 4 * i + k;
                out << "\n";
            }
            out << "*NSET,NSET=FACE\n1,2,3,4\n*MATERIAL,NAME=IRON\n*CONDUCTIVITY\n50\n*SPECIFIC HEAT\n480\n*DENSITY\n7200\n"
                << "*SOLID SECTION,ELSET=SLAB,MATERIAL=IRON\n*INITIAL CONDITIONS,TYPE=TEMPERATURE\nALL,0\n"
                << "*AMPLITUDE,NAME=FALL\n0,1," << seconds << ",0\n*STEP,INC=100000\n*HEAT TRANSFER,DIRECT\n"
                << seconds / steps << "," << seconds << "\n*DFLUX,AMPLITUDE=FALL\n1,S1," << flux
                << "\n*NODE PRINT,NSET=FACE\nNT\n*END STEP\n";
            out.flush();
            file.close();
            QProcess ccx;
            ccx.setWorkingDirectory(folder.path());
            ccx.start("ccx", { "slab" });
            if (!ccx.waitForFinished(120000))
                return 0.0;
            QFile dat(folder.filePath("slab.dat"));
            if (!dat.open(QIODevice::ReadOnly))
                return 0.0;
            double hottest = 0;
            for (const QByteArray& line : dat.readAll().split('\n')) {
                const auto fields = line.simplified().split(' ');
                if (fields.size() == 2 && fields[0].toInt() > 0)
                    hottest = std::max(hottest, fields[1].toDouble());
            }
            return hottest;
        };
        const double coarse = theirs(40, 400);
        const double fine = theirs(80, 800);
        QVERIFY2(fine > 0 && near(coarse, fine, 2e-3), QByteArray::number(coarse).constData());
        const Run r = run(carOf(b, mass), oneStop(speed, z), { 1e-4, 1.3e-3, 0.01 });
        const double ours = r.frontPeak[static_cast<std::size_t>(Node::Surface)] - 293.15;
        QVERIFY2(near(ours, fine, 0.01), (QByteArray::number(ours) + " / " + QByteArray::number(fine)).constData());
        // The program's own layers are thicker; they are good to two in a hundred.
        const Run usual = run(carOf(b, mass), oneStop(speed, z), {});
        QVERIFY(near(usual.frontPeak[1] - 293.15, fine, 0.02));
    }

    /// Outside: scipy.integrate.solve_ivp with Radau, the same equations written down once more.
    void theNetworkAgainstScipy()
    {
        Brake b = plate(0.008);
        b.metal.cRise = 7e-4;
        b.metal.kRise = -4e-4;
        b.coefficient = 55;
        b.vaneArea = 0.08;
        b.hatStore = 700;
        b.hatArea = 0.05;
        b.ringToHat = 4;
        b.hatToHub = 15;
        b.hubStore = 2500;
        b.hubToAir = 2;
        b.hubArea = 0.1;
        b.hubToWheel = 8;
        b.wheelArea = 0.5;
        b.facesRing = 0.02;
        b.liningStore = 260;
        b.liningConductance = 2.1;
        b.liningShare = 0.04;
        b.backingStore = 300;
        b.backingToCaliper = 0.9;
        b.backingToFluid = 1.1;
        b.caliperStore = 2800;
        b.caliperArea = 0.08;
        b.caliperToFluid = 4;
        b.fluidStore = 110;
        const double mass = 1500;
        const Duty duty = snubs(6, 30, 12, 4, 30);
        const Run r = run(carOf(b, mass), duty, { 1e-5, 2e-3, 1, 600 });
        QVERIFY(r.complete);
        QByteArray phases;
        for (const Phase& p : duty.phases)
            phases += QByteArray::number(p.from, 'g', 17) + " " + QByteArray::number(p.to, 'g', 17) + " "
                + QByteArray::number(p.duration, 'g', 17) + " " + (p.braking ? "1" : "0") + "\n";
        phases += "0 0 600 0\n";
        const auto answer = answerOf("/usr/bin/python3", { "-c", R"(
import sys
import numpy as np
from scipy.integrate import solve_ivp
n, depth, area, c, beta, k0, kr = 4, 0.008, 0.076, 480.0, 7e-4, 50.0, -4e-4
m = 7200*area*depth; per = m*c/n; dx = depth/n; T0 = 293.15
def rhs(t, x, ph):
    a, b, d, on = ph
    v = a + (b-a)*t/d
    P = 0.5*1500*(a-b)/d*v/2 if on else 0.0
    ring = T0 + (np.sqrt(1+2*beta*x[:n])-1)/beta
    hat, lin, back, cal, flu, hub = x[n:]
    k = lambda T: k0*(1+kr*(T-T0))
    inward = k(ring[0])*(ring[0]-ring[1])/dx
    hot = ring[0] + (2*P*0.96/area + inward)*dx/(6*k(ring[0]))
    q = np.zeros(n)
    across = 2.1*(1 if on else 0.2)*(hot-lin)
    q[0] += P*0.96 - across
    for i in range(n-1):
        f = k((ring[i]+ring[i+1])/2)*area/dx*(ring[i]-ring[i+1]); q[i] -= f; q[i+1] += f
    shone = 5.670374419e-8/(1/0.6+1/0.85-1)*0.02*(hot**4-cal**4)
    q[0] -= 55*area*(hot-T0) + shone
    toHat = 4*(ring[-1]-hat)
    q[-1] -= 55*0.08*(ring[-1]-T0) + toHat
    toHub = 15*(hat-hub); toBack = 2.1*(lin-back); toCal = 0.9*(back-cal); toFlu = 1.1*(back-flu); wet = 4*(flu-cal)
    bath = T0 + 0.1*(hot-T0)
    away = 2 + 55*0.1 + 1/(1/8 + 1/(55*0.5))
    return np.concatenate([q/per, [(toHat-toHub-55*0.05*(hat-T0))/700, (P*0.04+across-toBack)/260, (toBack-toCal-toFlu)/300,
        (toCal+wet+shone-55*0.08*(cal-bath))/2800, (toFlu-wet)/110, (toHub-away*(hub-T0))/2500]])
x = np.concatenate([np.zeros(n), np.full(6, T0)])
for line in sys.stdin:
    ph = list(map(float, line.split()))
    if ph[0] == 0: driven = x
    x = solve_ivp(rhs, (0, ph[2]), x, 'Radau', args=(ph,), rtol=1e-9, atol=1e-8).y[:, -1]
for x in (driven, x):
    mean = np.mean(x[:n]); ring = T0 + (np.sqrt(1+2*beta*mean)-1)/beta
    print(repr(ring), *map(repr, x[n:]))
)" },
            phases);
        const auto theirs = answer.simplified().split(' ');
        QCOMPARE(theirs.size(), 14);
        const Temperatures& end = r.course.back().front;
        const std::array ours { end[0], end[2], end[3], end[4], end[5], end[6], end[7] };
        const std::array order { 0, 1, 2, 3, 4, 5, 6 };
        // Both in the order ring, hat, lining, backing, caliper, fluid, hub.
        for (const int i : order)
            QVERIFY2(near(ours[static_cast<std::size_t>(i)] - 293.15, theirs[i].toDouble() - 293.15, 1e-3),
                (QByteArray::number(i) + ": " + QByteArray::number(ours[static_cast<std::size_t>(i)]) + " / " + theirs[i]).constData());
        // After ten minutes at rest, the ring by then one lump here and four layers there.
        const Temperatures& rest = r.standing.back().front;
        const std::array after { rest[0], rest[2], rest[3], rest[4], rest[5], rest[6], rest[7] };
        for (const int i : order)
            QVERIFY2(std::abs(after[static_cast<std::size_t>(i)] - theirs[7 + i].toDouble()) < 1,
                (QByteArray::number(i) + ": " + QByteArray::number(after[static_cast<std::size_t>(i)]) + " / " + theirs[7 + i])
                    .constData());
    }
};

DEEPSTOP_TEST(HeatOutsideTest)
#include "heat_outside_test.moc"
