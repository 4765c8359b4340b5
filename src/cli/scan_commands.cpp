#include "cli/part_scans.hpp"

#include "files/disk.hpp"
#include "files/profile_file.hpp"
#include "language/language.hpp"
#include "quantity/format.hpp"
#include "quantity/parse.hpp"
#include "scan/into_build.hpp"
#include "solids/mesh_file.hpp"

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

scan::ScanFile fileBeside(const std::string& path, const std::string& hash, const std::string& build)
{
    std::error_code none;
    const auto beside = std::filesystem::proximate(path, std::filesystem::absolute(build).parent_path(), none);
    return { none ? path : beside.generic_string(), hash, today() };
}

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

    addPartScanCommands(*command, code);
}

} // namespace deepstop::cli
