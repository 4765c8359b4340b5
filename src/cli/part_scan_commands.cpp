#include "cli/part_scans.hpp"

#include "build/choices.hpp"
#include "language/language.hpp"
#include "quantity/format.hpp"
#include "quantity/number.hpp"
#include "quantity/parse.hpp"
#include "scan/caliper_scan.hpp"
#include "scan/knuckle_scan.hpp"
#include "solids/mesh_file.hpp"
#include "solids/step_parts.hpp"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <functional>
#include <initializer_list>
#include <iostream>
#include <memory>

namespace deepstop::cli {
namespace {

constexpr double inMillimetres = 1e-3;

/// Which corner of a build takes what was read.
struct Target {
    std::string into;
    std::string setup;
    std::string axle = "front";

    void addTo(CLI::App& command)
    {
        command.add_option("--into", into, tr("the build that takes the readings"));
        command.add_option("--setup", setup, tr("id of its setup"));
        command.add_option("--axle", axle, tr("front or rear"))->check(CLI::IsMember({ "front", "rear" }));
    }
    void check() const
    {
        if (!into.empty() && setup.empty())
            throw files::Refusal(tr("--into: say into which setup, with --setup."));
    }
    /// Writes the build with its corner changed, where one was named.
    void put(const std::function<void(Corner&)>& change) const
    {
        if (into.empty())
            return;
        writeEdited(
            into,
            [&](const Build& now) -> std::optional<Build> {
                if (!findSetup(now, setup))
                    throw files::Refusal(tr("{}: there is no setup “{}”.", into, setup));
                Build build = now;
                change(ownCorner(build, setup, axle == "rear" ? Axle::Rear : Axle::Front));
                return build;
            },
            into);
    }
};

/// A reading of a part, its key and its name.
struct Size {
    const char* key;
    const char* name;
    const Reading& reading;
};
void say(std::initializer_list<Size> sizes, UnitSystem system)
{
    for (const auto& [key, name, reading] : sizes)
        if (reading.value)
            std::cout << fmt::format("{:<36} {}\n", tr(name), print(*reading.value, style::fine, system));
}
nlohmann::ordered_json json(std::initializer_list<Size> sizes)
{
    nlohmann::ordered_json out;
    for (const auto& [key, name, reading] : sizes)
        out[key] = reading.value ? nlohmann::ordered_json(*reading.value / inMillimetres) : nlohmann::ordered_json();
    return out;
}

struct RotorOptions {
    std::string path;
    bool json = false;
    bool us = false;
    Target target;
};

int scanRotor(const RotorOptions& o)
{
    o.target.check();
    const solids::ReadSolid solid = solids::readStep(o.path);
    const solids::ReadRotor read = solids::rotorIn(solid, o.path);
    const Rotor& r = read.rotor;
    const std::initializer_list<Size> sizes {
        { "outer_diameter_mm", marked("rotor diameter"), r.outerDiameter },
        { "thickness_mm", marked("thickness"), r.thickness },
        { "ring_inner_diameter_mm", marked("inner diameter of the ring"), r.ringInnerDiameter },
        { "overall_height_mm", marked("overall height"), r.overallHeight },
        { "hat_thickness_mm", marked("hat thickness"), r.hatThickness },
        { "hat_outer_diameter_mm", marked("hat diameter"), r.hatOuterDiameter },
        { "hat_wall_mm", marked("wall of the hat"), r.hatWall },
        { "bore_mm", marked("bore"), r.bore },
        { "pocket_diameter_mm", marked("pocket for the hub"), r.pocketDiameter },
        { "bolt_circle_mm", marked("bolt circle"), r.boltCircle },
        { "bolt_hole_diameter_mm", marked("bolt holes"), r.boltHoleDiameter },
        { "vent_gap_mm", marked("air between the plates"), r.ventGap },
    };
    const UnitSystem system = o.us ? UnitSystem::Us : UnitSystem::Metric;
    if (o.json) {
        auto out = json(sizes);
        out["bolt_holes"] = r.boltHoles == notCounted ? nlohmann::ordered_json() : nlohmann::ordered_json(int(r.boltHoles));
        out["volume_cm3"] = read.volume * 1e6;
        out["holes"] = nlohmann::ordered_json::array();
        for (const auto& ring : read.holes)
            out["holes"].push_back({ { "count", ring.count }, { "diameter_mm", ring.diameter / inMillimetres },
                { "circle_mm", ring.circle / inMillimetres } });
        std::cout << out.dump(2) << "\n";
    } else {
        say(sizes, system);
        for (const auto& ring : read.holes)
            std::cout << tr(
                "{} holes of {} on {}\n", ring.count, print(ring.diameter, style::fine, system), print(ring.circle, style::fine, system));
        for (const std::string& each : read.remarks)
            std::cout << each << "\n";
    }
    o.target.put([&](Corner& corner) {
        corner.rotor = solids::rotorWith(corner.rotor, read);
        const scan::ScanFile file = fileBeside(o.path, solid.hash, o.target.into);
        corner.rotor.scan = file.path;
        corner.rotor.scanHash = file.hash;
    });
    return fine;
}

struct CaliperOptions {
    std::string path;
    std::string units;
    std::string rotor;
    std::string drop;
    std::vector<std::string> holes;
    std::string along;
    bool json = false;
    bool us = false;
    Target target;
};

double lengthFrom(const char* option, const std::string& text)
{
    const auto parsed = parseQuantity(text, Dimension::Length, "mm");
    if (!parsed)
        throw files::Refusal(fmt::format("{}: {}", option, parsed.refusal));
    return *parsed.value;
}

/// "12.5,-40,3", in the unit of the file.
scan::Point pointFrom(const char* option, const std::string& text, double unit)
{
    scan::Point point {};
    std::string_view left = text;
    for (std::size_t i = 0; i < 3; ++i) {
        const auto comma = left.find(',');
        const auto number = readNumber(left.substr(0, comma));
        if (!number || (comma == std::string_view::npos) != (i == 2))
            throw files::Refusal(tr("{} {}: three numbers with commas are wanted, as 12.5,-40,3.", option, text));
        point[i] = *number * unit;
        left = comma == std::string_view::npos ? std::string_view() : left.substr(comma + 1);
    }
    return point;
}

int scanCaliper(const CaliperOptions& o)
{
    o.target.check();
    const auto loaded = solids::loadMesh(o.path);
    scan::CaliperQuestion question;
    question.unit = metresIn(o.units == "in" ? scan::FileUnit::Inch : o.units == "m" ? scan::FileUnit::Metre : scan::FileUnit::Millimetre);
    question.rotorRadius = lengthFrom("--rotor", o.rotor) / 2;
    question.drop = lengthFrom("--drop", o.drop);
    question.solid = loaded.unit.has_value();
    if (o.holes.empty() && loaded.unit) {
        const auto holes = solids::mountingHolesIn(solids::readStep(o.path), o.path);
        question.firstHole = holes.first;
        question.secondHole = holes.second;
        question.along = holes.along;
    } else if (o.holes.size() == 2 && !o.along.empty()) {
        question.firstHole = pointFrom("--hole", o.holes[0], question.unit);
        question.secondHole = pointFrom("--hole", o.holes[1], question.unit);
        question.along = pointFrom("--along", o.along, 1);
    } else {
        throw files::Refusal(
            tr("{}: a mesh does not tell where its mounting holes are: say their middles with --hole, twice, and their way with --along.",
                o.path));
    }
    const scan::CaliperScan found = scan::scanCaliper(loaded.mesh, question);
    if (!found.lacks.empty())
        throw files::Refusal(o.path + ": " + found.lacks);
    const Caliper& c = found.caliper;
    const std::initializer_list<Size> sizes {
        { "mount_spacing_mm", marked("spacing of its mounting holes"), c.mountSpacing },
        { "mount_drop_mm", marked("their line below the rotor's edge"), c.mountDrop },
        { "mount_depth_mm", marked("mounting face to the slot's middle"), c.mountDepth },
        { "slot_width_mm", marked("slot"), c.slotWidth },
        { "outboard_depth_mm", marked("slot's middle to the outboard face"), c.outboardDepth },
        { "inboard_depth_mm", marked("slot's middle to the inboard face"), c.inboardDepth },
        { "back_over_edge_mm", marked("back over the rotor's edge"), c.backOverEdge },
        { "back_length_mm", marked("length of the back"), c.backLength },
        { "shoulder_mm", marked("chamfer of the back"), c.shoulder },
        { "bridge_gap_mm", marked("bridge over the rotor's edge"), c.bridgeGap },
        { "reach_mm", marked("reach inward of the rotor's edge"), c.reach },
    };
    const UnitSystem system = o.us ? UnitSystem::Us : UnitSystem::Metric;
    if (o.json) {
        auto out = json(sizes);
        out["bumps"] = nlohmann::ordered_json::array();
        for (const Bump& b : c.bumps)
            out["bumps"].push_back(
                { { "over_edge_mm", *b.overEdge.value / inMillimetres }, { "at_depth_mm", *b.atDepth.value / inMillimetres },
                    { "width_mm", *b.width.value / inMillimetres }, { "from_middle_mm", *b.fromMiddle.value / inMillimetres } });
        std::cout << out.dump(2) << "\n";
    } else {
        say(sizes, system);
        std::cout << tr("Stands proud of the back: {}\n", c.bumps.size());
        for (const std::string& each : found.remarks)
            std::cout << each << "\n";
    }
    o.target.put([&](Corner& corner) {
        corner.caliper = scan::caliperWith(corner.caliper, found);
        const scan::ScanFile file = fileBeside(o.path, loaded.hash, o.target.into);
        corner.caliper.scan = file.path;
        corner.caliper.scanHash = file.hash;
    });
    return fine;
}

struct KnuckleOptions {
    std::string path;
    std::string units;
    std::string pilotDiameter;
    std::vector<std::string> flange;
    std::vector<std::string> pilot;
    std::vector<std::string> lugs;
    std::vector<std::string> keepOuts;
    bool json = false;
    bool us = false;
    std::string into;
    std::string axle = "front";
};

scan::Picks picksFrom(const char* option, const std::vector<std::string>& texts, std::size_t first, double unit)
{
    scan::Picks picks {};
    if (texts.size() < first + picks.size())
        throw files::Refusal(tr("{}: say {} places, each as x,y,z.", option, first + picks.size()));
    for (std::size_t i = 0; i < picks.size(); ++i)
        picks[i] = pointFrom(option, texts[first + i], unit);
    return picks;
}

int scanKnuckle(const KnuckleOptions& o)
{
    const auto loaded = solids::loadMesh(o.path);
    scan::KnuckleQuestion question;
    question.unit = metresIn(o.units == "in" ? scan::FileUnit::Inch : o.units == "m" ? scan::FileUnit::Metre : scan::FileUnit::Millimetre);
    question.flange = picksFrom("--flange", o.flange, 0, question.unit);
    question.pilot = picksFrom("--pilot", o.pilot, 0, question.unit);
    question.lugs = { picksFrom("--lug", o.lugs, 0, question.unit), picksFrom("--lug", o.lugs, 3, question.unit) };
    for (const std::string& text : o.keepOuts) {
        const auto equals = text.find('=');
        const auto kind =
            std::ranges::find(choices::keepOut, text.substr(0, equals), [](const auto& each) { return std::string(each.token); });
        if (kind == choices::keepOut.end() || equals == std::string::npos)
            throw files::Refusal(tr("--keep-out {}: it is a kind and a place, as hose=12.5,-40,3.", text));
        question.keepOuts.push_back({ kind->value, pointFrom("--keep-out", text.substr(equals + 1), question.unit) });
    }
    if (!o.pilotDiameter.empty())
        question.pilotKnown = scan::byVernier(scan::KnownLength::Bore, lengthFrom("--pilot-diameter", o.pilotDiameter)).length;
    const scan::KnuckleScan found = scan::scanKnuckle(loaded.mesh, question);
    if (!found.lacks.empty())
        throw files::Refusal(o.path + ": " + found.lacks);
    const std::initializer_list<std::tuple<const char*, const char*, const scan::Sized&>> sizes {
        { "pilot_diameter_mm", marked("hub's pilot"), found.pilotDiameter },
        { "lug_spacing_mm", marked("lugs apart, hole to hole"), found.lugSpacing },
        { "lug_radius_mm", marked("middle of the lugs from the axis"), found.lugRadius },
        { "lug_depth_mm", marked("lugs' face inboard of the flange"), found.lugDepth },
        { "lug_hole_mm", marked("holes in the lugs"), found.lugHole },
    };
    const UnitSystem system = o.us ? UnitSystem::Us : UnitSystem::Metric;
    if (o.json) {
        nlohmann::ordered_json out;
        for (const auto& [key, name, sized] : sizes)
            out[key] = { { "value", sized.value / inMillimetres }, { "plus_minus", sized.plusMinus / inMillimetres } };
        out["keep_outs"] = nlohmann::ordered_json::array();
        for (const KeepOut& each : found.keepOuts)
            out["keep_outs"].push_back(
                { { "depth_mm", *each.depth.value / inMillimetres }, { "radius_mm", *each.radius.value / inMillimetres } });
        out["trusted"] = found.trusted();
        std::cout << out.dump(2) << "\n";
    } else {
        for (const auto& [key, name, sized] : sizes)
            std::cout << fmt::format(
                "{:<36} {} ±{}\n", tr(name), print(sized.value, style::fine, system), figure(sized.plusMinus, style::fine, system));
        for (const std::string& each : found.remarks)
            std::cout << each << "\n";
    }
    const bool contradicts = found.scale && !found.scale->agrees();
    if (o.into.empty())
        return contradicts ? bad : fine;
    if (contradicts)
        throw files::Refusal(tr("{}: the scan and what is known do not agree: nothing is put into the build.", o.path));
    writeEdited(
        o.into, scan::knuckleEdit(found, fileBeside(o.path, loaded.hash, o.into), o.axle == "rear" ? Axle::Rear : Axle::Front), o.into);
    return fine;
}

} // namespace

void addPartScanCommands(CLI::App& scan, int& code)
{
    auto* rotor = scan.add_subcommand("rotor", tr("A rotor, its ring or its hat from STEP"));
    auto r = std::make_shared<RotorOptions>();
    rotor->add_option("file", r->path, tr("the solid"))->required();
    rotor->add_flag("--json", r->json, tr("as JSON"));
    rotor->add_flag("--us", r->us, tr("inches and pounds in sentences"));
    r->target.addTo(*rotor);
    rotor->callback([r, &code] { code = scanRotor(*r); });

    auto* caliper = scan.add_subcommand("caliper", tr("A caliper on lugs from STEP, STL, PLY or OBJ"));
    auto c = std::make_shared<CaliperOptions>();
    caliper->add_option("file", c->path, tr("the solid or scan"))->required();
    caliper->add_option("--rotor", c->rotor, tr("diameter of the rotor that it is meant for"))->required();
    caliper->add_option("--drop", c->drop, tr("line of its mounting holes inward of that rotor's edge"))->required();
    caliper->add_option("--units", c->units, tr("unit of a mesh: mm, in or m (default: mm)"))->check(CLI::IsMember({ "mm", "in", "m" }));
    caliper->add_option("--hole", c->holes, tr("middle of a mounting hole where it bears on its lug, as x,y,z of the file; twice"))
        ->allow_extra_args(false);
    caliper->add_option("--along", c->along, tr("way of these holes, as x,y,z"));
    caliper->add_flag("--json", c->json, tr("as JSON"));
    caliper->add_flag("--us", c->us, tr("inches and pounds in sentences"));
    c->target.addTo(*caliper);
    caliper->callback([c, &code] { code = scanCaliper(*c); });

    auto* knuckle = scan.add_subcommand("knuckle",
        tr("A knuckle with its hub from STL, PLY, OBJ or STEP, by places of it. Exit 1 where the scan and the pilot do not agree"));
    auto k = std::make_shared<KnuckleOptions>();
    knuckle->add_option("file", k->path, tr("the scan"))->required();
    knuckle->add_option("--units", k->units, tr("unit of a mesh: mm, in or m (default: mm)"))->check(CLI::IsMember({ "mm", "in", "m" }));
    knuckle->add_option("--flange", k->flange, tr("a place on the hub's flange face, as x,y,z of the file; three times"))
        ->allow_extra_args(false)
        ->required();
    knuckle->add_option("--pilot", k->pilot, tr("a place round the hub's pilot; three times"))->allow_extra_args(false)->required();
    knuckle
        ->add_option(
            "--lug", k->lugs, tr("a place at the edge of a lug's hole, on the face that the bracket lies on; three times for either"))
        ->allow_extra_args(false)
        ->required();
    knuckle->add_option("--keep-out", k->keepOuts, tr("a place that must not be reached, as hose=x,y,z; may be said several times"))
        ->allow_extra_args(false);
    knuckle->add_option("--pilot-diameter", k->pilotDiameter, tr("of the hub's pilot, as it was measured"));
    knuckle->add_flag("--json", k->json, tr("as JSON"));
    knuckle->add_flag("--us", k->us, tr("inches and pounds in sentences"));
    knuckle->add_option("--into", k->into, tr("the build that takes the readings"));
    knuckle->add_option("--axle", k->axle, tr("front or rear"))->check(CLI::IsMember({ "front", "rear" }));
    knuckle->callback([k, &code] { code = scanKnuckle(*k); });
}

} // namespace deepstop::cli
