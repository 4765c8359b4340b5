#include "stages/bench/bench_sheets.hpp"
#include "chapters/weights/weights_chapter.hpp"
#include "stages/bench/part_sheet.hpp"

#include <algorithm>
#include <utility>

namespace deepstop::app {

namespace {

/// The corner on the scales, part by part.
class ScalesDrawing {
public:
    ScalesDrawing(PartSheet p, const Study& study, Axle axle) : p_(std::move(p)), study_(study), axle_(axle) { }

    Sheet drawn()
    {
        weighings();
        shares();
        table();
        return std::move(p_.sheet);
    }

private:
    /// One weighing a line.
    void weighings()
    {
        sheet_.scaleBar = false;
        sheet_.subtitle = QObject::tr("%1: one weighing a line, and what lay on the scale; singly or on one heap")
                              .arg(QString::fromStdString(study_.after.setup->name));
        const auto& weighings = p_.after.corner->weighings;
        for (std::size_t i = 0; i <= weighings.size(); ++i) {
            const bool free = i == weighings.size();
            const auto key = "/weighings/" + (free ? std::string("-") : std::to_string(i));
            p_.leader(key + "/mass_kg", { 30, y_ + 14 }, { 40, y_ + 14 }, free ? QObject::tr("put the next heap on the scale") : QString(),
                {}, true, free, QStringLiteral("+"));
            if (!free)
                sheet_.fact(p_.corner + key + "/contains", {}, { 122, y_ + 2 }, 620);
            y_ += 30;
        }
    }

    /// Where the weight lies: one bar a setup, to one scale.
    void shares()
    {
        y_ = std::max(y_ + 12, 190.0);
        const auto beforeShares = p_.before.corner ? massShares(*p_.before.corner) : std::vector<MassShare> {};
        const auto afterShares = massShares(*p_.after.corner);
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
            sheet_.letter({ 0, y_ }, QString::fromStdString(setup.name), 13, colour, Qt::AlignLeft | Qt::AlignTop, false);
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
                sheet_.area(rectangle(x, y_ + 20, x + wide, y_ + 46),
                    { colour, 1.4, dashed ? Qt::DashLine : Qt::SolidLine, dashed ? t_.metalWash : t_.proposalWash, hatch, colour, 9 });
                auto name = QString::fromStdString(share.name);
                const QFontMetrics metrics(reading(11));
                // A heap too narrow for its name is named by what it weighs alone; the line of ticks names it.
                if (metrics.horizontalAdvance(name) > wide - 4)
                    name = metrics.elidedText(name, Qt::ElideRight, static_cast<int>(std::max(0.0, wide - 4)));
                sheet_.letter({ x + 3, y_ + 48 }, name, 11, t_.mute, Qt::AlignLeft | Qt::AlignTop, false);
                const auto mass = QString::fromStdString(figure(*share.mass.value, style::partMass, study_.system));
                if (QFontMetrics(figures(12)).horizontalAdvance(mass) < wide - 4)
                    sheet_.letter({ x + 3, y_ + 61 }, mass, 12, share.computed ? t_.unproven : t_.ink, Qt::AlignLeft | Qt::AlignTop);
                x += wide;
                ++index;
            }
            const bool complete = weights.at(axle_).cornerMass.value.has_value();
            sheet_.letter({ x + 8, y_ + 33 },
                complete ? QString::fromStdString(print(*weights.at(axle_).cornerMass.value, style::partMass, study_.system))
                         : QObject::tr("not complete"),
                14, complete ? t_.ink : t_.unproven, Qt::AlignLeft | Qt::AlignVCenter);
            y_ += 92;
        };
        if (p_.two && p_.before.corner)
            bar(*study_.before.setup, beforeShares, study_.of<Weights>().before, t_.found, true);
        bar(*study_.after.setup, afterShares, study_.of<Weights>().after, t_.proposal, false);
        if (std::ranges::any_of(afterShares, &MassShare::computed) || std::ranges::any_of(beforeShares, &MassShare::computed))
            sheet_.letter({ 744, y_ - 14 }, QObject::tr("close hatching: worked out from dimensions"), 11, t_.mute,
                Qt::AlignRight | Qt::AlignTop, false);
    }

    /// Corner, axle, car.
    void table()
    {
        y_ += 12;
        const auto lines = weightLines(study_, axle_);
        const double columns[] { 330, 440, 550, 660 };
        if (p_.two) {
            sheet_.letter({ columns[0], y_ }, QObject::tr("before"), 12, t_.found, Qt::AlignRight | Qt::AlignVCenter, false);
            sheet_.letter({ columns[2], y_ }, QObject::tr("change"), 12, t_.mute, Qt::AlignRight | Qt::AlignVCenter, false);
        }
        sheet_.letter({ columns[1], y_ }, p_.two ? QObject::tr("after") : QObject::tr("as found"), 12, t_.proposal,
            Qt::AlignRight | Qt::AlignVCenter, false);
        for (const WeightLine& line : lines) {
            y_ += 21;
            sheet_.line(
                QPolygonF { QPointF(0, y_ + 10.5), QPointF(744, y_ + 10.5) }, { t_.rule, 0.7, Qt::SolidLine, {}, Hatch::None, {}, 0 });
            sheet_.letter({ 0, y_ }, QString::fromStdString(line.title), 13, t_.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
            const auto say = [&](const Figure& f, double x, bool change) {
                const auto text = !f.value ? QStringLiteral("?")
                                           : QString::fromStdString(change ? printChange(*f.value, line.style, study_.system)
                                                                           : print(*f.value, line.style, study_.system))
                        + (f.provisional() ? QStringLiteral("?") : QString());
                sheet_.letter({ x, y_ }, text, 13, f.value && !f.provisional() ? t_.ink : t_.unproven, Qt::AlignRight | Qt::AlignVCenter);
            };
            if (p_.two) {
                say(line.before, columns[0], false);
                say(line.change, columns[2], true);
            }
            say(line.after, columns[1], false);
            if (!line.after.value && !line.lacksInWords.empty()) {
                const auto why =
                    QObject::tr("lacks %1")
                        .arg(QString::fromStdString(line.lacksInWords.front())
                            + (line.lacksInWords.size() > 1 ? QObject::tr(" and %1 more").arg(line.lacksInWords.size() - 1) : QString()));
                sheet_.letter({ 744, y_ }, QFontMetrics(reading(11)).elidedText(why, Qt::ElideRight, 180), 11, t_.unproven,
                    Qt::AlignRight | Qt::AlignVCenter, false);
            }
        }
        sheet_.keepClear.push_back(QRectF(QPointF(0, 184), QPointF(744, y_ + 12)));
        sheet_.extent = QRectF(QPointF(0, -4), QPointF(748, std::max(y_ + 14, 500.0)));
    }

    PartSheet p_;
    const Study& study_;
    const Axle axle_;
    const Theme& t_ = theme();
    Sheet& sheet_ = p_.sheet;
    double y_ = 14;
};

} // namespace

Sheet scalesSheet(const Study& study, Axle axle)
{
    PartSheet p(study, axle, QObject::tr("corner on the scales"));
    if (!p.after.corner)
        return p.sheet;
    return ScalesDrawing(std::move(p), study, axle).drawn();
}

} // namespace deepstop::app
