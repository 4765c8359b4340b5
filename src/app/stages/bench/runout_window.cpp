#include "stages/bench/runout_window.hpp"

#include "drawing/plot_view.hpp"

#include "document.hpp"
#include "stages/sheets.hpp"
#include "theme.hpp"

#include <QDate>
#include <QHBoxLayout>
#include <QVBoxLayout>

#include <algorithm>

namespace deepstop::app {
namespace {

constexpr std::size_t mostReadings = 20000;

} // namespace

RunoutWindow::RunoutWindow(Document& document, Instrument& instrument, QWidget* parent)
    : QDialog(parent), document_(document), instrument_(instrument), plot_(new PlotView(this)), said_(new QLabel(this)),
      turn_(new QPushButton(tr("Begin the turn"), this)), runout_(new QPushButton(tr("Put in as runout"), this))
{
    setWindowTitle(tr("One slow turn under the dial gauge"));
    resize(640, 460);
    plot_->setEmptyText(tr("Nothing read yet."));
    said_->setWordWrap(true);
    said_->setText(tr("All nuts tight, gauge square to the face 5 mm inside the edge. Begin, turn the rotor once at a steady pace, end "
                      "where you began."));
    turn_->setDefault(true);
    auto* row = new QHBoxLayout;
    row->addWidget(turn_);
    row->addStretch();
    row->addWidget(runout_);
    auto* column = new QVBoxLayout(this);
    column->addWidget(plot_, 1);
    column->addWidget(said_);
    column->addLayout(row);
    connect(turn_, &QPushButton::clicked, this, &RunoutWindow::startOrEnd);
    // One face under one gauge says nothing of the thickness: it wobbles with the hub.
    connect(runout_, &QPushButton::clicked, this, [this] {
        put(side_ == Side::Left ? "/left/runout_mm" : "/right/runout_mm",
            side_ == Side::Left ? tr("the left rotor's runout") : tr("the right rotor's runout"));
    });
    connect(&instrument_, &Instrument::indicated, this, &RunoutWindow::add);
    runout_->setEnabled(false);
}

void RunoutWindow::startOrEnd()
{
    turning_ = !turning_;
    if (turning_) {
        trace_.clear();
        result_.reset();
        turn_->setText(tr("Reset"));
        said_->setText(instrument_.state() == Instrument::State::Absent ? tr("No gauge is connected: Tools ▸ Connect an instrument.")
                                                                        : tr("Turning …"));
    } else {
        turn_->setText(tr("Begin another turn"));
        show();
    }
    runout_->setEnabled(result_.has_value());
}

void RunoutWindow::add(const instruments::Indication& indication)
{
    if (!turning_ || indication.dimension != Dimension::Length || trace_.size() >= mostReadings)
        return;
    trace_.push_back(indication.value);
    draw();
}

void RunoutWindow::show()
{
    // The gauge sends at its own steady pace; when its lines happen to arrive says nothing.
    result_ = runout::analyse(trace_);
    draw();
    if (!result_) {
        said_->setText(tr("%1 readings are too few for one turn: turn more slowly, at least 12 are wanted.").arg(trace_.size()));
        return;
    }
    const auto say = [&](double length) { return QString::fromStdString(print(length, style::thousandth, document_.units())); };
    const Hub& hub = hubOf(document_.build(), axle_);
    auto text = tr("Runout %1 in all: first order %2, highest at %3 of the turn; residual %4.")
                    .arg(say(result_->total), say(result_->wobble),
                        QString::fromStdString(print(result_->highSpot, style::angle, document_.units())), say(result_->rest));
    if (result_->wobble > result_->rest)
        text += QStringLiteral(" ")
            + tr("Mostly first order: clean the hub; if it stays, put the rotor on %1 further round, so that its high spot meets the hub's "
                 "low "
                 "one.")
                  .arg(hub.studCount > 0 ? tr("%1 of %2 studs").arg(runout::studsToReindex(hub.studCount)).arg(hub.studCount)
                                         : tr("half the studs"));
    else
        text += QStringLiteral(" ") + tr("Mostly residual: another place on the studs will not cure it.");
    said_->setText(text);
}

void RunoutWindow::draw()
{
    const Unit& unit = style::fine.unit(document_.units());
    const double low = trace_.empty() ? 0 : std::ranges::min(trace_);
    const auto above = [&](double value) { return fromSi(value - low, unit); };
    QPolygonF read;
    QPolygonF wobble;
    // Once round: the end of a whole turn is its beginning.
    const std::size_t count = trace_.size();
    for (std::size_t i = 0; i < count + (result_ ? 1 : 0); ++i) {
        const double part = static_cast<double>(i) / static_cast<double>(count);
        const double across = result_ ? 360 * part : static_cast<double>(i + 1);
        read << QPointF(across, above(trace_[i % count]));
        if (result_)
            wobble << QPointF(across, std::max(0.0, above(runout::wobbleAt(trace_, part))));
    }
    const Theme& t = theme();
    plot_->setPlot({ { tr("readings as taken"), read, { t.proposal, 2, Qt::SolidLine, {}, Hatch::None, {}, 0 } },
                       { tr("first order alone"), wobble, { t.found, 1.6, Qt::DashLine, {}, Hatch::None, {}, 0 } } },
        { result_ ? tr("turned, degrees") : tr("readings"), 0, 12 },
        { tr("above the lowest, %1").arg(QString::fromUtf8(unit.symbol.data())), style::thousandth.decimals(document_.units()),
            fromSi(0.02e-3, unit) });
}

void RunoutWindow::put(const char* key, const QString& what)
{
    if (!result_ || !document_.study().after.at(axle_).corner)
        return;
    Reading reading { result_->total, {}, Known::Measured, "dial gauge", QDate::currentDate().toString(Qt::ISODate).toStdString() };
    document_.setReading(cornerPointer(document_.study(), document_.study().after, axle_) + key, reading);
    said_->setText(tr("Put in as %1 of %2.").arg(what, QString::fromStdString(document_.study().after.setup->name)));
}

} // namespace deepstop::app
