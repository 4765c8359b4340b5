#pragma once
/// JSON text read strictly, and held against a schema, with refusals a person can act on.

#include <nlohmann/json.hpp>

#include <memory>
#include <string_view>

namespace deepstop::files {

/// Throws Refusal, with line and column, for text that is empty, not UTF-8, not JSON, nested deeper than 32, names a key twice, holds a
/// control character or a number beyond a double.
[[nodiscard]] nlohmann::json parseStrictly(std::string_view text);

/// A schema made ready once. `schema` must outlive it.
class SchemaCheck {
public:
    explicit SchemaCheck(const nlohmann::json& schema);
    ~SchemaCheck();
    /// Throws Refusal with the JSON pointer, what stands there and what is expected.
    void operator()(const nlohmann::json& json) const;

private:
    struct Compiled;
    const nlohmann::json& schema_;
    std::unique_ptr<Compiled> compiled_;
};

} // namespace deepstop::files
