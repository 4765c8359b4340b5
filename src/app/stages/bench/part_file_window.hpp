#pragma once
/// A caliper, a rotor or a knuckle from a scan or a solid: looked at and turned, places picked on it where its own faces do not tell, what
/// was found, and one button that puts it into the build.

#include "scan/caliper_scan.hpp"
#include "scan/knuckle_scan.hpp"
#include "solids/step_parts.hpp"
#include "stages/wheel/file_window.hpp"

#include <QLineEdit>

#include <variant>

namespace deepstop::app {

class PartFileWindow : public FileWindow {
    Q_OBJECT
public:
    enum Part { CaliperPart, RotorPart, KnucklePart };
    PartFileWindow(Document& document, QWidget* parent);
    /// @param axle whose part it is
    void setPart(Axle axle, Part part);

    [[nodiscard]] QComboBox* part() const { return part_; }
    [[nodiscard]] QLineEdit* rotorDiameter() const { return rotor_; }
    [[nodiscard]] QLineEdit* drop() const { return drop_; }
    [[nodiscard]] QLineEdit* pilot() const { return pilot_; }
    [[nodiscard]] QPushButton* backButton() const { return back_; }
    [[nodiscard]] QPushButton* keepOutButton() const { return addKeepOut_; }
    [[nodiscard]] QString next() const { return next_->text(); }

protected:
    [[nodiscard]] bool isWhole() const override;
    void say() override;
    void forgetFound() override { found_.reset(); }
    void cancelFinding() override { finding_.cancel(); }
    void finishFinding() override { finding_.finish(); }
    void fileRead() override
    {
        forgetPicks();
        goOn();
    }
    void putInFrom(const QString& path) override;

private:
    struct Found {
        std::variant<std::monostate, scan::CaliperScan, solids::ReadRotor, scan::KnuckleScan> part;
        std::vector<MeshView::Ring> rings;
    };
    /// Places that are picked one after another.
    struct Step {
        QString words;
        int places = 3;
    };
    [[nodiscard]] Part partNow() const { return static_cast<Part>(part_->currentIndex()); }
    [[nodiscard]] std::vector<Step> steps() const;
    [[nodiscard]] std::size_t placesWanted() const;
    /// Asks for the next place; works it out when all are there.
    void goOn();
    void ask();
    [[nodiscard]] std::optional<scan::CaliperQuestion> caliperAsked();
    [[nodiscard]] std::optional<scan::KnuckleQuestion> knuckleAsked();
    [[nodiscard]] std::optional<double> lengthIn(const QLineEdit* edit);
    void arrange();
    void showSection();
    /// What the file shows, as an edit of the build.
    [[nodiscard]] Edit edit(const scan::ScanFile& file) const;
    void forgetPicks();

    Axle axle_ = Axle::Front;
    std::optional<Found> found_;
    std::vector<KeepOutKind> keepOuts_; ///< of the places picked after the lugs
    QComboBox* part_;
    QLineEdit* rotor_;
    QLineEdit* drop_;
    QLineEdit* pilot_;
    QComboBox* keepOutKind_;
    QPushButton* addKeepOut_;
    QLabel* next_;
    QPushButton* back_;
    Job<Found> finding_;
};

} // namespace deepstop::app
