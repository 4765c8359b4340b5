#include "report/sheets.hpp"

#include "chapters/clearance/clearance.hpp"
#include "chapters/proving/checks.hpp"
#include "files/csv.hpp"
#include "quantity/unit.hpp"

#include "jobcard/outfit.hpp"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>
#include <utility>

namespace deepstop::report {
namespace {

using paper::Pen;
using paper::Point;

std::string titleLine(const Study& study, const std::string& date)
{
    return fmt::format("{} · {} against {} · {}", study.build->car.name.empty() ? "New build" : study.build->car.name,
        study.after.setup->name, study.before.setup->name, date);
}

std::string underOf(const Study& study, const jobcard::Step& s)
{
    std::vector<std::string> parts;
    if (s.torque)
        parts.push_back(fmt::format("torque {} ({} · {})", print(*s.torque, style::torque, study.system),
            print(*s.torque, { Dimension::Torque, "N·m", 0, "N·m", 0 }), print(*s.torque, { Dimension::Torque, "lb ft", 0, "lb ft", 0 })));
    if (!s.threads.empty())
        parts.push_back(s.threads);
    if (!s.tools.empty())
        parts.push_back(s.tools);
    for (const auto& reading : s.readings)
        if (const auto* entry = study.directory->at(reading))
            parts.push_back(entry->address.label + ": "
                + (entry->reading->value ? print(*entry->reading->value, entry->address.style, study.system) : std::string("__________")));
    for (const auto& wait : s.waits)
        parts.push_back((s.open ? "not proven: " : "SHUT: ") + wait);
    if (!s.opened.empty())
        parts.push_back("opened all the same: " + s.opened);
    if (!s.who.empty() || !s.when.empty())
        parts.push_back(s.who + " " + s.when);
    if (!s.note.empty())
        parts.push_back(s.note);
    std::string all;
    for (const auto& part : parts)
        all += (all.empty() ? "" : " · ") + part;
    return all;
}

void addRing(paper::Drawing& d, Pen pen, const fit::CornerShape& s)
{
    const fit::RotorShape& r = s.rotor;
    const double inner = s.ring + r.hatThickness - r.overallHeight;
    const auto rectangle = [&](double z0, double z1, double r0, double r1) {
        if (std::isfinite(z0 + z1 + r0 + r1) && z1 > z0 && r1 > r0)
            d.line(pen, { { z0, r0 }, { z1, r0 }, { z1, r1 }, { z0, r1 } }, true);
    };
    if (r.ventGap > 0) {
        const double plate = (r.thickness - r.ventGap) / 2;
        rectangle(inner, inner + plate, r.ringInnerRadius, r.outerRadius);
        rectangle(inner + r.thickness - plate, inner + r.thickness, r.ringInnerRadius, r.outerRadius);
    } else {
        rectangle(inner, inner + r.thickness, r.ringInnerRadius, r.outerRadius);
    }
    // The hat: down to the bore, its wheel face at the ring's place.
    rectangle(s.ring, s.ring + r.hatThickness, r.boreRadius, r.hatOuterRadius);
    rectangle(inner + r.thickness, s.ring + r.hatThickness, r.hatOuterRadius - r.hatWall, r.hatOuterRadius);
}

void addChain(paper::Drawing& d, Pen pen, const geometry::Chain& chain, bool closed)
{
    std::vector<Point> points;
    for (const geometry::Point p : chain)
        if (std::isfinite(p.z) && std::isfinite(p.r))
            points.push_back({ p.z, p.r });
    if (points.size() > 1)
        d.line(pen, std::move(points), closed);
}

void addCorner(paper::Drawing& d, const CornerClearance& c, bool ghost)
{
    if (!c.corner || c.corner->brakes != BrakeKind::Discs)
        return;
    addRing(d, ghost ? Pen::Hidden : Pen::Outline, c.drawn);
    for (const fit::Outline& outline : fit::caliperOutlines(c.drawn))
        addChain(d, ghost ? Pen::Hidden : Pen::Outline, outline.chain, true);
}

} // namespace

paper::Drawing sectionOf(const Study& study, Axle axle)
{
    paper::Drawing d;
    const Clearance& clearance = study.of<Clearance>();
    const CornerClearance& after = clearance.after.at(axle).left;
    d.title = axle == Axle::Front ? "Front, cut through" : "Rear, cut through";
    if (study.before.setup != study.after.setup)
        addCorner(d, clearance.before.at(axle).left, true);
    addCorner(d, after, false);
    if (d.strokes.empty())
        return d;
    addChain(d, after.barrelEstimated ? Pen::Hidden : Pen::Outline, after.wheelShape.barrel, false);
    for (const fit::Outline& spokes : after.wheelShape.spokes)
        addChain(d, Pen::Outline, spokes.chain, false);
    for (const fit::Outline& inset : after.wheelShape.insets)
        addChain(d, Pen::Outline, inset.chain, true);
    const auto extent = paper::extentOf(d);
    d.line(Pen::Axis, { { extent.low.x - 10e-3, 0 }, { extent.high.x + 10e-3, 0 } });
    d.line(Pen::Axis, { { 0, -4e-3 }, { 0, extent.high.y } });
    const WheelRoom& room = after.room(WheelGap::Barrel);
    if (room.drawn && room.gap.value) {
        const auto& between = *room.drawn;
        d.line(Pen::Thin, { { between.onCaliper.z, between.onCaliper.r }, { between.onWheel.z, between.onWheel.r } });
        d.letter({ between.onWheel.z + 3e-3, between.onWheel.r + 3e-3 },
            fmt::format("{} ±{}", print(*room.gap.value, style::gap, study.system), figure(room.gap.worstCase, style::gap, study.system)),
            2.4e-3);
    }
    return d;
}

namespace {

/// What is laid out before the job begins.
void addOutfit(Leaf& leaf, const Study& study, const jobcard::Outfit& outfit)
{
    const auto joined = [](const std::vector<std::string>& all, const char* between) {
        std::string text;
        for (const auto& each : all)
            text += (text.empty() ? "" : between) + each;
        return text;
    };
    leaf.heading("Laid out before the job");
    leaf.text("Tools: " + joined(outfit.tools, ", ") + ".");
    if (!outfit.sizes.empty())
        leaf.text("Sizes: " + joined(outfit.sizes, "; ") + ".");
    if (outfit.torques)
        leaf.text(fmt::format("Torque wrench from {} to {}.", print(outfit.torques->first, style::torque, study.system),
            print(outfit.torques->second, style::torque, study.system)));
    if (!outfit.used.empty())
        leaf.text("Used up: " + joined(outfit.used, ", ") + ".");
    leaf.text("Shims: " + (outfit.shims.empty() ? std::string("none") : joined(outfit.shims, "; ")) + ".");
}

} // namespace

Leaf jobCard(const Study& study, const jobcard::Card& card, const std::string& date)
{
    Leaf leaf { "Job card", titleLine(study, date), {} };
    if (card.steps.empty()) {
        leaf.text("Nothing is to be fitted: choose a setup that brings brakes of its own.");
        return leaf;
    }
    const auto times = card.times();
    leaf.text(fmt::format("About {:.1f} hours for one person{}: {:.1f} fitting, {:.1f} measuring, {:.1f} driving; {} steps, {} of them open. "
                          "Times come from what was logged before, else from common practice.",
        card.minutes / 60, card.people > 1 ? ", two people while bleeding" : "", times.fitting / 60, times.measuring / 60, times.driving / 60,
        card.shown(), card.open()));
    if (card.folded() > 0)
        leaf.text(fmt::format("{} steps about parts that stay are left out: this job does not need them. Take the inspection in to have them "
                              "printed.",
            card.folded()));
    addOutfit(leaf, study, jobcard::outfitOf(study, card));
    std::optional<jobcard::Phase> phase;
    for (const jobcard::Step& s : card.steps) {
        if (!card.shows(s))
            continue;
        if (phase != s.phase) {
            phase = s.phase;
            leaf.heading(std::string(jobcard::nameOf(s.phase)));
        }
        Block b { Block::Kind::Tick, fmt::format("{}{}: {}", s.open ? "" : "LOCKED. ", s.corner, s.text) };
        b.under = underOf(study, s);
        b.ticked = s.state == Checked::Fine;
        leaf.blocks.push_back(std::move(b));
        if (!s.caution.empty())
            leaf.caution(s.caution);
    }
    leaf.heading("Torque sheet");
    const std::vector<double> widths { 0.5, 0.2, 0.16, 0.14 };
    leaf.row({ "joint", "torque", "threads", "done by" }, widths, true);
    for (const jobcard::Step& s : card.steps)
        if (!s.threads.empty() && card.shows(s))
            leaf.row({ s.corner + ": " + s.text.substr(0, s.text.find(", each")),
                         s.torque ? fmt::format("{} · {}", print(*s.torque, { Dimension::Torque, "N·m", 0, "N·m", 0 }),
                             print(*s.torque, { Dimension::Torque, "lb ft", 0, "lb ft", 0 }))
                                  : std::string("ask its maker"),
                         s.threads, "" },
                widths);
    return leaf;
}

Leaf buildSheet(const Study& study, const std::string& date)
{
    Leaf leaf { "Build sheet", titleLine(study, date), {} };
    leaf.text(study.summary);
    leaf.heading("Before and after");
    const std::vector<double> widths { 0.3, 0.2, 0.2, 0.3 };
    leaf.row({ "", study.before.setup->name, study.after.setup->name, "" }, widths, true);
    const auto value = [&](const Figure& f, const Style& shown) {
        // How far off a temperature may be is no temperature.
        const Style& width = shown.dimension == Dimension::Temperature ? style::rise : shown;
        return f.value ? fmt::format("{} ±{}", print(*f.value, shown, study.system), figure(f.rootSumSquare, width, study.system))
                       : std::string("not known");
    };
    for (const LedgerLine& line : study.ledger)
        leaf.row({ line.title, value(line.before, line.style), value(line.after, line.style),
                     line.word == nameOf(line.level) ? line.word : fmt::format("{}: {}", nameOf(line.level), line.word) },
            widths);
    for (const Axle axle : { Axle::Front, Axle::Rear }) {
        const bool changes = (axle == Axle::Front ? study.after.setup->front : study.after.setup->rear).has_value();
        if (!changes)
            continue;
        Block b { Block::Kind::Picture };
        b.drawing = sectionOf(study, axle);
        b.scale = 2;
        if (b.drawing.strokes.empty())
            continue;
        leaf.heading(b.drawing.title + ", before dashed");
        leaf.blocks.push_back(std::move(b));
    }
    leaf.heading("Verdicts");
    const std::vector<double> verdictWidths { 0.1, 0.27, 0.63 };
    std::string fine;
    for (const Verdict& v : study.verdicts)
        if (isFine(v.level) && v.check == &checks::measuredStop)
            continue; // what they come to stands beside them
        else if (isFine(v.level))
            fine += (fine.empty() ? "" : "; ") + v.title;
        else
            leaf.row({ std::string(nameOf(v.level)), v.title, v.reason }, verdictWidths, false, true);
    leaf.row({ "good", "", fine.empty() ? std::string("nothing") : fine + "." }, verdictWidths, false, true);
    leaf.heading("Readings that decide");
    // Of each verdict the one that moves it most; what the builder wants is no reading of the car.
    std::vector<ReadingId> deciding;
    for (const Verdict& v : study.verdicts) {
        const auto& f = v.figure;
        if (f.effects.empty() || v.check == &checks::measuredStop)
            continue;
        const auto most = std::ranges::max_element(f.effects, {}, [](double e) { return std::abs(e); }) - f.effects.begin();
        const ReadingId reading = f.restsOn[static_cast<std::size_t>(most)];
        if (std::ranges::find(deciding, reading) == deciding.end())
            deciding.push_back(reading);
    }
    std::vector<std::string> cells;
    const std::vector<double> readingWidths { 0.29, 0.21, 0.29, 0.21 };
    const auto put = [&](ReadingId id) {
        const auto* entry = study.directory->find(id);
        if (!entry || entry->address.pointer.starts_with("/wants/"))
            return;
        const Address* address = &entry->address;
        const Reading& r = *entry->reading;
        const bool length = address->style.dimension == Dimension::Length;
        const Style& width = address->style.dimension == Dimension::Temperature ? style::rise : address->style;
        cells.push_back(address->full());
        cells.push_back(r.value
                ? fmt::format("{} ±{}, {}", print(*r.value, address->style, study.system),
                    figure(uncertainty(r, length), width, study.system), r.instrument.empty() ? std::string(nameOf(r.known)) : r.instrument)
                : std::string("not read"));
        if (cells.size() == readingWidths.size()) {
            leaf.row(std::exchange(cells, {}), readingWidths, false, true);
        }
    };
    for (const ReadingId reading : deciding)
        put(reading);
    if (!cells.empty())
        leaf.row(cells, { readingWidths[0], readingWidths[1] }, false, true);
    leaf.heading("Signed");
    leaf.row({ "fitted by ______________________", "checked by ______________________", "date ____________" }, { 0.4, 0.4, 0.2 });
    leaf.caution("Brakes are life-critical. Have adapters, machined and welded parts judged by a qualified engineer or licensed mechanic; "
                 "follow local law on inspection, registration and type approval.");
    return leaf;
}

std::string figuresCsv(const Study& study)
{
    std::string out = "id,title,level,value,unit,plus_minus,reason\n";
    const auto number = [](double v) { return std::isfinite(v) ? fmt::format("{}", v) : std::string(); };
    const auto line = [&](const std::string& id, const std::string& title, Level level, const Figure& f, const Style& style,
                          const std::string& reason) {
        out += files::csvField(id) + "," + files::csvField(title) + "," + std::string(nameOf(level)) + ","
            + (f.value ? number(fromSi(*f.value, style.unit(UnitSystem::Metric))) : std::string()) + "," + files::csvField(style.metricUnit)
            + "," + (f.value ? number(f.worstCase / style.unit(UnitSystem::Metric).factor) : std::string()) + "," + files::csvField(reason)
            + "\n";
    };
    for (const Verdict& v : study.verdicts)
        line(v.id, v.title, v.level, v.figure, v.style, v.reason);
    for (const LedgerLine& l : study.ledger) {
        line("ledger/" + l.id + "/before", l.title + ", before", l.level, l.before, l.style, {});
        line("ledger/" + l.id + "/after", l.title + ", after", l.level, l.after, l.style, l.word);
    }
    return out;
}

std::string cardJson(const jobcard::Card& card)
{
    nlohmann::ordered_json steps = nlohmann::ordered_json::array();
    for (const jobcard::Step& s : card.steps) {
        nlohmann::ordered_json step { { "id", s.id }, { "phase", jobcard::nameOf(s.phase) }, { "corner", s.corner }, { "text", s.text },
            { "because", s.because }, { "irreversible", s.irreversible }, { "open", s.open }, { "optional", s.optional },
            { "done_before", s.doneBefore } };
        step["torque_Nm"] = s.torque ? nlohmann::ordered_json(*s.torque) : nlohmann::ordered_json();
        if (!s.waits.empty())
            step["waits"] = s.waits;
        if (!s.caution.empty())
            step["caution"] = s.caution;
        if (!s.readings.empty())
            step["readings"] = s.readings;
        step["state"] = s.state == Checked::Fine ? "fine" : s.state == Checked::Fault ? "fault" : "open";
        steps.push_back(std::move(step));
    }
    return steps.dump(2) + "\n";
}

} // namespace deepstop::report
