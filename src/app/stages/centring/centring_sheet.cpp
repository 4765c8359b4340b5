#include "stages/sheets.hpp"

#include "chapters/centring/centring_chapter.hpp"
#include "chapters/centring/checks.hpp"
#include "chapters/clearance/clearance.hpp"
#include "drawing/shapes.hpp"
#include "theme.hpp"

#include <QObject>
#include <QTransform>

#include <cmath>
#include <utility>

namespace deepstop::app {
namespace {

/// Errors are drawn this many times as large as they are, or nobody would see them, unless the true proportion is asked for.
constexpr double exaggeration = 8;

/// A stack of shims, each one drawn; when it is not known of which, as one block.
void addStack(Sheet& sheet, double x, double y0, double y1, double thick)
{
    const Theme& t = theme();
    if (thick > 0)
        sheet.area(rectangle(x, y0, x + thick, y1), { t.ink, 1, Qt::SolidLine, t.lining, Hatch::None, {}, 0 });
}

/// The caliper over its rotor, part by part.
class CentringDrawing {
public:
    CentringDrawing(Sheet sheet, const Study& study, std::size_t which, bool trueProportion)
        : sheet_(std::move(sheet)), study_(study), which_(which), trueProportion_(trueProportion)
    {
    }

    Sheet drawn()
    {
        heading();
        rotor();
        halves();
        ears();
        gapsRead();
        fitted();
        conditions();
        callouts();
        return std::move(sheet_);
    }

private:
    void heading()
    {
        sheet_.subtitle = QStringLiteral("%1 · %2 · %3")
                              .arg(unitNote(study_),
                                  trueProportion_ ? QObject::tr("errors in true proportion")
                                                  : QObject::tr("errors drawn %1 times as large").arg(exaggeration),
                                  QObject::tr("seen along the radius, left is inboard"));
        if (read_)
            sheet_.title =
                QObject::tr("%1 %2 caliper over its rotor")
                    .arg(axle_ == Axle::Front ? QObject::tr("Front") : QObject::tr("Rear"),
                        study_.of<Centring>().corners[which_].mockUp->side == Side::Left ? QObject::tr("left") : QObject::tr("right"));
        sheet_.extent = QRectF(QPointF(-inDepth_ - 105, -tall_ - 16), QPointF(read_ ? column_ + 72 : outDepth_ + 62, tall_ + 16));
    }

    /// The rotor on edge, broken off above and below.
    void rotor()
    {
        const Ink iron { t_.ink, 1.4, Qt::SolidLine, t_.metalWash, Hatch::Falling, t_.ink, 6 };
        sheet_.area(rectangle(-half_, -tall_, half_, tall_), iron);
        sheet_.line(QPolygonF { QPointF(0, -tall_ - 8), QPointF(0, tall_ + 8) }, { t_.ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
        for (const double y : { -tall_, tall_ })
            sheet_.line(QPolygonF { QPointF(-half_ - 3, y), QPointF(-half_ / 2, y - 3), QPointF(half_ / 2, y + 3), QPointF(half_ + 3, y) },
                { t_.ink, 1.2, Qt::SolidLine, t_.paper, Hatch::None, {}, 0 });
    }

    /// Both halves, moved and turned by the error; y runs down, so the top is negative.
    void halves()
    {
        moved_.translate(shown_, 0);
        moved_.rotateRadians(std::atan(std::clamp(tilt_ * larger_, -0.12, 0.12)));
        const Ink cast { t_.proposal, 2, Qt::SolidLine, t_.proposalWash, Hatch::Falling, t_.proposal, 8 };
        const double chamfer = s_.caliper.shoulder * 700;
        const auto halfBody = [&](double inner, double outer) {
            const double cut = outer > 0 ? -chamfer : chamfer;
            QPainterPath path(QPointF(inner, -body_));
            path.lineTo(outer + cut, -body_);
            path.lineTo(outer, -body_ + chamfer);
            path.lineTo(outer, body_ - chamfer);
            path.lineTo(outer + cut, body_);
            path.lineTo(inner, body_);
            path.closeSubpath();
            return path;
        };
        sheet_.area(moved_.map(halfBody(slot_, outDepth_)), cast);
        sheet_.area(moved_.map(halfBody(-slot_, -inDepth_)), cast);
        const double backing = s_.pad.backing * 1000;
        for (const double way : { -1.0, 1.0 }) {
            sheet_.area(
                rectangle(way * half_, -padHalf_, way * (half_ + lining_), padHalf_), { t_.ink, 1, Qt::DashLine, {}, Hatch::None, {}, 0 });
            sheet_.area(rectangle(way * (half_ + lining_), -padHalf_, way * (half_ + lining_ + backing), padHalf_),
                { t_.ink, 1, Qt::DashLine, {}, Hatch::None, {}, 0 });
        }
        sheet_.line(QPolygonF { moved_.map(QPointF(0, -body_ - 6)), moved_.map(QPointF(0, body_ + 6)) },
            { t_.proposal, 1.2, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
    }

    /// Ears, shims and knuckle, inboard. A thicker stack moves the caliper where its side of the ear makes it.
    void ears()
    {
        const Ink bracket { t_.ink, 1.2, Qt::SolidLine, t_.metalWash, Hatch::Rising, t_.metal, 7 };
        for (const auto& [y, reading] : { std::pair { -bolts_, &in_.shimTop }, std::pair { bolts_, &in_.shimBottom } }) {
            const double thick = stack(*reading);
            sheet_.area(rectangle(earFrom_ - 16, y - 13, earFrom_ + 14, y + 13), bracket);
            const double shims = earFrom_ - 16 - thick;
            addStack(sheet_, shims, y - 10, y + 10, thick);
            sheet_.area(
                rectangle(shims - 26, y - 17, shims, y + 17), { t_.ink, 1.2, Qt::SolidLine, t_.metalWash, Hatch::Falling, t_.metal, 7 });
            sheet_.area(rectangle(shims - 34, y - 5, earFrom_ + 20, y + 5), { t_.ink, 1, Qt::SolidLine, t_.paper, Hatch::None, {}, 0 });
            sheet_.area(rectangle(shims - 42, y - 9, shims - 34, y + 9), { t_.ink, 1.2, Qt::SolidLine, t_.metalWash, Hatch::None, {}, 0 });
            sheet_.line(
                QPolygonF { QPointF(shims - 48, y), QPointF(earFrom_ + 26, y) }, { t_.ink, 0.8, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
        }
        sheet_.letter({ earFrom_ - 32, -bolts_ - 23 }, QObject::tr("top bolt"), 12, t_.mute);
        sheet_.letter({ earFrom_ - 32, bolts_ + 23 }, QObject::tr("bottom bolt"), 12, t_.mute);
        sheet_.letter({ earFrom_ - 32, (27 - bolts_) / 2 },
            mount_.shimMoves == Direction::Inboard        ? QObject::tr("thicker: inboard")
                : mount_.shimMoves == Direction::Outboard ? QObject::tr("thicker: outboard")
                                                          : QObject::tr("thicker moves it: not said"),
            12, mount_.shimMoves == Direction::Unknown ? t_.unproven : t_.mute);
        sheet_.letter({ 0, -tall_ - 11 }, QObject::tr("rotor"), 12, t_.mute);
    }

    /// The four gaps and the pad edges of a mock-up.
    void gapsRead()
    {
        if (result_) {
            const auto gap = [&](const char* key, double y, double side) {
                const QPointF face(side * half_, y);
                const QPointF wall = moved_.map(QPointF(side * slot_, y));
                sheet_.dimensions.push_back(
                    { mockUp_ + key, {}, face, QPointF(wall.x(), y), Run::Horizontal, y, false, {}, side > 0 ? 2.6 : 2.6 });
            };
            gap("/inner_top_mm", -gaps_, -1);
            gap("/outer_top_mm", -gaps_, 1);
            gap("/inner_bottom_mm", gaps_, -1);
            gap("/outer_bottom_mm", gaps_, 1);
            sheet_.dimensions.push_back({ mockUp_ + "/gap_spacing_mm", {}, { outDepth_, -gaps_ }, { outDepth_, gaps_ }, Run::Vertical,
                outDepth_ + 18, false, QObject::tr("apart"), 0.62 });
            // The pad's ends under the rotor's edge, read from outboard with a depth rod.
            const auto edge = [&](const char* key, double y) {
                sheet_.dimensions.push_back({ mockUp_ + key, {}, { half_ + lining_ / 2, y }, { outDepth_ + 18, y }, Run::Leader, 0, false,
                    QObject::tr("pad below edge"), 0.5, true, QStringLiteral("–") });
            };
            edge("/pad_edge_top_mm", -padHalf_ + 3);
            edge("/pad_edge_bottom_mm", padHalf_ - 3);
        }
    }

    /// Shims, and what the caliper has of its own.
    void fitted()
    {
        sheet_.dimensions.push_back({ pointer_ + "/mount/bolt_spacing_mm", {}, { earFrom_ - 60, -bolts_ }, { earFrom_ - 60, bolts_ },
            Run::Vertical, -inDepth_ - 84, false, QObject::tr("bolts"), 0.5 });
        const double shimLine = 17;
        sheet_.dimensions.push_back({ ofSide_ + "/shim_top_mm", {}, { earFrom_ - 16 - stack(in_.shimTop), -bolts_ + 10 },
            { earFrom_ - 16, -bolts_ + 10 }, Run::Horizontal, -bolts_ + shimLine + 10, false, QObject::tr("shims"), 0.5 });
        sheet_.dimensions.push_back({ ofSide_ + "/shim_bottom_mm", {}, { earFrom_ - 16 - stack(in_.shimBottom), bolts_ - 10 },
            { earFrom_ - 16, bolts_ - 10 }, Run::Horizontal, bolts_ - shimLine - 10, false, QObject::tr("shims"), 0.5 });
        if (radial_)
            for (const auto& [key, y, caption] : { std::tuple { "/radial_top_mm", -bolts_ - 8, QObject::tr("under the stud") },
                     std::tuple { "/radial_bottom_mm", bolts_ + 8, QObject::tr("under the stud") } })
                sheet_.dimensions.push_back({ ofSide_ + key, {}, { earFrom_ + 8, y }, { earFrom_ + 14, y < 0 ? y - 12 : y + 12 },
                    Run::Leader, 0, false, caption, 0.5, true, QStringLiteral("none") });
        sheet_.dimensions.push_back({ pointer_ + "/caliper/slot_width_mm", {}, moved_.map(QPointF(-slot_, body_)),
            moved_.map(QPointF(slot_, body_)), Run::Horizontal, body_ + 10, false, QObject::tr("slot"), 0.5 });
    }

    /// How it was read, before it is believed.
    void conditions()
    {
        if (result_) {
            // How it was read, before it is believed.
            const double pixel = sheet_.extent.height() / 508;
            double y = -tall_ + 2;
            sheet_.letter({ column_, y }, QObject::tr("While reading"), 14, t_.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
            y += 12 * pixel;
            const auto fact = [&](const char* key, const QString& caption) {
                sheet_.fact(mockUp_ + key, caption, { column_, y }, 128);
                y += 40 * pixel;
            };
            fact("/seated", QObject::tr("Rotor flat, hub clean"));
            fact("/nuts", QObject::tr("Nuts that hold it"));
            fact("/settled", QObject::tr("Play taken up one way"));
            fact("/shaft_in", QObject::tr("Drive shaft in"));
            sheet_.fact(pointer_ + "/mount/kind", QObject::tr("Mount"), { column_, y }, 128);
            y += 50 * pixel;
            if (radial_) {
                sheet_.letter(
                    { column_, y }, QObject::tr("Shims when heights were read"), 12, t_.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
                sheet_.dimensions.push_back(
                    { pointer_ + "/mount/radial_read_mm", {}, {}, { column_, y + 19 * pixel }, Run::Table, 0, false, {}, 0.5 });
                y += 46 * pixel;
            }
            sheet_.letter({ column_, y }, QObject::tr("Play on loose bolts"), 12, t_.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
            sheet_.dimensions.push_back(
                { mockUp_ + "/play_mm", {}, {}, { column_, y + 19 * pixel }, Run::Table, 0, false, {}, 0.5, true, QStringLiteral("–") });
            y += 46 * pixel;
            const auto& passes = result_->mockUp->passes;
            if (!passes.empty()) {
                sheet_.letter({ column_, y }, QObject::tr("Read before"), 14, t_.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
                for (std::size_t i = passes.size() > 4 ? passes.size() - 4 : 0; i < passes.size(); ++i) {
                    const Pass& p = passes[i];
                    y += 19 * pixel;
                    const bool known = p.innerTop.value && p.outerTop.value && p.innerBottom.value && p.outerBottom.value;
                    const double was =
                        known ? (*p.outerTop.value - *p.innerTop.value + *p.outerBottom.value - *p.innerBottom.value) / 4 : NAN;
                    sheet_.letter({ column_, y },
                        QObject::tr("%1. %2 off, shims %3 and %4")
                            .arg(i + 1)
                            .arg(QString::fromStdString(figure(was, style::fine, study_.system)),
                                QString::fromStdString(figure(p.shimTop.value.value_or(0), style::fine, study_.system)),
                                QString::fromStdString(figure(p.shimBottom.value.value_or(0), style::fine, study_.system))),
                        12, t_.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
                }
                if (result_->learnt)
                    sheet_.letter({ column_, y + 20 * pixel },
                        QObject::tr("shims moved it %1 of their own").arg(result_->learnt->ratio, 0, 'f', 2), 12, t_.ink,
                        Qt::AlignLeft | Qt::AlignVCenter, false);
            }
        }
    }

    /// Verdicts, where they are seen.
    void callouts()
    {
        const auto call = [&](const Check& check, const QString& text, QPointF from, QPointF to, QPointF wish) {
            if (const Verdict* v = study_.verdict(check, { axle_, whose_ })) {
                const auto said = v->figure.value ? QString::fromStdString(figure(*v->figure.value, style::fine, study_.system))
                        + (result_
                                ? QStringLiteral(" ±") + QString::fromStdString(figure(v->figure.rootSumSquare, style::fine, study_.system))
                                : QString())
                                                  : QStringLiteral("?");
                sheet_.callouts.push_back({ v->id, text.arg(said), v->level, from, to, wish });
            }
        };
        call(result_ ? checks::axial : checks::axialByDimensions, QStringLiteral("%1"), { 0, -body_ - 4 }, { shown_, -body_ - 4 },
            { shown_ + 34, -body_ - 14 });
        if (result_) {
            call(checks::tilt, QObject::tr("tilt %1"), moved_.map(QPointF(0, body_ + 4)), { shown_, body_ + 4 },
                { shown_ + 52, body_ + 16 });
            call(checks::padEdgeRead, QObject::tr("pad edge %1"), { half_ + lining_ / 2, 0 }, { half_ + lining_ / 2, 0 },
                { outDepth_ + 24, -14 });
        }
    }

    double stack(const Reading& reading) { return reading.value.value_or(0) * 1000; }

    Sheet sheet_;
    const Study& study_;
    const std::size_t which_;
    const bool trueProportion_;
    const Theme& t_ = theme();
    const double larger_ = trueProportion_ ? 1 : exaggeration;
    const bool read_ = which_ < study_.of<Centring>().corners.size();
    const Axle axle_ = read_ ? study_.of<Centring>().corners[which_].mockUp->axle : Axle::Front;
    const Side whose_ = read_ ? study_.of<Centring>().corners[which_].mockUp->side : Side::Left;
    const CornerClearance& corner_ = study_.of<Clearance>().after.at(axle_).at(whose_);
    const fit::CornerShape& s_ = corner_.drawn;
    const Mount& mount_ = corner_.corner->mount;
    const Fitted& in_ = corner_.corner->at(whose_);
    const bool radial_ = mount_.kind == MountKind::Radial;
    const CentringResult* result_ = read_ ? &study_.of<Centring>().corners[which_] : nullptr;
    const double half_ = s_.rotor.thickness * 500;
    const double slot_ = s_.caliper.slotWidth * 500;
    const double outDepth_ = s_.caliper.outboardDepth * 1000;
    const double inDepth_ = s_.caliper.inboardDepth * 1000;
    const double bolts_ = mount_.boltSpacing.value.value_or(0.14) * 500;
    const double gaps_ = (result_ ? result_->mockUp->gapSpacing.value.value_or(0.1) : 0.1) * 500;
    const double body_ = std::max({ s_.caliper.backHalfLength * 1000 + 12, gaps_ + 10, 30.0 });
    const double tall_ = std::max(body_, bolts_) + 22;
    const double error_ = result_ ? result_->axial.value.value_or(0) * 1000 : fit::axialOffset(s_) * 1000;
    const double tilt_ = result_ && result_->tilt.value ? *result_->tilt.value / corner_.corner->pad.length.value.value_or(0.1) : 0;
    const double shown_ = std::clamp(error_ * larger_, -slot_ + half_ + 1, slot_ - half_ - 1);
    const double column_ = outDepth_ + 58; // of what is said about the reading
    QTransform moved_ {};
    // Pads against the rotor, their backs to the pistons.
    const double padHalf_ = corner_.corner->pad.length.value.value_or(0.1) * 500;
    const double lining_ = s_.pad.thickness * 1000;
    // Ears, shims and knuckle, inboard. A thicker stack moves the caliper where its side of the ear makes it.
    const double earFrom_ = -inDepth_ - 4;
    const std::string pointer_ = cornerPointer(study_, study_.after, axle_);
    const std::string ofSide_ = pointer_ + (whose_ == Side::Left ? "/left" : "/right");
    const std::ptrdiff_t index_ = result_ ? result_->mockUp - study_.build->mockUps.data() : 0;
    const std::string mockUp_ = "/mock_ups/" + std::to_string(index_);
};

} // namespace

Sheet centringSheet(const Study& study, std::size_t which, bool trueProportion)
{
    Sheet sheet;
    const bool read = which < study.of<Centring>().corners.size();
    const Axle axle = read ? study.of<Centring>().corners[which].mockUp->axle : Axle::Front;
    const Side whose = read ? study.of<Centring>().corners[which].mockUp->side : Side::Left;
    const CornerClearance& corner = study.of<Clearance>().after.at(axle).at(whose);
    sheet.title = QObject::tr("Caliper over its rotor");
    sheet.scaleBar = trueProportion;
    if (!corner.corner)
        return sheet;
    return CentringDrawing(std::move(sheet), study, which, trueProportion).drawn();
}

} // namespace deepstop::app
