#include "build/element_id.hpp"

#include "build/fields.hpp"

#include <algorithm>
#include <array>
#include <bit>
#include <cstdint>
#include <string_view>
#include <unordered_set>
#include <utility>
#include <vector>

namespace deepstop {
namespace {

/// Keys of elements up to version 3.2 of the file: whether they say anything or not, they are in the sum. What came later is in it only
/// where it says something, so that an element has one id whichever program gives it.
constexpr std::array<std::string_view, 104> always { "across_mm", "after", "after_s", "along", "at", "at_depth_mm", "axle",
    "behind_front_axle_mm", "bend", "bolts", "braking", "car_makers", "carried", "class", "condition", "contains", "cost", "count",
    "course", "date", "depth_mm", "distance_m", "distance_mm", "duty", "event", "faces", "friction", "from_kmh", "from_middle_mm",
    "from_mm", "grip_mm", "hard_washers", "head_diameter_mm", "height_mm", "hottest_degC", "inner_bottom_mm", "inner_top_mm",
    "inside_radius_mm", "inspected", "joins", "kind", "left_out", "length_mm", "lining_mm", "log", "maker_torque_nm", "mass_kg",
    "measured_from", "mount_radius_mm", "name", "note", "odometer_km", "outer_bottom_mm", "outer_top_mm", "over_edge_mm",
    "pad_edge_bottom_mm", "pad_edge_top_mm", "pedal_n", "photo", "place", "proof_stress_mpa", "radial_bottom_mm", "radial_top_mm",
    "radius_mm", "ran", "ring_degC", "ring_mm", "room_behind_mm", "series", "setup", "shank_mm", "shim_bottom_mm", "shim_top_mm", "shims",
    "side", "slope_percent", "speed_kmh", "state", "step", "stop", "stops", "surface", "temperature_degC", "temperatures", "text",
    "thickness_mm", "thread", "thread_depth_mm", "thread_in", "time_s", "times_used", "to_kmh", "to_mm", "took_min", "torque_for",
    "track_h", "under_head", "way", "wear", "what", "when", "who", "width_mm", "wind_kmh" };

/// What an element says, as one number (FNV-1a over its values and their keys).
class Contents : public Visitor {
public:
    std::uint64_t sum = 0xcbf29ce484222325;

    void reading(const ReadingField& field, Reading& r) override
    {
        const Reading& read = r;
        if (!read.value && read.repeats.empty() && isLater(field.key))
            return;
        add(field.key);
        add(read.value.value_or(-1));
        add(read.plusMinus.value_or(-1));
        add(static_cast<double>(read.known));
        add(read.instrument);
        add(read.date);
        for (const double each : read.repeats)
            add(each);
    }
    void readings(const ReadingField& field, std::vector<Reading>& list, std::size_t) override
    {
        for (Reading& each : list)
            reading(field, each);
    }
    void text(const Name& name, std::string& value) override
    {
        if (!value.empty() || !isLater(name.key))
            add(name.key), add(value);
    }
    void count(const CountField& field, int& value) override
    {
        if (value != notCounted || !isLater(field.key))
            add(field.key), add(value);
    }
    void number(const NumberField& field, double& value) override { add(field.key), add(value); }
    void pairs(const PairsField& field, Pairs& values) override
    {
        add(field.key);
        for (const auto& [first, second] : values)
            add(first), add(second);
    }
    void choice(const Name& name, Choice& choice) override
    {
        if (choice.index != 0 || !isLater(name.key))
            add(name.key), add(choice.words.token(choice.index));
    }
    void ticks(const Name& name, Ticks& ticks) override
    {
        add(name.key);
        for (const std::size_t each : ticks.indices)
            add(ticks.words.token(each));
    }
    void list(const ListField& field, List& list) override
    {
        if (list.size() || !isLater(field.key))
            add(field.key);
        for (std::size_t i = 0; i < list.size(); ++i)
            list.describe(*this, i);
    }

private:
    static bool isLater(std::string_view key) { return !std::ranges::binary_search(always, key); }
    void add(std::string_view text)
    {
        for (const char letter : text)
            sum = (sum ^ static_cast<unsigned char>(letter)) * prime;
        sum = (sum ^ 0xff) * prime; // where it ends
    }
    void add(double value)
    {
        for (auto bits = std::bit_cast<std::uint64_t>(value); bits; bits >>= 8)
            sum = (sum ^ (bits & 0xff)) * prime;
        sum = (sum ^ 0xfe) * prime;
    }
    static constexpr std::uint64_t prime = 0x100000001b3;
};

/// Letters and digits that are not taken for one another.
std::string written(std::uint64_t number)
{
    constexpr std::string_view letters = "23456789abcdefghjkmnpqrstuvwxyz";
    std::string text;
    for (int i = 0; i < 6; ++i, number /= letters.size())
        text.push_back(letters[number % letters.size()]);
    return text;
}

class GiveIds : public Visitor {
public:
    void element(ElementId& id) override
    {
        if (own_)
            *std::exchange(own_, nullptr) = &id;
    }
    void list(const ListField&, List& list) override
    {
        std::unordered_set<std::string_view> taken;
        std::vector<std::pair<std::size_t, ElementId*>> without;
        for (std::size_t i = 0; i < list.size(); ++i) {
            ElementId* id = nullptr;
            own_ = &id; // its own comes before those of lists in it
            list.describe(*this, i);
            own_ = nullptr;
            if (id && (id->text.empty() || !taken.insert(id->text).second))
                without.emplace_back(i, id);
        }
        for (const auto& [i, id] : without) {
            Contents contents;
            list.describe(contents, i);
            id->text = written(contents.sum);
            for (std::uint64_t again = 1; !taken.insert(id->text).second; ++again)
                id->text = written(contents.sum + again * 0x9e3779b97f4a7c15);
        }
    }

private:
    ElementId** own_ = nullptr;
};

} // namespace

void giveIds(Build& build)
{
    GiveIds give;
    describe(give, build);
}

} // namespace deepstop
