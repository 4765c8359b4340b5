/// The table of fields: wheels, and all that makes an axle's brakes.

#include "build/table.hpp"

namespace deepstop {

template <class V, Is<BarrelStation> T>
void fields(V& v, T& s)
{
    v.element(s.id);
    v.reading("depth_mm", "depth", style::size, range::place, s.depth);
    v.reading("inside_radius_mm", "inside radius", style::size, range::length, s.insideRadius);
    v.choice("bend", "a bend begins or ends here", s.bend, choices::yesNo);
}

template <class V, Is<SpokeStation> T>
void fields(V& v, T& s)
{
    v.element(s.id);
    v.reading("radius_mm", "radius", style::size, range::length, s.radius);
    v.reading("distance_mm", "distance to the mounting face", style::size, range::place, s.distance);
    v.choice("bend", "a bend begins or ends here", s.bend, choices::yesNo);
    v.text("along", "measured along", s.along);
}

template <class V, Is<Inset> T>
void fields(V& v, T& i)
{
    v.element(i.id);
    v.choice("kind", "what it is", i.kind, choices::inset);
    v.reading("from_mm", "depth of its outboard end", style::size, range::place, i.from);
    v.reading("to_mm", "depth of its inboard end", style::size, range::place, i.to);
    v.reading("height_mm", "height over the barrel", style::size, range::thickness, i.height);
}

template <class V, Is<Wheel> T>
void fields(V& v, T& w)
{
    v.text("id", "id", w.id);
    v.text("name", "name", w.name);
    v.text("from", "id in the parts library", w.from);
    v.count("nominal_diameter", "printed diameter", 40, w.nominalDiameter);
    v.number("nominal_width", "printed width", range::printedWidth, w.nominalWidth);
    v.reading("offset_mm", "wheel offset", style::size, range::place, w.offset);
    v.reading("mass_kg", "wheel's weight with tyre", style::partMass, range::partMass, w.mass);
    v.reading("bore_mm", "wheel bore", style::fine, range::diameter, w.bore);
    v.reading("overall_width_mm", "wheel's width over the flanges", style::size, range::length, w.overallWidth);
    v.reading("pad_thickness_mm", "mounting-pad thickness of the wheel", style::size, range::thickness, w.padThickness);
    v.choice("nut_seat", "seat for nuts or bolts", w.nutSeat, choices::nutSeat);
    v.reading("seat_angle_deg", "cone angle of the wheel's seats", style::angle, range::cone, w.seatAngle);
    v.reading("seat_radius_mm", "ball radius of the wheel's seats", style::size, range::thickness, w.seatRadius);
    v.reading("back_pocket_mm", "recesses in the wheel's mounting face", style::size, range::height, w.backPocket);
    v.reading("bore_chamfer_mm", "chamfer of the wheel's bore", style::size, range::smallHeight, w.boreChamfer);
    v.reading("rolling_radius_mm", "tyre's rolling radius", style::frame, range::tyreRadius, w.rollingRadius);
    v.reading("grip", "tyre grip", style::number, range::grip, w.grip);
    v.choice("balance_weights", "balance weights inside", w.balanceWeights, choices::yesNo);
    v.choice("spokes_alike", "spokes all alike", w.spokesAlike, choices::yesNo);
    v.reading("give_mm", "give of the rim in a hard corner", style::gap, range::smallHeight, w.give);
    v.list("barrel", "barrel station", 1000, w.barrel);
    v.list("spokes", "spoke station", 1000, w.spokes);
    v.list("insets", "inside the barrel", 24, w.insets);
    v.text("scan", "file of its scan", w.scan);
    v.text("scan_sha256", "check sum of that file", w.scanHash);
}

template <class V, Is<Rotor> T>
void fields(V& v, T& r)
{
    v.text("name", "name", r.name);
    v.text("from", "id in the parts library", r.from);
    v.choice("construction", "construction", r.construction, choices::rotorBuild);
    v.choice("face", "face", r.face, choices::face);
    v.count("slots", "slots in its face", 200, r.slotCount);
    v.choice("ring_material", "friction ring's material", r.ringMaterial, choices::ring);
    v.choice("hat_material", "hat material", r.hatMaterial, choices::hat);
    v.choice("handed", "fits which side", r.handed, choices::handed);
    v.reading("outer_diameter_mm", "rotor diameter", style::size, range::diameter, r.outerDiameter);
    v.reading("thickness_mm", "rotor thickness", style::size, range::thickness, r.thickness);
    v.reading("minimum_thickness_mm", "rotor's minimum thickness", style::size, range::thickness, r.minimumThickness);
    v.reading("ring_inner_diameter_mm", "friction ring's inner diameter", style::size, range::diameter, r.ringInnerDiameter);
    v.reading("overall_height_mm", "rotor's overall height", style::size, range::length, r.overallHeight);
    v.reading("hat_thickness_mm", "hat thickness", style::size, range::thickness, r.hatThickness);
    v.reading("hat_outer_diameter_mm", "hat's outer diameter", style::size, range::diameter, r.hatOuterDiameter);
    v.reading("hat_wall_mm", "hat wall", style::size, range::thickness, r.hatWall);
    v.reading("bore_mm", "rotor bore", style::fine, range::diameter, r.bore);
    v.choice("capped", "bore closed by a cap", r.capped, choices::yesNo);
    v.reading("cap_depth_mm", "depth inside the cap", style::size, range::height, r.capDepth);
    v.reading("cap_diameter_mm", "outside of the cap", style::fine, range::diameter, r.capDiameter);
    v.reading("cap_height_mm", "cap over the hat's face", style::size, range::height, r.capHeight);
    v.reading("hat_pocket_diameter_mm", "hat pocket", style::size, range::diameter, r.pocketDiameter);
    v.reading("bolt_circle_mm", "rotor's bolt circle", style::size, range::diameter, r.boltCircle);
    v.count("bolt_holes", "bolt holes", 40, r.boltHoles);
    v.reading("bolt_hole_diameter_mm", "bolt hole diameter", style::size, range::bore, r.boltHoleDiameter);
    v.reading("drum_diameter_mm", "drum in the hat", style::size, range::diameter, r.drumDiameter);
    v.count("hat_bolts", "hat bolts", 60, r.hatBolts);
    v.text("hat_bolt_thread", "thread of the hat bolts", r.hatBoltThread);
    v.reading("vent_gap_mm", "vent width", style::size, range::smallHeight, r.ventGap);
    v.reading("vane_share_percent", "vanes' share of the vent", style::share, range::shareOrNone, r.vaneShare);
    v.choice("vane_shape", "vane shape", r.vaneShape, choices::vanes);
    v.count("vanes", "vanes", 500, r.vanes);
    v.reading("vane_thickness_mm", "vane thickness", style::size, range::thickness, r.vaneThickness);
    v.reading("vane_lean_deg", "lean of the vanes", style::angle, range::lean, r.vaneLean);
    v.reading("inboard_lip_mm", "lip inboard of the friction face", style::size, range::height, r.inboardLip);
    v.reading("minimum_mass_kg", "rotor's minimum weight", style::partMass, range::partMass, r.minimumMass);
    v.reading("ring_play_mm", "axial play of a floating ring", style::fine, range::smallHeight, r.ringPlay);
    v.text("scan", "file of its solid", r.scan);
    v.text("scan_sha256", "check sum of that file", r.scanHash);
}

template <class V, Is<Bump> T>
void fields(V& v, T& b)
{
    v.element(b.id);
    v.choice("kind", "what it is", b.kind, choices::bump);
    v.reading("over_edge_mm", "top over the rotor's edge", style::size, range::place, b.overEdge);
    v.reading("height_mm", "height", style::size, range::thickness, b.height);
    v.reading("at_depth_mm", "middle from the slot's middle", style::size, range::place, b.atDepth);
    v.reading("width_mm", "width", style::size, range::thickness, b.width);
    v.reading("from_middle_mm", "far side from the caliper's middle", style::size, range::height, b.fromMiddle);
}

template <class V, Is<Caliper> T>
void fields(V& v, T& c)
{
    v.text("name", "name", c.name);
    v.text("from", "id in the parts library", c.from);
    v.choice("kind", "kind", c.kind, choices::caliper);
    v.text("material", "caliper material", c.material);
    v.text("piston_material", "piston material", c.pistonMaterial);
    v.choice("bleeders", "bleeders", c.bleeders, choices::bleeders);
    v.choice("bleeder_end", "bleeder's end", c.bleederEnd, choices::end);
    v.text("hose_thread", "thread for the hose", c.hoseThread);
    v.reading("back_over_edge_mm", "caliper back over the rotor's edge", style::size, range::thickness, c.backOverEdge);
    v.reading("back_length_mm", "length of the caliper's straight back", style::size, range::height, c.backLength);
    v.reading("bridge_gap_mm", "bridge over the rotor's edge", style::gap, range::smallPlace, c.bridgeGap);
    v.reading("reach_mm", "caliper's reach below the rotor's edge", style::size, range::length, c.reach);
    v.reading("outboard_depth_mm", "caliper depth outboard", style::size, range::length, c.outboardDepth);
    v.reading("inboard_depth_mm", "caliper depth inboard", style::size, range::length, c.inboardDepth);
    v.reading("shoulder_mm", "caliper's shoulder chamfer", style::size, range::height, c.shoulder);
    v.reading("corner_radius_mm", "rounding of the back's ends", style::size, range::height, c.cornerRadius);
    v.reading("slot_width_mm", "caliper slot width", style::size, range::thickness, c.slotWidth);
    v.reading("pad_room_mm", "opening between pistons pushed home", style::size, range::thickness, c.padRoom);
    v.reading("piston_stroke_mm", "farthest a piston may come out", style::size, range::length, c.pistonStroke);
    v.reading("give_cm3", "fluid a caliper takes at 70 bar", style::fluid, range::fluid, c.give);
    v.reading("slide_travel_mm", "travel of the caliper's slides", style::size, range::length, c.slideTravel);
    v.reading("pad_window_mm", "length of the pad opening", style::size, range::length, c.padWindow);
    v.reading("mount_spacing_mm", "spacing of the caliper's mounting holes", style::size, range::length, c.mountSpacing);
    v.reading("mount_drop_mm", "mounting holes inward of the rotor's edge", style::size, range::place, c.mountDrop);
    v.reading("mount_depth_mm", "mounting face from the slot's middle", style::size, range::place, c.mountDepth);
    v.choice("split", "split caliper", c.split, choices::yesNo);
    v.count("bridge_bolts", "bolts of the halves", 20, c.bridgeBolts);
    v.text("bridge_bolt_thread", "thread of the halves' bolts", c.bridgeBoltThread);
    v.reading("bridge_bolt_length_mm", "length of the halves' bolts", style::size, range::length, c.bridgeBoltLength);
    v.reading("bridge_bolt_grip_mm", "their grip in the near half", style::size, range::length, c.bridgeBoltGrip);
    v.reading("pin_length_mm", "length of the pad pins", style::size, range::length, c.pinLength);
    v.choice("crossover", "fluid crosses inside", c.crossover, choices::yesNo);
    v.reading("widened_mm", "spacers between the halves", style::size, range::smallHeight, c.widened);
    v.choice("parking", "parking brake in the caliper", c.parking, choices::caliperParking);
    v.reading("lever_eye_mm", "eye of the parking lever", style::size, range::bore, c.leverEye);
    v.reading("lever_free_mm", "cable the parking lever needs", style::size, range::length, c.leverFree);
    v.reading("lever_travel_mm", "travel of the parking lever until it holds", style::size, range::length, c.leverTravel);
    v.text("parking_connector", "connector of the parking motor", c.parkingConnector);
    v.readings("pistons_mm", "piston bore", style::size, range::bore, 24, c.pistons);
    v.list("bumps", "protrusion from the caliper", 24, c.bumps);
    v.text("scan", "file of its scan or solid", c.scan);
    v.text("scan_sha256", "check sum of that file", c.scanHash);
}

template <class V, Is<FrictionPoint> T>
void fields(V& v, T& p)
{
    v.element(p.id);
    v.reading("temperature_degC", "pad temperature", style::temperature, range::temperature, p.temperature);
    v.reading("friction", "friction there", style::number, range::friction, p.friction);
}

template <class V, Is<Pad> T>
void fields(V& v, T& p)
{
    v.text("name", "name", p.name);
    v.text("from", "id in the parts library", p.from);
    v.text("compound", "compound", p.compound);
    v.reading("height_mm", "pad height", style::size, range::length, p.height);
    v.reading("length_mm", "pad length", style::size, range::length, p.length);
    v.reading("thickness_mm", "pad's friction thickness", style::size, range::thickness, p.thickness);
    v.reading("backing_mm", "pad backing thickness", style::size, range::thickness, p.backing);
    v.reading("overall_mm", "pad thickness with its backing", style::size, range::thickness, p.overall);
    v.reading("minimum_thickness_mm", "lining's minimum thickness", style::size, range::smallHeight, p.minimumThickness);
    v.choice("ends", "ends of the lining", p.ends, choices::padEnds);
    v.reading("area_cm2", "pad area", style::area, range::area, p.area);
    v.reading("friction", "pad friction", style::number, range::friction, p.friction);
    v.reading("squeeze_mm", "give of a pad at 70 bar", style::fine, range::smallHeight, p.squeeze);
    v.list("friction_over_temperature", "point", 200, p.frictionOverTemperature);
    v.choice("wear_sensor", "wear sensor", p.wearSensor, choices::yesNo);
}

template <class V, Is<Mount> T>
void fields(V& v, T& m)
{
    v.choice("kind", "kind of mount", m.kind, choices::mount);
    v.reading("bolt_spacing_mm", "spacing of the mounting bolts", style::size, range::length, m.boltSpacing);
    v.reading("radial_read_mm", "radial shims when its heights were read", style::fine, range::stack, m.radialRead);
    v.reading("clock_deg", "clocking angle of the caliper", style::angle, range::turn, m.clock);
    v.choice("shims_move", "thicker shims move the caliper", m.shimMoves, choices::direction);
}

template <class V, Is<Spun> T>
void fields(V& v, T& s)
{
    v.text("wheel", "wheel that was on", s.wheel);
    v.text("changed", "changed since", s.changed);
    v.reading("barrel_mm", "gap to the barrel, wheel spun", style::gap, range::smallPlace, s.barrel);
    v.reading("spokes_mm", "gap to the spokes, wheel spun", style::gap, range::smallPlace, s.spokes);
    v.reading("weights_mm", "gap to weights and valve, wheel spun", style::gap, range::smallPlace, s.insets);
    v.choice("whole_turn", "wheel turned a whole turn", s.wholeTurn, choices::yesNo);
    v.choice("at_locks", "turned at droop and both locks", s.atLocks, choices::yesNo);
}

template <class V, Is<Fitted> T>
void fields(V& v, T& f)
{
    v.reading("slot_centre_mm", "slot's middle from the hub face", style::fine, range::place, f.slotCentre);
    v.reading("pad_inset_mm", "pad edge below the rotor's edge", style::size, range::smallPlace, f.padInset);
    v.reading("shim_top_mm", "shims on the top bolt", style::fine, range::stack, f.shimTop);
    v.reading("shim_bottom_mm", "shims on the bottom bolt", style::fine, range::stack, f.shimBottom);
    v.reading("radial_top_mm", "radial shims on the top stud", style::fine, range::stack, f.radialTop);
    v.reading("radial_bottom_mm", "radial shims on the bottom stud", style::fine, range::stack, f.radialBottom);
    v.reading("runout_mm", "runout", style::fine, range::smallHeight, f.runout);
    v.reading("thickness_variation_mm", "thickness variation", style::thousandth, range::smallHeight, f.thicknessVariation);
    v.reading("ring_thickness_mm", "rotor thickness as worn", style::size, range::thickness, f.ringThickness);
    v.reading("lining_thickness_mm", "thinner pad's lining as worn", style::size, range::smallHeight, f.liningThickness);
    v.reading("inner_lining_mm", "lining of the inboard pad", style::size, range::smallHeight, f.innerLining);
    v.reading("outer_lining_mm", "lining of the outboard pad", style::size, range::smallHeight, f.outerLining);
    v.reading("entry_lining_mm", "lining at the rotor's entry", style::size, range::smallHeight, f.entryLining);
    v.reading("exit_lining_mm", "lining at the rotor's exit", style::size, range::smallHeight, f.exitLining);
    v.choice("wear_sensor", "wear sensor that was fitted", f.wearSensor, choices::sensorUse);
    v.reading("rotor_mass_kg", "rotor's weight as worn", style::partMass, range::partMass, f.rotorMass);
    v.text("rotor_mark", "mark on the rotor", f.rotorMark);
    v.text("caliper_mark", "mark on the caliper", f.caliperMark);
    v.object("spun", "", f.spun);
}

template <class V, Is<Drum> T>
void fields(V& v, T& d)
{
    v.text("name", "name", d.name);
    v.choice("kind", "kind of drum brake", d.kind, choices::drumKind);
    v.reading("inside_diameter_mm", "drum's inside diameter", style::size, range::diameter, d.insideDiameter);
    v.reading("largest_diameter_mm", "drum's largest diameter", style::size, range::diameter, d.largestDiameter);
    v.reading("shoe_width_mm", "width of the shoes", style::size, range::length, d.shoeWidth);
    v.reading("shoe_arc_deg", "arc of one lining", style::angle, range::arc, d.shoeArc);
    v.reading("anchor_radius_mm", "shoes' pivot from the axis", style::size, range::length, d.anchorRadius);
    v.reading("friction", "friction of the shoes' lining", style::number, range::friction, d.friction);
    v.list("friction_over_temperature", "point", 200, d.frictionOverTemperature);
    v.reading("cylinder_bore_mm", "wheel cylinder's bore", style::fine, range::bore, d.cylinderBore);
    v.reading("shoe_play_mm", "play of a wheel cylinder's piston", style::fine, range::smallHeight, d.shoePlay);
    v.reading("lining_thickness_mm", "thinner shoe's lining", style::size, range::smallHeight, d.liningThickness);
    v.reading("minimum_lining_mm", "shoe lining's minimum thickness", style::size, range::smallHeight, d.minimumLining);
    v.reading("depth_mm", "depth of the drum", style::size, range::length, d.depth);
    v.reading("face_thickness_mm", "drum between hub and wheel", style::size, range::thickness, d.faceThickness);
    v.reading("wall_mm", "wall of the drum", style::size, range::thickness, d.wall);
}

template <class V, Is<Weighing> T>
void fields(V& v, T& w)
{
    v.element(w.id);
    v.reading("mass_kg", "weighing", style::partMass, range::partMass, w.mass);
    v.ticks("contains", "what lay on the scale", w.contains, choices::part);
}

template <class V, Is<Costs> T>
void fields(V& v, T& c)
{
    v.reading("kit", "price of the kit", style::money, range::money, c.kit);
    v.reading("rotors", "price of a pair of rotors", style::money, range::money, c.rotors);
    v.reading("pads", "price of a set of pads", style::money, range::money, c.pads);
    v.text("availability", "availability", c.availability);
}

template <class V, Is<Receipt> T>
void fields(V& v, T& r)
{
    v.text("item", "item", r.item);
    v.choice("state", "state", r.state, choices::checked);
    v.choice("hand", "hand", r.hand, choices::hand);
    v.text("note", "note", r.note);
    v.text("photo", "photograph", r.photo);
}

template <class V, Is<Corner> T>
void fields(V& v, T& c)
{
    v.text("wheel", "wheel", c.wheel);
    v.choice("brakes", "kind of brakes", c.brakes, choices::brakes);
    v.object("drum", "", c.drum);
    v.object("rotor", "", c.rotor);
    v.object("caliper", "", c.caliper);
    v.object("pad", "", c.pad);
    v.object("mount", "", c.mount);
    v.object("bracket", "", c.bracket);
    v.object("hose", "", c.hose);
    v.object("costs", "", c.costs);
    v.reading("duct", "cooling duct factor", style::number, range::cooling, c.duct);
    v.reading("cooling", "cooling factor, calibrated", style::number, range::cooling, c.cooling);
    v.reading("ring_mm", "hub-face ring", style::size, range::stack, c.ring);
    v.reading("spacer_mm", "wheel spacer", style::size, range::stack, c.spacer);
    v.object("spacer_part", "", c.spacerPart);
    v.object("adapter_ring", "", c.adapter);
    v.object("dust_shield", "", c.shield);
    v.choice("lever_returns", "parking lever goes back to its stop", c.leverReturns, choices::yesNo);
    v.reading("washers_mm", "washers in a trial", style::size, range::stack, c.washers);
    v.choice("washers_gave", "with the washers the wheel", c.freed, choices::freed);
    v.choice("spacer_in_trial", "spacer in during that trial", c.spacerInTrial, choices::yesNo);
    v.object("left", "left", c.left);
    v.object("right", "right", c.right);
    v.ticks("cuts", "work that cannot be undone", c.cuts, choices::cut);
    v.list("weighings", "weighing", 100, c.weighings);
    v.list("joints", "joint", 60, c.joints);
}

template <class V, Is<Purchase> T>
void fields(V& v, T& p)
{
    v.element(p.id);
    v.text("what", "what to buy", p.what);
    v.text("number", "seller's number", p.number);
    v.text("source", "where it is bought", p.source);
    v.count("pieces", "pieces to buy", 1000, p.pieces);
    v.reading("price", "price of one", style::price, range::money, p.price);
}

template <class V, Is<VendorQuestion> T>
void fields(V& v, T& q)
{
    v.element(q.id);
    v.text("about", "question", q.about);
    v.text("asked", "asked on", q.asked);
    v.text("answered", "answered on", q.answered);
    v.text("answer", "answer", q.answer);
}

template <class V, Is<Setup> T>
void fields(V& v, T& s)
{
    v.text("id", "id", s.id);
    v.text("name", "name", s.name);
    v.text("note", "note", s.note);
    v.optional("front", "front", s.front);
    v.optional("rear", "rear", s.rear);
    v.optional("hydraulics", "", s.hydraulics);
    v.choice("parking_brake_replaced", "parking brake replaced by another", s.parkingBrakeReplaced, choices::yesNo);
    v.text("vendor", "vendor", s.vendor);
    v.choice("instructions", "fitting instructions came with the kit", s.instructions, choices::yesNo);
    v.text("papers", "certificates and approvals", s.papers);
    v.list("received", "", 1000, s.received);
    v.list("purchases", "part to buy", 200, s.purchases);
    v.list("questions", "question to the vendor", 200, s.questions);
}

DESCRIBED(BarrelStation)
DESCRIBED(SpokeStation)
DESCRIBED(Inset)
DESCRIBED(Wheel)
DESCRIBED(Rotor)
DESCRIBED(Bump)
DESCRIBED(Caliper)
DESCRIBED(FrictionPoint)
DESCRIBED(Pad)
DESCRIBED(Mount)
DESCRIBED(Spun)
DESCRIBED(Fitted)
DESCRIBED(Drum)
DESCRIBED(Weighing)
DESCRIBED(Costs)
DESCRIBED(Receipt)
DESCRIBED(Corner)
DESCRIBED(Purchase)
DESCRIBED(VendorQuestion)
DESCRIBED(Setup)

} // namespace deepstop
