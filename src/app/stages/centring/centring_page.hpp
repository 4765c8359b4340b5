#pragma once
/// Centring: a place for every corner mocked up and for the next one, then bolts, bracket and halves; the drawer of shims below.

#include "stages/stage_page.hpp"

class QCheckBox;
class QLineEdit;

namespace deepstop::app {

class InHand;

class CentringPage : public StagePage {
    Q_OBJECT
public:
    static constexpr StageId id = "centring";
    CentringPage(Document& document, QWidget* parent);
    /// Of the corner that is shown; of the axle chosen where none is.
    [[nodiscard]] Axle axle() const override;
    /// The drawer of shims, as one line of text.
    [[nodiscard]] QLineEdit* drawer() const { return drawer_; }
    /// Which way a thicker stack moves the caliper.
    [[nodiscard]] QComboBox* direction() const { return direction_; }
    /// Centring errors as large as they are.
    [[nodiscard]] QCheckBox* trueProportion() const { return trueProportion_; }

protected:
    [[nodiscard]] QStringList placeNames() const override;
    [[nodiscard]] Sheet sheet(int place) const override;
    [[nodiscard]] int placeFor(const Verdict& verdict) const override;
    void refreshRest() override;
    void placeClicked(int place) override;
    void arrange() override;

private:
    /// The side of the chosen axle that nobody has mocked up yet, if any.
    [[nodiscard]] std::optional<Side> sideToCome() const;
    /// How many of the places are corners, the one still to be mocked up included.
    [[nodiscard]] int cornerPlaces() const;
    void mockUp(Side side);
    void setDirection(int index);
    void refreshDrawer();
    bool putDrawer();

    QCheckBox* trueProportion_;
    QComboBox* direction_;
    QWidget* drawerStrip_;
    QLineEdit* drawer_;
    QLabel* drawerTrouble_;
    InHand* inHand_;
};

} // namespace deepstop::app
