/// Masses from formulas against solids of the same dimensions, built and measured by Open CASCADE.

#include "core/support.hpp"
#include "weights/weights.hpp"

#include <QTest>

#include <BRepAlgoAPI_Fuse.hxx>
#include <BRepGProp.hxx>
#include <BRepPrimAPI_MakeBox.hxx>
#include <BRepPrimAPI_MakeCylinder.hxx>
#include <BRepAlgoAPI_Cut.hxx>
#include <BRepAlgoAPI_Common.hxx>
#include <GProp_GProps.hxx>
#include <gp_Ax2.hxx>

#include <numbers>

using namespace deepstop;

namespace {

TopoDS_Shape tube(double outer, double inner, double z0, double z1)
{
    const gp_Ax2 place(gp_Pnt(0, 0, z0), gp_Dir(0, 0, 1));
    const TopoDS_Shape whole = BRepPrimAPI_MakeCylinder(place, outer / 2, z1 - z0).Shape();
    return inner > 0 ? BRepAlgoAPI_Cut(whole, BRepPrimAPI_MakeCylinder(place, inner / 2, z1 - z0).Shape()).Shape() : whole;
}

double volume(const TopoDS_Shape& shape)
{
    GProp_GProps properties;
    BRepGProp::VolumeProperties(shape, properties);
    return properties.Mass();
}

double axialInertia(const TopoDS_Shape& shape)
{
    GProp_GProps properties;
    BRepGProp::VolumeProperties(shape, properties);
    return properties.MatrixOfInertia()(3, 3);
}

} // namespace

class SolidsTest : public QObject {
    Q_OBJECT
private slots:
    void solidRings()
    {
        for (int i = 0; i < 20; ++i) {
            const double D = between(0.24, 0.40), d = D * between(0.5, 0.75), T = between(0.008, 0.036);
            const auto solid = tube(D, d, 0, T);
            QVERIFY(near(weights::ringVolume({ D, d, T, 0, 0 }), volume(solid), 1e-9));
            QVERIFY(near(weights::inertia(1, D, d) * volume(solid), axialInertia(solid), 1e-9));
        }
    }

    /// Two plates and straight vanes, the vanes' share of the gap measured on the solid itself.
    void ventedRings()
    {
        for (int i = 0; i < 3; ++i) {
            const double D = between(0.28, 0.36), d = D * 0.62, T = between(0.022, 0.034), gap = T * 0.38;
            const double plate = (T - gap) / 2;
            const int vanes = among(24, 40);
            const double wide = 0.3 * std::numbers::pi * (D + d) / 2 / vanes;
            const TopoDS_Shape air = tube(D, d, plate, plate + gap);
            TopoDS_Shape ring = BRepAlgoAPI_Fuse(tube(D, d, 0, plate), tube(D, d, plate + gap, T)).Shape();
            double inVanes = 0;
            for (int k = 0; k < vanes; ++k) {
                const double turn = 2 * std::numbers::pi * k / vanes;
                const gp_Ax2 place(gp_Pnt(0.4 * d * std::cos(turn) + wide / 2 * std::sin(turn), 0.4 * d * std::sin(turn) - wide / 2 * std::cos(turn), plate), gp_Dir(0, 0, 1),
                    gp_Dir(std::cos(turn), std::sin(turn), 0));
                const TopoDS_Shape vane = BRepAlgoAPI_Common(BRepPrimAPI_MakeBox(place, D, wide, gap).Shape(), air).Shape();
                inVanes += volume(vane);
                ring = BRepAlgoAPI_Fuse(ring, vane).Shape();
            }
            const double share = inVanes / volume(air);
            QVERIFY(share > 0.2 && share < 0.4);
            QVERIFY2(near(weights::ringVolume({ D, d, T, gap, share }), volume(ring), 1e-6), qPrintable(QString::number(volume(ring))));
        }
    }

    void hats()
    {
        for (int i = 0; i < 10; ++i) {
            const double D = between(0.14, 0.18), bore = 0.067, t = between(0.006, 0.010), wall = between(0.006, 0.009), depth = between(0.005, 0.03), ring = D + between(0.02, 0.06);
            // Disc on top, wall below it to the ring's face, and below that the flat neck out to the ring.
            TopoDS_Shape hat = BRepAlgoAPI_Fuse(tube(D, bore, depth, depth + t), tube(D, D - 2 * wall, 0, depth)).Shape();
            hat = BRepAlgoAPI_Fuse(hat, tube(ring, D, 0, wall)).Shape();
            QVERIFY(near(weights::hatVolume({ D, bore, t, wall, depth, ring }), volume(hat), 1e-9));
        }
    }
};

QTEST_GUILESS_MAIN(SolidsTest)
#include "solids_test.moc"
