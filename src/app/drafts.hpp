#pragma once
/// What stands typed in fields and is not put in yet.

#include <QLineEdit>
#include <QObject>
#include <QPointer>

#include <functional>
#include <map>

namespace deepstop::app {

/// What stood in a field that was being typed into.
struct Typing {
    QString field; ///< its object name: a reading's pointer
    QString text;
    bool operator==(const Typing&) const = default;
};

/// Knows of every line of every window that something of the build is typed into. What is typed is a draft until its field has put it in
/// or gave it up: so long it is in the recovery copy, and closing asks for it. What cannot be understood stays a draft when the focus
/// goes, and stands in its field again wherever that is drawn.
///
/// Before anything else begins - a button, a menu, a link, another window, a shortcut - the field being typed in puts its text in:
/// `watchApplication` sees to that for the whole program.
class Drafts : public QObject {
    Q_OBJECT
public:
    explicit Drafts(QObject* parent = nullptr);

    /// `line` is a field of the build, known by its object name. `put` puts in what stands in it and says whether it could: it calls
    /// `settle` then.
    void watch(QLineEdit* line, std::function<bool()> put);
    /// Puts in what is being typed, wherever. False where it cannot be understood: it stays.
    bool finish();
    /// What is typed in the field of that name is put in, or given up.
    void settle(const QString& field);
    /// Nothing is typed: another build is in hand.
    void clear();
    [[nodiscard]] bool has(const QString& field) const { return all_.contains(field); }
    [[nodiscard]] QString text(const QString& field) const;
    /// It is being typed now: the line it is typed in shows it.
    [[nodiscard]] bool isTyping(const QString& field) const { return typing_ && typing_->objectName() == field; }
    [[nodiscard]] std::vector<Typing> all() const;
    void set(const std::vector<Typing>& drafts);
    /// The widget on which a mouse button is held down; null where none is. What it shows stays until it is let go.
    [[nodiscard]] QObject* pressedOn() const { return pressedOn_; }

    /// Begins to end what is being typed before anything else in the program begins.
    void watchApplication();

signals:
    void changed();
    void released(); ///< the mouse button is up again

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    std::map<QString, QString> all_;
    QPointer<QLineEdit> typing_; ///< in which it was typed last
    std::map<QLineEdit*, std::function<bool()>> put_;
    QPointer<QObject> pressedOn_;
    bool finishing_ = false;
};

} // namespace deepstop::app
