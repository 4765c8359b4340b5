#include "chapters/parts/bench.hpp"

#include "figures/figures.hpp"

#include <algorithm>

namespace deepstop {
namespace {

constexpr double runoutWanted = 0.05e-3;
constexpr double runoutMost = 0.10e-3; ///< many makers allow it
constexpr double variationMost = 0.015e-3;

} // namespace

void addWear(const Bench& bench, const SetupParts& setup, bool found)
{
    const Corner& c = *setup.at(bench.axle()).corner;
    // What came on the car and stays has worn, by nobody knows how much; what is put on is new.
    const bool driven = !found && setup.setup == &bench.study().build->setups.front();
    const auto nowOr = [driven](Sample& s, const Reading& worn, const Reading& asNew, const char* what) {
        if (!worn.value && driven)
            s.assume(what);
        return s(worn.value ? worn : asNew);
    };
    auto rotor = bench.begin(checks::wornRotor, fmt::format("Rotor thickness left, {}", setup.setup->name), style::fine,
        "Thickness less the minimum cast or stamped on the part.", found);
    rotor.source = "The maker's minimum thickness.";
    rotor.figure = figures::lesserSide([&](Sample& s, Side side) {
        return nowOr(s, c.at(side).ringThickness, c.rotor.thickness, "rotors as thick as new") - s(c.rotor.minimumThickness);
    }).figure;
    rotor.caution = "A rotor below its minimum is scrap, however good it looks.";
    auto pad = bench.begin(checks::wornPad, fmt::format("Lining left, {}", setup.setup->name), style::size,
        "Lining less its minimum; 2 mm where the maker names none.", found);
    pad.figure = figures::lesserSide([&](Sample& s, Side side) {
        const Reading& worn = c.at(side).liningThickness;
        if (!worn.value && driven)
            s.assume("linings as thick as new");
        return (worn.value ? s(worn) : figures::padLining(s, c.pad)) - s.orElse(c.pad.minimumThickness, thinPad);
    }).figure;
    for (Verdict* v : { &rotor, &pad }) {
        const Figure& f = v->figure;
        if (!f.value) {
            v->reason = lacking(bench.study(), f);
        } else if (f.highest() <= 0) {
            v->level = Level::Stop;
            v->reason = fmt::format("Below its minimum by {}: scrap", print(-*f.value, v->style, bench.study().system));
        } else if (!judge::unproven(bench.study(), *v)) {
            v->level = f.lowest() >= wearReserve ? Level::Good : Level::Caution;
            v->reason = fmt::format(
                "{} left, {} at worst", print(*f.value, v->style, bench.study().system), print(f.lowest(), v->style, bench.study().system));
        }
        bench.add(std::move(*v));
    }
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
        v.reason = fmt::format("{} ±{}, {} wanted", figure(*f.value, v.style, bench.study().system),
            print(f.worstCase, v.style, bench.study().system), print(wanted, v.style, bench.study().system));
        if (v.level == Level::Unproven)
            v.reason += ", and the readings are too coarse to tell";
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
            auto v = bench.begin(checks::runout, "Runout on the car", style::fine,
                "Total reading of a dial gauge near the rotor's edge over one slow turn, all nuts tight; the worse of those read.");
            v.source = "0.05 mm common practice; many makers allow 0.10.";
            v.figure = evaluate([&](Sample& s) { return s(f.runout); });
            judgeMost(v, runoutWanted, runoutMost, "clean the hub first, then another place on the studs, then machine");
            return v;
        });
    const bool byThickness = c.rotor.thickness.repeats.size() >= 4;
    ofSides([&](const Fitted& f) { return f.thicknessVariation.value.has_value() || byThickness; },
        [&](const Fitted& f) {
            auto v = bench.begin(checks::thicknessVariation, "Thickness variation", style::thousandth,
                "Largest less smallest thickness round one turn; from the variation read, else from the repeated readings of the "
                "thickness.");
            v.figure = evaluate([&](Sample& s) {
                if (f.thicknessVariation.value || !byThickness)
                    return s(f.thicknessVariation);
                const auto [least, most] = std::ranges::minmax(c.rotor.thickness.repeats);
                return 0 * s(c.rotor.thickness) + most - least;
            });
            judgeMost(v, variationMost, 2 * variationMost, "the pedal will pulse; machine or replace");
            return v;
        });
}

} // namespace deepstop
