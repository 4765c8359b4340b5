#pragma once
/// Inside the chapter: one joint, and what its checks have in common.

#include "build/choices.hpp"
#include "chapters/joints/checks.hpp"
#include "chapters/joints/joint_choices.hpp"
#include "figures/figures.hpp"
#include "language/language.hpp"
#include "quantity/text.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <vector>

namespace deepstop {

class JointChecks {
public:
    JointChecks(Study& study, Axle axle, std::size_t index)
        : study_(study), axle_(axle), result_(study.after.at(axle)), corner_(*result_.corner), joint_(corner_.joints[index]),
          thread_(joints::parseThread(*joint_.thread)), number_(static_cast<int>(index) + 1),
          name_(joint_.name.empty() ? tr("bolts {}", index + 1) : joint_.name)
    {
    }

protected:
    std::string say(double length) const { return print(length, style::gap, study_.system); }

    Verdict& start(const Check& check, std::string_view title, Figure figure, const Style& style)
    {
        Verdict v = verdictOf(check, { axle_, {}, number_ });
        v.title = fmt::format("{}: {}", name_, title);
        v.title[0] = toUpper(v.title[0]);
        v.style = style;
        v.figure = std::move(figure);
        v.source = tr("Common practice; stress areas and proof stresses: ISO 898-1, from memory.");
        v.caution = tr("Start every bolt by hand before tightening any. The maker's torque outranks a computed one. Check again after the "
                       "first drive and at 50 to 100 miles.");
        study_.verdicts.push_back(std::move(v));
        return study_.verdicts.back();
    }

    void lack(Verdict& v, bool missing, std::string_view what)
    {
        if (!missing)
            return;
        v.lacksInWords.push_back(tr("{} of {} ({})", what, name_, judge::wordFor(axle_)));
        v.figure.value.reset();
    }

    /// Shims in the grip, of both sides of the car: the thickest stack shortens the thread, the thinnest brings the bolt nearest to what is
    /// behind.
    double shims(Evaluator& s, bool most) const
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
    void lackShims(Verdict& v) { lack(v, joint_.shims == ShimsIn::Unknown, tr("which shims lie in the grip")); }

    joints::BoltStack stack(Evaluator& s, bool mostShims) const
    {
        return { s(joint_.length), s(joint_.grip), shims(s, mostShims), s(joint_.threadDepth), s.orElse(joint_.roomBehind, 0),
            thread_ ? thread_->pitch : 0.0 };
    }

    /// Of the bolts, Pa: by their class, or as their maker gives it. NaN where neither was said.
    double proofStress(Evaluator& s) const
    {
        if (joint_.boltClass == BoltClass::Other)
            return s(joint_.proofStress, false);
        const auto grade = gradeOf(joint_.boltClass);
        return grade && thread_ ? joints::proofStress(*grade, thread_->diameter) : notGiven;
    }
    double proofLoad(Evaluator& s) const { return thread_ ? joints::proofLoad(*thread_, proofStress(s)) : notGiven; }
    void lackClass(Verdict& v) { lack(v, joint_.boltClass == BoltClass::Unknown, "class"); }

    /// Torque that a lock nut takes before it bears, N·m.
    double running(Evaluator& s) const { return hasLockNut(joint_) ? s(joint_.runningTorque, false) : 0; }

    /// Clamp force of one bolt tightened as the document says, N. NaN where that is not known.
    double preload(Evaluator& s) const
    {
        const auto lubrication = lubricationOf(joint_.condition);
        const double proof = proofLoad(s);
        if (!thread_ || !lubrication || std::isnan(proof))
            return notGiven;
        // What a lock nut takes to turn clamps nothing.
        const double wanted = joint_.makerTorque.value
            ? joints::preloadFrom(s(joint_.makerTorque, false) - running(s), thread_->diameter, *lubrication)
            : joints::preloadAim * proof;
        // Past its proof load it yields, and holds no more.
        return std::min(wanted, proof);
    }

    static constexpr double notGiven = std::numeric_limits<double>::quiet_NaN();

    Study& study_;
    Axle axle_;
    const AxleParts& result_;
    const Corner& corner_;
    const Joint& joint_;
    std::optional<joints::Thread> thread_;
    int number_;
    std::string name_;
};

/// Thread engagement, what is behind the thread, and the shank.
void addThreadChecks(Study& study, Axle axle, std::size_t index);
/// The torque, and the pressure under the heads.
void addTorqueChecks(Study& study, Axle axle, std::size_t index);
void addSlipCheck(Study& study, Axle axle, std::size_t index);
void addNutCheck(Study& study, Axle axle, std::size_t index);

} // namespace deepstop
