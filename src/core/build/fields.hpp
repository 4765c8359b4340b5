#pragma once
/// Every field of the document, named once: its key in the file (which carries the unit), its name in the trade, how it is written
/// and what range makes sense. Files, the published schema, editing by address and the list of missing readings all read this table.
///
/// A visitor has the members
///   reading(key, label, style, range, Reading&)            readings(key, label, style, range, vector<Reading>&)
///   text(key, label, string&)                              count(key, label, int&)     plain(key, label, double&)
///   choice(key, label, E&, table)                          choices(key, label, vector<E>&, table)
///   object(key, label, T&)   optional(key, label, optional<T>&)   list(key, label, vector<T>&)

#include "build/build.hpp"
#include "quantity/format.hpp"

#include <array>
#include <string_view>
#include <utility>

namespace deepstop {

enum class Range { Any, NotNegative, Positive };

template <class E, std::size_t N>
using ChoiceTable = std::array<std::pair<std::string_view, E>, N>;

namespace choices {
inline constexpr ChoiceTable<YesNo, 3> yesNo { { { "unknown", YesNo::Unknown }, { "yes", YesNo::Yes }, { "no", YesNo::No } } };
inline constexpr ChoiceTable<HatMaterial, 2> hat { { { "iron", HatMaterial::Iron }, { "aluminium", HatMaterial::Aluminium } } };
inline constexpr ChoiceTable<RotorFace, 4> face { { { "plain", RotorFace::Plain }, { "dimpled", RotorFace::Dimpled },
    { "slotted", RotorFace::Slotted }, { "drilled", RotorFace::Drilled } } };
inline constexpr ChoiceTable<CaliperKind, 2> caliper { { { "fixed", CaliperKind::Fixed }, { "floating", CaliperKind::Floating } } };
inline constexpr ChoiceTable<MountKind, 2> mount { { { "lug", MountKind::Lug }, { "radial", MountKind::Radial } } };
inline constexpr ChoiceTable<Direction, 2> direction { { { "inboard", Direction::Inboard }, { "outboard", Direction::Outboard } } };
inline constexpr ChoiceTable<RingMaterial, 3> ring { { { "iron", RingMaterial::Iron }, { "steel", RingMaterial::Steel },
    { "carbon-ceramic", RingMaterial::CarbonCeramic } } };
inline constexpr ChoiceTable<RotorBuild, 2> rotorBuild { { { "one-piece", RotorBuild::OnePiece }, { "two-piece", RotorBuild::TwoPiece } } };
inline constexpr ChoiceTable<VaneShape, 3> vanes { { { "straight", VaneShape::Straight }, { "curved", VaneShape::Curved },
    { "pillars", VaneShape::Pillars } } };
inline constexpr ChoiceTable<Handed, 3> handed { { { "unknown", Handed::Unknown }, { "either side", Handed::Either },
    { "sided", Handed::Sided } } };
inline constexpr ChoiceTable<Bleeders, 3> bleeders { { { "unknown", Bleeders::Unknown }, { "one end", Bleeders::OneEnd },
    { "both ends", Bleeders::BothEnds } } };
inline constexpr ChoiceTable<ParkingBrake, 4> parking { { { "unknown", ParkingBrake::Unknown }, { "none", ParkingBrake::None },
    { "drum in hat", ParkingBrake::DrumInHat }, { "in caliper", ParkingBrake::InCaliper } } };
inline constexpr ChoiceTable<WhichHand, 3> hand { { { "unknown", WhichHand::Unknown }, { "left", WhichHand::Left }, { "right", WhichHand::Right } } };
inline constexpr ChoiceTable<Checked, 3> checked { { { "open", Checked::Open }, { "fine", Checked::Fine }, { "fault", Checked::Fault } } };
inline constexpr ChoiceTable<Part, 8> part { { { "rotor", Part::Rotor }, { "caliper", Part::Caliper }, { "pads", Part::Pads },
    { "bracket", Part::Bracket }, { "hose", Part::Hose }, { "hardware", Part::Hardware }, { "ring", Part::Ring }, { "hat", Part::Hat } } };
inline constexpr ChoiceTable<Axle, 2> axle { { { "front", Axle::Front }, { "rear", Axle::Rear } } };
inline constexpr ChoiceTable<Side, 2> side { { { "left", Side::Left }, { "right", Side::Right } } };
inline constexpr ChoiceTable<NutSeat, 4> nutSeat { { { "unknown", NutSeat::Unknown }, { "cone", NutSeat::Cone }, { "ball", NutSeat::Ball },
    { "flat", NutSeat::Flat } } };
inline constexpr ChoiceTable<KeepOutKind, 4> keepOut { { { "knuckle", KeepOutKind::Knuckle }, { "ball joint", KeepOutKind::BallJoint },
    { "hose", KeepOutKind::Hose }, { "other", KeepOutKind::Other } } };
inline constexpr ChoiceTable<InsetKind, 3> inset { { { "balance weights", InsetKind::Weights }, { "valve", InsetKind::Valve },
    { "pressure sensor", InsetKind::Sensor } } };
inline constexpr ChoiceTable<End, 3> end { { { "unknown", End::Unknown }, { "rotor's entry", End::Entry }, { "rotor's exit", End::Exit } } };
inline constexpr ChoiceTable<BumpKind, 3> bump { { { "bleeder", BumpKind::Bleeder }, { "bolt head", BumpKind::BoltHead },
    { "pipe", BumpKind::Pipe } } };
inline constexpr ChoiceTable<BoltClass, 4> boltClass { { { "unknown", BoltClass::Unknown }, { "8.8", BoltClass::C8_8 }, { "10.9", BoltClass::C10_9 },
    { "12.9", BoltClass::C12_9 } } };
inline constexpr ChoiceTable<Condition, 4> condition { { { "dry", Condition::Dry }, { "oiled", Condition::Oiled }, { "threadlocker", Condition::Threadlocker },
    { "anti-seize", Condition::AntiSeize } } };
inline constexpr ChoiceTable<ThreadIn, 4> threadIn { { { "unknown", ThreadIn::Unknown }, { "steel", ThreadIn::Steel }, { "iron", ThreadIn::Iron },
    { "aluminium", ThreadIn::Aluminium } } };
inline constexpr ChoiceTable<ShimsIn, 3> shimsIn { { { "none", ShimsIn::None }, { "axial shims", ShimsIn::Axial }, { "radial shims", ShimsIn::Radial } } };
inline constexpr ChoiceTable<Freed, 2> freed { { { "just turns free", Freed::JustTurns }, { "turns with the wanted gap", Freed::WantedGap } } };
inline constexpr ChoiceTable<Known, 3> known { { { "measured", Known::Measured }, { "vendor", Known::Vendor },
    { "estimated", Known::Estimated } } };
} // namespace choices

/// What visitors of one part have in common: objects are walked into, what is no field of its own is passed over.
template <class Self>
struct PartVisitor {
    template <class E, class T>
    void choices(std::string_view, std::string_view, std::vector<E>&, const T&)
    {
    }
    template <class T>
    void object(std::string_view, std::string_view, T& value)
    {
        describe(static_cast<Self&>(*this), value);
    }
    template <class T>
    void optional(std::string_view, std::string_view, std::optional<T>&)
    {
    }
    template <class T>
    void list(std::string_view, std::string_view, std::vector<T>&)
    {
    }
};

template <class E, std::size_t N>
[[nodiscard]] constexpr std::string_view wordFor(E value, const ChoiceTable<E, N>& table)
{
    for (const auto& [word, candidate] : table)
        if (candidate == value)
            return word;
    return {};
}

template <class V>
void describe(V& v, Car& c)
{
    v.text("name", "name", c.name);
    v.text("note", "note", c.note);
    v.reading("mass_kg", "mass with driver", style::carMass, Range::Positive, c.mass);
    v.reading("wheelbase_mm", "wheelbase", style::frame, Range::Positive, c.wheelbase);
    v.reading("centre_of_mass_height_mm", "height of the centre of mass", style::frame, Range::Positive, c.centreOfMassHeight);
    v.reading("front_load_percent", "front axle load at rest", style::share, Range::Positive, c.frontLoadShare);
    v.reading("grip", "tyre grip", style::number, Range::Positive, c.grip);
    v.reading("drag_area_m2", "drag area", style::number, Range::NotNegative, c.dragArea);
    v.reading("front_tyre_radius_mm", "front tyre's rolling radius", style::frame, Range::Positive, c.frontTyreRadius);
    v.reading("rear_tyre_radius_mm", "rear tyre's rolling radius", style::frame, Range::Positive, c.rearTyreRadius);
    v.reading("front_track_mm", "front track", style::frame, Range::Positive, c.frontTrack);
    v.reading("rear_track_mm", "rear track", style::frame, Range::Positive, c.rearTrack);
    v.choice("antilock", "antilock brakes", c.antilock, choices::yesNo);
    v.reading("test_speed_kmh", "speed to stop from", style::speed, Range::Positive, c.testSpeed);
}

template <class V>
void describe(V& v, Hydraulics& h)
{
    v.reading("pedal_force_n", "pedal force", style::force, Range::Positive, h.pedalForce);
    v.reading("pedal_ratio", "pedal ratio", style::number, Range::Positive, h.pedalRatio);
    v.reading("booster_gain", "booster gain", style::number, Range::Positive, h.boosterGain);
    v.reading("master_bore_mm", "master cylinder bore", style::fine, Range::Positive, h.masterBore);
    v.reading("line_pressure_bar", "line pressure", style::pressure, Range::Positive, h.linePressure);
    v.reading("rear_knee_bar", "proportioning valve's knee", style::pressure, Range::NotNegative, h.rearKneePressure);
    v.reading("rear_slope", "proportioning valve's slope", style::number, Range::NotNegative, h.rearSlope);
    v.reading("build_up_s", "build-up time", style::seconds, Range::NotNegative, h.buildUpTime);
}

template <class V>
void describe(V& v, KeepOut& k)
{
    v.choice("kind", "what it is", k.kind, choices::keepOut);
    v.text("name", "name", k.name);
    v.reading("depth_mm", "depth inboard of the hub face", style::size, Range::Any, k.depth);
    v.reading("radius_mm", "distance from the axis", style::size, Range::Positive, k.radius);
}

template <class V>
void describe(V& v, Hub& h)
{
    v.reading("flange_diameter_mm", "hub flange diameter", style::size, Range::Positive, h.flangeDiameter);
    v.reading("pilot_diameter_mm", "hub pilot diameter", style::fine, Range::Positive, h.pilotDiameter);
    v.reading("pilot_height_mm", "hub pilot height", style::size, Range::NotNegative, h.pilotHeight);
    v.reading("bolt_circle_mm", "bolt circle", style::size, Range::Positive, h.boltCircle);
    v.count("stud_count", "number of studs", h.studCount);
    v.reading("stud_length_mm", "stud length from the flange", style::size, Range::Positive, h.studLength);
    v.reading("stud_diameter_mm", "stud diameter", style::size, Range::Positive, h.studDiameter);
    v.text("stud_thread", "thread of the studs", h.studThread);
    v.reading("nut_thread_mm", "thread length in a wheel nut", style::size, Range::Positive, h.nutThread);
    v.choice("nut_seat", "seat of the nuts", h.nutSeat, choices::nutSeat);
    v.reading("lug_spacing_mm", "spacing of the knuckle's lugs", style::size, Range::Positive, h.lugSpacing);
    v.reading("lug_radius_mm", "middle of the lugs from the axis", style::size, Range::Positive, h.lugRadius);
    v.reading("lug_depth_mm", "lugs' face inboard of the hub face", style::size, Range::Any, h.lugDepth);
    v.reading("lug_thickness_mm", "thickness of the lugs", style::size, Range::Positive, h.lugThickness);
    v.reading("lug_edge_mm", "hole to the edge of its lug", style::size, Range::Positive, h.lugEdge);
    v.text("lug_thread", "thread of the knuckle's lugs", h.lugThread);
    v.text("line_thread", "thread of the hard line", h.lineThread);
    v.reading("hose_reach_mm", "hose length needed at droop and lock", style::frame, Range::Positive, h.hoseReach);
    v.choice("parking_brake", "parking brake", h.parkingBrake, choices::parking);
    v.reading("shoe_diameter_mm", "drum the parking shoes are made for", style::size, Range::Positive, h.shoeDiameter);
    v.reading("scrub_radius_mm", "scrub radius as found", style::frame, Range::Any, h.scrubRadius);
    v.reading("fender_room_mm", "tyre to fender as found", style::frame, Range::NotNegative, h.fenderRoom);
    v.reading("inner_room_mm", "tyre to strut as found", style::frame, Range::NotNegative, h.innerRoom);
    v.reading("shield_diameter_mm", "dust shield's diameter", style::size, Range::Positive, h.shieldDiameter);
    v.reading("shield_depth_mm", "dust shield's plate from the hub face", style::size, Range::NotNegative, h.shieldDepth);
    v.reading("shield_rim_mm", "rim of the dust shield", style::size, Range::NotNegative, h.shieldRim);
    v.list("keep_outs", "keep-out", h.keepOuts);
}

template <class V>
void describe(V& v, BarrelStation& s)
{
    v.reading("depth_mm", "depth", style::size, Range::Any, s.depth);
    v.reading("inside_radius_mm", "inside radius", style::size, Range::Positive, s.insideRadius);
}

template <class V>
void describe(V& v, SpokeStation& s)
{
    v.reading("radius_mm", "radius", style::size, Range::Positive, s.radius);
    v.reading("distance_mm", "distance to the mounting face", style::size, Range::Any, s.distance);
    v.text("along", "measured along", s.along);
}

template <class V>
void describe(V& v, Inset& i)
{
    v.choice("kind", "what it is", i.kind, choices::inset);
    v.reading("from_mm", "depth of its outboard end", style::size, Range::Any, i.from);
    v.reading("to_mm", "depth of its inboard end", style::size, Range::Any, i.to);
    v.reading("height_mm", "height over the barrel", style::size, Range::Positive, i.height);
}

template <class V>
void describe(V& v, Wheel& w)
{
    v.text("id", "id", w.id);
    v.text("name", "name", w.name);
    v.text("from", "id in the parts library", w.from);
    v.count("nominal_diameter", "printed diameter", w.nominalDiameter);
    v.plain("nominal_width", "printed width", w.nominalWidth);
    v.reading("offset_mm", "wheel offset", style::size, Range::Any, w.offset);
    v.reading("mass_kg", "wheel's weight with tyre", style::partMass, Range::Positive, w.mass);
    v.reading("bore_mm", "wheel bore", style::fine, Range::Positive, w.bore);
    v.reading("overall_width_mm", "wheel's width over the flanges", style::size, Range::Positive, w.overallWidth);
    v.reading("pad_thickness_mm", "wheel's thickness under the nut", style::size, Range::Positive, w.padThickness);
    v.choice("nut_seat", "seat for the nuts", w.nutSeat, choices::nutSeat);
    v.reading("give_mm", "give of the rim in a hard corner", style::gap, Range::NotNegative, w.give);
    v.list("barrel", "barrel station", w.barrel);
    v.list("spokes", "spoke station", w.spokes);
    v.list("insets", "inside the barrel", w.insets);
}

template <class V>
void describe(V& v, Rotor& r)
{
    v.text("name", "name", r.name);
    v.text("from", "id in the parts library", r.from);
    v.choice("construction", "construction", r.construction, choices::rotorBuild);
    v.choice("face", "face", r.face, choices::face);
    v.count("slots", "slots in its face", r.slotCount);
    v.choice("ring_material", "ring material", r.ringMaterial, choices::ring);
    v.choice("hat_material", "hat material", r.hatMaterial, choices::hat);
    v.choice("handed", "fits which side", r.handed, choices::handed);
    v.reading("outer_diameter_mm", "rotor diameter", style::size, Range::Positive, r.outerDiameter);
    v.reading("thickness_mm", "rotor thickness", style::size, Range::Positive, r.thickness);
    v.reading("minimum_thickness_mm", "rotor's minimum thickness", style::size, Range::Positive, r.minimumThickness);
    v.reading("ring_inner_diameter_mm", "friction ring's inner diameter", style::size, Range::Positive, r.ringInnerDiameter);
    v.reading("overall_height_mm", "rotor's overall height", style::size, Range::Positive, r.overallHeight);
    v.reading("hat_thickness_mm", "hat thickness", style::size, Range::Positive, r.hatThickness);
    v.reading("hat_outer_diameter_mm", "hat's outer diameter", style::size, Range::Positive, r.hatOuterDiameter);
    v.reading("hat_wall_mm", "hat wall", style::size, Range::Positive, r.hatWall);
    v.reading("bore_mm", "rotor bore", style::fine, Range::Positive, r.bore);
    v.reading("hat_pocket_diameter_mm", "hat pocket", style::size, Range::Positive, r.pocketDiameter);
    v.reading("bolt_circle_mm", "rotor's bolt circle", style::size, Range::Positive, r.boltCircle);
    v.count("bolt_holes", "bolt holes", r.boltHoles);
    v.reading("bolt_hole_diameter_mm", "bolt hole diameter", style::size, Range::Positive, r.boltHoleDiameter);
    v.reading("drum_diameter_mm", "drum in the hat", style::size, Range::Positive, r.drumDiameter);
    v.count("hat_bolts", "hat bolts", r.hatBolts);
    v.text("hat_bolt_thread", "thread of the hat bolts", r.hatBoltThread);
    v.reading("vent_gap_mm", "vent gap", style::size, Range::NotNegative, r.ventGap);
    v.reading("vane_share_percent", "vanes' share of the vent", style::share, Range::NotNegative, r.vaneShare);
    v.choice("vane_shape", "vane shape", r.vaneShape, choices::vanes);
    v.count("vanes", "vanes", r.vanes);
    v.reading("vane_thickness_mm", "vane thickness", style::size, Range::Positive, r.vaneThickness);
    v.reading("vane_lean_deg", "lean of the vanes", style::angle, Range::NotNegative, r.vaneLean);
    v.reading("runout_mm", "runout", style::fine, Range::NotNegative, r.runout);
    v.reading("thickness_variation_mm", "thickness variation", style::thousandth, Range::NotNegative, r.thicknessVariation);
}

template <class V>
void describe(V& v, Bump& b)
{
    v.choice("kind", "what it is", b.kind, choices::bump);
    v.reading("over_edge_mm", "top over the rotor's edge", style::size, Range::Any, b.overEdge);
    v.reading("height_mm", "height", style::size, Range::Positive, b.height);
    v.reading("at_depth_mm", "middle from the slot's middle", style::size, Range::Any, b.atDepth);
    v.reading("width_mm", "width", style::size, Range::Positive, b.width);
    v.reading("from_middle_mm", "far side from the caliper's middle", style::size, Range::NotNegative, b.fromMiddle);
}

template <class V>
void describe(V& v, Caliper& c)
{
    v.text("name", "name", c.name);
    v.text("from", "id in the parts library", c.from);
    v.choice("kind", "kind", c.kind, choices::caliper);
    v.text("material", "caliper material", c.material);
    v.text("piston_material", "piston material", c.pistonMaterial);
    v.choice("bleeders", "bleeders", c.bleeders, choices::bleeders);
    v.choice("bleeder_end", "bleeder's end", c.bleederEnd, choices::end);
    v.text("hose_thread", "thread for the hose", c.hoseThread);
    v.reading("back_over_edge_mm", "caliper back over the rotor's edge", style::size, Range::Positive, c.backOverEdge);
    v.reading("back_length_mm", "length of the caliper's straight back", style::size, Range::NotNegative, c.backLength);
    v.reading("bridge_gap_mm", "bridge over the rotor's edge", style::gap, Range::Any, c.bridgeGap);
    v.reading("reach_mm", "caliper's reach below the rotor's edge", style::size, Range::Positive, c.reach);
    v.reading("outboard_depth_mm", "caliper depth outboard", style::size, Range::Positive, c.outboardDepth);
    v.reading("inboard_depth_mm", "caliper depth inboard", style::size, Range::Positive, c.inboardDepth);
    v.reading("shoulder_mm", "caliper's shoulder chamfer", style::size, Range::NotNegative, c.shoulder);
    v.reading("corner_radius_mm", "rounding of the back's ends", style::size, Range::NotNegative, c.cornerRadius);
    v.reading("slot_width_mm", "caliper slot width", style::size, Range::Positive, c.slotWidth);
    v.reading("pad_room_mm", "room between pistons pushed home", style::size, Range::Positive, c.padRoom);
    v.reading("pad_window_mm", "length of the pad opening", style::size, Range::Positive, c.padWindow);
    v.reading("mount_spacing_mm", "spacing of the caliper's mounting holes", style::size, Range::Positive, c.mountSpacing);
    v.reading("mount_drop_mm", "mounting holes inward of the rotor's edge", style::size, Range::Any, c.mountDrop);
    v.reading("mount_depth_mm", "mounting face from the slot's middle", style::size, Range::Any, c.mountDepth);
    v.choice("split", "two halves bolted together", c.split, choices::yesNo);
    v.count("bridge_bolts", "bolts of the halves", c.bridgeBolts);
    v.text("bridge_bolt_thread", "thread of the halves' bolts", c.bridgeBoltThread);
    v.reading("bridge_bolt_length_mm", "length of the halves' bolts", style::size, Range::Positive, c.bridgeBoltLength);
    v.reading("bridge_bolt_grip_mm", "their grip in the near half", style::size, Range::Positive, c.bridgeBoltGrip);
    v.reading("pin_length_mm", "length of the pad pins", style::size, Range::Positive, c.pinLength);
    v.choice("crossover", "fluid crosses inside", c.crossover, choices::yesNo);
    v.reading("widened_mm", "spacers between the halves", style::size, Range::NotNegative, c.widened);
    v.readings("pistons_mm", "piston bore", style::size, Range::Positive, c.pistons);
    v.list("bumps", "proud of the caliper", c.bumps);
}

template <class V>
void describe(V& v, FrictionPoint& p)
{
    v.reading("temperature_degC", "pad temperature", style::temperature, Range::Any, p.temperature);
    v.reading("friction", "friction there", style::number, Range::Positive, p.friction);
}

template <class V>
void describe(V& v, Pad& p)
{
    v.text("name", "name", p.name);
    v.text("from", "id in the parts library", p.from);
    v.text("compound", "compound", p.compound);
    v.reading("height_mm", "pad height", style::size, Range::Positive, p.height);
    v.reading("length_mm", "pad length", style::size, Range::Positive, p.length);
    v.reading("thickness_mm", "pad's friction thickness", style::size, Range::Positive, p.thickness);
    v.reading("backing_mm", "pad backing thickness", style::size, Range::Positive, p.backing);
    v.reading("minimum_thickness_mm", "lining's minimum thickness", style::size, Range::NotNegative, p.minimumThickness);
    v.reading("area_cm2", "pad area", style::area, Range::Positive, p.area);
    v.reading("friction", "pad friction", style::number, Range::Positive, p.friction);
    v.list("friction_over_temperature", "point", p.frictionOverTemperature);
    v.choice("wear_sensor", "wear sensor", p.wearSensor, choices::yesNo);
}

template <class V>
void describe(V& v, Mount& m)
{
    v.choice("kind", "kind of mount", m.kind, choices::mount);
    v.reading("slot_centre_mm", "slot's middle from the hub face", style::fine, Range::Any, m.slotCentre);
    v.reading("pad_inset_mm", "pad edge below the rotor's edge", style::size, Range::Any, m.padInset);
    v.reading("bolt_spacing_mm", "spacing of the mounting bolts", style::size, Range::Positive, m.boltSpacing);
    v.reading("shim_top_mm", "shims on the top bolt", style::fine, Range::NotNegative, m.shimTop);
    v.reading("shim_bottom_mm", "shims on the bottom bolt", style::fine, Range::NotNegative, m.shimBottom);
    v.reading("radial_top_mm", "radial shims on the top stud", style::fine, Range::NotNegative, m.radialTop);
    v.reading("radial_bottom_mm", "radial shims on the bottom stud", style::fine, Range::NotNegative, m.radialBottom);
    v.reading("clock_deg", "clock position of the caliper", style::angle, Range::Any, m.clock);
    v.choice("shims_move", "thicker shims move the caliper", m.shimMoves, choices::direction);
}

template <class V>
void describe(V& v, Weighing& w)
{
    v.reading("mass_kg", "weighing", style::partMass, Range::Positive, w.mass);
    v.choices("contains", "what lay on the scale", w.contains, choices::part);
}

template <class V>
void describe(V& v, Bracket& b)
{
    v.text("name", "name", b.name);
    v.reading("knuckle_spacing_mm", "bracket's holes towards the knuckle", style::size, Range::Positive, b.knuckleSpacing);
    v.reading("caliper_spacing_mm", "bracket's holes towards the caliper", style::size, Range::Positive, b.caliperSpacing);
    v.reading("thickness_mm", "bracket's thickness", style::size, Range::Positive, b.thickness);
    v.reading("knuckle_hole_mm", "bracket's hole towards the knuckle", style::size, Range::Positive, b.knuckleHole);
    v.reading("caliper_hole_mm", "bracket's hole towards the caliper", style::size, Range::Positive, b.caliperHole);
    v.text("material", "bracket's material", b.material);
    v.text("bolt_thread", "thread of the bracket's bolts", b.boltThread);
}

template <class V>
void describe(V& v, Hose& h)
{
    v.reading("length_mm", "hose length", style::frame, Range::Positive, h.length);
    v.text("caliper_end", "hose thread at the caliper", h.caliperEnd);
    v.text("line_end", "hose thread at the hard line", h.lineEnd);
}

template <class V>
void describe(V& v, Costs& c)
{
    v.reading("kit", "price of the kit", style::money, Range::NotNegative, c.kit);
    v.reading("rotors", "price of a pair of rotors", style::money, Range::NotNegative, c.rotors);
    v.reading("pads", "price of a set of pads", style::money, Range::NotNegative, c.pads);
    v.text("availability", "availability", c.availability);
}

template <class V>
void describe(V& v, Receipt& r)
{
    v.text("item", "item", r.item);
    v.choice("state", "state", r.state, choices::checked);
    v.choice("hand", "hand", r.hand, choices::hand);
    v.text("note", "note", r.note);
}

template <class V>
void describe(V& v, Joint& j)
{
    v.text("name", "name", j.name);
    v.text("thread", "thread", j.thread);
    v.count("bolts", "how many bolts", j.bolts);
    v.choice("class", "class of the bolts", j.boltClass, choices::boltClass);
    v.choice("condition", "threads are", j.condition, choices::condition);
    v.choice("thread_in", "thread cut in", j.threadIn, choices::threadIn);
    v.choice("shims", "shims in the grip", j.shims, choices::shimsIn);
    v.count("times_used", "times done up before", j.timesUsed);
    v.reading("length_mm", "bolt length under the head", style::size, Range::Positive, j.length);
    v.reading("grip_mm", "grip without shims", style::size, Range::NotNegative, j.grip);
    v.reading("thread_depth_mm", "depth of the thread", style::size, Range::Positive, j.threadDepth);
    v.reading("room_behind_mm", "room behind the thread", style::size, Range::NotNegative, j.roomBehind);
    v.reading("maker_torque_nm", "maker's torque", style::torque, Range::Positive, j.makerTorque);
    v.reading("mount_radius_mm", "bolts from the axis", style::size, Range::Positive, j.mountRadius);
}

template <class V>
void describe(V& v, Corner& c)
{
    v.text("wheel", "wheel", c.wheel);
    v.object("rotor", "", c.rotor);
    v.object("caliper", "", c.caliper);
    v.object("pad", "", c.pad);
    v.object("mount", "", c.mount);
    v.object("bracket", "", c.bracket);
    v.object("hose", "", c.hose);
    v.object("costs", "", c.costs);
    v.reading("ring_mm", "ring behind the rotor", style::size, Range::NotNegative, c.ring);
    v.reading("spacer_mm", "wheel spacer", style::size, Range::NotNegative, c.spacer);
    v.reading("washers_mm", "washers in a trial", style::size, Range::NotNegative, c.washers);
    v.choice("washers_gave", "with the washers the wheel", c.freed, choices::freed);
    v.list("weighings", "weighing", c.weighings);
    v.list("joints", "joint", c.joints);
}

template <class V>
void describe(V& v, Setup& s)
{
    v.text("id", "id", s.id);
    v.text("name", "name", s.name);
    v.text("note", "note", s.note);
    v.optional("front", "front", s.front);
    v.optional("rear", "rear", s.rear);
    v.text("vendor", "vendor", s.vendor);
    v.list("received", "", s.received);
}

template <class V>
void describe(V& v, ShimStock& s)
{
    v.reading("thickness_mm", "shim thickness", style::fine, Range::Positive, s.thickness);
    v.count("count", "how many", s.count);
}

template <class V>
void describe(V& v, Pass& p)
{
    v.text("date", "read on", p.date);
    v.reading("inner_top_mm", "inner gap, top", style::fine, Range::NotNegative, p.innerTop);
    v.reading("outer_top_mm", "outer gap, top", style::fine, Range::NotNegative, p.outerTop);
    v.reading("inner_bottom_mm", "inner gap, bottom", style::fine, Range::NotNegative, p.innerBottom);
    v.reading("outer_bottom_mm", "outer gap, bottom", style::fine, Range::NotNegative, p.outerBottom);
    v.reading("pad_edge_top_mm", "pad edge below the rotor's edge, top", style::fine, Range::Any, p.padEdgeTop);
    v.reading("pad_edge_bottom_mm", "pad edge below the rotor's edge, bottom", style::fine, Range::Any, p.padEdgeBottom);
    v.reading("shim_top_mm", "shims then on the top bolt", style::fine, Range::NotNegative, p.shimTop);
    v.reading("shim_bottom_mm", "shims then on the bottom bolt", style::fine, Range::NotNegative, p.shimBottom);
    v.reading("radial_top_mm", "radial shims then on the top stud", style::fine, Range::NotNegative, p.radialTop);
    v.reading("radial_bottom_mm", "radial shims then on the bottom stud", style::fine, Range::NotNegative, p.radialBottom);
}

template <class V>
void describe(V& v, MockUp& m)
{
    v.text("setup", "setup", m.setup);
    v.choice("axle", "axle", m.axle, choices::axle);
    v.choice("side", "side", m.side, choices::side);
    v.reading("inner_top_mm", "inner gap, top", style::fine, Range::NotNegative, m.innerTop);
    v.reading("outer_top_mm", "outer gap, top", style::fine, Range::NotNegative, m.outerTop);
    v.reading("inner_bottom_mm", "inner gap, bottom", style::fine, Range::NotNegative, m.innerBottom);
    v.reading("outer_bottom_mm", "outer gap, bottom", style::fine, Range::NotNegative, m.outerBottom);
    v.reading("gap_spacing_mm", "distance between upper and lower reading", style::size, Range::Positive, m.gapSpacing);
    v.reading("pad_edge_top_mm", "pad edge below the rotor's edge, top", style::fine, Range::Any, m.padEdgeTop);
    v.reading("pad_edge_bottom_mm", "pad edge below the rotor's edge, bottom", style::fine, Range::Any, m.padEdgeBottom);
    v.reading("play_mm", "play on the loose bolts", style::fine, Range::NotNegative, m.play);
    v.count("nuts", "nuts that hold the rotor", m.nuts);
    v.choice("seated", "rotor flat on a clean hub", m.seated, choices::yesNo);
    v.choice("settled", "play taken up the same way", m.settled, choices::yesNo);
    v.choice("shaft_in", "drive shaft in place", m.shaftIn, choices::yesNo);
    v.list("passes", "earlier reading", m.passes);
}

template <class V>
void describe(V& v, MeasuredStop& s)
{
    v.reading("speed_kmh", "speed of a measured stop", style::speed, Range::Positive, s.speed);
    v.reading("distance_m", "distance of a measured stop", style::road, Range::Positive, s.distance);
    v.text("note", "note", s.note);
}

template <class V>
void describe(V& v, TestSession& t)
{
    v.text("setup", "setup", t.setup);
    v.text("date", "date", t.date);
    v.text("place", "place", t.place);
    v.list("stops", "stop", t.stops);
}

template <class V>
void describe(V& v, Wants& w)
{
    v.reading("barrel_gap_mm", "wanted gap to the barrel", style::gap, Range::Positive, w.barrelGap);
    v.reading("spoke_gap_mm", "wanted gap to the spokes", style::gap, Range::Positive, w.spokeGap);
    v.reading("bridge_gap_mm", "wanted gap under the bridge", style::gap, Range::Positive, w.bridgeGap);
    v.reading("face_gap_mm", "wanted gap beside the rotor", style::gap, Range::Positive, w.faceGap);
    v.reading("centred_mm", "centring aimed at", style::fine, Range::Positive, w.centred);
    v.reading("usable_mm", "centring still usable", style::fine, Range::Positive, w.usable);
    v.reading("hat_gap_mm", "wanted gap over the hat", style::gap, Range::Positive, w.hatGap);
    v.reading("keep_out_gap_mm", "wanted gap to knuckle and ball joint", style::gap, Range::Positive, w.keepOutGap);
    v.reading("hose_gap_mm", "wanted gap to the hose", style::gap, Range::Positive, w.hoseGap);
    v.reading("shield_gap_mm", "margin round rotor and caliper at the shield", style::gap, Range::Positive, w.shieldGap);
    v.reading("hot_rise_k", "rise of a hot rotor", style::rise, Range::NotNegative, w.hotRise);
    v.reading("coning_mm", "coning of a hot rotor", style::fine, Range::NotNegative, w.coning);
    v.reading("station_spacing_mm", "stations of a wheel at most apart", style::frame, Range::Positive, w.stationSpacing);
    v.reading("stud_engagement", "thread in the nut over stud diameter", style::number, Range::Positive, w.studEngagement);
    v.reading("pilot_left_mm", "pilot wanted inside the wheel", style::gap, Range::NotNegative, w.pilotLeft);
    v.reading("spacer_step_mm", "a spacer can be turned in steps of", style::size, Range::Positive, w.spacerStep);
    v.reading("pad_edge_mm", "pad edge aimed at, below the rotor's", style::fine, Range::NotNegative, w.padEdge);
    v.reading("shims_per_bolt", "shims on one bolt at most", style::count, Range::Positive, w.shimsPerBolt);
    v.reading("slip_margin", "slip margin of bolts that carry the brake", style::number, Range::Positive, w.slipMargin);
}

template <class V>
void describe(V& v, Build& b)
{
    v.text("currency", "currency", b.currency);
    v.object("car", "", b.car);
    v.object("hydraulics", "", b.hydraulics);
    v.object("front_hub", "front", b.frontHub);
    v.object("rear_hub", "rear", b.rearHub);
    v.object("wants", "", b.wants);
    v.list("wheels", "", b.wheels);
    v.list("setups", "", b.setups);
    v.list("drawer", "drawer", b.drawer);
    v.list("mock_ups", "mock-up", b.mockUps);
    v.list("tests", "", b.tests);
}

} // namespace deepstop
