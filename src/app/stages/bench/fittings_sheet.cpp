#include "stages/bench/bench_sheets.hpp"
#include "stages/bench/part_sheet.hpp"

#include <algorithm>
#include <utility>

namespace deepstop::app {
namespace {

/// Two pairs of holes in a plate, drawn as they lie: knuckle pair below, caliper pair above.
void addBracket(Sheet& sheet, QPointF at, double knuckle, double caliper)
{
    const double wide = std::max(knuckle, caliper) / 2 + 15;
    QPainterPath plate;
    plate.addRoundedRect(QRectF(at + QPointF(-wide, -24), at + QPointF(wide, 24)), 10, 10);
    sheet.area(plate, PartSheet::cut());
    for (const auto& [half, y] : { std::pair { knuckle / 2, 11.0 }, std::pair { caliper / 2, -11.0 } })
        for (const double x : { -half, half })
            sheet.area(circle(at + QPointF(x, y), 6.2), PartSheet::hole());
}

/// Hub, bracket and hose, part by part.
class FittingsDrawing {
public:
    FittingsDrawing(PartSheet p, const Study& study, Axle axle) : p_(std::move(p)), study_(study), axle_(axle) { }

    Sheet drawn()
    {
        hub();
        bracketAndHose();
        fields();
        return std::move(p_.sheet);
    }

private:
    /// The hub from outboard, and its edge to the right of it.
    void hub()
    {
        sheet_.area(circle(face_, flange_), PartSheet::plate());
        sheet_.area(circle(face_, bolts_), { t_.ink, 0.8, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
        for (int i = 0; i < hub_.studCount; ++i) {
            const double angle = 2 * std::numbers::pi * i / hub_.studCount - std::numbers::pi / 2;
            sheet_.area(circle(face_ + QPointF(std::cos(angle), std::sin(angle)) * bolts_, stud_), PartSheet::cut());
        }
        sheet_.area(circle(face_, pilot_), PartSheet::hole());
        sheet_.area(rectangle(edge_, -pilot_, edge_ + height_, pilot_), PartSheet::plate());
        for (const double y : { -bolts_, bolts_ })
            sheet_.area(rectangle(edge_, y - stud_, edge_ + length_, y + stud_), PartSheet::cut());
        sheet_.area(rectangle(edge_ - 12, -flange_, edge_, flange_), PartSheet::cut());
        p_.axisLine({ -2 * flange_ - 12, 0 }, { edge_ + length_ + 14, 0 });
    }

    void bracketAndHose()
    {
        addBracket(sheet_, plate_, knuckle_, caliper_);
        hose_.cubicTo(QPointF(-flange_, hoseY_ - 40), QPointF(-flange_ * 0.6, hoseY_ + 46), QPointF(edge_ + 6, hoseY_));
        sheet_.area(hose_, { t_.ink, 7, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        sheet_.area(hose_, { t_.metalWash, 4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        for (const double x : { -2 * flange_ - 12, edge_ + 4.0 })
            sheet_.area(rectangle(x, hoseY_ - 6, x + 14, hoseY_ + 6), PartSheet::cut());
    }

    /// What is read on the car, what came in the box, and what it costs.
    void fields()
    {
        const auto put = [&](const std::string& key, QPointF from, QPointF wish, const QString& caption, const QString& prefix = {},
                             bool unit = false, bool mayLack = false) {
            sheet_.dimensions.push_back({ key, prefix, from, wish, Run::Leader, 0, unit, caption, 0.5, mayLack });
        };
        const double facts = edge_ + length_ + 46;
        const double top = -flange_ - 22;
        double row = top;
        int column = 0;
        const auto fact = [&](const std::string& key, const QString& caption) {
            sheet_.fact(key, caption, { facts + column * 98, row }, 140);
            column = 1 - column;
            row += column == 0 ? 28 : 0;
        };
        const auto heading = [&](const QString& text) {
            if (column)
                row += 28;
            column = 0;
            sheet_.letter({ facts, row + 8 }, text, 15, t_.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
            row += 17;
        };
        // What a vernier reads on the car first, then the parts in the box.
        sheet_.dimensions.push_back({ hubAt_ + "/flange_diameter_mm", QStringLiteral("Ø "), { face_.x() - flange_, 0 },
            { face_.x() + flange_, 0 }, Run::Horizontal, -flange_ - 14, false, QObject::tr("flange"), 0.5 });
        put(hubAt_ + "/pilot_diameter_mm", face_ + QPointF(pilot_ * 0.7, pilot_ * 0.7), face_, QObject::tr("pilot"), QStringLiteral("Ø "));
        put(hubAt_ + "/pilot_height_mm", { edge_ + height_, 0 }, { edge_ + height_ + 18, pilot_ * 0.4 }, QObject::tr("pilot"));
        put(hubAt_ + "/bolt_circle_mm", face_ + QPointF(-bolts_ * 0.8, bolts_ * 0.6), face_ + QPointF(-flange_ * 0.86, flange_ * 0.94),
            QObject::tr("on Ø"));
        heading(QObject::tr("On the car"));
        fact(hubAt_ + "/stud_count", QObject::tr("Studs"));
        sheet_.dimensions.push_back({ hubAt_ + "/stud_length_mm", {}, { edge_, bolts_ }, { edge_ + length_, bolts_ }, Run::Horizontal,
            bolts_ + 22, false, QObject::tr("stud"), 0.5 });
        put(hubAt_ + "/stud_diameter_mm", { edge_ + length_, -bolts_ }, { edge_ + length_ - 4, -bolts_ - 22 }, QObject::tr("stud"),
            QStringLiteral("Ø "));
        fact(hubAt_ + "/lug_thread", QObject::tr("Lugs' thread"));
        fact(hubAt_ + "/line_thread", QObject::tr("Hard line's thread"));
        fact(hubAt_ + "/parking_brake", QObject::tr("Parking brake"));
        fact(p_.corner + "/brakes", QObject::tr("Kind of brakes"));
        if (axle_ == Axle::Rear && study_.after.setup != study_.before.setup)
            fact("/setups/" + std::to_string(study_.after.setup - study_.build->setups.data()) + "/parking_brake_replaced",
                QObject::tr("Parking brake replaced"));
        put(hubAt_ + "/lug_spacing_mm", plate_ + QPointF(knuckle_ / 2, 11), { edge_ + length_ - 18, plate_.y() + 30 },
            QObject::tr("lugs apart"));
        put(hubAt_ + "/hose_reach_mm", { edge_ + 10, hoseY_ }, { edge_ + length_ - 18, hoseY_ + 26 }, QObject::tr("hose needed"));
        if (hub_.parkingBrake == ParkingBrake::DrumInHat)
            put(hubAt_ + "/shoe_diameter_mm", face_ + QPointF(0, flange_), face_ + QPointF(flange_ * 0.62, flange_ + 6),
                QObject::tr("shoes"), QStringLiteral("Ø "));
        heading(QObject::tr("In the box"));
        fact(p_.corner + "/bracket/name", QObject::tr("Bracket"));
        fact(p_.corner + "/bracket/bolt_thread", QObject::tr("Its bolts' thread"));
        p_.horizontal("/bracket/knuckle_spacing_mm", plate_.x() - knuckle_ / 2, plate_.x() + knuckle_ / 2, plate_.y() + 11, plate_.y() + 36,
            QObject::tr("to the knuckle"));
        p_.horizontal("/bracket/caliper_spacing_mm", plate_.x() - caliper_ / 2, plate_.x() + caliper_ / 2, plate_.y() - 11, plate_.y() - 36,
            QObject::tr("to the caliper"));
        p_.leader("/hose/length_mm", { -flange_ * 0.9, hoseY_ }, { -flange_ * 0.9, hoseY_ + 30 }, QObject::tr("hose, end to end"));
        p_.leader("/hose/bore_mm", { -flange_ * 0.5, hoseY_ }, { -flange_ * 0.2, hoseY_ + 30 }, QObject::tr("hose bore"));
        fact(p_.corner + "/hose/kind", QObject::tr("Hose is"));
        fact(p_.corner + "/hose/caliper_end", QObject::tr("Hose at the caliper"));
        fact(p_.corner + "/hose/line_end", QObject::tr("Hose at the line"));
        heading(study_.build->currency.empty() ? QObject::tr("What it costs")
                                               : QObject::tr("What it costs, %1").arg(QString::fromStdString(study_.build->currency)));
        const auto price = [&](const char* key, const QString& caption) {
            p_.leader(key, { facts + 14, row + 8 }, { facts + 14, row + 8 }, caption);
            row += 20;
        };
        price("/costs/kit", QObject::tr("the kit, this axle"));
        price("/costs/rotors", QObject::tr("a pair of rotors"));
        price("/costs/pads", QObject::tr("a set of pads"));
        fact(p_.corner + "/costs/availability", QObject::tr("Availability"));
        if (study_.after.setup)
            fact("/setups/" + std::to_string(study_.after.setup - study_.build->setups.data()) + "/vendor", QObject::tr("Sold by"));
        fact("/currency", QObject::tr("Currency"));
        sheet_.extent = QRectF(QPointF(-2 * flange_ - 26, top - 6), QPointF(facts + 208, hoseY_ + 44));
    }

    PartSheet p_;
    const Study& study_;
    const Axle axle_;
    const Theme& t_ = theme();
    Sheet& sheet_ = p_.sheet;
    const Corner& corner_ = *p_.after.corner;
    const Hub& hub_ = hubOf(*study_.build, axle_);
    const std::string hubAt_ = axle_ == Axle::Front ? "/front_hub" : "/rear_hub";
    const double flange_ = hub_.flangeDiameter.value.value_or(0.138) * 500;
    const double pilot_ = hub_.pilotDiameter.value.value_or(0.066) * 500;
    const double bolts_ = hub_.boltCircle.value.value_or(0.11) * 500;
    const double stud_ = hub_.studDiameter.value.value_or(0.012) * 500;
    // The hub from outboard, and its edge to the right of it.
    const QPointF face_ = QPointF(-flange_, 0);
    const double edge_ = 34;
    const double height_ = hub_.pilotHeight.value.value_or(0.012) * 1000;
    const double length_ = hub_.studLength.value.value_or(0.038) * 1000;
    // Bracket under it, hose under that.
    const double knuckle_ = corner_.bracket.knuckleSpacing.value.value_or(hub_.lugSpacing.value.value_or(0.14)) * 1000;
    const double caliper_ = corner_.bracket.caliperSpacing.value.value_or(corner_.caliper.mountSpacing.value.value_or(0.15)) * 1000;
    const QPointF plate_ = QPointF(-flange_ + 6, flange_ + 74);
    const double hoseY_ = flange_ + 150;
    QPainterPath hose_ = QPainterPath(QPointF(-2 * flange_, hoseY_));
};

} // namespace

Sheet fittingsSheet(const Study& study, Axle axle)
{
    PartSheet p(study, axle, QObject::tr("hub, bracket and hose"));
    if (!p.after.corner)
        return p.sheet;
    return FittingsDrawing(std::move(p), study, axle).drawn();
}

} // namespace deepstop::app
