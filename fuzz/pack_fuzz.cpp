// Reading any bytes as a pack: no crash, no hang; a pack or errors; and what loads can be packed and loaded again, the
// same.
#include <cstdint>
#include <cstdlib>

#include "dryground/files.hpp"

using namespace dryground;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    if (size > 1 << 16) return 0;
    const Result<Pack> loaded = read_pack({reinterpret_cast<const char*>(data), size}, "a.pack");
    if (static_cast<bool>(loaded) == loaded.report().has(Severity::error)) std::abort();
    (void)text(loaded.report());
    if (!loaded) return 0;
    const World& world = loaded->world();
    std::size_t cells = 0;
    for (const Map& map : world.maps())
        cells += static_cast<std::size_t>(map.columns) * static_cast<std::size_t>(map.rows);
    if (cells > 1 << 12) return 0;   // slow is not wrong
    for (const PackFormat format : {PackFormat::json, PackFormat::cbor}) {
        PackOutput output;
        output.format = format;
        const std::string bytes = pack_bytes(world, output);
        const Result<Pack> again = read_pack(bytes);
        if (!again || pack_bytes(again->world(), output) != bytes) std::abort();
    }
    return 0;
}
