#pragma once
/// A window with an empty build on its parts bench.

#include "app/shown.hpp"
#include "drawing/fact_field.hpp"
#include "quantity/entry.hpp"

inline constexpr int lastEnteredBench = BenchPage::Scales;

/// A window with an empty build, as File ▸ New build leaves it.
struct Empty : Shown {
    Empty() { QTest::keyClick(&window, Qt::Key_N, Qt::ControlModifier); }
    StagePage* bench() { return window.page(BenchPage::id); }
    QWidget* focus() { return QApplication::focusWidget(); }
    std::string at() { return focus() ? focus()->objectName().toStdString() : std::string(); }
};

/// Which of the demo's kit stands at a place of the new build; both keep it in their second setup.
inline std::string textFor(const Build& kit, const std::string& pointer)
{
    const Directory directory(kit);
    auto place = pointer;
    if (const auto* entry = directory.at(place))
        return entryText(*entry->reading, entry->address.style, UnitSystem::Metric);
    return {};
}

/// Types what the demo's kit says into whatever has the focus, by keys alone, and goes on with Enter. False at the end of the bench.
inline bool enterNext(Empty& s, const Build& kit)
{
    QWidget* w = s.focus();
    const auto pointer = s.at();
    if (auto* box = qobject_cast<QComboBox*>(w)) {
        const auto wanted = QString::fromStdString(factAt(kit, pointer)->value);
        QTest::keyClick(w, Qt::Key_Home);
        for (int i = 0; i < box->count() && box->currentText() != wanted; ++i)
            QTest::keyClick(w, Qt::Key_Down);
        QTest::keyClick(s.focus(), Qt::Key_Return);
    } else if (auto* ticks = qobject_cast<TickRow*>(w)) {
        // c for caliper, p for pads, b for bracket, h for hose, a for hardware …: the letter the row underlines.
        const auto wanted = QString::fromStdString(factAt(kit, pointer)->value);
        for (const auto& [word, key] : { std::pair { "rotor", 'r' }, std::pair { "caliper", 'c' }, std::pair { "pads", 'p' },
                 std::pair { "bracket", 'b' }, std::pair { "hose", 'h' }, std::pair { "hardware", 'a' } })
            if (wanted.split(',').contains(word))
                QTest::keyClick(ticks, key);
        QTest::keyClick(s.focus(), Qt::Key_Return);
    } else if (auto* field = qobject_cast<DimensionField*>(w)) {
        auto wanted = textFor(kit, pointer);
        if (const auto free = pointer.find("/-"); free != std::string::npos) {
            // The next of the list that the new build does not have yet.
            const Directory now(s.window.document().build());
            int have = 0;
            while (now.at(pointer.substr(0, free + 1) + std::to_string(have) + pointer.substr(free + 2)))
                ++have;
            wanted = textFor(kit, pointer.substr(0, free + 1) + std::to_string(have) + pointer.substr(free + 2));
        }
        const bool was = !wanted.empty();
        if (was)
            s.type(field, QString::fromStdString(wanted));
        QTest::keyClick(field, Qt::Key_Return);
        if (field->refusal().size())
            qWarning() << pointer.c_str() << field->refusal();
        if (!was && s.focus() == w)
            return false;
    } else if (auto* line = qobject_cast<QLineEdit*>(w)) {
        s.type(line, QString::fromStdString(factAt(kit, pointer) ? factAt(kit, pointer)->value : std::string()));
        QTest::keyClick(line, Qt::Key_Return);
    } else {
        return false;
    }
    QCoreApplication::processEvents();
    return true;
}
