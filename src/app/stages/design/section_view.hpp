#pragma once
/// The corner at the dot of the map, in section; it follows while the dot is dragged.

#include "design/kit.hpp"

#include <QWidget>

namespace deepstop::app {

class SectionView : public QWidget {
    Q_OBJECT
public:
    explicit SectionView(QWidget* parent);
    /// The corner of a basis with that kit on, in the first of its wheels.
    void setKit(const design::Maker& maker, const design::Proposal& proposal);
    void clear();

protected:
    void paintEvent(QPaintEvent*) override;

private:
    Study study_;
    Axle axle_ = Axle::Front;
    design::Kit kit_;
};

} // namespace deepstop::app
