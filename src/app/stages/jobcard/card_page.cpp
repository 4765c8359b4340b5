#include "stages/jobcard/card_page.hpp"

#include "document.hpp"
#include "language/language.hpp"
#include "print/leaf_window.hpp"
#include "report/sheets.hpp"
#include "stages/jobcard/bedding_view.hpp"
#include "stages/jobcard/card_sheets.hpp"
#include "theme.hpp"
#include "widgets/step_list.hpp"

#include <QDateTime>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QSettings>
#include <QVBoxLayout>

#include <algorithm>

namespace deepstop::app {
namespace {

constexpr const char* whoKey = "hand/name";

QString joined(const std::vector<std::string>& words)
{
    QStringList all;
    for (const auto& word : words)
        all << QString::fromStdString(word);
    return all.join(QStringLiteral("; "));
}

} // namespace

std::pair<Level, std::string> stateOfCard(const Study& study)
{
    const auto card = jobcard::cardOf(study);
    if (card.steps.empty())
        return { Level::Unproven, deepstop::tr("nothing to fit") };
    const auto count = [&](auto which) {
        return std::ranges::count_if(card.steps, [&](const jobcard::Step& s) { return card.shows(s) && which(s); });
    };
    const auto done = count([](const jobcard::Step& s) { return s.state == Checked::Fine; });
    const auto faults = count([](const jobcard::Step& s) { return s.state == Checked::Fault; });
    // Done although what it rests on is not proven, or no longer.
    const auto broken = count([](const jobcard::Step& s) { return s.state == Checked::Fine && s.gated && !s.waits.empty(); });
    if (faults > 0)
        return { Level::Stop, faults == 1 ? std::string(deepstop::tr("1 fault")) : deepstop::tr("{} faults", faults) };
    if (broken > 0)
        return { Level::Caution, deepstop::tr("cut, not proven") };
    return { done == card.shown() ? Level::Good : Level::Unproven, deepstop::tr("{} of {} done", done, card.shown()) };
}

CardPage::CardPage(Document& document, QWidget* parent)
    : StagePage(document, CardPage::id, Row::Over, parent), list_(new StepList(this)), bedding_(new BeddingView(this)),
      foot_(new QWidget(this)), who_(new QLineEdit), reason_(new QLineEdit), open_(new QPushButton(tr("Open it for this reason"))),
      done_(new QPushButton(tr("Done"))), fault_(new QPushButton(tr("Fault"))), back_(new QPushButton(tr("Back"))),
      paper_(new QPushButton(tr("Card on paper…"))), build_(new QPushButton(tr("Build sheet…"))), own_(new QLineEdit),
      inspection_(new QPushButton)
{
    drawn_ = scroll()->minimumHeight();
    list_->setObjectName(QStringLiteral("job-card"));
    list_->setHeadroom(6);
    column()->insertWidget(0, list_, 7);
    column()->addWidget(bedding_, 3);
    connect(bedding_, &ReceiverView::refused, this, &StagePage::refused);
    connect(bedding_, &BeddingView::bedded, this, &CardPage::bedded);
    // A receiver is heard for one car.
    connect(&document, &Document::replaced, bedding_, &BeddingView::stopListening);
    auto* row = new QHBoxLayout(foot_);
    row->setContentsMargins(14, 4, 14, 8);
    who_->setPlaceholderText(tr("who works"));
    who_->setAccessibleName(tr("Who works"));
    who_->setMaximumWidth(130);
    who_->setText(QSettings().value(QLatin1String(whoKey)).toString());
    row->addWidget(who_);
    reason_->setPlaceholderText(tr("why it is opened without proof"));
    reason_->setAccessibleName(tr("Reason for opening a step that cannot be undone"));
    row->addWidget(reason_, 1);
    own_->setObjectName(QStringLiteral("own-step"));
    own_->setPlaceholderText(tr("own step, behind the one in hand"));
    own_->setAccessibleName(tr("Own step, written in behind the one in hand"));
    own_->setMinimumWidth(70);
    own_->setMaximumWidth(420);
    auto* over = new QHBoxLayout;
    over->setContentsMargins(14, 4, 14, 0);
    over->setSpacing(10);
    over->addWidget(own_, 1);
    inspection_->setObjectName(QStringLiteral("inspection"));
    inspection_->setCheckable(true);
    inspection_->setToolTip(tr("Steps about parts that stay: this job does not need them"));
    over->addWidget(inspection_);
    over->addStretch(0);
    column()->addLayout(over);
    for (QPushButton* button : { open_, back_, fault_, done_, paper_, build_ })
        row->addWidget(button);
    row->addStretch(0);
    column()->addWidget(foot_);
    // At the car Space ticks the step, whatever was in hand before.
    connect(this, &StagePage::placeChanged, this, [this] {
        if (place() == AtCar)
            done_->setFocus(Qt::OtherFocusReason);
    });
    who_->setObjectName(QStringLiteral("who-works"));
    reason_->setObjectName(QStringLiteral("reason-for-opening"));
    const auto keepName = [this] {
        QSettings().setValue(QLatin1String(whoKey), who_->text());
        this->document().drafts().settle(who_->objectName());
        return true;
    };
    document.drafts().watch(who_, keepName);
    connect(who_, &QLineEdit::editingFinished, this, keepName);
    // An own step is written in by Enter; what is half typed asks before anything else begins.
    document.drafts().watch(own_, [this] { return writeOwnStep(); });
    connect(own_, &QLineEdit::returnPressed, this, [this] { writeOwnStep(); });
    connect(inspection_, &QPushButton::clicked, this, [this](bool in) {
        const Study& study = this->document().study();
        if (study.after.setup)
            this->document().edit(
                in ? tr("inspection taken in") : tr("inspection folded"), jobcard::inspectionTakenIn(study.after.setup->id, in));
    });
    // A reason counts when its button is pressed, not before.
    document.drafts().watch(reason_, [] { return false; });
    connect(list_, &StepList::said, this, &CardPage::tick);
    connect(list_, &StepList::shutTicked, this, &CardPage::askReason);
    connect(list_, &StepList::reached, this, [this](const std::string& step) {
        if (step_ == step)
            return;
        step_ = step;
        if (place() == Steps)
            view()->setSheet(sheet(place()));
    });
    connect(open_, &QPushButton::clicked, this, &CardPage::openStep);
    connect(reason_, &QLineEdit::returnPressed, this, &CardPage::openStep);
    connect(done_, &QPushButton::clicked, this, [this] {
        if (const auto* s = current()) {
            if (!s->open && s->state != Checked::Fine) {
                askReason(s->id);
                return;
            }
            const std::string step = s->id;
            goOn(1);
            tick(step, Checked::Fine);
        }
    });
    connect(fault_, &QPushButton::clicked, this, [this] {
        if (const auto* s = current())
            tick(s->id, Checked::Fault);
    });
    connect(back_, &QPushButton::clicked, this, [this] { goOn(-1); });
    connect(paper_, &QPushButton::clicked, this, [this] {
        const Study& whole = this->document().wholeStudy();
        LeafWindow window(report::jobCard(whole, jobcard::cardOf(whole), QDate::currentDate().toString(Qt::ISODate).toStdString()), this);
        window.exec();
    });
    connect(build_, &QPushButton::clicked, this, [this] {
        LeafWindow window(
            report::buildSheet(this->document().wholeStudy(), QDate::currentDate().toString(Qt::ISODate).toStdString()), this);
        window.exec();
    });
}

QStringList CardPage::placeNames() const { return { tr("Steps"), tr("At the car"), tr("Procedures"), tr("Bedding"), tr("Lift") }; }

jobcard::Author CardPage::hand() const
{
    return { who_->text().trimmed().toStdString(),
        QDateTime::currentDateTime().toString(QStringLiteral("yyyy-MM-dd HH:mm")).toStdString() };
}

const jobcard::Step* CardPage::current() const
{
    if (const auto* s = card_.step(step_))
        return s;
    const auto open = std::ranges::find_if(card_.steps, [&](const jobcard::Step& s) { return s.state == Checked::Open && card_.shows(s); });
    return open != card_.steps.end() ? &*open : card_.steps.empty() ? nullptr : &card_.steps.front();
}

void CardPage::goOn(int by)
{
    const auto* s = current();
    if (!s)
        return;
    // Folded steps are passed over.
    const auto size = static_cast<std::ptrdiff_t>(card_.steps.size());
    for (auto next = s - card_.steps.data() + by; next >= 0 && next < size; next += by)
        if (const auto& step = card_.steps[static_cast<std::size_t>(next)]; card_.shows(step)) {
            step_ = step.id;
            break;
        }
    refresh();
}

void CardPage::tick(const std::string& step, Checked state)
{
    // What cannot be undone is judged by all that is known now, not by what was known when it was drawn.
    if (const auto* s = card_.step(step); s && s->gated && state == Checked::Fine)
        document().settle();
    if (const auto edit = jobcard::ticked(document().study(), step, state, hand()))
        document().edit(tr("a step of the card"), *edit);
}

bool CardPage::writeOwnStep()
{
    const auto* s = current();
    const auto edit = jobcard::ownStep(document().study(), s ? s->id : std::string(), own_->text().trimmed().toStdString());
    own_->clear();
    document().drafts().settle(own_->objectName());
    return !edit || document().edit(tr("own step"), *edit);
}

/// The drive is over: its steps are ticked, and the log knows of it.
void CardPage::bedded(int stoodHot)
{
    const Study& study = document().study();
    if (!study.after.setup)
        return;
    if (const auto edit = jobcard::beddedIn(study, hand(), stoodHot))
        document().edit(tr("bedded in"), *edit);
}

void CardPage::askReason(const std::string& step)
{
    shut_ = step;
    refresh();
    reason_->clear();
    document().drafts().settle(reason_->objectName());
    reason_->setFocus(Qt::OtherFocusReason);
    const auto* s = card_.step(step);
    if (s && s->phase == jobcard::Phase::Assemble) {
        emit refused(
            tr("This corner does not read centred. Put the plan's shims in and read the gaps again, or say below why these stay."));
        return;
    }
    emit refused(s && s->irreversible
            ? tr("This cannot be undone, and what it rests on is not proven. Prove it, or say below why it is opened all the same.")
            : tr(
                "The kit has not been tried on both sides: with its line closed the car still drives. Try it, or say below why the line is "
                "opened all the same."));
}

void CardPage::openStep()
{
    const auto edit = jobcard::opened(document().study(), shut_, reason_->text().trimmed().toStdString(), hand());
    if (!edit) {
        emit refused(tr("A reason is wanted: it stands in the record."));
        return;
    }
    shut_.clear();
    document().drafts().settle(reason_->objectName());
    document().edit(tr("opened: %1").arg(reason_->text().trimmed()), *edit);
}

Sheet CardPage::sheet(int place) const
{
    const Study& study = document().study();
    switch (place) {
    case Choices:
        return choicesSheet(study);
    case Bedding:
        return {};
    case Lift:
        return liftSheet(study);
    case AtCar:
        return stepSheet(study, card_, current(), true);
    default:
        return stepSheet(study, card_, current(), false);
    }
}

void CardPage::refreshRest()
{
    const Study& study = document().study();
    // The checks behind the gates are only there when all of the study is.
    if (!study.underWay) {
        card_ = jobcard::cardOf(study);
        folded_ = card_.folded();
        std::erase_if(card_.steps, [&](const jobcard::Step& s) { return !card_.shows(s); });
    }
    const bool steps = place() == Steps;
    list_->setVisible(steps);
    constexpr int few = 176; // pixels, for what is read at one step
    scroll()->setMinimumHeight(steps ? few : drawn_);
    scroll()->setMaximumHeight(steps ? few : QWIDGETSIZE_MAX);
    foot_->setVisible(true);
    const auto* shut = card_.step(shut_);
    const bool asks = (steps || place() == AtCar) && shut && !shut->open;
    reason_->setVisible(asks);
    open_->setVisible(asks);
    for (QPushButton* button : { done_, fault_, back_ })
        button->setVisible(place() == AtCar);
    for (QPushButton* button : { paper_, build_ })
        button->setVisible(place() != AtCar);
    own_->setVisible(steps && !asks);
    inspection_->setVisible(steps && (folded_ > 0 || card_.inspection));
    inspection_->setChecked(card_.inspection);
    inspection_->setText(card_.inspection ? tr("&Inspection taken in") : tr("&Inspection (%1 more)").arg(folded_));
    who_->setVisible(steps || place() == AtCar || place() == Bedding);
    bedding_->setVisible(place() == Bedding);
    if (place() == Bedding && !study.underWay && study.after.setup)
        bedding_->setPlan(jobcard::beddingPlanOf(study, jobcard::choicesOf(*study.build, study.after.setup->id)), study.system);
    if (!steps)
        return;
    std::vector<StepRow> rows;
    for (const auto& s : card_.steps) {
        StepRow row;
        row.id = s.id;
        row.group = QString::fromUtf8(deepstop::tr(jobcard::nameOf(s.phase)).data());
        row.text = QString::fromStdString(s.corner == "car" ? s.text : s.corner + ": " + s.text);
        QStringList under;
        if (!s.threads.empty())
            under << QString::fromStdString(s.threads);
        if (!s.tools.empty())
            under << QString::fromStdString(s.tools);
        if (!s.opened.empty())
            under << tr("opened without proof, reason: %1").arg(QString::fromStdString(s.opened));
        if (!s.waits.empty())
            under << (s.open ? tr("not proven: %1") : tr("locked until: %1")).arg(joined(s.waits));
        row.under = under.join(QStringLiteral(" · "));
        row.caution = QString::fromStdString(s.caution);
        row.done = QString::fromStdString(s.who.empty() ? s.when : s.who + ", " + s.when);
        row.state = s.state;
        row.shut = !s.open;
        rows.push_back(std::move(row));
    }
    list_->setRows(rows);
}

} // namespace deepstop::app
