#include "drawing/fact_field.hpp"

#include "document.hpp"
#include "drawing/fitting_label.hpp"
#include "theme.hpp"

#include <QAbstractItemView>
#include <QKeyEvent>
#include <QPainter>
#include <QToolTip>
#include <QVBoxLayout>

namespace deepstop::app {

TickRow::TickRow(QWidget* parent) : QWidget(parent)
{
    setFocusPolicy(Qt::StrongFocus);
    setFont(reading(12));
}

void TickRow::setWords(const std::vector<std::string>& words, const std::string& ticked)
{
    words_.clear();
    on_.clear();
    const auto all = "," + ticked + ",";
    for (const auto& word : words) {
        words_ << QString::fromStdString(word);
        on_.push_back(all.find("," + word + ",") != std::string::npos);
    }
    QStringList keys;
    for (int i = 0; i < words_.size(); ++i)
        keys << tr("%1 for %2").arg(words_[i].at(letterOf(i)).toUpper(), words_[i]);
    setToolTip(keys.join(QStringLiteral(", ")));
    update();
}

QString TickRow::ticked() const
{
    QStringList all;
    for (int i = 0; i < words_.size(); ++i)
        if (on_[static_cast<std::size_t>(i)])
            all << words_[i];
    return all.join(QLatin1Char(','));
}

/// Which letter of a word toggles it: the first that no word before it has taken.
int TickRow::letterOf(int index) const
{
    QString taken;
    for (int i = 0; i <= index; ++i) {
        int at = 0;
        while (at + 1 < words_[i].size() && taken.contains(words_[i].at(at)))
            ++at;
        if (i == index)
            return at;
        taken += words_[i].at(at);
    }
    return 0;
}

QRect TickRow::cell(int index) const
{
    const QFontMetrics metrics(font());
    int x = 2;
    for (int i = 0; i < index; ++i)
        x += metrics.horizontalAdvance(words_[i]) + 24;
    return { x, 0, metrics.horizontalAdvance(words_[index]) + 22, height() };
}

QSize TickRow::sizeHint() const
{
    return { words_.isEmpty() ? 20 : cell(static_cast<int>(words_.size()) - 1).right() + 4, QFontMetrics(font()).height() + 8 };
}

void TickRow::toggle(int index)
{
    mark_ = index;
    on_[static_cast<std::size_t>(index)] = !on_[static_cast<std::size_t>(index)];
    update();
    emit changed();
}

void TickRow::keyPressEvent(QKeyEvent* event)
{
    const int count = static_cast<int>(words_.size());
    switch (event->key()) {
    case Qt::Key_Left:
        mark_ = std::max(0, mark_ - 1);
        break;
    case Qt::Key_Right:
        mark_ = std::min(count - 1, mark_ + 1);
        break;
    case Qt::Key_Space:
        toggle(mark_);
        break;
    case Qt::Key_Return:
    case Qt::Key_Enter:
        emit done();
        return;
    default:
        for (int i = 0; i < count; ++i)
            if (event->text().compare(words_[i].at(letterOf(i)), Qt::CaseInsensitive) == 0) {
                toggle(i);
                return;
            }
        QWidget::keyPressEvent(event);
        return;
    }
    update();
}

void TickRow::mousePressEvent(QMouseEvent* event)
{
    for (int i = 0; i < words_.size(); ++i)
        if (cell(i).contains(event->pos()))
            toggle(i);
}

void TickRow::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setFont(font());
    const QFontMetrics metrics(font());
    for (int i = 0; i < words_.size(); ++i) {
        const QRect at = cell(i);
        const bool on = on_[static_cast<std::size_t>(i)];
        const QRectF square(at.left() + 1.5, at.center().y() - 5, 11, 11);
        p.setPen(QPen(hasFocus() && i == mark_ ? t.focus : on ? t.ink : t.rule, hasFocus() && i == mark_ ? 2 : 1.2));
        p.setBrush(on ? t.proposalWash : t.paper);
        p.drawRect(square);
        if (on) {
            p.setPen(QPen(t.ink, 1.8));
            p.drawPolyline(
                QPolygonF { square.topLeft() + QPointF(2, 5), square.topLeft() + QPointF(5, 9), square.topLeft() + QPointF(12, -2) });
        }
        p.setPen(on ? t.ink : t.mute);
        const QRect text = at.adjusted(18, 0, 0, 0);
        p.drawText(text, Qt::AlignVCenter | Qt::AlignLeft, words_[i]);
        if (hasFocus()) {
            const int letter = letterOf(i);
            const int x = text.left() + metrics.horizontalAdvance(words_[i].left(letter));
            p.drawLine(x, text.center().y() + metrics.ascent() / 2 + 2, x + metrics.horizontalAdvance(words_[i].at(letter)),
                text.center().y() + metrics.ascent() / 2 + 2);
        }
    }
}

std::optional<Build> FactField::withPlace(const Build& build) const { return made_ && !factAt(build, pointer_) ? made_(build) : build; }

std::optional<StatedFact> FactField::fact() const
{
    if (auto there = factAt(document_.build(), pointer_); there || !made_)
        return there;
    const auto with = made_(document_.build());
    return with ? factAt(*with, pointer_) : std::nullopt;
}

FactField::FactField(Document& document, std::string pointer, Edit made, QWidget* parent)
    : QWidget(parent), document_(document), pointer_(std::move(pointer)), made_(std::move(made)),
      caption_(new FittingLabel(11, 8, 1, QFont::Normal, this))
{
    setObjectName(QString::fromStdString(pointer_) + QStringLiteral("/field"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(caption_);
    const auto fact = this->fact();
    const auto kind = fact ? fact->kind : StatedFact::Kind::Text;
    if (kind == StatedFact::Kind::Word) {
        box_ = new QComboBox(this);
        for (const auto& word : fact->words)
            box_->addItem(QString::fromStdString(word));
        connect(box_, &QComboBox::activated, this, [this](int index) { put(box_->itemText(index)); });
        // The arrow keys and letters choose without opening the list.
        connect(box_, &QComboBox::currentIndexChanged, this, [this](int index) {
            if (!filling_ && box_->hasFocus() && !box_->view()->isVisible())
                put(box_->itemText(index));
        });
        column->addWidget(box_);
    } else if (kind == StatedFact::Kind::Ticks) {
        ticks_ = new TickRow(this);
        connect(ticks_, &TickRow::changed, this, [this] { put(ticks_->ticked()); });
        connect(ticks_, &TickRow::done, this, &FactField::goOn);
        column->addWidget(ticks_);
    } else {
        line_ = new QLineEdit(this);
        line_->setFont(reading(13));
        connect(line_, &QLineEdit::editingFinished, this, &FactField::putLine);
        column->addWidget(line_);
    }
    editor()->setObjectName(QString::fromStdString(pointer_));
    caption_->setBuddy(editor());
    if (line_)
        document_.drafts().watch(line_, [this] { return putLine(); });
    editor()->installEventFilter(this);
    setFocusProxy(editor());
    refresh();
    if (line_ && document_.drafts().has(line_->objectName())) {
        line_->setText(document_.drafts().text(line_->objectName()));
        line_->setModified(true);
    }
}

bool FactField::putLine() { return !line_->isModified() || !document_.drafts().has(line_->objectName()) || put(line_->text().trimmed()); }

QWidget* FactField::editor() const { return line_ ? static_cast<QWidget*>(line_) : box_ ? static_cast<QWidget*>(box_) : ticks_; }

QString FactField::shown() const { return line_ ? line_->text() : box_ ? box_->currentText() : ticks_->ticked(); }

void FactField::setCaption(const QString& caption)
{
    caption_->say(caption);
    caption_->setVisible(!caption.isEmpty());
}

void FactField::refresh()
{
    const auto fact = this->fact();
    if (!fact)
        return;
    filling_ = true;
    const auto value = QString::fromStdString(fact->value);
    const bool unsaid = value.isEmpty() || value == tr("unknown");
    editor()->setAccessibleName(QString::fromStdString(fact->full()));
    if (line_ && !document_.drafts().has(line_->objectName())) {
        line_->setText(value);
        line_->setPlaceholderText(QStringLiteral("?"));
        line_->setCursorPosition(0);
        editor()->setToolTip(QString::fromStdString(fact->full()));
    } else if (box_) {
        box_->setCurrentText(value);
    } else if (ticks_) {
        ticks_->setWords(fact->words, fact->value);
    }
    QPalette look = caption_->palette();
    look.setColor(QPalette::WindowText, unsaid ? theme().unproven : theme().mute);
    caption_->setPalette(look);
    filling_ = false;
}

bool FactField::put(const QString& text)
{
    const auto fact = this->fact();
    const auto with = withPlace(document_.build());
    if (!fact || !with)
        return true;
    refusal_ = QString::fromStdString(withFact(*with, pointer_, text.toStdString()).refusal);
    if (!refusal_.isEmpty()) {
        if (isVisible())
            QToolTip::showText(editor()->mapToGlobal(QPoint(0, editor()->height())), refusal_, editor(), {}, 60000);
        return false;
    }
    if (line_) {
        line_->setModified(false);
        document_.drafts().settle(line_->objectName());
    }
    document_.edit(QString::fromStdString(fact->full()), [&](const Build& now) -> std::optional<Build> {
        const auto there = withPlace(now);
        return there ? withFact(*there, pointer_, text.toStdString()).build : std::nullopt;
    });
    return true;
}

bool FactField::eventFilter(QObject* watched, QEvent* event)
{
    if (event->type() == QEvent::KeyPress && watched == editor()) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if ((key == Qt::Key_Return || key == Qt::Key_Enter) && !ticks_) {
            if (!line_ || putLine())
                emit goOn();
            return true;
        }
        if (key == Qt::Key_Escape) {
            refusal_.clear();
            if (line_) {
                line_->setModified(false);
                document_.drafts().settle(line_->objectName());
            }
            refresh();
            return true;
        }
    }
    if (event->type() == QEvent::FocusIn && line_)
        QMetaObject::invokeMethod(line_, &QLineEdit::selectAll, Qt::QueuedConnection);
    return QWidget::eventFilter(watched, event);
}

} // namespace deepstop::app
