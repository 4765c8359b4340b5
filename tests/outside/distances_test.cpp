/// Distances between profiles against Open CASCADE's extrema of wires through the same points.

#include "core/support.hpp"
#include "fit/fit.hpp"

#include <QTest>

#include <BRepBuilderAPI_MakePolygon.hxx>
#include <BRepExtrema_DistShapeShape.hxx>
#include <gp_Pnt.hxx>

using namespace deepstop;
using geometry::Chain;
using geometry::Point;

namespace {

TopoDS_Shape wire(const Chain& chain)
{
    BRepBuilderAPI_MakePolygon polygon;
    for (const Point p : chain)
        polygon.Add(gp_Pnt(p.z, p.r, 0));
    return polygon.Shape();
}

double extrema(const Chain& a, const Chain& b)
{
    BRepExtrema_DistShapeShape search(wire(a), wire(b));
    return search.IsDone() ? search.Value() : -1;
}

Chain randomChain(int points, Point from, double stride)
{
    Chain chain { from };
    for (int i = 1; i < points; ++i)
        chain.push_back(chain.back() + Point { between(-0.2, 1) * stride, between(-0.6, 0.6) * stride });
    return chain;
}

} // namespace

class DistancesTest : public QObject {
    Q_OBJECT
private slots:
    void chainsOfAllSorts()
    {
        int crossing = 0;
        for (int i = 0; i < 400; ++i) {
            const auto a = randomChain(among(2, 8), { 0, 0 }, 0.03);
            const auto b = randomChain(among(2, 8), { between(-0.02, 0.05), between(-0.03, 0.05) }, 0.03);
            const double ours = geometry::distance(a, b)->distance;
            const double theirs = extrema(a, b);
            QVERIFY2(std::abs(ours - theirs) < 1e-7, qPrintable(QString("%1 %2").arg(ours).arg(theirs)));
            crossing += ours == 0;
        }
        QVERIFY(crossing > 20 && crossing < 380);
    }

    void calipersInBarrels()
    {
        for (int i = 0; i < 60; ++i) {
            fit::CornerShape c {};
            c.rotor.outerRadius = between(0.12, 0.17);
            c.caliper = { between(0.012, 0.02), between(0.02, 0.06), 0.004, 0.06, between(0.03, 0.05), between(0.04, 0.07),
                between(0.004, 0.014), 0.04 };
            c.slotCentre = -0.024;
            const auto envelope = fit::caliperEnvelope(c);
            Chain barrel;
            for (double z = -0.14; z < 0.06; z += 0.02)
                barrel.push_back({ z, between(0.21, 0.23) });
            const auto room = fit::barrelRoom(envelope, barrel);
            QVERIFY(room && room->gap > 0);
            QVERIFY(std::abs(room->gap - extrema(envelope, barrel)) < 1e-7);
        }
    }
};

DEEPSTOP_TEST(DistancesTest)
#include "distances_test.moc"
