#pragma once
/// What would give the caliper room, side by side with all that it costs; the wheels there are; and how far one could go.

#include "chapters/clearance/cures.hpp"
#include "document.hpp"
#include "job.hpp"

#include <QAbstractButton>
#include <QScrollArea>

class QLabel;
class QPushButton;

namespace deepstop::app {

class LibraryStore;

/// One line of the board: a change, the gaps it leaves against those there are, and its price in figures under common headings.
class CureLine : public QWidget {
    Q_OBJECT
public:
    struct Content {
        Level level = Level::Unproven;
        QString title;
        QString note;
        std::array<Figure, wheelGaps.size()> gaps;
        std::array<std::optional<double>, wheelGaps.size()> before;
        std::array<double, wheelGaps.size()> wanted {};
        QStringList figures; ///< under the headings, in their order
        QString action; ///< on the button; empty: none
        std::shared_ptr<const Build> applied;

        /// As the verdict of such a gap says it.
        [[nodiscard]] Level gapLevel(std::size_t which) const { return deepstop::gapLevel(gaps[which], wanted[which]); }
    };
    /// A line of headings where `content` is nothing.
    CureLine(std::optional<Content> content, UnitSystem system, QWidget* parent);
    [[nodiscard]] QPushButton* button() const { return button_; }
    [[nodiscard]] const std::optional<Content>& content() const { return content_; }
    [[nodiscard]] QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    void paintGap(QPainter& p, const QRectF& box, std::size_t which) const;

    std::optional<Content> content_;
    UnitSystem system_;
    QPushButton* button_ = nullptr;
};

class CureBoard : public QScrollArea {
    Q_OBJECT
public:
    CureBoard(Document& document, LibraryStore& library, QWidget* parent);
    void refresh(Axle axle);
    /// The lines there are so far; more come when the search ends.
    [[nodiscard]] const std::vector<CureLine*>& lines() const { return lines_; }
    /// The sentences under the lines.
    [[nodiscard]] const QStringList& answers() const { return answers_; }
    [[nodiscard]] bool isSearching() const { return search_.isRunning() || postponed_; }

private:
    /// What was searched for, with what it points into.
    struct Found {
        std::shared_ptr<const Study> study;
        std::shared_ptr<const library::Library> shelf;
        std::vector<Cure> cures;
        std::vector<Candidate> wheels;
        LargestRotor largest;
        OffsetRange offsets;
        SmallestWheel smallest;
    };
    void show(const Found& found);
    [[nodiscard]] CureLine::Content contentOf(
        const CornerClearance& now, const std::array<Figure, wheelGaps.size()>& gaps, Level level) const;

    CureLine* add(std::optional<CureLine::Content> content);
    void append(QWidget* line);
    void heading(const QString& text);
    void say(const QString& text);

    Document& document_;
    LibraryStore& library_;
    Axle axle_ = Axle::Front;
    Level standing_ = Level::Clear; ///< of the gaps as they are
    Job<std::shared_ptr<const Found>> search_;
    Stamp of_; ///< what is shown or searched is of it
    std::shared_ptr<const Build> base_;
    bool postponed_ = false; ///< until the mouse button is up
    QLabel* waiting_ = nullptr;
    std::vector<CureLine*> lines_;
    QStringList answers_;
};

} // namespace deepstop::app
