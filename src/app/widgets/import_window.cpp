#include "widgets/import_window.hpp"

#include "widgets/words.hpp"
#include "files/disk.hpp"
#include "library_store.hpp"

#include <QFileInfo>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QVBoxLayout>

namespace deepstop::app {
namespace {

using library::Kind;
constexpr int mostListed = 2000; ///< refused lines in the table; the rest is counted

} // namespace

ImportWindow::ImportWindow(LibraryStore& store, QWidget* parent)
    : QDialog(parent), store_(store), kind_(new QComboBox(this)), columns_(new QTableWidget(0, 3, this)),
      refused_(new QTableWidget(0, 3, this)), summary_(new QLabel(this)), progress_(new QProgressBar(this)),
      take_(new QPushButton(tr("Import"), this)), cancel_(new QPushButton(tr("Stop reading"), this))
{
    setWindowTitle(tr("A list of parts"));
    resize(680, 620);
    for (const Kind kind : { Kind::Rotor, Kind::Caliper, Kind::Pad, Kind::Wheel, Kind::Bracket, Kind::Hose })
        kind_->addItem(string(deepstop::tr(nameOf(kind))), static_cast<int>(kind));
    kind_->setAccessibleName(tr("Kind of part"));
    columns_->setHorizontalHeaderLabels({ tr("Column of the list"), tr("is"), tr("plain numbers in") });
    refused_->setHorizontalHeaderLabels({ tr("Line"), tr("Why it cannot be imported"), tr("As it stands") });
    for (QTableWidget* table : { columns_, refused_ }) {
        table->verticalHeader()->hide();
        table->horizontalHeader()->setStretchLastSection(true);
        table->setEditTriggers(QAbstractItemView::NoEditTriggers);
        table->setColumnWidth(1, 300);
    }
    refused_->setColumnWidth(0, 60);
    columns_->setColumnWidth(0, 210);
    columns_->setColumnWidth(1, 280);
    columns_->setAccessibleName(tr("What the columns are"));
    refused_->setAccessibleName(tr("Lines that cannot be imported"));
    summary_->setWordWrap(true);
    progress_->setRange(0, 1000);
    progress_->hide();
    cancel_->hide();
    auto* top = new QHBoxLayout;
    top->addWidget(new QLabel(tr("Every line is a"), this));
    top->addWidget(kind_);
    top->addStretch();
    auto* bottom = new QHBoxLayout;
    bottom->addWidget(progress_, 1);
    bottom->addWidget(cancel_);
    bottom->addStretch();
    bottom->addWidget(take_);
    auto* column = new QVBoxLayout(this);
    column->addLayout(top);
    column->addWidget(columns_, 3);
    column->addWidget(summary_);
    column->addWidget(refused_, 2);
    column->addLayout(bottom);
    connect(kind_, &QComboBox::activated, this, [this](int index) { guess(kind_->itemData(index).toInt()); });
    connect(cancel_, &QPushButton::clicked, this, &ImportWindow::stop);
    connect(take_, &QPushButton::clicked, this, [this] {
        if (read_ && store_.add(read_->parts))
            accept();
    });
    connect(&store_, &LibraryStore::refused, this, [this](const QString& why) { summary_->setText(why); });
}

void ImportWindow::stop()
{
    importing_.cancel();
    progress_->hide();
    cancel_->hide();
    summary_->setText(tr("Stopped. Nothing was imported."));
}

void ImportWindow::open(const QString& path)
{
    setWindowTitle(QFileInfo(path).fileName());
    summary_->setText(tr("Reading …"));
    list_ = nullptr;
    read_ = nullptr;
    importing_.cancel();
    take_->setEnabled(false);
    // Nothing can be chosen of a list that is not there yet.
    kind_->setEnabled(false);
    columns_->setRowCount(0);
    opening_.start(
        [path](const JobTicket&) -> std::shared_ptr<const Opened> {
            auto list = std::make_shared<Opened>();
            try {
                list->text = files::readFile(path.toStdString(), files::largestLibrary);
                list->plan = library::guessPlan(list->text);
            } catch (const files::Refusal& refusal) {
                const auto why = QString::fromUtf8(refusal.what());
                list->trouble = why.startsWith(path) ? why : QFileInfo(path).fileName() + QStringLiteral(": ") + why;
            }
            return list;
        },
        [this](std::shared_ptr<const Opened> list) { opened(std::move(list)); },
        [this](const std::exception& wrong) { summary_->setText(QString::fromUtf8(wrong.what())); });
}

void ImportWindow::opened(std::shared_ptr<const Opened> list)
{
    list_ = std::move(list);
    kind_->setEnabled(list_->trouble.isEmpty());
    if (!list_->trouble.isEmpty()) {
        summary_->setText(list_->trouble);
        return;
    }
    plan_ = list_->plan;
    kind_->setCurrentIndex(kind_->findData(static_cast<int>(plan_.kind)));
    lay();
    readAgain();
}

void ImportWindow::guess(int kind)
{
    if (!list_ || !list_->trouble.isEmpty())
        return;
    plan_ = library::guessPlan(list_->text, static_cast<Kind>(kind));
    lay();
    readAgain();
}

void ImportWindow::lay()
{
    const auto& fields = library::fieldsOf(plan_.kind);
    columns_->setRowCount(static_cast<int>(plan_.columns.size()));
    for (int row = 0; row < columns_->rowCount(); ++row) {
        const auto& column = plan_.columns[static_cast<std::size_t>(row)];
        columns_->setItem(row, 0, new QTableWidgetItem(QString::fromStdString(column.header).left(80)));
        auto* field = new QComboBox;
        field->addItem(tr("passed over"), QString());
        for (const auto& name : fields)
            if (!name.key.empty())
                field->addItem(tr(name.label.c_str()), QString::fromStdString(name.key));
        field->setCurrentIndex(std::max(0, field->findData(QString::fromStdString(column.key))));
        auto* unit = new QComboBox;
        const auto fillUnits = [this, unit, row] {
            const QSignalBlocker quiet(unit);
            unit->clear();
            const auto& chosen = plan_.columns[static_cast<std::size_t>(row)];
            unit->setEnabled(chosen.unit && !chosen.unit->symbol.empty());
            if (!unit->isEnabled())
                return;
            for (const Unit& one : allUnits())
                if (one.dimension == chosen.unit->dimension)
                    unit->addItem(string(one.symbol));
            unit->setCurrentText(string(chosen.unit->symbol));
        };
        fillUnits();
        connect(field, &QComboBox::activated, this, [this, field, row, fillUnits] {
            auto& chosen = plan_.columns[static_cast<std::size_t>(row)];
            chosen.key = field->currentData().toString().toStdString();
            chosen.why.clear();
            const auto& names = library::fieldsOf(plan_.kind);
            const auto named = std::ranges::find(names, chosen.key, &library::FieldName::key);
            chosen.unit = chosen.key.empty() || named == names.end() ? nullptr : named->unit;
            fillUnits();
            readAgain();
        });
        connect(unit, &QComboBox::activated, this, [this, unit, row] {
            auto& chosen = plan_.columns[static_cast<std::size_t>(row)];
            chosen.unit = findUnit(unit->currentText().toStdString(), chosen.unit->dimension);
            readAgain();
        });
        columns_->setCellWidget(row, 1, field);
        columns_->setCellWidget(row, 2, unit);
    }
}

void ImportWindow::readAgain()
{
    read_ = nullptr;
    take_->setEnabled(false);
    progress_->setValue(0);
    progress_->show();
    cancel_->show();
    summary_->setText(tr("Reading …"));
    importing_.start(
        [list = list_, plan = plan_](const JobTicket& ticket) {
            auto read = std::make_shared<library::Import>();
            try {
                *read = library::importParts(list->text, plan, [&](double done) { return ticket.progress(done); });
            } catch (const files::Refusal& refusal) {
                read->refused.push_back({ 0, {}, refusal.what() });
                read->cancelled = true;
            }
            return read;
        },
        [this](std::shared_ptr<library::Import> read) { finished(std::move(read)); },
        [this](const std::exception& wrong) {
            progress_->hide();
            cancel_->hide();
            summary_->setText(QString::fromUtf8(wrong.what()));
        },
        [this](int percent) { progress_->setValue(10 * percent); });
}

void ImportWindow::finished(std::shared_ptr<library::Import> read)
{
    progress_->hide();
    cancel_->hide();
    read_ = read;
    const bool noList = read->cancelled && !read->refused.empty() && read->refused.front().line == 0;
    if (noList)
        summary_->setText(QString::fromStdString(read->refused.front().why));
    else if (read->cancelled)
        summary_->setText(tr("Stopped. Nothing was imported."));
    else
        summary_->setText(tr("%1 parts can be imported, %2 lines cannot.").arg(read->taken).arg(read->refused.size())
            + (read->refused.size() > mostListed ? tr(" The first %1 of them:").arg(mostListed) : QString()));
    take_->setEnabled(!read->cancelled && read->taken > 0);
    refused_->setRowCount(noList ? 0 : static_cast<int>(std::min<std::size_t>(read->refused.size(), mostListed)));
    for (int row = 0; row < refused_->rowCount(); ++row) {
        const auto& line = read->refused[static_cast<std::size_t>(row)];
        refused_->setItem(row, 0, new QTableWidgetItem(QString::number(line.line)));
        refused_->setItem(row, 1, new QTableWidgetItem(QString::fromStdString(line.why)));
        refused_->setItem(row, 2, new QTableWidgetItem(QString::fromStdString(line.text)));
    }
}

} // namespace deepstop::app
