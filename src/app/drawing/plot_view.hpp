#pragma once
/// A plot by itself in a window: curves between two axes, named above them.

#include "drawing/sheet.hpp"

#include <QWidget>

namespace deepstop::app {

class PlotView : public QWidget {
    Q_OBJECT
public:
    struct Curve {
        QString name;
        QPolygonF points; ///< in the units shown, neither below 0
        Ink ink;
    };
    struct Axis {
        QString title;
        int decimals = 0;
        double least = 1; ///< it reaches as far as this, and as far as the curves
    };

    explicit PlotView(QWidget* parent);
    void setPlot(std::vector<Curve> curves, Axis across, Axis up);
    /// What stands there while there is nothing to plot.
    void setEmptyText(const QString& text) { empty_ = text; }
    [[nodiscard]] const std::vector<Curve>& curves() const { return curves_; }

protected:
    void paintEvent(QPaintEvent*) override;

private:
    [[nodiscard]] Sheet drawn() const;

    std::vector<Curve> curves_;
    Axis across_;
    Axis up_;
    QString empty_;
};

} // namespace deepstop::app
