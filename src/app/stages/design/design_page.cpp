#include "stages/design/design_page.hpp"

#include "document.hpp"
#include "drawing/fitting_label.hpp"
#include "language/language.hpp"
#include "library_store.hpp"
#include "quantity/parse.hpp"
#include "stages/design/design_map.hpp"
#include "stages/design/section_view.hpp"
#include "stages/design/shop_sheet.hpp"
#include "theme.hpp"

#include <QDate>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QTextBrowser>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace deepstop::app {

namespace {

/// What is the same all over a map.
design::Proposal everywhereOf(design::Proposal proposal)
{
    proposal.rotor = proposal.slot = 0;
    return proposal;
}

QString say(double length, const Style& style, UnitSystem units) { return QString::fromStdString(print(length, style, units)); }

} // namespace

std::pair<Level, std::string> stateOfDesign(const Study& study)
{
    const auto designed = [&](const Corner* corner) {
        return corner && corner->rotor.outerDiameter.value && corner->rotor.outerDiameter.known == Known::Design;
    };
    if (designed(study.after.front.corner) || designed(study.after.rear.corner))
        return { Level::Unproven, tr("parts not read yet") };
    return { Level::Good, tr("nothing on order") };
}

DesignPage::DesignPage(Document& document, LibraryStore& library, QWidget* parent)
    : StagePage(document, id, Row::Over, parent), library_(library), board_(new QWidget(this)), map_(new DesignMapView(board_)),
      section_(new SectionView(board_)), verdict_(new QLabel(board_)), result_(new QLabel(board_)), rates_(new QLabel(board_)),
      wheels_(new QListWidget(board_)), putIn_(new QPushButton(tr("Put into the build…"), this)), save_(new QPushButton(this)),
      orderText_(new QTextBrowser(this))
{
    addAxleChoice();
    auto* column = new QVBoxLayout(board_);
    column->setContentsMargins(16, 10, 16, 8);
    column->setSpacing(6);
    auto* pictures = new QHBoxLayout;
    pictures->addWidget(map_, 3);
    pictures->addWidget(section_, 2);
    column->addLayout(pictures, 1);
    verdict_->setObjectName(QStringLiteral("design-verdict"));
    verdict_->setWordWrap(true);
    result_->setWordWrap(true);
    rates_->setWordWrap(true);
    column->addWidget(verdict_);
    column->addWidget(result_);
    column->addWidget(rates_);
    auto* low = new QHBoxLayout;
    grid_ = new QGridLayout;
    grid_->setHorizontalSpacing(8);
    grid_->setVerticalSpacing(3);
    const auto length = [this](const QString& name, const QString& caption, const Style& style, double design::Proposal::*what) {
        addField(
            name, caption, style, [what](const design::Proposal& p) { return p.*what; },
            [what](design::Proposal& p, double value) { p.*what = value; });
    };
    length(QStringLiteral("rotor"), tr("Rotor diameter"), style::size, &design::Proposal::rotor);
    length(QStringLiteral("slot"), tr("Slot's middle"), style::fine, &design::Proposal::slot);
    length(QStringLiteral("thickness"), tr("Rotor thickness"), style::size, &design::Proposal::thickness);
    length(QStringLiteral("hat"), tr("Hat thickness"), style::size, &design::Proposal::hatThickness);
    length(QStringLiteral("spacer"), tr("Wheel spacer"), style::size, &design::Proposal::spacer);
    length(QStringLiteral("lift"), tr("More radial shims"), style::fine, &design::Proposal::lift);
    addField(
        QStringLiteral("clock"), tr("Caliper's angle"), style::angle,
        [this](const design::Proposal& p) {
            return p.clock.value_or(work_ ? work_->basis.corner.mount.clock.value.value_or(std::nan("")) : std::nan(""));
        },
        [](design::Proposal& p, double value) { p.clock = value; });
    addField(
        QStringLiteral("heads"), tr("Bolt heads"), style::size,
        [this](const design::Proposal& p) {
            return p.heads.value_or(work_ ? work_->basis.corner.bracket.proudKnuckle.value.value_or(std::nan("")) : std::nan(""));
        },
        [](design::Proposal& p, double value) { p.heads = value; });
    grid_->setColumnStretch(0, 1);
    grid_->setColumnStretch(2, 1);
    low->addLayout(grid_, 1);
    auto* aims = new QVBoxLayout;
    const QString words[] { tr("Largest rotor"), tr("Lightest kit"), tr("Thinnest bracket") };
    for (std::size_t i = 0; i < best_.size(); ++i) {
        best_[i] = new QPushButton(words[i], board_);
        best_[i]->setObjectName(QStringLiteral("best-%1").arg(i));
        connect(best_[i], &QPushButton::clicked, this, [this, i] {
            if (work_ && work_->best[i].proposal)
                choose(*work_->best[i].proposal);
        });
        aims->addWidget(best_[i]);
    }
    made_ = new QPushButton(tr("To a made size"), board_);
    made_->setObjectName(QStringLiteral("made"));
    made_->setToolTip(tr("The next smaller diameter of the parts library, or whole 5 mm, where the slot has most room"));
    connect(made_, &QPushButton::clicked, this, &DesignPage::takeMade);
    aims->addWidget(made_);
    aims->addStretch();
    low->addLayout(aims);
    auto* into = new QVBoxLayout;
    auto* wheelsTitle = new QLabel(tr("Wheels that must clear"), board_);
    wheelsTitle->setFont(reading(12));
    wheelsTitle->setBuddy(wheels_);
    wheels_->setAccessibleName(wheelsTitle->text());
    wheels_->setMaximumHeight(84);
    wheels_->setFixedWidth(150);
    wheels_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    wheels_->setFont(reading(12));
    into->addWidget(wheelsTitle);
    into->addWidget(wheels_);
    into->addStretch();
    low->addLayout(into);
    rates_->setFont(reading(12));
    column->addLayout(low);
    this->column()->insertWidget(0, board_, 4);
    orderText_->setFrameShape(QFrame::NoFrame);
    orderText_->setObjectName(QStringLiteral("order"));
    orderText_->setAccessibleName(tr("Order"));
    this->column()->addWidget(orderText_, 4);
    auto* foot = new QHBoxLayout;
    foot->setContentsMargins(16, 4, 16, 8);
    putIn_->setObjectName(QStringLiteral("put-in"));
    save_->setObjectName(QStringLiteral("save-design"));
    foot->addWidget(putIn_);
    foot->addWidget(save_);
    foot->addStretch();
    this->column()->addLayout(foot);
    connect(putIn_, &QPushButton::clicked, this, &DesignPage::putIn);
    connect(save_, &QPushButton::clicked, this, &DesignPage::save);
    connect(map_, &DesignMapView::moved, this, [this](double slot, double rotor) {
        design::Proposal moved = proposal_;
        moved.slot = slot;
        moved.rotor = rotor;
        choose(moved);
    });
    connect(section_, &SectionView::dragged, this, [this](int handle, double value) {
        design::Proposal moved = proposal_;
        (handle == SectionView::Spacer ? moved.spacer : moved.lift) = value;
        choose(moved);
    });
    connect(wheels_, &QListWidget::itemChanged, this, [this] {
        wheelIds_.clear();
        for (int i = 0; i < wheels_->count(); ++i)
            if (wheels_->item(i)->checkState() == Qt::Checked)
                wheelIds_.push_back(wheels_->item(i)->data(Qt::UserRole).toString().toStdString());
        start();
    });
    connect(&document, &Document::replaced, this, [this] {
        job_.cancel();
        more_.cancel();
        making_.cancel();
        work_ = nullptr;
        of_ = nullptr;
        wheelIds_.clear();
        chosen_ = false;
    });
}

void DesignPage::addField(const QString& name, const QString& caption, const Style& style,
    std::function<double(const design::Proposal&)> get, std::function<void(design::Proposal&, double)> set)
{
    auto* edit = new QLineEdit(board_);
    edit->setObjectName(QStringLiteral("design-") + name);
    edit->setAccessibleName(caption);
    edit->setFixedWidth(82);
    // Longer words of another language are smaller: the page makes no window wider.
    auto* label = new FittingLabel(12, 8, 2, QFont::Normal, board_);
    label->say(caption);
    label->setMinimumWidth(104);
    label->setBuddy(edit);
    // Two columns: what moves the dot and the rotor, then what is the same all over the map.
    const int index = static_cast<int>(fields_.size());
    constexpr int rows = 4;
    grid_->addWidget(label, index % rows, 2 * (index / rows));
    grid_->addWidget(edit, index % rows, 2 * (index / rows) + 1);
    fields_.push_back({ edit, &style, std::move(get), std::move(set) });
    connect(edit, &QLineEdit::editingFinished, this, [this, index] { typed(fields_[static_cast<std::size_t>(index)]); });
}

void DesignPage::takeMade()
{
    if (!work_ || !std::isfinite(proposal_.rotor))
        return;
    making_.start(
        [work = work_, made = design::madeDiameter(library_.parts(), proposal_.rotor)](const JobTicket&) {
            return std::pair { made, design::bestOf(*work->maker, *work->map, design::Aim::Rotor, { made, {}, {} }) };
        },
        [this](const std::pair<double, design::Best>& found) {
            design::Proposal snapped = found.second.proposal.value_or(proposal_);
            snapped.rotor = found.first;
            choose(snapped);
        },
        [this](const std::exception& error) { emit refused(QString::fromUtf8(error.what())); });
}

QLineEdit* DesignPage::field(const QString& name) const { return board_->findChild<QLineEdit*>(QStringLiteral("design-") + name); }

QStringList DesignPage::placeNames() const
{
    return { tr("What goes"), tr("Hat to order"), tr("Ring to order"), tr("Bracket to order"), tr("Order") };
}

void DesignPage::showEvent(QShowEvent* event)
{
    StagePage::showEvent(event);
    start();
}

void DesignPage::refreshRest()
{
    board_->setVisible(place() == Map);
    orderText_->setVisible(place() == Order);
    QPalette look = palette();
    look.setColor(QPalette::Window, theme().paper);
    look.setColor(QPalette::Base, theme().paper);
    setPalette(look);
    setAutoFillBackground(true);
    save_->setText(isDrawn(place()) ? tr("Save this drawing…") : tr("Order on paper…"));
    if (axleOf_ != axle()) {
        axleOf_ = axle();
        chosen_ = false;
        wheelIds_.clear();
        of_ = nullptr;
    }
    listWheels();
    start();
    showFields();
    showProposal();
}

void DesignPage::listWheels()
{
    const Study& study = document().study();
    const AxleParts& parts = study.after.at(axle());
    if (wheelIds_.empty() && parts.wheel)
        wheelIds_.push_back(parts.wheel->id);
    const QSignalBlocker quiet(wheels_);
    wheels_->clear();
    for (const Wheel& wheel : document().build().wheels) {
        auto* item = new QListWidgetItem(QString::fromStdString(wheel.name.empty() ? wheel.id : wheel.name), wheels_);
        item->setData(Qt::UserRole, QString::fromStdString(wheel.id));
        item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsUserCheckable | Qt::ItemIsSelectable);
        item->setCheckState(std::ranges::find(wheelIds_, wheel.id) != wheelIds_.end() ? Qt::Checked : Qt::Unchecked);
    }
}

void DesignPage::start()
{
    if (!isVisible() || document().isPreviewing())
        return;
    const auto study = document().sharedStudy();
    if (study->underWay)
        return;
    const AxleParts& parts = study->after.at(axle());
    auto work = std::make_shared<DesignWork>();
    work->basis.study = study;
    work->basis.axle = axle();
    if (!parts.corner || parts.corner->brakes != BrakeKind::Discs) {
        job_.cancel();
        more_.cancel();
        making_.cancel();
        work_ = nullptr;
        map_->setMap(
            nullptr, {}, tr("This setup has no disc brakes on that axle: choose discs on the parts bench first."), document().units());
        return;
    }
    work->basis.corner = *parts.corner;
    for (const std::string& each : wheelIds_)
        if (const Wheel* wheel = findWheel(*study->build, each))
            work->basis.wheels.push_back(wheel);
    work->maker = std::make_unique<design::Maker>(work->basis);
    work->start = work->maker->start();
    if (chosen_ && work_) {
        work->start.thickness = proposal_.thickness;
        work->start.hatThickness = proposal_.hatThickness;
        work->start.spacer = proposal_.spacer;
        work->start.lift = proposal_.lift;
        work->start.clock = proposal_.clock;
        work->start.heads = proposal_.heads;
    }
    const design::Proposal everywhere = everywhereOf(work->start);
    const bool sameWheels = work_
        && std::ranges::equal(
            work_->basis.wheels, work->basis.wheels, {}, [](const Wheel* w) { return w->id; }, [](const Wheel* w) { return w->id; });
    if (of_ == study && sameWheels && (work_ || job_.isRunning()) && everywhere == everywhere_)
        return;
    of_ = study;
    everywhere_ = everywhere;
    if (!work_)
        map_->setMap(nullptr, {}, tr("Being worked out …"), document().units());
    more_.cancel();
    job_.start(
        [work](const JobTicket& ticket) {
            work->map = std::make_shared<const design::Map>(
                design::mapOf(*work->maker, work->start, 100, [&](double part) { ticket.progress(0.6 * part); }));
            work->borders = design::bordersOf(*work->maker, *work->map);
            work->best[0] = design::bestOf(*work->maker, *work->map, design::Aim::Rotor);
            return work;
        },
        [this](std::shared_ptr<DesignWork> done) { arrived(std::move(done)); },
        [this](const std::exception& error) { map_->setMap(nullptr, {}, QString::fromUtf8(error.what()), document().units()); },
        [this](int percent) {
            if (!work_)
                map_->setMap(nullptr, {}, tr("Being worked out, %1 % …").arg(percent), document().units());
        });
}

void DesignPage::arrived(std::shared_ptr<DesignWork> work)
{
    work_ = std::move(work);
    map_->setMap(
        work_->map->lacks.empty() ? work_->map : nullptr, work_->borders, QString::fromStdString(work_->map->lacks), document().units());
    const design::Proposal from = work_->start;
    map_->setFrom(from.slot, from.rotor);
    if (!chosen_)
        // Where the proposal stands that it is designed from, if the map shows that place.
        proposal_ = std::isfinite(from.slot + from.rotor) && from.rotor > work_->map->least && from.rotor < work_->map->most
            ? from
            : work_->best[0].proposal.value_or(work_->map->at);
    else {
        const double slot = proposal_.slot;
        const double rotor = proposal_.rotor;
        proposal_ = work_->map->at;
        proposal_.slot = slot;
        proposal_.rotor = rotor;
    }
    for (std::size_t i = 0; i < best_.size(); ++i)
        best_[i]->setEnabled(work_->best[i].proposal.has_value());
    map_->setDot(proposal_.slot, proposal_.rotor);
    showFields();
    showProposal();
    if (isDrawn(place()))
        view()->setSheet(sheet(place()));
    // What takes longer follows: the map is looked at meanwhile.
    more_.start(
        [work = work_](const JobTicket&) {
            More more;
            for (const design::Aim aim : { design::Aim::Weight, design::Aim::Bracket })
                more.best[static_cast<std::size_t>(aim)] = design::bestOf(*work->maker, *work->map, aim);
            more.rates = design::ratesOf(*work->maker, *work->map, work->best[0]);
            return more;
        },
        [this](More more) {
            for (std::size_t i = 1; i < best_.size(); ++i) {
                work_->best[i] = std::move(more.best[i]);
                best_[i]->setEnabled(work_->best[i].proposal.has_value());
            }
            work_->rates = std::move(more.rates);
            showProposal();
        },
        [this](const std::exception& error) { emit refused(QString::fromUtf8(error.what())); });
}

void DesignPage::choose(const design::Proposal& proposal)
{
    design::Proposal dotMoved = proposal_;
    dotMoved.rotor = proposal.rotor;
    dotMoved.slot = proposal.slot;
    const bool whole = !(dotMoved == proposal);
    proposal_ = proposal;
    chosen_ = true;
    map_->setDot(proposal_.slot, proposal_.rotor);
    if (whole)
        start();
    showFields();
    showProposal();
}

void DesignPage::typed(const Field& field)
{
    if (!work_ || !field.edit->isModified())
        return;
    const Unit& unit = field.style->unit(document().units());
    const auto parsed = parseQuantity(field.edit->text().toStdString(), field.style->dimension, unit);
    if (!parsed) {
        emit refused(QString::fromStdString(parsed.refusal));
        return;
    }
    // No part of a brake is a metre away; angles go once round.
    if (std::abs(*parsed.value) > (field.style->dimension == Dimension::Length ? 1 : 2 * std::numbers::pi)) {
        emit refused(tr("%1: that is more than any brake has.").arg(field.edit->accessibleName()));
        return;
    }
    design::Proposal proposal = proposal_;
    field.set(proposal, *parsed.value);
    choose(proposal);
}

void DesignPage::showFields()
{
    for (const Field& field : fields_) {
        if (field.edit->hasFocus() && field.edit->isModified())
            continue;
        const double value = field.get(proposal_);
        field.edit->setText(work_ && std::isfinite(value) ? say(value, *field.style, document().units()) : QString());
        field.edit->setModified(false);
        field.edit->setEnabled(work_ != nullptr);
    }
}

void DesignPage::showProposal()
{
    const bool there = work_ && work_->map->lacks.empty() && std::isfinite(proposal_.rotor + proposal_.slot);
    putIn_->setEnabled(there);
    save_->setEnabled(there);
    if (!there) {
        section_->clear();
        verdict_->clear();
        result_->clear();
        rates_->clear();
        orderText_->clear();
        return;
    }
    const Theme& t = theme();
    const UnitSystem units = document().units();
    section_->setKit(*work_->maker, proposal_);
    const auto [worst, decides, least] = design::placeOf(*work_->maker, *work_->map, proposal_);
    QString words;
    if (!decides) {
        for (const Verdict& v : work_->map->fixed)
            if (v.level == worst)
                words = QString::fromStdString(v.title + ": " + v.reason);
    } else if (!least.value) {
        const auto missing = lacking(*work_->basis.study, least);
        words = tr("%1: %2").arg(QString::fromStdString(decides->title), QString::fromStdString(missing));
    } else {
        words = tr("Nearest: %1, %2 at worst, %3 wanted")
                    .arg(QString::fromStdString(decides->title), say(least.lowest(), style::gap, units),
                        say(decides->wanted, style::gap, units));
    }
    verdict_->setFont(reading(14, QFont::DemiBold));
    QPalette look = verdict_->palette();
    look.setColor(QPalette::WindowText, colourOf(worst));
    verdict_->setPalette(look);
    const QString sign = isBad(worst) ? QStringLiteral("■ ") : isFine(worst) ? QStringLiteral("● ") : QStringLiteral("▲ ");
    auto level = QString::fromUtf8(deepstop::tr(nameOf(worst)).data());
    level[0] = level[0].toUpper();
    verdict_->setText(sign + tr("%1, if made as drawn. %2.").arg(level, words));
    // Studs, pilot and fender of another spacer or thickness are judged with the map that follows.
    if (!(everywhereOf(proposal_) == everywhereOf(work_->map->at))) {
        look.setColor(QPalette::WindowText, t.unproven);
        verdict_->setPalette(look);
        verdict_->setText(tr("Being worked out …"));
    }
    const design::Kit kit = work_->maker->sizes(proposal_);
    result_->setFont(reading(12));
    look.setColor(QPalette::WindowText, t.ink);
    result_->setPalette(look);
    result_->setText(
        tr("Hat %1 high, pocket Ø %2; ring %3 inside its faces; plate %4 and shims %5. Not read, so nothing of it is proven.")
            .arg(say(kit.overallHeight, style::fine, units), say(kit.pocket, style::size, units), say(kit.ringInner, style::size, units),
                std::isfinite(kit.adapter.thickness) ? say(kit.adapter.thickness, style::fine, units) : QStringLiteral("?"),
                say(kit.shims, style::fine, units)));
    QString rates;
    for (const design::Rate& rate : work_->rates)
        if (std::abs(rate.gain) > 0.05) {
            const auto gain = QString::fromStdString(printChange(rate.gain * 1e-3, style::gap, units));
            const auto title = QString::fromStdString(rate.title);
            rates += (rate.within ? tr("%1: %2 of rotor, for %3 until %4")
                                        .arg(title, gain, say(*rate.within, style::gap, units), QString::fromStdString(rate.until))
                                  : tr("%1: %2 of rotor").arg(title, gain))
                + QStringLiteral(". ");
        }
    const design::Best& best = work_->best[0];
    if (rates.isEmpty() && best.proposal && !work_->rates.empty())
        rates = tr("A millimetre more of spacer or hat, or less of offset or thickness, gives no larger rotor here.");
    if (!best.proposal && !best.nearest.empty()) {
        const auto limit = std::ranges::find(work_->map->limits, best.nearest, &design::Limit::id);
        const auto nearest = QString::fromStdString(limit != work_->map->limits.end() ? limit->title : best.nearest);
        rates = best.shortBy > 0
            ? tr("Nothing clears in this map. Nearest to it: %1, short by %2.").arg(nearest, say(best.shortBy, style::gap, units))
            : tr("Nothing is proven to clear: %1 is not known well enough.").arg(nearest);
    }
    rates_->setText(rates);
    if (place() == Order)
        orderText_->setHtml(order());
}

Sheet DesignPage::sheet(int place) const
{
    Sheet nothing;
    nothing.title = placeNames().value(place);
    if (!work_ || !work_->map->lacks.empty() || !isDrawn(place)) {
        nothing.letter({ 0, 0 }, work_ ? QString::fromStdString(work_->map->lacks) : tr("Being worked out …"), 14, theme().unproven,
            Qt::AlignCenter, false);
        nothing.extent = QRectF(-100, -60, 200, 120);
        nothing.scaleBar = false;
        return nothing;
    }
    const char* key = place == Hat ? "hat" : place == Ring ? "ring" : "bracket";
    const auto parts = design::partsToMake(*work_->maker, proposal_, QDate::currentDate().toString(Qt::ISODate).toStdString());
    const auto part = std::ranges::find(parts, key, &design::ShopPart::key);
    if (part == parts.end()) {
        nothing.letter({ 0, 0 }, tr("Cannot be drawn: readings of knuckle or caliper lack. The sheet Bracket of Centring asks for them."),
            14, theme().unproven, Qt::AlignCenter, false);
        nothing.extent = QRectF(-200, -120, 400, 240);
        nothing.scaleBar = false;
        return nothing;
    }
    return shopSheet(part->drawing);
}

} // namespace deepstop::app
