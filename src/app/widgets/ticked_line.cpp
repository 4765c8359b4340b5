#include "widgets/ticked_line.hpp"

#include <QAccessibleWidget>
#include <QCoreApplication>

namespace deepstop::app {
namespace {

class AccessibleLine : public QAccessibleWidget {
public:
    AccessibleLine(QWidget* widget, TickedLine& line) : QAccessibleWidget(widget, QAccessible::ListItem), line_(line) { }

    QAccessible::State state() const override
    {
        auto state = QAccessibleWidget::state();
        state.checkable = true;
        state.checked = line_.ticked() == Checked::Fine;
        state.invalid = line_.ticked() == Checked::Fault;
        return state;
    }
    QStringList actionNames() const override
    {
        QStringList names = QAccessibleWidget::actionNames();
        for (const Checked state : { Checked::Fault, Checked::Fine })
            if (line_.takes(state))
                names.prepend(nameOf(state));
        return names;
    }
    QString localizedActionName(const QString& name) const override
    {
        return name == nameOf(Checked::Fine) ? QCoreApplication::translate("TickedLine", "fine")
            : name == nameOf(Checked::Fault) ? QCoreApplication::translate("TickedLine", "fault")
                                             : QAccessibleWidget::localizedActionName(name);
    }
    void doAction(const QString& name) override
    {
        for (const Checked state : { Checked::Fine, Checked::Fault })
            if (name == nameOf(state)) {
                if (line_.takes(state))
                    line_.tick(line_.ticked() == state ? Checked::Open : state);
                return;
            }
        QAccessibleWidget::doAction(name);
    }

private:
    static QString nameOf(Checked state) { return state == Checked::Fine ? QStringLiteral("Fine") : QStringLiteral("Fault"); }
    TickedLine& line_;
};

QAccessibleInterface* made(const QString&, QObject* object)
{
    auto* line = dynamic_cast<TickedLine*>(object);
    return line && object->isWidgetType() ? new AccessibleLine(static_cast<QWidget*>(object), *line) : nullptr;
}

} // namespace

void tellAccessibilityOfLines()
{
    // Qt keeps a factory once, however often it is installed.
    QAccessible::installFactory(made);
}

} // namespace deepstop::app
