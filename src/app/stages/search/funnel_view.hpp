#pragma once
/// Where kits are lost: a bar for every check, in the order they are asked. Bars go with the root of what is lost.

#include "search/search.hpp"

#include <QWidget>

namespace deepstop::app {

class FunnelView : public QWidget {
    Q_OBJECT
public:
    explicit FunnelView(QWidget* parent);
    void setFunnel(std::shared_ptr<const search::Result> result);
    void choose(int check);
    [[nodiscard]] int chosen() const { return chosen_; }
    [[nodiscard]] QRectF bar(int check) const;
    [[nodiscard]] QSize sizeHint() const override;

signals:
    void checkChosen(int check);

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

private:
    [[nodiscard]] int count() const { return result_ ? static_cast<int>(result_->funnel.size()) : 0; }
    std::shared_ptr<const search::Result> result_;
    int chosen_ = -1;
    int countsWide_ = 0; ///< the widest of the counts beside the bars
};

} // namespace deepstop::app
