#pragma once
/// A shown window with the demo in it, for tests that drive it with mouse and keys.

#include "core/support.hpp"
#include "files/build_file.hpp"
#include "files/disk.hpp"
#include "window/main_window.hpp"
#include "stages/bench/bench_page.hpp"
#include "stages/centring/centring_page.hpp"
#include "stages/course_chart.hpp"
#include "stages/heat/heat_page.hpp"
#include "stages/single_pages.hpp"
#include "stages/stop/stop_page.hpp"
#include "stages/wheel/wheel_page.hpp"
#include "theme.hpp"
#include "drawing/dimension_field.hpp"
#include "widgets/in_hand.hpp"
#include "widgets/ledger.hpp"
#include "widgets/notice_bar.hpp"
#include "widgets/quick_sums.hpp"
#include "widgets/reading_card.hpp"
#include "widgets/slip.hpp"
#include "widgets/work_rail.hpp"

#include <QComboBox>
#include <QDropEvent>
#include <QMenuBar>
#include <QMessageBox>
#include <QMimeData>
#include <QPushButton>
#include <QSettings>
#include <QSignalSpy>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <QTest>
#include <QTextBlock>
#include <QTimer>

#include <unordered_map>

using namespace deepstop;
using namespace deepstop::app;

inline const std::string corner = "/setups/1/front";
inline const std::string diameter = corner + "/rotor/outer_diameter_mm";
inline const std::string thickness = corner + "/rotor/thickness_mm";

inline QString merle() { return MainWindow::demoFolder() + "/halden-merle.deepstop"; }

/// A copy of the Merle that a test may write.
struct OwnFile {
    QTemporaryDir dir;
    QString path = dir.filePath("mine.deepstop");
    OwnFile()
    {
        QFile::copy(merle(), path);
        QFile::setPermissions(path, QFile::ReadOwner | QFile::WriteOwner);
    }
    void change(double si)
    {
        auto file = files::loadBuild(path.toStdString());
        file.build.setups[1].front->rotor.thickness = { si, {}, Known::Measured, "micrometer", {} };
        files::saveBuild(path.toStdString(), file);
    }
    [[nodiscard]] double said() const { return *files::loadBuild(path.toStdString()).build.setups[1].front->rotor.thickness.value; }
};

/// The stages, by their ids.
inline std::vector<StageId> stageIds()
{
    std::vector<StageId> ids;
    for (const Stage& stage : stages())
        ids.push_back(stage.id);
    return ids;
}

/// Lets the document hold that build, as one step of undo.
inline void put(Document& document, Build build, const char* what)
{
    document.edit(QString::fromLatin1(what), [&](const Build&) { return build; });
}

/// All that waits to be done in the window is done: no more, and no fixed time.
inline void everythingShown()
{
    for (int i = 0; i < 4; ++i) {
        QCoreApplication::sendPostedEvents();
        QCoreApplication::processEvents();
    }
}

/// A shown window with the demo in it.
struct Shown {
    MainWindow window;
    explicit Shown(const QString& demo = merle())
    {
        window.openDemo(demo);
        window.show();
        window.activateWindow();
        if (!QTest::qWaitForWindowActive(&window))
            qWarning("the window did not become active");
        waited();
    }
    DimensionField* field(const std::string& pointer) { return window.page(window.stage())->view()->field(pointer); }
    QString ledger(std::string_view id)
    {
        waited();
        return window.ledger()->cell(id)->beforeAfter();
    }
    /// All that the window works out is there, remedies too unless something is only typed or dragged, and is shown.
    void waited()
    {
        const auto& document = window.document();
        QTRY_VERIFY_WITH_TIMEOUT(
            !document.study().underWay && (document.isPreviewing() || document.study().remedies == Remedies::Sought), 20000);
        everythingShown();
    }
    /// What is worked out, once all of it is.
    const Study& known()
    {
        waited();
        return window.document().study();
    }
    QString slipText()
    {
        waited();
        return window.slip()->plainText();
    }
    LedgerCell* cell(std::string_view id)
    {
        waited();
        return window.ledger()->cell(id);
    }
    WorkRail* rail()
    {
        waited();
        return window.rail();
    }
    [[nodiscard]] const Build& build() { return window.document().build(); }
    /// Types into the field of a reading on the stage that is shown, with Enter at the end.
    void enter(const std::string& pointer, const QString& text)
    {
        auto* into = field(pointer);
        QVERIFY2(into, pointer.c_str());
        into->setFocus();
        type(into, text);
        QTest::keyClick(into, Qt::Key_Return);
        waited();
    }
    void type(QWidget* into, const QString& text)
    {
        QTest::keyClick(into, Qt::Key_A, Qt::ControlModifier);
        QTest::keyClicks(into, text);
    }
};

/// How many of a picture's pixels are not of its commonest colour: an empty sheet has none.
inline int inked(const QImage& picture)
{
    std::unordered_map<QRgb, int> count;
    for (int y = 0; y < picture.height(); ++y)
        for (int x = 0; x < picture.width(); ++x)
            ++count[picture.pixel(x, y)];
    int most = 0;
    for (const auto& [colour, pixels] : count)
        most = std::max(most, pixels);
    return picture.width() * picture.height() - most;
}

/// Results arrive as late as DEEPSTOP_LATE says, in milliseconds: "20", or "0-500" for anything between, in any order. Without it they
/// arrive as in the program.
inline void comeLate()
{
    const auto said = qEnvironmentVariable("DEEPSTOP_LATE").split(QLatin1Char('-'));
    if (said.front().isEmpty())
        return;
    const int least = said.front().toInt();
    const int most = said.back().toInt();
    static std::mt19937 rng(1);
    deliveryDelay() = [least, most] { return std::uniform_int_distribution<int>(least, most)(rng); };
}

/// What every window test begins with.
inline void beginWindowTests()
{
    QStandardPaths::setTestModeEnabled(true);
    QCoreApplication::setOrganizationName("deepstop-test");
    // Tests run beside each other: what one of them sets or clears is no other's.
    static const QTemporaryDir settings;
    qputenv("HOME", settings.path().toUtf8());
    QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, settings.path());
    loadFonts();
    setDark(false);
    comeLate();
}

inline void freshSettings()
{
    QSettings().clear();
    setDark(false);
}
