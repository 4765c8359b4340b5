#pragma once
/// Inside the chapter: what is said of a joint in the document, as the joint's physics takes it. Nothing where it is not said.

#include "build/build.hpp"
#include "joints/nuts.hpp"

#include <optional>

namespace deepstop {

inline std::optional<joints::Lubrication> lubricationOf(Condition condition)
{
    using enum joints::Lubrication;
    switch (condition) {
    case Condition::Dry:
    // Applied to the tightened bolt, it was not there when the torque was.
    case Condition::WickingThreadlocker:
        return Dry;
    case Condition::Oiled:
        return Oiled;
    case Condition::Threadlocker:
        return Threadlocker;
    case Condition::AntiSeize:
        return AntiSeize;
    case Condition::Unknown:
        break;
    }
    return {};
}

inline std::optional<joints::Grade> gradeOf(BoltClass c)
{
    switch (c) {
    case BoltClass::C8_8:
        return joints::Grade::G8_8;
    case BoltClass::C10_9:
        return joints::Grade::G10_9;
    case BoltClass::C12_9:
        return joints::Grade::G12_9;
    case BoltClass::A2_70:
        return joints::Grade::A2_70;
    case BoltClass::A4_80:
        return joints::Grade::A4_80;
    case BoltClass::Grade5:
        return joints::Grade::SAE5;
    case BoltClass::Grade8:
        return joints::Grade::SAE8;
    case BoltClass::Other:
    case BoltClass::Unknown:
        break;
    }
    return {};
}

inline std::optional<joints::NutGrade> gradeOf(NutClass c)
{
    switch (c) {
    case NutClass::C5:
        return joints::NutGrade::N5;
    case NutClass::C6:
        return joints::NutGrade::N6;
    case NutClass::C8:
        return joints::NutGrade::N8;
    case NutClass::C10:
        return joints::NutGrade::N10;
    case NutClass::C12:
        return joints::NutGrade::N12;
    case NutClass::Other:
    case NutClass::Unknown:
        break;
    }
    return {};
}

/// A nut, as opposed to a tapped thread, or nothing said.
inline bool hasNut(const Joint& joint) { return joint.nut != NutKind::Unknown && joint.nut != NutKind::None; }
/// One that takes torque before it bears.
inline bool hasLockNut(const Joint& joint) { return joint.nut == NutKind::NylonInsert || joint.nut == NutKind::AllMetal; }

inline std::optional<joints::Metal> metalOf(ThreadIn in)
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

} // namespace deepstop
