/// What stands on the page: wishes, kits, losses and the reasons of one kit.

#include "language/language.hpp"
#include "stages/design/section_view.hpp"
#include "stages/search/funnel_view.hpp"
#include "stages/search/search_page.hpp"
#include "theme.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QScrollArea>
#include <QTableView>
#include <QTableWidget>
#include <QTextBrowser>
#include <QVBoxLayout>

namespace deepstop::app {

using search::Gain;
using search::Kind;

namespace {

QString capital(QString text)
{
    text[0] = text[0].toUpper();
    return text;
}

} // namespace

QWidget* SearchPage::makeWishes()
{
    auto* board = new QWidget(this);
    auto* row = new QHBoxLayout(board);
    row->setContentsMargins(16, 8, 16, 2);
    row->setSpacing(10);
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(8);
    grid->setVerticalSpacing(3);
    int number = 0;
    for (const Gain gain : search::allGains) {
        auto* edit = new QLineEdit(board);
        const bool most = search::about(gain).lessIsBetter;
        const QString caption = most ? tr("%1, at most").arg(titleOf(gain)) : tr("%1, at least").arg(titleOf(gain));
        edit->setObjectName(QStringLiteral("limit-%1").arg(words(search::about(gain).key)));
        edit->setAccessibleName(caption);
        edit->setFixedWidth(66);
        edit->setPlaceholderText(most ? tr("at most") : tr("at least"));
        auto* label = new QLabel(titleOf(gain), board);
        label->setFont(reading(12));
        label->setWordWrap(true);
        label->setBuddy(edit);
        constexpr int lines = 4;
        grid->addWidget(label, number % lines, 2 * (number / lines));
        grid->addWidget(edit, number % lines, 2 * (number / lines) + 1);
        limits_[static_cast<std::size_t>(gain)] = edit;
        ++number;
    }
    grid->setColumnStretch(0, 1);
    grid->setColumnStretch(2, 1);
    row->addLayout(grid, 4);
    auto* choices = new QGridLayout;
    choices->setVerticalSpacing(2);
    choices->setColumnStretch(1, 1);
    // A label beside its box: it goes on in a second line where a box's own words would not.
    const auto ticked = [&](const QString& text, int line) {
        auto* box = new QCheckBox(board);
        box->setAccessibleName(text);
        auto* label = new QLabel(text, board);
        label->setFont(reading(12));
        label->setWordWrap(true);
        label->setBuddy(box);
        choices->addWidget(box, line, 0);
        choices->addWidget(label, line, 1);
        return box;
    };
    scope_ = new QComboBox(board);
    scope_->setFont(reading(12));
    scope_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    scope_->setMinimumContentsLength(5);
    scope_->setAccessibleName(tr("What is searched"));
    scope_->addItem(tr("This axle"));
    scope_->addItem(tr("Both axles, cheapest first"), static_cast<int>(Gain::Price));
    scope_->addItem(tr("Both axles, lightest first"), static_cast<int>(Gain::Weight));
    scope_->addItem(tr("Both axles, widest gap first"), static_cast<int>(Gain::Clearance));
    choices->addWidget(scope_, 0, 0, 1, 2);
    connect(scope_, &QComboBox::currentIndexChanged, this, [this](int scope) {
        // A car that turns round is none to look for, unless someone clears it.
        QLineEdit* locks = limit(Gain::Locks);
        if (scope > 0 && locks->text().isEmpty())
            locks->setText(QStringLiteral("0"));
    });
    keepMaster_ = ticked(tr("Keep the master cylinder"), 1);
    allClear_ = ticked(tr("All ticked wheels must clear"), 2);
    mount_ = new QComboBox(board);
    mount_->setFont(reading(12));
    mount_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    mount_->setMinimumContentsLength(5);
    choices->addWidget(mount_, 3, 0, 1, 2);
    mount_->setAccessibleName(tr("How the calipers are bolted on"));
    mount_->addItems({ tr("Bolted on as now"), tr("Bolted to lugs"), tr("Radial studs") });
    row->addLayout(choices, 2);
    wheels_ = new QListWidget(board);
    wheels_->setAccessibleName(tr("Wheels to try"));
    wheels_->setToolTip(tr("Wheels to try"));
    wheels_->setFont(reading(12));
    wheels_->setFixedHeight(94);
    wheels_->setMinimumWidth(84);
    wheels_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    row->addWidget(wheels_, 2);
    auto* buttons = new QVBoxLayout;
    search_ = new QPushButton(tr("&Search"), board);
    search_->setObjectName(QStringLiteral("search"));
    cancel_ = new QPushButton(tr("Cancel"), board);
    cancel_->setEnabled(false);
    buttons->addWidget(search_);
    buttons->addWidget(cancel_);
    buttons->addStretch();
    row->addLayout(buttons);
    connect(search_, &QPushButton::clicked, this, &SearchPage::start);
    connect(cancel_, &QPushButton::clicked, this, [this] {
        job_.cancel();
        search_->setEnabled(true);
        cancel_->setEnabled(false);
        summary_->setText(tr("Cancelled. What was found so far is not all of it."));
    });
    return board;
}

QWidget* SearchPage::makeKits()
{
    auto* board = new QWidget(this);
    auto* column = new QVBoxLayout(board);
    column->setContentsMargins(16, 2, 16, 8);
    column->setSpacing(4);
    summary_ = new QLabel(board);
    summary_->setObjectName(QStringLiteral("search-summary"));
    summary_->setWordWrap(true);
    summary_->setFont(reading(13, QFont::DemiBold));
    column->addWidget(summary_);
    auto* pictures = new QHBoxLayout;
    auto* left = new QVBoxLayout;
    auto* chosen = new QHBoxLayout;
    plot_ = new KitPlot(board);
    const Gain first[] { Gain::Weight, Gain::HotStop };
    for (std::size_t i = 0; i < axes_.size(); ++i) {
        axes_[i] = new QComboBox(board);
        axes_[i]->setFont(reading(12));
        axes_[i]->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        axes_[i]->setMinimumContentsLength(8);
        axes_[i]->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
        axes_[i]->setMaximumWidth(132);
        axes_[i]->setAccessibleName(i == 0 ? tr("Figure across") : tr("Figure upward"));
        for (const Gain gain : search::allGains)
            axes_[i]->addItem(titleOf(gain));
        axes_[i]->setCurrentIndex(static_cast<int>(first[i]));
        connect(axes_[i], &QComboBox::currentIndexChanged, this, [this] {
            plot_->setAxes(search::allGains[static_cast<std::size_t>(axes_[0]->currentIndex())],
                search::allGains[static_cast<std::size_t>(axes_[1]->currentIndex())]);
        });
        if (i == 1) {
            auto* over = new QLabel(tr("over"), board);
            over->setFont(reading(12));
            chosen->insertWidget(0, over);
            chosen->insertWidget(0, axes_[i], 2);
        } else {
            chosen->addWidget(axes_[i], 2);
        }
    }
    beatenToo_ = new QCheckBox(board);
    auto* beaten = new QLabel(tr("Also kits that another beats in all"), board);
    beatenToo_->setAccessibleName(beaten->text());
    beaten->setFont(reading(12));
    beaten->setWordWrap(true);
    beaten->setBuddy(beatenToo_);
    chosen->addWidget(beatenToo_);
    chosen->addWidget(beaten, 1);
    connect(beatenToo_, &QCheckBox::toggled, this, &SearchPage::showResult);
    left->addLayout(chosen);
    left->addWidget(plot_, 1);
    pictures->addLayout(left, 3);
    section_ = new SectionView(board);
    pictures->addWidget(section_, 2);
    column->addLayout(pictures, 3);
    table_ = new QTableView(board);
    model_ = new KitTable(table_);
    table_->setModel(model_);
    table_->setFont(reading(12));
    table_->setObjectName(QStringLiteral("kits"));
    table_->setAccessibleName(tr("Kits that go"));
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::ExtendedSelection);
    table_->setWordWrap(false);
    table_->setSortingEnabled(true);
    table_->sortByColumn(-1, Qt::AscendingOrder);
    table_->setTabKeyNavigation(false);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(22);
    auto* header = table_->horizontalHeader();
    header->setDefaultAlignment(Qt::AlignCenter | Qt::Alignment(Qt::TextWordWrap));
    header->setFont(reading(11.5));
    header->setFixedHeight(48);
    // Wheel and master cylinder, often the same all the way down, come last.
    for (int i = 0; i < 2; ++i)
        header->moveSection(static_cast<int>(Kind::Wheel), KitTable::level);
    header->moveSection(header->visualIndex(KitTable::level), KitTable::firstGain - 2);
    for (int section = 0; section < model_->columnCount(); ++section)
        table_->setColumnWidth(section, section < KitTable::firstGain ? 112 : section < KitTable::level ? 70 : 66);
    column->addWidget(table_, 3);
    compared_ = new QLabel(board);
    compared_->setFont(reading(12));
    compared_->setWordWrap(true);
    column->addWidget(compared_);
    auto* foot = new QHBoxLayout;
    putIn_ = new QPushButton(tr("Put into the build…"), board);
    putIn_->setObjectName(QStringLiteral("put-kit-in"));
    putIn_->setEnabled(false);
    foot->addWidget(putIn_);
    foot->addStretch();
    column->addLayout(foot);
    connect(putIn_, &QPushButton::clicked, this, &SearchPage::putIn);
    connect(table_->selectionModel(), &QItemSelectionModel::selectionChanged, this, &SearchPage::showCompared);
    connect(model_, &QAbstractItemModel::modelReset, this, [this] {
        if (shown_)
            showCompared();
    });
    connect(plot_, &KitPlot::hovered, this, &SearchPage::showSection);
    connect(plot_, &KitPlot::clicked, this, [this](int kit, bool more) {
        const search::Kit& clicked = shown_->kits[static_cast<std::size_t>(kit)];
        for (int row = 0; row < model_->rowCount(); ++row)
            if (model_->kit(row).isOfSameParts(clicked)) {
                table_->selectionModel()->select(model_->index(row, 0),
                    (more ? QItemSelectionModel::Select : QItemSelectionModel::ClearAndSelect) | QItemSelectionModel::Rows);
                table_->scrollTo(model_->index(row, 0));
            }
    });
    return board;
}

QWidget* SearchPage::makeLost()
{
    auto* board = new QWidget(this);
    auto* row = new QHBoxLayout(board);
    row->setContentsMargins(16, 6, 16, 8);
    funnel_ = new FunnelView(board);
    auto* scrolled = new QScrollArea(board);
    scrolled->setWidget(funnel_);
    scrolled->setWidgetResizable(true);
    scrolled->setFrameShape(QFrame::NoFrame);
    scrolled->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    row->addWidget(scrolled, 1);
    losers_ = new QTableWidget(0, 4, board);
    losers_->setFont(reading(12));
    losers_->setObjectName(QStringLiteral("losers"));
    losers_->setAccessibleName(tr("Kits lost at this check, the nearest first"));
    losers_->setHorizontalHeaderLabels({ tr("Short by"), tr("Kits"), tr("Parts"), tr("Wheel") });
    losers_->horizontalHeader()->setSectionResizeMode(2, QHeaderView::Stretch);
    losers_->setWordWrap(false);
    losers_->setSelectionBehavior(QAbstractItemView::SelectRows);
    losers_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    losers_->setTabKeyNavigation(false);
    losers_->verticalHeader()->hide();
    losers_->verticalHeader()->setDefaultSectionSize(22);
    row->addWidget(losers_, 1);
    connect(funnel_, &FunnelView::checkChosen, this, &SearchPage::showLosers);
    connect(losers_, &QTableWidget::cellActivated, this, [this](int line) {
        const auto& lost = result_->funnel[static_cast<std::size_t>(funnel_->chosen())];
        search::Loser loser = lost.nearest[static_cast<std::size_t>(line)];
        const auto anyOfThem = [](search::Choice& choice) {
            for (auto& place : choice)
                place = place == search::every ? 0 : place;
        };
        // Of a whole car the rear alone may say the wheel.
        if (loser.rear && at(loser.choice, Kind::Wheel) == search::every)
            at(loser.choice, Kind::Wheel) = at(*loser.rear, Kind::Wheel);
        anyOfThem(loser.choice);
        if (loser.rear)
            anyOfThem(*loser.rear);
        offerWhy(loser.choice, loser.rear);
        setPlace(WhyNot);
        showWhy();
    });
    return board;
}

QWidget* SearchPage::makeWhy()
{
    auto* board = new QWidget(this);
    auto* column = new QVBoxLayout(board);
    column->setContentsMargins(16, 6, 16, 8);
    auto* grid = new QGridLayout;
    const auto choice = [&](QWidget* on, Kind kind, const QString& name, const QString& of) {
        auto* box = new QComboBox(on);
        box->setFont(reading(12));
        box->setObjectName(of.arg(static_cast<int>(kind)));
        box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        box->setMinimumContentsLength(6);
        box->setAccessibleName(name);
        connect(box, &QComboBox::activated, this, &SearchPage::showWhy);
        return box;
    };
    for (const Kind kind : search::kinds) {
        const int i = static_cast<int>(kind);
        auto* label = new QLabel(capital(words(deepstop::tr(nameOf(kind)))), board);
        label->setFont(reading(12));
        auto* box = choice(board, kind, label->text(), QStringLiteral("why-%1"));
        label->setBuddy(box);
        grid->addWidget(label, 0, i);
        grid->addWidget(box, 1, i);
        why_[static_cast<std::size_t>(kind)] = box;
    }
    column->addLayout(grid);
    rearRow_ = new QWidget(board);
    auto* rear = new QHBoxLayout(rearRow_);
    rear->setContentsMargins(0, 0, 0, 0);
    auto* behind = new QLabel(tr("Rear"), rearRow_);
    behind->setFont(reading(12));
    rear->addWidget(behind);
    for (std::size_t i = 0; i < whyRear_.size(); ++i) {
        const QString name = tr("%1 of the rear").arg(capital(words(deepstop::tr(nameOf(search::kinds[i])))));
        whyRear_[i] = choice(rearRow_, search::kinds[i], name, QStringLiteral("why-rear-%1"));
        rear->addWidget(whyRear_[i], 1);
    }
    rearRow_->hide();
    column->addWidget(rearRow_);
    whyText_ = new QTextBrowser(board);
    whyText_->setFrameShape(QFrame::NoFrame);
    whyText_->setObjectName(QStringLiteral("why"));
    whyText_->setAccessibleName(tr("Why not this one"));
    column->addWidget(whyText_, 1);
    return board;
}

} // namespace deepstop::app
