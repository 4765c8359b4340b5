#pragma once

namespace deepstop::app {

/// Opens the catalogue for the language the desktop is set to, and lets the window speak from it. Once, after the application was made.
void speakTheReadersLanguage();

} // namespace deepstop::app
