#include "report/sheets.hpp"

#include "chapters/clearance/clearance.hpp"
#include "chapters/proving/checks.hpp"
#include "files/csv.hpp"
#include "language/language.hpp"
#include "quantity/text.hpp"
#include "quantity/unit.hpp"

#include "jobcard/outfit.hpp"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>
#include <utility>

namespace deepstop::report {

std::string titleLine(const Study& study, const std::string& date)
{
    return tr("{} · {} against {} · {}", study.build->car.name.empty() ? tr("New build") : study.build->car.name, study.after.setup->name,
        study.before.setup->name, date);
}

namespace {

std::string underOf(const Study& study, const jobcard::Step& s)
{
    std::vector<std::string> parts;
    if (s.torque)
        parts.push_back(tr("torque {} ({} · {})", print(*s.torque, style::torque, study.system),
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
        parts.push_back(s.open ? tr("not proven: {}", wait) : tr("SHUT: {}", wait));
    if (!s.opened.empty())
        parts.push_back(tr("opened all the same: {}", s.opened));
    if (!s.who.empty() || !s.when.empty())
        parts.push_back(s.who + " " + s.when);
    if (!s.note.empty())
        parts.push_back(s.note);
    std::string all;
    for (const auto& part : parts)
        all += (all.empty() ? "" : " · ") + part;
    return all;
}

/// What is laid out before the job begins.
void addOutfit(Leaf& leaf, const Study& study, const jobcard::Outfit& outfit)
{
    leaf.heading(tr("Laid out before the job"));
    leaf.text(tr("Tools: {}.", listed(outfit.tools, ", ")));
    if (!outfit.sizes.empty())
        leaf.text(tr("Sizes: {}.", listed(outfit.sizes, "; ")));
    if (outfit.torques)
        leaf.text(tr("Torque wrench from {} to {}.", print(outfit.torques->first, style::torque, study.system),
            print(outfit.torques->second, style::torque, study.system)));
    if (!outfit.used.empty())
        leaf.text(tr("Used up: {}.", listed(outfit.used, ", ")));
    leaf.text(tr("Shims: {}.", (outfit.shims.empty() ? std::string("none") : listed(outfit.shims, "; "))));
}

void addTorques(Leaf& leaf, const jobcard::Card& card)
{
    leaf.heading(tr("Torque sheet"));
    const std::vector<double> widths { 0.5, 0.2, 0.16, 0.14 };
    leaf.row({ "joint", "torque", "threads", tr("done by") }, widths, true);
    for (const jobcard::Step& s : card.steps)
        if (!s.threads.empty() && card.shows(s))
            leaf.row({ s.corner + ": " + s.text.substr(0, s.text.find(tr(", each"))),
                         s.torque ? fmt::format("{} · {}", print(*s.torque, { Dimension::Torque, "N·m", 0, "N·m", 0 }),
                             print(*s.torque, { Dimension::Torque, "lb ft", 0, "lb ft", 0 }))
                                  : std::string(tr("ask its maker")),
                         s.threads, "" },
                widths);
}

} // namespace

Leaf torqueSheet(const Study& study, const jobcard::Card& card, const std::string& date)
{
    Leaf leaf { tr("Torque sheet"), titleLine(study, date), {}, {} };
    addTorques(leaf, card);
    leaf.caution(
        tr("Brakes are life-critical: the maker's torque outranks this one. Start every bolt by hand; check again after the first drive."));
    return leaf;
}

Leaf jobCard(const Study& study, const jobcard::Card& card, const std::string& date)
{
    Leaf leaf { tr("Job card"), titleLine(study, date), {}, {} };
    if (card.steps.empty()) {
        leaf.text(tr("Nothing is to be fitted: choose a setup that brings brakes of its own."));
        return leaf;
    }
    const auto times = card.times();
    leaf.text(tr("About {:.1f} hours for one person{}: {:.1f} fitting, {:.1f} measuring, {:.1f} driving; {} steps, {} of them open. "
                 "Times come from what was logged before, else from common practice.",
        card.minutes / 60, card.people > 1 ? tr(", two people while bleeding") : "", times.fitting / 60, times.measuring / 60,
        times.driving / 60, card.shown(), card.open()));
    if (card.folded() > 0)
        leaf.text(tr("{} steps about parts that stay are left out: this job does not need them. Take the inspection in to have them "
                     "printed.",
            card.folded()));
    addOutfit(leaf, study, jobcard::outfitOf(study, card));
    std::optional<jobcard::Phase> phase;
    for (const jobcard::Step& s : card.steps) {
        if (!card.shows(s))
            continue;
        if (phase != s.phase) {
            phase = s.phase;
            leaf.heading(std::string(tr(jobcard::nameOf(s.phase))));
        }
        Block b { Block::Kind::Tick, fmt::format("{}{}: {}", s.open ? "" : "LOCKED. ", s.corner, s.text) };
        b.under = underOf(study, s);
        b.ticked = s.state == Checked::Fine;
        leaf.blocks.push_back(std::move(b));
        if (!s.caution.empty())
            leaf.caution(s.caution);
    }
    addTorques(leaf, card);
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
        line("ledger/" + l.id + "/before", tr("{}, before", l.title), l.level, l.before, l.style, {});
        line("ledger/" + l.id + "/after", tr("{}, after", l.title), l.level, l.after, l.style, l.word);
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
