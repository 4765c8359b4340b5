#include "files/together.hpp"

#include "files/build_file.hpp"
#include "files/element_name.hpp"
#include "files/refusal.hpp"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <iterator>
#include <set>
#include <unordered_map>
#include <unordered_set>

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

using Names = std::vector<std::string>;

/// A list whose elements each have a name.
struct Named {
    std::string list; ///< the key that it stands under
    Names names; ///< in their order
    std::unordered_map<std::string, const Tree*> elements;

    [[nodiscard]] bool holds(const std::string& name) const { return elements.contains(name); }
    [[nodiscard]] const Tree* operator[](const std::string& name) const
    {
        const auto found = elements.find(name);
        return found == elements.end() ? nullptr : found->second;
    }
};

/// Nothing where one has no name or two have the same.
std::optional<Named> byName(const std::string& key, const Tree& list)
{
    Named named { key, {}, {} };
    for (const Tree& each : list) {
        named.names.push_back(nameIn(key, each));
        if (named.names.back().empty() || !named.elements.emplace(named.names.back(), &each).second)
            return {};
    }
    return named;
}

/// Those of `names` that hold.
Names only(const Names& names, auto holds)
{
    Names those;
    std::ranges::copy_if(names, std::back_inserter(those), holds);
    return those;
}

/// Names that come after one of the kept, one run of them for each: "" is the beginning of the list.
std::unordered_map<std::string, Names> addedAfter(const Names& names, const std::unordered_set<std::string>& kept)
{
    std::unordered_map<std::string, Names> added;
    std::string after;
    for (const std::string& name : names)
        if (kept.contains(name))
            after = name;
        else
            added[after].push_back(name);
    return added;
}

/// Order of two lists made of one: whoever moved something decides, and what both added at one place comes in the same order whoever is
/// asked first.
/// @param mine,theirs without what the other took away
/// @param ordered the order says something: then both cannot add at one place
Names orderOf(const Named& base, const Names& mine, const Names& theirs, bool ordered)
{
    const std::unordered_set<std::string> here(mine.begin(), mine.end());
    const std::unordered_set<std::string> there(theirs.begin(), theirs.end());
    const Names kept = only(base.names, [&](const std::string& name) { return here.contains(name) && there.contains(name); });
    const std::unordered_set<std::string> keptSet(kept.begin(), kept.end());
    const auto isKept = [&](const std::string& name) { return keptSet.contains(name); };
    const Names ours = only(mine, isKept);
    const Names others = only(theirs, isKept);
    if (ours != kept && others != kept && ours != others)
        throw Conflict {};
    const auto added = addedAfter(mine, keptSet);
    const auto addedThere = addedAfter(theirs, keptSet);
    Names order;
    std::unordered_set<std::string> taken;
    const auto take = [&](const Names& run) {
        std::ranges::copy_if(run, std::back_inserter(order), [&](const auto& name) { return taken.insert(name).second; });
    };
    const auto takeAfter = [&](const std::string& name) {
        static const Names none;
        const auto a = added.find(name);
        const auto b = addedThere.find(name);
        const Names& run = a == added.end() ? none : a->second;
        const Names& other = b == addedThere.end() ? none : b->second;
        if (ordered && !run.empty() && !other.empty() && run != other)
            throw Conflict {};
        take(std::min(run, other));
        take(std::max(run, other));
    };
    takeAfter({});
    for (const std::string& name : ours != kept ? ours : others) {
        order.push_back(name);
        takeAfter(name);
    }
    return order;
}

Tree mergedByName(const Named& base, const Named& mine, const Named& theirs)
{
    static const Tree none;
    // What the other took away goes, unless it was changed here.
    const auto stayIn = [&](const Named& list, const Named& other) {
        return only(list.names, [&](const std::string& name) {
            const Tree* was = base[name];
            if (was && !other.holds(name) && *list[name] != *was)
                throw Conflict {};
            return !was || other.holds(name);
        });
    };
    const bool ordered = base.list == "legs" || base.list == "outline";
    Tree all = Tree::array();
    for (const std::string& name : orderOf(base, stayIn(mine, theirs), stayIn(theirs, mine), ordered)) {
        const Tree* was = base[name];
        const Tree* ours = mine[name];
        const Tree* other = theirs[name];
        // Two new ones that only share an id are two things.
        if (!was && ours && other && *ours != *other && ours->contains("id"))
            throw Conflict {};
        all.push_back(merged(was ? *was : none, ours ? *ours : none, other ? *other : none, {}));
    }
    return all;
}

bool beginsWith(const Tree& list, const Tree& base)
{
    return list.size() >= base.size() && std::equal(base.begin(), base.end(), list.begin());
}

/// Words ticked: each as whoever ticked it or took its tick away.
Tree mergedWords(const Tree& base, const Tree& mine, const Tree& theirs)
{
    const auto holds = [](const Tree& list, const Tree& word) { return std::ranges::find(list, word) != list.end(); };
    Tree all = Tree::array();
    std::set<std::string> more;
    for (const Tree& word : base)
        if (holds(mine, word) && holds(theirs, word))
            all.push_back(word);
    for (const Tree* list : { &mine, &theirs })
        for (const Tree& word : *list)
            if (!holds(base, word))
                more.insert(word.get<std::string>());
    for (const std::string& word : more)
        all.push_back(word);
    return all;
}

Tree mergedLists(const Tree& base, const Tree& mine, const Tree& theirs, const std::string& key)
{
    const auto bases = byName(key, base);
    const auto ours = byName(key, mine);
    const auto others = byName(key, theirs);
    if (bases && ours && others)
        return mergedByName(*bases, *ours, *others);
    const auto areWords = [](const Tree& list) { return std::ranges::all_of(list, [](const Tree& each) { return each.is_string(); }); };
    if (areWords(base) && areWords(mine) && areWords(theirs))
        return mergedWords(base, mine, theirs);
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
    // Readings that both added to a list of readings, in the same order whoever is asked first.
    Tree more(mine.begin() + static_cast<std::ptrdiff_t>(base.size()), mine.end());
    Tree moreThere(theirs.begin() + static_cast<std::ptrdiff_t>(base.size()), theirs.end());
    if (moreThere.dump() < more.dump())
        std::swap(more, moreThere);
    Tree all = base;
    for (const Tree& run : { more, moreThere })
        for (const Tree& each : run)
            all.push_back(each);
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
        return mergedLists(base.is_array() ? base : Tree::array(), mine, theirs, key);
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
    const auto jsonOf = [](Build build) {
        giveIds(build);
        return Tree::parse(writeBuild({ std::move(build), nullptr }));
    };
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
