#include "chapters/parts/bench.hpp"

#include "build/choices.hpp"
#include "language/language.hpp"

namespace deepstop {
namespace {

constexpr std::string_view weeping = marked(
    "A weeping joint is a brake that fails. Seat, seal and thread must be those of the fitting's maker. Press the pedal hard for a minute "
    "and look at every joint with dry paper.");

std::string nameOf(const LinePart& part, std::size_t index)
{
    return !part.name.empty()                ? part.name
        : part.kind != LinePartKind::Unknown ? std::string(wordFor(part.kind, choices::linePart))
                                             : tr("part {} of the line", index + 1);
}

/// Washers that the joint of these two wants: a banjo's eye lies between two. Nothing while the seat is not said.
std::optional<int> washersWanted(const LinePart& inner, const LinePart& outer)
{
    if (inner.kind == LinePartKind::BanjoBolt || outer.kind == LinePartKind::BanjoBolt)
        return 2;
    switch (outer.inner.seat) {
    case Seat::CrushWasher:
        return 1;
    case Seat::Cone37:
    case Seat::InvertedFlare:
    case Seat::BubbleFlare:
    case Seat::TaperThread:
        return 0;
    case Seat::Unknown:
        break;
    }
    return {};
}

/// Two neighbours of the line, the one nearer to the caliper first.
class LineJoint {
public:
    LineJoint(const Bench& bench, const std::vector<LinePart>& chain, std::size_t index)
        : bench_(bench), inner_(chain[index]), outer_(chain[index + 1]), innerName_(nameOf(inner_, index)),
          outerName_(nameOf(outer_, index + 1)), number_(static_cast<int>(index) + 1)
    {
    }

    void add() const
    {
        Verdict v = verdictOf(checks::lineJoint, { .axle = bench_.axle(), .number = number_ });
        v.title = tr("Brake line: {} to {}", innerName_, outerName_);
        v.style = style::number;
        v.method =
            tr("Neighbours have one thread, one male and one female, and one way to seal: crush washers (two beside a banjo's eye), a "
               "cone of 37°, an inverted or a bubble flare. A taper thread is no brake fitting's seat. Crush washers are new.");
        v.source = tr(practice);
        v.caution = tr(weeping);
        std::vector<std::string> faults;
        threads(v, faults);
        seats(v, faults);
        washers(v, faults);
        bench_.addByFaults(std::move(v), faults, [&] {
            return eye() ? tr("The hose's eye is held between two new washers")
                         : fmt::format("{}, {}", *outer_.inner.thread, wordFor(outer_.inner.seat, choices::seat));
        });
    }

private:
    /// A banjo bolt goes through the hose's eye, which has no thread.
    [[nodiscard]] bool eye() const { return inner_.kind == LinePartKind::BanjoBolt; }

    void lack(Verdict& v, std::string_view what, const std::string& whose) const
    {
        v.lacksInWords.push_back(tr("{} of the {} ({})", what, whose, judge::wordFor(bench_.axle())));
    }

    void threads(Verdict& v, std::vector<std::string>& faults) const
    {
        if (eye())
            return;
        const auto a = joints::parseThread(*inner_.outer.thread);
        const auto b = joints::parseThread(*outer_.inner.thread);
        if (!a)
            lack(v, tr("thread towards the body"), innerName_);
        if (!b)
            lack(v, tr("thread towards the caliper"), outerName_);
        if (a && b && !joints::fits(*a, *b))
            faults.push_back(tr("{} {} does not go with {} {}", innerName_, joints::nameOf(*a), outerName_, joints::nameOf(*b)));
        if (inner_.outer.gender == Gender::Unknown)
            lack(v, tr("gender towards the body"), innerName_);
        if (outer_.inner.gender == Gender::Unknown)
            lack(v, tr("gender towards the caliper"), outerName_);
        if (inner_.outer.gender != Gender::Unknown && inner_.outer.gender == outer_.inner.gender)
            faults.push_back(tr("both ends are {}", wordFor(inner_.outer.gender, choices::gender)));
    }

    void seats(Verdict& v, std::vector<std::string>& faults) const
    {
        if (eye())
            return;
        const Seat a = inner_.outer.seat;
        const Seat b = outer_.inner.seat;
        if (a == Seat::Unknown)
            lack(v, tr("seat towards the body"), innerName_);
        if (b == Seat::Unknown)
            lack(v, tr("seat towards the caliper"), outerName_);
        if (a != Seat::Unknown && b != Seat::Unknown && a != b)
            faults.push_back(tr("a seat for {} meets one for {}: it cannot seal", wordFor(a, choices::seat), wordFor(b, choices::seat)));
        else if (a == Seat::TaperThread && b == Seat::TaperThread)
            faults.emplace_back(tr("a taper thread seals by sealant, which brake fluid takes off: fittings with a seat of their own"));
    }

    void washers(Verdict& v, std::vector<std::string>& faults) const
    {
        const auto wanted = washersWanted(inner_, outer_);
        if (!wanted)
            return;
        // Those beside a hose's eye are counted with the bolt that goes through it.
        const LinePart& counted = eye() ? inner_ : outer_;
        const std::string& whose = eye() ? innerName_ : outerName_;
        if (*wanted == 0) {
            if (counted.crushWashers > 0)
                faults.push_back(tr("no washer belongs on a cone or a flare"));
            return;
        }
        if (counted.crushWashers < 0)
            lack(v, tr("number of crush washers"), whose);
        else if (counted.crushWashers != *wanted)
            faults.push_back(tr("{} crush washers where {} belong", *counted.crushWashers, *wanted));
        if (counted.newWashers == YesNo::Unknown)
            lack(v, tr("whether the crush washers are new"), whose);
        else if (counted.newWashers == YesNo::No)
            faults.emplace_back(tr("crush washers were used before: new ones"));
    }

    const Bench& bench_;
    const LinePart& inner_;
    const LinePart& outer_;
    std::string innerName_;
    std::string outerName_;
    int number_;
};

/// That the line goes from the caliper's port to the hard line, through a hose, with the threads said of both.
void addWhole(const Bench& bench, const Corner& c, const Hub& hub)
{
    const auto& chain = c.hose.chain;
    Verdict v = bench.begin(checks::hoseThread, tr("Brake line from caliper to hard line"), style::number,
        tr("The line begins at the caliper's port, has a hose in it, and ends at the hard line; the port's and the hard line's threads are "
           "those "
           "read on caliper and car."));
    v.caution = tr(weeping);
    std::vector<std::string> faults;
    const auto lack = [&](std::string what) { v.lacksInWords.push_back(fmt::format("{} ({})", what, judge::wordFor(bench.axle()))); };
    if (chain.front().kind != LinePartKind::CaliperPort)
        lack(tr("the caliper's port as the first part of the brake line"));
    if (chain.back().kind != LinePartKind::HardLine)
        lack(tr("the hard line as the last part of the brake line"));
    if (std::ranges::none_of(chain, [](const LinePart& part) { return part.kind == LinePartKind::Hose; }))
        lack(tr("the hose in the brake line"));
    const auto same = [&](const std::string& read, const std::string& whose, const LineEnd& end) {
        const auto thread = joints::parseThread(read);
        const auto in = joints::parseThread(*end.thread);
        if (!thread)
            lack(whose);
        else if (in && !joints::fits(*thread, *in))
            faults.push_back(tr("{} is {}, the brake line's is {}", whose, joints::nameOf(*thread), joints::nameOf(*in)));
    };
    if (chain.front().kind == LinePartKind::CaliperPort)
        same(*c.caliper.hoseThread, tr("thread for the hose in the caliper"), chain.front().outer);
    if (chain.back().kind == LinePartKind::HardLine)
        same(*hub.lineThread, tr("thread of the hard line"), chain.back().inner);
    // What was said of the hose's two ends is said of what meets port and hard line.
    const auto agrees = [&](const std::string& said, const char* whose, const LineEnd& end) {
        const auto thread = joints::parseThread(said);
        const auto in = joints::parseThread(*end.thread);
        if (thread && in && !joints::fits(*thread, *in))
            faults.push_back(tr("{} is {}, the brake line's is {}", whose, joints::nameOf(*thread), joints::nameOf(*in)));
    };
    if (chain.size() > 1) {
        agrees(*c.hose.caliperEnd, tr("hose thread at the caliper"), chain[1].inner);
        agrees(*c.hose.lineEnd, tr("hose thread at the hard line"), chain[chain.size() - 2].outer);
    }
    bench.addByFaults(std::move(v), faults, [&] { return tr("{} parts from port to hard line", chain.size()); });
}

} // namespace

void addHoseThreads(const Bench& bench, const Corner& c, const Hub& hub, bool sameAsFound)
{
    if (!c.hose.chain.empty()) {
        addWhole(bench, c, hub);
        for (std::size_t i = 0; i + 1 < c.hose.chain.size(); ++i)
            LineJoint(bench, c.hose.chain, i).add();
        return;
    }
    auto hose =
        bench.begin(checks::hoseThread, tr("Hose ends"), style::number, tr("Threads of the hose against those of caliper and hard line."));
    const std::array<std::array<std::string, 4>, 2> ends {
        { { tr("hose thread at the caliper"), c.hose.caliperEnd, tr("thread for the hose"), c.caliper.hoseThread },
            { tr("hose thread at the hard line"), c.hose.lineEnd, tr("thread of the hard line"), hub.lineThread } }
    };
    bench.judgeThreads(hose, ends);
    hose.caution = tr(weeping);
    // A hose that has always been on has shown that it seals.
    if (hose.level == Level::Good && !sameAsFound) {
        hose.level = Level::Caution;
        hose.reason += tr("; how each end seals is not said: describe the brake line part by part");
    }
    bench.add(std::move(hose));
}

void addHoseHeld(const Bench& bench, const Corner& c, bool sameAsFound)
{
    if (sameAsFound)
        return;
    Verdict v = bench.begin(checks::hoseHeld, tr("Hose held and led"), style::number,
        tr("A hose is held by a clip or bracket at the strut, and led through a grommet wherever it passes a panel."));
    v.caution = tr("A hose that nothing holds finds the wheel; one without a grommet is cut by the panel.");
    std::vector<std::string> faults;
    for (const auto& [fact, missing, asked] :
        { std::tuple { c.hose.heldAtStrut, tr("nothing holds it at the strut"), tr("whether the hose is held at the strut") },
            std::tuple { c.hose.grommet, tr("no grommet where it passes through"),
                tr("whether the hose has a grommet wherever it passes through") } }) {
        if (fact == YesNo::No)
            faults.emplace_back(missing);
        else if (fact == YesNo::Unknown)
            v.lacksInWords.push_back(fmt::format("{} ({})", asked, judge::wordFor(bench.axle())));
    }
    bench.addByFaults(std::move(v), faults, [&] { return tr("Held at the strut, with a grommet wherever it passes through"); });
}

} // namespace deepstop
