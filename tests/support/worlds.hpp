// Small worlds for tests: files in memory, and findings asked for by rule.
#pragma once

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <string>
#include <vector>

#include "dryground/check.hpp"
#include "dryground/files.hpp"

namespace worlds {

using Files = std::map<std::string, std::string>;

// A world of one tile set and one map, which reads and checks clean.
inline Files small_world() {
    return {{"world.toml", R"(format = "dryground/world/1"
title = "Test Flat"
player = "warden"
start = "flat/landing"
tilesets = ["marsh.toml"]
maps = ["flat.toml"]

[barriers]
earth = {}
brine = {}

[flags]
walk = "on foot"

[movers.warden]
body = { box = [10, 14], at = [0, -7] }
stopped_by = ["earth", "brine"]

[facts]
has_key = "the key"

[events]
ring = "rings"

[kinds.crab]
role = "entity"
mover = "warden"
props.patrol_px = { type = "number", default = 32, min = 0 }

[check]                                     # there is more than is used
tile-unused = "off"
fact-unread = "off"
fact-never-true = "off"
event-unused = "off"
trigger-idle = "off"
)"},
            {"marsh.toml", R"(format = "dryground/tiles/1"
name = "marsh"
cell = [16, 16]

[tiles.peat]
unseen = true
barrier = "earth"
shapes = ["cell"]

[tiles.bank]
unseen = true
barrier = "earth"
shapes = [{ polygon = [[0, 16], [16, 0], [16, 16]] }]

[tiles.brine]
unseen = true
barrier = "brine"
shapes = ["cell"]

[tiles.boardwalk]
unseen = true
shapes = []
flags = ["walk"]
carves = [{ barrier = "brine", box = [0, 4, 16, 8] }]
)"},
            {"flat.toml", R"(format = "dryground/map/1"
name = "flat"
cell = [16, 16]
size = [6, 4]
rim = "earth"
tilesets = ["marsh"]
legend = { "#" = "peat", "/" = "bank" }

[[layers]]
name = "ground"
rows = '''
......
......
..../#
######
'''

[[layers]]
name = "people"
objects = [
  { name = "landing", kind = "spawn", at = [24, 48] },
  { name = "crab_a", kind = "crab", at = [40, 48] },
]
)"}};
}

// The files with the first place of some text replaced. Fails the test when the text is not there.
inline Files with(Files files, const std::string& file, const std::string& from, const std::string& to) {
    std::string& text = files.at(file);
    const std::size_t at = text.find(from);
    if (at == std::string::npos)
        throw std::runtime_error(fmt::format("the test's own text '{}' is not in {}", from, file));
    text.replace(at, from.size(), to);
    return files;
}

// What reads these files; they have to live as long.
inline dryground::FileReader reader_of(const Files& files) {
    return [&files](const std::string& path) {
        const auto found = files.find(path);
        return found == files.end() ? dryground::Result<std::string>(dryground::Failure{"there is no such file"})
                                    : dryground::Result<std::string>(found->second);
    };
}

inline dryground::Result<dryground::World> load(const Files& files) {
    return dryground::load_world("world.toml", reader_of(files));
}

// The same where nothing can be wrong; throws what is wrong otherwise.
inline dryground::World world_of(const Files& files) {
    const dryground::Result<dryground::World> loaded = load(files);
    if (!loaded) throw std::runtime_error(dryground::text(loaded.report()));
    return *loaded;
}

// All findings of reading and, where that gave a world, of checking.
inline dryground::Report all_findings(const Files& files) {
    const dryground::Result<dryground::World> loaded = load(files);
    dryground::Report report = loaded.report();
    if (loaded) report.add(dryground::check(*loaded));
    return report;
}

// "rule at file:line:column" for each finding.
inline std::vector<std::string> rules_and_places(const dryground::Report& report) {
    std::vector<std::string> result;
    for (const dryground::Finding& finding : report.findings())
        result.push_back(
            fmt::format("{} at {}", dryground::rule_text(finding.rule).name, dryground::text(finding.place)));
    return result;
}

inline std::vector<const dryground::Finding*> of_rule(const dryground::Report& report, dryground::Rule rule) {
    std::vector<const dryground::Finding*> result;
    for (const dryground::Finding& finding : report.findings())
        if (finding.rule == rule) result.push_back(&finding);
    return result;
}

}   // namespace worlds
