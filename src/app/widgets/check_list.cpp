#include "widgets/check_list.hpp"

#include "document.hpp"
#include "report/letters.hpp"
#include "theme.hpp"

#include <QClipboard>
#include <QGuiApplication>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>

namespace deepstop::app {
namespace {

constexpr int lineHeight = 44;
constexpr int headHeight = 26;
constexpr int noteWidth = 190;

Level levelOf(Checked state) { return state == Checked::Fine ? Level::Good : state == Checked::Fault ? Level::Stop : Level::Unproven; }

} // namespace

CheckLine::CheckLine(Drafts& drafts, QWidget* parent) : QWidget(parent), drafts_(drafts), note_(new QLineEdit(this))
{
    setFocusPolicy(Qt::StrongFocus);
    note_->setPlaceholderText(tr("note"));
    drafts_.watch(note_, [this] { return putNote(); });
    connect(note_, &QLineEdit::editingFinished, this, &CheckLine::putNote);
}

bool CheckLine::putNote()
{
    if (drafts_.has(note_->objectName())) {
        note_->setModified(false);
        drafts_.settle(note_->objectName());
        emit noted(QString::fromStdString(item_.id), item_.verdict.empty() || item_.state == Checked::Fault ? item_.state : Checked::Open,
            item_.hand, note_->text().trimmed());
    }
    return true;
}

void CheckLine::show(const ReceivingItem& item, bool heads)
{
    item_ = item;
    heads_ = heads;
    setObjectName(QString::fromStdString(item.id));
    setFixedHeight(lineHeight + (heads ? headHeight : 0));
    note_->setObjectName(QStringLiteral("/received/%1/note").arg(QString::fromStdString(item.id)));
    const auto note = drafts_.has(note_->objectName()) ? drafts_.text(note_->objectName()) : QString::fromStdString(item.note);
    if (note_->text() != note) {
        note_->setText(note);
        note_->setCursorPosition(0);
    }
    note_->setAccessibleName(tr("Note: %1").arg(QString::fromStdString(item.title)));
    setAccessibleName(QStringLiteral("%1, %2").arg(QString::fromStdString(item.title),
        item.state == Checked::Fine        ? tr("fine")
            : item.state == Checked::Fault ? tr("fault")
                                           : tr("open")));
    setAccessibleDescription(QString::fromStdString(item.said.empty() ? item.ask : item.said));
    update();
}

void CheckLine::tick(Checked state) { say(state, state == Checked::Fine ? WhichHand::Unknown : item_.hand); }

void CheckLine::say(Checked state, WhichHand hand) { emit said(QString::fromStdString(item_.id), state, hand, note_->text().trimmed()); }

QRect CheckLine::button(int index) const
{
    const int top = heads_ ? headHeight : 0;
    return { width() - noteWidth - 16 - (2 - index) * 62, top + 9, 56, 26 };
}

void CheckLine::resizeEvent(QResizeEvent*) { note_->setGeometry(width() - noteWidth - 8, (heads_ ? headHeight : 0) + 9, noteWidth, 26); }

void CheckLine::keyPressEvent(QKeyEvent* event)
{
    switch (event->key()) {
    case Qt::Key_Space:
    case Qt::Key_F:
        if (!item_.asksHand && item_.verdict.empty())
            say(item_.state == Checked::Fine && event->key() == Qt::Key_Space ? Checked::Open : Checked::Fine, WhichHand::Unknown);
        break;
    case Qt::Key_X:
        say(item_.state == Checked::Fault && !item_.asksHand ? Checked::Open : Checked::Fault, item_.hand);
        break;
    case Qt::Key_L:
    case Qt::Key_R:
        if (item_.asksHand)
            say(Checked::Open, event->key() == Qt::Key_L ? WhichHand::Left : WhichHand::Right);
        break;
    case Qt::Key_P:
        if (item_.state == Checked::Fault)
            emit photoWanted(item_.id);
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
        return;
    }
}

void CheckLine::mousePressEvent(QMouseEvent* event)
{
    setFocus();
    if (item_.state == Checked::Fault && button(-1).contains(event->pos())) {
        emit photoWanted(item_.id);
        return;
    }
    if (!item_.verdict.empty()) {
        if (button(1).contains(event->pos()))
            say(item_.state == Checked::Fault ? Checked::Open : Checked::Fault, item_.hand);
        else
            emit verdictWanted(item_.verdict);
        return;
    }
    for (int i = 0; i < 2; ++i)
        if (button(i).contains(event->pos())) {
            if (item_.asksHand)
                say(Checked::Open, i == 0 ? WhichHand::Left : WhichHand::Right);
            else
                say(i == 0 ? (item_.state == Checked::Fine ? Checked::Open : Checked::Fine)
                           : (item_.state == Checked::Fault ? Checked::Open : Checked::Fault),
                    item_.hand);
        }
}

void CheckLine::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    int top = 0;
    if (heads_) {
        p.setFont(drafting(15));
        p.setPen(t.ink);
        p.drawText(QRect(8, 4, width() - 16, headHeight - 4), Qt::AlignLeft | Qt::AlignVCenter, QString::fromStdString(item_.group));
        top = headHeight;
    }
    p.setPen(QPen(t.rule, 1));
    p.drawLine(8, top, width() - 8, top);
    if (hasFocus()) {
        p.setPen(QPen(t.focus, 2));
        p.setBrush(Qt::NoBrush);
        p.drawRoundedRect(QRectF(3, top + 2, width() - 6, lineHeight - 4), 3, 3);
    }
    const Level level = levelOf(item_.state);
    drawLevel(p, QRectF(12, top + 15, 14, 14), level, colourOf(level));
    const bool faulty = item_.state == Checked::Fault;
    const int room = button(faulty ? -1 : 0).left() - 46;
    p.setFont(reading(13, QFont::DemiBold));
    p.setPen(t.ink);
    p.drawText(QRect(36, top + 4, room, 18), Qt::AlignLeft | Qt::AlignVCenter,
        p.fontMetrics().elidedText(QString::fromStdString(item_.title), Qt::ElideRight, room));
    const auto under = item_.said.empty() ? item_.ask : item_.said;
    p.setFont(reading(12));
    p.setPen(item_.state == Checked::Fault ? t.bad : t.mute);
    p.drawText(QRect(36, top + 22, room, 18), Qt::AlignLeft | Qt::AlignVCenter,
        p.fontMetrics().elidedText(QString::fromStdString(under), Qt::ElideRight, room));
    if (faulty) {
        p.setPen(QPen(item_.photo.empty() ? t.rule : t.ink, 1));
        p.setBrush(t.paper);
        p.drawRoundedRect(QRectF(button(-1)).adjusted(0.5, 0.5, -0.5, -0.5), 3, 3);
        p.setPen(item_.photo.empty() ? t.mute : t.ink);
        p.setFont(reading(12));
        p.drawText(button(-1), Qt::AlignCenter, item_.photo.empty() ? tr("photo…") : tr("photo ✓"));
    }
    const QString words[] { item_.asksHand ? tr("left") : tr("fine"), item_.asksHand ? tr("right") : tr("fault") };
    for (int i = 0; i < 2; ++i) {
        if (!item_.verdict.empty() && i == 0) {
            p.setPen(t.mute);
            p.setFont(reading(12));
            p.drawText(button(0), Qt::AlignCenter, tr("by readings"));
            continue;
        }
        const bool on = item_.asksHand ? item_.hand == (i == 0 ? WhichHand::Left : WhichHand::Right)
                                       : item_.state == (i == 0 ? Checked::Fine : Checked::Fault);
        p.setPen(QPen(on ? colourOf(level) : t.rule, on ? 2 : 1));
        p.setBrush(on ? t.raised : t.paper);
        p.drawRoundedRect(QRectF(button(i)).adjusted(0.5, 0.5, -0.5, -0.5), 3, 3);
        p.setPen(on ? t.ink : t.mute);
        p.setFont(readingWithin(12, on ? QFont::DemiBold : QFont::Normal, words[i], button(i).width() - 8));
        p.drawText(button(i), Qt::AlignCenter, words[i]);
    }
}

CheckList::CheckList(Document& document, QWidget* parent)
    : QScrollArea(parent), document_(document), inside_(new QWidget), copy_(new QPushButton(tr("Copy the faults as a message"), this))
{
    setObjectName(QStringLiteral("check-list"));
    setWidgetResizable(true);
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto* column = new QVBoxLayout(inside_);
    column->setContentsMargins(14, 62, 14, 16);
    column->setSpacing(0);
    column->addStretch();
    setWidget(inside_);
    copy_->setObjectName(QStringLiteral("copy-faults"));
    column->addWidget(copy_, 0, Qt::AlignLeft);
    connect(copy_, &QPushButton::clicked, this,
        [this] { QGuiApplication::clipboard()->setText(QString::fromStdString(report::faultLetter(document_.wholeStudy()))); });
}

CheckLine* CheckList::line(const std::string& id) const
{
    const auto found = std::ranges::find_if(lines_, [&](CheckLine* l) { return l->item().id == id; });
    return found == lines_.end() ? nullptr : *found;
}

void CheckList::refresh(Axle axle)
{
    const auto items = receivingOf(document_.study(), axle);
    auto* column = static_cast<QVBoxLayout*>(inside_->layout());
    while (lines_.size() > items.size()) {
        // It may be in an event of its own.
        lines_.back()->hide();
        lines_.back()->deleteLater();
        lines_.pop_back();
    }
    while (lines_.size() < items.size()) {
        auto* line = new CheckLine(document_.drafts(), inside_);
        column->insertWidget(static_cast<int>(lines_.size()), line);
        line->setVisible(true);
        lines_.push_back(line);
        connect(line, &CheckLine::said, this, &CheckList::put, Qt::QueuedConnection);
        connect(line, &CheckLine::noted, this, &CheckList::put);
        connect(line, &CheckLine::verdictWanted, this, &CheckList::verdictChosen);
        connect(
            line, &CheckLine::photoWanted, this,
            [this](const std::string& id) {
                const auto folder = QFileInfo(document_.path()).absolutePath();
                if (const auto path =
                        QFileDialog::getOpenFileName(this, tr("A photograph of it"), folder, tr("Pictures (*.png *.jpg *.jpeg)"));
                    !path.isEmpty())
                    photograph(id, path);
            },
            Qt::QueuedConnection);
        connect(line, &CheckLine::goOn, this, [this, line](int by) {
            const auto here = std::ranges::find(lines_, line) - lines_.begin();
            const auto next = std::clamp<std::ptrdiff_t>(here + by, 0, static_cast<std::ptrdiff_t>(lines_.size()) - 1);
            lines_[static_cast<std::size_t>(next)]->setFocus(Qt::TabFocusReason);
            ensureWidgetVisible(lines_[static_cast<std::size_t>(next)]);
        });
    }
    for (std::size_t i = 0; i < items.size(); ++i)
        lines_[i]->show(items[i], i == 0 || items[i].group != items[i - 1].group);
    copy_->setVisible(std::ranges::any_of(items, [](const ReceivingItem& i) { return i.state == Checked::Fault; }));
    QPalette look = palette();
    look.setColor(QPalette::Window, theme().paper);
    inside_->setPalette(look);
    inside_->setAutoFillBackground(true);
}

void CheckList::photograph(const std::string& id, const QString& path)
{
    const Setup* setup = document_.study().after.setup;
    if (!setup)
        return;
    const QString own = document_.path();
    const QString kept = own.isEmpty() ? path : QFileInfo(own).absoluteDir().relativeFilePath(path);
    document_.edit(tr("photograph"), photographed(setup->id, id, kept.toStdString()));
}

void CheckList::put(const QString& id, Checked state, WhichHand hand, const QString& note)
{
    if (const Setup* setup = document_.study().after.setup)
        document_.edit(tr("check list"), received(setup->id, id.toStdString(), state, hand, note.toStdString()));
}

} // namespace deepstop::app
