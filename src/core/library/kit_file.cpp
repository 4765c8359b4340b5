#include "library/kit_file.hpp"

#include "files/disk.hpp"
#include "files/exports.hpp"
#include "files/json_fields.hpp"
#include "files/json_text.hpp"
#include "files/refusal.hpp"
#include "language/language.hpp"
#include "library/kit.hpp"

namespace deepstop::files {

const Json& kitSchema()
{
    static const Json schema = [] {
        OrderedJson made = { { "$schema", "http://json-schema.org/draft-07/schema#" }, { "title", "Deep Stop kit, version 1" },
            { "description",
                "What a kit brings, without the car it was tried on. Keys carry their unit; a setup is as in a build file." } };
        SchemaWriter setup;
        describe(setup, Setup {});
        made["type"] = "object";
        made["properties"] = { { "deepstop_kit",
                                   { { "type", "integer" }, { "minimum", 1 }, { "maximum", 1 },
                                       { "description", "version of this format: 1; a later one needs a later program" } } },
            { "kit", std::move(setup).schema() } };
        made["required"] = { "deepstop_kit", "kit" };
        return Json::parse(made.dump());
    }();
    return schema;
}

Setup parseKit(std::string_view text)
{
    Json json = parseStrictly(text);
    if (!json.is_object() || !json.contains("deepstop_kit"))
        throw Refusal(tr("/deepstop_kit: the version of the format is missing: this is not a kit."));
    if (!json.contains("kit"))
        throw Refusal(tr("/kit: missing: it holds what the kit brings."));
    static const SchemaCheck check(kitSchema());
    check(json);
    Reader reader(std::move(json["kit"]));
    Setup kit;
    describe(reader, kit);
    if (!kit.front && !kit.rear)
        throw Refusal(tr("/kit: holds brakes for no axle; a kit has “front”, “rear” or both."));
    return kit;
}

std::string writeKit(const Setup& setup)
{
    if (!setup.front && !setup.rear)
        throw Refusal(tr("the setup “{}” brings no brakes of its own: there is no kit in it.", setup.name));
    Writer writer;
    writer.out["deepstop_kit"] = 1;
    Writer kit;
    describe(kit, library::kitOf(setup));
    writer.out["kit"] = std::move(kit.out);
    return writer.out.dump(1) + "\n";
}

Setup loadKit(const std::filesystem::path& path)
{
    return namingFile(path, [&] { return parseKit(readFile(path, largestKit)); });
}

void exportKit(const std::filesystem::path& path, const Setup& setup)
{
    // Also a list is of a kit, and refused where there is none.
    const auto text = writeKit(setup);
    const auto ending = path.extension().string();
    exportFile(path, ending == ".csv" || ending == ".CSV" ? library::linesCsv(library::kitOf(setup)) : text);
}

} // namespace deepstop::files
