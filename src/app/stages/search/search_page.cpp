#include "stages/search/search_page.hpp"

#include "build/choices.hpp"
#include "document.hpp"
#include "language/language.hpp"
#include "library/kit.hpp"
#include "library_store.hpp"
#include "quantity/parse.hpp"
#include "stages/design/section_view.hpp"
#include "stages/search/funnel_view.hpp"
#include "theme.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QInputDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QLocale>
#include <QPushButton>
#include <QTableView>
#include <QTableWidget>
#include <QTextBrowser>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace deepstop::app {

using search::Gain;
using search::Kind;

namespace {

/// Rows of a table, px.
constexpr int oneLine = 22;
constexpr int twoLines = 37;

} // namespace

std::pair<Level, std::string> stateOfSearch(const Study&) { return { Level::Good, tr("of the library") }; }

SearchPage::SearchPage(Document& document, LibraryStore& library, QWidget* parent)
    : StagePage(document, id, Row::Over, parent), library_(library)
{
    addAxleChoice();
    wishes_ = makeWishes();
    kitsBoard_ = makeKits();
    lostBoard_ = makeLost();
    whyBoard_ = makeWhy();
    // Words that go on in more lines make the window no taller.
    wishes_->setMinimumHeight(120);
    for (QWidget* board : { kitsBoard_, lostBoard_, whyBoard_ })
        board->setMinimumHeight(300);
    column()->insertWidget(0, wishes_);
    column()->insertWidget(1, kitsBoard_, 4);
    column()->insertWidget(2, lostBoard_, 4);
    column()->insertWidget(3, whyBoard_, 4);
    connect(&document, &Document::replaced, this, [this] {
        job_.cancel();
        asking_.cancel();
        wheels_->clear();
        forget();
    });
}

QStringList SearchPage::placeNames() const { return { tr("Kits that go"), tr("Where kits are lost"), tr("Why not this one") }; }

void SearchPage::refreshRest()
{
    QPalette look = palette();
    look.setColor(QPalette::Window, theme().paper);
    look.setColor(QPalette::Base, theme().paper);
    setPalette(look);
    setAutoFillBackground(true);
    // What is typed into or ticked stands out of the paper.
    look.setColor(QPalette::Base, theme().raised);
    wishes_->setPalette(look);
    beatenToo_->setPalette(look);
    wishes_->setVisible(place() != WhyNot);
    kitsBoard_->setVisible(place() == Kits);
    lostBoard_->setVisible(place() == Lost);
    whyBoard_->setVisible(place() == WhyNot);
    listWheels();
    if (of_ && !(*of_ == now(!of_->axle)) && !document().isPreviewing() && !document().sharedStudy()->underWay) {
        job_.cancel();
        forget();
    }
    if (!result_ && !job_.isRunning())
        summary_->setText(
            tr("Every rotor, caliper, pad and master cylinder of the library is put together with the ticked wheels and judged by "
               "all checks, with a bracket made for it. Press Search."));
    else
        showResult();
    if (place() == WhyNot && why_[0]->count() == 0) {
        offerWhy({}, {});
        showWhy();
    }
}

SearchPage::Of SearchPage::now(bool wholeCar) const
{
    const auto study = document().sharedStudy();
    return { study->build, study->after.setup ? study->after.setup->id : std::string(), wholeCar ? std::nullopt : std::optional(axle()) };
}

void SearchPage::forget()
{
    of_.reset();
    query_ = nullptr;
    result_ = nullptr;
    shown_ = nullptr;
    model_->setKits(nullptr, document().units());
    plot_->setKits(nullptr, document().units());
    funnel_->setFunnel(nullptr);
    losers_->setRowCount(0);
    section_->clear();
    compared_->clear();
    putIn_->setEnabled(false);
    search_->setEnabled(true);
    cancel_->setEnabled(false);
    for (QComboBox* box : why_)
        box->clear();
    for (QComboBox* box : whyRear_)
        box->clear();
    whyText_->clear();
}

void SearchPage::listWheels()
{
    const AxleParts& parts = document().study().after.at(axle());
    QStringList ticked;
    for (int i = 0; i < wheels_->count(); ++i)
        if (wheels_->item(i)->checkState() == Qt::Checked)
            ticked << wheels_->item(i)->data(Qt::UserRole).toString();
    if (wheels_->count() == 0 && parts.wheel)
        ticked << QString::fromStdString(parts.wheel->id);
    const QSignalBlocker quiet(wheels_);
    wheels_->clear();
    const auto add = [&](const QString& name, const QString& wheel) {
        auto* item = new QListWidgetItem(name, wheels_);
        item->setData(Qt::UserRole, wheel);
        item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsUserCheckable | Qt::ItemIsSelectable);
        item->setCheckState(ticked.contains(wheel) ? Qt::Checked : Qt::Unchecked);
    };
    for (const Wheel& wheel : document().build().wheels)
        add(QString::fromStdString(wheel.name.empty() ? wheel.id : wheel.name), QString::fromStdString(wheel.id));
    add(tr("all wheels of the library"), QString::fromLatin1(search::allWheels));
}

std::shared_ptr<const search::Query> SearchPage::Asked::with(const library::Library& library) const
{
    auto whole = std::make_shared<search::Query>(query);
    whole->parts = search::partsFor(library, *query.study->build, wheels);
    if (keepMaster)
        whole->parts.masters.resize(1);
    return whole;
}

std::optional<SearchPage::Asked> SearchPage::asked()
{
    Asked asked { {}, {}, keepMaster_->isChecked() };
    search::Query& query = asked.query;
    query.study = document().sharedStudy();
    query.axle = axle();
    if (scope_->currentIndex() > 0) {
        query.wholeCar = true;
        query.axle = Axle::Front;
        query.best = static_cast<Gain>(scope_->currentData().toInt());
    }
    for (int i = 0; i < wheels_->count(); ++i)
        if (wheels_->item(i)->checkState() == Qt::Checked)
            asked.wheels.push_back(wheels_->item(i)->data(Qt::UserRole).toString().toStdString());
    if (asked.wheels.empty()) {
        emit refused(tr("Tick a wheel first: a kit is judged in a wheel."));
        return {};
    }
    if (allClear_->isChecked() && std::ranges::count(asked.wheels, search::allWheels) == 0) {
        query.alsoClear.assign(asked.wheels.begin() + 1, asked.wheels.end());
        asked.wheels.resize(1);
    }
    query.mount = std::array { MountKind::Unknown, MountKind::Lug, MountKind::Radial }[static_cast<std::size_t>(mount_->currentIndex())];
    for (const Gain gain : search::allGains) {
        const QLineEdit* edit = limit(gain);
        if (edit->text().trimmed().isEmpty())
            continue;
        const Style& style = search::about(gain).style;
        const auto parsed = parseQuantity(edit->text().toStdString(), style.dimension, style.unit(document().units()));
        if (!parsed) {
            emit refused(QStringLiteral("%1: %2").arg(edit->accessibleName(), QString::fromStdString(parsed.refusal)));
            return {};
        }
        query.limits.push_back({ gain, *parsed.value });
    }
    return asked;
}

void SearchPage::start()
{
    if (document().sharedStudy()->underWay || document().isPreviewing())
        return;
    auto wanted = asked();
    if (!wanted)
        return;
    forget();
    of_ = now(wanted->query.wholeCar);
    if (wanted->query.wholeCar)
        axes_[0]->setCurrentIndex(static_cast<int>(wanted->query.best));
    search_->setEnabled(false);
    cancel_->setEnabled(true);
    summary_->setText(tr("Searching …"));
    auto found = std::make_shared<Found>();
    job_.start(
        [wanted = std::move(*wanted), library = library_.sharedParts(), found](const JobTicket& ticket) {
            const auto query = wanted.with(*library);
            {
                const std::lock_guard lock(found->mutex);
                found->query = query;
            }
            return std::make_shared<const search::Result>(search::search(*query, [&](double part, std::span<const search::Kit> kits) {
                // Of those that none beat so far and the new ones, here: the window waits for nothing.
                std::vector<search::Kit> all(kits.begin(), kits.end());
                {
                    const std::lock_guard lock(found->mutex);
                    all.insert(all.end(), found->front.begin(), found->front.end());
                    found->kits.insert(found->kits.end(), kits.begin(), kits.end());
                }
                std::vector<search::Kit> front;
                for (const std::size_t i : search::frontOf(all))
                    front.push_back(all[i]);
                {
                    const std::lock_guard lock(found->mutex);
                    found->front = std::move(front);
                }
                ticket.progress(part);
            }));
        },
        [this, found](std::shared_ptr<const search::Result> result) {
            query_ = found->query;
            arrived(std::move(result));
        },
        [this](const std::exception& error) {
            emit refused(QString::fromUtf8(error.what()));
            forget();
        },
        [this, found](int percent) {
            std::vector<search::Kit> kits;
            std::vector<search::Kit> front;
            {
                const std::lock_guard lock(found->mutex);
                query_ = found->query;
                kits = found->kits;
                front = found->front;
            }
            const auto say = [](std::uint64_t number) { return QLocale().toString(static_cast<qulonglong>(number)); };
            summary_->setText(query_->wholeCar ? tr("Searching kits of both axles: %1 %, %2 go so far").arg(percent).arg(say(kits.size()))
                                               : tr("Searching %1 kits: %2 %, %3 go so far")
                                                     .arg(say(query_->parts.combinations()))
                                                     .arg(percent)
                                                     .arg(say(kits.size())));
            show(kits, front);
        });
}

void SearchPage::arrived(std::shared_ptr<const search::Result> result)
{
    result_ = std::move(result);
    search_->setEnabled(true);
    cancel_->setEnabled(false);
    const auto say = [](std::uint64_t number) { return QLocale().toString(static_cast<qulonglong>(number)); };
    if (!result_->lacks.empty())
        summary_->setText(QString::fromStdString(result_->lacks));
    else if (query_->wholeCar)
        summary_->setText(saidOfWholeCars());
    else if (result_->kits.empty())
        summary_->setText(tr("%1 kits tried, none goes. “Where kits are lost” shows what stops them.").arg(say(result_->combinations)));
    else
        summary_->setText(
            tr("%1 kits tried, %2 go; no other kit beats %3 of them in all figures. Judged as if made and measured as on their "
               "sheets: nothing is proven yet.")
                .arg(say(result_->combinations), say(result_->kits.size()), say(result_->front.size())));
    funnel_->setFunnel(result_);
    showResult();
    if (!result_->funnel.empty())
        funnel_->choose(0);
}

QString SearchPage::saidOfWholeCars() const
{
    const auto say = [](std::uint64_t number) { return QLocale().toString(static_cast<qulonglong>(number)); };
    const QString best = titleOf(query_->best, true);
    if (result_->gaveUp)
        return tr(
            "Both axles together: the search stopped. Of the first %1 kits only %2 go. %3 kits were not judged; none of them is better in "
            "“%4”. Tick fewer wheels or relax a limit.")
            .arg(say(result_->combinations - result_->notLooked), say(result_->kits.size()), say(result_->notLooked), best);
    if (result_->kits.empty())
        return tr("Both axles together: of %1 kits none goes. “Where kits are lost” shows what stops them.")
            .arg(say(result_->combinations));
    const QString found = result_->notLooked == 0
        ? tr("Both axles together: of %1 kits %2 go.").arg(say(result_->combinations), say(result_->kits.size()))
        : tr("Both axles together: of %1 kits the %2 that go and are best in “%3”.")
              .arg(say(result_->combinations), say(result_->kits.size()), best);
    return found + QLatin1Char(' ')
        + tr("No other of these beats %1 of them in all figures. Judged as if made and measured as on their sheets: nothing is proven yet.")
              .arg(say(result_->front.size()));
}

void SearchPage::showResult()
{
    if (!result_)
        return;
    std::vector<search::Kit> front;
    for (const std::size_t i : result_->front)
        front.push_back(result_->kits[i]);
    show(result_->kits, front);
}

void SearchPage::show(const std::vector<search::Kit>& kits, const std::vector<search::Kit>& front)
{
    // The first line is chosen where nobody chose another.
    std::vector<search::Kit> chosen;
    if (const auto rows = chosenRows(); shown_ && rows != std::vector { 0 })
        for (const int row : rows)
            chosen.push_back(model_->kit(row));
    shown_ = std::make_shared<const FoundKits>(FoundKits { query_, beatenToo_->isChecked() ? kits : front });
    table_->verticalHeader()->setDefaultSectionSize(query_->wholeCar ? twoLines : oneLine);
    model_->setKits(shown_, document().units());
    plot_->setKits(shown_, document().units());
    // What was chosen stays chosen while more is found.
    const QSignalBlocker quiet(table_->selectionModel());
    for (int row = 0; row < model_->rowCount(); ++row)
        if (std::ranges::any_of(chosen, [&](const search::Kit& kit) { return kit.isOfSameParts(model_->kit(row)); }))
            table_->selectionModel()->select(model_->index(row, 0), QItemSelectionModel::Select | QItemSelectionModel::Rows);
    if (!shown_->kits.empty() && chosenRows().empty())
        table_->selectionModel()->select(model_->index(0, 0), QItemSelectionModel::ClearAndSelect | QItemSelectionModel::Rows);
    showCompared();
}

std::vector<int> SearchPage::chosenRows() const
{
    std::vector<int> rows;
    for (const QModelIndex& index : table_->selectionModel()->selectedRows())
        rows.push_back(index.row());
    return rows;
}

/// The kit that is chosen, in section; two beside each other in words.
void SearchPage::showCompared()
{
    const auto rows = chosenRows();
    putIn_->setEnabled(rows.size() == 1);
    std::vector<std::size_t> places;
    for (const int row : rows)
        for (std::size_t i = 0; i < shown_->kits.size(); ++i)
            if (shown_->kits[i].isOfSameParts(model_->kit(row)))
                places.push_back(i);
    plot_->setChosen(places);
    if (!places.empty())
        showSection(static_cast<int>(places.front()));
    compared_->clear();
    if (rows.size() != 2)
        return;
    const search::Kit& one = model_->kit(rows[0]);
    const search::Kit& other = model_->kit(rows[1]);
    QStringList parts;
    for (const Gain gain : search::allGains)
        parts << tr("%1 %2 against %3")
                     .arg(titleOf(gain, query_->wholeCar), sayGain(one.gains, gain, document().units()),
                         sayGain(other.gains, gain, document().units()));
    compared_->setText(tr("%1 against %2: %3")
                           .arg(QString::fromStdString(search::nameOf(*query_, one)),
                               QString::fromStdString(search::nameOf(*query_, other)), parts.join(QStringLiteral("; "))));
}

void SearchPage::showSection(int kit)
{
    if (kit < 0 || !shown_ || static_cast<std::size_t>(kit) >= shown_->kits.size())
        return;
    std::string setup;
    const search::Kit& shown = shown_->kits[static_cast<std::size_t>(kit)];
    Build build = search::triedBuild(*query_, shown.choice, shown.rear, &setup);
    section_->setBuild(std::make_shared<const Build>(std::move(build)), { query_->study->before.setup->id, setup },
        query_->wholeCar ? axle() : query_->axle);
}

void SearchPage::showLosers(int check)
{
    losers_->setRowCount(0);
    if (!result_ || check < 0)
        return;
    const search::Lost& lost = result_->funnel[static_cast<std::size_t>(check)];
    losers_->setRowCount(static_cast<int>(lost.nearest.size()));
    losers_->verticalHeader()->setDefaultSectionSize(query_->wholeCar ? twoLines : oneLine);
    const auto nameOf = [&](Kind kind, const search::Choice& choice) {
        return at(choice, kind) == search::every ? QString() : QString::fromStdString(query_->parts.name(kind, at(choice, kind)).name);
    };
    for (int line = 0; line < losers_->rowCount(); ++line) {
        const search::Loser& loser = lost.nearest[static_cast<std::size_t>(line)];
        const auto named = [&](const search::Choice& choice, std::initializer_list<Kind> which) {
            QStringList parts;
            for (const Kind kind : which)
                if (const QString name = nameOf(kind, choice); !name.isEmpty())
                    parts << name;
            return parts.join(QStringLiteral(", "));
        };
        QStringList parts;
        if (!loser.rear) {
            parts << named(loser.choice, { Kind::Rotor, Kind::Caliper, Kind::Pad, Kind::Master });
        } else {
            const QString front = named(loser.choice, { Kind::Rotor, Kind::Caliper, Kind::Pad });
            const QString rear = named(*loser.rear, { Kind::Rotor, Kind::Caliper, Kind::Pad });
            const QString master = named(loser.choice, { Kind::Master });
            if (!front.isEmpty())
                parts << tr("front: %1").arg(front);
            if (!rear.isEmpty())
                parts << tr("rear: %1").arg(rear);
            if (!master.isEmpty())
                parts << master;
        }
        const QString by =
            std::isfinite(loser.shortBy) ? QString::fromStdString(print(loser.shortBy, lost.style, document().units())) : QString();
        QString wheel = nameOf(Kind::Wheel, loser.choice);
        if (wheel.isEmpty() && loser.rear)
            wheel = nameOf(Kind::Wheel, *loser.rear);
        int column = 0;
        for (const QString& text : { by, QLocale().toString(static_cast<qulonglong>(loser.kits)), parts.join(QLatin1Char('\n')),
                 wheel.isEmpty() ? tr("any") : wheel }) {
            auto* item = new QTableWidgetItem(text);
            item->setToolTip(text);
            losers_->setItem(line, column++, item);
        }
    }
    losers_->resizeColumnToContents(0);
    losers_->resizeColumnToContents(1);
    losers_->resizeColumnToContents(3);
}

void SearchPage::putIn()
{
    const auto rows = chosenRows();
    if (rows.size() != 1 || !query_)
        return;
    const search::Kit kit = model_->kit(rows[0]);
    bool said = false;
    const auto name = QInputDialog::getText(this, tr("Put into the build"), tr("Name of the new setup"), QLineEdit::Normal,
        QString::fromStdString(query_->parts.name(Kind::Rotor, at(kit.choice, Kind::Rotor)).name), &said)
                          .trimmed()
                          .toStdString();
    if (!said || name.empty())
        return;
    const std::string newId = library::freeSetupId(document().build(), name, "kit");
    if (document().edit(tr("kit from the library"), search::putIn(*query_, kit.choice, name, kit.rear)))
        document().setPair({ document().study().before.setup->id, newId });
}

} // namespace deepstop::app
