#include "study/figures.hpp"
#include "study/parts.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace deepstop::parts {
namespace {

/// Spacers that can be bought, m; common practice, no source.
constexpr std::array spacerSizes { 3e-3, 5e-3, 8e-3, 10e-3, 12e-3, 15e-3, 20e-3, 25e-3 };
/// Rotors step down by 2 mm, at most 60 mm.
constexpr double rotorStep = 2e-3;
constexpr int rotorSteps = 30;

class Search {
public:
    using Gap = double (*)(Sample&, const Corner&, const Wheel&);

    Search(const Study& study, Axle axle, Gap gap, double wanted)
        : study_(study), build_(*study.build), axle_(axle), gap_(gap), wanted_(wanted), result_(study.after.at(axle)),
          now_(evaluate([&](Sample& s) { return gap(s, *result_.corner, *result_.wheel); }))
    {
    }

    std::vector<Remedy> all()
    {
        if (now_.value) {
            spacer();
            smallerRotor();
        }
        otherWheels();
        return std::move(remedies_);
    }

private:
    std::string say(double length) const { return print(length, style::gap, study_.system); }
    std::string sayChange(double length) const { return printChange(length, style::gap, study_.system); }

    /// Enough at nominal readings, allowing the uncertainty the gap has now; then proven by a full evaluation.
    bool enough(const Corner& corner, const Wheel& wheel) const
    {
        return nominal([&](Sample& s) { return gap_(s, corner, wheel); }) >= wanted_ + now_.worstCase;
    }

    void offer(std::string title, const Corner& corner, const Wheel& wheel, std::vector<std::string> costs)
    {
        auto build = std::make_shared<Build>(build_);
        auto& setup = *std::ranges::find(build->setups, study_.after.setup->id, &Setup::id);
        (axle_ == Axle::Front ? setup.front : setup.rear) = corner;
        const Figure after = evaluate([&](Sample& s) { return gap_(s, corner, wheel); });
        // What cures here and strikes there is no cure.
        if (otherRoom(corner, wheel) <= 0 && !(otherRoom(*result_.corner, *result_.wheel) <= 0))
            return;
        costs.push_back(otherGap(corner, wheel));
        if (after.value && after.lowest() >= wanted_)
            remedies_.push_back({ std::move(title), after, std::move(costs), std::move(build) });
    }

    /// The other gap of this corner must not become the new trouble without being named.
    std::string otherGap(const Corner& corner, const Wheel& wheel) const
    {
        const double other = otherRoom(corner, wheel);
        return fmt::format("{} {}", gap_ == &figures::barrelGap ? "spokes" : "barrel", std::isfinite(other) ? say(other) : std::string("not known"));
    }

    double otherRoom(const Corner& corner, const Wheel& wheel) const
    {
        return nominal([&](Sample& s) { return gap_ == &figures::barrelGap ? figures::spokeGap(s, corner, wheel) : figures::barrelGap(s, corner, wheel); });
    }

    void spacer()
    {
        const double there = result_.corner->spacer.value.value_or(0);
        for (const double size : spacerSizes) {
            if (size <= there)
                continue;
            Corner corner = *result_.corner;
            corner.spacer = { size, 0.05e-3, Known::Vendor, {}, {} };
            if (!enough(corner, *result_.wheel))
                continue;
            std::vector<std::string> costs { fmt::format("wheel {} further out", say(size - there)) };
            const Hub& hub = hubOf(build_, axle_);
            const auto stud = hub.studLength.value;
            const auto hat = corner.rotor.hatThickness.value;
            costs.push_back(stud && hat ? fmt::format("studs stand {} in wheel and nut", say(*stud - *hat - corner.ring.value.value_or(0) - size))
                                        : std::string("measure the studs first"));
            offer(fmt::format("Spacer {}", say(size)), corner, *result_.wheel, std::move(costs));
            return;
        }
    }

    void smallerRotor()
    {
        const Reading& diameter = result_.corner->rotor.outerDiameter;
        if (!diameter.value)
            return;
        for (int i = 1; i <= rotorSteps; ++i) {
            Corner corner = *result_.corner;
            corner.rotor.outerDiameter.value = *diameter.value - i * rotorStep;
            if (!enough(corner, *result_.wheel))
                continue;
            const auto mass = [&](const Corner& c) { return nominal([&](Sample& s) { return figures::ringMass(s, c.rotor); }); };
            const auto radius = [&](const Corner& c) { return nominal([&](Sample& s) { return figures::effectiveRadius(s, c); }); };
            const auto change = [&](double after, double before) {
                return std::isfinite(after / before) ? fmt::format("{} %", figure(after / before - 1, style::share, UnitSystem::Metric)) : std::string("not known");
            };
            offer(fmt::format("Rotor {}, caliper down with it", say(*corner.rotor.outerDiameter.value)), corner, *result_.wheel,
                { fmt::format("heat store {}", change(mass(corner), mass(*result_.corner))),
                    fmt::format("torque {}", change(radius(corner), radius(*result_.corner))) });
            return;
        }
    }

    void otherWheels()
    {
        for (const Wheel& wheel : build_.wheels) {
            if (&wheel == result_.wheel)
                continue;
            Corner corner = *result_.corner;
            corner.wheel = wheel.id;
            std::vector<std::string> costs;
            const auto change = [&](const Reading& after, const Reading& before) -> std::optional<double> {
                return after.value && before.value ? std::optional(*after.value - *before.value) : std::nullopt;
            };
            if (const auto offset = change(wheel.offset, result_.wheel->offset); offset && *offset != 0)
                costs.push_back(fmt::format("offset {}", sayChange(*offset)));
            if (const auto mass = change(wheel.mass, result_.wheel->mass); mass && *mass != 0)
                costs.push_back(fmt::format("wheel {}", printChange(*mass, style::partMass, study_.system)));
            offer(wheel.name, corner, wheel, std::move(costs));
        }
    }

    const Study& study_;
    const Build& build_;
    Axle axle_;
    Gap gap_;
    double wanted_;
    const CornerResult& result_;
    Figure now_;
    std::vector<Remedy> remedies_;
};

} // namespace

std::vector<Remedy> roomRemedies(const Study& study, Axle axle, double (*gap)(Sample&, const Corner&, const Wheel&), double wanted)
{
    if (!study.after.at(axle).corner || !study.after.at(axle).wheel)
        return {};
    return Search(study, axle, gap, wanted).all();
}

} // namespace deepstop::parts
