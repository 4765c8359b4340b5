#include "stages/wheel/file_window.hpp"

#include "quantity/format.hpp"
#include "stages/design/section_view.hpp"
#include "stages/wheel/scan_files.hpp"
#include "theme.hpp"

#include <QFileDialog>
#include <QFileInfo>
#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>

namespace deepstop::app {
namespace {

constexpr std::array fileUnits { scan::FileUnit::Millimetre, scan::FileUnit::Inch, scan::FileUnit::Metre };

} // namespace

FileWindow::FileWindow(Document& document, Takes takes, QWidget* parent)
    : QDialog(parent), view_(new MeshView(this)), section_(new SectionView(this)), name_(new QLabel(this)), units_(new QComboBox(this)),
      said_(new QLabel(this)), progress_(new QProgressBar(this)), stop_(new QPushButton(tr("Cancel"), this)), keep_(new QCheckBox(this)),
      putIn_(new QPushButton(this)), document_(document), takes_(std::move(takes)), form_(new QFormLayout), under_(new QHBoxLayout)
{
    resize(1180, 760);
    name_->setFont(reading(13, QFont::DemiBold));
    for (const scan::FileUnit each : fileUnits)
        units_->addItem(QString::fromUtf8(scan::nameOf(each).data()));
    units_->setAccessibleName(tr("Unit of the file"));
    said_->setWordWrap(true);
    said_->setTextFormat(Qt::RichText);
    said_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    said_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    progress_->setTextVisible(false);
    progress_->setMaximumHeight(8);
    section_->setMinimumHeight(230);

    auto* openButton = new QPushButton(takes_.openWords, this);
    auto* top = new QHBoxLayout;
    top->addWidget(openButton);
    top->addWidget(name_, 1);
    auto* scroll = new QScrollArea(this);
    scroll->setWidget(said_);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto* right = new QVBoxLayout;
    right->addLayout(top);
    right->addLayout(form_);
    right->addWidget(scroll, 3);
    right->addWidget(section_, 3);
    auto* left = new QVBoxLayout;
    left->addWidget(view_, 1);
    left->addLayout(under_);
    auto* both = new QHBoxLayout;
    both->addLayout(left, 11);
    both->addLayout(right, 9);
    auto* buttons = new QHBoxLayout;
    buttons->addWidget(progress_, 1);
    buttons->addWidget(stop_);
    buttons->addStretch();
    buttons->addWidget(keep_);
    buttons->addWidget(putIn_);
    auto* column = new QVBoxLayout(this);
    column->addLayout(both, 1);
    column->addLayout(buttons);
    for (QPushButton* each : { openButton, stop_ })
        each->setAutoDefault(false);

    connect(openButton, &QPushButton::clicked, this, &FileWindow::choose);
    connect(stop_, &QPushButton::clicked, this, [this] {
        reading_.cancel();
        cancelFinding();
        keeping_.cancel();
        working(false);
    });
    connect(putIn_, &QPushButton::clicked, this, &FileWindow::putIn);
    connect(&document_, &Document::replaced, this, &QDialog::reject);
}

void FileWindow::choose()
{
    if (const auto file = QFileDialog::getOpenFileName(
            this, windowTitle(), QFileInfo(document_.path()).absolutePath(), tr("Scans and solids (*.stl *.ply *.obj *.step *.stp)"));
        !file.isEmpty())
        open(file);
}

double FileWindow::unit() const { return metresIn(fileUnits[static_cast<std::size_t>(std::max(0, units_->currentIndex()))]); }

std::shared_ptr<const Cloud> FileWindow::cloudNow() const
{
    const double by = unit() / metresIn(loaded_->guessed);
    return by == 1 ? loaded_->cloud : std::make_shared<const Cloud>(scaled(*loaded_->cloud, by));
}

void FileWindow::open(const QString& path)
{
    loaded_.reset();
    refused_.clear();
    forgetFound();
    view_->setCloud(nullptr);
    name_->setText(QFileInfo(path).fileName());
    working(true);
    say();
    reading_.start(
        [path, takes = takes_](const JobTicket& ticket) -> std::shared_ptr<const Loaded> {
            auto loaded = std::make_shared<Loaded>();
            loaded->file = solids::loadMesh(path.toStdString());
            ticket.progress(0.5);
            // Only a STEP file says its unit; its faces are exact.
            if (takes.faces && loaded->file.unit)
                loaded->solid = solids::readStep(path.toStdString());
            ticket.progress(0.8);
            loaded->path = path;
            loaded->guessed = loaded->file.unit
                ? *loaded->file.unit
                : scan::guessedUnit(loaded->file.mesh, takes.smallest, takes.largest).value_or(scan::FileUnit::Millimetre);
            loaded->cloud = std::make_shared<const Cloud>(cloudOf(loaded->file.mesh, metresIn(loaded->guessed)));
            return loaded;
        },
        [this](std::shared_ptr<const Loaded> loaded) {
            loaded_ = std::move(loaded);
            units_->setCurrentIndex(static_cast<int>(std::ranges::find(fileUnits, loaded_->guessed) - fileUnits.begin()));
            view_->setCloud(loaded_->cloud);
            fileRead();
        },
        [this](const std::exception& e) { refuse(QString::fromStdString(e.what())); },
        [this](int percent) { progress_->setValue(percent / 2); });
}

void FileWindow::offerKeeping()
{
    const bool onDisk = !document_.path().isEmpty();
    keep_->setEnabled(onDisk);
    keep_->setToolTip(onDisk ? QString() : tr("Save the build first"));
    if (!onDisk)
        keep_->setChecked(false);
}

void FileWindow::working(bool on)
{
    progress_->setVisible(on);
    progress_->setValue(0);
    stop_->setVisible(on);
    putIn_->setEnabled(!on && refused_.isEmpty() && isWhole());
}

void FileWindow::refuse(const QString& why)
{
    refused_ = why;
    forgetFound();
    working(false);
    say();
    section_->clear();
}

QString FileWindow::coloured(const QColor& colour, const QString& text)
{
    return QStringLiteral("<p style='margin:3px 0;color:%1'>%2</p>").arg(colour.name(), text);
}

QString FileWindow::sized(double value, double plusMinus) const
{
    const UnitSystem system = document_.units();
    const std::string text = print(value, style::fine, system);
    return QString::fromStdString(plusMinus > 0 ? fmt::format("{} ±{}", text, figure(plusMinus, style::fine, system)) : text)
        .toHtmlEscaped();
}

void FileWindow::putIn()
{
    if (!loaded_ || !putIn_->isEnabled())
        return;
    if (!keep_->isChecked())
        return putInFrom(loaded_->path);
    working(true);
    keeping_.start([from = loaded_->path, build = document_.path()](const JobTicket&) { return copiedBeside(from, build); },
        [this](const QString& copy) {
            working(false);
            putInFrom(copy);
        },
        // What was found stays: the copy can be left out.
        [this](const std::exception& e) {
            working(false);
            said_->setText(coloured(theme().bad, QString::fromStdString(e.what()).toHtmlEscaped()));
        });
}

} // namespace deepstop::app
