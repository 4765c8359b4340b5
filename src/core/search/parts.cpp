#include "search/parts.hpp"

#include "language/language.hpp"
#include "library/kit.hpp"

#include <algorithm>
#include <stdexcept>

namespace deepstop::search {
namespace {

/// Calls `with(shelf)` for the parts of a kind.
auto onShelf(const Parts& parts, Kind kind, auto with)
{
    switch (kind) {
    case Kind::Rotor:
        return with(parts.rotors);
    case Kind::Caliper:
        return with(parts.calipers);
    case Kind::Pad:
        return with(parts.pads);
    case Kind::Wheel:
        return with(parts.wheels);
    case Kind::Master:
        return with(parts.masters);
    }
    return with(parts.masters);
}

template <class T>
std::vector<library::Shelved<T>> asSold(std::vector<library::Shelved<T>> shelf)
{
    for (auto& one : shelf)
        library::ofAnotherExample([&](Visitor& v) { describe(v, one.part); });
    return shelf;
}

} // namespace

std::string_view nameOf(Kind kind)
{
    static constexpr std::array names { marked("rotor"), marked("caliper"), marked("pad"), marked("wheel"), marked("master cylinder") };
    return names[static_cast<std::size_t>(kind)];
}

std::size_t Parts::count(Kind kind) const
{
    return onShelf(*this, kind, [](const auto& shelf) { return shelf.size(); });
}

PartName Parts::name(Kind kind, std::size_t place) const
{
    return onShelf(*this, kind, [&](const auto& shelf) {
        const auto& one = shelf.at(place);
        if (one.id.empty())
            return PartName { {}, tr("as it is") };
        return PartName { one.id, one.part.name.empty() ? one.id : std::string(one.part.name) };
    });
}

std::optional<std::size_t> Parts::find(Kind kind, std::string_view id) const
{
    return onShelf(*this, kind, [&](const auto& shelf) -> std::optional<std::size_t> {
        for (std::size_t i = 0; i < shelf.size(); ++i)
            if (shelf[i].id == id)
                return i;
        return {};
    });
}

std::uint64_t Parts::combinations() const
{
    std::uint64_t all = 1;
    for (const Kind kind : kinds)
        all *= count(kind);
    return all;
}

Parts partsFor(const library::Library& library, const Build& build, const std::vector<std::string>& wheels)
{
    Parts parts { asSold(library.rotors), asSold(library.calipers), asSold(library.pads), {}, {} };
    // A wheel of the build is this car's own, as it was measured.
    for (const Wheel& wheel : build.wheels)
        parts.wheels.push_back({ wheel.id, {}, wheel });
    const bool all = std::ranges::count(wheels, allWheels) > 0;
    for (auto& wheel : asSold(library.wheels))
        if (!findWheel(build, wheel.id) && (all || !wheels.empty() || parts.wheels.empty())) {
            wheel.part.id = wheel.id;
            parts.wheels.push_back(std::move(wheel));
        }
    if (!wheels.empty() && !all) {
        std::vector<library::Shelved<Wheel>> chosen;
        for (const std::string& id : wheels) {
            const auto found = std::ranges::find(parts.wheels, id, &library::Shelved<Wheel>::id);
            if (found == parts.wheels.end())
                throw std::invalid_argument(id);
            chosen.push_back(*found);
        }
        parts.wheels = std::move(chosen);
    }
    parts.masters.emplace_back();
    for (const auto& master : library.masters)
        parts.masters.push_back(master);
    return parts;
}

} // namespace deepstop::search
