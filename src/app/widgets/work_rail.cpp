#include "widgets/work_rail.hpp"

#include "theme.hpp"

#include <QPainter>
#include <QVBoxLayout>

#include <algorithm>
#include <utility>

namespace deepstop::app {

StageButton::StageButton(const Stage& stage, QWidget* parent) : QAbstractButton(parent), stage_(stage)
{
    setText(stage.name());
    setObjectName(QStringLiteral("stage-") + text());
    setCheckable(true);
    setAutoExclusive(true);
    setCursor(Qt::PointingHandCursor);
    setFocusPolicy(Qt::TabFocus);
    setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Maximum);
}

void StageButton::setState(Level level, const QString& word)
{
    if (level_ == level && state_ == word)
        return;
    level_ = level;
    state_ = word;
    setAccessibleName(QStringLiteral("%1, %2").arg(text(), word));
    update();
}

void StageButton::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (isChecked())
        p.fillRect(rect(), t.paper);
    if (isChecked())
        p.fillRect(QRect(0, 0, 4, height()), t.proposal);
    if (hasFocus() || underMouse()) {
        p.setPen(QPen(hasFocus() ? t.focus : t.rule, hasFocus() ? 2 : 1));
        p.setBrush(Qt::NoBrush);
        p.drawRect(QRectF(rect()).adjusted(5, 1, -2, -1));
    }
    const int middle = height() / 2;
    drawLevel(p, QRectF(16, middle - 16, 14, 14), level_, colourOf(level_));
    p.setFont(drafting(17));
    p.setPen(t.ink);
    p.drawText(QRect(40, middle - 22, width() - 46, 25), Qt::AlignLeft | Qt::AlignVCenter, text());
    p.setFont(reading(12));
    p.setPen(t.mute);
    p.drawText(QRect(40, middle + 2, width() - 52, 18), Qt::AlignLeft | Qt::AlignVCenter,
        QFontMetrics(reading(12)).elidedText(state_, Qt::ElideRight, width() - 52));
}

WorkRail::WorkRail(const std::vector<Stage>& stages, QWidget* parent) : QWidget(parent)
{
    setFixedWidth(172);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 8, 0, 0);
    column->setSpacing(2);
    for (const Stage& stage : stages) {
        auto* button = new StageButton(stage, this);
        // Assistive technology toggles it without a click; the click that toggled it chooses once.
        connect(button, &QAbstractButton::toggled, this, [this, button](bool on) {
            if (on) {
                toggled_ = button;
                emit chosen(button->stage().id);
            }
        });
        connect(button, &QAbstractButton::clicked, this, [this, button] {
            if (std::exchange(toggled_, nullptr) != button)
                emit chosen(button->stage().id);
        });
        column->addWidget(button);
        buttons_.push_back(button);
    }
    column->addStretch();
}

StageButton* WorkRail::button(StageId stage) const
{
    return *std::ranges::find(buttons_, stage, [](const StageButton* each) { return each->stage().id; });
}

void WorkRail::setCurrent(StageId stage)
{
    StageButton* current = button(stage);
    const QSignalBlocker quiet(current);
    current->setChecked(true);
}

void WorkRail::setStudy(const Study& study)
{
    for (StageButton* button : buttons_) {
        if (const auto state = button->stage().state) {
            // What it rests on is not there while the study is under way: what stood last stands on.
            if (!study.underWay && study.before.setup) {
                const auto [level, word] = state(study);
                button->setState(level, QString::fromStdString(word));
            }
            continue;
        }
        const auto stands = standing(study, button->stage().chapters);
        if (!stands) {
            button->setState(Level::Unproven, tr("nothing yet"));
            continue;
        }
        const auto& [level, why] = *stands;
        button->setState(level,
            button->stage().speaks("car") && level == Level::Good ? tr("known") : QString::fromUtf8(deepstop::tr(nameOf(level)).data()));
        button->setToolTip(QString::fromStdString(why));
    }
}

void WorkRail::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.fillRect(rect(), t.board);
    // Graduations, as on the edge of a steel rule.
    p.setPen(QPen(t.rule, 1));
    for (int i = 0, y = height() - 6; y > 390; ++i, y -= 6) {
        const int length = i % 10 == 0 ? 22 : i % 5 == 0 ? 15 : 9;
        p.drawLine(width() - length, y, width(), y);
    }
    p.drawLine(width() - 1, 0, width() - 1, height());
}

} // namespace deepstop::app
