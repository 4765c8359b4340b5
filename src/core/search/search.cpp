#include "search/search.hpp"

#include "language/language.hpp"
#include "search/axle_kits.hpp"
#include "search/whole_car.hpp"
#include "task/parallel.hpp"

#include <algorithm>
#include <chrono>
#include <iterator>
#include <map>
#include <mutex>
#include <random>
#include <set>

namespace deepstop::search {
namespace {

/// A search of one axle under way.
class Searching {
public:
    Searching(const Query& query, const Progress& progress) : query_(query), progress_(progress), trials_(query, query.axle)
    {
        const auto bore = [&](std::uint32_t m) {
            const auto& master = query.parts.masters[m];
            return (master.id.empty() ? query.study->after.hydraulics->masterBore : master.part.bore).value.value_or(0);
        };
        for (std::uint32_t m = 0; m < masters(); ++m)
            widestFirst_.push_back(m);
        std::ranges::stable_sort(widestFirst_, std::greater<> {}, bore);
    }

    Result run()
    {
        result_.combinations = query_.parts.combinations();
        probe();
        std::vector<AxleKits::InWheel> wheels;
        for (std::uint32_t w = 0; w < query_.parts.count(Kind::Wheel); ++w)
            wheels.push_back({ w, masters() });
        AxleKits fitting(query_, trials_, funnel_, std::move(wheels));
        for (std::size_t i = 0; i < fitting.rotors().size(); ++i) {
            const double all = static_cast<double>(fitting.rotors().size());
            double before = 0;
            fitting.with(fitting.rotors()[i], [&](std::vector<Kit> kits, double part) {
                judgeWhole(std::move(kits), (static_cast<double>(i) + before) / all, (part - before) / all);
                before = part;
            });
        }
        result_.front = frontOf(result_.kits);
        result_.funnel = funnel_.told(query_, result_.combinations);
        return std::move(result_);
    }

private:
    [[nodiscard]] std::uint32_t masters() const { return static_cast<std::uint32_t>(query_.parts.count(Kind::Master)); }

    /// A few kits picked by chance, so that the first of a large library are seen at once.
    void probe()
    {
        constexpr std::uint64_t large = 100'000;
        constexpr std::size_t tries = 512;
        if (!progress_ || query_.parts.combinations() < large)
            return;
        std::vector<Choice> chosen(tries);
        std::mt19937 chance(1);
        for (Choice& choice : chosen)
            for (const Kind kind : kinds)
                at(choice, kind) = static_cast<std::uint32_t>(chance() % query_.parts.count(kind));
        std::mutex findings;
        parallelFor(tries, 0, [&](std::size_t i) {
            Kit kit;
            kit.choice = chosen[i];
            if (!trials_.use([&](Trial& trial) { return goes(trial, kit); }))
                return;
            const std::lock_guard lock(findings);
            if (probed_.insert(kit.choice).second)
                progress_(0, std::span(&kit, 1));
        });
    }

    /// All steps of one kit.
    bool goes(Trial& trial, Kit& kit) const
    {
        trial.put(kit.choice);
        for (const Step step :
            { &Trial::hub, &Trial::parking, &Trial::pads, &Trial::edge, &Trial::room, &Trial::travel, &Trial::wheel, &Trial::seat }) {
            const Outcome outcome = (trial.*step)();
            if (!outcome)
                return false;
            join(kit.doubts, outcome.doubts);
            if (step == &Trial::wheel)
                kit.gains[static_cast<std::size_t>(Gain::Clearance)] = outcome.clearance;
        }
        Driven driven;
        const Outcome alone = withoutMaster(trial, kit, driven);
        join(kit.doubts, alone.doubts);
        return alone && static_cast<bool>(wholeOf(trial, kit, driven));
    }

    void tell(double part)
    {
        if (progress_) {
            std::vector<Kit> fresh;
            std::ranges::copy_if(std::span(result_.kits).subspan(told_), std::back_inserter(fresh),
                [&](const Kit& kit) { return !probed_.contains(kit.choice); });
            progress_(part, fresh);
        }
        told_ = result_.kits.size();
        toldAt_ = std::chrono::steady_clock::now();
    }

    /// Balance, heat and limits of kits without a master cylinder yet, with each of them. Kits of one rotor, caliper and pad are judged one
    /// after another: what they share is worked out once.
    /// @param done part of the search before it
    /// @param share of the search that it is
    void judgeWhole(std::vector<Kit> kits, double done, double share)
    {
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
                    funnel_.lose(each.outcome, { each.kit.choice, {}, 0, at(each.kit.choice, Kind::Master) == every ? masters() : 1 });
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
        std::optional<double> locksApart;
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
                driven = tyres.insert(tyres.end(), Driven { wheel.rollingRadius, wheel.grip, {}, {}, {} });
            judgeWithMasters(trial, kit, *driven, own);
        }
        return own;
    }

    /// Weight, gap and which axle locks first, of the kit that is on: whatever master cylinder there is.
    Outcome withoutMaster(Trial& trial, Kit& kit, Driven& driven) const
    {
        trial.addWeight(kit.gains);
        if (Outcome outcome = withinLimits(query_, kit.gains, { Gain::Weight, Gain::Clearance }); !outcome)
            return outcome;
        if (!driven.locksApart)
            driven.locksApart = trial.locksApart();
        kit.gains[static_cast<std::size_t>(Gain::Locks)] = *driven.locksApart;
        if (Outcome outcome = withinLimits(query_, kit.gains, { Gain::Locks }); !outcome)
            return outcome;
        if (!driven.locks)
            driven.locks = trial.locks();
        return *driven.locks;
    }

    void judgeWithMasters(Trial& trial, const Kit& kit, Driven& driven, std::vector<Judged>& own) const
    {
        Kit one = kit;
        at(one.choice, Kind::Master) = 0;
        trial.put(one.choice);
        Outcome alone = withoutMaster(trial, one, driven);
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
        if (Outcome outcome = withinLimits(query_, kit.gains, { Gain::Price }); !outcome)
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
        for (const Gain gain : ofDriving)
            kit.gains[static_cast<std::size_t>(gain)] = search::of(whole.gains, gain);
        return withinLimits(query_, kit.gains, ofDriving);
    }

    const Query& query_;
    const Progress& progress_;
    Trials trials_;
    Funnel funnel_;
    std::vector<std::uint32_t> widestFirst_; ///< master cylinders
    std::set<Choice> probed_; ///< kits that were told before their turn
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
    result = query.wholeCar ? searchWholeCars(query, progress) : Searching(query, progress).run();
    result.seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
    return result;
}

Choice rearBeside(const Query& query, const Choice& front)
{
    Choice rear = front;
    const SetupParts& now = query.study->after;
    if (now.front.wheel && now.rear.wheel && now.front.wheel->id != now.rear.wheel->id)
        if (const auto wheel = query.parts.find(Kind::Wheel, now.rear.wheel->id))
            at(rear, Kind::Wheel) = static_cast<std::uint32_t>(*wheel);
    return rear;
}

Build triedBuild(const Query& query, const Choice& choice, const std::optional<Choice>& rear, std::string* setup)
{
    Trial trial(query, query.axle);
    trial.put(choice);
    if (rear) {
        Trial behind(query, Axle::Rear);
        behind.put(*rear);
        trial.putOther(behind);
    }
    if (setup)
        *setup = Trial::setupId;
    return trial.kitInBuild();
}

} // namespace deepstop::search
