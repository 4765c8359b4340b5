#pragma once
/// When the caliper does not clear the wheel: every change that would give it room, with all that it costs elsewhere, and the questions
/// the other way round.

#include "library/library.hpp"
#include "chapters/clearance/clearance.hpp"

namespace deepstop {

/// One change to a corner, tried on the numbers.
struct Cure {
    enum class Kind { Spacer, Rotor, Wheel, Caliper };
    Kind kind;
    std::string title; ///< "Spacer 5.0 mm"
    std::array<Figure, wheelGaps.size()> gaps; ///< afterwards; without value where there is nothing to strike or a reading lacks
    std::array<double, wheelGaps.size()> wanted {}; ///< of each
    Level level = Level::Unproven; ///< of the worst of them
    Figure outward; ///< how much further out the wheel then stands
    Figure inNut; ///< full thread of the studs in the nut
    Figure heatStore; ///< of one ring
    Figure wheelMass; ///< change, where the wheel is another
    double torqueShare = 1; ///< of the torque at equal pressure; NaN where not known
    std::vector<std::string> costs; ///< the same in words, and what else it needs
    Edit edit; ///< puts it in

    [[nodiscard]] const Figure& gap(WheelGap which) const { return gaps[static_cast<std::size_t>(which)]; }
};

/// Changes that make every known gap to the wheel of `axle` at least what is wanted, or where none does that those that cure one and worsen
/// none, of each kind the gentlest: spacers that can be bought,
/// rotors in steps of 2 mm with the caliper moved in, the build's other wheels; with a library also its wheels and calipers, at most
/// two of each. Empty where the corner has no wheel or its caliper's outline is not known.
[[nodiscard]] std::vector<Cure> curesOf(const Study& study, Axle axle, const library::Library* library = nullptr);

/// The wheels of the build, and of a library the forty that leave most clearance, over this corner's caliper; most clearance first,
/// unproven ones after proven ones.
struct Candidate {
    const Wheel* wheel = nullptr; ///< into the build or the library
    bool ofBuild = true;
    std::array<Figure, wheelGaps.size()> gaps;
    Level level = Level::Unproven;
    std::optional<double> smallest; ///< of the gaps with a value, nominal
    std::optional<double> offset; ///< effective: with hat, ring and spacer against the car as found
};
[[nodiscard]] std::vector<Candidate> candidateWheels(const Study& study, Axle axle, const library::Library* library = nullptr);

/// The largest rotor, in whole millimetres, that this caliper can sit on in this wheel with every wanted gap kept at worst.
struct LargestRotor {
    std::optional<double> diameter; ///< m; nothing where none from 200 mm up fits or the gaps are not proven
    WheelGap limit = WheelGap::Barrel; ///< what the next larger one would be too near
    std::string why; ///< where there is no diameter
};
[[nodiscard]] LargestRotor largestRotor(const Study& study, Axle axle);

/// Offsets of a wheel shaped as this one that clear, in steps of 0.5 mm, from 40 mm under to 40 mm over its own.
struct OffsetRange {
    std::optional<std::pair<double, double>> offsets; ///< ET, m; the stretch that holds the wheel's own, else the nearest to it
    bool openLow = false; ///< the search ended there, not the room
    bool openHigh = false;
    std::string why;
};
[[nodiscard]] OffsetRange offsetRange(const Study& study, Axle axle);

/// The smallest printed wheel size this kit goes into.
struct SmallestWheel {
    std::optional<int> impossible; ///< this size and all below are too small whatever their barrel: bead seat less 3 mm of metal
    const Wheel* proven = nullptr; ///< the smallest that clears on readings
};
[[nodiscard]] SmallestWheel smallestWheel(const Study& study, Axle axle, const library::Library* library = nullptr);

/// Each answer as one sentence.
[[nodiscard]] std::string inWords(const LargestRotor& answer, UnitSystem system);
[[nodiscard]] std::string inWords(const OffsetRange& answer, UnitSystem system);
[[nodiscard]] std::string inWords(const SmallestWheel& answer);

} // namespace deepstop
