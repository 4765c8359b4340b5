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
    void open(const QString& path) override;

    [[nodiscard]] QComboBox* knownWhat() const { return what_; }
    [[nodiscard]] QLineEdit* knownLength() const { return known_; }
    [[nodiscard]] QCheckBox* correct() const { return correct_; }
    [[nodiscard]] QPushButton* pickButton() const { return pick_; }
    [[nodiscard]] std::shared_ptr<const scan::WheelScan> found() const { return found_; }
    /// Waits for what is being worked out.
    void finish()
    {
        reading_.finish();
        finding_.finish();
        keeping_.finish();
    }

protected:
    [[nodiscard]] bool isWhole() const override { return found_ && found_->lacks.empty() && (!found_->scale || found_->scale->agrees()); }
    void say() override;
    void forgetFound() override { }
    void cancelFinding() override
    {
        reading_.cancel();
        finding_.cancel();
    }
    [[nodiscard]] QString path() const override { return loaded_ && found_ ? loaded_->path : QString(); }
    void putInFrom(const QString& path) override;

private:
    struct Loaded {
        solids::LoadedMesh file;
        QString path;
        scan::FileUnit guessed;
        std::shared_ptr<const Cloud> cloud;
    };
    struct Found {
        std::shared_ptr<const scan::WheelScan> scan;
        std::shared_ptr<const Cloud> cloud;
    };
    void askAgain();
    void take(Found found);
    void showSection();
    void pick();

    Axle axle_ = Axle::Front;
    std::string wheel_;
    std::shared_ptr<const Loaded> loaded_;
    std::shared_ptr<const scan::WheelScan> found_;
    QComboBox* what_;
    QLineEdit* known_;
    QCheckBox* correct_;
    QCheckBox* otherSide_;
    QCheckBox* cut_;
    QPushButton* pick_;
    Job<std::shared_ptr<const Loaded>> reading_;
    Job<Found> finding_;
};

} // namespace deepstop::app
