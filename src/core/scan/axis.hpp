#pragma once
/// The axis a turned part turns about, found on its surface.

#include "scan/mesh.hpp"

#include <optional>
#include <vector>

namespace deepstop::scan {

/// A place of the surface, a few triangles made one.
struct Patch {
    Point at;
    Point normal; ///< unit length, as the triangles wind
    double area = 0; ///< m²
};

/// Patches some millimetres wide over the whole mesh; their normals are those of all their triangles together, so that rough triangles make
/// smooth patches. Outliers far from everything are left out.
/// @param unit metres of one in the mesh
[[nodiscard]] std::vector<Patch> patchesOf(const Mesh& mesh, double unit, double width = 10e-3);

struct Axis {
    Point through {}; ///< the point of it nearest the middle of the patches
    Point direction {}; ///< unit length
    double share = 0; ///< part of the area that is turned about it
};

/// The axis that the normals of most of the surface meet: of a surface of revolution all of them do (Pottmann's line complex; the patches
/// that do not are weighed down, again and again). Nothing where there is too little surface, or none that is turned.
[[nodiscard]] std::optional<Axis> axisOf(const std::vector<Patch>& patches);

/// A frame on an axis: how far along it, how far from it, at which angle round it.
class Frame {
public:
    Frame() = default;
    explicit Frame(const Axis& axis);
    struct Place {
        double along;
        double radius;
        double angle;
    };
    [[nodiscard]] Place of(const Point& p) const;
    /// Of a direction at a place with that angle: along the axis, away from it, round it.
    [[nodiscard]] Point turned(const Point& direction, double angle) const;
    [[nodiscard]] Point back(double along, double radius, double angle) const;
    [[nodiscard]] const Axis& axis() const { return axis_; }

private:
    Axis axis_;
    Point x_ {};
    Point y_ {};
};

} // namespace deepstop::scan
