#include "heat/network.hpp"

#include "heat/convection.hpp"
#include "quantity/unit.hpp"
#include "task/cancel.hpp"

#include <boost/numeric/odeint.hpp>

#include <algorithm>
#include <cmath>

namespace deepstop::heat {
namespace {

constexpr double room = 293.15;
constexpr int mostLayers = 8;
// One wheel: layers of the ring, then these; the last two keep the books.
enum Slot { Hat = mostLayers, Lining, Backing, Caliper, Fluid, Hub, In, Lost, PerWheel };
using State = std::array<double, 2 * PerWheel>;

/// Temperature above room of an enthalpy over (m·c): θ = ΔT + β/2 ΔT².
double warmth(double theta, double beta) { return beta > 1e-9 ? (std::sqrt(std::max(0.0, 1 + 2 * beta * theta)) - 1) / beta : theta; }
double enthalpy(double rise, double beta) { return rise + beta / 2 * rise * rise; }

/// One wheel's brake at one moment.
class Wheel {
public:
    Wheel(const Brake& brake, double ambient, int layers)
        : b_(brake), ambient_(ambient), layers_(layers), thick_(brake.depth / layers),
          perLayer_(brake.ringMass * brake.metal.specificHeat / layers)
    {
    }

    [[nodiscard]] double ringAt(const double* x, int layer) const { return room + warmth(x[layer], b_.metal.cRise); }
    /// Of the rubbing face, from the first layer's mean and what flows through it: exact for a parabola.
    [[nodiscard]] double surface(const double* x, double power) const
    {
        return surfaceOver(ringAt(x, 0), layers_ > 1 ? ringAt(x, 1) : 0, power);
    }
    [[nodiscard]] double surfaceOver(double t0, double t1, double power) const
    {
        const double k = conductivity(t0);
        const double inward = layers_ > 1 ? k * (t0 - t1) / thick_ : 0;
        return t0 + (2 * power * (1 - b_.liningShare) / b_.heatedArea + inward) * thick_ / (6 * k);
    }
    void begin(double* x) const
    {
        std::fill(x, x + PerWheel, 0.0);
        for (int i = 0; i < layers_; ++i)
            x[i] = enthalpy(ambient_ - room, b_.metal.cRise);
        for (const int slot : { Hat, Lining, Backing, Caliper, Fluid, Hub })
            x[slot] = ambient_;
    }
    /// Makes one layer of all. What it holds stays.
    void lump(double* x)
    {
        double mean = 0;
        for (int i = 0; i < layers_; ++i)
            mean += x[i] / layers_;
        std::fill(x, x + mostLayers, 0.0);
        x[0] = mean;
        for (const int slot : { In, Lost })
            x[slot] /= layers_;
        thick_ *= layers_;
        perLayer_ *= layers_;
        layers_ = 1;
    }
    [[nodiscard]] double stored(const double* x) const
    {
        double sum = 0;
        for (int i = 0; i < layers_; ++i)
            sum += perLayer_ * (x[i] - enthalpy(ambient_ - room, b_.metal.cRise));
        for (const auto& [slot, store] :
            { std::pair { Hat, b_.hatStore }, std::pair { Lining, b_.liningStore }, std::pair { Backing, b_.backingStore },
                std::pair { Caliper, b_.caliperStore }, std::pair { Fluid, b_.fluidStore }, std::pair { Hub, b_.hubStore } })
            sum += store * (x[slot] - ambient_);
        return sum;
    }
    [[nodiscard]] double in(const double* x) const { return x[In] * perLayer_; }
    [[nodiscard]] double lost(const double* x) const { return x[Lost] * perLayer_; }
    [[nodiscard]] Temperatures temperatures(const double* x, double power) const
    {
        double mean = 0;
        for (int i = 0; i < layers_; ++i)
            mean += x[i] / layers_;
        return { room + warmth(mean, b_.metal.cRise), surface(x, power), x[Hat], x[Lining], x[Backing], x[Caliper], x[Fluid], x[Hub] };
    }

    /// Takes the air's coefficients at this moment; they serve until the next look, a step later.
    void look(const double* x, double speed)
    {
        const auto hub = [this](double beside, double overWheel) {
            const double away = overWheel * b_.wheelArea;
            const double wheel = b_.hubToWheel > 0 && away > 0 ? 1 / (1 / b_.hubToWheel + 1 / away) : 0;
            return b_.hubToAir + beside * b_.hubArea + wheel;
        };
        if (b_.coefficient >= 0) {
            toAir_ = { b_.coefficient * b_.openFaces, b_.coefficient * b_.vaneArea, b_.coefficient * b_.hatArea,
                b_.coefficient * b_.caliperArea, hub(b_.coefficient, b_.coefficient) };
            return;
        }
        const auto film = [&](double temperature) { return (temperature + ambient_) / 2; };
        const double back = ringAt(x, layers_ - 1);
        // The coefficient of the faces serves what stands beside them as well: half of it the hat and the wheel, six tenths the caliper,
        // three the hub in its lee (common practice). A duct blows at the ring alone.
        // Thin air counts as slow air: Re goes with both.
        const double wind = b_.airDensity * speed;
        const double open = discFaces(b_.diameter, wind, film(ringAt(x, 0)));
        const double rim = b_.diameter / 2 / b_.tyreRadius * wind;
        toAir_.faces = forced(b_.duct * open) * b_.openFaces;
        toAir_.vanes = b_.vaneArea <= 0 ? 0
            : b_.channel > 0 ? forced(b_.duct * vaneChannels(b_.channel, b_.channelLength, rim, film(back)) / sheltered) * b_.vaneArea
                             : forced(b_.duct * open) * b_.vaneArea;
        toAir_.hat = forced(0.5 * open) * b_.hatArea;
        toAir_.caliper = forced(0.6 * open) * b_.caliperArea;
        toAir_.hub = hub(forced(0.3 * open), forced(0.5 * open));
    }

    void flow(const double* x, double* dx, double power, bool pressed) const
    {
        std::array<double, mostLayers> heat {};
        std::array<double, mostLayers> ring {};
        for (int i = 0; i < layers_; ++i)
            ring[static_cast<std::size_t>(i)] = ringAt(x, i);
        const double hot = surfaceOver(ring[0], ring[1], power);
        // Into ring and linings, by what they can take at once; then between them as long as they touch.
        heat[0] += power * (1 - b_.liningShare);
        double lining = power * b_.liningShare;
        const double across = b_.liningConductance * (pressed ? 1 : touching) * (hot - x[Lining]);
        heat[0] -= across;
        lining += across;
        for (std::size_t i = 0; i + 1 < static_cast<std::size_t>(layers_); ++i) {
            const double a = ring[i];
            const double b = ring[i + 1];
            const double through = conductivity((a + b) / 2) * b_.heatedArea / thick_ * (a - b);
            heat[i] -= through;
            heat[i + 1] += through;
        }
        // To the air: faces, channels, everything else.
        const auto shine = [&](double emissivity, double area, double hotter) {
            const double a = hotter * hotter;
            const double b = ambient_ * ambient_;
            return b_.coefficient >= 0 ? 0 : emissivity * stefanBoltzmann * area * (a * a - b * b);
        };
        const double fromFaces = toAir_.faces * (hot - ambient_) + shine(ringEmissivity, b_.openFaces, hot);
        heat[0] -= fromFaces;
        const auto last = static_cast<std::size_t>(layers_ - 1);
        const double back = ring[last];
        const double fromVanes = toAir_.vanes * (back - ambient_);
        const double toHat = b_.ringToHat * (back - x[Hat]);
        heat[last] -= fromVanes + toHat;
        const double hatAir = toAir_.hat * (x[Hat] - ambient_) + shine(bodyEmissivity, b_.hatArea, x[Hat]);
        const double toHub = b_.hatToHub * (x[Hat] - x[Hub]);
        const double hubAir = toAir_.hub * (x[Hub] - ambient_);
        const double toBacking = b_.liningConductance * (x[Lining] - x[Backing]);
        const double toCaliper = b_.backingToCaliper * (x[Backing] - x[Caliper]);
        const double toFluid = b_.backingToFluid * (x[Backing] - x[Fluid]);
        const double wet = b_.caliperToFluid * (x[Fluid] - x[Caliper]);
        const double shone = betweenEmissivity * stefanBoltzmann * b_.facesRing
            * (hot * hot * hot * hot - x[Caliper] * x[Caliper] * x[Caliper] * x[Caliper]);
        heat[0] -= shone;
        const double caliperAir = toAir_.caliper * (x[Caliper] - ambient_ - bathed * (hot - ambient_));
        const double gone = fromFaces + fromVanes + hatAir + hubAir + caliperAir;
        for (int i = 0; i < layers_; ++i)
            dx[i] = heat[static_cast<std::size_t>(i)] / perLayer_;
        for (int i = layers_; i < mostLayers; ++i)
            dx[i] = 0;
        dx[Hat] = (toHat - toHub - hatAir) / b_.hatStore;
        dx[Hub] = (toHub - hubAir) / b_.hubStore;
        dx[Lining] = (lining - toBacking) / b_.liningStore;
        dx[Backing] = (toBacking - toCaliper - toFluid) / b_.backingStore;
        dx[Fluid] = (toFluid - wet) / b_.fluidStore;
        dx[Caliper] = (toCaliper + wet + shone - caliperAir) / b_.caliperStore;
        dx[In] = power / perLayer_;
        dx[Lost] = gone / perLayer_;
    }

private:
    /// Of the contact, left while the pads only lie near the ring; common practice, without a source.
    static constexpr double touching = 0.2;

    [[nodiscard]] double conductivity(double temperature) const
    {
        return b_.metal.conductivity * std::max(0.2, 1 + b_.metal.kRise * (temperature - room));
    }
    [[nodiscard]] double forced(double open) const { return std::max(atRest, sheltered * b_.cooling * open); }

    struct ToAir {
        double faces; ///< W/K
        double vanes;
        double hat;
        double caliper;
        double hub;
    };

    const Brake& b_;
    ToAir toAir_ { 0, 0, 0, 0, 0 };
    double ambient_;
    int layers_;
    double thick_;
    double perLayer_;
};

bool makesSense(const Brake& b)
{
    return b.ringMass > 0 && b.heatedArea > 0 && b.depth > 0 && b.diameter > 0 && b.tyreRadius > 0 && b.hatStore > 0 && b.hubStore > 0
        && b.liningStore > 0 && b.backingStore > 0 && b.caliperStore > 0 && b.fluidStore > 0 && b.openFaces >= 0 && b.vaneArea >= 0
        && b.cooling > 0 && b.duct > 0 && b.facesRing >= 0 && b.hubArea >= 0 && b.wheelArea >= 0 && b.liningShare >= 0 && b.liningShare < 1
        && std::isfinite(b.ringToHat + b.hatToHub + b.hubToAir + b.liningConductance);
}

/// Longer than any day's driving, or so stiff that no computer is done with it: not run.
constexpr double longestDuty = 12 * 3600;
constexpr double looksPerSecond = 200; // of the duty; a usual brake wants a third of them
constexpr double looksToBegin = 20'000;
constexpr double mostLooks = 400'000;
struct NoEnd { };

bool makesSense(const Duty& duty)
{
    return !duty.phases.empty() && std::isfinite(duty.added) && durationOf(duty) <= longestDuty
        && std::ranges::all_of(duty.phases, [](const Phase& p) {
               return p.duration > 0 && p.duration < 1e6 && p.from >= 0 && p.to >= 0 && p.from < 200 && p.to < 200 && std::abs(p.slope) < 1;
           });
}

/// A duty on its way: what every part has taken up, and what is written down of it.
class Driving {
public:
    Driving(const Car& car, const Duty& duty, const Accuracy& accuracy)
        : car_(car), duty_(duty), accuracy_(accuracy), front_(car.front, car.ambient, layersOf(car.front)),
          rear_(car.rear, car.ambient, layersOf(car.rear)),
          allowed_(std::min(mostLooks, looksToBegin + looksPerSecond * durationOf(duty)) * std::max(1.0, 1e-3 / accuracy.tolerance))
    {
        front_.begin(x_.data());
        rear_.begin(x_.data() + PerWheel);
    }

    Run driven()
    {
        for (const Phase& phase : duty_.phases) {
            record(phase, 0, x_, true);
            if (!follow(phase))
                return std::move(result_);
            clock_ += phase.duration;
            distance_ += (phase.from + phase.to) / 2 * phase.duration;
        }
        const Phase& end = duty_.phases.back();
        clock_ -= end.duration;
        distance_ -= (end.from + end.to) / 2 * end.duration;
        record(end, end.duration, x_, true);
        clock_ += end.duration;
        distance_ += (end.from + end.to) / 2 * end.duration;
        result_.front = { front_.in(x_.data()), front_.stored(x_.data()), front_.lost(x_.data()) };
        result_.rear = { rear_.in(x_.data() + PerWheel), rear_.stored(x_.data() + PerWheel), rear_.lost(x_.data() + PerWheel) };
        result_.complete = stand();
        return std::move(result_);
    }

private:
    [[nodiscard]] int layersOf(const Brake& b) const
    {
        return static_cast<int>(std::clamp(std::round(b.depth / accuracy_.cell), 2.0, static_cast<double>(mostLayers)));
    }
    [[nodiscard]] static double speedIn(const Phase& phase, double t)
    {
        return phase.from + (phase.to - phase.from) * std::clamp(t / phase.duration, 0.0, 1.0);
    }
    /// Where the brakes do not make what is asked for, they go on with what they do.
    [[nodiscard]] double made(double asked, double frontFriction, double rearFriction)
    {
        if (!(asked > 0))
            return asked;
        const double tyres = car_.grip * (car_.road.mass + duty_.added) * standardGravity;
        const double foot = car_.mostForce ? car_.mostForce(frontFriction, rearFriction) : asked;
        result_.footFellShort = result_.footFellShort || foot < asked;
        return std::min({ asked, tyres, foot });
    }

    [[nodiscard]] Moment observed(const Phase& phase, double t, const State& state)
    {
        const double speed = speedIn(phase, t);
        const double asked = speed > 0 ? brakePower(car_.road, duty_, phase, speed) / speed : 0;
        double force = asked;
        // The share hangs on temperatures that hang on it a little; one turn is enough for a picture of it.
        double share = 0.7;
        double frontFriction = 1;
        double rearFriction = 1;
        for (int i = 0; i < 2; ++i) {
            frontFriction = car_.frontFriction(front_.surface(state.data(), share * force * speed / 2));
            rearFriction = car_.rearFriction(rear_.surface(state.data() + PerWheel, (1 - share) * force * speed / 2));
            force = made(asked, frontFriction, rearFriction);
            share = car_.frontShare(force, frontFriction, rearFriction);
        }
        const double power = force * speed;
        return Moment { clock_ + t, distance_ + (phase.from + speed) / 2 * t, speed, phase.stop, power, share, force, asked, frontFriction,
            rearFriction, front_.temperatures(state.data(), share * power / 2),
            rear_.temperatures(state.data() + PerWheel, (1 - share) * power / 2) };
    }
    void peaks(const Temperatures& ofFront, const Temperatures& ofRear)
    {
        for (std::size_t i = 0; i < nodeCount; ++i) {
            result_.frontPeak[i] = std::max(result_.frontPeak[i], ofFront[i]);
            result_.rearPeak[i] = std::max(result_.rearPeak[i], ofRear[i]);
        }
    }
    void record(const Phase& phase, double t, const State& state, bool always)
    {
        const bool keeps = always || result_.course.empty() || clock_ + t - result_.course.back().time >= accuracy_.every;
        if (!keeps && !phase.braking) {
            peaks(front_.temperatures(state.data(), 0), rear_.temperatures(state.data() + PerWheel, 0));
            return;
        }
        const Moment m = observed(phase, t, state);
        peaks(m.front, m.rear);
        if (keeps)
            result_.course.push_back(m);
    }

    /// From the beginning of a phase to its end. False where the numbers give out.
    bool follow(const Phase& phase)
    {
        // Friction changes slowly beside a step: the share of a phase's beginning serves until the next look at it.
        return integrated(
            phase.duration,
            [&](const State& state, State& dx, double t) {
                const double speed = speedIn(phase, t);
                double power = brakePower(car_.road, duty_, phase, speed);
                double share = 0.5;
                if (power > 0) {
                    const double near = car_.frontFriction(front_.ringAt(state.data(), 0));
                    const double far = car_.rearFriction(rear_.ringAt(state.data() + PerWheel, 0));
                    const double force = made(power / speed, near, far);
                    power = force * speed;
                    share = car_.frontShare(force, near, far);
                }
                front_.flow(state.data(), dx.data(), share * power / 2, power > 0);
                rear_.flow(state.data() + PerWheel, dx.data() + PerWheel, (1 - share) * power / 2, power > 0);
            },
            [&](const State& state, double t) {
                front_.look(state.data(), speedIn(phase, t));
                rear_.look(state.data() + PerWheel, speedIn(phase, t));
                record(phase, t, state, false);
            });
    }

    /// At rest after the duty. Nothing drives a difference within a ring then: it is one lump, and long steps are enough.
    bool stand()
    {
        if (accuracy_.standing <= 0)
            return true;
        front_.lump(x_.data());
        rear_.lump(x_.data() + PerWheel);
        const Phase rest { 0, 0, accuracy_.standing, false, 0, duty_.phases.back().stop };
        constexpr double often = 10;
        return integrated(
            rest.duration,
            [&](const State& state, State& dx, double) {
                front_.flow(state.data(), dx.data(), 0, false);
                rear_.flow(state.data() + PerWheel, dx.data() + PerWheel, 0, false);
            },
            [&](const State& state, double t) {
                front_.look(state.data(), 0);
                rear_.look(state.data() + PerWheel, 0);
                const Moment m = observed(rest, t, state);
                peaks(m.front, m.rear);
                if (result_.standing.empty() || m.time - result_.standing.back().time >= often || t >= rest.duration)
                    result_.standing.push_back(m);
            });
    }

    bool integrated(double duration, auto flow, auto look)
    {
        namespace odeint = boost::numeric::odeint;
        const auto system = [&](const State& state, State& dx, double t) {
            endIfCancelled();
            if (++looks_ > allowed_ || !std::isfinite(state[0]))
                throw NoEnd {};
            flow(state, dx, t);
        };
        auto stepper = odeint::make_controlled(accuracy_.tolerance, 1e-7, odeint::runge_kutta_dopri5<State>());
        // One step too long is taken back and tried shorter.
        const double begins = std::sqrt(accuracy_.tolerance);
        try {
            odeint::integrate_adaptive(stepper, system, x_, 0.0, duration, std::min(begins, duration / 4), look);
        } catch (const NoEnd&) {
            return false;
        } catch (const odeint::no_progress_error&) {
            return false;
        } catch (const odeint::step_adjustment_error&) {
            return false;
        }
        return std::isfinite(x_[0]) && std::isfinite(x_[PerWheel]);
    }

    const Car& car_;
    const Duty& duty_;
    const Accuracy& accuracy_;
    Wheel front_;
    Wheel rear_;
    State x_ {};
    Run result_;
    double clock_ = 0;
    double distance_ = 0;
    double looks_ = 0;
    double allowed_;
};

} // namespace

double liningShareOf(double ringEffusivity, double heatedArea, double liningEffusivity, double liningArea)
{
    return 1 / (1 + ringEffusivity * heatedArea / (liningEffusivity * liningArea));
}

Moment momentAt(const Run& run, double time)
{
    const auto after = std::ranges::upper_bound(run.course, time, {}, &Moment::time);
    if (after == run.course.begin())
        return run.course.front();
    if (after == run.course.end())
        return run.course.back();
    const Moment& a = *std::prev(after);
    const Moment& b = *after;
    const double t = (time - a.time) / (b.time - a.time);
    Moment m = a;
    for (double Moment::*each : { &Moment::time, &Moment::distance, &Moment::speed, &Moment::power, &Moment::frontShare, &Moment::force,
             &Moment::frontFriction, &Moment::rearFriction })
        m.*each = std::lerp(a.*each, b.*each, t);
    for (std::size_t i = 0; i < nodeCount; ++i) {
        m.front[i] = std::lerp(a.front[i], b.front[i], t);
        m.rear[i] = std::lerp(a.rear[i], b.rear[i], t);
    }
    return m;
}

Run run(const Car& car, const Duty& duty, const Accuracy& accuracy)
{
    if (!makesSense(car.front) || !makesSense(car.rear) || !makesSense(duty) || !(car.road.mass > 0) || !(car.road.mass + duty.added > 0)
        || !(car.ambient > 0))
        return {};
    return Driving(car, duty, accuracy).driven();
}

} // namespace deepstop::heat
