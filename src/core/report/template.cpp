#include "report/template.hpp"

#include "build/words.hpp"
#include "chapters/clearance/clearance.hpp"
#include "fit/fit.hpp"
#include "hardware/hardware.hpp"
#include "language/language.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace deepstop::report {
namespace {

using paper::Pen;
using paper::Point;

/// Half the leg's thickness is of no matter; it has to reach the wheel's pad, which is flat that far from the axis (common practice).
constexpr double padRadius = 55e-3;
constexpr double legWidth = 40e-3;

std::string setupLine(const Study& study, Axle axle, const std::string& date)
{
    const std::string car = study.build->car.name.empty() ? tr("New build") : study.build->car.name;
    return fmt::format("{} · {} · {}{}", car, study.after.setup->name, tr(wordOf(axle)), date.empty() ? "" : " · " + date);
}

std::string lackingOutline(const Study& study, Axle axle)
{
    const Corner& c = *study.after.at(axle).corner;
    Figure needed = evaluate([&](Evaluator& s) {
        double sum = 0;
        for (const Reading* reading : { &c.rotor.outerDiameter, &c.rotor.hatThickness, &c.caliper.backOverEdge, &c.caliper.backLength,
                 &c.caliper.reach, &c.caliper.outboardDepth, &c.caliper.inboardDepth, &c.caliper.shoulder, &c.left.slotCentre })
            sum += s(*reading);
        return sum;
    });
    return lacking(study, needed);
}

} // namespace

CaliperTemplate caliperTemplate(const Study& study, Axle axle, const std::string& date)
{
    const CornerClearance& r = study.of<Clearance>().after.at(axle).left;
    if (!r.corner)
        return { {}, tr("This setup has no brakes on that axle.") };
    const fit::CornerShape& s = r.shape;
    const auto outlines = fit::caliperOutlines(s);
    const double face = fit::wheelFace(s);
    if (outlines.empty() || !std::isfinite(face))
        return { {}, tr("No template yet. {}", lackingOutline(study, axle)) };
    paper::Drawing d;
    const auto say = [&](double length) { return print(length, style::size, study.system); };
    const auto at = [face](geometry::Point p) { return Point { p.z - face, p.r }; };
    double in = 1;
    double out = -1;
    double top = 0;
    double low = 1;
    for (std::size_t i = 0; i < outlines.size(); ++i) {
        std::vector<Point> points;
        for (const geometry::Point p : outlines[i].chain) {
            points.push_back(at(p));
            in = std::min(in, points.back().x);
            out = std::max(out, points.back().x);
            top = std::max(top, p.r);
            if (i == 0)
                low = std::min(low, p.r);
        }
        points.pop_back();
        d.line(Pen::Cut, std::move(points), true);
    }
    // The leg: down from the caliper's foot to the axis, its outboard edge on the mounting face where the wheel's pad is.
    const double neckIn = std::min(-legWidth, std::max(in, -legWidth));
    const double neckOut = std::min(0.0, out);
    const double pad = std::min(padRadius, low);
    if (neckOut < -1e-3)
        d.line(Pen::Cut, { { neckIn, low }, { neckIn, 0 }, { 0, 0 }, { 0, pad }, { neckOut, pad }, { neckOut, low } });
    else
        d.line(Pen::Cut, { { neckIn, low }, { neckIn, 0 }, { 0, 0 }, { 0, low } });
    const double slot = s.slotCentre - face;
    d.line(Pen::Axis, { { slot, low - 8e-3 }, { slot, top + 4e-3 } });
    d.letter({ slot, top + 5e-3 }, tr("slot's middle"), 2.5e-3, paper::Anchor::Middle);
    d.line(Pen::Axis, { { in - 4e-3, 0 }, { std::max(out, 0.0) + 6e-3, 0 } });
    d.letter({ in - 3e-3, 1.5e-3 }, tr("axis of the wheel"), 2.5e-3);
    d.line(Pen::Thin, { { 0, -3e-3 }, { 0, pad + 10e-3 } });
    d.letter({ -1.6e-3, 4e-3 }, tr("this edge on the wheel's mounting face"), 2.5e-3, paper::Anchor::Left, true);
    paper::addDimension(d, { in, low }, { in, top }, 7e-3, say(top - low));
    paper::addDimension(d, { neckIn, 0 }, { neckIn, low }, 5e-3, say(low));
    paper::addDimension(d, { in, top }, { out, top }, 12e-3, say(out - in));
    if (out > 0)
        paper::addDimension(d, { 0, pad + 8e-3 }, { out, pad + 8e-3 }, -4e-3, say(out));
    d.letter({ (in + out) / 2, (low + top) / 2 + 4e-3 }, tr("caliper as it turns"), 4e-3, paper::Anchor::Middle);
    d.letter({ (in + out) / 2, (low + top) / 2 - 3e-3 }, "outboard →", 3e-3, paper::Anchor::Middle);
    d.title = tr("Caliper template 1:1, {}", tr(wordOf(axle)));
    d.notes = { setupLine(study, axle, date),
        tr("Axis to highest place {}, mounting face to slot's middle {}.", say(top), say(std::abs(slot))),
        tr("Stiff card. It shows where the caliper is; it does not prove that the wheel clears: turn the wheel by hand.") };
    return { std::move(d), {} };
}

CaliperTemplate shieldDrawing(const Study& study, Axle axle, const std::string& date)
{
    const CornerClearance& r = study.of<Clearance>().after.at(axle).left;
    if (!r.corner)
        return { {}, tr("This setup has no brakes on that axle.") };
    const Hub& hub = hubOf(*study.build, axle);
    if (!r.shieldCut) {
        const Figure needed = evaluate([&](Evaluator& s) { return s(hub.shieldDiameter) + s(hub.shieldDepth) + s(hub.shieldRim); });
        return { {},
            needed.value ? tr("No cutting line yet. {}", lackingOutline(study, axle))
                         : tr("No cutting line yet. {}", lacking(study, needed)) };
    }
    const fit::ShieldCut& cut = *r.shieldCut;
    if (!cut.radius && !cut.windowRadius)
        return { {}, tr("The shield clears rotor and caliper: nothing has to be cut.") };
    paper::Drawing d;
    const auto say = [&](double length) { return print(length, style::size, study.system); };
    const double whole = *hub.shieldDiameter.value / 2;
    d.strokes.push_back(paper::circle(cut.radius ? Pen::Hidden : Pen::Outline, {}, whole));
    const double left = cut.radius.value_or(whole);
    if (cut.windowRadius) {
        // The rim is followed all round but for the window, which stands upright here; the caliper's clock turns it on the car.
        const double half = std::min(cut.halfWidth, left * 0.99);
        const double from = std::acos(half / left);
        const int steps = 360;
        std::vector<Point> line { { half, std::min(*cut.windowRadius, std::sqrt(left * left - half * half)) } };
        for (int i = 0; i <= steps; ++i) {
            const double angle = from - (2 * std::numbers::pi - (std::numbers::pi - 2 * from)) * i / steps;
            line.push_back({ left * std::cos(angle), left * std::sin(angle) });
        }
        line.push_back({ -half, line.front().y });
        d.line(Pen::Cut, std::move(line), true);
        paper::addDimension(d, { -half, *cut.windowRadius }, { half, *cut.windowRadius }, -6e-3, say(2 * half));
        paper::addDimension(d, { 0, 0 }, { 0, *cut.windowRadius }, 30e-3, say(*cut.windowRadius));
    } else {
        d.strokes.push_back(paper::circle(Pen::Cut, {}, left));
    }
    d.line(Pen::Axis, { { -whole - 5e-3, 0 }, { whole + 5e-3, 0 } });
    d.line(Pen::Axis, { { 0, -whole - 5e-3 }, { 0, whole + 5e-3 } });
    if (cut.radius)
        paper::addDimension(d, { -left, 0 }, { left, 0 }, -whole - 8e-3, "Ø " + say(2 * left));
    // The bracket's foot on the same sheet, so that both are cut for at once.
    const BracketStudy bracket = bracketOf(study, axle);
    if (bracket.adapter)
        d.line(Pen::Thin, bracket.adapter->outline, true);
    d.title = tr("Dust shield, line to cut along, {}", tr(wordOf(axle)));
    d.notes = { setupLine(study, axle, date), tr("Dashed: the shield as it is. The middle of the window is the middle of the caliper."),
        bracket.adapter ? tr("Thin line: the bracket's outline at its place from the axis.")
                        : tr("The bracket's outline is not known: offer it up and mark it on the shield."),
        tr("Keep what spaces or covers the parking brake."), tr("CANNOT BE UNDONE: cut only after caliper, rotor and wheel are proven.") };
    return { std::move(d), {} };
}

} // namespace deepstop::report
