#pragma once
/// The job card: all steps as a list, one step at a time for the car, the procedures chosen, and the car on the lift.

#include "jobcard/jobcard.hpp"
#include "stages/stage_page.hpp"

class QLineEdit;
class QPushButton;

namespace deepstop::app {

class BeddingView;
class StepList;

/// Rail: how far the card has come.
[[nodiscard]] std::pair<Level, std::string> stateOfCard(const Study& study);

class CardPage : public StagePage {
    Q_OBJECT
public:
    static constexpr StageId id = "job-card";
    enum Place { Steps, AtCar, Choices, Bedding, Lift };
    CardPage(Document& document, QWidget* parent);
    [[nodiscard]] StepList* list() const { return list_; }
    [[nodiscard]] BeddingView* bedding() const { return bedding_; }
    [[nodiscard]] QLineEdit* who() const { return who_; }
    [[nodiscard]] QLineEdit* reason() const { return reason_; }
    [[nodiscard]] QPushButton* openIt() const { return open_; }
    [[nodiscard]] QPushButton* done() const { return done_; }
    [[nodiscard]] QPushButton* inspection() const { return inspection_; }
    [[nodiscard]] QLineEdit* ownStep() const { return own_; }
    [[nodiscard]] QPushButton* cardOnPaper() const { return paper_; }
    [[nodiscard]] QPushButton* buildSheet() const { return build_; }
    /// The step in hand.
    [[nodiscard]] const std::string& step() const { return step_; }

protected:
    [[nodiscard]] QStringList placeNames() const override;
    [[nodiscard]] Sheet sheet(int place) const override;
    [[nodiscard]] bool isDrawn(int place) const override { return place != Bedding; }
    void refreshRest() override;

private:
    [[nodiscard]] jobcard::Author hand() const;
    [[nodiscard]] const jobcard::Step* current() const;
    void tick(const std::string& step, Checked state);
    void askReason(const std::string& step);
    void openStep();
    void goOn(int by);
    void bedded(int stoodHot);
    bool writeOwnStep();

    StepList* list_;
    BeddingView* bedding_;
    QWidget* foot_;
    QLineEdit* who_;
    QLineEdit* reason_;
    QPushButton* open_;
    QPushButton* done_;
    QPushButton* fault_;
    QPushButton* back_;
    QPushButton* paper_;
    QPushButton* build_;
    QLineEdit* own_;
    QPushButton* inspection_;
    int folded_ = 0; ///< steps that this job does not need
    int drawn_ = 0; ///< least height of a drawing, in pixels
    jobcard::Card card_;
    std::string step_;
    std::string shut_; ///< the step whose reason is asked
};

} // namespace deepstop::app
