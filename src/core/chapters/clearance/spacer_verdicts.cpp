#include "build/choices.hpp"
#include "chapters/clearance/checks.hpp"
#include "chapters/clearance/clearance_parts.hpp"
#include "chapters/clearance/wheel_figures.hpp"
#include "joints/thread.hpp"
#include "language/language.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <cmath>

namespace deepstop::clearance {
namespace {

/// Drive pins reach at least this far into the wheel; common practice, no source.
constexpr double pinsWanted = 8e-3;

/// A spacer bolted to the hub, the wheel bolted to the spacer.
class BoltedSpacer {
public:
    BoltedSpacer(Study& study, Axle axle)
        : study_(study), axle_(axle), corner_(*study.after.at(axle).corner), wheel_(*study.after.at(axle).wheel),
          hub_(hubOf(*study.build, axle))
    {
    }

    void add()
    {
        ownNuts();
        proudStuds();
    }

private:
    std::string say(double length) const { return print(length, style::gap, study_.system); }
    /// From the flange to the spacer's back.
    double back(Evaluator& s) const { return figures::wheelFace(s, corner_) - s(corner_.spacer); }

    void ownNuts()
    {
        const SpacerPart& part = corner_.spacerPart;
        Verdict& v =
            judge::startGapVerdict(study_, checks::spacerNuts, { axle_ }, tr("Nuts that hold the spacer"), evaluate([&](Evaluator& s) {
                const auto thread = joints::parseThread(*hub_.studThread);
                const double full = s(hub_.studLength) - back(s) - s(part.seat) - (thread ? thread->pitch : NAN);
                const double nut = s(part.nutThread);
                return std::isfinite(full + nut) ? std::clamp(full, 0.0, nut) : NAN;
            }));
        const double factor = figures::setting(study_.build->wants.studEngagement, &Wants::studEngagement);
        v.method = tr("Hub's stud less ring, hat and the spacer's thickness under its own nuts, less one pitch of lead; at most the "
                      "nut's own thread. Wanted: {:g} stud diameters. Torque both: these nuts and the wheel's.",
            factor);
        v.source = tr("Common practice.");
        v.caution = tr("Two joints hold the wheel now: the spacer's nuts cannot be seen once the wheel is on. Torque both, check both "
                       "after 50 miles.");
        const auto thread = joints::parseThread(*hub_.studThread);
        if (!thread) {
            v.lacksInWords.push_back(tr("thread of the studs, {}", judge::wordFor(axle_)));
            v.figure.value.reset();
        }
        if (!part.torque.value)
            v.figure.lacks.emplace_back(part.torque), v.figure.value.reset();
        if (judge::unproven(study_, v))
            return;
        const double wanted = factor * thread->diameter;
        v.wanted = wanted;
        v.level = v.figure.lowest() >= wanted - 1e-9 ? Level::Good : v.figure.highest() < wanted ? Level::Stop : Level::Caution;
        v.reason = tr("{} of thread, {} wanted; tightened to {}", say(*v.figure.value), say(wanted),
            print(*part.torque.value, style::torque, study_.system));
    }

    /// The hub's own studs end inside the spacer, or in recesses of the wheel.
    void proudStuds()
    {
        Verdict& v = judge::startGapVerdict(study_, checks::proudStuds, { axle_ }, tr("Hub's studs inside the spacer"),
            evaluate([&](Evaluator& s) { return figures::wheelFace(s, corner_) + s.orElse(wheel_.backPocket, 0) - s(hub_.studLength); }));
        v.method = tr("Ring, hat and spacer, and recesses in the wheel's back where it has them, less the hub's stud.");
        v.source = tr("Plane geometry.");
        v.caution =
            tr("A stud that stands proud of the spacer holds the wheel off it: it looks tight and comes loose. Studs are cut only as the "
               "spacer's maker says.");
        if (judge::unproven(study_, v))
            return;
        v.level = v.figure.lowest() >= 0 ? Level::Good : v.figure.highest() < 0 ? Level::Stop : Level::Caution;
        v.reason = v.figure.lowest() >= 0 ? tr("They end {} inside at worst", say(v.figure.lowest()))
                                          : tr("They may stand {} proud of the spacer: the wheel cannot sit flat", say(-v.figure.lowest()));
    }

    Study& study_;
    Axle axle_;
    const Corner& corner_;
    const Wheel& wheel_;
    const Hub& hub_;
};

void addDrivePins(Study& study, Axle axle)
{
    const Corner& corner = *study.after.at(axle).corner;
    const Hub& hub = hubOf(*study.build, axle);
    Verdict& v = judge::startGapVerdict(study, checks::drivePins, { axle }, tr("Drive pins in the wheel"),
        evaluate([&](Evaluator& s) { return s(hub.pinLength) - figures::wheelFace(s, corner); }));
    v.method = tr(
        "Pins from the flange less ring, hat and spacer; 8 mm wanted. They carry the brake's torque, the nut only clamps. The centre nut "
        "is kept from turning by a pin, clip or wire.");
    v.source = tr("Common practice.");
    v.caution = tr("Pins that do not reach let the wheel turn on its hub; a nut that nothing keeps comes off.");
    v.wanted = pinsWanted;
    if (hub.nutLocked == YesNo::No) {
        v.level = Level::Stop;
        v.reason = tr("Nothing keeps the centre nut from turning");
        return;
    }
    if (hub.nutLocked == YesNo::Unknown) {
        v.lacksInWords.push_back(tr("whether a pin, clip or wire keeps the centre nut, {}", judge::wordFor(axle)));
        if (!(v.figure.value && v.figure.highest() < pinsWanted))
            v.figure.value.reset();
    }
    if (v.figure.value && v.figure.highest() < pinsWanted) {
        v.level = Level::Stop;
        v.reason = tr("They reach {} into the wheel, {} wanted: longer pins", print(*v.figure.value, style::gap, study.system),
            print(pinsWanted, style::gap, study.system));
        return;
    }
    if (judge::unproven(study, v))
        return;
    v.level = v.figure.lowest() >= pinsWanted ? Level::Good : Level::Caution;
    v.reason = tr("{} in the wheel at worst", print(v.figure.lowest(), style::gap, study.system));
}

} // namespace

void addSpacerVerdicts(Study& study, Axle axle)
{
    const AxleParts& parts = study.after.at(axle);
    if (!parts.corner || !parts.wheel)
        return;
    if (parts.corner->spacerPart.kind == SpacerKind::Bolted)
        BoltedSpacer(study, axle).add();
    if (hubOf(*study.build, axle).heldBy == WheelHeldBy::CentreLock)
        addDrivePins(study, axle);
    else if (hubOf(*study.build, axle).heldBy == WheelHeldBy::KnockOff && hubOf(*study.build, axle).nutLocked != YesNo::Yes) {
        Verdict& v = judge::startGapVerdict(study, checks::drivePins, { axle }, tr("Knock-off kept"), Figure {});
        v.method = tr("A knock-off tightens against the way its wheel turns, and is kept by a pin, clip or wire.");
        v.source = tr("Common practice.");
        v.caution = tr("A knock-off on the wrong side of the car undoes itself.");
        v.level = hubOf(*study.build, axle).nutLocked == YesNo::No ? Level::Stop : Level::Unproven;
        if (v.level == Level::Unproven)
            v.lacksInWords.push_back(tr("whether a pin, clip or wire keeps the centre nut, {}", judge::wordFor(axle)));
        v.reason = v.level == Level::Stop ? tr("Nothing keeps the knock-off from turning") : lacking(study, v.figure, v.lacksInWords);
    }
}

} // namespace deepstop::clearance
