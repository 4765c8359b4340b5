#pragma once
/// One stage of the work: a page, and the chapters of the study that speak on it.

#include "language/language.hpp"
#include "study/study.hpp"

#include <QString>

#include <algorithm>
#include <string_view>
#include <vector>

class QWidget;

namespace deepstop::app {

class Document;
class LibraryStore;
class StagePage;

/// As on the command line: "wheel-clearance".
using StageId = std::string_view;

struct Stage {
    StageId id;
    const char* title; ///< on the rail and in the menu
    std::vector<std::string_view> chapters; ///< whose verdicts are read here
    bool byAxle = false; ///< checks are listed under the axle they are of
    StagePage* (*make)(Document&, LibraryStore&, QWidget*);

    /// Its state on the rail, of a stage whose state is no chapter's verdict.
    std::pair<Level, std::string> (*state)(const Study&) = nullptr;

    /// What stands beside a stage that no chapter speaks on.
    const char* aside = nullptr;

    [[nodiscard]] QString name() const { return QString::fromUtf8(deepstop::tr(title)); }
    [[nodiscard]] bool speaks(std::string_view chapter) const { return std::ranges::find(chapters, chapter) != chapters.end(); }
};

} // namespace deepstop::app
