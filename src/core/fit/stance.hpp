#pragma once
/// Where a wheel stands on its axle. Metres; z as everywhere, outboard positive from the hub's flange face.

#include <optional>
#include <vector>

namespace deepstop::fit {

/// Overall width of a wheel of `nominalWidth` inches, over its flanges: the printed width and 25 mm (common practice).
[[nodiscard]] double overallWidth(double nominalWidth);

/// Mounting face to the inboard flange's edge: overall width / 2 + ET (plane geometry).
[[nodiscard]] double backspacing(double overallWidth, double offset);

struct Stance {
    double outerEdge; ///< z of the wheel's outboard flange edge
    double innerEdge; ///< z of its inboard one
    [[nodiscard]] double middle() const { return (outerEdge + innerEdge) / 2; }
};
/// @param face z of the wheel's mounting face
[[nodiscard]] Stance stance(double overallWidth, double offset, double face);

/// The spacer for a trial: thinnest that can be bought, or turned in steps of `step`, and is not under `needed`. Nothing where none is so
/// thick.
[[nodiscard]] std::optional<double> boughtSpacer(double needed);
[[nodiscard]] double turnedSpacer(double needed, double step);
/// Spacers that can be bought, m: 3, 5, 8, 10, 12, 15, 20, 25 mm; common practice, no source.
[[nodiscard]] const std::vector<double>& spacerSizes();

} // namespace deepstop::fit
