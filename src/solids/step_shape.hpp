#pragma once
/// A STEP file's solids, for who reads them.

#include <TopoDS_Shape.hxx>

#include <string>

namespace deepstop::solids {

/// In millimetres. Throws Refusal that names the file where there is none; the kernel's own failures come out as they are.
[[nodiscard]] TopoDS_Shape shapeIn(const std::string& bytes, const std::string& name);

} // namespace deepstop::solids
