/// The window in a language nobody speaks (packaging/pseudo.py): what stands there in English was forgotten, what is cut has too little
/// room.

#include "app/shown.hpp"
#include "files/disk.hpp"

#include "language/language.hpp"

#include <QAbstractButton>
#include <QAction>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QRegularExpression>
#include <QTextDocument>

namespace {

/// What is left of a text without what was translated: brackets may lie within brackets.
QString outside(const QString& text)
{
    QString left;
    int depth = 0;
    for (const QChar c : text)
        if (c == QChar(0xab))
            ++depth;
        else if (c == QChar(0xbb))
            --depth;
        else if (depth == 0)
            left += c;
    return left;
}

/// Words that are the reader's own (names in the build), or the same in every language: units, standards, file endings.
QSet<QString> ownWords(const Build& build)
{
    QSet<QString> words;
    static const QRegularExpression word("[A-Za-z]{3,}");
    const auto add = [&](const QString& text) {
        for (auto found = word.globalMatch(text); found.hasNext();)
            words.insert(found.next().captured().toLower());
    };
    add(QString::fromStdString(files::writeBuild({ build, {} })));
    add(QString::fromStdString(files::readFile(DEEPSTOP_DATA "/library/parts.json", 1 << 24)));
    add("mm inch thou psi bar kJ kN kPa MPa kgf lbf mph km/h deg DOT SAE ISO UNF UNC MFDD NMEA GPX CSV PDF STEP STL DXF SVG HTML JSON ABS "
        "Deep Stop "
        "halden merle linnet drover camper ttyS ttyUSB Ctrl Alt Shift Tab Esc Enter Del Ins Space Return F1 min ttyUSB dev max Btu lb ft");
    return words;
}

QString plain(const QString& text)
{
    if (!Qt::mightBeRichText(text))
        return text;
    QTextDocument document;
    document.setHtml(text);
    return document.toPlainText();
}

} // namespace

class LanguageTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase()
    {
        beginWindowTests();
        QVERIFY2(QString::fromUtf8(deepstop::tr("rotor diameter")) != "rotor diameter", "no other language is spoken: LANGUAGE=xx");
    }
    void init() { freshSettings(); }

    void nothingStaysEnglish_data()
    {
        QTest::addColumn<QString>("demo");
        for (const char* demo : { "halden-merle", "linnet", "drover-camper" })
            QTest::newRow(demo) << demo;
    }
    void nothingStaysEnglish()
    {
        QFETCH(QString, demo);
        Shown s(MainWindow::demoFolder() + "/" + demo + ".deepstop");
        own_ = ownWords(s.build());
        eachSheet(s, [&](const StagePage& page, const QString& where) {
            lookAt(s.window, where);
            const Sheet& sheet = page.view()->sheet();
            look(sheet.title, where);
            look(sheet.subtitle, where);
            // A long sentence stands in several lines.
            QStringList lines;
            for (const Lettering& each : sheet.letters)
                lines << each.text;
            look(lines.join(' '), where);
            for (const DimensionLine& each : sheet.dimensions)
                look(each.caption, where), look(each.blank, where);
            for (const FactLine& each : sheet.facts)
                look(each.caption, where);
            for (const Callout& each : sheet.callouts)
                look(each.text, where);
        });
        for (const Verdict& v : s.known().verdicts) {
            const QString where = QString::fromStdString(v.id + ": ");
            for (const std::string& text : { v.title, v.reason, v.method, v.source, v.caution })
                look(QString::fromStdString(text), where);
            for (const Remedy& remedy : v.remedies)
                look(QString::fromStdString(remedy.title), where);
        }
        for (const LedgerLine& line : s.known().ledger)
            look(QString::fromStdString(line.title + " " + line.word), QString::fromStdString(line.id + ": "));
        QVERIFY2(found_.isEmpty(), qPrintable(QStringList(found_.begin(), found_.end()).join("\n")));
    }

    /// A label, a button or a tab shows all of its words, at the smallest comfortable size.
    void nothingIsCut_data() { nothingStaysEnglish_data(); }
    void nothingIsCut()
    {
        QFETCH(QString, demo);
        Shown s(MainWindow::demoFolder() + "/" + demo + ".deepstop");
        s.window.resize(1280, 800);
        QStringList cut;
        eachSheet(s, [&](const StagePage&, const QString& where) {
            for (auto* label : s.window.findChildren<QLabel*>())
                if (label->isVisible() && !label->wordWrap() && label->width() + 1 < label->sizeHint().width())
                    cut << where + label->text();
                else if (label->isVisible() && label->wordWrap() && label->height() + 1 < label->heightForWidth(label->width()))
                    cut << where + label->text();
            for (auto* button : s.window.findChildren<QAbstractButton*>())
                if (button->isVisible() && !button->text().isEmpty()
                    && button->width() < QFontMetrics(button->font()).horizontalAdvance(button->text().remove('&')))
                    cut << where + button->text();
        });
        cut.removeDuplicates();
        QVERIFY2(cut.isEmpty(), qPrintable(cut.join("\n")));
    }

private:
    /// Every sheet of every stage, shown; `see` gets its page and what to call it.
    static void eachSheet(Shown& s, const std::function<void(const StagePage&, const QString&)>& see)
    {
        for (const StageId stage : stageIds()) {
            s.window.setStage(stage);
            auto* page = s.window.page(stage);
            for (int place = 0; place < std::max(1, page->placeCount()); ++place) {
                page->setPlace(place);
                everythingShown();
                see(*page, QString::fromUtf8(stage.data()) + QString(" %1: ").arg(place + 1));
            }
        }
    }
    void look(const QString& text, const QString& where)
    {
        static const QRegularExpression word("[A-Za-z]{3,}");
        for (auto found = word.globalMatch(outside(plain(text))); found.hasNext();)
            if (const QString each = found.next().captured(); !own_.contains(each.toLower())) {
                found_.insert(where + "“" + each + "” in: " + text.left(160));
                return;
            }
    }
    void lookAt(QWidget& window, const QString& page)
    {
        for (auto* widget : window.findChildren<QWidget*>()) {
            if (!widget->isVisible())
                continue;
            const QString where = page + widget->metaObject()->className() + " " + widget->objectName() + " ";
            look(widget->toolTip(), where);
            look(widget->accessibleName(), where);
            look(widget->accessibleDescription(), where);
            if (auto* label = qobject_cast<QLabel*>(widget))
                look(label->text(), where);
            if (auto* button = qobject_cast<QAbstractButton*>(widget))
                look(button->text(), where);
            if (auto* line = qobject_cast<QLineEdit*>(widget))
                look(line->placeholderText(), where);
            if (auto* box = qobject_cast<QComboBox*>(widget))
                for (int i = 0; i < box->count(); ++i)
                    look(box->itemText(i), where);
        }
        for (auto* action : window.findChildren<QAction*>())
            look(action->text().remove('&'), "menu: ");
    }
    QSet<QString> own_;
    QSet<QString> found_;
};

DEEPSTOP_TEST(LanguageTest)
#include "language_test.moc"
