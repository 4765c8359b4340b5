#pragma once
/// A knuckle and a caliper as a scanner would see them, plain enough to be made without a kernel. Lengths in millimetres.

#include "core/plain_wheel.hpp"

#include <array>

namespace deepstop {

/// Triangles put together from rings, walls and blocks.
class PlainSurface {
public:
    using Place = std::array<double, 3>;
    /// A flat ring square to z.
    void ring(double x, double y, double z, double from, double to)
    {
        constexpr int around = 200;
        const int steps = std::max(1, static_cast<int>((to - from) / 2.5));
        for (int i = 0; i < around; ++i)
            for (int k = 0; k < steps; ++k)
                patch(round(x, y, z, from + (to - from) * k / steps, i, around),
                    round(x, y, z, from + (to - from) * (k + 1) / steps, i, around),
                    round(x, y, z, from + (to - from) * (k + 1) / steps, i + 1, around),
                    round(x, y, z, from + (to - from) * k / steps, i + 1, around));
    }
    /// A round wall along z.
    void wall(double x, double y, double r, double from, double to)
    {
        constexpr int around = 200;
        const int steps = std::max(1, static_cast<int>((to - from) / 2.5));
        for (int i = 0; i < around; ++i)
            for (int k = 0; k < steps; ++k) {
                const double low = from + (to - from) * k / steps;
                const double high = from + (to - from) * (k + 1) / steps;
                patch(round(x, y, low, r, i, around), round(x, y, high, r, i, around), round(x, y, high, r, i + 1, around),
                    round(x, y, low, r, i + 1, around));
            }
    }
    /// A block's six faces, its normals outward.
    void block(Place from, Place to)
    {
        for (std::size_t axis = 0; axis < 3; ++axis)
            for (const bool end : { false, true }) {
                const std::size_t u = (axis + 1) % 3;
                const std::size_t v = (axis + 2) % 3;
                const int across = std::max(1, static_cast<int>((to[u] - from[u]) / 3));
                const int up = std::max(1, static_cast<int>((to[v] - from[v]) / 3));
                const auto at = [&](int i, int k) {
                    Place p {};
                    p[axis] = end ? to[axis] : from[axis];
                    p[u] = from[u] + (to[u] - from[u]) * i / across;
                    p[v] = from[v] + (to[v] - from[v]) * k / up;
                    return p;
                };
                for (int i = 0; i < across; ++i)
                    for (int k = 0; k < up; ++k)
                        end ? patch(at(i, k), at(i + 1, k), at(i + 1, k + 1), at(i, k + 1))
                            : patch(at(i, k), at(i, k + 1), at(i + 1, k + 1), at(i + 1, k));
            }
    }
    [[nodiscard]] const scan::Mesh& mesh() const { return mesh_; }

private:
    static Place round(double x, double y, double z, double r, int i, int around)
    {
        const double angle = 2 * std::numbers::pi * i / around;
        return { x + r * std::cos(angle), y + r * std::sin(angle), z };
    }
    void patch(const Place& a, const Place& b, const Place& c, const Place& d)
    {
        for (const Place& p : { a, b, c, a, c, d })
            mesh_.corners.push_back({ static_cast<float>(p[0]), static_cast<float>(p[1]), static_cast<float>(p[2]) });
    }
    scan::Mesh mesh_;
};

/// z is inboard, the hub's flange face at 0.
struct PlainKnuckle {
    double flange = 68; ///< radius
    double pilot = 33.3;
    double pilotHeight = 9;
    double spacing = 130;
    double radius = 100;
    double depth = 35;
    double hole = 6;
    [[nodiscard]] scan::Mesh mesh() const
    {
        PlainSurface surface;
        surface.ring(0, 0, 0, pilot, flange);
        surface.wall(0, 0, pilot, -pilotHeight, 0);
        surface.ring(0, 0, -pilotHeight, 20, pilot);
        for (const double side : { -1.0, 1.0 }) {
            surface.ring(side * spacing / 2, radius, depth, hole, 3.2 * hole);
            surface.wall(side * spacing / 2, radius, hole, depth, depth + 12);
            surface.wall(side * spacing / 2, radius, 3.2 * hole, depth, depth + 12);
        }
        return surface.mesh();
    }
};

/// z is outboard, the lugs' face at 0; x along the line of the holes, y outward.
struct PlainCaliper {
    double drop = 40; ///< line of the holes inward of the rotor's edge
    double slot = 52; ///< middle, outboard of the lugs' face
    double spacing = 130;
    double hole = 6;
    double slotWidth = 40;
    double back = 28; ///< over the rotor's edge
    [[nodiscard]] scan::Mesh mesh() const
    {
        PlainSurface surface;
        const double half = slotWidth / 2;
        surface.block({ -90, 0, slot - 60 }, { 90, drop + back, slot - half });
        surface.block({ -90, 0, slot + half }, { 90, drop + back, slot + 48 });
        surface.block({ -90, drop + 6, slot - half }, { 90, drop + back, slot + half });
        for (const double side : { -1.0, 1.0 }) {
            surface.ring(side * spacing / 2, -16, 0, hole, 2.5 * hole);
            surface.wall(side * spacing / 2, -16, hole, 0, 20);
            surface.wall(side * spacing / 2, -16, 2.5 * hole, 0, 20);
        }
        return surface.mesh();
    }
};

} // namespace deepstop
