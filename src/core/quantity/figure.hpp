#pragma once
/// A result worked out from readings: its value, how far off it may be, and which readings it rests on or lacks.

#include "quantity/reading.hpp"

#include <algorithm>
#include <any>
#include <array>
#include <cmath>
#include <cstdint>
#include <functional>
#include <limits>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <type_traits>
#include <vector>

namespace deepstop {

/// One result. `value` is absent exactly when something is lacking or the sum itself refuses its numbers.
struct Figure {
    std::optional<double> value; ///< SI
    double worstCase = 0; ///< sum of the effects of every reading at its limit
    double rootSumSquare = 0; ///< the same effects added as independent errors
    std::vector<ReadingId> restsOn; ///< every reading asked for, in the order of asking
    std::vector<double> effects; ///< of each of them at its limit on the result; empty where there is no value
    std::vector<ReadingId> lacks; ///< those of them without a value
    std::vector<ReadingId> estimated; ///< those of them that are only estimated
    std::vector<std::string> assumed; ///< stand-ins in words, for example a wheel profile taken from its printed size
    std::vector<std::uint32_t> facts; ///< what was chosen, counted or named that the sum looked at, by number

    [[nodiscard]] bool provisional() const { return !estimated.empty() || !assumed.empty(); }
    [[nodiscard]] double lowest() const { return value ? *value - worstCase : std::numeric_limits<double>::quiet_NaN(); }
    [[nodiscard]] double highest() const { return value ? *value + worstCase : std::numeric_limits<double>::quiet_NaN(); }
};

/// Adds to a figure what another rests on, lacks, estimates, assumes and looked at, each once. Values and effects stay as they are.
void mergeDependencies(Figure& figure, const Figure& also);

struct Evaluation;

/// Which part of a sum: what it is called, and of what.
struct PartKey {
    const char* name; ///< one literal, told by its address
    std::array<const void*, 8> of {};
    bool operator==(const PartKey&) const = default;
};

/// Hands out the values of readings to a sum and notes what was asked for.
///
/// A sum is written as plain physics, `[&](Sample& s) { return s(rotor.thickness) / 2; }`; a missing reading enters it as NaN, and the
/// figure then lacks that reading and has no value. `evaluate` runs the sum again with each reading at its limits, save those the sum has
/// called idle.
class Evaluator {
public:
    /// The value of a length (or whatever `isLength` says), NaN where not read.
    double operator()(const Reading& reading, bool isLength = true)
    {
        note(reading, isLength);
        return reading.value ? *reading.value + shiftOf(reading) : std::numeric_limits<double>::quiet_NaN();
    }
    /// The value of something whose maker's word is only good to `share` of it, whatever precision he prints.
    double loose(const Reading& reading, double share)
    {
        note(reading, false, reading.known == Known::Vendor ? share * std::abs(reading.value.value_or(0)) : 0);
        return reading.value ? *reading.value + shiftOf(reading) : std::numeric_limits<double>::quiet_NaN();
    }
    /// The value of something that is so or not, whatever was measured with: a sum rests on it, but never moves it.
    double certain(const Reading& reading)
    {
        note(reading, true);
        idle(reading);
        return reading.value.value_or(std::numeric_limits<double>::quiet_NaN());
    }
    /// The value, or nothing lacking and `otherwise` where absence has a plain meaning: no spacer is a spacer of 0.
    double orElse(const Reading& reading, double otherwise, bool isLength = true)
    {
        return reading.value ? (*this)(reading, isLength) : otherwise;
    }
    /// The sum runs at the readings' own values, none of those asked for so far missing: the time to say which are idle.
    [[nodiscard]] bool atNominal() const
    {
        return recording_ && std::ranges::all_of(asked_, [](const Asked& a) { return a.reading->value.has_value(); });
    }
    /// Says that the result is the same to the last bit wherever within its limits `reading` lies, so that it need not be tried there.
    void idle(const Reading& reading)
    {
        const auto found = std::ranges::find(asked_, &reading, &Asked::reading);
        if (recording_ && found != asked_.end())
            found->idle = true;
    }
    /// What `make` gives at the first run of the sum, kept for the others: for what hangs on the readings' own values alone.
    /// @param key tells what is kept apart from what else the sum keeps
    template <class T, class Make>
    const T& once(const void* key, Make make)
    {
        auto& place = kept_[key];
        if (!place)
            place = std::make_shared<T>(make());
        return *static_cast<const T*>(place.get());
    }
    /// What `make` gives, made again only while a reading is shifted that it asks for: for what a sum is put together of.
    /// @param key tells it apart from everything else of this sum: it gives the same wherever the same readings are asked of it
    template <class Make>
    auto part(const PartKey& key, Make make) -> std::invoke_result_t<Make>
    {
        using Result = std::invoke_result_t<Make>;
        if (const auto known = std::ranges::find(parts_, key, &Part::key); known != parts_.end()) {
            if (recording_)
                collect(known->asked);
            if (!shifted_ || !std::ranges::binary_search(known->asked, shifted_))
                return std::any_cast<const Result&>(known->result);
            return make();
        }
        if (!recording_)
            return make();
        collecting_.emplace_back();
        Result result = make();
        std::vector<const Reading*> asked = std::move(collecting_.back());
        collecting_.pop_back();
        collect(asked);
        std::ranges::sort(asked);
        parts_.push_back({ key, result, std::move(asked) });
        return result;
    }
    /// Says in words that a stand-in was used.
    void assume(std::string what)
    {
        if (std::ranges::find(assumed_, what) == assumed_.end())
            assumed_.push_back(std::move(what));
    }

private:
    friend Evaluation evaluateAtLimits(const std::function<double(Evaluator&)>&);
    friend Figure asRead(const std::function<double(Evaluator&)>&);
    [[nodiscard]] Figure figureOf(double nominal) const;

    struct Asked {
        const Reading* reading;
        bool isLength;
        double leastWidth;
        bool idle = false;
    };
    void note(const Reading& reading, bool isLength, double leastWidth = 0)
    {
        if (!recording_)
            return;
        if (!collecting_.empty())
            collecting_.back().push_back(&reading);
        if (std::ranges::none_of(asked_, [&](const Asked& a) { return a.reading == &reading; }))
            asked_.push_back({ &reading, isLength, leastWidth });
    }
    double shiftOf(const Reading& reading) const { return &reading == shifted_ ? shift_ : 0; }
    void collect(const std::vector<const Reading*>& asked)
    {
        if (!collecting_.empty())
            collecting_.back().insert(collecting_.back().end(), asked.begin(), asked.end());
    }

    struct Part {
        PartKey key;
        std::any result;
        std::vector<const Reading*> asked; ///< sorted
    };
    std::vector<Asked> asked_;
    std::vector<std::string> assumed_;
    std::map<const void*, std::shared_ptr<void>> kept_;
    std::vector<Part> parts_;
    std::vector<std::vector<const Reading*>> collecting_; ///< what the parts under way have asked for, the innermost last
    bool recording_ = true;
    const Reading* shifted_ = nullptr;
    double shift_ = 0;
};

/// The sum at the readings' values alone, NaN where one is missing; for searches that need no uncertainty.
[[nodiscard]] inline double nominal(const std::function<double(Evaluator&)>& sum)
{
    Evaluator sample;
    const double value = sum(sample);
    return sample.atNominal() ? value : std::numeric_limits<double>::quiet_NaN();
}

/// The sum at the readings' values with what it rests on, lacks and assumes, and no interval: for those who find the interval another way.
[[nodiscard]] Figure asRead(const std::function<double(Evaluator&)>& sum);

/// Evaluates `sum` at the readings' values and, one reading at a time, at both of its limits.
/// @return a figure without value when a reading is missing or the sum is not finite. Where it is finite but not at some limit, its
///         interval is infinite and it counts as an assumption
[[nodiscard]] Figure evaluate(const std::function<double(Evaluator&)>& sum);

/// A figure with the results that its interval was made of.
struct Evaluation {
    Figure figure;
    std::vector<std::pair<double, double>> atLimits; ///< of each reading it rests on; the value itself where the reading is certain
};
[[nodiscard]] Evaluation evaluateAtLimits(const std::function<double(Evaluator&)>& sum);
/// The first less the second, worked out as one sum: what a reading does to both cancels.
[[nodiscard]] Figure difference(const Evaluation& of, const Evaluation& less);

} // namespace deepstop
