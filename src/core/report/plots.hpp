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
/// 150 mm wide, 62 mm high. Empty where no curve has two points. Axes begin at 0; what lies under it is left out.
[[nodiscard]] paper::Drawing plotOf(std::string title, const PlotAxis& across, const PlotAxis& up, const std::vector<PlotCurve>& curves);

/// Braking of the rear axle over the front's, the ideal line with it, driver alone.
[[nodiscard]] paper::Drawing balancePlot(const Study& study);
/// Face and fluid of one axle over the judged duty, before dashed.
[[nodiscard]] paper::Drawing heatPlot(const Study& study, Axle axle);
/// Speed over distance, cold and after the duty, before dashed.
[[nodiscard]] paper::Drawing stopPlot(const Study& study);

} // namespace deepstop::report
