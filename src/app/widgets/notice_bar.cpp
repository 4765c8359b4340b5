#include "widgets/notice_bar.hpp"

#include "theme.hpp"

#include <QPainter>
#include <QPushButton>

namespace deepstop::app {

NoticeBar::NoticeBar(QWidget* parent) : QWidget(parent), text_(new QLabel(this)), row_(new QHBoxLayout(this))
{
    row_->setContentsMargins(40, 6, 10, 6);
    text_->setWordWrap(true);
    text_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    text_->setObjectName(QStringLiteral("notice"));
    row_->addWidget(text_, 1);
    hide();
}

void NoticeBar::say(const QString& text, bool bad, std::vector<Choice> choices)
{
    for (QWidget* button : buttons_) {
        button->hide();
        button->deleteLater();
    }
    buttons_.clear();
    bad_ = bad;
    text_->setText(text);
    choices.push_back({ choices.empty() ? tr("Put away") : tr("Not now"), {} });
    for (const Choice& choice : choices) {
        auto* button = new QPushButton(choice.text, this);
        connect(button, &QPushButton::clicked, this, [this, act = choice.act] {
            hide();
            if (act)
                act();
        });
        row_->addWidget(button);
        buttons_.push_back(button);
    }
    show();
}

void NoticeBar::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.fillRect(rect(), t.raised);
    const QColor colour = bad_ ? t.bad : t.caution;
    p.fillRect(QRect(0, height() - 2, width(), 2), colour);
    drawLevel(p, QRectF(14, height() / 2.0 - 8, 16, 16), bad_ ? Level::Hits : Level::Caution, colour);
}

} // namespace deepstop::app
