#include "jobcard/jobcard.hpp"

#include "build/words.hpp"
#include "figures/figures.hpp"
#include "jobcard/bedding.hpp"
#include "language/language.hpp"

#include <fmt/format.h>

#include <cmath>

namespace deepstop::jobcard {

Procedure bleedingOf(const Study& study, const JobCard& choices)
{
    Procedure s;
    const auto wheel = [](int i) {
        static constexpr const char* names[] { marked("rear, the side away from the master cylinder"), marked("rear, its side"),
            marked("front, the side away from it"), marked("front, its side") };
        return std::string(tr(names[i]));
    };
    switch (choices.bleedOrder) {
    case BleedOrder::FurthestFirst:
    case BleedOrder::Unknown:
        s.title = choices.bleedOrder == BleedOrder::Unknown
            ? tr("Order of bleeding, default: furthest wheel first until the maker says otherwise")
            : tr("Furthest wheel first");
        s.why = tr("The longest line holds the most old fluid and air: begun there, nothing is drawn back into what is done.");
        for (int i = 0; i < 4; ++i)
            s.steps.push_back(wheel(i));
        break;
    case BleedOrder::NearestFirst:
        s.title = tr("Nearest wheel first");
        s.why = tr("The front calipers take the most fluid: some makers clear them first so that the master gets firm.");
        for (int i = 3; i >= 0; --i)
            s.steps.push_back(wheel(i));
        break;
    case BleedOrder::Maker:
        s.title = tr("In the order the car's maker gives");
        s.why = tr("Diagonal circuits and antilock units have an order of their own; some want a tool that opens their valves.");
        s.steps.emplace_back(tr("each wheel as the maker's manual numbers it"));
        break;
    }
    switch (choices.bleedMethod) {
    case BleedMethod::TwoPeople:
    case BleedMethod::Unknown:
        s.why += tr(" Two people: slow strokes over the usual travel only, the bleeder shut before the pedal comes back.");
        break;
    case BleedMethod::Pressure:
        s.why += tr(" Pressure: one person, no worn seals run over; under the pressure the reservoir bears (usually 1 bar).");
        break;
    case BleedMethod::Vacuum:
        s.why += tr(" Vacuum: one person; air drawn past the bleeder's thread looks like air in the line, so finish with the pedal.");
        break;
    case BleedMethod::Gravity:
        s.why += tr(" Gravity: slow and gentle; watch that the reservoir never runs dry.");
        break;
    }
    bool both = false;
    for (const Axle axle : { Axle::Front, Axle::Rear })
        if (const Corner* c = study.after.at(axle).corner)
            both = both || (c->brakes == BrakeKind::Discs && c->caliper.bleeders == Bleeders::BothEnds);
    if (both)
        s.why += choices.bleederFirst == BleederFirst::Inner
            ? tr(" Inner bleeder of each caliper first: fluid comes in there; then the outer.")
            : choices.bleederFirst == BleederFirst::Outer ? tr(" Outer bleeder of each caliper first: the farther half; then the inner.")
                                                          : tr(" Outer bleeder of each caliper first until its maker says otherwise.");
    return s;
}

namespace {

/// "ten slow-downs from 97 km/h to 48 km/h, firmly, 60 s apart (faces to 310 °C by the heat model)" for equal ones in a row.
std::vector<std::string> passesOf(const Study& study, const BeddingPlan& plan)
{
    const auto v = [&](double speed) { return print(speed, style::speed, study.system); };
    std::vector<std::string> steps;
    for (std::size_t i = 0; i < plan.passes.size();) {
        const SlowDown& first = plan.passes[i];
        std::size_t k = i;
        double hottest = 0;
        for (; k < plan.passes.size() && plan.passes[k].from == first.from && plan.passes[k].deceleration == first.deceleration; ++k)
            hottest = std::fmax(hottest, plan.passes[k].hottest);
        const double apart = first.driveOn + (first.from - first.to) / first.deceleration;
        constexpr double gentle = 3;
        constexpr double hard = 5;
        auto step = tr("{} slow-downs from {} to {}, {}, {}", k - i, v(first.from), v(first.to),
            first.deceleration < gentle     ? tr("gently")
                : first.deceleration > hard ? tr("hard")
                                            : tr("firmly"),
            first.driveOn > 0 ? tr("one every {:.0f} s", apart) : std::string(tr("one right after the other")));
        if (hottest > 0)
            step += tr(" (faces to {} by the heat model)", print(hottest, style::temperature, study.system));
        steps.push_back(std::move(step));
        i = k;
    }
    if (!plan.warning.empty())
        steps.back() += tr("; the heat model says {}: ask the pads' maker before driving it", plan.warning);
    else if (plan.stretched)
        steps.back() += tr("; longer apart than usual, so that no limit is reached by the heat model");
    steps.push_back(tr("then {:.0f} minutes at {} without the brakes{}", std::ceil(plan.coolFor / 60), v(plan.coolSpeed),
        plan.coolByModel ? tr(", until the heat model has the rotors under {}", print(373.15, style::temperature, study.system))
                         : std::string()));
    return steps;
}

} // namespace

Procedure beddingOf(const Study& study, const JobCard& choices)
{
    Procedure s;
    const auto plan = beddingPlanOf(study, choices);
    if (!plan.passes.empty())
        s.steps = passesOf(study, plan);
    switch (choices.bedding) {
    case Bedding::Street:
        s.title = tr("Gently, on the street");
        s.why = tr("Pads for the road settle by themselves; nothing gets hot enough to print itself onto the rotor.");
        s.steps = { tr("{} of ordinary driving without a full stop from speed", print(240e3, style::odometer, study.system)),
            tr("no long dragging, no standing on the pedal while they are hot") };
        break;
    case Bedding::SlowDowns:
    case Bedding::Unknown:
        s.title = choices.bedding == Bedding::Unknown ? tr("Bedding in, default: repeated slow-downs unless the pads' maker says otherwise")
                                                      : tr("Repeated slow-downs");
        s.why = tr("Ten even slow-downs lay an even film of lining; the drive after them cools the rotors without a print.");
        s.steps.emplace_back(tr("do not stop and hold the pedal while they are hot"));
        break;
    case Bedding::WarmThenHard:
        s.title = tr("Warm, then hard");
        s.why =
            tr("Pads for the track want their heat: warm through first so that nothing cracks, then hot enough to drive the binder out.");
        s.steps.emplace_back(tr("smoke and smell at the last ones are usual; a soft pedal is not"));
        break;
    case Bedding::Maker:
        s.title = tr("As the pads' maker says");
        s.why = tr("The maker knows the compound: its own schedule comes before any rule.");
        s.steps = { tr("the schedule in the pads' box, from its first line to its last") };
        break;
    }
    return s;
}

bool Lift::strap() const { return std::ranges::any_of(moments, &OnLift::nearArm); }

Lift liftOf(const Study& study)
{
    Lift lift;
    const Car& car = study.build->car;
    if (!car.mass.value || !car.wheelbase.value || !car.frontLoadShare.value || !study.before.complete()) {
        lift.lacks = tr("mass, wheelbase and front load of the car");
        return lift;
    }
    constexpr double usualDriver = 75; // kg, who gets out
    constexpr double seat = 0.45; // of the wheelbase, where he sat; common practice
    const double base = *car.wheelbase.value;
    double mass = *car.mass.value;
    double moment = mass * (1 - *car.frontLoadShare.value) * base;
    mass -= usualDriver;
    moment -= usualDriver * seat * base;
    lift.armsAt[0] = 0.2 * base;
    lift.armsAt[1] = 0.8 * base;
    const auto note = [&](std::string what) {
        const double at = moment / mass;
        const double toArm = std::min(at - lift.armsAt[0], lift.armsAt[1] - at);
        constexpr double near = 0.2;
        lift.moments.push_back({ std::move(what), mass, at, toArm, toArm < near * (lift.armsAt[1] - lift.armsAt[0]) });
    };
    note(tr("as it came, empty"));
    std::string taken;
    for (const Carried& part : choicesOf(*study.build, study.after.setup ? study.after.setup->id : std::string()).off) {
        if (!part.mass.value || !part.behindFrontAxle.value) {
            lift.lacks = tr("mass and place of what was taken off ({})", part.what.empty() ? tr("not named") : part.what);
            continue;
        }
        mass -= *part.mass.value;
        moment -= *part.mass.value * *part.behindFrontAxle.value;
        taken += (taken.empty() ? "" : ", ") + (part.what.empty() ? std::string(tr("a part")) : part.what);
    }
    if (!taken.empty())
        note(tr("without {}", taken));
    const std::string before = lift.lacks;
    double offMass = 0;
    double offMoment = 0;
    for (const Axle axle : { Axle::Front, Axle::Rear }) {
        const AxleParts& parts = study.before.at(axle);
        std::vector<std::string> lacks;
        Evaluator s;
        const double corner = figures::cornerMass(s, *parts.corner, lacks);
        const double wheel = parts.wheel && parts.wheel->mass.value ? *parts.wheel->mass.value : NAN;
        if (!std::isfinite(corner + wheel) || !lacks.empty()) {
            lift.lacks = tr("weights of the {} wheels and brakes", tr(wordOf(axle)));
            continue;
        }
        const double off = 2 * (corner + wheel);
        const double at = axle == Axle::Front ? 0 : base;
        // Alone, so that the worse of the two is seen.
        mass -= off;
        moment -= off * at;
        note(axle == Axle::Front ? tr("front wheels and brakes off") : tr("rear wheels and brakes off"));
        mass += off;
        moment += off * at;
        offMass += off;
        offMoment += off * at;
    }
    if (lift.lacks == before) {
        mass -= offMass;
        moment -= offMoment;
        note(tr("all wheels and brakes off"));
    }
    return lift;
}

} // namespace deepstop::jobcard
