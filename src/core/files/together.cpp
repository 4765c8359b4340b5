#include "files/together.hpp"

#include "files/build_file.hpp"
#include "files/refusal.hpp"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <set>

namespace deepstop::files {
namespace {

using Tree = nlohmann::ordered_json;

/// Both said something different.
struct Conflict { };

Tree merged(const Tree& base, const Tree& mine, const Tree& theirs, const std::string& key);

/// An object that says nothing but what a reading says.
bool isReading(const Tree& json)
{
    static const std::set<std::string> says { "value", "plus_minus", "known", "with", "on", "repeats" };
    return json.is_object() && !json.empty()
        && std::ranges::all_of(json.items(), [](const auto& item) { return says.contains(item.key()); });
}

/// Lists of which each belongs to a thing of its own: one job card a setup, one mock-up a corner of a setup, one wear a corner.
struct Naming {
    std::string list; ///< the key that it stands under

    /// What an element goes by; empty: by its place alone.
    [[nodiscard]] std::string operator()(const Tree& element) const;
};

std::string Naming::operator()(const Tree& element) const
{
    if (!element.is_object())
        return {};
    const auto text = [&](const char* key) {
        return element.contains(key) && element[key].is_string() ? element[key].get<std::string>() : std::string();
    };
    for (const char* key : { "id", "step", "item" })
        if (element.contains(key))
            return text(key);
    if (list == "mock_ups" || list == "wear")
        return text("setup") + "/" + text("axle") + "/" + text("side");
    return list == "cards" ? text("setup") : std::string();
}

bool areNamed(const Tree& list, const Naming& nameIn)
{
    std::set<std::string> names;
    return std::ranges::all_of(list, [&](const Tree& e) { return !nameIn(e).empty() && names.insert(nameIn(e)).second; });
}

const Tree* named(const Tree& list, const std::string& name, const Naming& nameIn)
{
    const auto found = std::ranges::find_if(list, [&](const Tree& e) { return nameIn(e) == name; });
    return found == list.end() ? nullptr : &*found;
}

Tree mergedByName(const Tree& base, const Tree& mine, const Tree& theirs, const Naming& nameIn)
{
    static const Tree none;
    Tree all = Tree::array();
    const auto take = [&](const std::string& name) {
        const Tree* was = named(base, name, nameIn);
        const Tree* ours = named(mine, name, nameIn);
        const Tree* other = named(theirs, name, nameIn);
        Tree one = merged(was ? *was : none, ours ? *ours : none, other ? *other : none, {});
        if (!one.is_null())
            all.push_back(std::move(one));
    };
    for (const Tree& e : mine)
        take(nameIn(e));
    for (const Tree& e : theirs)
        if (!named(mine, nameIn(e), nameIn))
            take(nameIn(e));
    return all;
}

bool beginsWith(const Tree& list, const Tree& base)
{
    return list.size() >= base.size() && std::equal(base.begin(), base.end(), list.begin());
}

Tree mergedLists(const Tree& base, const Tree& mine, const Tree& theirs, const Naming& nameIn)
{
    if (areNamed(base, nameIn) && areNamed(mine, nameIn) && areNamed(theirs, nameIn))
        return mergedByName(base, mine, theirs, nameIn);
    if (mine.size() == base.size() && theirs.size() == base.size()) {
        // Nothing tells whether two changes at one place are of one thing: one of them may have put another in its place.
        Tree all = Tree::array();
        for (std::size_t i = 0; i < base.size(); ++i) {
            if (mine[i] != base[i] && theirs[i] != base[i] && mine[i] != theirs[i])
                throw Conflict {};
            all.push_back(mine[i] != base[i] ? mine[i] : theirs[i]);
        }
        return all;
    }
    if (!beginsWith(mine, base) || !beginsWith(theirs, base))
        throw Conflict {};
    Tree all = mine;
    for (std::size_t i = base.size(); i < theirs.size(); ++i)
        all.push_back(theirs[i]);
    return all;
}

/// @param key under which they stand; of a list
Tree merged(const Tree& base, const Tree& mine, const Tree& theirs, const std::string& key)
{
    if (mine == theirs || theirs == base)
        return mine;
    if (mine == base)
        return theirs;
    if (mine.is_array() && theirs.is_array())
        return mergedLists(base.is_array() ? base : Tree::array(), mine, theirs, { key });
    if (!mine.is_object() || !theirs.is_object() || isReading(mine) || isReading(theirs) || isReading(base))
        throw Conflict {};
    static const Tree none;
    Tree all = Tree::object();
    const auto at = [](const Tree& of, const std::string& name) -> const Tree& {
        return of.is_object() && of.contains(name) ? of[name] : none;
    };
    const auto take = [&](const std::string& name) {
        if (Tree one = merged(at(base, name), at(mine, name), at(theirs, name), name); !one.is_null())
            all[name] = std::move(one);
    };
    for (const auto& [name, value] : mine.items())
        take(name);
    for (const auto& [name, value] : theirs.items())
        if (!mine.contains(name))
            take(name);
    return all;
}

} // namespace

std::optional<Build> together(const Build& base, const Build& mine, const Build& theirs)
{
    const auto jsonOf = [](const Build& build) { return Tree::parse(writeBuild({ build, nullptr })); };
    try {
        return parseBuild(merged(jsonOf(base), jsonOf(mine), jsonOf(theirs), {}).dump()).build;
    } catch (const Conflict&) {
        return {};
    } catch (const Refusal&) {
        // Each alone is sound, both at once are not: more than a list may have.
        return {};
    }
}

Edit editBetween(std::shared_ptr<const Build> base, std::shared_ptr<const Build> after)
{
    return [base = std::move(base), after = std::move(after)](const Build& now) -> std::optional<Build> {
        return now == *base ? *after : together(*base, now, *after);
    };
}

} // namespace deepstop::files
