#include "search/trial.hpp"

#include "chapters/balance/balance_chapter.hpp"
#include "chapters/balance/checks.hpp"
#include "chapters/clearance/checks.hpp"
#include "chapters/clearance/clearance_parts.hpp"
#include "chapters/heat/checks.hpp"
#include "chapters/heat/duty_heat.hpp"
#include "chapters/heat/heat_chapter.hpp"
#include "chapters/parts/checks.hpp"
#include "chapters/parts/parts.hpp"
#include "design/order.hpp"
#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace deepstop::search {
namespace {

constexpr double unknown = std::numeric_limits<double>::quiet_NaN();
constexpr const char* triedWheel = "search-wheel";

constexpr std::array<const Check*, 4> hubChecks { &checks::bore, &checks::hubPocket, &checks::boltCircle, &checks::drumInHat };
constexpr std::array<const Check*, 1> parkingChecks { &checks::parkingBrake };
constexpr std::array<const Check*, 1> padChecks { &checks::padWindow };
constexpr std::array<const Check*, 1> edgeChecks { &checks::padEdge };
constexpr std::array<const Check*, 4> brackets { &design::checks::plateThickness, &design::checks::plateWalls, &design::checks::plateEdges,
    &design::checks::plateSeat };
constexpr std::array<const Check*, 9> roomChecks { brackets[0], brackets[1], brackets[2], brackets[3], &checks::bridgeGap, &checks::faceGap,
    &checks::hatGap, &checks::bracketGap, &checks::fixedParts };
constexpr std::array<const Check*, 3> travelChecks { &checks::pistonStroke, &checks::padSlot, &checks::slides };
constexpr std::array<const Check*, 8> seatChecks { &checks::nutSeat, &checks::studs, &checks::boltEnd, &checks::nutBottom, &checks::pilot,
    &checks::wheelPlace, &checks::fenderRoom, &checks::innerRoom };
constexpr std::array<const Check*, 4> wheelChecks { &checks::barrelGap, &checks::insetGap, &checks::spokeGap, &checks::keepOut };
constexpr std::array<const Check*, 3> lockChecks { &checks::lockOrder, &checks::rearUse, &checks::yardstick };
constexpr std::array<const Check*, 5> pedalChecks { &checks::effort, &checks::travel, &checks::booster, &checks::circuits, &checks::fluid };
constexpr std::array<const Check*, 4> heatChecks { &checks::stopRise, &checks::drilled, &checks::firstLimit, &checks::padsLast };

double& at(Gains& gains, Gain gain) { return gains[static_cast<std::size_t>(gain)]; }
double highest(const Figure& figure) { return figure.value ? figure.highest() : unknown; }

/// What a failed check wants more: beyond what is wanted, or of room that is less than none.
double shortOf(const Verdict& v)
{
    if (!v.figure.value)
        return unknown;
    return v.wanted ? std::abs(*v.wanted - *v.figure.value) : *v.figure.value < 0 ? -*v.figure.value : unknown;
}

void rate(Outcome& outcome, const std::string& id, Level level, double shortBy)
{
    if (isBad(level)) {
        outcome.failed = id;
        outcome.shortBy = shortBy;
    } else if (!isFine(level)) {
        outcome.doubts.push_back({ id, level });
    }
}

} // namespace

bool isOf(const std::string& id, const Check& check, Axle axle)
{
    if (check.name.find('#') == std::string_view::npos)
        return id == idOf(check, { axle });
    const std::string pattern = idOf(check, { axle, {}, 1 });
    const auto number = pattern.find('1');
    const auto tail = std::string_view(pattern).substr(number + 1);
    if (!id.starts_with(std::string_view(pattern).substr(0, number)) || !id.ends_with(tail))
        return false;
    const auto digits = std::string_view(id).substr(number, id.size() - number - tail.size());
    return !digits.empty() && std::ranges::all_of(digits, [](char c) { return c >= '0' && c <= '9'; });
}

std::vector<const Check*> orderOfChecks()
{
    std::vector<const Check*> all;
    const auto add = [&](const auto& checks) { all.insert(all.end(), checks.begin(), checks.end()); };
    add(hubChecks);
    add(parkingChecks);
    add(padChecks);
    add(edgeChecks);
    add(roomChecks);
    add(travelChecks);
    add(seatChecks);
    add(wheelChecks);
    add(lockChecks);
    add(pedalChecks);
    add(heatChecks);
    return all;
}

bool isOfDriving(const Check& check)
{
    const auto among = [&](const auto& checks) { return std::ranges::count(checks, &check) > 0; };
    return among(lockChecks) || among(pedalChecks) || among(heatChecks);
}

Trial::Trial(const Query& query, Axle axle) : query_(query), axle_(axle), build_(std::make_shared<Build>(*query.study->build))
{
    const Study& study = *query.study;
    const AxleParts& replaced = study.after.at(axle);
    build_->wheels.emplace_back();
    Setup tried = *findSetup(*build_, study.after.setup->id);
    tried.id = setupId;
    build_->setups.push_back(std::move(tried));
    corner_ = &ownCorner(*build_, setupId, axle);
    setup_ = &*std::ranges::find(build_->setups, setupId, &Setup::id);
    hydraulics_ = *study.after.hydraulics;
    if (!query.duty.empty())
        build_->car.duty = query.duty;
    if (replaced.corner)
        base_ = *replaced.corner;
    base_.brakes = BrakeKind::Discs;
    base_.drum = {};
    base_.costs = {};
    if (query.mount != MountKind::Unknown)
        base_.mount.kind = query.mount;
    // Those parts are other ones now; what was weighed together with them has to be weighed again.
    std::erase_if(base_.weighings,
        [](const Weighing& w) { return std::ranges::any_of(w.contains, [](Part p) { return p != Part::Hose && p != Part::Hardware; }); });
    std::erase_if(base_.joints, [](const Joint& joint) { return joint.joins == Joins::RingToHat; });
    for (const std::string& id : query.alsoClear)
        if (const Wheel* wheel = findWheel(*study.build, id))
            also_.push_back(*wheel);
    basis_.study = query.study;
    basis_.axle = axle;
    before_ = partsOf(*build_, *findSetup(*build_, study.before.setup->id));
    on_.fill(every);
}

void Trial::put(const Choice& choice)
{
    Choice now = on_;
    for (const Kind kind : kinds)
        if (at(choice, kind) != every || at(now, kind) == every)
            at(now, kind) = at(choice, kind) == every ? 0 : at(choice, kind);
    if (now == on_)
        return;
    const Choice was = std::exchange(on_, now);
    parts_.reset();
    whole_.reset();
    const auto changed = [&](Kind kind) { return at(was, kind) != at(now, kind); };
    if (changed(Kind::Wheel)) {
        const auto& shelved = query_.parts.wheels[at(now, Kind::Wheel)];
        basis_.wheels = { &shelved.part };
        for (const Wheel& wheel : also_)
            basis_.wheels.push_back(&wheel);
        build_->wheels.back() = shelved.part;
        build_->wheels.back().id = triedWheel;
    }
    if (changed(Kind::Master)) {
        const auto& shelved = query_.parts.masters[at(now, Kind::Master)];
        Hydraulics hydraulics = hydraulics_;
        if (!shelved.id.empty()) {
            hydraulics.masterBore = shelved.part.bore;
            hydraulics.masterStroke = shelved.part.stroke;
            // A pressure read on the line was made by the other cylinder.
            hydraulics.linePressure = {};
        }
        setup_->hydraulics = hydraulics;
    }
    if (changed(Kind::Rotor) || changed(Kind::Caliper) || changed(Kind::Pad))
        placeParts();
}

void Trial::putOther(Trial& other)
{
    other.weighBracket(*other.corner_, Known::Vendor);
    Corner& here = ownCorner(*build_, setupId, other.axle_);
    here = *other.corner_;
    const std::string& wheel = query_.parts.wheels[at(other.on_, Kind::Wheel)].id;
    // The same wheels all round, or one of the build's own behind.
    here.wheel = wheel == query_.parts.wheels[at(on_, Kind::Wheel)].id ? triedWheel : wheel;
    bothAxles_ = true;
    whole_.reset();
    parts_.reset();
}

void Trial::placeParts()
{
    const auto& parts = query_.parts;
    const auto& caliper = parts.calipers[at(on_, Kind::Caliper)];
    const auto& pad = parts.pads[at(on_, Kind::Pad)];
    basis_.corner = base_;
    basis_.corner.caliper = caliper.part;
    basis_.corner.pad = pad.part;
    maker_.emplace(basis_);
    *corner_ = corner(Known::Vendor);
    corner_->wheel = triedWheel;
}

Corner Trial::corner(Known known) const
{
    const auto& rotor = query_.parts.rotors[at(on_, Kind::Rotor)];
    Corner c = maker_->with(rotor.part, known);
    const auto weigh = [&](const Reading& mass, Part part) {
        if (!mass.value)
            return;
        Weighing& weighing = c.weighings.emplace_back();
        weighing.mass = mass;
        weighing.contains = { part };
    };
    weigh(rotor.mass, Part::Rotor);
    weigh(query_.parts.calipers[at(on_, Kind::Caliper)].mass, Part::Caliper);
    weigh(query_.parts.pads[at(on_, Kind::Pad)].mass, Part::Pads);
    return c;
}

Corner Trial::kitToOrder()
{
    Corner c = corner(Known::Design);
    weighBracket(c, Known::Design);
    const auto& rotor = query_.parts.rotors[at(on_, Kind::Rotor)];
    const auto& pad = query_.parts.pads[at(on_, Kind::Pad)];
    c.rotor.from = rotor.id;
    c.caliper.from = query_.parts.calipers[at(on_, Kind::Caliper)].id;
    c.costs.rotors = rotor.price;
    c.costs.pads = pad.price;
    return c;
}

void Trial::weighBracket(Corner& corner, Known known) const
{
    std::erase_if(corner.weighings, [](const Weighing& w) { return std::ranges::count(w.contains, Part::Bracket) > 0; });
    const double mass = design::bracketMass(*maker_, maker_->proposalFor(corner.rotor));
    if (!std::isfinite(mass))
        return;
    Weighing& weighing = corner.weighings.emplace_back();
    weighing.mass = { mass, 0.03 * mass, known, {}, {} };
    weighing.contains = { Part::Bracket };
}

bool Trial::slides() const { return query_.parts.calipers[at(on_, Kind::Caliper)].part.kind != CaliperKind::Fixed; }

Study Trial::fresh() const
{
    const Study& of = *query_.study;
    Study s;
    s.build = build_;
    s.remedies = Remedies::LeftOut;
    s.system = of.system;
    s.directory = of.directory;
    s.before = before_;
    s.after = partsOf(*build_, *setup_);
    s.working = std::make_shared<Memory>(of.directory->entries().size());
    return s;
}

Outcome Trial::said(const Study& study, std::span<const Check* const> checks) const
{
    Outcome outcome;
    for (const Check* check : checks)
        for (const Verdict& v : study.verdicts) {
            if (v.check != check || v.found || (check->of != CheckOf::Car && v.axle != axle_ && !bothAxles_))
                continue;
            rate(outcome, v.id, v.level, shortOf(v));
            if (!outcome) {
                outcome.style = v.style;
                return outcome;
            }
        }
    return outcome;
}

/// Gaps and what can be made, by the chapter's own sums, without its drawings.
Outcome Trial::kept(std::span<const Check* const> checks)
{
    Outcome outcome;
    smallestGap_ = std::numeric_limits<double>::infinity();
    const auto limits = design::limitsOf(*maker_);
    const design::Proposal proposal = maker_->proposalFor(corner_->rotor);
    for (const Check* check : checks)
        for (const design::Limit& limit : limits) {
            if (!isOf(limit.id, *check, axle_))
                continue;
            const Figure gap = limit.gap(proposal, *corner_);
            const Level level = levelOf(*check, gap, limit.wanted);
            if (check == &checks::barrelGap || check == &checks::insetGap || check == &checks::spokeGap)
                smallestGap_ = gap.value && !std::isnan(smallestGap_) ? std::min(smallestGap_, gap.lowest()) : unknown;
            rate(outcome, limit.id, level, gap.value ? limit.wanted - gap.lowest() : unknown);
            if (!outcome)
                return outcome;
        }
    return outcome;
}

/// Metal that is thinner than it has to be is no bracket.
Level Trial::levelOf(const Check& check, const Figure& gap, double wanted) const
{
    const Level level = gapLevel(gap, wanted);
    return level == Level::Tight && std::ranges::count(brackets, &check) > 0 ? Level::Stop : level;
}

std::vector<Trial::OfBracket> Trial::bracket()
{
    std::vector<OfBracket> all;
    for (const design::Limit& limit : design::limitsOf(*maker_))
        for (const Check* check : brackets)
            if (isOf(limit.id, *check, axle_)) {
                Figure gap = limit.gap(maker_->proposalFor(corner_->rotor), *corner_);
                const Level level = levelOf(*check, gap, limit.wanted);
                all.push_back({ limit, std::move(gap), level });
            }
    return all;
}

const Study& Trial::partsSaid()
{
    if (!parts_) {
        parts_ = fresh();
        addBenchVerdicts(*parts_, axle_);
    }
    return *parts_;
}

Outcome Trial::hub() { return said(partsSaid(), hubChecks); }
Outcome Trial::parking() { return said(partsSaid(), parkingChecks); }
Outcome Trial::pads() { return said(partsSaid(), padChecks); }
Outcome Trial::travel() { return said(partsSaid(), travelChecks); }
Outcome Trial::room() { return kept(roomChecks); }

Outcome Trial::wheel()
{
    Outcome outcome = kept(wheelChecks);
    outcome.clearance = std::isfinite(smallestGap_) ? smallestGap_ : unknown;
    return outcome;
}

Outcome Trial::edge()
{
    Study s = fresh();
    s.keep(clearance::clearanceOn(s, axle_, {}));
    clearance::addRoomVerdicts(s, axle_);
    return said(s, edgeChecks);
}

Outcome Trial::seat()
{
    Study s = fresh();
    s.keep(clearance::clearanceOn(s, axle_, {}));
    clearance::addSeatVerdicts(s, axle_);
    return said(s, seatChecks);
}

/// What was before is told in words only by balance and heat, never judged.
Study Trial::drivenStudy() const
{
    Study s = fresh();
    s.before = s.after;
    drawBalance(s);
    return s;
}

double Trial::locksApart() const
{
    const SetupParts parts = partsOf(*build_, *setup_);
    if (!figures::unsaidOf(parts).empty())
        return unknown;
    const auto apart = [&](const LoadCase* load) {
        return nominal([&](Evaluator& e) { return deepstop::locksApart(e, *build_, parts, load); });
    };
    double least = apart(nullptr);
    for (const LoadCase& load : build_->loads)
        if (const double with = apart(&load); !(with >= least) && !std::isnan(least))
            least = with;
    return least;
}

Outcome Trial::locks()
{
    Study s = drivenStudy();
    addBalanceVerdicts(s);
    return said(s, lockChecks);
}

Outcome Trial::pedal()
{
    whole_ = drivenStudy();
    addPedal(*whole_);
    return said(*whole_, pedalChecks);
}

Outcome Trial::heat()
{
    addHeat(*whole_);
    return said(*whole_, heatChecks);
}

void Trial::addWeight(Gains& gains)
{
    weighBracket(*corner_, Known::Vendor);
    const Figure mass = evaluate([&](Evaluator& e) {
        std::vector<std::string> lacks;
        return figures::cornerMass(e, *corner_, lacks);
    });
    at(gains, Gain::Weight) = highest(mass);
}

void Trial::addDriven(Gains& gains)
{
    const Study& s = *whole_;
    at(gains, Gain::Effort) = highest(s.of<Balance>().after.effort);
    if (const Verdict* v = s.verdict(checks::firstLimit); v && v->figure.value)
        at(gains, Gain::HeatMargin) = v->figure.lowest();
    const DutyHeat& heat = s.of<DutyStudy>().after;
    if (heat.run && heat.run->complete && !heat.run->course.empty() && heat.known.lacks.empty()) {
        figures::StopOf hot;
        hot.frontFriction = heat.run->course.back().frontFriction;
        hot.rearFriction = heat.run->course.back().rearFriction;
        at(gains, Gain::HotStop) = nominal([&](Evaluator& e) { return figures::drive(e, *build_, s.after, hot, false).distance; });
    }
}

double Trial::priceOf(Kind kind) const
{
    const auto pay = [](const auto& shelved) { return shelved.price.value.value_or(unknown); };
    const auto place = at(on_, kind);
    const Parts& parts = query_.parts;
    switch (kind) {
    case Kind::Rotor:
        return pay(parts.rotors[place]);
    case Kind::Caliper:
        return pay(parts.calipers[place]);
    case Kind::Pad:
        return pay(parts.pads[place]);
    // Wheels and a master cylinder that are on the car cost nothing.
    case Kind::Wheel:
        return findWheel(*query_.study->build, parts.wheels[place].id) ? 0 : pay(parts.wheels[place]);
    case Kind::Master:
        return parts.masters[place].id.empty() ? 0 : pay(parts.masters[place]);
    }
    return unknown;
}

void Trial::addPrice(Gains& gains) const
{
    double price = 0;
    for (const Kind kind : kinds)
        price += priceOf(kind);
    at(gains, Gain::Price) = price;
}

} // namespace deepstop::search
