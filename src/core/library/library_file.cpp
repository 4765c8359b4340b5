#include "library/library_file.hpp"

#include "files/disk.hpp"
#include "files/json_fields.hpp"
#include "files/json_text.hpp"
#include "files/older_builds.hpp"
#include "files/lock.hpp"
#include "language/language.hpp"

#include <fmt/format.h>

namespace deepstop::files {

const Json& librarySchema()
{
    static const Json schema = [] {
        library::Library library;
        OrderedJson made = { { "$schema", "http://json-schema.org/draft-07/schema#" }, { "title", "Deep Stop parts library, version 1" },
            { "description", "Keys carry their unit. A reading is an object, or a bare number, which counts as estimated." } };
        SchemaWriter fields;
        describe(fields, library);
        made.update(std::move(fields).schema());
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
        throw Refusal(tr("/deepstop_library: the version of the format is missing: this is not a parts library."));
    static const SchemaCheck check(librarySchema());
    // Libraries written before tokens had words.
    wordsToTokens(json, librarySchema());
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
    describe(writer, library);
    auto text = writer.out.dump(1) + "\n";
    if (text.size() > largestLibrary)
        throw Refusal(tr("the library takes {} MB; it may have at most {} MB. Take parts out.", text.size() >> 20, largestLibrary >> 20));
    return text;
}

library::Library loadLibrary(const std::filesystem::path& path)
{
    // A link to itself and a folder nobody may look into are no missing file.
    std::error_code trouble;
    if (!std::filesystem::exists(path, trouble) && (!trouble || trouble == std::errc::no_such_file_or_directory)
        && !std::filesystem::is_symlink(path, trouble))
        return {};
    return namingFile(path, [&] { return parseLibrary(readFile(path, largestLibrary)); });
}

void saveLibrary(const std::filesystem::path& path, const library::Library& library) { replaceFile(path, writeLibrary(library)); }

library::United uniteLibrary(const std::filesystem::path& path, library::Library more, std::chrono::milliseconds patience)
{
    const auto lock = lockOrRefuse(path, patience);
    auto kept = loadLibrary(path);
    const auto united = library::unite(kept, std::move(more));
    saveLibrary(path, kept);
    return united;
}

std::size_t addToLibrary(const std::filesystem::path& path, library::Library more, std::chrono::milliseconds patience)
{
    const auto lock = lockOrRefuse(path, patience);
    auto kept = loadLibrary(path);
    const auto fresh = library::merge(kept, std::move(more));
    saveLibrary(path, kept);
    return fresh;
}

} // namespace deepstop::files
