#include "drawing/dimension_field.hpp"

#include "document.hpp"
#include "drawing/layers.hpp"
#include "quantity/entry.hpp"
#include "theme.hpp"

#include <QDate>
#include <QKeyEvent>
#include <QPainter>
#include <QToolTip>

#include <utility>

namespace deepstop::app {

DimensionField::DimensionField(Document& document, std::string pointer, QWidget* parent)
    : QLineEdit(parent), document_(document), pointer_(std::move(pointer))
{
    setObjectName(QString::fromStdString(pointer_));
    setFrame(false);
    setAlignment(Qt::AlignCenter);
    setFont(figures(13.5));
    setAttribute(Qt::WA_MacShowFocusRect, false);
    setContextMenuPolicy(Qt::DefaultContextMenu);
    document_.drafts().watch(this, [this] { return commit(); });
    connect(this, &QLineEdit::textEdited, this, &DimensionField::tryText);
    refresh();
}

void DimensionField::refresh()
{
    const auto* entry = document_.study().directory->at(pointer_);
    if (!entry)
        return;
    // Put in or given up in another field of the same reading.
    if (editing_ && !document_.drafts().has(objectName())) {
        editing_ = false;
        refusal_.clear();
    }
    // What was typed of it and could not be put in stands here again.
    if (!editing_ && document_.drafts().has(objectName()) && !document_.drafts().isTyping(objectName())) {
        setText(document_.drafts().text(objectName()));
        setModified(true);
        typedIn_ = document_.units();
        editing_ = true;
        refusal_ = whyNot(text());
        emit grew();
    }
    const Reading& reading = *entry->reading;
    const auto looked = std::pair { missing_, estimated_ };
    missing_ = !reading.value && !mayLack_;
    estimated_ = reading.value && provesNothing(reading.known);
    if (looked != std::pair { missing_, estimated_ })
        update();
    dress();
    setAccessibleName(QString::fromStdString(entry->address.full()));
    const auto other = document_.units() == UnitSystem::Metric ? UnitSystem::Us : UnitSystem::Metric;
    auto tip = QString::fromStdString(entry->address.full());
    if (reading.value) {
        tip += QStringLiteral("\n%1 (%2)")
                   .arg(QString::fromStdString(print(*reading.value, entry->address.style, document_.units())),
                       QString::fromStdString(print(*reading.value, entry->address.style, other)));
        tip += QStringLiteral("\n") + QString::fromUtf8(deepstop::tr(nameOf(reading.known)).data());
    } else {
        tip += mayLack_ ? tr("\nnone fitted") : tr("\nnot read yet");
    }
    if (editing_ && typedIn_ != document_.units())
        tip += typedIn_ == UnitSystem::Us ? tr("\nwhat stands typed here was begun in US units")
                                          : tr("\nwhat stands typed here was begun in metric units");
    setToolTip(tip);
    if (!editing_)
        setShown();
}

void DimensionField::setShown()
{
    const auto* entry = document_.study().directory->at(pointer_);
    if (!entry)
        return;
    const Reading& reading = *entry->reading;
    QString shown;
    if (!reading.value)
        shown = !mayLack_ ? QStringLiteral("?") : blank_.isEmpty() ? tr("none") : blank_;
    else if (hasFocus())
        shown = QString::fromStdString(entryText(reading, entry->address.style, document_.units()));
    else
        shown = prefix_
            + QString::fromStdString(unit_ ? print(*reading.value, entry->address.style, document_.units())
                                           : figure(*reading.value, entry->address.style, document_.units()));
    if (!reading.value && hasFocus())
        shown.clear();
    if (shown != text()) {
        setText(shown);
        emit grew();
    }
    setModified(false);
}

QSize DimensionField::sizeHint() const
{
    const QFontMetrics metrics(font());
    const auto wide = std::max(metrics.horizontalAdvance(text()), metrics.horizontalAdvance(QStringLiteral("00")));
    return { wide + (hasFocus() ? 30 : 16), metrics.height() + 5 };
}

bool DimensionField::event(QEvent* event)
{
    if (event->type() == QEvent::KeyPress) {
        auto* key = static_cast<QKeyEvent*>(event);
        const bool tab = key->key() == Qt::Key_Tab || key->key() == Qt::Key_Backtab;
        if (tab && !commit())
            return true;
    }
    return QLineEdit::event(event);
}

void DimensionField::focusInEvent(QFocusEvent* event)
{
    QLineEdit::focusInEvent(event);
    if (!editing_)
        setShown();
    emit grew();
    raise();
    if (event->reason() != Qt::PopupFocusReason && event->reason() != Qt::ActiveWindowFocusReason)
        QMetaObject::invokeMethod(this, &QLineEdit::selectAll, Qt::QueuedConnection);
    emit entered(pointer_);
}

void DimensionField::focusOutEvent(QFocusEvent* event)
{
    QLineEdit::focusOutEvent(event);
    if (event->reason() == Qt::PopupFocusReason || event->reason() == Qt::ActiveWindowFocusReason)
        return;
    // What was understood goes in; what was not stays in the field until it is mended or given up with Escape.
    if (editing_ && refusal_.isEmpty())
        commit();
    if (!editing_)
        setShown();
    emit grew();
}

void DimensionField::keyPressEvent(QKeyEvent* event)
{
    switch (event->key()) {
    case Qt::Key_Escape:
        giveUp();
        setShown();
        emit leftToSheet();
        return;
    case Qt::Key_Return:
    case Qt::Key_Enter:
        if (const bool typed = editing_ && !text().trimmed().isEmpty(); commit()) {
            // In the free place of a list the next reading may follow at once; what it made may ask for more first.
            const auto free = pointer_.find("/-");
            const bool appended = typed && free != std::string::npos;
            if (appended && free + 2 == pointer_.size())
                QMetaObject::invokeMethod(this, &QLineEdit::selectAll, Qt::QueuedConnection);
            else
                emit goOn(appended ? document_.lastOfList(pointer_) : pointer_);
        }
        return;
    default:
        beginsAnew_ = beginsAnew_ || text().isEmpty() || (hasSelectedText() && selectedText() == text());
        QLineEdit::keyPressEvent(event);
        beginsAnew_ = text().isEmpty();
    }
}

void DimensionField::take(const Reading& reading, bool again)
{
    giveUp();
    const auto free = pointer_.find("/-");
    document_.takeReading(pointer_, reading, again);
    setShown();
    // Read once more, the same dimension waits for the next reading of it.
    if (again || (free != std::string::npos && free + 2 == pointer_.size()))
        return;
    emit goOn(free != std::string::npos ? document_.lastOfList(pointer_) : pointer_);
}

void DimensionField::giveUp()
{
    editing_ = false;
    say({});
    document_.drafts().settle(objectName());
    document_.endPreview();
}

/// What the text says, beginning with the reading that is there; nothing where it cannot be put in, and why.
std::pair<std::optional<Reading>, QString> DimensionField::understood(const QString& text) const
{
    const auto* entry = document_.entry(pointer_);
    if (!entry)
        return { {}, tr("This reading is gone: the part it was of is no longer in the build.") };
    const auto today = QDate::currentDate().toString(Qt::ISODate).toStdString();
    const auto read = readEntry(text.toStdString(), entry->address.style, typedIn_, *entry->reading, today);
    auto why = read.refusal;
    if (read.reading && read.reading->value && why.empty())
        why = deepstop::refusal(entry->address, *read.reading, typedIn_);
    return { why.empty() ? read.reading : std::nullopt, QString::fromStdString(why) };
}

QString DimensionField::whyNot(const QString& text) const { return understood(text).second; }

void DimensionField::tryText(const QString& text)
{
    // What is typed is in the units it was begun in, whatever is switched before it is put in. Typed anew over all that stood there, it
    // begins again.
    if (!std::exchange(editing_, true) || std::exchange(beginsAnew_, false))
        typedIn_ = document_.units();
    beginsAnew_ = text.isEmpty();
    const auto [reading, why] = understood(text);
    say(why);
    if (reading)
        document_.preview(pointer_, *reading);
    else
        document_.endPreview();
    emit grew();
}

bool DimensionField::commit()
{
    if (!editing_)
        return true;
    auto [put, why] = understood(text());
    say(why);
    if (!put) {
        document_.endPreview();
        return false;
    }
    editing_ = false;
    document_.drafts().settle(objectName());
    const auto* entry = document_.entry(pointer_);
    if (*put != *entry->reading && !text().contains(QLatin1Char('?')))
        document_.takenInHand(*put, entry->address.style);
    document_.setReading(pointer_, *put);
    setShown();
    return true;
}

void DimensionField::say(const QString& refusal)
{
    refusal_ = refusal;
    if (!refusal.isEmpty() && isVisible())
        QToolTip::showText(mapToGlobal(QPoint(0, height())), refusal, this, {}, 60000);
    else
        QToolTip::hideText();
    update();
}

void DimensionField::dress()
{
    const Theme& t = theme();
    const QColor text = !refusal_.isEmpty() ? t.bad : missing_ || estimated_ ? t.unproven : t.ink;
    if (text == dressedIn_)
        return;
    dressedIn_ = text;
    QPalette look = palette();
    look.setColor(QPalette::Base, Qt::transparent);
    look.setColor(QPalette::Text, text);
    setPalette(look);
}

void DimensionField::paintEvent(QPaintEvent* event)
{
    const Theme& t = theme();
    QPainter p(this);
    const bool wrong = !refusal_.isEmpty();
    const bool active = hasFocus();
    QPen pen(wrong ? t.bad : active ? t.focus : missing_ || estimated_ ? t.unproven : t.rule, active || wrong ? 2 : 1);
    if (!active && (missing_ || estimated_))
        pen.setStyle(Qt::DashLine);
    const auto frame = [&](QPainter& onto) {
        onto.setRenderHint(QPainter::Antialiasing);
        onto.setPen(pen);
        onto.setBrush(active ? t.raised : t.paper);
        onto.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 2, 2);
    };
    dress();
    if (active) {
        frame(p);
        p.end();
        QLineEdit::paintEvent(event);
        return;
    }
    // Most of them stand still while one is typed or dragged, so each keeps its picture.
    const qreal ratio = devicePixelRatioF();
    const auto likeness =
        (Likeness() << text() << rect() << pen.color() << static_cast<int>(pen.style()) << pen.widthF() << t.paper << dressedIn_ << ratio)
            .number();
    if (likeness != pictured_) {
        pictured_ = likeness;
        picture_ = QPixmap(size() * ratio);
        picture_.setDevicePixelRatio(ratio);
        picture_.fill(Qt::transparent);
        QPainter onto(&picture_);
        frame(onto);
        onto.setFont(font());
        onto.setPen(dressedIn_);
        onto.drawText(rect(), Qt::AlignCenter, text());
    }
    p.drawPixmap(0, 0, picture_);
}

} // namespace deepstop::app
