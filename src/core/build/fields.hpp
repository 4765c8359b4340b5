#pragma once
/// Every field of the document, named once: its key in the file (which carries the unit), its name in the trade, how it is written
/// and in what range it means anything. Files, the published schema, editing by address and the list of missing readings all go
/// through this table (`*_fields.cpp`) with a visitor; a new field is one row there.

#include "build/build.hpp"
#include "build/visitor.hpp"

namespace deepstop {

/// Shows every field of `part` to `v`, in the order of the table. Defined for every part of a build and of a parts library.
template <class T>
void describe(Visitor& v, T& part);
template <class T>
void describe(ConstVisitor& v, const T& part);

#define DEEPSTOP_DESCRIBED_ELSEWHERE(Part)                                                                                                 \
    extern template void describe(Visitor&, Part&);                                                                                        \
    extern template void describe(ConstVisitor&, const Part&);
DEEPSTOP_DESCRIBED_ELSEWHERE(Car)
DEEPSTOP_DESCRIBED_ELSEWHERE(Hydraulics)
DEEPSTOP_DESCRIBED_ELSEWHERE(Leg)
DEEPSTOP_DESCRIBED_ELSEWHERE(DutyPlan)
DEEPSTOP_DESCRIBED_ELSEWHERE(Carried)
DEEPSTOP_DESCRIBED_ELSEWHERE(LoadCase)
DEEPSTOP_DESCRIBED_ELSEWHERE(KeepOut)
DEEPSTOP_DESCRIBED_ELSEWHERE(Hub)
DEEPSTOP_DESCRIBED_ELSEWHERE(BarrelStation)
DEEPSTOP_DESCRIBED_ELSEWHERE(SpokeStation)
DEEPSTOP_DESCRIBED_ELSEWHERE(Inset)
DEEPSTOP_DESCRIBED_ELSEWHERE(Wheel)
DEEPSTOP_DESCRIBED_ELSEWHERE(Rotor)
DEEPSTOP_DESCRIBED_ELSEWHERE(Bump)
DEEPSTOP_DESCRIBED_ELSEWHERE(Caliper)
DEEPSTOP_DESCRIBED_ELSEWHERE(FrictionPoint)
DEEPSTOP_DESCRIBED_ELSEWHERE(Pad)
DEEPSTOP_DESCRIBED_ELSEWHERE(Mount)
DEEPSTOP_DESCRIBED_ELSEWHERE(Fitted)
DEEPSTOP_DESCRIBED_ELSEWHERE(BracketPoint)
DEEPSTOP_DESCRIBED_ELSEWHERE(Drum)
DEEPSTOP_DESCRIBED_ELSEWHERE(Weighing)
DEEPSTOP_DESCRIBED_ELSEWHERE(Bracket)
DEEPSTOP_DESCRIBED_ELSEWHERE(Hose)
DEEPSTOP_DESCRIBED_ELSEWHERE(Relief)
DEEPSTOP_DESCRIBED_ELSEWHERE(LineEnd)
DEEPSTOP_DESCRIBED_ELSEWHERE(LinePart)
DEEPSTOP_DESCRIBED_ELSEWHERE(AdapterRing)
DEEPSTOP_DESCRIBED_ELSEWHERE(ShieldPart)
DEEPSTOP_DESCRIBED_ELSEWHERE(SpacerPart)
DEEPSTOP_DESCRIBED_ELSEWHERE(Purchase)
DEEPSTOP_DESCRIBED_ELSEWHERE(VendorQuestion)
DEEPSTOP_DESCRIBED_ELSEWHERE(Costs)
DEEPSTOP_DESCRIBED_ELSEWHERE(Receipt)
DEEPSTOP_DESCRIBED_ELSEWHERE(Joint)
DEEPSTOP_DESCRIBED_ELSEWHERE(Corner)
DEEPSTOP_DESCRIBED_ELSEWHERE(Setup)
DEEPSTOP_DESCRIBED_ELSEWHERE(Tick)
DEEPSTOP_DESCRIBED_ELSEWHERE(MeasuredTemperature)
DEEPSTOP_DESCRIBED_ELSEWHERE(MeasuredStop)
DEEPSTOP_DESCRIBED_ELSEWHERE(TestSession)
DEEPSTOP_DESCRIBED_ELSEWHERE(Opening)
DEEPSTOP_DESCRIBED_ELSEWHERE(JobCard)
DEEPSTOP_DESCRIBED_ELSEWHERE(WearReading)
DEEPSTOP_DESCRIBED_ELSEWHERE(LogEntry)
DEEPSTOP_DESCRIBED_ELSEWHERE(ShimStock)
DEEPSTOP_DESCRIBED_ELSEWHERE(Pass)
DEEPSTOP_DESCRIBED_ELSEWHERE(MockUp)
DEEPSTOP_DESCRIBED_ELSEWHERE(Wants)
DEEPSTOP_DESCRIBED_ELSEWHERE(Build)
#undef DEEPSTOP_DESCRIBED_ELSEWHERE

} // namespace deepstop
