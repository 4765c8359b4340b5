#include "chapters/joints/joint_checks.hpp"
#include "language/language.hpp"

namespace deepstop {
namespace {

/// A maker's torque beyond these parts of the computed one is doubted: pounds-feet typed as newton-metres, or a figure for dry threads on
/// greased ones; common practice, no source.
constexpr double lowTorque = 0.75;
constexpr double highTorque = 1.3;

/// How tight, and what the heads bear on.
class TorqueChecks : public JointChecks {
public:
    using JointChecks::JointChecks;

    void add()
    {
        torque();
        head();
    }

private:
    std::string threeWays(double torque) const
    {
        return fmt::format("{} · {} · {}", print(torque, { Dimension::Torque, "N·m", 1, "N·m", 1 }),
            print(torque, { Dimension::Torque, "lb ft", 1, "lb ft", 1 }), print(torque, { Dimension::Torque, "lb in", 0, "lb in", 0 }));
    }

    void torque()
    {
        const auto said = lubricationOf(joint_.condition);
        const bool makers = joint_.makerTorque.value.has_value();
        Verdict& v = start(checks::jointTorque, tr("tightening"), {}, { Dimension::Torque, "N·m", 1, "lb ft", 1 });
        v.method = tr("T = K·F·d, K 0.20 dry, 0.15 oiled, 0.16 fresh threadlocker, 0.125 anti-seize; F three quarters of the proof load, "
                      "proof stress times stress area. A given bolt may be off by a quarter. "
                      "A maker's torque counts before this one.");
        const Figure proof = evaluate([&](Evaluator& s) { return proofLoad(s); });
        const Figure run = evaluate([&](Evaluator& s) { return running(s); });
        if (makers)
            v.figure = evaluate([&](Evaluator& s) { return s(joint_.makerTorque, false); });
        mergeDependencies(v.figure, proof);
        mergeDependencies(v.figure, run);
        lack(v, !thread_, "thread");
        lackClass(v);
        lack(v, !said, tr("condition of the threads"));
        lack(v, makers && joint_.torqueFor == Condition::Unknown, tr("what condition the maker's torque is for"));
        if (joint_.boltClass == BoltClass::C12_9 || joint_.boltClass == BoltClass::Other)
            v.caution +=
                tr(" 12.9 and stronger crack by hydrogen when they are plated: black or zinc-flake bolts only, and none on the street "
                   "where 10.9 does.");
        // A torque or a proof stress that somebody only remembers is none.
        if (!v.lacksInWords.empty() || !proof.value || !run.value || v.figure.provisional()) {
            v.level = Level::Unproven;
            v.figure.value.reset();
            v.reason = v.lacksInWords.empty() && proof.value && run.value ? judge::estimatedIn(study_, v.figure)
                                                                          : lacking(study_, v.figure, v.lacksInWords);
            v.reason[0] = toUpper(v.reason[0]);
            if (makers)
                v.reason += tr(". Maker's: {}", threeWays(*joint_.makerTorque.value));
            return;
        }
        // At worst its bolts are as weak as their proof stress may be.
        const double leastProof = proof.lowest();
        const double computed = joints::torqueFor(joints::preloadAim * leastProof, thread_->diameter, *said) + *run.value;
        const auto order = joint_.bolts > 2 ? tr(", crosswise in {} rounds", joints::tighteningRounds(joint_.bolts).size()) : std::string();
        if (makers) {
            judgeMakers(v, *said, leastProof, *run.value, order);
            return;
        }
        // A stand-in is never better than what the maker says.
        v.figure.value = computed;
        v.level = Level::Caution;
        v.reason = tr("{}, computed for {} threads: {:.1f} kN, 75 % of proof{}{}. Ask the maker for theirs", threeWays(computed),
            tr(nameOf(*said)), joints::preloadAim * leastProof / 1000, withRunning(*run.value), order);
    }

    std::string withRunning(double run) const
    {
        return run > 0
            ? tr(", with the {} the lock nut takes to turn", print(run, { Dimension::Torque, "N·m", 1, "lb ft", 1 }, study_.system))
            : std::string();
    }

    /// The maker's torque against the bolt's proof load, the condition it is meant for, and what a computed one would be.
    void judgeMakers(Verdict& v, joints::Lubrication lubrication, double proof, double run, const std::string& order) const
    {
        const double torque = *joint_.makerTorque.value;
        const double diameter = thread_->diameter;
        const double computed = joints::torqueFor(joints::preloadAim * proof, diameter, lubrication) + run;
        const double share = joints::preloadFrom(torque - run, diameter, lubrication) / proof;
        v.reason = tr("Maker's {}{}: {:.1f} kN on {} threads, {:.0f} % of proof{}", threeWays(torque), order, share * proof / 1000,
            tr(nameOf(lubrication)), 100 * share, withRunning(run));
        const auto meant = lubricationOf(joint_.torqueFor);
        // One that is doubted is no figure to pull.
        const auto doubted = [&](Level level) {
            v.level = level;
            v.figure.value.reset();
        };
        const auto samePull = [&](joints::Lubrication given) {
            return threeWays((torque - run) * joints::nutFactor(lubrication) / joints::nutFactor(given) + run);
        };
        if (meant && *meant != lubrication) {
            doubted(share > 1 ? Level::Stop : Level::Caution);
            v.reason += tr(". It is meant for {} threads: on {} the same pull needs {}", tr(nameOf(*meant)), tr(nameOf(lubrication)),
                samePull(*meant));
        } else if (share > 1) {
            doubted(Level::Stop);
            const double dry = joints::preloadFrom(torque - run, diameter, joints::Lubrication::Dry) / proof;
            v.reason += joint_.condition != Condition::Dry && dry <= joints::preloadMost
                ? tr(". Given for dry threads it would be {:.0f} %: on {} the same pull needs {}", 100 * dry, tr(nameOf(lubrication)),
                    samePull(joints::Lubrication::Dry))
                : tr(". Computed: {}", threeWays(computed));
        } else if (torque < lowTorque * computed || torque > highTorque * computed) {
            v.level = Level::Caution;
            v.reason += tr("; {} of the computed {}: check its unit, and the condition of threads it is meant for",
                judge::percentOf(torque / computed), print(computed, v.style, study_.system));
            // A maker goes low where aluminium would give; that is honoured, with the doubt beside it, unless the joint's slip forbids it.
            const bool aluminium = joint_.threadIn == ThreadIn::Aluminium || joint_.underHead == ThreadIn::Aluminium;
            if (torque > highTorque * computed || !aluminium)
                v.figure.value.reset();
            else
                v.reason += tr(". Low, as makers have it in aluminium");
        } else if (const double most = share * (1 + joints::preloadScatter); most > 1 + 1e-9) {
            v.level = Level::Caution;
            v.reason += tr("; a bolt that gets a quarter more is at {:.0f} %, past its proof. Computed {}", 100 * most,
                print(computed, v.style, study_.system));
        } else {
            v.level = Level::Good;
            v.reason += tr("; computed {}", print(computed, v.style, study_.system));
        }
    }

    /// A plain head sets into aluminium, and the joint goes loose.
    void head()
    {
        if (joint_.underHead == ThreadIn::Steel || joint_.underHead == ThreadIn::Iron || joint_.hardWashers == YesNo::Yes)
            return;
        Verdict& v = start(checks::jointHead, tr("pressure under the heads"), evaluate([&](Evaluator& s) {
            return joints::pressureUnderHead(preload(s), s(joint_.headDiameter), thread_ ? 1.05 * thread_->diameter : NAN);
        }),
            { Dimension::Pressure, "MPa", 0, "psi", 0 });
        v.method = tr("Preload over the ring between what bears of the head and its hole, taken as 1.05 bolt diameters.");
        v.source = tr("240 MPa for 6061-T6 and its like: common practice.");
        lack(v, joint_.underHead == ThreadIn::Unknown, tr("the metal the heads bear on"));
        lack(v, !thread_, "thread");
        lackClass(v);
        lack(v, joint_.condition == Condition::Unknown, tr("condition of the threads"));
        if (judge::unproven(study_, v))
            return;
        v.wanted = joints::aluminiumBears;
        v.level = v.figure.highest() <= joints::aluminiumBears ? Level::Good : Level::Caution;
        v.reason = tr("{} on aluminium", print(*v.figure.value, v.style, study_.system));
        if (v.level == Level::Caution)
            v.reason += tr(": hardened washers under the heads, or they set and the joint goes loose");
    }
};

} // namespace

void addTorqueChecks(Study& study, Axle axle, std::size_t index) { TorqueChecks(study, axle, index).add(); }

} // namespace deepstop
