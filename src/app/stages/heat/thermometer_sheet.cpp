#include "stages/heat/duty_sheets.hpp"

#include "chapters/proving/calibrated.hpp"
#include "chapters/proving/checks.hpp"
#include "chapters/proving/proving_chapter.hpp"
#include "theme.hpp"

#include <QObject>

#include <algorithm>
#include <cmath>
#include <optional>

namespace deepstop::app {

namespace {

/// What is known of the fit stands where the cooling is entered.
void addFit(Sheet& sheet, const Study& study, double y)
{
    const Theme& t = theme();
    const Build& build = *study.build;
    const DutyStudy& d = study.of<DutyStudy>();
    const auto found = temperaturesOf(build, study.after, *d.plan, d.duty);
    sheet.letter({ 0, y },
        QObject::tr("%1 of them are of %2 and can be used").arg(found.taken.size()).arg(QString::fromStdString(d.duty.name)), 13, t.ink,
        Qt::AlignLeft | Qt::AlignVCenter, false);
    for (const auto& why : found.lacks) {
        y += 20;
        sheet.letter({ 0, y }, QObject::tr("one lacks %1").arg(QString::fromStdString(why)), 12, t.unproven,
            Qt::AlignLeft | Qt::AlignVCenter, false);
    }
    for (const auto& why : found.fadeLacks) {
        y += 20;
        sheet.letter({ 0, y }, QObject::tr("the series until it fades is left out: %1").arg(QString::fromStdString(why)), 12, t.unproven,
            Qt::AlignLeft | Qt::AlignVCenter, false);
    }
    // What the series says of the model has been said where it was driven.
    for (const FadeRuns& fade : study.of<ProvingStudy>().fades)
        if (build.tests[fade.session].setup == study.after.setup->id && build.tests[fade.session].duty == d.plan->id)
            if (const Verdict* v = study.verdict(checks::fadeModel, { .number = static_cast<int>(fade.session) + 1 })) {
                y += 20;
                sheet.letter({ 0, y }, QString::fromStdString(v->reason).left(120), 12,
                    v->level == Level::Good ? t.good
                        : isBad(v->level)   ? t.caution
                                            : t.unproven,
                    Qt::AlignLeft | Qt::AlignVCenter, false);
            }
    for (const TakenAgainstModel& each : heldAgainst(*d.after.run, found.taken)) {
        y += 20;
        sheet.letter({ 0, y },
            QObject::tr("%1: read %2, the model says %3")
                .arg(each.taken.front ? QObject::tr("front") : QObject::tr("rear"),
                    QString::fromStdString(print(each.taken.temperature, style::temperature, study.system)),
                    QString::fromStdString(print(each.model, style::temperature, study.system))),
            12, each.far ? t.caution : t.good, Qt::AlignLeft | Qt::AlignVCenter, false);
    }
}

} // namespace

Sheet thermometerSheet(const Study& study)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.title = QObject::tr("Calibration");
    sheet.extent = QRectF(QPointF(-14, -24), QPointF(800, 470));
    const Build& build = *study.build;
    const DutyStudy& d = study.of<DutyStudy>();
    sheet.subtitle = QObject::tr("readings taken with %1 set the model's cooling; two at least, the hotter the better")
                         .arg(QString::fromStdString(study.after.setup->name));
    double y = 8;
    int rows = 0;
    const double step = 48;
    // A further one goes into the session driven last.
    std::optional<std::size_t> last;
    bool any = false;
    for (std::size_t i = 0; i < build.tests.size(); ++i)
        if (build.tests[i].setup == study.after.setup->id) {
            last = i;
            any = any || !build.tests[i].temperatures.empty();
        }
    if (last && !any)
        for (const auto& line :
            { QObject::tr("Drive the duty, stop in a safe place, and read a temperature at once: a contact or infrared thermometer"),
                QObject::tr("on the rotor's face, at the pad's back plate, or on the caliper. Then say after which braking it was, how "
                            "long after it,"),
                QObject::tr("and where. Hot rotors burn skin; never hold the pedal down on them.") }) {
            sheet.letter({ 0, y }, line, 13, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
            y += 20;
        }
    if (last && !any)
        y += 16;
    for (std::size_t i = 0; i < build.tests.size(); ++i) {
        const TestSession& session = build.tests[i];
        if (session.setup != study.after.setup->id)
            continue;
        const std::string at = "/tests/" + std::to_string(i) + "/temperatures/";
        for (std::size_t k = 0; k <= session.temperatures.size() && rows < 9; ++k, ++rows) {
            const bool blank = k == session.temperatures.size();
            if (blank && i != *last)
                break;
            const std::string where = at + (blank ? std::string("-") : std::to_string(k));
            double x = 0;
            const auto value = [&](const char* key, const QString& caption, double wide) {
                sheet.letter({ x, y }, caption, 11, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
                sheet.dimensions.push_back(
                    { where + key, {}, { x, y + 20 }, { x, y + 20 }, Run::Table, 0, true, {}, 0.5, blank, QObject::tr("add") });
                x += wide;
            };
            value("/temperature_degC",
                blank ? (any ? QObject::tr("another reading") : QObject::tr("temperature")) : QObject::tr("temperature"), 130);
            if (!blank) {
                sheet.fact(where + "/stop", QObject::tr("after braking"), { x, y - 7 }, 90);
                x += 110;
                value("/after_s", QObject::tr("so long after"), 120);
                sheet.fact(where + "/axle", QObject::tr("axle"), { x, y - 7 }, 96);
                x += 118;
                sheet.fact(where + "/at", QObject::tr("at"), { x, y - 7 }, 96);
                x += 118;
                sheet.fact(where + "/highest_only", QObject::tr("keeps the highest"), { x, y - 7 }, 100);
                x += 112;
                sheet.fact(where + "/duty", QObject::tr("duty"), { x, y - 7 }, 110);
            }
            y += step;
        }
    }
    if (rows == 0)
        sheet.letter({ 0, y }, QObject::tr("No session has been driven with this setup yet: begin one below."), 13, t.unproven,
            Qt::AlignLeft | Qt::AlignVCenter, false);
    if (!d.plan || !d.after.run || rows == 0)
        return sheet;
    addFit(sheet, study, std::max(y + 12, 330.0));
    return sheet;
}

} // namespace deepstop::app
