#pragma once
/// The parts bench: a sheet for each part, the scales, old and new side by side, and the lists of what came and what is still to be read.

#include "stages/stage_page.hpp"

class QPushButton;

namespace deepstop::app {

class AskList;
class CheckList;
class InHand;
class PartFileWindow;

class BenchPage : public StagePage {
    Q_OBJECT
public:
    static constexpr StageId id = "parts-bench";
    /// In the order a kit goes over them.
    enum Place { Rotor, Caliper, Pads, Fittings, Line, Parking, Scales, Comparison, Unpacking, Ask };

    BenchPage(Document& document, QWidget* parent);
    [[nodiscard]] CheckList* checkList() const { return checks_; }
    [[nodiscard]] AskList* askList() const { return asks_; }
    /// What readings are typed from.
    [[nodiscard]] InHand* inHand() const { return inHand_; }
    [[nodiscard]] QPushButton* fromFileButton() const { return fromFile_; }
    [[nodiscard]] PartFileWindow* partFileWindow() const { return partFile_; }

protected:
    [[nodiscard]] QStringList placeNames() const override;
    [[nodiscard]] Sheet sheet(int place) const override;
    [[nodiscard]] bool isDrawn(int place) const override { return place < Unpacking; }
    [[nodiscard]] int placeFor(const Verdict& verdict) const override;
    void refreshRest() override;
    void arrange() override;

private:
    CheckList* checks_;
    AskList* asks_;
    InHand* inHand_;
    QPushButton* fromFile_;
    PartFileWindow* partFile_ = nullptr;
};

} // namespace deepstop::app
