#include "files/profile_file.hpp"

#include "files/csv.hpp"
#include "language/language.hpp"
#include "quantity/number.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>

namespace deepstop::files {
namespace {

using scan::WheelProfile;
using Place = WheelProfile::Place;

constexpr double inch = 25.4e-3;
constexpr double farthest = 1; ///< m: no wheel is larger
constexpr std::size_t mostPlaces = 1000;

double checked(double value, const std::string& name, std::size_t line)
{
    if (!(std::abs(value) <= farthest))
        throw Refusal(tr("{}: line {}: {:.4g} mm are no size of a wheel.", name, line, value * 1e3));
    return value;
}

/// Columns of a list: what is where.
struct Columns {
    struct Pair {
        std::optional<std::size_t> along;
        std::optional<std::size_t> across;
    };
    Pair barrel;
    Pair spokes;
    std::vector<double> units;
};

Columns columnsOf(const std::vector<std::string>& head, const std::string& name)
{
    Columns columns;
    const std::array<std::pair<std::string_view, std::optional<std::size_t>*>, 4> keys { { { "depth", &columns.barrel.along },
        { "inside_radius", &columns.barrel.across }, { "radius", &columns.spokes.along }, { "distance", &columns.spokes.across } } };
    for (std::size_t i = 0; i < head.size(); ++i) {
        columns.units.push_back(head[i].ends_with("_in") ? inch : 1e-3);
        for (const auto& [key, place] : keys)
            if (head[i] == std::string(key) + "_mm" || head[i] == std::string(key) + "_in")
                *place = i;
    }
    const auto whole = [](const Columns::Pair& p) { return p.along.has_value() == p.across.has_value(); };
    if (!whole(columns.barrel) || !whole(columns.spokes) || (!columns.barrel.along && !columns.spokes.along))
        throw Refusal(tr("{}: its first line has to name depth_mm and inside_radius_mm, or radius_mm and distance_mm.", name));
    return columns;
}

WheelProfile fromCsv(std::string_view text, const std::string& name)
{
    WheelProfile profile;
    CsvReader reader(text, guessSeparator(text));
    std::vector<std::string> fields;
    const auto next = [&] {
        try {
            return reader.next(fields);
        } catch (const Refusal& r) {
            throw Refusal(name + ": " + r.what());
        }
    };
    if (!next())
        throw Refusal(tr("{}: is empty.", name));
    const Columns columns = columnsOf(fields, name);
    while (next()) {
        const auto take = [&](const Columns::Pair& pair, std::vector<Place>& into) {
            if (!pair.along)
                return;
            const auto field = [&](std::size_t i) { return i < fields.size() ? std::string_view(fields[i]) : std::string_view(); };
            if (field(*pair.along).empty() && field(*pair.across).empty())
                return;
            const auto number = [&](std::size_t i) {
                const auto read = readNumber(field(i));
                if (!read)
                    throw Refusal(tr("{}: line {}: “{}” is not a number.", name, reader.line(), std::string(field(i).substr(0, 40))));
                return checked(*read * columns.units[i], name, reader.line());
            };
            into.push_back({ number(*pair.along), number(*pair.across), false });
        };
        take(columns.barrel, profile.barrel);
        take(columns.spokes, profile.spokes);
    }
    return profile;
}

/// A DXF's pairs of code and value, line by line.
class Groups {
public:
    Groups(std::string_view text, const std::string& name) : left_(text), name_(name) { }
    bool next()
    {
        if (left_.empty())
            return false;
        const std::string_view code = line();
        const auto number = readNumber(code);
        if (!number || left_.empty())
            throw Refusal(tr("{}: line {}: is no DXF, or was cut short.", name_, line_));
        code_ = static_cast<int>(*number);
        value_ = line();
        return true;
    }
    [[nodiscard]] int code() const { return code_; }
    [[nodiscard]] std::string_view value() const { return value_; }
    [[nodiscard]] std::size_t at() const { return line_; }
    [[nodiscard]] double number() const
    {
        const auto read = readNumber(value_);
        if (!read)
            throw Refusal(tr("{}: line {}: “{}” is not a number.", name_, line_, std::string(value_.substr(0, 40))));
        return *read;
    }

private:
    std::string_view line()
    {
        const auto end = left_.find('\n');
        std::string_view line = left_.substr(0, end);
        left_ = end == std::string_view::npos ? std::string_view() : left_.substr(end + 1);
        while (!line.empty() && (line.back() == '\r' || line.back() == ' '))
            line.remove_suffix(1);
        while (!line.empty() && line.front() == ' ')
            line.remove_prefix(1);
        ++line_;
        return line;
    }
    std::string_view left_;
    const std::string& name_;
    int code_ = 0;
    std::string_view value_;
    std::size_t line_ = 0;
};

class DxfSection {
public:
    DxfSection(std::string_view text, const std::string& name) : groups_(text, name), name_(name) { }

    WheelProfile read()
    {
        bool units = false;
        while (groups_.next()) {
            if (groups_.code() == 9)
                units = groups_.value() == "$INSUNITS";
            else if (units && groups_.code() == 70)
                unit_ = groups_.number() == 1 ? inch : groups_.number() == 6 ? 1 : 1e-3, units = false;
            else if (groups_.code() == 0)
                begin(groups_.value());
            else if (!entity_.empty())
                take();
        }
        begin({});
        return std::move(profile_);
    }

private:
    void begin(std::string_view entity)
    {
        flush();
        // The corners of an old polyline stand in entities of their own, on its layer.
        if (entity == "LINE" || entity == "LWPOLYLINE" || entity == "VERTEX" || entity == "POLYLINE" || entity == "ARC"
            || entity == "SPLINE" || entity == "ELLIPSE" || entity == "CIRCLE")
            entity_ = entity;
        else
            entity_ = {};
        layer_ = {};
        x_.clear();
        y_.clear();
    }
    void flush()
    {
        std::vector<Place>* into = layer_ == "BARREL" ? &profile_.barrel : layer_ == "SPOKES" ? &profile_.spokes : nullptr;
        if (!into || entity_.empty() || entity_ == "POLYLINE")
            return;
        if (entity_ == "ARC" || entity_ == "SPLINE" || entity_ == "ELLIPSE" || entity_ == "CIRCLE" || bulges_)
            throw Refusal(tr("{}: line {}: a curve on layer {}. Have it drawn as a polyline of short straight lines.", name_, groups_.at(),
                std::string(layer_)));
        for (std::size_t i = 0; i < std::min(x_.size(), y_.size()); ++i) {
            const double inboard = checked(x_[i] * unit_, name_, groups_.at());
            const double radius = checked(y_[i] * unit_, name_, groups_.at());
            into->push_back(into == &profile_.barrel ? Place { inboard, radius, true } : Place { radius, -inboard, true });
        }
    }
    void take()
    {
        switch (groups_.code()) {
        case 8:
            layer_ = groups_.value();
            break;
        case 10:
        case 11:
            x_.push_back(groups_.number());
            break;
        case 20:
        case 21:
            y_.push_back(groups_.number());
            break;
        case 42:
            bulges_ = bulges_ || groups_.number() != 0;
            break;
        default:
            break;
        }
    }

    Groups groups_;
    const std::string& name_;
    WheelProfile profile_;
    double unit_ = 1e-3;
    std::string_view entity_;
    std::string_view layer_;
    std::vector<double> x_;
    std::vector<double> y_;
    bool bulges_ = false;
};

/// In order, each place once.
void inOrder(std::vector<Place>& places)
{
    std::ranges::stable_sort(places, {}, &Place::along);
    constexpr double same = 1e-7;
    const auto [first, last] = std::ranges::unique(
        places, [](const Place& a, const Place& b) { return std::abs(a.along - b.along) < same && std::abs(a.across - b.across) < same; });
    places.erase(first, last);
}

} // namespace

scan::WheelProfile readProfile(std::string_view bytes, const std::string& name)
{
    const bool isDxf = name.ends_with(".dxf") || name.ends_with(".DXF");
    WheelProfile profile = isDxf ? DxfSection(bytes, name).read() : fromCsv(bytes, name);
    inOrder(profile.barrel);
    inOrder(profile.spokes);
    if (profile.barrel.empty() && profile.spokes.empty())
        throw Refusal(isDxf ? tr("{}: there is nothing on a layer BARREL or SPOKES.", name) : tr("{}: there is no place in it.", name));
    if (std::max(profile.barrel.size(), profile.spokes.size()) > mostPlaces)
        throw Refusal(tr("{}: more than {} places are too many.", name, mostPlaces));
    return profile;
}

} // namespace deepstop::files
