#include "cli/commands.hpp"

#include "build/choices.hpp"
#include "design/order.hpp"
#include "files/data_folder.hpp"
#include "files/exports.hpp"
#include "files/paper_files.hpp"
#include "language/language.hpp"
#include "library/library_file.hpp"
#include "quantity/parse.hpp"
#include "solids/solid_files.hpp"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <iostream>
#include <map>
#include <memory>

namespace deepstop::cli {
namespace {

struct DesignOptions {
    Subject subject;
    std::string library;
    std::string caliper;
    std::string pad;
    std::string mount;
    std::vector<std::string> wheels;
    std::vector<std::string> fixed;
    std::string best = "rotor";
    std::string spacer;
    std::string thickness;
    std::string hatThickness;
    std::string heads;
    bool made = false;
    bool json = false;
    std::string into;
    std::string name;
    std::string order;
    std::map<std::string, std::vector<std::string>> drawings; ///< of each part, files to write
    std::string paper = "a4";
};

constexpr double millimetre = 1e-3;

double length(const std::string& option, const std::string& text)
{
    const auto parsed = parseQuantity(text, Dimension::Length, "mm");
    if (!parsed)
        throw files::Refusal(fmt::format("{}: {}", option, parsed.refusal));
    return *parsed.value;
}

template <class T>
const T& shelved(const std::vector<library::Shelved<T>>& shelf, const std::string& id, const char* option)
{
    for (const auto& each : shelf)
        if (each.id == id)
            return each.part;
    std::string some;
    for (std::size_t i = 0; i < shelf.size() && i < 6; ++i)
        some += (some.empty() ? "" : ", ") + shelf[i].id;
    throw files::Refusal(tr(
        "{} {}: the library has no such part. It has {}{}.", option, id, some.empty() ? tr("none") : some, shelf.size() > 6 ? ", …" : ""));
}

/// The corner a kit is designed for: that of the setup, with another caliper where one is named.
design::Basis basisOf(const DesignOptions& o, const std::shared_ptr<const Study>& study)
{
    design::Basis basis;
    basis.study = study;
    basis.axle = o.subject.onAxle();
    const AxleParts& parts = study->after.at(basis.axle);
    if (!parts.corner || parts.corner->brakes != BrakeKind::Discs)
        throw files::Refusal(tr("{}: this setup has no disc brakes on that axle to design for.", o.subject.path));
    basis.corner = *parts.corner;
    if (!o.caliper.empty() || !o.pad.empty()) {
        const std::string path = o.library.empty() ? (files::dataFolder() / "library" / "parts.json").string() : o.library;
        if (std::error_code none; !std::filesystem::exists(path, none))
            throw files::Refusal(tr("{}: there is no such parts library.", path));
        const auto library = files::loadLibrary(path);
        if (!o.caliper.empty()) {
            basis.corner.caliper = shelved(library.calipers, o.caliper, "--caliper");
            basis.corner.caliper.from = o.caliper;
            // How another caliper is bolted on, and over what rotor, is not given.
            basis.corner.mount.kind = MountKind::Unknown;
            basis.corner.rotor.thickness = {};
            basis.corner.rotor.ventGap = {};
        }
        if (!o.pad.empty())
            basis.corner.pad = shelved(library.pads, o.pad, "--pad");
    }
    if (!o.mount.empty())
        basis.corner.mount.kind = o.mount == "radial" ? MountKind::Radial : MountKind::Lug;
    for (const std::string& id : o.wheels) {
        const Wheel* wheel = findWheel(*study->build, id);
        if (!wheel) {
            std::string all;
            for (const Wheel& each : study->build->wheels)
                all += (all.empty() ? "" : ", ") + each.id;
            throw files::Refusal(tr("{}: it has no wheel “{}”. It has {}.", o.subject.path, id, all.empty() ? tr("none") : all));
        }
        if (std::ranges::find(basis.wheels, wheel) == basis.wheels.end())
            basis.wheels.push_back(wheel);
    }
    if (basis.wheels.empty() && parts.wheel)
        basis.wheels.push_back(parts.wheel);
    return basis;
}

design::Fixed fixedOf(const DesignOptions& o)
{
    design::Fixed fixed;
    for (const std::string& each : o.fixed) {
        const auto sign = each.find('=');
        const std::string key = each.substr(0, sign);
        auto* const held = key == "rotor_mm" ? &fixed.rotor : key == "slot_mm" ? &fixed.slot : key == "bracket_mm" ? &fixed.plate : nullptr;
        if (sign == std::string::npos || !held)
            throw files::Refusal(tr("--fixed {}: it is rotor_mm=…, slot_mm=… or bracket_mm=….", each));
        *held = length("--fixed " + key, each.substr(sign + 1));
    }
    if (fixed.slot && fixed.plate)
        throw files::Refusal(tr("--fixed: slot_mm and bracket_mm say the same; hold one of them."));
    return fixed;
}

nlohmann::ordered_json mm(double metres)
{
    return std::isfinite(metres) ? nlohmann::ordered_json(std::round(metres * 1e6) / 1e3) : nlohmann::ordered_json();
}

nlohmann::ordered_json json(
    const design::Maker& maker, const design::Map& map, const design::Best& best, const std::vector<design::Rate>& rates)
{
    nlohmann::ordered_json out;
    if (!best.proposal) {
        out = { { "rotor_mm", nullptr }, { "slot_mm", nullptr }, { "nearest", best.nearest }, { "short_mm", mm(best.shortBy) } };
        if (!map.lacks.empty())
            out["lacks"] = map.lacks;
    } else {
        const design::Kit kit = maker.kit(*best.proposal);
        out = { { "rotor_mm", mm(best.proposal->rotor) }, { "slot_mm", mm(best.proposal->slot) },
            { "rotor_thickness_mm", mm(best.proposal->thickness) }, { "ring_inner_mm", mm(kit.ringInner) },
            { "hat",
                { { "overall_height_mm", mm(kit.overallHeight) }, { "thickness_mm", mm(kit.proposal.hatThickness) },
                    { "pocket_mm", mm(kit.pocket) }, { "bore_mm", mm(kit.bore) }, { "bolt_circle_mm", mm(kit.boltCircle) },
                    { "holes", kit.holes }, { "hole_mm", mm(kit.hole) }, { "ring_circle_mm", mm(kit.ringCircle) },
                    { "ring_bolts", kit.bolts.count }, { "ring_thread", kit.bolts.thread }, { "mass_kg", massOf(kit.hat) },
                    { "inertia_kgm2", inertiaOf(kit.hat) } } },
            { "ring", { { "mass_kg", massOf(kit.ring) }, { "inertia_kgm2", inertiaOf(kit.ring) } } },
            { "bracket", { { "thickness_mm", mm(kit.adapter.thickness) }, { "shims_mm", mm(kit.shims) } } } };
        const auto stud = design::studLength(maker, *best.proposal);
        out["stud_length_mm"] = stud ? mm(*stud) : nlohmann::ordered_json();
        out["binds"] = best.binds;
        out["estimated"] = design::stillEstimated(maker, map, *best.proposal);
        out["rates"] = nlohmann::ordered_json::object();
        for (const design::Rate& rate : rates)
            out["rates"][rate.id] = std::round(rate.gain * 1e3) / 1e3;
        for (const design::Rate& rate : rates)
            if (rate.within)
                out["until"][rate.id] = { { "within_mm", mm(*rate.within) }, { "check", rate.until } };
    }
    auto places = nlohmann::ordered_json::array();
    constexpr int rows = 50;
    for (std::size_t i = 0; i < map.columns.size(); i += 2)
        for (int k = 0; k <= rows; ++k) {
            const double rotor = map.least + (map.most - map.least) * k / rows;
            const auto judged = map.judged(i, rotor);
            places.push_back({ { "slot_mm", mm(map.columns[i]) }, { "rotor_mm", mm(rotor) }, { "level", nameOf(judged.level) },
                { "binds", judged.limit ? map.limits[*judged.limit].id : std::string() } });
        }
    out["map"] = std::move(places);
    return out;
}

void say(const design::Maker& maker, const design::Map& map, const design::Best& best, const std::vector<design::Rate>& rates)
{
    const UnitSystem system = maker.basis().study->system;
    const auto print = [&](double value) { return deepstop::print(value, style::fine, system); };
    if (!best.proposal) {
        if (!map.lacks.empty()) {
            std::cout << map.lacks << "\n";
            return;
        }
        std::cout << (best.shortBy > 0 ? tr("nothing clears; nearest to it is {}, short by {}\n", best.nearest, print(best.shortBy))
                                       : tr("nothing is proven to clear: {} is not known well enough\n", best.nearest));
        for (const std::string& name : design::stillEstimated(maker, map, map.at))
            std::cout << tr("estimate  {}\n", name);
        return;
    }
    const design::Kit kit = maker.kit(*best.proposal);
    std::cout << tr("rotor     Ø {} × {}, slot's middle {} from the hub face\n", print(best.proposal->rotor),
        print(best.proposal->thickness), print(best.proposal->slot));
    std::cout << tr("hat       {} high, {} thick, pocket Ø {}, bore Ø {}, {} holes Ø {} on Ø {}, {:.2f} kg\n", print(kit.overallHeight),
        print(kit.proposal.hatThickness), print(kit.pocket), print(kit.bore), kit.holes, print(kit.hole), print(kit.boltCircle),
        massOf(kit.hat));
    std::cout << tr("ring      {} inside the faces, {} bolts {} on Ø {}, {:.2f} kg\n", print(kit.ringInner), kit.bolts.count,
        kit.bolts.thread, print(kit.ringCircle), massOf(kit.ring));
    std::cout << tr("bracket   plate {}, shims {}\n", print(kit.adapter.thickness), print(kit.shims));
    if (const auto stud = design::studLength(maker, *best.proposal))
        std::cout << tr("studs     {} out of the flange\n", print(*stud));
    for (const std::string& id : best.binds)
        std::cout << tr("decides   {}\n", id);
    for (const design::Rate& rate : rates)
        std::cout << (rate.within ? tr("{}: {} of rotor, for {}, until {}\n", rate.title,
                          printChange(rate.gain * millimetre, style::gap, system), print(*rate.within), rate.until)
                                  : tr("{}: {} of rotor\n", rate.title, printChange(rate.gain * millimetre, style::gap, system)));
    for (const std::string& name : design::stillEstimated(maker, map, *best.proposal))
        std::cout << tr("estimate  {}\n", name);
    std::cout << tr("A qualified engineer has to judge these parts before they are made. Nothing is proven until they are read.\n");
}

int designKit(const DesignOptions& o)
{
    std::vector<std::string> written { o.into, o.order };
    for (const auto& [part, paths] : o.drawings)
        written.insert(written.end(), paths.begin(), paths.end());
    files::checkOutputs({ o.subject.path, o.library }, written);
    const auto study = std::make_shared<const Study>(o.subject.studied());
    const design::Basis basis = basisOf(o, study);
    const design::Fixed held = fixedOf(o);
    const design::Maker maker(basis);
    design::Proposal start = maker.start();
    if (!o.spacer.empty())
        start.spacer = length("--spacer", o.spacer);
    if (!o.thickness.empty())
        start.thickness = length("--thickness", o.thickness);
    if (!o.hatThickness.empty())
        start.hatThickness = length("--hat-thickness", o.hatThickness);
    if (!o.heads.empty())
        start.heads = length("--heads", o.heads);
    const design::Map map = design::mapOf(maker, start);
    const design::Aim aim = o.best == "weight" ? design::Aim::Weight : o.best == "bracket" ? design::Aim::Bracket : design::Aim::Rotor;
    design::Best best = design::bestOf(maker, map, aim, held);
    if (o.made && best.proposal && !held.rotor) {
        const auto library =
            files::loadLibrary(o.library.empty() ? files::dataFolder() / "library" / "parts.json" : std::filesystem::path(o.library));
        design::Fixed snapped = held;
        snapped.rotor = design::madeDiameter(library, best.proposal->rotor);
        if (auto again = design::bestOf(maker, map, aim, snapped); again.proposal)
            best = std::move(again);
    }
    const auto rates = design::ratesOf(maker, map, best);
    if (o.json)
        std::cout << json(maker, map, best, rates).dump(2) << "\n";
    else
        say(maker, map, best, rates);
    if (!best.proposal)
        return bad;
    const auto size = o.paper == "letter" ? paper::letter() : paper::a4();
    const auto parts = o.drawings.empty() ? std::vector<design::ShopPart> {} : design::partsToMake(maker, *best.proposal, today());
    for (const auto& [key, paths] : o.drawings) {
        const auto part = std::ranges::find(parts, key, &design::ShopPart::key);
        if (part == parts.end())
            throw files::Refusal(key == "spacer" ? std::string(tr("No spacer is chosen: say --spacer."))
                                                 : tr("{}: cannot be drawn, readings of knuckle or caliper lack.", key));
        for (const std::string& path : paths)
            if (part->turned)
                solids::writeTurned(path, *part->turned, part->drawing, size);
            else
                solids::writePlate(path, *part->plate, part->drawing, size);
    }
    if (!o.order.empty()) {
        const auto pages = report::sheetsOf(design::orderSheet(maker, map, *best.proposal, best.binds, today()), size);
        files::exportFile(o.order, files::pdfOf(pages, tr("Order")));
    }
    if (!o.into.empty()) {
        const auto name = o.name.empty() ? tr("Designed Ø {}", print(best.proposal->rotor, style::size, UnitSystem::Metric)) : o.name;
        writeEdited(o.subject.path, design::putIn(maker, *best.proposal, name), o.into);
    }
    return fine;
}

} // namespace

void addDesignCommands(CLI::App& app, int& code)
{
    auto* command = app.add_subcommand("design",
        tr("The largest rotor, and hat, ring and bracket for it, that clear with this hub, caliper and wheels. Exit 1 where nothing does"));
    auto o = std::make_shared<DesignOptions>();
    o->subject.addTo(*command);
    o->subject.addAxleTo(*command);
    command->add_option("--caliper", o->caliper, tr("id of a caliper of the parts library instead of the setup's own"));
    command->add_option("--pad", o->pad, tr("id of a pad of the parts library instead of the setup's own"));
    command->add_option("--mount", o->mount, tr("how that caliper is bolted on: lug or radial"))->check(CLI::IsMember({ "lug", "radial" }));
    command->add_option("--library", o->library, tr("parts library, *.json (default: the one that comes with the program)"));
    command->add_option("--wheel", o->wheels, tr("id of a wheel of the build that must clear; may be said several times"))
        ->allow_extra_args(false);
    command->add_option("--fixed", o->fixed, tr("hold rotor_mm=…, slot_mm=… or bracket_mm=…"))->allow_extra_args(false);
    command->add_option("--best", o->best, tr("rotor: as large as it goes; weight: as light; bracket: as thin a plate"))
        ->check(CLI::IsMember({ "rotor", "weight", "bracket" }));
    command->add_option("--spacer", o->spacer, tr("spacer behind the wheel, in mm"));
    command->add_option("--thickness", o->thickness, tr("thickness of the rotor, in mm"));
    command->add_option("--hat-thickness", o->hatThickness, tr("thickness of the hat between hub and wheel, in mm"));
    command->add_option("--heads", o->heads, tr("how far the bolts' heads at the knuckle stand out of the bracket, in mm"));
    command->add_flag("--made", o->made, tr("a diameter that the library has, or of whole 5 mm"));
    command->add_flag("--json", o->json, tr("as JSON"));
    command->add_option("--into", o->into, tr("write the build with the kit as a setup of its own to this file"));
    command->add_option("--name", o->name, tr("name of that setup"));
    command->add_option("--order", o->order, tr("write the order with all drawings as PDF"));
    for (const char* part : { "hat", "ring", "bracket", "spacer" })
        for (const char* ending : { "pdf", "dxf", "step", "stl" })
            command->add_option_function<std::string>(
                fmt::format("--{}-{}", part, ending),
                [o, part = std::string(part), ending = fmt::format(".{}", ending)](const std::string& path) {
                    if (!path.ends_with(ending))
                        throw CLI::ValidationError(tr("{}: the name has to end in {}.", path, ending));
                    o->drawings[part].push_back(path);
                },
                tr("write the {} as {}", part, ending));
    command->add_option("--paper", o->paper, tr("a4 or letter"))->check(CLI::IsMember({ "a4", "letter" }));
    command->callback([o, &code] { code = designKit(*o); });
}

} // namespace deepstop::cli
