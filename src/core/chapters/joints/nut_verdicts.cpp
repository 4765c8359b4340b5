#include "chapters/joints/joint_checks.hpp"
#include "language/language.hpp"

namespace deepstop {
namespace {

/// The nut of a joint, and what lies under it.
class NutCheck : public JointChecks {
public:
    using JointChecks::JointChecks;

    void add() { nut(); }

private:
    /// Class, use, what it bears on and whether the bolt reaches through a lock nut's far end.
    void nut()
    {
        // Iron and aluminium are tapped; in steel it may be either: ask.
        if (joint_.nut == NutKind::None
            || (joint_.nut == NutKind::Unknown && (joint_.threadIn == ThreadIn::Iron || joint_.threadIn == ThreadIn::Aluminium)))
            return;
        const bool locks = hasLockNut(joint_);
        Verdict& v = start(checks::jointNut, tr("nut and washers"), evaluate([&](Evaluator& s) {
            if (!locks)
                return 0.0;
            return s(joint_.length) - s(joint_.grip) - shims(s, true) - s(joint_.nutHeight) - (thread_ ? thread_->pitch : notGiven);
        }),
            style::gap);
        v.method =
            tr("A nut's class is at least the first number of the bolt's. A lock nut grips only where the bolt stands at least one pitch "
               "out of it; single use means once. Nylon lets go near 120 °C.");
        v.source = tr("ISO 898-2, from memory; use of lock nuts and washers: common practice.");
        v.caution = tr("A nut that strips or comes off lets the caliper go. New lock nuts every time unless their maker says otherwise.");
        if (joint_.nut == NutKind::Unknown) {
            lack(v, true, tr("whether a nut or a tapped thread takes the bolts"));
            v.reason = lacking(study_, v.figure, v.lacksInWords);
            return;
        }
        if (const auto fault = nutFault(); !fault.empty()) {
            v.level = Level::Stop;
            v.reason = fault;
            return;
        }
        if (locks && v.figure.value && v.figure.highest() < 0) {
            v.level = Level::Stop;
            v.reason = tr("The bolt ends {} too early for the lock nut to grip: longer bolts", say(-*v.figure.value));
            return;
        }
        lackClass(v);
        lack(v, !thread_, "thread");
        lack(v, joint_.nutClass == NutClass::Unknown, tr("class of the nuts"));
        lack(v, joint_.boltClass == BoltClass::Other || joint_.nutClass == NutClass::Other,
            tr("which nut its maker wants for a bolt of no usual class"));
        lack(v, joint_.underNut == ThreadIn::Unknown, tr("the metal the nuts bear on"));
        lack(v, joint_.washers == WashersUnder::Unknown, tr("on which side washers lie"));
        lack(v, locks && joint_.nutSingleUse == YesNo::Unknown, tr("whether the lock nuts are for single use"));
        lack(v, (joint_.nutSingleUse == YesNo::Yes || (locks && joint_.nutSingleUse == YesNo::No)) && joint_.timesUsed < 0,
            tr("how often the nuts were done up before"));
        if (locks)
            lackShims(v);
        if (judge::unproven(study_, v))
            return;
        judgeNut(v, locks);
        if (!locks)
            v.figure.value.reset();
    }

    /// What must not be; empty where nothing of it is known to be.
    std::string nutFault() const
    {
        const auto bolt = gradeOf(joint_.boltClass);
        const auto grade = gradeOf(joint_.nutClass);
        if (bolt && grade && !joints::carries(*grade, *bolt))
            return tr("A nut of class {} strips on a bolt of {}: class {} is needed", joints::nameOf(*grade), joints::nameOf(*bolt),
                joints::nameOf(joints::nutWantedFor(*bolt)));
        if (joint_.threadIn == ThreadIn::Iron || joint_.threadIn == ThreadIn::Aluminium)
            return tr("A nut is of steel, but the thread is said to be cut in {}: one of the two is wrong",
                wordFor(joint_.threadIn, choices::threadIn));
        const bool glued = joint_.condition == Condition::Threadlocker || joint_.condition == Condition::WickingThreadlocker;
        if (joint_.nut == NutKind::AllMetal && glued)
            return tr("No threadlocker under an all-metal lock nut: it hides the running torque, and the nut locks by itself");
        if (joint_.nut == NutKind::NylonInsert && joint_.joins == Joins::RingToHat)
            return tr("A nylon insert melts beside the friction ring: all-metal lock nuts");
        if (joint_.nutSingleUse == YesNo::Yes && joint_.timesUsed > 0)
            return tr("Single-use nuts were done up before: new ones");
        return {};
    }

    void judgeNut(Verdict& v, bool locks) const
    {
        v.level = Level::Good;
        v.reason = tr("Class {} carries the bolt", wordFor(joint_.nutClass, choices::nutClass));
        if (locks && v.figure.lowest() < 0) {
            v.level = Level::Caution;
            v.reason += tr(", but the bolt may end {} too early for the lock nut to grip", say(-v.figure.lowest()));
        } else if (locks) {
            v.reason += tr("; the bolt reaches through the part that locks");
        }
        const bool washer = joint_.washers == WashersUnder::Nut || joint_.washers == WashersUnder::Both;
        if (joint_.underNut == ThreadIn::Aluminium && !washer) {
            v.level = Level::Caution;
            v.reason += tr("; on aluminium a hardened washer belongs under the nut");
        }
        if (joint_.nut == NutKind::NylonInsert) {
            v.level = Level::Caution;
            v.reason += tr("; a nylon insert lets go near 120 °C, which a caliper can reach: all-metal lock nuts");
            if (joint_.condition == Condition::Threadlocker || joint_.condition == Condition::WickingThreadlocker)
                v.reason += tr("; threadlocker attacks the nylon");
        }
        // Reusable does not mean that it still locks.
        if (locks && joint_.nutSingleUse == YesNo::No && joint_.timesUsed > 0) {
            v.level = Level::Caution;
            v.reason += tr("; used before: its running torque has to be read again");
        }
    }
};

} // namespace

void addNutCheck(Study& study, Axle axle, std::size_t index) { NutCheck(study, axle, index).add(); }

} // namespace deepstop
