#pragma once
/// Inside files/: lettering on paper, in the shipped fonts. Whatever alphabet a name is in, it is shaped and drawn in reading order; no
/// letter is a box while one of the shipped fonts has it.

#include <string>

struct _cairo; // of the drawing library: a context

namespace deepstop::files {

/// Draws a text from the current place of the path on, `size` high in units of the context.
void showText(_cairo* context, const std::string& text, double size);
/// Its width at that size. May be called from any thread.
[[nodiscard]] double widthOfText(const std::string& text, double size);
/// Letters of a text that no shipped font has, for tests.
[[nodiscard]] int lettersMissing(const std::string& text);

} // namespace deepstop::files
