// SVG to pixels, by librsvg. ¶ On Linux librsvg is loaded when the first picture needs it: it brings thirty other
// libraries, and to load them when a program starts would make each start half as long again, for commands that draw
// nothing, too.

#include "svg_renderer_internal.hpp"

#include <librsvg/rsvg.h>

#include <cmath>

#ifdef __linux__
#include <dlfcn.h>
#endif

namespace dryground::drawing {

namespace {

// What is used of librsvg and of what it brings; the types come from their headers.
struct Rsvg {
    decltype(&g_error_free) free_error;
    decltype(&g_object_unref) release;
    decltype(&g_memory_input_stream_new_from_data) stream_of;
    decltype(&rsvg_handle_new_from_stream_sync) open;
    decltype(&rsvg_handle_get_intrinsic_size_in_pixels) size;
    decltype(&rsvg_handle_render_document) render;
};

#ifdef __linux__

template <class Function>
bool find(void* library, const char* name, Function& function) {
    function = reinterpret_cast<Function>(dlsym(library, name));   // in what the library brings, too
    return function != nullptr;
}

// It stays loaded until the program ends.
Result<Rsvg> load() {
    void* const library = dlopen("librsvg-2.so.2", RTLD_NOW | RTLD_LOCAL);
    Rsvg rsvg{};
    if (library == nullptr || !find(library, "g_error_free", rsvg.free_error) ||
        !find(library, "g_object_unref", rsvg.release) ||
        !find(library, "g_memory_input_stream_new_from_data", rsvg.stream_of) ||
        !find(library, "rsvg_handle_new_from_stream_sync", rsvg.open) ||
        !find(library, "rsvg_handle_get_intrinsic_size_in_pixels", rsvg.size) ||
        !find(library, "rsvg_handle_render_document", rsvg.render))
        return Failure{std::string("librsvg is needed for PNG, not for SVG (on Debian: apt install librsvg2-2): ") +
                       dlerror()};
    return rsvg;
}

#else

Result<Rsvg> load() {
    return Rsvg{g_error_free,
                g_object_unref,
                g_memory_input_stream_new_from_data,
                rsvg_handle_new_from_stream_sync,
                rsvg_handle_get_intrinsic_size_in_pixels,
                rsvg_handle_render_document};
}

#endif

}   // namespace

Result<Canvas> rendered(std::string_view svg) {
    static const Result<Rsvg> loaded = load();
    if (!loaded) return loaded.failure();
    const Rsvg& rsvg = *loaded;
    GError* error = nullptr;
    const auto fail = [&](const char* otherwise) {
        Failure failure{error != nullptr ? error->message : otherwise};
        if (error != nullptr) rsvg.free_error(error);
        return failure;
    };
    const std::unique_ptr<GInputStream, decltype(rsvg.release)> bytes(
        rsvg.stream_of(svg.data(), static_cast<gssize>(svg.size()), nullptr), rsvg.release);
    // Art may exceed the parser's own limits, which are meant for documents from strangers.
    const std::unique_ptr<RsvgHandle, decltype(rsvg.release)> handle(
        rsvg.open(bytes.get(), nullptr, RSVG_HANDLE_FLAG_UNLIMITED, nullptr, &error), rsvg.release);
    if (!handle) return fail("it is not SVG");
    double width = 0, height = 0;
    if (!rsvg.size(handle.get(), &width, &height)) return fail("it has no size");
    if (width > 32000 || height > 32000) return fail("it is larger than 32,000 px; a smaller --scale may help");
    Canvas surface = blank(static_cast<int>(std::ceil(width)), static_cast<int>(std::ceil(height)));
    const Context context(cairo_create(surface.get()));
    const RsvgRectangle view{0, 0, width, height};
    if (!rsvg.render(handle.get(), context.get(), &view, &error)) return fail("it cannot be drawn");
    cairo_surface_flush(surface.get());
    return surface;
}

}   // namespace dryground::drawing
