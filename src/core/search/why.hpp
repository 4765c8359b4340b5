#pragma once
/// Why a kit does not go, and one kit into the build.

#include "search/search.hpp"

namespace deepstop::search {

/// One check that fails or is in doubt.
struct Reason {
    std::string id;
    std::string title; ///< of a whole car with its axle
    std::string said;
    Level level = Level::Unproven;
    std::vector<std::string> remedies;
    bool isLimit = false; ///< it is a limit of the query that is broken
};

struct Why {
    std::vector<Reason> fails; ///< all of them, in the order of the search
    std::vector<Reason> doubts;
    std::string mended; ///< the first remedy after which nothing fails any more; empty where none alone does
};

/// Everything a kit fails, from a study of it with its remedies. Takes some tenths of a second.
/// @param rear of a whole car
[[nodiscard]] Why whyNot(const Query& query, const Choice& choice, const std::optional<Choice>& rear = {});

/// Puts a kit into the build as a setup of its own, beside the one it was searched from: its parts known from their sheets, and what its
/// bracket and shims make as *design*, unproven until it is read.
/// @param rear of a whole car
[[nodiscard]] Edit putIn(const Query& query, const Choice& choice, const std::string& name, const std::optional<Choice>& rear = {});
/// "Varnik 330 × 28, Varnik four-piston 38 + 42, Track pad …"
[[nodiscard]] std::string nameOf(const Query& query, const Choice& choice);
/// Of a whole car both axles' in turn.
[[nodiscard]] std::string nameOf(const Query& query, const Kit& kit);

} // namespace deepstop::search
