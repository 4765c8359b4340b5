#include "stages/hardware/hardware_sheets.hpp"

#include "chapters/clearance/clearance.hpp"
#include "stages/bench/part_sheet.hpp"
#include "hardware/hardware.hpp"

#include <utility>

namespace deepstop::app {

namespace {

/// The adapter bracket, part by part.
class BracketDrawing {
public:
    BracketDrawing(Sheet sheet, const Study& study, Axle axle) : sheet_(std::move(sheet)), study_(study), axle_(axle) { }

    Sheet drawn()
    {
        plate();
        rotorEdge();
        spacings();
        table();
        findings();
        return std::move(sheet_);
    }

private:
    void plate()
    {
        if (made_.adapter) {
            const bracket::Adapter& a = *made_.adapter;
            QPolygonF outline;
            for (const paper::Point p : a.outline) {
                outline << place(p.x, p.y);
                top_ = std::min(top_, -p.y);
                low_ = std::max(low_, -p.y);
                half_ = std::max(half_, std::abs(p.x));
            }
            QPainterPath plate;
            plate.addPolygon(outline);
            plate.closeSubpath();
            sheet_.area(plate, PartSheet::cut());
            for (const bracket::Hole& hole : a.holes) {
                sheet_.area(circle(place(hole.x, hole.y), hole.diameter * 500),
                    { hole.toKnuckle ? t_.ink : t_.proposal, 1.6, Qt::SolidLine, t_.paper, Hatch::None, {}, 0 });
                for (const QPointF arm : { QPointF(hole.diameter * 750, 0), QPointF(0, hole.diameter * 750) })
                    sheet_.line(QPolygonF { place(hole.x, hole.y) - arm, place(hole.x, hole.y) + arm },
                        { t_.ink, 0.8, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
            }
            for (const bracket::EdgeBore& bore : a.bores) {
                const double x = bore.diameter / 2;
                sheet_.line(QPolygonF { place(bore.x - x, bore.mouth), place(bore.x - x, bore.mouth - bore.depth),
                                place(bore.x + x, bore.mouth - bore.depth), place(bore.x + x, bore.mouth) },
                    { t_.proposal, 1.4, Qt::DashLine, {}, Hatch::None, {}, 0 });
                sheet_.line(QPolygonF { place(bore.x, bore.mouth + 3e-3), place(bore.x, bore.mouth - bore.depth - 3e-3) },
                    { t_.ink, 0.8, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
            }
        }
    }

    /// The rotor's edge and the middle line.
    void rotorEdge()
    {
        QPolygonF arc;
        for (int i = -20; i <= 20; ++i)
            arc << place(edge_ * std::sin(i * 0.04), edge_ * std::cos(i * 0.04));
        sheet_.line(arc, { t_.ink, 1.4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        sheet_.letter(place(0, edge_ + 5e-3), QObject::tr("rotor's edge"), 12, t_.mute);
        top_ = std::min(top_, -edge_ - 0.012);
        sheet_.line(QPolygonF { place(0, -low_ - 0.02), place(0, -top_) }, { t_.ink, 0.8, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
        half_ += 0.016;
    }

    /// Bolts of knuckle and caliper.
    void spacings()
    {
        const auto& hubRead = hubOf(*study_.build, axle_);
        const double knuckleY = hubRead.lugRadius.value.value_or(0.13);
        const double knuckleX = hubRead.lugSpacing.value.value_or(0.146) / 2;
        const double caliperX = r_.corner->caliper.mountSpacing.value.value_or(0.15) / 2;
        const double caliperY = made_.adapter ? made_.adapter->caliperHeight : edge_ - 0.03;
        sheet_.dimensions.push_back({ hub_ + "/lug_spacing_mm", {}, place(-knuckleX, knuckleY), place(knuckleX, knuckleY), Run::Horizontal,
            low_ * 1000 + 16, false, QObject::tr("knuckle"), 0.5 });
        sheet_.dimensions.push_back({ at_ + "/caliper/mount_spacing_mm", {}, place(-caliperX, caliperY), place(caliperX, caliperY),
            Run::Horizontal, top_ * 1000 - 6, false, QObject::tr("caliper"), 0.5 });
    }

    /// Readings, beside the drawing.
    void table()
    {
        u_ = std::max((2 * half_ * 1000 + 300) / 756, (low_ - top_) * 1000 / 300);
        column_ = half_ * 1000 + 12 * u_;
        y_ = top_ * 1000 - 10 * u_;
        const auto cell = [&](const std::string& key, const QString& caption, bool mayLack = false) {
            sheet_.letter({ column_, y_ }, caption, 12, t_.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
            sheet_.dimensions.push_back({ key, {}, {}, { column_ + 206 * u_, y_ }, Run::Table, 0, false, {}, 0.5, mayLack });
            y_ += 25.5 * u_;
        };
        const auto heading = [&](const QString& text) {
            sheet_.letter({ column_, y_ }, text, 14, t_.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
            y_ += 22 * u_;
        };
        heading(QObject::tr("Knuckle"));
        cell(hub_ + "/lug_radius_mm", QObject::tr("Lugs from the axis"));
        cell(hub_ + "/lug_depth_mm", QObject::tr("Lugs' face from the hub face"));
        cell(hub_ + "/lug_thickness_mm", QObject::tr("Thickness of the lugs"));
        cell(hub_ + "/lug_edge_mm", QObject::tr("Hole to the lug's edge"));
        const bool radial = r_.corner->mount.kind == MountKind::Radial;
        heading(QObject::tr("Caliper, on the rotor it is meant for"));
        cell(at_ + "/caliper/mount_drop_mm",
            radial ? QObject::tr("Its mounting face below the edge") : QObject::tr("Its holes inward of the edge"));
        cell(at_ + "/caliper/mount_depth_mm",
            radial ? QObject::tr("Its studs from the slot's middle") : QObject::tr("Its face from the slot's middle"));
        heading(QObject::tr("Bracket"));
        cell(at_ + "/bracket/knuckle_hole_mm", QObject::tr("Holes to the knuckle, Ø"));
        cell(at_ + "/bracket/caliper_hole_mm", QObject::tr("Holes to the caliper, Ø"));
        cell(at_ + "/bracket/thickness_mm", QObject::tr("Plate in hand, if any"), true);
        cell(at_ + "/bracket/proud_knuckle_mm", QObject::tr("Bolts proud of it, at the knuckle"));
        if (!radial)
            cell(at_ + "/bracket/proud_caliper_mm", QObject::tr("Bolts proud of it, at the caliper"));
        // Where the plate in hand reaches past what its holes need, its edge is what turns against wheel and rotor.
        heading(QObject::tr("Its edge, where it reaches further: across, from the axis"));
        const std::size_t points = r_.corner->bracket.outline.size();
        for (std::size_t i = 0; i <= points; ++i) {
            const std::string point = at_ + "/bracket/outline/" + (i < points ? std::to_string(i) : "-");
            sheet_.dimensions.push_back({ point + "/across_mm", {}, {}, { column_ + 126 * u_, y_ }, Run::Table, 0, false, {}, 0.5, true });
            sheet_.dimensions.push_back({ point + "/radius_mm", {}, {}, { column_ + 206 * u_, y_ }, Run::Table, 0, false, {}, 0.5, true });
            y_ += 25.5 * u_;
        }
        heading(QObject::tr("Reliefs in its back: across, from the axis, width, depth"));
        const std::size_t reliefs = r_.corner->bracket.reliefs.size();
        for (std::size_t i = 0; i <= reliefs; ++i) {
            const std::string relief = at_ + "/bracket/reliefs/" + (i < reliefs ? std::to_string(i) : "-");
            double x = column_ + 6 * u_;
            for (const char* key : { "/across_mm", "/radius_mm", "/width_mm", "/depth_mm" }) {
                sheet_.dimensions.push_back({ relief + key, {}, {}, { x, y_ }, Run::Table, 0, false, {}, 0.5, true });
                x += 66 * u_;
                if (i == reliefs)
                    break;
            }
            y_ += 25.5 * u_;
        }
        sheet_.fact(at_ + "/bracket/material", QObject::tr("Material"), { column_, y_ - 4 * u_ }, 132);
        sheet_.fact(at_ + "/bracket/bolt_thread", QObject::tr("Bolts to the knuckle"), { column_ + 140 * u_, y_ - 4 * u_ }, 110);
    }

    /// What comes out, under the plate, in words.
    void findings()
    {
        double line = low_ * 1000 + 46 * u_;
        const double left = -half_ * 1000;
        const auto say = [&](const QString& text, const QColor& colour) {
            // A sentence too long for the sheet goes on in the next line.
            QString rest = text;
            while (!rest.isEmpty()) {
                const int cut = rest.size() <= 60 ? static_cast<int>(rest.size())
                                                  : std::max(1, static_cast<int>(rest.lastIndexOf(QLatin1Char(' '), 60)));
                sheet_.letter({ left, line }, rest.left(cut).trimmed(), 12.5, colour, Qt::AlignLeft | Qt::AlignVCenter, false);
                rest = rest.mid(cut).trimmed();
                line += 18 * u_;
            }
        };
        const auto length = [&](double metres) { return QString::fromStdString(print(metres, style::fine, study_.system)); };
        if (!made_.adapter) {
            say(QString::fromStdString(made_.lacks), t_.unproven);
        } else {
            const bracket::Adapter& a = *made_.adapter;
            say(QObject::tr("Plate %1 thick; %2 of metal between the holes, %3 to the edge; %4 from the axis.")
                    .arg(length(a.thickness), length(a.wall), length(a.edge),
                        (a.bores.empty() ? QObject::tr("its caliper holes %1") : QObject::tr("the edge its caliper stands on %1"))
                            .arg(length(a.caliperHeight))),
                t_.ink);
            say(QObject::tr("One plate serves left and right, turned over. Bolts: %1.").arg(QString::fromStdString(made_.bolts)), t_.ink);
            if (std::isfinite(made_.slipMargin))
                say(QObject::tr("Friction of painted faces holds %1 times what each has to carry, one in shear %2 times.")
                        .arg(made_.slipMargin, 0, 'f', 2)
                        .arg(made_.bearingMargin, 0, 'f', 1),
                    made_.slipMargin < 1 ? t_.bad : t_.ink);
            for (const auto& fault : made_.faults)
                say(QStringLiteral("– ") + QString::fromStdString(fault), t_.bad);
            say(QObject::tr("File → Save the bracket as… for STEP, DXF, PDF, or an STL to try in plastic: fit check only, never drive."),
                t_.mute);
        }
        say(QObject::tr("Bending is not proven here: to be judged by a qualified engineer before it is made or driven."), t_.bad);
        sheet_.extent =
            QRectF(QPointF(left - 6, top_ * 1000 - 22 * u_), QPointF(column_ + 270 * u_, std::max(line + 26 * u_, y_ + 40 * u_)));
    }

    QPointF place(double x, double y) { return QPointF(x * 1000, -y * 1000); }

    Sheet sheet_;
    const Study& study_;
    const Axle axle_;
    const Theme& t_ = theme();
    const CornerClearance& r_ = study_.of<Clearance>().after.at(axle_).left;
    const std::string at_ = cornerPointer(study_, study_.after, axle_);
    const std::string hub_ = axle_ == Axle::Front ? "/front_hub" : "/rear_hub";
    const BracketStudy made_ = bracketOf(study_, axle_);
    double top_ = -0.150;
    double low_ = -0.110;
    double half_ = 0.1;
    const double edge_ = r_.drawn.rotor.outerRadius;
    double u_ = 0;
    double column_ = 0;
    double y_ = 0;
};

} // namespace

Sheet bracketSheet(const Study& study, Axle axle)
{
    Sheet sheet;
    sheet.title = axle == Axle::Front ? QObject::tr("Adapter bracket, front") : QObject::tr("Adapter bracket, rear");
    const CornerClearance& r = study.of<Clearance>().after.at(axle).left;
    if (!r.corner)
        return sheet;
    sheet.subtitle =
        QObject::tr("%1 · seen from outboard, outward is up · from the readings of knuckle, caliper and rotor").arg(unitNote(study));
    return BracketDrawing(std::move(sheet), study, axle).drawn();
}

} // namespace deepstop::app
