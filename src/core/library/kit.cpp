#include "library/kit.hpp"

#include "build/choices.hpp"
#include "build/fields.hpp"
#include "build/words.hpp"
#include "files/csv.hpp"
#include "language/language.hpp"
#include "library/every_reading.hpp"
#include "library/library.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace deepstop::library {
namespace {

/// Makes every reading one of another example of the same part.
class OfAnotherExample final : public EveryReading {
public:
    void reading(const ReadingField& field, Reading& r) override
    {
        if (!r.value)
            return;
        if (r.known == Known::Measured) {
            const bool length = field.style.dimension == Dimension::Length;
            const double width = uncertainty(r, length);
            r.known = Known::Vendor;
            r.repeats.clear();
            r.plusMinus.reset();
            r.plusMinus = std::max(width, uncertainty(r, length));
        }
        r.repeats.clear();
        r.date.clear();
        r.instrument.clear();
    }
    void text(const Name& name, std::string& value) override
    {
        // What it was copied from lies in another library, what it was scanned from beside another build.
        if (name.key == "from" || name.key == "scan" || name.key == "scan_sha256")
            value.clear();
    }
};

/// What only tells where to begin on another car.
Reading asEstimate(const Reading& r, bool isLength = true)
{
    if (!r.value)
        return {};
    Reading guess;
    guess.value = *r.value;
    const double width = uncertainty(r, isLength);
    // No narrower than any other guess.
    guess.plusMinus = std::max(width, uncertainty(guess, isLength));
    return guess;
}

Fitted toBeginWith(const Fitted& read)
{
    Fitted f;
    f.slotCentre = asEstimate(read.slotCentre);
    f.shimTop = asEstimate(read.shimTop);
    f.shimBottom = asEstimate(read.shimBottom);
    f.radialTop = asEstimate(read.radialTop);
    f.radialBottom = asEstimate(read.radialBottom);
    return f;
}

Corner withoutCar(Corner c)
{
    ofAnotherExample([&](Visitor& v) { describe(v, c); });
    c.wheel.clear();
    c.left = toBeginWith(c.left);
    c.right = toBeginWith(c.right);
    c.spacer = asEstimate(c.spacer);
    c.duct = {};
    c.cooling = {};
    c.washers = {};
    c.freed = Freed::JustTurns;
    c.spacerInTrial = YesNo::Unknown;
    // Shield, cable and the hard line are the car's; what holds the hose and whether washers are new is told when it is on.
    c.shield = {};
    c.leverReturns = YesNo::Unknown;
    c.hose.heldAtStrut = YesNo::Unknown;
    c.hose.grommet = YesNo::Unknown;
    std::erase_if(c.hose.chain, [](const LinePart& part) { return part.kind == LinePartKind::HardLine; });
    for (LinePart& part : c.hose.chain)
        part.newWashers = YesNo::Unknown;
    c.mount.boltSpacing = asEstimate(c.mount.boltSpacing);
    c.mount.clock = asEstimate(c.mount.clock, false);
    for (Joint& j : c.joints) {
        j.timesUsed = notCounted;
        j.carMakers = YesNo::Unknown;
        j.mountRadius = asEstimate(j.mountRadius);
        // Between parts of the kit alone all of it is the kit's.
        if (j.joins == Joins::RingToHat || j.joins == Joins::CaliperToBracket)
            continue;
        // Behind a nut it is the kit's own thread, but bears on the car's metal.
        if (j.nut != NutKind::Plain && j.nut != NutKind::NylonInsert && j.nut != NutKind::AllMetal)
            j.threadIn = ThreadIn::Unknown;
        j.underNut = ThreadIn::Unknown;
        j.threadDepth = asEstimate(j.threadDepth);
        j.roomBehind = asEstimate(j.roomBehind);
    }
    return c;
}

/// Lines of one axle.
class Lines {
public:
    Lines(Axle axle, UnitSystem system, std::vector<KitLine>& lines) : axle_(axle), system_(system), lines_(lines) { }

    void add(const Corner& c)
    {
        if (c.brakes == BrakeKind::Drums) {
            line(tr("drum"), 2, c.drum.name, said(c.drum.insideDiameter, style::size, marked("inside {}")));
            line(tr("brake shoe"), 4, {}, said(c.drum.shoeWidth, style::size, marked("{} wide")));
            line(tr("wheel cylinder"), 0, {}, said(c.drum.cylinderBore, style::size, marked("bore {}")));
        } else {
            line(tr("rotor"), 2, c.rotor.name,
                both(said(c.rotor.outerDiameter, style::size, "Ø {}"), said(c.rotor.thickness, style::size, marked("{} thick"))));
            line(tr("caliper"), 2, c.caliper.name, bores(c.caliper));
            line(tr("pad"), 4, c.pad.name, both(c.pad.compound, said(c.pad.thickness, style::size, marked("lining {}"))));
            line(tr("bracket"), 2, c.bracket.name, both(said(c.bracket.thickness, style::size, marked("{} thick")), *c.bracket.material));
        }
        line(tr("hose"), 2, {}, both(said(c.hose.length, style::frame, "{}"), both(*c.hose.caliperEnd, *c.hose.lineEnd)));
        for (const LinePart& part : c.hose.chain)
            if (part.kind == LinePartKind::Adapter || part.kind == LinePartKind::BanjoBolt)
                line(std::string(wordFor(part.kind, choices::linePart)), 2, part.name, both(*part.inner.thread, *part.outer.thread));
        line(tr("adapter ring"), 2, {},
            both(said(c.adapter.inside, style::fine, marked("inside {}")), said(c.adapter.outside, style::fine, marked("outside {}"))));
        line(tr("hub-face ring"), 2, {}, said(c.ring, style::size, marked("{} thick")));
        line(tr("wheel spacer"), 2, {}, said(c.spacer, style::size, marked("{} thick, as on another car")));
        for (const Joint& j : c.joints) {
            line(tr("bolt, {}", (j.name.empty() ? std::string(tr("joint without a name")) : j.name)), j.bolts > 0 ? 2 * j.bolts : 0, {},
                both(both(*j.thread,
                         j.boltClass == BoltClass::Unknown ? std::string() : std::string(wordFor(j.boltClass, choices::boltClass))),
                    said(j.length, style::size, marked("{} under the head"))));
            if (j.nut != NutKind::Unknown && j.nut != NutKind::None)
                line(tr("nut, {}", (j.name.empty() ? std::string(tr("joint without a name")) : j.name)), j.bolts > 0 ? 2 * j.bolts : 0, {},
                    both(std::string(wordFor(j.nut, choices::nut)),
                        j.nutClass == NutClass::Unknown ? std::string()
                                                        : tr("class {}", std::string(wordFor(j.nutClass, choices::nutClass)))));
        }
    }

private:
    /// A part that nobody said anything of is none.
    void line(std::string part, int pieces, std::string name, std::string what)
    {
        if (!name.empty() || !what.empty())
            lines_.push_back({ axle_, std::move(part), pieces, std::move(name), std::move(what) });
    }
    [[nodiscard]] std::string said(const Reading& r, const Style& shown, const char* pattern) const
    {
        if (!r.value || *r.value == 0)
            return {};
        const std::string value = print(*r.value, shown, system_);
        return language::filled(pattern, fmt::make_format_args(value));
    }
    static std::string both(std::string one, const std::string& other)
    {
        return one.empty() ? other : other.empty() ? one : std::move(one) + ", " + other;
    }
    [[nodiscard]] std::string bores(const Caliper& c) const
    {
        std::vector<std::string> all;
        for (const Reading& bore : c.pistons)
            all.push_back(bore.value ? print(*bore.value, style::size, system_) : std::string(tr("not said")));
        return all.empty() ? std::string() : tr("bores {}", fmt::join(all, " + "));
    }

    Axle axle_;
    UnitSystem system_;
    std::vector<KitLine>& lines_;
};

} // namespace

void ofAnotherExample(const std::function<void(Visitor&)>& describing)
{
    OfAnotherExample visitor;
    describing(visitor);
}

Setup kitOf(const Setup& setup)
{
    Setup kit;
    kit.id = setup.id;
    kit.name = setup.name;
    kit.vendor = setup.vendor;
    kit.papers = setup.papers;
    kit.instructions = setup.instructions;
    kit.purchases = setup.purchases;
    for (Purchase& purchase : kit.purchases)
        ofAnotherExample([&](Visitor& v) { describe(v, purchase); });
    if (setup.front)
        kit.front = withoutCar(*setup.front);
    if (setup.rear)
        kit.rear = withoutCar(*setup.rear);
    return kit;
}

std::string freeSetupId(const Build& build, const std::string& name, const std::string& otherwise)
{
    const std::string base = idFrom(name).empty() ? otherwise : idFrom(name);
    std::string id = base;
    for (int number = 2; findSetup(build, id); ++number)
        id = fmt::format("{}-{}", base, number);
    return id;
}

Setup besides(const Build& build, const Setup& base, const std::string& name, const std::string& otherwise)
{
    Setup setup = base;
    setup.id = freeSetupId(build, name, otherwise);
    setup.name = name;
    setup.vendor.clear();
    setup.papers.clear();
    setup.instructions = YesNo::Unknown;
    setup.received.clear();
    setup.purchases.clear();
    setup.questions.clear();
    return setup;
}

Setup kitFor(const Build& build, const Setup& kit)
{
    Setup mine = kitOf(kit);
    mine.id = freeSetupId(build, kit.name.empty() ? kit.id : kit.name, "kit");
    if (mine.name.empty())
        mine.name = mine.id;
    const auto onWheel = [&](std::optional<Corner>& corner, Axle axle) {
        if (!corner || build.setups.empty())
            return;
        if (const Corner* found = cornerOf(build, build.setups.front(), axle))
            corner->wheel = found->wheel;
    };
    onWheel(mine.front, Axle::Front);
    onWheel(mine.rear, Axle::Rear);
    return mine;
}

Edit kitTakenIn(Setup kit)
{
    return [kit = std::move(kit)](const Build& now) -> std::optional<Build> {
        if (now.setups.empty() || (!kit.front && !kit.rear))
            return {};
        Build build = now;
        build.setups.push_back(kitFor(now, kit));
        return build;
    };
}

std::vector<KitLine> linesOf(const Setup& kit, UnitSystem system)
{
    std::vector<KitLine> lines;
    if (kit.front)
        Lines(Axle::Front, system, lines).add(*kit.front);
    if (kit.rear)
        Lines(Axle::Rear, system, lines).add(*kit.rear);
    return lines;
}

std::string linesCsv(const Setup& kit)
{
    std::string out = "axle,part,pieces,name,what\r\n";
    for (const KitLine& l : linesOf(kit))
        out += fmt::format("{},{},{},{},{}\r\n", wordOf(l.axle), files::csvField(l.part), l.pieces > 0 ? std::to_string(l.pieces) : "",
            files::csvField(l.name), files::csvField(l.what));
    return out;
}

} // namespace deepstop::library
