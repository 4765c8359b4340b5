#include "drawing/handle_drag.hpp"

#include "document.hpp"

#include <cmath>
#include <utility>

namespace deepstop::app {
namespace {

Reading dragged(const Handle& handle, double value)
{
    return { value, handle.known == Known::Vendor ? std::optional(0.05e-3) : std::nullopt, handle.known, {}, {} };
}

} // namespace

void HandleDrag::take(const Handle& handle)
{
    const auto* entry = document_.entry(handle.pointer);
    handle_ = handle;
    to_.reset();
    from_ = entry ? entry->reading->value.value_or(0) : 0;
}

void HandleDrag::moveBy(QPointF millimetres)
{
    const auto* entry = handle_ ? document_.entry(handle_->pointer) : nullptr;
    if (!entry)
        return;
    const double raw = from_ + QPointF::dotProduct(millimetres, handle_->along) * handle_->metresPerMillimetre;
    const double value = std::round(raw / handle_->step) * handle_->step;
    if (!refusal(entry->address, value).empty() || (to_ && std::abs(*to_ - value) < handle_->step / 2))
        return;
    to_ = value;
    document_.preview(handle_->pointer, dragged(*handle_, value));
}

void HandleDrag::letGo(bool keep)
{
    if (!handle_)
        return;
    const auto handle = *std::exchange(handle_, std::nullopt);
    const auto value = std::exchange(to_, std::nullopt);
    if (keep && value)
        document_.setReading(handle.pointer, dragged(handle, *value));
    else
        document_.endPreview();
}

} // namespace deepstop::app
