#pragma once
/// Inside the chapter: what is said of a joint in the document, as the joint's physics takes it. Nothing where it is not said.

#include "build/build.hpp"
#include "joints/bolts.hpp"

#include <optional>

namespace deepstop {

inline std::optional<joints::Lubrication> lubricationOf(Condition condition)
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
