#include "files/build_file.hpp"

#include "files/disk.hpp"
#include "files/json_fields.hpp"

#include <valijson/adapters/nlohmann_json_adapter.hpp>
#include <valijson/schema.hpp>
#include <valijson/schema_parser.hpp>
#include <valijson/validation_results.hpp>
#include <valijson/validator.hpp>

#include <algorithm>
#include <set>
#include <vector>

namespace deepstop::files {
namespace {

constexpr std::size_t deepest = 32;

/// Position of the first byte that is not UTF-8 (RFC 3629: no overlong forms, no surrogates, nothing above U+10FFFF).
std::optional<std::size_t> notUtf8(std::string_view text)
{
    for (std::size_t i = 0; i < text.size();) {
        const auto lead = static_cast<unsigned char>(text[i]);
        const int more = lead < 0x80 ? 0 : lead >= 0xc2 && lead < 0xe0 ? 1 : lead >= 0xe0 && lead < 0xf0 ? 2 : lead >= 0xf0 && lead < 0xf5 ? 3 : -1;
        if (more < 0 || i + static_cast<std::size_t>(more) >= text.size() + (more == 0))
            return i;
        for (int k = 1; k <= more; ++k) {
            const auto byte = static_cast<unsigned char>(text[i + static_cast<std::size_t>(k)]);
            const unsigned char low = k > 1 ? 0x80 : lead == 0xe0 ? 0xa0 : lead == 0xf0 ? 0x90 : 0x80;
            const unsigned char high = k > 1 ? 0xbf : lead == 0xed ? 0x9f : lead == 0xf4 ? 0x8f : 0xbf;
            if (byte < low || byte > high)
                return i;
        }
        i += static_cast<std::size_t>(more) + 1;
    }
    return {};
}

std::string placeOf(std::string_view text, std::size_t byte)
{
    const auto before = text.substr(0, std::min(byte, text.size()));
    const auto line = std::count(before.begin(), before.end(), '\n') + 1;
    const auto start = before.rfind('\n');
    const auto column = start == std::string_view::npos ? before.size() + 1 : before.size() - start;
    return fmt::format("line {}, column {}", line, column);
}

/// Reads along without building anything, and stops at what no build file has: deep nesting, a key twice in one object.
class Watch : public nlohmann::json_sax<Json> {
public:
    bool null() override { return true; }
    bool boolean(bool) override { return true; }
    bool number_integer(number_integer_t) override { return true; }
    bool number_unsigned(number_unsigned_t) override { return true; }
    bool number_float(number_float_t, const string_t&) override { return true; }
    bool string(string_t&) override { return true; }
    bool binary(binary_t&) override { return true; }
    bool start_object(std::size_t) override { return open(); }
    bool end_object() override { return close(); }
    bool start_array(std::size_t) override { return open(); }
    bool end_array() override { return close(); }
    bool key(string_t& name) override
    {
        if (!names_.back().insert(name).second)
            throw Refusal(fmt::format("the key “{}” stands twice in one object: remove one of them.", name));
        return true;
    }
    // What is wrong with the text itself is said by the parser proper, which knows the place.
    bool parse_error(std::size_t, const std::string&, const nlohmann::detail::exception&) override { return false; }

private:
    bool open()
    {
        names_.emplace_back();
        if (names_.size() > deepest)
            throw Refusal(fmt::format("the file nests deeper than {} levels: this is not a build file.", deepest));
        return true;
    }
    bool close()
    {
        names_.pop_back();
        return true;
    }

    std::vector<std::set<std::string>> names_;
};

Json parseStrictly(std::string_view text)
{
    if (text.find_first_not_of(" \t\r\n") == std::string_view::npos)
        throw Refusal("the file is empty: take the version kept beside it (its name ends in ~).");
    if (const auto bad = notUtf8(text))
        throw Refusal(fmt::format("{}: this is not UTF-8 text. A build file is JSON in UTF-8.", placeOf(text, *bad)));
    try {
        // A pass of its own: the library's parser with a callback takes quadratic time on long lists.
        Watch watch;
        Json::sax_parse(text, &watch);
        return Json::parse(text);
    } catch (const Json::parse_error& error) {
        if (error.byte > text.size())
            throw Refusal(fmt::format("{}: the file ends in the middle: it was cut off. Take the version kept beside it (its name ends in ~).",
                placeOf(text, text.size())));
        std::string said = error.what();
        const auto cut = said.find("syntax error while parsing ");
        said = cut == std::string::npos ? std::string("this is not JSON") : said.substr(cut + 27);
        std::ranges::replace(said, '\n', ' ');
        if (said.size() > 120)
            said = said.substr(0, 120) + "…";
        throw Refusal(fmt::format("{}: not JSON here ({}).", placeOf(text, error.byte ? error.byte - 1 : 0), said));
    } catch (const Json::out_of_range&) {
        throw Refusal("a number in the file is beyond any size this program can hold.");
    }
}

std::string pointerOf(const valijson::ValidationResults::Error& error)
{
    std::string pointer;
    for (const auto& part : error.context)
        if (part.starts_with("[\""))
            pointer += "/" + part.substr(2, part.size() - 4);
        else if (part.starts_with("["))
            pointer += "/" + part.substr(1, part.size() - 2);
    return pointer;
}

/// What the schema says about the place a pointer names.
std::string expectedAt(const Json& schema, const std::string& pointer)
{
    const Json* node = &schema;
    std::size_t at = 0;
    while (at < pointer.size()) {
        const auto end = std::min(pointer.find('/', at + 1), pointer.size());
        const auto key = pointer.substr(at + 1, end - at - 1);
        at = end;
        if (node->contains("properties") && (*node)["properties"].contains(key))
            node = &(*node)["properties"][key];
        else if (node->contains("items"))
            node = &(*node)["items"];
        else
            return {};
    }
    if (node->contains("description"))
        return (*node)["description"];
    if (node->contains("type") && (*node)["type"].is_string())
        return (*node)["type"] == "array" ? "a list" : "an object";
    return {};
}

std::string found(const Json& json)
{
    auto text = json.dump(-1, ' ', false, Json::error_handler_t::replace);
    return text.size() > 40 ? text.substr(0, 40) + "…" : text;
}

void validate(const Json& json)
{
    static const std::unique_ptr<const valijson::Schema> schema = [] {
        auto made = std::make_unique<valijson::Schema>();
        valijson::SchemaParser parser;
        const valijson::adapters::NlohmannJsonAdapter adapter(buildSchema());
        parser.populateSchema(adapter, *made);
        return made;
    }();
    valijson::Validator validator;
    valijson::ValidationResults results;
    const valijson::adapters::NlohmannJsonAdapter target(json);
    if (validator.validate(*schema, target, &results))
        return;
    // The first error is the innermost: the place itself, not the objects around it.
    valijson::ValidationResults::Error error;
    results.popError(error);
    const auto pointer = pointerOf(error);
    const auto& place = json.at(Json::json_pointer(pointer));
    auto expected = expectedAt(buildSchema(), pointer);
    if (place.is_object() && error.description.find("required") != std::string::npos)
        throw Refusal(fmt::format("{}: {}", pointer.empty() ? "/" : pointer, "the id is missing: give it one of its own."));
    throw Refusal(fmt::format("{}: found {}, expected {}.", pointer.empty() ? "/" : pointer, found(place), expected.empty() ? error.description : expected));
}

/// What the schema cannot say: ids are there once, references lead somewhere.
void checkReferences(const Build& build)
{
    std::set<std::string> wheels;
    std::set<std::string> setups;
    for (std::size_t i = 0; i < build.wheels.size(); ++i)
        if (!wheels.insert(build.wheels[i].id).second)
            throw Refusal(fmt::format("/wheels/{}/id: “{}” is taken by another wheel: give each its own.", i, build.wheels[i].id));
    for (std::size_t i = 0; i < build.setups.size(); ++i) {
        const Setup& setup = build.setups[i];
        if (!setups.insert(setup.id).second)
            throw Refusal(fmt::format("/setups/{}/id: “{}” is taken by another setup: give each its own.", i, setup.id));
        for (const auto& [name, corner] : { std::pair { "front", &setup.front }, std::pair { "rear", &setup.rear } })
            if (*corner && !(*corner)->wheel.empty() && !wheels.contains((*corner)->wheel))
                throw Refusal(fmt::format("/setups/{}/{}/wheel: there is no wheel “{}”.", i, name, (*corner)->wheel));
    }
    const auto known = [&setups](const std::string& id, std::string_view list, std::size_t i) {
        if (!setups.contains(id))
            throw Refusal(fmt::format("/{}/{}/setup: there is no setup “{}”.", list, i, id));
    };
    for (std::size_t i = 0; i < build.mockUps.size(); ++i)
        known(build.mockUps[i].setup, "mock_ups", i);
    for (std::size_t i = 0; i < build.tests.size(); ++i)
        known(build.tests[i].setup, "tests", i);
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
    } else if (unknown.is_array() && onto.is_array()) {
        for (std::size_t i = 0; i < unknown.size(); ++i) {
            const Json& rest = unknown[i];
            const auto owner = rest.contains("id")
                ? std::ranges::find_if(onto, [&](const OrderedJson& e) { return e.contains("id") && e["id"] == rest["id"].get<std::string>(); })
                : (i < onto.size() ? onto.begin() + static_cast<std::ptrdiff_t>(i) : onto.end());
            if (owner != onto.end())
                graft(*owner, rest);
        }
    }
}

} // namespace

const Json& buildSchema()
{
    static const Json schema = [] {
        Build build;
        OrderedJson made = { { "$schema", "http://json-schema.org/draft-07/schema#" }, { "title", "Deep Stop build file, version 1" },
            { "description", "Keys carry their unit. A reading is an object, or a bare number, which counts as estimated. Keys not named here are kept." } };
        made.update(SchemaWriter::of(build));
        made["properties"]["deepstop"] = { { "type", "integer" }, { "minimum", 1 }, { "maximum", buildVersion },
            { "description", fmt::format("version of this format: {}; a later one needs a later program", buildVersion) } };
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
        throw Refusal("/deepstop: the version of the format is missing: this is not a build file.");
    if (!json.contains("setups"))
        throw Refusal("/setups: missing: a build has at least one setup, the car as found.");
    validate(json);
    json.erase("deepstop");
    Reader reader(std::move(json));
    BuildFile file;
    describe(reader, file.build);
    checkReferences(file.build);
    if (!reader.left.empty())
        file.unknown = std::make_shared<const Json>(std::move(reader.left));
    return file;
}

std::string writeBuild(const BuildFile& file)
{
    Writer writer;
    writer.out["deepstop"] = buildVersion;
    Build copy = file.build;
    describe(writer, copy);
    if (file.unknown)
        graft(writer.out, *file.unknown);
    return writer.out.dump(2) + "\n";
}

BuildFile loadBuild(const std::filesystem::path& path)
{
    try {
        return parseBuild(readFile(path));
    } catch (const Refusal& refusal) {
        const std::string said = refusal.what();
        throw Refusal(said.starts_with(path.string()) ? said : fmt::format("{}: {}", path.string(), said));
    }
}

void saveBuild(const std::filesystem::path& path, const BuildFile& file) { replaceFile(path, writeBuild(file)); }

} // namespace deepstop::files
