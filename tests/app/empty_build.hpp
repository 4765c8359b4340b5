#pragma once
/// A window with an empty build on its parts bench.

#include "app/shown.hpp"
#include "drawing/fact_field.hpp"

inline constexpr int lastEnteredBench = 4; // the scales

/// A window with an empty build, as File ▸ New build leaves it.
struct Empty : Shown {
    Empty() { QTest::keyClick(&window, Qt::Key_N, Qt::ControlModifier); }
    StagePage* bench() { return window.page(BenchPage::id); }
    QWidget* focus() { return QApplication::focusWidget(); }
    std::string at() { return focus() ? focus()->objectName().toStdString() : std::string(); }
};
