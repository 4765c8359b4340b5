#pragma once
/// A handle of the sheet, taken hold of and dragged: its reading is tried while it moves, and put in when it is let go.

#include "drawing/sheet.hpp"

#include <optional>

namespace deepstop::app {

class Document;

class HandleDrag {
public:
    explicit HandleDrag(Document& document) : document_(document) { }

    [[nodiscard]] bool isHolding() const { return handle_.has_value(); }
    [[nodiscard]] bool holds(const Handle& handle) const { return handle_ && handle_->pointer == handle.pointer; }
    void take(const Handle& handle);
    /// @param millimetres of the sheet, from where it was taken
    void moveBy(QPointF millimetres);
    /// @param keep puts in what it was dragged to, as one step of undo; else all is as before
    void letGo(bool keep);

private:
    Document& document_;
    std::optional<Handle> handle_;
    double from_ = 0; ///< its reading when it was taken
    std::optional<double> to_; ///< what it shows now, where it has moved
};

} // namespace deepstop::app
