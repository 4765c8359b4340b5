#include "widgets/guide_bar.hpp"

#include "build/address.hpp"
#include "chapters/centring/checks.hpp"
#include "chapters/clearance/checks.hpp"
#include "chapters/parts/checks.hpp"
#include "chapters/stopping/checks.hpp"
#include "theme.hpp"

#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPainterPath>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <array>

namespace deepstop::app {
namespace {

constexpr int pictureWide = 84;

/// The verdicts that answer a question, in the order they are come to.
std::vector<std::string> verdictsFor(GuidedQuestion question)
{
    switch (question) {
    case GuidedQuestion::Fits:
        return { idOf(checks::bore, { Axle::Front }), idOf(checks::barrelGap, { Axle::Front }), idOf(checks::spokeGap, { Axle::Front }) };
    case GuidedQuestion::Shims:
        return { idOf(checks::axial, { Axle::Front, Side::Left }), idOf(checks::axial, { Axle::Front, Side::Right }) };
    case GuidedQuestion::Better:
        return { idOf(checks::stopDistance) };
    case GuidedQuestion::Everything:
        break;
    }
    return {};
}

QString howTo(Hold hold)
{
    switch (hold) {
    case Hold::Outside:
        return GuideBar::tr("Outside jaws, square across the part; three times in different places.");
    case Hold::Inside:
        return GuideBar::tr("Inside jaws, turned until they read the most.");
    case Hold::Depth:
        return GuideBar::tr("Depth rod, its foot flat on the face that is measured from.");
    case Hold::Other:
        break;
    }
    return GuideBar::tr("Clean faces first; write what the instrument shows, with ± where it is coarse.");
}

/// A vernier in outline as it is held: part shaded, jaws round it, in it or down it.
void drawHold(QPainter& p, const QRectF& box, Hold hold)
{
    const Theme& t = theme();
    p.setPen(QPen(t.ink, 1.4));
    const QRectF part(box.center().x() - 14, box.center().y() - 4, 28, 20);
    p.setBrush(t.metalWash);
    const auto beam = [&](double y) {
        p.setBrush(t.raised);
        p.drawRect(QRectF(box.left() + 6, y, box.width() - 12, 6));
    };
    switch (hold) {
    case Hold::Outside:
        p.drawRect(part);
        beam(box.top() + 6);
        p.drawRect(QRectF(part.left() - 6, box.top() + 6, 6, part.bottom() - box.top() - 8));
        p.drawRect(QRectF(part.right(), box.top() + 6, 6, part.bottom() - box.top() - 8));
        break;
    case Hold::Inside: {
        QPainterPath ring;
        ring.addRect(part.adjusted(-14, 0, 14, 0));
        ring.addRect(part);
        p.drawPath(ring);
        beam(box.top() + 6);
        p.setBrush(t.raised);
        p.drawRect(QRectF(part.left(), box.top() + 6, 5, part.center().y() - box.top() - 4));
        p.drawRect(QRectF(part.right() - 5, box.top() + 6, 5, part.center().y() - box.top() - 4));
        break;
    }
    case Hold::Depth: {
        QPainterPath step;
        step.addPolygon(QPolygonF { part.topLeft() + QPointF(-12, 0), part.topLeft() + QPointF(10, 0), part.topLeft() + QPointF(10, 14),
            part.topRight() + QPointF(0, 14), part.bottomRight() + QPointF(0, 4), part.bottomLeft() + QPointF(-12, 4) });
        step.closeSubpath();
        p.drawPath(step);
        p.setBrush(t.raised);
        p.drawRect(QRectF(part.left() - 10, part.top() - 7, 40, 7));
        p.drawRect(QRectF(part.left() + 17, box.top() + 4, 5, part.top() + 14 - box.top() - 4));
        break;
    }
    case Hold::Other:
        p.drawRect(part);
        p.drawLine(QPointF(part.left(), part.top() - 8), QPointF(part.right(), part.top() - 8));
        for (const double x : { part.left(), part.right() })
            p.drawLine(QPointF(x, part.top() - 12), QPointF(x, part.top() - 4));
    }
}

} // namespace

Hold holdOf(std::string_view label)
{
    const auto has = [&](std::initializer_list<const char*> words) {
        return std::ranges::any_of(words, [&](const char* word) { return label.find(word) != std::string_view::npos; });
    };
    // What is measured from a face first: the slot's middle from the hub face is a depth, the slot's width is not.
    if (has({ "depth", "height", "reach", "drop", "distance", "from the hub", "below", "over the" }))
        return Hold::Depth;
    if (has({ "bore", "inside", "inner diameter", "pocket", "opening", "slot", "gap", "vent width" }))
        return Hold::Inside;
    if (has({ "diameter", "thickness", "length", "width", "hat", "pilot", "stud" }))
        return Hold::Outside;
    return Hold::Other;
}

GuideBar::GuideBar(QWidget* parent)
    : QWidget(parent), what_(new QLabel(this)), how_(new QLabel(this)), go_(new QPushButton(tr("Go there"), this)),
      end_(new QPushButton(tr("End the guide"), this))
{
    setObjectName(QStringLiteral("guide"));
    setAccessibleName(tr("Guide"));
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(pictureWide + 26, 8, 14, 8);
    auto* words = new QVBoxLayout;
    words->setSpacing(2);
    for (QLabel* label : { what_, how_ }) {
        label->setTextFormat(Qt::PlainText);
        label->setWordWrap(true);
        words->addWidget(label);
    }
    row->addLayout(words, 1);
    row->addWidget(go_);
    row->addWidget(end_);
    go_->setObjectName(QStringLiteral("guide-go"));
    end_->setObjectName(QStringLiteral("guide-end"));
    setMinimumHeight(64);
    hide();
    connect(go_, &QPushButton::clicked, this, [this] {
        if (isVerdict_)
            emit verdictWanted(next_);
        else if (!next_.empty())
            emit readingWanted(next_);
    });
    connect(end_, &QPushButton::clicked, this, &GuideBar::end);
}

void GuideBar::ask(GuidedQuestion question)
{
    question_ = question;
    setVisible(asks());
}

void GuideBar::end()
{
    question_ = GuidedQuestion::Everything;
    hide();
}

QString GuideBar::text() const { return what_->text(); }

void GuideBar::say(const QString& what, const QString& how)
{
    what_->setFont(reading(14, QFont::DemiBold));
    how_->setFont(reading(13));
    what_->setText(what);
    how_->setText(how);
    setAccessibleDescription(what + QLatin1Char(' ') + how);
    update();
}

void GuideBar::refresh(const Study& study)
{
    if (!asks() || study.underWay)
        return;
    const auto ids = verdictsFor(question_);
    for (const std::string& id : ids) {
        const Verdict* v = study.verdict(id);
        isVerdict_ = false;
        hold_ = Hold::Other;
        level_ = v ? v->level : Level::Unproven;
        if (!v) {
            next_.clear();
            go_->setVisible(false);
            say(question_ == GuidedQuestion::Shims ? tr("Begin a mock-up: Centring, “Front left” in the row above the sheet.")
                                                   : tr("Choose or describe the wheel first: Clearance, the box in the sheet's corner."),
                tr("Nothing can be judged before that."));
            return;
        }
        // One that is certainly bad is an answer, whatever else is not known.
        if (v->level != Level::Unproven)
            continue;
        const auto& wanted = !v->figure.lacks.empty() ? v->figure.lacks : v->figure.estimated;
        const auto* entry = wanted.empty() ? nullptr : study.directory->find(wanted.front());
        go_->setVisible(true);
        if (entry) {
            next_ = entry->address.pointer;
            hold_ = holdOf(entry->address.english);
            const auto name = QString::fromStdString(entry->address.full());
            const auto title = QString::fromStdString(v->title);
            say(v->figure.lacks.empty()
                    ? tr("Next, read instead of estimated: %1").arg(name)
                    : (v->figure.lacks.size() == 1 ? tr("Next: %1 (the last for “%2”)").arg(name, title)
                                                   : tr("Next: %1 (%2 readings to “%3”)").arg(name).arg(v->figure.lacks.size()).arg(title)),
                howTo(hold_));
        } else {
            next_ = v->id;
            isVerdict_ = true;
            say(tr("Next: %1").arg(QString::fromStdString(v->reason)), tr("Not a single reading: the page shows where it is said."));
        }
        return;
    }
    // All of them stand; the worst of them speaks.
    const Verdict* worst = nullptr;
    for (const std::string& id : ids)
        if (const Verdict* v = study.verdict(id); v && (!worst || v->level > worst->level))
            worst = v;
    next_ = worst->id;
    isVerdict_ = true;
    level_ = worst->level;
    go_->setVisible(true);
    say(QStringLiteral("%1: %2").arg(QString::fromStdString(worst->title), QString::fromUtf8(deepstop::tr(nameOf(worst->level)).data())),
        tr("%1. This answers the first question; the other pages have the rest.").arg(QString::fromStdString(worst->reason)));
}

void GuideBar::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), t.paper);
    p.setPen(QPen(t.rule, 1));
    p.drawLine(rect().bottomLeft(), rect().bottomRight());
    const QRectF box(14, (height() - 48) / 2.0, pictureWide, 48);
    if (isVerdict_)
        drawLevel(p, QRectF(box.center() - QPointF(13, 13), QSizeF(26, 26)), level_, colourOf(level_));
    else
        drawHold(p, box, hold_);
}

} // namespace deepstop::app
