#include "files/letters.hpp"

#include "files/data_folder.hpp"

#include <cairo-ft.h>
#include <raqm.h>

#include <algorithm>
#include <array>
#include <memory>
#include <mutex>
#include <span>
#include <vector>

namespace deepstop::files {
namespace {

/// Pixels to the em at which texts are shaped: large, so that no hinting rounds them.
constexpr int shapedAt = 1000;

/// The shipped letters, and what stands in for those they lack: other alphabets, then symbols and emoji.
class Fonts {
public:
    struct Font {
        FT_Face shaping = nullptr; ///< sized once; the drawing library sizes its own as it likes
        cairo_font_face_t* drawing = nullptr;
    };

    Fonts()
    {
        if (FT_Init_FreeType(&library_) != 0)
            return;
        for (std::size_t i = 0; i < names.size(); ++i) {
            const std::string path = dataFolder() / "fonts" / names[i];
            Font font;
            FT_Face drawn = nullptr;
            if (FT_New_Face(library_, path.c_str(), 0, &font.shaping) != 0 || FT_New_Face(library_, path.c_str(), 0, &drawn) != 0)
                continue;
            FT_Set_Pixel_Sizes(font.shaping, 0, shapedAt);
            font.drawing = cairo_ft_font_face_create_for_ft_face(drawn, 0);
            fonts_.push_back(font);
        }
        // The drawing library may keep the faces until its caches go; all of it lives as long as the program.
    }
    [[nodiscard]] std::span<const Font> all() const { return fonts_; }

private:
    static constexpr std::array names { "B612-Regular.otf", "DejaVuSans.ttf", "Symbola.ttf" };
    FT_Library library_ = nullptr;
    std::vector<Font> fonts_;
};

const Fonts& fonts()
{
    static const Fonts shipped;
    return shipped;
}

/// Shaping changes what a face keeps, and is done by one thread at a time.
std::mutex& shapingMutex()
{
    static std::mutex mutex;
    return mutex;
}

/// The code points of a text; what is no UTF-8 is passed over.
std::vector<std::uint32_t> codePoints(const std::string& text)
{
    std::vector<std::uint32_t> points;
    for (std::size_t i = 0; i < text.size();) {
        const auto lead = static_cast<unsigned char>(text[i]);
        const int more = lead < 0x80 ? 0 : lead >= 0xF0 ? 3 : lead >= 0xE0 ? 2 : lead >= 0xC0 ? 1 : -1;
        if (more < 0 || i + static_cast<std::size_t>(more) >= text.size()) {
            ++i;
            continue;
        }
        std::uint32_t point = more == 0 ? lead : lead & (0x3Fu >> more);
        for (int k = 1; k <= more; ++k)
            point = point << 6 | (static_cast<unsigned char>(text[i + static_cast<std::size_t>(k)]) & 0x3Fu);
        points.push_back(point);
        i += static_cast<std::size_t>(more) + 1;
    }
    return points;
}

/// Joins, and what says how the letter before is drawn: they have no shape of their own.
bool isSilent(std::uint32_t point) { return point == 0x200D || (point >= 0xFE00 && point <= 0xFE0F); }

/// The first font that has a letter; the first of all where none has.
std::size_t fontOf(std::uint32_t point)
{
    const auto all = fonts().all();
    for (std::size_t i = 0; i < all.size(); ++i)
        if (FT_Get_Char_Index(all[i].shaping, point) != 0)
            return i;
    return 0;
}

/// Letters of one font in a row.
struct Run {
    std::size_t font = 0;
    std::vector<cairo_glyph_t> glyphs; ///< places in thousandths of the size
};
struct Shaped {
    std::vector<Run> runs;
    double width = 0; ///< in thousandths of the size
};

Shaped shaped(const std::string& text)
{
    Shaped result;
    auto points = codePoints(text);
    std::erase_if(points, isSilent);
    const auto all = fonts().all();
    if (points.empty() || all.empty())
        return result;
    const std::lock_guard lock(shapingMutex());
    const std::unique_ptr<raqm_t, decltype(&raqm_destroy)> layout(raqm_create(), raqm_destroy);
    raqm_set_text(layout.get(), points.data(), points.size());
    raqm_set_par_direction(layout.get(), RAQM_DIRECTION_DEFAULT);
    raqm_set_freetype_face(layout.get(), all[0].shaping);
    for (std::size_t i = 0; i < points.size(); ++i)
        if (const auto font = fontOf(points[i]); font > 0)
            raqm_set_freetype_face_range(layout.get(), all[font].shaping, i, 1);
    if (!raqm_layout(layout.get()))
        return result;
    std::size_t count = 0;
    const raqm_glyph_t* glyphs = raqm_get_glyphs(layout.get(), &count);
    constexpr double unit = 64; // of its places
    for (std::size_t i = 0; i < count; ++i) {
        const auto font = static_cast<std::size_t>(
            std::find_if(all.begin(), all.end(), [&](const Fonts::Font& f) { return f.shaping == glyphs[i].ftface; }) - all.begin());
        if (result.runs.empty() || result.runs.back().font != font)
            result.runs.push_back({ font, {} });
        result.runs.back().glyphs.push_back(
            { glyphs[i].index, result.width + glyphs[i].x_offset / unit, -glyphs[i].y_offset / unit });
        result.width += glyphs[i].x_advance / unit;
    }
    return result;
}

} // namespace

void showText(cairo_t* context, const std::string& text, double size)
{
    double x = 0;
    double y = 0;
    cairo_get_current_point(context, &x, &y);
    cairo_set_font_size(context, size);
    for (Run& run : shaped(text).runs) {
        cairo_set_font_face(context, fonts().all()[run.font].drawing);
        for (cairo_glyph_t& glyph : run.glyphs) {
            glyph.x = x + glyph.x * size / shapedAt;
            glyph.y = y + glyph.y * size / shapedAt;
        }
        cairo_show_glyphs(context, run.glyphs.data(), static_cast<int>(run.glyphs.size()));
    }
}

double widthOfText(const std::string& text, double size) { return shaped(text).width * size / shapedAt; }

int lettersMissing(const std::string& text)
{
    int missing = 0;
    for (const auto point : codePoints(text))
        missing += !isSilent(point) && FT_Get_Char_Index(fonts().all()[fontOf(point)].shaping, point) == 0;
    return missing;
}

} // namespace deepstop::files
