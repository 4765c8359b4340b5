#pragma once
/// The surface of a mesh as samples in the frame of an axis.

#include "scan/axis.hpp"

namespace deepstop::scan {

/// A place on the surface; lengths in m.
struct Sample {
    float along; ///< the axis
    float radius;
    float angle; ///< rad
    float toward; ///< part of the normal along the axis
    float out; ///< part of the normal away from the axis
    float round; ///< part of the normal round the axis
    float area; ///< m²
};

class Surface {
public:
    /// @param insideOut its triangles wind the wrong way round
    Surface(const Mesh& mesh, double unit, bool insideOut) : mesh_(mesh), unit_(unit), insideOut_(insideOut) { }

    /// Middles of all triangles, or of so many of them; large triangles give several.
    [[nodiscard]] std::vector<Sample> inFrame(const Frame& frame, std::size_t most = 0) const;

private:
    const Mesh& mesh_;
    double unit_;
    bool insideOut_;
};

/// Mean profile of what is turned about the axis: radius over place along it, ring by ring.
class Rings {
public:
    struct Ring {
        double radius;
        double slope; ///< of the radius over the axis
    };
    Rings(const std::vector<Sample>& samples, double width);
    /// Of the ring there, the slope followed to the very place; nothing where there are few samples.
    [[nodiscard]] std::optional<Ring> at(double along) const;
    /// Scatter of the samples about it, one standard deviation.
    [[nodiscard]] double rough() const { return rough_; }

private:
    double width_;
    double first_ = 0;
    std::vector<double> middles_; ///< NaN where there are few
    double rough_ = 0;
};

} // namespace deepstop::scan
