#include "stages/logbook/logbook_sheets.hpp"

#include "build/choices.hpp"
#include "drawing/plot.hpp"
#include "drawing/shapes.hpp"
#include "logbook/logbook.hpp"
#include "theme.hpp"

#include <QObject>

#include <algorithm>
#include <cmath>
#include <utility>

namespace deepstop::app {
namespace {

Level levelOf(LogEvent event)
{
    return event == LogEvent::Fault ? Level::Stop : event == LogEvent::Unknown ? Level::Unproven : Level::Good;
}

QString wordOf(LogEvent event) { return QString::fromUtf8(wordFor(event, choices::logEvent).data()); }

/// What is written of one day.
void addEntry(Sheet& sheet, const Study& study, std::size_t index, double y)
{
    const Theme& t = theme();
    const std::string at = "/log/" + std::to_string(index);
    const LogEntry& entry = study.build->log[index];
    double x = 0;
    const auto fact = [&](const char* key, const QString& what, double wide) {
        sheet.fact(at + key, what, { x, y }, wide);
        x += wide * 1.28 + 8;
    };
    const auto value = [&](const std::string& pointer, const QString& what, double wide) {
        sheet.letter({ x, y + 7 }, what, 11, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.dimensions.push_back({ pointer, {}, { x, y + 27 }, { x, y + 27 }, Run::Table, 0, true, {}, 0.5, true, QStringLiteral("–") });
        x += wide;
    };
    fact("/date", QObject::tr("date"), 92);
    fact("/event", QObject::tr("what"), 104);
    value(at + "/odometer_km", QObject::tr("odometer"), 122);
    fact("/setup", QObject::tr("setup"), 100);
    fact("/duty", QObject::tr("duty"), 90);
    value(at + "/track_h", QObject::tr("on the track"), 84);
    x = 0;
    y += 52;
    value(at + "/hottest_degC", QObject::tr("hottest rotor"), 106);
    value(at + "/cost", QObject::tr("cost, %1").arg(QString::fromStdString(study.build->currency)), 100);
    fact("/note", QObject::tr("note"), 380);
    if (entry.wear.empty())
        return;
    y += 56;
    x = 0;
    for (std::size_t i = 0; i < entry.wear.size(); ++i) {
        const WearReading& w = entry.wear[i];
        const QString corner = QStringLiteral("%1 %2").arg(w.axle == Axle::Front ? QObject::tr("front") : QObject::tr("rear"),
            w.side == Side::Left ? QObject::tr("left") : QObject::tr("right"));
        const std::string wear = at + "/wear/" + std::to_string(i);
        value(wear + "/lining_mm", QObject::tr("%1 lining").arg(corner), 112);
        value(wear + "/ring_mm", QObject::tr("rotor"), 116);
        // Both sides of an axle beside each other.
        if (i % 2 == 1)
            x = 0, y += 48;
    }
}

/// The logbook along its dates, part by part.
class LifeDrawing {
public:
    LifeDrawing(Sheet sheet, const Study& study, std::optional<std::size_t> entry, const std::string& today)
        : sheet_(std::move(sheet)), study_(study), entry_(entry), today_(today)
    {
    }

    Sheet drawn()
    {
        heading();
        dates();
        months();
        entries();
        due();
        return std::move(sheet_);
    }

private:
    /// What is on the car, and what an hour has cost.
    void heading()
    {
        sheet_.scaleBar = false;
        sheet_.title = QObject::tr("Logbook");
        sheet_.extent = QRectF(QPointF(-20, -24), QPointF(780, 590));
        const auto cost = logbook::costPerTrackHour(build_);
        sheet_.subtitle =
            QObject::tr("on the car %1: %2%3")
                .arg(entry_ ? QObject::tr("then") : QObject::tr("today"), on_ ? QString::fromStdString(on_->name) : QObject::tr("nothing"),
                    cost ? QObject::tr(" · an hour on the track has cost %1 %2")
                               .arg(*cost, 0, 'f', 0)
                               .arg(QString::fromStdString(build_.currency))
                         : QString());
    }

    void dates()
    {
        int last = now_;
        for (const LogEntry& e : build_.log)
            if (const auto day = dayOf(e.date))
                first_ = std::min(first_, *day), last = std::max(last, *day);
        for (const auto& r : reminders_)
            if (!r.done)
                last = std::max(last, std::min(r.day, now_ + 400));
        span_ = std::max(30, last - first_);
        sheet_.line({ QPointF(left_, line_), QPointF(left_ + wide_, line_) }, { t_.ink, 2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    }

    /// Months, named where there is room; of a long life years alone.
    void months()
    {
        constexpr double longLife = 30 * 365.25;
        const int years = std::max(1, static_cast<int>(span_ / longLife));
        for (int day = first_; day <= first_ + static_cast<int>(span_);) {
            const auto date = dateOf(day);
            const auto begins = date.ends_with("-01-01") ? day : *dayOf(date.substr(0, 4) + "-01-01");
            if (!date.ends_with("-01")) {
                ++day;
                continue;
            }
            const bool year = begins == day;
            if (span_ > longLife) {
                // From one January to the next that is drawn.
                const int next = static_cast<int>(std::lround(365.25 * years));
                day += year ? next - 12 : 1;
                if (!year)
                    continue;
            } else {
                day += 27; // no month is shorter
            }
            const int at0 = *dayOf(date);
            sheet_.line({ QPointF(at(at0), line_), QPointF(at(at0), line_ + (year ? 16 : 8)) },
                { t_.mute, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
            const int month = (date[5] - '0') * 10 + date[6] - '0';
            if (span_ < 700 ? month % 3 == 1 : year)
                sheet_.letter({ at(at0) + 3, line_ + 16 }, QString::fromStdString(date.substr(0, 7)), 11, t_.mute,
                    Qt::AlignLeft | Qt::AlignVCenter, false);
        }
    }

    /// Today, and every entry at its date.
    void entries()
    {
        sheet_.line(
            { QPointF(at(now_), line_ - 60), QPointF(at(now_), line_ + 24) }, { t_.focus, 1.2, Qt::DashLine, {}, Hatch::None, {}, 0 });
        sheet_.letter({ at(now_), line_ + 32 }, QObject::tr("today"), 11, t_.mute);
        int row = 0;
        // Of a long log those around the one in hand are named and can be gone to; the others are pegs, one a place.
        constexpr std::ptrdiff_t namedEachWay = 20;
        const auto order = logbook::inOrder(build_);
        const auto middle = entry_ ? std::ranges::find(order, *entry_) - order.begin() : static_cast<std::ptrdiff_t>(order.size()) - 1;
        int pegged = -1;
        for (std::size_t k = 0; k < order.size(); ++k) {
            const std::size_t i = order[k];
            const auto day = dayOf(build_.log[i].date);
            if (!day)
                continue;
            const bool inHand = entry_ == i;
            const bool named = std::abs(static_cast<std::ptrdiff_t>(k) - middle) <= namedEachWay;
            const int place = static_cast<int>(std::lround(at(*day)));
            if (!named && place == pegged)
                continue;
            pegged = place;
            sheet_.area(circle({ at(*day), line_ }, inHand ? 6 : 4),
                { t_.ink, 1, Qt::SolidLine, inHand ? t_.focus : t_.proposal, Hatch::None, {}, 0 });
            if (!named)
                continue;
            const double y = line_ - 34 - 31.0 * (row++ % 5);
            sheet_.callouts.push_back({ "log-" + std::to_string(i), wordOf(build_.log[i].event), levelOf(build_.log[i].event),
                { at(*day), line_ }, { at(*day), line_ }, { at(*day), y } });
        }
        if (build_.log.empty())
            sheet_.letter(
                { 385, line_ - 50 }, QObject::tr("nothing written yet: write today down below"), 14, t_.unproven, Qt::AlignCenter, false);
    }

    /// The entry in hand, and what is due.
    void due()
    {
        double y = 226;
        if (entry_)
            addEntry(sheet_, study_, *entry_, y);
        y = entry_ && !build_.log[*entry_].wear.empty() ? 436 : 366;
        sheet_.letter({ 0, y }, QObject::tr("Due"), 17, t_.ink, Qt::AlignLeft | Qt::AlignVCenter);
        for (const auto& r : reminders_) {
            if (r.done || y > 552)
                continue;
            y += 22;
            const bool late = r.day <= now_;
            sheet_.letter(
                { 0, y }, QString::fromStdString(dateOf(r.day)), 13, late ? t_.caution : t_.ink, Qt::AlignLeft | Qt::AlignVCenter);
            sheet_.letter({ 116, y }, QString::fromStdString(r.what + " (" + r.because + ")"), 13, late ? t_.caution : t_.ink,
                Qt::AlignLeft | Qt::AlignVCenter, false);
        }
        if (reminders_.empty())
            sheet_.letter({ 0, y + 24 }, QObject::tr("Nothing can be due before parts put on or fluid changed are written down."), 13,
                t_.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
    }

    double at(int day) { return left_ + (day - first_) / span_ * wide_; }

    Sheet sheet_;
    const Study& study_;
    const std::optional<std::size_t> entry_;
    const std::string& today_;
    const Theme& t_ = theme();
    const Build& build_ = *study_.build;
    const Setup* on_ = logbook::onCar(build_, entry_ ? build_.log[*entry_].date : today_);
    // The line: from the first entry to today or the last thing due.
    const int now_ = dayOf(today_).value_or(0);
    int first_ = now_;
    const std::vector<logbook::Reminder> reminders_ = logbook::remindersOf(build_);
    double span_ = 0;
    const double left_ = 10;
    const double wide_ = 750;
    const double line_ = 178;
};

} // namespace

Sheet lifeSheet(const Study& study, std::optional<std::size_t> entry, const std::string& today)
{
    Sheet sheet;
    return LifeDrawing(std::move(sheet), study, entry, today).drawn();
}

Sheet wearSheet(const Study& study, std::optional<std::size_t> entry)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.title = QObject::tr("How it wears");
    sheet.extent = QRectF(QPointF(-70, -30), QPointF(780, 560));
    const Build& build = *study.build;
    const auto wears = logbook::wearOf(build);
    sheet.subtitle = QObject::tr("linings solid, rotors dashed, over the odometer; each runs on to its minimum");
    double most = 0;
    double far = 0;
    double near = 1e12;
    for (const auto& w : wears) {
        for (const auto& p : w.points) {
            most = std::max(most, p.left);
            near = std::min(near, p.distance);
            far = std::max(far, p.distance);
        }
        if (w.endsAt && *w.endsAt < far + 5e8)
            far = std::max(far, *w.endsAt);
    }
    const auto odometer = [&](double si) { return fromSi(si - near, style::odometer.unit(study.system)); };
    const auto thick = [&](double si) { return fromSi(si, style::fine.unit(study.system)); };
    double y = 270;
    if (most > 0 && far > near) {
        Plot plot(sheet, QRectF(0, 0, 700, 200), { Plot::roundUp(odometer(far) * 1.05), Plot::roundUp(thick(most) * 1.1) });
        plot.axes(QObject::tr("distance since %1, %2")
                      .arg(QString::fromStdString(print(near, style::odometer, study.system)),
                          QString::fromUtf8(style::odometer.unit(study.system).symbol.data())),
            QObject::tr("left, %1").arg(QString::fromUtf8(style::fine.unit(study.system).symbol.data())), 0,
            study.system == UnitSystem::Metric ? 0 : 2);
        for (const auto& w : wears) {
            const QColor colour = w.axle == Axle::Front ? t.proposal : t.found;
            QPolygonF line;
            for (const auto& p : w.points) {
                line << QPointF(odometer(p.distance), thick(p.left));
                plot.mark(line.back(), 3.5, colour, w.side == Side::Right);
            }
            plot.curve(line, { colour, 1.5, w.ring ? Qt::DashLine : Qt::SolidLine, {}, Hatch::None, {}, 0 });
            if (w.endsAt && w.minimum) {
                plot.curve(
                    { line.back(), QPointF(odometer(*w.endsAt), thick(*w.minimum)) }, { colour, 1, Qt::DotLine, {}, Hatch::None, {}, 0 });
                plot.mark(QPointF(odometer(*w.endsAt), thick(*w.minimum)), 3, t.bad, true);
            }
        }
    } else {
        sheet.letter({ 350, 100 }, QObject::tr("no wear has been read yet: read it below, with the odometer"), 14, t.unproven,
            Qt::AlignCenter, false);
    }
    for (const auto& w : wears) {
        const QString part = QObject::tr("%1 %2, %3")
                                 .arg(w.axle == Axle::Front ? QObject::tr("front") : QObject::tr("rear"),
                                     w.side == Side::Left ? QObject::tr("left") : QObject::tr("right"),
                                     w.ring ? QObject::tr("rotor") : QObject::tr("lining"));
        QString says = QObject::tr("%1 left").arg(QString::fromStdString(print(w.points.back().left, style::fine, study.system)));
        if (w.endsAt)
            says +=
                QObject::tr(", at its minimum at %1%2%3")
                    .arg(QString::fromStdString(print(*w.endsAt, style::odometer, study.system)),
                        w.endsEarliest ? QObject::tr(", as early as %1")
                                             .arg(QString::fromStdString(print(*w.endsEarliest, style::odometer, study.system)))
                                       : QObject::tr(" (two readings: how sure cannot be said)"),
                        w.endsOn
                            ? QObject::tr(", about %1").arg(QString::fromStdString(logbook::aboutDateOf(*w.endsOn, w.points.back().day)))
                            : QString());
        else
            says += QObject::tr("; to say when it ends it lacks %1").arg(QString::fromStdString(w.lacks));
        sheet.letter({ 0, y }, part, 13, w.axle == Axle::Front ? t.proposal : t.found, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.letter({ 130, y }, says, 13, w.endsAt ? t.ink : t.unproven, Qt::AlignLeft | Qt::AlignVCenter, false);
        y += 20;
    }
    if (entry)
        addEntry(sheet, study, *entry, std::max(y + 8, 400.0));
    return sheet;
}

} // namespace deepstop::app
