#pragma once
/// The map of what goes, as a plot: slot across, rotor diameter up, every place tinted by its level, borders named, and the dot that is
/// dragged or moved by the arrow keys.

#include "design/map.hpp"

#include <QImage>
#include <QWidget>

namespace deepstop::app {

class DesignMapView : public QWidget {
    Q_OBJECT
public:
    explicit DesignMapView(QWidget* parent);

    /// Null while there is none; `why` then stands in its place.
    void setMap(std::shared_ptr<const design::Map> map, std::vector<design::Border> borders, const QString& why, UnitSystem units);
    void setDot(double slot, double rotor);
    /// Where the proposal that it was designed from stands; NaN: nowhere.
    void setFrom(double slot, double rotor);
    [[nodiscard]] QPointF toScreen(double slot, double rotor) const;
    [[nodiscard]] const design::Map* map() const { return map_.get(); }
    /// Names that are written on borders, for whoever looks.
    [[nodiscard]] const QStringList& names() const { return names_; }

signals:
    /// The dot was moved to there.
    void moved(double slot, double rotor);

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    [[nodiscard]] QRectF box() const;
    /// What of the map is shown: whatever may go, with room round it, and the dot.
    void frame();
    void tint();
    void moveTo(QPointF screen);
    void go(double slot, double rotor);
    void paintBorders(QPainter& p);
    void paintAxes(QPainter& p);

    std::shared_ptr<const design::Map> map_;
    QString why_;
    UnitSystem units_ = UnitSystem::Metric;
    double slot_ = 0;
    double rotor_ = 0;
    double fromSlot_ = 0;
    double fromRotor_ = 0;
    double left_ = 0; ///< slots and diameters shown
    double right_ = 1;
    double low_ = 0;
    double high_ = 1;
    QImage tint_;
    bool tintedDark_ = false;
    std::vector<design::Border> borders_;
    mutable QStringList names_;
};

} // namespace deepstop::app
