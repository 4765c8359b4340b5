#include "fit/stance.hpp"
#include "chapters/clearance/checks.hpp"
#include "joints/thread.hpp"
#include "build/choices.hpp"
#include "chapters/clearance/cures.hpp"
#include "chapters/clearance/wheel_figures.hpp"
#include "language/language.hpp"
#include "verdict/judge.hpp"
#include "chapters/clearance/clearance_parts.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace deepstop::clearance {
namespace {

/// A bore that is wider than its pilot by more than this no longer centres the wheel; common practice, no source.
constexpr double looseBore = 0.4e-3;

class Seat {
public:
    Seat(Study& study, Axle axle)
        : study_(study), axle_(axle), sides_(study.of<Clearance>().after.at(axle)), result_(sides_.left), corner_(*result_.corner),
          wheel_(*result_.wheel), hub_(hubOf(*study.build, axle)), wants_(study.build->wants)
    {
    }

    void add()
    {
        if (hub_.heldBy == WheelHeldBy::Bolts) {
            wheelBolts();
        } else if (centreNut()) {
            snout();
        } else {
            studs();
            closedNuts();
        }
        nuts();
        pilot();
        washers();
        addWheelPlace(study_, axle_);
        if (corner_.brakes == BrakeKind::Discs) {
            bleeder();
            pistons();
        }
    }

private:
    std::string say(double length) const { return print(length, style::gap, study_.system); }

    Verdict& start(const Check& check, std::string title, Figure figure)
    {
        return judge::startGapVerdict(study_, check, { axle_ }, std::move(title), std::move(figure));
    }

    [[nodiscard]] bool centreNut() const { return hub_.heldBy == WheelHeldBy::CentreLock || hub_.heldBy == WheelHeldBy::KnockOff; }

    /// One nut on the hub's snout: all of its thread has to hold.
    void snout()
    {
        Verdict& v = start(checks::studs, tr("Centre nut on the hub"), evaluate([&](Evaluator& s) {
            return joints::engagement(figures::studStack(s, corner_, wheel_, hub_)).inNut - s(hub_.nutThread);
        }));
        v.method = tr(
            "Threaded snout outboard of the flange, less ring, hat, spacer and the wheel's thickness to the nut, less one pitch of lead: "
            "it has to fill the nut's thread.");
        v.source = tr("Common practice.");
        v.caution =
            tr("One nut holds the wheel: torque it as its maker says, with the grease he names, and see that it is kept from turning.");
        if (!joints::parseThread(*hub_.studThread)) {
            v.lacksInWords.push_back(tr("thread of the hub's snout, {}", judge::wordFor(axle_)));
            v.figure.value.reset();
        }
        if (judge::unproven(study_, v))
            return;
        v.level = v.figure.lowest() >= -1e-9 ? Level::Good : v.figure.highest() < 0 ? Level::Stop : Level::Caution;
        v.reason = v.figure.lowest() >= -1e-9 ? tr("The nut's thread is filled")
                                              : tr("{} of the nut's thread is empty at worst", say(-v.figure.lowest()));
    }

    void studs()
    {
        Verdict& v = start(checks::studs, tr("Studs in their nuts"),
            evaluate([&](Evaluator& s) { return figures::studEngagement(s, corner_, wheel_, hub_).inNut; }));
        const auto thread =
            joints::parseThread(corner_.spacerPart.kind == SpacerKind::Bolted ? *corner_.spacerPart.studThread : *hub_.studThread);
        if (hub_.heldBy == WheelHeldBy::Unknown) {
            v.lacksInWords.push_back(tr("whether studs or bolts hold the wheel, {}", judge::wordFor(axle_)));
            v.figure.value.reset();
        }
        if (!thread) {
            v.lacksInWords.push_back(tr("thread of the studs, {}", judge::wordFor(axle_)));
            v.figure.value.reset();
        }
        if (corner_.spacer.value.value_or(0) > 0 && corner_.spacerPart.kind == SpacerKind::Unknown) {
            v.lacksInWords.push_back(tr("whether the spacer is slipped on or bolted, {}", judge::wordFor(axle_)));
            v.figure.value.reset();
        }
        const double factor = figures::setting(wants_.studEngagement, &Wants::studEngagement);
        v.method = tr("Stud outboard of the flange, less ring, hat, spacer and the mounting-pad thickness of the wheel, less one "
                      "pitch of lead at its tip; no more "
                      "than the nut's own thread. Wanted: {:g} stud diameters of full thread.",
            factor);
        v.source = tr("Common practice.");
        v.caution = tr("A wheel held by too little thread comes off. Count the turns of every nut, torque them in a cross, and check again "
                       "after 50 miles.");
        if (judge::unproven(study_, v))
            return;
        const double wanted = factor * thread->diameter;
        v.wanted = wanted;
        Evaluator s;
        const joints::StudStack all = figures::studStack(s, corner_, wheel_, hub_);
        const auto engagement = joints::engagement(all);
        const auto held = tr("{} of thread in the nut, {:.1f} turns; {} wanted", say(*v.figure.value), engagement.turns, say(wanted));
        // A nut shorter than what is wanted is full before that; more stud would not help.
        const bool nutFull = engagement.past >= -1e-9 && all.nutThread < wanted;
        if (v.figure.lowest() >= wanted - 1e-9) {
            v.level = Level::Good;
            v.reason = held;
        } else if (nutFull) {
            v.level = Level::Caution;
            v.reason = tr("{}: the nut itself is short, take longer nuts", held);
        } else {
            v.level = v.figure.highest() < wanted ? Level::Stop : Level::Caution;
            v.reason =
                tr("{}: order studs that stand {} out of the flange", held, say(joints::studToOrder(all, wanted, v.figure.worstCase)));
        }
    }

    /// What lies between the hub's flange and the seat.
    double packOf(Evaluator& s) const { return figures::wheelFace(s, corner_) + s(wheel_.padThickness); }

    /// How far a stud, the hub's or a bolted spacer's own, stands past the wheel's seat.
    double pastSeat(Evaluator& s) const
    {
        return corner_.spacerPart.kind == SpacerKind::Bolted ? s(corner_.spacerPart.studLength) - s(wheel_.padThickness)
                                                             : s(hub_.studLength) - packOf(s);
    }

    /// A closed nut on a long stud bottoms before it clamps.
    void closedNuts()
    {
        const Figure out = evaluate([&](Evaluator& s) { return pastSeat(s); });
        // A stud that ends within the nut's own thread reaches no bottom.
        const Figure within = evaluate([&](Evaluator& s) { return s(hub_.nutThread) - pastSeat(s); });
        if (hub_.nutEnd == NutEnd::Open || (hub_.nutEnd == NutEnd::Unknown && (!out.value || within.lowest() >= 0)))
            return;
        Verdict& v = start(checks::nutBottom, tr("Studs in closed nuts"),
            evaluate([&](Evaluator& s) { return hub_.nutEnd == NutEnd::Closed ? s(hub_.nutDepth) - pastSeat(s) : NAN; }));
        v.method = tr("Depth of a closed nut from its seat, less how far the stud stands past the wheel's seat.");
        v.source = tr("Plane geometry.");
        v.caution = tr("A nut that bottoms on its stud feels tight and clamps nothing: the wheel comes off.");
        if (hub_.nutEnd == NutEnd::Unknown)
            v.lacksInWords.push_back(tr("whether the wheel nuts are open or closed, {}", judge::wordFor(axle_)));
        if (judge::unproven(study_, v))
            return;
        v.level = v.figure.lowest() >= 1e-3 ? Level::Good : v.figure.lowest() > 0 ? Level::Caution : Level::Stop;
        v.reason = v.figure.lowest() > 0
            ? tr("{} left to the bottom of the nut at worst", say(v.figure.lowest()))
            : tr("The stud bottoms in its nut, {} too long at worst: open nuts, or shorter studs", say(-v.figure.lowest()));
    }

    /// A wheel on bolts: thread in the hub, and what their ends may strike.
    void wheelBolts()
    {
        const auto thread = joints::parseThread(*hub_.studThread);
        const auto into = [&](Evaluator& s) { return s(hub_.wheelBoltLength) - packOf(s); };
        Verdict& v = start(checks::studs, tr("Wheel bolts in the hub"),
            evaluate([&](Evaluator& s) { return std::min(into(s), s(hub_.hubThread)) + 0 * (into(s) + s(hub_.hubThread)); }));
        const double factor = figures::setting(wants_.studEngagement, &Wants::studEngagement);
        v.method = tr("Bolt under its seat less ring, hat or drum, spacer and the wheel's thickness to the seat; at most the thread "
                      "there is in the hub. Wanted: {:g} bolt diameters.",
            factor);
        v.source = tr("Common practice.");
        v.caution =
            tr("A wheel held by too little thread comes off. A spacer needs longer bolts: count the turns of every one, torque them in a "
               "cross, and check again after 50 miles.");
        if (!thread) {
            v.lacksInWords.push_back(tr("thread of the wheel bolts, {}", judge::wordFor(axle_)));
            v.figure.value.reset();
        }
        if (!judge::unproven(study_, v)) {
            const double wanted = factor * thread->diameter;
            v.wanted = wanted;
            v.level = v.figure.lowest() >= wanted - 1e-9 ? Level::Good : v.figure.highest() < wanted ? Level::Stop : Level::Caution;
            v.reason =
                tr("{} of thread in the hub, {:.1f} turns; {} wanted", say(*v.figure.value), *v.figure.value / thread->pitch, say(wanted));
            if (v.level != Level::Good)
                v.reason += tr(": bolts {} longer", say(wanted - v.figure.lowest()));
        }
        Verdict& end = start(checks::boltEnd, tr("Ends of the wheel bolts"),
            evaluate([&](Evaluator& s) { return s(hub_.hubThread) + s(hub_.behindFlange) - into(s); }));
        end.method = tr("Thread in the hub and the clearance behind it, less how far the bolt reaches in.");
        end.source = tr("Plane geometry; 2 mm wanted: common practice.");
        end.caution = tr("A bolt that reaches the parking brake's shoes, a sensor ring or the knuckle locks the wheel. Turn it by hand.");
        constexpr double behind = 2e-3;
        if (judge::unproven(study_, end))
            return;
        end.wanted = behind;
        end.level = gapLevel(end.figure, behind);
        end.level = end.level == Level::Hits ? Level::Stop : end.level == Level::Clear ? Level::Good : Level::Caution;
        end.reason = judge::gapReason(study_, end.figure, behind);
    }

    void nuts()
    {
        const std::string what = hub_.heldBy == WheelHeldBy::Bolts ? tr("bolts") : tr("nuts");
        Verdict& v =
            start(checks::nutSeat, hub_.heldBy == WheelHeldBy::Bolts ? tr("Wheel bolts on their seats") : tr("Nuts on their seats"), {});
        v.method = tr("Nut or bolt and wheel must have the same seat: cones of one angle, balls of one radius, flat on flat.");
        v.source = tr("Common practice.");
        v.caution = tr("A nut on the wrong seat touches along a line, works loose and spoils the wheel.");
        if (hub_.nutSeat == NutSeat::Unknown || wheel_.nutSeat == NutSeat::Unknown) {
            if (hub_.nutSeat == NutSeat::Unknown)
                v.lacksInWords.push_back(tr("seat of the {}, {}", what, judge::wordFor(axle_)));
            if (wheel_.nutSeat == NutSeat::Unknown)
                v.lacksInWords.push_back(tr("seat for the {} in {}", what, wheel_.name));
            v.reason = lacking(study_, v.figure, v.lacksInWords);
            return;
        }
        const bool alike = hub_.nutSeat == wheel_.nutSeat;
        if (!alike) {
            v.level = Level::Stop;
            v.reason =
                tr("{} for a {} seat, wheel with a {} one: others are needed", hub_.heldBy == WheelHeldBy::Bolts ? tr("Bolts") : tr("Nuts"),
                    wordFor(hub_.nutSeat, choices::nutSeat), wordFor(wheel_.nutSeat, choices::nutSeat));
            return;
        }
        if (hub_.nutSeat == NutSeat::Flat) {
            v.level = Level::Good;
            v.reason = tr("Both flat");
            return;
        }
        const bool cone = hub_.nutSeat == NutSeat::Cone;
        const Reading& one = cone ? hub_.seatAngle : hub_.seatRadius;
        const Reading& other = cone ? wheel_.seatAngle : wheel_.seatRadius;
        v.style = cone ? style::angle : style::size;
        v.figure = evaluate([&](Evaluator& s) { return s(one, !cone) - s(other, !cone); });
        // Cones come in 60 and 90°, balls in whole millimetres of radius.
        const double apart = cone ? 5 * std::numbers::pi / 180 : 0.5e-3;
        if (v.figure.value && std::abs(*v.figure.value) > apart) {
            v.level = Level::Stop;
            v.reason = cone ? tr("Cones of {} on seats of {}", print(*one.value, style::angle), print(*other.value, style::angle))
                            : tr("Balls of radius {} on seats of {}", say(*one.value), say(*other.value));
            return;
        }
        if (judge::unproven(study_, v))
            return;
        v.level = Level::Good;
        v.reason = cone ? tr("Both cones of {}", print(*one.value, style::angle)) : tr("Both balls of radius {}", say(*one.value));
    }

    void pilot()
    {
        // The wheel centres on a cap where the bore has one.
        const Rotor& rotor = corner_.rotor;
        const bool capped = corner_.brakes == BrakeKind::Discs && rotor.capped == YesNo::Yes;
        const Reading& centresOn = capped ? rotor.capDiameter : hub_.pilotDiameter;
        Verdict& v =
            start(checks::pilot, capped ? tr("Cap left for the wheel") : tr("Pilot left for the wheel"), evaluate([&](Evaluator& s) {
                // Chamfers carry nothing.
                if (capped)
                    return s(rotor.capHeight) - figures::spacerOf(s, corner_) - s(wheel_.boreChamfer);
                return s(hub_.pilotHeight) - figures::wheelFace(s, corner_) - s(hub_.pilotChamfer) - s(wheel_.boreChamfer);
            }));
        const Figure play = evaluate([&](Evaluator& s) { return s(wheel_.bore) - s(centresOn); });
        mergeDependencies(v.figure, play);
        v.figure.effects.resize(v.figure.value ? v.figure.restsOn.size() : 0);
        if (!play.value)
            v.figure.value.reset();
        const double wanted = figures::setting(wants_.pilotLeft, &Wants::pilotLeft);
        v.wanted = wanted;
        v.method =
            tr("Height of the hub's pilot less ring, hat or drum and spacer, and less the chamfers of pilot and bore; wheel's bore less "
               "the pilot's diameter.");
        v.source = tr("Wanted length: common practice, under Limits.");
        v.caution = tr("A wheel that hangs on its studs alone runs out and shakes.");
        if (judge::unproven(study_, v))
            return;
        if (play.highest() < 0) {
            v.level = Level::Stop;
            v.reason = tr("The wheel's bore is {} smaller than the pilot: it cannot sit flat", say(-*play.value));
        } else if (play.lowest() < 0) {
            v.level = Level::Caution;
            v.reason = tr("The wheel's bore may be {} smaller than the pilot at worst: measure both again, or try the wheel on by hand",
                say(-play.lowest()));
        } else if (v.figure.lowest() < wanted) {
            v.level = Level::Caution;
            v.reason = tr("{} left at worst, {} wanted: {}", say(std::max(0.0, v.figure.lowest())), say(wanted),
                corner_.spacer.value.value_or(0) > 0 ? tr("take a spacer with a pilot of its own")
                                                     : tr("the wheel needs a pilot of its own, as a spacer has that brings one"));
        } else if (play.highest() > looseBore) {
            v.level = Level::Caution;
            v.reason = tr("{} left, but the bore has {} of play: a centring ring", say(*v.figure.value), say(play.highest()));
        } else {
            v.level = Level::Good;
            v.reason = tr("{} left in the wheel", say(*v.figure.value));
        }
    }

    void washers()
    {
        if (!corner_.washers.value)
            return;
        const double gap =
            corner_.freed == Freed::WantedGap ? 0 : std::max(result_.room(WheelGap::Barrel).wanted, result_.room(WheelGap::Spokes).wanted);
        // A spacer that was in counts as washers did.
        const bool withSpacer = corner_.spacerInTrial == YesNo::Yes;
        Verdict& v = start(checks::washers, tr("Washer trial"),
            evaluate([&](Evaluator& s) { return s(corner_.washers) + gap + (withSpacer ? s.orElse(corner_.spacer, 0) : 0); }));
        if (corner_.spacer.value.value_or(0) > 0 && corner_.spacerInTrial == YesNo::Unknown) {
            v.lacksInWords.push_back(tr("whether the spacer was in during the washer trial, {}", judge::wordFor(axle_)));
            v.figure.value.reset();
        }
        const double step = figures::setting(wants_.spacerStep, &Wants::spacerStep);
        v.method =
            tr("The stack behind the wheel that just lets it turn, and the wanted gap on top of it unless the stack gave that already; "
               "rounded up to "
               "a spacer that can be bought, or turned in the steps set under Limits.");
        v.source = tr("Common practice; sizes to buy: 3, 5, 8, 10, 12, 15, 20, 25 mm.");
        v.caution = tr("Washers are for turning by hand only. Never drive on a stack.");
        if (judge::unproven(study_, v))
            return;
        const double there = corner_.spacer.value.value_or(0);
        const Figure smallest = figures::lesserOf(sides_.left.smallestGap, sides_.right.smallestGap).figure;
        if (corner_.washers.value == 0.0 && !(withSpacer && there > 0)) {
            turnsWithNothing(v, smallest, gap);
            return;
        }
        const double needed = v.figure.highest();
        v.wanted = needed;
        if (there >= needed - 1e-9) {
            v.level = Level::Good;
            v.reason = tr("Needs {} at worst, the spacer has {}: recheck with the wheel on", say(needed), say(there));
            return;
        }
        const double turned = fit::turnedSpacer(needed, step);
        const auto bought = fit::boughtSpacer(needed);
        v.level = Level::Caution;
        v.reason = bought ? tr("Needs {} at worst: buy {} or have {} turned", say(needed), say(*bought), say(turned))
                          : tr("Needs {} at worst: more than is sold; have {} turned", say(needed), say(turned));
        if (smallest.value && smallest.lowest() > 0 && there == 0)
            v.reason += tr(". By the readings the wheel clears by {} without: one of the two is wrong", say(*smallest.value));
        if (study_.remedies == Remedies::LeftOut)
            return;
        const auto offer = [&](const std::string& title, double size) {
            v.remedies.push_back(study_.recall(
                fmt::format("{} {} {:a}", judge::wordFor(axle_), title, size), [&] { return spacerRemedy(study_, axle_, title, size); }));
        };
        if (bought)
            offer(tr("Buy a spacer of {}", say(*bought)), *bought);
        if (!bought || turned < *bought - 1e-9)
            offer(tr("Have a spacer of {} turned", say(turned)), turned);
    }

    /// It turned with nothing behind it: no spacer is called for, but how wide the gap is the trial has not said.
    void turnsWithNothing(Verdict& v, const Figure& smallest, double gap) const
    {
        const bool wide = smallest.value && smallest.lowest() >= gap && !smallest.provisional();
        v.level = gap <= 0 || wide ? Level::Good : Level::Unproven;
        v.reason = gap <= 0 ? std::string(tr("Turns with the wanted gap and nothing behind the wheel: no spacer"))
            : wide          ? tr("Turns with nothing behind the wheel, and clears by {} at worst: no spacer", say(smallest.lowest()))
                            : tr("Turns with nothing behind the wheel: no spacer is needed to turn. Whether {} of gap are there, the "
                                          "trial does not say: measure it",
                                say(gap));
    }

    void bleeder()
    {
        Verdict& v = start(checks::bleeder, tr("Bleeder at the top"), {});
        v.method = tr(
            "Behind the axle the rotor leaves its caliper upward, ahead of it downward; the bleeder has to be at the end that is higher.");
        v.source = tr("Plane geometry.");
        v.caution = tr("A bleeder below the top leaves air in the caliper: the pedal goes soft.");
        const Caliper& caliper = corner_.caliper;
        v.figure = evaluate([&](Evaluator& s) { return caliper.bleeders == Bleeders::BothEnds ? 1.0 : s(corner_.mount.clock, false); });
        v.style = style::angle;
        if (caliper.bleeders == Bleeders::Unknown)
            v.lacksInWords.push_back(tr("where the caliper has its bleeders, {}", judge::wordFor(axle_)));
        else if (caliper.bleeders == Bleeders::OneEnd && caliper.bleederEnd == End::Unknown)
            v.lacksInWords.push_back(tr("at which end the bleeder sits, {}", judge::wordFor(axle_)));
        if (!v.lacksInWords.empty())
            v.figure.value.reset();
        if (judge::unproven(study_, v))
            return;
        if (caliper.bleeders == Bleeders::BothEnds) {
            v.figure = {};
            v.level = Level::Good;
            v.reason = tr("One at either end: open the upper one");
            return;
        }
        const double up = std::sin(*v.figure.value) * (caliper.bleederEnd == End::Exit ? 1 : -1);
        // Within ten degrees of straight up or down both ends are level.
        const bool level = std::abs(up) < std::sin(10 * std::numbers::pi / 180);
        v.level = level ? Level::Caution : up > 0 ? Level::Good : Level::Stop;
        v.reason = level ? tr("The caliper lies level: neither end is the top, tilt it to bleed")
            : up > 0     ? tr("It is at the higher end")
                         : tr("It is at the lower end: this caliper belongs on the other side");
    }

    void pistons()
    {
        const auto& bores = corner_.caliper.pistons;
        if (bores.size() < 2 || std::ranges::any_of(bores, [](const Reading& b) { return !b.value; }))
            return;
        const auto [least, most] = std::ranges::minmax_element(bores, {}, [](const Reading& b) { return *b.value; });
        if (*most->value - *least->value < 0.2e-3)
            return;
        Verdict& v = start(checks::pistonOrder, tr("Small piston at the rotor's entry"),
            evaluate([&](Evaluator& s) { return s(bores.back()) - s(bores.front()); }));
        v.method =
            tr("Pistons of unequal bore are listed from where the rotor enters; the smallest stands first, so that the pad wears evenly.");
        v.source = tr("Common practice.");
        v.caution = tr("A caliper with its large piston at the entry is one for the other side.");
        if (judge::unproven(study_, v))
            return;
        v.level = *v.figure.value > 0 ? Level::Good : Level::Caution;
        v.reason = *v.figure.value > 0 ? tr("It is") : tr("The largest is at the entry: left and right may be exchanged");
    }

    Study& study_;
    Axle axle_;
    const AxleClearance& sides_;
    const CornerClearance& result_; ///< of the left; what both sides share is read from it
    const Corner& corner_;
    const Wheel& wheel_;
    const Hub& hub_;
    const Wants& wants_;
};

} // namespace

void addSeatVerdicts(Study& study, Axle axle)
{
    if (study.of<Clearance>().after.at(axle).left.corner && study.of<Clearance>().after.at(axle).left.wheel)
        Seat(study, axle).add();
}

} // namespace deepstop::clearance
