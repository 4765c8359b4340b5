#pragma once
/// A caliper, a rotor or a knuckle from a scan or a solid: looked at and turned, places picked on it where its own faces do not tell, what
/// was found, and one button that puts it into the build.

#include "document.hpp"
#include "job.hpp"
#include "scan/caliper_scan.hpp"
#include "scan/knuckle_scan.hpp"
#include "solids/mesh_file.hpp"
#include "solids/step_parts.hpp"
#include "stages/wheel/mesh_view.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QProgressBar>
#include <QPushButton>

#include <variant>

class QFormLayout;

namespace deepstop::app {

class SectionView;

class PartFileWindow : public QDialog {
    Q_OBJECT
public:
    enum Part { CaliperPart, RotorPart, KnucklePart };
    PartFileWindow(Document& document, QWidget* parent);
    /// @param axle whose part it is
    void setPart(Axle axle, Part part);
    /// Reads a file beside the window.
    void open(const QString& path);

    [[nodiscard]] MeshView* mesh() const { return view_; }
    [[nodiscard]] QComboBox* part() const { return part_; }
    [[nodiscard]] QComboBox* units() const { return units_; }
    [[nodiscard]] QLineEdit* rotorDiameter() const { return rotor_; }
    [[nodiscard]] QLineEdit* drop() const { return drop_; }
    [[nodiscard]] QLineEdit* pilot() const { return pilot_; }
    [[nodiscard]] QPushButton* backButton() const { return back_; }
    [[nodiscard]] QPushButton* keepOutButton() const { return addKeepOut_; }
    [[nodiscard]] QPushButton* putInButton() const { return putIn_; }
    [[nodiscard]] QCheckBox* keep() const { return keep_; }
    [[nodiscard]] QString said() const { return said_->text(); }
    [[nodiscard]] QString next() const { return next_->text(); }
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
        std::optional<solids::ReadSolid> solid; ///< of a STEP file
        QString path;
        scan::FileUnit guessed = scan::FileUnit::Millimetre;
        std::shared_ptr<const Cloud> cloud;
    };
    struct Found {
        std::variant<std::monostate, scan::CaliperScan, solids::ReadRotor, scan::KnuckleScan> part;
        std::vector<MeshView::Ring> rings;
        std::shared_ptr<const Cloud> cloud;
    };
    /// Places that are picked one after another.
    struct Step {
        QString words;
        int places = 3;
    };
    [[nodiscard]] Part partNow() const { return static_cast<Part>(part_->currentIndex()); }
    [[nodiscard]] double unit() const;
    [[nodiscard]] std::vector<Step> steps() const;
    [[nodiscard]] std::size_t placesWanted() const;
    /// Asks for the next place; works it out when all are there.
    void goOn();
    void ask();
    [[nodiscard]] std::optional<scan::CaliperQuestion> caliperAsked();
    [[nodiscard]] std::optional<scan::KnuckleQuestion> knuckleAsked();
    [[nodiscard]] std::optional<double> lengthIn(const QLineEdit* edit);
    void arrange();
    void say();
    void showSection();
    /// What the file shows, as an edit of the build.
    [[nodiscard]] Edit edit(const scan::ScanFile& file) const;
    void putIn();
    void putInFrom(const QString& path);
    void working(bool on);
    void refuse(const QString& why);
    void choose();
    void forgetPicks();

    Document& document_;
    Axle axle_ = Axle::Front;
    std::shared_ptr<const Loaded> loaded_;
    std::optional<Found> found_;
    QString refused_; ///< why a file was not read, or a length not understood
    std::vector<KeepOutKind> keepOuts_; ///< of the places picked after the lugs
    MeshView* view_;
    SectionView* section_;
    QFormLayout* form_;
    QLabel* name_;
    QComboBox* part_;
    QComboBox* units_;
    QLineEdit* rotor_;
    QLineEdit* drop_;
    QLineEdit* pilot_;
    QComboBox* keepOutKind_;
    QPushButton* addKeepOut_;
    QLabel* next_;
    QPushButton* back_;
    QLabel* said_;
    QProgressBar* progress_;
    QPushButton* stop_;
    QCheckBox* keep_;
    QPushButton* putIn_;
    Job<std::shared_ptr<const Loaded>> reading_;
    Job<Found> finding_;
    Job<QString> keeping_;
};

} // namespace deepstop::app
