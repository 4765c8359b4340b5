#include "stages/logbook/logbook_sheets.hpp"

#include "quantity/format.hpp"
#include "report/purchases.hpp"
#include "stages/sheets.hpp"
#include "theme.hpp"

#include <QObject>

namespace deepstop::app {
namespace {

/// What has to be bought for a setup with its total beside the other setup's, and the questions to its vendor.
class BuyingSheet {
public:
    explicit BuyingSheet(const Study& study) : study_(study), setup_(*study.after.setup) { }

    Sheet drawn()
    {
        sheet_.scaleBar = false;
        sheet_.title = QObject::tr("Buying: %1").arg(QString::fromStdString(setup_.name));
        sheet_.subtitle = QObject::tr("what to buy, and what the vendor was asked · days as 2026-03-14");
        paper();
        purchases();
        questions();
        sheet_.extent = QRectF(QPointF(-8, -20), QPointF(762, std::max(480.0, y_ + 30)));
        return std::move(sheet_);
    }

private:
    void heading(const QString& text)
    {
        sheet_.letter({ 0, y_ + 8 }, text, 15, t_.ink, Qt::AlignLeft | Qt::AlignVCenter, false);
        y_ += 24;
    }
    void words(const QString& text, const QColor& colour)
    {
        sheet_.letter({ 0, y_ + 8 }, text, 13, colour, Qt::AlignLeft | Qt::AlignVCenter, false);
        y_ += 22;
    }

    void paper()
    {
        sheet_.fact(at_ + "/vendor", QObject::tr("Vendor"), { 0, y_ }, 180);
        sheet_.fact(at_ + "/instructions", QObject::tr("Fitting instructions came with it"), { 190, y_ }, 190);
        sheet_.fact(at_ + "/papers", QObject::tr("Certificates and approvals"), { 392, y_ }, 300);
        y_ += 50;
    }

    void purchases()
    {
        heading(QObject::tr("To buy"));
        for (std::size_t i = 0; i <= setup_.purchases.size(); ++i) {
            const bool there = i < setup_.purchases.size();
            const std::string at = at_ + "/purchases/" + (there ? std::to_string(i) : std::string("-"));
            sheet_.fact(at + "/what", there ? (i ? QString() : QObject::tr("Part")) : QObject::tr("Another part"), { 0, y_ }, 210);
            if (there) {
                sheet_.fact(at + "/number", i ? QString() : QObject::tr("Seller's number"), { 218, y_ }, 150);
                sheet_.fact(at + "/source", i ? QString() : QObject::tr("From"), { 376, y_ }, 180);
                sheet_.fact(at + "/pieces", i ? QString() : QObject::tr("Pieces"), { 564, y_ }, 56);
                sheet_.dimensions.push_back({ at + "/price", {}, {}, { 632, y_ + (i ? 12 : 24) }, Run::Table, 0, true, {}, 0.5 });
                if (i == 0)
                    sheet_.letter({ 632, y_ + 6 }, QObject::tr("Price of one"), 11, t_.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
            }
            y_ += there && i ? 30 : 42;
        }
        if (!setup_.purchases.empty())
            total();
        y_ += 8;
    }

    void total()
    {
        const auto list = report::purchasesOf(setup_);
        const auto money = [&](double amount) {
            return QStringLiteral("%1 %2").arg(amount, 0, 'f', 2).arg(QString::fromStdString(study_.build->currency)).trimmed();
        };
        if (!list.total.value)
            words((list.without == 1 ? QObject::tr("At least %1: %2 line has no price or pieces")
                                     : QObject::tr("At least %1: %2 lines have no price or pieces"))
                      .arg(money(list.known), QString::number(list.without)),
                t_.unproven);
        else
            words(QObject::tr("Total %1").arg(money(*list.total.value)), t_.ink);
        for (const Setup& other : study_.build->setups) {
            if (&other == &setup_ || other.purchases.empty())
                continue;
            const auto its = report::purchasesOf(other);
            words(list.total.value && its.total.value
                    ? QObject::tr("%1: %2, difference %3")
                          .arg(QString::fromStdString(other.name), money(*its.total.value),
                              money(std::abs(*list.total.value - *its.total.value))
                                  .prepend(*list.total.value < *its.total.value ? QChar(0x2212) : QLatin1Char('+')))
                    : QObject::tr("%1: not compared while a line has no price").arg(QString::fromStdString(other.name)),
                t_.mute);
        }
    }

    void questions()
    {
        heading(QObject::tr("Asked of the vendor"));
        for (std::size_t i = 0; i <= setup_.questions.size(); ++i) {
            const bool there = i < setup_.questions.size();
            const std::string at = at_ + "/questions/" + (there ? std::to_string(i) : std::string("-"));
            sheet_.fact(at + "/about", there ? (i ? QString() : QObject::tr("Question")) : QObject::tr("Another question"), { 0, y_ }, 330);
            if (there) {
                sheet_.fact(at + "/asked", i ? QString() : QObject::tr("Asked on"), { 338, y_ }, 96);
                sheet_.fact(at + "/answered", i ? QString() : QObject::tr("Answered on"), { 442, y_ }, 96);
                sheet_.fact(at + "/answer", i ? QString() : QObject::tr("Answer"), { 546, y_ }, 204);
            }
            y_ += there && i ? 30 : 42;
        }
    }

    Sheet sheet_;
    const Study& study_;
    const Setup& setup_;
    const Theme& t_ = theme();
    const std::string at_ = "/setups/" + std::to_string(study_.after.setup - study_.build->setups.data());
    double y_ = -12;
};

} // namespace

Sheet buyingSheet(const Study& study) { return study.after.setup ? BuyingSheet(study).drawn() : Sheet {}; }

} // namespace deepstop::app
