#pragma once
/// A wheel from a scan: the mesh turned and looked at, what was found on it, its profile in the corner's own section, and one button that
/// puts it into the build.

#include "document.hpp"
#include "job.hpp"
#include "scan/into_build.hpp"
#include "solids/mesh_file.hpp"
#include "stages/wheel/mesh_view.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QProgressBar>
#include <QPushButton>

namespace deepstop::app {

class SectionView;

class ScanWindow : public QDialog {
    Q_OBJECT
public:
    ScanWindow(Document& document, QWidget* parent);
    /// @param wheel id of the one that is to be read
    void setWheel(Axle axle, const std::string& wheel);
    /// Reads a file beside the window.
    void open(const QString& path);

    [[nodiscard]] MeshView* mesh() const { return view_; }
    [[nodiscard]] QComboBox* units() const { return units_; }
    [[nodiscard]] QComboBox* knownWhat() const { return what_; }
    [[nodiscard]] QLineEdit* knownLength() const { return known_; }
    [[nodiscard]] QCheckBox* correct() const { return correct_; }
    [[nodiscard]] QCheckBox* keep() const { return keep_; }
    [[nodiscard]] QPushButton* putInButton() const { return putIn_; }
    [[nodiscard]] QPushButton* pickButton() const { return pick_; }
    [[nodiscard]] QString said() const { return said_->text(); }
    [[nodiscard]] std::shared_ptr<const scan::WheelScan> found() const { return found_; }
    /// Waits for what is being worked out.
    void finish()
    {
        reading_.finish();
        finding_.finish();
        keeping_.finish();
    }

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
    [[nodiscard]] double unit() const;
    void askAgain();
    void take(Found found);
    void say();
    void showSection();
    void pick();
    void putIn();
    void putInFrom(const QString& path);
    void working(bool on);
    void choose();

    Document& document_;
    Axle axle_ = Axle::Front;
    std::string wheel_;
    std::shared_ptr<const Loaded> loaded_;
    std::shared_ptr<const scan::WheelScan> found_;
    QString refused_; ///< why a file was not read, or a length not understood
    MeshView* view_;
    SectionView* section_;
    QLabel* name_;
    QComboBox* units_;
    QComboBox* what_;
    QLineEdit* known_;
    QCheckBox* correct_;
    QCheckBox* otherSide_;
    QCheckBox* cut_;
    QCheckBox* keep_;
    QPushButton* pick_;
    QLabel* said_;
    QProgressBar* progress_;
    QPushButton* stop_;
    QPushButton* putIn_;
    Job<std::shared_ptr<const Loaded>> reading_;
    Job<Found> finding_;
    Job<QString> keeping_;
};

} // namespace deepstop::app
