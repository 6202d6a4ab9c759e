// Runs a fuzz target once over each file of its corpus, in builds without a fuzzer: replay FILE...
#include <cstdint>
#include <cstdio>

#include "dryground/files.hpp"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size);

int main(int argc, char** argv) {
    std::size_t count = 0;
    for (; count + 1 < static_cast<std::size_t>(argc); ++count) {
        const dryground::Result<std::string> file = dryground::read_file(argv[count + 1]);
        if (!file) return 1;
        LLVMFuzzerTestOneInput(reinterpret_cast<const std::uint8_t*>(file->data()), file->size());
    }
    std::printf("%zu inputs replayed\n", count);
    return count > 0 ? 0 : 1;
}
