#pragma once
/// The words of every choice in the document: tokens as they stand in files, and words as they stand on the screen.

#include "build/build.hpp"
#include "language/language.hpp"

#include <array>
#include <string_view>
#include <utility>

namespace deepstop {

/// One of the words of a choice.
template <class E>
struct Worded {
    std::string_view token; ///< in files; never changes
    std::string_view word; ///< on the screen and in print
    E value;
    constexpr Worded(std::string_view inFiles, std::string_view shown, E what) : token(inFiles), word(shown), value(what) { }
    constexpr Worded(std::string_view both, E what) : Worded(both, both, what) { }
};
/// One that has "unknown" may grow: a newer program may write other tokens into a file, and they are kept.
template <class E, std::size_t N>
using ChoiceTable = std::array<Worded<E>, N>;

namespace choices {
inline constexpr ChoiceTable<YesNo, 3> yesNo { { { "unknown", YesNo::Unknown }, { "yes", YesNo::Yes }, { "no", YesNo::No } } };
inline constexpr ChoiceTable<HatMaterial, 3> hat { { { "unknown", HatMaterial::Unknown }, { "iron", HatMaterial::Iron },
    { "aluminium", HatMaterial::Aluminium } } };
inline constexpr ChoiceTable<RotorFace, 5> face { { { "unknown", RotorFace::Unknown }, { "plain", RotorFace::Plain },
    { "dimpled", RotorFace::Dimpled }, { "slotted", RotorFace::Slotted }, { "drilled", RotorFace::Drilled } } };
inline constexpr ChoiceTable<CaliperKind, 3> caliper { { { "unknown", CaliperKind::Unknown }, { "fixed", CaliperKind::Fixed },
    { "floating", CaliperKind::Floating } } };
inline constexpr ChoiceTable<MountKind, 3> mount { { { "unknown", MountKind::Unknown }, { "lug", MountKind::Lug },
    { "radial", MountKind::Radial } } };
inline constexpr ChoiceTable<Direction, 3> direction { { { "unknown", Direction::Unknown }, { "inboard", Direction::Inboard },
    { "outboard", Direction::Outboard } } };
inline constexpr ChoiceTable<RingMaterial, 4> ring { { { "unknown", RingMaterial::Unknown }, { "iron", RingMaterial::Iron },
    { "steel", RingMaterial::Steel }, { "carbon-ceramic", RingMaterial::CarbonCeramic } } };
inline constexpr ChoiceTable<RotorBuild, 3> rotorBuild { { { "unknown", RotorBuild::Unknown }, { "one-piece", RotorBuild::OnePiece },
    { "two-piece", RotorBuild::TwoPiece } } };
inline constexpr ChoiceTable<VaneShape, 4> vanes { { { "unknown", VaneShape::Unknown }, { "straight", VaneShape::Straight },
    { "curved", VaneShape::Curved }, { "pillars", VaneShape::Pillars } } };
inline constexpr ChoiceTable<Handed, 3> handed { { { "unknown", Handed::Unknown }, { "either_side", "either side", Handed::Either },
    { "sided", Handed::Sided } } };
inline constexpr ChoiceTable<Bleeders, 3> bleeders { { { "unknown", Bleeders::Unknown }, { "one_end", "one end", Bleeders::OneEnd },
    { "both_ends", "both ends", Bleeders::BothEnds } } };
inline constexpr ChoiceTable<ParkingBrake, 5> parking { { { "unknown", ParkingBrake::Unknown }, { "none", ParkingBrake::None },
    { "drum_in_hat", "drum in hat", ParkingBrake::DrumInHat }, { "in_caliper", "in caliper", ParkingBrake::InCaliper },
    { "in_drum", "in drum", ParkingBrake::InDrum } } };
inline constexpr ChoiceTable<WhichHand, 3> hand { { { "unknown", WhichHand::Unknown }, { "left", WhichHand::Left },
    { "right", WhichHand::Right } } };
inline constexpr ChoiceTable<Checked, 3> checked { { { "open", Checked::Open }, { "fine", Checked::Fine }, { "fault", Checked::Fault } } };
inline constexpr ChoiceTable<Part, 12> part { { { "rotor", Part::Rotor }, { "caliper", Part::Caliper }, { "pads", Part::Pads },
    { "bracket", Part::Bracket }, { "hose", Part::Hose }, { "hardware", Part::Hardware }, { "ring", Part::Ring }, { "hat", Part::Hat },
    { "drum", Part::Drum }, { "shoes", Part::Shoes }, { "wheel_cylinder", "wheel cylinder", Part::WheelCylinder },
    { "unknown", "something this program does not know", Part::Unknown } } };
inline constexpr ChoiceTable<Axle, 2> axle { { { "front", Axle::Front }, { "rear", Axle::Rear } } };
inline constexpr ChoiceTable<Side, 2> side { { { "left", Side::Left }, { "right", Side::Right } } };
inline constexpr ChoiceTable<NutSeat, 4> nutSeat { { { "unknown", NutSeat::Unknown }, { "cone", NutSeat::Cone }, { "ball", NutSeat::Ball },
    { "flat", NutSeat::Flat } } };
inline constexpr ChoiceTable<WheelHeldBy, 5> heldBy { { { "unknown", WheelHeldBy::Unknown }, { "studs", WheelHeldBy::Studs },
    { "bolts", WheelHeldBy::Bolts }, { "centre_lock", "a centre nut with drive pins", WheelHeldBy::CentreLock },
    { "knock_off", "a knock-off on splines", WheelHeldBy::KnockOff } } };
inline constexpr ChoiceTable<NutEnd, 3> nutEnd { { { "unknown", NutEnd::Unknown }, { "open", NutEnd::Open },
    { "closed", NutEnd::Closed } } };
inline constexpr ChoiceTable<Booster, 4> booster { { { "unknown", Booster::Unknown }, { "none", Booster::None },
    { "vacuum", Booster::Vacuum }, { "electric", Booster::Electric } } };
inline constexpr ChoiceTable<MasterKind, 3> master { { { "unknown", MasterKind::Unknown }, { "tandem", MasterKind::Tandem },
    { "twins_with_a_balance_bar", "twins with a balance bar", MasterKind::Twin } } };
inline constexpr ChoiceTable<Circuits, 3> circuits { { { "unknown", Circuits::Unknown },
    { "front_and_rear", "front and rear", Circuits::FrontAndRear }, { "diagonal", Circuits::Diagonal } } };
inline constexpr ChoiceTable<ValveKind, 5> valve { { { "unknown", ValveKind::Unknown }, { "none", ValveKind::None },
    { "fixed", ValveKind::Fixed }, { "adjustable", ValveKind::Adjustable }, { "load-dependent", ValveKind::LoadDependent } } };
inline constexpr ChoiceTable<FluidClass, 4> fluid { { { "unknown", FluidClass::Unknown }, { "DOT_3", "DOT 3", FluidClass::Dot3 },
    { "DOT_4", "DOT 4", FluidClass::Dot4 }, { "DOT_5.1", "DOT 5.1", FluidClass::Dot51 } } };
inline constexpr ChoiceTable<MeasuredAt, 6> measuredAt { { { "unknown", MeasuredAt::Unknown }, { "ring", MeasuredAt::Ring },
    { "pad", MeasuredAt::Pad }, { "caliper", MeasuredAt::Caliper }, { "hat", MeasuredAt::Hat }, { "drum", MeasuredAt::Drum } } };
inline constexpr ChoiceTable<HoseKind, 3> hose { { { "unknown", HoseKind::Unknown }, { "rubber", HoseKind::Rubber },
    { "braided", HoseKind::Braided } } };
inline constexpr ChoiceTable<BrakeKind, 2> brakes { { { "discs", BrakeKind::Discs }, { "drums", BrakeKind::Drums } } };
inline constexpr ChoiceTable<DrumKind, 4> drumKind { { { "unknown", DrumKind::Unknown },
    { "leading_and_trailing", "leading and trailing", DrumKind::LeadingTrailing }, { "two_leading", "two leading", DrumKind::TwoLeading },
    { "self-energising_pair", "self-energising pair", DrumKind::SelfEnergising } } };
inline constexpr ChoiceTable<Faces, 3> faces { { { "unknown", Faces::Unknown }, { "clean_and_bare", "clean and bare", Faces::Clean },
    { "painted_anodised_or_oily", "painted, anodised or oily", Faces::Coated } } };
inline constexpr ChoiceTable<KeepOutKind, 7> keepOut { { { "unknown", KeepOutKind::Unknown }, { "knuckle", KeepOutKind::Knuckle },
    { "ball_joint", "ball joint", KeepOutKind::BallJoint }, { "hose", KeepOutKind::Hose },
    { "hub_corner", "hub's corner", KeepOutKind::HubCorner }, { "hose_boss", "boss for the hose", KeepOutKind::HoseBoss },
    { "other", KeepOutKind::Other } } };
inline constexpr ChoiceTable<InsetKind, 4> inset { { { "unknown", InsetKind::Unknown },
    { "balance_weights", "balance weights", InsetKind::Weights }, { "valve", InsetKind::Valve },
    { "pressure_sensor", "pressure sensor", InsetKind::Sensor } } };
inline constexpr ChoiceTable<End, 3> end { { { "unknown", End::Unknown }, { "rotors_entry", "rotor's entry", End::Entry },
    { "rotors_exit", "rotor's exit", End::Exit } } };
inline constexpr ChoiceTable<BumpKind, 4> bump { { { "unknown", BumpKind::Unknown }, { "bleeder", BumpKind::Bleeder },
    { "bolt_head", "bolt head", BumpKind::BoltHead }, { "pipe", BumpKind::Pipe } } };
inline constexpr ChoiceTable<BoltClass, 9> boltClass { { { "unknown", BoltClass::Unknown }, { "8.8", BoltClass::C8_8 },
    { "10.9", BoltClass::C10_9 }, { "12.9", BoltClass::C12_9 }, { "A2-70", BoltClass::A2_70 }, { "A4-80", BoltClass::A4_80 },
    { "SAE_grade_5", "SAE grade 5", BoltClass::Grade5 }, { "SAE_grade_8", "SAE grade 8", BoltClass::Grade8 },
    { "other", "other class", BoltClass::Other } } };
inline constexpr ChoiceTable<Condition, 6> condition { { { "unknown", Condition::Unknown }, { "dry", Condition::Dry },
    { "oiled", Condition::Oiled }, { "threadlocker", Condition::Threadlocker }, { "anti-seize", Condition::AntiSeize },
    { "wicking_threadlocker", "threadlocker wicked in afterwards", Condition::WickingThreadlocker } } };
inline constexpr ChoiceTable<ThreadIn, 4> threadIn { { { "unknown", ThreadIn::Unknown }, { "steel", ThreadIn::Steel },
    { "iron", ThreadIn::Iron }, { "aluminium", ThreadIn::Aluminium } } };
inline constexpr ChoiceTable<Joins, 5> joins { { { "unknown", Joins::Unknown }, { "bracket", Joins::BracketToKnuckle },
    { "caliper", Joins::CaliperToBracket }, { "hat", "the ring", Joins::RingToHat }, { "other", Joins::Other } } };
inline constexpr ChoiceTable<ShimsIn, 4> shimsIn { { { "unknown", ShimsIn::Unknown }, { "none", ShimsIn::None },
    { "axial_shims", "axial shims", ShimsIn::Axial }, { "radial_shims", "radial shims", ShimsIn::Radial } } };
inline constexpr ChoiceTable<Freed, 2> freed { { { "just_turns_free", "just turns free", Freed::JustTurns },
    { "turns_with_the_wanted_gap", "turns with the wanted gap", Freed::WantedGap } } };
inline constexpr ChoiceTable<Cut, 7> cut { { { "trim_the_dust_shield", "trim the dust shield", Cut::TrimShield },
    { "drill_the_knuckles_lugs", "drill the knuckle's lugs", Cut::DrillLugs },
    { "drill_a_hole_for_the_cable", "drill a hole for the cable", Cut::CableHole },
    { "press_in_other_studs", "press in other studs", Cut::PressStuds },
    { "machine_the_hub_or_rotor", "machine the hub or rotor", Cut::MachineHub },
    { "grind_caliper_or_knuckle", "grind caliper or knuckle", Cut::Grind },
    { "unknown", "work this program does not know", Cut::Unknown } } };
inline constexpr ChoiceTable<BoosterTest, 3> boosterTest { { { "unknown", BoosterTest::Unknown },
    { "pedal_sinks", "the pedal sinks", BoosterTest::Sinks }, { "pedal_stays", "the pedal stays", BoosterTest::Stays } } };
inline constexpr ChoiceTable<LockedFirst, 5> lockedFirst { { { "unknown", LockedFirst::Unknown },
    { "front", "the front wheels", LockedFirst::Front }, { "rear", "the rear wheels", LockedFirst::Rear },
    { "both", "both axles together", LockedFirst::Both }, { "none", "no wheel locked", LockedFirst::None } } };
inline constexpr ChoiceTable<FadeFelt, 4> fadeFelt { { { "unknown", FadeFelt::Unknown }, { "none", "none felt", FadeFelt::None },
    { "pedal", "the pedal went long or hard", FadeFelt::Pedal }, { "smell_or_smoke", "smell or smoke", FadeFelt::Smell } } };
inline constexpr ChoiceTable<Way, 3> way { { { "unknown", Way::Unknown }, { "out", Way::Out }, { "back", Way::Back } } };
inline constexpr ChoiceTable<Surface, 4> surface { { { "unknown", Surface::Unknown }, { "dry", Surface::Dry }, { "damp", Surface::Damp },
    { "wet", Surface::Wet } } };
inline constexpr ChoiceTable<MeasuredFrom, 4> measuredFrom { { { "unknown", MeasuredFrom::Unknown },
    { "where_the_pedal_was_touched", "where the pedal was touched", MeasuredFrom::Pedal },
    { "a_mark_beside_the_road", "a mark beside the road", MeasuredFrom::Mark },
    { "where_the_braking_took_hold", "where the braking took hold", MeasuredFrom::Hold } } };
inline constexpr ChoiceTable<Series, 2> series { { { "to_compare", "to compare", Series::Compare },
    { "until_it_fades", "until it fades", Series::Fade } } };
inline constexpr ChoiceTable<BleedOrder, 4> bleedOrder { { { "unknown", BleedOrder::Unknown },
    { "furthest_wheel_first", "furthest wheel first", BleedOrder::FurthestFirst },
    { "nearest_wheel_first", "nearest wheel first", BleedOrder::NearestFirst },
    { "as_the_cars_maker_says", "as the car's maker says", BleedOrder::Maker } } };
inline constexpr ChoiceTable<BleedMethod, 5> bleedMethod { { { "unknown", BleedMethod::Unknown },
    { "two_people", "two people", BleedMethod::TwoPeople }, { "pressure", BleedMethod::Pressure }, { "vacuum", BleedMethod::Vacuum },
    { "gravity", BleedMethod::Gravity } } };
inline constexpr ChoiceTable<BleederFirst, 3> bleederFirst { { { "unknown", BleederFirst::Unknown }, { "outer", BleederFirst::Outer },
    { "inner", BleederFirst::Inner } } };
inline constexpr ChoiceTable<WorkOrder, 3> workOrder { { { "unknown", WorkOrder::Unknown },
    { "together", "both corners side by side", WorkOrder::Together },
    { "corner_by_corner", "corner by corner", WorkOrder::CornerByCorner } } };
inline constexpr ChoiceTable<Bedding, 5> bedding { { { "unknown", Bedding::Unknown },
    { "gently_on_the_street", "gently on the street", Bedding::Street },
    { "repeated_slow-downs", "repeated slow-downs", Bedding::SlowDowns }, { "warm_then_hard", "warm, then hard", Bedding::WarmThenHard },
    { "as_the_pads_maker_says", "as the pads' maker says", Bedding::Maker } } };
inline constexpr ChoiceTable<LogEvent, 10> logEvent { { { "unknown", LogEvent::Unknown }, { "drive", LogEvent::Drive },
    { "track_day", "track day", LogEvent::TrackDay }, { "wear_read", "wear read", LogEvent::Measured },
    { "fluid_changed", "fluid changed", LogEvent::Fluid }, { "torques_checked", "torques checked", LogEvent::TorqueCheck },
    { "bedded_in", "bedded in", LogEvent::Bedded }, { "parts_put_on", "parts put on", LogEvent::PartsOn }, { "fault", LogEvent::Fault },
    { "other", LogEvent::Other } } };
inline constexpr ChoiceTable<Fastener, 3> fastener { { { "unknown", Fastener::Unknown }, { "bolts", Fastener::Bolts },
    { "studs", Fastener::Studs } } };
inline constexpr ChoiceTable<NutKind, 5> nut { { { "unknown", NutKind::Unknown }, { "none", "none, a tapped thread", NutKind::None },
    { "plain", NutKind::Plain }, { "nylon_insert", "lock nut, nylon insert", NutKind::NylonInsert },
    { "all_metal", "lock nut, all metal", NutKind::AllMetal } } };
inline constexpr ChoiceTable<NutClass, 7> nutClass { { { "unknown", NutClass::Unknown }, { "5", NutClass::C5 }, { "6", NutClass::C6 },
    { "8", NutClass::C8 }, { "10", NutClass::C10 }, { "12", NutClass::C12 }, { "other", "other class", NutClass::Other } } };
inline constexpr ChoiceTable<WashersUnder, 5> washersUnder { { { "unknown", WashersUnder::Unknown }, { "none", WashersUnder::None },
    { "head", "under the head", WashersUnder::Head }, { "nut", "under the nut", WashersUnder::Nut },
    { "both", "under head and nut", WashersUnder::Both } } };
inline constexpr ChoiceTable<Seat, 6> seat { { { "unknown", Seat::Unknown }, { "crush_washer", "crush washer", Seat::CrushWasher },
    { "cone_37", "cone of 37°", Seat::Cone37 }, { "inverted_flare", "inverted flare", Seat::InvertedFlare },
    { "bubble_flare", "bubble flare", Seat::BubbleFlare }, { "taper_thread", "taper thread", Seat::TaperThread } } };
inline constexpr ChoiceTable<Gender, 3> gender { { { "unknown", Gender::Unknown }, { "male", Gender::Male },
    { "female", Gender::Female } } };
inline constexpr ChoiceTable<LinePartKind, 6> linePart { { { "unknown", LinePartKind::Unknown },
    { "caliper_port", "caliper's port", LinePartKind::CaliperPort }, { "banjo_bolt", "banjo bolt", LinePartKind::BanjoBolt },
    { "adapter", LinePartKind::Adapter }, { "hose", LinePartKind::Hose }, { "hard_line", "hard line", LinePartKind::HardLine } } };
inline constexpr ChoiceTable<CaliperParking, 4> caliperParking { { { "unknown", CaliperParking::Unknown }, { "none", CaliperParking::None },
    { "lever", "lever and cable", CaliperParking::Lever }, { "electric", "electric motor", CaliperParking::Electric } } };
inline constexpr ChoiceTable<RingSits, 3> ringSits { { { "unknown", RingSits::Unknown }, { "on_pilot", "on the pilot", RingSits::OnPilot },
    { "in_hat", "pressed into the hat", RingSits::InHat } } };
inline constexpr ChoiceTable<ShieldState, 5> shieldState { { { "unknown", ShieldState::Unknown },
    { "as_found", "left as it is", ShieldState::AsFound }, { "trimmed", ShieldState::Trimmed }, { "removed", ShieldState::Removed },
    { "replaced", ShieldState::Replaced } } };
inline constexpr ChoiceTable<PlateLies, 4> plateLies { { { "unknown", PlateLies::Unknown }, { "free", "not clamped", PlateLies::Free },
    { "knuckle_and_hub", "between knuckle and hub", PlateLies::KnuckleAndHub },
    { "flange_and_rotor", "between flange and rotor", PlateLies::FlangeAndRotor } } };
inline constexpr ChoiceTable<SpacerKind, 3> spacerKind { { { "unknown", SpacerKind::Unknown },
    { "slip_on", "slipped on", SpacerKind::SlipOn }, { "bolted", "bolted, with its own studs", SpacerKind::Bolted } } };
inline constexpr ChoiceTable<PadEnds, 3> padEnds { { { "unknown", PadEnds::Unknown }, { "straight", "parallel", PadEnds::Straight },
    { "radial", "along radii", PadEnds::Radial } } };
inline constexpr ChoiceTable<SensorUse, 4> sensorUse { { { "unknown", SensorUse::Unknown }, { "none", SensorUse::None },
    { "new", SensorUse::New }, { "reused", SensorUse::Reused } } };
inline constexpr ChoiceTable<Known, 4> known { { { "measured", Known::Measured }, { "vendor", Known::Vendor },
    { "estimated", Known::Estimated }, { "design", Known::Design } } };
} // namespace choices

/// In the reader's language.
template <class E, std::size_t N>
[[nodiscard]] std::string_view wordFor(E value, const ChoiceTable<E, N>& table)
{
    for (const Worded<E>& each : table)
        if (each.value == value)
            return tr(each.word);
    return {};
}
/// As a file has it.
template <class E, std::size_t N>
[[nodiscard]] constexpr std::string_view tokenFor(E value, const ChoiceTable<E, N>& table)
{
    for (const Worded<E>& each : table)
        if (each.value == value)
            return each.token;
    return {};
}
template <class E, std::size_t N>
[[nodiscard]] std::string_view wordFor(const Fact<E>& said, const ChoiceTable<E, N>& table)
{
    return wordFor(*said, table);
}

} // namespace deepstop
