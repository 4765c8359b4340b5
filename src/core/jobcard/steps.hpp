#pragma once
/// Inside jobcard/: puts the steps of a card together, phase by phase. What is taken off and tried stands in `steps_off.cpp`, what is put
/// on in `steps_on.cpp`, what comes before the car moves and after in `steps_after.cpp`.

#include "jobcard/jobcard.hpp"

#include "build/words.hpp"
#include "build/axle_work.hpp"
#include "language/language.hpp"
#include "verdict/check.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <string>
#include <vector>

namespace deepstop::jobcard {

inline constexpr const char* practice = marked("common practice");

/// What a step may have beside its text.
struct More {
    std::string caution {};
    std::string tools {};
    std::vector<std::string> readings {};
    double minutes = 2;
    bool kept = false; ///< about a part that stays as it is: no work
    bool extra = false; ///< a good habit that so small a job can do without
};

/// Puts the steps together, phase by phase.
class Writer {
public:
    explicit Writer(const Study& study)
        : study_(study), build_(*study.build), record_(choicesOf(build_, study.after.setup->id)), axles_(judge::axlesOf(study))
    {
        for (const Axle axle : axles_)
            work_[axle == Axle::Front ? 0 : 1] = workBetween(was(axle), now(axle));
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
        s.optional = more.kept || more.extra;
        s.doneBefore = more.kept && driven_;
        return steps_.emplace_back(std::move(s));
    }

    /// What is done on both sides of each axle that changes; of a small job on both sides at once.
    template <class F>
    void eachCorner(F f)
    {
        for (const Axle axle : axles_)
            if (work(axle).small())
                f(axle, Side::Left, tokenOf(axle), tr("{}, both sides", judge::wordFor(axle)));
            else
                for (const Side side : { Side::Left, Side::Right })
                    f(axle, side, fmt::format("{}/{}", wordOf(axle), wordOf(side)), judge::wordFor(axle) + " " + judge::wordFor(side));
    }
    [[nodiscard]] const AxleWork& work(Axle axle) const { return work_[axle == Axle::Front ? 0 : 1]; }
    /// Nothing but pads and hoses on any axle, and the hydraulics stay.
    [[nodiscard]] bool smallJob() const
    {
        return std::ranges::all_of(axles_, [&](Axle axle) { return work(axle).small(); }) && !otherHydraulics();
    }
    [[nodiscard]] bool otherHydraulics() const;
    /// Another rotor, or one that comes off because of what goes behind it.
    [[nodiscard]] bool rotorOff(Axle axle) const { return work(axle).rotor || work(axle).place || work(axle).cuts; }
    [[nodiscard]] bool opensLine() const
    {
        return std::ranges::any_of(axles_, [&](Axle axle) { return work(axle).opensLine(); }) || otherHydraulics();
    }
    /// As it stands in ids and files.
    static std::string tokenOf(Axle axle) { return std::string(wordOf(axle)); }
    [[nodiscard]] const Corner& now(Axle axle) const { return *study_.after.at(axle).corner; }
    [[nodiscard]] const Corner* was(Axle axle) const { return study_.before.at(axle).corner; }
    [[nodiscard]] const Hub& hub(Axle axle) const { return hubOf(build_, axle); }
    [[nodiscard]] std::string pointerOf(const SetupParts& setup, Axle axle) const
    {
        const bool own = (axle == Axle::Front ? setup.setup->front : setup.setup->rear).has_value();
        const auto index = own ? setup.setup - build_.setups.data() : 0;
        return fmt::format("/setups/{}/{}", index, wordOf(axle));
    }
    [[nodiscard]] std::string field(const SetupParts& setup, Axle axle, Side side, const char* key) const
    {
        return fmt::format("{}/{}/{}", pointerOf(setup, axle), wordOf(side), key);
    }
    [[nodiscard]] std::string hubPointer(Axle axle, const char* key) const { return fmt::format("/{}_hub/{}", wordOf(axle), key); }
    [[nodiscard]] std::string length(const Reading& reading, const Style& style) const
    {
        return reading.value ? print(*reading.value, style, study_.system) : std::string(tr("not read"));
    }
    /// A stack of shims: one of nothing is none.
    [[nodiscard]] std::string stack(const Reading& reading) const
    {
        return reading.value && !(*reading.value > 0) ? std::string(tr("none")) : length(reading, style::fine);
    }
    /// Where one of the card's own choices stands; not chosen while there is no card.
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
    /// A shield that keeps the kit from going on is cut in two goes: roughly before the mock-up, to its line after it.
    void firstCut(Axle axle, const std::string& id, const std::string& corner);
    void irreversible();
    // Of parts that kits bring beside rotor, caliper, pads and hose; in `steps_fittings.cpp`.
    void parkingOff(Axle axle, const std::string& id, const std::string& corner);
    void parkingOn(Axle axle, const std::string& id, const std::string& corner);
    void parkingAdjusted(Axle axle);
    void adapterRing(Axle axle, const std::string& id, const std::string& corner);
    void shield(Axle axle, const std::string& id, const std::string& corner);
    void weldsDrilled(Axle axle, const std::string& id, const std::string& corner);
    void spacer(Axle axle, const std::string& id, const std::string& corner);
    void wearSensor(Axle axle, Side side, const std::string& id, const std::string& corner);
    void hoseLed(Axle axle, const std::string& id, const std::string& corner);
    /// Nut and washers of a joint, as a step says them; empty where nothing was said.
    [[nodiscard]] static std::string nutWords(const Joint& joint);
    /// The brake line's parts in their order; empty while they are not described.
    [[nodiscard]] std::string lineWords(Axle axle) const;
    /// Why these bolts are not to be done up at all, however hard: empty where nothing says so.
    [[nodiscard]] std::string doubtOf(Axle axle, std::size_t index) const;
    void joint(Axle axle, std::size_t index, const std::string& id, const std::string& corner);
    void assemble();
    void rotorOn(Axle axle, const std::string& id, const std::string& corner);
    void shims(Axle axle, Side side, const std::string& id, const std::string& corner);
    void hoses();
    /// The step before which the car still drives without bleeding.
    void openLine(Axle axle, const std::string& id, const std::string& corner);
    void propOut();
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
    AxleWork work_[2];
    bool driven_ = drivenAsFound(build_); ///< what stays has been proven on the road
    std::vector<Step> steps_;
};

} // namespace deepstop::jobcard
