// Drives loader.mjs, as a game would: `node loader_test.mjs TOOL SOURCE`. A world with a door is packed, loaded and
// played: a body stops at the door, steps on a plate that opens it, goes on, and is saved. Exit code 1 when something
// is not as it should be.
import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import Ajv from "ajv";
import { readFileSync } from "node:fs";
import { Game, readPack, rowOf } from "./loader.mjs";

const [tool, source] = process.argv.slice(2);
let failures = 0;
const check = (right, what) => { if (!right) { ++failures; console.log(`FAILED: ${what}`); } };
const near = (a, b, what, within = 0.03) => check(Math.abs(a - b) <= within, `${what}: ${a} is not ${b}`);

const folder = mkdtempSync(join(tmpdir(), "dryground-loader-"));
writeFileSync(join(folder, "world.toml"), `format = "dryground/world/1"
title = "The gate"
per_metre = 16
player = "warden"
start = "hall/landing"
tilesets = ["hall.tiles.toml"]
maps = ["hall.map.toml"]
[barriers]
earth = {}
[facts]
gate_open = "the gate is open"
lamp_lit = "the lamp burns"
[movers.warden]
body = { box = [10, 14], at = [0, -7] }
stopped_by = ["earth"]
moves = "side"
`);
writeFileSync(join(folder, "hall.tiles.toml"), `format = "dryground/tiles/1"
name = "hall"
cell = [16, 16]
[tiles.stone]
unseen = true
barrier = "earth"
shapes = ["cell"]
[tiles.gate]
unseen = true
barrier = "earth"
shapes = ["cell"]
needs = ["gate_open"]
`);
writeFileSync(join(folder, "hall.map.toml"), `format = "dryground/map/1"
name = "hall"
cell = [16, 16]
size = [12, 5]
rim = "earth"
tilesets = ["hall"]
[legend]
"#" = "stone"
"g" = "gate"
[[layers]]
name = "ground"
rows = '''
............
......g.....
......g.....
......g.....
############
'''
[[layers]]
name = "things"
objects = [
  { name = "landing", kind = "spawn", at = [24, 64] },
  { name = "plate", kind = "trigger", box = [64, 48, 16, 16], gives = ["gate_open"] },
  { name = "raft", kind = "solid", box = [128, 30, 32, 4], turn = 15, barrier = "earth" },
]
`);
const packed = join(folder, "hall.pack.json");
const pack = (...words) => execFileSync(tool, ["pack", join(folder, "world.toml"), "--out", packed, ...words], { stdio: "ignore" });

pack("--unit", "m", "--y", "up", "--variants", "2");
const schemas = join(source, "schema");
const loaded = readPack(packed, schemas);
const game = new Game(loaded);
const start = game.object("landing").placed.at;
near(start[0], 1.5, "the landing's x"), near(start[1], -4, "the landing's y");
const warden = game.addMover("warden", start);
game.step(1);
near(warden.getPosition().y, -4, "the warden stands where it was put");
const walk = seconds => {
  const met = new Set();
  for (let t = 0; t < seconds; t += 1 / 60) {
    warden.setLinearVelocity({ x: 2, y: warden.getLinearVelocity().y });
    game.world.step(1 / 60);
    if (game.plate) for (const name of game.touchTriggers(warden, "warden")) met.add(name);
  }
  return met;
};
walk(4);
near(warden.getPosition().x, 6 - 5 / 16, "it stops at the gate");
check(game.ground.length === 1, "the ground is one body");
const cells = game.map.layers[0].rows.map(rowOf);
check(cells.length === 5 && cells.every(row => row.length === 12), "rows have a number for each cell");
check(cells[3].every((number, c) => (number === 0) === (c !== 6)) && cells[4].every(number => number > 0), "the gate is in column 6");
game.plate = true;                                 // from now on the game asks its triggers
warden.setPosition({ x: 4.5, y: -4 });
check(walk(4).has("plate"), "the plate is told");
check(game.facts.has("gate_open"), "the gate is open");
near(warden.getPosition().x, 12 - 5 / 16, "it passes the gate, and stops at the rim", 0.05);
near(warden.getPosition().y, -4, "it never fell through while the ground was replaced", 0.05);
game.setFact("lamp_lit");                          // shapes no ground

const raft = game.addPlatform(game.object("raft"));
near(raft.getPosition().x, 9, "the raft's middle"), near(raft.getPosition().y, -2, "the raft's middle");
near(raft.getAngle(), -15 * Math.PI / 180, "the raft's angle", 1e-9);
const size = game.object("raft").placed.size;
near(size[0], 2, "the raft's length"), near(size[1], 0.25, "the raft's height");

const saved = JSON.parse(JSON.stringify(game.save()));
const validate = new Ajv({ strict: true })
  .compile(JSON.parse(readFileSync(join(schemas, "changes.schema.json"), "utf8")));
check(validate(saved), `the saved game keeps to its schema: ${JSON.stringify(validate.errors)}`);
const again = Game.load(loaded, saved);
check(again.merge().groups.length === game.merge().groups.length && again.facts.has("gate_open"), "the saved game is loaded");

pack();                                            // px, y down: refused, saying why
try { readPack(packed, schemas); check(false, "a pack in px is refused"); } catch (error) { check(/--unit m --y up/.test(error.message), error.message); }
const broken = JSON.parse(readFileSync(packed, "utf8"));
delete broken.maps[0].palette;
writeFileSync(packed, JSON.stringify(broken));
try { readPack(packed, schemas); check(false, "a broken pack is refused"); } catch (error) { check(/palette/.test(error.message), error.message); }

rmSync(folder, { recursive: true });
console.log(failures === 0 ? "loader: all is as it should be" : `loader: ${failures} failures`);
process.exit(failures > 0 ? 1 : 0);
