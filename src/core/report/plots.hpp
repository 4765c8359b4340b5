#pragma once
/// Plots on paper: axes with round steps; each curve has a line of its own and its name at its end.

#include "paper/paper.hpp"
#include "study/study.hpp"

namespace deepstop::report {

struct PlotCurve {
    std::string name;
    paper::Pen pen = paper::Pen::Outline;
    std::vector<paper::Point> points; ///< in the units of the axes
};
struct PlotAxis {
    std::string title; ///< with its unit
    int decimals = 0;
    double least = 1; ///< it reaches as far as this and as far as the curves
};
/// What a plot says: to be drawn, or read as a table.
struct Plot {
    std::string title;
    PlotAxis across;
    PlotAxis up;
    std::vector<PlotCurve> curves; ///< none where nothing is known yet
};
/// 150 mm wide, 62 mm high. Empty where no curve has two points. Axes begin at 0; what lies under it is left out.
[[nodiscard]] paper::Drawing drawn(const Plot& plot);

/// Braking of the rear axle over the front's, the ideal line with it, driver alone.
[[nodiscard]] Plot balancePlot(const Study& study);
/// Face and fluid of one axle over the judged duty, before dashed.
[[nodiscard]] Plot heatPlot(const Study& study, Axle axle);
/// Speed over distance, cold and after the duty, before dashed.
[[nodiscard]] Plot stopPlot(const Study& study);
/// All of these that say something.
[[nodiscard]] std::vector<Plot> plotsOf(const Study& study);

} // namespace deepstop::report
