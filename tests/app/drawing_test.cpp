/// The sheet on the screen: what stays the same is kept and not inked again, and nobody can see that it was.

#include "app/shown.hpp"
#include "drawing/layers.hpp"

#include <QPainter>
#include <QScreen>

#include <numeric>
#include <set>

namespace {

Stroke randomStroke(int key)
{
    const QColor colour = QColor::fromHsv(key * 47 % 360, 200, 200, key % 3 == 0 ? 120 : 255);
    const QRectF box(key * 37 % 260, key * 53 % 180, 10 + key % 50, 8 + key % 40);
    return { (Likeness() << key).number(), box.adjusted(-4, -4, 4, 4), 1 + key % 9, [=](QPainter& p) {
                p.setPen(QPen(colour, 1.5));
                p.setBrush(key % 2 ? QBrush(colour) : QBrush());
                key % 5 == 0 ? p.drawEllipse(box) : p.drawRect(box);
            } };
}

/// The largest difference of any colour of any pixel.
int difference(const QImage& a, const QImage& b)
{
    if (a.size() != b.size())
        return 256;
    int most = 0;
    for (int y = 0; y < a.height(); ++y)
        for (int x = 0; x < a.width(); ++x) {
            const QColor one = a.pixelColor(x, y);
            const QColor other = b.pixelColor(x, y);
            most = std::max(
                { most, std::abs(one.red() - other.red()), std::abs(one.green() - other.green()), std::abs(one.blue() - other.blue()) });
        }
    return most;
}

/// The section with the spacer's handle held by its middle.
struct Held {
    Shown shown;
    DrawingView* view;
    QPointF grip;

    explicit Held(int place = 0, const char* ending = "/spacer_mm")
    {
        shown.window.resize(1280, 800);
        shown.window.setStage(WheelPage::id);
        auto* page = shown.window.page(WheelPage::id);
        page->setPlace(place);
        everythingShown();
        view = page->view();
        const auto& handles = view->sheet().handles;
        const auto handle = std::ranges::find_if(handles, [&](const Handle& h) { return h.pointer.ends_with(ending); });
        along = handle->along;
        pointer = handle->pointer;
        grip = view->toScreen(handle->at);
        QTest::mousePress(view, Qt::LeftButton, {}, grip.toPoint());
    }
    void moveTo(double millimetres)
    {
        QTest::mouseMove(view, (grip + along * millimetres * view->pixelsPerMillimetre()).toPoint());
        everythingShown();
    }
    /// What stands on the screen, put there by however many partial paintings.
    [[nodiscard]] QImage onScreen() const
    {
        const QPoint at = view->mapTo(&shown.window, QPoint());
        return shown.window.screen()->grabWindow(shown.window.winId(), at.x(), at.y(), view->width(), view->height()).toImage();
    }

    QPointF along;
    std::string pointer;
};

} // namespace

class DrawingTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init() { freshSettings(); }

    /// Two hundred sheets, each a little different from the last, against inking each of them from nothing.
    void keptStrokesLookAsIfInkedAnew()
    {
        Layers layers;
        std::vector<int> keys(40);
        std::iota(keys.begin(), keys.end(), 1);
        int next = 100;
        int kept = 0;
        for (int sheet = 0; sheet < 200; ++sheet) {
            for (int change = among(0, 3); change > 0; --change) {
                const auto at = keys.begin() + among(0, static_cast<int>(keys.size()) - 1);
                switch (among(0, 2)) {
                case 0:
                    *at = next++;
                    break;
                case 1:
                    keys.insert(at, next++);
                    break;
                default:
                    keys.erase(at);
                }
            }
            std::vector<Stroke> strokes;
            std::ranges::transform(keys, std::back_inserter(strokes), randomStroke);
            QImage inked(320, 240, QImage::Format_RGB32);
            QImage laid(inked.size(), inked.format());
            for (QImage* image : { &inked, &laid }) {
                image->fill(Qt::white);
                QPainter p(image);
                p.setRenderHint(QPainter::Antialiasing);
                if (image == &laid)
                    layers.paint(p, strokes, image->rect());
                else
                    for (const Stroke& stroke : strokes)
                        stroke.ink(p);
            }
            // Laying half-covered pixels on rounds a little differently from inking them one by one.
            QVERIFY2(difference(inked, laid) <= 4, qPrintable(QStringLiteral("sheet %1: %2").arg(sheet).arg(difference(inked, laid))));
            kept += static_cast<int>(strokes.size()) - layers.inked();
        }
        QVERIFY(kept > 2000);
    }

    void onlyWhatChangedIsSaidToHaveChanged()
    {
        std::vector<Stroke> strokes { randomStroke(1), randomStroke(2), randomStroke(3) };
        const QRect area(0, 0, 320, 240);
        QImage image(area.size(), QImage::Format_RGB32);
        Layers layers;
        QCOMPARE(layers.changed(strokes, area), area);
        QPainter p(&image);
        layers.paint(p, strokes, area);
        QVERIFY(layers.changed(strokes, area).isEmpty());
        const QRectF before = strokes[1].bounds;
        strokes[1] = randomStroke(20);
        QCOMPARE(layers.changed(strokes, area), (before | strokes[1].bounds).toAlignedRect() & area);
    }

    void whatDiffersInAnythingIsUnlike()
    {
        QPainterPath box;
        box.addRect(0, 0, 10, 10);
        QPainterPath larger;
        larger.addRect(0, 0, 10, 10.001);
        Ink ink;
        ink.stroke = Qt::black;
        Ink dashed = ink;
        dashed.line = Qt::DashLine;
        Ink hatched = ink;
        hatched.hatch = Hatch::Rising;
        std::set<std::size_t> numbers;
        for (const QPainterPath& path : { box, larger })
            for (const Ink& each : { ink, dashed, hatched })
                numbers.insert((Likeness() << path << each).number());
        QCOMPARE(numbers.size(), 6U);
        QCOMPARE((Likeness() << box << ink).number(), (Likeness() << box << ink).number());
    }

    void whileDraggingTheScreenShowsWhatAWholePaintingWould_data()
    {
        QTest::addColumn<int>("place");
        QTest::addColumn<QByteArray>("ending");
        QTest::newRow("spacer") << 0 << QByteArray("/spacer_mm");
        QTest::newRow("station of the barrel") << 2 << QByteArray("/barrel/4/inside_radius_mm");
    }
    void whileDraggingTheScreenShowsWhatAWholePaintingWould()
    {
        QFETCH(int, place);
        QFETCH(QByteArray, ending);
        Held held(place, ending.constData());
        int inked = 0;
        for (const double millimetres : { 1.0, 2.0, 3.0, 6.0, -2.0, 2.0, 2.5, 2.0, 2.5 }) {
            held.moveTo(millimetres);
            inked = held.view->layers().inked();
            // What arrives between both pictures is in one of them only: then they are taken again. What is not painted stays away.
            int apart = 255;
            for (int again = 0; again < 3 && apart > 6; ++again) {
                if (again > 0)
                    QCoreApplication::processEvents();
                const QImage screen = held.onScreen();
                apart = difference(screen, held.view->grab().toImage());
            }
            QVERIFY2(apart <= 6, qPrintable(QStringLiteral("%1 mm: %2").arg(millimetres).arg(apart)));
        }
        const Sheet& sheet = held.view->sheet();
        QVERIFY(3 * inked < 2 * static_cast<int>(sheet.areas.size() + sheet.letters.size() + sheet.dimensions.size()));
    }

    void whatIsHeldStaysUnderTheHand()
    {
        Held held;
        const QRectF extent = held.view->sheet().extent;
        for (const double millimetres : { 2.0, 5.0, 9.0 }) {
            held.moveTo(millimetres);
            QCOMPARE(held.view->sheet().extent, extent);
            const auto& handles = held.view->sheet().handles;
            const auto handle = std::ranges::find(handles, held.pointer, &Handle::pointer);
            // To half of the step that dragged values are rounded to, and a pixel.
            const double off = QPointF::dotProduct(held.view->toScreen(handle->at) - held.grip, held.along)
                - millimetres * held.view->pixelsPerMillimetre();
            QVERIFY2(std::abs(off) <= handle->step * 500 * held.view->pixelsPerMillimetre() + 1, qPrintable(QString::number(off)));
        }
        QTest::mouseRelease(held.view, Qt::LeftButton, {}, (held.grip + held.along * 9 * held.view->pixelsPerMillimetre()).toPoint());
        QVERIFY(held.view->sheet().extent != extent);
    }

    /// While a value moves, levels and figures follow at once; remedies when it has come to rest.
    void remediesComeWhenTheValueRests()
    {
        Shown s;
        s.window.document().setPair({ {}, "varnik-355" });
        s.window.setStage(WheelPage::id);
        s.window.slip()->choose("front/barrel-gap");
        const auto pointer = s.window.page(WheelPage::id)->view()->sheet().dimensions.front().pointer;
        auto* field = s.field(pointer);
        field->setFocus();
        s.type(field, "354");
        // While it moves none are sought.
        QCOMPARE(s.window.document().study().remedies, Remedies::LeftOut);
        const Study& moving = s.known();
        QCOMPARE(moving.verdict("front/barrel-gap")->level, Level::Hits);
        QTRY_COMPARE(s.known().remedies, Remedies::Sought);
        QVERIFY(!s.known().verdict("front/barrel-gap")->remedies.empty());
        QCOMPARE(field->text(), QStringLiteral("354"));
        QVERIFY(s.window.document().isPreviewing());
    }

    void aRemedyCanBeTriedBeforeTheValueHasRested()
    {
        Shown s;
        s.window.document().setPair({ {}, "varnik-355" });
        s.window.setStage(WheelPage::id);
        s.window.slip()->choose("front/barrel-gap");
        const auto pointer = s.window.page(WheelPage::id)->view()->sheet().dimensions.front().pointer;
        auto* field = s.field(pointer);
        field->setFocus();
        s.type(field, "354");
        QTest::keyClick(field, Qt::Key_Return, Qt::ControlModifier);
        // What was typed is put in first, then the remedy that goes with it.
        QCOMPARE(s.window.document().undoStack().count(), 2);
        QCOMPARE(s.known().verdict("front/barrel-gap")->level, Level::Clear);
        s.window.document().undoStack().undo();
        QVERIFY(near(*s.window.document().entry(pointer)->reading->value, 0.354, 1e-9));
    }
};

DEEPSTOP_TEST(DrawingTest)
#include "drawing_test.moc"
