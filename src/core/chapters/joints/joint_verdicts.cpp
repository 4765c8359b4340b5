#include "joints/bolts.hpp"
#include "quantity/text.hpp"
#include "build/choices.hpp"
#include "chapters/joints/joints_chapter.hpp"
#include "figures/figures.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

namespace deepstop {
namespace {

joints::Lubrication lubricationOf(Condition condition)
{
    using enum joints::Lubrication;
    switch (condition) {
    case Condition::Dry:
        return Dry;
    case Condition::Oiled:
        return Oiled;
    case Condition::Threadlocker:
        return Threadlocker;
    case Condition::AntiSeize:
        return AntiSeize;
    }
    return Dry;
}

/// Threads in aluminium done up more often than this are worth a look, or an insert; common practice, no source.
constexpr int mostUsesInAluminium = 5;

constexpr std::string_view tighten = "Start every bolt by hand before tightening any. The maker's torque outranks a computed one. Check "
                                     "again after the first drive and at 50 to 100 miles.";

std::optional<joints::Grade> gradeOf(BoltClass c)
{
    switch (c) {
    case BoltClass::C8_8:
        return joints::Grade::G8_8;
    case BoltClass::C10_9:
        return joints::Grade::G10_9;
    case BoltClass::C12_9:
        return joints::Grade::G12_9;
    case BoltClass::Unknown:
        break;
    }
    return {};
}

std::optional<joints::Metal> metalOf(ThreadIn in)
{
    switch (in) {
    case ThreadIn::Steel:
        return joints::Metal::Steel;
    case ThreadIn::Iron:
        return joints::Metal::Iron;
    case ThreadIn::Aluminium:
        return joints::Metal::Aluminium;
    case ThreadIn::Unknown:
        break;
    }
    return {};
}

class JointChecks {
public:
    JointChecks(Study& study, Axle axle, std::size_t index)
        : study_(study), axle_(axle), result_(study.after.at(axle)), corner_(*result_.corner), joint_(corner_.joints[index]),
          thread_(joints::parseThread(joint_.thread)), id_(fmt::format("{}/joint-{}", judge::wordFor(axle), index + 1)),
          name_(joint_.name.empty() ? fmt::format("bolts {}", index + 1) : joint_.name)
    {
    }

    void add()
    {
        engagement();
        room();
        torque();
        slip();
    }

private:
    std::string say(double length) const { return print(length, style::gap, study_.system); }

    Verdict& start(std::string_view id, std::string_view title, Figure figure, const Style& style)
    {
        Verdict v;
        v.id = id_ + "-" + std::string(id);
        v.axle = axle_;
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

    /// Shims in the grip: the thicker of the two stacks shortens the thread, the thinner brings the bolt nearest to what is behind.
    double shims(Sample& s, bool most) const
    {
        const Mount& m = corner_.mount;
        if (joint_.shims == ShimsIn::None)
            return 0;
        const double top = s.orElse(joint_.shims == ShimsIn::Axial ? m.shimTop : m.radialTop, 0);
        const double bottom = s.orElse(joint_.shims == ShimsIn::Axial ? m.shimBottom : m.radialBottom, 0);
        return most ? std::max(top, bottom) : std::min(top, bottom);
    }

    joints::BoltStack stack(Sample& s, bool mostShims) const
    {
        return { s(joint_.length), s(joint_.grip), shims(s, mostShims), s(joint_.threadDepth), s.orElse(joint_.roomBehind, 0),
            thread_ ? thread_->pitch : 0.0 };
    }

    void engagement()
    {
        const auto metal = metalOf(joint_.threadIn);
        Verdict& v = start("thread", "thread held", evaluate([&](Sample& s) { return joints::fitOf(stack(s, true)).engaged; }), style::gap);
        v.method = "Bolt under its head less grip and the thicker stack of shims, less one pitch of lead; at most the thread there is. "
                   "Wanted: 1.0 bolt diameter in steel, 1.5 in iron, 2.0 in aluminium.";
        lack(v, !thread_, "thread");
        lack(v, !metal, "metal of the thread");
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
                v.reason += fmt::format("; done up {} times before: look at the thread, or put an insert in", joint_.timesUsed);
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
        Verdict& v = start("end", joint_.roomBehind.value ? "bolt's end" : "bolt in its blind hole",
            evaluate([&](Sample& s) { return joints::fitOf(stack(s, false)).roomLeft; }), style::gap);
        v.method =
            "Clearance behind the thread less how far the bolt stands out of it, with the thinner stack of shims; a blind hole has no "
            "clearance behind.";
        v.caution =
            joint_.roomBehind.value ? "A bolt that reaches the rotor cuts it." : "A bolt that bottoms feels tight and holds nothing.";
        lack(v, !thread_, "thread");
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

    std::string threeWays(double torque) const
    {
        return fmt::format("{} · {} · {}", print(torque, { Dimension::Torque, "N·m", 1, "N·m", 1 }),
            print(torque, { Dimension::Torque, "lb ft", 1, "lb ft", 1 }), print(torque, { Dimension::Torque, "lb in", 0, "lb in", 0 }));
    }

    void torque()
    {
        const auto grade = gradeOf(joint_.boltClass);
        const auto lubrication = lubricationOf(joint_.condition);
        const bool makers = joint_.makerTorque.value.has_value();
        Verdict& v = start("torque", "tightening", {}, { Dimension::Torque, "N·m", 1, "lb ft", 1 });
        v.method = "T = K·F·d, K 0.20 dry, 0.15 oiled, 0.16 fresh threadlocker, 0.125 anti-seize; F three quarters of the proof load, "
                   "proof stress times stress area. A given bolt may be off by a quarter. "
                   "A maker's torque counts before this one.";
        if (makers)
            v.figure = evaluate([&](Sample& s) { return s(joint_.makerTorque, false); });
        lack(v, !thread_, "thread");
        lack(v, !grade, "class");
        if (!v.lacksInWords.empty()) {
            v.level = Level::Unproven;
            v.reason = lacking(study_, v.figure, v.lacksInWords);
            if (makers)
                v.reason += ". Maker's: " + threeWays(*joint_.makerTorque.value);
            return;
        }
        const double proof = joints::proofLoad(*thread_, *grade);
        const double computed = joints::torqueFor(joints::preloadAim * proof, thread_->diameter, lubrication);
        const auto order =
            joint_.bolts > 2 ? fmt::format(", crosswise in {} rounds", joints::tighteningRounds(joint_.bolts).size()) : std::string();
        if (!makers) {
            v.figure.value = computed;
            v.level = Level::Good;
            v.reason = fmt::format("{}, computed for {} threads: {:.1f} kN, 75 % of proof{}. Ask the maker for theirs", threeWays(computed),
                nameOf(lubrication), joints::preloadAim * proof / 1000, order);
            return;
        }
        const double torque = *joint_.makerTorque.value;
        const double share = joints::preloadFrom(torque, thread_->diameter, lubrication) / proof;
        v.reason = fmt::format("Maker's {}{}: {:.1f} kN on {} threads, {:.0f} % of proof", threeWays(torque), order, share * proof / 1000,
            nameOf(lubrication), 100 * share);
        if (share > 1 || share > joints::preloadMost) {
            v.level = share > 1 ? Level::Stop : Level::Caution;
            const double dry = joints::preloadFrom(torque, thread_->diameter, joints::Lubrication::Dry) / proof;
            v.reason += joint_.condition != Condition::Dry && dry <= joints::preloadMost
                ? fmt::format(". Given for dry threads it would be {:.0f} %: on {} the same pull needs {}", 100 * dry, nameOf(lubrication),
                    threeWays(torque * joints::nutFactor(lubrication) / joints::nutFactor(joints::Lubrication::Dry)))
                : fmt::format(". Computed: {}", threeWays(computed));
        } else if (torque < 0.75 * computed || torque > 1.3 * computed) {
            // Pounds-feet typed as newton-metres, or a figure for dry threads on greased ones.
            v.level = Level::Caution;
            v.reason += fmt::format("; {} of the computed {}: look at its unit, and at the condition of threads it is meant for",
                judge::percentOf(torque / computed), print(computed, v.style, study_.system));
        } else {
            v.level = Level::Good;
            v.reason += fmt::format("; computed {}", print(computed, v.style, study_.system));
        }
    }

    void slip()
    {
        // Some bolts of a corner carry the brake: where nobody has said of any how far from the axis it is, nobody knows which hold it.
        const bool said = std::ranges::any_of(corner_.joints, [](const Joint& each) { return each.mountRadius.value.has_value(); });
        if (!joint_.mountRadius.value && (said || &joint_ != &corner_.joints.front()))
            return;
        const auto grade = gradeOf(joint_.boltClass);
        const auto lubrication = lubricationOf(joint_.condition);
        const double wanted = figures::setting(study_.build->wants.slipMargin, &Wants::slipMargin);
        Verdict& v = start("slip", "held against the brake", evaluate([&](Sample& s) {
            const double brake = figures::largestBrakeTorque(s, *study_.build, corner_, axle_);
            const double radius = s(joint_.mountRadius);
            if (!thread_ || !grade)
                return std::numeric_limits<double>::quiet_NaN();
            const double preload = joint_.makerTorque.value
                ? joints::preloadFrom(s(joint_.makerTorque, false), thread_->diameter, lubrication)
                : joints::preloadAim * joints::proofLoad(*thread_, *grade);
            return joints::slipMargin(joint_.bolts, preload, brake, radius);
        }),
            style::number);
        v.method =
            "Bolts × preload × 0.15 over the brake's torque divided by the bolts' distance from the axis; the torque is what full pressure "
            "makes or what the tyre can hold against, whichever is less. Bending of a bracket is not proven by this program.";
        v.source = "Friction 0.15 and the safety factor wanted: common practice.";
        v.caution = "Have adapters, brackets and machined knuckles judged by a qualified engineer.";
        lack(v, !thread_, "thread");
        lack(v, !grade, "class");
        lack(v, joint_.bolts == 0, "number of bolts");
        if (judge::unproven(study_, v))
            return;
        v.wanted = wanted;
        Sample s;
        const double brake = figures::largestBrakeTorque(s, *study_.build, corner_, axle_);
        const double shear = joints::shearMargin(joint_.bolts, *thread_, *grade, brake, *joint_.mountRadius.value);
        v.level = v.figure.lowest() >= wanted ? Level::Good : v.figure.highest() < 1 ? Level::Stop : Level::Caution;
        v.reason = fmt::format(
            "Friction holds {:.2f} times the brake's torque, {:.2f} at worst, {:.2f} wanted; in shear the bolts would hold {:.1f} times",
            *v.figure.value, v.figure.lowest(), wanted, shear);
    }

    Study& study_;
    Axle axle_;
    const AxleParts& result_;
    const Corner& corner_;
    const Joint& joint_;
    std::optional<joints::Thread> thread_;
    std::string id_;
    std::string name_;
};

} // namespace

void addJoints(Study& study)
{
    for (const Axle axle : judge::axlesOf(study))
        if (const Corner* corner = study.after.at(axle).corner)
            for (std::size_t i = 0; i < corner->joints.size(); ++i)
                JointChecks(study, axle, i).add();
}

} // namespace deepstop
