#include "language/language.hpp"
#include "quantity/text.hpp"
#include "chapters/heat/checks.hpp"
#include "chapters/stopping/checks.hpp"
#include "chapters/weights/checks.hpp"
#include "study/chapters.hpp"
#include "study/study.hpp"
#include "verdict/judge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace deepstop {

std::string_view nameOf(Headline::Fits fits)
{
    switch (fits) {
    case Headline::Fits::Yes:
        return marked("fits");
    case Headline::Fits::Tight:
        return marked("fits, tight");
    case Headline::Fits::WithCaution:
        return marked("fits, with caution");
    case Headline::Fits::Unproven:
        return marked("fit unproven");
    case Headline::Fits::No:
        return marked("does not fit");
    }
    return "";
}

std::string_view nameOf(Headline::Centred centred)
{
    switch (centred) {
    case Headline::Centred::Yes:
        return marked("centred");
    case Headline::Centred::Unproven:
        return marked("centring unproven");
    case Headline::Centred::No:
        return marked("to be centred");
    }
    return "";
}

std::optional<std::pair<Level, std::string>> standing(const Study& study, std::span<const std::string_view> chapters)
{
    const Verdict* worst = study.worst(chapters);
    if (!worst)
        return {};
    if (std::ranges::find(chapters, std::string_view("centring")) != chapters.end() && isFine(worst->level)
        && study.headline.centred == Headline::Centred::Unproven)
        return std::pair { Level::Unproven, std::string(tr("a corner that this setup changes was not read, or is not known")) };
    return std::pair { worst->level, worst->title + ": " + worst->reason };
}

namespace {

/// Says whether the setup after fits; what was found on the parts it replaces is not its business.
bool decidesFit(const Verdict& v)
{
    return v.check && (v.check->decides == Decides::Fit || v.check->decides == Decides::FitNeeded) && !v.found;
}

bool decidesCentring(const Verdict& v)
{
    return v.check && (v.check->decides == Decides::Centring || v.check->decides == Decides::CentringNeeded);
}

/// Whether one that is needed was not made, on an axle or a corner that the setup brings, or is not as it has to be.
bool wants(const Study& study, Decides needed, bool (*suffices)(const Verdict&))
{
    const auto bad = [&](const Check& check, const Where& where) {
        const Verdict* v = study.verdict(check, where);
        return !v || !suffices(*v);
    };
    for (const Chapter& chapter : chapters())
        for (const Check* check : chapter.checks)
            if (check->decides == needed)
                for (const Axle axle : judge::axlesOf(study))
                    for (const Side side : { Side::Left, Side::Right })
                        if (!study.stays.at(axle) && bad(*check, { axle, side }))
                            return true;
    return false;
}

Headline::Fits fitsOf(const Study& study)
{
    Level worst = Level::Unproven;
    bool said = false;
    bool unproven = false;
    for (const Verdict& v : study.verdicts)
        if (decidesFit(v)) {
            worst = said ? std::max(worst, v.level) : v.level;
            unproven = unproven || v.level == Level::Unproven;
            said = true;
        }
    // A corner whose wheel nobody has chosen has no clearance to speak of.
    unproven = unproven || wants(study, Decides::FitNeeded, [](const Verdict&) { return true; });
    if (said && isBad(worst))
        return Headline::Fits::No;
    if (!said || unproven)
        return Headline::Fits::Unproven;
    return worst == Level::Caution ? Headline::Fits::WithCaution : worst == Level::Tight ? Headline::Fits::Tight : Headline::Fits::Yes;
}

/// Of every corner whose brakes the setup brings: all four readings of both sides, and every check of them good.
Headline::Centred centredOf(const Study& study)
{
    bool unproven = false;
    for (const Verdict& v : study.verdicts)
        if (decidesCentring(v)) {
            if (v.level == Level::Caution || isBad(v.level))
                return Headline::Centred::No;
            unproven = unproven || !isFine(v.level);
        }
    unproven = unproven || wants(study, Decides::CentringNeeded, [](const Verdict& v) { return isFine(v.level); });
    return unproven ? Headline::Centred::Unproven : Headline::Centred::Yes;
}

} // namespace

Headline headlineOf(const Study& study)
{
    Headline headline { fitsOf(study), centredOf(study), 0 };
    const auto hangs = [&](const std::vector<std::string>& ids) {
        return std::ranges::any_of(ids, [&](const std::string& id) {
            const Verdict* v = study.verdict(id);
            return v && v->level == Level::Unproven && decidesFit(*v);
        });
    };
    for (const Question& q : study.questions)
        headline.readingsMissing += hangs(q.verdicts);
    for (const OpenFact& fact : study.openFacts)
        headline.readingsMissing += hangs(fact.verdicts);
    return headline;
}

std::string summaryOf(const Study& study)
{
    std::vector<std::string> parts;
    const Headline& headline = study.headline;
    parts.emplace_back(tr(nameOf(headline.fits)));
    if (headline.fits == Headline::Fits::Unproven && headline.readingsMissing > 0)
        parts.back() += headline.readingsMissing == 1 ? tr(" (1 reading to take)") : tr(" ({} readings to take)", headline.readingsMissing);
    parts.emplace_back(tr(nameOf(headline.centred)));
    if (const LedgerLine* weight = study.line(lines::cornerWeight); weight && weight->change.value && *weight->change.value != 0)
        parts.push_back(tr("{} a corner", printChange(*weight->change.value, style::partMass, study.system)));
    if (const LedgerLine* store = study.line(lines::heatStore); store && store->after.value && store->before.value)
        parts.push_back(tr("heat store {}", store->word));
    if (const Verdict* v = study.verdict(checks::stopDistance); v && v->figure.value)
        parts.push_back(std::abs(*v->figure.value) < 0.05 ? std::string(tr("cold stop as before"))
                : std::abs(*v->figure.value) <= v->figure.rootSumSquare
                ? std::string(tr("cold stop: no sure difference"))
                : tr("cold stop {}", printChange(*v->figure.value, style::road, study.system)));
    auto text = judge::joined(parts, parts.size());
    if (!text.empty())
        text[0] = toUpper(text[0]);
    return text;
}

} // namespace deepstop
