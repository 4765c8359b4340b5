#pragma once
/// Asking where to save.

#include <QString>

class QWidget;

namespace deepstop::app {

/// The name chosen, with `suffix` where it had none, or empty. A file that has that very name is asked for before it is replaced.
[[nodiscard]] QString askWhereToSave(
    QWidget* parent, const QString& title, const QString& suggestion, const QString& filter, const QString& suffix);

} // namespace deepstop::app
