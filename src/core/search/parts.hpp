#pragma once
/// What a search puts together: rotors, calipers, pads, wheels and master cylinders, each with what is known of it.

#include "library/library.hpp"
#include "study/study.hpp"

#include <array>
#include <cstdint>

namespace deepstop::search {

enum class Kind { Rotor, Caliper, Pad, Wheel, Master };
inline constexpr std::array kinds { Kind::Rotor, Kind::Caliper, Kind::Pad, Kind::Wheel, Kind::Master };
[[nodiscard]] std::string_view nameOf(Kind kind);

/// Ids, name and what a shelf says of a part, whatever its kind.
struct PartName {
    std::string id; ///< empty: the master cylinder that is in the car
    std::string name;
};

struct Parts {
    std::vector<library::Shelved<Rotor>> rotors;
    std::vector<library::Shelved<Caliper>> calipers;
    std::vector<library::Shelved<Pad>> pads;
    std::vector<library::Shelved<Wheel>> wheels;
    std::vector<library::Shelved<library::MasterCylinder>> masters; ///< the one in the car first, without an id

    [[nodiscard]] std::size_t count(Kind kind) const;
    [[nodiscard]] PartName name(Kind kind, std::size_t place) const;
    /// Place of a part with that id; nothing where there is none.
    [[nodiscard]] std::optional<std::size_t> find(Kind kind, std::string_view id) const;
    /// How many kits they make.
    [[nodiscard]] std::uint64_t combinations() const;
};

/// Among the ids of wheels: those of the build and all of the library.
inline constexpr const char* allWheels = "all";
/// All of a library, as parts known from their sheets, and the wheels of the build; those of the library where it has none.
/// @param wheels ids of the build or the library instead, or `allWheels`. Throws std::invalid_argument with the id that neither has
[[nodiscard]] Parts partsFor(const library::Library& library, const Build& build, const std::vector<std::string>& wheels = {});

/// One of each kind, by its place in `Parts`.
using Choice = std::array<std::uint32_t, kinds.size()>;
/// Stands for every part of a kind.
inline constexpr std::uint32_t every = UINT32_MAX;
[[nodiscard]] constexpr std::uint32_t& at(Choice& choice, Kind kind) { return choice[static_cast<std::size_t>(kind)]; }
[[nodiscard]] constexpr std::uint32_t at(const Choice& choice, Kind kind) { return choice[static_cast<std::size_t>(kind)]; }

} // namespace deepstop::search
