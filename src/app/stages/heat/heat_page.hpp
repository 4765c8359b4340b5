#pragma once
/// Heat: the rings in one stop, a duty with a moment of it in hand, all setups on it, and what a thermometer said.

#include "chapters/heat/duty_heat.hpp"
#include "document.hpp"
#include "heat/calibration.hpp"
#include "job.hpp"
#include "files/log_columns.hpp"
#include "stages/stage_page.hpp"

class QProgressBar;
class QPushButton;
class QSlider;
class QTimer;

namespace deepstop::app {

class CourseChart;

/// One ring a place; then the duty the brakes are judged by, with a moment of it in hand, and all setups on it.
class HeatPage : public StagePage {
    Q_OBJECT
public:
    static constexpr StageId id = "heat";
    HeatPage(Document& document, QWidget* parent);
    [[nodiscard]] CourseChart* chart() const { return chart_; }
    [[nodiscard]] Axle axle() const override;
    /// Which duty of the build the brakes are judged by.
    [[nodiscard]] QComboBox* duty() const { return duty_; }
    /// The moment in hand, in thousandths of the duty.
    [[nodiscard]] QSlider* moment() const { return moment_; }
    /// Lets the duty run: its time passes by itself, four times as fast.
    [[nodiscard]] QPushButton* play() const { return play_; }
    [[nodiscard]] int dutyPlace() const;
    /// Draws many times how the duty may turn out otherwise; a second press gives it up.
    [[nodiscard]] QPushButton* sure() const { return sure_; }
    [[nodiscard]] QProgressBar* progress() const { return progress_; }
    /// Sets the cooling from the thermometer's readings, or begins a session to put them in.
    [[nodiscard]] QPushButton* fit() const { return fit_; }
    /// Asks for a logger's file of a drive and makes a duty of it.
    [[nodiscard]] QPushButton* log() const { return log_; }
    /// The same with the file named: read beside the window's work, then one step that can be undone; what cannot be read is refused.
    void takeLog(const QString& path);

protected:
    [[nodiscard]] QStringList placeNames() const override;
    [[nodiscard]] Sheet sheet(int place) const override;
    [[nodiscard]] int placeFor(const Verdict& verdict) const override;
    void refreshRest() override;

private:
    [[nodiscard]] Axle axleAt(int place) const;
    [[nodiscard]] int rings() const;
    void choose(int index);
    void go(bool on);
    void tick();
    void drawMany();
    void setCooling();
    void coolingFound(const std::shared_ptr<const Build>& build, const std::string& setup, const std::optional<heat::Calibration>& found);
    void runSetups();
    void readLog(const QString& path, const std::optional<files::LogColumns>& columns, const Stamp& of);
    void drawsEnded();

    CourseChart* chart_;
    QWidget* hand_; ///< under the sheet: duty, axle, moment
    QComboBox* duty_;
    QComboBox* which_;
    QPushButton* play_;
    QSlider* moment_;
    QTimer* clock_;
    QPushButton* sure_;
    QPushButton* fit_;
    QPushButton* log_;
    QProgressBar* progress_;
    /// What the last draws were of, and what they made.
    struct Draws {
        std::vector<figures::ThermalCar> cars;
        std::string duty;
        std::vector<std::vector<heat::Drawn>> of;
    };
    Draws draws_;
    Job<Draws> drawing_;
    /// The duty with every setup of a build.
    struct Compared {
        std::shared_ptr<const Build> build;
        std::vector<DutyHeat> heats;
    };
    Compared compared_;
    std::shared_ptr<const Build> comparedNext_; ///< that is being run
    Job<Compared> comparing_;
    Job<std::optional<heat::Calibration>> fitting_;
    Job<DutyPlan> reading_;
};

} // namespace deepstop::app
