/// A bracket's bolts, against a finite-element program.

#include "core/support.hpp"
#include "joints/bolts.hpp"

#include <QFile>
#include <QTemporaryDir>
#include <QTest>
#include <QTextStream>

#include <cmath>

using namespace deepstop;

class StaticsTest : public QObject {
    Q_OBJECT
private slots:
    /// Outside: CalculiX. A steel plate of plane-stress elements is held at its two knuckle holes and pushed along the rotor at the
    /// effective radius; the forces that hold it are those of the hand sum.
    void aPairOfBoltsAgainstCalculix_data()
    {
        QTest::addColumn<double>("torque");
        QTest::addColumn<double>("effective");
        QTest::addColumn<double>("mount");
        QTest::addColumn<double>("spacing");
        QTest::newRow("pads outboard of the bolts") << 1726.0 << 0.140 << 0.108 << 0.152;
        QTest::newRow("far outboard, bolts near together") << 2100.0 << 0.155 << 0.105 << 0.110;
        QTest::newRow("pads inboard of the bolts") << 900.0 << 0.100 << 0.120 << 0.140;
    }
    void aPairOfBoltsAgainstCalculix()
    {
        QFETCH(double, torque);
        QFETCH(double, effective);
        QFETCH(double, mount);
        QFETCH(double, spacing);
        // A grid of nodes with the bolts and the middle of the pads on it, mm and N.
        const int across = 16;
        const int up = 10;
        const double low = std::min(effective, mount) - 0.01;
        const double high = std::max(effective, mount) + 0.01;
        std::vector<double> heights;
        for (int j = 0; j <= up; ++j)
            heights.push_back(low + (high - low) * j / up);
        const auto nearest = [&](double y) {
            return static_cast<int>(std::ranges::min_element(heights, {}, [y](double h) { return std::abs(h - y); }) - heights.begin());
        };
        const int atBolts = nearest(mount);
        const int atPads = nearest(effective);
        heights[static_cast<std::size_t>(atBolts)] = mount;
        heights[static_cast<std::size_t>(atPads)] = effective;
        const auto node = [&](int i, int j) { return j * (across + 1) + i + 1; };
        QString deck;
        QTextStream out(&deck);
        out << "*NODE,NSET=ALL\n";
        for (int j = 0; j <= up; ++j)
            for (int i = 0; i <= across; ++i)
                out << node(i, j) << "," << spacing * 1e3 * (i - across / 2.0) / (across - 4) << ","
                    << heights[static_cast<std::size_t>(j)] * 1e3 << ",0\n";
        out << "*ELEMENT,TYPE=CPS4,ELSET=PLATE\n";
        for (int j = 0; j < up; ++j)
            for (int i = 0; i < across; ++i)
                out << j * across + i + 1 << "," << node(i, j) << "," << node(i + 1, j) << "," << node(i + 1, j + 1) << ","
                    << node(i, j + 1) << "\n";
        const int left = node(2, atBolts);
        const int right = node(across - 2, atBolts);
        out << "*MATERIAL,NAME=STEEL\n*ELASTIC\n210000.,0.3\n*SOLID SECTION,ELSET=PLATE,MATERIAL=STEEL\n15.\n"
            << "*NSET,NSET=BOLTS\n"
            << left << "," << right << "\n*BOUNDARY\nBOLTS,1,2\n*STEP\n*STATIC\n*CLOAD\n"
            << node(across / 2, atPads) << ",1," << QString::number(torque / effective, 'f', 6)
            << "\n*NODE PRINT,NSET=BOLTS\nRF\n*END STEP\n";
        out.flush();
        QTemporaryDir folder;
        QFile file(folder.filePath("plate.inp"));
        QVERIFY(file.open(QIODevice::WriteOnly));
        file.write(deck.toUtf8());
        file.close();
        QVERIFY(!answerOf("ccx", { "-i", folder.filePath("plate") }).isEmpty());
        QFile answer(folder.filePath("plate.dat"));
        QVERIFY(answer.open(QIODevice::ReadOnly));
        std::vector<double> forces;
        for (const QByteArray& line : answer.readAll().split('\n'))
            if (const auto words = line.simplified().split(' ');
                words.size() == 4 && (words[0].toInt() == left || words[0].toInt() == right))
                forces.push_back(std::hypot(words[1].toDouble(), words[2].toDouble()));
        QCOMPARE(forces.size(), std::size_t(2));
        const double byHand = joints::forceOnPairBolt(torque, effective, mount, spacing);
        for (const double force : forces)
            QVERIFY2(near(force, byHand, 0.005), qPrintable(QString("%1 against %2 N").arg(force).arg(byHand)));
    }
};

DEEPSTOP_TEST(StaticsTest)
#include "statics_test.moc"
