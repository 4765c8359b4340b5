#include "chapters/joints/joints_chapter.hpp"

#include "chapters/joints/joint_checks.hpp"
#include "language/language.hpp"

namespace deepstop {
namespace {

/// Threads in aluminium done up more often than this are worth a look, or an insert; common practice, no source.
constexpr int mostUsesInAluminium = 5;

/// How much thread holds, what is behind it, and where the shank ends.
class ThreadChecks : public JointChecks {
public:
    using JointChecks::JointChecks;

    void add()
    {
        engagement();
        room();
        shank();
    }

private:
    void engagement()
    {
        const auto metal = metalOf(joint_.threadIn);
        Verdict& v = start(checks::jointThread, tr("thread engagement"),
            evaluate([&](Evaluator& s) { return joints::fitOf(stack(s, true)).engaged; }), style::gap);
        v.method = tr("Bolt under its head less grip and the thicker stack of shims, less one pitch of lead; at most the thread there is. "
                      "Wanted: 1.0 bolt diameter in steel, 1.5 in iron, 2.0 in aluminium; in a nut the height of an ordinary one "
                      "(ISO 4032), whose class has a check of its own.");
        lack(v, !thread_, "thread");
        lack(v, !metal, tr("metal of the thread"));
        lackShims(v);
        if (judge::unproven(study_, v))
            return;
        // An ordinary nut carries a bolt of its class, though it is less than a diameter tall.
        const auto ordinary = hasNut(joint_) ? joints::leastNutHeight(thread_->diameter) : std::nullopt;
        const double wanted = ordinary.value_or(joints::engagementWanted(*metal) * thread_->diameter);
        v.wanted = wanted;
        const auto where = ordinary ? std::string(tr("the nut")) : std::string(wordFor(joint_.threadIn, choices::threadIn));
        v.reason = tr("{} of thread in {}, {} wanted", say(*v.figure.value), where, say(wanted));
        if (v.figure.lowest() >= wanted - 1e-9) {
            v.level = Level::Good;
            if (joint_.threadIn == ThreadIn::Aluminium && joint_.timesUsed > mostUsesInAluminium) {
                v.level = Level::Caution;
                v.reason += tr("; done up {} times before: look at the thread, or put an insert in", *joint_.timesUsed);
            }
            return;
        }
        v.level = v.figure.highest() < wanted ? Level::Stop : Level::Caution;
        Evaluator s;
        const auto lengths = joints::lengthsThatDo(stack(s, true), wanted);
        v.reason += lengths ? tr(": bolts from {} to {} long would do", say(lengths->least), say(lengths->most))
                            : std::string(tr(": the thread itself is too short, no bolt of any length holds as wanted"));
    }

    /// Whether the thread is open at its far end.
    bool behind() const { return joint_.roomBehind.value || hasNut(joint_); }

    void room()
    {
        Verdict& v = start(checks::jointEnd, behind() ? tr("bolt protrusion") : tr("bolt bottoming"), evaluate([&](Evaluator& s) {
            // A nut is open behind: what stands there has to be read.
            return joints::fitOf(stack(s, false)).roomLeft + (hasNut(joint_) ? 0 * s(joint_.roomBehind) : 0);
        }),
            style::gap);
        v.method =
            tr("Clearance behind the thread less how far the bolt stands out of it, with the thinner stack of shims; a blind hole has no "
               "clearance behind.");
        v.caution = behind() ? tr("A bolt that reaches the rotor cuts it.") : tr("A bolt that bottoms feels tight and holds nothing.");
        lack(v, !thread_, "thread");
        lackShims(v);
        if (judge::unproven(study_, v))
            return;
        const double left = v.figure.lowest();
        if (left < 0) {
            v.level = Level::Stop;
            v.reason = behind() ? tr("Strikes what is behind by {}: shorter bolts, or washers under the heads", say(-left))
                                : tr("Bottoms {} before it is tight: shorter bolts, or washers under the heads", say(-left));
        } else if (behind() && left < 1e-3) {
            v.level = Level::Caution;
            v.reason = tr("Only {} to what is behind", say(left));
        } else {
            v.level = Level::Good;
            v.reason = behind() ? tr("{} clear behind", say(*v.figure.value)) : tr("{} short of the bottom", say(*v.figure.value));
        }
    }

    /// A bolt that lands on the end of its shank clamps nothing.
    void shank()
    {
        Verdict& v = start(checks::jointShank, tr("shank length"),
            evaluate([&](Evaluator& s) { return s(joint_.grip) + shims(s, false) - s(joint_.shank); }), style::gap);
        v.method = tr("Grip with the thinnest stack of shims less the bolt's shank without thread.");
        v.caution = tr("A bolt that lands on its shank feels tight and clamps nothing.");
        lackShims(v);
        if (judge::unproven(study_, v))
            return;
        v.level = v.figure.lowest() >= 0 ? Level::Good : Level::Stop;
        v.reason = v.figure.lowest() >= 0
            ? tr("The shank ends {} inside the grip at worst", say(v.figure.lowest()))
            : tr("The shank may stand {} out of the grip: bolts with more thread, or washers", say(-v.figure.lowest()));
    }
};

} // namespace

void addThreadChecks(Study& study, Axle axle, std::size_t index) { ThreadChecks(study, axle, index).add(); }

void addJoints(Study& study)
{
    for (const Axle axle : judge::axlesOf(study))
        if (const Corner* corner = study.after.at(axle).corner; corner && corner->brakes == BrakeKind::Discs)
            for (std::size_t i = 0; i < corner->joints.size(); ++i) {
                addThreadChecks(study, axle, i);
                addTorqueChecks(study, axle, i);
                addSlipCheck(study, axle, i);
                addNutCheck(study, axle, i);
            }
}

} // namespace deepstop
