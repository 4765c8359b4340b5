#pragma once
/// Parts kept across builds. A build copies what it uses; the library keeps its own and the two can be held against each other.

#include "build/build.hpp"
#include "build/fields.hpp"

#include <functional>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace deepstop::library {

enum class Kind { Rotor, Caliper, Pad, Wheel, Bracket, Hose, Kit };
[[nodiscard]] std::string_view nameOf(Kind kind);
/// Several of them, in the reader's language: "rotors".
[[nodiscard]] std::string_view inNumber(Kind kind);

/// A part on its shelf. A wheel's own id is the shelf's, a kit's too.
template <class T>
struct Shelved {
    std::string id;
    std::string note;
    T part;
    Reading mass {}; ///< of one, complete as it is bolted on; a rotor with its hat, a caliper without pads, a set of pads for one wheel
    Reading price {}; ///< of what one axle takes, in the currency of the build that it is held against; of wheels all four
    bool operator==(const Shelved&) const = default;
};

/// A master cylinder as it is sold.
struct MasterCylinder {
    std::string name;
    Reading bore;
    Reading stroke; ///< of the push rod, both chambers of a tandem used up
    bool operator==(const MasterCylinder&) const = default;
};

/// More parts of one kind are no library.
inline constexpr std::size_t mostOnShelf = 200'000;

struct Library {
    std::vector<Shelved<Rotor>> rotors;
    std::vector<Shelved<Caliper>> calipers;
    std::vector<Shelved<Pad>> pads;
    std::vector<Shelved<Wheel>> wheels;
    std::vector<Shelved<Bracket>> brackets;
    std::vector<Shelved<Hose>> hoses;
    std::vector<Shelved<MasterCylinder>> masters; ///< for a search; no corner holds one
    std::vector<Shelved<Setup>> kits; ///< whole ones, as `kitOf` makes them
    bool operator==(const Library&) const = default;
};

/// What a search shows of a part.
struct Found {
    Kind kind;
    std::string id;
    std::string name;
    std::string about; ///< its main dimensions
};

/// A shelf made ready for searching: what would be shown of each part, and its words.
class Index {
public:
    Index() = default;
    Index(const Library& library, Kind kind, UnitSystem system);
    /// As `search`.
    [[nodiscard]] std::vector<Found> search(std::string_view words, std::size_t most = 200) const;

private:
    std::vector<std::pair<Found, std::string>> entries_;
};

/// Parts of a kind whose name, dimensions or note hold every word of `words`, in shelf order, at most `most`. No words: all of them.
[[nodiscard]] std::vector<Found> search(
    const Library& library, Kind kind, std::string_view words, std::size_t most = 200, UnitSystem system = UnitSystem::Metric);

/// A copy of `build` with the library's part in setup `setup` on `axle`, nothing of it as measured; the part remembers where it is from. An
/// axle the setup left as found begins to differ. A kit becomes a setup of its own instead, as by `kitTakenIn`. Unchanged where the library
/// or the build has no such thing.
[[nodiscard]] Build withPart(Build build, const std::string& setup, Axle axle, const Library& library, Kind kind, const std::string& id);

/// Keeps the kit of a setup in the library, in place of the one with the same name, or anew.
/// @return its id; empty for a setup that brings no axle
std::string keepKit(Library& library, const Setup& setup);

/// Keeps a part of that corner in the library under its own name, as another example of it is known, in place of the one with the same id,
/// or anew.
/// @return its id; empty for a kit, which is no part of a corner
std::string keep(Library& library, const Corner& corner, const Build& build, Kind kind);

/// Labels of what differs between a corner's part and the one in the library that it came from; empty when they are alike; nothing where it
/// came from no library, or the library has it no more.
[[nodiscard]] std::optional<std::vector<std::string>> differences(
    const Library& library, const Corner& corner, const Build& build, Kind kind);

/// Puts all of `more` into `library`, the same id replacing; an empty id is given one. Returns how many were new.
std::size_t merge(Library& library, Library more);

/// What became of another library's parts.
struct United {
    std::size_t added = 0; ///< under their own ids
    std::size_t beside = 0; ///< under new ids, since their own stand for other parts here
    std::size_t same = 0; ///< were there already
};
/// Puts another builder's library beside this one, so that nothing of either is lost.
[[nodiscard]] United unite(Library& library, Library more);

/// An id made of a name: small letters, figures and dashes.
[[nodiscard]] std::string idFrom(std::string_view name);

/// Calls `with(shelf)` for the shelf of a kind.
void onShelf(auto& library, Kind kind, auto with)
{
    switch (kind) {
    case Kind::Rotor:
        with(library.rotors);
        break;
    case Kind::Caliper:
        with(library.calipers);
        break;
    case Kind::Pad:
        with(library.pads);
        break;
    case Kind::Wheel:
        with(library.wheels);
        break;
    case Kind::Bracket:
        with(library.brackets);
        break;
    case Kind::Hose:
        with(library.hoses);
        break;
    case Kind::Kit:
        with(library.kits);
        break;
    }
}

} // namespace deepstop::library
