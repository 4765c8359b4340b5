#include "chapters/parts/receiving.hpp"

#include "build/words.hpp"
#include "chapters/parts/checks.hpp"
#include "language/language.hpp"
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

std::string wordFor(WhichHand hand) { return judge::wordFor(hand == WhichHand::Left ? Side::Left : Side::Right); }

/// What a hand given for one side means.
void judgeHand(ReceivingItem& item, Side side, std::string_view part, const Receipt* other)
{
    const WhichHand wanted = side == Side::Left ? WhichHand::Left : WhichHand::Right;
    if (item.hand == WhichHand::Unknown)
        return;
    if (item.hand == wanted) {
        item.state = Checked::Fine;
        item.said = tr("a {} one", wordFor(item.hand));
        return;
    }
    item.state = Checked::Fault;
    item.said = tr("is a {} one", wordFor(item.hand));
    if (other && other->hand == item.hand)
        item.said += tr(": two {} {} in the box", wordFor(item.hand), part);
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
                item.said = item.note.empty() ? std::string(tr("faulty")) : item.note;
        }
        items.push_back(std::move(item));
        return items.back();
    };
    const bool sided = corner.rotor.handed == Handed::Sided
        || (corner.rotor.handed == Handed::Unknown
            && (corner.rotor.vaneShape == VaneShape::Curved || corner.rotor.face == RotorFace::Slotted
                || corner.rotor.vaneShape == VaneShape::Unknown || corner.rotor.face == RotorFace::Unknown));
    for (const Side side : { Side::Left, Side::Right }) {
        const auto hand = judge::wordFor(side);
        const auto group = fmt::format("{} {}", side == Side::Left ? tr("Left") : tr("Right"), where);
        const auto id = [&](const std::string& what) { return fmt::format("{}/{}/{}", wordOf(axle), wordOf(side), what); };
        const auto other = [&](const std::string& what) {
            return receiptFor(*setup, fmt::format("{}/{}/{}", wordOf(axle), wordOf(side == Side::Left ? Side::Right : Side::Left), what));
        };
        add(id("rotor"), group, tr("Rotor, {}", hand), tr("There, unharmed, both faces clean and flat to a straightedge"));
        if (sided) {
            auto& item = add(id("rotor-hand"), group, tr("Hand of the {} rotor", hand),
                tr("Curved vanes lean back from the turning, swept slots as the maker says: which side is it for? Tag it now"));
            item.asksHand = true;
            judgeHand(item, side, tr("rotors"), other("rotor-hand"));
        }
        auto& caliper = add(id("caliper-hand"), group, tr("Hand of the {} caliper", hand),
            corner.caliper.bleeders == Bleeders::BothEnds
                ? tr("Small piston where the rotor comes in: which side is it for?")
                : tr("Hung in its place the bleeder is the highest point: which side is it for?"));
        caliper.asksHand = true;
        judgeHand(caliper, side, tr("calipers"), other("caliper-hand"));
        add(id("pads"), group, tr("Pads, {}", hand), tr("Two, lining sound, backs flat; wear sensor on its side"));
        add(id("bracket"), group, tr("Bracket, {}", hand), tr("There, for this side, holes and faces clean"));
        add(id("hose"), group, tr("Hose, {}", hand), tr("There, no kink, seals in the bag, date not past"));
        add(id("bolts"), group, tr("Bolts and pins, {}", hand), tr("Counted against the list: bolts, washers, shims, pins, clips"));
    }
    for (const auto& [check, title, ask] :
        { std::tuple { &checks::bore, tr("Rotor bore over the hub pilot"), tr("Vernier across bore and pilot") },
            std::tuple { &checks::hubPocket, tr("Hub flange in the hat's pocket"), tr("Vernier across both") },
            std::tuple { &checks::boltCircle, tr("Bolt circle, holes and studs"), tr("Hole to hole, count, stud in a hole") },
            std::tuple { &checks::drumInHat, tr("Drum in the hat over the parking shoes"), tr("Vernier across the drum") },
            std::tuple { &checks::mountSpacing, tr("Mounting holes against the lugs"), tr("Hole to hole, edge to edge and back") },
            std::tuple { &checks::boltThread, tr("Bolts in the knuckle's lugs"), tr("Pitch gauge, or by hand in the old hole") },
            std::tuple { &checks::hoseLength, tr("Hose length"), tr("Fitting to fitting, against the old hose") },
            std::tuple { &checks::hoseThread, tr("Hose ends"), tr("By hand into caliper and line") },
            std::tuple { &checks::padSlot, tr("Rotor and new pads between the pistons"), tr("Push pistons home; opening, rotor, pads") },
            std::tuple { &checks::padWindow, tr("Pads in their opening"), tr("Slide a pad in by hand") } }) {
        const Verdict* v = study.verdict(*check, { axle });
        if (!v)
            continue;
        auto& item = add(fmt::format("{}/both/{}", wordOf(axle), check->name), tr("Both sides, {}", where), title, ask);
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
