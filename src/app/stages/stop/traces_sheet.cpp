#include "stages/stop/stop_sheets.hpp"

#include "drawing/plot.hpp"
#include "report/log_session.hpp"
#include "theme.hpp"

#include <QObject>

#include <algorithm>
#include <cmath>

namespace deepstop::app {
namespace {

constexpr int across = 4;
constexpr std::size_t shownAtMost = 12;
/// Seconds of driving before a stop that are shown.
constexpr double before = 0.6;

std::vector<std::size_t> loggedOf(const TestSession& session)
{
    std::vector<std::size_t> logged;
    for (std::size_t i = 0; i < session.stops.size(); ++i)
        if (session.stops[i].course.size() > 2)
            logged.push_back(i);
    return logged;
}

/// Speed over time as it was logged, in pieces that end at its gaps.
void addCourse(Plot& plot, const MeasuredStop& stop, UnitSystem system, const Ink& ink)
{
    const auto course = report::courseOf(stop);
    for (const auto moments : proving::unbroken(course)) {
        QPolygonF piece;
        for (const proving::Speed& m : moments)
            piece << QPointF(m.time + before, fromSi(m.speed, style::speed.unit(system)));
        plot.curve(piece, ink);
    }
}

/// The same as it is predicted; a logger's stop begins half of the foot's build-up after the pedal.
void addPrediction(Plot& plot, const stopping::StopSimulation& run, double buildUp, UnitSystem system)
{
    QPolygonF curve { QPointF(0, fromSi(run.course.front().speed, style::speed.unit(system))) };
    for (const auto& m : run.course)
        curve << QPointF(m.time - buildUp / 2 + before, fromSi(m.speed, style::speed.unit(system)));
    plot.curve(curve, { theme().mute, 1.3, Qt::DashLine, {}, Hatch::None, {}, 0 });
}

} // namespace

Sheet tracesSheet(const Study& study)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.title = QObject::tr("Stops as logged");
    sheet.extent = QRectF(QPointF(-34, 0), QPointF(742, 520));
    const TestSession* session = nullptr;
    for (const SetupParts* parts : { &study.after, &study.before })
        for (const TestSession& each : study.build->tests)
            if (parts->setup && each.setup == parts->setup->id && !loggedOf(each).empty() && (!session || session->setup == each.setup))
                session = &each;
    if (!session) {
        sheet.letter({ 357, 200 },
            QObject::tr("No stop was logged with these setups. A tape leaves no trace: take a logger's file on Runs, or listen on Live."),
            13, t.unproven, Qt::AlignCenter, false);
        return sheet;
    }
    const auto logged = loggedOf(*session);
    const std::size_t first = logged.size() > shownAtMost ? logged.size() - shownAtMost : 0;
    const bool after = study.after.setup && session->setup == study.after.setup->id;
    const SetupParts& setup = after ? study.after : study.before;
    const ProvingStudy& p = study.of<ProvingStudy>();
    const Predicted& predicted = after ? p.after : p.before;
    const QColor colour = after && study.before.setup != study.after.setup ? t.proposal : t.found;
    sheet.subtitle = QObject::tr("%1, %2: each stop among the others, %4 over seconds; dashes: predicted, cold%3")
                         .arg(QString::fromStdString(setup.setup->name), QString::fromStdString(session->date),
                             first > 0 ? QObject::tr("; the last %1 of %2").arg(shownAtMost).arg(logged.size()) : QString(),
                             QString::fromUtf8(style::speed.unit(study.system).symbol.data()));
    double longest = 3;
    double fastest = 10;
    for (std::size_t i = first; i < logged.size(); ++i)
        for (const auto& [time, v] : session->stops[logged[i]].course) {
            longest = std::max(longest, time);
            fastest = std::max(fastest, fromSi(v, style::speed.unit(study.system)));
        }
    const double buildUp = setup.hydraulics ? setup.hydraulics->buildUpTime.value.value_or(0) : 0;
    constexpr double high = 92;
    constexpr double words = 40; // over a panel, and its seconds under it
    for (std::size_t i = first; i < logged.size(); ++i) {
        const std::size_t place = i - first;
        const double x = static_cast<double>(place % across) * 186;
        const double y = 46 + static_cast<double>(place / across) * (high + words + 34);
        const MeasuredStop& stop = session->stops[logged[i]];
        Plot plot(sheet, QRectF(x, y, 166, high), { Plot::roundUp(longest), Plot::roundUp(fastest * 1.04) });
        // The same scales throughout: the figures of the speed stand once a row.
        plot.axes({}, place % across == 0 ? QStringLiteral(" ") : QString(), 0, 0);
        if (place % across != 0)
            plot.rules();
        for (std::size_t k = first; k < logged.size(); ++k)
            if (k != i)
                addCourse(plot, session->stops[logged[k]], study.system, { t.rule, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        if (predicted.coldRun && predicted.coldRun->course.size() > 1)
            addPrediction(plot, *predicted.coldRun, buildUp, study.system);
        const bool counts = stop.leftOut.empty();
        addCourse(plot, stop, study.system, { counts ? colour : t.bad, 2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        const auto found = proving::stopOf(report::courseOf(stop));
        const auto way = stop.way == Way::Out ? QObject::tr(", out") : stop.way == Way::Back ? QObject::tr(", back") : QString();
        sheet.letter({ x, y - 20 },
            QObject::tr("%1%2: %3")
                .arg(logged[i] + 1)
                .arg(way,
                    stop.distance.value ? QString::fromStdString(print(*stop.distance.value, style::road, study.system))
                                        : QObject::tr("no distance")),
            14, counts ? t.ink : t.bad, Qt::AlignLeft | Qt::AlignBottom);
        const auto decelerated = [&](double a) { return QString::fromStdString(print(a, style::deceleration, study.system)); };
        const QString below = !counts ? QString::fromStdString(stop.leftOut)
            : found && std::isfinite(found->mfdd)
            ? QObject::tr("%1, peak %2, foot %3 s").arg(decelerated(found->mfdd), decelerated(found->peak)).arg(found->buildUp, 0, 'f', 1)
            : QString();
        sheet.letter({ x, y - 5 }, below.left(34), 12, counts ? t.mute : t.bad, Qt::AlignLeft | Qt::AlignBottom, false);
    }
    return sheet;
}

} // namespace deepstop::app
