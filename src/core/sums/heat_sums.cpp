#include "language/language.hpp"
#include "sums/entry.hpp"

#include "heat/heat.hpp"

#include <cmath>

namespace deepstop::sums {
namespace {

void flash(const Inputs& in, Answer& out)
{
    const auto flash = heat::flash(notNegative(in, "flux"), positive(in, "duration"), positive(in, "conductivity"), positive(in, "density"),
        positive(in, "specific-heat"));
    out.results = { { "surface_rise_max_K", flash.rise }, { "at_s", flash.at } };
    const double deep = std::sqrt(in["conductivity"] / (in["density"] * in["specific-heat"]) * in["duration"]);
    out.notes.push_back(
        tr("Semi-infinite body: holds where the ring's plate is thicker than about {:.1f} mm; a thinner one gets hotter.", deep * 1000));
}

void repeatedStops(const Inputs& in, Answer& out)
{
    const double stops = positive(in, "stops");
    if (stops != std::floor(stops) || stops > 1e6)
        throw BadRequest(tr("stops: a whole number up to a million is wanted."));
    const auto repeated = heat::repeatedStops(positive(in, "rise"), positive(in, "interval"), static_cast<int>(stops),
        notNegative(in, "coefficient"), positive(in, "area"), positive(in, "mass"), positive(in, "specific-heat"));
    out.results = { { "peak_K", repeated.peak }, { "steady_peak_K", std::isfinite(repeated.steady) ? Value(repeated.steady) : Value() } };
    if (in.has("ambient"))
        out.notes.push_back(tr("Right after the last stop the ring is at {:.0f} °C.", in["ambient"] + repeated.peak - 273.15));
    out.notes.emplace_back(tr("Over ambient. Quick stops, one ring temperature, constant cooling; radiation and the hat are left out."));
    if (!std::isfinite(repeated.steady))
        out.notes.emplace_back(tr("Without cooling it never comes to rest."));
}

void coolingTime(const Inputs& in, Answer& out)
{
    const double time = heat::coolingTime(in["from"], in["to"], in["ambient"], positive(in, "coefficient"), positive(in, "area"),
        positive(in, "mass"), positive(in, "specific-heat"));
    if (!std::isfinite(time))
        throw BadRequest(tr("to: must lie between ambient and from; what cools never gets below the air round it."));
    out.results = { { "time_s", time } };
    out.notes.emplace_back(tr("One temperature, constant cooling: m·c/(h·A)·ln((from − ambient)/(to − ambient))."));
}

} // namespace

std::vector<Entry> heatSums()
{
    using enum Dimension;
    const Key coefficient { "coefficient", HeatTransfer, "W/m²K", "coefficient_W_per_m2K", "", true, tr("of heat transfer to the air") };
    const Key area { "area", Area, "cm²", "area_m2", "", true, tr("that cools") };
    const Key mass { "mass", Mass, "kg", "mass_kg", "", true, tr("of the ring") };
    const Key specific { "specific-heat", SpecificHeat, "J/kgK", "specific_heat_J_per_kgK", "", true, tr("of it; grey iron 480") };
    const Key air { "ambient", Temperature, "°C", "ambient_K", "20", false, tr("air round it") };
    return {
        { { "flash", tr("How hot a rubbing face gets within one stop"),
              { { "flux", HeatFlux, "W/m²", "flux_W_per_m2", "", true, tr("into the face when the stop begins") },
                  { "duration", Time, "s", "duration_s", "", true, tr("of the stop; the flux falls linearly to nothing") },
                  { "conductivity", Conductivity, "W/mK", "conductivity_W_per_mK", "", true, tr("of the ring; grey iron 50") },
                  { "density", Density, "kg/m³", "density_kg_per_m3", "", true, tr("of it; grey iron 7200") }, specific },
              { { "surface_rise_max_K", style::rise, "4/(3·√(2π))·q₀·√(t/(k·ρ·c))" }, { "at_s", style::seconds, "t/2" } },
              tr("Heat conduction into a semi-infinite body, Carslaw and Jaeger, from memory.") },
            flash },
        { { "repeated-stops", tr("How hot a ring gets by stop after stop"),
              { { "rise", TemperatureRise, "K", "rise_K", "", true, tr("of the ring in one stop") },
                  { "interval", Time, "s", "interval_s", "", true, tr("from stop to stop") },
                  { "stops", Number, "", "stops", "", true, tr("how many") }, coefficient, area, mass, specific, air },
              { { "peak_K", style::rise, tr("over ambient, right after the last stop") },
                  { "steady_peak_K", style::rise, tr("after very many; null without cooling") } },
              tr("Newton's cooling between the stops, a geometric series.") },
            repeatedStops },
        { { "cooling-time", tr("How long it takes to cool"),
              { { "from", Temperature, "°C", "from_K", "", true, tr("temperature now") },
                  { "to", Temperature, "°C", "to_K", "", true, tr("temperature wanted") }, air, coefficient, area, mass, specific },
              { { "time_s", { Time, "s", 0, "s", 0 }, tr("m·c/(h·A)·ln of the ratio") } }, tr("Newton's cooling.") },
            coolingTime },
    };
}

} // namespace deepstop::sums
