#include "files/mesh_text.hpp"

#include "language/language.hpp"
#include "task/cancel.hpp"

#include <algorithm>
#include <array>
#include <bit>
#include <charconv>
#include <cmath>
#include <cstdint>
#include <cstring>
#include <optional>
#include <tuple>
#include <vector>

namespace deepstop::files {
namespace {

using Corner = std::array<float, 3>;

/// Puts triangles together, and only what is one.
class Triangles {
public:
    explicit Triangles(const std::string& name) : name_(name) { }
    void put(const Corner& a, const Corner& b, const Corner& c)
    {
        constexpr float farthest = 1e7F;
        for (const Corner* corner : { &a, &b, &c })
            for (const float each : *corner)
                if (!(std::abs(each) <= farthest))
                    return;
        if (mesh_.triangles() >= mostTriangles)
            throw Refusal(tr("{}: more than {} triangles are too many. Have the scanner's program thin it out.", name_, mostTriangles));
        if (mesh_.triangles() % 65536 == 0)
            endIfCancelled();
        mesh_.corners.insert(mesh_.corners.end(), { a, b, c });
    }
    void reserve(std::size_t triangles) { mesh_.corners.reserve(3 * std::min(triangles, mostTriangles)); }
    [[nodiscard]] scan::Mesh made() && { return std::move(mesh_); }

private:
    const std::string& name_;
    scan::Mesh mesh_;
};

/// Words and lines one after another.
class Words {
public:
    explicit Words(std::string_view text) : left_(text) { }
    [[nodiscard]] bool end() const { return left_.empty(); }
    [[nodiscard]] std::string_view line()
    {
        const auto end = left_.find('\n');
        std::string_view line = left_.substr(0, end);
        left_ = end == std::string_view::npos ? std::string_view() : left_.substr(end + 1);
        if (line.ends_with('\r'))
            line.remove_suffix(1);
        return line;
    }
    /// Empty at the end.
    [[nodiscard]] std::string_view word()
    {
        const auto isSpace = [](char c) { return c == ' ' || c == '\t' || c == '\r' || c == '\n'; };
        std::size_t from = 0;
        while (from < left_.size() && isSpace(left_[from]))
            ++from;
        std::size_t to = from;
        while (to < left_.size() && !isSpace(left_[to]))
            ++to;
        const std::string_view word = left_.substr(from, to - from);
        left_ = left_.substr(to);
        return word;
    }
    /// NaN where no number stands.
    [[nodiscard]] float number()
    {
        const std::string_view text = word();
        float value = NAN;
        const auto read = std::from_chars(text.data() + (text.starts_with('+') ? 1 : 0), text.data() + text.size(), value);
        return read.ec == std::errc {} && read.ptr == text.data() + text.size() ? value : NAN;
    }
    [[nodiscard]] std::string_view left() const { return left_; }

private:
    std::string_view left_;
};

constexpr std::size_t stlHeader = 84;
constexpr std::size_t stlTriangle = 50;

template <class T>
T taken(const char* from)
{
    T value;
    std::memcpy(&value, from, sizeof value);
    return value;
}

std::uint64_t stlCount(std::string_view bytes) { return taken<std::uint32_t>(bytes.data() + 80); }

scan::Mesh binaryStl(std::string_view bytes, const std::string& name)
{
    Triangles triangles(name);
    triangles.reserve((bytes.size() - stlHeader) / stlTriangle);
    for (std::size_t at = stlHeader; at + stlTriangle <= bytes.size(); at += stlTriangle) {
        const char* corners = bytes.data() + at + 12;
        triangles.put(taken<Corner>(corners), taken<Corner>(corners + 12), taken<Corner>(corners + 24));
    }
    return std::move(triangles).made();
}

scan::Mesh textStl(std::string_view bytes, const std::string& name)
{
    Triangles triangles(name);
    std::array<Corner, 3> corners {};
    std::size_t have = 0;
    for (Words words(bytes); !words.end();) {
        const std::string_view word = words.word();
        if (word == "facet" || word == "endfacet")
            have = 0;
        if (word != "vertex")
            continue;
        Corner& corner = corners[have++];
        for (float& each : corner)
            each = words.number();
        if (have == 3) {
            triangles.put(corners[0], corners[1], corners[2]);
            have = 0;
        }
    }
    return std::move(triangles).made();
}

/// A face's corners by number; those that are not there take it with them.
void putFace(Triangles& triangles, const std::vector<Corner>& corners, const std::vector<std::int64_t>& face)
{
    const auto isThere = [&](std::int64_t i) { return i >= 0 && i < static_cast<std::int64_t>(corners.size()); };
    if (!std::ranges::all_of(face, isThere))
        return;
    for (std::size_t i = 2; i < face.size(); ++i)
        triangles.put(corners[static_cast<std::size_t>(face[0])], corners[static_cast<std::size_t>(face[i - 1])],
            corners[static_cast<std::size_t>(face[i])]);
}

scan::Mesh obj(std::string_view bytes, const std::string& name)
{
    Triangles triangles(name);
    std::vector<Corner> corners;
    std::vector<std::int64_t> face;
    for (Words lines(bytes); !lines.end();) {
        Words words(lines.line());
        const std::string_view what = words.word();
        if (what == "v") {
            Corner corner {};
            for (float& each : corner)
                each = words.number();
            corners.push_back(corner);
        } else if (what == "f") {
            face.clear();
            for (std::string_view each = words.word(); !each.empty(); each = words.word()) {
                std::int64_t number = 0;
                std::from_chars(each.data(), each.data() + each.size(), number);
                // From 1; backwards from the last where it is negative; 0 is none.
                face.push_back(number > 0 ? number - 1 : number < 0 ? static_cast<std::int64_t>(corners.size()) + number : -1);
            }
            putFace(triangles, corners, face);
        }
    }
    return std::move(triangles).made();
}

enum class Order { Text, Little, Big };

struct PlyProperty {
    std::string name;
    char kind = 'f'; ///< i, u or f
    std::size_t size = 4;
    std::optional<std::pair<char, std::size_t>> counted; ///< kind and size of a list's count
};
struct PlyElement {
    std::string name;
    std::uint64_t count = 0;
    std::vector<PlyProperty> properties;
};

std::optional<std::pair<char, std::size_t>> plyType(std::string_view word)
{
    struct Type {
        std::string_view name;
        char kind;
        std::size_t size;
    };
    static constexpr std::array types { Type { "char", 'i', 1 }, Type { "int8", 'i', 1 }, Type { "uchar", 'u', 1 },
        Type { "uint8", 'u', 1 }, Type { "short", 'i', 2 }, Type { "int16", 'i', 2 }, Type { "ushort", 'u', 2 }, Type { "uint16", 'u', 2 },
        Type { "int", 'i', 4 }, Type { "int32", 'i', 4 }, Type { "uint", 'u', 4 }, Type { "uint32", 'u', 4 }, Type { "float", 'f', 4 },
        Type { "float32", 'f', 4 }, Type { "double", 'f', 8 }, Type { "float64", 'f', 8 } };
    const auto found = std::ranges::find(types, word, &Type::name);
    return found == types.end() ? std::nullopt : std::optional(std::pair { found->kind, found->size });
}

class Ply {
public:
    Ply(std::string_view bytes, const std::string& name) : bytes_(bytes), name_(name), words_(bytes) { }

    scan::Mesh read()
    {
        header();
        Triangles triangles(name_);
        std::vector<Corner> corners;
        std::vector<std::int64_t> face;
        for (const PlyElement& element : elements_) {
            const bool isVertex = element.name == "vertex";
            const bool isFace = element.name == "face";
            for (std::uint64_t i = 0; i < element.count; ++i) {
                if (i % 65536 == 0)
                    endIfCancelled();
                Corner corner { NAN, NAN, NAN };
                face.clear();
                for (const PlyProperty& property : element.properties) {
                    if (!property.counted) {
                        const double value = one(property.kind, property.size);
                        if (isVertex && property.name.size() == 1 && property.name[0] >= 'x' && property.name[0] <= 'z')
                            corner[static_cast<std::size_t>(property.name[0] - 'x')] = static_cast<float>(value);
                        continue;
                    }
                    const double count = one(property.counted->first, property.counted->second);
                    // A list is never longer than what is left to read it from.
                    if (!(count >= 0) || count > static_cast<double>(left()))
                        cutShort();
                    const bool corners3 = isFace && (property.name == "vertex_indices" || property.name == "vertex_index");
                    for (double k = 0; k < count; ++k) {
                        const double value = one(property.kind, property.size);
                        if (corners3)
                            face.push_back(value >= 0 && value < 4.3e9 ? static_cast<std::int64_t>(value) : -1);
                    }
                }
                if (isVertex)
                    corners.push_back(corner);
                else if (isFace)
                    putFace(triangles, corners, face);
            }
        }
        return std::move(triangles).made();
    }

private:
    [[noreturn]] void cutShort() const
    {
        throw Refusal(tr("{}: its header counts more than the file holds: it is damaged or cut short.", name_));
    }
    [[noreturn]] void damaged(std::string_view line) const
    {
        throw Refusal(tr("{}: its header is damaged at “{}”.", name_, std::string(line.substr(0, 60))));
    }

    void header()
    {
        (void)words_.line();
        bool hasFormat = false;
        while (!words_.end()) {
            const std::string_view line = words_.line();
            Words words(line);
            const std::string_view what = words.word();
            if (what == "end_header") {
                if (!hasFormat)
                    damaged(line);
                at_ = bytes_.size() - words_.left().size();
                return;
            }
            if (what == "format") {
                const std::string_view order = words.word();
                order_ = order == "ascii" ? Order::Text : order == "binary_big_endian" ? Order::Big : Order::Little;
                hasFormat = order == "ascii" || order.starts_with("binary_");
            } else if (what == "element") {
                PlyElement element;
                element.name = words.word();
                const std::string_view count = words.word();
                const auto read = std::from_chars(count.data(), count.data() + count.size(), element.count);
                if (read.ec == std::errc::result_out_of_range || element.count > bytes_.size())
                    cutShort();
                if (read.ec != std::errc {})
                    damaged(line);
                elements_.push_back(std::move(element));
            } else if (what == "property") {
                PlyProperty property;
                auto type = words.word();
                if (type == "list") {
                    property.counted = plyType(words.word());
                    if (!property.counted)
                        damaged(line);
                    type = words.word();
                }
                const auto known = plyType(type);
                if (!known || elements_.empty())
                    damaged(line);
                std::tie(property.kind, property.size) = *known;
                property.name = words.word();
                elements_.back().properties.push_back(std::move(property));
            }
        }
        cutShort();
    }

    [[nodiscard]] std::size_t left() const { return order_ == Order::Text ? words_.left().size() : bytes_.size() - at_; }

    double one(char kind, std::size_t size)
    {
        if (order_ == Order::Text) {
            if (words_.end())
                cutShort();
            return words_.number();
        }
        if (size > bytes_.size() - at_)
            cutShort();
        std::array<char, 8> raw {};
        std::memcpy(raw.data(), bytes_.data() + at_, size);
        at_ += size;
        if ((order_ == Order::Big) == (std::endian::native == std::endian::little))
            std::reverse(raw.data(), raw.data() + size);
        if (kind == 'f')
            return size == 4 ? taken<float>(raw.data()) : taken<double>(raw.data());
        if (kind == 'u')
            return size == 1 ? taken<std::uint8_t>(raw.data())
                : size == 2  ? taken<std::uint16_t>(raw.data())
                             : taken<std::uint32_t>(raw.data());
        return size == 1 ? taken<std::int8_t>(raw.data()) : size == 2 ? taken<std::int16_t>(raw.data()) : taken<std::int32_t>(raw.data());
    }

    std::string_view bytes_;
    const std::string& name_;
    Words words_;
    std::size_t at_ = 0;
    Order order_ = Order::Text;
    std::vector<PlyElement> elements_;
};

scan::Mesh meshIn(std::string_view bytes, const std::string& name)
{
    if (bytes.starts_with("ply\n") || bytes.starts_with("ply\r"))
        return Ply(bytes, name).read();
    const std::string_view first = bytes.substr(0, 4096);
    const bool text = first.find('\0') == std::string_view::npos;
    if (bytes.starts_with("solid") && text && first.find("facet") != std::string_view::npos)
        return textStl(bytes, name);
    if (bytes.size() >= stlHeader && bytes.size() == stlHeader + stlTriangle * stlCount(bytes))
        return binaryStl(bytes, name);
    if (!text && bytes.size() >= stlHeader && (name.ends_with(".stl") || name.ends_with(".STL")))
        throw Refusal(tr("{}: ends after {} of {} triangles: it was cut short. Copy it again.", name,
            (bytes.size() - stlHeader) / stlTriangle, stlCount(bytes)));
    constexpr std::size_t beginning = 65536;
    for (Words lines(bytes.substr(0, text ? beginning : 0)); !lines.end();)
        if (const std::string_view line = lines.line(); line.starts_with("v ") || line.starts_with("v\t"))
            return obj(bytes, name);
    throw Refusal(tr("{}: is no STL, PLY, OBJ or STEP file.", name));
}

} // namespace

scan::Mesh readMesh(std::string_view bytes, const std::string& name)
{
    if (bytes.empty())
        throw Refusal(tr("{}: is empty.", name));
    if (bytes.starts_with("PK\x03\x04") || bytes.starts_with("\x1f\x8b"))
        throw Refusal(tr("{}: is a packed archive: unpack it first.", name));
    scan::Mesh mesh = meshIn(bytes, name);
    if (mesh.triangles() == 0)
        throw Refusal(tr("{}: there is no triangle in it: points alone are not enough. Have the scanner's program make a mesh.", name));
    return mesh;
}

} // namespace deepstop::files
