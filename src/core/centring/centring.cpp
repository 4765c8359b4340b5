#include "centring/centring.hpp"

namespace deepstop::centring {

Position position(const Gaps& gaps, double gapSpacing, double boltSpacing)
{
    const double top = (gaps.outerTop - gaps.innerTop) / 2;
    const double bottom = (gaps.outerBottom - gaps.innerBottom) / 2;
    const double axial = (top + bottom) / 2;
    const double tilt = (top - bottom) / gapSpacing;
    return { axial, tilt, axial + tilt * boltSpacing / 2, axial - tilt * boltSpacing / 2 };
}

} // namespace deepstop::centring
