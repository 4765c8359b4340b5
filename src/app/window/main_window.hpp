#pragma once

#include "document.hpp"
#include "report/leaf.hpp"
#include "instruments/instrument.hpp"
#include "library_store.hpp"
#include "stages/stage_page.hpp"
#include "window/stages.hpp"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QMainWindow>

#include <functional>
#include <QStackedWidget>

namespace deepstop::app {

class FittingLabel;
class InstrumentBar;
class Ledger;
class LibraryWindow;
class NoticeBar;
class QuickSums;
class SymptomWindow;
class RunoutWindow;
class Slip;
class GuideBar;
class StartPage;
enum class GuidedQuestion;
class TemplateWindow;
class WidenWindow;
class WorkRail;

inline constexpr auto fileFilter = "Deep Stop builds (*.deepstop)";

class MainWindow : public QMainWindow {
    Q_OBJECT
public:
    explicit MainWindow(QWidget* parent = nullptr);
    ~MainWindow() override;

    [[nodiscard]] Document& document() { return document_; }
    [[nodiscard]] StagePage* page(StageId stage) const;
    /// The page shown.
    [[nodiscard]] StagePage* page() const { return page(stage_->id); }
    /// The page of that kind: `page<BenchPage>()`.
    template <class Page>
    [[nodiscard]] Page* page() const
    {
        for (int i = 0; i < pages_->count(); ++i)
            if (auto* page = qobject_cast<Page*>(pages_->widget(i)))
                return page;
        return nullptr;
    }
    [[nodiscard]] StageId stage() const { return stage_->id; }
    [[nodiscard]] Ledger* ledger() const { return ledger_; }
    [[nodiscard]] Slip* slip() const { return slip_; }
    [[nodiscard]] WorkRail* rail() const { return rail_; }
    [[nodiscard]] NoticeBar* notice() const { return notice_; }
    [[nodiscard]] QuickSums* quickSums() const { return sums_; }
    [[nodiscard]] SymptomWindow* symptomWindow() const { return symptoms_; }
    [[nodiscard]] Instrument& instrument() { return instrument_; }
    [[nodiscard]] InstrumentBar* instrumentBar() const { return instrumentBar_; }
    [[nodiscard]] LibraryStore& library() { return library_; }
    /// The library, open on the kind of part that lies on the bench.
    LibraryWindow* showLibrary();
    RunoutWindow* showRunout();
    TemplateWindow* showTemplate();
    WidenWindow* showWidening();
    /// Writes the adapter bracket, or the hub-face ring, by the path's ending; a refusal is said in the notice bar.
    bool savePlate(const QString& path, bool ring);
    /// Writes the kit of the setup after, or by the ending .csv the list of its parts. False, and said, where it could not.
    bool saveKit(const QString& path);
    /// Adds a kit from its file as one more setup, to be compared with the car as found. False, and said, where it could not.
    bool takeInKit(const QString& path);
    /// Takes the instrument's stable reading into the dimension that has the focus.
    void takeReading(bool again);
    /// Connects an instrument; a refusal is said in the notice bar.
    bool connectInstrument(const QString& address);
    [[nodiscard]] QComboBox* beforeBox() const { return before_; }
    [[nodiscard]] QComboBox* afterBox() const { return after_; }

    void setStage(StageId stage);
    /// Opens a file; a refusal is said in the notice bar and the open build stays.
    bool openFile(const QString& path);
    bool openDemo(const QString& name);
    /// An empty build, with the bench ready for its first reading.
    void startNew();
    /// The first page: new car, demos, recent builds, unsaved work. Whatever is opened takes its place.
    void showStart();
    [[nodiscard]] StartPage* startPage() const { return start_; }
    [[nodiscard]] GuideBar* guide() const { return guide_; }
    /// Offers what a crash left behind, one copy after the other; says so when `asked` and there is none.
    void offerRecovery(bool asked = false);
    /// Where the shipped demo builds lie.
    [[nodiscard]] static QString demoFolder();

public slots:
    bool save();
    bool saveAs();
    bool saveTo(const QString& path);
    void setNight(bool night);

protected:
    void closeEvent(QCloseEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    QWidget* makeHeader();
    void makePages();
    void layOut(QWidget* header);
    void makeStart();
    /// An empty build with a question that leads to its first answer.
    void startGuided(GuidedQuestion question);
    void connectParts();
    void makeMenus();
    void makeFileMenu();
    /// Every paper there is of the judged setup.
    void addPapers(QMenu* menu);
    void showPaper(const std::function<report::Leaf(const Study&, const std::string& today)>& make);
    void makeEditMenu();
    void makeViewMenu();
    void makeToolsMenu();
    void makeHelpMenu();
    [[nodiscard]] Axle axleInHand() const;
    void refresh();
    void refreshSetups();
    void refreshRecent();
    void refreshTitle();
    bool nameCar();
    void copySetup();
    void renameSetup();
    void goToReading(const std::string& pointer);
    /// Does `opening`; whatever goes wrong in it is said in the notice bar, and everything is as before.
    bool attempt(const std::function<void()>& opening);
    /// The file was changed by somebody else: shows what differs and lets the person choose.
    void askWhose();
    void takeUp(const QString& copy);
    [[nodiscard]] QString typedWords() const;
    /// False when the user wants to keep working on what is open.
    bool mayReplace();

    Document document_;
    Instrument instrument_;
    LibraryStore library_;
    const Stage* stage_;
    WorkRail* rail_;
    QStackedWidget* pages_;
    Slip* slip_;
    Ledger* ledger_;
    NoticeBar* notice_;
    GuideBar* guide_;
    QStackedWidget* front_ = nullptr; ///< the first page, or the work
    StartPage* start_ = nullptr;
    QLineEdit* car_;
    FittingLabel* summary_;
    QComboBox* before_;
    QComboBox* after_;
    QuickSums* sums_ = nullptr;
    SymptomWindow* symptoms_ = nullptr;
    InstrumentBar* instrumentBar_;
    LibraryWindow* libraryWindow_ = nullptr;
    RunoutWindow* runoutWindow_ = nullptr;
    TemplateWindow* templateWindow_ = nullptr;
    WidenWindow* widenWindow_ = nullptr;
    QMenu* recent_ = nullptr;
    QAction* metric_ = nullptr;
    QAction* us_ = nullptr;
    QAction* night_ = nullptr;
};

} // namespace deepstop::app
