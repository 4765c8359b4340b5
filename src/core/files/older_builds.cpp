#include "files/older_builds.hpp"

#include "files/refusal.hpp"
#include "language/language.hpp"

#include <fmt/format.h>

#include <array>
#include <set>
#include <string>
#include <unordered_map>

namespace deepstop::files {
namespace {

/// Takes `key` out of an object; null where it is not there.
Json taken(Json& object, const char* key)
{
    Json value;
    if (object.is_object() && object.contains(key)) {
        value = std::move(object[key]);
        object.erase(key);
    }
    return value;
}

/// The same reading where nobody took it.
Json estimated(Json reading)
{
    if (reading.is_object())
        reading["known"] = "estimated";
    return reading;
}

std::string textOf(const Json& object, const char* key)
{
    return object.is_object() && object.contains(key) && object[key].is_string() ? object[key].get<std::string>() : std::string();
}

/// Every object of a list.
void forEach(Json& parent, const char* key, auto go)
{
    if (parent.contains(key) && parent[key].is_array())
        for (Json& element : parent[key])
            if (element.is_object())
                go(element);
}

/// Setups and axles on which shims were ever put in by a plan: there one side's stacks are known, and nobody knows which.
std::set<std::pair<std::string, std::string>> planned(Json& build)
{
    std::set<std::pair<std::string, std::string>> all;
    forEach(build, "mock_ups", [&](const Json& mockUp) {
        if (mockUp.contains("passes") && mockUp["passes"].is_array() && !mockUp["passes"].empty()) {
            const auto axle = textOf(mockUp, "axle");
            all.emplace(textOf(mockUp, "setup"), axle.empty() ? "front" : axle);
        }
    });
    return all;
}

void partSides(Json& corner, bool planned)
{
    const auto move = [&](const char* part, const char* key, bool onceRead) {
        if (!corner.contains(part) || !corner[part].is_object())
            return;
        for (const char* side : { "left", "right" })
            if (corner.contains(side) && !corner[side].is_object())
                return;
        Json reading = taken(corner[part], key);
        if (reading.is_null())
            return;
        corner["right"][key] = onceRead ? estimated(reading) : reading;
        corner["left"][key] = std::move(reading);
    };
    for (const char* key : { "slot_centre_mm", "pad_inset_mm" })
        move("mount", key, true);
    for (const char* key : { "shim_top_mm", "shim_bottom_mm", "radial_top_mm", "radial_bottom_mm" })
        move("mount", key, planned);
    for (const char* key : { "runout_mm", "thickness_variation_mm" })
        move("rotor", key, true);
}

/// The wheels of a build by their ids.
class Wheels {
public:
    explicit Wheels(Json& build) : build_(build)
    {
        for (std::size_t i = 0; i < build_["wheels"].size(); ++i)
            places_.try_emplace(textOf(build_["wheels"][i], "id"), i);
    }
    [[nodiscard]] Json* find(const std::string& id)
    {
        const auto found = places_.find(id);
        return found == places_.end() ? nullptr : &build_["wheels"][found->second];
    }
    void add(Json wheel)
    {
        places_.try_emplace(textOf(wheel, "id"), build_["wheels"].size());
        build_["wheels"].push_back(std::move(wheel));
    }

private:
    Json& build_;
    std::unordered_map<std::string, std::size_t> places_;
};

/// The id of the wheel an axle of the car as found runs on; one is made where it has none.
std::string wheelAsFound(Json& build, Wheels& wheels, const char* axle)
{
    Json& corner = build["setups"][0][axle];
    if (!corner.is_null() && !corner.is_object())
        return {};
    if (const auto id = textOf(corner, "wheel"); !id.empty())
        return id;
    std::string id = "as-found";
    while (wheels.find(id))
        id += "-1";
    wheels.add({ { "id", id }, { "name", tr("Wheel as found") } });
    corner["wheel"] = id;
    return id;
}

/// Both axles on one wheel, and tyres of two sizes: the rear gets a wheel of its own.
std::string partedRearWheel(Json& build, Wheels& wheels, const std::string& shared)
{
    const Json* wheel = wheels.find(shared);
    if (!wheel)
        return shared;
    Json copy = *wheel;
    std::string id = shared + "-rear";
    while (wheels.find(id))
        id += "-1";
    copy["id"] = id;
    copy["name"] = tr("{}, rear", textOf(copy, "name"));
    wheels.add(std::move(copy));
    forEach(build, "setups", [&](Json& setup) {
        if (setup.contains("rear") && textOf(setup["rear"], "wheel") == shared)
            setup["rear"]["wheel"] = id;
    });
    return id;
}

void giveTyres(Json& build)
{
    if (!build.contains("car") || !build["car"].is_object())
        return;
    const Json grip = taken(build["car"], "grip");
    const std::array radii { std::pair { "front", taken(build["car"], "front_tyre_radius_mm") },
        std::pair { "rear", taken(build["car"], "rear_tyre_radius_mm") } };
    if (grip.is_null() && radii[0].second.is_null() && radii[1].second.is_null())
        return;
    if (!build.contains("wheels"))
        build["wheels"] = Json::array();
    if (!build["wheels"].is_array())
        return; // said with its place when all of it is checked
    Wheels wheels(build);
    std::array<std::string, 2> asFound { wheelAsFound(build, wheels, "front"), wheelAsFound(build, wheels, "rear") };
    if (asFound[0] == asFound[1] && radii[0].second != radii[1].second && !radii[1].second.is_null())
        asFound[1] = partedRearWheel(build, wheels, asFound[1]);
    const auto give = [&](const std::string& id, const char* key, const Json& reading) {
        if (Json* wheel = wheels.find(id); wheel && wheel->is_object() && !reading.is_null() && !wheel->contains(key))
            (*wheel)[key] = reading;
    };
    for (std::size_t i = 0; i < radii.size(); ++i) {
        give(asFound[i], "rolling_radius_mm", radii[i].second);
        give(asFound[i], "grip", grip);
    }
    forEach(build, "setups", [&](Json& setup) {
        for (const auto& [axle, radius] : radii)
            if (setup.contains(axle)) {
                const auto id = textOf(setup[axle], "wheel");
                give(id, "rolling_radius_mm", estimated(radius));
                give(id, "grip", estimated(grip));
            }
    });
}

} // namespace

std::string tokenOfWord(const std::string& word)
{
    std::string token;
    for (const char c : word)
        if (c != ',' && c != '\'')
            token += c == ' ' ? '_' : c;
    return token;
}

void wordsToTokens(Json& json, const Json& schema)
{
    if (json.is_object() && schema.contains("properties")) {
        for (auto& [key, value] : json.items())
            if (schema["properties"].contains(key))
                wordsToTokens(value, schema["properties"][key]);
    } else if (json.is_array() && schema.contains("items") && schema["items"].is_object()) {
        for (Json& element : json)
            wordsToTokens(element, schema["items"]);
    } else if (json.is_string() && (schema.contains("enum") || schema.contains("examples"))) {
        json = tokenOfWord(json.get_ref<const std::string&>());
    }
}

void fromVersion2(Json& build, const Json& schema)
{
    build["deepstop"] = 3;
    wordsToTokens(build, schema);
    // Steps of a card that are named after a cut.
    const std::string was = "/cut-drill-the-knuckle-s-lugs";
    forEach(build, "cards", [&](Json& card) {
        for (const char* list : { "ticks", "openings" })
            forEach(card, list, [&](Json& each) {
                if (auto step = textOf(each, "step"); step.ends_with(was))
                    each["step"] = step.substr(0, step.size() - was.size()) + "/cut-drill-the-knuckles-lugs";
            });
    });
}

void fromVersion1(Json& build)
try {
    build["deepstop"] = 2;
    if (!build.contains("setups") || !build["setups"].is_array() || build["setups"].empty() || !build["setups"][0].is_object())
        return;
    if (Json hydraulics = taken(build, "hydraulics"); !hydraulics.is_null())
        build["setups"][0]["hydraulics"] = std::move(hydraulics);
    giveTyres(build);
    const auto plans = planned(build);
    forEach(build, "setups", [&](Json& setup) {
        for (const char* axle : { "front", "rear" })
            if (setup.contains(axle) && setup[axle].is_object())
                partSides(setup[axle], plans.contains({ textOf(setup, "id"), axle }));
    });
    if (build.contains("wants") && build["wants"].is_object() && build["wants"].contains("station_spacing_mm")) {
        const Json& spacing = build["wants"]["station_spacing_mm"];
        const Json& value = spacing.is_object() && spacing.contains("value") ? spacing["value"] : spacing;
        if (value.is_number() && value.get<double>() == 30)
            build["wants"].erase("station_spacing_mm");
    }
} catch (const Json::exception& error) {
    throw Refusal(tr("/deepstop: the file says that it is of version 1, and is shaped otherwise ({}).", shortened(error.what(), 120)));
}

} // namespace deepstop::files
