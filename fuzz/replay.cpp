// Runs a fuzz target once over each file of its corpus, in builds without a fuzzer: replay FOLDER
#include <cstdint>
#include <cstdio>
#include <filesystem>

#include "dryground/files.hpp"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size);

int main(int argc, char** argv) {
    std::size_t count = 0;
    for (int i = 1; i < argc; ++i)
        for (const auto& entry : std::filesystem::directory_iterator(argv[i])) {
            const dryground::FileBytes file = dryground::read_file(entry.path());
            if (!file.bytes) return 1;
            LLVMFuzzerTestOneInput(reinterpret_cast<const std::uint8_t*>(file.bytes->data()), file.bytes->size());
            ++count;
        }
    std::printf("%zu inputs replayed\n", count);
    return count > 0 ? 0 : 1;
}
