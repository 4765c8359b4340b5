#pragma once
/// What the tests of fittings share: readings that are measured, the demo's front corner, one verdict and its words.

#include "core/support.hpp"

namespace deepstop {

inline Reading measured(double value, double width = 0.05e-3) { return { value, width, Known::Measured, "vernier", "2026-05-01" }; }
inline Study studied(Build build)
{
    return study(std::make_shared<const Build>(std::move(build)), {}, UnitSystem::Metric, Remedies::LeftOut);
}

inline const Verdict& verdict(const Study& s, const Check& check, const Where& where = {})
{
    const Verdict* v = s.verdict(check, where);
    if (!v)
        qFatal("no verdict %s", idOf(check, where).c_str());
    return *v;
}
inline bool says(const Verdict& v, const char* words)
{
    if (v.reason.find(words) != std::string::npos)
        return true;
    qWarning("%s: %s", v.id.c_str(), v.reason.c_str());
    return false;
}
inline Corner& front(Build& build) { return *build.setups[1].front; }

} // namespace deepstop
