#include "report/plots.hpp"

#include "chapters/balance/balance_chapter.hpp"
#include "chapters/heat/duty_heat.hpp"
#include "chapters/proving/proving_chapter.hpp"
#include "language/language.hpp"
#include "quantity/scale.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace deepstop::report {
namespace {

using paper::Pen;
using paper::Point;

constexpr double wide = 150e-3;
constexpr double high = 62e-3;
constexpr double small = 2.4e-3; ///< letters

struct Scales {
    double across;
    double up;
    [[nodiscard]] Point at(Point p) const { return { p.x / across * wide, p.y / up * high }; }
};

void addAxes(paper::Drawing& d, const Scales& scales, const PlotAxis& across, const PlotAxis& up)
{
    const double stepX = stepFor(scales.across);
    for (int i = 0; i * stepX <= scales.across * 1.0001; ++i) {
        const Point foot = scales.at({ i * stepX, 0 });
        d.line(Pen::Thin, { { foot.x, 0 }, { foot.x, -1.2e-3 } });
        d.letter({ foot.x, -4.4e-3 }, fmt::format("{:.{}f}", i * stepX, across.decimals), small, paper::Anchor::Middle);
    }
    const double stepY = stepFor(scales.up);
    for (int i = 0; i * stepY <= scales.up * 1.0001; ++i) {
        const Point foot = scales.at({ 0, i * stepY });
        d.line(Pen::Thin, { { 0, foot.y }, { i ? wide : -1.2e-3, foot.y } });
        d.letter({ -2e-3, foot.y - 0.8e-3 }, fmt::format("{:.{}f}", i * stepY, up.decimals), small, paper::Anchor::Right);
    }
    d.line(Pen::Outline, { { 0, high }, { 0, 0 }, { wide, 0 } });
    d.letter({ wide, -9e-3 }, across.title, small, paper::Anchor::Right);
    d.letter({ 0, high + 2e-3 }, up.title, small, paper::Anchor::Left);
}

std::string unitOf(const Style& style, UnitSystem system) { return std::string(style.unit(system).symbol); }

} // namespace

paper::Drawing drawn(const Plot& plot)
{
    const auto& [title, across, up, curves] = plot;
    paper::Drawing d;
    d.title = title;
    Scales scales { across.least, up.least };
    bool any = false;
    for (const PlotCurve& curve : curves)
        for (const Point p : curve.points)
            if (std::isfinite(p.x) && std::isfinite(p.y)) {
                scales = { std::max(scales.across, p.x), std::max(scales.up, p.y) };
                any = any || curve.points.size() > 1;
            }
    if (!any)
        return d;
    scales = { roundUp(scales.across), roundUp(scales.up) };
    addAxes(d, scales, across, up);
    std::vector<double> named; // heights at which a name stands
    for (const PlotCurve& curve : curves) {
        std::vector<Point> line;
        for (const Point p : curve.points)
            if (std::isfinite(p.x) && std::isfinite(p.y) && p.x >= 0 && p.y >= 0)
                line.push_back(scales.at(p));
        if (line.size() < 2)
            continue;
        // Names keep clear of each other beside the plot, each as near to its curve's end as it can.
        double y = line.back().y;
        while (std::ranges::any_of(named, [&](double other) { return std::abs(other - y) < 3.4e-3; }))
            y += 3.4e-3;
        named.push_back(y);
        d.letter({ std::max(line.back().x, wide * 0.6) + 2e-3, y - 0.8e-3 }, curve.name, small, paper::Anchor::Left);
        d.line(curve.pen, std::move(line));
    }
    return d;
}

Plot balancePlot(const Study& study)
{
    const Balance& balance = study.of<Balance>();
    const LoadBalance* now = balance.after.find(nullptr);
    if (!now || now->curve.empty())
        return {};
    std::vector<PlotCurve> curves;
    PlotCurve ideal { tr("ideal"), Pen::Axis, {} };
    for (const auto& p : stopping::idealLine(*now->car, 1.2 * std::max(now->brakes->front.grip, now->brakes->rear.grip)))
        ideal.points.push_back({ p.front, p.rear });
    curves.push_back(std::move(ideal));
    const auto add = [&](const SetupBalance& of, const Setup& setup, Pen pen) {
        if (const LoadBalance* load = of.find(nullptr)) {
            PlotCurve curve { setup.name, pen, {} };
            for (const BalancePoint& p : load->curve)
                curve.points.push_back({ p.front, p.rear });
            curves.push_back(std::move(curve));
        }
    };
    if (study.before.setup != study.after.setup)
        add(balance.before, *study.before.setup, Pen::Hidden);
    add(balance.after, *study.after.setup, Pen::Outline);
    return { tr("Balance, driver only"), { tr("braking of the front axle over the car's weight"), 1, 0.1 },
        { tr("of the rear axle; above the ideal line the rear locks first"), 2, 0.1 }, std::move(curves) };
}

Plot heatPlot(const Study& study, Axle axle)
{
    const DutyStudy& d = study.of<DutyStudy>();
    if (!d.after.run || !d.after.run->complete)
        return {};
    const bool minutes = heat::durationOf(d.duty) > 240;
    std::vector<PlotCurve> curves;
    const auto add = [&](const DutyHeat& of, heat::Node node, const std::string& name, Pen pen) {
        PlotCurve curve { name, pen, {} };
        for (const heat::Moment& m : of.run->course)
            curve.points.push_back({ minutes ? m.time / 60 : m.time,
                fromSi((axle == Axle::Front ? m.front : m.rear)[static_cast<std::size_t>(node)], style::temperature.unit(study.system)) });
        curves.push_back(std::move(curve));
    };
    if (study.before.setup != study.after.setup && d.before.run && d.before.run->complete)
        add(d.before, heat::Node::Surface, study.before.setup->name, Pen::Hidden);
    add(d.after, heat::Node::Surface, study.after.setup->name, Pen::Outline);
    add(d.after, heat::Node::Fluid, tr("its fluid"), Pen::Axis);
    return { tr("{} face over {}", axle == Axle::Front ? tr("Front") : tr("Rear"), d.duty.name),
        { minutes ? tr("time, min") : tr("time, s") }, { tr("temperature, {}", unitOf(style::temperature, study.system)) },
        std::move(curves) };
}

Plot stopPlot(const Study& study)
{
    const ProvingStudy& p = study.of<ProvingStudy>();
    std::vector<PlotCurve> curves;
    const auto add = [&](const Predicted& of, const Setup& setup, Pen cold) {
        for (const auto& [run, word] : { std::pair { &of.coldRun, tr("cold") }, std::pair { &of.hotRun, tr("hot") } })
            if (run->has_value()) {
                PlotCurve curve { fmt::format("{}, {}", setup.name, word), run == &of.coldRun ? cold : Pen::Axis, {} };
                for (const auto& at : stopping::speedOverDistance((*run)->course))
                    curve.points.push_back(
                        { fromSi(at.distance, style::road.unit(study.system)), fromSi(at.speed, style::speed.unit(study.system)) });
                curves.push_back(std::move(curve));
            }
    };
    if (study.before.setup != study.after.setup)
        add(p.before, *study.before.setup, Pen::Hidden);
    add(p.after, *study.after.setup, Pen::Outline);
    return { tr("Stop, predicted"), { tr("distance, {}", unitOf(style::road, study.system)) },
        { tr("speed, {}", unitOf(style::speed, study.system)) }, std::move(curves) };
}

std::vector<Plot> plotsOf(const Study& study)
{
    std::vector<Plot> all { balancePlot(study), heatPlot(study, Axle::Front), heatPlot(study, Axle::Rear), stopPlot(study) };
    std::erase_if(all,
        [](const Plot& plot) { return std::ranges::all_of(plot.curves, [](const PlotCurve& curve) { return curve.points.size() < 2; }); });
    return all;
}

} // namespace deepstop::report
