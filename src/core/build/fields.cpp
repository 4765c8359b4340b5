/// The table of fields itself: one row a field. The only place that names all of them.

#include "build/fields.hpp"

#include "build/table.hpp"

namespace deepstop {

template <class V, Is<Car> T>
void fields(V& v, T& c)
{
    v.text("name", "name", c.name);
    v.text("note", "note", c.note);
    v.reading("mass_kg", "mass with driver", style::carMass, range::carMass, c.mass);
    v.reading("wheelbase_mm", "wheelbase", style::frame, range::wheelbase, c.wheelbase);
    v.reading("centre_of_mass_height_mm", "height of the centre of mass", style::frame, range::massHeight, c.centreOfMassHeight);
    v.reading("front_load_percent", "front axle load at rest", style::share, range::share, c.frontLoadShare);
    v.reading("drag_area_m2", "drag area", style::number, range::dragArea, c.dragArea);
    v.reading("front_track_mm", "front track", style::frame, range::track, c.frontTrack);
    v.reading("rear_track_mm", "rear track", style::frame, range::track, c.rearTrack);
    v.choice("antilock", "antilock brakes", c.antilock, choices::yesNo);
    v.reading("test_speed_kmh", "speed to stop from", style::speed, range::speed, c.testSpeed);
    v.text("duty", "duty the brakes are judged by", c.duty);
}

template <class V, Is<Hydraulics> T>
void fields(V& v, T& h)
{
    v.reading("pedal_force_n", "pedal force", style::force, range::pedalForce, h.pedalForce);
    v.reading("pedal_ratio", "pedal ratio", style::number, range::ratio, h.pedalRatio);
    v.reading("free_play_mm", "free play at the pedal", style::size, range::smallHeight, h.freePlay);
    v.choice("booster", "booster", h.booster, choices::booster);
    v.reading("booster_gain", "booster gain", style::number, range::ratio, h.boosterGain);
    v.reading("booster_knee_n", "push of the booster where it runs out", style::force, range::rodForce, h.boosterKnee);
    v.choice("master", "master cylinder", h.master, choices::master);
    v.reading("master_bore_mm", "master cylinder bore", style::fine, range::bore, h.masterBore);
    v.reading("rear_master_bore_mm", "rear master cylinder's bore", style::fine, range::bore, h.rearMasterBore);
    v.reading("bar_front_percent", "balance bar's share to the front", style::share, range::share, h.barPosition);
    v.reading("master_stroke_mm", "master cylinder's whole stroke", style::size, range::thickness, h.masterStroke);
    v.reading("front_stroke_percent", "front circuit's share of the stroke", style::share, range::share, h.frontStroke);
    v.choice("circuits", "circuits", h.circuits, choices::circuits);
    v.reading("line_pressure_bar", "line pressure", style::pressure, range::pressure, h.linePressure);
    v.choice("valve", "valve to the rear", h.valve, choices::valve);
    v.reading("rear_knee_bar", "proportioning valve's knee", style::pressure, range::pressureOrNone, h.rearKneePressure);
    v.reading("rear_slope", "proportioning valve's slope", style::number, range::slope, h.rearSlope);
    v.reading("knee_per_load_bar_per_kn", "knee gained per rear axle load", style::kneePerLoad, range::kneePerLoad, h.kneePerLoad);
    v.reading("build_up_s", "build-up time", style::seconds, range::buildUp, h.buildUpTime);
    v.reading("reservoir_cm3", "fluid between the reservoir's marks", style::volume, range::volume, h.reservoir);
    v.choice("fluid", "brake fluid", h.fluid, choices::fluid);
    v.reading("fluid_age_months", "age of the fluid", style::months, range::age, h.fluidAge);
    v.reading("dry_boiling_degC", "boiling point of fresh fluid", style::temperature, range::temperature, h.dryBoiling);
    v.reading("wet_boiling_degC", "boiling point of wet fluid", style::temperature, range::temperature, h.wetBoiling);
}

template <class V, Is<Leg> T>
void fields(V& v, T& l)
{
    v.reading("from_kmh", "speed at its beginning", style::speed, range::speedOrNone, l.from);
    v.reading("to_kmh", "speed at its end", style::speed, range::speedOrNone, l.to);
    v.reading("time_s", "time it takes", style::seconds, range::duration, l.time);
    v.reading("slope_percent", "slope, falling positive", style::share, range::slopeOfRoad, l.slope);
    v.choice("braking", "brakes on", l.braking, choices::yesNo);
}

template <class V, Is<DutyPlan> T>
void fields(V& v, T& d)
{
    v.text("id", "id", d.id);
    v.text("name", "duty", d.name);
    v.count("repeats", "times over", 2000, d.repeats);
    v.reading("engine_braking_g", "engine braking", style::deceleration, range::engineBraking, d.engineBraking);
    v.list("legs", "leg", 2000, d.legs);
}

template <class V, Is<MeasuredTemperature> T>
void fields(V& v, T& m)
{
    v.text("duty", "duty", m.duty);
    v.count("stop", "after stop", 20'000, m.stop);
    v.reading("after_s", "seconds after its end", style::seconds, range::duration, m.after);
    v.choice("axle", "axle", m.axle, choices::axle);
    v.choice("at", "measured at", m.at, choices::measuredAt);
    v.reading("temperature_degC", "temperature measured", style::temperature, range::temperature, m.temperature);
}

template <class V, Is<Carried> T>
void fields(V& v, T& c)
{
    v.text("what", "what it is", c.what);
    v.reading("mass_kg", "mass carried", style::carMass, range::carriedMass, c.mass);
    v.reading("behind_front_axle_mm", "place behind the front axle", style::frame, range::carriedPlace, c.behindFrontAxle);
    v.reading("height_mm", "height over the road", style::frame, range::massHeight, c.height);
}

template <class V, Is<LoadCase> T>
void fields(V& v, T& l)
{
    v.text("name", "load", l.name);
    v.list("carried", "carried", 40, l.carried);
}

template <class V, Is<KeepOut> T>
void fields(V& v, T& k)
{
    v.choice("kind", "what it is", k.kind, choices::keepOut);
    v.text("name", "name", k.name);
    v.reading("depth_mm", "depth inboard of the hub face", style::size, range::place, k.depth);
    v.reading("radius_mm", "distance from the axis", style::size, range::length, k.radius);
}

template <class V, Is<Hub> T>
void fields(V& v, T& h)
{
    v.reading("flange_diameter_mm", "hub flange diameter", style::size, range::diameter, h.flangeDiameter);
    v.reading("pilot_diameter_mm", "hub pilot diameter", style::fine, range::diameter, h.pilotDiameter);
    v.reading("pilot_height_mm", "hub pilot height", style::size, range::height, h.pilotHeight);
    v.reading("bolt_circle_mm", "bolt circle", style::size, range::diameter, h.boltCircle);
    v.count("stud_count", "number of studs", 20, h.studCount);
    v.reading("stud_length_mm", "stud length from the flange", style::size, range::length, h.studLength);
    v.reading("stud_diameter_mm", "stud diameter", style::size, range::bore, h.studDiameter);
    v.choice("wheel_held_by", "wheel held by", h.heldBy, choices::heldBy);
    v.text("stud_thread", "thread of studs or wheel bolts", h.studThread);
    v.reading("nut_thread_mm", "thread length in a wheel nut", style::size, range::length, h.nutThread);
    v.choice("nut_end", "wheel nuts are", h.nutEnd, choices::nutEnd);
    v.reading("nut_depth_mm", "closed nut's depth from its seat", style::size, range::length, h.nutDepth);
    v.choice("nut_seat", "seat of nuts or bolts", h.nutSeat, choices::nutSeat);
    v.reading("seat_angle_deg", "cone angle of nuts or bolts", style::angle, range::cone, h.seatAngle);
    v.reading("seat_radius_mm", "ball radius of nuts or bolts", style::size, range::thickness, h.seatRadius);
    v.reading("wheel_bolt_length_mm", "wheel bolt under its seat", style::size, range::length, h.wheelBoltLength);
    v.reading("hub_thread_mm", "thread in the hub for a wheel bolt", style::size, range::length, h.hubThread);
    v.reading("behind_flange_mm", "clearance behind that thread", style::size, range::height, h.behindFlange);
    v.reading("pilot_chamfer_mm", "chamfer of the hub pilot", style::size, range::smallHeight, h.pilotChamfer);
    v.reading("lug_spacing_mm", "spacing of the knuckle's lugs", style::size, range::length, h.lugSpacing);
    v.reading("lug_radius_mm", "middle of the lugs from the axis", style::size, range::length, h.lugRadius);
    v.reading("lug_depth_mm", "lugs' face inboard of the hub face", style::size, range::place, h.lugDepth);
    v.reading("lug_thickness_mm", "thickness of the lugs", style::size, range::thickness, h.lugThickness);
    v.reading("lug_edge_mm", "hole to the edge of its lug", style::size, range::thickness, h.lugEdge);
    v.text("lug_thread", "thread of the knuckle's lugs", h.lugThread);
    v.text("line_thread", "thread of the hard line", h.lineThread);
    v.reading("hose_reach_mm", "hose length needed at droop and lock", style::frame, range::hose, h.hoseReach);
    v.choice("parking_brake", "parking brake", h.parkingBrake, choices::parking);
    v.reading("shoe_diameter_mm", "drum the parking shoes are made for", style::size, range::diameter, h.shoeDiameter);
    v.reading("scrub_radius_mm", "scrub radius as found", style::frame, range::place, h.scrubRadius);
    v.reading("fender_room_mm", "tyre to fender as found", style::frame, range::height, h.fenderRoom);
    v.reading("inner_room_mm", "tyre to strut as found", style::frame, range::height, h.innerRoom);
    v.reading("shield_diameter_mm", "dust shield's diameter", style::size, range::diameter, h.shieldDiameter);
    v.reading("shield_depth_mm", "dust shield's plate from the hub face", style::size, range::height, h.shieldDepth);
    v.reading("shield_rim_mm", "rim of the dust shield", style::size, range::height, h.shieldRim);
    v.list("keep_outs", "keep-out", 24, h.keepOuts);
}

template <class V, Is<BarrelStation> T>
void fields(V& v, T& s)
{
    v.reading("depth_mm", "depth", style::size, range::place, s.depth);
    v.reading("inside_radius_mm", "inside radius", style::size, range::length, s.insideRadius);
    v.choice("bend", "a bend begins or ends here", s.bend, choices::yesNo);
}

template <class V, Is<SpokeStation> T>
void fields(V& v, T& s)
{
    v.reading("radius_mm", "radius", style::size, range::length, s.radius);
    v.reading("distance_mm", "distance to the mounting face", style::size, range::place, s.distance);
    v.choice("bend", "a bend begins or ends here", s.bend, choices::yesNo);
    v.text("along", "measured along", s.along);
}

template <class V, Is<Inset> T>
void fields(V& v, T& i)
{
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
    v.reading("bore_chamfer_mm", "chamfer of the wheel's bore", style::size, range::smallHeight, w.boreChamfer);
    v.reading("rolling_radius_mm", "tyre's rolling radius", style::frame, range::tyreRadius, w.rollingRadius);
    v.reading("grip", "tyre grip", style::number, range::grip, w.grip);
    v.choice("balance_weights", "balance weights inside", w.balanceWeights, choices::yesNo);
    v.choice("spokes_alike", "spokes all alike", w.spokesAlike, choices::yesNo);
    v.reading("give_mm", "give of the rim in a hard corner", style::gap, range::smallHeight, w.give);
    v.list("barrel", "barrel station", 1000, w.barrel);
    v.list("spokes", "spoke station", 1000, w.spokes);
    v.list("insets", "inside the barrel", 24, w.insets);
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
    v.reading("ring_play_mm", "axial play of a floating ring", style::fine, range::smallHeight, r.ringPlay);
}

template <class V, Is<Bump> T>
void fields(V& v, T& b)
{
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
    v.readings("pistons_mm", "piston bore", style::size, range::bore, 24, c.pistons);
    v.list("bumps", "protrusion from the caliper", 24, c.bumps);
}

template <class V, Is<FrictionPoint> T>
void fields(V& v, T& p)
{
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
    v.reading("minimum_thickness_mm", "lining's minimum thickness", style::size, range::smallHeight, p.minimumThickness);
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
    v.text("rotor_mark", "mark on the rotor", f.rotorMark);
    v.text("caliper_mark", "mark on the caliper", f.caliperMark);
}

template <class V, Is<BracketPoint> T>
void fields(V& v, T& p)
{
    v.reading("across_mm", "across, from the lugs' middle", style::size, range::place, p.across);
    v.reading("radius_mm", "from the axis", style::size, range::length, p.radius);
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
    v.reading("mass_kg", "weighing", style::partMass, range::partMass, w.mass);
    v.ticks("contains", "what lay on the scale", w.contains, choices::part);
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
    v.list("outline", "point of the bracket's edge", 200, b.outline);
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
}

template <class V, Is<Joint> T>
void fields(V& v, T& j)
{
    v.text("name", "name", j.name);
    v.text("thread", "thread", j.thread);
    v.count("bolts", "how many bolts", 60, j.bolts);
    v.choice("class", "class of the bolts", j.boltClass, choices::boltClass);
    v.choice("condition", "threads are", j.condition, choices::condition);
    v.choice("torque_for", "maker's torque is for", j.torqueFor, choices::condition);
    v.choice("thread_in", "thread cut in", j.threadIn, choices::threadIn);
    v.choice("shims", "shims in the grip", j.shims, choices::shimsIn);
    v.choice("faces", "clamped faces are", j.faces, choices::faces);
    v.choice("under_head", "heads bear on", j.underHead, choices::threadIn);
    v.choice("hard_washers", "hardened washers under the heads", j.hardWashers, choices::yesNo);
    v.count("times_used", "times done up before", 1000, j.timesUsed);
    v.reading("length_mm", "bolt length under the head", style::size, range::length, j.length);
    v.reading("shank_mm", "shank without thread", style::size, range::height, j.shank);
    v.reading("head_diameter_mm", "head's bearing diameter", style::size, range::bore, j.headDiameter);
    v.reading("grip_mm", "grip without shims", style::size, range::height, j.grip);
    v.reading("thread_depth_mm", "depth of the thread", style::size, range::length, j.threadDepth);
    v.reading("room_behind_mm", "clearance behind the thread", style::size, range::height, j.roomBehind);
    v.reading("maker_torque_nm", "maker's torque", style::torque, range::torque, j.makerTorque);
    v.reading("mount_radius_mm", "bolts from the axis", style::size, range::length, j.mountRadius);
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
    v.reading("duct", "cooling duct's factor", style::number, range::cooling, c.duct);
    v.reading("cooling", "cooling over the model's", style::number, range::cooling, c.cooling);
    v.reading("ring_mm", "hub-face ring", style::size, range::stack, c.ring);
    v.reading("spacer_mm", "wheel spacer", style::size, range::stack, c.spacer);
    v.reading("washers_mm", "washers in a trial", style::size, range::stack, c.washers);
    v.choice("washers_gave", "with the washers the wheel", c.freed, choices::freed);
    v.choice("spacer_in_trial", "spacer in during that trial", c.spacerInTrial, choices::yesNo);
    v.object("left", "left", c.left);
    v.object("right", "right", c.right);
    v.list("weighings", "weighing", 100, c.weighings);
    v.list("joints", "joint", 60, c.joints);
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
    v.list("received", "", 1000, s.received);
}

template <class V, Is<ShimStock> T>
void fields(V& v, T& s)
{
    v.reading("thickness_mm", "shim thickness", style::fine, range::shim, s.thickness);
    v.count("count", "how many", 1000, s.count);
}

template <class V, Is<Pass> T>
void fields(V& v, T& p)
{
    v.text("date", "read on", p.date);
    v.reading("inner_top_mm", "inner gap, top", style::fine, range::smallHeight, p.innerTop);
    v.reading("outer_top_mm", "outer gap, top", style::fine, range::smallHeight, p.outerTop);
    v.reading("inner_bottom_mm", "inner gap, bottom", style::fine, range::smallHeight, p.innerBottom);
    v.reading("outer_bottom_mm", "outer gap, bottom", style::fine, range::smallHeight, p.outerBottom);
    v.reading("pad_edge_top_mm", "pad edge below the rotor's edge, top", style::fine, range::smallPlace, p.padEdgeTop);
    v.reading("pad_edge_bottom_mm", "pad edge below the rotor's edge, bottom", style::fine, range::smallPlace, p.padEdgeBottom);
    v.reading("shim_top_mm", "shims then on the top bolt", style::fine, range::stack, p.shimTop);
    v.reading("shim_bottom_mm", "shims then on the bottom bolt", style::fine, range::stack, p.shimBottom);
    v.reading("radial_top_mm", "radial shims then on the top stud", style::fine, range::stack, p.radialTop);
    v.reading("radial_bottom_mm", "radial shims then on the bottom stud", style::fine, range::stack, p.radialBottom);
}

template <class V, Is<MockUp> T>
void fields(V& v, T& m)
{
    v.text("setup", "setup", m.setup);
    v.choice("axle", "axle", m.axle, choices::axle);
    v.choice("side", "side", m.side, choices::side);
    v.reading("inner_top_mm", "inner gap, top", style::fine, range::smallHeight, m.innerTop);
    v.reading("outer_top_mm", "outer gap, top", style::fine, range::smallHeight, m.outerTop);
    v.reading("inner_bottom_mm", "inner gap, bottom", style::fine, range::smallHeight, m.innerBottom);
    v.reading("outer_bottom_mm", "outer gap, bottom", style::fine, range::smallHeight, m.outerBottom);
    v.reading("gap_spacing_mm", "distance between upper and lower reading", style::size, range::length, m.gapSpacing);
    v.reading("pad_edge_top_mm", "pad edge below the rotor's edge, top", style::fine, range::smallPlace, m.padEdgeTop);
    v.reading("pad_edge_bottom_mm", "pad edge below the rotor's edge, bottom", style::fine, range::smallPlace, m.padEdgeBottom);
    v.reading("play_mm", "play on the loose bolts", style::fine, range::smallHeight, m.play);
    v.count("nuts", "nuts that hold the rotor", 20, m.nuts);
    v.choice("seated", "rotor flat on a clean hub", m.seated, choices::yesNo);
    v.choice("settled", "play taken up the same way", m.settled, choices::yesNo);
    v.choice("shaft_in", "drive shaft in place", m.shaftIn, choices::yesNo);
    v.list("passes", "earlier reading", 100, m.passes);
}

template <class V, Is<MeasuredStop> T>
void fields(V& v, T& s)
{
    v.reading("speed_kmh", "speed of a measured stop", style::speed, range::speed, s.speed);
    v.reading("distance_m", "distance of a measured stop", style::road, range::road, s.distance);
    v.text("note", "note", s.note);
}

template <class V, Is<TestSession> T>
void fields(V& v, T& t)
{
    v.text("setup", "setup", t.setup);
    v.text("date", "date", t.date);
    v.text("place", "place", t.place);
    v.list("stops", "stop", 1000, t.stops);
    v.list("temperatures", "temperature", 1000, t.temperatures);
    v.optional("ran", "as it ran", t.ran);
}

template <class V, Is<Wants> T>
void fields(V& v, T& w)
{
    v.reading("barrel_gap_mm", "wanted gap to the barrel", style::gap, range::wanted, w.barrelGap);
    v.reading("spoke_gap_mm", "wanted gap to the spokes", style::gap, range::wanted, w.spokeGap);
    v.reading("bridge_gap_mm", "wanted gap under the bridge", style::gap, range::wanted, w.bridgeGap);
    v.reading("face_gap_mm", "wanted gap beside the rotor", style::gap, range::wanted, w.faceGap);
    v.reading("centred_mm", "centring aimed at", style::fine, range::wanted, w.centred);
    v.reading("usable_mm", "centring still usable", style::fine, range::wanted, w.usable);
    v.reading("hat_gap_mm", "wanted gap over the hat", style::gap, range::wanted, w.hatGap);
    v.reading("keep_out_gap_mm", "wanted gap to knuckle and ball joint", style::gap, range::wanted, w.keepOutGap);
    v.reading("hose_gap_mm", "wanted gap to the hose", style::gap, range::wanted, w.hoseGap);
    v.reading("shield_gap_mm", "margin round rotor and caliper at the shield", style::gap, range::wanted, w.shieldGap);
    v.reading("hot_rise_k", "rise of a hot rotor", style::rise, range::rise, w.hotRise);
    v.reading("coning_mm", "coning of a hot rotor", style::fine, range::smallHeight, w.coning);
    v.reading("station_spacing_mm", "stations of a wheel at most apart", style::frame, range::length, w.stationSpacing);
    v.reading("stud_engagement", "thread in the nut over stud diameter", style::number, range::engagement, w.studEngagement);
    v.reading("pilot_left_mm", "pilot wanted inside the wheel", style::gap, range::smallHeight, w.pilotLeft);
    v.reading("spacer_step_mm", "a spacer can be turned in steps of", style::size, range::wanted, w.spacerStep);
    v.reading("pad_edge_mm", "pad edge aimed at, below the rotor's", style::fine, range::smallHeight, w.padEdge);
    v.reading("shims_per_bolt", "shims on one bolt at most", style::count, range::shimsPerBolt, w.shimsPerBolt);
    v.reading("weight_height_mm", "height of unplaced balance weights", style::gap, range::smallHeight, w.weightHeight);
    v.reading("antilock_quality", "share of the grip antilock uses", style::number, range::quality, w.antilockQuality);
    v.reading("slip_margin", "slip safety factor of bolts that carry the brake", style::number, range::engagement, w.slipMargin);
    v.reading("stroke_percent", "share of the master's stroke for a hard stop", style::share, range::share, w.strokeShare);
    v.reading("light_effort_n", "lightest comfortable foot for 1 g", style::force, range::pedalForce, w.lightEffort);
    v.reading("firm_effort_n", "firmest comfortable foot for 1 g", style::force, range::pedalForce, w.firmEffort);
    v.reading("greatest_effort_n", "greatest effort of the foot", style::force, range::pedalForce, w.greatestEffort);
    v.reading("booster_run_out_bar", "front pressure where a booster runs out", style::pressure, range::pressure, w.boosterRunOut);
    v.reading("roll_back_mm", "roll-back of a caliper's piston", style::fine, range::smallHeight, w.rollBack);
    v.reading("pad_squeeze_mm", "give of one pad at 70 bar", style::fine, range::smallHeight, w.padSqueeze);
    v.reading("caliper_give_cm3", "give of a caliper or drum at 70 bar", style::fluid, range::fluid, w.caliperGive);
    v.reading("rubber_give_cm3", "give of a metre of rubber hose at 70 bar", style::fluid, range::fluid, w.rubberGive);
    v.reading("braided_give_cm3", "give of a metre of braided hose at 70 bar", style::fluid, range::fluid, w.braidedGive);
    v.reading("shoe_play_mm", "play of a wheel cylinder's piston", style::fine, range::smallHeight, w.shoePlay);
    v.reading("ambient_degC", "air round the brakes", style::temperature, range::temperature, w.ambient);
    v.reading("fade_percent", "friction left where a pad is called faded", style::share, range::share, w.fadeAt);
}

template <class V, Is<Build> T>
void fields(V& v, T& b)
{
    v.text("currency", "currency", b.currency);
    v.object("car", "", b.car);
    v.object("front_hub", "front", b.frontHub);
    v.object("rear_hub", "rear", b.rearHub);
    v.object("wants", "", b.wants);
    v.list("wheels", "", 200, b.wheels);
    v.list("setups", "", 60, b.setups);
    v.list("duties", "", 60, b.duties);
    v.list("loads", "load", 20, b.loads);
    v.list("drawer", "drawer", 60, b.drawer);
    v.list("mock_ups", "mock-up", 40, b.mockUps);
    v.list("tests", "", 200, b.tests);
}

#define DESCRIBED(Part)                                                                                                                    \
    template void describe(Visitor&, Part&);                                                                                               \
    template void describe(ConstVisitor&, const Part&);
DESCRIBED(Car)
DESCRIBED(Hydraulics)
DESCRIBED(Carried)
DESCRIBED(Leg)
DESCRIBED(DutyPlan)
DESCRIBED(MeasuredTemperature)
DESCRIBED(LoadCase)
DESCRIBED(KeepOut)
DESCRIBED(Hub)
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
DESCRIBED(Fitted)
DESCRIBED(BracketPoint)
DESCRIBED(Drum)
DESCRIBED(Weighing)
DESCRIBED(Bracket)
DESCRIBED(Hose)
DESCRIBED(Costs)
DESCRIBED(Receipt)
DESCRIBED(Joint)
DESCRIBED(Corner)
DESCRIBED(Setup)
DESCRIBED(ShimStock)
DESCRIBED(Pass)
DESCRIBED(MockUp)
DESCRIBED(MeasuredStop)
DESCRIBED(TestSession)
DESCRIBED(Wants)
DESCRIBED(Build)
#undef DESCRIBED

} // namespace deepstop
