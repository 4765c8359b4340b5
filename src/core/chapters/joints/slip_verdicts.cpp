#include "figures/brake_figures.hpp"
#include "chapters/joints/joint_checks.hpp"
#include "language/language.hpp"

namespace deepstop {
namespace {

/// Whether friction holds what the brake pushes with.
class SlipCheck : public JointChecks {
public:
    using JointChecks::JointChecks;

    void add() { slip(); }

private:
    static double frictionOf(const Joint& joint) { return joint.faces == Faces::Clean ? joints::jointFriction : joints::coatedFriction; }
    /// Two bolts hold a caliper or its bracket; more stand in a circle round the axle.
    [[nodiscard]] bool isPair() const { return joint_.bolts <= 2; }

    /// What one bolt has to carry of the brake's largest torque, N.
    /// @param joint this one, or the one like it of the car as found
    double carried(Evaluator& s, const SetupParts& setup, const Joint& joint) const
    {
        const Corner& corner = *setup.at(axle_).corner;
        const double brake = figures::largestBrakeTorque(s, *study_.build, setup, axle_);
        return isPair()
            ? joints::forceOnPairBolt(brake, figures::effectiveRadius(s, corner), s(joint.mountRadius), s(corner.mount.boltSpacing))
            : joints::forceOnCircleBolt(brake, joint.bolts, s(joint.mountRadius));
    }

    /// The car maker's own joint of the car as found that this one still is: same bolts, torque, pattern and at least its friction.
    [[nodiscard]] const Joint* carMakersOwn(const SetupParts& asFound) const
    {
        const Corner* corner = asFound.at(axle_).corner;
        if (!corner || joint_.joins == Joins::Unknown || joint_.boltClass == BoltClass::Unknown || joint_.condition == Condition::Unknown)
            return nullptr;
        constexpr double samePlace = 0.5e-3;
        for (const Joint& own : corner->joints) {
            const bool sameBolts = own.joins == joint_.joins && own.thread == joint_.thread && own.bolts == joint_.bolts
                && own.boltClass == joint_.boltClass && own.condition == joint_.condition
                && own.proofStress.value == joint_.proofStress.value;
            const bool sameTorque = own.makerTorque.value && own.makerTorque.value == joint_.makerTorque.value;
            const bool sameSite = own.mountRadius.value && joint_.mountRadius.value
                && std::abs(*own.mountRadius.value - *joint_.mountRadius.value) <= samePlace;
            if (own.carMakers == YesNo::Yes && sameBolts && sameTorque && sameSite && frictionOf(joint_) >= frictionOf(own))
                return &own;
        }
        return nullptr;
    }

    /// What this joint carries over what the car's maker has the same joint carry with his own brakes; no value where there is no such
    /// joint.
    [[nodiscard]] Figure overCarMakers() const
    {
        const SetupParts asFound = partsOf(*study_.build, study_.build->setups.front());
        const Joint* own = carMakersOwn(asFound);
        return own ? evaluate([&](Evaluator& s) { return carried(s, study_.after, joint_) / carried(s, asFound, *own); }) : Figure {};
    }

    void slip()
    {
        // Some bolts of a corner carry the brake: without a mount radius it is not known which.
        const bool said = std::ranges::any_of(corner_.joints, [](const Joint& each) { return each.mountRadius.value.has_value(); });
        if (!joint_.mountRadius.value && (said || &joint_ != &corner_.joints.front()))
            return;
        const double friction = frictionOf(joint_);
        Verdict& v = start(checks::jointSlip, tr("slip under braking"),
            evaluate([&](Evaluator& s) { return friction * preload(s) / carried(s, study_.after, joint_); }), style::number);
        v.method = tr("Friction {:g} × preload of a bolt over what it has to carry. {} The largest brake torque is what a foot in "
                      "panic presses at the pads' highest friction, or what the tyre can turn and the wheel's own inertia as it "
                      "locks, whichever is less. Preload by torque may be off by a quarter, and never counts over the proof load. "
                      "A joint of the car's own maker that carries no more than with his own brakes is good. "
                      "Bending of a bracket is not proven by this program.",
            friction,
            isPair() ? tr(
                "The pads push with T/r along the rotor; two bolts take half of it each, and the couple of that force about their middle.")
                     : tr("Bolts round the axle share the torque by their distance from it."));
        v.source = tr("Plane statics; friction 0.15 clean and bare, 0.10 otherwise, ±25 % and the safety factor wanted: common practice.");
        v.caution = tr("Have adapters, brackets and machined knuckles judged by a qualified engineer.");
        lack(v, !thread_, "thread");
        lackClass(v);
        lack(v, joint_.condition == Condition::Unknown, tr("condition of the threads"));
        lack(v, joint_.bolts <= 0, tr("number of bolts"));
        if (v.figure.value)
            v.figure.worstCase += joints::preloadScatter * *v.figure.value;
        if (!judge::unproven(study_, v))
            judgeSlip(v);
    }

    void judgeSlip(Verdict& v) const
    {
        const double wanted = figures::setting(study_.build->wants.slipMargin, &Wants::slipMargin);
        v.wanted = wanted;
        Evaluator s;
        const double force = isPair()
            ? figures::largestBrakeTorque(s, *study_.build, study_.after, axle_) / figures::effectiveRadius(s, corner_)
            : carried(s, study_.after, joint_) * joint_.bolts;
        const double shear = joints::bearingMargin(*thread_, proofStress(s), preload(s), force);
        // What shear holds twice over does not come off when it slips: it wears, and comes loose.
        constexpr double shearHolds = 2;
        const Figure over = overCarMakers();
        // No more for certain, or the very same parts.
        const bool asCarMaker = over.value && !over.provisional() && (over.highest() <= 1 + 1e-9 || std::abs(*over.value - 1) < 1e-9);
        v.level = v.figure.lowest() >= wanted || (asCarMaker && shear >= 1) ? Level::Good
            : v.figure.lowest() < 1 && !(shear >= shearHolds)               ? Level::Stop
                                                                            : Level::Caution;
        v.reason = tr("Friction holds {:.2f} times what a bolt has to carry, {:.2f} at worst, {:.2f} wanted; slipped, one bolt in "
                      "shear holds {:.1f} times",
            *v.figure.value, v.figure.lowest(), wanted, shear);
        if (joint_.faces == Faces::Unknown)
            v.reason += tr(". Worked out with painted or oily faces: what they are is not said");
        if (v.level == Level::Good && v.figure.lowest() < wanted)
            v.reason += tr(". It is the car maker's own joint and carries no more than with his own brakes");
        else if (v.figure.lowest() < 1)
            v.reason += tr(": it may slip; larger or stronger bolts, bare faces, or dowels");
        if (over.value && !asCarMaker)
            v.reason += tr(". {} of what the car's maker has this joint carry{}", judge::percentOf(*over.value),
                over.provisional() ? tr(", on estimates") : "");
    }
};

} // namespace

void addSlipCheck(Study& study, Axle axle, std::size_t index) { SlipCheck(study, axle, index).add(); }

} // namespace deepstop
