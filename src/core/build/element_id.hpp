#pragma once
/// Which element of a list it is.

#include <string>

namespace deepstop {

struct Build;

/// Tells an element from its neighbours for good: in the file, where two hands' work is put together, and where a newer program's keys
/// stand. Given when an edit is committed or a file opened, never shown, and of no weight in any sum.
struct ElementId {
    std::string text;
    bool operator==(const ElementId&) const = default;
};

/// Gives each element of the build's lists an id that no other of its list has, made of what the element says: the same for everybody who
/// adds the same. One that has an id keeps it; of two with the same, the first.
void giveIds(Build& build);

} // namespace deepstop
