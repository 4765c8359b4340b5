#include "window/main_window.hpp"

#include "files/data_folder.hpp"
#include "files/refusal.hpp"
#include "window/application.hpp"
#include "stages/bench/bench_page.hpp"
#include "drawing/dimension_field.hpp"
#include "widgets/guide_bar.hpp"
#include "widgets/notice_bar.hpp"
#include "widgets/save_dialog.hpp"

#include <QCloseEvent>
#include <QCoreApplication>
#include <QDir>
#include <QDragEnterEvent>
#include <QFileInfo>
#include <QMenu>
#include <QMessageBox>
#include <QMimeData>
#include <QSettings>

namespace deepstop::app {
namespace {

constexpr int recentMost = 8;

QString said(const std::string& text) { return text.empty() ? MainWindow::tr("nothing") : QString::fromStdString(text).left(60); }

/// The last files opened. Whatever else got into the settings is thrown out, so that the next start need not read it again.
QStringList recentFiles()
{
    QSettings settings;
    const auto all = settings.value(QStringLiteral("recent")).toStringList();
    if (all.size() > recentMost)
        settings.setValue(QStringLiteral("recent"), all.mid(0, recentMost));
    return all.mid(0, recentMost);
}

} // namespace

bool MainWindow::attempt(const std::function<void()>& opening)
{
    try {
        opening();
    } catch (const std::exception& error) {
        notice_->say(saidBy(error), true);
        return false;
    }
    notice_->hide();
    return true;
}

void MainWindow::showStart()
{
    if (!start_)
        makeStart();
    start_->refresh(recentFiles(), demoFolder(), document_.units());
    front_->setCurrentWidget(start_);
    if (auto* first = start_->card(QStringLiteral("fits")))
        first->setFocus(Qt::OtherFocusReason);
}

void MainWindow::startNew()
{
    notice_->hide();
    guide_->end();
    front_->setCurrentIndex(0);
    document_.startNew();
    document_.setInHand(tr("vernier"));
    setStage(BenchPage::id);
    page()->view()->focusFirst();
}

bool MainWindow::openFile(const QString& path)
{
    front_->setCurrentIndex(0); // the reason of a refusal is said there
    if (!attempt([&] { document_.open(path); }))
        return false;
    guide_->end();
    setStage(stage_->id);
    if (const auto holder = document_.heldBy(); !holder.isEmpty())
        notice_->say(tr("%1 is open in %2. Look and try as you like; to save, close it there first or give it another name.")
                         .arg(document_.title(), holder),
            false);
    auto recent = recentFiles();
    recent.removeAll(document_.path());
    recent.prepend(document_.path());
    QSettings().setValue(QStringLiteral("recent"), recent.mid(0, recentMost));
    refreshRecent();
    return true;
}

bool MainWindow::openDemo(const QString& name)
{
    front_->setCurrentIndex(0);
    if (!attempt([&] { document_.openDemo(name); }))
        return false;
    guide_->end();
    setStage(stage_->id);
    return true;
}

void MainWindow::refreshRecent()
{
    recent_->clear();
    for (const QString& path : recentFiles())
        recent_
            ->addAction(QFileInfo(path).fileName(), this,
                [this, path] {
                    if (mayReplace())
                        openFile(path);
                })
            ->setToolTip(path);
    recent_->setEnabled(!recent_->isEmpty());
}

bool MainWindow::save() { return document_.path().isEmpty() ? saveAs() : saveTo(document_.path()); }

bool MainWindow::saveAs()
{
    document_.drafts().finish();
    const auto path = askWhereToSave(this, tr("Save the build"),
        document_.path().isEmpty() ? document_.title() + QStringLiteral(".deepstop") : document_.path(), tr(fileFilter),
        QStringLiteral("deepstop"));
    return !path.isEmpty() && saveTo(path);
}

bool MainWindow::saveTo(const QString& path)
{
    document_.drafts().finish();
    try {
        document_.save(path);
    } catch (const ChangedOnDisk&) {
        askWhose();
        return false;
    } catch (const std::exception& error) {
        notice_->say(saidBy(error), true, { { tr("Save under another name…"), [this] { saveAs(); } } });
        return false;
    }
    notice_->hide();
    if (const auto typed = typedWords(); !typed.isEmpty())
        notice_->say(tr("Saved, without what stands typed and could not be put in: %1.").arg(typed), false);
    return true;
}

/// What stands typed and is not in the build, in words; empty where nothing does.
QString MainWindow::typedWords() const
{
    QStringList all;
    for (const Typing& each : document_.drafts().all()) {
        const auto* entry = document_.entry(each.field.toStdString());
        const auto fact = factAt(document_.build(), each.field.toStdString());
        const auto where = entry ? entry->address.full() : fact ? fact->full() : std::string();
        all << (where.empty() ? QStringLiteral("“%1”").arg(each.text.left(60))
                              : QStringLiteral("“%1” (%2)").arg(each.text.left(60), QString::fromStdString(where)));
    }
    return all.join(QStringLiteral(", "));
}

void MainWindow::askWhose()
{
    constexpr std::size_t mostNamed = 3;
    QString what;
    try {
        const auto found = document_.differencesOnDisk();
        if (found.empty()) {
            // Written anew with the same words: nothing to choose.
            document_.keepMine();
            return;
        }
        for (std::size_t i = 0; i < found.size() && i < mostNamed; ++i)
            what += QStringLiteral("\n")
                + tr("%1: here %2, in the file %3").arg(QString::fromStdString(found[i].what), said(found[i].before), said(found[i].after));
        if (found.size() > mostNamed)
            what += QStringLiteral("\n") + tr("and %1 more").arg(found.size() - mostNamed);
    } catch (const std::exception& error) {
        what = QStringLiteral("\n") + tr("What is in it now cannot be read: %1").arg(saidBy(error));
    }
    std::vector<NoticeBar::Choice> choices;
    try {
        if (document_.togetherWithDisk())
            choices.push_back({ tr("Both: put them together"), [this] {
                                   attempt([this] {
                                       document_.takeTogether();
                                       document_.save(document_.path());
                                   });
                               } });
    } catch (const files::Refusal&) {
        // It cannot be read: the words above say so.
    }
    choices.push_back(
        { tr("Mine: write over the file"), [this] { attempt([this] { document_.save(document_.path(), Document::Over::OthersWork); }); } });
    choices.push_back({ tr("The file's: take it over"), [this] { attempt([this] { document_.takeFromDisk(); }); } });
    choices.push_back({ tr("Both: save mine elsewhere…"), [this] { saveAs(); } });
    notice_->say(tr("%1 was changed by another program. Whose is to stay?").arg(document_.title()) + what, true, std::move(choices));
}

bool MainWindow::mayReplace()
{
    document_.drafts().finish();
    if (!document_.hasUnsaved())
        return true;
    auto says = document_.isModified() ? tr("%1 has changes that are not saved.").arg(document_.title()) : QString();
    if (const auto typed = typedWords(); !typed.isEmpty())
        says += (says.isEmpty() ? QString() : QStringLiteral("\n"))
            + tr("Typed and not put in, because it could not be understood: %1. It is lost unless you cancel and correct it.").arg(typed);
    QMessageBox ask(QMessageBox::Question, tr("Deep Stop"), says, QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, this);
    ask.setObjectName(QStringLiteral("unsaved"));
    switch (ask.exec()) {
    case QMessageBox::Save:
        return save();
    case QMessageBox::Discard:
        return true;
    default:
        return false;
    }
}

void MainWindow::offerRecovery(bool asked)
{
    QStringList damaged;
    const auto found = Recovery::leftBehind(&damaged);
    const auto aside = damaged.isEmpty()
        ? QString()
        : QStringLiteral("\n") + tr("A damaged copy was set aside: %1").arg(damaged.join(QStringLiteral(", ")));
    if (found.isEmpty()) {
        if (!aside.isEmpty() || asked)
            notice_->say(aside.isEmpty() ? tr("There is no unsaved work from an earlier time.") : aside.trimmed(), !aside.isEmpty());
        return;
    }
    // One after the other, each by itself.
    const auto& first = found.front();
    const auto name =
        first.path.isEmpty() ? (first.car.isEmpty() ? tr("a new build") : first.car) : QStringLiteral("%1 (%2)").arg(first.car, first.path);
    auto text = tr("Deep Stop ended before this work was saved: %1, as of %2. Open it again?")
                    .arg(name, QLocale().toString(first.kept, QLocale::ShortFormat));
    if (const QFileInfo file(first.path); !first.path.isEmpty() && file.exists() && file.lastModified() > first.kept)
        text +=
            QLatin1Char(' ') + tr("Its file was saved later, at %1.").arg(QLocale().toString(file.lastModified(), QLocale::ShortFormat));
    if (found.size() > 1)
        text += QLatin1Char(' ') + tr("%1 more are waiting.").arg(found.size() - 1);
    notice_->say(
        text + aside, false, { { tr("Open it"), [this, copy = first.copy] { takeUp(copy); } }, { tr("Discard"), [this, copy = first.copy] {
                                                                                                    Recovery::forget(copy);
                                                                                                    offerRecovery();
                                                                                                } } });
}

void MainWindow::takeUp(const QString& copy)
{
    if (!mayReplace() || !attempt([&] { document_.recover(copy); }))
        return;
    setStage(stage_->id);
    const auto& typing = document_.recoveredTyping();
    if (typing.empty())
        return;
    // What was being typed stands in its field again, to be put in or given up.
    goToReading(typing.back().field.toStdString());
    auto* field = page()->view()->field(typing.back().field.toStdString());
    if (typing.size() > 1 || !field || !field->hasFocus())
        notice_->say(tr("Typed and not yet put in: %1.").arg(typedWords()), false);
}

void MainWindow::closeEvent(QCloseEvent* event)
{
    if (mayReplace())
        event->accept();
    else
        event->ignore();
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event)
{
    if (event->mimeData()->hasUrls())
        event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event)
{
    for (const QUrl& url : event->mimeData()->urls())
        if (url.isLocalFile()) {
            if (mayReplace())
                openFile(url.toLocalFile());
            return;
        }
}

QString MainWindow::demoFolder() { return QString::fromStdString((files::dataFolder() / "demo").string()); }

} // namespace deepstop::app
