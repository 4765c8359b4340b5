/// Profiles of a wheel as lists and drawings: taken as they are, or refused by name and line.

#include "core/support.hpp"
#include "files/profile_file.hpp"

#include <QTest>

#include <random>

using namespace deepstop;

namespace {

std::string dxf(const std::string& entities, const char* units = "4")
{
    return std::string("0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n") + units + "\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n" + entities
        + "0\nENDSEC\n0\nEOF\n";
}

std::string refusalOf(const std::string& bytes, const std::string& name)
{
    try {
        (void)files::readProfile(bytes, name);
    } catch (const files::Refusal& r) {
        return r.what();
    }
    return {};
}

bool is(const scan::WheelProfile::Place& place, double along, double across)
{
    return std::abs(place.along - along) < 1e-9 && std::abs(place.across - across) < 1e-9;
}

} // namespace

class ProfileFileTest : public QObject {
    Q_OBJECT
private slots:
    void aListIsTakenAsItIs()
    {
        const auto profile =
            files::readProfile("depth_mm;inside_radius_mm;radius_in;distance_in\n12.5;208.1;4;0.5\n40;205;;\n;;6.5;1\n", "w.csv");
        QCOMPARE(profile.barrel.size(), std::size_t(2));
        QCOMPARE(profile.spokes.size(), std::size_t(2));
        QVERIFY(is(profile.barrel[0], 0.0125, 0.2081) && is(profile.barrel[1], 0.040, 0.205));
        QVERIFY(is(profile.spokes[0], 0.1016, 0.0127) && is(profile.spokes[1], 0.1651, 0.0254));
        QVERIFY(!profile.barrel[0].bend); // what runs between the places nobody has said
    }

    void aSectionIsTakenAsItIs()
    {
        const auto profile = files::readProfile(
            dxf("0\nLWPOLYLINE\n8\nBARREL\n10\n100\n20\n190\n10\n0\n20\n208\n0\nLINE\n8\nSPOKES\n10\n-4\n20\n80\n11\n-15\n21\n"
                "180\n0\nLINE\n8\nFRAME\n10\n0\n20\n0\n11\n1\n21\n1\n"),
            "w.dxf");
        QCOMPARE(profile.barrel.size(), std::size_t(2));
        QVERIFY(is(profile.barrel[0], 0, 0.208) && is(profile.barrel[1], 0.1, 0.190) && profile.barrel[0].bend);
        QCOMPARE(profile.spokes.size(), std::size_t(2));
        QVERIFY(is(profile.spokes[0], 0.080, 0.004) && is(profile.spokes[1], 0.180, 0.015));
        const auto inches = files::readProfile(dxf("0\nLINE\n8\nBARREL\n10\n1\n20\n8\n11\n2\n21\n7\n", "1"), "w.dxf");
        QVERIFY(is(inches.barrel[0], 0.0254, 0.2032));

        const auto into = applied(scan::profileEdit(profile, "w17"), demo());
        QVERIFY(into);
        const Wheel* wheel = findWheel(*into, "w17");
        QCOMPARE(wheel->barrel.size(), std::size_t(2));
        QCOMPARE(wheel->barrel[0].insideRadius.known, Known::Vendor);
        QCOMPARE(wheel->barrel[0].bend, YesNo::Yes);
        QCOMPARE(wheel->offset.value, findWheel(demo(), "w17")->offset.value);
        QVERIFY(findWheel(*applied(scan::profileEdit(profile, "drawn"), demo()), "drawn"));
    }

    void whatIsNoProfileIsRefusedByLine_data()
    {
        QTest::addColumn<QString>("bytes");
        QTest::addColumn<QString>("name");
        QTest::addColumn<QString>("why");
        QTest::newRow("empty") << ""
                               << "w.csv"
                               << "empty";
        QTest::newRow("other columns") << "a,b\n1,2\n"
                                       << "w.csv"
                                       << "depth_mm";
        QTest::newRow("half of a pair") << "depth_mm,b\n1,2\n"
                                        << "w.csv"
                                        << "inside_radius_mm";
        QTest::newRow("no number") << "depth_mm,inside_radius_mm\n1,2\nx,3\n"
                                   << "w.csv"
                                   << "line 3";
        QTest::newRow("half of a place") << "depth_mm,inside_radius_mm\n1,\n"
                                         << "w.csv"
                                         << "line 2";
        QTest::newRow("too large") << "depth_mm,inside_radius_mm\n1,2000\n"
                                   << "w.csv"
                                   << "no size";
        QTest::newRow("no place") << "depth_mm,inside_radius_mm\n"
                                  << "w.csv"
                                  << "no place";
        QTest::newRow("an arc") << QString::fromStdString(dxf("0\nARC\n8\nBARREL\n10\n0\n20\n0\n40\n5\n")) << "w.dxf"
                                << "curve";
        QTest::newRow("a bulge") << QString::fromStdString(dxf("0\nLWPOLYLINE\n8\nBARREL\n10\n0\n20\n200\n42\n0.3\n10\n5\n20\n200\n"))
                                 << "w.dxf"
                                 << "curve";
        QTest::newRow("no layer") << QString::fromStdString(dxf("0\nLINE\n8\n0\n10\n0\n20\n0\n11\n1\n21\n1\n")) << "w.dxf"
                                  << "BARREL";
        QTest::newRow("no dxf") << "hello\nthere\n"
                                << "w.dxf"
                                << "line 1";
    }
    void whatIsNoProfileIsRefusedByLine()
    {
        QFETCH(QString, bytes);
        QFETCH(QString, name);
        QFETCH(QString, why);
        const auto said = QString::fromStdString(refusalOf(bytes.toStdString(), name.toStdString()));
        QVERIFY2(said.startsWith(name) && said.contains(why), qPrintable(said));
    }

    void anyBytesAreReadOrRefused()
    {
        std::mt19937 rng(4);
        const std::array whole { std::pair { dxf("0\nLWPOLYLINE\n8\nBARREL\n10\n100\n20\n190\n10\n0\n20\n208\n"), "w.dxf" },
            std::pair { std::string("depth_mm;inside_radius_mm\n12.5;208.1\n40;205\n"), "w.csv" } };
        for (int i = 0; i < 20'000; ++i) {
            auto [bytes, name] = whole[static_cast<std::size_t>(i) % 2];
            for (int k = 1 + static_cast<int>(rng() % 6); k > 0; --k)
                bytes[rng() % bytes.size()] = static_cast<char>(rng() % 3 ? "0123456789\n;,.-"[rng() % 15] : rng());
            try {
                const auto profile = files::readProfile(bytes, name);
                for (const auto* places : { &profile.barrel, &profile.spokes })
                    for (const auto& place : *places)
                        QVERIFY(std::abs(place.along) <= 1 && std::abs(place.across) <= 1);
            } catch (const files::Refusal& r) {
                QVERIFY(std::string_view(r.what()).starts_with(name));
            }
        }
    }
};

DEEPSTOP_TEST(ProfileFileTest)
#include "profile_file_test.moc"
