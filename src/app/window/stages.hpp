#pragma once
/// The stages there are, in working order. A page joins by a line here: rail, menu, command line, pictures and tests follow the list.

#include "stage.hpp"

namespace deepstop::app {

[[nodiscard]] const std::vector<Stage>& stages();
/// Null where there is none of that id.
[[nodiscard]] const Stage* findStage(StageId id);
/// Where a chapter is read.
[[nodiscard]] const Stage& stageOf(std::string_view chapter);

} // namespace deepstop::app
