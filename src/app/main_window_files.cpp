#include "main_window.hpp"

#include "stages/stage_page.hpp"
#include "widgets/notice_bar.hpp"

#include <QCloseEvent>
#include <QCoreApplication>
#include <QDir>
#include <QDragEnterEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QMenu>
#include <QMessageBox>
#include <QMimeData>
#include <QSettings>

namespace deepstop::app {
namespace {

constexpr int recentMost = 8;

} // namespace

bool MainWindow::attempt(const std::function<void()>& opening)
{
    try {
        opening();
    } catch (const files::Refusal& refusal) {
        notice_->say(QString::fromUtf8(refusal.what()), true);
        return false;
    }
    notice_->hide();
    return true;
}

void MainWindow::startNew()
{
    notice_->hide();
    document_.startNew();
    document_.setInHand(tr("vernier"));
    setStage(Stage::PartsBench);
    page(stage_)->view()->focusFirst();
}

bool MainWindow::openFile(const QString& path)
{
    if (!attempt([&] { document_.open(path); }))
        return false;
    setStage(stage_);
    QSettings settings;
    auto recent = settings.value(QStringLiteral("recent")).toStringList();
    recent.removeAll(document_.path());
    recent.prepend(document_.path());
    settings.setValue(QStringLiteral("recent"), recent.mid(0, recentMost));
    refreshRecent();
    return true;
}

bool MainWindow::openDemo(const QString& name)
{
    if (!attempt([&] { document_.openDemo(name); }))
        return false;
    setStage(stage_);
    return true;
}

void MainWindow::refreshRecent()
{
    recent_->clear();
    for (const QString& path : QSettings().value(QStringLiteral("recent")).toStringList())
        recent_->addAction(QFileInfo(path).fileName(), this, [this, path] {
            if (mayReplace())
                openFile(path);
        })->setToolTip(path);
    recent_->setEnabled(!recent_->isEmpty());
}

bool MainWindow::save() { return document_.path().isEmpty() ? saveAs() : saveTo(document_.path()); }

bool MainWindow::saveAs()
{
    auto path = QFileDialog::getSaveFileName(this, tr("Save the build"), document_.path().isEmpty() ? document_.title() + QStringLiteral(".deepstop") : document_.path(), tr(fileFilter));
    if (path.isEmpty())
        return false;
    if (QFileInfo(path).suffix().isEmpty())
        path += QStringLiteral(".deepstop");
    return saveTo(path);
}

bool MainWindow::saveTo(const QString& path)
{
    finishTyping();
    return attempt([&] { document_.save(path); });
}

bool MainWindow::mayReplace()
{
    finishTyping();
    if (!document_.isModified())
        return true;
    QMessageBox ask(QMessageBox::Question, tr("Deep Stop"), tr("%1 has changes that are not saved.").arg(document_.title()),
        QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, this);
    ask.setObjectName(QStringLiteral("unsaved"));
    switch (ask.exec()) {
    case QMessageBox::Save: return save();
    case QMessageBox::Discard: return true;
    default: return false;
    }
}

void MainWindow::offerRecovery()
{
    const auto found = Document::recoverable();
    if (found.isEmpty())
        return;
    const auto copy = found.front();
    notice_->say(tr("Deep Stop ended before this work was saved (%1). Take it up again?").arg(QLocale().toString(QFileInfo(copy).lastModified(), QLocale::ShortFormat)), false,
        { { tr("Take it up"),
              [this, copy] {
                  if (attempt([&] { document_.recover(copy); }))
                      setStage(stage_);
              } },
            { tr("Throw it away"), [found] {
                 for (const auto& one : found)
                     Document::forget(one);
             } } });
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

QString MainWindow::demoFolder()
{
    // Beside the program when run from its build tree, else where it was installed.
    for (const QString& folder : { QStringLiteral(DEEPSTOP_DATA "/demo"), QCoreApplication::applicationDirPath() + QStringLiteral("/../share/deepstop/demo") })
        if (QDir(folder).exists())
            return folder;
    return {};
}

} // namespace deepstop::app
