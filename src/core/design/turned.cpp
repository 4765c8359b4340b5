#include "design/turned.hpp"

#include "language/language.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <numbers>

namespace deepstop::design {

using paper::Pen;
using paper::Point;

namespace {

constexpr double pi = std::numbers::pi;

/// Sum over the edges of a closed outline of cross product × `weight` of the two radii.
double sumOver(const geometry::Chain& outline, const std::function<double(double, double)>& weight)
{
    double sum = 0;
    for (std::size_t i = 0; i < outline.size(); ++i) {
        const geometry::Point a = outline[i];
        const geometry::Point b = outline[(i + 1) % outline.size()];
        sum += (a.z * b.r - b.z * a.r) * weight(a.r, b.r);
    }
    return std::abs(sum);
}

double depthOf(const HoleCircle& holes) { return holes.to - holes.from; }
double areaOf(const HoleCircle& holes) { return holes.count * pi / 4 * holes.diameter * holes.diameter; }

/// Thickness × length × height of all vanes together.
double volumeOf(const VaneSet& v) { return v.count * v.thickness * (v.outer - v.inner) / std::cos(v.lean) * (v.to - v.from); }

} // namespace

double volumeOf(const Turned& part)
{
    double volume = 0;
    for (const geometry::Chain& section : part.sections)
        volume += pi / 3 * sumOver(section, [](double a, double b) { return a + b; });
    for (const HoleCircle& holes : part.holes)
        volume -= areaOf(holes) * depthOf(holes);
    return part.vanes ? volume + volumeOf(*part.vanes) : volume;
}

double massOf(const Turned& part) { return volumeOf(part) * part.density; }

double inertiaOf(const Turned& part)
{
    double moment = 0;
    for (const geometry::Chain& section : part.sections)
        moment += pi / 10 * sumOver(section, [](double a, double b) { return (a + b) * (a * a + b * b); });
    for (const HoleCircle& h : part.holes)
        moment -= areaOf(h) * depthOf(h) * (h.circle * h.circle / 4 + h.diameter * h.diameter / 8);
    if (part.vanes) {
        const VaneSet& v = *part.vanes;
        const double squares = (v.outer * v.outer + v.outer * v.inner + v.inner * v.inner) / 3;
        moment += volumeOf(v) * squares;
    }
    return moment * part.density;
}

std::vector<Point> vaneOutline(const VaneSet& v, int steps)
{
    std::vector<Point> outline;
    const auto at = [&](double radius, double side) {
        // tan(lean) = r dφ/dr. Across the vane half its thickness, square to its way.
        const double turn = std::tan(v.lean) * std::log(radius / v.inner);
        const double across = side * v.thickness / 2;
        const double alongRadius = -across * std::sin(v.lean);
        const double alongTurn = across * std::cos(v.lean);
        const double angle = pi / 2 - turn;
        const double r = radius + alongRadius;
        return Point { r * std::cos(angle) + alongTurn * std::sin(angle), r * std::sin(angle) - alongTurn * std::cos(angle) };
    };
    for (int i = 0; i <= steps; ++i)
        outline.push_back(at(v.inner + (v.outer - v.inner) * i / steps, -1));
    for (int i = steps; i >= 0; --i)
        outline.push_back(at(v.inner + (v.outer - v.inner) * i / steps, 1));
    return outline;
}

namespace {

/// A part as drawn: section to the left of its face.
class Shop {
public:
    Shop(const Turned& part, std::string (*say)(double)) : part_(part), say_(say)
    {
        for (const geometry::Chain& section : part.sections)
            for (const geometry::Point p : section) {
                left_ = std::min(left_, p.z);
                right_ = std::max(right_, p.z);
                top_ = std::max(top_, p.r);
                bore_ = std::min(bore_, p.r);
            }
        face_ = right_ + top_ + 60e-3;
    }

    paper::Drawing drawn(const std::vector<std::string>& notes)
    {
        d_.title = tr("{}, {}", part_.title, part_.material);
        d_.notes = notes;
        d_.notes.push_back(tr("Mass {:.2f} kg, inertia {:.4f} kg·m², from these dimensions.", massOf(part_), inertiaOf(part_)));
        for (const std::string& asked : part_.asked)
            d_.notes.push_back(asked);
        d_.notes.emplace_back(
            tr("A qualified engineer has to judge this before it is made. Strength, heat cracks and balance are not proven here."));
        section();
        face();
        diameters();
        lengths();
        return std::move(d_);
    }

private:
    void section()
    {
        for (const geometry::Chain& outline : part_.sections)
            for (const double side : { 1.0, -1.0 }) {
                std::vector<Point> points;
                for (const geometry::Point p : outline)
                    points.push_back({ p.z, side * p.r });
                d_.line(Pen::Outline, points, true);
                paper::addHatch(d_, points, 3e-3, side > 0);
            }
        if (part_.vanes)
            for (const double side : { 1.0, -1.0 })
                d_.line(Pen::Hidden,
                    { { part_.vanes->from, side * part_.vanes->inner }, { part_.vanes->to, side * part_.vanes->inner },
                        { part_.vanes->to, side * part_.vanes->outer }, { part_.vanes->from, side * part_.vanes->outer } },
                    true);
        for (const HoleCircle& holes : part_.holes) {
            for (const double edge : { holes.circle / 2 - holes.diameter / 2, holes.circle / 2 + holes.diameter / 2 })
                d_.line(Pen::Outline, { { holes.from, edge }, { holes.to, edge } });
            d_.line(Pen::Axis, { { holes.from - 4e-3, holes.circle / 2 }, { holes.to + 4e-3, holes.circle / 2 } });
        }
        d_.line(Pen::Axis, { { left_ - 8e-3, 0 }, { right_ + 8e-3, 0 } });
    }

    void face()
    {
        std::vector<double> radii;
        for (const geometry::Chain& outline : part_.sections)
            for (const geometry::Point p : outline)
                radii.push_back(p.r);
        std::ranges::sort(radii);
        radii.erase(std::unique(radii.begin(), radii.end(), [](double a, double b) { return std::abs(a - b) < 1e-6; }), radii.end());
        for (const double radius : radii)
            if (radius > 0)
                d_.strokes.push_back(paper::circle(radius == top_ || radius == bore_ ? Pen::Cut : Pen::Outline, { face_, 0 }, radius));
        for (const HoleCircle& holes : part_.holes) {
            d_.strokes.push_back(paper::circle(Pen::Axis, { face_, 0 }, holes.circle / 2));
            for (int i = 0; i < holes.count; ++i) {
                const double angle = pi / 2 + 2 * pi * i / holes.count;
                const Point middle { face_ + holes.circle / 2 * std::cos(angle), holes.circle / 2 * std::sin(angle) };
                d_.strokes.push_back(paper::circle(Pen::Cut, middle, holes.diameter / 2));
            }
        }
        if (part_.vanes) {
            std::vector<Point> outline = vaneOutline(*part_.vanes);
            for (const int i : { 0, 1, 2 }) {
                const double angle = -2 * pi * i / part_.vanes->count;
                std::vector<Point> turned;
                for (const Point p : outline)
                    turned.push_back(
                        { face_ + p.x * std::cos(angle) - p.y * std::sin(angle), p.x * std::sin(angle) + p.y * std::cos(angle) });
                d_.line(Pen::Hidden, turned, true);
            }
        }
        for (const bool upright : { false, true }) {
            const double arm = top_ + 6e-3;
            d_.line(
                Pen::Axis, { { face_ - (upright ? 0 : arm), upright ? -arm : 0.0 }, { face_ + (upright ? 0 : arm), upright ? arm : 0.0 } });
        }
        double line = -top_ - 12e-3;
        for (const HoleCircle& holes : part_.holes) {
            d_.letter({ face_, line },
                tr("{} holes Ø {} evenly on Ø {}, {}", holes.count, say_(holes.diameter), say_(holes.circle), holes.what), 2.8e-3,
                paper::Anchor::Middle);
            line -= 9e-3;
        }
        if (part_.vanes)
            d_.letter({ face_, line },
                tr("{} vanes {} thick, leaning {:.0f}° back from the way it turns: left and right differ", part_.vanes->count,
                    say_(part_.vanes->thickness), part_.vanes->lean * 180 / pi),
                2.8e-3, paper::Anchor::Middle);
    }

    /// One place of each corner of the sections, each value once, rising.
    /// @param of a point's place that is collected, and what is kept beside it
    /// @param keeps which of two kept for the same place
    [[nodiscard]] std::vector<std::pair<double, double>> corners(std::pair<double, double> (*of)(geometry::Point), const auto& keeps) const
    {
        std::vector<std::pair<double, double>> found;
        for (const geometry::Chain& outline : part_.sections)
            for (const geometry::Point p : outline) {
                const auto [place, beside] = of(p);
                const auto same = std::ranges::find_if(found, [&](const auto& f) { return std::abs(f.first - place) < 1e-6; });
                if (same == found.end())
                    found.emplace_back(place, beside);
                else
                    same->second = keeps(same->second, beside);
            }
        std::ranges::sort(found);
        return found;
    }

    /// Every turned diameter once, to the left of the section, the smallest nearest; corners that were asked for otherwise are not named
    /// twice.
    void diameters()
    {
        const auto radii = corners([](geometry::Point p) { return std::pair { p.r, p.z }; }, std::ranges::min);
        double offset = 10e-3;
        for (const auto& [radius, z] : radii) {
            if (!(radius > 0))
                continue;
            paper::addDimension(d_, { z, -radius }, { z, radius }, z - left_ + offset, "Ø " + say_(2 * radius));
            offset += 9e-3;
        }
    }

    /// Every face from the leftmost one, under the section.
    void lengths()
    {
        const auto faces = corners([](geometry::Point p) { return std::pair { p.z, p.r }; }, std::ranges::max);
        double offset = 10e-3;
        for (std::size_t i = 1; i < faces.size(); ++i) {
            paper::addDimension(
                d_, { faces.front().first, -top_ }, { faces[i].first, -top_ }, -offset, say_(faces[i].first - faces.front().first));
            offset += 9e-3;
        }
    }

    const Turned& part_;
    std::string (*say_)(double);
    paper::Drawing d_;
    double left_ = 1e9;
    double right_ = -1e9;
    double top_ = 0;
    double bore_ = 1e9;
    double face_ = 0; ///< x of the middle of the face view
};

} // namespace

paper::Drawing drawingOf(const Turned& part, const std::vector<std::string>& notes, std::string (*say)(double))
{
    return Shop(part, say).drawn(notes);
}

} // namespace deepstop::design
