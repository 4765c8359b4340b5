/// What the main window opens beside itself, and what it writes and takes in of parts: library, runout, templates, plates, kits.

#include "window/main_window.hpp"
#include "files/refusal.hpp"
#include "hardware/hardware.hpp"
#include "library/kit.hpp"
#include "library/kit_file.hpp"
#include "print/template_window.hpp"
#include "solids/solid_files.hpp"
#include "stages/bench/bench_page.hpp"
#include "stages/bench/runout_window.hpp"
#include "stages/wheel/wheel_page.hpp"
#include "widgets/library_window.hpp"
#include "widgets/widen_window.hpp"

#include <QDate>
#include <QLineEdit>

namespace deepstop::app {

LibraryWindow* MainWindow::showLibrary()
{
    if (!libraryWindow_)
        libraryWindow_ = new LibraryWindow(document_, library_, this);
    const int bench = page(BenchPage::id)->place();
    libraryWindow_->setAxle(axleInHand());
    // What lies on the bench is what is looked for.
    using enum library::Kind;
    libraryWindow_->setKind(stage() == WheelPage::id ? Wheel
            : bench == BenchPage::Caliper            ? Caliper
            : bench == BenchPage::Pads               ? Pad
            : bench == BenchPage::Fittings           ? Bracket
                                                     : Rotor);
    libraryWindow_->show();
    libraryWindow_->raise();
    libraryWindow_->activateWindow();
    libraryWindow_->search()->setFocus();
    return libraryWindow_;
}

RunoutWindow* MainWindow::showRunout()
{
    if (!runoutWindow_)
        runoutWindow_ = new RunoutWindow(document_, instrument_, this);
    runoutWindow_->setCorner(page(BenchPage::id)->axle(), page(BenchPage::id)->side());
    runoutWindow_->QDialog::show();
    runoutWindow_->raise();
    runoutWindow_->activateWindow();
    return runoutWindow_;
}

TemplateWindow* MainWindow::showTemplate()
{
    if (!templateWindow_)
        templateWindow_ = new TemplateWindow(document_, this);
    templateWindow_->setAxle(axleInHand());
    templateWindow_->show();
    templateWindow_->raise();
    templateWindow_->activateWindow();
    return templateWindow_;
}

WidenWindow* MainWindow::showWidening()
{
    if (!widenWindow_)
        widenWindow_ = new WidenWindow(document_, this);
    widenWindow_->setAxle(axleInHand());
    widenWindow_->show();
    widenWindow_->raise();
    widenWindow_->activateWindow();
    widenWindow_->growth()->setFocus();
    return widenWindow_;
}

bool MainWindow::savePlate(const QString& path, bool ring)
{
    const auto today = QDate::currentDate().toString(Qt::ISODate).toStdString();
    return attempt([&] {
        std::optional<PlateDrawing> made;
        std::string lacks;
        if (ring) {
            made = drawingOfRing(document_.wholeStudy(), axleInHand(), today, lacks);
        } else {
            const auto bracket = bracketOf(document_.wholeStudy(), axleInHand());
            lacks = bracket.lacks;
            if (bracket.adapter)
                made = drawingOfBracket(document_.wholeStudy(), axleInHand(), *bracket.adapter, today);
        }
        if (!made)
            throw files::Refusal(lacks);
        solids::writePlate(
            path.toStdString(), made->plate, made->drawing, document_.units() == UnitSystem::Us ? paper::letter() : paper::a4());
    });
}

bool MainWindow::saveKit(const QString& path)
{
    document_.drafts().finish();
    return attempt([&] {
        // As it stands in the build now; the study may still follow.
        const Setup* after = document_.study().after.setup;
        const Setup* setup = after ? findSetup(document_.build(), after->id) : nullptr;
        if (!setup)
            throw files::Refusal("there is no setup to take a kit from.");
        files::exportKit(path.toStdString(), *setup);
    });
}

bool MainWindow::takeInKit(const QString& path)
{
    document_.drafts().finish();
    return attempt([&] {
        const Setup kit = files::loadKit(path.toStdString());
        if (!document_.edit(tr("kit taken in"), library::kitTakenIn(kit)))
            throw files::Refusal("the kit could not be put into this build.");
        document_.setPair({ document_.build().setups.front().id, document_.build().setups.back().id });
    });
}

} // namespace deepstop::app
