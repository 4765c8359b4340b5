#pragma once
/// The slip beside the sheet: the reading in hand, the stage's checks, and of the chosen check its remedies, what it rests on and how
/// it is worked out.

#include "stage.hpp"
#include "study/study.hpp"

#include <QTextBrowser>
#include <QTimer>
#include <QWidget>

namespace deepstop::app {

class Document;
class ReadingCard;

class Slip : public QWidget {
    Q_OBJECT
public:
    explicit Slip(Document& document, QWidget* parent = nullptr);

    void setStage(const Stage& stage);
    /// Opens the check `id`; its stage must be the current one.
    void choose(const std::string& id);
    /// Shows the reading in hand; empty: none.
    void setReading(const std::string& pointer);
    void refresh();
    /// Refreshes when nothing else is to be drawn, once however often it is asked.
    void refreshSoon();
    /// Puts the chosen check's first remedy that can be put in into the build. False where it has none.
    bool tryFirstRemedy();
    [[nodiscard]] QString plainText() { return browser()->toPlainText(); }
    [[nodiscard]] ReadingCard* card() const { return card_; }
    /// With what is true now.
    [[nodiscard]] QTextBrowser* browser();
    [[nodiscard]] const std::string& chosen() const { return chosen_; }

public slots:
    /// What a link in the text does: "check:…", "remedy:…", "reading:…", "method:…".
    void follow(const QUrl& link);

signals:
    void readingWanted(const std::string& pointer); ///< go to that dimension
    void chosenChanged();
    void refused(const QString& why);

protected:
    void changeEvent(QEvent* event) override;

private:
    void drawMarks();
    void tryRemedy(const std::string& verdict, const std::string& title);
    [[nodiscard]] QString html() const;
    [[nodiscard]] QString details(const Verdict& v) const;
    [[nodiscard]] QString restsOn(const Figure& figure, const Style& style) const;
    /// What was chosen, counted or named that its sum looked at.
    [[nodiscard]] QString whatWasSaid(const Figure& figure) const;

    Document& document_;
    ReadingCard* card_;
    QTextBrowser* text_;
    const Stage* stage_ = nullptr;
    QTimer soon_;
    QString shown_; ///< what the text was made from
    std::string chosen_;
    bool pickAgain_ = false; ///< opened while nothing was judged yet: the worst check is opened when it is known
    bool method_ = false;
    bool postponed_ = false; ///< until the mouse button is up
    bool unfolded_ = false; ///< checks that are fine are listed one by one
    std::optional<bool> marksDark_; ///< the theme the level marks were drawn for
};

} // namespace deepstop::app
