#pragma once
/// Inside jobcard/: puts the steps of a card together, phase by phase. What is taken off and tried stands in `steps_off.cpp`, what is put on
/// in `steps_on.cpp`, what comes before the car moves and after in `steps_after.cpp`.

#include "jobcard/jobcard.hpp"

#include "verdict/check.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <string>
#include <vector>

namespace deepstop::jobcard {

inline constexpr const char* practice = "common practice";

/// What a step may have beside its text.
struct More {
    std::string caution {};
    std::string tools {};
    std::vector<std::string> readings {};
    double minutes = 2;
};

/// Puts the steps together, phase by phase.
class Writer {
public:
    explicit Writer(const Study& study)
        : study_(study), build_(*study.build), record_(choicesOf(build_, study.after.setup->id)), axles_(judge::axlesOf(study))
    {
    }

    std::vector<Step> write()
    {
        prepare();
        tag();
        recordOld();
        strip();
        mockUp();
        irreversible();
        assemble();
        hoses();
        hydraulics();
        bleed();
        wheels();
        beforeMoving();
        bedIn();
        reCheck();
        return std::move(steps_);
    }

private:
    Step& add(Phase phase, const std::string& id, const std::string& corner, std::string text, std::string because, More more = {})
    {
        Step s;
        s.id = id;
        s.phase = phase;
        s.corner = corner;
        s.text = std::move(text);
        // A check that nobody makes of these parts causes nothing: it is then the trade's habit.
        const bool stands = because.starts_with("/") || study_.verdict(because);
        s.because = stands ? std::move(because) : std::string(practice);
        s.caution = std::move(more.caution);
        s.tools = std::move(more.tools);
        s.readings = std::move(more.readings);
        s.minutes = more.minutes;
        return steps_.emplace_back(std::move(s));
    }

    /// What is done on both sides of each axle that changes.
    template <class F>
    void eachCorner(F f)
    {
        for (const Axle axle : axles_)
            for (const Side side : { Side::Left, Side::Right })
                f(axle, side, judge::wordFor(axle) + "/" + nameOf(side), judge::wordFor(axle) + " " + nameOf(side));
    }
    static std::string nameOf(Side side) { return side == Side::Left ? "left" : "right"; }
    [[nodiscard]] const Corner& now(Axle axle) const { return *study_.after.at(axle).corner; }
    [[nodiscard]] const Corner* was(Axle axle) const { return study_.before.at(axle).corner; }
    [[nodiscard]] const Hub& hub(Axle axle) const { return hubOf(build_, axle); }
    [[nodiscard]] std::string pointerOf(const SetupParts& setup, Axle axle) const
    {
        const bool own = (axle == Axle::Front ? setup.setup->front : setup.setup->rear).has_value();
        const auto index = own ? setup.setup - build_.setups.data() : 0;
        return fmt::format("/setups/{}/{}", index, judge::wordFor(axle));
    }
    [[nodiscard]] std::string field(const SetupParts& setup, Axle axle, Side side, const char* key) const
    {
        return fmt::format("{}/{}/{}", pointerOf(setup, axle), nameOf(side), key);
    }
    [[nodiscard]] std::string hubPointer(Axle axle, const char* key) const { return fmt::format("/{}_hub/{}", judge::wordFor(axle), key); }
    [[nodiscard]] std::string length(const Reading& reading, const Style& style) const
    {
        return reading.value ? print(*reading.value, style, study_.system) : std::string("not read");
    }
    /// Where one of the card's own choices stands; nobody has chosen while there is no card.
    [[nodiscard]] std::string choice(const char* key) const
    {
        const auto card = std::ranges::find(build_.cards, study_.after.setup->id, &JobCard::setup);
        return card == build_.cards.end() ? std::string(practice) : fmt::format("/cards/{}/{}", card - build_.cards.begin(), key);
    }
    /// A check's sentence, where it is anything but fine.
    [[nodiscard]] std::string says(const Check& check, const Where& where) const
    {
        const Verdict* v = study_.verdict(check, where);
        return v && !isFine(v->level) ? ". " + v->reason : std::string();
    }

    void prepare();
    [[nodiscard]] bool axleIn(Axle axle) const { return std::ranges::find(axles_, axle) != axles_.end(); }
    void tag();
    void recordOld();
    void strip();
    void mockUp();
    void irreversible();
    /// Why these bolts are not to be done up at all, however hard: empty where nothing says so.
    [[nodiscard]] std::string doubtOf(Axle axle, std::size_t index) const;
    void joint(Axle axle, std::size_t index, const std::string& id, const std::string& corner);
    void assemble();
    void hoses();
    /// Another master, valve or booster is work of its own, and before the lines are bled.
    void hydraulics();
    void bleed();
    void wheels();
    void beforeMoving();
    void bedIn();
    void reCheck();

    const Study& study_;
    const Build& build_;
    const JobCard& record_;
    std::vector<Axle> axles_;
    std::vector<Step> steps_;
};

} // namespace deepstop::jobcard
