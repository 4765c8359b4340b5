#include "widgets/plot_tables.hpp"

#include "document.hpp"
#include "report/plots.hpp"
#include "widgets/words.hpp"

#include <QAbstractTableModel>
#include <QClipboard>
#include <QComboBox>
#include <QGuiApplication>
#include <QHeaderView>
#include <QLocale>
#include <QPushButton>
#include <QTableView>
#include <QVBoxLayout>

#include <algorithm>
#include <array>

namespace deepstop::app {

/// A plot's points one under the other: curve, along, up.
class PlotTables::Model : public QAbstractTableModel {
public:
    using QAbstractTableModel::QAbstractTableModel;

    void setPlots(std::vector<report::Plot> plots)
    {
        beginResetModel();
        plots_ = std::move(plots);
        choose(0);
        endResetModel();
    }
    void setPlot(std::size_t index)
    {
        beginResetModel();
        choose(index);
        endResetModel();
    }
    [[nodiscard]] const std::vector<report::Plot>& plots() const { return plots_; }

    [[nodiscard]] int rowCount(const QModelIndex& parent) const override { return parent.isValid() ? 0 : static_cast<int>(rows_.size()); }
    [[nodiscard]] int columnCount(const QModelIndex& parent) const override { return parent.isValid() ? 0 : 3; }
    [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override
    {
        if (role == Qt::TextAlignmentRole)
            return index.column() == 0 ? QVariant() : QVariant(Qt::AlignRight | Qt::AlignVCenter);
        if (role != Qt::DisplayRole)
            return {};
        const auto& [curve, point] = rows_[static_cast<std::size_t>(index.row())];
        // Numbers never hear the language: a point, as everywhere in this program.
        return index.column() == 0 ? string(curve->name) : QLocale::c().toString(index.column() == 1 ? point.x : point.y, 'g', 5);
    }
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override
    {
        if (role != Qt::DisplayRole || orientation == Qt::Vertical || plots_.empty())
            return {};
        const auto& plot = plots_[chosen_];
        return std::array { tr("curve"), string(plot.across.title), string(plot.up.title) }[static_cast<std::size_t>(section)];
    }

private:
    void choose(std::size_t index)
    {
        chosen_ = index;
        rows_.clear();
        if (index < plots_.size())
            for (const auto& curve : plots_[index].curves)
                for (const auto& point : curve.points)
                    rows_.emplace_back(&curve, point);
    }

    std::vector<report::Plot> plots_;
    std::size_t chosen_ = 0;
    std::vector<std::pair<const report::PlotCurve*, paper::Point>> rows_;
};

PlotTables::PlotTables(const Document& document, QWidget* parent)
    : QDialog(parent), document_(document), plots_(new QComboBox(this)), table_(new QTableView(this)), model_(new Model(this))
{
    setWindowTitle(tr("Plots as tables"));
    resize(620, 560);
    plots_->setAccessibleName(tr("Which plot"));
    table_->setModel(model_);
    table_->setAccessibleName(tr("Points of the plot"));
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->verticalHeader()->hide();
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    table_->horizontalHeader()->setTextElideMode(Qt::ElideNone);
    auto* take = new QPushButton(tr("&Copy the table"), this);
    auto* column = new QVBoxLayout(this);
    column->addWidget(plots_);
    column->addWidget(table_, 1);
    column->addWidget(take, 0, Qt::AlignRight);
    connect(plots_, &QComboBox::currentIndexChanged, this, [this](int index) {
        if (index >= 0)
            model_->setPlot(static_cast<std::size_t>(index));
    });
    connect(take, &QPushButton::clicked, this, &PlotTables::copy);
    connect(&document, &Document::studied, this, [this] {
        if (isVisible())
            refresh();
    });
}

void PlotTables::showEvent(QShowEvent* event)
{
    refresh();
    QDialog::showEvent(event);
}

void PlotTables::refresh()
{
    const QString inHand = plots_->currentText();
    model_->setPlots(report::plotsOf(document_.study()));
    plots_->clear();
    for (const auto& plot : model_->plots())
        plots_->addItem(string(plot.title));
    plots_->setCurrentIndex(std::max(plots_->findText(inHand), model_->plots().empty() ? -1 : 0));
}

void PlotTables::copy() const
{
    QString text;
    const auto line = [&](auto cell) { text += QStringList { cell(0), cell(1), cell(2) }.join(QLatin1Char('\t')) + QLatin1Char('\n'); };
    line([&](int column) { return model_->headerData(column, Qt::Horizontal, Qt::DisplayRole).toString(); });
    for (int row = 0; row < model_->rowCount({}); ++row)
        line([&](int column) { return model_->data(model_->index(row, column), Qt::DisplayRole).toString(); });
    QGuiApplication::clipboard()->setText(text);
}

} // namespace deepstop::app
