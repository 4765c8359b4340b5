#pragma once
/// In which range a field of the document means anything: generous bounds, SI, both included. What lies outside is refused where it comes
/// in - typed, read from a file or a list, sent by an instrument - and never reaches geometry, drawing or a library. Common practice, no
/// source.

namespace deepstop {

struct Range {
    double least;
    double most;

    /// False for what is not finite.
    [[nodiscard]] constexpr bool holds(double si) const
    {
        // Bounds are round in the field's own unit, where SI may be off in the last digit.
        const double grace = 1e-9 * (most - least) * 1e-3;
        return si >= least - grace && si <= most + grace;
    }
    [[nodiscard]] constexpr double width() const { return most - least; }
    bool operator==(const Range&) const = default;
};

namespace range {
// Lengths, m.
inline constexpr Range diameter { 10e-3, 2 }; ///< rotors, hats, flanges, drums
inline constexpr Range bore { 1e-3, 0.3 }; ///< pistons, bolts and their holes
inline constexpr Range thickness { 0.1e-3, 0.5 };
inline constexpr Range length { 0.1e-3, 2 };
inline constexpr Range height { 0, 1 }; ///< or none
inline constexpr Range smallHeight { 0, 0.2 }; ///< gaps, runout, wear; or none
inline constexpr Range place { -2, 2 }; ///< to either side of where it is taken from
inline constexpr Range smallPlace { -0.2, 0.2 };
inline constexpr Range stack { 0, 0.3 }; ///< shims, washers, rings and spacers; or none
inline constexpr Range shim { 0.005e-3, 0.05 };
inline constexpr Range wanted { 0.001e-3, 0.1 }; ///< gaps asked for
inline constexpr Range hose { 1e-3, 20 };
inline constexpr Range wheelbase { 0.3, 12 };
inline constexpr Range massHeight { 0.02, 4 };
inline constexpr Range tyreRadius { 0.05, 2 };
inline constexpr Range carriedPlace { -12, 24 };
inline constexpr Range track { 0.1, 4 };
inline constexpr Range odometer { 0, 5e9 };
inline constexpr Range road { 0.1, 5000 };
inline constexpr Range altitude { -500, 6000 };
// Masses, kg.
inline constexpr Range carMass { 10, 60'000 };
inline constexpr Range carriedMass { -1000, 10'000 };
inline constexpr Range towed { 1, 40'000 };
inline constexpr Range partMass { 0.001, 500 };
// Ratios.
inline constexpr Range share { 0.01, 0.99 };
inline constexpr Range shareOrNone { 0, 1 };
inline constexpr Range grip { 0.02, 5 };
inline constexpr Range friction { 0.01, 2 };
inline constexpr Range ratio { 0.1, 50 };
inline constexpr Range slope { 0, 5 };
inline constexpr Range engagement { 0.05, 50 };
inline constexpr Range shimsPerBolt { 1, 8 };
inline constexpr Range printedWidth { 0, 40 }; ///< of a wheel, inches; 0: not said
inline constexpr Range money { 0, 1e9 };
// The rest, each in its SI unit.
inline constexpr Range dragArea { 0, 30 };
inline constexpr Range area { 0.05e-4, 0.5 };
inline constexpr Range speed { 0.2, 200 };
inline constexpr Range speedOrNone { 0, 200 };
inline constexpr Range duration { 0, 100'000 };
inline constexpr Range courseTime { -60, 600 };
inline constexpr Range courseSpeed { 0, 200 };
inline constexpr Range wind { -40, 40 };
inline constexpr Range slopeOfRoad { -0.5, 0.5 };
inline constexpr Range engineBraking { 0, 5 };
inline constexpr Range age { 0, 1e9 }; ///< s
inline constexpr Range cooling { 0.1, 10 };
inline constexpr Range pedalForce { 0.1, 20'000 };
inline constexpr Range testerForce { 0, 50'000 };
inline constexpr Range rodForce { 10, 100'000 };
inline constexpr Range volume { 1e-6, 10e-3 }; ///< of fluid in a reservoir
inline constexpr Range fluid { 0, 50e-6 }; ///< taken by what gives
inline constexpr Range kneePerLoad { 0, 1e5 }; ///< Pa over N
inline constexpr Range pressure { 0.01e5, 1000e5 };
inline constexpr Range pressureOrNone { 0, 1000e5 };
inline constexpr Range proofStress { 50e6, 3000e6 };
inline constexpr Range buildUp { 0, 30 };
inline constexpr Range torque { 0.05, 5000 };
inline constexpr Range torqueOrNone { 0, 5000 };
inline constexpr Range temperature { 173.15, 2273.15 }; ///< -100 to 2000 °C
inline constexpr Range rise { 0, 2000 };
inline constexpr Range turn { -12.566370614359172, 12.566370614359172 }; ///< two turns
inline constexpr Range cone { 0.17453292519943295, 3.141592653589793 }; ///< 10 to 180°
inline constexpr Range arc { 0.17453292519943295, 3.141592653589793 }; ///< of a shoe
inline constexpr Range fadePast { 1.01, 5 };
inline constexpr Range quality { 0.3, 1 };
inline constexpr Range lean { 0, 1.5533430342749532 }; ///< 89°
} // namespace range

} // namespace deepstop
