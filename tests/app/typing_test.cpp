/// Numbers of any size typed into any dimension of any page: nothing crashes, and nothing is kept that its field's range forbids.

#include "app/shown.hpp"

#include <fmt/format.h>

using namespace deepstop;
using namespace deepstop::app;

namespace {

int cases()
{
    const int said = qEnvironmentVariableIntValue("DEEPSTOP_TYPED");
    return said > 0 ? said : 50;
}

/// From nothing to beyond a double, evenly over its powers of ten, now and then with a unit, a width or nonsense.
QString anyNumber()
{
    auto text = fmt::format("{:.{}e}", between(1, 10), among(0, 12));
    text = text.substr(0, text.find('e'));
    if (const int kind = among(0, 3); kind > 0)
        text += fmt::format("e{}", kind == 1 ? among(-6, 4) : among(-330, 330));
    if (among(0, 9) == 0)
        text.insert(0, "-");
    static const char* ends[] { " in", " mm", " m", " km", " kg", " lb", " %", " ±1e300", "; 1", "?", "°", " bar", "/3", "e", "mm mm" };
    if (among(0, 2) == 0)
        text += ends[among(0, int(std::size(ends)) - 1)];
    return QString::fromStdString(text);
}

} // namespace

class TypingTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init() { freshSettings(); }

    void anyNumberAnywhere()
    {
        Shown s;
        int kept = 0;
        int refused = 0;
        for (int i = 0; i < cases(); ++i) {
            if (i % 25 == 0) {
                s.window.setStage(stages()[std::size_t(i / 25) % stages().size()].id);
                auto* page = s.window.page(s.window.stage());
                page->setPlace(among(0, std::max(0, page->placeCount() - 1)));
                s.window.document().setUnits(among(0, 1) ? UnitSystem::Us : UnitSystem::Metric);
            }
            const auto fields = s.window.page(s.window.stage())->view()->findChildren<DimensionField*>();
            QList<DimensionField*> seen;
            std::ranges::copy_if(fields, std::back_inserter(seen), [](DimensionField* f) { return f->isVisible(); });
            if (seen.isEmpty())
                continue;
            const QPointer<DimensionField> field = seen[among(0, int(seen.size()) - 1)];
            const auto pointer = field->pointer();
            const auto text = anyNumber();
            field->setFocus();
            field->selectAll();
            QTest::keyClicks(field, text);
            const bool wrong = field && !field->refusal().isEmpty();
            (wrong ? refused : kept) += 1;
            if (field)
                QTest::keyClick(field, Qt::Key_Return);
            if (field && wrong)
                QTest::keyClick(field, Qt::Key_Escape);
            QCoreApplication::processEvents();
            const auto fault = faultIn(s.window.document().build());
            QVERIFY2(fault.empty(), (pointer + " ← " + text.toStdString() + ": " + fault).c_str());
            // Absurd together, if not each by itself: back to something that can be drawn.
            if (i % 10 == 9)
                while (s.window.document().undoStack().canUndo())
                    s.window.document().undoStack().undo();
        }
        QVERIFY2(kept > cases() / 20 && refused > cases() / 5, qPrintable(QString("%1 kept, %2 refused").arg(kept).arg(refused)));
    }
};

DEEPSTOP_TEST(TypingTest)
#include "typing_test.moc"
