#pragma once
/// Kits of one axle that fit: judged by all checks that look at that axle's parts alone.

#include "search/funnel.hpp"

#include <memory>
#include <mutex>

namespace deepstop::search {

/// Trials for as many threads as ask at once.
class Trials {
public:
    Trials(const Query& query, Axle axle) : query_(query), axle_(axle) { }

    [[nodiscard]] Axle axle() const { return axle_; }

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
            trial = std::make_unique<Trial>(query_, axle_);
        auto result = with(*trial);
        const std::lock_guard lock(mutex_);
        idle_.push_back(std::move(trial));
        return result;
    }

private:
    const Query& query_;
    Axle axle_;
    std::mutex mutex_;
    std::vector<std::unique_ptr<Trial>> idle_;
};

/// A step of a trial.
using Step = Outcome (Trial::*)();

inline void join(std::vector<Doubt>& doubts, const std::vector<Doubt>& more) { doubts.insert(doubts.end(), more.begin(), more.end()); }

/// What looks at few parts is asked first, and once for all kits that share them.
class AxleKits {
public:
    /// A wheel to try, and in how many kits each rotor, caliper and pad stands with it.
    struct InWheel {
        std::uint32_t wheel = 0;
        std::uint64_t kits = 0;
    };
    AxleKits(const Query& query, Trials& trials, Funnel& funnel, std::vector<InWheel> wheels);

    /// Rotors that go on the hub.
    [[nodiscard]] const std::vector<std::uint32_t>& rotors() const { return goodRotors_; }
    /// Takes kits that fit, without a master cylinder, and the part of their rotor's that is done; of their gains the wheel gap is known.
    using Taken = std::function<void(std::vector<Kit> kits, double part)>;
    /// Those that fit with that rotor, by their parts, some at a time.
    void with(std::uint32_t rotor, const Taken& taken);

private:
    /// Rotor, caliper and pad that go together so far, with what is still in doubt.
    struct Brake {
        std::uint32_t caliper = 0;
        std::uint32_t pad = 0;
        std::vector<Doubt> doubts;
        double clearance = 0; ///< in the wheel that was asked last
    };
    [[nodiscard]] std::uint32_t count(Kind kind) const { return static_cast<std::uint32_t>(query_.parts.count(kind)); }
    [[nodiscard]] bool slides(std::uint32_t caliper) const { return query_.parts.calipers[caliper].part.kind != CaliperKind::Fixed; }
    /// One step of every kit in a list.
    [[nodiscard]] std::vector<Outcome> asked(const std::vector<Choice>& kits, Step step);
    void hub();
    void calipersAlone();
    /// Pads that go into a caliper, each with its place among `inOpening_`.
    struct PadIn {
        std::uint32_t pad = 0;
        std::uint32_t outcome = 0;
    };
    [[nodiscard]] const std::vector<PadIn>& padsIn(std::uint32_t caliper);
    void markOpenings();
    [[nodiscard]] std::vector<Outcome> onRing(std::uint32_t rotor);
    [[nodiscard]] std::vector<Brake> brakesOf(std::uint32_t rotor, std::uint32_t caliper, const std::vector<Outcome>& onRing);
    template <class ChoiceOf, class LoseOne>
    void byCaliper(std::vector<Brake>& brakes, Step step, ChoiceOf choiceOf, LoseOne loseOne);
    void roundTheRotor(std::uint32_t rotor, std::vector<Brake>& brakes);
    void travelling(std::uint32_t rotor, std::vector<Brake>& brakes);
    void inWheel(
        std::uint32_t rotor, std::vector<Brake> brakes, const InWheel& in, const std::vector<Doubt>& doubts, std::vector<Kit>& kits);
    void lose(const Outcome& outcome, const Choice& choice, std::uint64_t kits);

    const Query& query_;
    Trials& trials_;
    Funnel& funnel_;
    std::vector<InWheel> wheels_;
    std::uint64_t inAllWheels_ = 0; ///< kits of one rotor, caliper and pad
    std::vector<std::uint32_t> goodRotors_;
    std::vector<std::uint32_t> goodCalipers_;
    std::map<std::uint32_t, std::vector<Doubt>> onHub_;
    std::map<std::uint32_t, std::vector<Doubt>> alone_;
    // Calipers whose openings are read alike take the same pads, and pads that are read alike go into the same.
    std::vector<std::uint32_t> openingOf_; ///< the first caliper with such an opening, of each caliper
    std::vector<std::uint32_t> lengthOf_; ///< the first pad of such a length, of each pad
    std::map<std::pair<std::uint32_t, std::uint32_t>, std::uint32_t> asked_; ///< of opening and length, the place among `inOpening_`
    std::vector<Outcome> inOpening_;
    std::map<std::uint32_t, std::vector<PadIn>> padsIn_; ///< by caliper
};

} // namespace deepstop::search
