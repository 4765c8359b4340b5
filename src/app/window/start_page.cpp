#include "window/start_page.hpp"

#include "files/build_file.hpp"
#include "study/study.hpp"
#include "theme.hpp"

#include <QDir>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPainter>
#include <QVBoxLayout>

namespace deepstop::app {
namespace {

constexpr int inset = 12;

QFont titleFont() { return reading(14, QFont::DemiBold); }
QFont lineFont() { return reading(13); }

QLabel* lettered(const QString& text, const QFont& font, QWidget* parent)
{
    auto* label = new QLabel(text, parent);
    label->setFont(font);
    label->setWordWrap(true);
    label->setTextFormat(Qt::PlainText);
    return label;
}

} // namespace

StartCard::StartCard(const QString& title, const QString& line, QWidget* parent) : QAbstractButton(parent), line_(line)
{
    setText(title);
    setAccessibleName(title);
    setAccessibleDescription(line);
    setFocusPolicy(Qt::StrongFocus);
    setCursor(Qt::PointingHandCursor);
    QSizePolicy policy(QSizePolicy::Expanding, QSizePolicy::Minimum);
    policy.setHeightForWidth(true);
    setSizePolicy(policy);
}

void StartCard::setLine(const QString& line)
{
    line_ = line;
    setAccessibleDescription(line);
    updateGeometry();
    update();
}

QSize StartCard::sizeHint() const { return { 280, heightForWidth(280) }; }

int StartCard::heightForWidth(int width) const
{
    const auto high = [&](const QFont& font, const QString& text) {
        return QFontMetrics(font).boundingRect(QRect(0, 0, width - 2 * inset, 400), Qt::TextWordWrap, text).height();
    };
    return high(titleFont(), text()) + (line_.isEmpty() ? 0 : 2 + high(lineFont(), line_)) + 18;
}

void StartCard::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(hasFocus() ? t.focus : underMouse() ? t.ink : t.rule, hasFocus() ? 2 : 1));
    p.setBrush(t.raised);
    p.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 4, 4);
    QRect room = rect().adjusted(inset, 8, -inset, -8);
    QRect used;
    p.setPen(t.ink);
    p.setFont(titleFont());
    p.drawText(room, Qt::TextWordWrap, text(), &used);
    room.setTop(used.bottom() + 3);
    p.setPen(t.mute);
    p.setFont(lineFont());
    p.drawText(room, Qt::TextWordWrap, line_);
}

void StartCard::keyPressEvent(QKeyEvent* event)
{
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter)
        click();
    else
        QAbstractButton::keyPressEvent(event);
}

StartPage::StartPage(QWidget* parent) : QScrollArea(parent)
{
    setObjectName(QStringLiteral("start-page"));
    setAccessibleName(tr("Start"));
    setFrameShape(QFrame::NoFrame);
    setWidgetResizable(true);
}

QVBoxLayout* StartPage::column(QWidget* parent, const QString& title)
{
    auto* made = new QVBoxLayout;
    made->setSpacing(8);
    made->addWidget(lettered(title, drafting(18), parent));
    return made;
}

void StartPage::refresh(const QStringList& recent, const QString& demoFolder, UnitSystem units)
{
    units_ = units;
    job_.cancel();
    auto* inside = new QWidget;
    inside_ = inside;
    QPalette look = palette();
    look.setColor(QPalette::Window, theme().paper);
    look.setColor(QPalette::WindowText, theme().ink);
    inside->setPalette(look);
    inside->setAutoFillBackground(true);
    auto* whole = new QVBoxLayout(inside);
    whole->setContentsMargins(48, 36, 48, 36);
    whole->setSpacing(18);
    whole->addWidget(lettered(tr("Deep Stop"), drafting(34), inside));
    whole->addWidget(lettered(tr("Does the brake kit fit? Is the caliper centred? Is it really better, by how much, and how sure is that? "
                                 "Measure with a vernier and type each reading into the drawing."),
        reading(15), inside));
    auto* row = new QHBoxLayout;
    row->setSpacing(28);
    whole->addLayout(row, 1);

    const auto add = [&](QVBoxLayout* to, const QString& name, const QString& title, const QString& line, auto pressed) {
        auto* made = new StartCard(title, line, inside);
        made->setObjectName(name);
        connect(made, &QAbstractButton::clicked, this, pressed);
        to->addWidget(made);
        return made;
    };
    auto* car = column(inside, tr("A new car"));
    row->addLayout(car, 1);
    const auto ask = [&](const QString& name, GuidedQuestion question, const QString& title, const QString& line) {
        add(car, name, title, line, [this, question] { emit newCar(question); });
    };
    ask(QStringLiteral("fits"), GuidedQuestion::Fits, tr("Does it fit my wheel?"),
        tr("Guided: wheel, rotor and caliper, one reading at a time"));
    ask(QStringLiteral("shims"), GuidedQuestion::Shims, tr("Which shims centre it?"),
        tr("Guided: four gaps a side, read with everything loose"));
    ask(QStringLiteral("better"), GuidedQuestion::Better, tr("Does it stop shorter?"), tr("Guided: car, tyres, brakes before and after"));
    ask(QStringLiteral("everything"), GuidedQuestion::Everything, tr("Everything, in my own order"),
        tr("An empty build on the parts bench"));
    car->addStretch(1);

    auto* demos = column(inside, tr("Demos, to look around in"));
    row->addLayout(demos, 1);
    for (const auto& [file, title, line] : { std::tuple { "halden-merle", tr("Halden Merle"),
                                                 tr("An estate for hill climbs: the kit fits, "
                                                    "heavier wheels and hot brakes decide") },
             std::tuple { "linnet", tr("Linnet"), tr("A light mid-engined car: the bigger kit is the wrong answer") },
             std::tuple { "drover-camper", tr("Drover Camper"), tr("2.9 tonnes down a mountain, drums behind, wheel bolts") } }) {
        const QString path = demoFolder + QLatin1Char('/') + QLatin1String(file) + QStringLiteral(".deepstop");
        add(demos, QLatin1String(file), title, line, [this, path] { emit demoWanted(path); });
    }
    demos->addStretch(1);

    auto* mine = column(inside, tr("Your builds"));
    row->addLayout(mine, 1);
    QStringList there;
    for (const LeftBehind& copy : Recovery::leftBehind()) {
        const QString of = copy.car.isEmpty() ? tr("a build without a name") : copy.car;
        add(mine, QStringLiteral("copy-") + copy.copy, tr("Unsaved work: %1").arg(of),
            tr("kept %1").arg(copy.kept.toString(QStringLiteral("yyyy-MM-dd HH:mm"))), [this, from = copy.copy] { emit copyWanted(from); });
    }
    for (const QString& path : recent) {
        if (!QFileInfo::exists(path))
            continue;
        auto* made =
            add(mine, path, QFileInfo(path).completeBaseName(), tr("being worked out …"), [this, path] { emit buildWanted(path); });
        made->setToolTip(path);
        there << path;
    }
    if (mine->count() == 1)
        mine->addWidget(lettered(tr("None yet. What you save is listed here with its headline."), reading(13), inside));
    mine->addStretch(1);
    whole->addWidget(
        lettered(tr("This program advises; it approves nothing. Brakes are life-critical: maker's data and local law come first, and a "
                    "qualified person judges adapters, machined knuckles and welded parts."),
            reading(13), inside));
    setWidget(inside);
    workOutHeadlines(there);
}

void StartPage::workOutHeadlines(QStringList paths)
{
    if (paths.isEmpty())
        return;
    const QString path = paths.takeFirst();
    job_.start(
        [path, units = units_](const JobTicket&) -> Headline {
            try {
                const auto file = files::loadBuild(path.toStdString());
                return { path,
                    QString::fromStdString(study(std::make_shared<const Build>(file.build), {}, units, Remedies::LeftOut).summary) };
            } catch (const std::exception& error) {
                return { path, QString::fromUtf8(error.what()) };
            }
        },
        [this, paths](const Headline& found) {
            if (auto* made = card(found.path))
                made->setLine(found.text);
            workOutHeadlines(paths);
        },
        [this, paths](const std::exception&) { workOutHeadlines(paths); });
}

} // namespace deepstop::app
