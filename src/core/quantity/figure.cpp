#include "quantity/figure.hpp"

namespace deepstop {

Figure evaluate(const std::function<double(Sample&)>& sum, CommonParts* common)
{
    Sample sample;
    sample.common_ = common;
    const double nominal = sum(sample);
    Figure figure;
    figure.assumed = sample.assumed_;
    for (const auto& [reading, isLength, leastWidth, idle] : sample.asked_) {
        figure.restsOn.push_back(reading);
        if (!reading->value)
            figure.lacks.push_back(reading);
        else if (reading->known == Known::Estimated)
            figure.estimated.push_back(reading);
    }
    if (!figure.lacks.empty() || !std::isfinite(nominal))
        return figure;
    figure.value = nominal;
    sample.recording_ = false;
    double squares = 0;
    for (const auto& [reading, isLength, leastWidth, idle] : sample.asked_) {
        const double halfWidth = idle ? 0 : std::max(leastWidth, uncertainty(*reading, isLength));
        if (halfWidth == 0) {
            figure.effects.push_back(0);
            continue;
        }
        double effect = 0;
        sample.shifted_ = reading;
        for (const double sign : { 1.0, -1.0 }) {
            sample.shift_ = sign * halfWidth;
            const double moved = sum(sample);
            if (std::isfinite(moved))
                effect = std::max(effect, std::abs(moved - nominal));
        }
        figure.effects.push_back(effect);
        figure.worstCase += effect;
        squares += effect * effect;
    }
    figure.rootSumSquare = std::sqrt(squares);
    return figure;
}

} // namespace deepstop
