#include "widgets/library_window.hpp"

#include "widgets/save_dialog.hpp"
#include "widgets/words.hpp"
#include "document.hpp"
#include "files/exports.hpp"
#include "library/import.hpp"
#include "library/kit.hpp"
#include "library/kit_file.hpp"
#include "library_store.hpp"
#include "theme.hpp"
#include "widgets/import_window.hpp"

#include <QFileDialog>
#include <QHBoxLayout>
#include <QMessageBox>
#include <QVBoxLayout>

namespace deepstop::app {
namespace {

using library::Kind;
constexpr std::size_t mostShown = 300;

} // namespace

LibraryWindow::LibraryWindow(Document& document, LibraryStore& store, QWidget* parent)
    : QDialog(parent), document_(document), store_(store), kinds_(new QComboBox(this)), search_(new QLineEdit(this)),
      list_(new QListWidget(this)), state_(new QLabel(this)), put_(new QPushButton(this)), keep_(new QPushButton(this)),
      import_(new QPushButton(this)), export_(new QPushButton(this))
{
    setWindowTitle(tr("Parts library"));
    resize(560, 520);
    for (const Kind kind : { Kind::Rotor, Kind::Caliper, Kind::Pad, Kind::Wheel, Kind::Bracket, Kind::Hose, Kind::Kit }) {
        auto name = string(library::inNumber(kind));
        name[0] = name[0].toUpper();
        kinds_->addItem(name, static_cast<int>(kind));
    }
    kinds_->setAccessibleName(tr("Kind of part"));
    search_->setPlaceholderText(tr("words and sizes, as 330 two-piece"));
    search_->setAccessibleName(tr("Search the library"));
    search_->setClearButtonEnabled(true);
    list_->setAccessibleName(tr("Parts found"));
    list_->setUniformItemSizes(true);
    list_->setStyleSheet(QStringLiteral("QListWidget::item { padding: 4px 2px }"));
    state_->setWordWrap(true);
    keep_->setAutoDefault(false);
    put_->setDefault(true);
    import_->setAutoDefault(false);
    export_->setAutoDefault(false);
    auto* top = new QHBoxLayout;
    top->addWidget(kinds_);
    top->addWidget(search_, 1);
    auto* bottom = new QHBoxLayout;
    bottom->addWidget(put_);
    bottom->addWidget(keep_);
    bottom->addStretch();
    bottom->addWidget(import_);
    bottom->addWidget(export_);
    auto* column = new QVBoxLayout(this);
    column->addLayout(top);
    column->addWidget(list_, 1);
    column->addWidget(state_);
    column->addLayout(bottom);
    connect(kinds_, &QComboBox::currentIndexChanged, this, &LibraryWindow::refresh);
    connect(search_, &QLineEdit::textChanged, this, &LibraryWindow::refresh);
    connect(list_, &QListWidget::itemActivated, this, &LibraryWindow::put);
    connect(list_, &QListWidget::currentRowChanged, this, [this](int row) { put_->setEnabled(row >= 0); });
    connect(put_, &QPushButton::clicked, this, &LibraryWindow::put);
    connect(keep_, &QPushButton::clicked, this, &LibraryWindow::keep);
    connect(import_, &QPushButton::clicked, this, &LibraryWindow::importList);
    connect(export_, &QPushButton::clicked, this, &LibraryWindow::exportList);
    connect(&store_, &LibraryStore::changed, this, &LibraryWindow::refresh);
    connect(&document_, &Document::studied, this, [this] {
        if (isVisible())
            refresh();
    });
    connect(&store_, &LibraryStore::refused, this, [this](const QString& why) { state_->setText(why); });
}

Kind LibraryWindow::kind() const { return static_cast<Kind>(kinds_->currentData().toInt()); }

const Corner* LibraryWindow::corner() const { return document_.study().after.at(axle_).corner; }

void LibraryWindow::setAxle(Axle axle)
{
    axle_ = axle;
    refresh();
}

void LibraryWindow::setKind(Kind kind) { kinds_->setCurrentIndex(kinds_->findData(static_cast<int>(kind))); }

void LibraryWindow::refresh()
{
    const auto wasOn = list_->currentItem() ? list_->currentItem()->data(Qt::UserRole).toString() : QString();
    import_->setText(kind() == Kind::Kit ? tr("Import a kit…") : tr("Import parts…"));
    export_->setText(kind() == Kind::Kit ? tr("Export this kit…") : tr("Export parts…"));
    if (!store_.isReady()) {
        store_.load();
        state_->setText(tr("Reading the library …"));
        return;
    }
    const auto& parts = store_.parts();
    const auto found = store_.index(kind(), document_.units()).search(search_->text().toStdString(), mostShown);
    list_->clear();
    for (const auto& one : found) {
        auto* item =
            new QListWidgetItem(QString::fromStdString(one.name) + QStringLiteral("\n") + QString::fromStdString(one.about), list_);
        item->setData(Qt::UserRole, QString::fromStdString(one.id));
        if (item->data(Qt::UserRole).toString() == wasOn)
            list_->setCurrentItem(item);
    }
    if (!list_->currentItem() && list_->count() > 0)
        list_->setCurrentRow(0);
    put_->setEnabled(list_->currentItem() && document_.study().after.setup);
    const auto where = document_.study().after.setup ? QString::fromStdString(document_.study().after.setup->name) : QString();
    put_->setText(
        tr("Put into %1, %2")
            .arg(where.size() > 18 ? where.left(17) + QStringLiteral("…") : where, axle_ == Axle::Front ? tr("front") : tr("rear")));
    keep_->setText(tr("Keep the bench's %1").arg(string(deepstop::tr(nameOf(kind())))));
    keep_->setEnabled(corner() != nullptr);
    if (kind() == Kind::Kit) {
        const Setup* setup = document_.study().after.setup;
        put_->setText(tr("Add as a setup of its own"));
        keep_->setText(tr("Keep the kit of %1").arg(where.size() > 18 ? where.left(17) + QStringLiteral("…") : where));
        keep_->setEnabled(setup && (setup->front || setup->rear));
    }
    QString state = found.empty()
        ? list_->count() == 0 && search_->text().isEmpty() ? tr("This shelf is empty.") : tr("No part has all these words.")
        : found.size() == mostShown ? tr("The first %1; more words find fewer.").arg(mostShown)
                                    : tr("%1 found.").arg(found.size());
    if (corner())
        if (const auto apart = library::differences(parts, *corner(), document_.build(), kind())) {
            QStringList labels;
            for (const auto& label : *apart)
                labels << QString::fromStdString(label);
            state += QStringLiteral(" ")
                + (apart->empty() ? tr("The one on the bench is as the library has it.")
                                  : tr("The one on the bench differs from the library's: %1.")
                                        .arg(labels.mid(0, 4).join(QStringLiteral(", "))
                                            + (labels.size() > 4 ? tr(" and %1 more").arg(labels.size() - 4) : QString())));
        }
    state_->setText(state);
}

void LibraryWindow::put()
{
    if (!list_->currentItem() || !document_.study().after.setup)
        return;
    const auto id = list_->currentItem()->data(Qt::UserRole).toString().toStdString();
    const bool kit = kind() == Kind::Kit;
    const bool done = document_.edit(list_->currentItem()->text().section(QLatin1Char('\n'), 0, 0),
        [&, setup = document_.study().after.setup->id](const Build& now) -> std::optional<Build> {
            if (!findSetup(now, setup))
                return {};
            return library::withPart(now, setup, axle_, store_.parts(), kind(), id);
        });
    // What was added is what one wants to see.
    if (done && kit)
        document_.setPair({ document_.build().setups.front().id, document_.build().setups.back().id });
}

void LibraryWindow::keepKit()
{
    const Setup* after = document_.study().after.setup;
    const Setup* setup = after ? findSetup(document_.build(), after->id) : nullptr;
    library::Library one;
    const auto id = setup ? library::keepKit(one, *setup) : std::string();
    if (!id.empty() && store_.add(std::move(one)))
        state_->setText(tr("Kept as “%1”, nothing in it as measured on this car.").arg(QString::fromStdString(id)));
}

void LibraryWindow::keep()
{
    if (kind() == Kind::Kit) {
        keepKit();
        return;
    }
    if (!corner())
        return;
    library::Library one;
    // Its own id is found in the library as it is, so that keeping again replaces.
    auto all = store_.parts();
    const auto id = library::keep(all, *corner(), document_.build(), kind());
    library::onShelf(all, kind(), [&]<class T>(std::vector<library::Shelved<T>>& shelf) {
        for (const auto& shelved : shelf)
            if (shelved.id == id)
                library::onShelf(one, kind(), [&]<class U>(std::vector<library::Shelved<U>>& target) {
                    if constexpr (std::is_same_v<T, U>)
                        target.push_back(shelved);
                });
    });
    if (store_.add(std::move(one)))
        state_->setText(tr("Kept as “%1”.").arg(QString::fromStdString(id)));
}

void LibraryWindow::importKit()
{
    const auto path = QFileDialog::getOpenFileName(this, tr("Take a kit into the library"), {}, tr("Kit (*.json)"));
    if (path.isEmpty())
        return;
    try {
        library::Library one;
        const auto id = library::keepKit(one, files::loadKit(path.toStdString()));
        if (store_.add(std::move(one)))
            state_->setText(tr("Kept as “%1”.").arg(QString::fromStdString(id)));
    } catch (const files::Refusal& refusal) {
        state_->setText(QString::fromUtf8(refusal.what()));
    }
}

void LibraryWindow::exportKit()
{
    if (!list_->currentItem())
        return;
    const auto id = list_->currentItem()->data(Qt::UserRole).toString().toStdString();
    const auto& kits = store_.parts().kits;
    const auto kit = std::ranges::find(kits, id, &library::Shelved<Setup>::id);
    if (kit == kits.end())
        return;
    const auto path = askWhereToSave(this, tr("Save this kit"), QString::fromStdString(id) + QStringLiteral(".json"),
        tr("Kit (*.json);;List of its parts (*.csv)"), QStringLiteral("json"));
    if (path.isEmpty())
        return;
    try {
        files::exportKit(path.toStdString(), kit->part);
        state_->setText(tr("%1 saved.").arg(path));
    } catch (const files::Refusal& refusal) {
        state_->setText(QString::fromUtf8(refusal.what()));
    }
}

void LibraryWindow::importList()
{
    if (kind() == Kind::Kit) {
        importKit();
        return;
    }
    const auto path = QFileDialog::getOpenFileName(this, tr("Import parts"), {}, tr("Lists (*.csv *.tsv *.txt)"));
    if (path.isEmpty())
        return;
    ImportWindow window(store_, this);
    window.open(path);
    window.exec();
}

void LibraryWindow::exportList()
{
    if (kind() == Kind::Kit) {
        exportKit();
        return;
    }
    const auto path = askWhereToSave(
        this, tr("Export parts"), string(nameOf(kind())) + QStringLiteral("s.csv"), tr("Lists (*.csv)"), QStringLiteral("csv"));
    if (path.isEmpty())
        return;
    try {
        files::exportFile(path.toStdString(), library::exportParts(store_.parts(), kind()));
        state_->setText(tr("%1 saved.").arg(path));
    } catch (const files::Refusal& refusal) {
        state_->setText(QString::fromUtf8(refusal.what()));
    }
}

} // namespace deepstop::app
