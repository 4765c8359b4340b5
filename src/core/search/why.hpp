#pragma once
/// Why a kit does not go, and one kit into the build.

#include "search/search.hpp"

namespace deepstop::search {

/// One check that fails or is in doubt.
struct Reason {
    std::string id;
    std::string title;
    std::string said;
    Level level = Level::Unproven;
    std::vector<std::string> remedies;
};

struct Why {
    std::vector<Reason> fails; ///< all of them, in the order of the search
    std::vector<Reason> doubts;
    std::string mended; ///< the first remedy after which nothing fails any more; empty where none alone does
};

/// Everything a kit fails, from a study of it with its remedies. Takes some tenths of a second.
[[nodiscard]] Why whyNot(const Query& query, const Choice& choice);

/// Puts a kit into the build as a setup of its own, beside the one it was searched from: its parts known from their sheets, and what its
/// bracket and shims make as *design*, unproven until it is read.
[[nodiscard]] Edit putIn(const Query& query, const Choice& choice, const std::string& name);
/// "Varnik 330 × 28, Varnik four-piston 38 + 42, Track pad …"
[[nodiscard]] std::string nameOf(const Query& query, const Choice& choice);

} // namespace deepstop::search
