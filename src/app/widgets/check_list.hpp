#pragma once
/// Unpacking: the check list of one axle's kit, a line for everything in the box.

#include "chapters/parts/receiving.hpp"
#include "widgets/ticked_line.hpp"

#include <QScrollArea>

#include <map>

class QLineEdit;
class QPushButton;

namespace deepstop::app {

class Document;
class Drafts;

/// One line: what to look at, its state, and a note. Keys: Space or F fine, X fault, L and R say the hand, Enter and arrows go on.
class CheckLine : public QWidget, public TickedLine {
    Q_OBJECT
public:
    CheckLine(Drafts& drafts, QWidget* parent);
    void show(const ReceivingItem& item, bool heads);
    [[nodiscard]] const ReceivingItem& item() const { return item_; }
    [[nodiscard]] QLineEdit* note() const { return note_; }
    [[nodiscard]] Checked ticked() const override { return item_.state; }
    [[nodiscard]] bool takes(Checked state) const override { return state != Checked::Fine || (!item_.asksHand && item_.verdict.empty()); }
    void tick(Checked state) override;

signals:
    void said(const QString& id, deepstop::Checked state, deepstop::WhichHand hand, const QString& note);
    /// The same of a note alone; taken at once, before anything else begins.
    void noted(const QString& id, deepstop::Checked state, deepstop::WhichHand hand, const QString& note);
    void goOn(int by);
    /// A picture of what is wrong is to be chosen.
    void photoWanted(const std::string& id);
    void verdictWanted(const std::string& id);

protected:
    void paintEvent(QPaintEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    void say(Checked state, WhichHand hand);
    bool putNote();
    [[nodiscard]] QRect button(int index) const;
    Drafts& drafts_;
    ReceivingItem item_;
    bool heads_ = false;
    QLineEdit* note_;
};

class CheckList : public QScrollArea {
    Q_OBJECT
public:
    explicit CheckList(Document& document, QWidget* parent);
    void refresh(Axle axle);
    [[nodiscard]] CheckLine* line(const std::string& id) const;
    [[nodiscard]] QPushButton* copyButton() const { return copy_; }
    /// Keeps the picture at `path` with a line, by its way from the build's folder where there is one.
    void photograph(const std::string& id, const QString& path);

signals:
    void verdictChosen(const std::string& id);

private:
    void put(const QString& id, Checked state, WhichHand hand, const QString& note);

    Document& document_;
    std::vector<CheckLine*> lines_;
    QWidget* inside_;
    QPushButton* copy_;
};

} // namespace deepstop::app
