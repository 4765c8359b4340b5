#include "stages/balance/balance_sheets.hpp"

#include "chapters/balance/balance_chapter.hpp"
#include "drawing/shapes.hpp"
#include "stages/sheets.hpp"
#include "theme.hpp"

#include <QObject>

#include <algorithm>
#include <cmath>

namespace deepstop::app {

/// The car from its side, at one scale, with what it carries where it lies; beside it the loads as they are entered.
Sheet loadsSheet(const Study& study)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.title = QObject::tr("What the car carries");
    sheet.subtitle = QObject::tr("every load is judged on its own; discs are as large as what they stand for is heavy");
    const Build& build = *study.build;
    const double base = build.car.wheelbase.value.value_or(2.6);
    constexpr double scale = 100; // mm of the sheet for a metre
    const double radius = study.after.front.wheel ? study.after.front.wheel->rollingRadius.value.value_or(0.31) : 0.31;
    const QPointF origin(118, 150);
    const auto place = [&](double behind, double high) { return origin + QPointF(behind * scale, -high * scale); };
    const Ink body { t.mute, 1.2, Qt::SolidLine, t.metalWash, Hatch::None, {}, 0 };
    QPainterPath shell;
    shell.moveTo(place(-0.75, 0.30));
    shell.lineTo(place(-0.72, 0.75));
    shell.lineTo(place(0.25, 0.98));
    shell.lineTo(place(0.85, 1.42));
    shell.lineTo(place(base + 0.35, 1.40));
    shell.lineTo(place(base + 0.80, 0.85));
    shell.lineTo(place(base + 0.80, 0.30));
    shell.closeSubpath();
    sheet.area(shell, body);
    sheet.line({ place(-1.1, 0), place(base + 1.9, 0) }, { t.ink, 1.2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    for (const double x : { 0.0, base })
        sheet.area(circle(place(x, radius), radius * scale), { t.ink, 1.4, Qt::SolidLine, t.paper, Hatch::None, {}, 0 });
    const auto disc = [&](double mass) { return 2.2 * std::sqrt(std::abs(mass) / 10) + 2; };
    if (build.car.mass.value && build.car.centreOfMassHeight.value && build.car.frontLoadShare.value) {
        const QPointF at = place((1 - *build.car.frontLoadShare.value) * base, *build.car.centreOfMassHeight.value);
        sheet.area(circle(at, 9), { t.ink, 1.6, Qt::SolidLine, t.paper, Hatch::None, {}, 0 });
        sheet.line({ at - QPointF(9, 0), at + QPointF(9, 0) }, { t.ink, 1.4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        sheet.line({ at - QPointF(0, 9), at + QPointF(0, 9) }, { t.ink, 1.4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        sheet.letter(at + QPointF(0, 18), QObject::tr("driver only"), 11, t.ink, Qt::AlignCenter, false);
    }
    const auto& loads = study.of<Balance>().after.loads;
    double y = 210;
    int letter = 0;
    const double left = 0;
    for (std::size_t i = 0; i < build.loads.size(); ++i) {
        const LoadCase& load = build.loads[i];
        const std::string at = "/loads/" + std::to_string(i);
        sheet.fact(at + "/name", QObject::tr("load"), { left, y }, 128);
        const LoadBalance* laden = i + 1 < loads.size() ? &loads[i + 1] : nullptr;
        if (laden && laden->car) {
            const auto line = [&](double down, const QString& text) {
                sheet.letter({ left, y + down }, text, 12, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
            };
            const auto say = [&](double si, const Style& style) { return QString::fromStdString(print(si, style, study.system)); };
            line(56,
                QObject::tr("%1, %2 in front").arg(say(laden->car->mass, style::carMass), say(laden->car->frontLoadShare, style::share)));
            line(74, QObject::tr("its middle %1 high").arg(say(laden->car->centreOfMassHeight, style::frame)));
        }
        if (const Verdict* v = lockOrderOf(study, i + 1))
            sheet.callouts.push_back({ v->id, QObject::tr("order: %1").arg(QString::fromStdString(std::string(nameOf(v->level)))), v->level,
                { left + 6, y + 106 }, { left + 6, y + 106 }, { left + 40, y + 106 } });
        double row = y;
        const auto entry = [&](std::size_t k, const Carried* one) {
            const std::string where = at + "/carried/" + (one ? std::to_string(k) : std::string("-"));
            const QString mark = one ? QString(QChar('a' + letter % 26)) : QStringLiteral("+");
            sheet.letter({ 176, row + 23 }, mark, 13, one ? t.proposal : t.mute, Qt::AlignCenter, false);
            if (one) {
                sheet.fact(where + "/what", QObject::tr("what"), { 192, row }, 170);
                const auto x = one->behindFrontAxle.value;
                const auto high = one->height.value;
                const auto mass = one->mass.value;
                if (x && high && mass) {
                    const QPointF spot = place(*x, *high);
                    sheet.area(circle(spot, disc(*mass)),
                        { t.proposal, 1.4, *mass < 0 ? Qt::DotLine : Qt::SolidLine, *mass < 0 ? t.paper : t.proposalWash, Hatch::None, {},
                            0 });
                    sheet.letter(spot, mark, 12, t.proposal, Qt::AlignCenter, false);
                }
                ++letter;
            } else {
                sheet.letter(
                    { 192, row + 23 }, QObject::tr("something more: its mass"), 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
            }
            const auto value = [&](const char* key, double across, const QString& caption) {
                sheet.letter({ across, row + 5 }, caption, 11, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
                sheet.dimensions.push_back({ where + "/" + key, {}, { across, row + 25 }, { across, row + 25 }, Run::Table, 0, true, {},
                    0.5, !one, QStringLiteral("add") });
            };
            value("mass_kg", 420, QObject::tr("mass"));
            if (one) {
                value("behind_front_axle_mm", 520, QObject::tr("behind the front axle"));
                value("height_mm", 660, QObject::tr("over the road"));
            }
            row += 46;
        };
        for (std::size_t k = 0; k < load.carried.size(); ++k)
            entry(k, &load.carried[k]);
        entry(0, nullptr);
        y = std::max(row + 16, y + 140);
        sheet.line({ QPointF(left, y - 10), QPointF(760, y - 10) }, { t.rule, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
    }
    sheet.fact("/loads/-/name", QObject::tr("another load"), { left, y }, 128);
    sheet.letter({ 192, y + 23 },
        QObject::tr("name it: full, with a passenger, with a trailer's nose. A trailer's own push is not reckoned with."), 12, t.mute,
        Qt::AlignLeft | Qt::AlignVCenter, false);
    sheet.extent = QRectF(QPointF(-12, -22), QPointF(772, std::max(520.0, y + 60)));
    return sheet;
}

} // namespace deepstop::app
