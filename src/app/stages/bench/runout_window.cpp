#include "stages/bench/runout_window.hpp"

#include "document.hpp"
#include "stages/sheets.hpp"
#include "theme.hpp"

#include <QChart>
#include <QChartView>
#include <QDate>
#include <QHBoxLayout>
#include <QLineSeries>
#include <QVBoxLayout>
#include <QValueAxis>

#include <algorithm>

namespace deepstop::app {
namespace {

constexpr std::size_t mostReadings = 20000;

} // namespace

RunoutWindow::RunoutWindow(Document& document, Instrument& instrument, QWidget* parent)
    : QDialog(parent), document_(document), instrument_(instrument), read_(new QLineSeries(this)), wobble_(new QLineSeries(this)),
      across_(new QValueAxis(this)), up_(new QValueAxis(this)), said_(new QLabel(this)), turn_(new QPushButton(tr("Begin the turn"), this)),
      runout_(new QPushButton(tr("Put in as runout"), this))
{
    setWindowTitle(tr("One slow turn under the dial gauge"));
    resize(640, 460);
    auto* chart = new QChart;
    chart->legend()->setFont(reading(12));
    chart->legend()->setLabelColor(theme().ink);
    chart->setBackgroundBrush(theme().paper);
    chart->setMargins({ 4, 4, 4, 4 });
    read_->setName(tr("as read"));
    wobble_->setName(tr("first order alone"));
    read_->setPen(QPen(theme().proposal, 2));
    wobble_->setPen(QPen(theme().found, 1.6, Qt::DashLine));
    for (QLineSeries* series : { read_, wobble_ })
        chart->addSeries(series);
    chart->addAxis(across_, Qt::AlignBottom);
    chart->addAxis(up_, Qt::AlignLeft);
    for (QLineSeries* series : { read_, wobble_ }) {
        series->attachAxis(across_);
        series->attachAxis(up_);
    }
    for (QValueAxis* axis : { across_, up_ }) {
        axis->setLabelsFont(figures(11));
        axis->setTitleFont(reading(12));
        axis->setLabelsColor(theme().mute);
        axis->setTitleBrush(theme().mute);
        axis->setGridLineColor(theme().rule);
    }
    across_->setTitleText(tr("turned, degrees"));
    across_->setRange(0, 360);
    across_->setTickCount(5);
    across_->setLabelFormat(QStringLiteral("%.0f"));
    auto* view = new QChartView(chart, this);
    view->setRenderHint(QPainter::Antialiasing);
    said_->setWordWrap(true);
    said_->setText(tr("All nuts tight, gauge square to the face 5 mm inside the edge. Begin, turn the rotor once at a steady pace, end "
                      "where you began."));
    turn_->setDefault(true);
    auto* row = new QHBoxLayout;
    row->addWidget(turn_);
    row->addStretch();
    row->addWidget(runout_);
    auto* column = new QVBoxLayout(this);
    column->addWidget(view, 1);
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
    const Unit& unit = style::fine.unit(document_.units());
    read_->append(static_cast<double>(trace_.size()), fromSi(indication.value, unit));
    across_->setRange(0, std::max(12.0, static_cast<double>(trace_.size())));
    const auto [low, high] = std::ranges::minmax(trace_);
    up_->setRange(fromSi(low, unit) - 0.01, fromSi(high, unit) + 0.01);
}

void RunoutWindow::show()
{
    const Unit& unit = style::fine.unit(document_.units());
    // The gauge sends at its own steady pace; when its lines happen to arrive says nothing.
    result_ = runout::analyse(trace_);
    read_->clear();
    wobble_->clear();
    if (!result_) {
        said_->setText(tr("%1 readings are too few for one turn: turn more slowly, at least 12 are wanted.").arg(trace_.size()));
        return;
    }
    for (std::size_t i = 0; i <= trace_.size(); ++i) {
        const double part = static_cast<double>(i) / static_cast<double>(trace_.size());
        read_->append(360 * part, fromSi(trace_[i % trace_.size()], unit));
        wobble_->append(360 * part, fromSi(runout::wobbleAt(trace_, part), unit));
    }
    across_->setRange(0, 360);
    up_->setTitleText(QString::fromUtf8(unit.symbol.data()));
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

void RunoutWindow::put(const char* key, const QString& what)
{
    if (!result_ || !document_.study().after.at(axle_).corner)
        return;
    Reading reading { result_->total, {}, Known::Measured, "dial gauge", QDate::currentDate().toString(Qt::ISODate).toStdString() };
    document_.setReading(cornerPointer(document_.study(), document_.study().after, axle_) + key, reading);
    said_->setText(tr("Put in as %1 of %2.").arg(what, QString::fromStdString(document_.study().after.setup->name)));
}

} // namespace deepstop::app
