#include "quantity/text.hpp"
#include "study/figures.hpp"
#include "study/judge.hpp"
#include "study/parts.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace deepstop::parts {
namespace {

using Sum = std::function<double(Sample&)>;

/// Before, after, and the difference as one sum, in which what both rest on cancels.
LedgerLine line(
    std::string id, std::string title, Stage stage, const Style& style, const Figure& before, const Figure& after, const Sum& difference)
{
    LedgerLine l { std::move(id), std::move(title), stage, style, before, after, {}, {}, Level::Unproven, {} };
    if (l.before.value && l.after.value)
        l.change = evaluate(difference);
    return l;
}

std::string changeWord(const Study& study, const LedgerLine& l)
{
    return l.change.value ? printChange(*l.change.value, l.style, study.system) : std::string(nameOf(Level::Unproven));
}

} // namespace

std::vector<LedgerLine> ledgerOf(const Study& study)
{
    const SetupResult& a = study.before;
    const SetupResult& b = study.after;
    const Axle axle = axlesOf(study).front();
    const CornerResult& before = a.at(axle);
    const CornerResult& after = b.at(axle);
    const Build& build = *study.build;
    std::vector<LedgerLine> lines;
    if (!before.corner || !after.corner)
        return lines;

    const auto worstOf = [&](std::string_view part) { return study.verdict(wordFor(axle) + "/" + std::string(part)); };

    std::vector<std::string> lacks;
    auto weight = line("corner-weight", "Corner weight", Stage::PartsBench, style::partMass, before.cornerMass, after.cornerMass,
        [&](Sample& s) { return figures::cornerMass(s, *after.corner, lacks) - figures::cornerMass(s, *before.corner, lacks); });
    if (const Verdict* v = worstOf("weight")) {
        weight.level = v->level;
        weight.lacksInWords = v->lacksInWords;
    }
    weight.word = changeWord(study, weight);
    lines.push_back(std::move(weight));

    auto store = line("heat-store", "Heat store", Stage::Heat, style::heatStore, before.heatStore, after.heatStore,
        [&](Sample& s) { return figures::heatStore(s, after.corner->rotor) - figures::heatStore(s, before.corner->rotor); });
    store.word = nameOf(Level::Unproven);
    if (store.before.value && store.after.value) {
        store.word = fmt::format("{} %", figure(*store.after.value / *store.before.value - 1, style::share, UnitSystem::Metric));
        if (!store.word.starts_with("\u2212"))
            store.word = "+" + store.word;
        // What rests on an estimate proves nothing.
        store.level = store.before.provisional() || store.after.provisional() ? Level::Unproven
            : *store.after.value >= 0.98 * *store.before.value                ? Level::Good
                                                                              : Level::Caution;
    }
    lines.push_back(std::move(store));

    LedgerLine gap { "wheel-gap", "Smallest wheel gap", Stage::WheelRoom, style::gap, before.smallestGap, after.smallestGap, {}, {},
        Level::Unproven, {} };
    if (after.wheel) {
        const Verdict* barrel = worstOf("barrel-gap");
        const Verdict* spokes = worstOf("spoke-gap");
        for (const Verdict* v : { barrel, spokes })
            if (v && (v->level > gap.level || gap.word.empty())) {
                gap.level = v->level;
                gap.word = nameOf(v->level);
            }
        if (barrel && spokes && barrel->level == Level::Clear && spokes->level == Level::Clear) {
            gap.level = Level::Clear;
            gap.word = nameOf(Level::Clear);
        }
        // A gap that certainly hits is worth its figure, whatever is not known of the other.
        for (const Verdict* v : { barrel, spokes })
            if (v && v->level == Level::Hits && v->figure.value && (!gap.after.value || *v->figure.value < *gap.after.value))
                gap.after = v->figure;
    } else {
        gap.word = "no wheel chosen";
    }
    lines.push_back(std::move(gap));

    LedgerLine centred { "off-centre", "Off centre", Stage::Centring, style::fine, {}, {}, {}, {}, Level::Unproven, {} };
    if (const Verdict* v = study.worst(Stage::Centring)) {
        // The mock-up that is farthest off speaks for the axle.
        const Verdict* axial = nullptr;
        for (const Verdict& candidate : study.verdicts)
            if (candidate.stage == Stage::Centring && candidate.id.ends_with("/axial")
                && (!axial || std::abs(candidate.figure.value.value_or(0)) > std::abs(axial->figure.value.value_or(0))))
                axial = &candidate;
        if (axial)
            centred.after = axial->figure;
        centred.level = v->level;
        centred.word = nameOf(v->level);
    }
    lines.push_back(std::move(centred));

    if (a.front.corner && a.rear.corner && b.front.corner && b.rear.corner) {
        auto share = line("front-share", "Front share", Stage::Stop, style::share, a.frontShare, b.frontShare, [&](Sample& s) {
            return figures::braking(s, build, *b.front.corner, *b.rear.corner).frontShare
                - figures::braking(s, build, *a.front.corner, *a.rear.corner).frontShare;
        });
        share.word = share.change.value ? std::string(nameOf(b.braking->limit)) : "unproven";
        if (const Verdict* v = study.verdict("stop/limit"))
            share.level = v->level;
        lines.push_back(std::move(share));

        auto distance =
            line("stop-distance", fmt::format("Stop from {}", print(build.car.testSpeed.value.value_or(NAN), style::speed, study.system)),
                Stage::Stop, style::road, a.distance, b.distance, [](Sample&) { return 0.0; });
        if (const Verdict* v = study.verdict("stop/distance"))
            distance.change = v->figure;
        distance.word = changeWord(study, distance);
        if (const Verdict* v = study.verdict("stop/distance"))
            distance.level = v->level;
        else if (const Verdict* l = study.verdict("stop/limit"))
            distance.level = l->level;
        lines.push_back(std::move(distance));

        auto rise = line("stop-rise", axle == Axle::Front ? "Front ring, one stop" : "Rear ring, one stop", Stage::Heat, style::rise,
            before.stopRise, after.stopRise, [&](Sample& s) {
                return figures::stopRise(s, build, *b.front.corner, *b.rear.corner, axle)
                    - figures::stopRise(s, build, *a.front.corner, *a.rear.corner, axle);
            });
        rise.word = changeWord(study, rise);
        if (const Verdict* v = worstOf("stop-rise"))
            rise.level = v->level;
        lines.push_back(std::move(rise));
    }
    return lines;
}

std::string summaryOf(const Study& study)
{
    std::vector<std::string> parts;
    const auto level = [&](Stage stage) { return study.worst(stage) ? study.worst(stage)->level : Level::Unproven; };
    const LedgerLine* gap = study.line("wheel-gap");
    if (gap) {
        const bool elsewhere = gap->level != Level::Hits && (isBad(level(Stage::WheelRoom)) || isBad(level(Stage::PartsBench)));
        parts.push_back(gap->level == Level::Clear && !elsewhere ? "fits"
                : gap->level == Level::Tight && !elsewhere       ? "fits, tight"
                : gap->level == Level::Unproven && !elsewhere    ? "fit unproven"
                                                                 : "does not fit");
    }
    parts.push_back(isFine(level(Stage::Centring))      ? "centred"
            : level(Stage::Centring) == Level::Unproven ? "centring unproven"
                                                        : "to be centred");
    if (const LedgerLine* weight = study.line("corner-weight"); weight && weight->change.value && *weight->change.value != 0)
        parts.push_back(printChange(*weight->change.value, style::partMass, study.system) + " a corner");
    if (const LedgerLine* store = study.line("heat-store"); store && store->after.value && store->before.value)
        parts.push_back("heat store " + store->word);
    if (const Verdict* v = study.verdict("stop/distance"); v && v->figure.value)
        parts.push_back(std::abs(*v->figure.value) < 0.05
                ? std::string("cold stop as before")
                : fmt::format("cold stop {}", printChange(*v->figure.value, style::road, study.system)));
    auto text = judge::joined(parts, parts.size());
    if (!text.empty())
        text[0] = toUpper(text[0]);
    return text;
}

} // namespace deepstop::parts
