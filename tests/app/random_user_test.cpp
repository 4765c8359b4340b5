/// Somebody who does anything in any order, with mouse and keys, over all pages; beside it a model of what the build should be: what was
/// put in, in order. DEEPSTOP_STEPS says how many steps (200 otherwise), DEEPSTOP_SEED where to begin; the seeds of failures are kept here.

#include "build/mock_ups.hpp"
#include "app/shown.hpp"
#include "drawing/fact_field.hpp"
#include "quantity/entry.hpp"
#include "stages/stop/live_view.hpp"

#include <QDate>
#include <QMenu>

using namespace deepstop;
using namespace deepstop::app;

namespace {

int fromEnvironment(const char* name, int otherwise)
{
    const int said = qEnvironmentVariableIntValue(name);
    return said > 0 ? said : otherwise;
}

class RandomUser {
public:
    RandomUser(const QString& demo, unsigned seed) : shown_(demo), rng_(seed), states_ { shown_.build() }
    {
        shown_.window.resize(1280, 800);
        path_ = dir_.filePath("work.deepstop");
    }

    /// Does one step; tells what was wrong after it, empty where nothing was.
    QString step()
    {
        struct Way {
            int weight;
            void (RandomUser::*act)();
        };
        static constexpr Way ways[] { { 26, &RandomUser::typeAndEnter }, { 12, &RandomUser::typeAndLeave },
            { 8, &RandomUser::typeAndGiveUp }, { 8, &RandomUser::typeNonsense }, { 8, &RandomUser::chooseFact },
            { 8, &RandomUser::turnToPage }, { 10, &RandomUser::turnToSheet }, { 9, &RandomUser::undo }, { 5, &RandomUser::redo },
            { 3, &RandomUser::switchUnits }, { 3, &RandomUser::judgeAnother }, { 3, &RandomUser::copySetup }, { 3, &RandomUser::save },
            { 4, &RandomUser::somethingArrives }, { 3, &RandomUser::tryRemedy }, { 3, &RandomUser::openMenu }, { 3, &RandomUser::nameCar },
            { 3, &RandomUser::dragHandle }, { 2, &RandomUser::wait } };
        int all = 0;
        for (const Way& each : ways)
            all += each.weight;
        int at = among(0, all - 1);
        for (const Way& each : ways)
            if ((at -= each.weight) < 0) {
                (this->*each.act)();
                break;
            }
        QCoreApplication::processEvents();
        return wrong();
    }
    [[nodiscard]] const QString& did() const { return did_; }

    /// All of it undone is the beginning, and done again the end.
    QString undoneAndDoneAgain()
    {
        auto& document = shown_.window.document();
        document.drafts().finish();
        for (const Typing& each : document.drafts().all())
            document.drafts().settle(each.field);
        states_.resize(now_ + 1);
        if (document.build() != states_.back())
            states_.push_back(document.build()); // what was typed last
        const Build end = document.build();
        auto& stack = document.undoStack();
        const int index = stack.index();
        while (stack.canUndo())
            stack.undo();
        if (!(document.build() == states_.front()))
            return "all undone is not the beginning";
        while (stack.index() < index)
            stack.redo();
        return document.build() == end ? QString() : "all done again is not the end";
    }

private:
    int among(int low, int high) { return std::uniform_int_distribution<int>(low, high)(rng_); }
    MainWindow& window() { return shown_.window; }
    Document& document() { return shown_.window.document(); }
    const Build& model() const { return states_[now_]; }
    /// The model goes on to that state, as one step.
    void becomes(Build build)
    {
        if (build == model())
            return;
        foretell(model(), build);
        giveIds(build);
        states_.resize(now_ + 1);
        states_.push_back(std::move(build));
        now_ = states_.size() - 1;
    }
    /// A step whose result only the program knows: it is one step or none.
    void becameOpaque(int steps)
    {
        const int now = document().undoStack().index();
        if (now == steps + 1)
            becomes(document().build());
        else if (now != steps)
            trouble_ = QStringLiteral("%1 steps for one").arg(now - steps);
    }
    QString wrong()
    {
        if (!trouble_.isEmpty())
            return trouble_;
        if (!(document().build() == model())) {
            QString what = "the build is not what was put in:";
            for (const auto& d : differences(model(), document().build(), UnitSystem::Metric))
                what += QString::fromStdString(" " + d.what + ": " + d.before + " → " + d.after + ";");
            return what;
        }
        if (document().isModified() != !(model() == saved_.value_or(first_)))
            return document().isModified() ? "called changed, and is not" : "called clean, and is changed";
        if (const auto fault = faultIn(document().build()); !fault.empty())
            return QString::fromStdString(fault);
        return {};
    }

    DimensionField* anyField()
    {
        QList<DimensionField*> seen;
        for (auto* each : window().page()->view()->findChildren<DimensionField*>())
            if (each->isVisible() && each->pointer().find("/-") == std::string::npos && document().entry(each->pointer()))
                seen << each;
        return seen.isEmpty() ? nullptr : seen[among(0, static_cast<int>(seen.size()) - 1)];
    }
    /// A text near what is there, so that most of it may stand.
    QString textFor(const Directory::Entry& entry)
    {
        const auto& style = entry.address.style;
        const double value = entry.reading->value.value_or((entry.address.range.least + entry.address.range.most) / 2);
        auto text = QString::fromStdString(editable(value * (1 + among(-30, 30) * 1e-3), style.unit(document().units())));
        if (among(0, 5) == 0)
            text += QStringLiteral("?");
        return text;
    }
    /// What the build would be with that text put in, by the core alone; the build as it is where it may not stand there.
    Build with(const std::string& pointer, const QString& text, UnitSystem units)
    {
        const auto* entry = document().entry(pointer);
        const auto read = readEntry(text.toStdString(), entry->address.style, units, *entry->reading,
            QDate::currentDate().toString(Qt::ISODate).toStdString());
        if (!read.reading || !read.refusal.empty() || (read.reading->value && !refusal(entry->address, *read.reading, units).empty()))
            return model();
        return withReading(model(), pointer, *read.reading);
    }
    void typeInto(QLineEdit* line, const QString& text)
    {
        line->setFocus();
        QTest::keyClick(line, Qt::Key_A, Qt::ControlModifier);
        QTest::keyClicks(line, text);
    }

    void typeAndEnter()
    {
        // What stood typed elsewhere is put in when another field is gone to.
        leaveTyping();
        const QPointer<DimensionField> field = anyField();
        if (!field)
            return;
        const auto pointer = field->pointer();
        const auto text = textFor(*document().entry(pointer));
        did_ = QString::fromStdString(pointer) + " ← " + text + " Enter";
        const auto expected = with(pointer, text, document().units());
        typeInto(field, text);
        if (field)
            QTest::keyClick(field, Qt::Key_Return);
        if (field && !field->refusal().isEmpty())
            QTest::keyClick(field, Qt::Key_Escape);
        becomes(expected);
    }
    /// Left half typed: whatever begins next puts it in first.
    void typeAndLeave()
    {
        leaveTyping();
        const QPointer<DimensionField> field = anyField();
        if (!field)
            return;
        pending_ = field->pointer();
        pendingText_ = textFor(*document().entry(pending_));
        pendingUnits_ = document().units();
        did_ = QString::fromStdString(pending_) + " ← " + pendingText_ + " and not put in";
        typeInto(field, pendingText_);
    }
    void typeAndGiveUp()
    {
        leaveTyping();
        const QPointer<DimensionField> field = anyField();
        if (!field)
            return;
        did_ = QString::fromStdString(field->pointer()) + " ← something, then Escape";
        typeInto(field, textFor(*document().entry(field->pointer())));
        if (field)
            QTest::keyClick(field, Qt::Key_Escape);
    }
    void typeNonsense()
    {
        leaveTyping();
        const QPointer<DimensionField> field = anyField();
        if (!field)
            return;
        did_ = QString::fromStdString(field->pointer()) + " ← nonsense";
        static const char* const all[] { "12x", "mm", "--3", "1e999", "33 furlongs", "?" };
        typeInto(field, QString::fromLatin1(all[among(0, 4)]));
        if (field && among(0, 1))
            QTest::keyClick(field, Qt::Key_Return);
    }
    /// Something else begins: the model puts in what was left typed, as the program has to.
    void leaveTyping()
    {
        if (pending_.empty())
            return;
        const auto pointer = std::exchange(pending_, {});
        const auto expected = document().entry(pointer) ? with(pointer, pendingText_, pendingUnits_) : model();
        document().drafts().finish();
        becomes(expected);
    }
    /// The same where the program's own way of ending it is what is tried.
    void willEndTyping()
    {
        if (pending_.empty())
            return;
        const auto pointer = std::exchange(pending_, {});
        becomes(document().entry(pointer) ? with(pointer, pendingText_, pendingUnits_) : model());
    }

    void chooseFact()
    {
        QList<FactField*> seen;
        for (auto* each : window().page()->view()->findChildren<FactField*>())
            if (each->isVisible())
                seen << each;
        if (seen.isEmpty())
            return;
        auto* fact = seen[among(0, static_cast<int>(seen.size()) - 1)];
        auto* box = qobject_cast<QComboBox*>(fact->editor());
        if (!box)
            return;
        willEndTyping();
        const auto word = box->itemText(among(0, box->count() - 1));
        did_ = QString::fromStdString(fact->pointer()) + " is " + word;
        const auto said = withFact(model(), fact->pointer(), word.toStdString());
        box->setFocus(Qt::TabFocusReason);
        box->setCurrentText(word);
        emit box->activated(box->currentIndex());
        if (said.build)
            becomes(*said.build);
    }
    void turnToPage()
    {
        const int number = among(0, 8);
        did_ = QStringLiteral("Ctrl+%1").arg(number + 1);
        willEndTyping();
        QTest::keyClick(focus(), static_cast<Qt::Key>(Qt::Key_1 + number), Qt::ControlModifier);
    }
    void turnToSheet()
    {
        const int count = window().page()->placeCount();
        if (count < 2)
            return;
        did_ = "another sheet";
        willEndTyping();
        if (among(0, 1)) {
            QTest::keyClick(focus(), among(0, 1) ? Qt::Key_Right : Qt::Key_Left, Qt::AltModifier);
            return;
        }
        const int to = among(0, count - 1);
        if (auto* button = window().page()->findChild<QPushButton*>(QStringLiteral("place-%1").arg(to));
            button && button->isVisible() && window().page()->objectName() != "page-centring")
            QTest::mouseClick(button, Qt::LeftButton);
    }
    void undo()
    {
        did_ = "undo";
        leaveTyping(); // in a line with a text of its own undo is the line's
        forgetNonsense();
        did_ += QStringLiteral(" at %1 %2").arg(QString::fromLatin1(focus()->metaObject()->className()), focus()->objectName());
        QTest::keyClick(focus(), Qt::Key_Z, Qt::ControlModifier);
        if (now_ > 0)
            --now_;
    }
    void redo()
    {
        did_ = "redo";
        leaveTyping();
        forgetNonsense();
        QTest::keyClick(focus(), Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
        if (now_ + 1 < states_.size())
            ++now_;
    }
    /// In a line with a text of its own undo is the line's.
    void forgetNonsense()
    {
        if (auto* field = qobject_cast<DimensionField*>(QApplication::focusWidget()))
            QTest::keyClick(field, Qt::Key_Escape);
        else if (auto* line = qobject_cast<QLineEdit*>(QApplication::focusWidget()); line && line->isModified())
            window().page()->view()->setFocus();
    }
    void switchUnits()
    {
        did_ = "Ctrl+M";
        willEndTyping();
        QTest::keyClick(focus(), Qt::Key_M, Qt::ControlModifier);
    }
    void judgeAnother()
    {
        auto* box = among(0, 1) ? window().afterBox() : window().beforeBox();
        const int to = among(0, box->count() - 1);
        did_ = "judges " + box->itemText(to);
        willEndTyping();
        box->setFocus(Qt::TabFocusReason);
        box->setCurrentIndex(to);
        emit box->activated(to);
    }
    QAction* action(const QString& text)
    {
        for (QAction* each : window().findChildren<QAction*>())
            if (each->text().remove('&').startsWith(text))
                return each;
        return nullptr;
    }
    void copySetup()
    {
        if (model().setups.size() > 8)
            return;
        did_ = "copies the setup";
        willEndTyping();
        document().drafts().finish();
        const int steps = document().undoStack().index();
        action("Copy this setup")->trigger();
        becameOpaque(steps);
    }
    void tryRemedy()
    {
        did_ = "tries the first remedy";
        willEndTyping();
        document().drafts().finish();
        const int steps = document().undoStack().index();
        QTest::keyClick(focus(), Qt::Key_Return, Qt::ControlModifier);
        becameOpaque(steps);
    }
    void save()
    {
        did_ = "saves";
        willEndTyping();
        if (!window().saveTo(path_)) {
            trouble_ = "cannot be saved: " + window().notice()->text();
            return;
        }
        saved_ = model();
        // To the twelve figures a file has.
        if (files::writeBuild({ files::loadBuild(path_.toStdString()).build, nullptr })
            != files::writeBuild({ document().build(), nullptr }))
            trouble_ = "the file is not the build";
    }
    /// A stop is heard, or somebody else's edit comes: what is being typed goes on.
    void somethingArrives()
    {
        did_ = "a stop arrives";
        const int steps = document().undoStack().index();
        proving::FoundStop stop;
        stop.speed = 27;
        stop.distance = 40 + among(0, 100) * 0.1;
        emit window().page<StopPage>()->live()->found(stop);
        becameOpaque(steps);
    }
    void openMenu()
    {
        did_ = "opens a menu";
        willEndTyping();
        auto* bar = window().menuBar();
        auto* entry = bar->actions()[among(0, static_cast<int>(bar->actions().size()) - 1)];
        QTest::mousePress(bar, Qt::LeftButton, {}, bar->actionGeometry(entry).center());
        QCoreApplication::processEvents();
        if (auto* menu = QApplication::activePopupWidget())
            menu->close();
    }
    void nameCar()
    {
        willEndTyping();
        auto* line = window().findChild<QLineEdit*>("/car/name");
        const auto name = QStringLiteral("Car %1").arg(among(1, 9));
        did_ = "names the car " + name;
        auto build = model();
        build.car.name = name.toStdString();
        typeInto(line, name);
        if (among(0, 1))
            QTest::keyClick(line, Qt::Key_Return);
        else
            QTest::mousePress(window().page()->view(), Qt::LeftButton, {}, QPoint(3, 3)),
                QTest::mouseRelease(window().page()->view(), Qt::LeftButton, {}, QPoint(3, 3));
        becomes(build);
    }
    void dragHandle()
    {
        auto* view = window().page()->view();
        const auto handles = view->sheet().handles;
        if (handles.empty())
            return;
        willEndTyping();
        const auto& handle = handles[static_cast<std::size_t>(among(0, static_cast<int>(handles.size()) - 1))];
        did_ = "drags " + QString::fromStdString(handle.pointer);
        document().drafts().finish();
        const int steps = document().undoStack().index();
        const auto grip = view->toScreen(handle.at).toPoint();
        if (!view->rect().contains(grip) || view->childAt(grip))
            return;
        QTest::mousePress(view, Qt::LeftButton, {}, grip);
        QTest::mouseMove(view, grip + QPoint(among(-9, 9), among(-9, 9)));
        if (among(0, 2) == 0)
            emit window().page<StopPage>()->live()->found([] {
                proving::FoundStop stop;
                stop.speed = 27;
                stop.distance = 44;
                return stop;
            }());
        if (document().undoStack().index() == steps + 1)
            becomes(document().build());
        const int dragged = document().undoStack().index();
        QTest::mouseRelease(view, Qt::LeftButton, {}, grip);
        becameOpaque(dragged);
    }
    void wait()
    {
        did_ = "waits";
        shown_.waited();
    }
    QWidget* focus() { return QApplication::focusWidget() ? QApplication::focusWidget() : &window(); }

    Shown shown_;
    std::mt19937 rng_;
    QTemporaryDir dir_;
    QString path_;
    std::vector<Build> states_; ///< the beginning, and what each step made
    Build first_ = states_.front();
    std::size_t now_ = 0;
    std::optional<Build> saved_;
    std::string pending_; ///< where something stands typed that was not put in
    QString pendingText_;
    UnitSystem pendingUnits_ = UnitSystem::Metric;
    QString did_;
    QString trouble_;
};

} // namespace

class RandomUserTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase() { beginWindowTests(); }
    void init() { freshSettings(); }

    void theBuildIsWhatWasPutIn_data()
    {
        QTest::addColumn<QString>("demo");
        QTest::addColumn<int>("seed");
        const int seed = fromEnvironment("DEEPSTOP_SEED", 1);
        int number = 0;
        for (const char* demo : { "halden-merle", "linnet", "drover-camper" }) {
            QTest::addRow("%s %d", demo, seed + number) << demo << seed + number;
            ++number;
        }
    }
    void theBuildIsWhatWasPutIn()
    {
        QFETCH(QString, demo);
        QFETCH(int, seed);
        RandomUser user(MainWindow::demoFolder() + "/" + demo + ".deepstop", static_cast<unsigned>(seed));
        const int steps = fromEnvironment("DEEPSTOP_STEPS", 200) / 3;
        QStringList last;
        for (int i = 0; i < steps; ++i) {
            const auto wrong = user.step();
            last << user.did();
            QVERIFY2(wrong.isEmpty(),
                qPrintable(QStringLiteral("step %1: %2; before it: %3")
                               .arg(i)
                               .arg(wrong, last.mid(std::max<qsizetype>(0, last.size() - 6)).join(" | "))));
        }
        const auto wrong = user.undoneAndDoneAgain();
        QVERIFY2(wrong.isEmpty(), qPrintable(wrong));
    }
};

DEEPSTOP_TEST(RandomUserTest)
#include "random_user_test.moc"
