#include "widgets/slip.hpp"

#include "document.hpp"
#include "quantity/instrument_names.hpp"
#include "study/chapters.hpp"
#include <fmt/format.h>
#include "theme.hpp"
#include "widgets/reading_card.hpp"

#include <QEvent>
#include <QPainter>
#include <QRegularExpression>
#include <QScrollBar>
#include <QUrl>
#include <QVBoxLayout>

#include <algorithm>
#include <utility>

namespace deepstop::app {
namespace {

/// For the text browser; a number and its unit stay on one line.
QString text(const std::string& s)
{
    static const QRegularExpression numberAndUnit(QStringLiteral("(\\d) (?=[%°A-Za-z])"));
    return QString::fromStdString(s).replace(numberAndUnit, QStringLiteral("\\1\u00a0")).toHtmlEscaped();
}

QString span(const QColor& colour, const QString& inner)
{
    return QStringLiteral("<span style='color:%1'>%2</span>").arg(colour.name(), inner);
}

QString mark(Level level) { return QStringLiteral("<img src='level:%1' width='12' height='12'>").arg(static_cast<int>(level)); }

QString capital(QString s)
{
    if (!s.isEmpty())
        s[0] = s[0].toUpper();
    return s;
}

} // namespace

Slip::Slip(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), card_(new ReadingCard(document, this)), text_(new QTextBrowser(this))
{
    setFixedWidth(300);
    text_->setFrameShape(QFrame::NoFrame);
    text_->setOpenLinks(false);
    text_->setObjectName(QStringLiteral("slip"));
    text_->setAccessibleName(tr("Checks of this stage"));
    text_->viewport()->setAutoFillBackground(false);
    text_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    connect(text_, &QTextBrowser::anchorClicked, this, &Slip::follow);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(14, 12, 6, 8);
    column->setSpacing(8);
    column->addWidget(card_);
    column->addWidget(text_, 1);
    card_->hide();
    soon_.setSingleShot(true);
    soon_.setInterval(0);
    connect(&soon_, &QTimer::timeout, this, &Slip::refresh);
    connect(&document_.drafts(), &Drafts::released, this, [this] {
        if (std::exchange(postponed_, false))
            refresh();
    });
}

void Slip::setStage(const Stage& stage)
{
    stage_ = &stage;
    const Verdict* worst = document_.study().worst(stage.chapters);
    chosen_ = worst ? worst->id : std::string();
    pickAgain_ = document_.study().underWay;
    method_ = false;
    setReading({});
    refresh();
    text_->verticalScrollBar()->setValue(0);
}

void Slip::choose(const std::string& id)
{
    chosen_ = id;
    pickAgain_ = false;
    method_ = false;
    refresh();
    emit chosenChanged();
}

void Slip::setReading(const std::string& pointer) { card_->setReading(pointer); }

void Slip::drawMarks()
{
    for (const Level level : { Level::Good, Level::Unproven, Level::Caution, Level::Stop, Level::Clear, Level::Tight, Level::Hits }) {
        QImage image(24, 24, QImage::Format_ARGB32_Premultiplied);
        image.fill(Qt::transparent);
        QPainter p(&image);
        drawLevel(p, QRectF(1, 1, 22, 22), level, colourOf(level));
        p.end();
        text_->document()->addResource(QTextDocument::ImageResource, QUrl(QStringLiteral("level:%1").arg(static_cast<int>(level))), image);
    }
    marksDark_ = theme().dark;
}

void Slip::refresh()
{
    if (marksDark_ != theme().dark)
        drawMarks(), shown_.clear();
    // What somebody is about to click stays where it is.
    if (document_.drafts().pressedOn() == text_->viewport()) {
        postponed_ = true;
        return;
    }
    const int scrolled = text_->verticalScrollBar()->value();
    soon_.stop();
    if (pickAgain_ && !document_.study().underWay) {
        pickAgain_ = false;
        if (const Verdict* worst = document_.study().worst(stage_->chapters))
            chosen_ = worst->id;
    }
    if (auto now = html(); now != shown_) {
        text_->setFont(reading(13));
        text_->setHtml(now);
        text_->verticalScrollBar()->setValue(scrolled);
        shown_ = std::move(now);
    }
    card_->refresh();
}

void Slip::refreshSoon()
{
    // Without its remedies the text would flicker; but what was true before is not left standing long.
    constexpr int atMost = 150; // ms
    if (document_.study().remedies == Remedies::Sought)
        soon_.start(0);
    else if (!soon_.isActive())
        soon_.start(atMost);
}

QTextBrowser* Slip::browser()
{
    if (soon_.isActive())
        refresh();
    return text_;
}

QString Slip::html() const
{
    const Theme& t = theme();
    const Study& study = document_.study();
    auto out = QStringLiteral("<style>a{text-decoration:none;color:%1} p{margin:0}</style>").arg(t.ink.name());
    if (stage_->aside)
        return out
            + QStringLiteral("<p>%1</p>")
                  .arg(tr(stage_->aside).toHtmlEscaped().replace(QLatin1String("\n\n"), QLatin1String("</p><br><p>")));
    out += QStringLiteral("<table width='100%' cellspacing='0' cellpadding='2'>");
    // On stages that show one axle at a time it is said whose checks these are.
    const bool byAxle = stage_->byAxle;
    std::optional<Axle> axle;
    const auto heading = [&](Axle which, const QString& note) {
        out += QStringLiteral("<tr><td colspan='2'>%1</td></tr>")
                   .arg(span(t.mute, (which == Axle::Front ? tr("Front axle") : tr("Rear axle")) + note));
    };
    // A long list is folded: what is fine says so in one line until somebody wants to see it.
    constexpr int longList = 9;
    const auto here = std::ranges::count_if(study.verdicts, [this](const Verdict& v) { return stage_->speaks(v.chapter); });
    int folded = 0;
    for (const Verdict& v : study.verdicts) {
        if (!stage_->speaks(v.chapter))
            continue;
        if (here > longList && !unfolded_ && isFine(v.level) && v.id != chosen_) {
            ++folded;
            continue;
        }
        if (byAxle && axle != v.axle)
            heading(v.axle, {});
        axle = v.axle;
        const bool open = v.id == chosen_;
        out += QStringLiteral("<tr><td width='18'>%1</td><td%2><a href='check:%3'>%4</a></td></tr>")
                   .arg(mark(v.level), open ? QStringLiteral(" bgcolor='%1'").arg(t.raised.name()) : QString(), text(v.id),
                       open ? QStringLiteral("<b>%1</b>").arg(text(v.title)) : text(v.title));
    }
    if (here > longList)
        out += QStringLiteral("<tr><td width='18'>%1</td><td><a href='fold:'>%2</a></td></tr>")
                   .arg(mark(Level::Good),
                       span(t.proposal,
                           QStringLiteral("<u>%1</u>")
                               .arg(unfolded_ ? tr("hide checks that pass") : tr("%1 more are clear or good").arg(folded))));
    if (byAxle && axle == Axle::Front && study.after.setup && !study.after.setup->rear && study.after.setup != &study.build->setups.front())
        heading(Axle::Rear, tr(": left as found"));
    out += QStringLiteral("</table>");
    if (const Verdict* v = study.verdict(chosen_))
        out += details(*v);
    return out;
}

QString Slip::details(const Verdict& v) const
{
    const Theme& t = theme();
    const Study& study = document_.study();
    auto out = QStringLiteral("<p style='margin-top:12px'><b>%1</b></p><p>%2.</p>")
                   .arg(span(colourOf(v.level),
                            QStringLiteral("%1 %2").arg(mark(v.level), capital(QString::fromUtf8(deepstop::tr(nameOf(v.level)).data())))),
                       text(v.reason));
    if (v.figure.value && v.figure.worstCase > 0)
        out += QStringLiteral("<p>%1</p>")
                   .arg(span(t.mute,
                       tr("%1, ±%2 worst case, ±%3 likely")
                           .arg(text(print(*v.figure.value, v.style, study.system)),
                               text(figure(v.figure.worstCase, ofDifference(v.style), study.system)),
                               text(figure(v.figure.rootSumSquare, ofDifference(v.style), study.system)))));
    for (std::size_t i = 0; i < v.remedies.size(); ++i) {
        const Remedy& r = v.remedies[i];
        QString costs;
        for (const auto& cost : r.costs)
            costs += (costs.isEmpty() ? "" : " · ") + text(cost);
        if (i == 0)
            out +=
                QStringLiteral("<p style='margin-top:10px'><b>%1</b></p>").arg(text(std::string(deepstop::tr(chapterOf(v.chapter).cures))));
        out += QStringLiteral("<table width='100%' cellpadding='6' cellspacing='0' bgcolor='%1' "
                              "style='margin-top:5px'><tr><td><b>%2</b><br>%3<br>%4<br><a href='remedy:%5'>%6</a></td></tr></table>")
                   .arg(t.raised.name(), text(r.title),
                       span(t.good,
                           r.gap.value ? text(
                               fmt::format("{} {}", deepstop::tr(chapterOf(v.chapter).gain), print(*r.gap.value, v.style, study.system)))
                                       : QString()),
                       span(t.mute, costs))
                   .arg(QString::fromLatin1(QByteArray::fromStdString(v.id + "\n" + r.title).toHex()))
                   .arg(r.edit ? span(t.proposal, QStringLiteral("<u>%1</u>").arg(tr("Try it"))) : QString());
    }
    if (!v.caution.empty())
        out += QStringLiteral("<p style='margin-top:10px'>%1</p>").arg(span(t.bad, text(v.caution)));
    out += restsOn(v.figure, v.style);
    if (!v.method.empty()) {
        out += QStringLiteral("<p style='margin-top:10px'><a href='method:'>%1</a></p>")
                   .arg(span(t.proposal, QStringLiteral("<u>%1</u>").arg(tr("How this is worked out"))));
        if (method_)
            out += QStringLiteral("<p>%1</p><p>%2</p>").arg(text(v.method), span(t.mute, text(v.source))) + whatWasSaid(v.figure);
    }
    return out;
}

QString Slip::whatWasSaid(const Figure& figure) const
{
    const Study& study = document_.study();
    QString facts;
    for (const std::uint32_t number : figure.facts) {
        const Address* address = study.directory->ofFact(number);
        const auto said = address ? factAt(*study.build, address->pointer) : std::nullopt;
        if (said && !said->value.empty())
            facts += QStringLiteral("%1%2: %3").arg(facts.isEmpty() ? "" : " · ", text(address->full()), text(said->value));
    }
    return facts.isEmpty() ? QString() : QStringLiteral("<p>%1</p>").arg(tr("It takes as said: %1").arg(facts));
}

QString Slip::restsOn(const Figure& figure, const Style& style) const
{
    // What is missing first, then what makes the result most unsure: those are worth measuring again.
    constexpr std::size_t most = 6;
    const Theme& t = theme();
    const Study& study = document_.study();
    std::vector<std::pair<double, const Directory::Entry*>> order;
    for (std::size_t i = 0; i < figure.restsOn.size(); ++i) {
        const auto* entry = study.directory->find(figure.restsOn[i]);
        if (entry && std::ranges::none_of(order, [entry](const auto& o) { return o.second == entry; }))
            order.emplace_back(!entry->reading->value ? 1e300 : i < figure.effects.size() ? figure.effects[i] : 0, entry);
    }
    std::ranges::stable_sort(order, std::greater<> {}, &std::pair<double, const Directory::Entry*>::first);
    QString rests;
    for (std::size_t i = 0; i < order.size() && i < most; ++i) {
        const double effect = order[i].first;
        const Address* address = &order[i].second->address;
        const Reading* reading = order[i].second->reading;
        QString how;
        if (!reading->value) {
            how = span(t.unproven, tr("<b>missing</b>"));
        } else {
            how = QStringLiteral("%1, %2").arg(text(print(*reading->value, address->style, study.system)),
                reading->known == Known::Measured && !reading->instrument.empty()
                    ? text(instrumentInWords(reading->instrument))
                    : QString::fromUtf8(deepstop::tr(nameOf(reading->known)).data()));
            if (const auto by = deepstop::figure(effect, style, study.system); by.find_first_of("123456789") != std::string::npos)
                how += tr(", moves it ±%1").arg(text(by));
            how = span(provesNothing(reading->known) ? t.unproven : t.mute, how);
        }
        // Front and rear, before and after may share a name; then it is said whose it is.
        const bool shared = std::ranges::any_of(
            order, [&](const auto& other) { return &other.second->address != address && other.second->address.label == address->label; });
        rests += QStringLiteral("<p style='margin-bottom:3px'><a href='reading:%1'>%2</a><br>%3</p>")
                     .arg(text(address->pointer), capital(text(shared ? address->full() : address->label)), how);
    }
    if (rests.isEmpty())
        return {};
    if (order.size() > most)
        rests += QStringLiteral("<p>%1</p>").arg(span(t.mute, tr("and %1 more that matter less").arg(order.size() - most)));
    return QStringLiteral("<p style='margin-top:10px'><b>%1</b></p>").arg(tr("Rests on")) + rests;
}

void Slip::follow(const QUrl& link)
{
    const auto rest = link.path(QUrl::FullyDecoded).toStdString();
    if (link.scheme() == QLatin1String("check")) {
        choose(rest);
    } else if (link.scheme() == QLatin1String("fold")) {
        unfolded_ = !unfolded_;
        refresh();
    } else if (link.scheme() == QLatin1String("method")) {
        method_ = !method_;
        refresh();
    } else if (link.scheme() == QLatin1String("reading")) {
        emit readingWanted(rest);
    } else if (link.scheme() == QLatin1String("remedy")) {
        // Its identity, in letters that no text around it changes.
        const auto said = QByteArray::fromHex(QByteArray::fromStdString(rest)).toStdString();
        const auto end = said.find('\n');
        tryRemedy(said.substr(0, end), end == std::string::npos ? std::string() : said.substr(end + 1));
    }
}

/// The remedy of that verdict and title, as it is now: what was clicked may not be one any more.
void Slip::tryRemedy(const std::string& verdict, const std::string& title)
{
    document_.settle();
    if (const Verdict* v = document_.study().verdict(verdict))
        for (const Remedy& r : v->remedies)
            if (r.title == title && r.edit) {
                // Kept beyond the study that the edit replaces.
                document_.putIn(QString::fromStdString(title), document_.stamp(), document_.study().build, r.in(*document_.study().build));
                return;
            }
    emit refused(tr("“%1” is no remedy any more: something it was worked out of has changed. Nothing was changed.")
                     .arg(QString::fromStdString(title)));
}

bool Slip::tryFirstRemedy()
{
    document_.settle();
    const Verdict* v = document_.study().verdict(chosen_);
    if (!v)
        return false;
    const auto first = std::ranges::find_if(v->remedies, [](const Remedy& r) { return static_cast<bool>(r.edit); });
    if (first == v->remedies.end())
        return false;
    tryRemedy(v->id, std::string(first->title));
    return true;
}

void Slip::changeEvent(QEvent* event)
{
    if (event->type() == QEvent::PaletteChange)
        refresh();
    QWidget::changeEvent(event);
}

} // namespace deepstop::app
