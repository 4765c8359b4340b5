#pragma once
/// The words of every choice in the document, as they stand in files and on the screen.

#include "build/build.hpp"

#include <array>
#include <string_view>
#include <utility>

namespace deepstop {

template <class E, std::size_t N>
using ChoiceTable = std::array<std::pair<std::string_view, E>, N>;

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
inline constexpr ChoiceTable<Handed, 3> handed { { { "unknown", Handed::Unknown }, { "either side", Handed::Either },
    { "sided", Handed::Sided } } };
inline constexpr ChoiceTable<Bleeders, 3> bleeders { { { "unknown", Bleeders::Unknown }, { "one end", Bleeders::OneEnd },
    { "both ends", Bleeders::BothEnds } } };
inline constexpr ChoiceTable<ParkingBrake, 5> parking { { { "unknown", ParkingBrake::Unknown }, { "none", ParkingBrake::None },
    { "drum in hat", ParkingBrake::DrumInHat }, { "in caliper", ParkingBrake::InCaliper }, { "in drum", ParkingBrake::InDrum } } };
inline constexpr ChoiceTable<WhichHand, 3> hand { { { "unknown", WhichHand::Unknown }, { "left", WhichHand::Left },
    { "right", WhichHand::Right } } };
inline constexpr ChoiceTable<Checked, 3> checked { { { "open", Checked::Open }, { "fine", Checked::Fine }, { "fault", Checked::Fault } } };
inline constexpr ChoiceTable<Part, 11> part { { { "rotor", Part::Rotor }, { "caliper", Part::Caliper }, { "pads", Part::Pads },
    { "bracket", Part::Bracket }, { "hose", Part::Hose }, { "hardware", Part::Hardware }, { "ring", Part::Ring }, { "hat", Part::Hat },
    { "drum", Part::Drum }, { "shoes", Part::Shoes }, { "wheel cylinder", Part::WheelCylinder } } };
inline constexpr ChoiceTable<Axle, 2> axle { { { "front", Axle::Front }, { "rear", Axle::Rear } } };
inline constexpr ChoiceTable<Side, 2> side { { { "left", Side::Left }, { "right", Side::Right } } };
inline constexpr ChoiceTable<NutSeat, 4> nutSeat { { { "unknown", NutSeat::Unknown }, { "cone", NutSeat::Cone }, { "ball", NutSeat::Ball },
    { "flat", NutSeat::Flat } } };
inline constexpr ChoiceTable<WheelHeldBy, 3> heldBy { { { "unknown", WheelHeldBy::Unknown }, { "studs", WheelHeldBy::Studs },
    { "bolts", WheelHeldBy::Bolts } } };
inline constexpr ChoiceTable<NutEnd, 3> nutEnd { { { "unknown", NutEnd::Unknown }, { "open", NutEnd::Open },
    { "closed", NutEnd::Closed } } };
inline constexpr ChoiceTable<Booster, 4> booster { { { "unknown", Booster::Unknown }, { "none", Booster::None },
    { "vacuum", Booster::Vacuum }, { "electric", Booster::Electric } } };
inline constexpr ChoiceTable<MasterKind, 3> master { { { "unknown", MasterKind::Unknown }, { "tandem", MasterKind::Tandem },
    { "twins with a balance bar", MasterKind::Twin } } };
inline constexpr ChoiceTable<Circuits, 3> circuits { { { "unknown", Circuits::Unknown }, { "front and rear", Circuits::FrontAndRear },
    { "diagonal", Circuits::Diagonal } } };
inline constexpr ChoiceTable<ValveKind, 5> valve { { { "unknown", ValveKind::Unknown }, { "none", ValveKind::None },
    { "fixed", ValveKind::Fixed }, { "adjustable", ValveKind::Adjustable }, { "load-dependent", ValveKind::LoadDependent } } };
inline constexpr ChoiceTable<FluidClass, 4> fluid { { { "unknown", FluidClass::Unknown }, { "DOT 3", FluidClass::Dot3 },
    { "DOT 4", FluidClass::Dot4 }, { "DOT 5.1", FluidClass::Dot51 } } };
inline constexpr ChoiceTable<MeasuredAt, 5> measuredAt { { { "ring", MeasuredAt::Ring }, { "pad", MeasuredAt::Pad },
    { "caliper", MeasuredAt::Caliper }, { "hat", MeasuredAt::Hat }, { "drum", MeasuredAt::Drum } } };
inline constexpr ChoiceTable<HoseKind, 3> hose { { { "unknown", HoseKind::Unknown }, { "rubber", HoseKind::Rubber },
    { "braided", HoseKind::Braided } } };
inline constexpr ChoiceTable<BrakeKind, 2> brakes { { { "discs", BrakeKind::Discs }, { "drums", BrakeKind::Drums } } };
inline constexpr ChoiceTable<DrumKind, 4> drumKind { { { "unknown", DrumKind::Unknown },
    { "leading and trailing", DrumKind::LeadingTrailing }, { "two leading", DrumKind::TwoLeading },
    { "self-energising pair", DrumKind::SelfEnergising } } };
inline constexpr ChoiceTable<Faces, 3> faces { { { "unknown", Faces::Unknown }, { "clean and bare", Faces::Clean },
    { "painted, anodised or oily", Faces::Coated } } };
inline constexpr ChoiceTable<KeepOutKind, 4> keepOut { { { "knuckle", KeepOutKind::Knuckle }, { "ball joint", KeepOutKind::BallJoint },
    { "hose", KeepOutKind::Hose }, { "other", KeepOutKind::Other } } };
inline constexpr ChoiceTable<InsetKind, 3> inset { { { "balance weights", InsetKind::Weights }, { "valve", InsetKind::Valve },
    { "pressure sensor", InsetKind::Sensor } } };
inline constexpr ChoiceTable<End, 3> end { { { "unknown", End::Unknown }, { "rotor's entry", End::Entry },
    { "rotor's exit", End::Exit } } };
inline constexpr ChoiceTable<BumpKind, 3> bump { { { "bleeder", BumpKind::Bleeder }, { "bolt head", BumpKind::BoltHead },
    { "pipe", BumpKind::Pipe } } };
inline constexpr ChoiceTable<BoltClass, 8> boltClass { { { "unknown", BoltClass::Unknown }, { "8.8", BoltClass::C8_8 },
    { "10.9", BoltClass::C10_9 }, { "12.9", BoltClass::C12_9 }, { "A2-70", BoltClass::A2_70 }, { "A4-80", BoltClass::A4_80 },
    { "SAE grade 5", BoltClass::Grade5 }, { "SAE grade 8", BoltClass::Grade8 } } };
inline constexpr ChoiceTable<Condition, 5> condition { { { "unknown", Condition::Unknown }, { "dry", Condition::Dry },
    { "oiled", Condition::Oiled }, { "threadlocker", Condition::Threadlocker }, { "anti-seize", Condition::AntiSeize } } };
inline constexpr ChoiceTable<ThreadIn, 4> threadIn { { { "unknown", ThreadIn::Unknown }, { "steel", ThreadIn::Steel },
    { "iron", ThreadIn::Iron }, { "aluminium", ThreadIn::Aluminium } } };
inline constexpr ChoiceTable<ShimsIn, 4> shimsIn { { { "unknown", ShimsIn::Unknown }, { "none", ShimsIn::None },
    { "axial shims", ShimsIn::Axial }, { "radial shims", ShimsIn::Radial } } };
inline constexpr ChoiceTable<Freed, 2> freed { { { "just turns free", Freed::JustTurns },
    { "turns with the wanted gap", Freed::WantedGap } } };
inline constexpr ChoiceTable<Cut, 6> cut { { { "trim the dust shield", Cut::TrimShield }, { "drill the knuckle's lugs", Cut::DrillLugs },
    { "drill a hole for the cable", Cut::CableHole }, { "press in other studs", Cut::PressStuds },
    { "machine the hub or rotor", Cut::MachineHub }, { "grind caliper or knuckle", Cut::Grind } } };
inline constexpr ChoiceTable<Way, 3> way { { { "unknown", Way::Unknown }, { "out", Way::Out }, { "back", Way::Back } } };
inline constexpr ChoiceTable<Surface, 4> surface { { { "unknown", Surface::Unknown }, { "dry", Surface::Dry }, { "damp", Surface::Damp },
    { "wet", Surface::Wet } } };
inline constexpr ChoiceTable<MeasuredFrom, 4> measuredFrom { { { "unknown", MeasuredFrom::Unknown },
    { "where the pedal was touched", MeasuredFrom::Pedal }, { "a mark beside the road", MeasuredFrom::Mark },
    { "where the braking took hold", MeasuredFrom::Hold } } };
inline constexpr ChoiceTable<Series, 2> series { { { "to compare", Series::Compare }, { "until it fades", Series::Fade } } };
inline constexpr ChoiceTable<BleedOrder, 4> bleedOrder { { { "unknown", BleedOrder::Unknown },
    { "furthest wheel first", BleedOrder::FurthestFirst }, { "nearest wheel first", BleedOrder::NearestFirst },
    { "as the car's maker says", BleedOrder::Maker } } };
inline constexpr ChoiceTable<BleedMethod, 5> bleedMethod { { { "unknown", BleedMethod::Unknown }, { "two people", BleedMethod::TwoPeople },
    { "pressure", BleedMethod::Pressure }, { "vacuum", BleedMethod::Vacuum }, { "gravity", BleedMethod::Gravity } } };
inline constexpr ChoiceTable<BleederFirst, 3> bleederFirst { { { "unknown", BleederFirst::Unknown }, { "outer", BleederFirst::Outer },
    { "inner", BleederFirst::Inner } } };
inline constexpr ChoiceTable<Bedding, 5> bedding { { { "unknown", Bedding::Unknown }, { "gently on the street", Bedding::Street },
    { "repeated slow-downs", Bedding::SlowDowns }, { "warm, then hard", Bedding::WarmThenHard },
    { "as the pads' maker says", Bedding::Maker } } };
inline constexpr ChoiceTable<LogEvent, 10> logEvent { { { "unknown", LogEvent::Unknown }, { "drive", LogEvent::Drive },
    { "track day", LogEvent::TrackDay }, { "wear read", LogEvent::Measured }, { "fluid changed", LogEvent::Fluid },
    { "torques checked", LogEvent::TorqueCheck }, { "bedded in", LogEvent::Bedded }, { "parts put on", LogEvent::PartsOn },
    { "fault", LogEvent::Fault }, { "other", LogEvent::Other } } };
inline constexpr ChoiceTable<Known, 3> known { { { "measured", Known::Measured }, { "vendor", Known::Vendor },
    { "estimated", Known::Estimated } } };
} // namespace choices

template <class E, std::size_t N>
[[nodiscard]] constexpr std::string_view wordFor(E value, const ChoiceTable<E, N>& table)
{
    for (const auto& [word, candidate] : table)
        if (candidate == value)
            return word;
    return {};
}
template <class E, std::size_t N>
[[nodiscard]] std::string_view wordFor(const Fact<E>& said, const ChoiceTable<E, N>& table)
{
    return wordFor(*said, table);
}

} // namespace deepstop
