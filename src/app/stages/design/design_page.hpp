#pragma once
/// Design: which rotor, hat and bracket go with this hub, this caliper and these wheels; the map of what goes, the parts to make, the
/// order.

#include "design/order.hpp"
#include "job.hpp"
#include "stages/stage_page.hpp"

#include <QWidget>

class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;
class QTextBrowser;

namespace deepstop::app {

class DesignMapView;
class LibraryStore;
class SectionView;

/// What is worked out beside the window, all of it of one state of the build.
struct DesignWork {
    design::Basis basis;
    std::unique_ptr<design::Maker> maker;
    design::Proposal start;
    std::shared_ptr<const design::Map> map;
    std::vector<design::Border> borders; ///< on that map
    std::array<design::Best, 3> best; ///< one an aim
    std::vector<design::Rate> rates; ///< at the largest rotor
};

/// Rail: whether anything was designed here whose parts are not read yet.
[[nodiscard]] std::pair<Level, std::string> stateOfDesign(const Study& study);

class DesignPage : public StagePage {
    Q_OBJECT
public:
    static constexpr StageId id = "design";
    enum Place { Map, Hat, Ring, Bracket, Order };
    DesignPage(Document& document, LibraryStore& library, QWidget* parent);

    [[nodiscard]] DesignMapView* map() const { return map_; }
    [[nodiscard]] QLineEdit* field(const QString& name) const;
    [[nodiscard]] QPushButton* bestButton(design::Aim aim) const { return best_[static_cast<std::size_t>(aim)]; }
    [[nodiscard]] QPushButton* madeButton() const { return made_; }
    [[nodiscard]] QPushButton* putInButton() const { return putIn_; }
    [[nodiscard]] QLabel* verdict() const { return verdict_; }
    [[nodiscard]] const design::Proposal& proposal() const { return proposal_; }
    [[nodiscard]] std::shared_ptr<const DesignWork> work() const { return work_; }
    /// Its sentences go on in a second line where there is room: they make no window taller.
    [[nodiscard]] bool hasHeightForWidth() const override { return false; }
    /// Waits for what is being worked out.
    void finish()
    {
        job_.finish();
        more_.finish();
        making_.finish();
    }
    /// What the order says, as HTML.
    [[nodiscard]] QString order() const;
    /// Writes the order (PDF), or the part shown (PDF, DXF, STEP, STL) by the path's ending. False with `refused`.
    bool write(const QString& path);

protected:
    [[nodiscard]] QStringList placeNames() const override;
    [[nodiscard]] Sheet sheet(int place) const override;
    [[nodiscard]] bool isDrawn(int place) const override { return place == Hat || place == Ring || place == Bracket; }
    void refreshRest() override;
    void showEvent(QShowEvent* event) override;

private:
    /// One number of the proposal: what it is now, and how another goes in.
    struct Field {
        QLineEdit* edit;
        const Style* style;
        std::function<double(const design::Proposal&)> get;
        std::function<void(design::Proposal&, double)> set;
    };
    void addField(const QString& name, const QString& caption, const Style& style, std::function<double(const design::Proposal&)> get,
        std::function<void(design::Proposal&, double)> set);
    /// The largest diameter that is made and clears.
    void takeMade();
    /// Starts anew where the build, the wheels or what is the same all over the map has changed.
    void start();
    void arrived(std::shared_ptr<DesignWork> work);
    void choose(const design::Proposal& proposal);
    void typed(const Field& field);
    void showProposal();
    void showFields();
    void listWheels();
    void putIn();
    void save();
    [[nodiscard]] std::function<QString()> writing(const QString& path) const;

    LibraryStore& library_;
    QWidget* board_; ///< map, section and what is typed
    DesignMapView* map_;
    SectionView* section_;
    QLabel* verdict_;
    QLabel* result_;
    QLabel* rates_;
    std::vector<Field> fields_;
    QListWidget* wheels_;
    std::array<QPushButton*, 3> best_ {};
    QPushButton* made_;
    class QGridLayout* grid_;
    QPushButton* putIn_;
    QPushButton* save_;
    QTextBrowser* orderText_;
    /// What follows the map.
    struct More {
        std::array<design::Best, 3> best;
        std::vector<design::Rate> rates;
    };
    Job<std::shared_ptr<DesignWork>> job_;
    Job<More> more_;
    Job<std::pair<double, design::Best>> making_;
    Job<QString> writing_;
    std::shared_ptr<DesignWork> work_;
    design::Proposal proposal_ {};
    bool chosen_ = false; ///< somebody has moved the dot
    std::shared_ptr<const Study> of_; ///< what the work was started for
    std::vector<std::string> wheelIds_; ///< ticked
    Axle axleOf_ = Axle::Front;
    design::Proposal everywhere_ {}; ///< what it was started with
};

} // namespace deepstop::app
