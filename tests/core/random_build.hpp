#pragma once
/// Random builds: a demo with random changes in every field.

#include "core/support.hpp"

#include "build/address.hpp"
#include "build/fields.hpp"
#include "report/log_session.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <memory>
#include <random>
#include <regex>
#include <string>
#include <vector>

/// Changes, removes and adds values anywhere in a document, within the range of each field. Ids and references stay.
class Thrower : public deepstop::Visitor {
public:
    explicit Thrower(unsigned seed) : rng_(seed) { }

    void reading(const deepstop::ReadingField& field, deepstop::Reading& r) override
    {
        const auto [least, most] = field.range;
        if (r.value && often(0.06))
            r.value.reset();
        else if (r.value && often(0.3))
            r.value = std::clamp(*r.value * std::exp(0.1 * normal()), least, most), r.repeats.clear();
        else if (often(r.value ? 0.02 : 0.06))
            r.value = std::clamp(least + (most - least) * std::pow(uniform(), 4), least, most), r.repeats.clear();
        if (!r.value)
            r.repeats.clear();
        if (often(0.05))
            r.known = static_cast<deepstop::Known>(pick(4));
        if (r.value && often(0.05))
            r.plusMinus = std::min(std::abs(*r.value), (most - least) / 2) * std::exp2(-1.0 - static_cast<double>(pick(12)));
        if (often(0.05))
            r.instrument = std::array { "vernier", "tape", "micrometer", "bathroom scale", "" }[pick(5)];
    }
    void readings(const deepstop::ReadingField& field, std::vector<deepstop::Reading>& list, std::size_t most) override
    {
        if (!list.empty() && often(0.05))
            list.pop_back();
        else if (list.size() < most && often(0.05))
            list.emplace_back().value = std::clamp(0.04, field.range.least, field.range.most);
        for (auto& each : list)
            if (const auto was = each.value; reading(field, each), !each.value)
                each.value = was;
    }
    void text(const deepstop::Name& name, std::string& value) override
    {
        if (name.key == "id" && value.empty())
            value = "new-" + std::to_string(++made_);
    }
    void count(const deepstop::CountField& field, int& value) override
    {
        if (often(0.06))
            value = static_cast<int>(pick(static_cast<std::size_t>(std::min(field.most, 60)) + 1));
    }
    void number(const deepstop::NumberField& field, double& value) override
    {
        if (often(0.06))
            value = field.range.least + field.range.width() * uniform() / 4;
    }
    void choice(const deepstop::Name&, deepstop::Choice& choice) override
    {
        if (often(0.06))
            choice.choose(choice.words[pick(choice.words.size())]);
    }
    void ticks(const deepstop::Name&, deepstop::Ticks& ticks) override
    {
        if (!often(0.1))
            return;
        std::vector<std::size_t> ticked;
        for (std::size_t i = 0; i < ticks.words.size(); ++i)
            if (often(0.3))
                ticked.push_back(i);
        ticks.tick(ticked);
    }
    void list(const deepstop::ListField& field, deepstop::List& list) override
    {
        if (list.size() > 0 && !list.hasIds() && often(0.1))
            list.erase(pick(list.size()));
        // Records belong to a setup, which a blank one does not name.
        const bool record = field.key == "mock_ups" || field.key == "tests" || field.key == "cards";
        if (!record && list.size() < field.most && often(0.06))
            list.append();
        for (std::size_t i = 0; i < list.size(); ++i)
            list.describe(*this, i);
    }

private:
    double uniform() { return std::uniform_real_distribution<double>(0, 1)(rng_); }
    double normal() { return std::normal_distribution<double>()(rng_); }
    bool often(double share) { return uniform() < share; }
    std::size_t pick(std::size_t of) { return std::uniform_int_distribution<std::size_t>(0, of - 1)(rng_); }

    std::mt19937 rng_;
    int made_ = 0;
};

/// The same for the same number, each made of one of the three demos.
inline deepstop::Build randomBuild(unsigned number)
{
    deepstop::Build build = demo(std::array { "halden-merle", "linnet", "drover-camper" }[number % 3]);
    // Sessions remember the setup they ran with.
    for (deepstop::TestSession& session : build.tests)
        if (const auto* setup = deepstop::findSetup(build, session.setup); setup && number % 2)
            session.ran = deepstop::report::frozen(build, *setup);
    Thrower thrower(number);
    describe(thrower, build);
    deepstop::giveIds(build);
    return build;
}

/// Somebody who edits: readings nudged, moved far, made coarse, taken away, given back; facts; elements of lists more and fewer; undo.
class Editor {
public:
    Editor(std::shared_ptr<const deepstop::Build> build, unsigned seed) : states_ { std::move(build) }, rng_(seed) { }

    std::shared_ptr<const deepstop::Build> next()
    {
        if (states_.size() > 1 && pick(10) == 0) {
            states_.pop_back();
            return states_.back();
        }
        const deepstop::Build& now = *states_.back();
        const deepstop::Directory directory(now);
        const auto& entry = directory.entries()[pick(directory.entries().size())];
        deepstop::Build changed = now;
        const std::size_t what = pick(24);
        if (what == 0)
            changed = deepstop::withoutElement(now, entry.address.pointer.substr(0, entry.address.pointer.rfind('/')));
        else if (what == 1 || what >= 20)
            changed = fact(now);
        else if (what == 19) {
            // One more of the same list, where it is in one.
            static const std::regex lastPlace("/[0-9]+(/[^/0-9]*)?$");
            deepstop::Reading r = *entry.reading;
            r.value = entry.address.range.least + entry.address.range.width() / 8;
            changed = deepstop::withReading(now, std::regex_replace(entry.address.pointer, lastPlace, "/-$1"), r);
        } else {
            deepstop::Reading r = *entry.reading;
            const double size = r.value ? *r.value : entry.address.range.least;
            std::normal_distribution<double> normal;
            if (what < 9)
                changeTo(r, size * (1 + 1e-3 * normal(rng_)));
            else if (what < 14)
                changeTo(r, size * (1 + 0.2 * normal(rng_)));
            else if (what < 16)
                r.value.reset();
            else if (what == 16)
                r.known = static_cast<deepstop::Known>(pick(3));
            else if (what == 17)
                r.plusMinus = pick(3) == 0 ? std::optional<double>() : std::abs(size) * std::exp2(-static_cast<double>(pick(12)));
            else
                r.instrument = std::array { "vernier", "tape", "micrometer", "bathroom scale", "" }[pick(5)];
            changed = deepstop::withReading(now, entry.address.pointer, r);
        }
        deepstop::giveIds(changed);
        states_.push_back(std::make_shared<const deepstop::Build>(std::move(changed)));
        return states_.back();
    }
    std::size_t pick(std::size_t of) { return std::uniform_int_distribution<std::size_t>(0, of - 1)(rng_); }

private:
    deepstop::Build fact(const deepstop::Build& now)
    {
        static constexpr std::array plain { "/car/name", "/setups/1/name", "/setups/1/front/wheel" };
        const deepstop::Directory directory(now);
        const auto at = pick(directory.facts().size() + plain.size());
        const std::string pointer = at < plain.size() ? plain[at] : directory.facts()[at - plain.size()].pointer;
        const auto is = deepstop::factAt(now, pointer);
        if (!is)
            return now;
        const std::string word = !is->words.empty() ? is->words[pick(is->words.size())]
            : is->kind == deepstop::StatedFact::Kind::Count         ? std::to_string(pick(60))
            : pointer.ends_with("wheel") && !now.wheels.empty()      ? now.wheels[pick(now.wheels.size())].id
                                                                    : "M12x1.5";
        return deepstop::withFact(now, pointer, word).build.value_or(now);
    }

    std::vector<std::shared_ptr<const deepstop::Build>> states_;
    std::mt19937 rng_;
};
