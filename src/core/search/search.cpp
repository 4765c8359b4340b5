#include "search/search.hpp"

#include "language/language.hpp"
#include "search/trial.hpp"
#include "task/cancel.hpp"
#include "task/parallel.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <iterator>
#include <limits>
#include <map>
#include <mutex>

namespace deepstop::search {
namespace {

/// What one check loses.
struct Tally {
    std::uint64_t lost = 0;
    std::vector<Loser> nearest; ///< a heap, the farthest first
};

/// The one that fails by less comes first; what has no figure last.
bool nearer(const Loser& a, const Loser& b)
{
    if (std::isnan(a.shortBy) != std::isnan(b.shortBy))
        return std::isnan(b.shortBy);
    return std::tuple { std::isnan(a.shortBy) ? 0 : a.shortBy, a.choice } < std::tuple { std::isnan(b.shortBy) ? 0 : b.shortBy, b.choice };
}

/// Trials for as many threads as ask at once.
class Trials {
public:
    explicit Trials(const Query& query) : query_(query) { }

    /// Calls `with(trial)` with one that nobody else has.
    template <class With>
    auto use(With with)
    {
        std::unique_ptr<Trial> trial;
        {
            const std::lock_guard lock(mutex_);
            if (!idle_.empty()) {
                trial = std::move(idle_.back());
                idle_.pop_back();
            }
        }
        if (!trial)
            trial = std::make_unique<Trial>(query_);
        auto result = with(*trial);
        const std::lock_guard lock(mutex_);
        idle_.push_back(std::move(trial));
        return result;
    }

private:
    const Query& query_;
    std::mutex mutex_;
    std::vector<std::unique_ptr<Trial>> idle_;
};

using Step = Outcome (Trial::*)();

/// A search under way.
class Searching {
public:
    Searching(const Query& query, const Progress& progress)
        : query_(query), progress_(progress), trials_(query), rotors_(count(Kind::Rotor)), calipers_(count(Kind::Caliper)),
          pads_(count(Kind::Pad)), wheels_(count(Kind::Wheel)), masters_(count(Kind::Master))
    {
        const auto bore = [&](std::uint32_t m) {
            const auto& master = query.parts.masters[m];
            return (master.id.empty() ? query.study->after.hydraulics->masterBore : master.part.bore).value.value_or(0);
        };
        for (std::uint32_t m = 0; m < masters_; ++m)
            widestFirst_.push_back(m);
        std::ranges::stable_sort(widestFirst_, std::greater<> {}, bore);
    }

    Result run()
    {
        result_.combinations = query_.parts.combinations();
        hub();
        calipersAlone();
        padsInCalipers();
        for (std::size_t i = 0; i < goodRotors_.size(); ++i) {
            const double all = static_cast<double>(goodRotors_.size());
            withRotor(goodRotors_[i], static_cast<double>(i) / all, 1 / all);
            tell(static_cast<double>(i + 1) / all);
        }
        result_.front = frontOf(result_.kits);
        tellFunnel();
        return std::move(result_);
    }

private:
    void tell(double part)
    {
        if (progress_)
            progress_(part, std::span(result_.kits).subspan(told_));
        told_ = result_.kits.size();
        toldAt_ = std::chrono::steady_clock::now();
    }

    using Places = std::vector<std::uint32_t>;
    [[nodiscard]] std::uint32_t count(Kind kind) const { return static_cast<std::uint32_t>(query_.parts.count(kind)); }

    /// One step of every kit in a list.
    std::vector<Outcome> asked(const std::vector<Choice>& kits, Step step)
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

    void lose(const Outcome& outcome, const Choice& choice, std::uint64_t kits)
    {
        if (kits == 0)
            return;
        auto [place, isNew] = tallies_.try_emplace(outcome.failed);
        if (isNew) {
            order_.push_back(outcome.failed);
            styles_[outcome.failed] = outcome.style;
        }
        Tally& tally = place->second;
        tally.lost += kits;
        tally.nearest.push_back({ choice, outcome.shortBy, kits });
        std::ranges::push_heap(tally.nearest, nearer);
        if (tally.nearest.size() > mostLosers) {
            std::ranges::pop_heap(tally.nearest, nearer);
            tally.nearest.pop_back();
        }
    }

    void hub()
    {
        std::vector<Choice> each;
        for (std::uint32_t r = 0; r < rotors_; ++r)
            each.push_back({ r, every, every, every, every });
        const auto outcomes = asked(each, &Trial::hub);
        for (std::uint32_t r = 0; r < rotors_; ++r)
            if (outcomes[r]) {
                goodRotors_.push_back(r);
                onHub_[r] = outcomes[r].doubts;
            } else {
                lose(outcomes[r], each[r], std::uint64_t { 1 } * calipers_ * pads_ * wheels_ * masters_);
            }
    }

    void calipersAlone()
    {
        if (goodRotors_.empty())
            return;
        std::vector<Choice> each;
        for (std::uint32_t c = 0; c < calipers_; ++c)
            each.push_back({ every, c, every, every, every });
        const auto outcomes = asked(each, &Trial::parking);
        for (std::uint32_t c = 0; c < calipers_; ++c)
            if (outcomes[c]) {
                goodCalipers_.push_back(c);
                alone_[c] = outcomes[c].doubts;
            } else {
                lose(outcomes[c], each[c], goodRotors_.size() * pads_ * wheels_ * masters_);
            }
    }

    void padsInCalipers()
    {
        if (goodRotors_.empty())
            return;
        std::vector<Choice> each;
        for (const std::uint32_t c : goodCalipers_)
            for (std::uint32_t p = 0; p < pads_; ++p)
                each.push_back({ every, c, p, every, every });
        const auto outcomes = asked(each, &Trial::pads);
        for (std::size_t i = 0; i < each.size(); ++i)
            if (outcomes[i])
                inCaliper_[at(each[i], Kind::Caliper)][at(each[i], Kind::Pad)] = outcomes[i].doubts;
            else
                lose(outcomes[i], each[i], goodRotors_.size() * wheels_ * masters_);
    }

    /// Rotor, caliper and pad that go together so far, with what is still in doubt.
    struct Brake {
        std::uint32_t caliper = 0;
        std::uint32_t pad = 0;
        std::vector<Doubt> doubts;
        double clearance = 0; ///< in the wheel that was asked last
    };

    static void join(std::vector<Doubt>& doubts, const std::vector<Doubt>& more) { doubts.insert(doubts.end(), more.begin(), more.end()); }
    [[nodiscard]] bool slides(std::uint32_t caliper) const { return query_.parts.calipers[caliper].part.kind != CaliperKind::Fixed; }

    /// @param done part of the search before it
    /// @param share of the search that it is
    void withRotor(std::uint32_t r, double done, double share)
    {
        std::vector<Brake> brakes = onRing(r);
        roundTheRotor(r, brakes);
        travelling(r, brakes);
        if (brakes.empty())
            return;
        std::vector<std::pair<std::uint32_t, std::vector<Doubt>>> wheels = onWheelSeat(r, brakes.size());
        std::vector<Kit> kits;
        for (auto& [wheel, doubts] : wheels)
            inWheel(r, brakes, wheel, doubts, kits);
        judgeWhole(std::move(kits), done, share);
    }

    std::vector<Brake> onRing(std::uint32_t r)
    {
        std::vector<Choice> each;
        for (std::uint32_t p = 0; p < pads_; ++p)
            each.push_back({ r, every, p, every, every });
        const auto outcomes = asked(each, &Trial::edge);
        std::vector<Brake> brakes;
        for (std::uint32_t p = 0; p < pads_; ++p) {
            std::uint64_t with = 0;
            for (const std::uint32_t c : goodCalipers_) {
                const auto& pads = inCaliper_[c];
                const auto pad = pads.find(p);
                if (pad == pads.end())
                    continue;
                ++with;
                if (!outcomes[p])
                    continue;
                Brake brake { c, p, onHub_[r] };
                join(brake.doubts, alone_[c]);
                join(brake.doubts, pad->second);
                join(brake.doubts, outcomes[p].doubts);
                brakes.push_back(std::move(brake));
            }
            if (!outcomes[p])
                lose(outcomes[p], each[p], with * wheels_ * masters_);
        }
        std::ranges::sort(brakes, {}, [](const Brake& b) { return std::pair { b.caliper, b.pad }; });
        return brakes;
    }

    /// A step that looks at rotor and caliper, and at the pad of a caliper that slides.
    /// The same outcome counts for all pads of a caliper that does not slide.
    template <class Same, class Lose>
    void byCaliper(std::vector<Brake>& brakes, Step step, Same choiceOf, Lose loseOne)
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

    void roundTheRotor(std::uint32_t r, std::vector<Brake>& brakes)
    {
        byCaliper(
            brakes, &Trial::room,
            [&](const Brake& b) {
                return Choice { r, b.caliper, b.pad, every, every };
            },
            [&](const Outcome& outcome, const Choice& choice, std::uint64_t pads) { lose(outcome, choice, pads * wheels_ * masters_); });
    }

    void travelling(std::uint32_t r, std::vector<Brake>& brakes)
    {
        std::vector<Choice> each;
        for (const Brake& b : brakes)
            each.push_back({ r, b.caliper, b.pad, every, every });
        const auto outcomes = asked(each, &Trial::travel);
        std::vector<Brake> left;
        for (std::size_t i = 0; i < brakes.size(); ++i)
            if (outcomes[i]) {
                join(brakes[i].doubts, outcomes[i].doubts);
                left.push_back(std::move(brakes[i]));
            } else {
                lose(outcomes[i], each[i], std::uint64_t { wheels_ } * masters_);
            }
        brakes = std::move(left);
    }

    std::vector<std::pair<std::uint32_t, std::vector<Doubt>>> onWheelSeat(std::uint32_t r, std::uint64_t brakes)
    {
        std::vector<Choice> each;
        for (std::uint32_t w = 0; w < wheels_; ++w)
            each.push_back({ r, every, every, w, every });
        const auto outcomes = asked(each, &Trial::seat);
        std::vector<std::pair<std::uint32_t, std::vector<Doubt>>> left;
        for (std::uint32_t w = 0; w < wheels_; ++w)
            if (outcomes[w])
                left.emplace_back(w, outcomes[w].doubts);
            else
                lose(outcomes[w], each[w], brakes * masters_);
        return left;
    }

    void inWheel(std::uint32_t r, std::vector<Brake> brakes, std::uint32_t w, const std::vector<Doubt>& doubts, std::vector<Kit>& kits)
    {
        byCaliper(
            brakes, &Trial::wheel,
            [&](const Brake& b) {
                return Choice { r, b.caliper, b.pad, w, every };
            },
            [&](const Outcome& outcome, const Choice& choice, std::uint64_t pads) { lose(outcome, choice, pads * masters_); });
        for (Brake& brake : brakes) {
            join(brake.doubts, doubts);
            kits.push_back({ { r, brake.caliper, brake.pad, w, every }, notKnown(brake.clearance), std::move(brake.doubts) });
        }
    }

    [[nodiscard]] static Gains notKnown(double clearance)
    {
        Gains gains;
        gains.fill(std::numeric_limits<double>::quiet_NaN());
        gains[static_cast<std::size_t>(Gain::Clearance)] = clearance;
        return gains;
    }

    /// Balance, heat and limits of kits without a master cylinder yet, with each of them. Kits of one rotor, caliper and pad are judged one
    /// after another: what they share is worked out once.
    void judgeWhole(std::vector<Kit> kits, double done, double share)
    {
        std::ranges::sort(kits, {}, &Kit::choice);
        const auto sameBrake = [](const Kit& a, const Kit& b) {
            return at(a.choice, Kind::Caliper) == at(b.choice, Kind::Caliper) && at(a.choice, Kind::Pad) == at(b.choice, Kind::Pad);
        };
        std::vector<std::span<const Kit>> groups;
        for (std::size_t from = 0, to = 0; from < kits.size(); from = to) {
            while (to < kits.size() && sameBrake(kits[from], kits[to]))
                ++to;
            groups.emplace_back(&kits[from], to - from);
        }
        const auto begun = static_cast<std::ptrdiff_t>(result_.kits.size());
        std::mutex findings;
        std::size_t through = 0;
        parallelFor(groups.size(), 0, [&](std::size_t i) {
            std::vector<Judged> judged = trials_.use([&](Trial& trial) { return judgeBrake(trial, groups[i]); });
            const std::lock_guard lock(findings);
            for (Judged& each : judged)
                if (each.outcome)
                    result_.kits.push_back(std::move(each.kit));
                else
                    lose(each.outcome, each.kit.choice, at(each.kit.choice, Kind::Master) == every ? masters_ : 1);
            ++through;
            constexpr auto tellAgain = std::chrono::milliseconds(200);
            if (std::chrono::steady_clock::now() - toldAt_ > tellAgain)
                tell(done + share * static_cast<double>(through) / static_cast<double>(groups.size()));
        });
        tell(done + share);
        std::ranges::sort(result_.kits.begin() + begun, result_.kits.end(), {}, &Kit::choice);
    }

    struct Judged {
        Kit kit;
        Outcome outcome;
    };
    /// What balance and heat say of a brake on one tyre, as far as it was asked. They look at nothing else of a wheel.
    struct Driven {
        Reading rollingRadius;
        Reading grip;
        std::optional<Outcome> locks;
        struct Whole {
            Outcome outcome; ///< the first that fails
            std::vector<Doubt> doubts;
            Gains gains; ///< of those that are driven for
        };
        std::map<std::uint32_t, Whole> withMaster;
    };
    /// Kits of one brake in several wheels.
    [[nodiscard]] std::vector<Judged> judgeBrake(Trial& trial, std::span<const Kit> kits) const
    {
        std::vector<Judged> own;
        std::vector<Driven> tyres;
        for (const Kit& kit : kits) {
            const Wheel& wheel = query_.parts.wheels[at(kit.choice, Kind::Wheel)].part;
            auto driven = std::ranges::find_if(
                tyres, [&](const Driven& d) { return d.rollingRadius == wheel.rollingRadius && d.grip == wheel.grip; });
            if (driven == tyres.end())
                driven = tyres.insert(tyres.end(), Driven { wheel.rollingRadius, wheel.grip, {}, {} });
            judgeWithMasters(trial, kit, *driven, own);
        }
        return own;
    }

    void judgeWithMasters(Trial& trial, const Kit& kit, Driven& driven, std::vector<Judged>& own) const
    {
        Kit one = kit;
        at(one.choice, Kind::Master) = 0;
        trial.put(one.choice);
        trial.addWeight(one.gains);
        Outcome alone = withinLimits(one.gains, { Gain::Weight, Gain::Clearance });
        if (alone) {
            if (!driven.locks)
                driven.locks = trial.locks();
            alone = *driven.locks;
        }
        if (!alone) {
            own.push_back({ kit, std::move(alone) });
            return;
        }
        join(one.doubts, alone.doubts);
        const std::size_t begun = own.size();
        // A run in which a weak foot does all that is asked is the run of a stronger one: the widest cylinder first.
        for (const std::uint32_t m : widestFirst_) {
            Judged with { one, {} };
            at(with.kit.choice, Kind::Master) = m;
            trial.put(with.kit.choice);
            with.outcome = wholeOf(trial, with.kit, driven);
            own.push_back(std::move(with));
        }
        std::ranges::sort(own.begin() + static_cast<std::ptrdiff_t>(begun), own.end(), {}, [](const Judged& j) { return j.kit.choice; });
    }

    /// Pedal, heat and limits of the kit that is on.
    Outcome wholeOf(Trial& trial, Kit& kit, Driven& driven) const
    {
        trial.addPrice(kit.gains);
        if (Outcome outcome = withinLimits(kit.gains, { Gain::Price }); !outcome)
            return outcome;
        const auto [place, isNew] = driven.withMaster.try_emplace(at(kit.choice, Kind::Master));
        Driven::Whole& whole = place->second;
        if (isNew) {
            for (const Step step : { &Trial::pedal, &Trial::heat })
                if (whole.outcome) {
                    whole.outcome = (trial.*step)();
                    join(whole.doubts, whole.outcome.doubts);
                }
            whole.gains = kit.gains;
            if (whole.outcome)
                trial.addDriven(whole.gains);
        }
        if (!whole.outcome)
            return whole.outcome;
        join(kit.doubts, whole.doubts);
        constexpr std::array ofDriving { Gain::Effort, Gain::HeatMargin, Gain::HotStop };
        for (const Gain gain : ofDriving)
            kit.gains[static_cast<std::size_t>(gain)] = search::of(whole.gains, gain);
        return withinLimits(kit.gains, { Gain::Effort, Gain::HeatMargin, Gain::HotStop });
    }

    /// What is not known is not within a limit.
    [[nodiscard]] Outcome withinLimits(const Gains& gains, std::initializer_list<Gain> which) const
    {
        Outcome outcome;
        for (const Limit& limit : query_.limits) {
            if (std::ranges::count(which, limit.gain) == 0)
                continue;
            const double value = search::of(gains, limit.gain);
            const double over = about(limit.gain).lessIsBetter ? value - limit.value : limit.value - value;
            if (!(over <= 0)) {
                outcome.failed = fmt::format("limit/{}", about(limit.gain).key);
                outcome.shortBy = over;
                outcome.style = about(limit.gain).style;
                return outcome;
            }
        }
        return outcome;
    }

    /// In the order the checks are asked, whatever order they first lost a kit in.
    void tellFunnel()
    {
        std::vector<std::pair<std::size_t, std::string>> sorted;
        const auto checks = orderOfChecks();
        for (const std::string& id : order_) {
            std::size_t place = 0;
            while (place < checks.size() && !isOf(id, *checks[place], query_.axle))
                ++place;
            sorted.emplace_back(place, id);
        }
        std::ranges::sort(sorted);
        std::uint64_t left = result_.combinations;
        for (const auto& [place, id] : sorted) {
            Tally& tally = tallies_[id];
            left -= tally.lost;
            std::ranges::sort(tally.nearest, nearer);
            result_.funnel.push_back({ id, titleOf(id, place < checks.size() ? checks[place] : nullptr), styles_[id], tally.lost, left,
                std::move(tally.nearest) });
        }
    }

    [[nodiscard]] std::string titleOf(const std::string& id, const Check* check) const
    {
        if (check)
            return std::string(tr(check->title));
        for (const Gain gain : allGains)
            if (id == fmt::format("limit/{}", about(gain).key))
                return tr("Limit: {}", tr(about(gain).title));
        return id;
    }

    const Query& query_;
    const Progress& progress_;
    Trials trials_;
    std::uint32_t rotors_, calipers_, pads_, wheels_, masters_;
    Places widestFirst_; ///< master cylinders
    Places goodRotors_;
    Places goodCalipers_;
    std::map<std::uint32_t, std::vector<Doubt>> onHub_;
    std::map<std::uint32_t, std::vector<Doubt>> alone_;
    std::map<std::uint32_t, std::map<std::uint32_t, std::vector<Doubt>>> inCaliper_;
    std::map<std::string, Tally> tallies_;
    std::vector<std::string> order_;
    std::map<std::string, Style> styles_;
    std::size_t told_ = 0; ///< kits
    std::chrono::steady_clock::time_point toldAt_ = std::chrono::steady_clock::now();
    Result result_;
};

} // namespace

Result search(const Query& query, const Progress& progress)
{
    const auto begun = std::chrono::steady_clock::now();
    Result result;
    result.combinations = query.parts.combinations();
    for (const Kind kind : kinds)
        if (query.parts.count(kind) == 0) {
            result.lacks = tr("The library has no {}: put some into it first.", tr(nameOf(kind)));
            return result;
        }
    // All pairs of them are looked at, and remembered.
    constexpr std::uint64_t mostPairs = 1'000'000;
    if (const std::uint64_t pairs = std::uint64_t { query.parts.count(Kind::Caliper) } * query.parts.count(Kind::Pad); pairs > mostPairs) {
        result.lacks =
            tr("{} calipers and {} pads are too many to try each with each: {} pairs, at most {}. Take parts out of the library.",
                query.parts.count(Kind::Caliper), query.parts.count(Kind::Pad), pairs, mostPairs);
        return result;
    }
    result = Searching(query, progress).run();
    result.seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
    return result;
}

Build triedBuild(const Query& query, const Choice& choice, std::string* setup)
{
    Trial trial(query);
    trial.put(choice);
    if (setup)
        *setup = Trial::setupId;
    return trial.kitInBuild();
}

} // namespace deepstop::search
