#pragma once
/// The wheel room: section, view from outboard, the wheel and where to measure it, studs, what lies behind the rotor, cures, what is
/// wanted.

#include "stages/stage_page.hpp"

namespace deepstop::app {

class CureBoard;
class LibraryStore;
class ScanWindow;

class WheelPage : public StagePage {
    Q_OBJECT
public:
    static constexpr StageId id = "wheel-clearance";
    /// In the order they are worked through.
    enum Place { Section, Outboard, Wheel, Studs, Stack, Behind, Cures, Wanted, Spun };

    WheelPage(Document& document, LibraryStore& library, QWidget* parent);
    [[nodiscard]] CureBoard* cureBoard() const { return cures_; }
    /// The wheel on this axle, of the build's candidates.
    [[nodiscard]] QComboBox* wheel() const { return wheel_; }
    [[nodiscard]] QPushButton* scanButton() const { return scan_; }
    /// Null until it was asked for.
    [[nodiscard]] ScanWindow* scanWindow() const { return scanWindow_; }

protected:
    [[nodiscard]] QStringList placeNames() const override;
    [[nodiscard]] Sheet sheet(int place) const override;
    [[nodiscard]] bool isDrawn(int place) const override { return place != Cures; }
    [[nodiscard]] int placeFor(const Verdict& verdict) const override;
    void refreshRest() override;
    void chosenInView(const std::string& id) override;
    void arrange() override;

private:
    void putOn(int index);
    /// A station still to be taken makes room for its reading and waits for it.
    void takeStation(std::size_t index);

    void scan();

    CureBoard* cures_;
    QComboBox* wheel_;
    QPushButton* scan_;
    ScanWindow* scanWindow_ = nullptr;
};

} // namespace deepstop::app
