#pragma once
/// Parts libraries made by chance from the shipped one, and searches over them.

#include "core/support.hpp"
#include "library/library_file.hpp"
#include "search/search.hpp"

#include <algorithm>
#include <limits>
#include <random>

namespace deepstop {

inline const library::Library& shipped()
{
    static const auto all = files::loadLibrary(DEEPSTOP_DATA "/library/parts.json");
    return all;
}

inline constexpr double unknown = std::numeric_limits<double>::quiet_NaN();

/// Some parts of the shipped library, one or another dimension of them changed or taken away.
inline library::Library randomLibrary(unsigned seed, std::size_t rotors, std::size_t calipers, std::size_t pads, std::size_t masters)
{
    std::mt19937 rng(seed);
    const auto some = [&](const auto& shelf, std::size_t most, const char* like) {
        std::remove_cvref_t<decltype(shelf)> chosen;
        for (const auto& one : shelf)
            if (one.id.find(like) != std::string::npos)
                chosen.push_back(one);
        std::ranges::shuffle(chosen, rng);
        chosen.resize(std::min(most, chosen.size()));
        return chosen;
    };
    library::Library library;
    library.rotors = some(shipped().rotors, rotors, "");
    library.calipers = some(shipped().calipers, calipers, "");
    library.pads = some(shipped().pads, pads, "");
    library.masters = some(shipped().masters, masters, "");
    std::uniform_real_distribution<double> part(0, 1);
    const auto shake = [&](Reading& reading, double most, double goneOf = 0.03) {
        if (!reading.value)
            return;
        if (part(rng) < goneOf)
            reading = {};
        else
            reading.value = *reading.value + most * (2 * part(rng) - 1);
    };
    for (auto& rotor : library.rotors) {
        // Most of them for this hub, so that not all fail at once.
        if (part(rng) < 0.8) {
            rotor.part.bore.value = 66.6e-3;
            rotor.part.boltCircle.value = 112e-3;
            rotor.part.boltHoles = 5;
            rotor.part.pocketDiameter.value = 140e-3;
            rotor.part.hatOuterDiameter.value = 154e-3;
        }
        shake(rotor.part.outerDiameter, 15e-3);
        shake(rotor.part.overallHeight, 6e-3);
        shake(rotor.part.thickness, 3e-3);
        shake(rotor.part.hatThickness, 1e-3);
    }
    for (auto& caliper : library.calipers) {
        shake(caliper.part.backOverEdge, 4e-3);
        shake(caliper.part.mountDepth, 8e-3);
        shake(caliper.part.mountDrop, 3e-3);
        shake(caliper.part.slotWidth, 3e-3);
        shake(caliper.part.outboardDepth, 5e-3);
        shake(caliper.part.padRoom, 2e-3);
        if (part(rng) < 0.5)
            caliper.part.padWindow.value = 0.105;
    }
    for (auto& pad : library.pads) {
        shake(pad.part.thickness, 1e-3);
        if (part(rng) < 0.5)
            pad.part.length.value = 0.1043;
    }
    return library;
}

inline search::Query queryOf(const library::Library& library, Build build = demo(), std::vector<std::string> wheels = {})
{
    search::Query query;
    const auto shared = std::make_shared<const Build>(std::move(build));
    query.study = std::make_shared<const Study>(study(shared, SetupPair {}, UnitSystem::Metric, Remedies::LeftOut));
    query.parts = search::partsFor(library, *shared, wheels);
    return query;
}

inline bool isOfTheBracket(const std::string& check)
{
    return check.find("/bracket-") != std::string::npos && !check.ends_with("bracket-gap");
}

inline bool covers(const search::Loser& loser, const search::Choice& choice)
{
    for (std::size_t i = 0; i < choice.size(); ++i)
        if (loser.choice[i] != search::every && loser.choice[i] != choice[i])
            return false;
    return true;
}

} // namespace deepstop
