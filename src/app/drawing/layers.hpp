#pragma once
/// What stays the same from one painting to the next is not inked again.

#include <QHashFunctions>
#include <QPainterPath>
#include <QPixmap>
#include <QRectF>

#include <functional>
#include <span>
#include <vector>

class QPainter;

namespace deepstop::app {

struct Ink;

/// Gathers whatever decides how something looks into one number; two that differ in any of it practically never agree in that.
class Likeness {
public:
    template <class T>
    Likeness& operator<<(const T& part)
    {
        seed_ = qHashMulti(seed_, part);
        return *this;
    }
    Likeness& operator<<(QPointF p) { return *this << p.x() << p.y(); }
    Likeness& operator<<(const QRectF& r) { return *this << r.topLeft() << r.bottomRight(); }
    Likeness& operator<<(const QRect& r) { return *this << QRectF(r); }
    Likeness& operator<<(const QColor& c) { return *this << (c.isValid() ? quint64(c.rgba64()) : quint64(1)); }
    Likeness& operator<<(const QPainterPath& path);
    Likeness& operator<<(const Ink& ink);
    [[nodiscard]] std::size_t number() const { return seed_; }

private:
    std::size_t seed_ = 0;
};

/// One thing on a drawing, in screen pixels.
struct Stroke {
    std::size_t likeness;
    QRectF bounds; ///< nothing of it lies outside
    int effort; ///< about how dear it is to ink; a short line is 1
    std::function<void(QPainter&)> ink;
};

/// Inks strokes in their order. Stretches of them that were there at the last painting too are kept as pictures and only laid on.
class Layers {
public:
    /// @param area the widget's, in its own pixels
    void paint(QPainter& p, const std::vector<Stroke>& strokes, const QRect& area);
    /// Where these strokes look different from those of the last painting; the whole area where nothing was painted yet.
    [[nodiscard]] QRect changed(const std::vector<Stroke>& strokes, const QRect& area) const;
    /// How many strokes the last painting had to ink.
    [[nodiscard]] int inked() const { return inked_; }

private:
    /// What is remembered of a stroke that was painted.
    struct Seen {
        std::size_t likeness;
        QRectF bounds;
    };
    struct Layer {
        std::vector<Seen> strokes;
        QRect place;
        QPixmap picture;
    };
    [[nodiscard]] static std::size_t sameStretch(std::span<const Stroke> strokes, std::span<const Seen> before);
    [[nodiscard]] Layer made(QPainter& p, std::span<const Stroke> strokes, const QRect& area);

    std::vector<Layer> layers_;
    std::vector<Seen> last_;
    QRect area_;
    qreal ratio_ = 0;
    int inked_ = 0;
};

} // namespace deepstop::app
