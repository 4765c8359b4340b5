/// The rows of a parts library in the table of fields.

#include "build/table.hpp"
#include "library/library.hpp"

namespace deepstop {

// The parts themselves have their rows in build/fields.cpp.
#define ELSEWHERE(Part)                                                                                                                    \
    extern template void describe(Visitor&, Part&);                                                                                        \
    extern template void describe(ConstVisitor&, const Part&);
ELSEWHERE(Rotor)
ELSEWHERE(Caliper)
ELSEWHERE(Pad)
ELSEWHERE(Wheel)
ELSEWHERE(Bracket)
ELSEWHERE(Hose)
ELSEWHERE(Setup)
#undef ELSEWHERE

namespace library {

template <class V, class S>
requires requires(S s)
{
    s.id;
    s.note;
    s.part;
}
void fields(V& v, S& s)
{
    v.text("id", "id", s.id);
    v.text("note", "note", s.note);
    v.object("part", "", s.part);
}

template <class V, Is<Library> T>
void fields(V& v, T& l)
{
    v.list("rotors", "", mostOnShelf, l.rotors);
    v.list("calipers", "", mostOnShelf, l.calipers);
    v.list("pads", "", mostOnShelf, l.pads);
    v.list("wheels", "", mostOnShelf, l.wheels);
    v.list("brackets", "", mostOnShelf, l.brackets);
    v.list("hoses", "", mostOnShelf, l.hoses);
    v.list("kits", "", mostOnShelf, l.kits);
}

} // namespace library

DESCRIBED(library::Shelved<Rotor>)
DESCRIBED(library::Shelved<Caliper>)
DESCRIBED(library::Shelved<Pad>)
DESCRIBED(library::Shelved<Wheel>)
DESCRIBED(library::Shelved<Bracket>)
DESCRIBED(library::Shelved<Hose>)
DESCRIBED(library::Shelved<Setup>)
DESCRIBED(library::Library)

} // namespace deepstop
