#include "widgets/notice_bar.hpp"

#include "theme.hpp"

#include <QPainter>
#include <QPushButton>

namespace deepstop::app {

namespace {

/// A word without an end gets places where it may be broken: nothing runs off the window.
QString breakable(const QString& text)
{
    constexpr int longest = 40;
    QString out;
    int run = 0;
    for (const QChar c : text) {
        run = c.isSpace() ? 0 : run + 1;
        out += c;
        if (run >= longest && !c.isHighSurrogate()) {
            out += QChar(0x200B);
            run = 0;
        }
    }
    return out;
}

} // namespace

NoticeBar::NoticeBar(QWidget* parent) : QWidget(parent), text_(new QLabel(this)), row_(new QHBoxLayout)
{
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(40, 6, 10, 6);
    column->setSpacing(6);
    beside_ = new QHBoxLayout;
    column->addLayout(beside_);
    // More than one choice stands under the words, which then have the whole width.
    column->addLayout(row_);
    row_->addStretch(1);
    text_->setTextFormat(Qt::PlainText); // whatever a file or a car is called
    text_->setWordWrap(true);
    text_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    text_->setObjectName(QStringLiteral("notice"));
    beside_->addWidget(text_, 1);
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
    said_ = text;
    text_->setText(breakable(text));
    choices.push_back({ choices.empty() ? tr("Close") : tr("Not now"), {} });
    for (const Choice& choice : choices) {
        auto* button = new QPushButton(choice.text, this);
        connect(button, &QPushButton::clicked, this, [this, act = choice.act] {
            hide();
            if (act)
                act();
        });
        (choices.size() > 2 ? row_ : beside_)->addWidget(button);
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
