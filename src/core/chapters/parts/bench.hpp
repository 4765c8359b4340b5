#pragma once
/// Inside the chapter: how the bench's checks are begun, rated and entered.

#include "chapters/parts/checks.hpp"
#include "joints/thread.hpp"
#include "language/language.hpp"
#include "quantity/text.hpp"
#include "study/study.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <array>
#include <cmath>
#include <span>
#include <string>

namespace deepstop {

inline constexpr double thinPad = 2e-3; ///< lining left that is the end of a pad whose maker says nothing
inline constexpr double wearReserve = 0.5e-3;

inline constexpr std::string_view practice = marked("Common practice.");

class Bench {
public:
    Bench(Study& study, Axle axle) : study_(study), axle_(axle) { }

    Verdict begin(const Check& check, std::string title, const Style& style, std::string_view method, bool found = false) const
    {
        Verdict v = verdictOf(check, { .axle = axle_, .found = found });
        v.title = std::move(title);
        v.style = style;
        v.method = method;
        v.source = tr(practice);
        return v;
    }

    void rate(Verdict& v, const judge::Allowance& allowed) const { judge::rate(study_, v, allowed); }

    /// Two threads that have to go together. Either may be unsaid.
    void judgeThreads(Verdict& v, std::span<const std::array<std::string, 4>> pairs) const
    {
        // Each pair: name of one, its thread, name of the other, its thread.
        std::string good;
        for (const auto& [one, its, other, others] : pairs) {
            const auto a = joints::parseThread(its);
            const auto b = joints::parseThread(others);
            for (const auto& [name, text, parsed] : { std::tuple { one, its, a }, std::tuple { other, others, b } })
                if (!parsed)
                    v.lacksInWords.push_back(text.empty() ? fmt::format("{} ({})", name, judge::wordFor(axle_))
                                                          : tr("{}: “{}” is no thread as M12x1.5", name, text));
            if (!a || !b)
                continue;
            if (!joints::fits(*a, *b)) {
                v.level = Level::Stop;
                v.reason +=
                    tr("{}{} {} does not go with {} {}", v.reason.empty() ? "" : "; ", one, joints::nameOf(*a), other, joints::nameOf(*b));
                v.reason[0] = toUpper(v.reason[0]);
            }
            good += (good.empty() ? "" : ", ") + joints::nameOf(*a);
        }
        if (v.level == Level::Stop)
            return;
        if (!v.lacksInWords.empty()) {
            v.reason = lacking(study_, {}, v.lacksInWords);
            return;
        }
        v.level = Level::Good;
        v.reason = tr("{} on both sides", good);
    }

    /// A verdict of faults seen or not: stop with all of them, unproven while `v.lacksInWords` names anything, else good.
    /// @param good why it is good; asked only where it is
    template <class Good>
    void addByFaults(Verdict v, const std::vector<std::string>& faults, Good good) const
    {
        if (!faults.empty()) {
            v.level = Level::Stop;
            v.reason = listed(faults, "; ");
            v.reason[0] = toUpper(v.reason[0]);
        } else if (!v.lacksInWords.empty()) {
            v.reason = lacking(study_, {}, v.lacksInWords);
        } else {
            v.level = Level::Good;
            v.reason = good();
        }
        add(std::move(v));
    }

    void add(Verdict v) const { study_.verdicts.push_back(std::move(v)); }
    [[nodiscard]] const Study& study() const { return study_; }
    [[nodiscard]] Axle axle() const { return axle_; }

private:
    Study& study_;
    Axle axle_;
};

/// The brake line from caliper to hard line.
/// @param sameAsFound hose and caliper are those of the car as found
void addHoseThreads(const Bench& bench, const Corner& corner, const Hub& hub, bool sameAsFound);
/// Clip and grommet of a hose that is new.
void addHoseHeld(const Bench& bench, const Corner& corner, bool sameAsFound);
/// A kit that takes the parking brake away has to put another in its place.
void addParkingBrake(const Bench& bench, const SetupParts& after, const SetupParts& before);
/// What is left of rotor and linings of a setup.
void addWear(const Bench& bench, const SetupParts& setup, bool found);
/// Runout and thickness variation, where they were read.
void addRunout(const Bench& bench, const Corner& corner);

} // namespace deepstop
