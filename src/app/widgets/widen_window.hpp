#pragma once
/// A split caliper for a thicker rotor: by how much, all that goes with it, and one button that does it to the build.

#include "document.hpp"
#include "hardware/hardware.hpp"

#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

namespace deepstop::app {

class WidenWindow : public QDialog {
    Q_OBJECT
public:
    WidenWindow(Document& document, QWidget* parent);
    void setAxle(Axle axle);
    void refresh();
    [[nodiscard]] QLineEdit* growth() const { return growth_; }
    [[nodiscard]] QPushButton* button() const { return do_; }
    [[nodiscard]] QString said() const { return lines_->text(); }

private:
    Document& document_;
    Axle axle_ = Axle::Front;
    WideningStudy study_;
    Stamp of_; ///< that it was worked out for
    std::shared_ptr<const Build> base_;
    QLineEdit* growth_;
    QLabel* lines_;
    QPushButton* do_;
};

} // namespace deepstop::app
