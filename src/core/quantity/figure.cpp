#include "quantity/figure.hpp"

#include "language/language.hpp"
#include "task/cancel.hpp"

namespace deepstop {

void mergeDependencies(Figure& figure, const Figure& also)
{
    const auto add = [](auto& into, const auto& from) {
        for (const auto& each : from)
            if (std::ranges::find(into, each) == into.end())
                into.push_back(each);
    };
    add(figure.restsOn, also.restsOn);
    add(figure.lacks, also.lacks);
    add(figure.estimated, also.estimated);
    add(figure.assumed, also.assumed);
    add(figure.facts, also.facts);
}

Figure Evaluator::figureOf(double nominal) const
{
    Figure figure;
    figure.assumed = assumed_;
    for (const Asked& asked : asked_) {
        figure.restsOn.emplace_back(*asked.reading);
        if (!asked.reading->value)
            figure.lacks.emplace_back(*asked.reading);
        else if (provesNothing(asked.reading->known))
            figure.estimated.emplace_back(*asked.reading);
    }
    if (figure.lacks.empty() && std::isfinite(nominal))
        figure.value = nominal;
    return figure;
}

Figure asRead(const std::function<double(Evaluator&)>& sum)
{
    const NotingScope scope;
    Evaluator sample;
    const double nominal = sum(sample);
    Figure figure = sample.figureOf(nominal);
    figure.facts = scope.looked.facts.all();
    figure.effects.assign(figure.value ? figure.restsOn.size() : 0, 0.0);
    return figure;
}

namespace {

/// Fills in how far a figure may be off, from its results with each reading at its limits.
void addInterval(Figure& figure, const std::vector<std::pair<double, double>>& atLimits)
{
    double squares = 0;
    for (const auto& [high, low] : atLimits) {
        const double effect = std::isfinite(high) && std::isfinite(low)
            ? std::max(std::abs(high - *figure.value), std::abs(low - *figure.value))
            : std::numeric_limits<double>::infinity();
        figure.effects.push_back(effect);
        figure.worstCase += effect;
        squares += effect * effect;
    }
    figure.rootSumSquare = std::sqrt(squares);
    if (std::isinf(figure.worstCase))
        figure.assumed.emplace_back(tr("readings that are not at their limits, where there is no result"));
}

} // namespace

Evaluation evaluateAtLimits(const std::function<double(Evaluator&)>& sum)
{
    const NotingScope scope;
    Evaluator sample;
    const double nominal = sum(sample);
    Evaluation result { sample.figureOf(nominal), {} };
    result.figure.facts = scope.looked.facts.all();
    if (!result.figure.value)
        return result;
    sample.recording_ = false;
    for (const auto& [reading, isLength, leastWidth, idle] : sample.asked_) {
        const double halfWidth = idle ? 0 : std::max(leastWidth, uncertainty(*reading, isLength));
        auto& [high, low] = result.atLimits.emplace_back(nominal, nominal);
        if (halfWidth == 0)
            continue;
        endIfCancelled();
        sample.shifted_ = reading;
        sample.shift_ = halfWidth;
        high = sum(sample);
        sample.shift_ = -halfWidth;
        low = sum(sample);
    }
    result.figure.facts = scope.looked.facts.all();
    addInterval(result.figure, result.atLimits);
    return result;
}

Figure evaluate(const std::function<double(Evaluator&)>& sum) { return evaluateAtLimits(sum).figure; }

Figure difference(const Evaluation& of, const Evaluation& less)
{
    Figure figure = of.figure;
    figure.value.reset();
    figure.effects.clear();
    figure.worstCase = figure.rootSumSquare = 0;
    mergeDependencies(figure, less.figure);
    if (!of.figure.value || !less.figure.value)
        return figure;
    figure.value = *of.figure.value - *less.figure.value;
    const auto limitsOf = [](const Evaluation& e, ReadingId reading) {
        const auto at = static_cast<std::size_t>(std::ranges::find(e.figure.restsOn, reading) - e.figure.restsOn.begin());
        return at < e.atLimits.size() ? e.atLimits[at] : std::pair { *e.figure.value, *e.figure.value };
    };
    std::vector<std::pair<double, double>> atLimits;
    for (const ReadingId reading : figure.restsOn) {
        const auto [high, low] = limitsOf(of, reading);
        const auto [lessHigh, lessLow] = limitsOf(less, reading);
        atLimits.emplace_back(high - lessHigh, low - lessLow);
    }
    addInterval(figure, atLimits);
    return figure;
}

} // namespace deepstop
