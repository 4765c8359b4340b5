#pragma once
/// The car's log: its life as a line to look along and click, how linings and rotors wear, what is due.

#include "stages/stage_page.hpp"

#include <optional>

class QPushButton;

namespace deepstop::app {

/// Rail: what is due.
[[nodiscard]] std::pair<Level, std::string> stateOfLog(const Study& study);

class LogbookPage : public StagePage {
    Q_OBJECT
public:
    static constexpr StageId id = "logbook";
    enum Place { Life, Wear, Buying };
    LogbookPage(Document& document, QWidget* parent);
    [[nodiscard]] QPushButton* add() const { return add_; }
    [[nodiscard]] QPushButton* readWear() const { return wear_; }
    [[nodiscard]] QPushButton* calendar() const { return calendar_; }
    /// The entry in hand, a place in the build's log.
    [[nodiscard]] std::optional<std::size_t> entry() const { return entry_; }
    /// Writes what is due as iCalendar. Why it could not; empty: it could.
    QString saveCalendar(const QString& path) const;

protected:
    [[nodiscard]] QStringList placeNames() const override;
    [[nodiscard]] Sheet sheet(int place) const override;
    void refreshRest() override;
    void chosenInView(const std::string& id) override;

private:
    void addEntry(bool withWear);

    QPushButton* add_;
    QPushButton* wear_;
    QPushButton* calendar_;
    QWidget* foot_;
    std::optional<std::size_t> entry_;
};

} // namespace deepstop::app
