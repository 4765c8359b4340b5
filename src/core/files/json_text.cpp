#include "files/json_text.hpp"

#include "files/refusal.hpp"

#include <fmt/format.h>

#include <valijson/adapters/nlohmann_json_adapter.hpp>
#include <valijson/schema.hpp>
#include <valijson/schema_parser.hpp>
#include <valijson/validation_results.hpp>
#include <valijson/validator.hpp>

#include <algorithm>
#include <set>
#include <vector>

namespace deepstop::files {

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

namespace {

using Json = nlohmann::json;

constexpr std::size_t deepest = 32;

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

} // namespace

nlohmann::json parseStrictly(std::string_view text)
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

struct SchemaCheck::Compiled {
    valijson::Schema schema;
};

SchemaCheck::SchemaCheck(const nlohmann::json& schema) : schema_(schema), compiled_(std::make_unique<Compiled>())
{
    valijson::SchemaParser parser;
    const valijson::adapters::NlohmannJsonAdapter adapter(schema);
    parser.populateSchema(adapter, compiled_->schema);
}

SchemaCheck::~SchemaCheck() = default;

void SchemaCheck::operator()(const nlohmann::json& json) const
{
    valijson::Validator validator;
    valijson::ValidationResults results;
    const valijson::adapters::NlohmannJsonAdapter target(json);
    if (validator.validate(compiled_->schema, target, &results))
        return;
    // The first error is the innermost: the place itself, not the objects around it.
    valijson::ValidationResults::Error error;
    results.popError(error);
    const auto pointer = pointerOf(error);
    const auto& place = json.at(Json::json_pointer(pointer));
    auto expected = expectedAt(schema_, pointer);
    if (place.is_object() && error.description.find("required") != std::string::npos)
        throw Refusal(fmt::format("{}: {}", pointer.empty() ? "/" : pointer, "the id is missing: give it one of its own."));
    throw Refusal(fmt::format("{}: found {}, expected {}.", pointer.empty() ? "/" : pointer, found(place), expected.empty() ? error.description : expected));
}

} // namespace deepstop::files
