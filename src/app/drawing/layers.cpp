#include "drawing/layers.hpp"

#include "drawing/sheet.hpp"

#include <QPaintDevice>
#include <QPainter>

#include <algorithm>
#include <span>
#include <utility>

namespace deepstop::app {

Likeness& Likeness::operator<<(const QPainterPath& path)
{
    *this << path.elementCount() << static_cast<int>(path.fillRule());
    for (int i = 0; i < path.elementCount(); ++i) {
        const auto element = path.elementAt(i);
        *this << static_cast<int>(element.type) << element.x << element.y;
    }
    return *this;
}

Likeness& Likeness::operator<<(const Ink& ink)
{
    return *this << ink.stroke << ink.width << static_cast<int>(ink.line) << ink.fill << static_cast<int>(ink.hatch) << ink.hatchColour
                 << ink.spacing;
}

namespace {

/// Laying on a picture costs about as much as one short line for every so many pixels.
constexpr double pixelsPerLine = 40000;

/// The longest stretch from the first on whose picture is laid on in less than half the time it takes to ink it.
std::span<const Stroke> worthKeeping(std::span<const Stroke> strokes)
{
    int effort = 0;
    QRectF bounds;
    std::size_t worth = 0;
    for (std::size_t i = 0; i < strokes.size(); ++i) {
        effort += strokes[i].effort;
        bounds |= strokes[i].bounds;
        if (effort > 2 + 2 * bounds.width() * bounds.height() / pixelsPerLine)
            worth = i + 1;
    }
    return strokes.first(worth);
}

} // namespace

/// How many strokes from the first on are those of `before` from its first on.
std::size_t Layers::sameStretch(std::span<const Stroke> strokes, std::span<const Seen> before)
{
    const auto [end, other] = std::ranges::mismatch(strokes, before, {}, &Stroke::likeness, &Seen::likeness);
    return static_cast<std::size_t>(end - strokes.begin());
}

QRect Layers::changed(const std::vector<Stroke>& strokes, const QRect& area) const
{
    if (area != area_)
        return area;
    QRectF where;
    for (const Stroke& stroke : strokes)
        if (std::ranges::find(last_, stroke.likeness, &Seen::likeness) == last_.end())
            where |= stroke.bounds;
    for (const Seen& seen : last_)
        if (std::ranges::find(strokes, seen.likeness, &Stroke::likeness) == strokes.end())
            where |= seen.bounds;
    return where.toAlignedRect() & area;
}

Layers::Layer Layers::made(QPainter& p, std::span<const Stroke> strokes, const QRect& area)
{
    Layer layer;
    QRectF bounds;
    for (const Stroke& stroke : strokes) {
        layer.strokes.push_back({ stroke.likeness, stroke.bounds });
        bounds |= stroke.bounds;
    }
    layer.place = bounds.toAlignedRect() & area;
    layer.picture = QPixmap(layer.place.size() * ratio_);
    layer.picture.setDevicePixelRatio(ratio_);
    layer.picture.fill(Qt::transparent);
    if (layer.place.isEmpty())
        return layer;
    QPainter onto(&layer.picture);
    onto.setRenderHints(p.renderHints());
    onto.translate(-layer.place.topLeft());
    for (const Stroke& stroke : strokes)
        stroke.ink(onto);
    inked_ += static_cast<int>(strokes.size());
    return layer;
}

void Layers::paint(QPainter& p, const std::vector<Stroke>& strokes, const QRect& area)
{
    inked_ = 0;
    const qreal ratio = p.device()->devicePixelRatioF();
    if (area != area_ || ratio != ratio_) {
        layers_.clear();
        area_ = area;
        ratio_ = ratio;
    }
    std::vector<Layer> kept;
    const auto lay = [&](Layer layer) {
        if (!layer.place.isEmpty())
            p.drawPixmap(layer.place.topLeft(), layer.picture);
        kept.push_back(std::move(layer));
    };
    const std::span all(strokes);
    for (std::size_t i = 0; i < all.size();) {
        const auto rest = all.subspan(i);
        const auto fits = [rest](std::size_t k) {
            return [here = rest.subspan(k)](
                       const Layer& layer) { return !layer.strokes.empty() && sameStretch(here, layer.strokes) == layer.strokes.size(); };
        };
        if (const auto layer = std::ranges::find_if(layers_, fits(0)); layer != layers_.end()) {
            i += layer->strokes.size();
            lay(std::exchange(*layer, {}));
            continue;
        }
        const auto before = std::ranges::find(last_, rest.front().likeness, &Seen::likeness);
        std::size_t length = sameStretch(rest, std::span(before, last_.end()));
        // A picture there is already is kept, and a new one ends before it.
        for (std::size_t k = 1; k < length; ++k)
            if (std::ranges::any_of(layers_, fits(k)))
                length = k;
        const auto stretch = worthKeeping(rest.first(length));
        if (!stretch.empty()) {
            lay(made(p, stretch, area));
            i += stretch.size();
        } else {
            rest.front().ink(p);
            ++inked_;
            ++i;
        }
    }
    layers_ = std::move(kept);
    last_.clear();
    for (const Stroke& stroke : strokes)
        last_.push_back({ stroke.likeness, stroke.bounds });
}

} // namespace deepstop::app
