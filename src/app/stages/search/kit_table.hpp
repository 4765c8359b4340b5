#pragma once
/// Kits that go, a line each, as a table and as a plot of any two of their figures.

#include "search/search.hpp"

#include <QAbstractTableModel>
#include <QWidget>

namespace deepstop::app {

/// Kits and what they were put together of.
struct FoundKits {
    std::shared_ptr<const search::Query> query;
    std::vector<search::Kit> kits;
};

/// One kit a line: its parts, its figures, and how it stands.
class KitTable : public QAbstractTableModel {
    Q_OBJECT
public:
    explicit KitTable(QObject* parent) : QAbstractTableModel(parent) { }
    void setKits(std::shared_ptr<const FoundKits> found, UnitSystem units);
    [[nodiscard]] const search::Kit& kit(int row) const { return found_->kits[static_cast<std::size_t>(row)]; }

    [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override;
    [[nodiscard]] int columnCount(const QModelIndex& parent = {}) const override;
    [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    /// What is not known comes last either way.
    void sort(int column, Qt::SortOrder order) override;

    /// Kits of whole cars stand in two lines, the front's parts over the rear's.
    [[nodiscard]] bool ofWholeCars() const { return found_ && found_->query && found_->query->wholeCar; }
    static constexpr int firstGain = static_cast<int>(search::kinds.size());
    static constexpr int level = firstGain + static_cast<int>(search::allGains.size());

private:
    std::shared_ptr<const FoundKits> found_;
    UnitSystem units_ = UnitSystem::Metric;
};

[[nodiscard]] inline QString words(std::string_view text) { return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size())); }
/// In the reader's language.
[[nodiscard]] QString titleOf(search::Gain gain, bool wholeCar = false);
/// "44.9 m"; "not known".
[[nodiscard]] QString sayGain(const search::Gains& gains, search::Gain gain, UnitSystem units);

/// Kits as dots over two of their figures; the better corner is named. A kit whose figure is not known stands at the edge, as a ring.
class KitPlot : public QWidget {
    Q_OBJECT
public:
    explicit KitPlot(QWidget* parent);
    void setKits(std::shared_ptr<const FoundKits> found, UnitSystem units);
    void setAxes(search::Gain across, search::Gain up);
    void setChosen(std::vector<std::size_t> chosen);
    [[nodiscard]] QPointF placeOf(std::size_t kit) const;

signals:
    void hovered(int kit); ///< -1: none
    void clicked(int kit, bool more);

protected:
    void paintEvent(QPaintEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void leaveEvent(QEvent*) override;

private:
    [[nodiscard]] QRectF box() const;
    [[nodiscard]] int kitAt(QPointF at) const;
    void measure();

    std::shared_ptr<const FoundKits> found_;
    UnitSystem units_ = UnitSystem::Metric;
    search::Gain across_ = search::Gain::Weight;
    search::Gain up_ = search::Gain::HotStop;
    std::pair<double, double> acrossRange_ { 0, 1 };
    std::pair<double, double> upRange_ { 0, 1 };
    std::vector<std::size_t> chosen_;
    int over_ = -1;
};

} // namespace deepstop::app
