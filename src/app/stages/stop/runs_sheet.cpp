#include "stages/stop/stop_sheets.hpp"

#include "chapters/proving/checks.hpp"
#include "drawing/plot.hpp"
#include "drawing/shapes.hpp"
#include "figures/figures.hpp"
#include "theme.hpp"

#include <QObject>

#include <algorithm>
#include <cmath>

namespace deepstop::app {
namespace {

constexpr std::size_t rowsShown = 5;

/// The rows a session's stops are typed into, the last ones and an empty one, and what holds for all of them.
void addRows(Sheet& sheet, const Study& study, std::optional<std::size_t> index, double y)
{
    const Theme& t = theme();
    if (!index) {
        sheet.letter({ 0, y + 20 },
            QObject::tr("No session has been driven with this setup yet: begin one below, or take a logger's file."), 13, t.unproven,
            Qt::AlignLeft | Qt::AlignVCenter, false);
        return;
    }
    const TestSession& session = study.build->tests[*index];
    const std::string at = "/tests/" + std::to_string(*index);
    double x = 0;
    const auto fact = [&](const char* key, const QString& what, double wide) {
        // Boxes are as many pixels wide whatever the sheet's scale: room for the smallest window.
        sheet.fact(at + key, what, { x, y }, wide);
        x += wide * 1.28 + 8;
    };
    const auto value = [&](const std::string& pointer, const QString& what, double wide, bool blank = false, const QString& none = {}) {
        sheet.letter({ x, y + 7 }, what, 11, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.dimensions.push_back({ pointer, {}, { x, y + 27 }, { x, y + 27 }, Run::Table, 0, true, {}, 0.5, blank, none });
        x += wide;
    };
    fact("/date", QObject::tr("date"), 92);
    fact("/place", QObject::tr("place"), 170);
    fact("/series", QObject::tr("stops are driven"), 116);
    if (session.series == Series::Fade)
        fact("/duty", QObject::tr("as the duty"), 150);
    y += 44;
    x = 0;
    fact("/surface", QObject::tr("road"), 92);
    fact("/measured_from", QObject::tr("measured from"), 206);
    value(at + "/slope_percent", QObject::tr("slope, out"), 96, true, QObject::tr("not read"));
    value(at + "/wind_kmh", QObject::tr("wind, out"), 96, true, QObject::tr("not read"));
    y += 52;
    const std::size_t first = session.stops.size() > rowsShown ? session.stops.size() - rowsShown : 0;
    for (std::size_t k = first; k <= session.stops.size(); ++k) {
        const bool blank = k == session.stops.size();
        const std::string stop = at + "/stops/" + (blank ? std::string("-") : std::to_string(k));
        x = 0;
        sheet.letter({ x, y + 27 }, blank ? QStringLiteral("+") : QString::number(k + 1), 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter);
        x = 22;
        value(stop + "/speed_kmh", k == first ? QObject::tr("speed read") : QString(), 112, blank, QObject::tr("speed"));
        if (!blank) {
            value(stop + "/distance_m", k == first ? QObject::tr("distance") : QString(), 104);
            sheet.fact(stop + "/way", k == first ? QObject::tr("way") : QString(), { x, y + (k == first ? 0 : 13) }, 62);
            x += 90;
            value(stop + "/ring_degC", k == first ? QObject::tr("rotor") : QString(), 84, true, QStringLiteral("–"));
            value(stop + "/pedal_n", k == first ? QObject::tr("pedal force") : QString(), 74, true, QStringLiteral("–"));
            sheet.fact(stop + "/note", k == first ? QObject::tr("observations") : QString(), { x, y + (k == first ? 0 : 13) }, 100);
            x += 138;
            sheet.fact(stop + "/left_out", k == first ? QObject::tr("left out because") : QString(), { x, y + (k == first ? 0 : 13) }, 144);
        }
        y += k == first ? 36 : 30;
    }
}

constexpr int namesWide = 178; ///< beside the plot

/// What one setup's runs say, on a line of its own.
void addStrip(Sheet& sheet, Plot& plot, const Study& study, const RunsOf& runs, const Predicted& predicted, double y, const QColor& colour)
{
    const Theme& t = theme();
    const auto at = [&](double metres) { return plot.at(fromSi(metres, style::road.unit(study.system)), 0).x(); };
    // The prediction behind it: nine of ten draws, and its middle.
    if (predicted.coldRange) {
        const auto [low, high] = *predicted.coldRange;
        if (std::isfinite(high)) {
            sheet.area(rectangle(at(low), y - 22, at(high), y + 22), { {}, 0, Qt::NoPen, t.metalWash, Hatch::None, {}, 0 });
            const double middle = at(predicted.cold.value.value_or(low));
            sheet.line({ QPointF(middle, y - 22), QPointF(middle, y + 22) }, { t.mute, 1, Qt::DashLine, {}, Hatch::None, {}, 0 });
        }
    }
    // Its name and figures stand beside the plot: the points have all of its room.
    const auto elided = QFontMetrics(reading(14)).elidedText(QString::fromStdString(runs.setup->name), Qt::ElideRight, namesWide - 12);
    sheet.letter({ 0, y - 20 }, elided, 14, colour, Qt::AlignLeft | Qt::AlignVCenter, false);
    int number = 0;
    int beyond = 0;
    for (const MeasuredRun& run : runs.runs) {
        if (!std::isfinite(run.distance))
            continue;
        // Stops beside each other in their order, so that equal ones are seen.
        const double offset = (number++ % 5 - 2) * 4.5;
        const QPointF place(at(run.distance), y + offset);
        if (place.x() < plot.box().left() - 2 || place.x() > plot.box().right() + 2) {
            ++beyond;
            continue;
        }
        QPainterPath dot;
        dot.addEllipse(place, 3.6, 3.6);
        const bool out = !run.leftOut.empty();
        sheet.area(dot, { out ? t.mute : colour, 1.2, Qt::SolidLine, out ? QColor() : colour, Hatch::None, {}, 0 });
        if (out)
            sheet.line({ place + QPointF(-5, 5), place + QPointF(5, -5) }, { t.mute, 1.2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    }
    const auto& s = runs.sample;
    QString words = QObject::tr("%1 count").arg(s.count);
    if (s.count > 1) {
        const double mean = at(s.mean);
        sheet.line({ QPointF(at(s.low), y + 28), QPointF(at(s.high), y + 28) }, { colour, 2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        for (const double x : { at(s.low), at(s.high) })
            sheet.line({ QPointF(x, y + 24), QPointF(x, y + 32) }, { colour, 2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        sheet.area(rectangle(mean - 1.6, y + 21, mean + 1.6, y + 35), { colour, 0.5, Qt::SolidLine, colour, Hatch::None, {}, 0 });
        words += QObject::tr(", mean %1\nscatter %2")
                     .arg(QString::fromStdString(print(s.mean, style::road, study.system)),
                         QString::fromStdString(print(s.deviation, style::road, study.system)));
    }
    if (beyond > 0)
        words += QObject::tr(" · %1 left out").arg(beyond);
    double line = y - 2;
    for (const QString& each : words.split(QLatin1Char('\n'))) {
        sheet.letter({ 0, line }, each, 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        line += 16;
    }
}

} // namespace

std::optional<std::size_t> lastSession(const Study& study, Series series)
{
    for (const SetupParts* parts : { &study.after, &study.before })
        for (std::size_t i = study.build->tests.size(); i-- > 0;)
            if (parts->setup && study.build->tests[i].setup == parts->setup->id && study.build->tests[i].series == series)
                return i;
    return {};
}

Sheet runsSheet(const Study& study, std::optional<std::size_t> session)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.title = QObject::tr("Stops as measured");
    sheet.extent = QRectF(QPointF(-20, -20), QPointF(760, 520));
    const ProvingStudy& p = study.of<ProvingStudy>();
    const Verdict* proven = study.verdict(checks::proven);
    const auto speed = study.build->car.testSpeed.value;
    sheet.subtitle = speed
        ? QObject::tr("brought to %1; grey: predicted; bar: where the mean lies in 95 of 100; yardstick of UN R13-H %2, no approval")
              .arg(QString::fromStdString(print(*speed, style::speed, study.system)),
                  QString::fromStdString(print(proving::yardstick(*speed), style::road, study.system)))
        : QObject::tr("the speed to stop from is not known yet");
    if (!p.measuredAfter.setup) {
        addRows(sheet, study, session, 230);
        return sheet;
    }
    double most = 0;
    double least = 1e9;
    const bool two = study.before.setup != study.after.setup;
    for (const RunsOf* runs : { &p.measuredBefore, &p.measuredAfter })
        for (const MeasuredRun& run : runs->runs)
            if (std::isfinite(run.distance) && run.leftOut.empty()) {
                most = std::max(most, run.distance);
                least = std::min(least, run.distance);
            }
    for (const Predicted* each : { &p.before, &p.after })
        if (each->coldRange && std::isfinite(each->coldRange->high)) {
            most = std::max(most, each->coldRange->high);
            least = std::min(least, each->coldRange->low);
        }
    for (const RunsOf* runs : { &p.measuredBefore, &p.measuredAfter })
        if (runs->sample.count > 1) {
            most = std::max(most, runs->sample.high);
            least = std::min(least, runs->sample.low);
        }
    if (!(most > 0)) {
        most = 10;
        least = 0;
    }
    const auto shown = [&](double si) { return fromSi(si, style::road.unit(study.system)); };
    // The axis is of the stops there are, a fifth of their range more on both sides.
    const double air = std::max(0.2 * (most - least), 0.5);
    const double from = std::max(0.0, std::floor(shown(least - air)));
    Plot plot(sheet, QRectF(namesWide, 0, 740 - namesWide, 168), { std::ceil(shown(most + air)), 1 }, from);
    const QString unit = QString::fromUtf8(style::road.unit(study.system).symbol.data());
    plot.axes(
        from > 0 ? QObject::tr("distance, %1; the axis does not begin at 0").arg(unit) : QObject::tr("distance, %1").arg(unit), {}, 0, -1);
    if (two)
        addStrip(sheet, plot, study, p.measuredBefore, p.before, 40, t.found);
    addStrip(sheet, plot, study, p.measuredAfter, p.after, two ? 118 : 80, two ? t.proposal : t.found);
    if (proven)
        sheet.callouts.push_back({ proven->id,
            p.difference && p.difference->real()
                ? QObject::tr("%1 %2").arg(QString::fromStdString(print(std::abs(p.difference->difference), style::road, study.system)),
                    p.difference->difference > 0 ? QObject::tr("shorter") : QObject::tr("longer"))
                : QObject::tr("difference not significant yet"),
            proven->level, { 115, 206 }, { 115, 206 }, { 115, 206 } });
    for (const int number : { 1, 2 })
        if (const Verdict* v = study.verdict(checks::coldModel, { .number = number })) {
            // Under what its strip is called.
            const QPointF at(66, !two ? 116 : number == 1 ? 75 : 153);
            sheet.callouts.push_back({ v->id,
                v->level == Level::Good          ? QObject::tr("as predicted")
                    : v->level == Level::Caution ? QObject::tr("not as predicted")
                                                 : QObject::tr("not compared"),
                v->level, at, at, at });
        }
    addRows(sheet, study, session, 226);
    return sheet;
}

Sheet fadeSheet(const Study& study, std::optional<std::size_t> session)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.title = QObject::tr("Stop after stop, until it fades");
    sheet.extent = QRectF(QPointF(-70, -30), QPointF(760, 560));
    const ProvingStudy& p = study.of<ProvingStudy>();
    const double past = figures::setting(study.build->wants.fadePast, &Wants::fadePast);
    sheet.subtitle =
        QObject::tr("the same speed again and again; faded past %1 of the mean of the first three, and staying there").arg(past, 0, 'f', 2);
    double most = 10;
    std::size_t stops = 5;
    for (const FadeRuns& fade : p.fades) {
        stops = std::max(stops, fade.runs.size());
        for (std::size_t i = 0; i < fade.counted.size(); ++i)
            most = std::max({ most, fade.counted[i], i < fade.lengthening.size() ? fade.counted.front() * fade.lengthening[i] : 0 });
    }
    const auto shown = [&](double si) { return fromSi(si, style::road.unit(study.system)); };
    Plot plot(sheet, QRectF(0, 0, 740, 170), { static_cast<double>(stops + 1), Plot::roundUp(shown(most) * 1.1) });
    plot.axes(QObject::tr("stop"), QObject::tr("distance, %1").arg(QString::fromUtf8(style::road.unit(study.system).symbol.data())), 0, 0);
    for (const FadeRuns& fade : p.fades) {
        const bool after = study.build->tests[fade.session].setup == study.after.setup->id;
        const QColor colour = after ? t.proposal : t.found;
        QPolygonF line;
        for (std::size_t i = 0; i < fade.counted.size(); ++i) {
            const QPointF at(static_cast<double>(fade.numbers[i]), shown(fade.counted[i]));
            line << at;
            plot.mark(at, 4, colour, fade.fades && i >= fade.fades->from && i <= fade.fades->to);
        }
        plot.curve(line, { colour, 1.4, after ? Qt::SolidLine : Qt::DashLine, {}, Hatch::None, {}, 0 });
        // As the heat model has it, from the same first stops.
        QPolygonF model;
        if (fade.counted.size() >= 3) {
            const double first = proving::sampleOf(std::span(fade.counted).first(3)).mean;
            for (std::size_t i = 0; i < fade.lengthening.size(); ++i)
                model << QPointF(static_cast<double>(fade.numbers[i]), shown(first * fade.lengthening[i]));
        }
        if (!model.isEmpty()) {
            plot.curve(model, { colour, 1, Qt::DotLine, {}, Hatch::None, {}, 0 });
            const QPointF end = plot.at(model.back().x(), model.back().y());
            if (const Verdict* v = study.verdict(checks::fadeModel, { .number = static_cast<int>(fade.session) + 1 }))
                sheet.callouts.push_back(
                    { v->id, v->figure.value ? QObject::tr("%1 of the model").arg(*v->figure.value, 0, 'f', 2) : QObject::tr("model"),
                        v->level, end, end, QPointF(end.x() - (after ? 10 : 180), plot.box().bottom() - 26) });
        }
        if (fade.bound)
            plot.level(shown(*fade.bound), { t.bad, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
        if (const Verdict* v = study.verdict(checks::fades, { .number = static_cast<int>(fade.session) + 1 }); v && !fade.counted.empty()) {
            const std::size_t i = fade.fades ? fade.fades->from : fade.counted.size() - 1;
            const QPointF at = plot.at(static_cast<double>(fade.numbers[i]), shown(fade.counted[i]));
            sheet.callouts.push_back({ v->id,
                fade.fades ? QObject::tr("faded from stop %1").arg(fade.numbers[fade.fades->from])
                           : QObject::tr("%1 stops").arg(fade.counted.size()),
                v->level, at, at, at + QPointF(30, -34) });
        }
    }
    if (p.fades.empty())
        sheet.letter({ 370, 85 }, QObject::tr("no series has been driven with these setups"), 13, t.unproven, Qt::AlignCenter, false);
    addRows(sheet, study, session, 226);
    return sheet;
}

} // namespace deepstop::app
