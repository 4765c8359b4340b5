/// The table of fields: the car, its hydraulics and hubs, what it carries and is asked to do.

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
    v.reading("drag_area_m2", "drag area", style::dragArea, range::dragArea, c.dragArea);
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
    v.choice("booster_test", "booster: pump, hold, start the engine", h.boosterTest, choices::boosterTest);
    v.reading("booster_knee_n", "run-out force of the booster", style::force, range::rodForce, h.boosterKnee);
    v.choice("master", "master cylinder", h.master, choices::master);
    v.reading("master_bore_mm", "master cylinder bore", style::fine, range::bore, h.masterBore);
    v.reading("rear_master_bore_mm", "rear master cylinder's bore", style::fine, range::bore, h.rearMasterBore);
    v.reading("bar_front_percent", "balance bar's share to the front", style::share, range::share, h.barPosition);
    v.reading("master_stroke_mm", "master cylinder's whole stroke", style::size, range::thickness, h.masterStroke);
    v.reading("front_stroke_percent", "front circuit's share of the stroke", style::share, range::share, h.frontStroke);
    v.choice("circuits", "circuits", h.circuits, choices::circuits);
    v.reading("line_pressure_bar", "line pressure", style::pressure, range::pressure, h.linePressure);
    v.choice("valve", "valve to the rear", h.valve, choices::valve);
    v.reading("rear_knee_bar", "proportioning valve's split pressure", style::pressure, range::pressureOrNone, h.rearKneePressure);
    v.reading("rear_slope", "proportioning valve's ratio above it", style::number, range::slope, h.rearSlope);
    v.reading(
        "knee_per_load_bar_per_kn", "split pressure gained per rear axle load", style::kneePerLoad, range::kneePerLoad, h.kneePerLoad);
    v.reading("metering_bar", "pressure at which the metering valve opens", style::pressure, range::pressureOrNone, h.meteringPressure);
    v.reading("residual_front_bar", "residual pressure in the front line", style::pressure, range::pressureOrNone, h.residualFront);
    v.reading("residual_rear_bar", "residual pressure in the rear line", style::pressure, range::pressureOrNone, h.residualRear);
    v.reading("build_up_s", "build-up time", style::seconds, range::buildUp, h.buildUpTime);
    v.reading("reservoir_cm3", "reservoir volume, min to max", style::volume, range::volume, h.reservoir);
    v.choice("fluid", "brake fluid", h.fluid, choices::fluid);
    v.reading("fluid_age_months", "age of the fluid", style::months, range::age, h.fluidAge);
    v.reading("dry_boiling_degC", "boiling point of fresh fluid", style::temperature, range::temperature, h.dryBoiling);
    v.reading("wet_boiling_degC", "boiling point of wet fluid", style::temperature, range::temperature, h.wetBoiling);
}

template <class V, Is<Leg> T>
void fields(V& v, T& l)
{
    v.element(l.id);
    v.reading("from_kmh", "speed at its beginning", style::speed, range::speedOrNone, l.from);
    v.reading("to_kmh", "speed at its end", style::speed, range::speedOrNone, l.to);
    v.reading("time_s", "time it takes", style::seconds, range::duration, l.time);
    v.reading("slope_percent", "slope, falling positive", style::grade, range::slopeOfRoad, l.slope);
    v.choice("braking", "brakes on", l.braking, choices::yesNo);
}

template <class V, Is<DutyPlan> T>
void fields(V& v, T& d)
{
    v.text("id", "id", d.id);
    v.text("name", "duty", d.name);
    v.count("repeats", "repetitions", 2000, d.repeats);
    v.text("load", "driven laden as", d.load);
    v.reading("towed_kg", "trailer without brakes", style::carMass, range::towed, d.towed);
    v.reading("engine_braking_g", "engine braking", style::deceleration, range::engineBraking, d.engineBraking);
    v.list("legs", "segment", 2000, d.legs);
}

template <class V, Is<Carried> T>
void fields(V& v, T& c)
{
    v.element(c.id);
    v.text("what", "what it is", c.what);
    v.reading("mass_kg", "mass carried", style::carMass, range::carriedMass, c.mass);
    v.reading("behind_front_axle_mm", "place behind the front axle", style::frame, range::carriedPlace, c.behindFrontAxle);
    v.reading("height_mm", "height over the road", style::frame, range::massHeight, c.height);
}

template <class V, Is<LoadCase> T>
void fields(V& v, T& l)
{
    v.element(l.id);
    v.text("name", "load", l.name);
    v.list("carried", "carried", 40, l.carried);
}

template <class V, Is<KeepOut> T>
void fields(V& v, T& k)
{
    v.element(k.id);
    v.choice("kind", "what it is", k.kind, choices::keepOut);
    v.text("name", "name", k.name);
    v.reading("depth_mm", "depth inboard of the hub face", style::size, range::place, k.depth);
    v.reading("radius_mm", "distance from the axis", style::size, range::length, k.radius);
    v.reading("clock_deg", "angle round the axle", style::angle, range::turn, k.clock);
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
    v.reading("pin_length_mm", "drive pins from the flange", style::size, range::height, h.pinLength);
    v.choice("nut_locked", "centre nut kept by a pin, clip or wire", h.nutLocked, choices::yesNo);
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
    v.reading("shield_rib_mm", "rib of the dust shield over its plate", style::size, range::height, h.shieldRib);
    v.reading("cable_end_mm", "end of the parking cable", style::size, range::bore, h.cableEnd);
    v.reading("cable_free_mm", "parking cable out of its sleeve", style::size, range::length, h.cableFree);
    v.reading("cable_travel_mm", "travel of the parking cable", style::size, range::length, h.cableTravel);
    v.text("parking_connector", "connector for a parking motor", h.parkingConnector);
    v.choice("electric_parking", "parking brake worked by a motor", h.electricParking, choices::yesNo);
    v.choice("shield_in_the_way", "shield keeps rotor or bracket from going on", h.shieldInTheWay, choices::yesNo);
    v.choice("speed_sensor", "wheel-speed sensor's wire at the knuckle", h.speedSensor, choices::yesNo);
    v.list("keep_outs", "keep-out", 24, h.keepOuts);
    v.text("scan", "file of its scan", h.scan);
    v.text("scan_sha256", "check sum of that file", h.scanHash);
}

DESCRIBED(Car)
DESCRIBED(Hydraulics)
DESCRIBED(Leg)
DESCRIBED(DutyPlan)
DESCRIBED(Carried)
DESCRIBED(LoadCase)
DESCRIBED(KeepOut)
DESCRIBED(Hub)

} // namespace deepstop
