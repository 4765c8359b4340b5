#include "stages/logbook/logbook_page.hpp"

#include "language/language.hpp"
#include "widgets/save_dialog.hpp"
#include "document.hpp"
#include "files/exports.hpp"
#include "logbook/logbook.hpp"
#include "stages/logbook/logbook_sheets.hpp"

#include <QDateTime>
#include <QHBoxLayout>
#include <QPushButton>

#include <algorithm>

namespace deepstop::app {

std::pair<Level, std::string> stateOfLog(const Study& study)
{
    const Build& build = *study.build;
    if (build.log.empty())
        return { Level::Unproven, deepstop::tr("nothing written") };
    const int today = *dayOf(QDate::currentDate().toString(Qt::ISODate).toStdString());
    const auto reminders = logbook::remindersOf(build);
    const auto due = std::ranges::count_if(reminders, [&](const logbook::Reminder& r) { return !r.done && r.day <= today; });
    return due > 0 ? std::pair { Level::Caution, deepstop::tr("{} due", due) }
                   : std::pair { Level::Good, std::string(deepstop::tr("nothing due")) };
}

LogbookPage::LogbookPage(Document& document, QWidget* parent)
    : StagePage(document, LogbookPage::id, Row::Over, parent), add_(new QPushButton(tr("Add entry"))),
      wear_(new QPushButton(tr("Record wear"))), calendar_(new QPushButton(tr("What is due, as a calendar…"))), foot_(new QWidget(this))
{
    auto* row = new QHBoxLayout(foot_);
    row->setContentsMargins(14, 4, 14, 8);
    for (QPushButton* button : { add_, wear_, calendar_ })
        row->addWidget(button);
    row->addStretch(1);
    column()->addWidget(foot_);
    connect(add_, &QPushButton::clicked, this, [this] { addEntry(false); });
    connect(wear_, &QPushButton::clicked, this, [this] { addEntry(true); });
    connect(calendar_, &QPushButton::clicked, this, [this] {
        const auto path =
            askWhereToSave(this, tr("What is due"), QStringLiteral("brakes.ics"), tr("Calendars (*.ics)"), QStringLiteral("ics"));
        if (path.isEmpty())
            return;
        if (const auto why = saveCalendar(path); !why.isEmpty())
            emit refused(why);
    });
}

QStringList LogbookPage::placeNames() const { return { tr("Timeline"), tr("Wear"), tr("Buying") }; }

Sheet LogbookPage::sheet(int place) const
{
    const Study& study = document().study();
    const auto today = QDate::currentDate().toString(Qt::ISODate).toStdString();
    if (place == Buying)
        return buyingSheet(study);
    return place == Wear ? wearSheet(study, entry_) : lifeSheet(study, entry_, today);
}

void LogbookPage::refreshRest()
{
    foot_->setVisible(place() != Buying);
    const auto size = document().build().log.size();
    if (entry_ && *entry_ >= size)
        entry_.reset();
    if (!entry_ && size > 0)
        entry_ = logbook::inOrder(document().build()).back();
}

void LogbookPage::chosenInView(const std::string& mark)
{
    const std::string begin = "log-";
    if (!mark.starts_with(begin)) {
        StagePage::chosenInView(mark);
        return;
    }
    entry_ = static_cast<std::size_t>(QString::fromStdString(mark.substr(begin.size())).toULongLong());
    refresh();
}

void LogbookPage::addEntry(bool withWear)
{
    const Study& study = document().study();
    LogEntry entry;
    entry.date = QDate::currentDate().toString(Qt::ISODate).toStdString();
    if (const Setup* on = logbook::onCar(document().build(), entry.date))
        entry.setup = on->id;
    if (withWear) {
        entry.event = LogEvent::Measured;
        for (const Axle axle : { Axle::Front, Axle::Rear })
            if (study.after.at(axle).corner)
                for (const Side side : { Side::Left, Side::Right })
                    entry.wear.push_back({ axle, side, {}, {} });
    }
    entry_ = document().build().log.size();
    document().edit(withWear ? tr("wear") : tr("an entry of the log"), [&](Build build) {
        build.log.push_back(entry);
        return build;
    });
}

QString LogbookPage::saveCalendar(const QString& path) const
{
    try {
        files::exportFile(path.toStdString(),
            logbook::calendarOf(
                document().build(), QDateTime::currentDateTimeUtc().toString(QStringLiteral("yyyyMMdd'T'HHmmss'Z'")).toStdString()));
    } catch (const files::Refusal& refusal) {
        return QString::fromUtf8(refusal.what());
    }
    return {};
}

} // namespace deepstop::app
