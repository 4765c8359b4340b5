#include "widgets/log_columns_window.hpp"

#include "job.hpp"
#include "widgets/words.hpp"
#include "window/application.hpp"

#include <QFileInfo>
#include <QHeaderView>
#include <QVBoxLayout>

namespace deepstop::app {

LogColumnsWindow::LogColumnsWindow(const QString& path, files::LogHead head, QWidget* parent)
    : QDialog(parent), head_(std::move(head)), table_(new QTableWidget(this)), summary_(new QLabel(this)),
      take_(new QPushButton(tr("Read the log"), this))
{
    setObjectName(QStringLiteral("log-columns"));
    setWindowTitle(tr("Columns of %1").arg(QFileInfo(path).fileName()));
    resize(640, 420);
    auto* column = new QVBoxLayout(this);
    auto* asks = new QLabel(tr("The names do not say all of it. Say which column is the time and which the speed, and in what unit: a "
                               "speed in the wrong one makes every stop as wrong."),
        this);
    asks->setWordWrap(true);
    column->addWidget(asks);
    column->addWidget(table_, 1);
    auto* row = new QHBoxLayout;
    summary_->setWordWrap(true);
    row->addWidget(summary_, 1);
    row->addWidget(take_);
    column->addLayout(row);
    table_->setColumnCount(4);
    table_->setHorizontalHeaderLabels({ tr("Column"), tr("First rows"), tr("is"), tr("unit") });
    table_->setAccessibleName(tr("What the columns are"));
    table_->verticalHeader()->hide();
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setTabKeyNavigation(false);
    table_->horizontalHeader()->setSectionResizeMode(1, QHeaderView::Stretch);
    table_->setColumnWidth(0, 150);
    table_->setColumnWidth(2, 140);
    table_->setRowCount(static_cast<int>(head_.columns.columns.size()));
    for (int i = 0; i < table_->rowCount(); ++i) {
        const auto at = static_cast<std::size_t>(i);
        table_->setItem(i, 0, new QTableWidgetItem(QString::fromStdString(head_.columns.columns[at].name).left(60)));
        QStringList first;
        for (const auto& cells : head_.rows)
            first << QString::fromStdString(cells[at]).left(16);
        table_->setItem(i, 1, new QTableWidgetItem(first.join(QStringLiteral("   "))));
        auto* kind = new QComboBox;
        for (std::size_t k = 0; k < files::loggedKinds; ++k)
            kind->addItem(string(deepstop::tr(files::nameOf(static_cast<files::Logged>(k)))));
        kind->setCurrentIndex(static_cast<int>(head_.columns.columns[at].logged));
        table_->setCellWidget(i, 2, kind);
        auto* unit = new QComboBox;
        table_->setCellWidget(i, 3, unit);
        fillUnits(i);
        connect(kind, &QComboBox::currentIndexChanged, this, [this, i] { choose(i); });
        connect(unit, &QComboBox::currentTextChanged, this, [this, i](const QString& symbol) {
            auto& each = head_.columns.columns[static_cast<std::size_t>(i)];
            each.unit = symbol.isEmpty() ? nullptr : findUnit(symbol.toStdString(), files::dimensionOf(each.logged));
            each.unitSaid = each.unit != nullptr;
            judge();
        });
    }
    connect(take_, &QPushButton::clicked, this, &QDialog::accept);
    judge();
}

QComboBox* LogColumnsWindow::kind(int column) const { return qobject_cast<QComboBox*>(table_->cellWidget(column, 2)); }
QComboBox* LogColumnsWindow::unit(int column) const { return qobject_cast<QComboBox*>(table_->cellWidget(column, 3)); }

void LogColumnsWindow::choose(int column)
{
    auto& each = head_.columns.columns[static_cast<std::size_t>(column)];
    each.logged = static_cast<files::Logged>(kind(column)->currentIndex());
    each.unit = nullptr;
    each.unitSaid = false;
    fillUnits(column);
    judge();
}

/// The units a column may be in. One that nobody has said is not filled in: it has to be chosen.
void LogColumnsWindow::fillUnits(int column)
{
    auto& each = head_.columns.columns[static_cast<std::size_t>(column)];
    auto* box = unit(column);
    const QSignalBlocker quiet(box);
    box->clear();
    box->setEnabled(each.logged != files::Logged::Nothing);
    if (!box->isEnabled())
        return;
    box->addItem(QString());
    for (const Unit& one : allUnits())
        if (one.dimension == files::dimensionOf(each.logged))
            box->addItem(string(one.symbol));
    // Time is in seconds or on a clock, whatever the logger.
    if (each.logged == files::Logged::Time && !each.unit)
        each.unit = findUnit("s");
    each.unitSaid = each.unitSaid || each.logged == files::Logged::Time;
    if (!each.unitSaid)
        each.unit = nullptr;
    box->setCurrentText(each.unit ? string(each.unit->symbol) : QString());
}

void LogColumnsWindow::judge()
{
    const auto lacks = head_.columns.lacks();
    take_->setEnabled(lacks.empty());
    summary_->setText(lacks.empty() ? tr("It can be read like this.") : tr("Not yet: %1.").arg(QString::fromStdString(lacks)));
}

void askColumns(
    const QString& path, QWidget* parent, std::function<void(const AskedColumns&)> then, std::function<void(const QString&)> failed)
{
    // It belongs to the page, and goes when it is done.
    struct Asking : QObject {
        using QObject::QObject;
        Job<std::optional<files::LogHead>> looking;
    };
    auto* asking = new Asking(parent);
    asking->looking.start([path](const JobTicket&) { return files::headOfLog(path.toStdString()); },
        [path, parent, asking, then](std::optional<files::LogHead> head) {
            asking->deleteLater();
            if (!head || head->columns.sure()) {
                then({});
                return;
            }
            LogColumnsWindow window(path, std::move(*head), parent);
            if (window.exec() == QDialog::Accepted)
                then({ window.columns() });
        },
        [asking, failed](const std::exception& wrong) {
            asking->deleteLater();
            failed(saidBy(wrong));
        });
}

} // namespace deepstop::app
