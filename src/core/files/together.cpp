#include "files/together.hpp"

#include "files/build_file.hpp"
#include "files/refusal.hpp"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <set>

namespace deepstop::files {
namespace {

using Json = nlohmann::ordered_json;

/// Both said something different.
struct Conflict { };

Json merged(const Json& base, const Json& mine, const Json& theirs);

bool isReading(const Json& json) { return json.is_object() && (json.contains("known") || json.contains("value")); }

/// What an element of a list goes by; empty: by its place alone.
std::string nameIn(const Json& element)
{
    for (const char* key : { "id", "step" })
        if (element.is_object() && element.contains(key) && element[key].is_string())
            return element[key].get<std::string>();
    return {};
}

bool areNamed(const Json& list)
{
    std::set<std::string> names;
    return std::ranges::all_of(list, [&](const Json& e) { return !nameIn(e).empty() && names.insert(nameIn(e)).second; });
}

const Json* named(const Json& list, const std::string& name)
{
    const auto found = std::ranges::find_if(list, [&](const Json& e) { return nameIn(e) == name; });
    return found == list.end() ? nullptr : &*found;
}

Json mergedByName(const Json& base, const Json& mine, const Json& theirs)
{
    static const Json none;
    Json all = Json::array();
    const auto take = [&](const std::string& name) {
        const Json* was = named(base, name);
        const Json* ours = named(mine, name);
        const Json* other = named(theirs, name);
        Json one = merged(was ? *was : none, ours ? *ours : none, other ? *other : none);
        if (!one.is_null())
            all.push_back(std::move(one));
    };
    for (const Json& e : mine)
        take(nameIn(e));
    for (const Json& e : theirs)
        if (!named(mine, nameIn(e)))
            take(nameIn(e));
    return all;
}

bool beginsWith(const Json& list, const Json& base)
{
    return list.size() >= base.size() && std::equal(base.begin(), base.end(), list.begin());
}

Json mergedLists(const Json& base, const Json& mine, const Json& theirs)
{
    if (areNamed(base) && areNamed(mine) && areNamed(theirs))
        return mergedByName(base, mine, theirs);
    if (mine.size() == base.size() && theirs.size() == base.size()) {
        Json all = Json::array();
        for (std::size_t i = 0; i < base.size(); ++i)
            all.push_back(merged(base[i], mine[i], theirs[i]));
        return all;
    }
    if (!beginsWith(mine, base) || !beginsWith(theirs, base))
        throw Conflict {};
    Json all = mine;
    for (std::size_t i = base.size(); i < theirs.size(); ++i)
        all.push_back(theirs[i]);
    return all;
}

Json merged(const Json& base, const Json& mine, const Json& theirs)
{
    if (mine == theirs || theirs == base)
        return mine;
    if (mine == base)
        return theirs;
    if (mine.is_array() && theirs.is_array())
        return mergedLists(base.is_array() ? base : Json::array(), mine, theirs);
    if (!mine.is_object() || !theirs.is_object() || isReading(mine) || isReading(theirs) || isReading(base))
        throw Conflict {};
    static const Json none;
    Json all = Json::object();
    const auto at = [](const Json& of, const std::string& key) -> const Json& {
        return of.is_object() && of.contains(key) ? of[key] : none;
    };
    const auto take = [&](const std::string& key) {
        if (Json one = merged(at(base, key), at(mine, key), at(theirs, key)); !one.is_null())
            all[key] = std::move(one);
    };
    for (const auto& [key, value] : mine.items())
        take(key);
    for (const auto& [key, value] : theirs.items())
        if (!mine.contains(key))
            take(key);
    return all;
}

} // namespace

std::optional<Build> together(const Build& base, const Build& mine, const Build& theirs)
{
    const auto jsonOf = [](const Build& build) { return Json::parse(writeBuild({ build, nullptr })); };
    try {
        return parseBuild(merged(jsonOf(base), jsonOf(mine), jsonOf(theirs)).dump()).build;
    } catch (const Conflict&) {
        return {};
    } catch (const Refusal&) {
        // Each alone is sound, both at once are not: more than a list may have.
        return {};
    }
}

} // namespace deepstop::files
