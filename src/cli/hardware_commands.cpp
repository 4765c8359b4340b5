#include "cli/commands.hpp"

#include "build/words.hpp"
#include "centring/drawer.hpp"
#include "chapters/centring/checks.hpp"
#include "files/exports.hpp"
#include "language/language.hpp"
#include "quantity/parse.hpp"
#include "chapters/centring/centring_chapter.hpp"
#include "hardware/hardware.hpp"
#include "solids/solid_files.hpp"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <iostream>
#include <memory>

namespace deepstop::cli {
namespace {

std::string_view sideOf(const CentringResult& r) { return wordOf(r.mockUp->side); }

std::string pile(const centring::Stack& stack, UnitSystem system) { return centring::pileText(stack.shims, system); }

nlohmann::ordered_json planJson(const centring::Plan& plan)
{
    const auto stack = [](const centring::Stack& s) {
        return nlohmann::ordered_json { { "shims_m", s.shims }, { "total_m", s.total }, { "residual_m", s.residual } };
    };
    nlohmann::ordered_json out { { "possible", plan.possible }, { "top", stack(plan.top) }, { "bottom", stack(plan.bottom) },
        { "remaining_axial_m", plan.remaining.axial }, { "remaining_tilt", plan.remaining.tilt } };
    if (plan.radialTop && plan.radialBottom) {
        out["radial_top"] = stack(*plan.radialTop);
        out["radial_bottom"] = stack(*plan.radialBottom);
    }
    return out;
}

/// Positions and shims of every corner mocked up, from one drawer.
int centre(const Subject& subject, bool asJson)
{
    const Study study = subject.studied();
    const UnitSystem system = study.system;
    const Centring& centring = study.of<Centring>();
    if (centring.corners.empty())
        throw files::Refusal(tr("{}: no corner of this setup has been mocked up; four gaps are wanted.", subject.path));
    nlohmann::ordered_json out;
    int code = fine;
    for (const CentringResult& r : centring.corners) {
        const Where corner { r.mockUp->axle, r.mockUp->side };
        const auto where = fmt::format("{}-{}", wordOf(r.mockUp->axle), sideOf(r));
        const Verdict* v = study.verdict(checks::axial, corner);
        const Verdict* tilt = study.verdict(checks::tilt, corner);
        for (const Verdict* each : { v, tilt })
            if (each && isBad(each->level))
                code = bad;
        if (asJson) {
            nlohmann::ordered_json said { { "corner", where }, { "level", v ? nameOf(v->level) : "unproven" } };
            for (const auto& [key, figure] :
                { std::pair { "axial", &r.axial }, std::pair { "tilt", &r.tilt }, std::pair { "pad_edge", &r.padEdge } })
                said[key] = figure->value ? nlohmann::ordered_json { { "value_m", *figure->value }, { "worst_case_m", figure->worstCase },
                    { "root_sum_square_m", figure->rootSumSquare } }
                                          : nlohmann::ordered_json();
            said["plan"] = r.plan ? planJson(*r.plan) : nlohmann::ordered_json();
            said["proven_best"] = r.unproven.empty();
            said["next"] = r.next ? planJson(*r.next) : nlohmann::ordered_json();
            if (r.learnt)
                said["learnt_effect"] = r.learnt->ratio;
            out["corners"].push_back(std::move(said));
            continue;
        }
        for (const Check* check : { &checks::axial, &checks::tilt, &checks::padEdgeRead, &checks::conditions })
            if (const Verdict* each = study.verdict(*check, corner))
                std::cout << fmt::format("{:<9} {}. {}.\n", tr(nameOf(each->level)), each->title, each->reason);
        if (r.plan && !r.unproven.empty() && !(v && v->level == Level::Good))
            std::cout << tr("          the shims are the best {}\n", r.unproven);
        for (const auto* plan : { &r.plan, &r.next })
            if (*plan && !(v && v->level == Level::Good)) {
                std::cout << tr("          {:7} top {}, bottom {}", plan == &r.plan ? tr("put in:") : tr("or:"), pile((*plan)->top, system),
                    pile((*plan)->bottom, system));
                if ((*plan)->radialTop && (*plan)->radialBottom)
                    std::cout << tr(
                        "; under the studs top {}, bottom {}", pile(*(*plan)->radialTop, system), pile(*(*plan)->radialBottom, system));
                std::cout << tr("; leaves {}\n", print((*plan)->remaining.axial, style::fine, system));
            }
    }
    for (const auto& kind : centring.shimsToBuy) {
        if (asJson)
            out["to_buy"].push_back({ { "thickness_m", kind.thickness }, { "count", kind.count } });
        else
            std::cout << tr("to buy    {} × {}\n", kind.count, centring::shimText(kind.thickness, system));
    }
    if (asJson)
        std::cout << out.dump(2) << "\n";
    return code;
}

struct BracketOptions {
    Subject subject;
    std::vector<std::string> into;
    std::string paper = "a4";
    bool ring = false;
    std::string shim;
};

int makeBracket(const BracketOptions& o)
{
    int code = fine;
    files::checkOutputs({ o.subject.path }, o.into);
    const Study study = o.subject.studied();
    std::optional<PlateDrawing> made;
    if (!o.shim.empty()) {
        const auto parsed = parseQuantity(o.shim, Dimension::Length, "mm");
        if (!parsed)
            throw files::Refusal(fmt::format("--shim: {}", parsed.refusal));
        std::string lacks;
        made = drawingOfShim(study, o.subject.onAxle(), *parsed.value, today(), lacks);
        if (!made)
            throw files::Refusal(o.subject.path + ": " + lacks);
    } else if (o.ring) {
        std::string lacks;
        made = drawingOfRing(study, o.subject.onAxle(), today(), lacks);
        if (!made)
            throw files::Refusal(o.subject.path + ": " + lacks);
    } else {
        const auto bracket = bracketOf(study, o.subject.onAxle());
        if (!bracket.adapter)
            throw files::Refusal(tr("{}: no bracket yet. {}", o.subject.path, bracket.lacks));
        const auto& a = *bracket.adapter;
        const auto say = [&](double length) { return print(length, style::fine, study.system); };
        std::cout << tr("plate {} thick, {} of metal between holes, {} to its edge\n", say(a.thickness), say(a.wall), say(a.edge));
        for (const bracket::Hole& hole : a.holes)
            std::cout << tr("{}: {} across, {} from the axis, Ø {}\n", hole.toKnuckle ? tr("to the knuckle") : tr("to the caliper"),
                say(hole.x), say(hole.y), say(hole.diameter));
        for (const bracket::EdgeBore& bore : a.bores)
            std::cout << tr("for a stud: {} across, from the edge {} from the axis, Ø {}, {} deep, in the middle of the thickness\n",
                say(bore.x), say(bore.mouth), say(bore.diameter), say(bore.depth));
        std::cout << tr("bolts {}: friction of painted faces holds {:.2f} times what each has to carry, one in shear {:.1f} times\n",
            bracket.bolts, bracket.slipMargin, bracket.bearingMargin);
        for (const auto& line : bracket.loadCase)
            std::cout << line << "\n";
        for (const auto& strike : bracket.strikes)
            std::cout << tr("strikes: {}\n", strike);
        code = bracket.strikes.empty() ? fine : bad;
        for (const auto& fault : bracket.faults)
            std::cout << tr("look: {}\n", fault);
        made = drawingOfBracket(study, o.subject.onAxle(), a, today());
    }
    for (const std::string& path : o.into) {
        solids::writePlate(path, made->plate, made->drawing, o.paper == "letter" ? paper::letter() : paper::a4());
        std::cout << path << "\n";
    }
    std::cout << tr(
        "To be judged by a qualified engineer before it is made or driven; bending is not proven here. An STL is for a fit check "
        "in plastic only.\n");
    return code;
}

} // namespace

void addHardwareCommands(CLI::App& app, int& code)
{
    auto* centring = app.add_subcommand("centre",
        tr("Where every mocked-up caliper stands, and the shims for all of them from the one drawer. Exit 1 where one is beyond use"));
    auto subject = std::make_shared<Subject>();
    auto json = std::make_shared<bool>(false);
    subject->addTo(*centring);
    centring->add_flag("--json", *json, tr("as JSON, in SI"));
    centring->callback([subject, json, &code] { code = centre(*subject, *json); });

    auto* plate =
        app.add_subcommand("bracket", tr("An adapter bracket for this caliper on this knuckle, or the hub-face ring, to be made"));
    auto o = std::make_shared<BracketOptions>();
    o->subject.addTo(*plate);
    o->subject.addAxleTo(*plate);
    for (const auto& [option, help] :
        { std::pair { "--step", tr("write a STEP solid") }, std::pair { "--dxf", tr("write a DXF in millimetres") },
            std::pair { "--stl", tr("write an STL of a copy in plastic, for a fit check only") },
            std::pair { "--pdf", tr("write a dimensioned drawing") }, std::pair { "--svg", tr("write an SVG") } })
        plate->add_option_function<std::string>(
            option,
            [o, ending = std::string(option).replace(0, 2, ".")](const std::string& path) {
                if (!path.ends_with(ending))
                    throw CLI::ValidationError(tr("{}: the name has to end in {}.", path, ending));
                o->into.push_back(path);
            },
            help);
    plate->add_option("--paper", o->paper, tr("a4 or letter"))->check(CLI::IsMember({ "a4", "letter" }));
    auto* shim = plate->add_option("--shim", o->shim, tr("a shim of that thickness for the knuckle's bolts instead"));
    plate->add_flag("--ring", o->ring, tr("the hub-face ring instead of the bracket"))->excludes(shim);
    plate->callback([o, &code] { code = makeBracket(*o); });
}

} // namespace deepstop::cli
