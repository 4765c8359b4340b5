/// Proving against others: SciPy's t test and integrator, gpsd's decoder and GPSBabel on what the simulated receiver says.

#include "core/support.hpp"
#include "files/track_log.hpp"
#include "instruments/receiver.hpp"
#include "proving/statistics.hpp"
#include "stopping/drive.hpp"

#include <QJsonDocument>
#include <QJsonObject>
#include <QTemporaryDir>
#include <QTest>

using namespace deepstop;
using namespace deepstop::stopping;

class StopOutsideTest : public QObject {
    Q_OBJECT
private slots:
    /// Outside: scipy.stats.ttest_ind(equal_var=False) and its interval from the t distribution, over 2,000 random pairs.
    void welchAgainstScipy()
    {
        QByteArray asked;
        std::vector<proving::Difference> ours;
        std::normal_distribution<double> normal(0, 1);
        for (int i = 0; i < 2000; ++i) {
            std::vector<double> lists[2];
            for (auto& list : lists) {
                const int count = among(2, 14);
                const double mean = between(20, 80);
                const double wide = between(0.1, 6);
                for (int k = 0; k < count; ++k) {
                    list.push_back(mean + wide * between(-1, 1));
                    asked += QByteArray::number(list.back(), 'g', 17) + (k + 1 < count ? "," : "");
                }
                asked += &list == &lists[0] ? ";" : "\n";
            }
            ours.push_back(*proving::welch(lists[0], lists[1]));
        }
        const auto answer = answerOf("/usr/bin/python3", { "-c", R"(
import sys
import numpy as np
from scipy import stats
from scipy.optimize import brentq
for line in sys.stdin:
    a, b = [np.array([float(x) for x in part.split(',')]) for part in line.split(';')]
    t, p = stats.ttest_ind(a, b, equal_var=False)
    ea, eb = a.var(ddof=1)/len(a), b.var(ddof=1)/len(b)
    f = (ea+eb)**2/(ea**2/(len(a)-1)+eb**2/(len(b)-1))
    # The tail solved for: t.ppf itself is good to nine figures only for little freedom.
    half = brentq(lambda t: stats.t.sf(t, f)-.025, 1, 50, xtol=1e-13, rtol=1e-15)*np.sqrt(ea+eb)
    d = a.mean()-b.mean()
    print(repr(float(d)), repr(float(d-half)), repr(float(d+half)), repr(float(p)))
)" },
            asked);
        const auto lines = answer.trimmed().split('\n');
        QCOMPARE(lines.size(), 2000);
        for (int i = 0; i < 2000; ++i) {
            const auto said = lines[i].split(' ');
            const auto& d = ours[static_cast<std::size_t>(i)];
            const double scale = std::max(1.0, std::abs(d.high));
            QVERIFY(std::abs(d.difference - said[0].toDouble()) < 1e-9 * scale);
            QVERIFY2(std::abs(d.low - said[1].toDouble()) < 1e-9 * scale, lines[i].constData());
            QVERIFY(std::abs(d.high - said[2].toDouble()) < 1e-9 * scale);
            QVERIFY(std::abs(d.p - said[3].toDouble()) < 1e-9);
        }
    }

    /// Outside: scipy.integrate.solve_ivp (RK45) over 500 random cars, from the balance of forces written again: build-up, load going
    /// forward with a lag, grip falling with load, threshold or antilock, air with wind, slope, rolling. Within a centimetre.
    void stopsAgainstScipy()
    {
        QByteArray asked;
        std::vector<double> ours;
        for (int i = 0; i < 500; ++i) {
            const stopping::Car car { between(600, 3000), between(2.1, 3.4), between(0.4, 0.9), between(0.4, 0.62), between(0.4, 1.2) };
            const Brakes brakes { { between(1.5e-3, 4e-3), between(0.11, 0.16), between(0.6, 0.9), between(0.28, 0.36), between(0.7, 1.3) },
                { between(5e-4, 2e-3), between(0.11, 0.15), between(0.6, 0.9), between(0.28, 0.36), between(0.7, 1.3) },
                between(15e5, 50e5), between(0.2, 0.9), 1 };
            Circumstances how { between(40e5, 140e5), between(0.05, 0.5), among(0, 1) == 1, between(0.85, 1), between(0.05, 0.5),
                between(0, 0.15), between(0.6, 1), 0.012, between(-0.04, 0.04), between(-5, 5), between(0.6, 1), between(0.7, 1) };
            const double speed = between(12, 55);
            ours.push_back(drive(car, brakes, how, speed).distance);
            for (const double each : { car.mass, car.wheelbase, car.centreOfMassHeight, car.frontLoadShare, car.dragArea,
                     brakes.front.pistonArea, brakes.front.effectiveRadius, brakes.front.brakeFactor, brakes.front.tyreRadius,
                     brakes.front.grip, brakes.rear.pistonArea, brakes.rear.effectiveRadius, brakes.rear.brakeFactor,
                     brakes.rear.tyreRadius, brakes.rear.grip, brakes.kneePressure, brakes.slope, how.fullPressure, how.buildUp,
                     how.antilock ? 1.0 : 0.0, how.antilockQuality, how.pitchTime, how.gripFall, how.grip, how.rolling, how.slope,
                     how.headwind, how.frontFriction, how.rearFriction, speed })
                asked += QByteArray::number(each, 'g', 17) + ' ';
            asked += '\n';
        }
        const auto answer = answerOf("/usr/bin/python3", { "-c", R"(
import sys, math
from scipy.integrate import solve_ivp
from scipy.optimize import brentq
G, RHO = 9.80665, 1.225
for line in sys.stdin:
    (m,L,h,phi,cda, af,rf,ff,tf,gf, ar,rr,fr,tr,gr, knee,slope, full,build,abs_,quality,lag,fall,grip,roll,sine,wind,muf,mur,v0) = map(float, line.split())
    W = m*G
    def rear_pressure(p): return p if p <= knee else knee + slope*(p-knee)
    def forces(p): return 2*ff*muf*p*af*rf/tf, 2*fr*mur*rear_pressure(p)*ar*rr/tr
    def limits(lam):
        nf = min(max(phi + lam*h/L, 0), 1)*W; nr = W-nf
        def mu(g, n, n0): return g*max(.1, 1-fall*math.log2(n/n0)) if n > 0 else 0
        k = grip*(quality if abs_ else 1)
        return mu(gf,nf,phi*W)*k*nf, mu(gr,nr,(1-phi)*W)*k*nr
    def braking(p, lam):
        a, b = forces(p); la, lb = limits(lam)
        if abs_: return (min(a,la)+min(b,lb))/m
        if a <= la and b <= lb: return (a+b)/m
        over = lambda q: max(forces(q)[0]-la, forces(q)[1]-lb)
        q = brentq(over, 0, p, xtol=1e-3, rtol=1e-14)
        return sum(forces(q))/m
    def others(v):
        air = v+wind
        return RHO*cda/2*air*abs(air)/m + G*(roll*math.sqrt(1-sine*sine)-sine)
    def rhs(t, y):
        b = braking(full*min(1, t/build), y[2])
        return [y[1], -(b+others(y[1])), (b/G-y[2])/lag]
    a = solve_ivp(rhs, (0, build), [0,v0,0], method='RK45', rtol=1e-7, atol=1e-7, max_step=build/20)
    stop = lambda t, y: y[1]
    stop.terminal = True
    b = solve_ivp(rhs, (build, 200), a.y[:,-1], method='RK45', rtol=1e-7, atol=1e-7, max_step=.12, events=stop)
    print(repr(float(b.y[0,-1])))
)" },
            asked);
        const auto lines = answer.trimmed().split('\n');
        QCOMPARE(lines.size(), 500);
        for (int i = 0; i < 500; ++i)
            QVERIFY2(std::abs(ours[static_cast<std::size_t>(i)] - lines[i].toDouble()) < 0.01,
                (lines[i] + " / " + QByteArray::number(ours[static_cast<std::size_t>(i)], 'g', 10)).constData());
    }

    /// Outside: gpsd's decoder (gpsdecode) and GPSBabel read what the simulated receiver says, with the speeds it meant.
    void theReceiverSpeaksAsOthersRead()
    {
        instruments::ReceiverScene scene;
        scene.rate = 1;
        scene.stops = { { 25, 6 } };
        instruments::Receiver receiver(scene);
        QByteArray log;
        std::vector<double> meant;
        while (!receiver.over()) {
            meant.push_back(receiver.speedAt(receiver.time()));
            log += QByteArray::fromStdString(receiver.next());
        }
        const auto decoded = answerOf("gpsdecode", { "-j" }, log);
        int fixes = 0;
        double fastest = 0;
        for (const auto& line : decoded.split('\n')) {
            const auto json = QJsonDocument::fromJson(line).object();
            if (json["class"] == "TPV" && json.contains("speed")) {
                ++fixes;
                fastest = std::max(fastest, json["speed"].toDouble());
            }
        }
        QVERIFY2(fixes > 10, decoded.left(400).constData());
        QVERIFY(near(fastest, 25, 0.01));

        QTemporaryDir folder;
        QFile nmea(folder.filePath("run.nmea"));
        QVERIFY(nmea.open(QIODevice::WriteOnly));
        nmea.write(log);
        nmea.close();
        const auto gpx = answerOf("gpsbabel", { "-t", "-i", "nmea", "-f", nmea.fileName(), "-o", "gpx,gpxver=1.0", "-F", "-" });
        QVERIFY(gpx.contains("<trkpt"));
        std::vector<double> speeds;
        files::TrackReader reader([&](const files::Fix& fix) { speeds.push_back(fix.speed); });
        reader.take({ gpx.constData(), static_cast<std::size_t>(gpx.size()) });
        reader.finish();
        QVERIFY2(std::abs(static_cast<double>(speeds.size()) - static_cast<double>(meant.size())) < 3,
            QByteArray::number(speeds.size()).constData());
        QVERIFY(near(*std::ranges::max_element(speeds), 25, 0.02));
    }
};

DEEPSTOP_TEST(StopOutsideTest)
#include "stop_outside_test.moc"
