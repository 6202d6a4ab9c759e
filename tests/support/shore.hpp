// A side view with a bit of everything: barriers, flags, two maps and their links, facts, events, a trigger.
#pragma once

#include "worlds.hpp"

namespace worlds {

// Checks clean.
inline Files shore() {
    return {{"world.toml", R"(format = "dryground/world/1"
title = "Test Shore"
per_metre = 16
player = "warden"
start = "flat/landing"
goals = { facts = ["lamp_lit"] }
tilesets = ["marsh.toml"]
maps = ["flat.toml", "cave.toml"]

[barriers]
earth = {}
brine = {}

[flags]
walk = "on foot"
climb = "nets"

[movers.warden]
body = { box = [10, 14], at = [0, -7] }
stopped_by = ["earth", "brine"]
moves = "side"
jump_px = 40
leap_px = 56
kerb_px = 2
slope_degrees = 46

[movers.keeper]
body = { box = [10, 6], at = [0, -3] }
stopped_by = ["earth"]
needs = ["walk"]

[facts]
has_key = "the key"
lamp_lit = "the lamp is lit"

[events]
ring_bell = "rings"

[kinds.crab]
role = "entity"
mover = "warden"
stands = "feet"

[kinds.chest]
role = "entity"
area = { box = [-8, -16, 16, 16] }
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
carves = [{ barrier = "brine", box = [0, 0, 16, 16] }]

[tiles.net]
unseen = true
shapes = []
flags = ["climb"]
)"},
            {"flat.toml", R"(format = "dryground/map/1"
name = "flat"
cell = [16, 16]
size = [12, 6]
rim = "earth"
tilesets = ["marsh"]
legend = { "#" = "peat", "/" = "bank", "~" = "brine", "n" = "net" }

[[layers]]
name = "ground"
rows = '''
............
............
..........n.
......../###
..#~~#######
############
'''

[[layers]]
name = "deck"
legend = { "=" = "boardwalk" }
rows = '''
............
............
............
............
...==.......
............
'''

[[layers]]
name = "people"
objects = [
  { name = "landing", kind = "spawn", at = [120, 64] },
  { name = "crab_a", kind = "crab", at = [152, 48] },
  { name = "key", kind = "entity", circle = [96, 56, 6], fires = "enter", gives = ["has_key"] },
  { name = "door", kind = "link", cells = [11, 2, 1, 1], to = "cave/mat", fires = "use", needs = ["has_key"] },
  { name = "bell", kind = "trigger", box = [96, 32, 16, 16], runs = "ring_bell" },
  { name = "box", kind = "chest", at = [112, 64] },
]
)"},
            {"cave.toml", R"(format = "dryground/map/1"
name = "cave"
cell = [16, 16]
size = [8, 4]
rim = "earth"
tilesets = ["marsh"]
legend = { "#" = "peat" }

[[layers]]
name = "ground"
rows = '''
........
........
........
########
'''

[[layers]]
name = "people"
objects = [
  { name = "mat", kind = "entity", at = [56, 48] },
  { name = "out", kind = "link", cell = [0, 2], to = "flat/landing" },
  { name = "lamp", kind = "trigger", cell = [6, 2], gives = ["lamp_lit"], fires = "use" },
]
)"}};
}

// The line of its last object, behind which tests put more.
constexpr const char* last_of_shore = "  { name = \"box\", kind = \"chest\", at = [112, 64] },\n";

}   // namespace worlds
