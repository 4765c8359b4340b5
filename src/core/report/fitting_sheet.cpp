#include "language/language.hpp"
#include "report/sheets.hpp"

#include "build/choices.hpp"
#include "build/words.hpp"
#include "centring/drawer.hpp"
#include "chapters/centring/centring_chapter.hpp"
#include "chapters/centring/checks.hpp"
#include "chapters/parts/receiving.hpp"
#include "jobcard/outfit.hpp"
#include "library/kit.hpp"
#include "quantity/text.hpp"
#include "report/template.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace deepstop::report {
namespace {

/// The fitting sheet, section by section.
class FittingSheet {
public:
    FittingSheet(const Study& study, const std::string& date)
        : study_(study), date_(date), kit_(library::kitOf(*study.after.setup)),
          card_(jobcard::cardOf(study)), leaf_ { tr("Fitting sheet: {}", kit_.name), date, {}, {} }
    {
    }

    Leaf written()
    {
        standing();
        inTheBox();
        eachAxle(&FittingSheet::wayRound);
        leaf_.heading(tr("Bolts"));
        eachAxle(&FittingSheet::bolts);
        leaf_.heading(tr("Shims to start with"));
        leaf_.text(
            tr("From one car; no two are alike. Put these in, read the gaps between rotor and caliper on your car, then work out yours."));
        eachAxle(&FittingSheet::shims);
        eachAxle(&FittingSheet::cuts);
        tools();
        checksBefore();
        cautions();
        return std::move(leaf_);
    }

private:
    /// How far it was proven, before anything else.
    void standing()
    {
        leaf_.text(
            tr("For whoever fits this kit. It was worked out on one car; readings of that car are left out. Yours differs: measure it."));
        const Headline& h = study_.headline;
        const bool fits = h.fits == Headline::Fits::Yes || h.fits == Headline::Fits::Tight || h.fits == Headline::Fits::WithCaution;
        if (!fits)
            leaf_.caution(tr("NOT PROVEN: on the car it was worked out on the kit stands as “{}”.", tr(nameOf(h.fits))));
        else if (h.fits != Headline::Fits::Yes)
            leaf_.caution(tr("On the car it was worked out on: {}.", tr(nameOf(h.fits))));
        if (h.centred != Headline::Centred::Yes)
            leaf_.caution(tr("Centring is not proven on that car: {}.", tr(nameOf(h.centred))));
        for (const Verdict& v : study_.verdicts)
            if (isBad(v.level) || (v.level == Level::Unproven && v.check && v.check->decides != Decides::Nothing))
                leaf_.text(fmt::format("{}, {}: {}", v.title, tr(nameOf(v.level)),
                    v.check && v.check->of == CheckOf::Car ? tr("whole car") : tr(wordOf(v.axle))));
    }

    void inTheBox()
    {
        leaf_.heading(tr("In the box, both sides together"));
        const std::vector<double> widths { 0.1, 0.25, 0.1, 0.23, 0.32 };
        leaf_.row({ tr("axle"), tr("part"), tr("pieces"), tr("name"), tr("size") }, widths, true);
        for (const auto& l : library::linesOf(kit_, study_.system))
            leaf_.row({ std::string(tr(wordOf(l.axle))), l.part, l.pieces > 0 ? std::to_string(l.pieces) : tr("not said"), l.name, l.what },
                widths);
    }

    void eachAxle(void (FittingSheet::*section)(Axle, const Corner&))
    {
        for (const Axle axle : { Axle::Front, Axle::Rear })
            if (const auto& own = axle == Axle::Front ? study_.after.setup->front : study_.after.setup->rear)
                (this->*section)(axle, *own);
    }

    void tick(const std::string& text, const std::string& under = {})
    {
        Block b { Block::Kind::Tick, text };
        b.under = under;
        leaf_.blocks.push_back(std::move(b));
    }

    void wayRound(Axle axle, const Corner& c)
    {
        leaf_.heading(tr("Which way round, {}", tr(wordOf(axle))));
        if (c.brakes == BrakeKind::Drums) {
            tick(tr("Shoes: leading and trailing as they came off the other side; springs and adjuster by the maker's picture"));
            return;
        }
        switch (*c.rotor.handed) {
        case Handed::Sided:
            tick(tr("Rotors fit one side each: vanes lean back from the way the wheel turns going forward. Tag them"));
            break;
        case Handed::Either:
            tick(tr("Rotors fit either side"));
            break;
        case Handed::Unknown:
            tick(tr("Whether the rotors fit one side only is not said: ask their maker before fitting"));
        }
        tick(c.caliper.bleeders == Bleeders::BothEnds
                ? tr("Calipers: bleeders at both ends; the smaller piston, if they differ, where the rotor comes in")
                : tr("Calipers: hung in its place, the bleeder is at the highest point. Bleeder down: swapped left and right"));
        if (c.mount.shimMoves != Direction::Unknown)
            tick(tr("A thicker shim moves the caliper {}", wordFor(c.mount.shimMoves, choices::direction)));
    }

    /// As the job card has it: no torque that is in doubt.
    void bolts(Axle axle, const Corner& c)
    {
        if (c.joints.empty()) {
            leaf_.caution(tr("Bolts of the {} kit are not described: threads and torques from the maker, none guessed.", tr(wordOf(axle))));
            return;
        }
        const std::vector<double> widths { 0.34, 0.3, 0.36 };
        leaf_.row({ tr("{}, a side", std::string(tr(wordOf(axle)))), tr("bolts"), tr("torque") }, widths, true);
        for (std::size_t i = 0; i < c.joints.size(); ++i) {
            const Joint& j = c.joints[i];
            leaf_.row({ j.name.empty() ? std::string(wordFor(j.joins, choices::joins)) : j.name,
                          fmt::format("{} × {}, {}", j.bolts > 0 ? std::to_string(j.bolts) : "?",
                              j.thread->empty() ? tr("thread not said") : *j.thread, wordFor(j.boltClass, choices::boltClass)),
                          torqueOf(axle, i, j) },
                widths);
        }
    }
    [[nodiscard]] std::string torqueOf(Axle axle, std::size_t index, const Joint& j) const
    {
        const auto step = std::ranges::find_if(card_.steps, [&](const jobcard::Step& s) {
            return s.id.starts_with(std::string(wordOf(axle)) + "/") && s.id.ends_with(fmt::format("/joint-{}", index + 1));
        });
        const std::string threads = j.condition == Condition::Unknown ? tr("threads: dry, locked or greased is not said")
                                                                      : std::string(wordFor(j.condition, choices::condition));
        if (step == card_.steps.end() || !step->torque)
            return tr("in doubt or not known: ask its maker · {}", threads);
        return fmt::format("{} · {}", print(*step->torque, style::torque, study_.system), threads);
    }

    /// What centred it there, or what the plan says that would; never stacks that did not as if they had.
    void shims(Axle axle, const Corner& c)
    {
        if (c.brakes == BrakeKind::Drums) {
            leaf_.text(tr("{}: drums, none.", tr(wordOf(axle))));
            return;
        }
        const auto stack = [&](const Reading& r) {
            return !r.value     ? std::string(tr("not said"))
                : *r.value == 0 ? std::string("none")
                                : print(*r.value, style::fine, study_.system);
        };
        for (const Side side : { Side::Left, Side::Right }) {
            const auto& all = study_.of<Centring>().corners;
            const auto own = std::ranges::find_if(all, [&](const CentringResult& r) { return r.axle == axle && r.side == side; });
            const Verdict* centred = study_.verdict(checks::axial, { axle, side });
            const auto where = fmt::format("{} {}", tr(wordOf(axle)), tr(wordOf(side)));
            if (const Fitted& in = c.at(side); in.radialTop.value || in.radialBottom.value)
                leaf_.text(tr("{}, under the studs: {} at the top, {} at the bottom, as on that car.", where, stack(in.radialTop),
                    stack(in.radialBottom)));
            if (centred && isFine(centred->level))
                leaf_.text(tr("{}: {} at the top bolt, {} at the bottom bolt; that car was centred with them.", where,
                    stack(c.at(side).shimTop), stack(c.at(side).shimBottom)));
            else if (own != all.end() && own->plan)
                leaf_.text(tr("{}: worked out, not yet tried: {} at the top bolt, {} at the bottom bolt.", where,
                    centring::pileText(own->plan->top.shims, study_.system), centring::pileText(own->plan->bottom.shims, study_.system)));
            else
                leaf_.text(tr("{}: not known; that car was not centred.", where));
        }
    }

    void cuts(Axle axle, const Corner& c)
    {
        if (c.cuts.empty())
            return;
        leaf_.heading(tr("What cannot be undone, {}", tr(wordOf(axle))));
        for (const Cut cut : c.cuts) {
            tick(
                std::string(wordFor(cut, choices::cut)), tr("only after rotor, caliper and wheel have been tried on this car, both sides"));
            if (cut != Cut::TrimShield)
                continue;
            auto line = shieldDrawing(study_, axle, {});
            if (line.drawing) {
                leaf_.text(tr(
                    "The line to cut along follows at its real size, for this knuckle and shield only. Measure the bar of 100 mm first."));
                leaf_.fullSize.push_back(std::move(*line.drawing));
            } else {
                leaf_.text(line.lacks);
            }
        }
    }

    void tools()
    {
        leaf_.heading(tr("Tools"));
        const auto outfit = jobcard::outfitOf(study_, card_);
        leaf_.text(outfit.tools.empty() ? std::string(tr("Not known.")) : listed(outfit.tools) + ".");
        if (!outfit.sizes.empty())
            leaf_.text(tr("Sizes: {}.", listed(outfit.sizes, "; ")));
        if (!outfit.used.empty())
            leaf_.text(tr("Used up: {}.", listed(outfit.used, ", ")));
    }

    void checksBefore()
    {
        leaf_.heading(tr("Check on your car before anything is cut"));
        for (const Axle axle : { Axle::Front, Axle::Rear })
            for (const auto& item : receivingOf(study_, axle))
                if (!item.verdict.empty())
                    tick(fmt::format("{}, {}", item.title, tr(wordOf(axle))), item.ask);
        tick(tr("Wheel on and turned a whole turn by hand, hanging and at both full locks: nothing touches barrel, spokes, weights or "
                "valve"),
            tr("clay or a feeler where it is nearest; write down what it read"));
        tick(tr("Gaps between rotor and caliper, inboard and outboard, top and bottom, rotor held flat by three nuts"), tr("feeler gauge"));
        tick(tr("Thread engaged by studs or wheel bolts with this rotor and any spacer"), tr("count the turns"));
        tick(tr("Hoses free at droop and full lock, both ways"));
    }

    void cautions()
    {
        leaf_.caution(
            tr("Brakes are life-critical. If you have not done this work before, have it done or checked by a licensed workshop. Local law "
               "may ask for an inspection or an entry in the papers."));
        leaf_.caution(
            tr("Start every bolt by hand. Pump the pedal until it is hard before the car moves. Check every torque again after the "
               "first drive."));
    }

    const Study& study_;
    const std::string& date_;
    Setup kit_;
    jobcard::Card card_;
    Leaf leaf_;
};

} // namespace

Leaf fittingSheet(const Study& study, const std::string& date)
{
    if (!study.after.setup || (!study.after.setup->front && !study.after.setup->rear)) {
        Leaf leaf { tr("Fitting sheet"), date, {}, {} };
        leaf.text(tr("Nothing is to be fitted: choose a setup that brings brakes of its own."));
        return leaf;
    }
    return FittingSheet(study, date).written();
}

} // namespace deepstop::report
