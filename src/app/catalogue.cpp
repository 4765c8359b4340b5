#include "catalogue.hpp"

#include "language/language.hpp"

#include <QCoreApplication>
#include <QLibraryInfo>
#include <QLocale>
#include <QTranslator>

namespace deepstop::app {
namespace {

/// What Qt asks for a sentence of the window, from the one catalogue of window and core.
class Catalogue : public QTranslator {
public:
    using QTranslator::QTranslator;

    [[nodiscard]] bool isEmpty() const override { return false; }
    [[nodiscard]] QString translate(const char*, const char* sentence, const char*, int) const override
    {
        const char* const found = deepstop::tr(sentence);
        return found == sentence ? QString() : QString::fromUtf8(found);
    }
};

} // namespace

void speakTheReadersLanguage()
{
    openCatalogue();
    // Of Qt's own words, on the buttons of its dialogs; without its package they stay English.
    auto* const ofQt = new QTranslator(qApp);
    if (ofQt->load(QLocale::system(), QStringLiteral("qtbase"), QStringLiteral("_"), QLibraryInfo::path(QLibraryInfo::TranslationsPath)))
        QCoreApplication::installTranslator(ofQt);
    QCoreApplication::installTranslator(new Catalogue(qApp));
}

} // namespace deepstop::app
