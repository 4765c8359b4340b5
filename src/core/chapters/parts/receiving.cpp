#include "chapters/parts/receiving.hpp"

#include "build/words.hpp"
#include "chapters/parts/checks.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace deepstop {
namespace {

const Receipt* receiptFor(const Setup& setup, const std::string& item)
{
    const auto found = std::ranges::find(setup.received, item, &Receipt::item);
    return found == setup.received.end() ? nullptr : &*found;
}

std::string wordFor(WhichHand hand) { return hand == WhichHand::Left ? "left" : "right"; }

/// What a hand given for one side means.
void judgeHand(ReceivingItem& item, Side side, std::string_view part, const Receipt* other)
{
    const WhichHand wanted = side == Side::Left ? WhichHand::Left : WhichHand::Right;
    if (item.hand == WhichHand::Unknown)
        return;
    if (item.hand == wanted) {
        item.state = Checked::Fine;
        item.said = fmt::format("a {} one", wordFor(item.hand));
        return;
    }
    item.state = Checked::Fault;
    item.said = fmt::format("is a {} one", wordFor(item.hand));
    if (other && other->hand == item.hand)
        item.said += fmt::format(": two {} {} in the box", wordFor(item.hand), part);
}

} // namespace

std::vector<ReceivingItem> receivingOf(const Study& study, Axle axle)
{
    std::vector<ReceivingItem> items;
    const Setup* setup = study.after.setup;
    if (!setup || !(axle == Axle::Front ? setup->front : setup->rear))
        return items;
    const Corner& corner = *(axle == Axle::Front ? setup->front : setup->rear);
    const auto where = judge::wordFor(axle);
    const auto add = [&](const std::string& id, std::string group, std::string title, std::string ask) -> ReceivingItem& {
        ReceivingItem item;
        item.id = id;
        item.axle = axle;
        item.group = std::move(group);
        item.title = std::move(title);
        item.ask = std::move(ask);
        if (const Receipt* receipt = receiptFor(*setup, id)) {
            item.state = receipt->state;
            item.note = receipt->note;
            item.photo = receipt->photo;
            item.hand = receipt->hand;
            if (item.state == Checked::Fault)
                item.said = item.note.empty() ? "faulty" : item.note;
        }
        items.push_back(std::move(item));
        return items.back();
    };
    const bool sided = corner.rotor.handed == Handed::Sided
        || (corner.rotor.handed == Handed::Unknown
            && (corner.rotor.vaneShape == VaneShape::Curved || corner.rotor.face == RotorFace::Slotted
                || corner.rotor.vaneShape == VaneShape::Unknown || corner.rotor.face == RotorFace::Unknown));
    for (const Side side : { Side::Left, Side::Right }) {
        const std::string hand(wordOf(side));
        const std::string opposite = side == Side::Left ? "right" : "left";
        const auto group = fmt::format("{} {}", side == Side::Left ? "Left" : "Right", where);
        const auto id = [&](const std::string& what) { return where + "/" + hand + "/" + what; };
        const auto other = [&](const std::string& what) { return receiptFor(*setup, where + "/" + opposite + "/" + what); };
        add(id("rotor"), group, "Rotor, " + hand, "There, unharmed, both faces clean and flat to a straightedge");
        if (sided) {
            auto& item = add(id("rotor-hand"), group, "Hand of the " + hand + " rotor",
                "Curved vanes lean back from the turning, swept slots as the maker says: which side is it for? Tag it now");
            item.asksHand = true;
            judgeHand(item, side, "rotors", other("rotor-hand"));
        }
        auto& caliper = add(id("caliper-hand"), group, "Hand of the " + hand + " caliper",
            corner.caliper.bleeders == Bleeders::BothEnds ? "Small piston where the rotor comes in: which side is it for?"
                                                          : "Hung in its place the bleeder is the highest point: which side is it for?");
        caliper.asksHand = true;
        judgeHand(caliper, side, "calipers", other("caliper-hand"));
        add(id("pads"), group, "Pads, " + hand, "Two, lining sound, backs flat; wear sensor on its side");
        add(id("bracket"), group, "Bracket, " + hand, "There, for this side, holes and faces clean");
        add(id("hose"), group, "Hose, " + hand, "There, no kink, seals in the bag, date not past");
        add(id("bolts"), group, "Bolts and pins, " + hand, "Counted against the list: bolts, washers, shims, pins, clips");
    }
    for (const auto& [check, title, ask] : { std::tuple { &checks::bore, "Rotor bore over the hub pilot", "Vernier across bore and pilot" },
             std::tuple { &checks::hubPocket, "Hub flange in the hat's pocket", "Vernier across both" },
             std::tuple { &checks::boltCircle, "Bolt circle, holes and studs", "Hole to hole, count, stud in a hole" },
             std::tuple { &checks::drumInHat, "Drum in the hat over the parking shoes", "Vernier across the drum" },
             std::tuple { &checks::mountSpacing, "Mounting holes against the lugs", "Hole to hole, edge to edge and back" },
             std::tuple { &checks::boltThread, "Bolts in the knuckle's lugs", "Pitch gauge, or by hand in the old hole" },
             std::tuple { &checks::hoseLength, "Hose length", "Fitting to fitting, against the old hose" },
             std::tuple { &checks::hoseThread, "Hose ends", "By hand into caliper and line" },
             std::tuple { &checks::padSlot, "Rotor and new pads between the pistons", "Push pistons home; opening, rotor, pads" },
             std::tuple { &checks::padWindow, "Pads in their opening", "Slide a pad in by hand" } }) {
        const Verdict* v = study.verdict(*check, { axle });
        if (!v)
            continue;
        auto& item = add(fmt::format("{}/both/{}", where, check->name), fmt::format("Both sides, {}", where), title, ask);
        item.verdict = v->id;
        item.overruled = item.state == Checked::Fault;
        if (item.overruled)
            continue;
        // What is to be looked at again is not fine.
        item.state = isBad(v->level) ? Checked::Fault : isFine(v->level) ? Checked::Fine : Checked::Open;
        item.said = v->reason;
    }
    return items;
}

Edit received(const std::string& setup, const std::string& item, Checked state, WhichHand hand, const std::string& note)
{
    return [setup, receipt = Receipt { item, state, hand, note }](const Build& now) -> std::optional<Build> {
        Build build = now;
        Setup* own = setupIn(build, setup);
        if (!own)
            return {};
        const auto found = std::ranges::find(own->received, receipt.item, &Receipt::item);
        const bool blank = receipt.state == Checked::Open && receipt.hand == WhichHand::Unknown && receipt.note.empty()
            && (found == own->received.end() || found->photo.empty());
        if (found == own->received.end() && !blank)
            own->received.push_back(receipt);
        else if (found != own->received.end() && blank)
            own->received.erase(found);
        else if (found != own->received.end()) {
            const std::string photo = found->photo;
            *found = receipt;
            found->photo = photo;
        }
        return build;
    };
}

Edit photographed(const std::string& setup, const std::string& item, const std::string& photo)
{
    return [setup, item, photo](const Build& now) -> std::optional<Build> {
        Build build = now;
        Setup* own = setupIn(build, setup);
        if (!own)
            return {};
        auto found = std::ranges::find(own->received, item, &Receipt::item);
        if (found == own->received.end())
            found = own->received.insert(found, Receipt { item, {}, {}, {}, {} });
        found->photo = photo;
        return build;
    };
}

} // namespace deepstop
