#pragma once
/// A wheel as a scanner would see its inside, plain enough to be made without a kernel: barrel, hub with bore and five holes, five spokes.

#include "scan/mesh.hpp"

#include <cmath>
#include <cstdint>
#include <cstring>
#include <numbers>
#include <string>

namespace deepstop {

struct PlainWheel {
    double bore = 66.6; ///< mm, as all of it
    double boltCircle = 112;
    double holeRadius = 7;
    double pad = 74;
    double from = -20; ///< depth of the barrel's ends
    double to = 150;
    int spokes = 5;
    [[nodiscard]] double insideAt(double depth) const { return depth < 40 ? 208 : depth < 60 ? 208 - (depth - 40) * 0.6 : 196; }
    [[nodiscard]] double distanceAt(double radius) const { return 4 + (radius - pad) * 0.12; }

    /// z inboard, the mounting face at 0; normals out of the metal.
    [[nodiscard]] scan::Mesh mesh(double scale = 1) const
    {
        scan::Mesh mesh;
        const auto put = [&](double r, double a, double z) {
            mesh.corners.push_back({ static_cast<float>(scale * r * std::cos(a)), static_cast<float>(scale * r * std::sin(a)),
                static_cast<float>(scale * z) });
        };
        const double turn = 2 * std::numbers::pi;
        // A strip of a turned surface from one place to another; its normals look left of the way.
        const auto strip = [&](double r0, double z0, double r1, double z1, double a0, double a1) {
            put(r0, a0, z0), put(r1, a0, z1), put(r1, a1, z1);
            put(r0, a0, z0), put(r1, a1, z1), put(r0, a1, z0);
        };
        constexpr int around = 480;
        for (int i = 0; i < around; ++i) {
            const double a0 = turn * i / around;
            const double a1 = turn * (i + 1) / around;
            for (double z = from; z < to; z += 2.5)
                strip(insideAt(z), z, insideAt(z + 2.5), z + 2.5, a0, a1);
        }
        // The face, but where the holes are; and the holes' walls.
        const auto inHole = [&](double r, double a) {
            for (int h = 0; h < 5; ++h) {
                const double b = turn * h / 5 + 0.3;
                if (std::hypot(r * std::cos(a) - boltCircle / 2 * std::cos(b), r * std::sin(a) - boltCircle / 2 * std::sin(b)) < holeRadius)
                    return true;
            }
            return false;
        };
        for (int i = 0; i < around; ++i)
            for (double r = bore / 2; r < pad - 0.1; r += (pad - bore / 2) / 40) {
                const double next = r + (pad - bore / 2) / 40;
                const double a0 = turn * i / around;
                const double a1 = turn * (i + 1) / around;
                if (!inHole((r + next) / 2, (a0 + a1) / 2))
                    strip(r, 0, next, 0, a0, a1);
            }
        for (int i = 0; i < 240; ++i)
            for (double z = -15; z < 0; z += 1.5)
                strip(bore / 2, z, bore / 2, z + 1.5, turn * i / 240, turn * (i + 1) / 240);
        for (int h = 0; h < 5; ++h) {
            const double b = turn * h / 5 + 0.3;
            const double x = boltCircle / 2 * std::cos(b);
            const double y = boltCircle / 2 * std::sin(b);
            for (int i = 0; i < 48; ++i)
                for (double z = -15; z < 0; z += 1.5) {
                    const auto at = [&](double a, double up) {
                        mesh.corners.push_back({ static_cast<float>(scale * (x + holeRadius * std::cos(a))),
                            static_cast<float>(scale * (y + holeRadius * std::sin(a))), static_cast<float>(scale * up) });
                    };
                    const double a0 = turn * i / 48;
                    const double a1 = turn * (i + 1) / 48;
                    at(a0, z), at(a0, z + 1.5), at(a1, z + 1.5);
                    at(a0, z), at(a1, z + 1.5), at(a1, z);
                }
        }
        for (int s = 0; s < spokes; ++s)
            for (int i = 0; i < 24; ++i)
                for (double r = pad; r < 194; r += 2) {
                    const double middle = turn * s / spokes;
                    const double wide = 0.16;
                    strip(r, -distanceAt(r), r + 2, -distanceAt(r + 2), middle + wide * (2 * i / 24.0 - 1),
                        middle + wide * (2 * (i + 1) / 24.0 - 1));
                }
        return mesh;
    }
};

/// Its bytes as binary STL.
inline std::string stlOf(const scan::Mesh& mesh)
{
    std::string bytes(84, '\0');
    const auto n = static_cast<std::uint32_t>(mesh.triangles());
    std::memcpy(bytes.data() + 80, &n, sizeof n);
    for (std::size_t t = 0; t < mesh.triangles(); ++t) {
        char record[50] {};
        std::memcpy(record + 12, mesh.corners[3 * t].data(), 36);
        bytes.append(record, sizeof record);
    }
    return bytes;
}

} // namespace deepstop
