#include "cli/sheet.hpp"

#include "language/language.hpp"
#include "report/ask.hpp"
#include "study/chapters.hpp"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>

namespace deepstop::cli {

using Json = nlohmann::ordered_json;

namespace {

std::string shown(const Figure& figure, const Style& style, UnitSystem system)
{
    if (!figure.value)
        return "–";
    auto text = print(*figure.value, style, system);
    return figure.provisional() ? text + "?" : text;
}

Json figureJson(const Study& study, const Figure& figure)
{
    const auto pointers = [&](const std::vector<ReadingId>& readings) {
        auto list = Json::array();
        for (const ReadingId reading : readings)
            if (const Address* address = study.directory->of(reading))
                list.push_back(address->pointer);
        return list;
    };
    auto facts = Json::array();
    for (const std::uint32_t fact : figure.facts)
        if (const Address* address = study.directory->ofFact(fact))
            facts.push_back(address->pointer);
    return { { "value", figure.value ? Json(*figure.value) : Json() }, { "worst_case", figure.worstCase },
        { "root_sum_square", figure.rootSumSquare }, { "rests_on", pointers(figure.restsOn) }, { "facts", facts },
        { "lacks", pointers(figure.lacks) }, { "estimated", pointers(figure.estimated) }, { "assumed", figure.assumed } };
}

std::string_view siUnit(const Style& style)
{
    switch (style.dimension) {
    case Dimension::Number:
    case Dimension::Share:
        return "1";
    case Dimension::Length:
        return "m";
    case Dimension::Area:
        return "m²";
    case Dimension::Volume:
        return "m³";
    case Dimension::Angle:
        return "rad";
    case Dimension::Inertia:
        return "kg·m²";
    case Dimension::Mass:
        return "kg";
    case Dimension::Force:
        return "N";
    case Dimension::Torque:
        return "N·m";
    case Dimension::Pressure:
        return "Pa";
    case Dimension::PressurePerForce:
        return "1/m²";
    case Dimension::Temperature:
    case Dimension::TemperatureRise:
        return "K";
    case Dimension::Speed:
        return "m/s";
    case Dimension::Acceleration:
        return "m/s²";
    case Dimension::Time:
        return "s";
    case Dimension::Energy:
        return "J";
    case Dimension::HeatFlux:
        return "W/m²";
    case Dimension::Conductivity:
        return "W/mK";
    case Dimension::HeatTransfer:
        return "W/m²K";
    case Dimension::Density:
        return "kg/m³";
    case Dimension::HeatCapacity:
        return "J/K";
    case Dimension::SpecificHeat:
        return "J/kgK";
    }
    return "";
}

Json valueJson(const sums::Value& value)
{
    return std::visit(
        [](const auto& v) -> Json {
            if constexpr (std::is_same_v<std::decay_t<decltype(v)>, std::monostate>)
                return nullptr;
            else
                return v;
        },
        value);
}

Json named(const sums::Named& values)
{
    auto json = Json::object();
    for (const auto& [key, value] : values)
        json[key] = key == "count" ? Json(static_cast<int>(std::get<double>(value))) : valueJson(value);
    return json;
}

} // namespace

std::string studySheet(const Study& study)
{
    std::string out =
        tr("{}: {} against {}\n{}\n\n", study.build->car.name, study.after.setup->name, study.before.setup->name, study.summary);
    out += fmt::format("{:<26}{:>14}   {:<14}{}\n", "", tr("before"), tr("after"), "");
    for (const LedgerLine& l : study.ledger)
        out += fmt::format(
            "{:<26}{:>14} → {:<14}{}\n", l.title, shown(l.before, l.style, study.system), shown(l.after, l.style, study.system), l.word);
    std::string_view chapter;
    bool cautioned = false;
    for (const Verdict& v : study.verdicts) {
        if (chapter != v.chapter) {
            chapter = v.chapter;
            out += fmt::format("\n{}\n", tr(chapterOf(chapter).title));
        }
        auto title = v.title;
        if (v.chapter == "clearance")
            title = fmt::format("{}: {}", v.axle == Axle::Front ? tr("Front") : tr("Rear"), title);
        out += fmt::format("  {:<9} {}. {}.\n", tr(nameOf(v.level)), title, v.reason);
        for (const Remedy& r : v.remedies) {
            std::string costs;
            for (const auto& cost : r.costs)
                costs += "; " + cost;
            out += tr("            cure: {}:{}{}\n", r.title,
                r.gap.value ? fmt::format(" {} {}", tr(chapterOf(v.chapter).gain), print(*r.gap.value, v.style, study.system)) : "", costs);
        }
        cautioned = cautioned || !v.caution.empty();
    }
    if (!study.questions.empty()) {
        out += tr("\nTo measure next\n");
        if (const auto next = report::nextToRead(study); !next.empty())
            out += "  " + next + "\n";
        for (std::size_t i = 0; i < study.questions.size() && i < 8; ++i) {
            const Question& q = study.questions[i];
            out += q.verdicts.size() == 1
                ? tr("  {:<9} {}: 1 verdict hangs on it\n", q.missing ? tr("missing") : tr("estimated"), q.address.full())
                : tr("  {:<9} {}: {} verdicts hang on it\n", q.missing ? tr("missing") : tr("estimated"), q.address.full(),
                    q.verdicts.size());
        }
    }
    out += tr(
        "\nThis program advises; it approves nothing. Brakes are life-critical: follow the maker's data and local law, have altered parts\n"
        "judged by a qualified engineer or licensed mechanic, turn every wheel by hand before the car moves.\n");
    return out;
}

Json studyJson(const Study& study)
{
    auto verdicts = Json::array();
    for (const Verdict& v : study.verdicts) {
        auto remedies = Json::array();
        for (const Remedy& r : v.remedies)
            remedies.push_back({ { "title", r.title }, { "gap", figureJson(study, r.gap) }, { "costs", r.costs } });
        verdicts.push_back({ { "id", v.id }, { "chapter", v.chapter }, { "title", v.title }, { "level", nameOf(v.level) },
            { "reason", v.reason }, { "unit", siUnit(v.style) }, { "figure", figureJson(study, v.figure) },
            { "wanted", v.wanted ? Json(*v.wanted) : Json() }, { "remedies", std::move(remedies) }, { "lacks_in_words", v.lacksInWords },
            { "method", v.method }, { "source", v.source }, { "caution", v.caution } });
    }
    auto ledger = Json::array();
    for (const LedgerLine& l : study.ledger)
        ledger.push_back({ { "id", l.id }, { "title", l.title }, { "unit", siUnit(l.style) }, { "before", figureJson(study, l.before) },
            { "after", figureJson(study, l.after) }, { "change", figureJson(study, l.change) }, { "level", nameOf(l.level) },
            { "word", l.word } });
    auto questions = Json::array();
    for (const Question& q : study.questions)
        questions.push_back(
            { { "pointer", q.address.pointer }, { "label", q.address.full() }, { "missing", q.missing }, { "verdicts", q.verdicts } });
    return { { "study", 2 }, { "car", study.build->car.name }, { "before", study.before.setup->id }, { "after", study.after.setup->id },
        { "summary", study.summary },
        { "headline",
            { { "fits", nameOf(study.headline.fits) }, { "centred", nameOf(study.headline.centred) },
                { "readings_missing", study.headline.readingsMissing } } },
        { "ledger", std::move(ledger) }, { "verdicts", std::move(verdicts) }, { "questions", std::move(questions) } };
}

std::string answerSheet(const sums::Answer& answer)
{
    std::string out;
    for (const auto& [name, title, text, help] : sums::printed(answer))
        out += fmt::format("{:<28}{:<24}{}\n", name, text, help);
    for (const auto& note : answer.notes)
        out += tr("note: {}\n", note);
    return out + tr("source: {}\n", answer.source);
}

Json answerJson(const sums::Answer& answer)
{
    return { { "name", answer.name }, { "inputs", named(answer.inputs) }, { "results", named(answer.results) }, { "notes", answer.notes },
        { "source", answer.source } };
}

std::string sumsSheet()
{
    std::string out;
    for (const auto& sum : sums::allSums()) {
        out += fmt::format("{}: {}\n", sum.name, sum.summary);
        for (const auto& key : sum.keys)
            out += fmt::format("  {:<26}{}{}{}\n", std::string(key.name) + "=", key.help,
                key.plainUnit.empty() ? "" : tr("; plain number: {}", key.plainUnit),
                !key.otherwise.empty() ? tr("; default {}", key.otherwise)
                    : key.required     ? ""
                                       : tr("; may be left out"));
        for (const auto& result : sum.results)
            out += fmt::format("  → {:<24}{}\n", result.name, result.help);
        out += tr("  source: {}\n\n", sum.source);
    }
    return out;
}

Json sumsJson()
{
    auto list = Json::array();
    for (const auto& sum : sums::allSums()) {
        auto keys = Json::array();
        for (const auto& key : sum.keys)
            keys.push_back({ { "name", key.name }, { "unit", key.plainUnit }, { "si_key", key.siKey }, { "default", key.otherwise },
                { "required", key.required }, { "help", key.help } });
        auto results = Json::array();
        for (const auto& result : sum.results)
            results.push_back({ { "name", result.name }, { "help", result.help } });
        list.push_back({ { "name", sum.name }, { "summary", sum.summary }, { "keys", std::move(keys) }, { "results", std::move(results) },
            { "source", sum.source } });
    }
    return list;
}

} // namespace deepstop::cli
