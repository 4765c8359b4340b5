#pragma once
/// A slow turn of the rotor under the dial gauge: the trace, its wobble and the rest, and where they go.

#include "instruments/instrument.hpp"
#include "runout/runout.hpp"

#include <QDialog>
#include <QLabel>
#include <QPushButton>

namespace deepstop::app {

class Document;
class PlotView;

class RunoutWindow : public QDialog {
    Q_OBJECT
public:
    RunoutWindow(Document& document, Instrument& instrument, QWidget* parent);
    void setCorner(Axle axle, Side side)
    {
        axle_ = axle;
        side_ = side;
    }

    [[nodiscard]] QPushButton* turnButton() const { return turn_; }
    [[nodiscard]] QPushButton* runoutButton() const { return runout_; }
    [[nodiscard]] QString said() const { return said_->text(); }
    [[nodiscard]] const std::optional<runout::Turn>& turn() const { return result_; }
    [[nodiscard]] std::size_t readings() const { return trace_.size(); }

private:
    void startOrEnd();
    void add(const instruments::Indication& indication);
    void show();
    void draw();
    void put(const char* key, const QString& what);

    Document& document_;
    Instrument& instrument_;
    Axle axle_ = Axle::Front;
    Side side_ = Side::Left;
    bool turning_ = false;
    std::vector<double> trace_;
    std::optional<runout::Turn> result_;
    PlotView* plot_;
    QLabel* said_;
    QPushButton* turn_;
    QPushButton* runout_;
};

} // namespace deepstop::app
