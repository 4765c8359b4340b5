#include "language/language.hpp"
#include "sums/entry.hpp"

#include "proving/statistics.hpp"
#include "quantity/parse.hpp"

#include <cmath>

namespace deepstop::sums {
namespace {

/// "41.2, 40 m, 132 ft": lengths parted by commas, plain ones in metres.
std::vector<double> distancesIn(const std::string& text, std::string_view key)
{
    std::vector<double> all;
    for (std::size_t at = 0; at <= text.size();) {
        const auto comma = std::min(text.find(',', at), text.size());
        const auto piece = text.substr(at, comma - at);
        const auto parsed = parseQuantity(piece, Dimension::Length, "m");
        if (!parsed || !(*parsed.value > 0))
            throw BadRequest(fmt::format("{}: {}", key, parsed ? std::string(tr("every distance must be more than 0.")) : parsed.refusal));
        all.push_back(*parsed.value);
        at = comma + 1;
    }
    return all;
}

void compare(const Inputs& in, Answer& out)
{
    const auto before = distancesIn(in.text("before"), "before");
    const auto after = distancesIn(in.text("after"), "after");
    constexpr std::size_t most = 10'000;
    if (before.size() < 2 || after.size() < 2 || before.size() > most || after.size() > most)
        throw BadRequest(tr("{}: two stops at least are wanted.", before.size() < 2 ? tr("before") : tr("after")));
    const auto a = proving::sampleOf(before);
    const auto b = proving::sampleOf(after);
    const auto d = proving::welch(before, after);
    if (!d)
        throw BadRequest(tr("before: no stop differs from another; nothing can be told about their scatter."));
    out.results = { { "mean_before_m", a.mean }, { "mean_after_m", b.mean }, { "difference_m", d->difference }, { "ci95_low_m", d->low },
        { "ci95_high_m", d->high }, { "p_value", d->p }, { "runs_wanted", d->wanted ? Value(static_cast<double>(d->wanted)) : Value() } };
    out.notes.emplace_back(!d->real() ? tr("The scatter overlaps: this is no difference yet.")
            : d->difference > 0       ? tr("Shorter than before: a real difference, at this speed and on this road.")
                                      : tr("Longer than before: a real difference, at this speed and on this road."));
    for (const auto& [list, word] : { std::pair { &before, "before" }, std::pair { &after, "after" } })
        if (const auto trend = proving::trendOf(*list); trend && trend->real())
            out.notes.push_back(tr("The stops {} {} from one to the next: warming tyres or fading pads. Settle that first.", word,
                trend->slope > 0 ? tr("grow") : tr("shrink")));
    if (in.has("speed")) {
        const double speed = positive(in, "speed");
        out.notes.push_back(tr("Mean deceleration {:.2f} and {:.2f} g.", speed * speed / (2 * a.mean * standardGravity),
            speed * speed / (2 * b.mean * standardGravity)));
    }
    out.notes.emplace_back(tr("Runs wanted: each side, to see a difference this large in 80 of 100 such tests."));
}

void speedCorrect(const Inputs& in, Answer& out)
{
    out.results = { { "distance_m", proving::speedCorrected(positive(in, "distance"), positive(in, "speed"), positive(in, "nominal")) } };
    const double off = in["speed"] / in["nominal"];
    if (off < 0.85 || off > 1.15)
        out.notes.emplace_back(tr("More than 15 % from the speed meant: build-up and drag do not go with its square."));
}

void mfdd(const Inputs& in, Answer& out)
{
    const double value = proving::meanFullyDeveloped(
        positive(in, "begin-speed"), notNegative(in, "end-speed"), notNegative(in, "begin-distance"), positive(in, "end-distance"));
    if (!std::isfinite(value))
        throw BadRequest(tr("end-distance: it has to slow down over some distance: end-speed below begin-speed, end-distance beyond "
                            "begin-distance."));
    out.results = { { "mfdd_mps2", value } };
    out.notes.emplace_back(tr("UN R13 takes it between 80 and 10 % of the speed."));
}

} // namespace

std::vector<Entry> provingSums()
{
    using enum Dimension;
    constexpr Style metres { Length, "m", 2, "ft", 1 };
    return {
        { { "compare", tr("Whether stops got shorter, and how sure that is"),
              { { "before", {}, "", "before", "", true, tr("distances, as 53.1,52.4,54 or 174 ft,172 ft") },
                  { "after", {}, "", "after", "", true, tr("the same after") },
                  { "speed", Speed, "km/h", "speed_mps", "", false, tr("they were all from") } },
              { { "mean_before_m", metres, tr("of those before") }, { "mean_after_m", metres, tr("of those after") },
                  { "difference_m", metres, tr("before less after") }, { "ci95_low_m", metres, tr("where the true one lies in 95 of 100") },
                  { "ci95_high_m", metres, tr("as far as there") },
                  { "p_value", { Number, "", 4, "", 4 }, tr("of so large a difference where there is none") },
                  { "runs_wanted", style::count, tr("each side, for this difference at 80 %") } },
              tr("Welch's test; power by the noncentral t.") },
            compare },
        { { "speed-correct", tr("A distance brought to the speed meant"),
              { { "distance", Length, "m", "distance_m", "", true, "measured" }, { "speed", Speed, "km/h", "speed_mps", "", true, "read" },
                  { "nominal", Speed, "km/h", "nominal_mps", "", true, "meant" } },
              { { "distance_m", metres, "d·(v₀/v)²" } }, tr("Kinematics; as UN R13 corrects speeds near the nominal.") },
            speedCorrect },
        { { "mfdd", tr("Mean fully developed deceleration"),
              { { "begin-speed", Speed, "km/h", "begin_speed_mps", "", true, tr("80 % of the speed") },
                  { "end-speed", Speed, "km/h", "end_speed_mps", "", true, tr("10 % of it") },
                  { "begin-distance", Length, "m", "begin_distance_m", "", true, tr("travelled by then") },
                  { "end-distance", Length, "m", "end_distance_m", "", true, tr("the same") } },
              { { "mfdd_mps2", { Acceleration, "m/s²", 2, "m/s²", 2 }, "(v₁² − v₂²)/(2·(s₂ − s₁))" } }, tr("UN R13, from memory.") },
            mfdd },
    };
}

} // namespace deepstop::sums
