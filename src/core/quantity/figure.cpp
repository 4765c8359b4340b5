#include "quantity/figure.hpp"

#include "task/cancel.hpp"

namespace deepstop {

Figure Sample::figureOf(double nominal) const
{
    Figure figure;
    figure.assumed = assumed_;
    for (const Asked& asked : asked_) {
        figure.restsOn.emplace_back(*asked.reading);
        if (!asked.reading->value)
            figure.lacks.emplace_back(*asked.reading);
        else if (asked.reading->known == Known::Estimated)
            figure.estimated.emplace_back(*asked.reading);
    }
    if (figure.lacks.empty() && std::isfinite(nominal))
        figure.value = nominal;
    return figure;
}

Figure asRead(const std::function<double(Sample&)>& sum)
{
    Sample sample;
    const double nominal = sum(sample);
    Figure figure = sample.figureOf(nominal);
    figure.effects.assign(figure.value ? figure.restsOn.size() : 0, 0.0);
    return figure;
}

Figure evaluate(const std::function<double(Sample&)>& sum, CommonParts* common)
{
    Sample sample;
    sample.common_ = common;
    const double nominal = sum(sample);
    Figure figure = sample.figureOf(nominal);
    if (!figure.value)
        return figure;
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
            endIfCancelled();
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
