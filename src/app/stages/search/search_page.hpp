#pragma once
/// Search: of everything the library holds the kits that go, where the others fail, and why a certain one does not.

#include "job.hpp"
#include "search/why.hpp"
#include "stages/search/kit_table.hpp"
#include "stages/stage_page.hpp"

#include <array>
#include <mutex>

class QCheckBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;
class QTableView;
class QTableWidget;
class QTextBrowser;

namespace deepstop::app {

class FunnelView;
class LibraryStore;
class SectionView;

/// Rail: nothing is judged here, so nothing is bad.
[[nodiscard]] std::pair<Level, std::string> stateOfSearch(const Study& study);

class SearchPage : public StagePage {
    Q_OBJECT
public:
    static constexpr StageId id = "search";
    enum Place { Kits, Lost, WhyNot };
    SearchPage(Document& document, LibraryStore& library, QWidget* parent);

    [[nodiscard]] QPushButton* searchButton() const { return search_; }
    [[nodiscard]] QPushButton* cancelButton() const { return cancel_; }
    [[nodiscard]] bool isSearching() const { return job_.isRunning(); }
    [[nodiscard]] QPushButton* putInButton() const { return putIn_; }
    [[nodiscard]] QLabel* summary() const { return summary_; }
    [[nodiscard]] QTableView* table() const { return table_; }
    [[nodiscard]] KitPlot* plot() const { return plot_; }
    [[nodiscard]] FunnelView* funnel() const { return funnel_; }
    [[nodiscard]] QTableWidget* losers() const { return losers_; }
    [[nodiscard]] QComboBox* scope() const { return scope_; }
    [[nodiscard]] QComboBox* whyRear(search::Kind kind) const { return whyRear_[static_cast<std::size_t>(kind)]; }
    [[nodiscard]] QComboBox* whyChoice(search::Kind kind) const { return why_[static_cast<std::size_t>(kind)]; }
    [[nodiscard]] QTextBrowser* whyText() const { return whyText_; }
    [[nodiscard]] QLineEdit* limit(search::Gain gain) const { return limits_[static_cast<std::size_t>(gain)]; }
    [[nodiscard]] std::shared_ptr<const search::Result> result() const { return result_; }
    [[nodiscard]] bool hasHeightForWidth() const override { return false; }
    /// Waits for what is being worked out.
    void finish()
    {
        job_.finish();
        asking_.finish();
    }

protected:
    [[nodiscard]] QStringList placeNames() const override;
    [[nodiscard]] Sheet sheet(int) const override { return {}; }
    [[nodiscard]] bool isDrawn(int) const override { return false; }
    void refreshRest() override;

private:
    /// What the searching thread has found so far.
    struct Found {
        std::mutex mutex;
        std::shared_ptr<const search::Query> query; ///< null until its parts are there
        std::vector<search::Kit> kits;
        std::vector<search::Kit> front; ///< of these
    };
    /// What is asked, as the page has it.
    struct Asked {
        search::Query query; ///< without parts
        std::vector<std::string> wheels;
        bool keepMaster = false;
        [[nodiscard]] std::shared_ptr<const search::Query> with(const library::Library& library) const;
    };
    QWidget* makeWishes();
    QWidget* makeKits();
    QWidget* makeLost();
    QWidget* makeWhy();
    /// Nothing, with `refused`, where a limit is no figure or no wheel is ticked.
    [[nodiscard]] std::optional<Asked> asked();
    void start();
    void arrived(std::shared_ptr<const search::Result> result);
    /// All kits that go, and those of them that none beats; one or the other is shown.
    void show(const std::vector<search::Kit>& kits, const std::vector<search::Kit>& front);
    void showResult();
    void showCompared();
    void showSection(int kit);
    void showLosers(int check);
    void showWhy();
    void offerWhy(const search::Choice& choice, const std::optional<search::Choice>& rear);
    /// The parts chosen to be asked about; nothing, with words in its place, where there is none of a kind.
    [[nodiscard]] std::optional<search::Choice> chosenWhy();
    [[nodiscard]] QString saidOfWholeCars() const;
    void listWheels();
    void putIn();
    /// What was found is of another build, or other parts.
    void forget();
    [[nodiscard]] std::vector<int> chosenRows() const;

    LibraryStore& library_;
    QWidget* wishes_ = nullptr;
    QWidget* kitsBoard_ = nullptr;
    QWidget* lostBoard_ = nullptr;
    QWidget* whyBoard_ = nullptr;
    QListWidget* wheels_;
    QCheckBox* allClear_;
    QCheckBox* keepMaster_;
    QComboBox* mount_;
    QComboBox* scope_; ///< one axle, or whole cars ranked by one figure or another
    std::array<QLineEdit*, search::allGains.size()> limits_ {};
    QPushButton* search_;
    QPushButton* cancel_;
    QLabel* summary_;
    KitPlot* plot_;
    std::array<QComboBox*, 2> axes_ {};
    QCheckBox* beatenToo_;
    QTableView* table_;
    KitTable* model_;
    SectionView* section_;
    QLabel* compared_;
    QPushButton* putIn_;
    FunnelView* funnel_;
    QTableWidget* losers_;
    std::array<QComboBox*, search::kinds.size()> why_ {};
    std::array<QComboBox*, 3> whyRear_ {}; ///< rotor, caliper and pad of a whole car's rear
    QWidget* rearRow_ = nullptr;
    QTextBrowser* whyText_;
    Job<std::shared_ptr<const search::Result>> job_;
    Job<search::Why> asking_;
    std::shared_ptr<const search::Query> query_; ///< of what is shown
    std::shared_ptr<const search::Result> result_;
    std::shared_ptr<const FoundKits> shown_;
    /// What a search is of: it is forgotten with any of them.
    struct Of {
        std::shared_ptr<const Build> build;
        std::string setup; ///< that the kit replaces
        std::optional<Axle> axle; ///< nothing: both
        bool operator==(const Of&) const = default;
    };
    [[nodiscard]] Of now(bool wholeCar) const;
    std::optional<Of> of_;
};

} // namespace deepstop::app
