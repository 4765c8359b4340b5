#pragma once
/// The stop: drawn along the road, predicted cold and hot, planned, measured, until it fades, and live from a receiver.

#include "document.hpp"
#include "job.hpp"
#include "proving/stops.hpp"
#include "report/log_session.hpp"
#include "stages/stage_page.hpp"
#include "widgets/log_columns_window.hpp"

class QLineEdit;
class QProgressBar;
class QPushButton;
class QTextBrowser;

namespace deepstop::app {

class CourseChart;
class LiveView;
class StepList;

class StopPage : public StagePage {
    Q_OBJECT
public:
    static constexpr StageId id = "stop";
    enum Place { Road, Prediction, Plan, Runs, Traces, Fade, Observed, Live };
    StopPage(Document& document, QWidget* parent);
    [[nodiscard]] CourseChart* chart() const { return chart_; }
    [[nodiscard]] StepList* inspection() const { return inspection_; }
    [[nodiscard]] LiveView* live() const { return live_; }
    /// Begins a session with the setup judged, of the kind that is shown.
    [[nodiscard]] QPushButton* begin() const { return begin_; }
    /// Takes the stops out of a logger's file.
    [[nodiscard]] QPushButton* log() const { return log_; }
    [[nodiscard]] QProgressBar* progress() const { return progress_; }
    /// The same with the file named; read beside the window's work.
    void takeLog(const QString& path);
    /// The plan as it would be printed.
    [[nodiscard]] QString planText() const;

protected:
    [[nodiscard]] QStringList placeNames() const override;
    [[nodiscard]] Sheet sheet(int place) const override;
    [[nodiscard]] bool isDrawn(int place) const override { return place != Plan && place != Live; }
    [[nodiscard]] int placeFor(const Verdict& verdict) const override;
    void refreshRest() override;

private:
    [[nodiscard]] Series series() const { return place() == Fade ? Series::Fade : Series::Compare; }
    /// The session whose observations are shown.
    [[nodiscard]] static std::optional<std::size_t> observedSession(const Study& study);
    void beginSession();
    bool takePasted();
    void readLog(const QString& path, const AskedColumns& asked, const Stamp& of, const std::string& setup, Series series);
    void logRead(const QString& path, const report::LoggedStops& log, const Stamp& of, const std::string& setup, Series series);
    [[nodiscard]] static Edit withSession(TestSession session);
    void tick(const std::string& step, Checked state);
    void stopFound(const proving::FoundStop& stop);
    void printPlan();
    [[nodiscard]] TestSession newSession() const;

    CourseChart* chart_;
    QWidget* plan_;
    StepList* inspection_;
    QTextBrowser* planned_;
    QPushButton* print_;
    LiveView* live_;
    QWidget* foot_; ///< under the sheet of runs
    QPushButton* begin_;
    QPushButton* log_;
    QProgressBar* progress_;
    QLineEdit* pasted_;
    Job<report::LoggedStops> reading_;
};

} // namespace deepstop::app
