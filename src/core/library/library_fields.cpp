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
    v.reading("mass_kg", "weight", style::partMass, range::partMass, s.mass);
    v.reading("price", "price", style::money, range::money, s.price);
}

template <class V, Is<MasterCylinder> T>
void fields(V& v, T& m)
{
    v.text("name", "name", m.name);
    v.reading("bore_mm", "master cylinder bore", style::fine, range::bore, m.bore);
    v.reading("stroke_mm", "master cylinder's whole stroke", style::size, range::thickness, m.stroke);
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
    v.list("masters", "", mostOnShelf, l.masters);
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
DESCRIBED(library::MasterCylinder)
DESCRIBED(library::Shelved<library::MasterCylinder>)
DESCRIBED(library::Library)

} // namespace deepstop
