#include "stages/course_chart.hpp"

#include "theme.hpp"

#include "chapters/heat/heat_chapter.hpp"
#include "chapters/stopping/stopping_chapter.hpp"
#include <QChart>
#include <QGraphicsLayout>
#include <QLegend>

#include <algorithm>
#include <cmath>

namespace deepstop::app {

CourseChart::CourseChart(Of of, QWidget* parent)
    : QChartView(parent), of_(of), before_(new QLineSeries), after_(new QLineSeries), mark_(new QLineSeries), across_(new QValueAxis),
      up_(new QValueAxis)
{
    setRenderHint(QPainter::Antialiasing);
    setFrameShape(QFrame::NoFrame);
    setFocusPolicy(Qt::NoFocus);
    setMinimumHeight(140);
    auto* c = chart();
    for (QLineSeries* series : { mark_, after_, before_ }) // the dashes on top, to be seen where both agree
        c->addSeries(series);
    c->addAxis(across_, Qt::AlignBottom);
    c->addAxis(up_, Qt::AlignLeft);
    for (QLineSeries* series : { mark_, before_, after_ }) {
        series->attachAxis(across_);
        series->attachAxis(up_);
    }
    c->setAnimationOptions(QChart::NoAnimation);
    c->legend()->setAlignment(Qt::AlignTop);
    c->legend()->setMarkerShape(QLegend::MarkerShapeFromSeries);
    c->layout()->setContentsMargins(4, 0, 8, 0);
    c->setBackgroundRoundness(0);
    c->setMargins(QMargins(14, 2, 18, 6));
}

void CourseChart::dress(const Study& study)
{
    const Theme& t = theme();
    auto* c = chart();
    c->setBackgroundBrush(t.paper);
    c->setBackgroundPen(Qt::NoPen);
    setBackgroundBrush(t.paper);
    QPen found(t.found, 2.2);
    found.setDashPattern({ 5, 3 });
    before_->setPen(found);
    after_->setPen(QPen(t.proposal, 2.4));
    QPen marked(t.mute, 1);
    marked.setDashPattern({ 2, 3 });
    mark_->setPen(marked);
    c->setTitleFont(reading(13));
    c->setTitleBrush(t.mute);
    const bool two = study.before.setup != study.after.setup;
    before_->setVisible(two);
    before_->setName(QString::fromStdString(study.before.setup->name));
    after_->setName(QString::fromStdString(study.after.setup->name));
    mark_->setName(tr("the speed to stop from"));
    c->legend()->setFont(reading(12));
    c->legend()->setLabelColor(t.ink);
    for (QValueAxis* axis : { across_, up_ }) {
        axis->setLabelsFont(figures(12));
        axis->setTitleFont(reading(12));
        axis->setLabelsColor(t.mute);
        axis->setTitleBrush(t.ink);
        axis->setLinePen(QPen(t.ink, 1));
        axis->setGridLinePen(QPen(t.rule, 0.7));
        axis->setLabelFormat(QStringLiteral("%d"));
    }
}

void CourseChart::setStudy(const Study& study, Axle axle)
{
    dress(study);
    const auto to = [&](double si, const Style& style) { return fromSi(si, style.unit(study.system)); };
    const auto symbol = [&](const Style& style) { return QString::fromUtf8(style.unit(study.system).symbol.data()); };
    const double speed = study.build->car.testSpeed.value.value_or(0);
    double widest = 1;
    double highest = 1;
    const auto plot = [&](QLineSeries* series, const PerAxle<CornerHeat>& heat, const SetupStopping& stopping) {
        QList<QPointF> points;
        if (of_ == Of::Rise)
            for (const auto& [v, rise] : heat.at(axle).riseOverSpeed)
                points << QPointF(to(v, style::speed), to(rise, style::rise));
        else if (stopping.stop)
            for (const auto& moment : stopping.stop->course)
                points << QPointF(to(moment.distance, style::road), to(moment.speed, style::speed));
        for (const QPointF& p : points) {
            widest = std::max(widest, p.x());
            highest = std::max(highest, p.y());
        }
        series->replace(points);
    };
    const Heat& heat = study.of<Heat>();
    const Stopping& stopping = study.of<Stopping>();
    plot(before_, heat.before, stopping.before);
    plot(after_, heat.after, stopping.after);
    if (of_ == Of::Rise) {
        across_->setTitleText(tr("speed that one stop begins at, %1").arg(symbol(style::speed)));
        up_->setTitleText(tr("rise, %1").arg(symbol(style::rise)));
        mark_->replace(QList<QPointF> { { to(speed, style::speed), 0 }, { to(speed, style::speed), highest } });
    } else {
        across_->setTitleText(tr("distance from the brake point, %1").arg(symbol(style::road)));
        up_->setTitleText(tr("speed, %1").arg(symbol(style::speed)));
        mark_->replace(QList<QPointF> { { 0, to(speed, style::speed) }, { widest, to(speed, style::speed) } });
    }
    const bool empty = before_->count() == 0 && after_->count() == 0;
    chart()->setTitle(empty
            ? tr("Nothing to plot yet. %1.")
                  .arg(QString::fromStdString(lacking(study, of_ == Of::Rise ? heat.after.at(axle).stopRise : stopping.after.distance)))
            : QString());
    chart()->legend()->setVisible(!empty);
    across_->setVisible(!empty);
    up_->setVisible(!empty);
    mark_->setVisible(speed > 0 && !empty);
    across_->setRange(0, widest);
    up_->setRange(0, highest);
    across_->applyNiceNumbers();
    up_->applyNiceNumbers();
}

} // namespace deepstop::app
