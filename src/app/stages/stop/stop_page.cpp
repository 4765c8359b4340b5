#include "stages/stop/stop_page.hpp"

#include "files/refusal.hpp"
#include "print/leaf_window.hpp"
#include "proving/pasted.hpp"
#include "report/test_plan.hpp"
#include "stages/course_chart.hpp"
#include "stages/sheets.hpp"
#include "stages/stop/live_view.hpp"
#include "stages/stop/stop_sheets.hpp"
#include "theme.hpp"
#include "window/application.hpp"
#include "widgets/step_list.hpp"

#include <QDateTime>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QProgressBar>
#include <QPushButton>
#include <QTextBrowser>

#include <algorithm>

namespace deepstop::app {

StopPage::StopPage(Document& document, QWidget* parent)
    : StagePage(document, StopPage::id, Row::Over, parent), chart_(new CourseChart(CourseChart::Of::Speed, this)), plan_(new QWidget(this)),
      inspection_(new StepList(plan_)), planned_(new QTextBrowser(plan_)), print_(new QPushButton(tr("Plan on paper…"))),
      live_(new LiveView(this)), foot_(new QWidget(this)), begin_(new QPushButton(tr("Begin a session"))),
      log_(new QPushButton(tr("From a logger's file…"))), progress_(new QProgressBar), pasted_(new QLineEdit)
{
    column()->addWidget(chart_, 2);
    auto* beside = new QHBoxLayout(plan_);
    beside->setContentsMargins(0, 0, 0, 0);
    beside->setSpacing(0);
    beside->addWidget(inspection_, 6);
    auto* right = new QVBoxLayout;
    right->addWidget(planned_, 1);
    right->addWidget(print_, 0, Qt::AlignLeft);
    right->setContentsMargins(8, 0, 12, 8);
    beside->addLayout(right, 5);
    inspection_->setHeadroom(6);
    inspection_->setObjectName(QStringLiteral("inspection"));
    planned_->setObjectName(QStringLiteral("plan"));
    planned_->setFrameShape(QFrame::NoFrame);
    planned_->setTabChangesFocus(true);
    column()->addWidget(plan_, 3);
    column()->addWidget(live_, 3);
    auto* row = new QHBoxLayout(foot_);
    row->setContentsMargins(14, 4, 14, 8);
    row->addWidget(begin_);
    row->addWidget(log_);
    progress_->setRange(0, 100);
    progress_->setMaximumWidth(160);
    progress_->hide();
    row->addWidget(progress_);
    pasted_->setObjectName(QStringLiteral("pasted-stops"));
    pasted_->setPlaceholderText(tr("several stops in one line: from 60 mph, out: 171 171 178 179 175 ft"));
    pasted_->setAccessibleName(tr("Several stops in one line, with the speed they were made from"));
    row->addWidget(pasted_, 1);
    column()->addWidget(foot_);
    log_->setToolTip(tr("NMEA 0183, GPX with times, or CSV: hard stops are found by themselves"));
    connect(begin_, &QPushButton::clicked, this, &StopPage::beginSession);
    connect(log_, &QPushButton::clicked, this, [this] {
        if (reading_.isRunning()) {
            reading_.cancel();
            progress_->hide();
            log_->setText(tr("From a logger's file…"));
            return;
        }
        if (const auto path = QFileDialog::getOpenFileName(this, tr("A logger's file"), {}, tr("Logs (*.nmea *.gpx *.csv *.txt *.log)"));
            !path.isEmpty())
            takeLog(path);
    });
    // Put in by Enter; half typed it asks before anything else begins.
    document.drafts().watch(pasted_, [this] { return takePasted(); });
    connect(pasted_, &QLineEdit::returnPressed, this, [this] { takePasted(); });
    // A receiver is heard for one car.
    connect(&document, &Document::replaced, live_, &LiveView::stopListening);
    connect(inspection_, &StepList::said, this, &StopPage::tick);
    connect(live_, &LiveView::found, this, &StopPage::stopFound);
    connect(live_, &LiveView::refused, this, &StagePage::refused);
    connect(print_, &QPushButton::clicked, this, &StopPage::printPlan);
}

/// A session put at the end; nothing where its setup is gone.
Edit StopPage::withSession(TestSession session)
{
    return [session = std::move(session)](const Build& now) -> std::optional<Build> {
        if (!findSetup(now, session.setup))
            return {};
        Build build = now;
        build.tests.push_back(session);
        return build;
    };
}

QStringList StopPage::placeNames() const
{
    return { tr("Road"), tr("Prediction"), tr("Plan"), tr("Runs"), tr("Traces"), tr("Fade"), tr("Seen"), tr("Live") };
}

Sheet StopPage::sheet(int place) const
{
    const Study& study = document().study();
    switch (place) {
    case Prediction:
        return predictionSheet(study);
    case Runs:
        return runsSheet(study, lastSession(study, Series::Compare));
    case Traces:
        return tracesSheet(study);
    case Fade:
        return fadeSheet(study, lastSession(study, Series::Fade));
    case Observed:
        return observedSheet(study, observedSession(study));
    case Plan:
    case Live:
        return {};
    default:
        return roadSheet(study);
    }
}

int StopPage::placeFor(const Verdict& verdict) const
{
    return shownIn(verdict, { { "prediction", Prediction }, { "runs", Runs }, { "fade", Fade }, { "observed", Observed } }).value_or(Road);
}

std::optional<std::size_t> StopPage::observedSession(const Study& study)
{
    const auto compared = lastSession(study, Series::Compare);
    return compared ? compared : lastSession(study, Series::Fade);
}

QString StopPage::planText() const { return planned_->toPlainText(); }

void StopPage::refreshRest()
{
    const Study& study = document().study();
    chart_->setVisible(place() == Road);
    plan_->setVisible(place() == Plan);
    live_->setVisible(place() == Live);
    foot_->setVisible(place() == Runs || place() == Traces || place() == Fade || place() == Observed);
    if (place() == Road)
        chart_->setStudy(study, axle());
    if ((place() != Plan && place() != Live) || study.underWay || !study.after.setup)
        return;
    const auto plan = report::testPlanOf(study);
    if (place() == Live) {
        live_->setPlan(plan.speed, plan.cooling, study.system);
        return;
    }
    const auto session = lastSession(study, Series::Compare);
    std::vector<StepRow> rows;
    for (const auto& item : plan.inspection) {
        StepRow row;
        row.id = item.id;
        row.group = tr("Inspection, every test day");
        row.text = QString::fromStdString(item.text);
        if (session)
            for (const Tick& tick : study.build->tests[*session].inspected)
                if (tick.step == item.id) {
                    row.state = tick.state;
                    row.done = QString::fromStdString(tick.when);
                }
        rows.push_back(std::move(row));
    }
    const bool all = session && std::ranges::all_of(rows, [](const StepRow& r) { return r.state == Checked::Fine; });
    rows.front().group = all ? tr("Inspected: all of it")
        : session            ? tr("Inspection, every test day: not done yet")
                             : tr("Inspection: ticking the first line begins a session");
    for (auto& row : rows)
        row.group = rows.front().group;
    inspection_->setRows(rows);
    const auto text = QString::fromStdString(report::printed(study, plan, false));
    if (planned_->toPlainText().trimmed() != text.trimmed()) {
        planned_->document()->setDefaultFont(reading(13));
        planned_->setPlainText(text);
    }
}

TestSession StopPage::newSession() const
{
    const Study& study = document().study();
    TestSession session;
    session.setup = study.after.setup->id;
    session.date = QDate::currentDate().toString(Qt::ISODate).toStdString();
    session.series = series();
    session.ran = report::frozen(*study.build, *study.after.setup);
    return session;
}

void StopPage::beginSession() { document().edit(tr("a session"), withSession(newSession())); }

/// Stops of a notebook's line, put into the last session of that kind, or into a new one.
bool StopPage::takePasted()
{
    const auto text = pasted_->text().trimmed();
    if (text.isEmpty()) {
        document().drafts().settle(pasted_->objectName());
        return true;
    }
    const auto read = proving::readStops(text.toStdString(), document().units());
    if (!read.refusal.empty()) {
        emit refused(QString::fromStdString(read.refusal));
        return false;
    }
    const auto series = place() == Fade ? Series::Fade : Series::Compare;
    const auto session = lastSession(document().study(), series);
    auto fresh = newSession();
    fresh.series = series;
    const bool put = document().edit(tr("%1 stops").arg(read.distances.size()), [&](const Build& now) -> std::optional<Build> {
        if (!findSetup(now, fresh.setup))
            return {};
        Build build = now;
        const bool there = session && *session < build.tests.size();
        if (!there)
            build.tests.push_back(fresh);
        auto& stops = (there ? build.tests[*session] : build.tests.back()).stops;
        for (const double distance : read.distances) {
            MeasuredStop& stop = stops.emplace_back();
            stop.speed = { read.speed, {}, Known::Measured, {}, fresh.date };
            stop.distance = { distance, {}, Known::Measured, "tape", fresh.date };
            stop.way = read.way;
        }
        return build;
    });
    if (put) {
        pasted_->clear();
        document().drafts().settle(pasted_->objectName());
    }
    return put;
}

void StopPage::tick(const std::string& step, Checked state)
{
    const auto session = lastSession(document().study(), Series::Compare);
    const auto when = QDateTime::currentDateTime().toString(QStringLiteral("yyyy-MM-dd HH:mm")).toStdString();
    document().edit(tr("inspection"), [&, fresh = newSession()](const Build& now) -> std::optional<Build> {
        if (!findSetup(now, fresh.setup))
            return {};
        Build build = now;
        if (!session || *session >= build.tests.size())
            build.tests.push_back(fresh);
        auto& ticks = build.tests[session && *session < build.tests.size() ? *session : build.tests.size() - 1].inspected;
        auto found = std::ranges::find(ticks, step, &Tick::step);
        if (found == ticks.end()) {
            ticks.push_back({});
            found = std::prev(ticks.end());
            found->step = step;
        }
        found->state = state;
        found->when = when;
        return build;
    });
}

void StopPage::takeLog(const QString& path)
{
    if (const Setup* setup = document().study().after.setup)
        askColumns(
            path, this,
            [this, path, of = document().stamp(), setup = setup->id, series = series()](
                const AskedColumns& asked) { readLog(path, asked, of, setup, series); },
            [this](const QString& why) { emit refused(why); });
}

void StopPage::readLog(const QString& path, const AskedColumns& asked, const Stamp& of, const std::string& setup, Series series)
{
    const auto idle = [this] {
        progress_->hide();
        log_->setText(tr("From a logger's file…"));
    };
    progress_->setValue(0);
    progress_->show();
    log_->setText(tr("Cancel"));
    reading_.start(
        [path, columns = asked.columns](const JobTicket& ticket) {
            return report::stopsInLog(
                path.toStdString(), [&](double part) { return ticket.progress(part); }, columns);
        },
        [=, this](report::LoggedStops log) {
            idle();
            logRead(path, log, of, setup, series);
        },
        [=, this](const std::exception& wrong) {
            idle();
            emit refused(saidBy(wrong));
        },
        [this](int percent) { progress_->setValue(percent); });
}

void StopPage::logRead(const QString& path, const report::LoggedStops& log, const Stamp& of, const std::string& setup, Series series)
{
    if (!document().isOpen(of)) {
        emit refused(tr("%1 was read for the build that was open before. Nothing of it was put into this one.").arg(path));
        return;
    }
    const auto lost = QString::fromStdString(report::lostIn(log.count));
    if (log.stops.empty()) {
        emit refused(tr("%1: no hard stop is in it.").arg(path) + (lost.isEmpty() ? lost : QLatin1Char(' ') + lost));
        return;
    }
    if (!findSetup(document().build(), setup)) {
        emit refused(tr("%1: the setup it was read for is no longer in the build. Nothing was put in.").arg(path));
        return;
    }
    auto session = report::sessionOf(document().build(), setup, log, QFileInfo(path).completeBaseName().toStdString(),
        QDate::currentDate().toString(Qt::ISODate).toStdString());
    session.series = series;
    if (document().edit(tr("%1 stops of a log").arg(log.stops.size()), withSession(std::move(session))) && !lost.isEmpty())
        emit refused(tr("%1: %2").arg(path, lost));
}

void StopPage::stopFound(const proving::FoundStop& stop)
{
    const Study& study = document().study();
    if (!study.after.setup)
        return;
    const auto today = QDate::currentDate().toString(Qt::ISODate).toStdString();
    document().edit(tr("a stop from the receiver"), [&, setup = study.after.setup->id](const Build& now) -> std::optional<Build> {
        if (!findSetup(now, setup))
            return {};
        Build build = now;
        // Into the session that a receiver has begun today, or an empty one; what a log brought is another drive.
        const auto goesOn = [&](const TestSession& s) {
            return s.setup == setup && s.date == today && s.series == Series::Compare && s.log.empty()
                && (s.stops.empty() || s.from == MeasuredFrom::Hold);
        };
        std::size_t at = build.tests.size();
        while (at > 0 && !goesOn(build.tests[at - 1]))
            --at;
        if (at == 0) {
            build.tests.push_back(newSession());
            at = build.tests.size();
        }
        TestSession& session = build.tests[at - 1];
        session.series = Series::Compare;
        session.from = MeasuredFrom::Hold;
        session.stops.push_back(report::measuredOf(stop));
        return build;
    });
}

void StopPage::printPlan()
{
    const Study& study = document().wholeStudy();
    LeafWindow window(report::planLeaf(study, report::testPlanOf(study), QDate::currentDate().toString(Qt::ISODate).toStdString()), this);
    window.exec();
}

} // namespace deepstop::app
