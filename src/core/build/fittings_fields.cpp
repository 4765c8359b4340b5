/// The table of fields: what fastens and connects.

#include "build/table.hpp"

namespace deepstop {

template <class V, Is<BracketPoint> T>
void fields(V& v, T& p)
{
    v.element(p.id);
    v.reading("across_mm", "across, from the lugs' middle", style::size, range::place, p.across);
    v.reading("radius_mm", "from the axis", style::size, range::length, p.radius);
}

template <class V, Is<Relief> T>
void fields(V& v, T& r)
{
    v.element(r.id);
    v.reading("across_mm", "relief's middle across, from the lugs' middle", style::size, range::place, r.across);
    v.reading("radius_mm", "relief's middle from the axis", style::size, range::length, r.radius);
    v.reading("width_mm", "width of the relief", style::size, range::thickness, r.width);
    v.reading("depth_mm", "depth of the relief", style::size, range::thickness, r.depth);
}

template <class V, Is<Bracket> T>
void fields(V& v, T& b)
{
    v.text("name", "name", b.name);
    v.reading("knuckle_spacing_mm", "bracket's holes towards the knuckle", style::size, range::length, b.knuckleSpacing);
    v.reading("caliper_spacing_mm", "bracket's holes towards the caliper", style::size, range::length, b.caliperSpacing);
    v.reading("thickness_mm", "bracket's thickness", style::size, range::thickness, b.thickness);
    v.reading("knuckle_hole_mm", "bracket's hole towards the knuckle", style::size, range::bore, b.knuckleHole);
    v.reading("caliper_hole_mm", "bracket's hole towards the caliper", style::size, range::bore, b.caliperHole);
    v.reading("proud_knuckle_mm", "bolts proud of the bracket, at the knuckle", style::size, range::height, b.proudKnuckle);
    v.reading("proud_caliper_mm", "bolts proud of the bracket, at the caliper", style::size, range::height, b.proudCaliper);
    v.text("material", "bracket's material", b.material);
    v.text("bolt_thread", "thread of the bracket's bolts", b.boltThread);
    v.list("reliefs", "relief in the bracket's back", 24, b.reliefs);
    v.list("outline", "point of the bracket's edge", 200, b.outline);
}

template <class V, Is<LineEnd> T>
void fields(V& v, T& e)
{
    v.text("thread", "thread", e.thread);
    v.choice("seat", "seat", e.seat, choices::seat);
    v.choice("gender", "male or female", e.gender, choices::gender);
}

template <class V, Is<LinePart> T>
void fields(V& v, T& p)
{
    v.element(p.id);
    v.choice("kind", "what it is", p.kind, choices::linePart);
    v.text("name", "name", p.name);
    v.object("inner", "towards the caliper", p.inner);
    v.object("outer", "towards the body", p.outer);
    v.count("crush_washers", "crush washers towards the caliper", 4, p.crushWashers);
    v.choice("new_washers", "new crush washers", p.newWashers, choices::yesNo);
}

template <class V, Is<Hose> T>
void fields(V& v, T& h)
{
    v.reading("length_mm", "hose length", style::frame, range::hose, h.length);
    v.choice("kind", "hose is", h.kind, choices::hose);
    v.reading("bore_mm", "hose bore", style::size, range::bore, h.bore);
    v.reading("give_cm3", "fluid the hose takes at 70 bar", style::fluid, range::fluid, h.give);
    v.text("caliper_end", "hose thread at the caliper", h.caliperEnd);
    v.text("line_end", "hose thread at the hard line", h.lineEnd);
    v.list("chain", "part of the brake line", 12, h.chain);
    v.choice("held_at_strut", "hose held at the strut", h.heldAtStrut, choices::yesNo);
    v.choice("grommet", "grommet wherever it passes through", h.grommet, choices::yesNo);
}

template <class V, Is<Joint> T>
void fields(V& v, T& j)
{
    v.element(j.id);
    v.text("name", "name", j.name);
    v.text("thread", "thread", j.thread);
    v.count("bolts", "how many bolts", 60, j.bolts);
    v.choice("class", "class of the bolts", j.boltClass, choices::boltClass);
    v.choice("condition", "threads are", j.condition, choices::condition);
    v.choice("torque_for", "maker's torque is for", j.torqueFor, choices::condition);
    v.choice("thread_in", "thread cut in", j.threadIn, choices::threadIn);
    v.choice("joins", "what the joint holds", j.joins, choices::joins);
    v.choice("shims", "shims in the grip", j.shims, choices::shimsIn);
    v.choice("faces", "clamped faces are", j.faces, choices::faces);
    v.choice("under_head", "heads bear on", j.underHead, choices::threadIn);
    v.choice("hard_washers", "hardened washers under the heads", j.hardWashers, choices::yesNo);
    v.count("times_used", "times done up before", 1000, j.timesUsed);
    v.choice("fastener", "bolts or studs", j.fastener, choices::fastener);
    v.choice("nut", "nut", j.nut, choices::nut);
    v.choice("nut_class", "class of the nuts", j.nutClass, choices::nutClass);
    v.choice("nut_single_use", "nuts for single use", j.nutSingleUse, choices::yesNo);
    v.choice("under_nut", "nuts bear on", j.underNut, choices::threadIn);
    v.choice("washers", "washers", j.washers, choices::washersUnder);
    v.choice("car_makers", "the car maker's own joint, with its own brakes", j.carMakers, choices::yesNo);
    v.reading("proof_stress_mpa", "proof stress of the bolts", style::stress, range::proofStress, j.proofStress);
    v.reading("length_mm", "bolt length under the head", style::size, range::length, j.length);
    v.reading("shank_mm", "shank without thread", style::size, range::height, j.shank);
    v.reading("head_diameter_mm", "head's bearing diameter", style::size, range::bore, j.headDiameter);
    v.reading("grip_mm", "grip without shims", style::size, range::height, j.grip);
    v.reading("thread_depth_mm", "depth of the thread", style::size, range::length, j.threadDepth);
    v.reading("nut_height_mm", "overall height of the nut", style::size, range::length, j.nutHeight);
    v.reading("running_torque_nm", "running torque of the nut", style::torque, range::torqueOrNone, j.runningTorque);
    v.reading("room_behind_mm", "clearance behind the thread", style::size, range::height, j.roomBehind);
    v.reading("maker_torque_nm", "maker's torque", style::torque, range::torque, j.makerTorque);
    v.reading("mount_radius_mm", "bolts from the axis", style::size, range::length, j.mountRadius);
}

template <class V, Is<AdapterRing> T>
void fields(V& v, T& a)
{
    v.choice("sits", "adapter ring sits", a.sits, choices::ringSits);
    v.reading("inside_mm", "inside of the adapter ring", style::fine, range::diameter, a.inside);
    v.reading("outside_mm", "outside of the adapter ring", style::fine, range::diameter, a.outside);
    v.reading("step_mm", "collar of the adapter ring", style::size, range::height, a.step);
    v.choice("step_side", "collar lies on the hat's side", a.stepSide, choices::direction);
}

template <class V, Is<ShieldPart> T>
void fields(V& v, T& s)
{
    v.choice("state", "dust shield", s.state, choices::shieldState);
    v.reading("diameter_mm", "diameter of the changed shield", style::size, range::diameter, s.diameter);
    v.reading("depth_mm", "plate of the changed shield from the hub face", style::size, range::place, s.depth);
    v.reading("rim_mm", "rim of the changed shield", style::size, range::height, s.rim);
    v.reading("plate_mm", "thickness of the shield's plate", style::size, range::smallHeight, s.plate);
    v.choice("plate_lies", "shield's plate lies", s.lies, choices::plateLies);
    v.choice("read_with", "readings taken with the plate as it is here", s.readWith, choices::yesNo);
    v.choice("spot_welds_drilled", "spot welds drilled out", s.spotWeldsDrilled, choices::yesNo);
}

template <class V, Is<SpacerPart> T>
void fields(V& v, T& s)
{
    v.choice("kind", "wheel spacer is", s.kind, choices::spacerKind);
    v.reading("seat_mm", "spacer's thickness under its own nuts", style::size, range::thickness, s.seat);
    v.reading("nut_thread_mm", "thread in the spacer's nuts", style::size, range::length, s.nutThread);
    v.reading("stud_length_mm", "spacer's own studs", style::size, range::length, s.studLength);
    v.text("stud_thread", "thread of the spacer's studs", s.studThread);
    v.reading("torque_nm", "torque of the spacer's nuts", style::torque, range::torque, s.torque);
}

DESCRIBED(BracketPoint)
DESCRIBED(Relief)
DESCRIBED(Bracket)
DESCRIBED(LineEnd)
DESCRIBED(LinePart)
DESCRIBED(Hose)
DESCRIBED(Joint)
DESCRIBED(AdapterRing)
DESCRIBED(ShieldPart)
DESCRIBED(SpacerPart)

} // namespace deepstop
