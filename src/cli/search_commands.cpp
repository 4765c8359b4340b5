#include "cli/commands.hpp"

#include "files/data_folder.hpp"
#include "files/exports.hpp"
#include "language/language.hpp"
#include "library/library_file.hpp"
#include "search/why.hpp"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <iostream>
#include <memory>
#include <stdexcept>

namespace deepstop::cli {
namespace {

using search::Gain;
using search::Kind;

struct SearchOptions {
    Subject subject;
    std::string library;
    std::string wheels;
    std::string mount;
    std::string duty;
    std::vector<std::string> alsoClear;
    std::vector<std::string> limits;
    bool keepMaster = false;
    bool json = false;
    bool wholeCar = false;
    std::string best = "price";
    std::size_t most = search::Query {}.most;
    std::string why;
    std::string rear;
    std::string into;
    std::string name;
    int pick = 1;
};

std::vector<std::string> splitAt(char separator, const std::string& text)
{
    std::vector<std::string> parts;
    for (std::size_t from = 0; from <= text.size();) {
        const auto to = std::min(text.find(separator, from), text.size());
        parts.push_back(text.substr(from, to - from));
        from = to + 1;
    }
    return parts;
}

search::Limit limitOf(const std::string& text)
{
    const auto sign = text.find('=');
    const std::string key = text.substr(0, sign);
    std::string all;
    for (const Gain gain : search::allGains) {
        const auto& about = search::about(gain);
        all += fmt::format("{}{}", all.empty() ? "" : ", ", about.key);
        if (key != about.key || sign == std::string::npos)
            continue;
        double value = 0;
        const char* end = text.data() + text.size();
        const auto [stop, error] = std::from_chars(text.data() + sign + 1, end, value);
        if (error != std::errc {} || stop != end)
            throw files::Refusal(tr("--limit {}: “{}” is no number.", key, text.substr(sign + 1)));
        return { gain, value * about.unit };
    }
    throw files::Refusal(tr("--limit {}: it is a key and a number, as price=1500. The keys are {}.", text, all));
}

Gain bestOf(const std::string& key)
{
    for (const Gain gain : search::allGains)
        if (search::addsUp(gain) && search::about(gain).key == key)
            return gain;
    throw files::Refusal(tr("--best {}: whole cars are ranked by weight_kg, clearance_mm or price.", key));
}

search::Query queryOf(const SearchOptions& o, std::shared_ptr<const Study> study)
{
    const std::string path = o.library.empty() ? (files::dataFolder() / "library" / "parts.json").string() : o.library;
    if (std::error_code none; !std::filesystem::exists(path, none))
        throw files::Refusal(tr("{}: there is no such parts library.", path));
    search::Query query;
    query.axle = o.subject.onAxle();
    query.wholeCar = o.wholeCar;
    if (o.wholeCar) {
        query.axle = Axle::Front;
        query.best = bestOf(o.best);
        query.most = o.most;
    }
    const auto& build = *study->build;
    try {
        query.parts =
            search::partsFor(files::loadLibrary(path), build, o.wheels.empty() ? std::vector<std::string> {} : splitAt(',', o.wheels));
    } catch (const std::invalid_argument& unknown) {
        throw files::Refusal(tr("--wheels: neither {} nor {} has a wheel “{}”.", o.subject.path, path, unknown.what()));
    }
    if (o.keepMaster)
        query.parts.masters.resize(1);
    if (!o.mount.empty())
        query.mount = o.mount == "radial" ? MountKind::Radial : MountKind::Lug;
    for (const std::string& id : o.alsoClear)
        if (!findWheel(build, id))
            throw files::Refusal(tr("--also-clear: {} has no wheel “{}”.", o.subject.path, id));
    query.alsoClear = o.alsoClear;
    for (const std::string& limit : o.limits)
        query.limits.push_back(limitOf(limit));
    // A car that turns round is none to look for, unless someone asks for it.
    if (o.wholeCar && std::ranges::count(query.limits, Gain::Locks, &search::Limit::gain) == 0)
        query.limits.push_back({ Gain::Locks, 0 });
    if (!o.duty.empty() && std::ranges::find(build.duties, o.duty, &DutyPlan::id) == build.duties.end())
        throw files::Refusal(tr("--duty: {} has no duty “{}”.", o.subject.path, o.duty));
    query.duty = o.duty;
    query.study = std::move(study);
    return query;
}

/// Parts by their ids into a choice, in the order of the kinds.
void choose(const search::Query& query, const std::vector<std::string>& ids, search::Choice& choice, std::string_view option)
{
    for (std::size_t i = 0; i < ids.size(); ++i) {
        const auto place = query.parts.find(search::kinds[i], ids[i]);
        if (!place)
            throw files::Refusal(tr("{}: there is no {} “{}” in this search.", option, tr(nameOf(search::kinds[i])), ids[i]));
        choice[i] = static_cast<std::uint32_t>(*place);
    }
}

/// ROTOR/CALIPER/PAD/WHEEL, or with the master cylinder behind them.
search::Choice choiceOf(const search::Query& query, const std::string& text)
{
    const auto ids = splitAt('/', text);
    if (ids.size() < 4 || ids.size() > search::kinds.size())
        throw files::Refusal(tr("--why {}: it names rotor/caliper/pad/wheel, or a master cylinder behind them, by their ids.", text));
    search::Choice choice {};
    choose(query, ids, choice, "--why");
    return choice;
}

/// ROTOR/CALIPER/PAD of the rear axle, in the wheel and with the master cylinder of the front.
search::Choice rearOf(const search::Query& query, const std::string& text, const search::Choice& front)
{
    const auto ids = splitAt('/', text);
    if (ids.size() != 3)
        throw files::Refusal(tr("--rear {}: it names rotor/caliper/pad by their ids.", text));
    search::Choice choice = search::rearBeside(query, front);
    choose(query, ids, choice, "--rear");
    return choice;
}

nlohmann::ordered_json figureOf(double value, Gain gain)
{
    constexpr double parts = 1e4;
    return std::isfinite(value) ? nlohmann::ordered_json(std::round(value / search::about(gain).unit * parts) / parts) : nullptr;
}

nlohmann::ordered_json json(const search::Query& query, const search::Result& result)
{
    nlohmann::ordered_json out { { "combinations", result.combinations }, { "go", result.kits.size() } };
    if (!result.lacks.empty())
        out["lacks"] = result.lacks;
    out["funnel"] = nlohmann::ordered_json::array();
    for (const search::Lost& lost : result.funnel)
        out["funnel"].push_back({ { "check", lost.check }, { "lost", lost.lost }, { "left", lost.left } });
    if (query.wholeCar) {
        out["not_looked_at"] = result.notLooked;
        out["gave_up"] = result.gaveUp;
    }
    out["front"] = nlohmann::ordered_json::array();
    for (const std::size_t i : result.front) {
        const search::Kit& kit = result.kits[i];
        static constexpr std::array keys { "rotor", "caliper", "pad", "wheel", "master" };
        const auto parts = [&](const search::Choice& choice) {
            nlohmann::ordered_json ids;
            for (const Kind kind : search::kinds)
                ids[keys[static_cast<std::size_t>(kind)]] = query.parts.name(kind, at(choice, kind)).id;
            return ids;
        };
        nlohmann::ordered_json one = parts(kit.choice);
        if (kit.rear)
            one["rear"] = parts(*kit.rear);
        for (const Gain gain : search::allGains)
            one[std::string(search::about(gain).key)] = figureOf(search::of(kit.gains, gain), gain);
        one["levels"] = nlohmann::ordered_json::object();
        for (const search::Doubt& doubt : kit.doubts)
            one["levels"][doubt.id] = nameOf(doubt.level);
        out["front"].push_back(std::move(one));
    }
    out["seconds"] = result.seconds;
    return out;
}

std::string said(double value, Gain gain, UnitSystem system)
{
    const auto& about = search::about(gain);
    return std::isfinite(value) ? print(value, about.style, system) : std::string(tr("not known"));
}

std::string wholeCarsSaid(const search::Query& query, const search::Result& result)
{
    const std::string best = search::titleFor(query.best, true);
    if (result.gaveUp)
        return tr(
            "The search stopped because few kits pass. {} kits were not judged; none of them is better in: {}", result.notLooked, best);
    return tr("{} kits were not judged; none of them is better in: {}", result.notLooked, best);
}

void say(const search::Query& query, const search::Result& result, UnitSystem system)
{
    if (!result.lacks.empty()) {
        std::cout << result.lacks << "\n";
        return;
    }
    std::cout << tr(
        "{} kits tried, {} go, {} of them are beaten by no other\n", result.combinations, result.kits.size(), result.front.size());
    if (query.wholeCar)
        std::cout << wholeCarsSaid(query, result) << "\n";
    for (const search::Lost& lost : result.funnel)
        std::cout << tr("{:>12} lost at {}, {} left\n", lost.lost, lost.check, lost.left);
    int number = 0;
    for (const std::size_t i : result.front) {
        const search::Kit& kit = result.kits[i];
        std::cout << fmt::format(
            "\n{:>3}  {}, {}", ++number, search::nameOf(query, kit), query.parts.name(Kind::Wheel, at(kit.choice, Kind::Wheel)).name);
        if (at(kit.choice, Kind::Master) > 0)
            std::cout << ", " << query.parts.name(Kind::Master, at(kit.choice, Kind::Master)).name;
        std::cout << "\n    ";
        for (const Gain gain : search::allGains)
            std::cout << fmt::format(" {} {};", search::titleFor(gain, query.wholeCar), said(search::of(kit.gains, gain), gain, system));
        std::cout << fmt::format(" {}\n", tr(nameOf(kit.level())));
    }
    std::cout
        << "\n"
        << tr("Judged as if the parts were as their sheets say and bracket and shims made as drawn; nothing is proven until it is read.\n");
}

void say(const search::Why& why)
{
    for (const search::Reason& reason : why.fails) {
        std::cout << tr("fails     {}: {}\n", reason.title, reason.said);
        for (const std::string& remedy : reason.remedies)
            std::cout << tr("          remedy: {}\n", remedy);
    }
    for (const search::Reason& reason : why.doubts)
        std::cout << fmt::format("{:<9} {}: {}\n", tr(nameOf(reason.level)), reason.title, reason.said);
    if (why.fails.empty())
        std::cout << tr("It goes.\n");
    else if (!why.mended.empty())
        std::cout << tr("It would go with: {}\n", why.mended);
}

nlohmann::ordered_json json(const search::Why& why)
{
    const auto list = [](const std::vector<search::Reason>& reasons) {
        auto all = nlohmann::ordered_json::array();
        for (const search::Reason& reason : reasons)
            all.push_back(
                { { "check", reason.id }, { "level", nameOf(reason.level) }, { "reason", reason.said }, { "remedies", reason.remedies } });
        return all;
    };
    nlohmann::ordered_json out { { "fails", list(why.fails) }, { "doubts", list(why.doubts) } };
    out["mended_by"] = why.mended.empty() ? nlohmann::ordered_json() : nlohmann::ordered_json(why.mended);
    return out;
}

int searchKits(const SearchOptions& o)
{
    files::checkOutputs({ o.subject.path, o.library }, { o.into });
    const auto study = std::make_shared<const Study>(o.subject.studied());
    const search::Query query = queryOf(o, study);
    if (!o.why.empty()) {
        if (o.wholeCar && o.rear.empty())
            throw files::Refusal(tr("--why of a whole car wants --rear ROTOR/CALIPER/PAD beside it."));
        const search::Choice choice = choiceOf(query, o.why);
        const auto why = search::whyNot(query, choice, o.wholeCar ? std::optional(rearOf(query, o.rear, choice)) : std::nullopt);
        if (o.json)
            std::cout << json(why).dump(2) << "\n";
        else
            say(why);
        return why.fails.empty() ? fine : bad;
    }
    const search::Result result = search::search(query);
    if (o.json)
        std::cout << json(query, result).dump(2) << "\n";
    else
        say(query, result, o.subject.us ? UnitSystem::Us : UnitSystem::Metric);
    if (result.front.empty())
        return bad;
    if (!o.into.empty()) {
        if (o.pick < 1 || static_cast<std::size_t>(o.pick) > result.front.size())
            throw files::Refusal(tr("--pick {}: there are {} kits to pick from.", o.pick, result.front.size()));
        const search::Kit& kit = result.kits[result.front[static_cast<std::size_t>(o.pick) - 1]];
        const auto name = o.name.empty() ? query.parts.name(Kind::Rotor, at(kit.choice, Kind::Rotor)).name : o.name;
        writeEdited(o.subject.path, search::putIn(query, kit.choice, name, kit.rear), o.into);
    }
    return fine;
}

} // namespace

void addSearchCommands(CLI::App& app, int& code)
{
    auto* command = app.add_subcommand(
        "search", tr("Of everything the parts library holds, the kits that go, and where the others fail. Exit 1 where none does"));
    auto o = std::make_shared<SearchOptions>();
    o->subject.addTo(*command);
    o->subject.addAxleTo(*command);
    command->add_option("--library", o->library, tr("parts library, *.json (default: the one that comes with the program)"));
    command->add_option(
        "--wheels", o->wheels, tr("ids of wheels, of the build or the library, with commas; or all (default: those of the build)"));
    command->add_option("--also-clear", o->alsoClear, tr("id of a wheel of the build that must clear too; may be said several times"))
        ->allow_extra_args(false);
    command->add_option("--mount", o->mount, tr("how the calipers are bolted on: lug or radial (default: as the setup's own)"))
        ->check(CLI::IsMember({ "lug", "radial" }));
    command->add_option("--duty", o->duty, tr("id of the duty that heat is judged by (default: the build's own)"));
    command
        ->add_option(
            "--limit", o->limits, tr("the most or the least that is wanted, as price=1500 or heat_margin_K=50; may be said several times"))
        ->allow_extra_args(false);
    command->add_flag("--keep-master", o->keepMaster, tr("leave the master cylinder as it is"));
    command->add_flag("--json", o->json, tr("as JSON"));
    command->add_flag("--whole-car", o->wholeCar,
        tr("kits of both axles at once, with one master cylinder; the rear must lock later, unless --limit "
           "rear_locks_later_percent=… says otherwise"));
    command->add_option("--best", o->best, tr("what whole cars are ranked by: weight_kg, clearance_mm or price (default)"));
    command->add_option("--most", o->most, tr("how many whole cars that go are looked for (default: 200)"))->check(CLI::Range(1, 10'000));
    command->add_option("--rear", o->rear, tr("of --why with --whole-car, the rear's: ROTOR/CALIPER/PAD, by ids"));
    command->add_option("--why", o->why, tr("why a kit does not go: ROTOR/CALIPER/PAD/WHEEL, by ids"));
    command->add_option("--into", o->into, tr("write the build with a kit as a setup of its own to this file"));
    command->add_option("--pick", o->pick, tr("which of the kits that no other beats, counted from 1"));
    command->add_option("--name", o->name, tr("name of that setup"));
    command->callback([o, &code] { code = searchKits(*o); });
}

} // namespace deepstop::cli
