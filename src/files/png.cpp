// PNG in and out, by libpng's simplified interface.

#include <png.h>

#include <cstring>

#include "dryground/files.hpp"

namespace dryground {

namespace {

struct Control {
    Control() {
        std::memset(&image, 0, sizeof image);
        image.version = PNG_IMAGE_VERSION;
    }
    ~Control() { png_image_free(&image); }
    Control(const Control&) = delete;
    Control& operator=(const Control&) = delete;
    png_image image;
};

}   // namespace

Result<Image> decode_png(std::string_view bytes) {
    Control control;
    if (bytes.empty()) return Failure{"the file is empty"};
    if (png_image_begin_read_from_memory(&control.image, bytes.data(), bytes.size()) == 0)
        return Failure{control.image.message};
    if (std::uint64_t{control.image.width} * control.image.height > std::uint64_t{1} << 26)
        return Failure{"it claims more than 67,108,864 px"};
    control.image.format = PNG_FORMAT_RGBA;
    Image result;
    result.width = static_cast<int>(control.image.width);
    result.height = static_cast<int>(control.image.height);
    result.rgba.resize(PNG_IMAGE_SIZE(control.image));
    if (png_image_finish_read(&control.image, nullptr, result.rgba.data(), 0, nullptr) == 0)
        return Failure{control.image.message};
    return result;
}

std::string encode_png(const Image& picture) {
    Control control;
    control.image.width = static_cast<png_uint_32>(picture.width);
    control.image.height = static_cast<png_uint_32>(picture.height);
    control.image.format = PNG_FORMAT_RGBA;
    png_alloc_size_t size = 0;
    std::string bytes;
    if (png_image_write_to_memory(&control.image, nullptr, &size, 0, picture.rgba.data(), 0, nullptr) == 0)
        return bytes;
    bytes.resize(size);
    if (png_image_write_to_memory(&control.image, bytes.data(), &size, 0, picture.rgba.data(), 0, nullptr) == 0)
        return {};
    bytes.resize(size);
    return bytes;
}

}   // namespace dryground
