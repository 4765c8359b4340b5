#include "files/data_folder.hpp"
#include "files/paper_files.hpp"

#include "files/disk.hpp"
#include "files/exports.hpp"
#include "files/letters.hpp"
#include "language/language.hpp"

#include <cairo-pdf.h>
#include <cairo-svg.h>

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <memory>
#include <numbers>
#include <string_view>

namespace deepstop::files {
namespace {

constexpr double pointsPerMetre = 72 / 0.0254;
constexpr double letterSize = 1.25; ///< of a font, over the height that lettering is given by

using Surface = std::unique_ptr<cairo_surface_t, decltype(&cairo_surface_destroy)>;
using Context = std::unique_ptr<cairo_t, decltype(&cairo_destroy)>;

cairo_status_t append(void* into, const unsigned char* data, unsigned int length)
{
    static_cast<std::string*>(into)->append(reinterpret_cast<const char*>(data), length);
    return CAIRO_STATUS_SUCCESS;
}

cairo_status_t take(void* from, unsigned char* data, unsigned int length)
{
    auto& left = *static_cast<std::string_view*>(from);
    if (left.size() < length)
        return CAIRO_STATUS_READ_ERROR;
    std::ranges::copy(left.substr(0, length), data);
    left.remove_prefix(length);
    return CAIRO_STATUS_SUCCESS;
}

/// A PNG is decoded; a JPEG goes into a PDF as it is.
void draw(cairo_t* c, const paper::PlacedPhoto& placed)
{
    const paper::Photo& photo = placed.photo;
    std::string_view left = *photo.bytes;
    Surface picture(photo.png ? cairo_image_surface_create_from_png_stream(take, &left)
                              : cairo_image_surface_create(CAIRO_FORMAT_A8, photo.wide, photo.high),
        cairo_surface_destroy);
    if (cairo_surface_status(picture.get()) != CAIRO_STATUS_SUCCESS)
        throw Refusal(tr("A photograph could not be read: it is damaged."));
    if (!photo.png) {
        auto* kept = new std::shared_ptr<const std::string>(photo.bytes);
        const auto* bytes = reinterpret_cast<const unsigned char*>((*kept)->data());
        cairo_surface_set_mime_data(
            picture.get(), CAIRO_MIME_TYPE_JPEG, bytes, (*kept)->size(),
            [](void* held) { delete static_cast<std::shared_ptr<const std::string>*>(held); }, kept);
    }
    cairo_save(c);
    cairo_translate(c, placed.at.x, placed.at.y);
    cairo_scale(c, placed.width / photo.wide, placed.height / photo.high);
    cairo_set_source_surface(c, picture.get(), 0, 0);
    cairo_paint(c);
    cairo_restore(c);
}

void draw(cairo_t* c, const paper::Page& page)
{
    cairo_save(c);
    cairo_scale(c, pointsPerMetre, pointsPerMetre);
    for (const paper::PlacedPhoto& photo : page.photos)
        draw(c, photo);
    cairo_set_source_rgb(c, 0, 0, 0);
    cairo_set_line_join(c, CAIRO_LINE_JOIN_ROUND);
    cairo_set_line_cap(c, CAIRO_LINE_CAP_BUTT);
    // In millimetres: of a dash whose gap is under 1/512 of its unit the library makes a solid line.
    constexpr double mm = 1000;
    cairo_save(c);
    cairo_scale(c, 1 / mm, 1 / mm);
    for (const paper::Stroke& stroke : page.strokes) {
        if (stroke.points.size() < 2)
            continue;
        auto dashes = paper::dashesOf(stroke.pen);
        for (double& dash : dashes)
            dash *= mm;
        cairo_set_dash(c, dashes.data(), static_cast<int>(dashes.size()), 0);
        cairo_set_line_width(c, paper::widthOf(stroke.pen) * mm);
        cairo_move_to(c, stroke.points.front().x * mm, stroke.points.front().y * mm);
        for (std::size_t i = 1; i < stroke.points.size(); ++i)
            cairo_line_to(c, stroke.points[i].x * mm, stroke.points[i].y * mm);
        if (stroke.closed)
            cairo_close_path(c);
        cairo_stroke(c);
    }
    cairo_restore(c);
    for (const paper::Lettering& l : page.letters) {
        cairo_save(c);
        cairo_translate(c, l.at.x, l.at.y);
        if (l.upright)
            cairo_rotate(c, -std::numbers::pi / 2);
        const double size = l.height * letterSize;
        const double width = l.anchor == paper::Anchor::Left ? 0 : widthOfText(l.text, size);
        cairo_move_to(c, l.anchor == paper::Anchor::Middle ? -width / 2 : -width, 0);
        showText(c, l.text, size);
        cairo_restore(c);
    }
    cairo_restore(c);
}

void finish(Context& context, Surface& surface)
{
    context.reset();
    cairo_surface_finish(surface.get());
    if (const auto status = cairo_surface_status(surface.get()); status != CAIRO_STATUS_SUCCESS)
        throw Refusal(tr("The drawing could not be written: {}.", cairo_status_to_string(status)));
}

} // namespace

std::string pdfOf(std::span<const paper::Page> pages, const std::string& title)
{
    if (pages.empty())
        throw Refusal(tr("Nothing to print: the drawing is empty, too large for 60 sheets, or the bars cannot have measured that."));
    std::string bytes;
    Surface surface(cairo_pdf_surface_create_for_stream(append, &bytes, pages[0].width * pointsPerMetre, pages[0].height * pointsPerMetre),
        cairo_surface_destroy);
    cairo_pdf_surface_set_metadata(surface.get(), CAIRO_PDF_METADATA_TITLE, title.c_str());
    Context context(cairo_create(surface.get()), cairo_destroy);
    for (const paper::Page& page : pages) {
        cairo_pdf_surface_set_size(surface.get(), page.width * pointsPerMetre, page.height * pointsPerMetre);
        draw(context.get(), page);
        cairo_show_page(context.get());
    }
    finish(context, surface);
    return bytes;
}

double widthOfLetters(const std::string& text, double height) { return widthOfText(text, height * letterSize); }

void checkDrawable(const paper::Drawing& drawing)
{
    if (drawing.strokes.empty())
        throw Refusal(tr("Nothing to draw: the drawing is empty."));
    constexpr double farthest = 20;
    const auto sound = [](paper::Point p) { return std::abs(p.x) <= farthest && std::abs(p.y) <= farthest; };
    for (const auto& stroke : drawing.strokes)
        if (!std::ranges::all_of(stroke.points, sound))
            throw Refusal(tr("{}: a reading makes the drawing larger than any part of a car. Look at what was typed last.", drawing.title));
    for (const auto& letters : drawing.letters)
        if (!sound(letters.at))
            throw Refusal(tr("{}: a reading makes the drawing larger than any part of a car. Look at what was typed last.", drawing.title));
}

std::string svgOf(const paper::Drawing& drawing)
{
    checkDrawable(drawing);
    constexpr double air = 12e-3;
    const auto extent = paper::extentOf(drawing);
    paper::Page page { extent.width() + 2 * air, extent.height() + 3 * air, {}, {} };
    const auto placed = [&](paper::Point p) { return paper::Point { p.x - extent.low.x + air, extent.high.y - p.y + air }; };
    for (paper::Stroke stroke : drawing.strokes) {
        for (paper::Point& p : stroke.points)
            p = placed(p);
        page.strokes.push_back(std::move(stroke));
    }
    for (paper::Lettering letters : drawing.letters) {
        letters.at = placed(letters.at);
        page.letters.push_back(std::move(letters));
    }
    page.letters.emplace_back(paper::Point { air, page.height - air }, drawing.title, 4e-3, paper::Anchor::Left, false);
    std::string bytes;
    Surface surface(cairo_svg_surface_create_for_stream(append, &bytes, page.width * pointsPerMetre, page.height * pointsPerMetre),
        cairo_surface_destroy);
    cairo_svg_surface_set_document_unit(surface.get(), CAIRO_SVG_UNIT_PT);
    Context context(cairo_create(surface.get()), cairo_destroy);
    draw(context.get(), page);
    finish(context, surface);
    return bytes;
}

void writePaper(const std::string& path, const paper::Drawing& drawing, const paper::Size& size, const paper::BarsRead& read)
{
    const auto ending = std::filesystem::path(path).extension().string();
    try {
        checkDrawable(drawing);
        if (ending == ".pdf")
            exportFile(path, pdfOf(paper::pagesOf(drawing, size, read), drawing.title));
        else if (ending == ".svg")
            exportFile(path, svgOf(drawing));
        else if (ending == ".dxf")
            exportFile(path, dxfOf(drawing));
        else
            throw Refusal(tr("{}: the name has to end in .pdf, .svg or .dxf.", path));
    } catch (const Refusal& refusal) {
        const std::string said = refusal.what();
        throw Refusal(said.starts_with(path) ? said : path + ": " + said);
    }
}

} // namespace deepstop::files
