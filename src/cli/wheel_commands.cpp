#include "cli/commands.hpp"

#include "files/exports.hpp"
#include "language/language.hpp"
#include "library/library_file.hpp"
#include "files/paper_files.hpp"
#include "quantity/parse.hpp"
#include "report/template.hpp"
#include "chapters/clearance/cures.hpp"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <filesystem>
#include <iostream>
#include <memory>

namespace deepstop::cli {
namespace {

struct TemplateOptions {
    Subject subject;
    std::string pdf;
    std::string svg;
    std::string dxf;
    std::string paper = "a4";
    std::string across;
    std::string down;
    bool shield = false;
};

double barRead(const std::string& text, const char* option)
{
    if (text.empty())
        return 0.1;
    const auto parsed = parseQuantity(text, Dimension::Length, "mm");
    if (!parsed)
        throw files::Refusal(std::string(option) + ": " + parsed.refusal);
    if (*parsed.value < 0.08 || *parsed.value > 0.125)
        throw files::Refusal(
            tr("{}: the bar is 100 mm; no printer makes that of it. Measure again, between the outer ticks.", std::string(option)));
    return *parsed.value;
}

int writeTemplate(const TemplateOptions& o)
{
    if (o.pdf.empty() && o.svg.empty() && o.dxf.empty())
        throw files::Refusal(tr("template: say where to, with --pdf, --svg or --dxf."));
    files::checkOutputs({ o.subject.path }, { o.pdf, o.svg, o.dxf });
    const paper::BarsRead read { barRead(o.across, "--bar-across"), barRead(o.down, "--bar-down") };
    const Study study = o.subject.studied();
    const auto made =
        o.shield ? report::shieldDrawing(study, o.subject.onAxle(), today()) : report::caliperTemplate(study, o.subject.onAxle(), today());
    if (!made.drawing)
        throw files::Refusal(o.subject.path + ": " + made.lacks);
    const auto size = o.paper == "letter" ? paper::letter() : paper::a4();
    for (const auto& [path, ending] : { std::pair { o.pdf, ".pdf" }, std::pair { o.svg, ".svg" }, std::pair { o.dxf, ".dxf" } }) {
        if (path.empty())
            continue;
        if (!path.ends_with(ending))
            throw files::Refusal(tr("{}: the name has to end in {}.", path, ending));
        files::writePaper(path, *made.drawing, size, read);
        std::cout << (std::string(ending) == ".pdf"
                ? tr("{}: {} of {}\n", path, paper::pagesOf(*made.drawing, size, read).size(), size.name)
                : path + "\n");
    }
    return fine;
}

struct FitOptions {
    Subject subject;
    std::string library;
    bool wheels = false;
    bool cures = false;
    bool json = false;
};

std::string said(const Figure& gap, UnitSystem system)
{
    return gap.value ? fmt::format("{} ±{}", print(*gap.value, style::gap, system), figure(gap.worstCase, style::gap, system))
                     : tr("not known");
}

nlohmann::ordered_json gapsJson(const std::array<Figure, wheelGaps.size()>& gaps)
{
    nlohmann::ordered_json out;
    for (const auto& [which, key] :
        { std::pair { WheelGap::Barrel, "barrel" }, std::pair { WheelGap::Insets, "insets" }, std::pair { WheelGap::Spokes, "spokes" } }) {
        const Figure& gap = gaps[static_cast<std::size_t>(which)];
        out[key] = gap.value ? nlohmann::ordered_json { { "gap_m", *gap.value }, { "worst_case_m", gap.worstCase },
            { "root_sum_square_m", gap.rootSumSquare }, { "proven", !gap.provisional() } }
                             : nlohmann::ordered_json();
    }
    return out;
}

int showFit(const FitOptions& o)
{
    const Study study = o.subject.studied();
    const Axle axle = o.subject.onAxle();
    const UnitSystem system = study.system;
    std::optional<library::Library> parts;
    if (!o.library.empty()) {
        // A library named is a library meant: one that is not there is not an empty one.
        if (std::error_code none; !std::filesystem::exists(o.library, none))
            throw files::Refusal(tr("{}: there is no such parts library.", o.library));
        parts = files::loadLibrary(o.library);
    }
    const library::Library* shelf = parts ? &*parts : nullptr;
    if (!study.after.at(axle).corner)
        throw files::Refusal(tr("{}: this setup has no brakes on that axle.", o.subject.path));
    nlohmann::ordered_json out;
    const auto& corner = study.after.at(axle);
    const bool both = !o.wheels && !o.cures;
    int code = fine;
    if (o.wheels || both) {
        for (const Candidate& c : candidateWheels(study, axle, shelf)) {
            if (c.wheel == corner.wheel && isBad(c.level))
                code = bad;
            if (o.json) {
                out["wheels"].push_back({ { "id", c.wheel->id }, { "name", c.wheel->name }, { "of_build", c.ofBuild },
                    { "level", nameOf(c.level) }, { "gaps", gapsJson(c.gaps) },
                    { "effective_offset_m", c.offset ? nlohmann::ordered_json(*c.offset) : nlohmann::ordered_json() } });
                continue;
            }
            std::cout << tr("{:<9} {}{}. Barrel {}, spokes {}{}{}\n", tr(nameOf(c.level)), c.wheel->name,
                c.wheel == corner.wheel ? tr(" (on this axle now)")
                    : c.ofBuild         ? ""
                                        : tr(" (parts library)"),
                said(c.gaps[0], system), said(c.gaps[2], system),
                c.wheel->insets.empty() ? "" : tr(", weights and valve {}", said(c.gaps[1], system)),
                c.offset ? tr(", effective offset {}", print(*c.offset, style::gap, system)) : "");
        }
        const auto offsets = offsetRange(study, axle);
        const auto smallest = smallestWheel(study, axle, shelf);
        const auto largest = largestRotor(study, axle);
        if (o.json) {
            out["offsets"] = offsets.offsets
                ? nlohmann::ordered_json { { "from_m", offsets.offsets->first }, { "to_m", offsets.offsets->second } }
                : nlohmann::ordered_json { { "why_not", offsets.why } };
            out["largest_rotor"] = largest.diameter ? nlohmann::ordered_json { { "diameter_m", *largest.diameter } }
                                                    : nlohmann::ordered_json { { "why_not", largest.why } };
            out["smallest_wheel"] = { { "impossible_to",
                                          smallest.impossible ? nlohmann::ordered_json(*smallest.impossible) : nlohmann::ordered_json() },
                { "proven", smallest.proven ? nlohmann::ordered_json(smallest.proven->id) : nlohmann::ordered_json() } };
        } else {
            std::cout << "\n" << inWords(offsets, system) << "\n" << inWords(largest, system) << "\n" << inWords(smallest) << "\n";
        }
    }
    if (o.cures || both) {
        const auto cures = curesOf(study, axle, shelf);
        if (!o.json)
            std::cout << (cures.empty() ? tr("\nNo cure found, or none needed.\n") : tr("\nWhat would gain clearance:\n"));
        for (const Cure& cure : cures) {
            if (o.json) {
                out["cures"].push_back(
                    { { "title", cure.title }, { "level", nameOf(cure.level) }, { "gaps", gapsJson(cure.gaps) }, { "costs", cure.costs } });
                continue;
            }
            std::cout << "  " << cure.title << ":";
            for (std::size_t i = 0; i < cure.costs.size(); ++i)
                std::cout << (i ? "; " : " ") << cure.costs[i];
            std::cout << "\n";
        }
    }
    if (o.json)
        std::cout << out.dump(2) << "\n";
    return code;
}

} // namespace

void addWheelCommands(CLI::App& app, int& code)
{
    auto* make = app.add_subcommand("template", tr("The caliper's envelope at its real size, to cut out and try inside a wheel"));
    auto t = std::make_shared<TemplateOptions>();
    t->subject.addTo(*make);
    t->subject.addAxleTo(*make);
    make->add_option("--pdf", t->pdf, tr("write a PDF, tiled where one sheet does not hold it"));
    make->add_option("--svg", t->svg, tr("write an SVG"));
    make->add_option("--dxf", t->dxf, tr("write a DXF in millimetres"));
    make->add_option("--paper", t->paper, tr("a4 or letter"))->check(CLI::IsMember({ "a4", "letter" }));
    make->add_option(
        "--bar-across", t->across, tr("what the 100 mm bar along the foot of a printed sheet measured, to correct the printer"));
    make->add_option("--bar-down", t->down, tr("what the upright bar measured"));
    make->add_flag("--shield", t->shield, tr("the dust shield's cutting line instead"));
    make->callback([t, &code] { code = writeTemplate(*t); });

    auto* fit = app.add_subcommand(
        "fit", tr("Which wheels clear, what would gain clearance, and how far one can go. Exit 1 where the wheel on the axle hits"));
    auto f = std::make_shared<FitOptions>();
    f->subject.addTo(*fit);
    f->subject.addAxleTo(*fit);
    fit->add_flag("--wheels", f->wheels, tr("only the wheels, most clearance first, the offsets that clear, the largest rotor"));
    fit->add_flag("--cures", f->cures, tr("only what would gain clearance, with what it costs"));
    fit->add_option("--library", f->library, tr("parts library to look in as well, *.json"));
    fit->add_flag("--json", f->json, tr("as JSON, in SI"));
    fit->callback([f, &code] { code = showFit(*f); });
}

} // namespace deepstop::cli
