#include "chapters/parts/bench.hpp"

#include "figures/figures.hpp"
#include "language/language.hpp"

#include <algorithm>

namespace deepstop {
namespace {

constexpr double runoutWanted = 0.05e-3;
constexpr double runoutMost = 0.10e-3; ///< many makers allow it
constexpr double variationMost = 0.015e-3;
constexpr double massReserve = 0.05; ///< kg, of a carbon-ceramic rotor over its minimum

/// A difference that is more than how pads always differ; common practice, no source.
constexpr double unevenPads = 2e-3;
constexpr double taperMost = 1.5e-3;

/// One pad worn more than its neighbour, or at one end more than at the other.
Verdict evenOn(const Bench& bench, const Corner& c, Side side)
{
    const Fitted& f = c.at(side);
    auto v = bench.begin(checks::liningEven, tr("Linings worn evenly"), style::size,
        tr("Outboard lining less inboard lining, and the difference between the two ends of the more worn pad. More than 2 mm between the "
           "pads: a "
           "slide or a piston sticks. More than 1.5 mm between the ends: taper."));
    v.caution = tr("A pad worn to its back cuts the rotor, though its neighbour looks new.");
    v.side = side;
    v.figure = evaluate([&](Evaluator& s) { return s(f.outerLining) - s(f.innerLining); });
    const Figure taper = evaluate([&](Evaluator& s) { return s(f.exitLining) - s(f.entryLining); });
    const auto say = [&](double length) { return print(std::abs(length), style::size, bench.study().system); };
    const auto apart = [](const Figure& of, double most) { return of.value && std::abs(*of.value) - of.worstCase > most; };
    const auto mayBe = [](const Figure& of, double most) { return of.value && std::abs(*of.value) + of.worstCase > most; };
    std::vector<std::string> found;
    if (apart(v.figure, unevenPads)) {
        const bool inner = *v.figure.value > 0;
        found.push_back(tr("{} pad worn {} more: {}", inner ? tr("inboard") : tr("outboard"), say(*v.figure.value),
            c.caliper.kind == CaliperKind::Floating
                ? (inner ? tr("the slides stick") : tr("the piston does not go back, or the slides stick"))
                : tr("a piston sticks")));
    }
    if (apart(taper, taperMost))
        found.push_back(tr("worn {} more at the rotor's {}: taper, look at slides and carrier", say(*taper.value),
            *taper.value > 0 ? tr("entry") : tr("exit")));
    const bool pads = f.innerLining.value || f.outerLining.value;
    const bool ends = f.entryLining.value || f.exitLining.value;
    if (!found.empty()) {
        v.level = Level::Caution;
        v.reason = listed(found, "; ");
        v.reason[0] = toUpper(v.reason[0]);
        return v;
    }
    if (!pads)
        v.figure = taper;
    else if (ends)
        mergeDependencies(v.figure, taper), v.figure.effects.resize(v.figure.value ? v.figure.restsOn.size() : 0);
    if (pads && ends && !taper.value)
        v.figure.value.reset();
    if (judge::unproven(bench.study(), v))
        return v;
    const bool sure = !mayBe(pads ? v.figure : taper, pads ? unevenPads : taperMost) && (!ends || !mayBe(taper, taperMost));
    v.level = sure ? Level::Good : Level::Unproven;
    v.reason = tr("{} between {}", say(*v.figure.value), pads ? tr("inboard and outboard pad") : tr("the pad's two ends"));
    if (!sure)
        v.reason += tr(", and the readings are too coarse to tell");
    return v;
}

void addEven(const Bench& bench, const Corner& c)
{
    const auto read = [](const Fitted& f) {
        return f.innerLining.value || f.outerLining.value || f.entryLining.value || f.exitLining.value;
    };
    if (read(c.left) || read(c.right))
        bench.add(judge::worseSide(evenOn(bench, c, Side::Left), evenOn(bench, c, Side::Right)));
}

} // namespace

void addWear(const Bench& bench, const SetupParts& setup, bool found)
{
    const Corner& c = *setup.at(bench.axle()).corner;
    // What came on the car and stays has worn, by nobody knows how much; what is put on is new.
    const bool driven = !found && setup.setup == &bench.study().build->setups.front();
    const auto nowOr = [driven](Evaluator& s, const Reading& worn, const Reading& asNew, const char* what) {
        if (!worn.value && driven)
            s.assume(what);
        return s(worn.value ? worn : asNew);
    };
    auto rotor = bench.begin(checks::wornRotor, tr("Rotor thickness left, {}", setup.setup->name), style::fine,
        tr("Thickness less the minimum cast or stamped on the part."), found);
    rotor.source = tr("The maker's minimum thickness.");
    rotor.figure = figures::lesserSide([&](Evaluator& s, Side side) {
        return nowOr(s, c.at(side).ringThickness, c.rotor.thickness, tr("rotors as thick as new")) - s(c.rotor.minimumThickness);
    }).figure;
    // Carbon-ceramic loses mass before it loses thickness: its mark is a weight.
    const bool byWeight = c.rotor.ringMaterial == RingMaterial::CarbonCeramic
        && (c.rotor.minimumMass.value || c.left.rotorMass.value || c.right.rotorMass.value);
    if (byWeight) {
        rotor.title = tr("Rotor weight left, {}", setup.setup->name);
        rotor.style = style::partMass;
        rotor.method =
            tr("Weight as worn, clean and dry, less the minimum marked on the part. A carbon-ceramic rotor burns away inside: its "
               "thickness tells nothing.");
        rotor.source = tr("The maker's minimum weight.");
        rotor.figure = figures::lesserSide([&](Evaluator& s, Side side) {
            return s(c.at(side).rotorMass, false) - s(c.rotor.minimumMass, false);
        }).figure;
    }
    rotor.caution = tr("A rotor below its minimum is scrap, however good it looks.");
    auto pad = bench.begin(checks::wornPad, tr("Lining left, {}", setup.setup->name), style::size,
        tr("Lining less its minimum; 2 mm where the maker names none."), found);
    pad.figure = figures::lesserSide([&](Evaluator& s, Side side) {
        const auto read = figures::liningsRead(c.at(side));
        if (read.empty() && driven)
            s.assume(tr("linings as thick as new"));
        double least = read.empty() ? figures::padLining(s, c.pad) : std::numeric_limits<double>::infinity();
        for (const Reading* each : read)
            least = std::min(least, s(*each));
        return least - s.orElse(c.pad.minimumThickness, thinPad);
    }).figure;
    for (Verdict* v : { &rotor, &pad }) {
        const Figure& f = v->figure;
        if (!f.value) {
            v->reason = lacking(bench.study(), f);
        } else if (f.highest() <= 0) {
            v->level = Level::Stop;
            v->reason = tr("Below its minimum by {}: scrap", print(-*f.value, v->style, bench.study().system));
        } else if (!judge::unproven(bench.study(), *v)) {
            const double reserve = v->style.dimension == Dimension::Mass ? massReserve : wearReserve;
            v->level = f.lowest() >= reserve ? Level::Good : Level::Caution;
            v->reason = tr(
                "{} left, {} at worst", print(*f.value, v->style, bench.study().system), print(f.lowest(), v->style, bench.study().system));
        }
        bench.add(std::move(*v));
    }
    if (!found)
        addEven(bench, c);
}

void addRunout(const Bench& bench, const Corner& c)
{
    const auto judgeMost = [&](Verdict& v, double wanted, double most, std::string_view cure) {
        if (judge::unproven(bench.study(), v) && !(v.figure.value && v.figure.lowest() > most))
            return;
        // Tenths decide here: what the gauge cannot tell apart is not good.
        const Figure& f = v.figure;
        v.level = f.highest() <= wanted + 1e-12 ? Level::Good
            : f.lowest() > most                 ? Level::Stop
            : f.lowest() > wanted               ? Level::Caution
                                                : Level::Unproven;
        v.reason = tr("{} ±{}, {} wanted", figure(*f.value, v.style, bench.study().system),
            print(f.worstCase, v.style, bench.study().system), print(wanted, v.style, bench.study().system));
        if (v.level == Level::Unproven)
            v.reason += tr(", and the readings are too coarse to tell");
        if (v.level != Level::Good && v.level != Level::Unproven)
            v.reason += std::string(": ") + std::string(cure);
    };
    // Each side's rotor by itself, the worse speaks; where one side was read the other is asked for.
    const auto ofSides = [&](auto read, auto make) {
        if (read(c.left) || read(c.right))
            bench.add(judge::worseSide(make(c.left), make(c.right)));
    };
    ofSides([](const Fitted& f) { return f.runout.value.has_value(); },
        [&](const Fitted& f) {
            auto v = bench.begin(checks::runout, tr("Runout on the car"), style::fine,
                tr("Total reading of a dial gauge near the rotor's edge over one slow turn, all nuts tight; the worse of those read."));
            v.source = tr("0.05 mm common practice; many makers allow 0.10.");
            v.figure = evaluate([&](Evaluator& s) { return s(f.runout); });
            judgeMost(v, runoutWanted, runoutMost, tr("clean the hub first, then another place on the studs, then machine"));
            return v;
        });
    const bool byThickness = c.rotor.thickness.repeats.size() >= 4;
    ofSides([&](const Fitted& f) { return f.thicknessVariation.value.has_value() || byThickness; },
        [&](const Fitted& f) {
            auto v = bench.begin(checks::thicknessVariation, tr("Thickness variation"), style::thousandth,
                tr("Largest less smallest thickness round one turn; from the variation read, else from the repeated readings of the "
                   "thickness."));
            v.figure = evaluate([&](Evaluator& s) {
                if (f.thicknessVariation.value || !byThickness)
                    return s(f.thicknessVariation);
                const auto [least, most] = std::ranges::minmax(c.rotor.thickness.repeats);
                return 0 * s(c.rotor.thickness) + most - least;
            });
            judgeMost(v, variationMost, 2 * variationMost, tr("the pedal will pulse; machine or replace"));
            return v;
        });
}

} // namespace deepstop
