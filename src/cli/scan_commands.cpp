#include "cli/commands.hpp"

#include "build/choices.hpp"
#include "files/disk.hpp"
#include "files/profile_file.hpp"
#include "language/language.hpp"
#include "quantity/format.hpp"
#include "quantity/parse.hpp"
#include "quantity/number.hpp"
#include "scan/caliper_scan.hpp"
#include "scan/into_build.hpp"
#include "scan/knuckle_scan.hpp"
#include "solids/mesh_file.hpp"
#include "solids/step_parts.hpp"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <array>
#include <filesystem>
#include <functional>
#include <initializer_list>
#include <iostream>
#include <memory>
#include <numbers>

namespace deepstop::cli {
namespace {

constexpr double oneMillimetre = 1e-3;

struct WheelScanOptions {
    std::string path;
    std::string units;
    std::string known;
    bool correct = false;
    bool otherSide = false;
    bool json = false;
    bool us = false;
    std::string into;
    std::string wheel;
};

/// As the build names it.
scan::ScanFile fileBeside(const std::string& path, const std::string& hash, const std::string& build)
{
    std::error_code none;
    const auto beside = std::filesystem::proximate(path, std::filesystem::absolute(build).parent_path(), none);
    return { none ? path : beside.generic_string(), hash, today() };
}

/// "bore=66.6mm" or "bolt_circle=112±0.1".
scan::KnownSize knownFrom(const std::string& text)
{
    const auto equals = text.find('=');
    const std::string key = text.substr(0, equals);
    scan::KnownLength what {};
    if (key == "bore")
        what = scan::KnownLength::Bore;
    else if (key == "bolt_circle")
        what = scan::KnownLength::BoltCircle;
    else if (key == "width")
        what = scan::KnownLength::OverallWidth;
    else
        throw files::Refusal(tr("--known {}: say bore=, bolt_circle= or width= and the length that was measured.", text));
    const std::string value = equals == std::string::npos ? std::string() : text.substr(equals + 1);
    const auto parsed = parseQuantity(value, Dimension::Length, "mm");
    if (!parsed || !(*parsed.value > 0))
        throw files::Refusal(fmt::format("--known {}: {}", key, parsed ? tr("a length above 0 is wanted.") : parsed.refusal));
    return scan::byVernier(what, *parsed.value);
}

scan::FileUnit unitOf(const solids::LoadedMesh& loaded, const WheelScanOptions& o)
{
    for (const scan::FileUnit unit : { scan::FileUnit::Millimetre, scan::FileUnit::Inch, scan::FileUnit::Metre })
        if (o.units == nameOf(unit))
            return unit;
    if (loaded.unit)
        return *loaded.unit;
    if (const auto guessed = scan::guessedUnit(loaded.mesh))
        return *guessed;
    throw files::Refusal(tr("{}: is {:.4g} across, in no unit the size of a road wheel. Say in which it is, with --units.", o.path,
        scan::extentOf(loaded.mesh).largest()));
}

nlohmann::ordered_json json(const scan::WheelScan& scan, scan::FileUnit unit)
{
    using nlohmann::ordered_json;
    const auto mm = [](double si) { return si / oneMillimetre; };
    const auto sized = [&](const std::optional<scan::Sized>& s) { return s ? ordered_json(mm(s->value)) : ordered_json(); };
    const auto wide = [&](const std::optional<scan::Sized>& s) { return s ? ordered_json(mm(s->plusMinus)) : ordered_json(); };
    const auto ranges = [&](const std::vector<scan::Range>& all) {
        ordered_json out = ordered_json::array();
        for (const scan::Range& r : all)
            out.push_back({ mm(r.from), mm(r.to) });
        return out;
    };
    ordered_json out = { { "units", nameOf(unit) },
        { "axis",
            { { "through_mm", { mm(scan.axis.through[0]), mm(scan.axis.through[1]), mm(scan.axis.through[2]) } },
                { "inboard", scan.axis.direction } } },
        { "bore_mm", sized(scan.bore) }, { "bore_plus_minus", wide(scan.bore) }, { "bolt_circle_mm", sized(scan.boltCircle) },
        { "bolt_circle_plus_minus", wide(scan.boltCircle) }, { "holes", scan.holes }, { "offset_mm", sized(scan.offset) },
        { "offset_plus_minus", wide(scan.offset) }, { "overall_width_mm", sized(scan.overallWidth) }, { "spoke_count", scan.spokeCount },
        { "noise_mm", mm(scan.noise) }, { "tilt_deg", scan.tilt * 180 / std::numbers::pi } };
    if (scan.scale)
        out["scale"] = { { "known_mm", mm(scan.scale->known) }, { "scanned_mm", mm(scan.scale->scanned) }, { "off", scan.scale->off },
            { "plus_minus", scan.scale->plusMinus }, { "agrees", scan.scale->agrees() }, { "corrected", scan.scale->corrected } };
    else
        out["scale"] = nullptr;
    out["barrel"] = ordered_json::array();
    for (const auto& b : scan.barrel)
        out["barrel"].push_back({ { "depth_mm", mm(b.depth) }, { "inside_radius_mm", mm(b.insideRadius) },
            { "plus_minus", mm(b.plusMinus) }, { "seen", b.seen } });
    out["spokes"] = ordered_json::array();
    for (const auto& s : scan.spokes)
        out["spokes"].push_back({ { "radius_mm", mm(s.radius) }, { "distance_mm", mm(s.distance) }, { "plus_minus", mm(s.plusMinus) } });
    out["insets"] = ordered_json::array();
    for (const auto& i : scan.insets)
        out["insets"].push_back({ { "from_mm", mm(i.from) }, { "to_mm", mm(i.to) }, { "height_mm", mm(i.height) },
            { "plus_minus", mm(i.plusMinus) }, { "arc_mm", mm(i.arc) } });
    out["unseen"] = { { "barrel", ranges(scan.barrelUnseen) }, { "spokes", ranges(scan.spokesUnseen) } };
    return out;
}

void say(const scan::WheelScan& scan, scan::FileUnit unit, std::size_t triangles, UnitSystem system)
{
    const auto sized = [&](const std::optional<scan::Sized>& s) {
        return s ? fmt::format("{} ±{}", print(s->value, style::fine, system), figure(s->plusMinus, style::fine, system)) : tr("not known");
    };
    std::cout << tr("{} triangles in {}, rough by {}\n", triangles, nameOf(unit), print(scan.noise, style::fine, system))
              << tr("Bore {}; bolt circle {}, {} holes; offset ET {}; {} spokes\n", sized(scan.bore), sized(scan.boltCircle), scan.holes,
                     sized(scan.offset), scan.spokeCount > 0 ? std::to_string(scan.spokeCount) : tr("unknown number of"))
              << tr("Barrel: {} stations, spokes: {}, inside the barrel: {}\n", scan.barrel.size(), scan.spokes.size(), scan.insets.size());
    for (const std::string& each : scan::remarks(scan, system))
        std::cout << each << "\n";
}

/// A section or list that somebody has drawn: taken as it is.
int takeProfile(const WheelScanOptions& o)
{
    const auto profile = files::readProfile(files::readFile(o.path), o.path);
    const auto list = [](const std::vector<scan::WheelProfile::Place>& places, const char* along, const char* across) {
        auto out = nlohmann::ordered_json::array();
        for (const auto& place : places)
            out.push_back({ { along, place.along / oneMillimetre }, { across, place.across / oneMillimetre } });
        return out;
    };
    if (o.json)
        std::cout << nlohmann::ordered_json {
            { "barrel", list(profile.barrel, "depth_mm", "inside_radius_mm") },
            { "spokes", list(profile.spokes, "radius_mm", "distance_mm") }
        }.dump(2) << "\n";
    else
        std::cout << tr("Barrel: {} stations, spokes: {}, as they are\n", profile.barrel.size(), profile.spokes.size());
    if (!o.into.empty())
        writeEdited(o.into, scan::profileEdit(profile, o.wheel), o.into);
    return fine;
}

int scanWheel(const WheelScanOptions& o)
{
    const bool isProfile =
        std::ranges::any_of(std::array { ".csv", ".CSV", ".dxf", ".DXF" }, [&](const char* ending) { return o.path.ends_with(ending); });
    scan::WheelQuestion question;
    if (!o.known.empty())
        question.known = knownFrom(o.known);
    if (o.correct && !question.known)
        throw files::Refusal(tr("--correct: corrects to what is known; say that with --known."));
    if (!o.into.empty() && o.wheel.empty())
        throw files::Refusal(tr("--into: say into which wheel, with --wheel; an id that no wheel has makes a new one."));
    if (isProfile)
        return takeProfile(o);
    const auto loaded = solids::loadMesh(o.path);
    const scan::FileUnit unit = unitOf(loaded, o);
    question.unit = metresIn(unit);
    question.correctScale = o.correct;
    question.otherSide = o.otherSide;
    const scan::WheelScan scan = scan::scanWheel(loaded.mesh, question);
    if (!scan.lacks.empty())
        throw files::Refusal(o.path + ": " + scan.lacks);
    if (o.json)
        std::cout << json(scan, unit).dump(2) << "\n";
    else
        say(scan, unit, loaded.mesh.triangles(), o.us ? UnitSystem::Us : UnitSystem::Metric);
    if (o.into.empty())
        return scan.scale && !scan.scale->agrees() ? bad : fine;
    if (scan.scale && !scan.scale->agrees())
        throw files::Refusal(tr("{}: the scan and what is known do not agree: nothing is put into the build.", o.path));
    writeEdited(o.into, scan::wheelEdit(scan, fileBeside(o.path, loaded.hash, o.into), o.wheel), o.into);
    return fine;
}

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
        out[key] = reading.value ? nlohmann::ordered_json(*reading.value / oneMillimetre) : nlohmann::ordered_json();
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
            out["holes"].push_back({ { "count", ring.count }, { "diameter_mm", ring.diameter / oneMillimetre },
                { "circle_mm", ring.circle / oneMillimetre } });
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
                { { "over_edge_mm", *b.overEdge.value / oneMillimetre }, { "at_depth_mm", *b.atDepth.value / oneMillimetre },
                    { "width_mm", *b.width.value / oneMillimetre }, { "from_middle_mm", *b.fromMiddle.value / oneMillimetre } });
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
            out[key] = { { "value", sized.value / oneMillimetre }, { "plus_minus", sized.plusMinus / oneMillimetre } };
        out["keep_outs"] = nlohmann::ordered_json::array();
        for (const KeepOut& each : found.keepOuts)
            out["keep_outs"].push_back(
                { { "depth_mm", *each.depth.value / oneMillimetre }, { "radius_mm", *each.radius.value / oneMillimetre } });
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

void addScanCommands(CLI::App& app, int& code)
{
    auto* command = app.add_subcommand("scan", tr("Parts from files: a scanned mesh or a solid becomes readings"));
    command->require_subcommand(1);
    auto* wheel = command->add_subcommand("wheel",
        tr("A wheel from STL, PLY, OBJ or STEP, or its profile as it is from CSV or DXF. Exit 1 where the scan and what is known of the "
           "wheel do not agree"));
    auto o = std::make_shared<WheelScanOptions>();
    wheel->add_option("file", o->path, tr("the scan"))->required();
    wheel->add_option("--units", o->units, tr("unit of the file: mm, in or m (default: told by its size)"))
        ->check(CLI::IsMember({ "mm", "in", "m" }));
    wheel->add_option("--known", o->known, tr("a length that was measured on the wheel: bore=66.6mm, bolt_circle=112mm or width=228mm"));
    wheel->add_flag("--correct", o->correct, tr("correct the scan's scale to what is known"));
    wheel->add_flag("--other-side", o->otherSide, tr("inboard is the other side than it seems"));
    wheel->add_flag("--json", o->json, tr("as JSON"));
    wheel->add_flag("--us", o->us, tr("inches and pounds in sentences"));
    wheel->add_option("--into", o->into, tr("the build whose wheel takes the readings"));
    wheel->add_option("--wheel", o->wheel, tr("id of that wheel"));
    wheel->callback([o, &code] { code = scanWheel(*o); });

    auto* rotor = command->add_subcommand("rotor", tr("A rotor, its ring or its hat from STEP"));
    auto r = std::make_shared<RotorOptions>();
    rotor->add_option("file", r->path, tr("the solid"))->required();
    rotor->add_flag("--json", r->json, tr("as JSON"));
    rotor->add_flag("--us", r->us, tr("inches and pounds in sentences"));
    r->target.addTo(*rotor);
    rotor->callback([r, &code] { code = scanRotor(*r); });

    auto* caliper = command->add_subcommand("caliper", tr("A caliper on lugs from STEP, STL, PLY or OBJ"));
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

    auto* knuckle = command->add_subcommand("knuckle",
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
