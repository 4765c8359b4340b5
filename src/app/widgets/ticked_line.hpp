#pragma once
/// A line painted by hand that is said to be fine or at fault, as assistive technology meets it: a list item with a state and actions.

#include "build/build.hpp"

namespace deepstop::app {

class TickedLine {
public:
    virtual ~TickedLine() = default;
    [[nodiscard]] virtual Checked ticked() const = 0;
    /// Whether `state` can be said of it now.
    [[nodiscard]] virtual bool takes(Checked state) const = 0;
    /// Says it, as its button does.
    virtual void tick(Checked state) = 0;
};

/// Makes Qt's accessibility know these lines. Once for the program; more often does nothing.
void tellAccessibilityOfLines();

} // namespace deepstop::app
