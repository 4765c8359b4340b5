#include "search/axle_kits.hpp"

#include "task/parallel.hpp"

#include <algorithm>
#include <iterator>

namespace deepstop::search {
AxleKits::AxleKits(const Query& query, Trials& trials, Funnel& funnel, std::vector<InWheel> wheels)
    : query_(query), trials_(trials), funnel_(funnel), wheels_(std::move(wheels))
{
    for (const InWheel& wheel : wheels_)
        inAllWheels_ += wheel.kits;
    hub();
    calipersAlone();
    markOpenings();
}

void AxleKits::lose(const Outcome& outcome, const Choice& choice, std::uint64_t kits)
{
    if (query_.wholeCar && trials_.axle() == Axle::Rear)
        funnel_.lose(outcome, { { every, every, every, every, every }, choice, 0, kits });
    else
        funnel_.lose(outcome, { choice, {}, 0, kits });
}

std::vector<Outcome> AxleKits::asked(const std::vector<Choice>& kits, Step step)
{
    std::vector<Outcome> outcomes(kits.size());
    parallelFor(kits.size(), 0, [&](std::size_t i) {
        outcomes[i] = trials_.use([&](Trial& trial) {
            trial.put(kits[i]);
            return (trial.*step)();
        });
    });
    return outcomes;
}

void AxleKits::hub()
{
    std::vector<Choice> each;
    for (std::uint32_t r = 0; r < count(Kind::Rotor); ++r)
        each.push_back({ r, every, every, every, every });
    const auto outcomes = asked(each, &Trial::hub);
    for (std::uint32_t r = 0; r < each.size(); ++r)
        if (outcomes[r]) {
            goodRotors_.push_back(r);
            onHub_[r] = outcomes[r].doubts;
        } else {
            lose(outcomes[r], each[r], std::uint64_t { count(Kind::Caliper) } * count(Kind::Pad) * inAllWheels_);
        }
}

void AxleKits::calipersAlone()
{
    if (goodRotors_.empty())
        return;
    std::vector<Choice> each;
    for (std::uint32_t c = 0; c < count(Kind::Caliper); ++c)
        each.push_back({ every, c, every, every, every });
    const auto outcomes = asked(each, &Trial::parking);
    for (std::uint32_t c = 0; c < each.size(); ++c)
        if (outcomes[c]) {
            goodCalipers_.push_back(c);
            alone_[c] = outcomes[c].doubts;
        } else {
            lose(outcomes[c], each[c], goodRotors_.size() * count(Kind::Pad) * inAllWheels_);
        }
}

void AxleKits::markOpenings()
{
    const auto mark = [](const auto& shelf, const auto& readingOf) {
        // Where all are different, looking for one alike is in vain.
        constexpr std::size_t most = 256;
        std::vector<std::uint32_t> first;
        std::vector<std::uint32_t> different;
        for (std::uint32_t i = 0; i < shelf.size(); ++i) {
            const auto alike =
                std::ranges::find_if(different, [&](std::uint32_t other) { return readingOf(shelf[other]) == readingOf(shelf[i]); });
            first.push_back(alike == different.end() ? i : *alike);
            if (alike == different.end() && different.size() < most)
                different.push_back(i);
        }
        return first;
    };
    openingOf_ = mark(query_.parts.calipers, [](const auto& shelved) -> const Reading& { return shelved.part.padWindow; });
    lengthOf_ = mark(query_.parts.pads, [](const auto& shelved) -> const Reading& { return shelved.part.length; });
}

const std::vector<AxleKits::PadIn>& AxleKits::padsIn(std::uint32_t caliper)
{
    const auto known = padsIn_.find(caliper);
    if (known != padsIn_.end())
        return known->second;
    const std::uint32_t opening = openingOf_[caliper];
    std::vector<Choice> each;
    for (std::uint32_t p = 0; p < count(Kind::Pad); ++p)
        if (lengthOf_[p] == p && !asked_.contains({ opening, p }))
            each.push_back({ every, opening, p, every, every });
    std::vector<Outcome> outcomes = asked(each, &Trial::pads);
    for (std::size_t i = 0; i < each.size(); ++i) {
        asked_[{ opening, at(each[i], Kind::Pad) }] = static_cast<std::uint32_t>(inOpening_.size());
        inOpening_.push_back(std::move(outcomes[i]));
    }
    std::vector<PadIn>& pads = padsIn_[caliper];
    for (std::uint32_t p = 0; p < count(Kind::Pad); ++p) {
        const std::uint32_t place = asked_.at({ opening, lengthOf_[p] });
        if (inOpening_[place])
            pads.push_back({ p, place });
        else
            lose(inOpening_[place], { every, caliper, p, every, every }, goodRotors_.size() * inAllWheels_);
    }
    return pads;
}

void AxleKits::with(std::uint32_t rotor, const Taken& taken)
{
    const std::vector<Outcome> ring = onRing(rotor);
    std::vector<Choice> each;
    for (const InWheel& in : wheels_)
        each.push_back({ rotor, every, every, in.wheel, every });
    std::vector<Outcome> seats;
    std::uint64_t seated = 0;
    std::vector<std::uint64_t> lostOnRing(count(Kind::Pad));
    for (std::size_t from = 0, to = 0; from < goodCalipers_.size(); from = to) {
        std::vector<Brake> brakes;
        constexpr std::size_t atOnce = 2000;
        for (; to < goodCalipers_.size() && brakes.size() < atOnce; ++to) {
            const std::uint32_t caliper = goodCalipers_[to];
            for (const PadIn& in : padsIn(caliper))
                lostOnRing[in.pad] += !ring[in.pad];
            std::ranges::move(brakesOf(rotor, caliper, ring), std::back_inserter(brakes));
        }
        roundTheRotor(rotor, brakes);
        travelling(rotor, brakes);
        std::vector<Kit> kits;
        if (!brakes.empty()) {
            if (seats.empty())
                seats = asked(each, &Trial::seat);
            seated += brakes.size();
            for (std::size_t i = 0; i < seats.size(); ++i)
                if (seats[i])
                    inWheel(rotor, brakes, wheels_[i], seats[i].doubts, kits);
            std::ranges::sort(kits, {}, &Kit::choice);
        }
        taken(std::move(kits), static_cast<double>(to) / static_cast<double>(goodCalipers_.size()));
    }
    for (std::uint32_t p = 0; p < lostOnRing.size(); ++p)
        if (!ring[p])
            lose(ring[p], { rotor, every, p, every, every }, lostOnRing[p] * inAllWheels_);
    for (std::size_t i = 0; i < seats.size(); ++i)
        if (!seats[i])
            lose(seats[i], each[i], seated * wheels_[i].kits);
}

std::vector<Outcome> AxleKits::onRing(std::uint32_t rotor)
{
    std::vector<Choice> each;
    for (std::uint32_t p = 0; p < count(Kind::Pad); ++p)
        each.push_back({ rotor, every, p, every, every });
    return asked(each, &Trial::edge);
}

std::vector<AxleKits::Brake> AxleKits::brakesOf(std::uint32_t rotor, std::uint32_t caliper, const std::vector<Outcome>& onRing)
{
    std::vector<Brake> brakes;
    for (const PadIn& in : padsIn(caliper)) {
        if (!onRing[in.pad])
            continue;
        Brake& brake = brakes.emplace_back();
        brake.caliper = caliper;
        brake.pad = in.pad;
        brake.doubts = onHub_[rotor];
        join(brake.doubts, alone_[caliper]);
        join(brake.doubts, inOpening_[in.outcome].doubts);
        join(brake.doubts, onRing[in.pad].doubts);
    }
    return brakes;
}

/// A step that looks at rotor and caliper, and at the pad of a caliper that slides.
/// The same outcome counts for all pads of a caliper that does not slide.
template <class ChoiceOf, class LoseOne>
void AxleKits::byCaliper(std::vector<Brake>& brakes, Step step, ChoiceOf choiceOf, LoseOne loseOne)
{
    std::vector<Choice> each;
    std::vector<std::size_t> which(brakes.size());
    for (std::size_t i = 0; i < brakes.size(); ++i) {
        const bool shared = i > 0 && brakes[i].caliper == brakes[i - 1].caliper && !slides(brakes[i].caliper);
        if (!shared)
            each.push_back(choiceOf(brakes[i]));
        which[i] = each.size() - 1;
    }
    const auto outcomes = asked(each, step);
    std::vector<Brake> left;
    for (std::size_t from = 0; from < brakes.size();) {
        std::size_t to = from;
        while (to < brakes.size() && which[to] == which[from])
            ++to;
        const Outcome& outcome = outcomes[which[from]];
        if (!outcome) {
            Choice choice = each[which[from]];
            if (!slides(brakes[from].caliper))
                at(choice, Kind::Pad) = every;
            loseOne(outcome, choice, to - from);
        } else {
            for (std::size_t i = from; i < to; ++i) {
                join(brakes[i].doubts, outcome.doubts);
                brakes[i].clearance = outcome.clearance;
                left.push_back(std::move(brakes[i]));
            }
        }
        from = to;
    }
    brakes = std::move(left);
}

void AxleKits::roundTheRotor(std::uint32_t rotor, std::vector<Brake>& brakes)
{
    byCaliper(
        brakes, &Trial::room,
        [&](const Brake& b) {
            return Choice { rotor, b.caliper, b.pad, every, every };
        },
        [&](const Outcome& outcome, const Choice& choice, std::uint64_t pads) { lose(outcome, choice, pads * inAllWheels_); });
}

void AxleKits::travelling(std::uint32_t rotor, std::vector<Brake>& brakes)
{
    std::vector<Choice> each;
    for (const Brake& b : brakes)
        each.push_back({ rotor, b.caliper, b.pad, every, every });
    const auto outcomes = asked(each, &Trial::travel);
    std::vector<Brake> left;
    for (std::size_t i = 0; i < brakes.size(); ++i)
        if (outcomes[i]) {
            join(brakes[i].doubts, outcomes[i].doubts);
            left.push_back(std::move(brakes[i]));
        } else {
            lose(outcomes[i], each[i], inAllWheels_);
        }
    brakes = std::move(left);
}

void AxleKits::inWheel(
    std::uint32_t rotor, std::vector<Brake> brakes, const InWheel& in, const std::vector<Doubt>& doubts, std::vector<Kit>& kits)
{
    byCaliper(
        brakes, &Trial::wheel,
        [&](const Brake& b) {
            return Choice { rotor, b.caliper, b.pad, in.wheel, every };
        },
        [&](const Outcome& outcome, const Choice& choice, std::uint64_t pads) { lose(outcome, choice, pads * in.kits); });
    for (Brake& brake : brakes) {
        join(brake.doubts, doubts);
        Kit& kit = kits.emplace_back();
        kit.choice = { rotor, brake.caliper, brake.pad, in.wheel, every };
        kit.gains[static_cast<std::size_t>(Gain::Clearance)] = brake.clearance;
        kit.doubts = std::move(brake.doubts);
    }
}

} // namespace deepstop::search
