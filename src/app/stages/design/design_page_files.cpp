/// What leaves the page: the kit into the build, the order and the drawings onto paper and into files.

#include "stages/design/design_page.hpp"

#include "document.hpp"
#include "files/exports.hpp"
#include "files/paper_files.hpp"
#include "language/language.hpp"
#include "library/kit.hpp"
#include "solids/solid_files.hpp"
#include "theme.hpp"
#include "widgets/save_dialog.hpp"

#include <QDate>
#include <QInputDialog>
#include <QPushButton>

#include <algorithm>

namespace deepstop::app {

QString DesignPage::order() const
{
    if (!work_ || !work_->map->lacks.empty())
        return {};
    auto leaf = design::orderSheet(*work_->maker, *work_->map, proposal_,
        work_->best[0].proposal == proposal_ ? work_->best[0].binds : std::vector<std::string> {},
        QDate::currentDate().toString(Qt::ISODate).toStdString());
    QString html = QStringLiteral("<body style='color:%1'><h2>%2</h2><p>%3</p>")
                       .arg(theme().ink.name(), QString::fromStdString(leaf.title).toHtmlEscaped(),
                           QString::fromStdString(leaf.subtitle).toHtmlEscaped());
    bool table = false;
    for (const report::Block& block : leaf.blocks) {
        const bool row = block.kind == report::Block::Kind::Row;
        if (row != table) {
            html += row ? QStringLiteral("<table cellspacing='6'>") : QStringLiteral("</table>");
            table = row;
        }
        const auto text = QString::fromStdString(block.text).toHtmlEscaped();
        if (row) {
            html += QStringLiteral("<tr>");
            for (const std::string& cell : block.cells) {
                const auto words = QString::fromStdString(cell).toHtmlEscaped();
                html += QStringLiteral("<td>%1</td>").arg(block.head ? QStringLiteral("<b>%1</b>").arg(words) : words);
            }
            html += QStringLiteral("</tr>");
        } else if (block.kind == report::Block::Kind::Heading) {
            html += QStringLiteral("<h3>%1</h3>").arg(text);
        } else if (block.kind == report::Block::Kind::Caution) {
            html += QStringLiteral("<p style='color:%1'>%2</p>").arg(theme().bad.name(), text);
        } else {
            html += QStringLiteral("<p>%1</p>").arg(text);
        }
    }
    return html + (table ? QStringLiteral("</table>") : QString()) + QStringLiteral("</body>");
}

void DesignPage::putIn()
{
    if (!work_)
        return;
    bool said = false;
    const auto name = QInputDialog::getText(this, tr("Put into the build"), tr("Name of the new setup"), QLineEdit::Normal,
        tr("Designed Ø %1").arg(QString::fromStdString(print(proposal_.rotor, style::size, UnitSystem::Metric))), &said);
    if (!said || name.trimmed().isEmpty())
        return;
    const std::string newId = library::freeSetupId(document().build(), name.trimmed().toStdString(), "design");
    if (document().edit(tr("designed kit"), design::putIn(*work_->maker, proposal_, name.trimmed().toStdString())))
        document().setPair({ document().study().before.setup->id, newId });
}

void DesignPage::save()
{
    const bool whole = place() == Map || place() == Order;
    const auto path = whole
        ? askWhereToSave(this, tr("Order"), QStringLiteral("order.pdf"), tr("PDF (*.pdf)"), QStringLiteral("pdf"))
        : askWhereToSave(this, tr("Drawing"),
            place() == Hat        ? QStringLiteral("hat.pdf")
                : place() == Ring ? QStringLiteral("ring.pdf")
                                  : QStringLiteral("bracket.pdf"),
            tr("PDF (*.pdf);;DXF (*.dxf);;STEP (*.step);;STL for a fit check in plastic (*.stl)"), QStringLiteral("pdf"));
    if (path.isEmpty())
        return;
    // A ring with all its vanes takes its time as a solid.
    save_->setEnabled(false);
    writing_.start([write = writing(path)](const JobTicket&) { return write(); },
        [this](const QString& why) {
            save_->setEnabled(true);
            if (!why.isEmpty())
                emit refused(why);
        },
        [this](const std::exception& error) {
            save_->setEnabled(true);
            emit refused(QString::fromUtf8(error.what()));
        });
}

bool DesignPage::write(const QString& path)
{
    if (!work_)
        return false;
    const QString why = writing(path)();
    if (!why.isEmpty())
        emit refused(why);
    return why.isEmpty();
}

/// What writes it, and says why it could not; from any thread.
std::function<QString()> DesignPage::writing(const QString& path) const
{
    return [work = work_, proposal = proposal_, place = place(), us = document().units() == UnitSystem::Us, file = path.toStdString(),
               date = QDate::currentDate().toString(Qt::ISODate).toStdString()]() -> QString {
        const auto size = us ? paper::letter() : paper::a4();
        try {
            if (place == Map || place == Order) {
                const auto binds = work->best[0].proposal == proposal ? work->best[0].binds : std::vector<std::string> {};
                const auto leaf = design::orderSheet(*work->maker, *work->map, proposal, binds, date);
                files::exportFile(file, files::pdfOf(report::sheetsOf(leaf, size), deepstop::tr("Order")));
                return {};
            }
            const char* key = place == Hat ? "hat" : place == Ring ? "ring" : "bracket";
            const auto parts = design::partsToMake(*work->maker, proposal, date);
            const auto part = std::ranges::find(parts, key, &design::ShopPart::key);
            if (part == parts.end())
                throw files::Refusal(deepstop::tr("Cannot be drawn: readings of knuckle or caliper lack."));
            if (part->turned)
                solids::writeTurned(file, *part->turned, part->drawing, size);
            else
                solids::writePlate(file, *part->plate, part->drawing, size);
        } catch (const std::exception& refusal) {
            return QString::fromUtf8(refusal.what());
        }
        return {};
    };
}

} // namespace deepstop::app
