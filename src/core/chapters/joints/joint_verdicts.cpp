#include "joints/bolts.hpp"
#include "chapters/joints/checks.hpp"
#include "chapters/joints/joint_choices.hpp"
#include "quantity/text.hpp"
#include "build/choices.hpp"
#include "chapters/joints/joints_chapter.hpp"
#include "figures/brake_figures.hpp"
#include "figures/figures.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <vector>

namespace deepstop {
namespace {

/// Threads in aluminium done up more often than this are worth a look, or an insert; common practice, no source.
constexpr int mostUsesInAluminium = 5;

constexpr double notGiven = std::numeric_limits<double>::quiet_NaN();
/// A maker's torque beyond these parts of the computed one is doubted: pounds-feet typed as newton-metres, or a figure for dry threads on
/// greased ones; common practice, no source.
constexpr double lowTorque = 0.75;
constexpr double highTorque = 1.3;

constexpr std::string_view tighten = "Start every bolt by hand before tightening any. The maker's torque outranks a computed one. Check "
                                     "again after the first drive and at 50 to 100 miles.";

class JointChecks {
public:
    JointChecks(Study& study, Axle axle, std::size_t index)
        : study_(study), axle_(axle), result_(study.after.at(axle)), corner_(*result_.corner), joint_(corner_.joints[index]),
          thread_(joints::parseThread(*joint_.thread)), number_(static_cast<int>(index) + 1),
          name_(joint_.name.empty() ? fmt::format("bolts {}", index + 1) : joint_.name)
    {
    }

    void add()
    {
        engagement();
        room();
        shank();
        torque();
        head();
        slip();
    }

private:
    std::string say(double length) const { return print(length, style::gap, study_.system); }

    Verdict& start(const Check& check, std::string_view title, Figure figure, const Style& style)
    {
        Verdict v = verdictOf(check, { axle_, {}, number_ });
        v.title = fmt::format("{}: {}", name_, title);
        v.title[0] = toUpper(v.title[0]);
        v.style = style;
        v.figure = std::move(figure);
        v.source = "Common practice; stress areas and proof stresses: ISO 898-1, from memory.";
        v.caution = tighten;
        study_.verdicts.push_back(std::move(v));
        return study_.verdicts.back();
    }

    void lack(Verdict& v, bool missing, std::string_view what)
    {
        if (!missing)
            return;
        v.lacksInWords.push_back(fmt::format("{} of {} ({})", what, name_, judge::wordFor(axle_)));
        v.figure.value.reset();
    }

    /// Shims in the grip, of both sides of the car: the thickest stack shortens the thread, the thinnest brings the bolt nearest to what is
    /// behind.
    double shims(Sample& s, bool most) const
    {
        if (joint_.shims == ShimsIn::None || joint_.shims == ShimsIn::Unknown)
            return 0;
        const bool axial = joint_.shims == ShimsIn::Axial;
        std::vector<const Reading*> stacks;
        for (const Fitted* in : { &corner_.left, &corner_.right })
            for (const Reading* of : { axial ? &in->shimTop : &in->radialTop, axial ? &in->shimBottom : &in->radialBottom })
                stacks.push_back(of);
        // Where one was read, one that was not is not known to be empty.
        const bool anyRead = std::ranges::any_of(stacks, [](const Reading* of) { return of->value.has_value(); });
        double stack = most ? 0 : std::numeric_limits<double>::infinity();
        for (const Reading* of : stacks) {
            const double height = anyRead ? s(*of) : s.orElse(*of, 0);
            stack = most ? std::max(stack, height) : std::min(stack, height);
        }
        return stack;
    }

    /// Without it nobody knows how long the grip is.
    void lackShims(Verdict& v) { lack(v, joint_.shims == ShimsIn::Unknown, "which shims lie in the grip"); }

    joints::BoltStack stack(Sample& s, bool mostShims) const
    {
        return { s(joint_.length), s(joint_.grip), shims(s, mostShims), s(joint_.threadDepth), s.orElse(joint_.roomBehind, 0),
            thread_ ? thread_->pitch : 0.0 };
    }

    void engagement()
    {
        const auto metal = metalOf(joint_.threadIn);
        Verdict& v = start(
            checks::jointThread, "thread engagement", evaluate([&](Sample& s) { return joints::fitOf(stack(s, true)).engaged; }), style::gap);
        v.method = "Bolt under its head less grip and the thicker stack of shims, less one pitch of lead; at most the thread there is. "
                   "Wanted: 1.0 bolt diameter in steel, 1.5 in iron, 2.0 in aluminium.";
        lack(v, !thread_, "thread");
        lack(v, !metal, "metal of the thread");
        lackShims(v);
        if (judge::unproven(study_, v))
            return;
        const double wanted = joints::engagementWanted(*metal) * thread_->diameter;
        v.wanted = wanted;
        const auto metalName = wordFor(joint_.threadIn, choices::threadIn);
        v.reason = fmt::format("{} of thread in {}, {} wanted", say(*v.figure.value), metalName, say(wanted));
        if (v.figure.lowest() >= wanted - 1e-9) {
            v.level = Level::Good;
            if (joint_.threadIn == ThreadIn::Aluminium && joint_.timesUsed > mostUsesInAluminium) {
                v.level = Level::Caution;
                v.reason += fmt::format("; done up {} times before: look at the thread, or put an insert in", *joint_.timesUsed);
            }
            return;
        }
        v.level = v.figure.highest() < wanted ? Level::Stop : Level::Caution;
        Sample s;
        const auto lengths = joints::lengthsThatDo(stack(s, true), wanted);
        v.reason += lengths ? fmt::format(": bolts from {} to {} long would do", say(lengths->least), say(lengths->most))
                            : std::string(": the thread itself is too short, no bolt of any length holds as wanted");
    }

    void room()
    {
        Verdict& v = start(checks::jointEnd, joint_.roomBehind.value ? "bolt protrusion" : "bolt bottoming",
            evaluate([&](Sample& s) { return joints::fitOf(stack(s, false)).roomLeft; }), style::gap);
        v.method =
            "Clearance behind the thread less how far the bolt stands out of it, with the thinner stack of shims; a blind hole has no "
            "clearance behind.";
        v.caution =
            joint_.roomBehind.value ? "A bolt that reaches the rotor cuts it." : "A bolt that bottoms feels tight and holds nothing.";
        lack(v, !thread_, "thread");
        lackShims(v);
        if (judge::unproven(study_, v))
            return;
        const double left = v.figure.lowest();
        if (left < 0) {
            v.level = Level::Stop;
            v.reason = joint_.roomBehind.value
                ? fmt::format("Strikes what is behind by {}: shorter bolts, or washers under the heads", say(-left))
                : fmt::format("Bottoms {} before it is tight: shorter bolts, or washers under the heads", say(-left));
        } else if (joint_.roomBehind.value && left < 1e-3) {
            v.level = Level::Caution;
            v.reason = fmt::format("Only {} to what is behind", say(left));
        } else {
            v.level = Level::Good;
            v.reason = joint_.roomBehind.value ? fmt::format("{} clear behind", say(*v.figure.value))
                                               : fmt::format("{} short of the bottom", say(*v.figure.value));
        }
    }

    /// A bolt that lands on the end of its shank clamps nothing.
    void shank()
    {
        Verdict& v = start(checks::jointShank, "shank length",
            evaluate([&](Sample& s) { return s(joint_.grip) + shims(s, false) - s(joint_.shank); }), style::gap);
        v.method = "Grip with the thinnest stack of shims less the bolt's shank without thread.";
        v.caution = "A bolt that lands on its shank feels tight and clamps nothing.";
        lackShims(v);
        if (judge::unproven(study_, v))
            return;
        v.level = v.figure.lowest() >= 0 ? Level::Good : Level::Stop;
        v.reason = v.figure.lowest() >= 0
            ? fmt::format("The shank ends {} inside the grip at worst", say(v.figure.lowest()))
            : fmt::format("The shank may stand {} out of the grip: bolts with more thread, or washers", say(-v.figure.lowest()));
    }

    /// Of the bolts, Pa: by their class, or as their maker gives it. NaN where neither was said.
    double proofStress(Sample& s) const
    {
        if (joint_.boltClass == BoltClass::Other)
            return s(joint_.proofStress, false);
        const auto grade = gradeOf(joint_.boltClass);
        return grade && thread_ ? joints::proofStress(*grade, thread_->diameter) : notGiven;
    }
    double proofLoad(Sample& s) const { return thread_ ? joints::proofLoad(*thread_, proofStress(s)) : notGiven; }
    void lackClass(Verdict& v) { lack(v, joint_.boltClass == BoltClass::Unknown, "class"); }

    /// Clamp force of one bolt tightened as the document says, N. NaN where that is not known.
    double preload(Sample& s) const
    {
        const auto lubrication = lubricationOf(joint_.condition);
        const double proof = proofLoad(s);
        if (!thread_ || !lubrication || std::isnan(proof))
            return notGiven;
        const double wanted = joint_.makerTorque.value ? joints::preloadFrom(s(joint_.makerTorque, false), thread_->diameter, *lubrication)
                                                       : joints::preloadAim * proof;
        // Past its proof load it yields, and holds no more.
        return std::min(wanted, proof);
    }

    /// A plain head sets into aluminium, and the joint goes loose.
    void head()
    {
        if (joint_.underHead == ThreadIn::Steel || joint_.underHead == ThreadIn::Iron || joint_.hardWashers == YesNo::Yes)
            return;
        Verdict& v = start(checks::jointHead, "pressure under the heads", evaluate([&](Sample& s) {
            return joints::pressureUnderHead(preload(s), s(joint_.headDiameter), thread_ ? 1.05 * thread_->diameter : NAN);
        }),
            { Dimension::Pressure, "MPa", 0, "psi", 0 });
        v.method = "Preload over the ring between what bears of the head and its hole, taken as 1.05 bolt diameters.";
        v.source = "240 MPa for 6061-T6 and its like: common practice.";
        lack(v, joint_.underHead == ThreadIn::Unknown, "the metal the heads bear on");
        lack(v, !thread_, "thread");
        lackClass(v);
        lack(v, joint_.condition == Condition::Unknown, "condition of the threads");
        if (judge::unproven(study_, v))
            return;
        v.wanted = joints::aluminiumBears;
        v.level = v.figure.highest() <= joints::aluminiumBears ? Level::Good : Level::Caution;
        v.reason = fmt::format("{} on aluminium", print(*v.figure.value, v.style, study_.system));
        if (v.level == Level::Caution)
            v.reason += ": hardened washers under the heads, or they set and the joint goes loose";
    }

    std::string threeWays(double torque) const
    {
        return fmt::format("{} · {} · {}", print(torque, { Dimension::Torque, "N·m", 1, "N·m", 1 }),
            print(torque, { Dimension::Torque, "lb ft", 1, "lb ft", 1 }), print(torque, { Dimension::Torque, "lb in", 0, "lb in", 0 }));
    }

    void torque()
    {
        const auto said = lubricationOf(joint_.condition);
        const bool makers = joint_.makerTorque.value.has_value();
        Verdict& v = start(checks::jointTorque, "tightening", {}, { Dimension::Torque, "N·m", 1, "lb ft", 1 });
        v.method = "T = K·F·d, K 0.20 dry, 0.15 oiled, 0.16 fresh threadlocker, 0.125 anti-seize; F three quarters of the proof load, "
                   "proof stress times stress area. A given bolt may be off by a quarter. "
                   "A maker's torque counts before this one.";
        const Figure proof = evaluate([&](Sample& s) { return proofLoad(s); });
        if (makers)
            v.figure = evaluate([&](Sample& s) { return s(joint_.makerTorque, false); });
        mergeDependencies(v.figure, proof);
        lack(v, !thread_, "thread");
        lackClass(v);
        lack(v, !said, "condition of the threads");
        lack(v, makers && joint_.torqueFor == Condition::Unknown, "what condition the maker's torque is for");
        if (joint_.boltClass == BoltClass::C12_9 || joint_.boltClass == BoltClass::Other)
            v.caution += " 12.9 and stronger crack by hydrogen when they are plated: black or zinc-flake bolts only, and none on the street "
                         "where 10.9 does.";
        // A torque or a proof stress that somebody only remembers is none.
        if (!v.lacksInWords.empty() || !proof.value || v.figure.provisional()) {
            v.level = Level::Unproven;
            v.figure.value.reset();
            v.reason = v.lacksInWords.empty() && proof.value ? judge::estimatedIn(study_, v.figure)
                                                             : lacking(study_, v.figure, v.lacksInWords);
            v.reason[0] = toUpper(v.reason[0]);
            if (makers)
                v.reason += ". Maker's: " + threeWays(*joint_.makerTorque.value);
            return;
        }
        // At worst its bolts are as weak as their proof stress may be.
        const double leastProof = proof.lowest();
        const double computed = joints::torqueFor(joints::preloadAim * leastProof, thread_->diameter, *said);
        const auto order =
            joint_.bolts > 2 ? fmt::format(", crosswise in {} rounds", joints::tighteningRounds(joint_.bolts).size()) : std::string();
        if (makers) {
            judgeMakers(v, *said, leastProof, order);
            return;
        }
        // A stand-in is never better than what the maker says.
        v.figure.value = computed;
        v.level = Level::Caution;
        v.reason = fmt::format("{}, computed for {} threads: {:.1f} kN, 75 % of proof{}. Ask the maker for theirs", threeWays(computed),
            nameOf(*said), joints::preloadAim * leastProof / 1000, order);
    }

    /// The maker's torque against the bolt's proof load, the condition it is meant for, and what a computed one would be.
    void judgeMakers(Verdict& v, joints::Lubrication lubrication, double proof, const std::string& order) const
    {
        const double torque = *joint_.makerTorque.value;
        const double diameter = thread_->diameter;
        const double computed = joints::torqueFor(joints::preloadAim * proof, diameter, lubrication);
        const double share = joints::preloadFrom(torque, diameter, lubrication) / proof;
        v.reason = fmt::format("Maker's {}{}: {:.1f} kN on {} threads, {:.0f} % of proof", threeWays(torque), order, share * proof / 1000,
            nameOf(lubrication), 100 * share);
        const auto meant = lubricationOf(joint_.torqueFor);
        // One that is doubted is no figure to pull.
        const auto doubted = [&](Level level) {
            v.level = level;
            v.figure.value.reset();
        };
        const auto samePull = [&](joints::Lubrication given) {
            return threeWays(torque * joints::nutFactor(lubrication) / joints::nutFactor(given));
        };
        if (meant && *meant != lubrication) {
            doubted(share > 1 ? Level::Stop : Level::Caution);
            v.reason += fmt::format(
                ". It is meant for {} threads: on {} the same pull needs {}", nameOf(*meant), nameOf(lubrication), samePull(*meant));
        } else if (share > 1) {
            doubted(Level::Stop);
            const double dry = joints::preloadFrom(torque, diameter, joints::Lubrication::Dry) / proof;
            v.reason += joint_.condition != Condition::Dry && dry <= joints::preloadMost
                ? fmt::format(". Given for dry threads it would be {:.0f} %: on {} the same pull needs {}", 100 * dry, nameOf(lubrication),
                      samePull(joints::Lubrication::Dry))
                : fmt::format(". Computed: {}", threeWays(computed));
        } else if (torque < lowTorque * computed || torque > highTorque * computed) {
            v.level = Level::Caution;
            v.reason += fmt::format("; {} of the computed {}: check its unit, and the condition of threads it is meant for",
                judge::percentOf(torque / computed), print(computed, v.style, study_.system));
            // A maker goes low where aluminium would give; that is honoured, with the doubt beside it, unless the joint's slip forbids it.
            const bool aluminium = joint_.threadIn == ThreadIn::Aluminium || joint_.underHead == ThreadIn::Aluminium;
            if (torque > highTorque * computed || !aluminium)
                v.figure.value.reset();
            else
                v.reason += ". Low, as makers have it in aluminium";
        } else if (const double most = share * (1 + joints::preloadScatter); most > 1 + 1e-9) {
            v.level = Level::Caution;
            v.reason += fmt::format("; a bolt that gets a quarter more is at {:.0f} %, past its proof. Computed {}", 100 * most,
                print(computed, v.style, study_.system));
        } else {
            v.level = Level::Good;
            v.reason += fmt::format("; computed {}", print(computed, v.style, study_.system));
        }
    }

    static double frictionOf(const Joint& joint) { return joint.faces == Faces::Clean ? joints::jointFriction : joints::coatedFriction; }
    /// Two bolts hold a caliper or its bracket; more stand in a circle round the axle.
    [[nodiscard]] bool isPair() const { return joint_.bolts <= 2; }

    /// What one bolt has to carry of the brake's largest torque, N.
    /// @param joint this one, or the one like it of the car as found
    double carried(Sample& s, const SetupParts& setup, const Joint& joint) const
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
        return own ? evaluate([&](Sample& s) { return carried(s, study_.after, joint_) / carried(s, asFound, *own); }) : Figure {};
    }

    void slip()
    {
        // Some bolts of a corner carry the brake: where nobody has said of any how far from the axis it is, nobody knows which hold it.
        const bool said = std::ranges::any_of(corner_.joints, [](const Joint& each) { return each.mountRadius.value.has_value(); });
        if (!joint_.mountRadius.value && (said || &joint_ != &corner_.joints.front()))
            return;
        const double friction = frictionOf(joint_);
        Verdict& v = start(checks::jointSlip, "slip under braking",
            evaluate([&](Sample& s) { return friction * preload(s) / carried(s, study_.after, joint_); }), style::number);
        v.method = fmt::format("Friction {:g} × preload of a bolt over what it has to carry. {} The largest brake torque is what a foot in "
                               "panic presses at the pads' highest friction, or what the tyre can turn and the wheel's own inertia as it "
                               "locks, whichever is less. Preload by torque may be off by a quarter, and never counts over the proof load. "
                               "A joint of the car's own maker that carries no more than with his own brakes is good. "
                               "Bending of a bracket is not proven by this program.",
            friction,
            isPair()
                ? "The pads push with T/r along the rotor; two bolts take half of it each, and the couple of that force about their middle."
                : "Bolts round the axle share the torque by their distance from it.");
        v.source = "Plane statics; friction 0.15 clean and bare, 0.10 otherwise, ±25 % and the safety factor wanted: common practice.";
        v.caution = "Have adapters, brackets and machined knuckles judged by a qualified engineer.";
        lack(v, !thread_, "thread");
        lackClass(v);
        lack(v, joint_.condition == Condition::Unknown, "condition of the threads");
        lack(v, joint_.bolts <= 0, "number of bolts");
        if (v.figure.value)
            v.figure.worstCase += joints::preloadScatter * *v.figure.value;
        if (!judge::unproven(study_, v))
            judgeSlip(v);
    }

    void judgeSlip(Verdict& v) const
    {
        const double wanted = figures::setting(study_.build->wants.slipMargin, &Wants::slipMargin);
        v.wanted = wanted;
        Sample s;
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
        v.reason = fmt::format("Friction holds {:.2f} times what a bolt has to carry, {:.2f} at worst, {:.2f} wanted; slipped, one bolt in "
                               "shear holds {:.1f} times",
            *v.figure.value, v.figure.lowest(), wanted, shear);
        if (joint_.faces == Faces::Unknown)
            v.reason += ". Worked out with painted or oily faces: what they are is not said";
        if (v.level == Level::Good && v.figure.lowest() < wanted)
            v.reason += ". It is the car maker's own joint and carries no more than with his own brakes";
        else if (v.figure.lowest() < 1)
            v.reason += ": it may slip; larger or stronger bolts, bare faces, or dowels";
        if (over.value && !asCarMaker)
            v.reason += fmt::format(". {} of what the car's maker has this joint carry{}", judge::percentOf(*over.value),
                over.provisional() ? ", on estimates" : "");
    }

    Study& study_;
    Axle axle_;
    const AxleParts& result_;
    const Corner& corner_;
    const Joint& joint_;
    std::optional<joints::Thread> thread_;
    int number_;
    std::string name_;
};

} // namespace

void addJoints(Study& study)
{
    for (const Axle axle : judge::axlesOf(study))
        if (const Corner* corner = study.after.at(axle).corner; corner && corner->brakes == BrakeKind::Discs)
            for (std::size_t i = 0; i < corner->joints.size(); ++i)
                JointChecks(study, axle, i).add();
}

} // namespace deepstop
