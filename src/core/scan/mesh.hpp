#pragma once
/// A surface as a scanner or a solid's file gives it: loose triangles in the file's own unit.

#include <array>
#include <cstddef>
#include <optional>
#include <string_view>
#include <vector>

namespace deepstop::scan {

using Point = std::array<double, 3>; ///< or a direction; m where nothing else is said

struct Mesh {
    std::vector<std::array<float, 3>> corners; ///< three to a triangle, finite
    [[nodiscard]] std::size_t triangles() const { return corners.size() / 3; }
};

enum class FileUnit { Millimetre, Inch, Metre };
[[nodiscard]] double metresIn(FileUnit unit);
[[nodiscard]] std::string_view nameOf(FileUnit unit); ///< "mm", "in", "m"

inline constexpr double millimetre = 1e-3; ///< m

/// The unit in which something of the size of a road wheel is as large as its file says: 0.25 to 0.75 m across. Outliers, one triangle in a
/// hundred, do not count. Nothing where none fits.
[[nodiscard]] std::optional<FileUnit> guessedUnit(const Mesh& mesh, double smallest = 0.25, double largest = 0.75);

/// Where all but the farthest corners lie: of each coordinate the middle ones of `share`.
struct Extent {
    Point from;
    Point to;
    [[nodiscard]] double largest() const;
};
[[nodiscard]] Extent extentOf(const Mesh& mesh, double share = 0.99);

/// By how much a scan's scale may be off that nothing was held against; common practice, no source.
inline constexpr double scaleUnchecked = 0.01;

} // namespace deepstop::scan
