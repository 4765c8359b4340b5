#include "widgets/save_dialog.hpp"

#include <QFileDialog>
#include <QFileInfo>

namespace deepstop::app {

QString askWhereToSave(QWidget* parent, const QString& title, const QString& suggestion, const QString& filter, const QString& suffix)
{
    QFileDialog ask(parent, title, QFileInfo(suggestion).path(), filter);
    ask.setObjectName(QStringLiteral("save-dialog"));
    ask.setAcceptMode(QFileDialog::AcceptSave);
    ask.setFileMode(QFileDialog::AnyFile);
    // With it the dialog asks about the name that is written in the end, not about the one that was typed.
    ask.setDefaultSuffix(suffix);
    ask.selectFile(QFileInfo(suggestion).fileName());
    if (ask.exec() != QDialog::Accepted || ask.selectedFiles().isEmpty())
        return {};
    return ask.selectedFiles().front();
}

} // namespace deepstop::app
