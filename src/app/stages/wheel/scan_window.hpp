#pragma once
/// A wheel from a scan: the mesh turned and looked at, what was found on it, its profile in the corner's own section, and one button that
/// puts it into the build.

#include "scan/into_build.hpp"
#include "stages/wheel/file_window.hpp"

#include <QLineEdit>

namespace deepstop::app {

class ScanWindow : public FileWindow {
    Q_OBJECT
public:
    ScanWindow(Document& document, QWidget* parent);
    /// @param wheel id of the one that is to be read
    void setWheel(Axle axle, const std::string& wheel);

    [[nodiscard]] QComboBox* knownWhat() const { return what_; }
    [[nodiscard]] QLineEdit* knownLength() const { return known_; }
    [[nodiscard]] QCheckBox* correct() const { return correct_; }
    [[nodiscard]] QPushButton* pickButton() const { return pick_; }
    [[nodiscard]] std::shared_ptr<const scan::WheelScan> found() const { return found_; }

protected:
    [[nodiscard]] bool isWhole() const override { return found_ && found_->lacks.empty() && (!found_->scale || found_->scale->agrees()); }
    void say() override;
    void forgetFound() override
    {
        found_.reset();
        view_->setFound(nullptr);
    }
    void cancelFinding() override { finding_.cancel(); }
    void finishFinding() override { finding_.finish(); }
    void fileRead() override { askAgain(); }
    void putInFrom(const QString& path) override;

private:
    void askAgain();
    void take(std::shared_ptr<const scan::WheelScan> found);
    void showSection();
    void pick();

    Axle axle_ = Axle::Front;
    std::string wheel_;
    std::shared_ptr<const scan::WheelScan> found_;
    QComboBox* what_;
    QLineEdit* known_;
    QCheckBox* correct_;
    QCheckBox* otherSide_;
    QCheckBox* cut_;
    QPushButton* pick_;
    Job<std::shared_ptr<const scan::WheelScan>> finding_;
};

} // namespace deepstop::app
