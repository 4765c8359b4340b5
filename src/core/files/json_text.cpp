#include "files/json_text.hpp"

#include "files/refusal.hpp"
#include "task/cancel.hpp"

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

/// Counts the bytes of a text as a parser takes them, so that whoever listens to it knows the place.
class Counting {
public:
    using iterator_category = std::input_iterator_tag;
    using value_type = char;
    using difference_type = std::ptrdiff_t;
    using pointer = const char*;
    using reference = const char&;

    Counting(const char* at, const char** farthest) : at_(at), farthest_(farthest) { }
    const char& operator*() const { return *at_; }
    Counting& operator++()
    {
        *farthest_ = ++at_;
        return *this;
    }
    bool operator==(const Counting& o) const { return at_ == o.at_; }
    bool operator!=(const Counting& o) const { return at_ != o.at_; }

private:
    const char* at_;
    const char** farthest_;
};

/// Reads along without building anything, and stops at what no file of this program has: deep nesting, a key twice in one object,
/// control characters in its text, numbers beyond a double, and whatever is no JSON.
class Watch : public nlohmann::json_sax<Json> {
public:
    explicit Watch(std::string_view text) : text_(text), farthest(text.data()) { }

    bool null() override { return true; }
    bool boolean(bool) override { return true; }
    bool number_integer(number_integer_t) override { return true; }
    bool number_unsigned(number_unsigned_t) override { return true; }
    bool number_float(number_float_t, const string_t&) override { return true; }
    bool string(string_t& value) override { return printable(value); }
    bool binary(binary_t&) override { return true; }
    bool start_object(std::size_t) override { return open(); }
    bool end_object() override { return close(); }
    bool start_array(std::size_t) override { return open(); }
    bool end_array() override { return close(); }
    bool key(string_t& name) override
    {
        if (!names_.back().insert(name).second)
            refuse(fmt::format("the key “{}” stands twice in one object: remove one of them.", shortened(name)));
        return printable(name);
    }
    bool parse_error(std::size_t byte, const std::string& token, const nlohmann::detail::exception& error) override
    {
        constexpr int outOfRange = 406; // of the library's exceptions
        if (error.id == outOfRange)
            refuse(fmt::format("{} is beyond any size this program can hold.", shortened(token)));
        if (byte > text_.size())
            throw Refusal(
                fmt::format("{}: the file ends in the middle: it was cut off. Take the version kept beside it (its name ends in ~).",
                    placeOf(text_, text_.size())));
        std::string said = error.what();
        const auto cut = said.find("syntax error while parsing ");
        said = cut == std::string::npos ? std::string("this is not JSON") : said.substr(cut + 27);
        throw Refusal(fmt::format("{}: not JSON here ({}).", placeOf(text_, byte ? byte - 1 : 0), shortened(said, 120)));
    }

private:
    bool open()
    {
        endIfCancelled();
        names_.emplace_back();
        if (names_.size() > deepest)
            refuse(fmt::format("the file nests deeper than {} levels: this is not a build file.", deepest));
        return true;
    }
    bool close()
    {
        names_.pop_back();
        return true;
    }
    bool printable(const std::string& text) const
    {
        if (const auto bad = controlCharacter(text))
            refuse(fmt::format("“{}” holds a control character ({}): take it out.", shortened(text), shortened(text.substr(*bad, 2), 2)));
        return true;
    }
    /// With the place the parser has come to.
    [[noreturn]] void refuse(const std::string& why) const
    {
        const auto taken = static_cast<std::size_t>(farthest - text_.data());
        throw Refusal(fmt::format("{}: {}", placeOf(text_, taken ? taken - 1 : 0), why));
    }

    std::string_view text_;
    std::vector<std::set<std::string>> names_;

public:
    const char* farthest; ///< what the parser has taken
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

std::string found(const Json& json) { return shortened(json.dump(-1, ' ', false, Json::error_handler_t::replace)); }

} // namespace

nlohmann::json parseStrictly(std::string_view text)
{
    if (text.find_first_not_of(" \t\r\n") == std::string_view::npos)
        throw Refusal("the file is empty: take the version kept beside it (its name ends in ~).");
    if (const auto bad = notUtf8(text))
        throw Refusal(fmt::format("{}: this is not UTF-8 text. A build file is JSON in UTF-8.", placeOf(text, *bad)));
    // The parser takes a zero byte for the end of the text, whatever follows.
    if (const auto zero = text.find('\0'); zero != std::string_view::npos)
        throw Refusal(fmt::format("{}: a zero byte stands here: this is not text.", placeOf(text, zero)));
    // A pass of its own: the library's parser with a callback takes quadratic time on long lists.
    Watch watch(text);
    const char* const begin = text.data();
    if (!Json::sax_parse(Counting(begin, &watch.farthest), Counting(begin + text.size(), &watch.farthest), &watch))
        throw Refusal("this is not JSON.");
    return Json::parse(text);
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
    throw Refusal(fmt::format(
        "{}: found {}, expected {}.", pointer.empty() ? "/" : pointer, found(place), expected.empty() ? error.description : expected));
}

} // namespace deepstop::files
