#pragma once
/// Inside the chapter: how the bench's checks are begun, rated and entered.

#include "chapters/parts/checks.hpp"
#include "joints/thread.hpp"
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

inline constexpr std::string_view practice = "Common practice.";

/// The room one thing leaves for another, and what it means to have too little or too much of it.
struct Room {
    double least; ///< below: stop
    double most; ///< above: caution
    double hopeless = INFINITY; ///< certainly above: stop
    std::string_view tooSmall;
    std::string_view tooLarge;
};

class Bench {
public:
    Bench(Study& study, Axle axle) : study_(study), axle_(axle) { }

    Verdict begin(const Check& check, std::string title, const Style& style, std::string_view method, bool found = false) const
    {
        Verdict v = verdictOf(check, { .axle = axle_, .found = found });
        v.title = std::move(title);
        v.style = style;
        v.method = method;
        v.source = practice;
        return v;
    }

    /// Judges a clearance. Certain misfits stand even on estimates; everything else on estimates is unproven.
    void rate(Verdict& v, const Room& room) const
    {
        const Figure& f = v.figure;
        if (!f.value) {
            v.reason = lacking(study_, f, v.lacksInWords);
            return;
        }
        const auto say = [&](double length) { return print(std::abs(length), v.style, study_.system); };
        if (f.highest() < room.least) {
            v.level = Level::Stop;
            v.reason = fmt::format("{}: {} too small", room.tooSmall, say(room.least - *f.value));
        } else if (f.lowest() > room.hopeless) {
            v.level = Level::Stop;
            v.reason = fmt::format("{}: {} too large", room.tooLarge, say(*f.value - std::max(0.0, room.least)));
        } else if (judge::unproven(study_, v)) {
            return;
        } else if (f.lowest() < room.least) {
            v.level = Level::Caution;
            v.reason = fmt::format("{} at worst: {}", print(f.lowest(), v.style, study_.system), room.tooSmall);
        } else if (f.highest() > room.most) {
            v.level = Level::Caution;
            v.reason = fmt::format("{} at most: {}", print(f.highest(), v.style, study_.system), room.tooLarge);
        } else {
            v.level = Level::Good;
            v.reason = fmt::format(
                "{} clearance, {} at worst", print(*f.value, v.style, study_.system), print(f.lowest(), v.style, study_.system));
        }
    }

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
                                                          : fmt::format("{}: “{}” is no thread as M12x1.5", name, text));
            if (!a || !b)
                continue;
            if (!joints::fits(*a, *b)) {
                v.level = Level::Stop;
                v.reason += fmt::format(
                    "{}{} {} does not go with {} {}", v.reason.empty() ? "" : "; ", one, joints::nameOf(*a), other, joints::nameOf(*b));
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
        v.reason = good + " on both sides";
    }

    void add(Verdict v) const { study_.verdicts.push_back(std::move(v)); }
    [[nodiscard]] const Study& study() const { return study_; }
    [[nodiscard]] Axle axle() const { return axle_; }

private:
    Study& study_;
    Axle axle_;
};

/// What is left of rotor and linings of a setup.
void addWear(const Bench& bench, const SetupParts& setup, bool found);
/// Runout and thickness variation, where they were read.
void addRunout(const Bench& bench, const Corner& corner);

} // namespace deepstop
