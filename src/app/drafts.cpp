#include "drafts.hpp"

#include <QApplication>
#include <QComboBox>
#include <QKeyEvent>
#include <QMenu>

#include <utility>

namespace deepstop::app {

namespace {

/// The line that takes the keys of a widget; null where there is none.
QLineEdit* lineOf(QObject* widget)
{
    if (auto* box = qobject_cast<QComboBox*>(widget))
        return box->lineEdit();
    return qobject_cast<QLineEdit*>(widget);
}

} // namespace

Drafts::Drafts(QObject* parent) : QObject(parent) { }

void Drafts::watch(QLineEdit* line, std::function<bool()> put)
{
    put_[line] = std::move(put);
    connect(line, &QObject::destroyed, this, [this, line] { put_.erase(line); });
    connect(line, &QLineEdit::textEdited, this, [this, line](const QString& text) {
        all_[line->objectName()] = text;
        typing_ = line;
        emit changed();
    });
}

bool Drafts::finish()
{
    const QPointer<QLineEdit> line = typing_;
    if (!line || finishing_ || !has(line->objectName()))
        return true;
    const auto put = put_.find(line);
    if (put == put_.end())
        return true;
    finishing_ = true;
    const bool done = put->second();
    finishing_ = false;
    return done;
}

void Drafts::settle(const QString& field)
{
    if (typing_ && typing_->objectName() == field)
        typing_ = nullptr;
    if (all_.erase(field) > 0)
        emit changed();
}

void Drafts::clear()
{
    typing_ = nullptr;
    if (!std::exchange(all_, {}).empty())
        emit changed();
}

QString Drafts::text(const QString& field) const
{
    const auto found = all_.find(field);
    return found == all_.end() ? QString() : found->second;
}

std::vector<Typing> Drafts::all() const
{
    std::vector<Typing> drafts;
    for (const auto& [field, text] : all_)
        drafts.push_back({ field, text });
    return drafts;
}

void Drafts::set(const std::vector<Typing>& drafts)
{
    all_.clear();
    typing_ = nullptr;
    for (const Typing& each : drafts)
        all_[each.field] = each.text;
    emit changed();
}

void Drafts::watchApplication()
{
    qApp->installEventFilter(this);
    connect(qApp, &QApplication::focusChanged, this, [this](QWidget*, QWidget* now) {
        // To another program: it stays being typed.
        if (now && now != typing_ && !qobject_cast<QMenu*>(now))
            finish();
    });
}

bool Drafts::eventFilter(QObject* watched, QEvent* event)
{
    switch (event->type()) {
    case QEvent::MouseButtonPress:
    case QEvent::MouseButtonDblClick:
        if (watched->isWidgetType() && watched != typing_) {
            pressedOn_ = watched;
            // The context menu and the list of a line's own are part of typing.
            if (!qobject_cast<QMenu*>(watched) || qobject_cast<QWidget*>(watched)->parent() != typing_)
                finish();
        }
        break;
    case QEvent::MouseButtonRelease:
        if (watched->isWidgetType() && pressedOn_) {
            pressedOn_ = nullptr;
            QMetaObject::invokeMethod(this, &Drafts::released, Qt::QueuedConnection);
        }
        break;
    case QEvent::Shortcut:
        finish();
        break;
    case QEvent::ShortcutOverride:
        // With nothing typed in it, undo is the document's, not the line's.
        if (auto* line = lineOf(watched)) {
            auto* key = static_cast<QKeyEvent*>(event);
            const bool nothing = put_.contains(line) && !has(line->objectName());
            if ((key->matches(QKeySequence::Undo) && (nothing || !line->isUndoAvailable()))
                || (key->matches(QKeySequence::Redo) && (nothing || !line->isRedoAvailable()))) {
                event->ignore();
                return true;
            }
        }
        break;
    default:
        break;
    }
    return QObject::eventFilter(watched, event);
}

} // namespace deepstop::app
