#include "language/language.hpp"
#include "quantity/text.hpp"
#include "sums/entry.hpp"

#include "centring/drawer.hpp"
#include "fit/fit.hpp"
#include "geometry/lining.hpp"
#include "heat/heat.hpp"
#include "joints/thread.hpp"
#include "materials/materials.hpp"
#include "quantity/parse.hpp"
#include "stopping/stopping.hpp"
#include "weights/weights.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace deepstop::sums {
namespace {

std::vector<centring::ShimKind> drawerOf(const std::string& text)
{
    auto read = centring::readDrawer(text, *findUnit("mm", Dimension::Length));
    if (!read.refusal.empty())
        throw BadRequest(tr("drawer: {}", read.refusal));
    return std::move(read.drawer);
}

void stop(const Inputs& in, Answer& out)
{
    const auto judged = stopping::judge(
        positive(in, "speed"), positive(in, "distance"), in.has("grip") ? std::optional(positive(in, "grip")) : std::nullopt);
    out.results = { { "mean_deceleration_mps2", judged.meanDeceleration },
        { "mean_deceleration_g", judged.meanDeceleration / standardGravity }, { "duration_s", judged.duration },
        { "plausible", judged.plausible ? Value(*judged.plausible) : Value() },
        { "shortest_m", judged.shortest ? Value(*judged.shortest) : Value() },
        { "speed_that_fits_mps", judged.speedThatFits ? Value(*judged.speedThatFits) : Value() } };
    if (judged.plausible && !*judged.plausible) {
        out.notes.push_back(
            tr("No tyre of this grip stops so short: the speed, the brake point or the tape is wrong. From this speed it needs "
               "shortest_m; in this distance it stops from speed_that_fits_mps."));
        // A speedometer never shows too little.
        constexpr double tenth = 1.1;
        constexpr double more = 4 / 3.6;
        const double least = std::max(0.0, (in["speed"] - more) / tenth);
        out.notes.push_back(tr("Was the speed read off the dashboard? It may show up to a tenth and 4 km/h more than is driven (UN R39, "
                               "from memory): {:.1f} m/s at least, {:.2f} g.",
            least, least * least / (2 * in["distance"]) / standardGravity));
    }
    if (!judged.plausible)
        out.notes.push_back(
            tr("Give grip= to learn whether the tyres can do it: street tyres 0.9 to 1.1, track tyres to 1.4 (common practice)."));
    out.notes.push_back(tr("The duration is that of steady deceleration, 2·d/v."));
}

void heatRise(const Inputs& in, Answer& out)
{
    const double energy = heat::stopEnergy(positive(in, "mass"), notNegative(in, "from"), notNegative(in, "to"));
    if (!std::isfinite(energy))
        throw BadRequest(tr("to: must not be more than from."));
    if (in["share"] < 0 || in["share"] > 1)
        throw BadRequest(tr("share: must lie between 0 and 1 (or 0 % and 100 %)."));
    const double store = heat::heatStore(positive(in, "ring-mass"), positive(in, "specific-heat"));
    out.results = { { "energy_J", energy }, { "temperature_rise_K", heat::temperatureRise(energy, in["share"], store) } };
    out.notes.push_back(tr("energy_J is the whole car's; share is the part that this ring mass takes. No cooling within the stop, only the "
                           "friction ring takes heat."));
}

void effectiveRadius(const Inputs& in, Answer& out)
{
    const auto radius = stopping::effectiveRadius(positive(in, "rotor-od"), positive(in, "pad-height"), in["inset"]);
    if (!std::isfinite(radius.mean))
        throw BadRequest(tr("pad-height: such a pad would reach the axle; check rotor-od, pad-height and inset."));
    out.results = { { "mean_radius_m", radius.mean }, { "uniform_pressure_radius_m", radius.uniformPressure } };
    out.notes.push_back(tr("Bedded pads wear towards the mean radius; the uniform-pressure radius is that of a new, stiff pad."));
}

void shims(const Inputs& in, Answer& out)
{
    const double target = notNegative(in, "target");
    if (target > 1)
        throw BadRequest(tr("target: must be at most 1 m."));
    const auto stack = centring::bestStack(target, drawerOf(in.texts.find("drawer")->second), notNegative(in, "tolerance"));
    out.results = { { "stack", stack.shims }, { "total_m", stack.total }, { "residual_m", stack.residual },
        { "count", static_cast<double>(stack.shims.size()) } };
    out.notes.push_back(in["tolerance"] > 0 ? tr("The fewest shims within the tolerance; the nearest pile where none is within it.")
                                            : tr("The nearest pile the drawer can make, of these the one with the fewest shims. Give "
                                                 "tolerance= to trade nearness for fewer shims."));
    if (std::abs(stack.residual) > in["tolerance"] + 1e-9)
        out.notes.push_back(
            in["tolerance"] > 0 ? tr("The drawer cannot come within the tolerance.") : tr("The drawer cannot make this exactly."));
}

void offset(const Inputs& in, Answer& out)
{
    const auto change = fit::offsetChange(
        in["et"], positive(in, "hat-before"), positive(in, "hat-after"), notNegative(in, "spacer"), notNegative(in, "ring"));
    out.results = { { "effective_offset_m", change.effectiveOffset }, { "outboard_shift_m", change.outboardShift } };
    out.notes.push_back(
        tr("Positive: the wheel stands further out. Check stud and pilot engagement, fender and scrub radius on that axle."));
}

void convert(const Inputs& in, Answer& out)
{
    const auto& text = in.texts.find("value")->second;
    const auto& to = in.texts.find("to")->second;
    // One spelling may serve two dimensions ("g", "lb"); the value decides which is meant.
    std::string refusal;
    for (const Unit& unit : allUnits()) {
        const Unit* wanted = findUnit(to, unit.dimension);
        if (wanted != &unit)
            continue;
        const auto parsed = parseQuantity(text, unit.dimension, unit);
        if (parsed && (parsed.unit || unit.dimension == Dimension::Number)) {
            out.results = { { "value", fromSi(*parsed.value, unit) } };
            out.notes.push_back(tr("in {}", unit.symbol));
            return;
        }
        if (refusal.empty())
            refusal = parsed ? tr("value: has no unit to convert from.") : tr("value: {}", parsed.refusal);
    }
    throw BadRequest(refusal.empty() ? tr("to: “{}” is not a known unit.", to) : refusal);
}

void rotorMass(const Inputs& in, Answer& out)
{
    const double od = positive(in, "od");
    const double inner = positive(in, "ring-id");
    const double vent = in["vent"];
    double share = in.has("vane-share") ? in["vane-share"] : 0;
    if (vent > 0 && !in.has("vane-share")) {
        if (!in.has("vanes") || !in.has("vane-thickness"))
            throw BadRequest(tr("vane-share: is missing; or give vanes= and vane-thickness=."));
        using enum weights::Vanes::Shape;
        const auto shape = in.texts.contains("vane-shape") ? in.texts.find("vane-shape")->second : std::string("straight");
        if (shape != "straight" && shape != "curved" && shape != "pillars")
            throw BadRequest(tr("vane-shape: one of straight, curved, pillars is wanted."));
        share = weights::vaneShare({ shape == "curved"          ? Curved
                                           : shape == "pillars" ? Pillars
                                                                : Straight,
                                       static_cast<int>(std::min(in["vanes"], 1e6)), positive(in, "vane-thickness"), in["vane-lean"] },
            od, inner);
    }
    const double ring = weights::ringMass({ od, inner, positive(in, "thickness"), vent, share });
    if (!std::isfinite(ring))
        throw BadRequest(tr("od: no ring has such dimensions; ring-id must be under od, vent under thickness, vanes must leave air."));
    double hat = 0;
    double inertia = weights::inertia(ring, od, inner);
    if (in.has("height")) {
        for (const char* key : { "hat-thickness", "hat-od", "hat-wall", "bore" })
            if (!in.has(key))
                throw BadRequest(
                    tr("{}: is missing; with height= the hat is computed and needs hat-thickness, hat-od, hat-wall and bore.", key));
        const auto metal = in.texts.contains("hat") ? in.texts.find("hat")->second : std::string("iron");
        if (metal != "iron" && metal != "aluminium")
            throw BadRequest(tr("hat: iron or aluminium is wanted."));
        const double density = metal == "iron" ? materials::greyIron.density : materials::aluminium6061.density;
        hat = density
            * weights::hatVolume(
                { in["hat-od"], in["bore"], in["hat-thickness"], in["hat-wall"], in["height"] - in["hat-thickness"] - in["thickness"],
                    inner, static_cast<int>(orElse(in, "holes", 0)), orElse(in, "hole", 0) });
        if (in.has("hat-bolts")) {
            const auto thread = joints::parseThread(in.texts.contains("hat-bolt") ? in.texts.find("hat-bolt")->second : std::string());
            if (!thread)
                throw BadRequest(tr("hat-bolt: a thread as M6x1 is wanted with hat-bolts=."));
            hat += weights::hatBoltsMass(static_cast<int>(std::min(in["hat-bolts"], 1e4)), thread->diameter, in["hat-wall"], density);
        }
        if (!std::isfinite(hat))
            throw BadRequest(tr("hat-od: no hat has such dimensions."));
        inertia += weights::inertia(hat, in["hat-od"], in["bore"]);
    } else {
        out.notes.push_back(tr("The ring alone: give height= and the hat's dimensions for the whole rotor."));
    }
    out.results = { { "ring_mass_kg", ring }, { "hat_mass_kg", hat }, { "mass_kg", ring + hat }, { "inertia_kgm2", inertia },
        { "heat_store_JpK", heat::heatStore(ring, materials::greyIron.specificHeat) } };
}

void pistonArea(const Inputs& in, Answer& out)
{
    const auto& text = in.texts.find("pistons")->second;
    const auto kind = in.texts.contains("kind") ? in.texts.find("kind")->second : std::string("fixed");
    if (kind != "fixed" && kind != "floating")
        throw BadRequest(tr("kind: fixed or floating is wanted."));
    std::vector<double> bores;
    for (std::size_t at = 0; at <= text.size();) {
        const auto end = std::min(text.find('+', at), text.size());
        const auto parsed = parseQuantity(text.substr(at, end - at), Dimension::Length, "mm");
        if (!parsed || *parsed.value <= 0)
            throw BadRequest(tr("pistons: {}", (parsed ? std::string(tr("every bore must be more than 0.")) : parsed.refusal)));
        bores.push_back(*parsed.value);
        at = end + 1;
    }
    const double one = stopping::pistonAreaOneSide(bores);
    out.results = { { "area_one_side_m2", one }, { "area_all_m2", kind == "fixed" ? 2 * one : one },
        { "pistons", static_cast<double>(bores.size() * (kind == "fixed" ? 2 : 1)) } };
    out.notes.push_back(tr("Clamping counts the pistons of one side, floating or fixed; the fluid they need counts all of them."));
}

void padArea(const Inputs& in, Answer& out)
{
    const double length = positive(in, "length");
    const double height = positive(in, "height");
    double area = length * height;
    if (in.has("rotor")) {
        const double outer = positive(in, "rotor") / 2;
        const auto ends = in.texts.contains("ends") ? in.texts.find("ends")->second : std::string("radial");
        if (ends != "radial" && ends != "parallel")
            throw BadRequest(tr("ends: radial or parallel."));
        area = ends == "radial" ? geometry::liningBetweenRadii(outer, height, length)
                                : geometry::liningBetweenParallels(outer, height, length);
        if (!std::isfinite(area))
            throw BadRequest(tr("length, height: must lie within the rotor."));
    }
    const double lining = in.has("thickness") ? positive(in, "thickness") - notNegative(in, "minimum") : 0;
    if (lining < 0)
        throw BadRequest(tr("minimum: must not be more than thickness."));
    out.results = { { "area_m2", area }, { "volume_m3", in.has("thickness") ? Value(area * lining) : Value() } };
    if (in.has("rotor"))
        out.notes.push_back(tr("Between two circles about the axle; length is that of the widest chord. Cut corners are not in it."));
    else
        out.notes.push_back(tr("A rectangle: up to 20 % too much. Give the rotor's diameter and the ends. A lining with rounded or cut "
                               "corners has a few per cent less. Weigh a paper of its outline to know."));
}

void cornerWeight(const Inputs& in, Answer& out)
{
    double known = 0;
    std::string lacks;
    for (const char* part : { "rotor", "caliper", "pads", "bracket", "hardware", "hose" }) {
        if (in.has(part))
            known += notNegative(in, part);
        else
            lacks += (lacks.empty() ? "" : ", ") + std::string(part);
    }
    if (in.has("wheel"))
        known += notNegative(in, "wheel");
    out.results = { { "complete", lacks.empty() }, { "mass_kg", lacks.empty() ? Value(known) : Value() }, { "weighed_kg", known } };
    if (!lacks.empty())
        out.notes.push_back(
            tr("Lacks {}: not to be compared with a complete corner. A part that lay on the scale with another counts as 0 here.", lacks));
}

const std::vector<Entry>& entries()
{
    using enum Dimension;
    static const std::vector<Entry> all = [] {
        std::vector<Entry> list {
            { { "stop", tr("What a measured stop says, and whether tyres can do it"),
                  { { "speed", Speed, "km/h", "speed_mps", "", true, tr("speed at the brake point") },
                      { "distance", Length, "m", "distance_m", "", true, tr("distance to standstill") },
                      { "grip", Acceleration, "g", "grip_g", "", false, tr("peak grip of the tyres, 1.1 or 1.1 g") } },
                  { { "mean_deceleration_mps2", { Acceleration, "m/s²", 2, "m/s²", 2 }, "v²/(2·d)" },
                      { "mean_deceleration_g", style::number, tr("the same over standard gravity") },
                      { "duration_s", style::seconds, "2·d/v" }, { "plausible", style::number, tr("true, false, or null without grip") },
                      { "shortest_m", style::road, tr("v²/(2·µ·g), the shortest stop from this speed; null without grip") },
                      { "speed_that_fits_mps", style::speed,
                          tr("√(2·µ·g·d), the speed such tyres stop from in this distance; null without grip") } },
                  tr("Kinematics of steady deceleration.") },
                stop },
            { { "heat-rise", tr("How much one stop warms a ring"),
                  { { "mass", Mass, "kg", "mass_kg", "", true, tr("the car with driver") },
                      { "from", Speed, "km/h", "from_mps", "", true, tr("speed before") },
                      { "to", Speed, "km/h", "to_mps", "", true, tr("speed after, 0 for a full stop") },
                      { "ring-mass", Mass, "kg", "ring_mass_kg", "", true, tr("friction ring that takes the heat") },
                      { "share", Share, "", "share", "1", false, tr("part of the energy this ring takes, 0.35 or 35 %") },
                      { "specific-heat", SpecificHeat, "J/kgK", "specific_heat_J_per_kgK", "480", false,
                          tr("of the ring; grey iron 480") } },
                  { { "energy_J", style::energy, "½·m·(v₁² − v₂²)" }, { "temperature_rise_K", style::rise, "share·E/(m·c)" } },
                  tr("Conservation of energy; specific heat of grey iron from memory (460 to 500 J/kgK cold).") },
                heatRise },
            { { "effective-radius", tr("Where the pad acts on the rotor"),
                  { { "rotor-od", Length, "mm", "rotor_od_m", "", true, tr("rotor's outer diameter") },
                      { "pad-height", Length, "mm", "pad_height_m", "", true, tr("radial height of the pad") },
                      { "inset", Length, "mm", "inset_m", "0", false, tr("pad's edge inward of the rotor's edge") } },
                  { { "mean_radius_m", plainLength, tr("(ro + ri)/2, uniform wear") },
                      { "uniform_pressure_radius_m", plainLength, "2/3·(ro³ − ri³)/(ro² − ri²)" } },
                  tr("Disc clutch theory, uniform wear and uniform pressure, as in Shigley (from memory).") },
                effectiveRadius },
            { { "shims", tr("The pile of shims nearest to a thickness"),
                  { { "target", Length, "mm", "target_m", "", true, tr("thickness wanted") },
                      { "drawer", {}, "", "drawer", "", true, tr("THICKNESSxCOUNT,… as in 0.75x4,1x2,0.030inx6") },
                      { "tolerance", Length, "mm", "tolerance_m", "0", false, tr("how far off is near enough") } },
                  { { "stack", plainLength, tr("the shims, thick before thin") }, { "total_m", plainLength, tr("their sum") },
                      { "residual_m", plainLength, tr("sum less target") }, { "count", style::count, tr("how many") } },
                  tr("Exact search in whole steps of 10 nm.") },
                shims },
            { { "offset", tr("What hat, ring and spacer do to the wheel's place"),
                  { { "et", Length, "mm", "et_m", "", true, tr("printed offset of the wheel") },
                      { "hat-before", Length, "mm", "hat_before_m", "", true, tr("hat thickness of the old rotor") },
                      { "hat-after", Length, "mm", "hat_after_m", "", true, tr("hat thickness of the new rotor") },
                      { "spacer", Length, "mm", "spacer_m", "0", false, tr("spacer added behind the wheel") },
                      { "ring", Length, "mm", "ring_m", "0", false, tr("ring added behind the rotor") } },
                  { { "effective_offset_m", plainLength, tr("et less the shift") },
                      { "outboard_shift_m", plainLength, tr("positive: further out") } },
                  tr("Plane geometry.") },
                offset },
            { { "rotor-mass", tr("What a rotor weighs by its dimensions"),
                  { { "od", Length, "mm", "od_m", "", true, tr("rotor's outer diameter") },
                      { "ring-id", Length, "mm", "ring_id_m", "", true, tr("friction ring's inner diameter") },
                      { "thickness", Length, "mm", "thickness_m", "", true, tr("over both faces") },
                      { "vent", Length, "mm", "vent_m", "0", false, tr("air between the plates, 0 for solid") },
                      { "vane-share", Share, "", "vane_share", "", false, tr("part of that air filled by vanes, 0.3 or 30 %") },
                      { "vanes", Number, "", "vanes", "", false, tr("or their number") },
                      { "vane-thickness", Length, "mm", "vane_thickness_m", "", false, tr("and thickness, of pillars the diameter") },
                      { "vane-shape", {}, "", "vane_shape", "", false, tr("straight, curved or pillars") },
                      { "vane-lean", Angle, "°", "vane_lean_rad", "0", false, tr("of curved vanes, against the radius") },
                      { "height", Length, "mm", "height_m", "", false, tr("overall height, for the hat") },
                      { "hat-thickness", Length, "mm", "hat_thickness_m", "", false, tr("of the disc the wheel bears on") },
                      { "hat-od", Length, "mm", "hat_od_m", "", false, tr("hat's outer diameter") },
                      { "hat-wall", Length, "mm", "hat_wall_m", "", false, tr("wall of the hat") },
                      { "bore", Length, "mm", "bore_m", "", false, tr("rotor's bore") },
                      { "hat", {}, "", "hat", "", false, tr("iron or aluminium") },
                      { "holes", Number, "", "holes", "", false, tr("stud holes") },
                      { "hole", Length, "mm", "hole_m", "", false, tr("their diameter") },
                      { "hat-bolts", Number, "", "hat_bolts", "", false, tr("bolts of a two-piece rotor") },
                      { "hat-bolt", {}, "", "hat_bolt", "", false, tr("their thread, as M6x1") } },
                  { { "ring_mass_kg", style::partMass, "π/4·(D² − d²)·(T − vent·(1 − vanes))·ρ" },
                      { "hat_mass_kg", style::partMass, tr("disc, wall and neck, with bolts") }, { "mass_kg", style::partMass, "both" },
                      { "inertia_kgm2", style::inertia, "m·(D² + d²)/8" },
                      { "heat_store_JpK", style::heatStore, tr("ring mass × specific heat") } },
                  tr("Geometry; densities from memory: iron 7200, aluminium 2700, steel 7850 kg/m³.") },
                rotorMass },
            { { "piston-area", tr("What the pistons clamp with"),
                  { { "pistons", {}, "", "pistons", "", true, tr("bores of one side, as 38+42 or 1.5in+1.625in") },
                      { "kind", {}, "", "kind", "", false, tr("fixed or floating") } },
                  { { "area_one_side_m2", style::area, "Σ π/4·d²" }, { "area_all_m2", style::area, tr("of all pistons, for the fluid") },
                      { "pistons", style::count, tr("in all") } },
                  tr("Plane geometry.") },
                pistonArea },
            { { "pad-area", tr("Lining of one pad"),
                  { { "length", Length, "mm", "length_m", "", true, tr("of the lining") },
                      { "height", Length, "mm", "height_m", "", true, tr("radial height") },
                      { "rotor", Length, "mm", "rotor_m", "", false, tr("diameter at the pad's outer edge: the lining follows it") },
                      { "ends", {}, "", "ends", "radial", false, tr("radial or parallel") },
                      { "thickness", Length, "mm", "thickness_m", "", false, tr("of the lining") },
                      { "minimum", Length, "mm", "minimum_m", "0", false, tr("at which it is worn out") } },
                  { { "area_m2", style::area, tr("between the two arcs, or length × height") },
                      { "volume_m3", style::volume, tr("area × what may be worn away") } },
                  tr("Plane geometry.") },
                padArea },
            { { "corner-weight", tr("A complete corner, or what it lacks"),
                  { { "rotor", Mass, "kg", "rotor_kg", "", false, tr("rotor with hat") },
                      { "caliper", Mass, "kg", "caliper_kg", "", false, tr("caliper, bare") },
                      { "pads", Mass, "kg", "pads_kg", "", false, tr("two pads") },
                      { "bracket", Mass, "kg", "bracket_kg", "", false, tr("bracket or carrier") },
                      { "hardware", Mass, "kg", "hardware_kg", "", false, tr("bolts, pins, clips") },
                      { "hose", Mass, "kg", "hose_kg", "", false, "hose" },
                      { "wheel", Mass, "kg", "wheel_kg", "", false, tr("wheel with tyre, if it is to count") } },
                  { { "complete", style::number, tr("whether every part is there") },
                      { "mass_kg", style::partMass, tr("of the complete corner, or null") },
                      { "weighed_kg", style::partMass, tr("of what was given") } },
                  tr("Like is compared with like only: common practice.") },
                cornerWeight },
            { { "convert", tr("A quantity in another unit"),
                  { { "value", {}, "", "value", "", true, tr("number and unit, as in 55 lb ft") },
                      { "to", {}, "", "to", "", true, tr("unit wanted, as in N·m") } },
                  { { "value", { Number, "", 4, "", 4 }, tr("in the unit wanted") } },
                  tr("Exact definitions: inch 25.4 mm, pound 0.45359237 kg, g 9.80665 m/s².") },
                convert },
        };
        for (auto& subject : { wheelSums(), jointSums(), hydraulicSums(), heatSums(), provingSums() })
            list.insert(list.end() - 1, subject.begin(), subject.end());
        return list;
    }();
    return all;
}

Inputs read(const Sum& sum, std::span<const std::string> arguments, Answer& out)
{
    std::map<std::string, std::string, std::less<>> given;
    for (const std::string& argument : arguments) {
        const auto equals = argument.find('=');
        if (equals == std::string::npos)
            throw BadRequest(tr("“{}”: write key=value.", argument));
        const auto name = argument.substr(0, equals);
        if (std::ranges::find(sum.keys, name, &Key::name) == sum.keys.end()) {
            std::string known;
            for (const Key& key : sum.keys)
                known += (known.empty() ? "" : ", ") + std::string(key.name);
            throw BadRequest(tr("{}: {} has no such key; it has {}.", name, sum.name, known));
        }
        if (!given.emplace(name, argument.substr(equals + 1)).second)
            throw BadRequest(tr("{}: is given twice.", name));
    }
    Inputs in;
    for (const Key& key : sum.keys) {
        auto found = given.find(key.name);
        if (found == given.end() && !key.otherwise.empty())
            found = given.emplace(key.name, key.otherwise).first;
        if (found == given.end()) {
            if (key.required)
                throw BadRequest(tr("{}: is missing ({}).", key.name, key.help));
            continue;
        }
        if (!key.dimension) {
            in.texts.emplace(key.name, found->second);
            out.inputs.emplace_back(key.siKey, found->second);
            continue;
        }
        // A share is as often written 0.35 as 35 %, a grip as often 1.1 as 1.1 g.
        auto parsed = key.plainUnit.empty() ? parseQuantity(found->second, Dimension::Number, "")
                                            : parseQuantity(found->second, *key.dimension, key.plainUnit);
        if (!parsed && key.plainUnit.empty())
            parsed = parseQuantity(found->second, *key.dimension, "%");
        if (!parsed)
            throw BadRequest(fmt::format("{}: {}", key.name, parsed.refusal));
        const double si = key.dimension == Dimension::Acceleration ? *parsed.value / standardGravity : *parsed.value;
        in.numbers.emplace(key.name, si);
        out.inputs.emplace_back(key.siKey, si);
    }
    return in;
}

} // namespace

std::span<const Sum> allSums()
{
    static const std::vector<Sum> sums = [] {
        std::vector<Sum> list;
        for (const Entry& entry : entries())
            list.push_back(entry.sum);
        return list;
    }();
    return sums;
}

namespace {

/// A key without the unit it ends in, as words.
std::string inWords(std::string_view key)
{
    const auto last = key.rfind('_');
    const auto unit = last == std::string_view::npos ? std::string_view() : key.substr(last + 1);
    constexpr std::array units { "m", "kg", "K", "J", "N", "Nm", "Pa", "rad", "g", "mps", "mps2", "JpK", "kgm2", "m2", "m3", "s" };
    std::string words(std::ranges::find(units, unit) != units.end() ? key.substr(0, last) : key);
    std::ranges::replace(words, '_', ' ');
    words[0] = toUpper(words[0]);
    return words;
}

} // namespace

std::vector<PrintedResult> printed(const Answer& answer, UnitSystem system)
{
    const auto& sum = *std::ranges::find(allSums(), answer.name, &Sum::name);
    std::vector<PrintedResult> lines;
    for (const auto& [key, value] : answer.results) {
        const auto& about = *std::ranges::find(sum.results, key, &ResultKey::name);
        const auto say = [&](double si) { return print(si, about.style, system); };
        std::string text = tr("not known");
        if (const auto* number = std::get_if<double>(&value)) {
            text = say(*number);
        } else if (const auto* truth = std::get_if<bool>(&value)) {
            text = *truth ? tr("yes") : tr("no");
        } else if (const auto* word = std::get_if<std::string>(&value)) {
            text = *word;
        } else if (const auto* list = std::get_if<std::vector<double>>(&value)) {
            text = list->empty() ? tr("no shims") : "";
            for (const double one : *list)
                text += (text.empty() ? "" : " + ") + say(one);
        }
        lines.push_back({ key, inWords(key), std::move(text), std::string(about.help) });
    }
    return lines;
}

Answer calculate(std::string_view name, std::span<const std::string> arguments)
{
    for (const Entry& entry : entries()) {
        if (entry.sum.name != name)
            continue;
        Answer answer { std::string(name), {}, {}, {}, std::string(entry.sum.source) };
        const Inputs in = read(entry.sum, arguments, answer);
        entry.run(in, answer);
        return answer;
    }
    throw BadRequest(tr("“{}”: there is no such sum; calc --list names them all.", name));
}

} // namespace deepstop::sums
