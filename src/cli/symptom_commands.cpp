#include "cli/commands.hpp"

#include "language/language.hpp"
#include "symptoms/symptoms.hpp"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <iostream>
#include <memory>

namespace deepstop::cli {
namespace {

struct SymptomOptions {
    Subject subject;
    std::string name;
    bool list = false;
    bool asJson = false;
};

void listSymptoms(bool asJson)
{
    nlohmann::ordered_json out = nlohmann::ordered_json::array();
    for (const auto& symptom : symptoms::all())
        if (asJson)
            out.push_back({ { "name", symptom.id }, { "title", symptom.title } });
        else
            std::cout << fmt::format("{:<18} {}\n", symptom.id, symptom.title);
    if (asJson)
        std::cout << out.dump(2) << "\n";
}

int showCauses(const SymptomOptions& o)
{
    if (o.list) {
        listSymptoms(o.asJson);
        return fine;
    }
    if (o.subject.path.empty() || o.name.empty())
        throw files::Refusal(tr("symptom: give a build and a symptom, or --list for the symptoms there are."));
    const auto* symptom = symptoms::find(o.name);
    if (!symptom) {
        std::string known;
        for (const auto& each : symptoms::all())
            known += (known.empty() ? "" : ", ") + std::string(each.id);
        throw files::Refusal(tr("symptom: “{}” is not one of: {}.", o.name, known));
    }
    const Study study = o.subject.studied();
    const auto causes = symptoms::causesOf(study, *symptom);
    if (o.asJson) {
        nlohmann::ordered_json out { { "symptom", symptom->id }, { "title", symptom->title }, { "caution", symptom->caution },
            { "causes", nlohmann::ordered_json::array() } };
        for (const auto& c : causes) {
            nlohmann::ordered_json cause { { "cause", c.cause }, { "test", c.test }, { "reading", c.reading.empty() ? c.gives : c.reading },
                { "gives", c.gives } };
            cause["level"] = c.judged ? nlohmann::ordered_json(nameOf(c.level)) : nlohmann::ordered_json();
            if (c.judged) {
                cause["figures"] = c.figures;
                cause["verdict"] = c.verdict;
            }
            out["causes"].push_back(std::move(cause));
        }
        std::cout << out.dump(2) << "\n";
        return fine;
    }
    std::cout << fmt::format("{}. {}\n\n", symptom->title, symptom->caution);
    int number = 0;
    for (const auto& c : causes) {
        std::cout << tr("{}. {}\n   {}\n   gives: {}\n", ++number, c.cause, c.test, c.gives);
        if (c.judged)
            std::cout << fmt::format("   {}\n", c.figures);
    }
    return fine;
}

} // namespace

void addSymptomCommands(CLI::App& app, int& code)
{
    auto* command =
        app.add_subcommand("symptom", tr("Causes of a symptom on this car, ranked, each with its test and the reading it gives"));
    auto o = std::make_shared<SymptomOptions>();
    o->subject.addTo(*command);
    command->get_option("FILE")->required(false);
    command->add_option("NAME", o->name, tr("the symptom; --list names them"));
    command->add_flag("--list", o->list, tr("the symptoms there are"));
    command->add_flag("--json", o->asJson, tr("as JSON"));
    command->callback([o, &code] { code = showCauses(*o); });
}

} // namespace deepstop::cli
