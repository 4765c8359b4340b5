#include "stages/wheel/mesh_view.hpp"

#include "theme.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace deepstop::app {
namespace {

using Row = std::array<double, 3>;

double dotOf(const Row& a, const Row& b) { return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]; }
Row crossOf(const Row& a, const Row& b) { return { a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0] }; }
Row unitOf(Row a)
{
    const double size = std::sqrt(dotOf(a, a));
    for (double& each : a)
        each /= size;
    return a;
}

/// The same surface in triangles no longer than that: a solid's file has long ones, of which few places would be seen.
/// @param larger than the part: a triangle with such a side is none of its surface
scan::Mesh cutUp(const scan::Mesh& mesh, double longest, double larger)
{
    constexpr std::size_t most = 500'000; // triangles
    using Corner = std::array<float, 3>;
    const auto sideOf = [](const Corner& a, const Corner& b) {
        return std::hypot(double { a[0] } - b[0], double { a[1] } - b[1], double { a[2] } - b[2]);
    };
    const auto isWild = [&](std::size_t t) {
        const auto* c = &mesh.corners[3 * t];
        return !(std::max({ sideOf(c[0], c[1]), sideOf(c[1], c[2]), sideOf(c[2], c[0]) }) < larger);
    };
    double area = 0;
    for (std::size_t t = 0; t < mesh.triangles(); ++t) {
        if (isWild(t))
            continue;
        const auto edge = [&](std::size_t to) {
            const Corner& a = mesh.corners[3 * t];
            const Corner& b = mesh.corners[3 * t + to];
            return Row { b[0] - a[0], b[1] - a[1], b[2] - a[2] };
        };
        const Row across = crossOf(edge(1), edge(2));
        area += std::sqrt(dotOf(across, across)) / 2;
    }
    // One that is halved until its longest side is that long is a sixth of its square, or a little less.
    constexpr double halved = 8;
    longest = std::max(longest, std::sqrt(halved * area / static_cast<double>(most)));
    scan::Mesh fine;
    std::vector<std::array<Corner, 3>> open;
    for (std::size_t t = 0; t < mesh.triangles(); ++t) {
        if (isWild(t))
            continue;
        open.assign({ { mesh.corners[3 * t], mesh.corners[3 * t + 1], mesh.corners[3 * t + 2] } });
        while (!open.empty()) {
            const auto triangle = open.back();
            open.pop_back();
            std::size_t side = 0;
            double length = 0;
            for (std::size_t i = 0; i < 3; ++i) {
                const double far = sideOf(triangle[i], triangle[(i + 1) % 3]);
                if (far > length) {
                    length = far;
                    side = i;
                }
            }
            if (length <= longest) {
                fine.corners.insert(fine.corners.end(), triangle.begin(), triangle.end());
                continue;
            }
            const Corner& a = triangle[side];
            const Corner& b = triangle[(side + 1) % 3];
            const Corner& c = triangle[(side + 2) % 3];
            const Corner middle { (a[0] + b[0]) / 2, (a[1] + b[1]) / 2, (a[2] + b[2]) / 2 };
            open.push_back({ a, middle, c });
            open.push_back({ middle, b, c });
        }
    }
    return fine;
}

} // namespace

Cloud cloudOf(const scan::Mesh& mesh, double unit)
{
    Cloud cloud;
    const auto extent = scan::extentOf(mesh);
    for (std::size_t i = 0; i < 3; ++i) {
        cloud.middle[i] = (extent.from[i] + extent.to[i]) / 2 * unit;
        cloud.size = std::max(cloud.size, (extent.to[i] - extent.from[i]) * unit);
    }
    cloud.size *= 0.62;
    constexpr std::size_t most = 350'000;
    constexpr std::size_t coarse = 100'000; // triangles; of more than that the places lie near each other
    const bool isCoarse = mesh.triangles() < coarse;
    const scan::Mesh fine = isCoarse ? cutUp(mesh, cloud.size / unit / 150, 4 * cloud.size / unit) : scan::Mesh {};
    const scan::Surface surface(isCoarse ? fine : mesh, unit, false);
    scan::Axis upright;
    upright.through = cloud.middle;
    upright.direction = { 0, 0, 1 };
    const scan::Frame frame(upright);
    // Sampled as the finding does it; here in plain coordinates again.
    for (const scan::Sample& s : surface.inFrame(frame, most)) {
        const auto p = frame.back(s.along, s.radius, s.angle);
        const auto out = frame.back(0, 1, s.angle);
        const auto beside = frame.back(0, 1, s.angle + std::numbers::pi / 2);
        Cloud::Place place {};
        for (std::size_t i = 0; i < 3; ++i) {
            place.at[i] = static_cast<float>(p[i] - cloud.middle[i]);
            place.normal[i] = static_cast<float>(
                s.toward * upright.direction[i] + s.out * (out[i] - cloud.middle[i]) + s.round * (beside[i] - cloud.middle[i]));
        }
        cloud.places.push_back(place);
    }
    return cloud;
}

Cloud scaled(Cloud cloud, double by)
{
    for (Cloud::Place& place : cloud.places)
        for (float& each : place.at)
            each *= static_cast<float>(by);
    for (double& each : cloud.middle)
        each *= by;
    cloud.size *= by;
    return cloud;
}

MeshView::MeshView(QWidget* parent) : QWidget(parent)
{
    setMinimumSize(280, 260);
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("The scan; arrow keys turn it"));
    view_ = { { { 1, 0, 0 }, { 0, 1, 0 }, { 0, 0, 1 } } };
}

void MeshView::setCloud(std::shared_ptr<const Cloud> cloud)
{
    cloud_ = std::move(cloud);
    zoom_ = 1;
    picks_.clear();
    changed();
}

void MeshView::setFound(std::shared_ptr<const scan::WheelScan> found)
{
    const bool first = !found_ && found;
    found_ = std::move(found);
    if (first)
        lookInside();
    changed();
}

void MeshView::setCut(bool cut)
{
    cut_ = cut;
    changed();
}

void MeshView::setPicking(bool picking)
{
    picking_ = picking;
    setCursor(picking ? Qt::CrossCursor : Qt::ArrowCursor);
}

void MeshView::clearPicks()
{
    picks_.clear();
    update();
}

void MeshView::takePickBack()
{
    if (!picks_.empty())
        picks_.pop_back();
    update();
}

void MeshView::setRings(std::vector<Ring> rings)
{
    rings_ = std::move(rings);
    update();
}

QPoint MeshView::pixelOf(const scan::Point& at) const
{
    const auto p = seen(at);
    return QPointF(p[0], p[1]).toPoint();
}

void MeshView::lookInside()
{
    if (!found_)
        return;
    lookAgainst(found_->axis.direction);
    // A little from above and beside, so that depth is seen.
    turn(0.5, -0.35);
}

void MeshView::lookAgainst(const scan::Point& direction)
{
    const Row axis = direction;
    const Row some = std::abs(axis[1]) < 0.9 ? Row { 0, 1, 0 } : Row { 1, 0, 0 };
    view_[2] = axis;
    view_[0] = unitOf(crossOf(some, axis));
    view_[1] = crossOf(view_[2], view_[0]);
    changed();
}

void MeshView::turn(double aside, double up)
{
    const auto about = [&](std::size_t a, std::size_t b, double angle) {
        const Row x = view_[a];
        const Row y = view_[b];
        for (std::size_t i = 0; i < 3; ++i) {
            view_[a][i] = x[i] * std::cos(angle) + y[i] * std::sin(angle);
            view_[b][i] = y[i] * std::cos(angle) - x[i] * std::sin(angle);
        }
    };
    about(0, 2, aside);
    about(1, 2, up);
    changed();
}

void MeshView::changed()
{
    image_ = {};
    update();
}

void MeshView::changeEvent(QEvent* event)
{
    QWidget::changeEvent(event);
    if (event->type() == QEvent::PaletteChange || event->type() == QEvent::StyleChange)
        changed();
}

std::array<double, 3> MeshView::seen(const scan::Point& at) const
{
    const double scale = zoom_ * std::min(width(), height()) / (2 * cloud_->size);
    Row from {};
    for (std::size_t i = 0; i < 3; ++i)
        from[i] = at[i] - cloud_->middle[i];
    return { width() / 2.0 + scale * dotOf(view_[0], from), height() / 2.0 + scale * dotOf(view_[1], from), scale * dotOf(view_[2], from) };
}

void MeshView::render()
{
    const Theme& t = theme();
    const double ratio = devicePixelRatioF();
    const int across = std::max(1, static_cast<int>(width() * ratio));
    const int down = std::max(1, static_cast<int>(height() * ratio));
    image_ = QImage(across, down, QImage::Format_RGB32);
    image_.setDevicePixelRatio(ratio);
    image_.fill(t.paper);
    hit_.assign(static_cast<std::size_t>(across) * static_cast<std::size_t>(down), 0);
    if (!cloud_)
        return;
    std::vector<float> depth(hit_.size(), -std::numeric_limits<float>::infinity());
    const double scale = ratio * zoom_ * std::min(width(), height()) / (2 * cloud_->size);
    // Dots as large as what one of them stands for.
    const double spacing = cloud_->size * 2.4 / std::sqrt(static_cast<double>(std::max<std::size_t>(1, cloud_->places.size())));
    const int half = std::clamp(static_cast<int>(std::ceil(0.75 * spacing * scale)), 1, 6);
    const auto shade = [&](double light, const QColor& of) {
        const double part = std::clamp(light, 0.0, 1.0);
        const QColor dark = t.dark ? t.paper.lighter(150) : of.darker(260);
        return qRgb(static_cast<int>(std::lerp(dark.red(), of.red(), part)), static_cast<int>(std::lerp(dark.green(), of.green(), part)),
            static_cast<int>(std::lerp(dark.blue(), of.blue(), part)));
    };
    const QColor metal = t.dark ? QColor(196, 202, 208) : QColor(222, 226, 229);
    for (std::size_t i = 0; i < cloud_->places.size(); ++i) {
        const auto& [at, normal] = cloud_->places[i];
        const Row p { at[0], at[1], at[2] };
        QColor of = metal;
        if (found_ && found_->lacks.empty()) {
            const auto place = found_->frame.of({ p[0] + cloud_->middle[0], p[1] + cloud_->middle[1], p[2] + cloud_->middle[2] });
            if (cut_ && place.angle > 0)
                continue;
            if (std::abs(place.along - found_->face) < 1.2e-3 && place.radius < 95e-3)
                of = t.proposal;
        }
        const double z = scale * dotOf(view_[2], p);
        const int x = static_cast<int>(across / 2.0 + scale * dotOf(view_[0], p));
        const int y = static_cast<int>(down / 2.0 + scale * dotOf(view_[1], p));
        const Row n { normal[0], normal[1], normal[2] };
        // Either side is seen; light comes from the eye, a little from above.
        const double light = 0.25 + 0.75 * std::abs(0.94 * dotOf(view_[2], n) - 0.34 * dotOf(view_[1], n));
        const QRgb colour = shade(light, of);
        for (int dy = -half; dy <= half; ++dy)
            for (int dx = -half; dx <= half; ++dx) {
                if (x + dx < 0 || x + dx >= across || y + dy < 0 || y + dy >= down)
                    continue;
                const auto pixel = static_cast<std::size_t>(y + dy) * static_cast<std::size_t>(across) + static_cast<std::size_t>(x + dx);
                if (z <= depth[pixel])
                    continue;
                depth[pixel] = static_cast<float>(z);
                hit_[pixel] = static_cast<std::uint32_t>(i) + 1;
                reinterpret_cast<QRgb*>(image_.scanLine(y + dy))[x + dx] = colour;
            }
    }
}

void MeshView::drawFound(QPainter& painter) const
{
    const Theme& t = theme();
    const scan::WheelScan& f = *found_;
    const auto at = [&](double along, double radius, double angle) {
        const auto p = seen(f.frame.back(along, radius, angle));
        return QPointF(p[0], p[1]);
    };
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(t.ink, 1.2, Qt::DashDotLine));
    const double reach = 1.1 * cloud_->size;
    painter.drawLine(at(f.face - reach / 3, 0, 0), at(f.face + reach / 1.5, 0, 0));
    const auto ring = [&](double along, double radius, double x0 = 0, double y0 = 0) {
        QPainterPath path;
        for (int i = 0; i <= 72; ++i) {
            const double a = 2 * std::numbers::pi * i / 72;
            const double x = x0 + radius * std::cos(a);
            const double y = y0 + radius * std::sin(a);
            const QPointF p = at(along, std::hypot(x, y), std::atan2(y, x));
            i == 0 ? path.moveTo(p) : path.lineTo(p);
        }
        painter.drawPath(path);
    };
    painter.setPen(QPen(t.paper, 2)); // on the face, which is drawn in the setup's colour
    if (f.bore)
        ring(f.face, f.bore->value / 2);
    for (const scan::Point& hole : f.holeCentres)
        ring(f.face, hole[2], hole[0], hole[1]);
    if (f.boltCircle) {
        painter.setPen(QPen(t.paper, 1.2, Qt::DashLine));
        ring(f.face, f.boltCircle->value / 2);
    }
    // The profile where it is cut: both edges of the half that is left.
    for (const double angle : { 0.0, std::numbers::pi }) {
        const auto line = [&](const auto& stations, auto place, const std::vector<scan::Range>& gaps, auto along) {
            for (std::size_t i = 1; i < stations.size(); ++i) {
                const bool unseen = std::ranges::any_of(
                    gaps, [&](const scan::Range& g) { return g.from < along(stations[i]) && g.to > along(stations[i - 1]); });
                painter.setPen(unseen ? QPen(t.bad, 1.5, Qt::DotLine) : QPen(t.bad, 2.2));
                painter.drawLine(place(stations[i - 1]), place(stations[i]));
            }
        };
        line(
            f.barrel, [&](const scan::ScannedBarrel& b) { return at(f.face + b.depth, b.insideRadius, angle); }, f.barrelUnseen,
            [](const scan::ScannedBarrel& b) { return b.depth; });
        line(
            f.spokes, [&](const scan::ScannedSpoke& s) { return at(f.face - s.distance, s.radius, angle); }, f.spokesUnseen,
            [](const scan::ScannedSpoke& s) { return s.radius; });
    }
}

void MeshView::paintEvent(QPaintEvent*)
{
    if (image_.isNull())
        render();
    QPainter painter(this);
    painter.drawImage(0, 0, image_);
    const Theme& t = theme();
    if (cloud_ && found_ && found_->lacks.empty())
        drawFound(painter);
    if (cloud_) {
        painter.setRenderHint(QPainter::Antialiasing);
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(t.proposal, 2.5));
        for (const Ring& ring : rings_) {
            const Row some = std::abs(ring.along[1]) < 0.9 ? Row { 0, 1, 0 } : Row { 1, 0, 0 };
            const Row x = unitOf(crossOf(some, ring.along));
            const Row y = crossOf(ring.along, x);
            QPolygonF line;
            for (int i = 0; i <= 48; ++i) {
                const double angle = 2 * std::numbers::pi * i / 48;
                scan::Point at = ring.centre;
                for (std::size_t k = 0; k < 3; ++k)
                    at[k] += ring.radius * (std::cos(angle) * x[k] + std::sin(angle) * y[k]);
                const auto p = seen(at);
                line << QPointF(p[0], p[1]);
            }
            painter.drawPolyline(line);
        }
        painter.setPen(QPen(t.paper, 1.5));
        painter.setBrush(t.bad);
        for (const scan::Point& each : picks_) {
            const auto p = seen(each);
            painter.drawEllipse(QPointF(p[0], p[1]), 5, 5);
        }
    }
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(hasFocus() ? t.focus : t.rule, hasFocus() ? 2 : 1));
    painter.drawRect(rect().adjusted(0, 0, -1, -1));
}

void MeshView::mousePressEvent(QMouseEvent* event) { pressed_ = last_ = event->pos(); }

void MeshView::mouseMoveEvent(QMouseEvent* event)
{
    if (!(event->buttons() & Qt::LeftButton))
        return;
    constexpr double radiansPerPixel = 0.008;
    const QPoint moved = event->pos() - last_;
    last_ = event->pos();
    turn(-moved.x() * radiansPerPixel, -moved.y() * radiansPerPixel);
}

void MeshView::mouseReleaseEvent(QMouseEvent* event)
{
    if (!picking_ || !cloud_ || (event->pos() - pressed_).manhattanLength() > 3 || image_.isNull())
        return;
    // Between two dots of the surface the nearer one is meant.
    const double ratio = devicePixelRatioF();
    const QPoint clicked = (QPointF(event->pos()) * ratio).toPoint();
    constexpr int near = 4;
    std::uint32_t hit = 0;
    int least = near * near + 1;
    for (int y = std::max(0, clicked.y() - near); y <= std::min(image_.height() - 1, clicked.y() + near); ++y)
        for (int x = std::max(0, clicked.x() - near); x <= std::min(image_.width() - 1, clicked.x() + near); ++x) {
            const QPoint off = QPoint(x, y) - clicked;
            const auto place = hit_[static_cast<std::size_t>(y) * static_cast<std::size_t>(image_.width()) + static_cast<std::size_t>(x)];
            if (place > 0 && QPoint::dotProduct(off, off) < least) {
                least = QPoint::dotProduct(off, off);
                hit = place;
            }
        }
    if (hit == 0)
        return;
    const auto& at = cloud_->places[hit - 1].at;
    picks_.push_back({ at[0] + cloud_->middle[0], at[1] + cloud_->middle[1], at[2] + cloud_->middle[2] });
    update();
    emit picked();
}

void MeshView::wheelEvent(QWheelEvent* event)
{
    zoom_ = std::clamp(zoom_ * std::pow(1.0015, event->angleDelta().y()), 0.4, 12.0);
    changed();
    event->accept();
}

void MeshView::keyPressEvent(QKeyEvent* event)
{
    constexpr double step = 0.12;
    switch (event->key()) {
    case Qt::Key_Left:
        return turn(step, 0);
    case Qt::Key_Right:
        return turn(-step, 0);
    case Qt::Key_Up:
        return turn(0, step);
    case Qt::Key_Down:
        return turn(0, -step);
    case Qt::Key_Plus:
    case Qt::Key_Minus:
        zoom_ = std::clamp(zoom_ * (event->key() == Qt::Key_Plus ? 1.2 : 1 / 1.2), 0.4, 12.0);
        return changed();
    default:
        QWidget::keyPressEvent(event);
    }
}

} // namespace deepstop::app
