#include "stages/jobcard/card_sheets.hpp"

#include "drawing/shapes.hpp"
#include "theme.hpp"

#include <QFontMetricsF>
#include <QObject>

#include <algorithm>
#include <cmath>

namespace deepstop::app {
namespace {

/// Lines of at most so many pixels, broken between words.
QStringList broken(const QString& text, double pixels, double width)
{
    const QFontMetricsF metrics(reading(pixels));
    QStringList lines;
    QString line;
    for (const QString& word : text.split(QLatin1Char(' '))) {
        const QString longer = line.isEmpty() ? word : line + QLatin1Char(' ') + word;
        if (!line.isEmpty() && metrics.horizontalAdvance(longer) > width) {
            lines << line;
            line = word;
        } else {
            line = longer;
        }
    }
    return lines << line;
}

} // namespace

Sheet stepSheet(const Study& study, const jobcard::Card& card, const jobcard::Step* step, bool large)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.shrinks = !large;
    sheet.extent = large ? QRectF(0, 0, 780, 540) : QRectF(0, 0, 780, 120);
    if (!step) {
        sheet.title = QObject::tr("Job card");
        sheet.subtitle = QObject::tr("choose a setup that brings brakes of its own: then there is something to fit");
        return sheet;
    }
    // Folded steps are not counted: they are not on the card.
    const auto place = std::count_if(card.steps.data(), step, [&](const jobcard::Step& each) { return card.shows(each); });
    double y = 0;
    if (large) {
        sheet.title = QObject::tr("%1, step %2 of %3")
                          .arg(QString::fromUtf8(deepstop::tr(jobcard::nameOf(step->phase)).data()))
                          .arg(place + 1)
                          .arg(card.shown());
        sheet.subtitle = QObject::tr("about %1 h left of %2; Space ticks it and goes on")
                             .arg(card.minutesLeft() / 60, 0, 'f', 1)
                             .arg(card.minutes / 60, 0, 'f', 1);
        const auto say = [&](const QString& text, double pixels, const QColor& colour) {
            for (const QString& line : broken(text, pixels, 748)) {
                sheet.letter({ 0, y + pixels }, line, pixels, colour, Qt::AlignLeft | Qt::AlignVCenter, false);
                y += pixels * 1.35;
            }
            y += pixels * 0.3;
        };
        y = 24;
        if (step->corner != "car")
            say(QString::fromStdString(step->corner).toUpper(), 26, t.proposal);
        say(QString::fromStdString(step->text), 28, step->state == Checked::Fine ? t.mute : t.ink);
        if (step->torque)
            say(QObject::tr("%1   %2   %3")
                    .arg(QString::fromStdString(print(*step->torque, { Dimension::Torque, "N·m", 0, "N·m", 0 })),
                        QString::fromStdString(print(*step->torque, { Dimension::Torque, "lb ft", 0, "lb ft", 0 })),
                        QString::fromStdString(step->threads)),
                34, t.ink);
        if (!step->tools.empty())
            say(QString::fromStdString(step->tools), 17, t.mute);
        if (!step->caution.empty())
            say(QString::fromStdString(step->caution), 21, t.bad);
        for (const auto& wait : step->waits)
            say((step->open ? QObject::tr("not proven: %1") : QObject::tr("shut until: %1")).arg(QString::fromStdString(wait)), 17,
                t.caution);
        if (step->state != Checked::Open)
            say(step->state == Checked::Fine ? QObject::tr("done %1").arg(QString::fromStdString(step->when)) : QObject::tr("FAULT"), 20,
                step->state == Checked::Fine ? t.good : t.bad);
        y = std::max(y + 10, 400.0);
    } else {
        y = 40;
    }
    double x = 0;
    for (const auto& pointer : step->readings) {
        const auto* entry = study.directory->at(pointer);
        if (!entry)
            continue;
        sheet.letter(
            { x, y }, QString::fromStdString(entry->address.label), large ? 15 : 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.dimensions.push_back(
            { pointer, {}, { x, y + 26 }, { x, y + 26 }, Run::Table, 0, true, {}, 0.5, true, QObject::tr("not read") });
        x += 190;
        if (x > 600)
            x = 0, y += 58;
    }
    // What was noticed at it, once it has been ticked.
    const auto& cards = study.build->cards;
    if (const auto record = std::ranges::find(cards, card.setup->id, &JobCard::setup); record != cards.end())
        if (const auto tick = std::ranges::find(record->ticks, step->id, &Tick::step); tick != record->ticks.end()) {
            const std::string at =
                "/cards/" + std::to_string(record - cards.begin()) + "/ticks/" + std::to_string(tick - record->ticks.begin());
            const double below = large ? y + (step->readings.empty() ? 0 : 62) : y + (step->readings.empty() ? -8 : 44);
            sheet.fact(at + "/note", QObject::tr("noticed"), { 0, below }, 220);
            sheet.fact(at + "/photo", QObject::tr("picture, where it lies"), { 300, below }, 220);
            sheet.letter({ 600, below + 7 }, QObject::tr("took"), 11, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
            sheet.dimensions.push_back({ at + "/took_min", {}, { 600, below + 27 }, { 600, below + 27 }, Run::Table, 0, true, {}, 0.5, true,
                QStringLiteral("–") });
        }
    if (!large) {
        sheet.title = step->readings.empty() ? QObject::tr("Nothing is read at this step") : QObject::tr("Read at this step");
        sheet.subtitle = QObject::tr("because of %1")
                             .arg(QString::fromStdString(study.verdict(step->because) ? study.verdict(step->because)->title
                                                                                      : std::string(deepstop::tr(step->because.c_str()))));
    }
    return sheet;
}

Sheet choicesSheet(const Study& study)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.title = QObject::tr("Procedures");
    sheet.subtitle = QObject::tr("where practitioners differ: choose, and the card follows");
    sheet.extent = QRectF(0, 0, 780, 540);
    const Build& build = *study.build;
    if (!study.after.setup)
        return sheet;
    const auto card = std::ranges::find(build.cards, study.after.setup->id, &JobCard::setup);
    const JobCard& choices = jobcard::choicesOf(build, study.after.setup->id);
    double y = 30;
    // Chosen before anything is ticked, the card begins with that.
    const Edit begun = [setup = study.after.setup->id](Build with) {
        (void)jobcard::recordOf(with, setup);
        return with;
    };
    const std::string at = "/cards/" + std::to_string(card - build.cards.begin());
    sheet.fact(at + "/bleed_order", QObject::tr("order of bleeding"), { 0, y }, 190, begun);
    sheet.fact(at + "/bleed_method", QObject::tr("by"), { 210, y }, 120, begun);
    sheet.fact(at + "/bleeder_first", QObject::tr("bleeder opened first"), { 350, y }, 120, begun);
    sheet.fact(at + "/bedding", QObject::tr("bedding in"), { 490, y }, 190, begun);
    y += 54;
    sheet.fact(at + "/work_order", QObject::tr("order of the work"), { 0, y }, 190, begun);
    sheet.letter({ 210, y + 24 },
        choices.order == WorkOrder::CornerByCorner
            ? QObject::tr("One corner whole: the other stands as its pattern. Cuts still wait for both.")
            : QObject::tr("Both corners side by side: each tool is taken up once. The default."),
        13, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
    y += 54;
    sheet.fact(at + "/reservoir_ran_dry", QObject::tr("reservoir ran dry"), { 0, y }, 90, begun);
    sheet.letter({ 210, y + 24 },
        choices.reservoirRanDry == YesNo::No
            ? QObject::tr("Only the wheels whose lines were open are bled; the others are folded on the card.")
            : choices.reservoirRanDry == YesNo::Yes ? QObject::tr("All four wheels, and the antilock unit as the car's maker says.")
                                                    : QObject::tr("Not said: all four wheels are bled."),
        13, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
    y += 66;
    const auto say = [&](const QString& text, double pixels, const QColor& colour, double left = 0) {
        for (const QString& line : broken(text, pixels, 740 - left)) {
            sheet.letter({ left, y }, line, pixels, colour, Qt::AlignLeft | Qt::AlignVCenter, false);
            y += pixels * 1.5;
        }
    };
    for (const auto& procedure : { jobcard::bleedingOf(study, choices), jobcard::beddingOf(study, choices) }) {
        say(QString::fromStdString(procedure.title), 17, t.ink);
        say(QString::fromStdString(procedure.why), 13, t.mute);
        int number = 0;
        for (const auto& step : procedure.steps)
            say(QStringLiteral("%1. %2").arg(++number).arg(QString::fromStdString(step)), 14, t.ink, 18);
        y += 18;
    }
    say(QObject::tr("Bed in only where it is legal and nobody is behind. Never let the reservoir run dry."), 13, t.bad);
    return sheet;
}

namespace {

/// What is off the car beside wheels and brakes, as it is entered: an engine or a front end moves the weight far.
void addTakenOff(Sheet& sheet, const Study& study, double y)
{
    const Theme& t = theme();
    if (!study.after.setup)
        return;
    const auto& cards = study.build->cards;
    const auto card = std::ranges::find(cards, study.after.setup->id, &JobCard::setup);
    const std::string at = "/cards/" + std::to_string(card - cards.begin()) + "/off/";
    const auto& off = jobcard::choicesOf(*study.build, study.after.setup->id).off;
    sheet.letter({ 0, y }, QObject::tr("Also off the car: what, its mass, its place behind the front axle (ahead of it: less than 0)"), 13,
        t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
    y += 14;
    for (std::size_t i = 0; i < off.size(); ++i) {
        const std::string one = at + std::to_string(i);
        sheet.fact(one + "/what", {}, { 0, y + 2 }, 180);
        sheet.dimensions.push_back({ one + "/mass_kg", {}, {}, { 260, y + 16 }, Run::Table, 0, true, {}, 0.5 });
        sheet.dimensions.push_back({ one + "/behind_front_axle_mm", {}, {}, { 380, y + 16 }, Run::Table, 0, true, {}, 0.5 });
        y += 32;
    }
    sheet.fact(at + "-/what", QObject::tr("one more"), { 0, y }, 180, [setup = study.after.setup->id](Build with) {
        (void)jobcard::recordOf(with, setup);
        return with;
    });
    sheet.extent.setBottom(std::max(sheet.extent.bottom(), y + 50));
}

} // namespace

Sheet liftSheet(const Study& study)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.title = QObject::tr("On the lift");
    sheet.extent = QRectF(-20, -20, 800, 520);
    const auto lift = jobcard::liftOf(study);
    if (lift.moments.empty()) {
        sheet.subtitle = QObject::tr("not known: %1. Strap it").arg(QString::fromStdString(lift.lacks));
        addTakenOff(sheet, study, 60);
        return sheet;
    }
    sheet.subtitle = lift.lacks.empty()
        ? QObject::tr("where the weight hangs between the arms as parts come off; arms at a fifth and four fifths of the wheelbase")
        : QObject::tr("lacks %1: what is not known is not drawn").arg(QString::fromStdString(lift.lacks));
    const double base = *study.build->car.wheelbase.value;
    const double scale = 520 / base; // sheet's units a metre
    const auto at = [&](double behind) { return 120 + behind * scale; };
    double y = 60;
    for (const auto& m : lift.moments) {
        sheet.line({ QPointF(at(0), y), QPointF(at(base), y) }, { t.ink, 2.4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        const bool frontOff = m.what.find("front") != std::string::npos || m.what.find("all") != std::string::npos;
        const bool rearOff = m.what.find("rear") != std::string::npos || m.what.find("all") != std::string::npos;
        for (const auto& [behind, off] : { std::pair { 0.0, frontOff }, std::pair { base, rearOff } })
            sheet.area(circle({ at(behind), y + 16 }, 15),
                { off ? t.rule : t.ink, off ? 1.0 : 2.0, off ? Qt::DashLine : Qt::SolidLine, {}, Hatch::None, {}, 0 });
        for (const double arm : lift.armsAt) {
            QPainterPath foot;
            foot.addPolygon(
                QPolygonF { QPointF(at(arm), y + 4), QPointF(at(arm) - 9, y + 34), QPointF(at(arm) + 9, y + 34), QPointF(at(arm), y + 4) });
            sheet.area(foot, { t.ink, 1, Qt::SolidLine, t.metalWash, Hatch::None, {}, 0 });
        }
        const QColor colour = m.nearArm ? t.bad : t.proposal;
        // The centre of mass: a quartered circle.
        const QPointF centre(at(m.behindFrontAxle), y - 16);
        sheet.area(circle(centre, 8), { colour, 1.6, Qt::SolidLine, t.paper, Hatch::None, {}, 0 });
        for (const double turn : { 0.0, 180.0 }) {
            QPainterPath quarter;
            quarter.moveTo(centre);
            quarter.arcTo(QRectF(centre.x() - 8, centre.y() - 8, 16, 16), turn, 90);
            quarter.closeSubpath();
            sheet.area(quarter, { colour, 0.5, Qt::SolidLine, colour, Hatch::None, {}, 0 });
        }
        sheet.line({ centre, QPointF(centre.x(), y) }, { colour, 1, Qt::DashLine, {}, Hatch::None, {}, 0 });
        sheet.letter({ at(0) - 120, y - 30 }, QString::fromStdString(m.what), 13, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet.letter({ at(base) + 24, y - 14 }, QString::fromStdString(print(m.mass, style::carMass, study.system)), 15, t.ink,
            Qt::AlignLeft | Qt::AlignVCenter);
        sheet.letter({ at(base) + 24, y + 8 },
            QObject::tr("%1 to the arms").arg(QString::fromStdString(print(m.toArm, style::frame, study.system))), 12, colour,
            Qt::AlignLeft | Qt::AlignVCenter, false);
        y += 88;
    }
    sheet.letter({ 0, y },
        lift.strap() ? QObject::tr("STRAP IT before these parts come off: the weight comes near an arm.")
                     : QObject::tr("Strap it all the same: pulling on a tight bolt moves a car."),
        15, lift.strap() ? t.bad : t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
    addTakenOff(sheet, study, y + 34);
    return sheet;
}

} // namespace deepstop::app
