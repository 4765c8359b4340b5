#include "scan/mesh.hpp"

#include <algorithm>

namespace deepstop::scan {

double metresIn(FileUnit unit)
{
    switch (unit) {
    case FileUnit::Millimetre:
        return 1e-3;
    case FileUnit::Inch:
        return 25.4e-3;
    case FileUnit::Metre:
        return 1;
    }
    return 1e-3;
}

std::string_view nameOf(FileUnit unit)
{
    switch (unit) {
    case FileUnit::Millimetre:
        return "mm";
    case FileUnit::Inch:
        return "in";
    case FileUnit::Metre:
        return "m";
    }
    return "mm";
}

double Extent::largest() const
{
    double most = 0;
    for (std::size_t i = 0; i < 3; ++i)
        most = std::max(most, to[i] - from[i]);
    return most;
}

Extent extentOf(const Mesh& mesh, double share)
{
    // A few thousand corners tell as much as all.
    constexpr std::size_t enough = 20'000;
    const std::size_t step = std::max<std::size_t>(1, mesh.corners.size() / enough);
    Extent extent {};
    std::vector<float> values;
    for (std::size_t axis = 0; axis < 3; ++axis) {
        values.clear();
        for (std::size_t i = 0; i < mesh.corners.size(); i += step)
            values.push_back(mesh.corners[i][axis]);
        if (values.empty())
            continue;
        std::ranges::sort(values);
        const auto out = static_cast<std::size_t>((1 - share) / 2 * static_cast<double>(values.size()));
        extent.from[axis] = values[out];
        extent.to[axis] = values[values.size() - 1 - out];
    }
    return extent;
}

std::optional<FileUnit> guessedUnit(const Mesh& mesh, double smallest, double largest)
{
    const double size = extentOf(mesh).largest();
    for (const FileUnit unit : { FileUnit::Millimetre, FileUnit::Inch, FileUnit::Metre })
        if (size * metresIn(unit) >= smallest && size * metresIn(unit) <= largest)
            return unit;
    return {};
}

} // namespace deepstop::scan
