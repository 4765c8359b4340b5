#pragma once
/// Every field of the document, named once: its key in the file (which carries the unit), its name in the trade, how it is written
/// and in what range it means anything. Files, the published schema, editing by address and the list of missing readings all go
/// through this table (`fields.cpp`) with a visitor; a new field is one row there.

#include "build/build.hpp"
#include "build/visitor.hpp"

namespace deepstop {

/// Shows every field of `part` to `v`, in the order of the table. Defined for every part of a build and of a parts library.
template <class T>
void describe(Visitor& v, T& part);
template <class T>
void describe(ConstVisitor& v, const T& part);

} // namespace deepstop
