#pragma once
/// Random builds: a demo with random changes in every field.

#include "core/support.hpp"

#include "build/fields.hpp"
#include "report/log_session.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <random>

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
            r.known = static_cast<deepstop::Known>(pick(3));
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
    return build;
}
