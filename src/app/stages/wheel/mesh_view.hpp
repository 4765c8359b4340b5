#pragma once
/// A scanned surface to be turned and looked at, with what was found on it. Drawn by the program itself, so that it is seen on every
/// screen.

#include "scan/surface.hpp"
#include "scan/wheel_scan.hpp"

#include <QImage>
#include <QWidget>

#include <array>
#include <memory>
#include <vector>

namespace deepstop::app {

/// Places of a surface, few enough to be drawn while it turns; m, about the middle of it.
struct Cloud {
    struct Place {
        std::array<float, 3> at;
        std::array<float, 3> normal;
    };
    std::vector<Place> places;
    scan::Point middle {}; ///< in the mesh's own place, m
    double size = 0; ///< from the middle to the farthest that counts
};
/// @param unit metres of one in the mesh
[[nodiscard]] Cloud cloudOf(const scan::Mesh& mesh, double unit);
/// The same surface in a file of another unit.
[[nodiscard]] Cloud scaled(Cloud cloud, double by);

class MeshView : public QWidget {
    Q_OBJECT
public:
    explicit MeshView(QWidget* parent);
    void setCloud(std::shared_ptr<const Cloud> cloud);
    /// What was found on it; null: nothing yet.
    void setFound(std::shared_ptr<const scan::WheelScan> found);
    /// Cut open along the axis, so that barrel and spokes are seen in section.
    void setCut(bool cut);
    [[nodiscard]] bool isCut() const { return cut_; }
    /// Waits for places to be clicked, `picked` tells each.
    void setPicking(bool picking);
    [[nodiscard]] const std::vector<scan::Point>& picks() const { return picks_; }
    void clearPicks();
    void takePickBack();
    /// Circles found on it, m in the mesh's own place.
    struct Ring {
        scan::Point centre;
        scan::Point along; ///< unit length, square to it
        double radius = 0;
    };
    void setRings(std::vector<Ring> rings);
    /// Where a place of the mesh is seen.
    [[nodiscard]] QPoint pixelOf(const scan::Point& at) const;
    /// Turned so that this direction, unit length, points to the eye.
    void lookAgainst(const scan::Point& direction);
    /// Looks straight at the inside.
    void lookInside();

signals:
    void picked(); ///< one place more

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent*) override { changed(); }
    void changeEvent(QEvent* event) override;
    [[nodiscard]] QSize sizeHint() const override { return { 520, 520 }; }

private:
    void turn(double aside, double up);
    void changed();
    void render();
    [[nodiscard]] std::array<double, 3> seen(const scan::Point& at) const; ///< pixels across, down, and towards the eye
    void drawFound(QPainter& painter) const;

    std::shared_ptr<const Cloud> cloud_;
    std::shared_ptr<const scan::WheelScan> found_;
    std::array<std::array<double, 3>, 3> view_ {}; ///< rows: right, down, towards the eye
    double zoom_ = 1;
    bool cut_ = false;
    bool picking_ = false;
    std::vector<scan::Point> picks_; ///< in the mesh's own place, m
    std::vector<Ring> rings_;
    QImage image_;
    std::vector<std::uint32_t> hit_; ///< which place each pixel shows, from 1
    QPoint pressed_;
    QPoint last_;
};

} // namespace deepstop::app
