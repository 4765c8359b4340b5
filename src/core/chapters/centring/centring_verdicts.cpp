#include "centring/car_plan.hpp"
#include "centring/drawer.hpp"
#include "chapters/centring/checks.hpp"
#include "language/language.hpp"
#include "quantity/text.hpp"
#include "build/choices.hpp"
#include "chapters/centring/centring_parts.hpp"
#include "figures/figures.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace deepstop::mock_ups {
namespace {

/// Two nuts hold a rotor flat, three are better; common practice, no source.
constexpr int nutsEnough = 2;
/// Over this a hub-face ring is set beside the shims, even where they could do it; common practice, no source.
constexpr double farOff = 2e-3;

class Checks {
public:
    explicit Checks(Study& study)
        : study_(study), found_(study.of<Centring>()), aim_(figures::setting(study.build->wants.centred, &Wants::centred)),
          usable_(figures::setting(study.build->wants.usable, &Wants::usable))
    {
    }

    void add()
    {
        for (const CentringResult& r : found_.corners) {
            axial(r);
            tilt(r);
            padEdge(r);
            conditions(r);
            agreement(r);
            slotSum(r);
        }
        if (found_.corners.empty())
            fromDimensions();
    }

private:
    std::string say(double length) const { return print(length, style::fine, study_.system); }

    Verdict start(const CentringResult& r, const Check& check, const Figure& figure) const
    {
        Verdict v = verdictOf(check, { r.mockUp->axle, r.mockUp->side });
        v.title = fmt::format("{} {}: {}", judge::wordFor(r.mockUp->axle), wordFor(r.mockUp->side, choices::side), tr(check.title));
        v.title[0] = toUpper(v.title[0]);
        v.style = style::fine;
        v.figure = figure;
        return v;
    }

    /// Good within what is aimed at, caution while usable, stop beyond; each only as far as the readings are good enough to say so.
    void judgeOffset(Verdict& v, std::string_view outward, std::string_view inward) const
    {
        const double off = std::abs(*v.figure.value);
        v.wanted = aim_;
        const double unsure = v.figure.rootSumSquare;
        // Readings coarser than what is judged prove neither good nor bad.
        v.level = off + unsure <= aim_            ? Level::Good
            : off - unsure > usable_              ? Level::Stop
            : off > aim_ && unsure <= aim_ + 1e-9 ? Level::Caution
                                                  : Level::Unproven;
        if (v.level == Level::Unproven) {
            v.reason = tr("{} off, but the readings are only good to ±{}: use a vernier or feeler gauges", say(off), say(unsure));
            return;
        }
        v.reason =
            off < 0.005e-3 ? std::string(tr("In the middle")) : fmt::format("{} {}", say(off), *v.figure.value > 0 ? outward : inward);
        if (off >= 0.005e-3)
            v.reason += fmt::format(", ±{}", say(unsure));
        if (v.level != Level::Good)
            v.reason += tr(", {} wanted", say(aim_));
    }

    std::string pile(const std::vector<double>& shims) const { return centring::pileText(shims, study_.system); }

    /// The plan put in: what was read goes to the corner's history, new stacks, the slot moved with them, and gaps foretold, hence only
    /// estimated until they are read again.
    Edit fitted(const CentringResult& r, const centring::Plan& plan) const
    {
        return [setup = study_.after.setup->id, number = static_cast<std::size_t>(r.mockUp - study_.build->mockUps.data()),
                   axle = r.mockUp->axle, side = r.mockUp->side, plan, moved = plan.remaining.axial - r.position->axial,
                   turned = plan.remaining.tilt - r.position->tilt](const Build& now) -> std::optional<Build> {
            Build build = now;
            if (!setupIn(build, setup) || number >= build.mockUps.size())
                return {};
            MockUp& m = build.mockUps[number];
            if (m.axle != axle || m.side != side)
                return {};
            Corner& corner = ownCorner(build, setup, axle);
            Fitted& in = corner.at(side);
            m.passes.push_back({ m.innerTop.date, m.innerTop, m.outerTop, m.innerBottom, m.outerBottom, m.padEdgeTop, m.padEdgeBottom,
                in.shimTop, in.shimBottom, in.radialTop, in.radialBottom });
            const auto foretell = [](Reading& reading, double by) {
                if (reading.value)
                    reading = { *reading.value + by, reading.plusMinus, Known::Estimated, reading.instrument, {} };
            };
            const double tilted = turned * m.gapSpacing.value.value_or(0) / 2;
            foretell(m.outerTop, moved + tilted);
            foretell(m.innerTop, -moved - tilted);
            foretell(m.outerBottom, moved - tilted);
            foretell(m.innerBottom, -moved + tilted);
            const auto stack = [](Reading& reading, const centring::Stack& shims) {
                reading = { shims.total, {}, Known::Measured, "micrometer", {} };
            };
            if (plan.radialTop && plan.radialBottom) {
                // Thicker moves the caliper outward, and the pad's edge with it.
                const double top = plan.radialTop->total - in.radialTop.value.value_or(0);
                const double bottom = plan.radialBottom->total - in.radialBottom.value.value_or(0);
                const double ratio = corner.pad.length.value.value_or(0) / corner.mount.boltSpacing.value.value_or(1);
                foretell(m.padEdgeTop, -(top + bottom) / 2 - (top - bottom) / 2 * ratio);
                foretell(m.padEdgeBottom, -(top + bottom) / 2 + (top - bottom) / 2 * ratio);
                foretell(in.padInset, -(top + bottom) / 2);
                stack(in.radialTop, *plan.radialTop);
                stack(in.radialBottom, *plan.radialBottom);
            }
            stack(in.shimTop, plan.top);
            stack(in.shimBottom, plan.bottom);
            if (in.slotCentre.value)
                changeTo(in.slotCentre, *in.slotCentre.value + moved);
            return build;
        };
    }

    Remedy planned(const CentringResult& r, const centring::Plan& plan, bool second) const
    {
        Remedy remedy;
        remedy.title = tr("{} {}, bottom {}", second ? tr("Or: top") : tr("Top"), pile(plan.top.shims), pile(plan.bottom.shims));
        if (plan.radialTop && plan.radialBottom)
            remedy.title += tr("; under the studs top {}, bottom {}", pile(plan.radialTop->shims), pile(plan.radialBottom->shims));
        remedy.gap.value = plan.remaining.axial;
        const Fitted& in = r.corner->at(r.mockUp->side);
        const auto now = [&](const Reading& reading) { return say(reading.value.value_or(0)); };
        remedy.costs = { tr("in now: {} and {}", now(in.shimTop), now(in.shimBottom)) };
        if (r.corner->mount.kind == MountKind::Radial && plan.radialTop)
            remedy.costs.push_back(tr("under the studs now: {} and {}", now(in.radialTop), now(in.radialBottom)));
        if (!plan.possible && !plan.why.empty())
            remedy.costs.push_back(plan.why);
        remedy.costs.emplace_back(tr("then read the four gaps again"));
        remedy.edit = fitted(r, plan);
        return remedy;
    }

    /// The other school: the rotor goes to the caliper. Only outboard, for a ring lies behind it.
    std::optional<Remedy> ring(const CentringResult& r, double off) const
    {
        if (off <= 0)
            return {};
        const double thickness = r.corner->ring.value.value_or(0) + off;
        const Reading made { thickness, 0.05e-3, Known::Vendor, {}, {} };
        Corner corner = *r.corner;
        corner.ring = made;
        Remedy remedy;
        remedy.edit = [setup = study_.after.setup->id, read = r.mockUp->setup, axle = r.mockUp->axle, made, off](
                          const Build& now) -> std::optional<Build> {
            Build build = now;
            if (!setupIn(build, setup))
                return {};
            ownCorner(build, setup, axle).ring = made;
            for (MockUp& m : build.mockUps)
                if (m.setup == read && m.axle == axle) {
                    // The rotor goes outboard on both sides of the car.
                    for (Reading* outer : { &m.outerTop, &m.outerBottom })
                        if (outer->value)
                            *outer = { *outer->value - off, outer->plusMinus, Known::Estimated, outer->instrument, {} };
                    for (Reading* inner : { &m.innerTop, &m.innerBottom })
                        if (inner->value)
                            *inner = { *inner->value + off, inner->plusMinus, Known::Estimated, inner->instrument, {} };
                }
            return build;
        };
        remedy.title = tr("Hub-face ring of {}", say(thickness));
        remedy.gap.value = 0;
        remedy.costs = { tr("wheel {} further out, on both sides", say(off)) };
        const AxleParts& result = study_.after.at(r.mockUp->axle);
        if (result.wheel) {
            const Hub& hub = hubOf(*study_.build, r.mockUp->axle);
            const double inNut = nominal([&](Evaluator& s) { return figures::studEngagement(s, corner, *result.wheel, hub).inNut; });
            remedy.costs.emplace_back(std::isfinite(inNut) ? tr("{} of stud left in the nut", print(inNut, style::gap, study_.system))
                                                           : std::string(tr("measure the studs first")));
            const double pilot = nominal([&](Evaluator& s) {
                return s(hub.pilotHeight) - figures::behindRotor(s, corner) - s(corner.rotor.hatThickness) - figures::spacerOf(s, corner);
            });
            if (std::isfinite(pilot))
                remedy.costs.push_back(tr("{} of pilot left", print(pilot, style::gap, study_.system)));
        }
        remedy.costs.emplace_back(tr("its bore on the pilot, its holes on the bolt circle"));
        return remedy;
    }

    void axial(const CentringResult& r)
    {
        Verdict v = start(r, checks::axial, r.axial);
        v.method = tr("Half the difference of outer and inner gap, mean of top and bottom; the interval is that of the four readings as "
                      "independent errors, with half the play where it was not "
                      "taken up the same way. Several mock-ups of a corner count by their mean, each by its width, never better than they "
                      "contradict each "
                      "other. Shims: search of the "
                      "one drawer for every bolt of the car at once; least error beyond half of what is aimed at, then fewest shims; said "
                      "where no proof was found that none is better. Shims first, for they move "
                      "nothing else; a ring where they cannot, at the price of offset, studs and pilot.");
        if (r.corner->caliper.kind == CaliperKind::Floating)
            v.method += tr(" Of a floating caliper the carrier is what is centred and shimmed, and the gaps are those to its two arms.");
        v.source = tr("Plane geometry; 0.25 mm aimed at, 0.5 mm usable: common practice.");
        v.caution =
            tr("Read with the rotor flat on a clean hub, held by at least three nuts, the caliper's play settled the same way each time.");
        if (!judge::unproven(study_, v)) {
            judgeOffset(v, tr("too far outboard"), tr("too far inboard"));
            const CaliperKind kind = r.corner->caliper.kind;
            if (v.level != Level::Unproven && std::abs(*v.figure.value) >= 0.005e-3)
                v.reason = kind == CaliperKind::Floating ? tr("Carrier {}", v.reason) : tr("Caliper {}", v.reason);
            if (kind == CaliperKind::Floating)
                v.reason += tr(", read to the carrier: the body slides");
            if (kind == CaliperKind::Unknown) {
                // The body of a floating caliper stands wherever it was pushed last.
                v.lacksInWords.push_back(tr("whether the caliper is fixed or floating ({})", judge::wordFor(r.mockUp->axle)));
                if (v.level == Level::Good)
                    v.level = Level::Unproven;
                v.reason += tr(". Say whether it is fixed or floating: of a floating one only gaps to its carrier count");
            }
            if (!r.why.empty())
                v.reason += ". " + r.why;
            const bool sought = v.level != Level::Good && study_.remedies == Remedies::Sought;
            if (r.plan && !r.plan->possible) {
                v.reason += ". " + r.plan->why;
                if (!found_.shimsToBuy.empty()) {
                    v.reason += tr(" To buy, for both sides:");
                    for (std::size_t i = 0; i < found_.shimsToBuy.size(); ++i)
                        v.reason += fmt::format("{} {} × {}", i ? "," : "", found_.shimsToBuy[i].count,
                            centring::shimText(found_.shimsToBuy[i].thickness, study_.system));
                }
            }
            if (r.all.size() > 1)
                v.reason += tr(". Mean of {} mock-ups", r.all.size());
            if (sought && r.plan && !r.unproven.empty())
                v.reason += tr(". The shims below are the best {}", r.unproven);
            if (r.learnt)
                v.reason += tr(". So far shims moved it {:.2f} of their thickness{}", r.learnt->ratio,
                    r.effect() == 1 && std::abs(r.learnt->ratio - 1) > 0.3 ? tr(", which cannot be: a reading or a stack is wrong") : "");
            const auto better = [&](const centring::Plan& plan) {
                return std::abs(plan.remaining.axial) < std::abs(*v.figure.value) - 1e-6;
            };
            if (sought && r.plan && better(*r.plan)) {
                v.remedies.push_back(planned(r, *r.plan, false));
                if (r.next && better(*r.next) && (r.next->top.shims != r.plan->top.shims || r.next->bottom.shims != r.plan->bottom.shims))
                    v.remedies.push_back(planned(r, *r.next, true));
            }
            const bool shimsFail = r.plan && !r.plan->possible;
            if (sought && (shimsFail || std::abs(*v.figure.value) > farOff))
                if (auto other = ring(r, *v.figure.value))
                    v.remedies.push_back(std::move(*other));
            if (const double least = r.targets.empty() ? 0 : std::min(r.targets[0], r.targets[1]); sought && shimsFail && least < 0)
                v.remedies.push_back({ tr("Machine {} off the ears' faces", say(-least)), {},
                    { tr("cannot be undone; by a machine shop, square to the bolts") }, nullptr });
        }
        study_.verdicts.push_back(std::move(v));
    }

    void tilt(const CentringResult& r)
    {
        Verdict v = start(r, checks::tilt, r.tilt);
        v.method = tr(
            "Error at the top less error at the bottom, brought from where they were read to the pad's length: different shims on the two "
            "bolts take it out.");
        v.source = tr("Plane geometry; 0.25 mm aimed at, 0.5 mm usable: common practice.");
        v.caution = tr("A tilted caliper wears its pads to a wedge.");
        if (!judge::unproven(study_, v)) {
            const double off = std::abs(*v.figure.value);
            const double unsure = v.figure.rootSumSquare;
            v.wanted = aim_;
            v.level = unsure > aim_ && off - unsure <= usable_ ? Level::Unproven
                : off <= aim_                                  ? Level::Good
                : off <= usable_                               ? Level::Caution
                                                               : Level::Stop;
            v.reason = v.level == Level::Unproven
                ? tr("{} over the pad's length, but the readings are only good to ±{}", say(off), say(unsure))
                : tr("{} over the pad's length, ±{}", say(off), say(unsure));
        }
        study_.verdicts.push_back(std::move(v));
    }

    void padEdge(const CentringResult& r)
    {
        if (r.padEdge.restsOn.empty())
            return;
        Verdict v = start(r, checks::padEdgeRead, r.padEdge);
        const double aim = figures::setting(study_.build->wants.padEdge, &Wants::padEdge);
        const Corner& corner = *r.corner;
        const Figure inner = evaluate([&](Evaluator& s) {
            const double mean = (meanOf(s, r.all, &MockUp::padEdgeTop) + meanOf(s, r.all, &MockUp::padEdgeBottom)) / 2;
            return s(corner.rotor.outerDiameter) / 2 - mean - s(corner.pad.height) - s(corner.rotor.ringInnerDiameter) / 2;
        });
        mergeDependencies(v.figure, inner);
        v.figure.effects.resize(v.figure.value ? v.figure.restsOn.size() : 0);
        if (!inner.value)
            v.figure.value.reset();
        v.method = tr("Pad's outer edge inward of the rotor's edge, at both of its ends: 0 to 1 mm, never beyond; its inner edge on the "
                      "friction ring. On a radial mount shims under the studs move it: thicker is outward.");
        v.source = tr("Common practice.");
        v.caution = tr("A pad over the edge grows a lip that breaks off.");
        v.wanted = aim;
        if (!judge::unproven(study_, v)) {
            Evaluator s;
            const double top = meanOf(s, r.all, &MockUp::padEdgeTop);
            const double bottom = meanOf(s, r.all, &MockUp::padEdgeBottom);
            const double least = std::min(top, bottom);
            const double unsure = v.figure.rootSumSquare;
            const bool radial = r.corner->mount.kind == MountKind::Radial;
            if (unsure > aim_) {
                v.level = Level::Unproven;
                v.reason = tr("{} and {} below the edge, but only good to ±{}: use a vernier", say(top), say(bottom), say(unsure));
            } else if (least < -1e-9) {
                v.level = Level::Stop;
                v.reason = tr("Rides {} over the edge at the {}: {}", say(-least), top < bottom ? tr("top") : tr("bottom"),
                    radial ? tr("fewer shims under the studs")
                        : r.corner->mount.kind == MountKind::Unknown
                        ? tr("fewer shims under the studs where the mount has them, "
                             "else another bracket or a larger rotor")
                        : tr("this mount has no radial shims, another bracket or a larger rotor"));
            } else if (inner.lowest() < -1e-9) {
                v.level = inner.highest() < 0 ? Level::Caution : Level::Unproven;
                v.reason = inner.highest() < 0
                    ? tr("Hangs {} off the inside of the ring", say(-*inner.value))
                    : tr("{} ±{} to the inside of the ring: too coarse to tell", say(*inner.value), say(inner.worstCase));
            } else if (std::max(top, bottom) > 1e-3 + 1e-9) {
                v.level = Level::Caution;
                v.reason = tr("{} and {} below the edge: a rim of rust is left outside the pad{}", say(top), say(bottom),
                    radial ? tr(", more shims under the studs") : "");
            } else {
                v.level = Level::Good;
                v.reason = tr("{} and {} below the edge", say(top), say(bottom));
            }
            if (study_.remedies == Remedies::Sought && v.level != Level::Good && v.level != Level::Unproven && radial && r.plan
                && r.plan->radialTop) {
                Remedy remedy = planned(r, *r.plan, false);
                remedy.gap = {};
                v.remedies.push_back(std::move(remedy));
            }
        }
        study_.verdicts.push_back(std::move(v));
    }

    /// How it was read decides what the reading is worth.
    void conditions(const CentringResult& r)
    {
        // Of several mock-ups the worst was said of any counts.
        MockUp m = *r.mockUp;
        for (const MockUp* each : r.all) {
            m.nuts = std::min(m.nuts, each->nuts);
            for (YesNo MockUp::*which : { &MockUp::seated, &MockUp::settled, &MockUp::shaftIn })
                m.*which = m.*which == YesNo::No || each->*which == YesNo::No      ? YesNo::No
                    : m.*which == YesNo::Unknown || each->*which == YesNo::Unknown ? YesNo::Unknown
                                                                                   : YesNo::Yes;
        }
        if (m.nuts <= 0 && m.seated == YesNo::Unknown && m.settled == YesNo::Unknown && m.shaftIn == YesNo::Unknown)
            return;
        Verdict v = start(r, checks::conditions, {});
        v.method =
            tr("Rotor flat on a clean hub and held by nuts, the hub unable to shift, the play of the bolts taken up the same way for "
               "every reading.");
        v.source = tr("Common practice.");
        std::string wrong;
        const auto blame = [&](std::string_view what) { wrong += (wrong.empty() ? "" : "; ") + std::string(what); };
        if (m.seated == YesNo::No)
            blame(tr("the rotor did not sit flat: clean the hub and read again"));
        if (m.nuts > 0 && m.nuts < nutsEnough)
            blame(tr("one nut does not hold a rotor flat: two or three, done up evenly"));
        if (m.settled == YesNo::No)
            blame(tr("the play was not taken up: push the caliper the same way every time"));
        if (m.shaftIn == YesNo::No)
            blame(tr("the drive shaft is out and the hub can shift: put it in"));
        for (const auto& [said, what] : { std::pair { m.seated != YesNo::Unknown, tr("whether the rotor sat flat") },
                 std::pair { m.nuts > 0, tr("how many nuts held it") },
                 std::pair { m.settled != YesNo::Unknown, tr("whether the play was taken up") } })
            if (!said)
                v.lacksInWords.push_back(fmt::format("{} ({} {})", what, judge::wordFor(m.axle), wordFor(m.side, choices::side)));
        v.level = !wrong.empty() ? Level::Caution : v.lacksInWords.empty() ? Level::Good : Level::Unproven;
        v.reason = !wrong.empty()    ? wrong
            : v.lacksInWords.empty() ? tr("Flat, held by {} nuts, play taken up", m.nuts)
                                     : lacking(study_, {}, v.lacksInWords);
        if (!wrong.empty())
            v.reason[0] = toUpper(v.reason[0]);
        study_.verdicts.push_back(std::move(v));
    }

    /// Dimensions and gaps tell of the same thing; where they disagree, one of them is wrong.
    void agreement(const CentringResult& r)
    {
        const AxleParts& corner = study_.after.at(r.mockUp->axle);
        const Figure apart = evaluate([&](Evaluator& s) {
            return figures::axialOffset(s, *corner.corner, r.mockUp->side) - centring::position(gapsOf(s, r.all), 1, 1).axial;
        });
        if (!apart.value || std::abs(*apart.value) <= apart.worstCase + 0.05e-3)
            return;
        Verdict v = start(r, checks::agreement, apart);
        v.title = tr("Gaps against dimensions");
        v.level = Level::Caution;
        v.reason = tr("They differ by {}: one of the readings is wrong, or the rotor did not sit flat", say(std::abs(*apart.value)));
        v.method = tr("Slot's middle less rotor's middle from the dimensions, less the same from the four gaps.");
        v.source = tr("Plane geometry.");
        study_.verdicts.push_back(std::move(v));
    }

    /// Both gaps and the rotor fill the slot, at the top as at the bottom.
    void slotSum(const CentringResult& r)
    {
        const Corner& corner = *r.corner;
        const auto over = [&](Reading MockUp::*inner, Reading MockUp::*outer) {
            return evaluate([&](Evaluator& s) {
                return meanOf(s, r.all, inner) + meanOf(s, r.all, outer) + s(corner.rotor.thickness) - s(corner.caliper.slotWidth);
            });
        };
        const Figure top = over(&MockUp::innerTop, &MockUp::outerTop);
        const Figure bottom = over(&MockUp::innerBottom, &MockUp::outerBottom);
        const auto off = [](const Figure& f) { return f.value && std::abs(*f.value) > f.worstCase + 0.05e-3; };
        if (!off(top) && !off(bottom))
            return;
        const Figure& worse = off(top) && (!off(bottom) || std::abs(*top.value) >= std::abs(*bottom.value)) ? top : bottom;
        Verdict v = start(r, checks::slotSum, worse);
        v.level = Level::Caution;
        const auto by =
            tr("Gaps and rotor make {} {} than the slot", say(std::abs(*worse.value)), *worse.value > 0 ? tr("more") : tr("less"));
        v.reason = off(top) && off(bottom)
            ? tr("{} at both ends: the rotor's thickness or the slot's width is wrong, or the pads were in", by)
            : off(top) ? tr("{} at the top: one of the upper gaps is wrong, read them again", by)
                       : tr("{} at the bottom: one of the lower gaps is wrong, read them again", by);
        v.method = tr("Inner and outer gap and the rotor's thickness less the slot's width, at either end.");
        v.source = tr("Plane geometry.");
        study_.verdicts.push_back(std::move(v));
    }

    void fromDimensions()
    {
        for (const Axle axle : judge::axlesOf(study_)) {
            const AxleParts& corner = study_.after.at(axle);
            if (!corner.corner || corner.corner->brakes == BrakeKind::Drums)
                continue;
            Verdict v = verdictOf(checks::axialByDimensions, { axle });
            v.style = style::fine;
            // The side that is farther off, or of which less is known.
            const auto of =
                figures::lesserSide([&](Evaluator& s, Side side) { return -std::abs(figures::axialOffset(s, *corner.corner, side)); });
            v.figure = of.figure;
            if (v.figure.value) {
                const Side side = of.side.value_or(Side::Left);
                v.figure.value = nominal([&](Evaluator& s) { return figures::axialOffset(s, *corner.corner, side); });
            }
            v.method = tr("Slot's middle less rotor's middle, both from the hub's face.");
            v.source = tr("Plane geometry; 0.25 mm aimed at, 0.5 mm usable: common practice.");
            if (!judge::unproven(study_, v)) {
                judgeOffset(v, tr("too far outboard"), tr("too far inboard"));
                if (v.level != Level::Unproven && std::abs(*v.figure.value) >= 0.005e-3)
                    v.reason = tr("Caliper {}", v.reason);
                if (of.side)
                    v.reason = fmt::format("{}: {}", *of.side == Side::Left ? tr("Left") : tr("Right"), v.reason);
            }
            study_.verdicts.push_back(std::move(v));
        }
    }

    Study& study_;
    const Centring& found_;
    double aim_;
    double usable_;
};

} // namespace

void addVerdicts(Study& study) { Checks(study).add(); }

} // namespace deepstop::mock_ups
