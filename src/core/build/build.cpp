#include "build/build.hpp"

#include <algorithm>

namespace deepstop {

const Setup* findSetup(const Build& build, const std::string& id)
{
    const auto found = std::ranges::find(build.setups, id, &Setup::id);
    return found == build.setups.end() ? nullptr : &*found;
}

const Wheel* findWheel(const Build& build, const std::string& id)
{
    const auto found = std::ranges::find(build.wheels, id, &Wheel::id);
    return found == build.wheels.end() ? nullptr : &*found;
}

const Corner* cornerOf(const Build& build, const Setup& setup, Axle axle)
{
    const auto own = [axle](const Setup& s) -> const Corner* {
        const auto& corner = axle == Axle::Front ? s.front : s.rear;
        return corner ? &*corner : nullptr;
    };
    if (const Corner* corner = own(setup))
        return corner;
    return build.setups.empty() ? nullptr : own(build.setups.front());
}

Corner& ownCorner(Build& build, const std::string& setupId, Axle axle)
{
    Setup& setup = *std::ranges::find(build.setups, setupId, &Setup::id);
    auto& own = axle == Axle::Front ? setup.front : setup.rear;
    if (!own) {
        const Corner* leant = cornerOf(build, setup, axle);
        own = leant ? *leant : Corner {};
    }
    return *own;
}

const Hydraulics& hydraulicsOf(const Build& build, const Setup& setup)
{
    static const Hydraulics unknown;
    if (setup.hydraulics)
        return *setup.hydraulics;
    return build.setups.empty() || !build.setups.front().hydraulics ? unknown : *build.setups.front().hydraulics;
}

SetupParts partsOf(const Build& build, const Setup& setup)
{
    SetupParts parts { &setup, &hydraulicsOf(build, setup), {}, {} };
    for (const auto& [axle, of] : { std::pair { Axle::Front, &parts.front }, std::pair { Axle::Rear, &parts.rear } })
        if ((of->corner = cornerOf(build, setup, axle)))
            of->wheel = findWheel(build, of->corner->wheel);
    return parts;
}

} // namespace deepstop
