#include "drawing/fitting_label.hpp"

#include "theme.hpp"

#include <algorithm>

namespace deepstop::app {

FittingLabel::FittingLabel(int largest, int smallest, int lines, QFont::Weight weight, QWidget* parent)
    : QLabel(parent), largest_(largest), smallest_(smallest), lines_(lines), weight_(weight)
{
    setTextFormat(Qt::PlainText);
    setWordWrap(lines > 1);
    setFont(reading(largest, weight));
    setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    // Its place is as high as one large line or all of its small ones, however long its words.
    setFixedHeight(std::max(fontMetrics().height(), lines * QFontMetrics(reading(smallest, weight)).height()));
}

void FittingLabel::say(const QString& words)
{
    setText(words);
    fit();
}

void FittingLabel::resizeEvent(QResizeEvent* event)
{
    QLabel::resizeEvent(event);
    fit();
}

void FittingLabel::fit()
{
    const auto holds = [this](int pixels) {
        const QFontMetrics metrics(reading(pixels, weight_));
        const QRect needed = metrics.boundingRect(QRect(0, 0, width(), 10'000), lines_ > 1 ? Qt::TextWordWrap : 0, text());
        return needed.width() <= width() && needed.height() <= height();
    };
    int pixels = largest_;
    while (pixels > smallest_ && !holds(pixels))
        --pixels;
    setFont(reading(pixels, weight_));
    setToolTip(holds(pixels) ? QString() : text());
}

} // namespace deepstop::app
