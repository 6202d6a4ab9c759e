// PNG: rendered SVG, block by block where a picture is large, and written row by row, so that memory holds one row of
// blocks.

#include <png.h>

#include <algorithm>
#include <cmath>

#include "art_internal.hpp"
#include "draw_map_internal.hpp"
#include "svg_renderer_internal.hpp"

namespace dryground {

namespace {

using namespace drawing;

constexpr int block_width = 2048, block_height = 512;
constexpr double most_px = 1 << 20;   // a side

// Writes a PNG without alpha, row by row into a sink. The library below jumps out of its errors: nothing with a
// destructor lives in between.
class RowWriter {
public:
    RowWriter(int width, int height, const ByteSink& sink) : sink_(sink) {
        png_ = png_create_write_struct(PNG_LIBPNG_VER_STRING, nullptr, nullptr, nullptr);
        info_ = png_ != nullptr ? png_create_info_struct(png_) : nullptr;
        if (info_ == nullptr || setjmp(png_jmpbuf(png_)) != 0) {
            failed_ = true;
            return;
        }
        png_set_write_fn(png_, this, write, nullptr);
        png_set_user_limits(png_, 1u << 20, 1u << 20);
        png_set_IHDR(png_, info_, static_cast<png_uint_32>(width), static_cast<png_uint_32>(height), 8,
                     PNG_COLOR_TYPE_RGB, PNG_INTERLACE_NONE, PNG_COMPRESSION_TYPE_DEFAULT, PNG_FILTER_TYPE_DEFAULT);
        png_write_info(png_, info_);
    }
    ~RowWriter() { png_destroy_write_struct(&png_, &info_); }
    RowWriter(const RowWriter&) = delete;
    RowWriter& operator=(const RowWriter&) = delete;

    [[nodiscard]] bool row(const unsigned char* rgb) {
        if (failed_ || setjmp(png_jmpbuf(png_)) != 0) return false;
        png_write_row(png_, rgb);
        return !failed_;
    }
    [[nodiscard]] bool end() {
        if (failed_ || setjmp(png_jmpbuf(png_)) != 0) return false;
        png_write_end(png_, info_);
        return !failed_;
    }

private:
    static void write(png_structp png, png_bytep data, std::size_t length) {
        auto* const self = static_cast<RowWriter*>(png_get_io_ptr(png));
        if (!self->failed_ && !self->sink_({reinterpret_cast<const char*>(data), length})) self->failed_ = true;
    }

    const ByteSink& sink_;
    png_structp png_ = nullptr;
    png_infop info_ = nullptr;
    bool failed_ = false;
};

// Copies a surface into rows of RGB bytes, from a column on.
void copy_rows(cairo_surface_t* surface, int column, int width, int height, std::vector<unsigned char>& rows,
               std::size_t row_bytes) {
    const unsigned char* const data = cairo_image_surface_get_data(surface);
    const int stride = cairo_image_surface_get_stride(surface);
    for (int y = 0; y < height; ++y) {
        const auto* const from = reinterpret_cast<const std::uint32_t*>(data + std::ptrdiff_t{y} * stride);
        unsigned char* to =
            rows.data() + static_cast<std::size_t>(y) * row_bytes + static_cast<std::size_t>(column) * 3;
        for (int x = 0; x < width; ++x, to += 3) {
            to[0] = static_cast<unsigned char>(from[x] >> 16 & 255);
            to[1] = static_cast<unsigned char>(from[x] >> 8 & 255);
            to[2] = static_cast<unsigned char>(from[x] & 255);
        }
    }
}

}   // namespace

Result<void> draw_png(const World& world, const Map& map, const Report& report, const ArtSource& source,
                      const DrawOptions& options, const ByteSink& sink) {
    MapPicture picture(world, map, report, options);
    Art art(world, source, picture.scale, options.palette == Palette::grey);
    if (picture.page.width > most_px || picture.page.height > most_px)
        return Failure{"it is larger than 2^20 px a side; a smaller scale, or an area of it, may help"};
    const int width = static_cast<int>(std::ceil(picture.page.width)),
              height = static_cast<int>(std::ceil(picture.page.height));
    const std::size_t row_bytes = static_cast<std::size_t>(width) * 3;
    const int across = (width + block_width - 1) / block_width, down = (height + block_height - 1) / block_height;
    RowWriter writer(width, height, sink);
    std::vector<unsigned char> rows(row_bytes * static_cast<std::size_t>(std::min(height, block_height)));
    for (int block = 0; block < across * down; ++block) {
        const int left = block % across * block_width, top = block / across * block_height;
        const int wide = std::min(block_width, width - left), high = std::min(block_height, height - top);
        const Box window{static_cast<double>(left), static_cast<double>(top), static_cast<double>(wide),
                         static_cast<double>(high)};
        const Result<Canvas> surface = rendered(draw_window(picture, art, window));
        if (!surface) return surface.failure();
        copy_rows(surface->get(), left, wide, high, rows, row_bytes);
        if (left + wide == width)
            for (int y = 0; y < high; ++y)
                if (!writer.row(rows.data() + static_cast<std::size_t>(y) * row_bytes))
                    return Failure{"it cannot be written"};
        if (options.progress)
            options.progress(static_cast<std::size_t>(block) + 1,
                             static_cast<std::size_t>(across) * static_cast<std::size_t>(down));
    }
    if (!writer.end()) return Failure{"it cannot be written"};
    return {};
}

Result<std::string> png_from_svg(std::string_view svg) {
    const Result<Canvas> surface = rendered(svg);
    if (!surface) return surface.failure();
    std::string bytes = png_of(surface->get());
    if (bytes.empty()) return Failure{"the picture cannot be made"};
    return bytes;
}

}   // namespace dryground
