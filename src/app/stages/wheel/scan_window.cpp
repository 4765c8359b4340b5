#include "stages/wheel/scan_window.hpp"

#include "quantity/parse.hpp"
#include "stages/design/section_view.hpp"
#include "stages/wheel/scan_files.hpp"
#include "theme.hpp"

#include <QFileDialog>
#include <QFileInfo>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>

namespace deepstop::app {
namespace {

constexpr std::array unitsInOrder { scan::FileUnit::Millimetre, scan::FileUnit::Inch, scan::FileUnit::Metre };

} // namespace

ScanWindow::ScanWindow(Document& document, QWidget* parent)
    : QDialog(parent), document_(document), view_(new MeshView(this)), section_(new SectionView(this)), name_(new QLabel(this)),
      units_(new QComboBox(this)), what_(new QComboBox(this)), known_(new QLineEdit(this)),
      correct_(new QCheckBox(tr("Correct the scan's scale to it"), this)), otherSide_(new QCheckBox(tr("Inboard is the other side"), this)),
      cut_(new QCheckBox(tr("Cut open"), this)), keep_(new QCheckBox(tr("Copy the scan beside the build"), this)),
      pick_(new QPushButton(tr("Pick the mounting face"), this)), said_(new QLabel(this)), progress_(new QProgressBar(this)),
      stop_(new QPushButton(tr("Cancel"), this)), putIn_(new QPushButton(tr("Put into this wheel"), this))
{
    setWindowTitle(tr("A wheel from a scan"));
    resize(1180, 760);
    name_->setFont(reading(13, QFont::DemiBold));
    for (const scan::FileUnit unit : unitsInOrder)
        units_->addItem(QString::fromUtf8(scan::nameOf(unit).data()));
    units_->setAccessibleName(tr("Unit of the file"));
    what_->addItems({ tr("Bore"), tr("Bolt circle"), tr("Width over the flanges") });
    what_->setAccessibleName(tr("What was measured on the wheel"));
    known_->setPlaceholderText(tr("as 66.6, by vernier"));
    known_->setAccessibleName(tr("Its length"));
    known_->setFont(figures(13));
    said_->setWordWrap(true);
    said_->setTextFormat(Qt::RichText);
    said_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    said_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    pick_->setCheckable(true);
    pick_->setToolTip(tr("Click three places on the face that bears on the hub"));
    progress_->setTextVisible(false);
    progress_->setMaximumHeight(8);
    section_->setMinimumHeight(230);

    auto* open = new QPushButton(tr("Open a scan…"), this);
    open->setAutoDefault(false);
    auto* top = new QHBoxLayout;
    top->addWidget(open);
    top->addWidget(name_, 1);
    auto* form = new QFormLayout;
    form->addRow(tr("The file is in"), units_);
    auto* knownRow = new QHBoxLayout;
    knownRow->addWidget(what_);
    knownRow->addWidget(known_, 1);
    form->addRow(tr("Measured on it"), knownRow);
    form->addRow(QString(), correct_);
    auto* scroll = new QScrollArea(this);
    scroll->setWidget(said_);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto* right = new QVBoxLayout;
    right->addLayout(top);
    right->addLayout(form);
    right->addWidget(scroll, 2);
    right->addWidget(section_, 3);
    auto* under = new QHBoxLayout;
    for (QWidget* each : std::initializer_list<QWidget*> { cut_, otherSide_, pick_ })
        under->addWidget(each);
    under->addStretch();
    auto* left = new QVBoxLayout;
    left->addWidget(view_, 1);
    left->addLayout(under);
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
    for (QPushButton* each : { pick_, stop_ })
        each->setAutoDefault(false);

    connect(open, &QPushButton::clicked, this, &ScanWindow::choose);
    connect(units_, &QComboBox::activated, this, [this] {
        view_->clearPicks();
        askAgain();
    });
    connect(what_, &QComboBox::activated, this, &ScanWindow::askAgain);
    connect(known_, &QLineEdit::editingFinished, this, [this] {
        if (known_->isModified()) {
            known_->setModified(false);
            askAgain();
        }
    });
    connect(correct_, &QCheckBox::clicked, this, &ScanWindow::askAgain);
    connect(otherSide_, &QCheckBox::clicked, this, &ScanWindow::askAgain);
    connect(cut_, &QCheckBox::toggled, view_, &MeshView::setCut);
    connect(pick_, &QPushButton::clicked, this, &ScanWindow::pick);
    connect(view_, &MeshView::picked, this, [this] {
        if (view_->picks().size() < 3)
            return;
        pick_->setChecked(false);
        view_->setPicking(false);
        askAgain();
    });
    connect(stop_, &QPushButton::clicked, this, [this] {
        reading_.cancel();
        finding_.cancel();
        keeping_.cancel();
        working(false);
    });
    connect(putIn_, &QPushButton::clicked, this, &ScanWindow::putIn);
    connect(&document_, &Document::replaced, this, &QDialog::reject);
    working(false);
    say();
}

void ScanWindow::choose()
{
    if (const auto path = QFileDialog::getOpenFileName(
            this, tr("A scan"), QFileInfo(document_.path()).absolutePath(), tr("Scans and solids (*.stl *.ply *.obj *.step *.stp)"));
        !path.isEmpty())
        open(path);
}

void ScanWindow::setWheel(Axle axle, const std::string& wheel)
{
    axle_ = axle;
    wheel_ = wheel;
    const deepstop::Wheel* of = findWheel(*document_.study().build, wheel);
    // Beside a build that is nowhere yet nothing can be copied.
    const bool onDisk = !document_.path().isEmpty();
    keep_->setEnabled(onDisk);
    keep_->setToolTip(onDisk ? QString() : tr("Save the build first"));
    if (!onDisk)
        keep_->setChecked(false);
    putIn_->setText(of ? tr("Put into %1").arg(QString::fromStdString(of->name)) : tr("Put into this wheel"));
    // What was measured on the wheel itself is held against the scan.
    if (of && of->bore.value && of->bore.known == Known::Measured && of->bore.instrument != "scan" && known_->text().isEmpty())
        known_->setText(QString::fromStdString(print(*of->bore.value, style::fine, document_.units())));
    showSection();
}

void ScanWindow::working(bool on)
{
    progress_->setVisible(on);
    progress_->setValue(0);
    stop_->setVisible(on);
    putIn_->setEnabled(!on && found_ && found_->lacks.empty() && refused_.isEmpty() && (!found_->scale || found_->scale->agrees()));
}

void ScanWindow::open(const QString& path)
{
    found_.reset();
    loaded_.reset();
    refused_.clear();
    view_->setFound(nullptr);
    view_->setCloud(nullptr);
    name_->setText(QFileInfo(path).fileName());
    working(true);
    say();
    reading_.start(
        [path](const JobTicket& ticket) -> std::shared_ptr<const Loaded> {
            auto loaded = std::make_shared<Loaded>();
            loaded->file = solids::loadMesh(path.toStdString());
            ticket.progress(0.7);
            loaded->path = path;
            loaded->guessed =
                loaded->file.unit ? *loaded->file.unit : scan::guessedUnit(loaded->file.mesh).value_or(scan::FileUnit::Millimetre);
            loaded->cloud = std::make_shared<const Cloud>(cloudOf(loaded->file.mesh, metresIn(loaded->guessed)));
            return loaded;
        },
        [this](std::shared_ptr<const Loaded> loaded) {
            loaded_ = std::move(loaded);
            units_->setCurrentIndex(static_cast<int>(std::ranges::find(unitsInOrder, loaded_->guessed) - unitsInOrder.begin()));
            view_->setCloud(loaded_->cloud);
            askAgain();
        },
        [this](const std::exception& e) {
            refused_ = QString::fromStdString(e.what());
            working(false);
            say();
        },
        [this](int percent) { progress_->setValue(percent / 2); });
}

double ScanWindow::unit() const { return metresIn(unitsInOrder[static_cast<std::size_t>(std::max(0, units_->currentIndex()))]); }

void ScanWindow::askAgain()
{
    if (!loaded_)
        return;
    refused_.clear();
    scan::WheelQuestion question;
    question.unit = unit();
    question.otherSide = otherSide_->isChecked();
    if (const auto text = known_->text().trimmed(); !text.isEmpty()) {
        const auto parsed = parseQuantity(text.toStdString(), Dimension::Length, style::fine.unit(document_.units()));
        if (!parsed || !(*parsed.value > 0)) {
            refused_ = parsed ? tr("A length above 0 is wanted.") : QString::fromStdString(parsed.refusal);
            working(false);
            return say();
        }
        question.known = scan::byVernier(static_cast<scan::KnownLength>(what_->currentIndex()), *parsed.value);
        question.correctScale = correct_->isChecked();
    }
    if (view_->picks().size() >= 3)
        for (std::size_t i = 0; i < 3; ++i) {
            scan::Point at = view_->picks()[i];
            for (double& each : at)
                each /= unit(); // as the file has it
            question.picked[i] = at;
        }
    working(true);
    finding_.start(
        [loaded = loaded_, question, was = metresIn(loaded_->guessed)](const JobTicket& ticket) -> Found {
            Found found;
            found.scan = std::make_shared<const scan::WheelScan>(
                scan::scanWheel(loaded->file.mesh, question, [&](double part) { ticket.progress(part); }));
            found.cloud = question.unit == was ? loaded->cloud : std::make_shared<const Cloud>(cloudOf(loaded->file.mesh, question.unit));
            return found;
        },
        [this](Found found) { take(std::move(found)); },
        [this](const std::exception& e) {
            refused_ = QString::fromStdString(e.what());
            working(false);
            say();
        },
        [this](int percent) { progress_->setValue(50 + percent / 2); });
}

void ScanWindow::take(Found found)
{
    found_ = std::move(found.scan);
    const auto picks = view_->picks();
    if (found.cloud != loaded_->cloud || picks.empty())
        view_->setCloud(found.cloud);
    view_->setFound(found_->lacks.empty() ? found_ : nullptr);
    working(false);
    say();
    showSection();
}

void ScanWindow::say()
{
    const auto escaped = [](const std::string& text) { return QString::fromStdString(text).toHtmlEscaped(); };
    const UnitSystem system = document_.units();
    if (!refused_.isEmpty())
        return said_->setText(QStringLiteral("<p style='color:%1'>%2</p>").arg(theme().bad.name(), refused_.toHtmlEscaped()));
    if (!loaded_ || !found_)
        return said_->setText(
            QStringLiteral("<p style='color:%1'>%2</p>")
                .arg(theme().mute.name(),
                    loaded_ || progress_->isVisible()
                        ? tr("Being read…")
                        : tr("Scan the wheel's inside with the mounting face, tyre and caliper off. Then measure one length "
                             "on it with a vernier: no scan tells its own scale.")));
    if (!found_->lacks.empty())
        return said_->setText(QStringLiteral("<p style='color:%1'>%2</p>").arg(theme().bad.name(), escaped(found_->lacks)));
    const auto sized = [&](const std::optional<scan::Sized>& s) {
        return s ? escaped(fmt::format("{} ±{}", print(s->value, style::fine, system), figure(s->plusMinus, style::fine, system)))
                 : tr("not found");
    };
    double widest = 0;
    for (const auto& b : found_->barrel)
        widest = std::max(widest, b.plusMinus);
    QString html = QStringLiteral("<table cellspacing='2'>");
    const auto row = [&](const QString& what, const QString& value) {
        html += QStringLiteral("<tr><td style='padding-right:14px'>%1</td><td><b>%2</b></td></tr>").arg(what, value);
    };
    row(tr("Bore"), sized(found_->bore));
    row(tr("Bolt circle"),
        found_->boltCircle ? tr("%1, %n hole(s)", nullptr, found_->holes).arg(sized(found_->boltCircle)) : tr("not found"));
    row(tr("Offset ET"), sized(found_->offset));
    row(tr("Barrel"),
        tr("%n station(s)", nullptr, static_cast<int>(found_->barrel.size())) + QStringLiteral(", ")
            + tr("at most ±%1").arg(escaped(print(widest, style::fine, system))));
    row(tr("Spokes"), found_->spokeCount > 0 ? QString::number(found_->spokeCount) : tr("number not told"));
    row(tr("Stands inside"),
        found_->insets.empty() ? tr("nothing seen") : tr("%n piece(s)", nullptr, static_cast<int>(found_->insets.size())));
    row(tr("Roughness"), escaped(print(found_->noise, style::fine, system)));
    html += QStringLiteral("</table>");
    // What is said of the scale comes first.
    QColor colour = found_->trusted() ? theme().ink : theme().bad;
    for (const std::string& each : scan::remarks(*found_, system)) {
        html += QStringLiteral("<p style='margin:3px 0;color:%1'>%2</p>").arg(colour.name(), escaped(each));
        colour = theme().ink;
    }
    said_->setText(html);
}

void ScanWindow::showSection()
{
    const Study& study = document_.study();
    if (!found_ || !found_->lacks.empty() || !study.after.at(axle_).corner)
        return section_->clear();
    const auto with = applied(
        [this, setup = study.after.setup->id, axle = axle_](const Build& now) -> std::optional<Build> {
            auto build = scan::wheelEdit(*found_, {}, wheel_)(now);
            if (build && findSetup(*build, setup))
                ownCorner(*build, setup, axle).wheel = wheel_;
            return build;
        },
        *study.build);
    if (with)
        section_->setBuild(with, { study.before.setup->id, study.after.setup->id }, axle_);
}

void ScanWindow::pick()
{
    view_->clearPicks();
    view_->setPicking(pick_->isChecked());
    if (!pick_->isChecked())
        askAgain();
}

void ScanWindow::putIn()
{
    if (!found_ || !loaded_)
        return;
    const QString build = document_.path();
    if (!keep_->isChecked())
        return putInFrom(loaded_->path);
    working(true);
    keeping_.start([from = loaded_->path, build](const JobTicket&) { return copiedBeside(from, build); },
        [this](const QString& path) {
            working(false);
            putInFrom(path);
        },
        [this](const std::exception& e) {
            refused_ = QString::fromStdString(e.what());
            working(false);
            say();
        });
}

void ScanWindow::putInFrom(const QString& path)
{
    const scan::ScanFile file = scanFile(path, loaded_->file.hash, document_.path());
    if (document_.edit(tr("wheel scanned"), scan::wheelEdit(*found_, file, wheel_)))
        accept();
}

} // namespace deepstop::app
