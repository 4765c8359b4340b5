#include "stages/balance/balance_sheets.hpp"

#include "chapters/balance/balance_chapter.hpp"
#include "drawing/shapes.hpp"
#include "stages/sheets.hpp"
#include "theme.hpp"

#include <QObject>

#include <algorithm>
#include <cmath>
#include <utility>

namespace deepstop::app {

namespace {

/// The car with what it carries, part by part.
class LoadsDrawing {
public:
    LoadsDrawing(Sheet sheet, const Study& study) : sheet_(std::move(sheet)), study_(study) { }

    Sheet drawn()
    {
        carFromSide();
        loads();
        return std::move(sheet_);
    }

private:
    void carFromSide()
    {
        sheet_.scaleBar = false;
        sheet_.title = QObject::tr("What the car carries");
        sheet_.subtitle = QObject::tr("every load is judged on its own; discs are as large as what they stand for is heavy");
        const double base = build_.car.wheelbase.value.value_or(2.6);
        const double radius = study_.after.front.wheel ? study_.after.front.wheel->rollingRadius.value.value_or(0.31) : 0.31;
        const Ink body { t_.mute, 1.2, Qt::SolidLine, t_.metalWash, Hatch::None, {}, 0 };
        QPainterPath shell;
        shell.moveTo(place(-0.75, 0.30));
        shell.lineTo(place(-0.72, 0.75));
        shell.lineTo(place(0.25, 0.98));
        shell.lineTo(place(0.85, 1.42));
        shell.lineTo(place(base + 0.35, 1.40));
        shell.lineTo(place(base + 0.80, 0.85));
        shell.lineTo(place(base + 0.80, 0.30));
        shell.closeSubpath();
        sheet_.area(shell, body);
        sheet_.line({ place(-1.1, 0), place(base + 1.9, 0) }, { t_.ink, 1.2, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        for (const double x : { 0.0, base })
            sheet_.area(circle(place(x, radius), radius * scale_), { t_.ink, 1.4, Qt::SolidLine, t_.paper, Hatch::None, {}, 0 });
        if (build_.car.mass.value && build_.car.centreOfMassHeight.value && build_.car.frontLoadShare.value) {
            const QPointF at = place((1 - *build_.car.frontLoadShare.value) * base, *build_.car.centreOfMassHeight.value);
            sheet_.area(circle(at, 9), { t_.ink, 1.6, Qt::SolidLine, t_.paper, Hatch::None, {}, 0 });
            sheet_.line({ at - QPointF(9, 0), at + QPointF(9, 0) }, { t_.ink, 1.4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
            sheet_.line({ at - QPointF(0, 9), at + QPointF(0, 9) }, { t_.ink, 1.4, Qt::SolidLine, {}, Hatch::None, {}, 0 });
            sheet_.letter(at + QPointF(0, 18), QObject::tr("driver only"), 11, t_.ink, Qt::AlignCenter, false);
        }
    }

    /// Every load, and what it is made of.
    void loads()
    {
        const auto& loads = study_.of<Balance>().after.loads;
        double y = 210;
        int letter = 0;
        const double left = 0;
        for (std::size_t i = 0; i < build_.loads.size(); ++i) {
            const LoadCase& load = build_.loads[i];
            const std::string at = "/loads/" + std::to_string(i);
            sheet_.fact(at + "/name", QObject::tr("load"), { left, y }, 128);
            const LoadBalance* laden = i + 1 < loads.size() ? &loads[i + 1] : nullptr;
            if (laden && laden->car) {
                const auto line = [&](double down, const QString& text) {
                    sheet_.letter({ left, y + down }, text, 12, t_.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
                };
                const auto say = [&](double si, const Style& style) { return QString::fromStdString(print(si, style, study_.system)); };
                line(56,
                    QObject::tr("%1, %2 in front")
                        .arg(say(laden->car->mass, style::carMass), say(laden->car->frontLoadShare, style::share)));
                line(74, QObject::tr("its middle %1 high").arg(say(laden->car->centreOfMassHeight, style::frame)));
            }
            if (const Verdict* v = lockOrderOf(study_, i + 1))
                sheet_.callouts.push_back({ v->id, QObject::tr("order: %1").arg(QString::fromUtf8(deepstop::tr(nameOf(v->level)).data())),
                    v->level, { left + 6, y + 106 }, { left + 6, y + 106 }, { left + 40, y + 106 } });
            double row = y;
            const auto entry = [&](std::size_t k, const Carried* one) {
                const std::string where = at + "/carried/" + (one ? std::to_string(k) : std::string("-"));
                const QString mark = one ? QString(QChar('a' + letter % 26)) : QStringLiteral("+");
                sheet_.letter({ 176, row + 23 }, mark, 13, one ? t_.proposal : t_.mute, Qt::AlignCenter, false);
                if (one) {
                    sheet_.fact(where + "/what", QObject::tr("what"), { 192, row }, 170);
                    const auto x = one->behindFrontAxle.value;
                    const auto high = one->height.value;
                    const auto mass = one->mass.value;
                    if (x && high && mass) {
                        const QPointF spot = place(*x, *high);
                        sheet_.area(circle(spot, disc(*mass)),
                            { t_.proposal, 1.4, *mass < 0 ? Qt::DotLine : Qt::SolidLine, *mass < 0 ? t_.paper : t_.proposalWash,
                                Hatch::None, {}, 0 });
                        sheet_.letter(spot, mark, 12, t_.proposal, Qt::AlignCenter, false);
                    }
                    ++letter;
                } else {
                    sheet_.letter(
                        { 192, row + 23 }, QObject::tr("something more: its mass"), 12, t_.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
                }
                const auto value = [&](const char* key, double across, const QString& caption) {
                    sheet_.letter({ across, row + 5 }, caption, 11, t_.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
                    sheet_.dimensions.push_back({ where + "/" + key, {}, { across, row + 25 }, { across, row + 25 }, Run::Table, 0, true,
                        {}, 0.5, !one, QObject::tr("add") });
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
            sheet_.line({ QPointF(left, y - 10), QPointF(760, y - 10) }, { t_.rule, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        }
        sheet_.fact("/loads/-/name", QObject::tr("another load"), { left, y }, 128);
        sheet_.letter({ 192, y + 23 },
            QObject::tr("name it: full, with a passenger, with a trailer's nose. A trailer's own push is not counted."), 12, t_.mute,
            Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet_.extent = QRectF(QPointF(-12, -22), QPointF(772, std::max(520.0, y + 60)));
    }

    QPointF place(double behind, double high) { return origin_ + QPointF(behind * scale_, -high * scale_); }

    double disc(double mass) { return 2.2 * std::sqrt(std::abs(mass) / 10) + 2; }

    Sheet sheet_;
    const Study& study_;
    const Theme& t_ = theme();
    const Build& build_ = *study_.build;
    static constexpr double scale_ = 100; // mm of the sheet for a metre
    const QPointF origin_ = QPointF(118, 150);
};

} // namespace

/// The car from its side, at one scale, with what it carries where it lies; beside it the loads as they are entered.
Sheet loadsSheet(const Study& study)
{
    Sheet sheet;
    return LoadsDrawing(std::move(sheet), study).drawn();
}

} // namespace deepstop::app
