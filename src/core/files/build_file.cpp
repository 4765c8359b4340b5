#include "files/build_file.hpp"

#include "build/difference.hpp"
#include "build/mock_ups.hpp"
#include "build/naming.hpp"
#include "files/disk.hpp"
#include "files/element_name.hpp"
#include "files/json_fields.hpp"
#include "files/json_text.hpp"
#include "files/lock.hpp"
#include "files/older_builds.hpp"
#include "language/language.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>
#include <vector>

namespace deepstop::files {
namespace {

/// Elements of one list with the same id.
class IdsOnce : public deepstop::Naming {
public:
    void element(const ElementId& id) override
    {
        const auto list = pointer().substr(0, pointer().rfind('/'));
        if (!id.text.empty() && !taken_.emplace(list, id.text).second)
            throw Refusal(
                tr("{}/id: “{}” is taken by another of this list: give each its own, or leave it out.", pointer(), shortened(id.text)));
    }

private:
    std::set<std::pair<std::string, std::string>> taken_;
};

/// What the schema cannot say: ids are there once, references lead somewhere.
void checkReferences(const Build& build)
{
    IdsOnce once;
    describe(once, build);
    std::set<std::string> wheels;
    std::set<std::string> setups;
    for (std::size_t i = 0; i < build.wheels.size(); ++i)
        if (!wheels.insert(build.wheels[i].id).second)
            throw Refusal(tr("/wheels/{}/id: “{}” is taken by another wheel: give each its own.", i, shortened(build.wheels[i].id)));
    for (std::size_t i = 0; i < build.setups.size(); ++i) {
        const Setup& setup = build.setups[i];
        if (!setups.insert(setup.id).second)
            throw Refusal(tr("/setups/{}/id: “{}” is taken by another setup: give each its own.", i, shortened(setup.id)));
        for (const auto& [name, corner] : { std::pair { "front", &setup.front }, std::pair { "rear", &setup.rear } })
            if (*corner && !(*corner)->wheel.empty() && !wheels.contains((*corner)->wheel))
                throw Refusal(tr("/setups/{}/{}/wheel: there is no wheel “{}”.", i, name, shortened((*corner)->wheel)));
    }
    const auto known = [&setups](const std::string& id, std::string_view list, std::size_t i) {
        if (!setups.contains(id))
            throw Refusal(tr("/{}/{}/setup: there is no setup “{}”.", list, i, shortened(id)));
    };
    for (std::size_t i = 0; i < build.mockUps.size(); ++i)
        known(build.mockUps[i].setup, "mock_ups", i);
    for (std::size_t i = 0; i < build.tests.size(); ++i)
        known(build.tests[i].setup, "tests", i);
}

/// Before version 3.1 a duty named its load by the load's name.
void nameLoadsById(Build& build)
{
    for (DutyPlan& duty : build.duties)
        if (const auto load = std::ranges::find(build.loads, duty.load, &LoadCase::name); !duty.load.empty() && load != build.loads.end())
            duty.load = load->id.text;
}

/// Words ticked that a newer program knows.
bool areTokens(const Json& unknown)
{
    return unknown.is_array() && !unknown.empty() && std::ranges::all_of(unknown, [](const Json& e) { return e.is_string(); });
}

/// Puts what was not understood back to where it stood.
void graft(OrderedJson& onto, const Json& unknown)
{
    if (unknown.is_object() && onto.is_object()) {
        for (const auto& [key, value] : unknown.items()) {
            if (onto.contains(key) && value.is_structured())
                graft(onto[key], value);
            else if (!onto.contains(key))
                onto[key] = OrderedJson::parse(value.dump());
        }
    } else if (areTokens(unknown) && onto.is_array()) {
        // They stand for what was ticked as unknown.
        onto.erase(std::remove(onto.begin(), onto.end(), OrderedJson(unknownToken)), onto.end());
        for (const Json& token : unknown)
            onto.push_back(token.get<std::string>());
    } else if (unknown.is_array() && onto.is_array()) {
        // One for each element, in their order.
        for (std::size_t i = 0; i < std::min(unknown.size(), onto.size()); ++i)
            graft(onto[i], unknown[i]);
    }
}

constexpr std::size_t gone = static_cast<std::size_t>(-1);

/// Where each element of a list stands in the one that was made of it, or `gone`. What stands the same from the front or from
/// the back is the same; between them, as many elements are the same changed.
std::vector<std::size_t> placesAfter(const OrderedJson& before, const OrderedJson& after)
{
    std::size_t front = 0;
    while (front < before.size() && front < after.size() && before[front] == after[front])
        ++front;
    std::size_t back = 0;
    while (
        front + back < before.size() && front + back < after.size() && before[before.size() - 1 - back] == after[after.size() - 1 - back])
        ++back;
    std::vector<std::size_t> places(before.size(), gone);
    for (std::size_t i = 0; i < before.size(); ++i) {
        if (i < front || before.size() == after.size())
            places[i] = i;
        else if (i + back >= before.size())
            places[i] = after.size() - (before.size() - i);
        else
            for (std::size_t k = front; k + back < after.size() && places[i] == gone; ++k)
                if (after[k] == before[i])
                    places[i] = k;
    }
    return places;
}

/// @param list the key they stand under; of a list
Json moved(const Json& unknown, const OrderedJson& before, const OrderedJson& after, std::string_view list)
{
    if (unknown.is_object() && before.is_object() && after.is_object()) {
        Json kept = Json::object();
        for (const auto& [key, value] : unknown.items()) {
            // A word goes where this program now says one, and how a reading was known goes with the reading.
            if (!value.is_structured() && (after.contains(key) || (key == "known" && before != after)))
                continue;
            if (!before.contains(key) || !value.is_structured())
                kept[key] = value;
            else if (after.contains(key))
                kept[key] = moved(value, before[key], after[key], key);
        }
        return kept;
    }
    if (areTokens(unknown)) // as long as something unknown is still ticked there
        return std::ranges::find(after, OrderedJson(unknownToken)) != after.end() ? unknown : Json::array();
    if (!unknown.is_array() || !before.is_array() || !after.is_array())
        return unknown;
    const auto places = placesAfter(before, after);
    Json kept = Json::array();
    for (std::size_t i = 0; i < after.size(); ++i)
        kept.push_back(Json::object());
    for (std::size_t i = 0; i < unknown.size() && i < before.size(); ++i) {
        auto place = places[i];
        if (const auto name = nameIn(list, before[i]); !name.empty()) {
            place = gone;
            for (std::size_t k = 0; k < after.size() && place == gone; ++k)
                if (nameIn(list, after[k]) == name)
                    place = k;
        }
        if (place != gone)
            kept[place] = moved(unknown[i], before[i], after[place], {});
    }
    return kept;
}

OrderedJson treeOf(const Build& build)
{
    Writer writer;
    describe(writer, build);
    return std::move(writer.out);
}

} // namespace

std::shared_ptr<const Json> movedAlong(const std::shared_ptr<const Json>& unknown, const Build& before, const Build& after)
{
    return unknown ? std::make_shared<const Json>(moved(*unknown, treeOf(before), treeOf(after), {})) : nullptr;
}

const Json& buildSchema()
{
    static const Json schema = [] {
        Build build;
        OrderedJson made = { { "$schema", "http://json-schema.org/draft-07/schema#" },
            { "title", fmt::format("Deep Stop build file, version {}", buildVersion) },
            { "description",
                "Keys carry their unit. A reading is an object, or a bare number, which counts as estimated. Fields without a value are "
                "not "
                "written. Keys not named here, and words not named where others may come, are kept and counted as unknown." } };
        SchemaWriter fields;
        describe(fields, build);
        made.update(std::move(fields).schema());
        made["properties"]["deepstop"] = { { "type", "integer" }, { "minimum", 1 }, { "maximum", buildVersion },
            { "description", fmt::format("version of this format: {}; a later one needs a later program", buildVersion) } };
        made["properties"]["minor"] = { { "type", "integer" }, { "minimum", 0 }, { "maximum", 1'000'000 },
            { "description", "minor version of this format: a whole number; a later one only adds" } };
        made["required"] = { "deepstop", "setups" };
        auto& setups = made["properties"]["setups"];
        setups["minItems"] = 1;
        setups["description"] = "a list of setups, the first being the car as found";
        return Json::parse(made.dump());
    }();
    return schema;
}

BuildFile parseBuild(std::string_view text)
{
    Json json = parseStrictly(text);
    if (!json.is_object() || !json.contains("deepstop"))
        throw Refusal(tr("/deepstop: the version of the format is missing: this is not a build file."));
    if (!json.contains("setups"))
        throw Refusal(tr("/setups: missing: a build has at least one setup, the car as found."));
    static const SchemaCheck check(buildSchema());
    const bool older = json["deepstop"] != buildVersion || !json.contains("minor") || json["minor"] == 0;
    if (json["deepstop"] == 1)
        fromVersion1(json);
    if (json["deepstop"] == 2)
        fromVersion2(json, buildSchema());
    check(json);
    json.erase("deepstop");
    // A later one stays, for whoever understands what came with it.
    if (json.contains("minor") && json["minor"] <= buildMinor)
        json.erase("minor");
    Reader reader(std::move(json));
    BuildFile file;
    describe(reader, file.build);
    // The car as found has hydraulics, however little is known of them.
    if (auto& found = file.build.setups.front(); !found.hydraulics)
        found.hydraulics.emplace();
    checkReferences(file.build);
    giveIds(file.build);
    if (older)
        nameLoadsById(file.build);
    if (!reader.left.empty())
        file.unknown = std::make_shared<const Json>(std::move(reader.left));
    return file;
}

namespace {

/// A pair of numbers on one line: a logged stop is a hundred of them.
std::string withPairsOnALine(const std::string& text)
{
    const auto space = [&](std::size_t at) { return text.find_first_not_of(" \n", at); };
    const auto number = [&](std::size_t at) { return text.find_first_not_of("+-.0123456789eE", at); };
    std::string out;
    out.reserve(text.size());
    std::size_t kept = 0;
    // A bracket before the end of a line is never in a text: those have no ends of lines.
    for (std::size_t at = text.find("[\n"); at != std::string::npos; at = text.find("[\n", at + 1)) {
        const auto first = space(at + 1);
        const auto comma = number(first);
        if (comma == first || text.compare(comma, 2, ",\n") != 0)
            continue;
        const auto second = space(comma + 1);
        const auto end = number(second);
        if (end == second || text[end] != '\n' || text[space(end)] != ']')
            continue;
        out.append(text, kept, at + 1 - kept).append(text, first, comma - first).append(", ").append(text, second, end - second);
        kept = space(end);
    }
    return out.append(text, kept);
}

} // namespace

std::string writeBuild(const BuildFile& file)
{
    Writer writer;
    writer.out["deepstop"] = buildVersion;
    writer.out["minor"] = file.unknown && file.unknown->contains("minor") ? (*file.unknown)["minor"].get<int>() : buildMinor;
    describe(writer, file.build);
    if (file.unknown)
        graft(writer.out, *file.unknown);
    auto text = withPairsOnALine(writer.out.dump(2)) + "\n";
    // What is not to be opened again is not written; without its indentation it may still do.
    if (text.size() > largestFile)
        text = writer.out.dump() + "\n";
    if (text.size() > largestFile)
        throw Refusal(tr("the build takes {:.1f} MB; a build file has at most {} MB. Take something out: long lists, notes.",
            static_cast<double>(text.size()) / (1u << 20), largestFile >> 20));
    return text;
}

BuildFile loadBuild(const std::filesystem::path& path)
{
    return namingFile(path, [&] { return parseBuild(readFile(path)); });
}

void saveBuild(const std::filesystem::path& path, const BuildFile& file)
{
    std::string text;
    try {
        if (const auto fault = faultIn(file.build); !fault.empty())
            throw Refusal(fault);
        text = writeBuild(file);
        (void)parseBuild(text);
    } catch (const Refusal& refusal) {
        throw Refusal(path.string() + ": " + refusal.what());
    }
    replaceFile(path, text);
}

BuildFile changeBuild(const std::filesystem::path& path, const Edit& edit, std::chrono::milliseconds patience)
{
    const auto lock = lockOrRefuse(path, patience);
    auto file = loadBuild(path);
    auto changed = edit(file.build);
    if (!changed)
        throw Refusal(tr("{}: was not changed: what was to be changed is not in it.", path.string()));
    foretell(file.build, *changed);
    giveIds(*changed);
    file.unknown = movedAlong(file.unknown, file.build, *changed);
    file.build = std::move(*changed);
    saveBuild(path, file);
    return file;
}

} // namespace deepstop::files
