#include "stages/bench/bench_sheets.hpp"

#include "chapters/parts/checks.hpp"
#include "stages/bench/part_sheet.hpp"

#include <utility>

namespace deepstop::app {
namespace {

constexpr double axisHeight = 56;

/// The brake line laid out from the caliper's port to the hard line: each part with its two ends, and what is said of them underneath.
class LineDrawing {
public:
    LineDrawing(PartSheet p, const Study& study, Axle axle) : p_(std::move(p)), study_(study), axle_(axle) { }

    Sheet drawn()
    {
        p_.axisLine({ -6, axisHeight }, { across(), axisHeight });
        for (std::size_t i = 0; i < chain_.size(); ++i) {
            part(i);
            fields(i);
        }
        another();
        held();
        callouts();
        sheet_.scaleBar = false;
        sheet_.extent = QRectF(QPointF(-8, -30), QPointF(across() + 12, 504));
        return std::move(p_.sheet);
    }

private:
    [[nodiscard]] double across() const { return std::max(756.0, columnWide_ * (static_cast<double>(chain_.size()) + 0.85)); }
    [[nodiscard]] double left(std::size_t i) const { return columnWide_ * static_cast<double>(i); }
    Ink body(bool said) const
    {
        return { t_.proposal, 1.6, said ? Qt::SolidLine : Qt::DashLine, t_.proposalWash, Hatch::Falling, t_.proposal, 6 };
    }

    /// An end: a stub with thread, or a socket; nothing said is dashed.
    void end(const LineEnd& of, double x, double towards)
    {
        const Ink ink { t_.ink, 1.3, of.gender == Gender::Unknown ? Qt::DashLine : Qt::SolidLine, t_.paper, Hatch::None, {}, 0 };
        const double far = x + towards * 16;
        if (of.gender == Gender::Female) {
            // A socket lies within the part.
            sheet_.area(rectangle(std::min(x, x - towards * 14), axisHeight - 9, std::max(x, x - towards * 14), axisHeight + 9), ink);
            return;
        }
        sheet_.area(rectangle(std::min(x, far), axisHeight - 9, std::max(x, far), axisHeight + 9), ink);
        for (double at = 3; at < 15; at += 3)
            sheet_.line(QPolygonF { QPointF(x + towards * at, axisHeight - 9), QPointF(x + towards * (at + 1.5), axisHeight + 9) },
                { t_.metal, 0.7, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        seat(*of.seat, far, towards, ink);
    }
    void seat(Seat seat, double x, double towards, const Ink& ink)
    {
        QPolygonF shape;
        if (seat == Seat::Cone37 || seat == Seat::InvertedFlare)
            shape << QPointF(x, axisHeight - 7) << QPointF(x + towards * 5, axisHeight - 3) << QPointF(x + towards * 5, axisHeight + 3)
                  << QPointF(x, axisHeight + 7);
        else if (seat == Seat::BubbleFlare)
            shape << QPointF(x, axisHeight - 4) << QPointF(x + towards * 3, axisHeight - 6) << QPointF(x + towards * 6, axisHeight)
                  << QPointF(x + towards * 3, axisHeight + 6) << QPointF(x, axisHeight + 4);
        if (!shape.isEmpty())
            sheet_.line(shape, ink);
    }

    void part(std::size_t i)
    {
        const LinePart& part = chain_[i];
        const double x0 = left(i) + 22;
        const double x1 = left(i) + columnWide_ - 26;
        const bool said = part.kind != LinePartKind::Unknown;
        switch (*part.kind) {
        case LinePartKind::CaliperPort: {
            QPainterPath caliper;
            caliper.addRoundedRect(QRectF(QPointF(x0 - 20, axisHeight - 40), QPointF(x1, axisHeight + 34)), 14, 14);
            sheet_.area(caliper, body(said));
            end(part.outer, x1, 1);
            return;
        }
        case LinePartKind::BanjoBolt:
            sheet_.area(rectangle(x0 + 30, axisHeight - 20, x0 + 48, axisHeight + 20), body(said));
            sheet_.area(rectangle(x0, axisHeight - 8, x0 + 30, axisHeight + 8), body(said));
            washers(part, x0 + 2);
            return;
        case LinePartKind::Hose: {
            QPainterPath hose(QPointF(x0 + 12, axisHeight));
            hose.cubicTo(QPointF(x0 + 36, axisHeight - 34), QPointF(x1 - 40, axisHeight + 34), QPointF(x1 - 12, axisHeight));
            sheet_.area(hose, { t_.ink, 9, Qt::SolidLine, {}, Hatch::None, {}, 0 });
            sheet_.area(hose, { t_.metalWash, 6, Qt::SolidLine, {}, Hatch::None, {}, 0 });
            for (const double x : { x0, x1 - 16 })
                sheet_.area(rectangle(x, axisHeight - 11, x + 16, axisHeight + 11), body(said));
            break;
        }
        case LinePartKind::HardLine:
            sheet_.area(rectangle(x0, axisHeight - 12, x0 + 26, axisHeight + 12), body(said));
            sheet_.area(rectangle(x0 + 26, axisHeight - 4, x1 + 30, axisHeight + 4), PartSheet::plate());
            end(part.inner, x0, -1);
            return;
        case LinePartKind::Adapter:
        case LinePartKind::Unknown:
            sheet_.area(rectangle(x0 + 18, axisHeight - 17, x1 - 18, axisHeight + 17), body(said));
            sheet_.area(rectangle(x0, axisHeight - 11, x0 + 18, axisHeight + 11), body(said));
            sheet_.area(rectangle(x1 - 18, axisHeight - 11, x1, axisHeight + 11), body(said));
        }
        end(part.inner, x0, -1);
        end(part.outer, x1, 1);
        washers(part, x0 - 4);
    }
    /// Crush washers, in section.
    void washers(const LinePart& part, double x)
    {
        for (int k = 0; k < part.crushWashers; ++k)
            for (const double side : { -1.0, 1.0 })
                sheet_.area(rectangle(x - 5.0 * k, axisHeight + side * 10, x - 5.0 * k + 4, axisHeight + side * 17),
                    { t_.ink, 1, Qt::SolidLine, part.newWashers == YesNo::Yes ? t_.good : t_.lining, Hatch::None, {}, 0 });
    }

    void fields(std::size_t i)
    {
        const LinePart& part = chain_[i];
        const std::string at = p_.corner + "/hose/chain/" + std::to_string(i);
        double y = 104;
        const auto fact = [&](const char* key, const QString& caption) {
            sheet_.fact(at + key, caption, { left(i), y }, columnWide_ - 10);
            y += 38;
        };
        const auto heading = [&](const QString& text) {
            sheet_.letter({ left(i), y + 6 }, text, 11.5, t_.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
            y += 16;
        };
        fact("/kind", QObject::tr("Part %1").arg(i + 1));
        fact("/name", QObject::tr("Name"));
        if (part.kind != LinePartKind::CaliperPort) {
            heading(QObject::tr("towards the caliper"));
            fact("/inner/thread", QObject::tr("Thread"));
            fact("/inner/gender", QObject::tr("Male or female"));
            fact("/inner/seat", QObject::tr("Seals by"));
            // Where washers lie; those of a banjo are counted at its bolt.
            if (part.kind == LinePartKind::BanjoBolt || part.inner.seat == Seat::CrushWasher) {
                sheet_.fact(at + "/crush_washers", QObject::tr("Crush washers"), { left(i), y }, 76);
                sheet_.fact(at + "/new_washers", QObject::tr("New"), { left(i) + 82, y }, columnWide_ - 92);
                y += 38;
            }
        }
        if (part.kind != LinePartKind::HardLine && part.kind != LinePartKind::BanjoBolt) {
            heading(QObject::tr("towards the body"));
            fact("/outer/thread", QObject::tr("Thread"));
            fact("/outer/gender", QObject::tr("Male or female"));
            fact("/outer/seat", QObject::tr("Seals by"));
        }
    }

    void another()
    {
        const double x = left(chain_.size());
        sheet_.fact(p_.corner + "/hose/chain/-/name",
            chain_.empty() ? QObject::tr("First part: its name, as “caliper”") : QObject::tr("Another part"), { x, 104 },
            chain_.empty() ? 220 : 110);
        if (chain_.empty())
            sheet_.letter({ 0, axisHeight - 30 },
                QObject::tr("From the caliper outward: its port, banjo bolt or adapter, hose, hard line. Each end with thread and seat."),
                13, t_.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
    }

    /// How the hose is held and led.
    void held()
    {
        const double x = 0;
        const double y = 464;
        sheet_.fact(p_.corner + "/hose/held_at_strut", QObject::tr("Hose held at the strut"), { x, y }, 130);
        sheet_.fact(p_.corner + "/hose/grommet", QObject::tr("Grommets"), { x + 140, y }, 130);
    }

    void callouts()
    {
        const auto call = [&](const Check& check, int number, const QString& text, QPointF at, QPointF wish) {
            if (const Verdict* v = study_.verdict(check, { axle_, {}, number }))
                sheet_.callouts.push_back({ v->id, text, v->level, at, at, wish });
        };
        for (std::size_t i = 0; i + 1 < chain_.size(); ++i) {
            const double x = left(i + 1);
            call(checks::lineJoint, static_cast<int>(i) + 1, QObject::tr("joint %1").arg(i + 1), { x + 8, axisHeight - 12 }, { x - 12, 2 });
        }
        call(checks::hoseThread, 0, QObject::tr("whole line"), { 40, axisHeight - 38 }, { 8, -18 });
        call(checks::hoseHeld, 0, QObject::tr("held and led"), { left(std::min<std::size_t>(2, chain_.size())) + 60, axisHeight - 20 },
            { left(std::min<std::size_t>(2, chain_.size())) + 60, -18 });
    }

    PartSheet p_;
    const Study& study_;
    const Axle axle_;
    const Theme& t_ = theme();
    Sheet& sheet_ = p_.sheet;
    /// Sheet units, one a pixel in the smallest window; beyond five parts it scrolls.
    const double columnWide_ = std::clamp(756 / (static_cast<double>(p_.after.corner->hose.chain.size()) + 0.85), 128.0, 150.0);
    const std::vector<LinePart>& chain_ = p_.after.corner->hose.chain;
};

} // namespace

Sheet lineSheet(const Study& study, Axle axle)
{
    PartSheet p(study, axle, QObject::tr("brake line"));
    if (!p.after.corner)
        return p.sheet;
    p.sheet.subtitle = QObject::tr("%1 · from the caliper outward, not to scale · dashed: not said yet")
                           .arg(QString::fromStdString(study.after.setup->name));
    return LineDrawing(std::move(p), study, axle).drawn();
}

} // namespace deepstop::app
