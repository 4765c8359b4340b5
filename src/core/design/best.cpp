#include "design/best.hpp"

#include "chapters/clearance/checks.hpp"
#include "design/lines.hpp"
#include "language/language.hpp"
#include "materials/materials.hpp"
#include "task/parallel.hpp"

#include <algorithm>
#include <cmath>

namespace deepstop::design {
namespace {

/// All limits of a map about one place, worked out anew.
class About {
public:
    About(const Maker& maker, const Map& map, const Proposal& at)
        : map_(map), at_(at), made_(maker.corner(at, Known::Vendor)), maker_(maker)
    {
    }

    /// Stretches of diameters between `least` and `most` that clear at a slot, those shorter than a hundredth of a millimetre left out.
    std::vector<std::pair<double, double>> clear(double slot, double least, double most) const
    {
        std::vector<std::pair<double, double>> stretches { { least, most } };
        Line along(maker_, at_, made_);
        for (const Limit& limit : map_.limits) {
            if (stretches.empty())
                break;
            const double from = stretches.front().first;
            const double to = stretches.back().second;
            const Changes changes = limit.moves ? along.changes(limit, slot, from, to) : Changes { limit.level(at_, made_), {} };
            std::vector<std::pair<double, double>> rest;
            for (const auto& [a, b] : stretches) {
                double begin = a;
                Level level = changes.level(a);
                const auto end = [&](double at) {
                    if (level == Level::Clear && at - begin > 1e-5)
                        rest.emplace_back(begin, at);
                };
                for (const auto& [at, then] : changes.at)
                    if (at > a && at < b) {
                        end(at - exactly);
                        begin = at + exactly;
                        level = then;
                    }
                end(b);
            }
            stretches = std::move(rest);
        }
        return stretches;
    }

    /// Ids of what is not clear at a place, what fails by most first; what has no value stands where nothing is left.
    std::vector<std::string> failing(double slot, double rotor) const
    {
        std::vector<std::pair<double, std::string>> found;
        Line along(maker_, at_, made_);
        for (const Limit& limit : map_.limits)
            if (const Figure gap = along.figure(limit, slot, rotor); gapLevel(gap, limit.wanted) != Level::Clear)
                found.emplace_back(gap.value ? gap.lowest() - limit.wanted : 0, limit.id);
        std::ranges::sort(found);
        std::vector<std::string> ids;
        for (auto& [by, id] : found)
            if (std::ranges::find(ids, id) == ids.end())
                ids.push_back(std::move(id));
        return ids;
    }

    Figure figure(const Limit& limit, double slot, double rotor) const { return Line(maker_, at_, made_).figure(limit, slot, rotor); }

private:
    const Map& map_;
    Proposal at_;
    Corner made_;
    const Maker& maker_;
};

constexpr double tenth = 0.1e-3;
constexpr double twentieth = 0.05e-3;
double down(double value, double step) { return std::floor(value / step + 1e-6) * step; }
double up(double value, double step) { return std::ceil(value / step - 1e-6) * step; }

/// The best place at one slot.
struct AtSlot {
    double slot;
    double rotor;
    double worth; ///< the more the better
};

class Seeking {
public:
    Seeking(const Maker& maker, const Map& map, Aim aim, const Fixed& fixed) : maker_(maker), map_(map), aim_(aim), fixed_(fixed) { }

    Best best()
    {
        Best best;
        if (!map_.lacks.empty() || map_.everywhere > Level::Good) {
            nothing(best);
            return best;
        }
        std::optional<AtSlot> found;
        if (const auto slot = heldSlot()) {
            found = at(*slot, map_.least, map_.most);
        } else if (const auto column = bestColumn()) {
            const std::size_t i = *column;
            const double from = up(map_.columns[i > 0 ? i - 1 : i], twentieth);
            const double to = map_.columns[std::min(i + 1, map_.columns.size() - 1)];
            const auto count = static_cast<std::size_t>(std::max(0.0, (to - from) / twentieth) + 1);
            std::vector<std::optional<AtSlot>> tried(count);
            parallelFor(count, 0, [&](std::size_t k) { tried[k] = at(from + static_cast<double>(k) * twentieth, map_.least, map_.most); });
            for (const auto& each : tried)
                if (each
                    && (!found || each->worth > found->worth + 1e-12
                        || (each->worth > found->worth - 1e-12
                            && std::abs(each->slot - map_.columns[i]) < std::abs(found->slot - map_.columns[i]))))
                    found = each;
        }
        if (!found) {
            nothing(best);
            return best;
        }
        Proposal proposal = map_.at;
        proposal.slot = found->slot;
        proposal.rotor = found->rotor;
        best.proposal = proposal;
        bind(best);
        return best;
    }

private:
    [[nodiscard]] std::optional<double> heldSlot() const
    {
        if (fixed_.slot)
            return *fixed_.slot;
        if (fixed_.plate) {
            // Shims as many as are wanted beside it.
            const Kit kit = maker_.sizes(map_.at);
            const double needed = kit.radial ? *fixed_.plate / 2 : *fixed_.plate + rules::shimsEachWay;
            return map_.at.slot + needed - kit.needed / (kit.radial ? 2 : 1);
        }
        return {};
    }

    [[nodiscard]] double worth(double slot, double rotor) const
    {
        Proposal proposal = map_.at;
        proposal.slot = slot;
        proposal.rotor = rotor;
        switch (aim_) {
        case Aim::Rotor:
            return rotor;
        case Aim::Weight: {
            const Kit kit = maker_.kit(proposal);
            return -(massOf(kit.hat) + massOf(kit.ring) + kit.adapter.volume * materials::aluminium6061.density);
        }
        case Aim::Bracket:
            return -slot + 1e-6 * rotor;
        }
        return 0;
    }

    /// Of stretches that clear at a slot the best diameter.
    [[nodiscard]] std::optional<AtSlot> of(double slot, const std::vector<std::pair<double, double>>& stretches) const
    {
        std::optional<AtSlot> best;
        for (const auto& [a, b] : stretches) {
            if (fixed_.rotor) {
                if (a <= *fixed_.rotor && *fixed_.rotor <= b)
                    return AtSlot { slot, *fixed_.rotor, aim_ == Aim::Rotor ? 0 : worth(slot, *fixed_.rotor) };
                continue;
            }
            const double rotor = aim_ == Aim::Weight ? up(a, tenth) : down(b, tenth);
            if (rotor < a || rotor > b)
                continue;
            if (const AtSlot here { slot, rotor, worth(slot, rotor) }; !best || here.worth > best->worth)
                best = here;
        }
        return best;
    }

    [[nodiscard]] std::optional<AtSlot> at(double slot, double least, double most) const
    {
        return of(slot, About(maker_, map_, map_.at).clear(slot, least, most));
    }

    [[nodiscard]] std::optional<AtSlot> atColumn(std::size_t i) const
    {
        std::vector<double> edges { map_.least, map_.most };
        for (const auto& limit : map_.changes)
            for (const auto& change : limit[i].at)
                edges.push_back(change.first);
        std::ranges::sort(edges);
        std::vector<std::pair<double, double>> stretches;
        for (std::size_t k = 0; k + 1 < edges.size(); ++k)
            if (map_.judged(i, (edges[k] + edges[k + 1]) / 2).level <= Level::Good) {
                if (!stretches.empty() && stretches.back().second == edges[k])
                    stretches.back().second = edges[k + 1];
                else
                    stretches.emplace_back(edges[k], edges[k + 1]);
            }
        return of(map_.columns[i], stretches);
    }

    /// Of slots next to each other that are as good as the best, the middle one. With a rotor that is given and nothing to be best at, that
    /// of the longest run.
    [[nodiscard]] std::optional<std::size_t> bestColumn() const
    {
        std::optional<std::size_t> best;
        double most = -1e9;
        std::size_t run = 0;
        std::size_t longest = 0;
        for (std::size_t i = 0; i < map_.columns.size(); ++i) {
            const auto here = atColumn(i);
            run = here ? run + 1 : 0;
            if (!here)
                continue;
            if (fixed_.rotor && aim_ == Aim::Rotor) {
                if (run > longest) {
                    longest = run;
                    best = i - run / 2;
                }
            } else if (here->worth > most) {
                most = here->worth;
                best = i;
            }
        }
        if (best && !(fixed_.rotor && aim_ == Aim::Rotor)) {
            const auto asGood = [&](std::size_t i) {
                const auto here = atColumn(i);
                return here && here->worth >= most - 1e-9;
            };
            std::size_t last = *best;
            while (last + 1 < map_.columns.size() && asGood(last + 1))
                ++last;
            best = (*best + last) / 2;
        }
        return best;
    }

    void bind(Best& best) const
    {
        const About about(maker_, map_, map_.at);
        const Proposal& c = *best.proposal;
        const double rotor = c.rotor + (aim_ == Aim::Weight ? -2 * tenth : 2 * tenth);
        const auto gather = [&](double slot, double diameter) {
            for (std::string& id : about.failing(slot, diameter))
                if (std::ranges::find(best.binds, id) == best.binds.end())
                    best.binds.push_back(std::move(id));
        };
        if (aim_ == Aim::Bracket)
            gather(c.slot - 2 * tenth, c.rotor);
        gather(c.slot, rotor);
        // What keeps the slot from going where the first of them would let it be better.
        const auto first = best.binds;
        for (const double aside : { -0.4e-3, 0.4e-3 }) {
            const auto there = about.failing(c.slot + aside, rotor);
            if (std::ranges::none_of(there, [&](const std::string& id) { return std::ranges::find(first, id) != first.end(); }))
                gather(c.slot + aside, rotor);
        }
    }

    /// The limit that is nearest to clearing where all others do, or the fewest fail.
    void nothing(Best& best) const
    {
        if (!map_.lacks.empty())
            return;
        for (const Verdict& v : map_.fixed)
            if (v.level == map_.everywhere && map_.everywhere > Level::Good) {
                best.nearest = v.id;
                best.shortBy = v.figure.value && v.wanted ? *v.wanted - v.figure.lowest() : 0;
                return;
            }
        const About about(maker_, map_, map_.at);
        std::size_t fewest = map_.limits.size() + 1;
        best.shortBy = 1e9;
        for (std::size_t i = 0; i < map_.columns.size(); i += 4)
            for (int k = 0; k <= 40; ++k) {
                const double rotor = fixed_.rotor.value_or(map_.least + (map_.most - map_.least) * k / 40);
                std::vector<const Limit*> failing;
                for (std::size_t l = 0; l < map_.limits.size(); ++l)
                    if (map_.changes[l][i].level(rotor) != Level::Clear)
                        failing.push_back(&map_.limits[l]);
                if (failing.empty() || failing.size() > fewest)
                    continue;
                // Of those the one that fails by most decides; what is not known fails by more than anything.
                double by = -1;
                const Limit* decides = nullptr;
                for (const Limit* limit : failing) {
                    const Figure gap = about.figure(*limit, map_.columns[i], rotor);
                    const double shortOf = gapLevel(gap, limit->wanted) != Level::Unproven ? limit->wanted - gap.lowest() : 1e8;
                    if (shortOf > by) {
                        by = shortOf;
                        decides = limit;
                    }
                }
                if (failing.size() < fewest || by < best.shortBy) {
                    fewest = failing.size();
                    best.shortBy = by;
                    best.nearest = decides->id;
                }
                if (fixed_.rotor)
                    break;
            }
        if (best.shortBy > 1e7)
            best.shortBy = 0;
    }

    const Maker& maker_;
    const Map& map_;
    Aim aim_;
    Fixed fixed_;
};

} // namespace

Best bestOf(const Maker& maker, const Map& map, Aim aim, const Fixed& fixed) { return Seeking(maker, map, aim, fixed).best(); }

double madeDiameter(const library::Library& library, double most)
{
    double best = std::floor(most / 5e-3 + 1e-9) * 5e-3;
    for (const auto& rotor : library.rotors)
        if (const auto d = rotor.part.outerDiameter.value; d && *d <= most + 1e-9)
            best = std::max(best, *d);
    return best;
}

std::vector<Rate> ratesOf(const Maker& maker, const Map& map, const Best& best)
{
    std::vector<Rate> rates;
    if (!best.proposal)
        return rates;
    constexpr double by = 1e-3;
    // The largest rotor near the best place, over slots close by.
    const auto largest = [&](const Proposal& changed) {
        constexpr int steps = 8;
        constexpr double apart = 0.4e-3;
        std::vector<double> tops(2 * steps + 1, 0);
        parallelFor(tops.size(), 0, [&](std::size_t k) {
            const double slot = best.proposal->slot + (static_cast<int>(k) - steps) * apart;
            const auto stretches =
                About(maker, map, changed).clear(slot, std::max(map.least, best.proposal->rotor - 12e-3), best.proposal->rotor + 14e-3);
            if (!stretches.empty())
                tops[k] = stretches.back().second;
        });
        return std::ranges::max(tops);
    };
    using deepstop::checks::fenderRoom, deepstop::checks::pilot, deepstop::checks::studs;
    const double now = largest(*best.proposal);
    const auto add = [&](std::string id, std::string title, Proposal changed, std::initializer_list<const Check*> stoppedBy) {
        const double then = largest(changed);
        if (!(then > 0) || !(now > 0))
            return;
        Rate rate { std::move(id), std::move(title), (then - now) / by, {}, {} };
        for (const Verdict& v : map.fixed)
            for (const Check* check : stoppedBy)
                if (v.check == check && v.figure.value && v.wanted) {
                    const double left = v.figure.lowest() - *v.wanted;
                    if (left >= 0 && (!rate.within || left < *rate.within)) {
                        rate.within = left;
                        rate.until = v.id;
                    }
                }
        rates.push_back(std::move(rate));
    };
    const auto with = [&](double Proposal::*which, double change) {
        Proposal changed = *best.proposal;
        changed.*which += change;
        return changed;
    };
    add("spacer", tr("1 mm more of spacer behind the wheel"), with(&Proposal::spacer, by), { &fenderRoom, &studs, &pilot });
    add("offset", tr("1 mm less of the wheels' offset"), with(&Proposal::offset, -by), { &fenderRoom });
    add("hat_thickness", tr("1 mm more of hat between hub and wheel"), with(&Proposal::hatThickness, by), { &fenderRoom, &studs, &pilot });
    add("rotor_thickness", tr("1 mm less of rotor thickness"), with(&Proposal::thickness, -by), {});
    if (maker.basis().corner.mount.kind == MountKind::Radial)
        add("radial_shims", tr("1 mm less of shims under the radial mount's studs"), with(&Proposal::lift, -by), {});
    return rates;
}

} // namespace deepstop::design
