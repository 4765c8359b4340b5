#pragma once
/// Points as Eigen's vectors and back, inside this folder.

#include "scan/mesh.hpp"

#include <Eigen/Dense>

namespace deepstop::scan {

[[nodiscard]] inline Eigen::Vector3d vec(const Point& p) { return { p[0], p[1], p[2] }; }
[[nodiscard]] inline Point point(const Eigen::Vector3d& v) { return { v.x(), v.y(), v.z() }; }

} // namespace deepstop::scan
