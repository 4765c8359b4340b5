#pragma once
/// What of an axle is another part than before, and so has to come off and go on, and what stays.

#include "build/build.hpp"

namespace deepstop {

struct AxleWork {
    bool rotor = true; ///< or drum
    bool caliper = true; ///< with what holds it
    bool pads = true; ///< or shoes
    bool otherPadShape = true; ///< thickness, backing, length or height; unread ones are taken for others
    bool thickerPads = true; ///< lining and backing together; of a floating caliper they move its body
    bool widened = false; ///< the same split caliper with more room between its halves
    bool hose = true;
    bool place = true; ///< ring, spacer, wheel, shims: where rotor, caliper or wheel sit
    bool cuts = true;

    /// Pads and hoses alone: nothing is mocked up.
    [[nodiscard]] bool small() const { return !rotor && !caliper && !place && !cuts; }
    [[nodiscard]] bool any() const { return rotor || caliper || pads || hose || place || cuts; }
    [[nodiscard]] bool opensLine() const { return hose || caliper; }
    [[nodiscard]] bool mockedUp() const { return rotor || caliper || place; }
};
/// @param before null: nothing is known of it, and all is other
[[nodiscard]] AxleWork workBetween(const Corner* before, const Corner& after);

/// Whether the log or a test says that the car was driven as found.
[[nodiscard]] bool drivenAsFound(const Build& build);

} // namespace deepstop
