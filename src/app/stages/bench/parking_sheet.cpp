#include "stages/bench/bench_sheets.hpp"

#include "chapters/parts/checks.hpp"
#include "stages/bench/part_sheet.hpp"

#include <utility>

namespace deepstop::app {
namespace {

/// Lever and cable of a parking brake in the caliper, to scale; or the motor and its connector.
class ParkingDrawing {
public:
    ParkingDrawing(PartSheet p, const Study& study, Axle axle) : p_(std::move(p)), study_(study), axle_(axle) { }

    Sheet drawn()
    {
        facts();
        if (caliper_.parking == CaliperParking::Lever)
            lever();
        else if (caliper_.parking == CaliperParking::Electric)
            motor();
        else
            askedFor();
        if (const Verdict* v = study_.verdict(checks::parkingBrake, { axle_ }))
            sheet_.callouts.push_back({ v->id, QObject::tr("parking brake"), v->level, { 60, -60 }, { 60, -60 }, { 30, -92 } });
        sheet_.scaleBar = caliper_.parking == CaliperParking::Lever;
        sheet_.extent = QRectF(QPointF(-24, -104), QPointF(300, 110));
        return std::move(p_.sheet);
    }

private:
    static double mm(const Reading& r, double otherwise) { return r.value.value_or(otherwise * 1e-3) * 1000; }
    static Qt::PenStyle said(const Reading& r) { return r.value ? Qt::SolidLine : Qt::DashLine; }

    void askedFor()
    {
        double y = -80;
        for (const auto& line :
            { QObject::tr("Say what the new caliper brings."), QObject::tr("The verdict comes of its measures and the cable's.") }) {
            sheet_.letter({ -14, y }, line, 13, t_.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
            y += 9;
        }
    }

    /// Cable from its sleeve's stop to the lever's eye; below it the car's own cable, laid beside it.
    void lever()
    {
        const double free = mm(caliper_.leverFree, 70);
        const double travel = mm(caliper_.leverTravel, 18);
        const double eye = mm(caliper_.leverEye, 8);
        const double car = mm(hub_.cableFree, 75);
        const double end = mm(hub_.cableEnd, 7.5);
        const double carTravel = mm(hub_.cableTravel, 22);
        const double y0 = -30;
        sheet_.area(
            rectangle(-14, y0 - 22, 0, y0 + 22), { t_.proposal, 1.6, Qt::SolidLine, t_.proposalWash, Hatch::Falling, t_.proposal, 6 });
        const auto arm = [&](double x, const Ink& ink) {
            QPainterPath path;
            path.addRoundedRect(QRectF(QPointF(x - 7, y0 - 16), QPointF(x + 7, y0 + 46)), 6, 6);
            sheet_.area(path, ink);
        };
        arm(free - travel, { t_.proposal, 1.2, Qt::DashLine, {}, Hatch::None, {}, 0 });
        arm(free, { t_.proposal, 1.7, Qt::SolidLine, t_.proposalWash, Hatch::None, {}, 0 });
        sheet_.area(circle({ free, y0 }, eye / 2), PartSheet::hole());
        sheet_.line(QPolygonF { QPointF(0, y0), QPointF(free, y0) }, { t_.ink, 1.6, said(caliper_.leverFree), {}, Hatch::None, {}, 0 });
        p_.horizontal("/caliper/lever_free_mm", 0, free, y0 - 16, y0 - 38, QObject::tr("cable it needs"));
        p_.horizontal("/caliper/lever_travel_mm", free - travel, free, y0 + 46, y0 + 60, QObject::tr("until it holds"));
        p_.leader("/caliper/lever_eye_mm", { free, y0 + eye / 2 }, { free + 26, y0 + 14 }, QObject::tr("eye"));
        // The car's cable.
        const double y1 = 60;
        sheet_.area(rectangle(-14, y1 - 9, 0, y1 + 9), PartSheet::plate());
        sheet_.line(QPolygonF { QPointF(0, y1), QPointF(car, y1) }, { t_.ink, 1.6, said(hub_.cableFree), {}, Hatch::None, {}, 0 });
        sheet_.area(rectangle(car - 6, y1 - end / 2, car + 6, y1 + end / 2), PartSheet::cut());
        const std::string hub = axle_ == Axle::Front ? "/front_hub" : "/rear_hub";
        const auto dimension = [&](const char* key, QPointF from, QPointF to, Run run, double line, const QString& caption) {
            sheet_.dimensions.push_back({ hub + key, {}, from, to, run, line, false, caption, 0.5 });
        };
        dimension("/cable_free_mm", { 0, y1 }, { car, y1 }, Run::Horizontal, y1 + 20, QObject::tr("the car's, out of its sleeve"));
        dimension("/cable_travel_mm", { car - carTravel, y1 }, { car, y1 }, Run::Horizontal, y1 + 38, QObject::tr("it is pulled by"));
        dimension("/cable_end_mm", { car + 6, y1 }, { car + 30, y1 - 10 }, Run::Leader, 0, QObject::tr("its end"));
        sheet_.letter({ -14, y1 - 16 }, QObject::tr("the car's cable, brake off"), 12, t_.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
    }

    void motor()
    {
        QPainterPath body;
        body.addRoundedRect(QRectF(QPointF(10, -40), QPointF(90, 20)), 8, 8);
        sheet_.area(body, PartSheet::cut());
        sheet_.area(rectangle(90, -22, 112, 2), PartSheet::plate());
        sheet_.letter({ 50, -10 }, QObject::tr("motor"), 13, t_.ink, Qt::AlignCenter, false);
        const std::string hub = axle_ == Axle::Front ? "/front_hub" : "/rear_hub";
        sheet_.fact(p_.corner + "/caliper/parking_connector", QObject::tr("Connector of the motor"), { 10, 34 }, 180);
        sheet_.fact(hub + "/parking_connector", QObject::tr("Connector of the car's loom"), { 10, 62 }, 180);
    }

    void facts()
    {
        const std::string hub = axle_ == Axle::Front ? "/front_hub" : "/rear_hub";
        const double x = 200;
        double y = -96;
        const auto fact = [&](const std::string& key, const QString& caption) {
            sheet_.fact(key, caption, { x, y }, 210);
            y += 18;
        };
        fact(hub + "/parking_brake", QObject::tr("The car as found holds itself by"));
        fact(hub + "/electric_parking", QObject::tr("A motor works it"));
        fact(p_.corner + "/caliper/parking", QObject::tr("In this setup's caliper"));
        if (caliper_.parking == CaliperParking::Lever)
            fact(p_.corner + "/lever_returns", QObject::tr("Let go, the lever goes back to its stop"));
        fact("/setups/" + std::to_string(study_.after.setup - study_.build->setups.data()) + "/parking_brake_replaced",
            QObject::tr("Another device holds the car"));
    }

    PartSheet p_;
    const Study& study_;
    const Axle axle_;
    const Theme& t_ = theme();
    Sheet& sheet_ = p_.sheet;
    const Caliper& caliper_ = p_.after.corner->caliper;
    const Hub& hub_ = hubOf(*study_.build, axle_);
};

} // namespace

Sheet parkingSheet(const Study& study, Axle axle)
{
    PartSheet p(study, axle, QObject::tr("parking brake"));
    if (!p.after.corner)
        return p.sheet;
    p.sheet.subtitle = QStringLiteral("%1 · %2").arg(QString::fromStdString(study.after.setup->name), unitNote(study));
    return ParkingDrawing(std::move(p), study, axle).drawn();
}

} // namespace deepstop::app
