#include "stages/bench/part_file_window.hpp"

#include "build/choices.hpp"
#include "language/language.hpp"
#include "quantity/parse.hpp"
#include "stages/design/section_view.hpp"
#include "stages/wheel/scan_files.hpp"
#include "theme.hpp"

#include <QFileInfo>
#include <QHBoxLayout>

#include <algorithm>
#include <numeric>

namespace deepstop::app {
namespace {

/// Kinds of places that are picked on a knuckle.
constexpr std::array pickedKinds { KeepOutKind::Knuckle, KeepOutKind::BallJoint, KeepOutKind::Hose, KeepOutKind::HubCorner,
    KeepOutKind::HoseBoss, KeepOutKind::Other };

scan::Picks picksFrom(const std::vector<scan::Point>& all, std::size_t first) { return { all[first], all[first + 1], all[first + 2] }; }

} // namespace

PartFileWindow::PartFileWindow(Document& document, QWidget* parent)
    : FileWindow(document, { tr("Open a file…"), 0.06, 0.6, true }, parent), part_(new QComboBox(this)), rotor_(new QLineEdit(this)),
      drop_(new QLineEdit(this)), pilot_(new QLineEdit(this)), keepOutKind_(new QComboBox(this)),
      addKeepOut_(new QPushButton(tr("Pick a keep-out point"), this)), next_(new QLabel(this)),
      back_(new QPushButton(tr("Take the last place back"), this))
{
    setWindowTitle(tr("A part from a file"));
    keep_->setText(tr("Copy the file beside the build"));
    part_->addItems({ tr("Caliper"), tr("Rotor"), tr("Knuckle with its hub") });
    part_->setAccessibleName(tr("What is read"));
    for (const auto& [edit, name] : { std::pair { rotor_, tr("Diameter of the rotor that it is meant for") },
             { drop_, tr("Mounting holes inward of that rotor's edge") }, { pilot_, tr("The hub's pilot, measured") } }) {
        edit->setAccessibleName(name);
        edit->setFont(figures(13));
        connect(edit, &QLineEdit::editingFinished, this, [this, edit = edit] {
            if (edit->isModified()) {
                edit->setModified(false);
                goOn();
            }
        });
    }
    for (const KeepOutKind kind : pickedKinds)
        keepOutKind_->addItem(QString::fromUtf8(wordFor(kind, choices::keepOut).data()));
    keepOutKind_->setAccessibleName(tr("What stands there"));
    next_->setWordWrap(true);
    next_->setFont(reading(13, QFont::DemiBold));
    form()->addRow(tr("What is read"), part_);
    form()->addRow(tr("The file is in"), units_);
    form()->addRow(tr("For a rotor of"), rotor_);
    form()->addRow(tr("Holes inward of its edge"), drop_);
    form()->addRow(tr("Pilot, measured"), pilot_);
    auto* places = new QHBoxLayout;
    places->addWidget(keepOutKind_);
    places->addWidget(addKeepOut_, 1);
    form()->addRow(places);
    under()->addWidget(next_, 1);
    under()->addWidget(back_);
    for (QPushButton* each : { addKeepOut_, back_ })
        each->setAutoDefault(false);

    connect(part_, &QComboBox::activated, this, [this] {
        forgetPicks();
        arrange();
        goOn();
    });
    connect(units_, &QComboBox::activated, this, [this] {
        forgetPicks();
        if (loaded_)
            view_->setCloud(cloudNow());
        goOn();
    });
    connect(view_, &MeshView::picked, this, &PartFileWindow::goOn);
    connect(back_, &QPushButton::clicked, this, [this] {
        if (view_->picks().size() == placesWanted() && !keepOuts_.empty())
            keepOuts_.pop_back();
        view_->takePickBack();
        goOn();
    });
    connect(addKeepOut_, &QPushButton::clicked, this, [this] {
        keepOuts_.push_back(pickedKinds[static_cast<std::size_t>(std::max(0, keepOutKind_->currentIndex()))]);
        goOn();
        view_->setFocus();
    });
    arrange();
    working(false);
    say();
}

void PartFileWindow::setPart(Axle axle, Part part)
{
    axle_ = axle;
    part_->setCurrentIndex(part);
    const Study& study = document().study();
    const UnitSystem system = document().units();
    const auto offer = [&](QLineEdit* edit, const Reading& from) {
        if (from.value && edit->text().isEmpty())
            edit->setText(QString::fromStdString(print(*from.value, style::fine, system)));
    };
    if (const Corner* corner = study.after.at(axle).corner) {
        offer(rotor_, corner->rotor.outerDiameter);
        offer(drop_, corner->caliper.mountDrop);
    }
    // Only what was measured on the hub itself is held against its scan.
    const Reading& pilot = hubOf(*study.build, axle).pilotDiameter;
    if (pilot.known == Known::Measured && pilot.instrument != "scan")
        offer(pilot_, pilot);
    offerKeeping();
    forgetPicks();
    arrange();
    goOn();
}

void PartFileWindow::forgetPicks()
{
    view_->clearPicks();
    view_->setRings({});
    keepOuts_.clear();
    found_.reset();
}

void PartFileWindow::arrange()
{
    const Part part = partNow();
    const auto shown = [&](QWidget* field, bool on) {
        field->setVisible(on);
        if (QWidget* label = form()->labelForField(field))
            label->setVisible(on);
    };
    shown(rotor_, part == CaliperPart);
    shown(drop_, part == CaliperPart);
    shown(pilot_, part == KnucklePart);
    keepOutKind_->setVisible(part == KnucklePart);
    addKeepOut_->setVisible(part == KnucklePart);
    const Study& study = document().study();
    const QString setup = study.after.setup ? QString::fromStdString(study.after.setup->name) : QString();
    putIn_->setText(part == KnucklePart || setup.isEmpty() ? tr("Put into the car") : tr("Put into %1").arg(setup));
}

bool PartFileWindow::isWhole() const
{
    if (!found_ || !document().study().after.at(axle_).corner)
        return false;
    if (const auto* caliper = std::get_if<scan::CaliperScan>(&found_->part))
        return caliper->lacks.empty();
    if (const auto* knuckle = std::get_if<scan::KnuckleScan>(&found_->part))
        return knuckle->lacks.empty() && (!knuckle->scale || knuckle->scale->agrees());
    return std::holds_alternative<solids::ReadRotor>(found_->part);
}

std::vector<PartFileWindow::Step> PartFileWindow::steps() const
{
    switch (partNow()) {
    case CaliperPart:
        if (loaded_ && loaded_->solid)
            return {};
        return { { tr("the edge of one mounting hole, on the face that lies on its lug") },
            { tr("the edge of the other mounting hole, on the same face") } };
    case RotorPart:
        return {};
    case KnucklePart:
        return { { tr("the hub's flange face, where the rotor sits, far from each other") }, { tr("round the edge of the hub's pilot") },
            { tr("the edge of one lug's hole, on the face that the bracket lies on") },
            { tr("the edge of the other lug's hole, on the same face") } };
    }
    return {};
}

std::size_t PartFileWindow::placesWanted() const
{
    const auto all = steps();
    return keepOuts_.size() + std::accumulate(all.begin(), all.end(), std::size_t { 0 }, [](std::size_t sum, const Step& step) {
        return sum + static_cast<std::size_t>(step.places);
    });
}

void PartFileWindow::goOn()
{
    if (!loaded_)
        return say();
    refused_.clear();
    finding_.cancel();
    // What is typed wrongly is said at once, and not after all has been picked.
    for (const QLineEdit* edit : { rotor_, drop_, pilot_ })
        if (!edit->isHidden() && !edit->text().trimmed().isEmpty() && !lengthIn(edit))
            return;
    const std::size_t wanted = placesWanted();
    const std::size_t have = view_->picks().size();
    const auto all = steps();
    back_->setVisible(!all.empty());
    back_->setEnabled(have > 0);
    addKeepOut_->setEnabled(have == wanted && have > 0);
    view_->setPicking(have < wanted);
    if (have < wanted) {
        std::size_t before = 0;
        QString words = tr("Click the keep-out point.");
        for (const Step& step : all) {
            const auto places = static_cast<std::size_t>(step.places);
            if (have < before + places) {
                words = tr("Click place %1 of %2: %3.").arg(have - before + 1).arg(step.places).arg(step.words);
                break;
            }
            before += places;
        }
        next_->setText(words);
        found_.reset();
        working(false);
        say();
        return showSection();
    }
    next_->clear();
    ask();
}

std::optional<double> PartFileWindow::lengthIn(const QLineEdit* edit)
{
    const auto parsed = parseQuantity(edit->text().trimmed().toStdString(), Dimension::Length, style::fine.unit(document().units()));
    if (parsed && *parsed.value > 0)
        return *parsed.value;
    refuse(QStringLiteral("%1: %2").arg(
        edit->accessibleName(), parsed ? tr("a length above 0 is wanted.") : QString::fromStdString(parsed.refusal)));
    return {};
}

std::optional<scan::CaliperQuestion> PartFileWindow::caliperAsked()
{
    scan::CaliperQuestion question;
    question.unit = unit();
    question.solid = loaded_->solid.has_value();
    const auto rotor = lengthIn(rotor_);
    const auto drop = rotor ? lengthIn(drop_) : std::nullopt;
    if (!drop)
        return {};
    question.rotorRadius = *rotor / 2;
    question.drop = *drop;
    return question;
}

std::optional<scan::KnuckleQuestion> PartFileWindow::knuckleAsked()
{
    scan::KnuckleQuestion question;
    question.unit = unit();
    const auto& picks = view_->picks();
    question.flange = picksFrom(picks, 0);
    question.pilot = picksFrom(picks, 3);
    question.lugs = { picksFrom(picks, 6), picksFrom(picks, 9) };
    for (std::size_t i = 0; i < keepOuts_.size(); ++i)
        question.keepOuts.push_back({ keepOuts_[i], picks[12 + i] });
    if (!pilot_->text().trimmed().isEmpty()) {
        const auto length = lengthIn(pilot_);
        if (!length)
            return {};
        question.pilotKnown = scan::byVernier(scan::KnownLength::Bore, *length).length;
    }
    return question;
}

void PartFileWindow::ask()
{
    const auto take = [this](Found found) {
        found_ = std::move(found);
        view_->setRings(found_->rings);
        working(false);
        say();
        showSection();
    };
    const auto fail = [this](const std::exception& e) { refuse(QString::fromStdString(e.what())); };
    switch (partNow()) {
    case CaliperPart: {
        const auto question = caliperAsked();
        if (!question)
            return;
        working(true);
        finding_.start(
            [loaded = loaded_, q = *question, picks = view_->picks()](const JobTicket&) mutable {
                Found found;
                if (loaded->solid) {
                    const auto holes = solids::mountingHolesIn(*loaded->solid, QFileInfo(loaded->path).fileName().toStdString());
                    q.firstHole = holes.first;
                    q.secondHole = holes.second;
                    q.along = holes.along;
                    for (const auto& centre : { holes.first, holes.second })
                        found.rings.push_back({ centre, holes.along, holes.diameter / 2 });
                } else {
                    const auto mount = scan::pickedMount(loaded->file.mesh, q.unit, { picksFrom(picks, 0), picksFrom(picks, 3) });
                    if (!mount.lacks.empty())
                        throw files::Refusal(mount.lacks);
                    q.firstHole = mount.holes[0].round.centre;
                    q.secondHole = mount.holes[1].round.centre;
                    q.along = mount.holes[0].face.normal;
                    for (const scan::PickedHole& hole : mount.holes)
                        found.rings.push_back({ hole.round.centre, hole.face.normal, hole.round.radius });
                }
                found.part = scan::scanCaliper(loaded->file.mesh, q);
                return found;
            },
            take, fail);
        return;
    }
    case RotorPart:
        if (!loaded_->solid)
            return refuse(tr("Rotors are read from STEP files only: their faces and holes are exact. Measure a rotor by vernier."));
        working(true);
        finding_.start(
            [loaded = loaded_](const JobTicket&) {
                Found found;
                found.part = solids::rotorIn(*loaded->solid, QFileInfo(loaded->path).fileName().toStdString());
                return found;
            },
            take, fail);
        return;
    case KnucklePart: {
        const auto question = knuckleAsked();
        if (!question)
            return;
        working(true);
        finding_.start(
            [loaded = loaded_, q = *question](const JobTicket&) {
                Found found;
                auto knuckle = scan::scanKnuckle(loaded->file.mesh, q);
                for (const auto& [round, along] : knuckle.rounds)
                    found.rings.push_back({ round.centre, along, round.radius });
                found.part = std::move(knuckle);
                return found;
            },
            take, fail);
        return;
    }
    }
}

void PartFileWindow::say()
{
    const auto escaped = [](const std::string& text) { return QString::fromStdString(text).toHtmlEscaped(); };
    const UnitSystem system = document().units();
    if (!refused_.isEmpty())
        return said_->setText(coloured(theme().bad, refused_.toHtmlEscaped()));
    if (!loaded_)
        return said_->setText(coloured(theme().mute,
            progress_->isVisible() ? tr("Being read…")
                                   : tr("A maker's solid (STEP) is read by its own faces and holes. On a scan (STL, PLY, OBJ) places are "
                                        "picked: scan the part bare and clean.")));
    if (!found_)
        return said_->setText(progress_->isVisible() ? coloured(theme().mute, tr("Being read…")) : QString());
    QString rows;
    const auto row = [&](const QString& what, double value, double plusMinus) {
        rows += QStringLiteral("<tr><td style='padding-right:14px'>%1</td><td><b>%2</b></td></tr>")
                    .arg(what.toHtmlEscaped(), sized(value, plusMinus));
    };
    const auto read = [&](const char* what, const Reading& reading) {
        if (reading.value)
            row(QString::fromUtf8(deepstop::tr(what)), *reading.value, reading.plusMinus.value_or(0));
    };
    QString html;
    const auto remark = [&](const std::vector<std::string>& all, const QColor& first) {
        QColor colour = first;
        for (const std::string& each : all) {
            html += coloured(colour, escaped(each));
            colour = theme().ink;
        }
    };
    std::string lacks;
    if (const auto* caliper = std::get_if<scan::CaliperScan>(&found_->part)) {
        lacks = caliper->lacks;
        const Caliper& c = caliper->caliper;
        for (const auto& [what, reading] :
            std::initializer_list<std::pair<const char*, const Reading&>> { { marked("spacing of its mounting holes"), c.mountSpacing },
                { marked("mounting face to the slot's middle"), c.mountDepth }, { marked("slot"), c.slotWidth },
                { marked("back over the rotor's edge"), c.backOverEdge }, { marked("length of the back"), c.backLength },
                { marked("slot's middle to the outboard face"), c.outboardDepth },
                { marked("slot's middle to the inboard face"), c.inboardDepth }, { marked("chamfer of the back"), c.shoulder },
                { marked("bridge over the rotor's edge"), c.bridgeGap }, { marked("reach inward of the rotor's edge"), c.reach } })
            read(what, reading);
        rows += QStringLiteral("<tr><td>%1</td><td><b>%2</b></td></tr>").arg(tr("Stands proud of the back")).arg(c.bumps.size());
        remark(caliper->remarks, theme().ink);
    } else if (const auto* rotor = std::get_if<solids::ReadRotor>(&found_->part)) {
        const deepstop::Rotor& r = rotor->rotor;
        for (const auto& [what, reading] :
            std::initializer_list<std::pair<const char*, const Reading&>> { { marked("rotor diameter"), r.outerDiameter },
                { marked("thickness"), r.thickness }, { marked("inner diameter of the ring"), r.ringInnerDiameter },
                { marked("overall height"), r.overallHeight }, { marked("hat thickness"), r.hatThickness },
                { marked("hat diameter"), r.hatOuterDiameter }, { marked("wall of the hat"), r.hatWall }, { marked("bore"), r.bore },
                { marked("pocket for the hub"), r.pocketDiameter }, { marked("bolt circle"), r.boltCircle },
                { marked("bolt holes"), r.boltHoleDiameter }, { marked("air between the plates"), r.ventGap } })
            read(what, reading);
        remark(rotor->remarks, theme().ink);
    } else if (const auto* knuckle = std::get_if<scan::KnuckleScan>(&found_->part)) {
        lacks = knuckle->lacks;
        for (const auto& [what, size] : std::initializer_list<std::pair<QString, const scan::Sized&>> {
                 { QString::fromUtf8(deepstop::tr("hub's pilot")), knuckle->pilotDiameter },
                 { QString::fromUtf8(deepstop::tr("lugs apart, hole to hole")), knuckle->lugSpacing },
                 { QString::fromUtf8(deepstop::tr("middle of the lugs from the axis")), knuckle->lugRadius },
                 { QString::fromUtf8(deepstop::tr("lugs' face inboard of the flange")), knuckle->lugDepth },
                 { QString::fromUtf8(deepstop::tr("holes in the lugs")), knuckle->lugHole } })
            row(what, size.value, size.plusMinus);
        for (const KeepOut& each : knuckle->keepOuts) {
            const QString where =
                tr("%1 inboard, at radius %2")
                    .arg(escaped(print(*each.depth.value, style::size, system)), escaped(print(*each.radius.value, style::size, system)));
            rows += QStringLiteral("<tr><td>%1</td><td><b>%2</b></td></tr>")
                        .arg(QString::fromUtf8(wordFor(KeepOutKind(each.kind), choices::keepOut).data()).toHtmlEscaped(), where);
        }
        remark(knuckle->remarks, knuckle->trusted() ? theme().ink : theme().bad);
    }
    html += coloured(theme().mute, tr("What was measured by hand stays as it is."));
    said_->setText(
        lacks.empty() ? QStringLiteral("<table cellspacing='2'>%1</table>%2").arg(rows, html) : coloured(theme().bad, escaped(lacks)));
}

Edit PartFileWindow::edit(const scan::ScanFile& file) const
{
    const Study& study = document().study();
    const std::string setup = study.after.setup ? study.after.setup->id : std::string();
    const auto into = [setup, axle = axle_](auto change) -> Edit {
        return [setup, axle, change](const Build& now) -> std::optional<Build> {
            if (!findSetup(now, setup))
                return {};
            Build build = now;
            change(ownCorner(build, setup, axle));
            giveIds(build);
            return build;
        };
    };
    const auto keepFile = [file](auto& part) {
        part.scan = file.path;
        part.scanHash = file.hash;
    };
    if (const auto* caliper = std::get_if<scan::CaliperScan>(&found_->part))
        return into([found = *caliper, keepFile](Corner& corner) {
            corner.caliper = scan::caliperWith(corner.caliper, found);
            keepFile(corner.caliper);
        });
    if (const auto* rotor = std::get_if<solids::ReadRotor>(&found_->part))
        return into([found = *rotor, keepFile](Corner& corner) {
            corner.rotor = solids::rotorWith(corner.rotor, found);
            keepFile(corner.rotor);
        });
    return scan::knuckleEdit(std::get<scan::KnuckleScan>(found_->part), file, axle_);
}

void PartFileWindow::showSection()
{
    const Study& study = document().study();
    if (!isWhole())
        return section_->clear();
    if (const auto with = applied(edit({}), *study.build))
        section_->setBuild(with, { study.before.setup->id, study.after.setup->id }, axle_);
}

void PartFileWindow::putInFrom(const QString& path)
{
    if (document().edit(tr("part read from a file"), edit(scanFile(path, loaded_->file.hash, document().path()))))
        accept();
}

} // namespace deepstop::app
