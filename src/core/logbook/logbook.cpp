#include "logbook/logbook.hpp"

#include "build/words.hpp"
#include "language/language.hpp"
#include <boost/math/distributions/students_t.hpp>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

namespace deepstop::logbook {
namespace {

constexpr double notKnown = std::numeric_limits<double>::quiet_NaN();

/// Since the setup that is on now went on; the first day of all where it always was.
std::optional<int> onSince(const Build& build)
{
    std::optional<int> since;
    for (const std::size_t i : inOrder(build))
        if (build.log[i].event == LogEvent::PartsOn)
            since = dayOf(build.log[i].date);
    return since;
}

void fitWear(Wear& w)
{
    w.slope = w.slopeWidth = notKnown;
    const auto n = static_cast<double>(w.points.size());
    if (w.points.size() < 2) {
        w.lacks = tr("a second reading, some distance later");
        return;
    }
    double x = 0;
    double y = 0;
    for (const auto& p : w.points)
        x += p.distance / n, y += p.left / n;
    double across = 0;
    double product = 0;
    for (const auto& p : w.points) {
        across += (p.distance - x) * (p.distance - x);
        product += (p.distance - x) * (p.left - y);
    }
    if (!(across > 0)) {
        w.lacks = tr("readings at more than one odometer");
        return;
    }
    w.slope = product / across;
    // What the readings may be off by themselves, each its own way, as a limit of 95 in 100.
    double own = 0;
    double ownMean = 0;
    double left = 0;
    for (const auto& p : w.points) {
        own += std::pow((p.distance - x) / across * p.width, 2);
        ownMean += std::pow(p.width / n, 2);
        left += std::pow(p.left - y - w.slope * (p.distance - x), 2);
    }
    double scatter = 0;
    double scatterMean = 0;
    if (w.points.size() > 2) {
        const double student = boost::math::quantile(boost::math::students_t(n - 2), 0.975);
        scatter = student * std::sqrt(left / (n - 2) / across);
        scatterMean = student * std::sqrt(left / (n - 2) / n);
    }
    w.slopeWidth = std::hypot(scatter, std::sqrt(own));
    if (!w.minimum) {
        w.lacks = tr("its minimum, as cast on the part or said by its maker");
        return;
    }
    const auto& first = w.points.front();
    const auto& last = w.points.back();
    const auto dayAt = [&](double odometer) -> std::optional<int> {
        if (!(last.day > first.day && last.distance > first.distance))
            return {};
        const double daily = (last.distance - first.distance) / (last.day - first.day);
        const double days = (odometer - last.distance) / daily;
        constexpr double longest = 36'500;
        return days < longest ? std::optional(last.day + static_cast<int>(std::floor(days))) : std::nullopt;
    };
    if (const double steepest = w.slope - w.slopeWidth; steepest < 0) {
        w.endsEarliest = x + (*w.minimum - (y - std::hypot(scatterMean, std::sqrt(ownMean)))) / steepest;
        w.endsOnEarliest = dayAt(*w.endsEarliest);
    }
    if (!(w.slope < 0)) {
        w.lacks = tr("wear: it has not got thinner");
        return;
    }
    w.endsAt = x + (*w.minimum - y) / w.slope;
    w.endsOn = dayAt(*w.endsAt);
}

std::string escaped(const std::string& text)
{
    std::string out;
    for (const char c : text) {
        if (c == '\\' || c == ';' || c == ',')
            out += '\\';
        if (c == '\n')
            out += "\\n";
        else
            out += c;
    }
    return out;
}

/// A content line of at most 75 bytes, goes on in lines that begin with a space; no letter is cut through.
std::string folded(const std::string& line)
{
    constexpr std::size_t most = 75;
    std::string out;
    std::size_t room = most;
    for (std::size_t at = 0; at < line.size();) {
        std::size_t end = std::min(line.size(), at + room);
        while (end < line.size() && end > at && (static_cast<unsigned char>(line[end]) & 0xC0) == 0x80)
            --end;
        out += (at == 0 ? "" : " ") + line.substr(at, end - at) + "\r\n";
        at = end;
        room = most - 1;
    }
    return out;
}

} // namespace

std::string aboutDateOf(int day, int from)
{
    constexpr int near = 60;
    return dateOf(day).substr(0, day - from > near ? 7 : 10);
}

std::vector<std::size_t> inOrder(const Build& build)
{
    std::vector<std::size_t> order(build.log.size());
    std::iota(order.begin(), order.end(), std::size_t { 0 });
    std::ranges::stable_sort(order, {}, [&](std::size_t i) {
        const auto day = dayOf(build.log[i].date);
        return std::pair { !day, day.value_or(0) };
    });
    return order;
}

const Setup* onCar(const Build& build, const std::string& date)
{
    if (build.setups.empty())
        return nullptr;
    const Setup* on = &build.setups.front();
    const auto by = dayOf(date);
    for (const std::size_t i : inOrder(build)) {
        const LogEntry& entry = build.log[i];
        const auto day = dayOf(entry.date);
        if (entry.event != LogEvent::PartsOn || !day || (by && *day > *by))
            continue;
        if (const Setup* setup = findSetup(build, entry.setup))
            on = setup;
    }
    return on;
}

std::vector<Wear> wearOf(const Build& build)
{
    std::vector<Wear> all;
    const Setup* setup = onCar(build, "9999-12-31");
    if (!setup)
        return all;
    const auto since = onSince(build);
    for (const Axle axle : { Axle::Front, Axle::Rear })
        for (const Side side : { Side::Left, Side::Right })
            for (const bool ring : { false, true }) {
                Wear w;
                w.axle = axle;
                w.side = side;
                w.ring = ring;
                if (const Corner* c = cornerOf(build, *setup, axle)) {
                    const bool drums = c->brakes == BrakeKind::Drums;
                    if (ring && drums)
                        continue; // a drum grows: it is read as a diameter, on the bench
                    w.minimum = ring ? c->rotor.minimumThickness.value
                        : drums      ? c->drum.minimumLining.value
                                     : c->pad.minimumThickness.value;
                }
                for (const std::size_t i : inOrder(build)) {
                    const LogEntry& entry = build.log[i];
                    const auto day = dayOf(entry.date);
                    if (!day || (since && *day < *since) || !entry.odometer.value)
                        continue;
                    for (const WearReading& r : entry.wear) {
                        const Reading& left = ring ? r.ring : r.lining;
                        if (r.axle == axle && r.side == side && left.value)
                            w.points.push_back({ *entry.odometer.value, *day, *left.value, uncertainty(left, true) });
                    }
                }
                if (w.points.empty())
                    continue;
                fitWear(w);
                all.push_back(std::move(w));
            }
    return all;
}

std::vector<Reminder> remindersOf(const Build& build)
{
    std::vector<Reminder> all;
    std::optional<int> on;
    std::optional<int> fluid;
    std::optional<int> yearly;
    std::string setup;
    bool track = false;
    std::vector<std::pair<int, LogEvent>> events;
    for (const std::size_t i : inOrder(build)) {
        const LogEntry& entry = build.log[i];
        const auto day = dayOf(entry.date);
        if (!day)
            continue;
        events.emplace_back(*day, entry.event);
        if (entry.event == LogEvent::PartsOn) {
            on = *day;
            const Setup* found = findSetup(build, entry.setup);
            setup = found ? found->name : entry.setup;
        }
        if (entry.event == LogEvent::Fluid)
            fluid = *day;
        if (entry.event == LogEvent::TorqueCheck || entry.event == LogEvent::PartsOn)
            yearly = *day;
        track = track || entry.event == LogEvent::TrackDay;
    }
    // The first look does not stand for the second.
    const auto checked =
        on ? std::ranges::count_if(events, [&](const auto& e) { return e.second == LogEvent::TorqueCheck && e.first > *on; }) : 0;
    constexpr int year = 365;
    if (on) {
        all.push_back({ "first-drive", tr("Bolts, nuts and leaks after the first drive"), tr("{} went on", setup), *on + 1, checked > 0 });
        all.push_back({ "again", tr("Bolts and nuts once more, after 80 to 160 km"), tr("{} went on", setup), *on + 14, checked > 1 });
    }
    if (yearly)
        all.push_back({ "yearly", tr("Brakes looked over: linings, rotors, hoses, bolts, slides"), tr("a year since the last time"),
            *yearly + year, false });
    if (fluid)
        all.push_back({ "fluid", tr("Brake fluid changed"), track ? tr("it sees a track: yearly") : tr("two years old"),
            *fluid + (track ? year : 2 * year), false });
    for (const Wear& w : wearOf(build))
        if (w.endsOnEarliest)
            all.push_back({ fmt::format("wear-{}-{}-{}", wordOf(w.axle), wordOf(w.side), w.ring ? "rotor" : "lining"),
                tr("{} {}: look whether the {} is at its minimum", w.axle == Axle::Front ? tr("Front") : tr("Rear"), tr(wordOf(w.side)),
                    w.ring ? tr("rotor") : tr("lining")),
                tr("at the earliest, as it wears now"), *w.endsOnEarliest, false });
    std::ranges::stable_sort(all, {}, &Reminder::day);
    return all;
}

std::optional<double> costPerTrackHour(const Build& build)
{
    double money = 0;
    double hours = 0;
    bool priced = false;
    for (const LogEntry& entry : build.log) {
        hours += entry.hours.value.value_or(0) / 3600;
        money += entry.cost.value.value_or(0);
        priced = priced || entry.cost.value;
    }
    return hours > 0 && priced ? std::optional(money / hours) : std::nullopt;
}

std::string calendarOf(const Build& build, const std::string& stamp)
{
    std::string out = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Deep Stop//Logbook//EN\r\nCALSCALE:GREGORIAN\r\n";
    const auto basic = [](int day) {
        auto date = dateOf(day);
        std::erase(date, '-');
        return date;
    };
    // Two cars in one calendar: what is due of one never takes the place of the other's.
    std::string car;
    for (const char c : build.car.name)
        if ((c >= '0' && c <= '9') || (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z'))
            car += c;
        else
            car += fmt::format("{:02x}", static_cast<unsigned>(static_cast<unsigned char>(c)));
    for (const Reminder& r : remindersOf(build)) {
        if (r.done)
            continue;
        out += "BEGIN:VEVENT\r\n";
        out += folded(fmt::format("UID:{}-{}-{}@deep-stop", r.id, basic(r.day), car));
        out += folded("DTSTAMP:" + stamp);
        out += folded("DTSTART;VALUE=DATE:" + basic(r.day));
        out += folded("DTEND;VALUE=DATE:" + basic(r.day + 1));
        out += folded("SUMMARY:" + escaped(fmt::format("{}: {}", build.car.name.empty() ? tr("The car") : build.car.name, r.what)));
        out += folded("DESCRIPTION:" + escaped(r.because));
        out += "BEGIN:VALARM\r\nACTION:DISPLAY\r\nTRIGGER:-P1D\r\n" + folded("DESCRIPTION:" + escaped(r.what))
            + "END:VALARM\r\nEND:VEVENT\r\n";
    }
    return out + "END:VCALENDAR\r\n";
}

} // namespace deepstop::logbook
