#include "files/library_file.hpp"

#include "files/disk.hpp"
#include "files/json_fields.hpp"
#include "files/json_text.hpp"

namespace deepstop::files {

const Json& librarySchema()
{
    static const Json schema = [] {
        library::Library library;
        OrderedJson made = { { "$schema", "http://json-schema.org/draft-07/schema#" }, { "title", "Deep Stop parts library, version 1" },
            { "description", "Keys carry their unit. A reading is an object, or a bare number, which counts as estimated." } };
        made.update(SchemaWriter::of(library));
        made["properties"]["deepstop_library"] = { { "type", "integer" }, { "minimum", 1 }, { "maximum", 1 },
            { "description", "version of this format: 1; a later one needs a later program" } };
        made["required"] = { "deepstop_library" };
        return Json::parse(made.dump());
    }();
    return schema;
}

library::Library parseLibrary(std::string_view text)
{
    Json json = parseStrictly(text);
    if (!json.is_object() || !json.contains("deepstop_library"))
        throw Refusal("/deepstop_library: the version of the format is missing: this is not a parts library.");
    static const SchemaCheck check(librarySchema());
    check(json);
    Reader reader(std::move(json));
    library::Library library;
    describe(reader, library);
    return library;
}

std::string writeLibrary(const library::Library& library)
{
    Writer writer;
    writer.out["deepstop_library"] = 1;
    auto copy = library;
    describe(writer, copy);
    return writer.out.dump(1) + "\n";
}

library::Library loadLibrary(const std::filesystem::path& path)
{
    if (!std::filesystem::exists(path))
        return {};
    try {
        return parseLibrary(readFile(path, largestLibrary));
    } catch (const Refusal& refusal) {
        const std::string said = refusal.what();
        throw Refusal(said.starts_with(path.string()) ? said : fmt::format("{}: {}", path.string(), said));
    }
}

void saveLibrary(const std::filesystem::path& path, const library::Library& library) { replaceFile(path, writeLibrary(library)); }

} // namespace deepstop::files
