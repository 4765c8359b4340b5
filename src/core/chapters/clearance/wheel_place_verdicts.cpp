#include "chapters/clearance/checks.hpp"
#include "chapters/clearance/clearance_parts.hpp"
#include "chapters/clearance/cures.hpp"
#include "chapters/clearance/wheel_figures.hpp"
#include "fit/stance.hpp"
#include "language/language.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <cmath>

namespace deepstop::clearance {
namespace {

/// Room at fender and strut that is called enough; common practice, no source.
constexpr double besideTyre = 5e-3;
/// A wheel moved by more than this is worth a second look at everything around it; common practice, no source.
constexpr double muchMoved = 5e-3;

/// Where the wheel stands now against where it stood as found.
class WheelPlace {
public:
    WheelPlace(Study& study, Axle axle)
        : study_(study), axle_(axle), corner_(*study.of<Clearance>().after.at(axle).left.corner),
          wheel_(*study.of<Clearance>().after.at(axle).left.wheel), hub_(hubOf(*study.build, axle)),
          found_(study.of<Clearance>().before.at(axle).left)
    {
    }

    void add()
    {
        if (!found_.corner || !found_.wheel)
            return;
        place();
        beside(checks::fenderRoom, tr("Tyre to fender"), hub_.fenderRoom, true);
        beside(checks::innerRoom, tr("Tyre to strut"), hub_.innerRoom, false);
    }

private:
    std::string say(double length) const { return print(length, style::gap, study_.system); }

    Verdict& start(const Check& check, std::string title, Figure figure)
    {
        return judge::startGapVerdict(study_, check, { axle_ }, std::move(title), std::move(figure));
    }

    /// A plate taken out from between knuckle and hub lets the hub in: negative.
    double hubIn(Evaluator& s) const
    {
        const ShieldPart& part = corner_.shield;
        if (part.lies == PlateLies::Unknown && part.state == ShieldState::Removed)
            s.assume(tr("a shield whose plate was not clamped between knuckle and hub"));
        return part.lies == PlateLies::KnuckleAndHub && part.state == ShieldState::Removed
                && found_.corner->shield.state != ShieldState::Removed
            ? -s(part.plate)
            : 0;
    }

    void place()
    {
        const Corner& was = *found_.corner;
        const Wheel& wheelBefore = *found_.wheel;
        Verdict& v = start(checks::wheelPlace, tr("Wheel position"), evaluate([&](Evaluator& s) {
            // The same wheel stands in both, and cancels.
            if (&wheel_ == &wheelBefore)
                return figures::wheelFace(s, corner_) - figures::wheelFace(s, was) + hubIn(s);
            return figures::wheelMiddle(s, corner_, wheel_) - figures::wheelMiddle(s, was, wheelBefore) + hubIn(s);
        }));
        v.method = tr("Ring, hat and spacer less the wheel's offset, now and before. The effective offset falls by hat, ring and spacer; "
                      "backspacing is half the overall "
                      "width and the offset; the track grows on both sides, the scrub radius by as much as the tyre's middle moves.");
        v.source = tr("Plane geometry; overall width: printed width and 25 mm where it is not measured (common practice).");
        v.caution =
            tr("A wheel further out loads bearings and steering more and needs clearance at the fender: turn the steering lock to lock "
               "with the car down.");
        if (judge::unproven(study_, v))
            return;
        const double shift = *v.figure.value;
        v.level = std::abs(shift) > muchMoved ? Level::Caution : Level::Good;
        v.reason = std::abs(shift) < 0.05e-3 ? std::string(tr("As before"))
                                             : tr("{} further {} than before", say(std::abs(shift)), shift > 0 ? tr("out") : tr("in"));
        Evaluator s;
        const double offset = s(wheel_.offset) - figures::wheelFace(s, corner_) + figures::wheelFace(s, was);
        if (std::isfinite(offset))
            v.reason += tr(", effective offset {}", say(offset));
        if (const auto stance = figures::stanceOf(s, corner_, wheel_); std::isfinite(stance.innerEdge))
            v.reason += tr(", backspacing {}", say(fit::backspacing(stance.outerEdge - stance.innerEdge, offset)));
        if (std::abs(shift) >= 0.05e-3) {
            const Reading& track = axle_ == Axle::Front ? study_.build->car.frontTrack : study_.build->car.rearTrack;
            v.reason += track.value ? tr(", track {}", print(*track.value + 2 * shift, style::frame, study_.system))
                                    : tr(", track {}", printChange(2 * shift, style::gap, study_.system));
            v.reason += hub_.scrubRadius.value ? tr(", scrub radius {}", say(*hub_.scrubRadius.value + shift))
                                               : tr(", scrub radius {}", printChange(shift, style::gap, study_.system));
        }
        if (v.level == Level::Caution)
            v.reason += tr(": check studs, pilot and fender");
    }

    void beside(const Check& check, std::string title, const Reading& before, bool outer)
    {
        if (!before.value)
            return;
        Verdict& v = start(check, std::move(title), evaluate([&](Evaluator& s) {
            // How far this edge of the wheel moved towards what it may strike.
            if (&wheel_ == found_.wheel) {
                const double moved = figures::wheelFace(s, corner_) - figures::wheelFace(s, *found_.corner) + hubIn(s);
                return s(before) - (outer ? moved : -moved);
            }
            const auto now = figures::stanceOf(s, corner_, wheel_);
            const auto was = figures::stanceOf(s, *found_.corner, *found_.wheel);
            return outer ? s(before) - (now.outerEdge - was.outerEdge + hubIn(s)) : s(before) + (now.innerEdge - was.innerEdge + hubIn(s));
        }));
        v.wanted = besideTyre;
        v.level = gapLevel(v.figure, besideTyre);
        v.reason = judge::gapReason(study_, v.figure, besideTyre);
        v.method = tr("Room as found, less how far that edge of the wheel has moved. The same tyre is taken to be on it.");
        v.source = tr("Plane geometry; 5 mm wanted: common practice.");
        v.caution = tr("Look at it at full lock and full bump, with the car loaded.");
    }

    Study& study_;
    Axle axle_;
    const Corner& corner_;
    const Wheel& wheel_;
    const Hub& hub_;
    const CornerClearance& found_;
};

} // namespace

void addWheelPlace(Study& study, Axle axle) { WheelPlace(study, axle).add(); }

} // namespace deepstop::clearance
