#include "stages/bench/bench_sheets.hpp"
#include "chapters/weights/weights_chapter.hpp"
#include "stages/bench/part_sheet.hpp"

#include <algorithm>

namespace deepstop::app {

Sheet scalesSheet(const Study& study, Axle axle)
{
    PartSheet p(study, axle, QObject::tr("corner on the scales"));
    if (!p.after.corner)
        return p.sheet;
    const Theme& t = theme();
    Sheet& sheet = p.sheet;
    sheet.scaleBar = false;
    sheet.subtitle = QObject::tr("%1: one weighing a line, and what lay on the scale; singly or on one heap")
                         .arg(QString::fromStdString(study.after.setup->name));
    const auto& weighings = p.after.corner->weighings;
    double y = 14;
    for (std::size_t i = 0; i <= weighings.size(); ++i) {
        const bool free = i == weighings.size();
        const auto key = "/weighings/" + (free ? std::string("-") : std::to_string(i));
        p.leader(key + "/mass_kg", { 30, y + 14 }, { 40, y + 14 }, free ? QObject::tr("put the next heap on the scale") : QString(), {},
            true, free, QStringLiteral("+"));
        if (!free)
            sheet.fact(p.corner + key + "/contains", {}, { 122, y + 2 }, 620);
        y += 30;
    }

    // Where the weight lies: one bar a setup, to one scale.
    y = std::max(y + 12, 190.0);
    const auto beforeShares = p.before.corner ? massShares(*p.before.corner) : std::vector<MassShare> {};
    const auto afterShares = massShares(*p.after.corner);
    const auto total = [](const std::vector<MassShare>& shares) {
        double sum = 0;
        for (const MassShare& share : shares)
            sum += share.mass.value.value_or(0);
        return sum;
    };
    const double largest = std::max({ total(beforeShares), total(afterShares), 1.0 });
    const double pixels = 640 / largest;
    const auto bar = [&](const Setup& setup, const std::vector<MassShare>& shares, const PerAxle<CornerWeights>& weights,
                         const QColor& colour, bool dashed) {
        sheet.letter({ 0, y }, QString::fromStdString(setup.name), 13, colour, Qt::AlignLeft | Qt::AlignTop, false);
        double x = 0;
        int index = 0;
        for (const MassShare& share : shares) {
            const double wide = share.mass.value.value_or(0) * pixels;
            if (wide <= 0)
                continue;
            const Hatch hatch = share.computed ? Hatch::Dense
                : index % 3 == 0               ? Hatch::Rising
                : index % 3 == 1               ? Hatch::None
                                               : Hatch::Falling;
            sheet.area(rectangle(x, y + 20, x + wide, y + 46),
                { colour, 1.4, dashed ? Qt::DashLine : Qt::SolidLine, dashed ? t.metalWash : t.proposalWash, hatch, colour, 9 });
            auto name = QString::fromStdString(share.name);
            const QFontMetrics metrics(reading(11));
            // A heap too narrow for its name is named by what it weighs alone; the line of ticks names it.
            if (metrics.horizontalAdvance(name) > wide - 4)
                name = metrics.elidedText(name, Qt::ElideRight, static_cast<int>(std::max(0.0, wide - 4)));
            sheet.letter({ x + 3, y + 48 }, name, 11, t.mute, Qt::AlignLeft | Qt::AlignTop, false);
            const auto mass = QString::fromStdString(figure(*share.mass.value, style::partMass, study.system));
            if (QFontMetrics(figures(12)).horizontalAdvance(mass) < wide - 4)
                sheet.letter({ x + 3, y + 61 }, mass, 12, share.computed ? t.unproven : t.ink, Qt::AlignLeft | Qt::AlignTop);
            x += wide;
            ++index;
        }
        const bool complete = weights.at(axle).cornerMass.value.has_value();
        sheet.letter({ x + 8, y + 33 },
            complete ? QString::fromStdString(print(*weights.at(axle).cornerMass.value, style::partMass, study.system))
                     : QObject::tr("not complete"),
            14, complete ? t.ink : t.unproven, Qt::AlignLeft | Qt::AlignVCenter);
        y += 92;
    };
    if (p.two && p.before.corner)
        bar(*study.before.setup, beforeShares, study.of<Weights>().before, t.found, true);
    bar(*study.after.setup, afterShares, study.of<Weights>().after, t.proposal, false);
    if (std::ranges::any_of(afterShares, &MassShare::computed) || std::ranges::any_of(beforeShares, &MassShare::computed))
        sheet.letter(
            { 744, y - 14 }, QObject::tr("close hatching: worked out from dimensions"), 11, t.mute, Qt::AlignRight | Qt::AlignTop, false);

    // Corner, axle, car.
    y += 12;
    const auto lines = weightLines(study, axle);
    const double columns[] { 330, 440, 550, 660 };
    if (p.two) {
        sheet.letter({ columns[0], y }, QObject::tr("before"), 12, t.found, Qt::AlignRight | Qt::AlignVCenter, false);
        sheet.letter({ columns[2], y }, QObject::tr("change"), 12, t.mute, Qt::AlignRight | Qt::AlignVCenter, false);
    }
    sheet.letter({ columns[1], y }, p.two ? QObject::tr("after") : QObject::tr("as found"), 12, t.proposal,
        Qt::AlignRight | Qt::AlignVCenter, false);
    for (const WeightLine& line : lines) {
        y += 21;
        sheet.line(QPolygonF { QPointF(0, y + 10.5), QPointF(744, y + 10.5) }, { t.rule, 0.7, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        sheet.letter({ 0, y }, QString::fromStdString(line.title), 13, t.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
        const auto say = [&](const Figure& f, double x, bool change) {
            const auto text = !f.value ? QStringLiteral("?")
                                       : QString::fromStdString(change ? printChange(*f.value, line.style, study.system)
                                                                       : print(*f.value, line.style, study.system))
                    + (f.provisional() ? QStringLiteral("?") : QString());
            sheet.letter({ x, y }, text, 13, f.value && !f.provisional() ? t.ink : t.unproven, Qt::AlignRight | Qt::AlignVCenter);
        };
        if (p.two) {
            say(line.before, columns[0], false);
            say(line.change, columns[2], true);
        }
        say(line.after, columns[1], false);
        if (!line.after.value && !line.lacksInWords.empty()) {
            const auto why =
                QObject::tr("lacks %1")
                    .arg(QString::fromStdString(line.lacksInWords.front())
                        + (line.lacksInWords.size() > 1 ? QObject::tr(" and %1 more").arg(line.lacksInWords.size() - 1) : QString()));
            sheet.letter({ 744, y }, QFontMetrics(reading(11)).elidedText(why, Qt::ElideRight, 180), 11, t.unproven,
                Qt::AlignRight | Qt::AlignVCenter, false);
        }
    }
    sheet.keepClear.push_back(QRectF(QPointF(0, 184), QPointF(744, y + 12)));
    sheet.extent = QRectF(QPointF(0, -4), QPointF(748, std::max(y + 14, 500.0)));
    return sheet;
}

} // namespace deepstop::app
