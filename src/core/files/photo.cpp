#include "files/photo.hpp"

#include "files/disk.hpp"
#include "files/refusal.hpp"
#include "language/language.hpp"

#include <array>
#include <optional>
#include <string_view>

namespace deepstop::files {
namespace {

using namespace std::string_view_literals;

constexpr std::string_view png = "\x89PNG\r\n\x1a\n"sv;
constexpr std::string_view jpeg = "\xff\xd8\xff"sv;
constexpr std::uint64_t mostPoints = 100'000'000;

struct Extent {
    std::uint32_t wide = 0;
    std::uint32_t high = 0;
};

std::uint32_t byteAt(std::string_view bytes, std::size_t at) { return static_cast<unsigned char>(bytes[at]); }

/// Big-endian, `count` bytes.
std::uint32_t numberAt(std::string_view bytes, std::size_t at, std::size_t count)
{
    std::uint32_t number = 0;
    for (std::size_t i = 0; i < count; ++i)
        number = number << 8 | byteAt(bytes, at + i);
    return number;
}

/// From the first chunk, IHDR (ISO/IEC 15948).
std::optional<Extent> pngExtent(std::string_view bytes)
{
    if (bytes.size() < 24 || bytes.substr(12, 4) != "IHDR"sv)
        return {};
    return Extent { numberAt(bytes, 16, 4), numberAt(bytes, 20, 4) };
}

/// From the frame header, SOF0 to SOF15 but DHT, JPG and DAC (ISO/IEC 10918-1).
std::optional<Extent> jpegExtent(std::string_view bytes)
{
    std::size_t at = 2;
    while (at + 9 <= bytes.size()) {
        if (byteAt(bytes, at) != 0xff)
            return {};
        const auto marker = byteAt(bytes, at + 1);
        if (marker == 0xff) {
            ++at;
            continue;
        }
        if (marker >= 0xc0 && marker <= 0xcf && marker != 0xc4 && marker != 0xc8 && marker != 0xcc)
            return Extent { numberAt(bytes, at + 7, 2), numberAt(bytes, at + 5, 2) };
        const auto length = numberAt(bytes, at + 2, 2);
        if (marker == 0xda || length < 2)
            return {};
        at += 2 + length;
    }
    return {};
}

} // namespace

paper::Photo photoFrom(std::string bytes)
{
    const bool isPng = bytes.starts_with(png);
    if (!isPng && !bytes.starts_with(jpeg))
        throw Refusal(tr("is no PNG or JPEG picture."));
    const auto extent = isPng ? pngExtent(bytes) : jpegExtent(bytes);
    if (!extent || extent->wide == 0 || extent->high == 0)
        throw Refusal(tr("is a damaged picture: its size cannot be read."));
    if (std::uint64_t { extent->wide } * extent->high > mostPoints)
        throw Refusal(tr("has more than 100 million points: make it smaller."));
    return { std::make_shared<const std::string>(std::move(bytes)), isPng, static_cast<int>(extent->wide), static_cast<int>(extent->high) };
}

paper::Photo readPhoto(const std::filesystem::path& path)
{
    return namingFile(path, [&] { return photoFrom(readFile(path, largestPhoto)); });
}

std::string base64(std::string_view bytes)
{
    constexpr std::string_view letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
    std::string out;
    out.reserve((bytes.size() + 2) / 3 * 4);
    for (std::size_t i = 0; i < bytes.size(); i += 3) {
        const std::size_t there = std::min<std::size_t>(3, bytes.size() - i);
        const std::uint32_t three = numberAt(bytes, i, there) << 8 * (3 - there);
        for (std::size_t k = 0; k < 4; ++k)
            out += k <= there ? letters[three >> (18 - 6 * k) & 63] : '=';
    }
    return out;
}

} // namespace deepstop::files
