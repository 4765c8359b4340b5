#include "figures/heat_figures.hpp"

#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"
#include "hydraulics/hydraulics.hpp"
#include "language/language.hpp"
#include "quantity/date.hpp"
#include "quantity/order.hpp"
#include "quantity/unit.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace deepstop::figures {
namespace {

constexpr double missing = std::numeric_limits<double>::quiet_NaN();
constexpr bool plain = false;

// Common practice, no source: what hangs on a corner and nobody measures.
constexpr double liningConductivity = 1.2; // W/(m K)
constexpr double usualShoeArc = 100 * std::numbers::pi / 180; // of a lining not measured; common practice
constexpr double liningHeat = 1000; // J/(kg K)
constexpr double steelHeat = materials::steel.specificHeat;
constexpr double steelDensity = materials::steel.density;
constexpr double twoPieceContact = 0.8; // W/K, over bobbins or bolts
constexpr double hatContact = 6; // W/K, hat to hub, clamped
constexpr double hubMass = 6; // kg, what of hub and knuckle warms up with it
constexpr double hubSurface = 0.12; // m² of hub and knuckle
constexpr double wheelContact = 8; // W/K from the hub into the wheel clamped on it
constexpr double wheelSurface = 0.5; // m²
constexpr double throughAbutment = 1; // W/K, backing to caliper
constexpr double usualVane = 5e-3;
constexpr double caliperMass = 4; // kg, one that was not weighed alone
constexpr double caliperSurface = 0.02; // m² for a kilogram of it
constexpr double fluidStore = 110; // J/K of what stands in a caliper
constexpr double padsCover = 0.15; // of a drum's inside left open by its shoes
constexpr double plateFaces = 0.3; // of a drum's inside, seen by the plate and the cylinder
constexpr double pointsApart = 200; // K, two points of a curve at most, with nothing hidden between them

heat::RingMetal metalOf(Evaluator& s, RingMaterial material)
{
    switch (material) {
    case RingMaterial::Steel:
        return heat::steelRing;
    case RingMaterial::CarbonCeramic:
        return heat::ceramicRing;
    case RingMaterial::Unknown:
        s.assume(tr("a ring of iron"));
        break;
    case RingMaterial::Iron:
        break;
    }
    return heat::ironRing;
}

/// What one piston lets through from the backing to the fluid, W/K: its wall of 3 mm over 30 mm of length, with the contact on the backing.
/// Common practice, no source; by what it is made of. Where nobody said that, of aluminium, the worst.
double throughPiston(Evaluator& s, const std::string& material)
{
    const auto says = [&](std::string_view part) { return material.find(part) != std::string::npos; };
    // As it is written on the parts bench, in English or German.
    if (says("henol"))
        return 0.02;
    if (says("itan"))
        return 0.1;
    if (says("tainless") || says("delstahl"))
        return 0.2;
    if (says("teel") || says("tahl") || says("iron") || says("Iron") || says("isen"))
        return 0.5;
    if (!says("lumin"))
        s.assume(tr("pistons of aluminium"));
    return 0.9;
}

/// Density of the air over that at the sea: an isothermal atmosphere at 15 °C, R·T/(M·g) = 8435 m (ISO 2533's constants).
double airDensityAt(double altitude)
{
    constexpr double scaleHeight = 8435;
    return std::exp(-altitude / scaleHeight);
}
double airDensityOf(Evaluator& s, const Build& build) { return airDensityAt(s.orElse(build.wants.altitude, 0)); }

double weighed(Evaluator& s, const Corner& corner, Part part)
{
    for (const Weighing& w : corner.weighings)
        if (w.contains == std::vector { part })
            return s(w.mass, plain);
    return missing;
}

heat::Brake drumBrake(Evaluator& s, const Corner& c)
{
    const Drum& d = c.drum;
    heat::Brake b;
    const double radius = s(d.insideDiameter) / 2;
    const double wall = s(d.wall);
    const double width = s(d.shoeWidth);
    const double mass = rotorMassWeighed(s, c);
    // The cylinder takes the heat, the face beside it is its hat.
    const double rubbed =
        std::min(1.0, 2 * std::numbers::pi * (radius + wall / 2) * wall * width * materials::greyIron.density / mass * 1.3);
    b.ringMass = rubbed * mass;
    b.hatStore = (1 - rubbed) * mass * materials::greyIron.specificHeat;
    b.heatedArea = 2 * std::numbers::pi * radius * width;
    b.depth = wall;
    b.openFaces = padsCover * b.heatedArea;
    b.vaneArea = 2 * std::numbers::pi * (radius + wall) * s(d.depth);
    b.diameter = 2 * (radius + wall);
    b.hatArea = std::numbers::pi * radius * radius;
    b.ringToHat = materials::greyIron.conductivity * 2 * std::numbers::pi * radius * wall / (width / 2);
    const double area = liningArea(s, c);
    const double lining = s(d.liningThickness);
    b.liningStore = area * lining * materials::liningDensity * liningHeat;
    b.liningConductance = liningConductivity * area / (lining / 2);
    b.liningShare = heat::liningShareOf(std::sqrt(b.metal.conductivity * b.metal.density * b.metal.specificHeat), b.heatedArea,
        std::sqrt(liningConductivity * materials::liningDensity * liningHeat), area);
    b.backingStore = 2 * 0.7 * steelHeat; // two shoes
    b.backingToFluid = 0.2;
    b.backingToCaliper = 0.3;
    b.caliperStore = 2.5 * steelHeat; // the plate they stand on
    b.caliperArea = 0.06;
    b.caliperToFluid = 1;
    b.facesRing = plateFaces * b.heatedArea;
    b.fluidStore = 30;
    return b;
}

/// Ring, its faces and its channels.
void addRing(Evaluator& s, const Corner& c, heat::Brake& b)
{
    const Rotor& r = c.rotor;
    b.metal = metalOf(s, r.ringMaterial);
    b.ringMass = ringMass(s, r);
    b.diameter = s(r.outerDiameter);
    const double outer = b.diameter / 2;
    const double inner = s(r.ringInnerDiameter) / 2;
    const double thick = s(r.thickness);
    const double gap = ventGap(s, r);
    // Where the pads run.
    const double effective = effectiveRadius(s, c);
    const double half = s(c.pad.height) / 2;
    b.heatedArea = 2 * std::numbers::pi * (std::pow(std::min(outer, effective + half), 2) - std::pow(effective - half, 2));
    b.depth = gap > 0 ? (thick - gap) / 2 : thick / 2;
    const double padFace = padArea(s, c);
    b.openFaces = 2 * (std::numbers::pi * (outer * outer - inner * inner) - padFace);
    if (gap > 0) {
        const double radial = outer - inner;
        const double mean = std::numbers::pi * (outer + inner);
        const double count = r.vanes > 0 ? *r.vanes : 36;
        if (r.vanes <= 0)
            s.assume("36 vanes");
        if (!r.vaneThickness.value)
            s.assume(tr("vanes of 5 mm"));
        const double wide = std::max(2e-3, mean / count - s.orElse(r.vaneThickness, usualVane));
        // Both plates between the vanes, and both sides of each.
        b.vaneArea = count * 2 * radial * (wide + gap);
        b.channel = 2 * wide * gap / (wide + gap);
        b.channelLength = radial;
    }
}

void addHat(Evaluator& s, const Rotor& r, heat::Brake& b)
{
    const double height = s(r.hatThickness) >= 0 ? s(r.overallHeight) - s(r.thickness) : missing;
    const double hat = hatMass(s, r);
    const bool light = r.hatMaterial == HatMaterial::Aluminium;
    b.hatStore = hat * (light ? materials::aluminium6061.specificHeat : materials::greyIron.specificHeat);
    const double hatRadius = s(r.hatOuterDiameter) / 2;
    const double wall = s(r.hatWall);
    b.hatArea = 2 * 2 * std::numbers::pi * hatRadius * height; // inside and outside
    if (r.construction == RotorBuild::Unknown)
        s.assume(tr("a rotor of one piece"));
    b.ringToHat = r.construction == RotorBuild::TwoPiece
        ? twoPieceContact
        : (light ? materials::aluminium6061.conductivity : materials::greyIron.conductivity) * 2 * std::numbers::pi * hatRadius * wall
            / std::max(0.01, height);
}

void addPadsAndCaliper(Evaluator& s, const Corner& c, heat::Brake& b)
{
    const double padFace = padArea(s, c);
    const double thick = s(c.rotor.thickness);
    const double lining = padLining(s, c.pad);
    b.liningStore = 2 * padFace * lining * materials::liningDensity * liningHeat;
    b.liningConductance = liningConductivity * 2 * padFace / (lining / 2);
    b.liningShare = heat::liningShareOf(std::sqrt(b.metal.conductivity * b.metal.density * b.metal.specificHeat), b.heatedArea,
        std::sqrt(liningConductivity * materials::liningDensity * liningHeat), 2 * padFace);
    if (!c.pad.backing.value)
        s.assume(tr("pad backings of 5 mm"));
    b.backingStore = 2 * padFace * s.orElse(c.pad.backing, usualBacking) * steelDensity * steelHeat;
    const auto pistons = static_cast<double>(c.caliper.pistons.size()) * (c.caliper.kind == CaliperKind::Fixed ? 2 : 1);
    b.backingToFluid = throughPiston(s, *c.caliper.pistonMaterial) * std::max(1.0, pistons);
    b.backingToCaliper = throughAbutment;
    double caliper = weighed(s, c, Part::Caliper);
    if (std::isnan(caliper)) {
        s.assume(tr("a caliper of 4 kg"));
        caliper = caliperMass;
    }
    if (c.caliper.material->empty())
        s.assume(tr("a caliper of iron"));
    const bool alloy = c.caliper.material->find("lumin") != std::string::npos;
    b.caliperStore = caliper * (alloy ? materials::aluminium6061.specificHeat : steelHeat);
    b.caliperArea = caliperSurface * caliper;
    // Walls beside the pads and the bridge over them, half of which the pads hide.
    b.facesRing = (padFace + s(c.pad.length) * (thick + 2 * (lining + s.orElse(c.pad.backing, usualBacking)))) / 2;
    b.caliperToFluid = 4;
    b.fluidStore = fluidStore;
}

} // namespace

namespace {

heat::Brake brakeOf(Evaluator& s, const Corner& c, const Wheel& wheel)
{
    heat::Brake b;
    if (c.brakes == BrakeKind::Drums) {
        b = drumBrake(s, c);
    } else {
        addRing(s, c, b);
        addHat(s, c.rotor, b);
        addPadsAndCaliper(s, c, b);
    }
    b.tyreRadius = s(wheel.rollingRadius);
    b.hatToHub = hatContact;
    b.hubStore = hubMass * steelHeat;
    b.hubArea = hubSurface;
    b.hubToWheel = wheelContact;
    b.wheelArea = wheelSurface;
    b.duct = s.orElse(c.duct, 1, plain);
    b.cooling = s.orElse(c.cooling, 1, plain);
    return b;
}

} // namespace

heat::Brake thermalBrake(Evaluator& s, const SetupParts& setup, Axle axle)
{
    const auto& [corner, wheel] = setup.at(axle);
    if (!corner || !wheel) {
        heat::Brake none;
        none.ringMass = missing;
        return none;
    }
    return s.part({ "thermal brake", { corner, wheel } }, [&] { return brakeOf(s, *corner, *wheel); });
}

double measuredTo(Evaluator& s, const Corner& c)
{
    const auto& measured = c.brakes == BrakeKind::Drums ? c.drum.frictionOverTemperature : c.pad.frictionOverTemperature;
    if (measured.size() < 2)
        return std::numeric_limits<double>::infinity();
    std::vector<double> at;
    for (const FrictionPoint& p : measured)
        at.push_back(s(p.temperature, plain));
    std::ranges::sort(at, ascending);
    // Between two points far apart it may do anything.
    std::size_t i = 0;
    while (i + 1 < at.size() && at[i + 1] - at[i] <= pointsApart)
        ++i;
    return at[i];
}

bool ThermalCar::operator==(const ThermalCar& o) const
{
    const auto tyres = [](const heat::Road& r) { return std::tuple { r.mass, r.dragArea, r.rolling, r.spinning }; };
    const auto axle = [](const stopping::AxleBrakes& a) {
        return std::tuple { a.pistonArea, a.effectiveRadius, a.brakeFactor, a.tyreRadius };
    };
    const auto brakesOf = [&](const stopping::Brakes& b) {
        return std::tuple { axle(b.front), axle(b.rear), b.kneePressure, b.slope, b.rearOverFront };
    };
    return tyres(road) == tyres(o.road) && front == o.front && rear == o.rear && frontFriction == o.frontFriction
        && rearFriction == o.rearFriction && ambient == o.ambient && brakesOf(brakes) == brakesOf(o.brakes)
        && mostPressure == o.mostPressure && grip == o.grip;
}

ThermalCar thermalCar(Evaluator& s, const Build& build, const SetupParts& setup)
{
    ThermalCar car;
    car.balance = carOf(s, build.car);
    const double airDensity = airDensityOf(s, build);
    car.road = { car.balance.mass, airDensity * car.balance.dragArea };
    car.front = thermalBrake(s, setup, Axle::Front);
    car.rear = thermalBrake(s, setup, Axle::Rear);
    car.front.airDensity = car.rear.airDensity = airDensity;
    if (setup.front.corner)
        car.frontFriction = frictionCurve(s, *setup.front.corner);
    if (setup.rear.corner)
        car.rearFriction = frictionCurve(s, *setup.rear.corner);
    car.ambient = build.wants.ambient.value ? s(build.wants.ambient, plain) : 293.15;
    car.brakes = brakesOf(s, build, setup);
    // What foot and tyres can do is looked at beside the sum: a run goes on without it, and its verdict asks for it.
    constexpr double endless = std::numeric_limits<double>::infinity();
    Evaluator beside;
    const double greatest = setting(build.wants.greatestEffort, &Wants::greatestEffort);
    const double pressure = hydraulics::frontPressure(footOf(beside, build, *setup.hydraulics), greatest);
    car.mostPressure = std::isfinite(pressure) ? pressure : endless;
    double grip = 0;
    for (const AxleParts* axle : { &setup.front, &setup.rear })
        grip = std::max(grip, axle->wheel && axle->wheel->grip.value ? *axle->wheel->grip.value : endless);
    car.grip = grip;
    return car;
}

double pressureFor(const ThermalCar& car, double force, double front, double rear)
{
    stopping::Brakes now = car.brakes;
    now.front.brakeFactor *= front;
    now.rear.brakeFactor *= rear;
    return stopping::pressureFor(car.balance, now, force / (car.balance.mass * standardGravity));
}

heat::Car runnable(const ThermalCar& car)
{
    heat::Car runs;
    runs.road = car.road;
    runs.front = car.front;
    runs.rear = car.rear;
    runs.ambient = car.ambient;
    runs.frontFriction = [curve = car.frontFriction](double t) { return curve.at(t); };
    runs.rearFriction = [curve = car.rearFriction](double t) { return curve.at(t); };
    runs.frontShare = [car](double force, double front, double rear) {
        stopping::Brakes now = car.brakes;
        now.front.brakeFactor *= front;
        now.rear.brakeFactor *= rear;
        // Of no force the share is that of a very small one.
        const double some = std::max(force, 1.0);
        const auto forces =
            stopping::brakeForces(now, stopping::pressureFor(car.balance, now, some / (car.balance.mass * standardGravity)));
        return forces.front / forces.sum();
    };
    if (std::isfinite(car.mostPressure))
        runs.mostForce = [car](double front, double rear) {
            stopping::Brakes now = car.brakes;
            now.front.brakeFactor *= front;
            now.rear.brakeFactor *= rear;
            return stopping::brakeForces(now, car.mostPressure).sum();
        };
    runs.grip = car.grip;
    return runs;
}

double liningArea(Evaluator& s, const Corner& c)
{
    if (c.brakes == BrakeKind::Discs)
        return 2 * padArea(s, c);
    return 2 * s.orElse(c.drum.shoeArc, usualShoeArc, plain) * s(c.drum.insideDiameter) / 2 * s(c.drum.shoeWidth);
}

heat::Duty dutyOf(Evaluator& s, const Build& build, const DutyPlan& plan)
{
    heat::Duty duty { plan.id, plan.name, {}, s.orElse(plan.engineBraking, 0, plain), s.orElse(plan.towed, 0, plain) };
    if (!plan.load.empty()) {
        const auto load = std::ranges::find(build.loads, ElementId { plan.load }, &LoadCase::id);
        if (load == build.loads.end())
            duty.added = missing;
        else
            for (const Carried& each : load->carried)
                duty.added += s(each.mass, plain);
    }
    int stop = 0;
    for (int round = 0; round < std::max(1, *plan.repeats); ++round)
        for (const Leg& leg : plan.legs) {
            const bool goesOn = !leg.from.value && !duty.phases.empty();
            heat::Phase phase { goesOn ? duty.phases.back().to : s(leg.from, plain), s(leg.to, plain), s(leg.time, plain), false,
                s.orElse(leg.slope, 0, plain), 0 };
            phase.braking = leg.braking == YesNo::Yes || (leg.braking == YesNo::Unknown && phase.from > phase.to);
            stop += phase.braking;
            phase.stop = stop;
            duty.phases.push_back(phase);
            if (duty.phases.size() > 20'000)
                return duty;
        }
    return duty;
}

double unsureShareOf(const Build& build, const DutyPlan& plan)
{
    const auto width = [](const Reading& r) { return r.value ? uncertainty(r, false) : 0; };
    // Heat of a braking goes with v₁² − v₂², its loss with the time; the widths of all legs add up.
    double heat = 0;
    double off = 0;
    double last = 0;
    double lastWidth = 0;
    double time = 0;
    double timeOff = 0;
    for (const Leg& leg : plan.legs) {
        const double from = leg.from.value.value_or(last);
        const double fromWidth = leg.from.value ? width(leg.from) : lastWidth;
        last = leg.to.value.value_or(from);
        lastWidth = width(leg.to);
        heat += std::abs(from * from - last * last);
        off += 2 * (from * fromWidth + last * lastWidth);
        time += leg.time.value.value_or(0);
        timeOff += width(leg.time);
    }
    double added = 0;
    for (const LoadCase& load : build.loads)
        if (load.id.text == plan.load)
            for (const Carried& each : load.carried)
                added += width(each.mass);
    added += width(plan.towed);
    const double mass = build.car.mass.value.value_or(0);
    return (heat > 0 ? off / heat : 0) + (time > 0 ? timeOff / time : 0) + (mass > 0 ? added / mass : 0);
}

const DutyPlan* judgedDuty(const Build& build)
{
    for (const DutyPlan& each : build.duties)
        if (each.id == build.car.duty)
            return &each;
    return build.duties.empty() || !build.car.duty.empty() ? nullptr : &build.duties.front();
}

double fluidAge(Evaluator& s, const Build& build, const Hydraulics& h)
{
    constexpr double aDay = 86400;
    std::optional<int> lastDay;
    std::optional<int> changed;
    for (const LogEntry& entry : build.log)
        if (const auto day = dayOf(entry.date)) {
            lastDay = std::max(lastDay.value_or(*day), *day);
            if (entry.event == LogEvent::Fluid)
                changed = std::max(changed.value_or(*day), *day);
        }
    for (const TestSession& session : build.tests)
        if (const auto day = dayOf(session.date))
            lastDay = std::max(lastDay.value_or(*day), *day);
    const auto read = dayOf(h.fluidAge.date);
    if (changed && (!h.fluidAge.value || (read && *changed > *read)))
        return (*lastDay - *changed) * aDay;
    const double since = read && lastDay ? std::max(0, *lastDay - *read) * aDay : 0;
    return s(h.fluidAge, plain) + since;
}

double fluidBoils(Evaluator& s, const Build& build, const Hydraulics& h)
{
    constexpr double zero = 273.15;
    constexpr double wetAfter = 2 * 365.25 * 86400;
    double dry = missing;
    double wet = missing;
    switch (h.fluid) {
    case FluidClass::Dot3:
        dry = 205 + zero, wet = 140 + zero;
        break;
    case FluidClass::Dot4:
        dry = 230 + zero, wet = 155 + zero;
        break;
    case FluidClass::Dot51:
        dry = 260 + zero, wet = 180 + zero;
        break;
    case FluidClass::Unknown:
        break;
    }
    if (h.dryBoiling.value)
        dry = s(h.dryBoiling, plain);
    if (h.wetBoiling.value)
        wet = s(h.wetBoiling, plain);
    // Clausius and Clapeyron with R·T²/ΔH of some 35 K (glycol ethers near 500 K, 60 kJ/mol; common practice).
    constexpr double fallsBy = 35;
    const double lower = fallsBy * std::log(airDensityOf(s, build));
    const double age = fluidAge(s, build, h) / wetAfter;
    constexpr double aYear = 0.2; // a tenth of the fall a year, two years the unit
    constexpr double mostBeyond = 0.5;
    return dry + lower + (std::min(dry, wet) - dry) * (std::clamp(age, 0.0, 1.0) + std::clamp(aYear * (age - 1), 0.0, mostBeyond));
}

} // namespace deepstop::figures
