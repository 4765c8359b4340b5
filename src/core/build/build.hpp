#pragma once
/// The document: one car, its wheels, its brake setups, the drawer, what was read at the mock-up and what was proven.
/// Plain values, all SI; its parts stand in `car.hpp`, `corner.hpp` and `work.hpp`. `fields.hpp` names every one of them once, for files,
/// editing and questions.

#include "build/work.hpp"

namespace deepstop {

struct ShimStock {
    Reading thickness;
    int count = 0; ///< for the whole car
    ElementId id {};
    bool operator==(const ShimStock&) const = default;
};

/// Four gaps as they were read once, with the shims that were in then.
struct Pass {
    std::string date;
    Reading innerTop;
    Reading outerTop;
    Reading innerBottom;
    Reading outerBottom;
    Reading padEdgeTop;
    Reading padEdgeBottom;
    Reading shimTop;
    Reading shimBottom;
    Reading radialTop;
    Reading radialBottom;
    ElementId id {};
    bool operator==(const Pass&) const = default;
};

/// Four gaps between rotor face and caliper, read with everything loose.
struct MockUp {
    std::string setup; ///< id
    Axle axle = Axle::Front;
    Side side = Side::Left;
    Reading innerTop;
    Reading outerTop;
    Reading innerBottom;
    Reading outerBottom;
    Reading gapSpacing; ///< between the upper and the lower place of reading
    Reading padEdgeTop; ///< pad's outer edge inward of the rotor's edge, at its upper end
    Reading padEdgeBottom;
    Reading play; ///< how far the caliper can be moved on its loose bolts
    int nuts = notCounted; ///< that held the rotor flat
    YesNo seated = YesNo::Unknown; ///< rotor flat on a clean hub
    YesNo settled = YesNo::Unknown; ///< play taken up the same way for every reading
    YesNo shaftIn = YesNo::Unknown; ///< drive shaft in place where the bearing needs it
    std::vector<Pass> passes; ///< earlier readings of this corner, oldest first
    DEEPSTOP_COMPILED_ONCE(MockUp)
};

/// Limits for this build; the defaults are common practice, no source.
struct Wants {
    Reading barrelGap { 3e-3, 0.0, Known::Measured, {}, {} };
    Reading spokeGap { 3e-3, 0.0, Known::Measured, {}, {} };
    Reading bridgeGap { 2e-3, 0.0, Known::Measured, {}, {} };
    Reading faceGap { 1.5e-3, 0.0, Known::Measured, {}, {} };
    Reading centred { 0.25e-3, 0.0, Known::Measured, {}, {} };
    Reading usable { 0.5e-3, 0.0, Known::Measured, {}, {} };
    Reading hatGap { 2e-3, 0.0, Known::Measured, {}, {} };
    Reading keepOutGap { 5e-3, 0.0, Known::Measured, {}, {} };
    Reading hoseGap { 10e-3, 0.0, Known::Measured, {}, {} };
    Reading shieldGap { 4e-3, 0.0, Known::Measured, {}, {} };
    Reading hotRise { 500, 0.0, Known::Measured, {}, {} }; ///< of the friction ring above the garage
    Reading coning { 0.3e-3, 0.0, Known::Measured, {}, {} }; ///< of a hot rotor, at its edge
    Reading stationSpacing { 12e-3, 0.0, Known::Measured, {}, {} }; ///< farthest two stations of a wheel may lie apart
    Reading studEngagement { 1.0, 0.0, Known::Measured, {}, {} }; ///< full thread in the nut over the stud's diameter
    Reading pilotLeft { 4e-3, 0.0, Known::Measured, {}, {} };
    Reading spacerStep { 0.5e-3, 0.0, Known::Measured, {}, {} }; ///< a turned spacer is made to
    Reading padEdge { 0.5e-3, 0.0, Known::Measured, {}, {} }; ///< pad's edge inward of the rotor's, aimed at
    Reading shimsPerBolt { 5, 0.0, Known::Measured, {}, {} }; ///< at most
    Reading weightHeight { 5e-3, 0.0, Known::Measured, {}, {} }; ///< of balance weights whose place is not known
    Reading antilockQuality { 0.95, 0.0, Known::Measured, {}, {} }; ///< of the tyres' grip, that antilock brakes use
    Reading slipMargin { 1.5, 0.0, Known::Measured, {}, {} }; ///< of bolts that carry the brake's torque by friction
    Reading strokeShare { 0.65, 0.0, Known::Measured, {}, {} }; ///< of the master cylinder's stroke, for the hardest stop
    Reading lightEffort { 150, 0.0, Known::Measured, {}, {} }; ///< on the pedal for 1 g, where a pedal begins to be comfortable
    Reading firmEffort { 300, 0.0, Known::Measured, {}, {} }; ///< and where it ends
    Reading greatestEffort { 500, 0.0, Known::Measured, {}, {} }; ///< of a strong foot
    Reading boosterRunOut { 60e5, 20e5, Known::Measured, {}, {} }; ///< front pressure at which an unmeasured booster runs out
    Reading rollBack { 0.12e-3, 0.06e-3, Known::Measured, {}, {} }; ///< of a caliper's piston when the pedal is let go
    Reading padSqueeze { 0.1e-3, 0.05e-3, Known::Measured, {}, {} }; ///< of one pad nobody has pressed, at 70 bar
    Reading caliperGive { 1e-6, 0.5e-6, Known::Measured, {}, {} }; ///< of one unmeasured caliper or drum, at 70 bar
    Reading rubberGive { 1.2e-6, 0.6e-6, Known::Measured, {}, {} }; ///< of a metre of rubber hose of 3.2 mm bore, at 70 bar
    Reading braidedGive { 0.3e-6, 0.15e-6, Known::Measured, {}, {} }; ///< of a metre of braided hose
    Reading ambient { 293.15, 0.0, Known::Measured, {}, {} }; ///< air round the brakes
    Reading altitude { 0, 0.0, Known::Measured, {}, {} }; ///< of the road above the sea
    Reading fadeAt { 0.75, 0.0, Known::Measured, {}, {} }; ///< of the quoted friction, where a pad is called faded
    Reading shoePlay { 0.3e-3, 0.15e-3, Known::Measured, {}, {} }; ///< of a wheel cylinder's piston nobody has measured
    Reading pitchTime { 0.25, 0.1, Known::Measured, {}, {} }; ///< in which the load has gone forward to two thirds
    Reading gripFall { 0.1, 0.05, Known::Measured, {}, {} }; ///< part of its grip a tyre loses when its load doubles
    Reading wetGrip { 0.72, 0.1, Known::Measured, {}, {} }; ///< of the dry grip that is left on a wet road
    Reading dayGrip { 0.05, 0.0, Known::Measured, {}, {} }; ///< by which a road's grip may be off from one day to another, either way
    Reading fadePast { 1.2, 0.0, Known::Measured, {}, {} }; ///< of the first stops' distance, where a car has faded
    Reading windLimit { 10 * (1 / 3.6), 0.0, Known::Measured, {}, {} }; ///< along the road, for a test
    DEEPSTOP_COMPILED_ONCE(Wants)
};
/// The limits and defaults of the program.
[[nodiscard]] inline const Wants& usualWants()
{
    static const Wants usual;
    return usual;
}

struct Build {
    std::string currency; ///< prices are in it, "EUR"
    Car car;
    Hub frontHub;
    Hub rearHub;
    Wants wants;
    std::vector<Wheel> wheels;
    std::vector<Setup> setups; ///< the first is the car as found
    std::vector<DutyPlan> duties;
    std::vector<LoadCase> loads; ///< beside the car with its driver alone
    std::vector<ShimStock> drawer;
    std::vector<MockUp> mockUps;
    std::vector<TestSession> tests;
    std::vector<JobCard> cards;
    std::vector<LogEntry> log;
    DEEPSTOP_COMPILED_ONCE(Build)
};

[[nodiscard]] const Setup* findSetup(const Build& build, const std::string& id);
[[nodiscard]] const Wheel* findWheel(const Build& build, const std::string& id);
/// The setup's own corner, or that of the car as found where the setup leaves the axle alone; null in a build without setups.
[[nodiscard]] const Corner* cornerOf(const Build& build, const Setup& setup, Axle axle);
/// The same to be changed: a setup that left the axle alone begins to differ here, from the corner it leaned on, or an empty one.
/// @pre the build has a setup with that id
[[nodiscard]] Corner& ownCorner(Build& build, const std::string& setupId, Axle axle);
/// The setup's own hydraulics, or those of the car as found where it leaves them alone.
[[nodiscard]] const Hydraulics& hydraulicsOf(const Build& build, const Setup& setup);
[[nodiscard]] inline const Hub& hubOf(const Build& build, Axle axle) { return axle == Axle::Front ? build.frontHub : build.rearHub; }

/// Whose parts are on one axle of a setup.
struct AxleParts {
    const Corner* corner = nullptr; ///< into the build; null where it has none
    const Wheel* wheel = nullptr;
};

/// What a setup puts on the car, its own or as found.
struct SetupParts {
    const Setup* setup = nullptr;
    const Hydraulics* hydraulics = nullptr;
    AxleParts front;
    AxleParts rear;
    [[nodiscard]] const AxleParts& at(Axle axle) const { return axle == Axle::Front ? front : rear; }
    [[nodiscard]] bool complete() const { return front.corner && rear.corner; }
};

/// All pointers lead into `build`. @pre `setup` is one of its setups
[[nodiscard]] SetupParts partsOf(const Build& build, const Setup& setup);

} // namespace deepstop
