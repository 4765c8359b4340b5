#include "widgets/step_list.hpp"

#include "theme.hpp"

#include <QKeyEvent>
#include <QPainter>
#include <QVBoxLayout>

#include <algorithm>

namespace deepstop::app {
namespace {

constexpr int headHeight = 34;
constexpr int leftOfText = 38;
constexpr int buttons = 172; ///< wide, at the right, with who did it under them
constexpr int pad = 8;

QFont textFont() { return reading(14, QFont::DemiBold); }
QFont underFont() { return reading(12); }

int heightOf(const QFont& font, const QString& text, int width)
{
    return text.isEmpty() ? 0 : QFontMetrics(font).boundingRect(QRect(0, 0, width, 10'000), Qt::TextWordWrap, text).height();
}

} // namespace

StepLine::StepLine(QWidget* parent) : QWidget(parent)
{
    setFocusPolicy(Qt::StrongFocus);
    QSizePolicy policy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    policy.setHeightForWidth(true);
    setSizePolicy(policy);
}

void StepLine::show(const StepRow& row, bool heads)
{
    if (row_ == row && heads_ == heads)
        return;
    row_ = row;
    heads_ = heads;
    setObjectName(QString::fromStdString(row.id));
    setAccessibleName(QStringLiteral("%1, %2").arg(row.text,
        row.shut                          ? tr("shut")
            : row.state == Checked::Fine  ? tr("done")
            : row.state == Checked::Fault ? tr("fault")
                                          : tr("open")));
    setAccessibleDescription(row.caution.isEmpty() ? row.under : row.under + QStringLiteral(" ") + row.caution);
    setFixedHeight(heightForWidth(width()));
    update();
}

QRect StepLine::textRect(int width) const
{
    return { leftOfText, (heads_ ? headHeight : 0) + pad, std::max(80, width - leftOfText - buttons), 10'000 };
}

int StepLine::heightForWidth(int width) const
{
    const QRect text = textRect(width);
    const int words = heightOf(textFont(), row_.text, text.width()) + heightOf(underFont(), row_.under, text.width())
        + heightOf(underFont(), row_.caution, text.width());
    return text.top() + std::max(30, words) + pad;
}

void StepLine::resizeEvent(QResizeEvent*)
{
    if (const int height = heightForWidth(width()); height != this->height())
        setFixedHeight(height);
}

QRect StepLine::button(int index) const { return { width() - buttons + 12 + index * 76, (heads_ ? headHeight : 0) + pad, 70, 26 }; }

void StepLine::say(Checked state)
{
    if (row_.shut && state == Checked::Fine)
        emit shutTicked(row_.id);
    else
        emit said(row_.id, state);
}

void StepLine::keyPressEvent(QKeyEvent* event)
{
    switch (event->key()) {
    case Qt::Key_Space:
    case Qt::Key_F: {
        const bool off = row_.state == Checked::Fine && event->key() == Qt::Key_Space;
        const bool shut = row_.shut;
        say(off ? Checked::Open : Checked::Fine);
        if (!off && !shut)
            emit goOn(1);
        break;
    }
    case Qt::Key_X:
        say(row_.state == Checked::Fault ? Checked::Open : Checked::Fault);
        break;
    case Qt::Key_Down:
    case Qt::Key_Return:
    case Qt::Key_Enter:
        emit goOn(1);
        break;
    case Qt::Key_Up:
        emit goOn(-1);
        break;
    default:
        QWidget::keyPressEvent(event);
    }
}

void StepLine::mousePressEvent(QMouseEvent* event)
{
    setFocus();
    if (button(0).contains(event->pos()))
        say(row_.state == Checked::Fine ? Checked::Open : Checked::Fine);
    else if (button(1).contains(event->pos()))
        say(row_.state == Checked::Fault ? Checked::Open : Checked::Fault);
}

void StepLine::focusInEvent(QFocusEvent* event)
{
    QWidget::focusInEvent(event);
    emit reached(row_.id);
    update();
}

void StepLine::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const int top = heads_ ? headHeight : 0;
    if (heads_) {
        p.setFont(drafting(17));
        p.setPen(t.ink);
        p.drawText(QRect(8, 6, width() - 16, headHeight - 6), Qt::AlignLeft | Qt::AlignVCenter, row_.group);
    }
    p.setPen(QPen(t.rule, 1));
    p.drawLine(8, top, width() - 8, top);
    if (hasFocus()) {
        p.setPen(QPen(t.focus, 2));
        p.setBrush(Qt::NoBrush);
        p.drawRoundedRect(QRectF(3, top + 2, width() - 6, height() - top - 4), 3, 3);
    }
    const Level level = row_.state == Checked::Fine ? Level::Good : row_.state == Checked::Fault ? Level::Stop : Level::Unproven;
    const QRectF mark(12, top + pad + 3, 15, 15);
    if (row_.shut && row_.state != Checked::Fine) {
        // A padlock: what cannot be undone waits for its proof.
        p.setPen(QPen(t.caution, 1.8));
        p.setBrush(Qt::NoBrush);
        p.drawArc(QRectF(mark.left() + 3.5, mark.top(), 8, 10), 0, 180 * 16);
        p.setBrush(t.caution);
        p.drawRoundedRect(QRectF(mark.left() + 1.5, mark.top() + 6, 12, 9), 1.5, 1.5);
    } else {
        drawLevel(p, mark, level, colourOf(level));
    }
    QRect text = textRect(width());
    const auto put = [&](const QString& words, const QFont& font, const QColor& colour) {
        if (words.isEmpty())
            return;
        p.setFont(font);
        p.setPen(colour);
        p.drawText(text, Qt::TextWordWrap | Qt::AlignLeft | Qt::AlignTop, words);
        text.setTop(text.top() + heightOf(font, words, text.width()));
    };
    put(row_.text, textFont(), row_.state == Checked::Fine ? t.mute : t.ink);
    put(row_.under, underFont(), row_.shut ? t.caution : t.mute);
    put(row_.caution, underFont(), t.bad);
    const QString words[] { row_.shut && row_.state != Checked::Fine ? tr("open it") : tr("done"), tr("fault") };
    for (int i = 0; i < 2; ++i) {
        const bool on = row_.state == (i == 0 ? Checked::Fine : Checked::Fault);
        p.setPen(QPen(on ? colourOf(level) : t.rule, on ? 2 : 1));
        p.setBrush(on ? t.raised : t.paper);
        p.drawRoundedRect(QRectF(button(i)).adjusted(0.5, 0.5, -0.5, -0.5), 3, 3);
        p.setPen(on ? t.ink : t.mute);
        p.setFont(readingWithin(12, on ? QFont::DemiBold : QFont::Normal, words[i], button(i).width() - 8));
        p.drawText(button(i), Qt::AlignCenter, words[i]);
    }
    if (!row_.done.isEmpty()) {
        p.setPen(t.mute);
        p.setFont(reading(11));
        p.drawText(QRect(button(0).left(), button(0).bottom() + 2, buttons - 16, 16), Qt::AlignLeft | Qt::AlignTop,
            p.fontMetrics().elidedText(row_.done, Qt::ElideRight, buttons - 16));
    }
}

StepList::StepList(QWidget* parent) : QScrollArea(parent), inside_(new QWidget)
{
    setWidgetResizable(true);
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setFocusPolicy(Qt::NoFocus);
    auto* column = new QVBoxLayout(inside_);
    column->setContentsMargins(14, 62, 14, 16);
    column->setSpacing(0);
    column->addStretch();
    setWidget(inside_);
}

void StepList::setHeadroom(int pixels)
{
    auto margins = inside_->layout()->contentsMargins();
    margins.setTop(pixels);
    inside_->layout()->setContentsMargins(margins);
}

StepLine* StepList::line(const std::string& id) const
{
    const auto found = std::ranges::find_if(lines_, [&](const StepLine* l) { return l->row().id == id; });
    return found == lines_.end() ? nullptr : *found;
}

void StepList::goToFirstOpen()
{
    for (StepLine* line : lines_)
        if (line->row().state == Checked::Open) {
            line->setFocus(Qt::TabFocusReason);
            ensureWidgetVisible(line);
            return;
        }
}

void StepList::setRows(const std::vector<StepRow>& rows)
{
    auto* column = static_cast<QVBoxLayout*>(inside_->layout());
    while (lines_.size() > rows.size()) {
        delete lines_.back();
        lines_.pop_back();
    }
    while (lines_.size() < rows.size()) {
        auto* line = new StepLine(inside_);
        column->insertWidget(static_cast<int>(lines_.size()), line);
        line->setVisible(true);
        lines_.push_back(line);
        // Queued: what is said changes the rows while a line is still in its event.
        connect(line, &StepLine::said, this, &StepList::said, Qt::QueuedConnection);
        connect(line, &StepLine::shutTicked, this, &StepList::shutTicked, Qt::QueuedConnection);
        connect(line, &StepLine::reached, this, &StepList::reached);
        connect(line, &StepLine::goOn, this, [this, line](int by) {
            const auto here = std::ranges::find(lines_, line) - lines_.begin();
            const auto next = std::clamp<std::ptrdiff_t>(here + by, 0, static_cast<std::ptrdiff_t>(lines_.size()) - 1);
            lines_[static_cast<std::size_t>(next)]->setFocus(Qt::TabFocusReason);
            ensureWidgetVisible(lines_[static_cast<std::size_t>(next)]);
        });
    }
    for (std::size_t i = 0; i < rows.size(); ++i)
        lines_[i]->show(rows[i], i == 0 || rows[i].group != rows[i - 1].group);
    QPalette look = palette();
    look.setColor(QPalette::Window, theme().paper);
    inside_->setPalette(look);
    inside_->setAutoFillBackground(true);
}

} // namespace deepstop::app
