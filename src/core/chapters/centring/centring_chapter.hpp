#pragma once
/// Centring: where the mock-ups say the caliper stands, and which shims put the rotor into its middle.

#include "centring/centring.hpp"
#include "verdict/findings.hpp"

namespace deepstop {

/// What shims really did on a corner, by its earlier readings.
struct LearntEffect {
    double ratio; ///< moved over what the shims should have moved
    int moves; ///< it was learnt from
};

/// One corner's answer. Mocked up several times, its mean counts, never better than what they differ by.
struct CentringResult {
    const MockUp* mockUp = nullptr; ///< the last of them
    std::vector<const MockUp*> all; ///< every one of this corner
    Axle axle = Axle::Front;
    Side side = Side::Left;
    const Corner* corner = nullptr;
    Figure axial;
    Figure tilt; ///< of the slot against the rotor, over the length of the pad, m
    Figure padEdge; ///< pad's edge inward of the rotor's, mean of its two ends; without value where not read
    Figure padTilt; ///< upper end less lower end
    std::optional<centring::Position> position;
    std::optional<LearntEffect> learnt;
    std::vector<double> targets; ///< stacks wanted: top and bottom bolt, and of a radial mount its studs
    std::optional<centring::Plan> plan; ///< this corner's part of the best plan for the whole car
    std::optional<centring::Plan> next; ///< the next best for this corner, the others staying as planned
    std::string unproven; ///< of the plan: how much better one could be at most, in words; empty where it is proven best
    std::string why; ///< no plan, in words

    /// What a shim is reckoned to do: as learnt where that is believable, else its own thickness.
    [[nodiscard]] double effect() const;
};

struct Centring {
    std::vector<CentringResult> corners; ///< mocked up of the setup after
    std::vector<centring::ShimKind> shimsToBuy; ///< where the drawer does not do for all of them
};

/// Positions alone, without shims: what follows a value under the hand.
void drawCentring(Study& study);
void addCentring(Study& study);
void settleCentring(Study& study);

} // namespace deepstop
