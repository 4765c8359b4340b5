#include "chapters/weights/comparison.hpp"

#include "build/choices.hpp"
#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"
#include "language/language.hpp"
#include "weights/weights.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace deepstop {
namespace {

constexpr bool notLength = false;
using Sum = double (*)(Evaluator&, const Corner&);

double ringArea(Evaluator& s, const Corner& c)
{
    const double outer = s(c.rotor.outerDiameter);
    const double inner = s(c.rotor.ringInnerDiameter);
    return std::numbers::pi / 4 * (outer * outer - inner * inner);
}

/// A solid rotor has none; how many a vented one has, somebody must have counted.
double vaneCount(Evaluator&, const Corner& c)
{
    return c.rotor.vanes > 0 ? static_cast<double>(c.rotor.vanes) : c.rotor.ventGap.value == 0.0 ? 0 : NAN;
}

double cornerMass(Evaluator& s, const Corner& c)
{
    std::vector<std::string> lacks;
    return figures::cornerMass(s, c, lacks);
}

struct RowKind {
    const char* id;
    const char* title;
    Style style;
    Better better;
    Sum sum;
    bool money = false;
};

const std::vector<RowKind>& rowKinds()
{
    static const std::vector<RowKind> kinds {
        { "diameter", tr("Rotor diameter"), style::size, Better::Neither,
            [](Evaluator& s, const Corner& c) { return s(c.rotor.outerDiameter); } },
        { "thickness", tr("Rotor thickness"), style::size, Better::Neither,
            [](Evaluator& s, const Corner& c) { return s(c.rotor.thickness); } },
        { "ring-area", tr("Ring area, one face"), style::area, Better::More, ringArea },
        { "vanes", tr("Vanes"), style::count, Better::More, vaneCount },
        { "pad-area", tr("Pad area, each"), style::area, Better::More,
            [](Evaluator& s, const Corner& c) { return figures::padArea(s, c); } },
        { "pad-volume", tr("Lining to wear, each"), style::volume, Better::More,
            [](Evaluator& s, const Corner& c) {
                return figures::padArea(s, c) * (figures::padLining(s, c.pad) - s.orElse(c.pad.minimumThickness, 0));
            } },
        { "piston-area", tr("Piston area, one side"), style::area, Better::Neither, figures::pistonArea },
        { "effective-radius", tr("Effective radius"), style::size, Better::More, figures::effectiveRadius },
        { "heat-store", tr("Heat store, one ring"), style::heatStore, Better::More,
            [](Evaluator& s, const Corner& c) { return figures::heatStore(s, c); } },
        { "rotor-mass", tr("Rotor"), style::partMass, Better::Less, figures::rotorMassWeighed },
        { "corner-mass", tr("Corner, complete"), style::partMass, Better::Less, cornerMass },
        { "price", tr("Price of the kit"), style::money, Better::Less,
            [](Evaluator& s, const Corner& c) { return s(c.costs.kit, notLength); }, true },
        { "running", tr("Rotors and pads, new"), style::money, Better::Less,
            [](Evaluator& s, const Corner& c) { return s(c.costs.rotors, notLength) + s(c.costs.pads, notLength); }, true },
    };
    return kinds;
}

double known(Figure& figure) { return figure.value.value_or(NAN); }

} // namespace

const ComparisonRow& Comparison::row(std::string_view id) const { return *std::ranges::find(rows, id, &ComparisonRow::id); }

std::optional<double> ComparisonRow::change(std::size_t i) const
{
    const auto& before = figures.front().value;
    const auto& after = figures[i].value;
    return before && after && *before != 0 ? std::optional(*after / *before - 1) : std::nullopt;
}

Comparison compare(const Study& study, Axle axle)
{
    Comparison c;
    c.axle = axle;
    if (!study.before.setup)
        return c;
    const Build& build = *study.build;
    c.setups.push_back(study.before.setup);
    for (const Setup& setup : build.setups)
        if (&setup != study.before.setup && (axle == Axle::Front ? setup.front : setup.rear))
            c.setups.push_back(&setup);
    for (const RowKind& kind : rowKinds()) {
        ComparisonRow row { kind.id, kind.title, kind.style, kind.better, {}, kind.money };
        for (const Setup* setup : c.setups) {
            const Corner* corner = cornerOf(build, *setup, axle);
            row.figures.push_back(corner ? evaluate([&](Evaluator& s) { return kind.sum(s, *corner); }) : Figure {});
        }
        c.rows.push_back(std::move(row));
    }
    auto mass = c.row("corner-mass").figures;
    auto store = c.row("heat-store").figures;
    for (std::size_t i = 0; i < c.setups.size(); ++i) {
        bool beaten = !mass[i].value || !store[i].value;
        for (std::size_t k = 0; k < c.setups.size() && !beaten; ++k)
            beaten = k != i && known(mass[k]) <= known(mass[i]) && known(store[k]) >= known(store[i])
                && (known(mass[k]) < known(mass[i]) || known(store[k]) > known(store[i]));
        c.unbeaten.push_back(!beaten);
    }
    return c;
}

std::vector<MassShare> massShares(const Corner& corner)
{
    std::vector<MassShare> shares;
    for (const Weighing& weighing : corner.weighings) {
        std::string name;
        for (const Part part : weighing.contains)
            name += (name.empty() ? "" : " + ") + std::string(wordFor(part, choices::part));
        if (!name.empty())
            shares.push_back({ name, evaluate([&](Evaluator& s) { return s(weighing.mass, notLength); }), false });
    }
    if (corner.brakes == BrakeKind::Drums) {
        if (figures::timesWeighed(corner, Part::Drum) == 0)
            shares.push_back({ tr("drum"), evaluate([&](Evaluator& s) { return figures::drumMass(s, corner.drum); }), true });
        return shares;
    }
    const bool rotor = figures::timesWeighed(corner, Part::Rotor) > 0;
    if (!rotor && figures::timesWeighed(corner, Part::Ring) == 0)
        shares.push_back({ tr("ring"), evaluate([&](Evaluator& s) { return figures::ringMass(s, corner.rotor); }), true });
    if (!rotor && figures::timesWeighed(corner, Part::Hat) == 0)
        shares.push_back({ tr("hat"), evaluate([&](Evaluator& s) { return figures::hatMass(s, corner.rotor); }), true });
    return shares;
}

std::vector<WeightLine> weightLines(const Study& study, Axle axle)
{
    std::vector<WeightLine> lines;
    if (!study.before.setup || !study.before.at(axle).corner || !study.after.at(axle).corner)
        return lines;
    std::vector<std::string> lacks;
    using Of = std::function<double(Evaluator&, const SetupParts&)>;
    const auto add = [&](std::string id, std::string title, const Style& style, const Of& of) {
        WeightLine line { std::move(id), std::move(title), style, {}, {}, {}, {} };
        lacks.clear();
        line.before = evaluate([&](Evaluator& s) { return of(s, study.before); });
        line.after = evaluate([&](Evaluator& s) { return of(s, study.after); });
        line.change = evaluate([&](Evaluator& s) { return of(s, study.after) - of(s, study.before); });
        std::ranges::sort(lacks);
        lacks.erase(std::ranges::unique(lacks).begin(), lacks.end());
        line.lacksInWords = lacks;
        lines.push_back(std::move(line));
    };
    const auto corner = [&](Evaluator& s, const SetupParts& r, Axle a) {
        return r.at(a).corner ? figures::cornerMass(s, *r.at(a).corner, lacks) : NAN;
    };
    const auto wheel = [&](Evaluator& s, const SetupParts& r, Axle a) {
        if (!r.at(a).wheel) {
            lacks.emplace_back(tr("a wheel for the axle"));
            return std::numeric_limits<double>::quiet_NaN();
        }
        return s(r.at(a).wheel->mass, notLength);
    };
    const auto inertia = [&](Evaluator& s, const SetupParts& r) { return figures::rotatingInertia(s, *r.at(axle).corner); };
    add("corner", tr("Corner, complete"), style::partMass, [&](Evaluator& s, const SetupParts& r) { return corner(s, r, axle); });
    add("unsprung", tr("Brake and wheel, unsprung"), style::partMass,
        [&](Evaluator& s, const SetupParts& r) { return corner(s, r, axle) + wheel(s, r, axle); });
    add("rotating", tr("Rotor, rotating"), style::partMass,
        [&](Evaluator& s, const SetupParts& r) { return figures::rotorMassWeighed(s, *r.at(axle).corner); });
    add("inertia", tr("Rotor's inertia"), style::inertia, inertia);
    add("equivalent", tr("Feels like, at the tyre"), style::partMass, [&](Evaluator& s, const SetupParts& r) {
        if (!r.at(axle).wheel) {
            lacks.emplace_back(tr("a wheel for the axle"));
            return std::numeric_limits<double>::quiet_NaN();
        }
        return weights::equivalentMass(inertia(s, r), s(r.at(axle).wheel->rollingRadius));
    });
    add("axle", axle == Axle::Front ? tr("Front axle's brakes") : tr("Rear axle's brakes"), style::partMass,
        [&](Evaluator& s, const SetupParts& r) { return 2 * corner(s, r, axle); });
    add("car", tr("All four brakes"), style::partMass,
        [&](Evaluator& s, const SetupParts& r) { return 2 * corner(s, r, Axle::Front) + 2 * corner(s, r, Axle::Rear); });
    return lines;
}

} // namespace deepstop
