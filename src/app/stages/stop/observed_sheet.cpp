#include "stages/stop/stop_sheets.hpp"

#include "chapters/proving/checks.hpp"
#include "drawing/shapes.hpp"
#include "stages/sheets.hpp"
#include "theme.hpp"

#include <QObject>

#include <utility>

namespace deepstop::app {
namespace {

/// What was seen, felt or read on a tester in one session, part by part.
class ObservedDrawing {
public:
    ObservedDrawing(Sheet sheet, const Study& study, std::size_t session)
        : sheet_(std::move(sheet)), study_(study), at_("/tests/" + std::to_string(session)), number_(static_cast<int>(session) + 1)
    {
    }

    Sheet drawn()
    {
        lockOrder();
        fade();
        tester();
        booster();
        return std::move(sheet_);
    }

private:
    void heading(const QString& text, const QString& how)
    {
        sheet_.letter({ 0, y_ }, text, 15, t_.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet_.letter({ 0, y_ + 20 }, how, 12, t_.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        sheet_.line({ QPointF(0, y_ + 32), QPointF(740, y_ + 32) }, { t_.rule, 1, Qt::SolidLine, {}, Hatch::None, {}, 0 });
        y_ += 44;
    }
    void verdict(const Check& check, QPointF at, const Where& where)
    {
        if (const Verdict* v = study_.verdict(check, where))
            sheet_.callouts.push_back({ v->id, QString::fromUtf8(deepstop::tr(nameOf(v->level)).data()), v->level, at, at, at });
    }

    void lockOrder()
    {
        heading(QObject::tr("Wheels that locked first"),
            QObject::tr("Seen from outside, or by the marks: on gravel or a wet place, from low speed, nobody near."));
        sheet_.fact(at_ + "/locked_first", QObject::tr("locked first"), { 0, y_ }, 176);
        sheet_.fact(at_ + "/surface", QObject::tr("road"), { 250, y_ }, 100);
        verdict(checks::lockObserved, { 560, y_ + 24 }, { .number = number_ });
        y_ += 74;
    }
    void fade()
    {
        heading(QObject::tr("Fade as felt"),
            QObject::tr("A long pedal is hot fluid, a hard one hot pads. Say after how many brakings, and of which duty."));
        sheet_.fact(at_ + "/fade_felt", QObject::tr("felt"), { 0, y_ }, 196);
        sheet_.fact(at_ + "/faded_at", QObject::tr("at braking"), { 270, y_ }, 60);
        sheet_.fact(at_ + "/brakings", QObject::tr("brakings driven"), { 366, y_ }, 84);
        sheet_.fact(at_ + "/duty", QObject::tr("duty"), { 500, y_ }, 130);
        verdict(checks::fadeFelt, { 690, y_ + 24 }, { .number = number_ });
        y_ += 74;
    }
    void tester()
    {
        heading(
            QObject::tr("Brake tester"), QObject::tr("Force of each wheel at one pedal force, before any of them locks on the rollers."));
        double x = 0;
        for (const auto& [key, caption] : { std::pair { "/tester_front_left_n", QObject::tr("front left") },
                 std::pair { "/tester_front_right_n", QObject::tr("front right") },
                 std::pair { "/tester_rear_left_n", QObject::tr("rear left") },
                 std::pair { "/tester_rear_right_n", QObject::tr("rear right") } }) {
            sheet_.letter({ x, y_ + 7 }, caption, 11, t_.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
            sheet_.dimensions.push_back(
                { at_ + key, {}, { x, y_ + 27 }, { x, y_ + 27 }, Run::Table, 0, true, {}, 0.5, true, QObject::tr("not read") });
            x += 128;
        }
        verdict(checks::testerFront, { 40, y_ + 62 }, { .number = number_ });
        verdict(checks::testerRear, { 296, y_ + 62 }, { .number = number_ });
        verdict(checks::testerShare, { 560, y_ + 24 }, { .number = number_ });
        y_ += 98;
    }
    void booster()
    {
        heading(QObject::tr("Booster"), QObject::tr("Engine off: pump until the pedal is hard, hold it, start the engine."));
        sheet_.fact(hydraulicsPointer(study_, study_.after) + "/booster_test", QObject::tr("then"), { 0, y_ }, 176);
        verdict(checks::boosterTest, { 560, y_ + 24 }, {});
    }

    Sheet sheet_;
    const Study& study_;
    std::string at_;
    int number_;
    const Theme& t_ = theme();
    double y_ = 10;
};

} // namespace

Sheet observedSheet(const Study& study, std::optional<std::size_t> session)
{
    Sheet sheet;
    sheet.scaleBar = false;
    sheet.title = QObject::tr("Seen, felt and tested");
    sheet.extent = QRectF(QPointF(-20, -20), QPointF(760, 500));
    if (!session) {
        sheet.subtitle = QObject::tr("No session has been driven with this setup yet: begin one below");
        return sheet;
    }
    sheet.subtitle =
        QObject::tr("evidence beside what is worked out; session of %1").arg(QString::fromStdString(study.build->tests[*session].date));
    return ObservedDrawing(std::move(sheet), study, *session).drawn();
}

} // namespace deepstop::app
