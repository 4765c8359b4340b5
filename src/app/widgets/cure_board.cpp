#include "widgets/cure_board.hpp"

#include "chapters/clearance/checks.hpp"
#include "chapters/heat/heat_chapter.hpp"
#include "chapters/clearance/clearance.hpp"
#include "library_store.hpp"
#include "theme.hpp"

#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>

#include <cmath>
#include <utility>

namespace deepstop::app {
namespace {

/// The scale of the little gap rulers, m.
constexpr double rulerFrom = -6e-3;
constexpr double rulerTo = 14e-3;

constexpr int titleWidth = 238;
constexpr int gapWidth = 92;
constexpr int figureWidth = 57;
const QStringList& figureHeadings()
{
    static const QStringList names { QObject::tr("out by"), QObject::tr("thread"), QObject::tr("heat"), QObject::tr("torque"),
        QObject::tr("mass") };
    return names;
}

QString text(const std::string& s) { return QString::fromStdString(s); }

} // namespace

CureLine::CureLine(std::optional<Content> content, UnitSystem system, QWidget* parent)
    : QWidget(parent), content_(std::move(content)), system_(system)
{
    if (!content_ || content_->action.isEmpty())
        return;
    button_ = new QPushButton(content_->action, this);
    button_->setAccessibleName(QStringLiteral("%1: %2").arg(content_->action, content_->title));
    button_->setFont(reading(12));
}

QSize CureLine::sizeHint() const { return { 760, !content_ ? 24 : content_->note.isEmpty() ? 52 : 66 }; }

void CureLine::resizeEvent(QResizeEvent*)
{
    if (button_)
        button_->setGeometry(width() - 78, 6, 72, 24);
}

void CureLine::paintGap(QPainter& p, const QRectF& box, std::size_t which) const
{
    const Theme& t = theme();
    const auto x = [&](double gap) {
        return box.left() + box.width() * (std::clamp(gap, rulerFrom, rulerTo) - rulerFrom) / (rulerTo - rulerFrom);
    };
    const double y = box.bottom() - 7;
    p.setPen(QPen(t.rule, 1));
    p.drawLine(QPointF(box.left(), y), QPointF(box.right(), y));
    // Touching, and what is wanted.
    p.setPen(QPen(t.bad, 1.2));
    p.drawLine(QPointF(x(0), y - 5), QPointF(x(0), y + 5));
    p.setPen(QPen(t.good, 1.2));
    p.drawLine(QPointF(x(content_->wanted[which]), y - 5), QPointF(x(content_->wanted[which]), y + 5));
    if (content_->before[which]) {
        p.setPen(QPen(t.found, 1.4));
        p.setBrush(Qt::NoBrush);
        p.drawEllipse(QPointF(x(*content_->before[which]), y), 3.4, 3.4);
    }
    const Figure& gap = content_->gaps[which];
    p.setFont(figures(12.5));
    if (!gap.value) {
        p.setPen(t.unproven);
        p.drawText(QRectF(box.left(), box.top(), box.width(), 18), Qt::AlignLeft | Qt::AlignVCenter, QObject::tr("not known"));
        return;
    }
    const QColor colour = colourOf(content_->gapLevel(which));
    p.setPen(QPen(colour, 3.4));
    p.drawLine(QPointF(x(gap.lowest()), y), QPointF(x(gap.highest()), y));
    p.setPen(Qt::NoPen);
    p.setBrush(colour);
    p.drawEllipse(QPointF(x(*gap.value), y), 3.6, 3.6);
    p.setPen(t.ink);
    p.drawText(QRectF(box.left(), box.top(), box.width(), 18), Qt::AlignLeft | Qt::AlignVCenter,
        text(figure(*gap.value, style::gap, system_)) + QStringLiteral(" ±") + text(figure(gap.worstCase, style::gap, system_)));
}

void CureLine::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const double gapsFrom = titleWidth;
    const double figuresFrom = gapsFrom + 2 * (gapWidth + 12);
    if (!content_) {
        p.setFont(reading(12));
        p.setPen(t.mute);
        const auto head = [&](double x, double width, const QString& word, Qt::Alignment align) {
            p.drawText(QRectF(x, 2, width, 20), align | Qt::AlignVCenter, word);
        };
        head(gapsFrom, gapWidth, tr("under the barrel"), Qt::AlignLeft);
        head(gapsFrom + gapWidth + 12, gapWidth, tr("spokes"), Qt::AlignLeft);
        for (int i = 0; i < figureHeadings().size(); ++i)
            head(figuresFrom + i * figureWidth, figureWidth - 6, figureHeadings()[i], Qt::AlignRight);
        return;
    }
    p.setPen(QPen(t.rule, 1));
    p.drawLine(QPointF(0, height() - 0.5), QPointF(width(), height() - 0.5));
    drawLevel(p, QRectF(2, 10, 13, 13), content_->level, colourOf(content_->level));
    p.setFont(reading(13.5, QFont::DemiBold));
    p.setPen(t.ink);
    p.drawText(QRectF(24, 4, titleWidth - 32, 24), Qt::AlignLeft | Qt::AlignVCenter,
        QFontMetrics(p.font()).elidedText(content_->title, Qt::ElideRight, titleWidth - 32));
    p.setFont(reading(12));
    p.setPen(colourOf(content_->level));
    p.drawText(QRectF(24, 27, titleWidth - 32, 18), Qt::AlignLeft | Qt::AlignVCenter,
        QString::fromUtf8(deepstop::tr(nameOf(content_->level)).data()));
    if (!content_->note.isEmpty()) {
        p.setPen(t.mute);
        p.drawText(QRectF(24, 45, width() - 28, 18), Qt::AlignLeft | Qt::AlignVCenter,
            QFontMetrics(p.font()).elidedText(content_->note, Qt::ElideRight, width() - 28));
    }
    // The nearer of barrel and what stands into it is what counts there.
    const auto& insetGap = content_->gaps[static_cast<std::size_t>(WheelGap::Insets)];
    const auto& barrelGap = content_->gaps[static_cast<std::size_t>(WheelGap::Barrel)];
    const bool weightsFirst = insetGap.value && barrelGap.value && *insetGap.value < *barrelGap.value;
    paintGap(p, QRectF(gapsFrom, 4, gapWidth, 40), static_cast<std::size_t>(weightsFirst ? WheelGap::Insets : WheelGap::Barrel));
    paintGap(p, QRectF(gapsFrom + gapWidth + 12, 4, gapWidth, 40), static_cast<std::size_t>(WheelGap::Spokes));
    p.setFont(figures(12.5));
    p.setPen(t.ink);
    for (int i = 0; i < content_->figures.size(); ++i)
        p.drawText(QRectF(figuresFrom + i * figureWidth, button_ ? 28 : 6, figureWidth - 6, 18), Qt::AlignRight | Qt::AlignVCenter,
            content_->figures[i]);
}

CureBoard::CureBoard(Document& document, LibraryStore& library, QWidget* parent)
    : QScrollArea(parent), document_(document), library_(library)
{
    setFrameShape(QFrame::NoFrame);
    setWidgetResizable(true);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setObjectName(QStringLiteral("cures"));
    connect(&document_.drafts(), &Drafts::released, this, [this] {
        if (std::exchange(postponed_, false) && isVisible())
            refresh(axle_);
    });
    connect(&library_, &LibraryStore::changed, this, [this] {
        if (isVisible())
            refresh(axle_);
    });
}

/// Over the stretch at the bottom, where there is one already.
void CureBoard::append(QWidget* line)
{
    auto* column = static_cast<QVBoxLayout*>(widget()->layout());
    auto* last = column->itemAt(column->count() - 1);
    column->insertWidget(last && last->spacerItem() ? column->count() - 1 : column->count(), line);
}

CureLine* CureBoard::add(std::optional<CureLine::Content> content)
{
    auto* line = new CureLine(std::move(content), document_.units(), widget());
    append(line);
    line->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    if (line->button())
        connect(line->button(), &QPushButton::clicked, this, [this, line] {
            // Kept beyond the line, which the edit replaces.
            QMetaObject::invokeMethod(
                this,
                [this, applied = line->content()->applied, title = line->content()->title, of = of_, base = base_] {
                    document_.putIn(title, of, base, applied);
                },
                Qt::QueuedConnection);
        });
    if (line->content())
        lines_.push_back(line);
    return line;
}

void CureBoard::heading(const QString& words)
{
    auto* label = new QLabel(words, widget());
    label->setFont(drafting(17));
    label->setContentsMargins(0, 12, 0, 0);
    append(label);
}

void CureBoard::say(const QString& words)
{
    auto* label = new QLabel(words, widget());
    label->setFont(reading(13));
    label->setWordWrap(true);
    label->setTextFormat(Qt::PlainText);
    label->setContentsMargins(24, 2, 0, 2);
    append(label);
    answers_ << words;
}

void CureBoard::refresh(Axle axle)
{
    const Theme& t = theme();
    axle_ = axle;
    // What somebody is about to press stays where it is.
    if (auto* pressed = qobject_cast<QWidget*>(document_.drafts().pressedOn()); pressed && isAncestorOf(pressed)) {
        postponed_ = true;
        return;
    }
    search_.cancel();
    of_ = document_.stamp();
    base_ = document_.study().build;
    lines_.clear();
    answers_.clear();
    waiting_ = nullptr;
    auto* inside = new QWidget;
    auto* column = new QVBoxLayout(inside);
    column->setContentsMargins(22, 40, 22, 16);
    column->setSpacing(0);
    QPalette look = palette();
    look.setColor(QPalette::Window, t.paper);
    inside->setPalette(look);
    inside->setAutoFillBackground(true);
    setWidget(inside);

    const Study& study = document_.study();
    const UnitSystem system = study.system;
    const CornerClearance& now = study.of<Clearance>().after.at(axle).left;
    if (!now.corner || !now.wheel) {
        say(tr("No wheel chosen on this axle."));
        column->addStretch();
        return;
    }
    library_.load();
    const auto length = [&](const Figure& f) { return f.value ? text(figure(*f.value, style::gap, system)) : QStringLiteral("–"); };

    heading(tr("What would gain clearance"));
    add({});
    std::array<Figure, wheelGaps.size()> standing;
    standing_ = Level::Clear;
    for (const WheelGap which : wheelGaps)
        if (which != WheelGap::Insets || !now.wheel->insets.empty()) {
            standing[static_cast<std::size_t>(which)] = now.room(which).gap;
            const Verdict* v = study.verdict(which == WheelGap::Barrel ? checks::barrelGap
                    : which == WheelGap::Spokes                        ? checks::spokeGap
                                                                       : checks::insetGap,
                { axle });
            standing_ = v ? std::max(standing_, v->level) : standing_;
        }
    auto as = contentOf(now, standing, standing_);
    as.title = tr("As it is: %1").arg(text(now.wheel->name));
    for (auto& before : as.before)
        before.reset();
    const Verdict* studs = study.verdict(checks::studs, { axle });
    const Figure& heatStore = study.of<Heat>().after.at(axle).heatStore;
    as.figures = { QStringLiteral("0"), studs ? length(studs->figure) : QStringLiteral("–"),
        heatStore.value ? text(figure(*heatStore.value, style::heatStore, system)) : QStringLiteral("–"), QStringLiteral("0 %"),
        QStringLiteral("0") };
    add(as);
    waiting_ = new QLabel(tr("Searching …"), inside);
    waiting_->setFont(reading(13));
    waiting_->setContentsMargins(24, 12, 0, 2);
    column->addWidget(waiting_);
    column->addStretch();
    // The search is as long as the library is large, and nobody waits for it.
    const auto shelf = library_.isReady() ? library_.sharedParts() : nullptr;
    search_.start(
        [study = document_.sharedStudy(), shelf, axle](const JobTicket&) {
            return std::make_shared<const Found>(
                Found { study, shelf, curesOf(*study, axle, shelf.get()), candidateWheels(*study, axle, shelf.get()),
                    largestRotor(*study, axle), offsetRange(*study, axle), smallestWheel(*study, axle, shelf.get()) });
        },
        [this](const std::shared_ptr<const Found>& found) {
            delete std::exchange(waiting_, nullptr);
            show(*found);
        },
        [this](const std::exception& wrong) {
            if (waiting_)
                waiting_->setText(tr("The search broke off: %1").arg(QString::fromUtf8(wrong.what())));
        });
}

CureLine::Content CureBoard::contentOf(const CornerClearance& now, const std::array<Figure, wheelGaps.size()>& gaps, Level level) const
{
    CureLine::Content c;
    c.level = level;
    c.gaps = gaps;
    for (const WheelGap which : wheelGaps) {
        const auto i = static_cast<std::size_t>(which);
        c.before[i] = now.room(which).gap.value;
        c.wanted[i] = now.room(which).wanted;
    }
    return c;
}

void CureBoard::show(const Found& found)
{
    const Study& study = *found.study;
    const UnitSystem system = study.system;
    const Axle axle = axle_;
    const CornerClearance& now = study.of<Clearance>().after.at(axle).left;
    const auto length = [&](const Figure& f) { return f.value ? text(figure(*f.value, style::gap, system)) : QStringLiteral("–"); };
    for (const Cure& cure : found.cures) {
        auto c = contentOf(now, cure.gaps, cure.level);
        c.title = text(cure.title);
        QStringList notes;
        for (const std::string& cost : cure.costs)
            if (cost.find("barrel") != 0 && cost.find("spokes") != 0)
                notes << text(cost);
        c.note = notes.join(QStringLiteral(" · "));
        const auto share = [](double factor) {
            return std::isfinite(factor) ? text(printChange(factor - 1, style::share)) : QStringLiteral("–");
        };
        c.figures = { length(cure.outward), length(cure.inNut),
            cure.heatStore.value ? text(figure(*cure.heatStore.value, style::heatStore, system)) : QStringLiteral("–"),
            share(cure.torqueShare),
            cure.wheelMass.value ? text(figure(*cure.wheelMass.value, style::partMass, system)) : QStringLiteral("0") };
        c.action = tr("Try it");
        c.applied = applied(cure.edit, *study.build);
        add(std::move(c));
    }
    if (found.cures.empty())
        say(isFine(standing_) ? tr("Nothing is needed: every gap is wide enough at worst.")
                : standing_ == Level::Unproven
                ? tr("Nothing can be searched for while a gap is unproven: measure the wheel where the caliper is.")
                : tr("No spacer, wheel, rotor or caliper that is known cures it."));

    heading(tr("Wheels, most clearance first"));
    add({});
    for (const Candidate& candidate : found.wheels) {
        auto c = contentOf(now, candidate.gaps, candidate.level);
        c.title = text(candidate.wheel->name);
        QStringList notes;
        if (candidate.wheel == now.wheel)
            notes << tr("on this axle now");
        if (!candidate.ofBuild)
            notes << tr("parts library: bolt circle and bore to be checked");
        if (candidate.offset)
            notes << tr("effective offset %1").arg(text(print(*candidate.offset, style::gap, system)));
        c.note = notes.join(QStringLiteral(" · "));
        if (candidate.wheel != now.wheel && candidate.ofBuild) {
            Build build = *study.build;
            ownCorner(build, study.after.setup->id, axle).wheel = candidate.wheel->id;
            c.action = tr("Fit it");
            c.applied = std::make_shared<const Build>(std::move(build));
        }
        add(std::move(c));
    }

    heading(tr("How far one could go"));
    say(text(inWords(found.largest, system)));
    say(text(inWords(found.offsets, system)));
    say(text(inWords(found.smallest)));
}

} // namespace deepstop::app
