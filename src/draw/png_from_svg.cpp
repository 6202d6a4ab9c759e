// SVG to PNG, by librsvg and cairo.

#include <cairo.h>
#include <librsvg/rsvg.h>

#include <memory>

#include "dryground/draw.hpp"

namespace dryground {

namespace {

cairo_status_t append(void* closure, const unsigned char* data, unsigned length) {
    static_cast<std::string*>(closure)->append(reinterpret_cast<const char*>(data), length);
    return CAIRO_STATUS_SUCCESS;
}

struct Free {
    void operator()(RsvgHandle* handle) const { g_object_unref(handle); }
    void operator()(cairo_surface_t* surface) const { cairo_surface_destroy(surface); }
    void operator()(cairo_t* context) const { cairo_destroy(context); }
};

}   // namespace

std::string png_from_svg(std::string_view svg, std::string& fault) {
    GError* error = nullptr;
    const std::unique_ptr<RsvgHandle, Free> handle(
        rsvg_handle_new_from_data(reinterpret_cast<const guint8*>(svg.data()), svg.size(), &error));
    const auto fail = [&](const char* otherwise) {
        fault = error != nullptr ? error->message : otherwise;
        if (error != nullptr) g_error_free(error);
        return std::string();
    };
    if (!handle) return fail("it is no SVG");
    double width = 0, height = 0;
    if (!rsvg_handle_get_intrinsic_size_in_pixels(handle.get(), &width, &height)) return fail("it has no size");
    if (width > 32000 || height > 32000) return fail("it is larger than 32,000 px; a smaller --scale may help");
    const std::unique_ptr<cairo_surface_t, Free> surface(
        cairo_image_surface_create(CAIRO_FORMAT_ARGB32, static_cast<int>(width), static_cast<int>(height)));
    const std::unique_ptr<cairo_t, Free> context(cairo_create(surface.get()));
    const RsvgRectangle view{0, 0, width, height};
    if (!rsvg_handle_render_document(handle.get(), context.get(), &view, &error)) return fail("it cannot be drawn");
    std::string bytes;
    if (cairo_surface_write_to_png_stream(surface.get(), append, &bytes) != CAIRO_STATUS_SUCCESS)
        return fail("the picture cannot be made");
    return bytes;
}

}   // namespace dryground
