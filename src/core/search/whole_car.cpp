#include "search/whole_car.hpp"

#include "language/language.hpp"
#include "search/axle_kits.hpp"
#include "task/parallel.hpp"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <limits>
#include <queue>
#include <set>

namespace deepstop::search {
namespace {

constexpr double infinite = std::numeric_limits<double>::infinity();

/// Less is better; what is not known comes last.
double rankOf(double value, Gain gain)
{
    if (std::isnan(value))
        return infinite;
    return about(gain).lessIsBetter ? value : -value;
}

/// Of both axles' figures the whole car's.
double together(double front, double rear, Gain gain)
{
    if (std::isnan(front) || std::isnan(rear))
        return std::numeric_limits<double>::quiet_NaN();
    return gain == Gain::Clearance ? std::min(front, rear) : front + rear;
}

constexpr std::array addingUp { Gain::Weight, Gain::Clearance, Gain::Price };

/// Wheels that stand on a car together, and the kits of both axles that fit in them, the best first.
struct Shod {
    std::uint32_t front = 0;
    std::uint32_t rear = 0;
    std::vector<Kit> fronts {};
    std::vector<Kit> rears {};
    double price = 0; ///< of the wheels; NaN where it is not known
};

class CarSearch {
public:
    CarSearch(const Query& query, const Progress& progress)
        : query_(query), progress_(progress), fronts_(query, Axle::Front), rears_(query, Axle::Rear),
          masters_(static_cast<std::uint32_t>(query.parts.count(Kind::Master)))
    {
    }

    Result run()
    {
        if (!findWheels())
            return std::move(result_);
        const std::uint64_t brakes =
            std::uint64_t { query_.parts.count(Kind::Rotor) } * query_.parts.count(Kind::Caliper) * query_.parts.count(Kind::Pad);
        result_.combinations = brakes * brakes * shod_.size() * masters_;
        fit(
            fronts_, &Shod::front, &Shod::fronts, [&](const Shod&) { return brakes * masters_; }, 0.0);
        fit(
            rears_, &Shod::rear, &Shod::rears, [&](const Shod& in) { return in.fronts.size() * masters_; }, partFitting / 2);
        for (Shod& in : shod_) {
            dropHopeless(in, in.fronts, in.rears);
            dropHopeless(in, in.rears, in.fronts);
        }
        judge();
        loseRest();
        result_.front = frontOf(result_.kits);
        result_.notLooked = result_.combinations - funnel_.lost() - result_.kits.size();
        result_.funnel = funnel_.told(query_, result_.combinations);
        return std::move(result_);
    }

private:
    static constexpr double partFitting = 0.5; ///< of the search

    /// The same all round where the car has the same all round.
    bool findWheels()
    {
        const SetupParts& now = query_.study->after;
        const auto& parts = query_.parts;
        if (!now.front.wheel || !now.rear.wheel || now.front.wheel->id == now.rear.wheel->id) {
            for (std::uint32_t w = 0; w < parts.count(Kind::Wheel); ++w)
                shod_.push_back({ w, w });
            return true;
        }
        const auto front = parts.find(Kind::Wheel, now.front.wheel->id);
        const auto rear = parts.find(Kind::Wheel, now.rear.wheel->id);
        if (!front || !rear) {
            result_.lacks = tr("Front and rear wheels of this car differ: select both, {} and {}.",
                now.front.wheel->name.empty() ? now.front.wheel->id : now.front.wheel->name,
                now.rear.wheel->name.empty() ? now.rear.wheel->id : now.rear.wheel->name);
            return false;
        }
        shod_.push_back({ static_cast<std::uint32_t>(*front), static_cast<std::uint32_t>(*rear) });
        return true;
    }

    /// Kits of one axle, with what of their figures is theirs alone.
    template <class Times>
    void fit(Trials& trials, std::uint32_t Shod::*wheel, std::vector<Kit> Shod::*kits, Times times, double before)
    {
        std::vector<AxleKits::InWheel> wheels;
        for (const Shod& in : shod_)
            if (const std::uint64_t with = times(in); with > 0)
                wheels.push_back({ in.*wheel, with });
        if (wheels.empty())
            return;
        AxleKits fitting(query_, trials, funnel_, std::move(wheels));
        for (std::size_t i = 0; i < fitting.rotors().size(); ++i) {
            const auto done = [&](double part) {
                tell(before + partFitting / 2 * (static_cast<double>(i) + part) / static_cast<double>(fitting.rotors().size()));
            };
            fitting.with(fitting.rotors()[i], [&](std::vector<Kit> found, double part) {
                weighAndPrice(trials, found);
                for (Kit& kit : found)
                    for (Shod& in : shod_)
                        if (in.*wheel == at(kit.choice, Kind::Wheel)) {
                            (in.*kits).push_back(std::move(kit));
                            break;
                        }
                done(part);
            });
        }
        const auto rank = [&](const Kit& kit) { return std::pair { rankOf(of(kit.gains, query_.best), query_.best), kit.choice }; };
        for (Shod& in : shod_)
            std::ranges::sort(in.*kits, {}, rank);
    }

    /// Kits of one brake in several wheels weigh and cost the same.
    static void weighAndPrice(Trials& trials, std::vector<Kit>& kits)
    {
        parallelFor(kits.size(), 0, [&](std::size_t i) {
            trials.use([&](Trial& trial) {
                Gains& gains = kits[i].gains;
                trial.put(kits[i].choice);
                trial.addWeight(gains);
                gains[static_cast<std::size_t>(Gain::Price)] =
                    trial.priceOf(Kind::Rotor) + trial.priceOf(Kind::Caliper) + trial.priceOf(Kind::Pad);
                return 0;
            });
        });
    }

    /// Those that break a limit whatever stands on the other axle.
    void dropHopeless(const Shod& in, std::vector<Kit>& own, const std::vector<Kit>& others)
    {
        if (query_.limits.empty() || others.empty())
            return;
        Gains best = allUnknown;
        for (const Gain gain : addingUp)
            for (const Kit& other : others)
                if (double& most = best[static_cast<std::size_t>(gain)]; rankOf(of(other.gains, gain), gain) < rankOf(most, gain))
                    most = of(other.gains, gain);
        const bool isFront = &own == &in.fronts;
        std::erase_if(own, [&](const Kit& kit) {
            Gains least = kit.gains;
            for (const Gain gain : addingUp)
                least[static_cast<std::size_t>(gain)] = together(of(kit.gains, gain), of(best, gain), gain);
            const Outcome outcome = withinLimits(query_, least, { Gain::Weight, Gain::Clearance, Gain::Price });
            if (outcome)
                return false;
            const Choice other { every, every, every, isFront ? in.rear : in.front, every };
            funnel_.lose(outcome, { isFront ? kit.choice : other, isFront ? other : kit.choice, 0, others.size() * masters_ });
            return true;
        });
    }

    /// Places in the lists of one pair of wheels, with one master cylinder.
    struct Pair {
        double rank = 0; ///< less is better
        std::uint32_t shod = 0;
        std::uint32_t master = 0;
        std::uint32_t front = 0;
        std::uint32_t rear = 0;
        auto operator<=>(const Pair&) const = default;
    };

    [[nodiscard]] Kit kitOf(const Pair& pair) const
    {
        const Shod& in = shod_[pair.shod];
        Kit kit = in.fronts[pair.front];
        const Kit& rear = in.rears[pair.rear];
        at(kit.choice, Kind::Master) = pair.master;
        kit.rear = rear.choice;
        at(*kit.rear, Kind::Master) = pair.master;
        join(kit.doubts, rear.doubts);
        for (const Gain gain : addingUp)
            kit.gains[static_cast<std::size_t>(gain)] = together(of(kit.gains, gain), of(rear.gains, gain), gain);
        kit.gains[static_cast<std::size_t>(Gain::Price)] += in.price + masterPrices_[pair.master];
        return kit;
    }

    [[nodiscard]] Pair ranked(std::uint32_t shod, std::uint32_t master, std::uint32_t front, std::uint32_t rear) const
    {
        const Shod& in = shod_[shod];
        double value = together(of(in.fronts[front].gains, query_.best), of(in.rears[rear].gains, query_.best), query_.best);
        if (query_.best == Gain::Price)
            value += in.price + masterPrices_[master];
        return { rankOf(value, query_.best), shod, master, front, rear };
    }

    void findPrices()
    {
        Trial trial(query_, Axle::Front);
        for (std::uint32_t m = 0; m < masters_; ++m) {
            trial.put({ 0, 0, 0, 0, m });
            masterPrices_.push_back(trial.priceOf(Kind::Master));
        }
        for (Shod& in : shod_) {
            trial.put({ 0, 0, 0, in.front, 0 });
            in.price = trial.priceOf(Kind::Wheel);
        }
    }

    void judge()
    {
        findPrices();
        std::priority_queue<Pair, std::vector<Pair>, std::greater<>> next;
        for (std::uint32_t s = 0; s < shod_.size(); ++s)
            for (std::uint32_t m = 0; m < masters_; ++m)
                if (!shod_[s].fronts.empty() && !shod_[s].rears.empty())
                    next.push(ranked(s, m, 0, 0));
        constexpr std::size_t atOnce = 64;
        std::size_t judged = 0;
        while (!next.empty() && result_.kits.size() < query_.most) {
            if (judged >= mostJudged) {
                result_.gaveUp = true;
                return;
            }
            std::vector<Kit> kits;
            while (!next.empty() && kits.size() < atOnce) {
                const Pair pair = next.top();
                next.pop();
                endIfCancelled();
                const Shod& in = shod_[pair.shod];
                // Every pair comes once: along the rears, from each front.
                if (pair.rear + 1 < in.rears.size())
                    next.push(ranked(pair.shod, pair.master, pair.front, pair.rear + 1));
                if (pair.rear == 0 && pair.front + 1 < in.fronts.size())
                    next.push(ranked(pair.shod, pair.master, pair.front + 1, 0));
                Kit kit = kitOf(pair);
                if (const Outcome outcome = withinLimits(query_, kit.gains, { Gain::Weight, Gain::Clearance, Gain::Price }))
                    kits.push_back(std::move(kit));
                else if (query_.best == outcome.gain) {
                    restBreaks_ = { outcome, kit };
                    next = {};
                } else {
                    funnel_.lose(outcome, { kit.choice, kit.rear, 0, 1 });
                }
            }
            judgeAtOnce(std::move(kits));
            judged += atOnce;
            tell(partFitting + (1 - partFitting) * static_cast<double>(result_.kits.size()) / static_cast<double>(query_.most));
        }
    }

    /// All that come after one that breaks a limit on what they are ranked by break it too.
    void loseRest()
    {
        if (!restBreaks_ || result_.kits.size() == query_.most)
            return;
        const auto& [outcome, first] = *restBreaks_;
        funnel_.lose(outcome, { first.choice, first.rear, 0, result_.combinations - funnel_.lost() - result_.kits.size() });
    }

    /// What balance and heat say of a car, the same for all wheels with the same tyres.
    struct Driven {
        Outcome outcome; ///< the first that fails
        std::vector<Doubt> doubts;
        Gains gains = allUnknown; ///< of those that are driven for
    };
    /// Both brakes, master cylinder and tyres.
    using Drive = std::array<std::uint32_t, 9>;
    [[nodiscard]] Drive driveOf(const Kit& kit) const
    {
        // The first wheel on such a tyre stands for them all.
        const auto tyre = [&](std::uint32_t wheel) {
            const auto& wheels = query_.parts.wheels;
            std::uint32_t first = 0;
            while (!(
                wheels[first].part.rollingRadius == wheels[wheel].part.rollingRadius && wheels[first].part.grip == wheels[wheel].part.grip))
                ++first;
            return first;
        };
        Drive drive {};
        for (std::size_t i = 0; i < 3; ++i) {
            drive[i] = kit.choice[i];
            drive[3 + i] = (*kit.rear)[i];
        }
        drive[6] = at(kit.choice, Kind::Master);
        drive[7] = tyre(at(kit.choice, Kind::Wheel));
        drive[8] = tyre(at(*kit.rear, Kind::Wheel));
        return drive;
    }

    [[nodiscard]] Driven driven(Kit kit)
    {
        return fronts_.use([&](Trial& front) {
            rears_.use([&](Trial& rear) {
                rear.put(*kit.rear);
                front.put(kit.choice);
                front.putOther(rear);
                return 0;
            });
            Driven driven;
            driven.gains[static_cast<std::size_t>(Gain::Locks)] = front.locksApart();
            driven.outcome = withinLimits(query_, driven.gains, { Gain::Locks });
            for (const Step step : { &Trial::locks, &Trial::pedal, &Trial::heat })
                if (driven.outcome) {
                    driven.outcome = (front.*step)();
                    join(driven.doubts, driven.outcome.doubts);
                }
            if (driven.outcome)
                front.addDriven(driven.gains);
            return driven;
        });
    }

    void judgeAtOnce(std::vector<Kit> kits)
    {
        std::vector<std::pair<Drive, const Kit*>> open;
        std::set<Drive> asked;
        for (const Kit& kit : kits)
            if (const Drive drive = driveOf(kit); !drives_.contains(drive) && asked.insert(drive).second)
                open.emplace_back(drive, &kit);
        std::vector<Driven> told(open.size());
        parallelFor(open.size(), 0, [&](std::size_t i) { told[i] = driven(*open[i].second); });
        for (std::size_t i = 0; i < told.size(); ++i)
            drives_[open[i].first] = std::move(told[i]);
        for (Kit& kit : kits) {
            if (result_.kits.size() == query_.most)
                return;
            const Driven& driven = drives_.at(driveOf(kit));
            Outcome outcome = driven.outcome;
            if (outcome) {
                for (const Gain gain : { Gain::Effort, Gain::HeatMargin, Gain::HotStop, Gain::Locks })
                    kit.gains[static_cast<std::size_t>(gain)] = of(driven.gains, gain);
                join(kit.doubts, driven.doubts);
                outcome = withinLimits(query_, kit.gains, ofDriving);
            }
            if (outcome)
                result_.kits.push_back(std::move(kit));
            else
                funnel_.lose(outcome, { kit.choice, kit.rear, 0, 1 });
        }
    }

    void tell(double part)
    {
        if (progress_)
            progress_(part, std::span(result_.kits).subspan(told_));
        told_ = result_.kits.size();
    }

    const Query& query_;
    const Progress& progress_;
    Trials fronts_;
    Trials rears_;
    Funnel funnel_;
    std::uint32_t masters_;
    std::vector<Shod> shod_;
    std::vector<double> masterPrices_;
    std::map<Drive, Driven> drives_;
    std::optional<std::pair<Outcome, Kit>> restBreaks_; ///< the first that breaks a limit on what they are ranked by
    std::size_t told_ = 0; ///< kits
    Result result_;
};

} // namespace

Result searchWholeCars(const Query& query, const Progress& progress) { return CarSearch(query, progress).run(); }

} // namespace deepstop::search
