#include "chapters/parts/bench.hpp"

#include "build/choices.hpp"
#include "language/language.hpp"

namespace deepstop {
namespace {

// Common practice, no source.
constexpr double endPlay = 1e-3; ///< of a cable's end in the eye of its lever
constexpr double cableSlack = 15e-3; ///< more than this the adjuster does not take up

/// A parking brake in the new caliper, against the car's cable or loom.
class CaliperParkingCheck {
public:
    CaliperParkingCheck(const Bench& bench, Verdict& v, const Corner& c, const Hub& hub) : bench_(bench), v_(v), c_(c), hub_(hub) { }

    void judge()
    {
        if (c_.caliper.parking == CaliperParking::Electric)
            motor();
        else
            lever();
    }

private:
    void lack(std::string_view what) { v_.lacksInWords.push_back(fmt::format("{} ({})", what, judge::wordFor(bench_.axle()))); }
    [[nodiscard]] std::string say(double length) const { return print(length, style::size, bench_.study().system); }

    void motor()
    {
        v_.method = tr("The car's loom has to drive the caliper's motor: a car with an electric parking brake, and one connector.");
        if (hub_.electricParking == YesNo::No) {
            v_.level = Level::Stop;
            v_.reason = tr("The caliper's motor has nothing on this car to drive it: the parking brake is worked by a cable");
            return;
        }
        if (hub_.electricParking == YesNo::Unknown)
            lack(tr("whether a motor works the parking brake"));
        if (hub_.parkingConnector->empty())
            lack(tr("connector of the car's parking brake"));
        if (c_.caliper.parkingConnector->empty())
            lack(tr("connector of the caliper's parking motor"));
        if (!hub_.parkingConnector->empty() && !c_.caliper.parkingConnector->empty()
            && *hub_.parkingConnector != *c_.caliper.parkingConnector) {
            v_.level = Level::Stop;
            v_.reason =
                tr("The motor's connector “{}” does not go with the car's “{}”", *c_.caliper.parkingConnector, *hub_.parkingConnector);
        } else if (!v_.lacksInWords.empty()) {
            v_.reason = lacking(bench_.study(), {}, v_.lacksInWords);
        } else {
            // That the plug fits does not mean that current and travel are the same.
            v_.level = Level::Caution;
            v_.reason = tr("The connector fits; whether the car's controller works this motor its maker has to say. Try it on a slope");
        }
    }

    void lever()
    {
        v_.method =
            tr("The cable's end goes into the lever's eye with at most 1 mm of play; the cable out of its sleeve is as long as the lever "
               "needs, or up to 15 mm longer; its travel is at least the lever's until the pads hold; let go, the lever goes back to its "
               "stop.");
        v_.style = style::size;
        if (hub_.electricParking == YesNo::Yes) {
            v_.level = Level::Stop;
            v_.reason = tr("The caliper wants a cable, but a motor works this car's parking brake");
            return;
        }
        const Figure eye = evaluate([&](Evaluator& s) { return s(c_.caliper.leverEye) - s(hub_.cableEnd); });
        const Figure reach = evaluate([&](Evaluator& s) { return s(hub_.cableFree) - s(c_.caliper.leverFree); });
        v_.figure = evaluate([&](Evaluator& s) { return s(hub_.cableTravel) - s(c_.caliper.leverTravel); });
        std::vector<std::string> faults;
        if (eye.value && eye.highest() < 0)
            faults.push_back(tr("the cable's end is {} too wide for the lever's eye", say(-*eye.value)));
        if (eye.value && eye.lowest() > endPlay)
            faults.push_back(tr("the cable's end has {} of play in the lever's eye", say(*eye.value)));
        if (reach.value && reach.highest() < 0)
            faults.push_back(tr("the cable is {} too short", say(-*reach.value)));
        if (reach.value && reach.lowest() > cableSlack)
            faults.push_back(tr("the cable is {} too long", say(*reach.value)));
        if (v_.figure.value && v_.figure.highest() < 0)
            faults.push_back(tr("the cable moves {} less than the lever needs to hold", say(-*v_.figure.value)));
        if (c_.leverReturns == YesNo::No)
            faults.emplace_back(tr("the lever does not go back to its stop: the pads drag and burn"));
        mergeDependencies(v_.figure, eye);
        mergeDependencies(v_.figure, reach);
        v_.figure.effects.resize(v_.figure.value ? v_.figure.restsOn.size() : 0);
        if (!faults.empty()) {
            v_.level = Level::Stop;
            v_.reason = listed(faults, "; ");
            v_.reason[0] = toUpper(v_.reason[0]);
            return;
        }
        if (c_.leverReturns == YesNo::Unknown)
            lack(tr("whether the parking lever goes back to its stop"));
        if (c_.leverReturns == YesNo::Unknown || !eye.value || !reach.value)
            v_.figure.value.reset();
        if (judge::unproven(bench_.study(), v_))
            return;
        const bool sure = eye.lowest() >= 0 && eye.highest() <= endPlay && reach.lowest() >= 0 && reach.highest() <= cableSlack
            && v_.figure.lowest() >= 0;
        v_.level = sure ? Level::Good : Level::Caution;
        v_.reason = tr("Cable and lever go together, {} of travel to spare at worst", say(std::max(0.0, v_.figure.lowest())));
        if (!sure)
            v_.reason += tr("; not certain at this uncertainty: hook it in by hand and pull");
    }

    const Bench& bench_;
    Verdict& v_;
    const Corner& c_;
    const Hub& hub_;
};

} // namespace

void addParkingBrake(const Bench& bench, const SetupParts& after, const SetupParts& before)
{
    const Hub& hub = hubOf(*bench.study().build, bench.axle());
    const Corner* now = after.at(bench.axle()).corner;
    const Corner* was = before.at(bench.axle()).corner;
    if (!now || !was || now == was || bench.axle() == Axle::Front)
        return;
    auto v = bench.begin(checks::parkingBrake, tr("Parking brake"), style::number,
        tr("The car as found holds itself by its rear calipers, by shoes in the rotor's hat, or by its drums; new parts have to keep that, "
           "or "
           "something else has to hold the car."));
    v.caution = tr("Without a parking brake that holds, the car rolls, and in most places it may not be driven. Chock the wheels.");
    const bool drumsGone = was->brakes == BrakeKind::Drums && now->brakes == BrakeKind::Discs;
    const bool caliperGone = hub.parkingBrake == ParkingBrake::InCaliper && !(now->caliper == was->caliper);
    const bool described = now->brakes == BrakeKind::Discs
        && (now->caliper.parking == CaliperParking::Lever || now->caliper.parking == CaliperParking::Electric);
    if (described && !(now->caliper == was->caliper)) {
        CaliperParkingCheck(bench, v, *now, hub).judge();
    } else if (after.setup->parkingBrakeReplaced == YesNo::Yes) {
        // Somebody's word that something holds the car is no reading of what.
        v.level = Level::Caution;
        v.reason = tr("Replaced by another, as said in this setup; nothing of it is described here. Try it on a slope");
    } else if (drumsGone || caliperGone) {
        v.level = Level::Stop;
        v.reason = drumsGone ? tr("The drums held the car: say what replaces them")
                             : tr("The caliper as found held the car: say what replaces it");
    } else if (hub.parkingBrake == ParkingBrake::Unknown) {
        v.lacksInWords.push_back(tr("kind of parking brake ({})", judge::wordFor(bench.axle())));
        v.reason = lacking(bench.study(), {}, v.lacksInWords);
    } else {
        return; // kept as it is; shoes in a hat have a check of their own
    }
    bench.add(std::move(v));
}

} // namespace deepstop
