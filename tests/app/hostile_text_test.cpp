// Texts of files that a terminal would obey: no command prints them unchanged.
#include <catch2/catch.hpp>

#include <fmt/format.h>

#include <filesystem>
#include <fstream>

#include "chance.hpp"
#include "process.hpp"

namespace {

namespace fs = std::filesystem;

// Copies the demo, with something hostile at the beginning of every text and note of its TOML files; and, if wanted, an
// unknown key.
void make_hostile(const fs::path& folder, const std::string& escape, bool with_key) {
    fs::copy(fs::path(DRYGROUND_SOURCE) / "demo", folder,
             fs::copy_options::recursive | fs::copy_options::overwrite_existing);
    for (const fs::directory_entry& entry : fs::recursive_directory_iterator(folder)) {
        if (entry.path().extension() != ".toml") continue;
        std::string text = process::slurp(entry.path());
        for (const char* key : {"title = \"", "note = \"", "why = \""})
            for (std::size_t at = text.find(key); at != std::string::npos; at = text.find(key, at + 1)) {
                at += std::string_view(key).size();
                text.insert(at, escape);
            }
        if (with_key) text += "\n\"odd" + escape + "key\" = 1\n";
        std::ofstream(entry.path(), std::ios::binary) << text;
    }
}

// The first byte or sign that a terminal would obey, apart from line breaks and tabs.
std::string obeyed(const std::string& text) {
    for (std::size_t i = 0; i < text.size(); ++i) {
        const auto byte = static_cast<unsigned char>(text[i]);
        const bool control = (byte < 0x20 && byte != '\n' && byte != '\t') || byte == 0x7F;
        const bool c1 = byte == 0xC2 && i + 1 < text.size() && static_cast<unsigned char>(text[i + 1]) < 0xA0;
        if (control || c1) return fmt::format("byte {:02x} at {}: {}", byte, i, text.substr(i < 40 ? 0 : i - 40, 80));
    }
    for (const char* sign : {"\u202e", "\u2066", "\u200f", "\u061c"})
        if (const auto at = text.find(sign); at != std::string::npos) return fmt::format("a turn of writing at {}", at);
    return {};
}

}   // namespace

TEST_CASE("no text of a file reaches a terminal as something to obey") {
    for (const char* escape :
         {"\\u001b[31m\\u001b]0;owned\\u0007\\u009b31m\\u202e\\u2066\\u200f\\u061c", "\\u0000\\u0008\\u000d\\u007f"})
        for (const bool with_key : {false, true}) {
            if (chance::sanitized && with_key != (escape[5] == '0')) continue;   // each of both once
            const process::Folder folder;
            make_hostile(folder.path, escape, with_key);
            int heard = 0, asked = 0;
            for (const char* world : {"world.toml", "broken/world.toml"})
                for (const char* command :
                     {"check {0}", "draw {0}", "draw {0} --out {1}.svg", "draw {0} --out {1}.html", "list {0} maps",
                      "list {0} kinds", "list {0} flags", "list {0} facts", "list {0} events", "list {0} objects",
                      "probe {0} --map slipway --cell 9,6", "merge {0} --out {1}.json", "pack {0} --out {1}.pack"}) {
                    const std::string line = fmt::format(fmt::runtime(command), (folder.path / world).generic_string(),
                                                         (folder.path / "out").generic_string());
                    INFO(line);
                    const process::Outcome outcome = process::tool(line);
                    CHECK(obeyed(outcome.out) == "");
                    CHECK(obeyed(outcome.err) == "");
                    heard += (outcome.out + outcome.err).find("\\u00") != std::string::npos ||
                             (outcome.out + outcome.err).find("\\u20") != std::string::npos;
                    ++asked;
                }
            CHECK(heard >= 4);   // it is reported, visibly
            CHECK(asked == 26);
        }
    // What the user types.
    const process::Outcome outcome = process::tool("check \"$(printf 'no\\033[31mfile')\"");
    CHECK(outcome.code == 2);
    CHECK(outcome.err.find("no\\u001b[31mfile") != std::string::npos);
    CHECK(obeyed(outcome.err) == "");
}
