/// Masses from formulas against solids of the same dimensions, built and measured by Open CASCADE.

#include "chapters/weights/weights_chapter.hpp"
#include "core/support.hpp"
#include "geometry/lining.hpp"
#include "weights/weights.hpp"

#include <QTest>

#include <BRepAlgoAPI_Fuse.hxx>
#include <BRepBuilderAPI_MakeFace.hxx>
#include <BRepBuilderAPI_MakePolygon.hxx>
#include <BRepGProp.hxx>
#include <BRepPrimAPI_MakeBox.hxx>
#include <BRepPrimAPI_MakeCylinder.hxx>
#include <BRepPrimAPI_MakePrism.hxx>
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
    /// A lining as a ring cut by what its ends are: two planes side by side, or two through the axle.
    void liningsOfBothShapes()
    {
        for (int i = 0; i < 30; ++i) {
            const double R = between(0.12, 0.2), h = between(0.03, 0.06), length = between(0.05, 1.6 * (R - h)), thick = 0.01;
            const auto around = tube(2 * R, 2 * (R - h), 0, thick);
            const auto upper = BRepPrimAPI_MakeBox(gp_Pnt(-length / 2, 0, 0), gp_Pnt(length / 2, 2 * R, thick)).Shape();
            const double parallel = volume(BRepAlgoAPI_Common(around, upper).Shape()) / thick;
            QVERIFY(near(geometry::liningBetweenParallels(R, h, length), parallel, 1e-3));
            const double half = std::asin(length / 2 / R);
            BRepBuilderAPI_MakePolygon wedge;
            wedge.Add(gp_Pnt(0, 0, 0));
            wedge.Add(gp_Pnt(-2 * R * std::tan(half), 2 * R, 0));
            wedge.Add(gp_Pnt(2 * R * std::tan(half), 2 * R, 0));
            wedge.Close();
            const auto prism = BRepPrimAPI_MakePrism(BRepBuilderAPI_MakeFace(wedge.Wire()).Face(), gp_Vec(0, 0, thick)).Shape();
            const double radial = volume(BRepAlgoAPI_Common(around, prism).Shape()) / thick;
            QVERIFY(near(geometry::liningBetweenRadii(R, h, length), radial, 1e-3));
        }
    }

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
                const gp_Ax2 place(gp_Pnt(0.4 * d * std::cos(turn) + wide / 2 * std::sin(turn),
                                       0.4 * d * std::sin(turn) - wide / 2 * std::cos(turn), plate),
                    gp_Dir(0, 0, 1), gp_Dir(std::cos(turn), std::sin(turn), 0));
                const TopoDS_Shape vane = BRepAlgoAPI_Common(BRepPrimAPI_MakeBox(place, D, wide, gap).Shape(), air).Shape();
                inVanes += volume(vane);
                ring = BRepAlgoAPI_Fuse(ring, vane).Shape();
            }
            const double share = inVanes / volume(air);
            QVERIFY(share > 0.2 && share < 0.4);
            QVERIFY2(near(weights::ringVolume({ D, d, T, gap, share }), volume(ring), 1e-6), qPrintable(QString::number(volume(ring))));
        }
    }

    /// Curved vanes of constant thickness, leaning by the same angle all along, as prisms between two plates; the whole ring within half
    /// a per cent of the formula, from the count, the thickness and the lean alone.
    void ringsWithCurvedVanes()
    {
        for (int i = 0; i < 3; ++i) {
            const double D = between(0.30, 0.37), d = D * 0.64, T = between(0.026, 0.034), gap = T * 0.36;
            const double plate = (T - gap) / 2, lean = between(0.4, 0.75), thick = between(0.004, 0.006);
            const int vanes = among(30, 44);
            const TopoDS_Shape air = tube(D, d, plate, plate + gap);
            // One vane as a fan of quadrilaterals along a logarithmic spiral, offset to both sides by half the thickness.
            constexpr int pieces = 16;
            double one = 0;
            BRepBuilderAPI_MakePolygon outline;
            std::vector<gp_Pnt> left, right;
            for (int k = 0; k <= pieces; ++k) {
                const double r = d / 2 * 0.97 + (D / 2 * 1.03 - d / 2 * 0.97) * k / pieces;
                const double angle = std::tan(lean) * std::log(r / (d / 2));
                const double along = angle + lean; // direction of the spiral there
                const gp_Pnt on(r * std::cos(angle), r * std::sin(angle), plate);
                left.emplace_back(on.X() - thick / 2 * std::sin(along), on.Y() + thick / 2 * std::cos(along), plate);
                right.emplace_back(on.X() + thick / 2 * std::sin(along), on.Y() - thick / 2 * std::cos(along), plate);
            }
            for (const gp_Pnt& p : left)
                outline.Add(p);
            for (auto p = right.rbegin(); p != right.rend(); ++p)
                outline.Add(*p);
            outline.Close();
            const TopoDS_Shape prism = BRepPrimAPI_MakePrism(BRepBuilderAPI_MakeFace(outline.Wire()).Face(), gp_Vec(0, 0, gap)).Shape();
            one = volume(BRepAlgoAPI_Common(prism, air).Shape());
            const double solid = volume(tube(D, d, 0, plate)) * 2 + vanes * one;
            const double share = weights::vaneShare({ weights::Vanes::Shape::Curved, vanes, thick, lean }, D, d);
            const double formula = weights::ringVolume({ D, d, T, gap, share });
            QVERIFY2(near(formula, solid, 5e-3), qPrintable(QString("%1 against %2").arg(formula).arg(solid)));
            QVERIFY(near(share * volume(air), vanes * one, 2e-2));
        }
    }

    void straightVanesAndPillarsCounted()
    {
        for (int i = 0; i < 5; ++i) {
            const double D = between(0.28, 0.36), d = D * 0.62, gap = 0.011, thick = between(0.005, 0.008);
            const int vanes = among(28, 40);
            const TopoDS_Shape air = tube(D, d, 0, gap);
            const TopoDS_Shape box = BRepPrimAPI_MakeBox(gp_Pnt(0, -thick / 2, 0), D, thick, gap).Shape();
            const double straight = vanes * volume(BRepAlgoAPI_Common(box, air).Shape()) / volume(air);
            QVERIFY(near(weights::vaneShare({ weights::Vanes::Shape::Straight, vanes, thick, 0 }, D, d), straight, 2e-3));
            const double pillars = 2 * vanes * volume(tube(thick, 0, 0, gap)) / volume(air);
            QVERIFY(near(weights::vaneShare({ weights::Vanes::Shape::Pillars, 2 * vanes, thick, 0 }, D, d), pillars, 1e-9));
        }
        QVERIFY(std::isnan(weights::vaneShare({ weights::Vanes::Shape::Straight, 400, 0.01, 0 }, 0.3, 0.2)));
        QVERIFY(std::isnan(weights::vaneShare({ weights::Vanes::Shape::Straight, 0, 0.01, 0 }, 0.3, 0.2)));
    }

    /// A whole two-piece rotor: iron ring with pillars, aluminium hat drilled for studs, steel bolts through hat and ring. Its mass by
    /// solids and by the sum the study uses, within half a per cent.
    void twoPieceRotors()
    {
        for (int i = 0; i < 5; ++i) {
            Rotor r;
            const auto read = [](double value) { return Reading { value, {}, Known::Measured, {}, {} }; };
            const double D = between(0.31, 0.37), d = D - 0.114, T = 0.028, H = between(0.044, 0.054), t = 0.008,
                         hat = d - between(0.04, 0.06), wall = 0.008, bore = 0.0667, gap = 0.010;
            const int pillars = 60, bolts = among(8, 12);
            const double pillar = 0.008, bolt = 0.006, hole = 0.013;
            r.construction = RotorBuild::TwoPiece;
            r.hatMaterial = HatMaterial::Aluminium;
            r.outerDiameter = read(D), r.ringInnerDiameter = read(d), r.thickness = read(T), r.overallHeight = read(H),
            r.hatThickness = read(t), r.hatOuterDiameter = read(hat);
            r.hatWall = read(wall), r.bore = read(bore), r.ventGap = read(gap), r.vaneShape = VaneShape::Pillars, r.vanes = pillars,
            r.vaneThickness = read(pillar);
            r.boltHoles = 5, r.boltHoleDiameter = read(hole), r.hatBolts = bolts, r.hatBoltThread = "M6x1";
            Build build;
            build.setups.emplace_back();
            build.setups[0].front.emplace().rotor = r;
            const double plate = (T - gap) / 2;
            const double ring = 2 * volume(tube(D, d, 0, plate)) + pillars * volume(tube(pillar, 0, 0, gap));
            // Hat above the ring's face: neck, wall, disc; the neck is drilled for the bolts, the disc for the studs.
            TopoDS_Shape body = BRepAlgoAPI_Fuse(tube(hat, bore, H - t, H), tube(hat, hat - 2 * wall, T, H - t)).Shape();
            body = BRepAlgoAPI_Fuse(body, tube(d, hat, T, T + wall)).Shape();
            double steel = 0;
            for (int k = 0; k < bolts; ++k) {
                const double turn = 2 * std::numbers::pi * k / bolts;
                const gp_Pnt foot((d + hat) / 4 * std::cos(turn), (d + hat) / 4 * std::sin(turn), 0);
                body = BRepAlgoAPI_Cut(body, BRepPrimAPI_MakeCylinder(gp_Ax2(foot, gp_Dir(0, 0, 1)), bolt / 2, H).Shape()).Shape();
                steel += volume(BRepPrimAPI_MakeCylinder(gp_Ax2(foot, gp_Dir(0, 0, 1)), bolt / 2, wall).Shape())
                    + 2 * volume(BRepPrimAPI_MakeCylinder(gp_Ax2(foot, gp_Dir(0, 0, 1)), 0.8 * bolt, 0.8 * bolt).Shape());
            }
            for (int k = 0; k < 5; ++k) {
                const double turn = 2 * std::numbers::pi * k / 5;
                body = BRepAlgoAPI_Cut(body,
                    BRepPrimAPI_MakeCylinder(
                        gp_Ax2(gp_Pnt(0.056 * std::cos(turn), 0.056 * std::sin(turn), 0), gp_Dir(0, 0, 1)), hole / 2, 2 * H)
                        .Shape())
                           .Shape();
            }
            const double solid = 7200 * ring + 2700 * volume(body) + 7850 * steel;
            const auto mass = study(build).of<Weights>().after.front.rotorMass.value;
            QVERIFY(mass);
            QVERIFY2(near(*mass, solid, 5e-3), qPrintable(QString("%1 against %2").arg(*mass).arg(solid)));
        }
    }

    void hats()
    {
        for (int i = 0; i < 10; ++i) {
            const double D = between(0.14, 0.18), bore = 0.067, t = between(0.006, 0.010), wall = between(0.006, 0.009),
                         depth = between(0.005, 0.03), ring = D + between(0.02, 0.06);
            // Disc on top, wall below it to the ring's face, and below that the flat neck out to the ring.
            TopoDS_Shape hat = BRepAlgoAPI_Fuse(tube(D, bore, depth, depth + t), tube(D, D - 2 * wall, 0, depth)).Shape();
            hat = BRepAlgoAPI_Fuse(hat, tube(ring, D, 0, wall)).Shape();
            QVERIFY(near(weights::hatVolume({ D, bore, t, wall, depth, ring }), volume(hat), 1e-9));
        }
    }
};

DEEPSTOP_TEST(SolidsTest)
#include "solids_test.moc"
