#include "stages/design/design_page.hpp"

#include "document.hpp"
#include "drawing/inking.hpp"
#include "files/exports.hpp"
#include "files/paper_files.hpp"
#include "language/language.hpp"
#include "library_store.hpp"
#include "quantity/parse.hpp"
#include "solids/solid_files.hpp"
#include "stages/design/design_map.hpp"
#include "stages/wheel/corner_drawing.hpp"
#include "theme.hpp"
#include "widgets/save_dialog.hpp"

#include <QDate>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QInputDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPainter>
#include <QPushButton>
#include <QTextBrowser>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace deepstop::app {

/// The corner at the dot, in section; it follows while the dot is dragged.
class SectionView : public QWidget {
public:
    explicit SectionView(QWidget* parent) : QWidget(parent)
    {
        setMinimumSize(220, 240);
        setAccessibleName(DesignPage::tr("The corner in section"));
    }
    void setCorner(const DesignWork& work, const design::Proposal& choice)
    {
        auto build = std::make_shared<Build>(work.basis.build());
        const Study& of = *work.basis.study;
        Corner& own = ownCorner(*build, of.after.setup->id, work.basis.axle);
        own = work.maker->corner(choice, Known::Design);
        if (!work.basis.wheels.empty())
            own.wheel = work.basis.wheels.front()->id;
        study_ = {};
        study_.build = std::move(build);
        study_.system = of.system;
        study_.before = partsOf(*study_.build, *findSetup(*study_.build, of.before.setup->id));
        study_.after = partsOf(*study_.build, *findSetup(*study_.build, of.after.setup->id));
        study_.directory = of.directory;
        drawClearance(study_);
        axle_ = work.basis.axle;
        kit_ = work.maker->kit(choice);
        update();
    }
    void clear()
    {
        study_ = {};
        update();
    }

protected:
    void paintEvent(QPaintEvent*) override
    {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        p.fillRect(rect(), theme().paper);
        if (!study_.build)
            return;
        const CornerClearance& r = study_.of<Clearance>().after.at(axle_).left;
        if (!r.corner)
            return;
        Sheet sheet;
        CornerDrawing drawing(sheet, r);
        drawing.hub();
        drawing.wheel();
        drawing.rotor();
        drawing.pads();
        drawing.caliper();
        drawing.envelope();
        drawing.clash();
        bracket(sheet, r);
        double left = -0.11;
        double right = 0.06;
        double top = r.drawn.rotor.outerRadius + 0.03;
        for (const geometry::Point point : r.wheelShape.barrel) {
            left = std::min(left, point.z - 0.008);
            right = std::max(right, point.z + 0.012);
            top = std::max(top, point.r + 0.02);
        }
        left = std::max(left, -0.13);
        const QRectF extent(inSection(left, top), inSection(right, -0.012));
        const double scale = std::min(width() / extent.width(), height() / extent.height());
        QTransform onto;
        onto.translate(width() / 2.0 - extent.center().x() * scale, height() / 2.0 - extent.center().y() * scale);
        onto.scale(scale, scale);
        sheet.line(QPolygonF { inSection(left, 0), inSection(right, 0) }, { theme().ink, 1, Qt::DashDotLine, {}, Hatch::None, {}, 0 });
        p.setClipRect(rect());
        for (const Area& area : sheet.areas)
            inkArea(p, onto.map(area.path), area.ink);
        p.setFont(reading(11));
        p.setPen(theme().mute);
        p.drawText(rect().adjusted(6, 4, -6, -4), Qt::AlignTop | Qt::AlignRight, DesignPage::tr("to scale; outboard is right"));
    }

private:
    /// The plate, from the lugs' face to the caliper's.
    void bracket(Sheet& sheet, const CornerClearance& r) const
    {
        const double lugs = -nominal([&](Evaluator& s) { return figures::lugDepth(s, *r.corner, hubOf(*study_.build, axle_)); });
        const auto& holes = kit_.adapter.holes;
        if (!std::isfinite(lugs + kit_.adapter.thickness) || holes.size() < 2)
            return;
        const double low = std::min(holes[0].y, kit_.adapter.caliperHeight) - 0.014;
        const double high = std::max(holes[0].y, kit_.adapter.caliperHeight) + 0.014;
        sheet.area(
            sectionBox(lugs, lugs + kit_.adapter.thickness, low, high), { theme().proposal, 1.4, Qt::DashLine, {}, Hatch::None, {}, 0 });
    }

    Study study_;
    Axle axle_ = Axle::Front;
    design::Kit kit_;
};

namespace {

/// A drawing for the shop on a sheet that is only looked at.
Sheet sheetOf(const paper::Drawing& drawing)
{
    const Theme& t = theme();
    Sheet sheet;
    sheet.title = QString::fromStdString(drawing.title);
    const auto at = [](paper::Point p) { return QPointF(p.x * 1000, -p.y * 1000); };
    for (const paper::Stroke& stroke : drawing.strokes) {
        QPolygonF line;
        for (const paper::Point p : stroke.points)
            line << at(p);
        if (stroke.closed && !line.isEmpty())
            line << line.front();
        const bool edge = stroke.pen == paper::Pen::Cut || stroke.pen == paper::Pen::Outline;
        sheet.line(line,
            { edge ? t.proposal : t.ink, edge ? 1.6 : 0.8,
                stroke.pen == paper::Pen::Hidden     ? Qt::DashLine
                    : stroke.pen == paper::Pen::Axis ? Qt::DashDotLine
                                                     : Qt::SolidLine,
                {}, Hatch::None, {}, 0 });
    }
    // Figures that stand upright on paper lie here, each beside its own line.
    int upright = 0;
    for (const paper::Lettering& l : drawing.letters)
        sheet.letter(at(l.at) + QPointF(0, l.upright ? 11 * (upright++ - 1) : 0), QString::fromStdString(l.text), l.upright ? 10 : 11.5,
            t.ink,
            (l.anchor == paper::Anchor::Left            ? Qt::AlignLeft
                    : l.anchor == paper::Anchor::Middle ? Qt::AlignHCenter
                                                        : Qt::AlignRight)
                | (l.upright ? Qt::AlignVCenter : Qt::AlignBottom),
            false);
    const auto extent = paper::extentOf(drawing);
    double line = -extent.low.y * 1000 + 14;
    const double step = extent.height() * 1000 * 0.045;
    for (const std::string& note : drawing.notes) {
        sheet.letter({ extent.low.x * 1000, line }, QString::fromStdString(note), 12, t.mute, Qt::AlignLeft | Qt::AlignVCenter, false);
        line += step;
    }
    sheet.extent = QRectF(QPointF(extent.low.x * 1000 - 6, -extent.high.y * 1000 - 10), QPointF(extent.high.x * 1000 + 6, line + 4));
    return sheet;
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
    auto* low = new QHBoxLayout;
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(8);
    grid->setVerticalSpacing(3);
    addField(QStringLiteral("rotor"), tr("Rotor diameter"), &design::Proposal::rotor, style::size, grid, 0);
    addField(QStringLiteral("slot"), tr("Slot's middle from the hub face"), &design::Proposal::slot, style::fine, grid, 1);
    addField(QStringLiteral("thickness"), tr("Rotor thickness"), &design::Proposal::thickness, style::size, grid, 2);
    addField(QStringLiteral("hat"), tr("Hat between hub and wheel"), &design::Proposal::hatThickness, style::size, grid, 3);
    addField(QStringLiteral("spacer"), tr("Spacer behind the wheel"), &design::Proposal::spacer, style::size, grid, 4);
    low->addLayout(grid);
    auto* aims = new QVBoxLayout;
    const QString words[] { tr("Largest rotor"), tr("Lightest kit"), tr("Thinnest bracket") };
    for (std::size_t i = 0; i < best_.size(); ++i) {
        best_[i] = new QPushButton(words[i], board_);
        best_[i]->setObjectName(QStringLiteral("best-%1").arg(i));
        connect(best_[i], &QPushButton::clicked, this, [this, i] {
            if (work_ && work_->best[i].choice)
                choose(*work_->best[i].choice);
        });
        aims->addWidget(best_[i]);
    }
    aims->addStretch();
    low->addLayout(aims);
    auto* into = new QVBoxLayout;
    auto* wheelsTitle = new QLabel(tr("Wheels that must clear"), board_);
    wheelsTitle->setFont(reading(12));
    wheelsTitle->setBuddy(wheels_);
    wheels_->setAccessibleName(wheelsTitle->text());
    wheels_->setMaximumHeight(84);
    wheels_->setMinimumWidth(190);
    wheels_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    wheels_->setFont(reading(12));
    into->addWidget(wheelsTitle);
    into->addWidget(wheels_);
    into->addStretch();
    low->addLayout(into, 1);
    rates_->setFont(reading(12));
    rates_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    low->addWidget(rates_, 2);
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
        design::Proposal moved = choice_;
        moved.slot = slot;
        moved.rotor = rotor;
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
        work_ = nullptr;
        of_ = nullptr;
        wheelIds_.clear();
        chosen_ = false;
    });
}

void DesignPage::addField(
    const QString& name, const QString& caption, double design::Proposal::*what, const Style& style, QGridLayout* grid, int row)
{
    auto* edit = new QLineEdit(board_);
    edit->setObjectName(QStringLiteral("design-") + name);
    edit->setAccessibleName(caption);
    edit->setMaximumWidth(92);
    auto* label = new QLabel(caption, board_);
    label->setFont(reading(12));
    label->setBuddy(edit);
    grid->addWidget(label, row, 0);
    grid->addWidget(edit, row, 1);
    fields_.push_back({ edit, what, &style });
    const std::size_t index = fields_.size() - 1;
    connect(edit, &QLineEdit::editingFinished, this, [this, index] { typed(fields_[index]); });
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
    save_->setText(place() == Order ? tr("Order on paper…") : place() == Map ? tr("Order on paper…") : tr("Save this drawing…"));
    if (axleOf_ != axle()) {
        axleOf_ = axle();
        chosen_ = false;
        wheelIds_.clear();
        of_ = nullptr;
    }
    listWheels();
    start();
    showFields();
    showChoice();
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
        work_ = nullptr;
        map_->setMap(nullptr, tr("This setup has no disc brakes on that axle: choose discs on the parts bench first."), document().units());
        return;
    }
    work->basis.corner = *parts.corner;
    for (const std::string& each : wheelIds_)
        if (const Wheel* wheel = findWheel(*study->build, each))
            work->basis.wheels.push_back(wheel);
    work->maker = std::make_unique<design::Maker>(work->basis);
    work->start = work->maker->start();
    if (chosen_ && work_) {
        work->start.thickness = choice_.thickness;
        work->start.hatThickness = choice_.hatThickness;
        work->start.spacer = choice_.spacer;
    }
    design::Proposal everywhere = work->start;
    everywhere.rotor = everywhere.slot = 0;
    const bool sameWheels = work_
        && std::ranges::equal(
            work_->basis.wheels, work->basis.wheels, {}, [](const Wheel* w) { return w->id; }, [](const Wheel* w) { return w->id; });
    if (of_ == study && sameWheels && (work_ || job_.isRunning()) && everywhere == everywhere_)
        return;
    of_ = study;
    everywhere_ = everywhere;
    if (!work_)
        map_->setMap(nullptr, tr("Being worked out …"), document().units());
    more_.cancel();
    job_.start(
        [work](const JobTicket& ticket) {
            work->map = std::make_shared<const design::Map>(
                design::mapOf(*work->maker, work->start, 100, [&](double part) { ticket.progress(0.6 * part); }));
            work->best[0] = design::bestOf(*work->maker, *work->map, design::Aim::Rotor);
            return work;
        },
        [this](std::shared_ptr<DesignWork> done) { arrived(std::move(done)); },
        [this](const std::exception& error) { map_->setMap(nullptr, QString::fromUtf8(error.what()), document().units()); });
}

void DesignPage::arrived(std::shared_ptr<DesignWork> work)
{
    work_ = std::move(work);
    map_->setMap(work_->map->lacks.empty() ? work_->map : nullptr, QString::fromStdString(work_->map->lacks), document().units());
    const design::Proposal from = work_->start;
    map_->setFrom(from.slot, from.rotor);
    if (!chosen_)
        choice_ = work_->best[0].choice.value_or(work_->map->at);
    else {
        const double slot = choice_.slot;
        const double rotor = choice_.rotor;
        choice_ = work_->map->at;
        choice_.slot = slot;
        choice_.rotor = rotor;
    }
    for (std::size_t i = 0; i < best_.size(); ++i)
        best_[i]->setEnabled(work_->best[i].choice.has_value());
    map_->setDot(choice_.slot, choice_.rotor);
    showFields();
    showChoice();
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
                best_[i]->setEnabled(work_->best[i].choice.has_value());
            }
            work_->rates = std::move(more.rates);
            showChoice();
        },
        [this](const std::exception& error) { emit refused(QString::fromUtf8(error.what())); });
}

void DesignPage::choose(const design::Proposal& choice)
{
    const bool whole =
        choice.thickness != choice_.thickness || choice.hatThickness != choice_.hatThickness || choice.spacer != choice_.spacer;
    choice_ = choice;
    chosen_ = true;
    map_->setDot(choice_.slot, choice_.rotor);
    if (whole)
        start();
    showFields();
    showChoice();
}

void DesignPage::typed(const Field& field)
{
    if (!work_ || !field.edit->isModified())
        return;
    const Unit& unit = field.style->unit(document().units());
    const auto parsed = parseQuantity(field.edit->text().toStdString(), Dimension::Length, unit);
    if (!parsed) {
        emit refused(QString::fromStdString(parsed.refusal));
        return;
    }
    if (field.what != &design::Proposal::slot && (*parsed.value < 0 || *parsed.value > 1)) {
        emit refused(tr("%1: between 0 and 1 m.").arg(field.edit->accessibleName()));
        return;
    }
    design::Proposal choice = choice_;
    choice.*field.what = *parsed.value;
    choose(choice);
}

void DesignPage::showFields()
{
    for (const Field& field : fields_) {
        if (field.edit->hasFocus() && field.edit->isModified())
            continue;
        const double value = choice_.*field.what;
        field.edit->setText(work_ && std::isfinite(value) ? say(value, *field.style, document().units()) : QString());
        field.edit->setModified(false);
        field.edit->setEnabled(work_ != nullptr);
    }
}

void DesignPage::showChoice()
{
    const bool there = work_ && work_->map->lacks.empty() && std::isfinite(choice_.rotor + choice_.slot);
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
    section_->setCorner(*work_, choice_);
    // Every limit at this place, worked out anew: the map's own place is only as fine as its columns.
    const Corner made = work_->maker->corner(choice_, Known::Vendor);
    Level worst = work_->map->everywhere;
    const design::Limit* decides = nullptr;
    Figure least;
    double margin = 1e9;
    for (const design::Limit& limit : work_->map->limits) {
        Figure gap = limit.gap(choice_, made);
        const Level level = gapLevel(gap, limit.wanted);
        const double over = gap.value ? gap.lowest() - limit.wanted : -1e6;
        if (level > worst || (level == worst && over < margin)) {
            worst = std::max(worst, level);
            margin = over;
            decides = &limit;
            least = std::move(gap);
        }
    }
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
    const char shape = isBad(worst) ? 'x' : isFine(worst) ? 'o' : '-';
    const QString sign = shape == 'x' ? QStringLiteral("■ ") : shape == 'o' ? QStringLiteral("● ") : QStringLiteral("▲ ");
    auto level = QString::fromUtf8(deepstop::tr(nameOf(worst)).data());
    level[0] = level[0].toUpper();
    verdict_->setText(sign + tr("%1, if made as drawn. %2.").arg(level, words));
    const design::Kit kit = work_->maker->sizes(choice_);
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
            rates += (rate.within ? tr("1 mm of %1: %2 of rotor, for %3 until %4")
                                        .arg(title, gain, say(*rate.within, style::gap, units), QString::fromStdString(rate.until))
                                  : tr("1 mm of %1: %2 of rotor").arg(title, gain))
                + QStringLiteral("\n");
        }
    const design::Best& best = work_->best[0];
    if (rates.isEmpty() && best.choice && !work_->rates.empty())
        rates = tr("A millimetre more of spacer or hat, or less of offset or thickness, gives no larger rotor here.");
    if (!best.choice && !best.nearest.empty())
        rates = tr("Nothing clears in this map. Nearest to it: %1, short by %2.")
                    .arg(QString::fromStdString(best.nearest), say(best.short_, style::gap, units));
    rates_->setText(rates);
    if (place() == Order)
        orderText_->setHtml(order());
}

QString DesignPage::order() const
{
    if (!work_ || !work_->map->lacks.empty())
        return {};
    auto leaf = design::orderSheet(*work_->maker, *work_->map, choice_,
        work_->best[0].choice == choice_ ? work_->best[0].binds : std::vector<std::string> {},
        QDate::currentDate().toString(Qt::ISODate).toStdString());
    QString html = QStringLiteral("<body style='color:%1'><h2>%2</h2><p>%3</p>")
                       .arg(theme().ink.name(), QString::fromStdString(leaf.title).toHtmlEscaped(),
                           QString::fromStdString(leaf.subtitle).toHtmlEscaped());
    bool table = false;
    for (const report::Block& block : leaf.blocks) {
        const bool row = block.kind == report::Block::Kind::Row;
        if (row != table) {
            html += row ? QStringLiteral("<table cellspacing='6'>") : QStringLiteral("</table>");
            table = row;
        }
        const auto text = QString::fromStdString(block.text).toHtmlEscaped();
        if (row) {
            html += QStringLiteral("<tr>");
            for (const std::string& cell : block.cells) {
                const auto words = QString::fromStdString(cell).toHtmlEscaped();
                html += QStringLiteral("<td>%1</td>").arg(block.head ? QStringLiteral("<b>%1</b>").arg(words) : words);
            }
            html += QStringLiteral("</tr>");
        } else if (block.kind == report::Block::Kind::Heading) {
            html += QStringLiteral("<h3>%1</h3>").arg(text);
        } else if (block.kind == report::Block::Kind::Caution) {
            html += QStringLiteral("<p style='color:%1'>%2</p>").arg(theme().bad.name(), text);
        } else {
            html += QStringLiteral("<p>%1</p>").arg(text);
        }
    }
    return html + (table ? QStringLiteral("</table>") : QString()) + QStringLiteral("</body>");
}

Sheet DesignPage::sheet(int place) const
{
    Sheet nothing;
    if (!work_ || !work_->map->lacks.empty() || !isDrawn(place)) {
        nothing.letter({ 0, 0 }, work_ ? QString::fromStdString(work_->map->lacks) : tr("Being worked out …"), 14, theme().unproven,
            Qt::AlignCenter, false);
        nothing.extent = QRectF(-100, -60, 200, 120);
        nothing.scaleBar = false;
        return nothing;
    }
    const char* key = place == Hat ? "hat" : place == Ring ? "ring" : "bracket";
    const auto parts = design::partsToMake(*work_->maker, choice_, QDate::currentDate().toString(Qt::ISODate).toStdString());
    const auto part = std::ranges::find(parts, key, &design::ShopPart::key);
    if (part == parts.end()) {
        nothing.letter({ 0, 0 }, tr("Cannot be drawn: readings of knuckle or caliper lack. The sheet Bracket of Centring asks for them."),
            14, theme().unproven, Qt::AlignCenter, false);
        nothing.extent = QRectF(-200, -120, 400, 240);
        nothing.scaleBar = false;
        return nothing;
    }
    return sheetOf(part->drawing);
}

void DesignPage::putIn()
{
    if (!work_)
        return;
    bool said = false;
    const auto name = QInputDialog::getText(this, tr("Put into the build"), tr("Name of the new setup"), QLineEdit::Normal,
        tr("Designed Ø %1").arg(say(choice_.rotor, style::size, UnitSystem::Metric)), &said);
    if (!said || name.trimmed().isEmpty())
        return;
    const std::string newId = design::idFor(document().build(), name.trimmed().toStdString());
    if (document().edit(tr("designed kit"), design::putIn(*work_->maker, choice_, name.trimmed().toStdString())))
        document().setPair({ document().study().before.setup->id, newId });
}

void DesignPage::save()
{
    const bool whole = place() == Map || place() == Order;
    const auto path = whole
        ? askWhereToSave(this, tr("Order"), QStringLiteral("order.pdf"), tr("PDF (*.pdf)"), QStringLiteral("pdf"))
        : askWhereToSave(this, tr("Drawing"),
            place() == Hat        ? QStringLiteral("hat.pdf")
                : place() == Ring ? QStringLiteral("ring.pdf")
                                  : QStringLiteral("bracket.pdf"),
            tr("PDF (*.pdf);;DXF (*.dxf);;STEP (*.step);;STL for a fit check in plastic (*.stl)"), QStringLiteral("pdf"));
    if (!path.isEmpty())
        write(path);
}

bool DesignPage::write(const QString& path)
{
    if (!work_)
        return false;
    const auto size = document().units() == UnitSystem::Us ? paper::letter() : paper::a4();
    const std::string date = QDate::currentDate().toString(Qt::ISODate).toStdString();
    try {
        if (place() == Map || place() == Order) {
            const auto binds = work_->best[0].choice == choice_ ? work_->best[0].binds : std::vector<std::string> {};
            files::exportFile(path.toStdString(),
                files::pdfOf(
                    report::sheetsOf(design::orderSheet(*work_->maker, *work_->map, choice_, binds, date), size), deepstop::tr("Order")));
            return true;
        }
        const char* key = place() == Hat ? "hat" : place() == Ring ? "ring" : "bracket";
        const auto parts = design::partsToMake(*work_->maker, choice_, date);
        const auto part = std::ranges::find(parts, key, &design::ShopPart::key);
        if (part == parts.end())
            throw files::Refusal(deepstop::tr("Cannot be drawn: readings of knuckle or caliper lack."));
        if (part->turned)
            solids::writeTurned(path.toStdString(), *part->turned, part->drawing, size);
        else
            solids::writePlate(path.toStdString(), *part->plate, part->drawing, size);
    } catch (const files::Refusal& refusal) {
        emit refused(QString::fromUtf8(refusal.what()));
        return false;
    }
    return true;
}

} // namespace deepstop::app
