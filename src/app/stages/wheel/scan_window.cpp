#include "stages/wheel/scan_window.hpp"

#include "quantity/parse.hpp"
#include "stages/design/section_view.hpp"
#include "stages/wheel/scan_files.hpp"
#include "theme.hpp"

#include <QFileInfo>
#include <QHBoxLayout>

#include <algorithm>

namespace deepstop::app {
ScanWindow::ScanWindow(Document& document, QWidget* parent)
    : FileWindow(document, { tr("Open a scan…"), 0.25, 0.75, false }, parent), what_(new QComboBox(this)), known_(new QLineEdit(this)),
      correct_(new QCheckBox(tr("Correct the scan's scale to it"), this)), otherSide_(new QCheckBox(tr("Inboard is the other side"), this)),
      cut_(new QCheckBox(tr("Cut open"), this)), pick_(new QPushButton(tr("Pick the mounting face"), this))
{
    setWindowTitle(tr("A wheel from a scan"));
    keep_->setText(tr("Copy the scan beside the build"));
    what_->addItems({ tr("Bore"), tr("Bolt circle"), tr("Width over the flanges") });
    what_->setAccessibleName(tr("What was measured on the wheel"));
    known_->setPlaceholderText(tr("as 66.6, by vernier"));
    known_->setAccessibleName(tr("Its length"));
    known_->setFont(figures(13));
    pick_->setCheckable(true);
    pick_->setAutoDefault(false);
    pick_->setToolTip(tr("Click three places on the face that bears on the hub"));
    form()->addRow(tr("The file is in"), units_);
    auto* knownRow = new QHBoxLayout;
    knownRow->addWidget(what_);
    knownRow->addWidget(known_, 1);
    form()->addRow(tr("Measured on it"), knownRow);
    form()->addRow(QString(), correct_);
    for (QWidget* each : std::initializer_list<QWidget*> { cut_, otherSide_, pick_ })
        under()->addWidget(each);
    under()->addStretch();

    connect(units_, &QComboBox::activated, this, [this] {
        if (loaded_)
            view_->setCloud(cloudNow());
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
    working(false);
    say();
}

void ScanWindow::setWheel(Axle axle, const std::string& wheel)
{
    axle_ = axle;
    wheel_ = wheel;
    const deepstop::Wheel* of = findWheel(*document().study().build, wheel);
    offerKeeping();
    putIn_->setText(of ? tr("Put into %1").arg(QString::fromStdString(of->name)) : tr("Put into this wheel"));
    // What was measured on the wheel itself is held against the scan.
    if (of && of->bore.value && of->bore.known == Known::Measured && of->bore.instrument != "scan" && known_->text().isEmpty())
        known_->setText(QString::fromStdString(print(*of->bore.value, style::fine, document().units())));
    showSection();
}

void ScanWindow::askAgain()
{
    if (!loaded_)
        return;
    refused_.clear();
    finding_.cancel();
    scan::WheelQuestion question;
    question.unit = unit();
    question.otherSide = otherSide_->isChecked();
    if (const auto text = known_->text().trimmed(); !text.isEmpty()) {
        const auto parsed = parseQuantity(text.toStdString(), Dimension::Length, style::fine.unit(document().units()));
        if (!parsed || !(*parsed.value > 0))
            return refuse(parsed ? tr("A length above 0 is wanted.") : QString::fromStdString(parsed.refusal));
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
        [loaded = loaded_, question](const JobTicket& ticket) {
            return std::make_shared<const scan::WheelScan>(
                scan::scanWheel(loaded->file.mesh, question, [&](double part) { ticket.progress(part); }));
        },
        [this](std::shared_ptr<const scan::WheelScan> found) { take(std::move(found)); },
        [this](const std::exception& e) { refuse(QString::fromStdString(e.what())); },
        [this](int percent) { progress_->setValue(50 + percent / 2); });
}

void ScanWindow::take(std::shared_ptr<const scan::WheelScan> found)
{
    found_ = std::move(found);
    view_->setFound(found_->lacks.empty() ? found_ : nullptr);
    working(false);
    say();
    showSection();
}

void ScanWindow::say()
{
    const auto escaped = [](const std::string& text) { return QString::fromStdString(text).toHtmlEscaped(); };
    const UnitSystem system = document().units();
    if (!refused_.isEmpty())
        return said_->setText(coloured(theme().bad, refused_.toHtmlEscaped()));
    if (!loaded_ || !found_)
        return said_->setText(coloured(theme().mute,
            loaded_ || progress_->isVisible()
                ? tr("Being read…")
                : tr("Scan the wheel's inside with the mounting face, tyre and caliper off. Then measure one length "
                     "on it with a vernier: no scan tells its own scale.")));
    if (!found_->lacks.empty())
        return said_->setText(coloured(theme().bad, escaped(found_->lacks)));
    const auto sizedOr = [&](const std::optional<scan::Sized>& s) { return s ? sized(s->value, s->plusMinus) : tr("not found"); };
    double widest = 0;
    for (const auto& b : found_->barrel)
        widest = std::max(widest, b.plusMinus);
    QString html = QStringLiteral("<table cellspacing='2'>");
    const auto row = [&](const QString& what, const QString& value) {
        html += QStringLiteral("<tr><td style='padding-right:14px'>%1</td><td><b>%2</b></td></tr>").arg(what, value);
    };
    row(tr("Bore"), sizedOr(found_->bore));
    row(tr("Bolt circle"),
        found_->boltCircle ? tr("%1, %n hole(s)", nullptr, found_->holes).arg(sizedOr(found_->boltCircle)) : tr("not found"));
    row(tr("Offset ET"), sizedOr(found_->offset));
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
        html += coloured(colour, escaped(each));
        colour = theme().ink;
    }
    said_->setText(html);
}

void ScanWindow::showSection()
{
    const Study& study = document().study();
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

void ScanWindow::putInFrom(const QString& path)
{
    const scan::ScanFile file = scanFile(path, loaded_->file.hash, document().path());
    if (document().edit(tr("wheel scanned"), scan::wheelEdit(*found_, file, wheel_)))
        accept();
}

} // namespace deepstop::app
