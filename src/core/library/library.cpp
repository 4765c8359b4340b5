#include "library/library.hpp"

#include "build/choices.hpp"
#include "build/words.hpp"
#include "language/language.hpp"
#include "library/every_reading.hpp"
#include "library/kit.hpp"
#include "library/texts.hpp"
#include "quantity/instrument_names.hpp"
#include "quantity/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <unordered_map>

namespace deepstop::library {
namespace {

Rotor& partIn(Corner& corner, Rotor*) { return corner.rotor; }
Caliper& partIn(Corner& corner, Caliper*) { return corner.caliper; }
Pad& partIn(Corner& corner, Pad*) { return corner.pad; }
Bracket& partIn(Corner& corner, Bracket*) { return corner.bracket; }
Hose& partIn(Corner& corner, Hose*) { return corner.hose; }

template <class T>
constexpr bool remembers = requires(T t)
{
    t.from;
};

std::string lower(std::string_view text)
{
    std::string out(text);
    for (char& c : out)
        c = toLower(c);
    return out;
}

std::string about(const Rotor& r, UnitSystem s)
{
    return tr("Ø {} × {}, height {}, hat {}, {} {}", figure(r.outerDiameter.value.value_or(NAN), style::size, s),
        figure(r.thickness.value.value_or(NAN), style::size, s), figure(r.overallHeight.value.value_or(NAN), style::size, s),
        figure(r.hatThickness.value.value_or(NAN), style::size, s), wordFor(r.construction, choices::rotorBuild),
        wordFor(r.face, choices::face));
}
std::string about(const Caliper& c, UnitSystem s)
{
    std::string bores;
    for (const Reading& bore : c.pistons)
        bores += (bores.empty() ? "" : " + ") + figure(bore.value.value_or(NAN), style::size, s);
    return tr("{}, {}; slot {}, back {} over the edge", wordFor(c.kind, choices::caliper), bores.empty() ? tr("no bores") : bores,
        figure(c.slotWidth.value.value_or(NAN), style::size, s), figure(c.backOverEdge.value.value_or(NAN), style::size, s));
}
std::string about(const Pad& p, UnitSystem s)
{
    return tr("{} × {} × {}, friction {}", figure(p.length.value.value_or(NAN), style::size, s),
        figure(p.height.value.value_or(NAN), style::size, s), figure(p.thickness.value.value_or(NAN), style::size, s),
        figure(p.friction.value.value_or(NAN), style::number, s));
}
std::string about(const Wheel& w, UnitSystem s)
{
    const auto said = [](double size) { return size > 0 ? fmt::format("{:g}", size) : std::string("?"); };
    return tr("{} × {} ET {}, {} barrel and {} spoke stations", said(w.nominalDiameter), said(w.nominalWidth),
        figure(w.offset.value.value_or(NAN), style::size, s), w.barrel.size(), w.spokes.size());
}
std::string about(const Bracket& b, UnitSystem s)
{
    return tr("{} to the knuckle, {} to the caliper, {}", figure(b.knuckleSpacing.value.value_or(NAN), style::size, s),
        figure(b.caliperSpacing.value.value_or(NAN), style::size, s), *b.boltThread);
}
std::string about(const Hose& h, UnitSystem s)
{
    return tr("{}, {} and {}", figure(h.length.value.value_or(NAN), style::frame, s), *h.caliperEnd, *h.lineEnd);
}

std::string about(const Setup& kit, UnitSystem)
{
    std::string all;
    for (const auto& [corner, axle] : { std::pair { &kit.front, Axle::Front }, std::pair { &kit.rear, Axle::Rear } }) {
        if (!*corner)
            continue;
        const Corner& c = **corner;
        all += (all.empty() ? "" : "; ") + std::string(tr(wordOf(axle))) + ":";
        std::string names;
        const bool drums = c.brakes == BrakeKind::Drums;
        for (const std::string& name :
            { drums ? c.drum.name : c.rotor.name, drums ? std::string() : c.caliper.name, drums ? std::string() : c.pad.name })
            if (!name.empty())
                names += (names.empty() ? " " : ", ") + name;
        all += names.empty() ? " " + std::string(tr("parts without names")) : names;
    }
    return all;
}

template <class T>
std::string titleOf(const Shelved<T>& shelved)
{
    if constexpr (requires { shelved.part.name; })
        if (!shelved.part.name.empty())
            return shelved.part.name;
    return shelved.id;
}

template <class T>
const Shelved<T>* find(const std::vector<Shelved<T>>& shelf, const std::string& id)
{
    const auto found = std::ranges::find(shelf, id, &Shelved<T>::id);
    return found == shelf.end() ? nullptr : &*found;
}

std::string freshId(const auto& taken, const std::string& wanted)
{
    const std::string base = wanted.empty() ? "part" : wanted;
    std::string id = base;
    for (int number = 2; taken(id); ++number)
        id = fmt::format("{}-{}", base, number);
    return id;
}

/// The corner's part of that kind, or nothing for a wheel that is not there.
template <class T>
const T* partOf(const Corner& corner, const Build& build)
{
    if constexpr (std::is_same_v<T, Wheel>)
        return findWheel(build, corner.wheel);
    else if constexpr (std::is_same_v<T, Setup>)
        return nullptr;
    else
        return &partIn(const_cast<Corner&>(corner), static_cast<T*>(nullptr));
}

} // namespace

std::string_view nameOf(Kind kind)
{
    switch (kind) {
    case Kind::Rotor:
        return marked("rotor");
    case Kind::Caliper:
        return marked("caliper");
    case Kind::Pad:
        return marked("pad");
    case Kind::Wheel:
        return marked("wheel");
    case Kind::Bracket:
        return marked("bracket");
    case Kind::Hose:
        return marked("hose");
    case Kind::Kit:
        return marked("kit");
    }
    return "";
}

std::string_view inNumber(Kind kind)
{
    switch (kind) {
    case Kind::Rotor:
        return tr("rotors");
    case Kind::Caliper:
        return tr("calipers");
    case Kind::Pad:
        return tr("pads");
    case Kind::Wheel:
        return tr("wheels");
    case Kind::Bracket:
        return tr("brackets");
    case Kind::Hose:
        return tr("hoses");
    case Kind::Kit:
        return tr("kits");
    }
    return "";
}

std::string idFrom(std::string_view name)
{
    std::string id;
    for (const char c : lower(name)) {
        const bool plain = isDigit(c) || isLetter(c);
        if (plain)
            id += c;
        else if (!id.empty() && id.back() != '-')
            id += '-';
    }
    while (id.ends_with('-'))
        id.pop_back();
    return id;
}

Index::Index(const Library& library, Kind kind, UnitSystem system)
{
    onShelf(library, kind, [&](const auto& shelf) {
        entries_.reserve(shelf.size());
        for (const auto& one : shelf) {
            Found entry { kind, one.id, titleOf(one), about(one.part, system) };
            auto text = lower(entry.name + " " + entry.about + " " + one.note);
            entries_.emplace_back(std::move(entry), std::move(text));
        }
    });
}

std::vector<Found> search(const Library& library, Kind kind, std::string_view words, std::size_t most, UnitSystem system)
{
    return Index(library, kind, system).search(words, most);
}

std::vector<Found> Index::search(std::string_view words, std::size_t most) const
{
    std::vector<std::string> wanted;
    for (std::size_t at = 0; at < words.size();) {
        const auto end = std::min(words.find(' ', at), words.size());
        if (end > at)
            wanted.push_back(lower(words.substr(at, end - at)));
        at = end + 1;
    }
    std::vector<Found> found;
    for (const auto& [entry, text] : entries_) {
        if (found.size() == most)
            break;
        if (std::ranges::all_of(wanted, [&text = text](const std::string& word) { return text.find(word) != std::string::npos; }))
            found.push_back(entry);
    }
    return found;
}

Build withPart(Build build, const std::string& setupId, Axle axle, const Library& library, Kind kind, const std::string& id)
{
    const auto setup = std::ranges::find(build.setups, setupId, &Setup::id);
    if (setup == build.setups.end())
        return build;
    onShelf(library, kind, [&]<class T>(const std::vector<Shelved<T>>& shelf) {
        const auto* shelved = find(shelf, id);
        if (!shelved)
            return;
        if constexpr (std::is_same_v<T, Setup>) {
            if (auto with = kitTakenIn(shelved->part)(build))
                build = std::move(*with);
            return;
        } else {
            Corner& own = ownCorner(build, setupId, axle);
            if constexpr (std::is_same_v<T, Wheel>) {
                Wheel wheel = shelved->part;
                ofAnotherExample([&](Visitor& v) { describe(v, wheel); });
                wheel.from = id;
                wheel.id = freshId([&](const std::string& candidate) { return findWheel(build, candidate) != nullptr; }, id);
                own.wheel = wheel.id;
                build.wheels.push_back(std::move(wheel));
            } else {
                T& place = partIn(own, static_cast<T*>(nullptr));
                place = shelved->part;
                ofAnotherExample([&](Visitor& v) { describe(v, place); });
                if constexpr (remembers<T>)
                    place.from = id;
            }
        }
    });
    return build;
}

std::string keepKit(Library& library, const Setup& setup)
{
    if (!setup.front && !setup.rear)
        return {};
    Shelved<Setup> kept { idFrom(setup.name.empty() ? setup.id : setup.name), {}, kitOf(setup) };
    if (kept.id.empty())
        kept.id = "kit";
    kept.part.id = kept.id;
    const std::string id = kept.id;
    const auto old = std::ranges::find(library.kits, id, &Shelved<Setup>::id);
    if (old == library.kits.end())
        library.kits.push_back(std::move(kept));
    else
        *old = std::move(kept);
    return id;
}

namespace {

/// Who measured a part, when and with what, in one sentence; empty where nothing of it was measured.
class Provenance final : public EveryReading {
public:
    void reading(const ReadingField&, Reading& r) override
    {
        if (!r.value || r.known != Known::Measured)
            return;
        measured_ = true;
        latest_ = std::max(latest_, r.date);
        if (!r.instrument.empty() && std::ranges::find(instruments_, r.instrument) == instruments_.end())
            instruments_.push_back(r.instrument);
    }
    [[nodiscard]] std::string said(const std::string& car) const
    {
        if (!measured_)
            return {};
        std::string said = car.empty() ? tr("Measured") : tr("Measured on {}", car);
        if (!latest_.empty())
            said += ", " + latest_;
        for (const std::string& each : instruments_)
            said += ", " + instrumentInWords(each);
        return said;
    }

private:
    bool measured_ = false;
    std::string latest_;
    std::vector<std::string> instruments_;
};

/// What the shelf said of a part, and after it what is new.
std::string noted(const std::string& before, const std::string& now)
{
    if (before.empty() || now.empty() || before.find(now) != std::string::npos)
        return before.empty() ? now : before;
    return before + "; " + now;
}

} // namespace

std::string keep(Library& library, const Corner& corner, const Build& build, Kind kind)
{
    std::string id;
    onShelf(library, kind, [&]<class T>(std::vector<Shelved<T>>& shelf) {
        const T* part = partOf<T>(corner, build);
        if (!part)
            return;
        Shelved<T> shelved { {}, {}, *part };
        Provenance provenance;
        describe(provenance, shelved.part);
        shelved.note = provenance.said(build.car.name);
        // The shelf holds parts of a kind, not the one that was in hand.
        ofAnotherExample([&](Visitor& v) { describe(v, shelved.part); });
        if constexpr (remembers<T>)
            shelved.id = part->from;
        std::string name;
        if constexpr (requires { part->name; })
            name = part->name;
        if (shelved.id.empty() || !find(shelf, shelved.id))
            shelved.id = freshId([&](const std::string& candidate) { return find(shelf, candidate) != nullptr; }, idFrom(name));
        if constexpr (std::is_same_v<T, Wheel>)
            shelved.part.id = shelved.id;
        id = shelved.id;
        const auto old = std::ranges::find(shelf, id, &Shelved<T>::id);
        if (old == shelf.end())
            shelf.push_back(std::move(shelved));
        else {
            // Weight and price are the shelf's own, and so is what was noted there.
            shelved.note = noted(old->note, shelved.note);
            shelved.mass = old->mass;
            shelved.price = old->price;
            *old = std::move(shelved);
        }
    });
    return id;
}

std::optional<std::vector<std::string>> differences(const Library& library, const Corner& corner, const Build& build, Kind kind)
{
    std::optional<std::vector<std::string>> labels;
    onShelf(library, kind, [&]<class T>(const std::vector<Shelved<T>>& shelf) {
        if constexpr (remembers<T>) {
            const T* part = partOf<T>(corner, build);
            const auto* shelved = part && !part->from.empty() ? find(shelf, part->from) : nullptr;
            if (!shelved)
                return;
            labels.emplace();
            const auto mine = textsOf(*part).lines;
            const auto theirs = textsOf(shelved->part).lines;
            for (std::size_t i = 0; i < std::max(mine.size(), theirs.size()); ++i)
                if (i >= mine.size() || i >= theirs.size() || mine[i] != theirs[i])
                    labels->push_back(i < mine.size() ? mine[i].first : theirs[i].first);
        }
    });
    return labels;
}

namespace {

/// Puts one shelf into another, the same id replacing; returns how many were new.
template <class T>
std::size_t mergeShelf(std::vector<Shelved<T>>& shelf, std::vector<Shelved<T>>& other)
{
    std::size_t fresh = 0;
    std::unordered_map<std::string, std::size_t> places;
    for (std::size_t i = 0; i < shelf.size(); ++i)
        places.emplace(shelf[i].id, i);
    for (auto& one : other) {
        if (one.id.empty())
            one.id = freshId([&](const std::string& candidate) { return places.contains(candidate); }, idFrom(titleOf(one)));
        if constexpr (std::is_same_v<T, Wheel> || std::is_same_v<T, Setup>)
            one.part.id = one.id;
        const auto [place, isNew] = places.emplace(one.id, shelf.size());
        fresh += isNew;
        if (isNew)
            shelf.push_back(std::move(one));
        else
            shelf[place->second] = std::move(one);
    }
    return fresh;
}

template <class T>
void uniteShelf(std::vector<Shelved<T>>& shelf, std::vector<Shelved<T>>& other, United& united)
{
    std::unordered_map<std::string, std::size_t> places;
    for (std::size_t i = 0; i < shelf.size(); ++i)
        places.emplace(shelf[i].id, i);
    const auto isTaken = [&](const std::string& id) { return places.contains(id); };
    for (auto& one : other) {
        if (const auto own = places.find(one.id); own != places.end()) {
            if (shelf[own->second] == one) {
                ++united.same;
                continue;
            }
            one.id = freshId(isTaken, one.id);
            ++united.beside;
        } else {
            if (one.id.empty())
                one.id = freshId(isTaken, idFrom(titleOf(one)));
            ++united.added;
        }
        if constexpr (std::is_same_v<T, Wheel> || std::is_same_v<T, Setup>)
            one.part.id = one.id;
        places.emplace(one.id, shelf.size());
        shelf.push_back(std::move(one));
    }
}

} // namespace

United unite(Library& library, Library more)
{
    United united;
    uniteShelf(library.masters, more.masters, united);
    for (const Kind kind : { Kind::Rotor, Kind::Caliper, Kind::Pad, Kind::Wheel, Kind::Bracket, Kind::Hose, Kind::Kit })
        onShelf(library, kind, [&]<class T>(std::vector<Shelved<T>>& shelf) {
            onShelf(more, kind, [&]<class U>(std::vector<Shelved<U>>& other) {
                if constexpr (std::is_same_v<T, U>)
                    uniteShelf(shelf, other, united);
            });
        });
    return united;
}

std::size_t merge(Library& library, Library more)
{
    std::size_t fresh = mergeShelf(library.masters, more.masters);
    for (const Kind kind : { Kind::Rotor, Kind::Caliper, Kind::Pad, Kind::Wheel, Kind::Bracket, Kind::Hose, Kind::Kit })
        onShelf(library, kind, [&]<class T>(std::vector<Shelved<T>>& shelf) {
            onShelf(more, kind, [&]<class U>(std::vector<Shelved<U>>& other) {
                if constexpr (std::is_same_v<T, U>)
                    fresh += mergeShelf(shelf, other);
            });
        });
    return fresh;
}

} // namespace deepstop::library
