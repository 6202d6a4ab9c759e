// How long a page takes in a browser: `node bench/page.mjs [SIDE] [square|isometric]`, after the dev build. Makes a map of
// caves SIDE cells a side (512 otherwise), draws it as a page, opens it in headless Chromium beside an empty page, then
// zooms and drags. On diamonds its walls are huts over a deck over the sea, sorted by depth.

import { execFileSync } from "node:child_process";
import { cpSync, mkdtempSync, rmSync, statSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";

const root = fileURLToPath(new URL("..", import.meta.url));
const { chromium } = createRequire(join(root, "tests", "npm", "page.mjs"))("playwright-core");
const side = Number(process.argv[2] ?? 512), isometric = process.argv[3] === "isometric", folder = mkdtempSync(join(tmpdir(), "dryground-bench-"));

// Caves by a cellular automaton, as the other benchmarks have them.
function caves() {
  let state = 7;
  const chance = () => (state = Math.imul(state, 1664525) + 1013904223 >>> 0) / 2 ** 32;
  let cells = Array.from({ length: side }, () => Array.from({ length: side }, () => chance() < 0.45));
  for (let round = 0; round < 4; ++round)
    cells = cells.map((row, r) => row.map((_, c) => {
      let solid = 0;
      for (let dr = -1; dr <= 1; ++dr) for (let dc = -1; dc <= 1; ++dc) solid += cells[r + dr]?.[c + dc] ?? true;
      return solid >= 5;
    }));
  return cells.map(row => row.map(solid => solid ? "#" : chance() < 0.1 ? "r" : ".").join("")).join("\n");
}

cpSync(join(root, "demo", "tiles"), join(folder, "tiles"), { recursive: true });
cpSync(join(root, "demo", "art"), join(folder, "art"), { recursive: true });
const layer = (name, rows, more = "") => `[[layers]]\nname = "${name}"\n${more}rows = '''\n${rows}\n'''\n`;
const all = character => Array(side).fill(character.repeat(side)).join("\n");
writeFileSync(join(folder, "caves.map.toml"), `format = "dryground/map/1"
name = "caves"
size = [${side}, ${side}]
${isometric ? `grid = "isometric"
cell = [32, 16]
tilesets = ["jetty"]
legend = { "~" = "sea", "=" = "deck", "#" = "hut", "r" = "bollard" }
` : `cell = [16, 16]
tilesets = ["marsh"]
legend = { "#" = "peat", "r" = "reeds" }
`}${isometric ? layer("sea", all("~")) + layer("deck", all("=")) : ""}${layer("ground", caves(), isometric ? 'band = "with"\n' : "")}`);
writeFileSync(join(folder, "world.toml"), `format = "dryground/world/1"
title = "Caves"
tilesets = ["tiles/${isometric ? "jetty" : "marsh"}.tiles.toml"]
maps = ["caves.map.toml"]
barriers = { earth = {}, brine = {} }
flags = { climb = "nets", walk = "can be crossed on foot" }
facts = {}
events = { scald = "steam", splinters = "a crate" }
`);
writeFileSync(join(folder, "empty.html"), "<!DOCTYPE html><script>document.documentElement.dataset.drawn = 'whole'</script>");

const out = join(folder, "caves.html"), begin = performance.now();
execFileSync(join(root, "build", "dev", "dryground"), ["draw", join(folder, "world.toml"), "--out", out], { stdio: "ignore" });
console.log(`made in ${Math.round(performance.now() - begin)} ms, findings too; ${(statSync(out).size / 1e6).toFixed(1)} MB`);

const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox"] });
async function open(file, what) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const start = performance.now();
  await page.goto("file://" + file);
  await page.waitForFunction(() => document.documentElement.dataset.drawn);
  const first = performance.now() - start;
  await page.waitForFunction(() => document.documentElement.dataset.drawn === "whole");
  console.log(`${what}: first picture after ${Math.round(first)} ms, whole after ${Math.round(performance.now() - start)} ms`);
  return page;
}
for (let i = 0; i < 3; ++i) {
  await (await open(join(folder, "empty.html"), "an empty page")).close();
  const page = await open(out, `${side} x ${side} ${isometric ? "diamonds" : "cells"}`);
  await page.evaluate(() => {
    window.gaps = [];
    let last = performance.now();
    const next = now => (gaps.push(now - last), last = now, requestAnimationFrame(next));
    requestAnimationFrame(next);
  });
  await page.mouse.move(480, 400);
  for (let k = 0; k < 60; ++k) await page.mouse.wheel(0, k < 30 ? -120 : 120), await page.waitForTimeout(16);
  await page.mouse.down();
  for (let k = 0; k < 40; ++k) await page.mouse.move(480 + 5 * k, 400 + 3 * k), await page.waitForTimeout(16);
  await page.mouse.up();
  const gaps = (await page.evaluate(() => window.gaps)).sort((a, b) => a - b), at = part => Math.round(gaps[Math.floor((gaps.length - 1) * part)]);
  console.log(`  zoomed and dragged: ${gaps.length} frames, ms from one to the next: median ${at(0.5)}, 98 % ${at(0.98)}, worst ${at(1)}`);
  await page.close();
}
await browser.close();
rmSync(folder, { recursive: true, force: true });
