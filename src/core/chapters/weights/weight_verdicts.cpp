#include "chapters/weights/weights_chapter.hpp"

#include "build/choices.hpp"
#include "chapters/weights/checks.hpp"
#include "figures/figures.hpp"
#include "language/language.hpp"
#include "materials/materials.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace deepstop {
namespace {

/// A weighed rotor this far from its computed mass is questioned; common practice, no source.
constexpr double weighedApart = 0.15;

/// What a part weighs that nobody has put on a scale: common practice, no source, good to a third or so.
constexpr double usualBracket = 0.9;
constexpr double usualHardware = 0.25;
constexpr double usualHose = 0.18;
constexpr double usualOff = 0.35;

/// A part's mass as it would be estimated, kg; nothing where no estimate is better than a scale.
std::optional<double> estimateFor(Part part, const Corner& corner)
{
    switch (part) {
    case Part::Pads: {
        // Two pads a corner, each lining and steel back; from their dimensions.
        const double each = nominal([&](Evaluator& s) {
            const double area = figures::padArea(s, corner);
            return area * (figures::padLining(s, corner.pad) * materials::liningDensity + s(corner.pad.backing) * materials::steel.density);
        });
        return std::isfinite(each) ? std::optional(2 * each) : std::nullopt;
    }
    case Part::Bracket:
        return usualBracket;
    case Part::Hardware:
        return usualHardware;
    case Part::Hose:
        return usualHose;
    default:
        return {};
    }
}

struct Whose {
    const SetupParts& setup;
    const Corner& corner;
    std::vector<std::string> lacks;
};

/// One estimate for everything that can be estimated, on both sides of the comparison.
std::optional<Remedy> estimates(const Study& study, Axle axle, std::span<const Whose> sides)
{
    struct Estimate {
        std::string setup;
        Part part;
        double mass;
    };
    Remedy remedy;
    std::vector<Estimate> all;
    double sum = 0;
    for (const Whose& side : sides)
        for (const auto& [token, word, part] : choices::part) {
            if (!figures::belongsTo(side.corner, part) || figures::timesWeighed(side.corner, part) > 0 || part == Part::Drum
                || part == Part::Ring || part == Part::Hat || part == Part::Rotor)
                continue;
            const auto mass = estimateFor(part, side.corner);
            if (!mass) {
                remedy.costs.push_back(tr("no estimate for the {} of {}: put it on a scale", word, side.setup.setup->name));
                continue;
            }
            remedy.costs.push_back(tr("{} of {}: {}", word, side.setup.setup->name, print(*mass, style::partMass, study.system)));
            all.push_back({ side.setup.setup->id, part, *mass });
            sum += *mass;
        }
    if (sum == 0)
        return {};
    remedy.title = tr("Estimate what was not weighed");
    remedy.costs.push_back(tr("rests on estimates until a scale has said"));
    remedy.edit = [axle, all = std::move(all)](const Build& now) -> std::optional<Build> {
        Build build = now;
        for (const auto& [id, part, mass] : all) {
            Setup* setup = setupIn(build, id);
            if (!setup)
                return {};
            // A setup that leaves this axle alone weighs what the car as found weighs.
            auto& own = axle == Axle::Front ? setup->front : setup->rear;
            auto& place = own ? own : axle == Axle::Front ? build.setups.front().front : build.setups.front().rear;
            if (place)
                place->weighings.push_back({ { mass, usualOff * mass, Known::Estimated, {}, {} }, { part } });
        }
        return build;
    };
    return remedy;
}

void addDoubtOfRotor(Study& study, Axle axle, const SetupParts& setup, const CornerWeights& weights, bool found)
{
    const AxleParts& result = setup.at(axle);
    if (!result.corner || result.corner->brakes == BrakeKind::Drums || !weights.rotorMass.value)
        return;
    // The scale alone, without what the dimensions filled in.
    const bool weighed = std::ranges::any_of(
        result.corner->weighings, [](const Weighing& w) { return w.contains == std::vector { Part::Rotor } && w.mass.value; });
    if (!weighed)
        return;
    const Figure scale = evaluate([&](Evaluator& s) { return figures::rotorMassWeighed(s, *result.corner); });
    if (!scale.value || std::abs(*scale.value / *weights.rotorMass.value - 1) <= weighedApart)
        return;
    Verdict doubt = verdictOf(checks::weighedRotor, { .axle = axle, .found = found });
    doubt.style = style::partMass;
    doubt.figure =
        evaluate([&](Evaluator& s) { return figures::rotorMassWeighed(s, *result.corner) - figures::rotorMass(s, result.corner->rotor); });
    doubt.level = Level::Caution;
    doubt.reason = tr("{}: weighed {}, {} by its dimensions, {} apart. Weigh it again, or look at thickness and vent", setup.setup->name,
        print(*scale.value, style::partMass, study.system), print(*weights.rotorMass.value, style::partMass, study.system),
        judge::percentChange(*scale.value, *weights.rotorMass.value));
    doubt.method = tr("Ring π/4·(D² − d²)·(T − vent·(1 − vanes)) plus hat, times density, against the weighing.");
    doubt.source = tr("15 % apart is questioned: common practice.");
    study.verdicts.push_back(std::move(doubt));
}

CornerWeights weightsOf(const Corner& corner)
{
    CornerWeights w;
    w.ringMass = evaluate([&](Evaluator& s) { return figures::ringMass(s, corner.rotor); });
    w.rotorMass = evaluate([&](Evaluator& s) { return figures::rotorMass(s, corner.rotor); });
    w.cornerMass = evaluate([&](Evaluator& s) {
        w.lacks.clear();
        return figures::cornerMass(s, corner, w.lacks);
    });
    w.rotatingInertia = evaluate([&](Evaluator& s) { return figures::rotatingInertia(s, corner); });
    w.heatStore = evaluate([&](Evaluator& s) { return figures::heatStore(s, corner); });
    return w;
}

void addWeightLedger(Study& study, Axle axle)
{
    const Corner* before = study.before.at(axle).corner;
    const Corner* after = study.after.at(axle).corner;
    if (!before || !after)
        return;
    std::vector<std::string> lacks;
    const auto& found = study.of<Weights>();
    auto line = judge::ledgerLine(std::string(lines::cornerWeight), tr("Corner weight"), style::partMass, found.before.at(axle).cornerMass,
        found.after.at(axle).cornerMass,
        evaluate([&](Evaluator& s) { return figures::cornerMass(s, *after, lacks) - figures::cornerMass(s, *before, lacks); }));
    if (const Verdict* v = study.verdict(checks::weight, { axle })) {
        line.level = v->level;
        line.lacksInWords = v->lacksInWords;
    }
    line.word = judge::changeWord(study, line);
    study.ledger.push_back(std::move(line));
}

void addWeightVerdicts(Study& study, Axle axle)
{
    const AxleParts& after = study.after.at(axle);
    const AxleParts& before = study.before.at(axle);
    if (!after.corner || !before.corner)
        return;
    const CornerWeights& now = study.of<Weights>().after.at(axle);
    const CornerWeights& was = study.of<Weights>().before.at(axle);
    Verdict weight = verdictOf(checks::weight, { axle });
    weight.title = tr("Weight and heat store, one {} corner", judge::wordFor(axle));
    weight.style = style::partMass;
    std::vector<Whose> sides { { study.before, *before.corner, {} }, { study.after, *after.corner, {} } };
    weight.figure = evaluate([&](Evaluator& s) {
        sides[0].lacks.clear();
        sides[1].lacks.clear();
        return figures::cornerMass(s, *after.corner, sides[1].lacks) - figures::cornerMass(s, *before.corner, sides[0].lacks);
    });
    if (before.corner == after.corner)
        sides.pop_back();
    for (const Whose& side : sides)
        for (const std::string& what : side.lacks)
            weight.lacksInWords.push_back(fmt::format("{} ({}, {})", what, side.setup.setup->name, judge::wordFor(axle)));
    weight.method =
        tr("Complete corner against complete corner: rotor, caliper, pads, bracket, bolts and pins, hose. A rotor nobody weighed "
           "is computed: ring "
           "π/4·(D² − d²)·(T − vent·(1 − vanes)) plus hat, times density.");
    weight.source = tr("Geometry; densities of iron and aluminium from memory.");
    if (!judge::unproven(study, weight)) {
        const bool lessStore = now.heatStore.value && was.heatStore.value && *now.heatStore.value < 0.98 * *was.heatStore.value;
        weight.level = lessStore ? Level::Caution : Level::Good;
        weight.reason = tr("{} unsprung a corner", printChange(*weight.figure.value, style::partMass, study.system));
        if (now.heatStore.value && was.heatStore.value)
            weight.reason += tr(", heat store {}", judge::percentChange(*now.heatStore.value, *was.heatStore.value));
    } else if (!weight.figure.value && !weight.lacksInWords.empty()) {
        weight.reason += tr(": only complete corners are compared, never a bare caliper with a dressed one");
        if (auto remedy = study.remedies == Remedies::Sought ? estimates(study, axle, sides) : std::nullopt) {
            const auto changed = remedy->in(*study.build);
            const Build& then = *changed;
            std::vector<std::string> still;
            const Corner* a = cornerOf(then, *findSetup(then, study.after.setup->id), axle);
            const Corner* b = cornerOf(then, *findSetup(then, study.before.setup->id), axle);
            remedy->gap = evaluate([&](Evaluator& s) {
                still.clear();
                return figures::cornerMass(s, *a, still) - figures::cornerMass(s, *b, still);
            });
            weight.remedies.push_back(std::move(*remedy));
        }
    }
    study.verdicts.push_back(std::move(weight));
    addDoubtOfRotor(study, axle, study.after, now, false);
    if (study.before.setup != study.after.setup && before.corner != after.corner)
        addDoubtOfRotor(study, axle, study.before, was, true);
}

} // namespace

void addWeights(Study& study)
{
    Weights found;
    for (const Axle axle : { Axle::Front, Axle::Rear }) {
        if (const Corner* corner = study.before.at(axle).corner)
            found.before.at(axle) = weightsOf(*corner);
        if (const Corner* corner = study.after.at(axle).corner)
            found.after.at(axle) = corner == study.before.at(axle).corner ? found.before.at(axle) : weightsOf(*corner);
    }
    study.keep(std::move(found));
    for (const Axle axle : judge::axlesOf(study))
        addWeightVerdicts(study, axle);
    addWeightLedger(study, judge::axlesOf(study).front());
}

} // namespace deepstop
