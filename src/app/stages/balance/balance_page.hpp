#pragma once
/// Balance: from the foot to the wheels, which axle gives up first, adhesion, the pedal, loads, what is wanted.

#include "stages/stage_page.hpp"

namespace deepstop::app {

class BalancePage : public StagePage {
    Q_OBJECT
public:
    static constexpr StageId id = "balance";
    /// In the order they are worked through.
    enum Place { Foot, Split, Adhesion, Pedal, Loads, Wanted };

    BalancePage(Document& document, QWidget* parent);
    /// Which load is shown.
    [[nodiscard]] QComboBox* load() const { return load_; }

protected:
    [[nodiscard]] QStringList placeNames() const override;
    [[nodiscard]] Sheet sheet(int place) const override;
    [[nodiscard]] int placeFor(const Verdict& verdict) const override;
    void refreshRest() override;
    void arrange() override;

private:
    [[nodiscard]] std::size_t shownLoad() const;

    QComboBox* load_;
};

} // namespace deepstop::app
