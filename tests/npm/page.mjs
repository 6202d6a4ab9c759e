// A page in a browser, by real clicks and keys: `node page.mjs TOOL SOURCE`. Prints what fails; exit code 1 when
// something does. Needs Chromium; without it nothing is tested, and it says so.

import { execFileSync, spawn } from "node:child_process";
import { cpSync, existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium } from "playwright-core";

const [tool, source] = process.argv.slice(2);
const browserPath = ["/usr/bin/chromium", "/usr/bin/chromium-browser"].find(existsSync);
if (!browserPath) {
  console.log("page: there is no Chromium: nothing was tested");
  process.exit(0);
}

const folder = mkdtempSync(join(tmpdir(), "dryground-page-"));
const run = (...words) => execFileSync(tool, words, { cwd: source, encoding: "utf8", stdio: ["ignore", "pipe", "ignore"] });
const make = (world, name, ...words) => {
  const out = join(folder, name);
  run("draw", world, "--out", out, ...words);
  return out;
};

let failures = 0;
const check = (right, what) => {
  if (right) return;
  ++failures;
  console.log(`FAILED: ${what}`);
};
const equal = (a, b, what) => check(JSON.stringify(a) === JSON.stringify(b), `${what}: ${JSON.stringify(a)} is not ${JSON.stringify(b)}`);
const near = (a, b, what, within = 0.6) => check(Math.abs(a - b) <= within, `${what}: ${a} is not ${b}`);

const browser = await chromium.launch({ executablePath: browserPath, args: ["--no-sandbox"] });

async function open(file, more = {}) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, ...more });
  const page = await context.newPage();
  page.on("pageerror", error => check(false, `the page's script fails: ${error.message}`));
  page.on("request", request => check(/^(file|data|blob):/.test(request.url()), `the page asks for ${request.url()}`));
  await page.goto("file://" + file);
  await drawn(page);
  return page;
}
const drawn = page => page.waitForFunction(() => document.documentElement.dataset.drawn === "whole");
const rest = async page => {   // until it has drawn, and written down where it is
  await page.waitForTimeout(250);
  await drawn(page);
};
const here = page => page.locator("#here").innerText();
const place = page => page.evaluate(() => Object.fromEntries(new URLSearchParams(location.hash.slice(1))));
// Where a place of the map is on the screen.
async function onScreen(page, x, y) {
  const { x: u, y: v, zoom } = await place(page), box = await page.locator("#map").boundingBox();
  return [(x - u) * zoom + box.x + box.width / 2, (y - v) * zoom + box.y + box.height / 2];
}
const picture = page => page.evaluate(() => {
  const all = document.getElementById("map"), px = all.getContext("2d").getImageData(0, 0, all.width, all.height).data;
  let hash = 0;
  const colours = new Set();
  for (let i = 0; i < px.length; i += 4) {
    const colour = px[i] << 16 | px[i + 1] << 8 | px[i + 2];
    hash = hash * 31 + colour | 0;
    colours.add(colour);
  }
  return { hash, colours: colours.size };
});

async function test(name, body) {
  try {
    await body();
  } catch (error) {
    check(false, `${name}: ${error.message}`);
  }
}

const demo = make("demo/world.toml", "demo.html"), broken = make("demo/broken/world.toml", "broken.html");

await test("tiles of a set are found by words, barriers and flags", async () => {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  page.on("pageerror", error => check(false, `the page's script fails: ${error.message}`));
  await page.goto("file://" + make("demo/tiles/station.tiles.toml", "station_tiles.html"));
  const shown = async () => (await page.locator(".tile:visible h2").allInnerTexts()).join(" ");
  check((await shown()).startsWith("floor wall pool"), `all tiles are there: ${await shown()}`);
  await page.keyboard.press("/");
  await page.keyboard.type("pipe");
  equal(await shown(), "pipe pipe_bend", "a search leaves those that have its words");
  equal(await page.locator("#count").innerText(), "2 of 12 tiles", "and counts them");
  await page.fill("#search", "");
  await page.selectOption("#barrier", "brine");
  equal(await shown(), "pool boardwalk", "a barrier leaves those that are made of it or carve it");
  await page.selectOption("#flag", "walk");
  equal(await shown(), "boardwalk", "and a flag those of them that grant it");
  await page.close();
});

await test("it shows the map, and says where the pointer is and what is there", async () => {
  const page = await open(demo);
  await rest(page);
  check((await picture(page)).colours > 50, "there is a picture");
  await page.mouse.move(...await onScreen(page, 200, 132));
  const tip = await page.locator("#tip").innerText();
  check(tip.includes("marsh/peat_top") && tip.includes("solid here: earth"), `the tip tells the tile and what is solid: ${tip}`);
  check((await page.locator("#where").innerText()).includes("cell (12, 8)"), "the heading tells the cell");
  await page.mouse.click(...await onScreen(page, 200, 132));
  check((await here(page)).includes("cell (12, 8)"), "a click tells it in the panel");
  await page.context().close();
});

await test("it says of cells what probe says", async () => {
  const page = await open(demo);
  await page.selectOption("#maps", "pump_house");
  await rest(page);
  for (const [column, row] of [[9, 6], [10, 4], [13, 7], [15, 3], [14, 1], [1, 6]]) {
    await page.mouse.click(...await onScreen(page, column * 16 + 8, row * 16 + 8));
    const told = await here(page), lines = run("probe", "demo/world.toml", "--map", "pump_house", "--cell", `${column},${row}`)
      .split("\n").filter(line => line.startsWith("  ") && /: |grants/.test(line) && !/, of |carves it away$/.test(line)).map(line => line.trim());
    check(lines.length > 0, "probe says something");
    for (const line of lines) check(told.replaceAll("\n", " ").includes(line), `cell (${column}, ${row}): '${line}' is not in: ${told}`);
  }
  await page.context().close();
});

await test("it shows where one gets to, and the way to all goals", async () => {
  const page = await open(demo);
  await rest(page);
  check(!await page.locator("#way_title").isVisible(), "no way before it is asked for");
  const before = await picture(page);
  await page.locator("#things label", { hasText: "walk" }).click();
  await rest(page);
  check((await picture(page)).hash !== before.hash, "the layer is drawn");
  const key = await page.locator("#key").innerText();
  for (const words of ["where the mover gets to", "where it does not", "not decided", "the way to all goals"])
    check(key.includes(words), `the key tells '${words}'`);
  const told = run("walk", "demo/world.toml").split("\n").filter(line => /^ *\d+ /.test(line)).map(line => line.replace(/^ *\d+ +/, "").trim());
  check(told.length > 3, "walk tells a way");
  const listed = await page.locator("#way li button").allInnerTexts();
  equal(listed.map(text => text.replace(/^\d+\s*/, "").replace(/ +/g, " ").trim()), told.map(line => line.replace(/ +/g, " ")), "the steps are those of walk");
  const other = listed.findIndex(text => /^\d+\s*pump_house /.test(text));
  check(other >= 0, "the way goes over two maps");
  await page.locator("#way li button").nth(other).click();
  await rest(page);
  equal((await place(page)).map, "pump_house", "a step is gone to");
  await page.context().close();
});

await test("keys move from cell to cell, zoom, follow links and are told in words", async () => {
  const page = await open(demo);
  await rest(page);
  await page.locator("#map").focus();
  await page.keyboard.press("ArrowRight");
  const first = (await here(page)).match(/cell \((\d+), (\d+)\)/).slice(1).map(Number);
  for (const key of ["ArrowRight", "ArrowRight", "ArrowDown"]) await page.keyboard.press(key);
  equal((await here(page)).match(/cell \((\d+), (\d+)\)/).slice(1).map(Number), [first[0] + 2, first[1] + 1], "the cell after three arrows");
  equal(await page.locator("#here").getAttribute("aria-live"), "polite", "what is here is read out");
  await rest(page);
  const before = await place(page);
  await page.keyboard.press("+");
  await rest(page);
  check((await place(page)).zoom > before.zoom, "+ goes closer");
  await page.keyboard.press("0");
  await rest(page);
  near((await place(page)).zoom, before.zoom, "0 shows all again", 0.01);
  await page.keyboard.press("Shift+ArrowRight");
  await rest(page);
  check((await place(page)).x > before.x, "Shift and an arrow move the view");
  await page.mouse.click(...await onScreen(page, 37 * 16 + 8, 4 * 16 + 8));
  await page.keyboard.press("Enter");
  await rest(page);
  equal((await place(page)).map, "pump_house", "Enter follows the hatch to the other map");
  check((await here(page)).includes("mat: entity"), "and tells the mat, where it leads");
  const written = await page.locator("#here .place").allInnerTexts();
  const lineOf = (file, text) => readFileSync(join(source, "demo", file), "utf8").split("\n").findIndex(line => line.includes(text)) + 1;
  for (const [file, text] of [["maps/pump_house.map.toml", 'name = "mat"'], ["tiles/station.tiles.toml", "[tiles.floor]"]])
    check(written.some(place => place.startsWith(`${file}:${lineOf(file, text)}`)), `it says where that is written: ${text}, in ${written}`);
  await page.context().grantPermissions(["clipboard-read", "clipboard-write"]);
  await page.locator("#here .place").first().click();
  equal(await page.evaluate(() => navigator.clipboard.readText()), written[0], "a click copies the place");
  await page.context().close();
});

await test("the wheel zooms where the pointer is, dragging moves", async () => {
  const page = await open(demo);
  await rest(page);
  const at = [300, 300], box = await page.locator("#map").boundingBox();
  const under = async () => {
    const { x, y, zoom } = await place(page);
    return [(at[0] - box.x - box.width / 2) / zoom + Number(x), (at[1] - box.y - box.height / 2) / zoom + Number(y)];
  };
  const before = await under(), zoom = (await place(page)).zoom;
  await page.mouse.move(...at);
  for (let i = 0; i < 4; ++i) await page.mouse.wheel(0, -120);
  await rest(page);
  check((await place(page)).zoom > zoom * 1.5, "the wheel goes closer");
  const after = await under();
  near(after[0], before[0], "the place under the pointer stays (x)"), near(after[1], before[1], "the place under the pointer stays (y)");
  const start = await place(page);
  await page.mouse.down();
  await page.mouse.move(at[0] + 90, at[1] + 40, { steps: 4 });
  await page.mouse.up();
  await rest(page);
  near((await place(page)).x, start.x - 90 / start.zoom, "dragging moves the map along (x)");
  near((await place(page)).y, start.y - 40 / start.zoom, "dragging moves the map along (y)");
  await page.context().close();
});

await test("findings are listed as check tells them, and jump to their place", async () => {
  const page = await open(broken);
  await rest(page);
  let told = "";
  try {
    run("check", "demo/broken/world.toml", "--format", "json", "--map", "slipway");
  } catch (findings) {
    told = findings.stdout;
  }
  const all = JSON.parse(told).findings.filter(finding => finding.map === "slipway");
  check(all.length > 3, "check finds something");
  for (const finding of all) check((await page.locator("#findings").innerText()).includes(finding.message), `'${finding.message}' is listed`);
  await page.locator("#findings button", { hasText: "spawn-blocked" }).click();
  await rest(page);
  check((await here(page)).includes("spawn-blocked"), "its place is chosen");
  const at = await place(page);
  near(at.x, 232, "the view is at it", 40);
  await page.locator("#map").focus();
  await page.keyboard.press("n");
  check((await here(page)).includes("findings"), "N goes to a finding");
  await page.context().close();
});

await test("the search finds tiles, objects and rules, on all maps", async () => {
  const page = await open(broken);
  await page.keyboard.press("/");
  await page.keyboard.type("brine_top");
  check((await page.locator("#found_count").innerText()).includes("1 found"), "a tile is found");
  await page.locator("#found button").first().click();
  await rest(page);
  check((await here(page)).includes("marsh/brine_top"), "and shown where it stands");
  await page.fill("#search", "crab");
  check((await page.locator("#found li").count()) >= 2, "objects are found by name and kind");
  await page.fill("#search", "trigger-empty");
  await page.locator("#found button").first().click();
  check((await here(page)).includes("trigger-empty"), "rules are found");
  await page.fill("#search", "no such thing");
  check((await page.locator("#found_count").innerText()).includes("nothing"), "nothing is told as that");
  await page.keyboard.press("Escape");
  equal(await page.inputValue("#search"), "", "Escape puts the search away");
  await page.context().close();
});

await test("things and layers are switched on and off, and stay so", async () => {
  const page = await open(demo);
  await rest(page);
  for (const name of ["art", "grid", "merged", "shapes", "pieces", "objects"]) {
    const before = await picture(page), box = page.locator("#things").getByLabel(name, { exact: true });
    await box.click();
    await rest(page);
    check((await picture(page)).hash !== before.hash, `${name} changes the picture`);
    await box.click();
    await rest(page);
    equal((await picture(page)).hash, before.hash, `${name} twice is the picture as it was`);
  }
  const before = await picture(page);
  await page.locator("#layers").getByLabel("ground", { exact: true }).uncheck();
  await rest(page);
  check((await picture(page)).hash !== before.hash, "a layer goes");
  const now = await picture(page);
  await page.reload();
  await rest(page);
  equal((await picture(page)).hash, now.hash, "the page loaded again shows the same");
  await page.context().close();
});

await test("the ruler measures in px and cells", async () => {
  const page = await open(demo);
  await rest(page);
  await page.getByRole("button", { name: "Ruler" }).click();
  await page.mouse.click(...await onScreen(page, 160, 48));
  const before = await picture(page);
  await page.mouse.click(...await onScreen(page, 224, 96));
  await rest(page);
  check((await picture(page)).hash !== before.hash, "a line is drawn");
  equal(await page.getByRole("button", { name: "Ruler" }).getAttribute("aria-pressed"), "true", "the button says that it is on");
  await page.keyboard.press("Escape");
  equal(await page.getByRole("button", { name: "Ruler" }).getAttribute("aria-pressed"), "false", "Escape puts it away");
  await page.context().close();
});

await test("everything that can be used has a name", async () => {
  const page = await open(broken);
  const nameless = await page.evaluate(() => [...document.querySelectorAll("button, input, select, canvas[tabindex]")].filter(one =>
    !(one.getAttribute("aria-label") || one.textContent.trim() || one.title || (one.labels && [...one.labels].some(label => label.textContent.trim())))).length);
  equal(nameless, 0, "controls without a name");
  const seen = new Set();
  for (let i = 0; i < 40; ++i) {
    await page.keyboard.press("Tab");
    seen.add(await page.evaluate(() => document.activeElement.id || document.activeElement.tagName));
  }
  for (const id of ["maps", "closer", "map", "search"]) check(seen.has(id), `Tab comes to ${id}`);
  await page.context().close();
});

await test("a tap tells what is there, on a small screen too", async () => {
  const page = await open(demo, { hasTouch: true, viewport: { width: 420, height: 800 } });
  await rest(page);
  await page.touchscreen.tap(...await onScreen(page, 200, 132));
  check((await here(page)).includes("marsh/peat_top"), "a tap tells the tile");
  const wide = await page.evaluate(() => document.documentElement.scrollWidth);
  check(wide <= 420, `nothing sticks out to the right: ${wide} px`);
  await page.context().close();
});

await test("two fingers zoom, and the place between them stays", async () => {
  const page = await open(demo, { hasTouch: true, viewport: { width: 900, height: 800 } });
  await rest(page);
  const before = await place(page), stage = await page.locator("#map").boundingBox();
  const fingers = await page.context().newCDPSession(page);
  const touch = (type, ...xs) => fingers.send("Input.dispatchTouchEvent",
    { type, touchPoints: xs.map((x, id) => ({ x: stage.x + x, y: stage.y + 200, id })) });
  const middle = async () => page.evaluate(([x, y]) => {
    const { x: u, y: v, zoom } = Object.fromEntries(new URLSearchParams(location.hash.slice(1)));
    const { clientWidth, clientHeight } = document.getElementById("map");
    return [(x - clientWidth / 2) / Number(zoom) + Number(u), (y - clientHeight / 2) / Number(zoom) + Number(v)];
  }, [200, 200]);
  const [x, y] = await middle();
  await touch("touchStart", 180, 220);
  for (const out of [10, 20, 30, 40]) await touch("touchMove", 180 - out, 220 + out);
  await touch("touchEnd");
  await page.waitForTimeout(400);
  const after = await place(page), ratio = Number(after.zoom) / Number(before.zoom), [u, v] = await middle();
  check(ratio > 2.9 && ratio < 3.1, `three times as far apart is three times as large: ${ratio}`);
  check(Math.hypot(u - x, v - y) < 2, `the place between the fingers stays: ${[x, y]}, ${[u, v]}`);
  await page.context().close();
});

await test("a watched page loads itself again in place when a file is saved", async () => {
  const copy = join(folder, "copy"), out = join(folder, "watched.html");
  cpSync(join(source, "demo"), copy, { recursive: true });
  const watch = spawn(tool, ["draw", join(copy, "world.toml"), "--out", out, "--watch"], { stdio: "ignore" });
  try {
    for (let i = 0; i < 100 && !existsSync(out); ++i) await new Promise(go => setTimeout(go, 100));
    const page = await open(out);
    await page.locator("#map").focus();
    for (const key of ["+", "+", "Shift+ArrowRight"]) await page.keyboard.press(key);
    await rest(page);
    const before = await place(page), file = join(copy, "maps", "slipway.map.toml");
    await page.evaluate(() => window.old = true);
    writeFileSync(file, readFileSync(file, "utf8").replaceAll('"doorstep"', '"threshold"'));
    await page.waitForFunction(() => window.old === undefined, null, { timeout: 20000 });
    await drawn(page);
    equal(await place(page), before, "it is where it was");
    await page.fill("#search", "threshold");
    check((await page.locator("#found li").count()) > 0, "it knows the new name");
    await page.waitForTimeout(2500);
    check(await page.inputValue("#search") === "threshold", "it does not load again when nothing is saved");
    const good = readFileSync(file, "utf8");
    writeFileSync(file, good.replace("[[layers]]", "[[layers"));   // somebody saves in the middle of a word
    await page.waitForFunction(() => !document.getElementById("trouble").hidden, null, { timeout: 20000 });
    await drawn(page);
    equal(await place(page), before, "what cannot be read leaves the last picture");
    await page.evaluate(() => window.old = true);
    writeFileSync(file, good.replaceAll('"threshold"', '"sill"'));
    await page.waitForFunction(() => window.old === undefined, null, { timeout: 20000 });
    await drawn(page);
    await page.fill("#search", "sill");
    check((await page.locator("#found li").count()) > 0, "mended, it is drawn again");
    await page.context().close();
  } finally {
    watch.kill();
  }
});

await test("hostile texts run nothing, ask for nothing and break no layout", async () => {
  const texts = {
    script: '<script>window.owned=1</script><img src=x onerror=window.owned=1><svg onload=window.owned=1></svg>',
    endings: '"\'></style></script><b onclick=window.owned=1>&lt;</textarea>--><![CDATA[',
    templates: '${window.owned=1}{{constructor.constructor("window.owned=1")()}}',
    long: "very".repeat(2500),
    right_to_left: "شاطئ مالح שלום ‮abc‬",
    marks: "e" + "\u0301\u0316\u20d0".repeat(60),
  };
  const size = page => page.evaluate(() => [document.documentElement.scrollWidth, document.documentElement.scrollHeight]);
  const plain = await open(make("demo/world.toml", "plain.html"));
  const wanted = await size(plain);
  const search = await plain.locator("#search").boundingBox();
  await plain.context().close();
  for (const [name, text] of Object.entries(texts)) {
    const world = join(folder, "hostile_" + name);
    cpSync(join(source, "demo"), world, { recursive: true });
    const quoted = JSON.stringify(text);
    for (const [file, from, to] of [
      ["world.toml", 'title = "Sedge Point"', `title = ${quoted}`],
      ["world.toml", 'note = "hand rails"', `note = ${quoted}`],
      ["maps/slipway.map.toml", /title = "[^"]*"/, `title = ${quoted}`],
      ["maps/slipway.map.toml", 'kind = "silt_crab", cell', `kind = "silt_crab", tags = [${quoted}], cell`],
    ]) {
      const path = join(world, file), before = readFileSync(path, "utf8"), after = before.replace(from, () => to);
      check(before !== after, `${name}: ${file} has ${from}`);
      writeFileSync(path, after);
    }
    const page = await open(make(join(world, "world.toml"), `hostile_${name}.html`));
    for (const key of ["crab", "rail", "hatch", "a"]) await page.fill("#search", key);
    for (let x = 120; x < 900; x += 120) await page.mouse.move(x, 300);
    await page.mouse.click(400, 300);
    check(await page.evaluate(() => window.owned) === undefined, `${name}: something of the text runs`);
    equal(await size(page), wanted, `${name}: the page is as large as ever`);
    near((await page.locator("#search").boundingBox()).x, search.x, `${name}: the panel stands where it stood`);
    check((await page.content()).includes("img src=\"x\"") === false, `${name}: no element comes of a text`);
    await page.context().close();
    const svg = join(folder, `hostile_${name}.svg`);
    run("draw", join(world, "world.toml"), "--map", "slipway", "--out", svg);
    const context = await browser.newContext(), picture = await context.newPage();
    picture.on("request", request => check(/^(file|data):/.test(request.url()), `${name}: the picture asks for ${request.url()}`));
    await picture.goto("file://" + svg);
    check(await picture.evaluate(() => window.owned) === undefined, `${name}: something of the text runs in the picture`);
    check(await picture.evaluate(() => document.documentElement.nodeName) === "svg", `${name}: the picture can be read`);
    await context.close();
  }
});

await test("flags, reach and findings are those of the layers that are shown", async () => {
  const page = await open(make(join(source, "demo", "world.toml"), "layers.html"));
  await page.selectOption("#maps", "pump_house");
  await page.locator("#things").getByLabel("flags", { exact: true }).check();
  await page.locator("#things").getByLabel("reach", { exact: true }).check();
  await rest(page);
  const bridge = page.locator("#layers").getByLabel("bridge", { exact: true });
  const [x, y] = [9.5 * 16, 6.5 * 16];
  await page.mouse.click(...await onScreen(page, x, y));
  const granted = text => text.split("passability")[1].split("\n").filter(Boolean)[0];
  await rest(page);
  const before = await picture(page);
  check(granted(await here(page)).includes("grants walk"), `the bridge is walked on: ${await here(page)}`);
  await bridge.uncheck();
  await rest(page);
  check(granted(await here(page)).includes("grants nothing"), `without it there is water: ${await here(page)}`);
  check((await here(page)).includes("bridge: station/boardwalk"), `its tile is still told: ${await here(page)}`);
  check((await picture(page)).hash !== before.hash, "the picture is another one");
  await bridge.check();
  await rest(page);
  equal((await picture(page)).hash, before.hash, "and comes back with it");
  await page.context().close();
  // A finding about a layer goes with it.
  const broken = await open(make(join(source, "demo", "broken", "world.toml"), "broken_layers.html"));
  const told = await broken.evaluate(() => JSON.parse(document.getElementById("data").textContent));
  const map = told.maps.find(one => one.findings.some(finding => finding.layer));
  const { layer } = map.findings.find(finding => finding.layer), of = map.findings.filter(finding => finding.layer === layer).length;
  await broken.selectOption("#maps", map.name);
  await rest(broken);
  const count = async () => (await broken.locator("#severities").innerText()).match(/\d+/g).reduce((sum, number) => sum + Number(number), 0);
  const all = await count();
  await broken.locator("#layers label", { hasText: layer }).first().click();
  await rest(broken);
  equal(await count(), all - of, "findings about the layer are gone");
  await broken.context().close();
});

await test("facts and movers are switched: the map is what it is with them", async () => {
  const world = join(folder, "facts");
  cpSync(join(source, "demo"), world, { recursive: true });
  const file = join(world, "maps", "pump_house.map.toml"), rows = Array.from({ length: 12 }, (_, r) =>
    Array.from({ length: 20 }, (_, c) => r === 8 && c > 12 && c < 15 ? "#" : ".").join(""));
  writeFileSync(file, readFileSync(file, "utf8").replace('{ name = "lamp", kind', '{ name = "glow", kind = "entity", cell = [5, 8], when = ["pump_running"] },\n  { name = "lamp", kind') +
    `\n[[layers]]\nname = "dam"\nunless = ["pump_running"]\nlegend = { "#" = "wall" }\nrows = '''\n${rows.join("\n")}\n'''\n`);
  const page = await open(make(join(world, "world.toml"), "facts.html"));
  await page.selectOption("#maps", "pump_house");
  await rest(page);
  const x = 13.5 * 16, y = 8.5 * 16, closed = await picture(page);
  await page.mouse.click(...await onScreen(page, x, y));
  check((await here(page)).includes("station/wall in layer dam"), `the dam is there: ${await here(page)}`);
  const solid = text => text.split("solid here")[1].split("\n").filter(Boolean)[0];
  equal(solid(await here(page)), "earth", "the dam is solid");
  await rest(page);
  const dammed = await picture(page);
  await page.locator("#layers").getByLabel("dam", { exact: true }).uncheck();
  await rest(page);
  equal(solid(await here(page)), "nothing", "without the dam's layer nothing is solid there");
  check((await picture(page)).hash !== dammed.hash, "its outline is gone");
  await page.locator("#layers").getByLabel("dam", { exact: true }).check();
  await rest(page);
  equal((await picture(page)).hash, dammed.hash, "and comes back with it");
  equal(await page.locator("#facts").innerText(), "pump_running", "the one fact with which something comes or goes can be switched");
  await page.locator("#facts").getByLabel("pump_running").click();
  await rest(page);
  equal(solid(await here(page)), "nothing", "without the dam nothing is solid there");
  const open_way = await picture(page);
  check(open_way.hash !== closed.hash, "the map is another picture");
  await page.mouse.click(...await onScreen(page, 5.5 * 16, 8.5 * 16));
  check((await here(page)).includes("glow"), "what comes with the fact is there");
  await page.selectOption("#mover", { label: "crab" });
  await rest(page);
  check((await picture(page)).hash !== open_way.hash, "a crab's reach is another one");
  check(await page.locator("#things").getByLabel("reach", { exact: true }).isChecked(), "the reach is shown when a mover is chosen");
  await page.reload();
  await rest(page);
  check(await page.locator("#facts").getByLabel("pump_running").isChecked(), "the page loaded again keeps the facts");
  equal(await page.locator("#mover option:checked").innerText(), "crab", "and the mover");
  await page.selectOption("#maps", "slipway");
  await page.selectOption("#maps", "pump_house");
  check(await page.locator("#facts").getByLabel("pump_running").isChecked(), "facts hold on all maps");
  await page.context().close();
});

await test("storeys are looked at one by one, on diamonds raised as they are", async () => {
  const world = join(folder, "iso");
  run("new", world, "--view", "isometric");
  const file = join(world, "world.toml"), map = join(world, "maps", "shore.map.toml");
  writeFileSync(file, readFileSync(file, "utf8") + "\n[storeys]\nloft = { base_px = 32, height_px = 32 }\n");
  const rows = Array.from({ length: 10 }, (_, r) => ".".repeat(24).split("").map((_, c) => r >= 3 && r <= 5 && c >= 4 && c <= 7 ? (r === 4 ? "#" : "=") : ".").join(""));
  writeFileSync(map, readFileSync(map, "utf8") + `\n[[layers]]\nname = "gallery"\nstorey = "loft"\nrows = '''\n${rows.join("\n")}\n'''\n`);
  const page = await open(make(file, "iso.html"));
  await rest(page);
  check(await page.locator("#storey").isVisible(), "there is a choice of storeys");
  const all = await picture(page);
  await page.locator("#things").getByLabel("flags", { exact: true }).click();
  await page.selectOption("#storey", { label: "loft" });
  await rest(page);
  const loft = await picture(page);
  check(loft.hash !== all.hash, "the loft is another picture");
  const key = await page.locator("#key").innerText();
  check(/earth, storey loft/.test(key) && !/storey ground/.test(key), `the key tells the loft's ground alone: ${key}`);
  // A place of the loft is pointed at where it is seen: 32 px above the cell on the ground.
  const [c, r] = [5, 4], x = (c - r) * 16, y = (c + r) * 8 + 8;
  await page.mouse.click(...await onScreen(page, x, y - 32));
  const told = await here(page);
  check(told.includes(`cell (${c}, ${r})`) && told.includes("loft: earth"), `the loft's wall is told where it is seen: ${told}`);
  await page.selectOption("#storey", { label: "ground" });
  await rest(page);
  check((await picture(page)).hash !== loft.hash, "the ground is another picture");
  await page.mouse.click(...await onScreen(page, x, y - 32));
  check(!(await here(page)).includes("loft: earth"), "the loft is away");
  await page.reload();
  await rest(page);
  equal(await page.locator("#storey option:checked").innerText(), "ground", "the page loaded again looks at the same storey");
  // The crown of something tall is the thing, not the ground behind it.
  await page.mouse.click(...await onScreen(page, 256, 216 - 14));
  const crown = await here(page);
  check(/cell \(21, 5\)/.test(crown), `the beacon's crown is the beacon: ${crown}`);
  await page.context().close();
});

await test("findings by severity, search by Enter, keys after any choice, a panel that stands still", async () => {
  const page = await open(make("demo/broken/world.toml", "broken_again.html"));
  await rest(page);
  const rows = async () => (await page.locator("#findings li .sign").evaluateAll(signs => signs.map(sign => sign.getAttribute("aria-label").split(" ")[0])));
  const before = await rows();
  check(before.includes("error") && before.includes("warning"), "there are errors and warnings");
  const totals = await page.locator("#severities").innerText();
  check(new RegExp(`${before.filter(one => one === "error").length} error`).test(totals), `the totals are told: ${totals}`);
  await page.selectOption("#order", "severity");
  const sorted = await rows();
  check(sorted.slice(0, sorted.indexOf("warning")).every(one => one === "error") && sorted[0] === "error", "errors come first");
  await page.locator("#severities label", { hasText: "warning" }).click();
  await rest(page);
  check(!(await rows()).includes("warning"), "warnings are put away");
  const search = (await page.locator("#search").boundingBox()).y;
  await page.locator("#findings button").first().click();
  await rest(page);
  near((await page.locator("#search").boundingBox()).y, search, "the panel stands where it stood");
  // Enter goes to the first that is found, and again to the next.
  await page.fill("#search", "crab");
  const at = async () => { await rest(page); const { x, y, map } = await place(page); return `${map} ${x} ${y}`; };
  await page.press("#search", "Enter");
  const first = await at();
  await page.press("#search", "Enter");
  check(await at() !== first, "Enter goes on to the next");
  // Another map: nothing is left of the place that was looked at, and keys work.
  await page.selectOption("#maps", { index: 1 });
  await rest(page);
  check((await here(page)).includes("Point at a place"), "'Here' is empty on another map");
  check(await page.locator("#tip").isHidden(), "no tip stays behind");
  await page.keyboard.press("/");
  equal(await page.evaluate(() => document.activeElement.id), "search", "/ searches after a map was chosen");
  await page.keyboard.press("Escape");
  await page.locator("#things").getByLabel("grid", { exact: true }).click();
  await page.keyboard.press("n");
  await rest(page);
  check((await place(page)).cell !== undefined, "N works after a box was ticked");
  const strong = await picture(page);
  await page.locator("#art").fill("20");
  await rest(page);
  check((await picture(page)).hash !== strong.hash, "art is drawn fainter");
  await page.context().close();
});

await test("a page that is watched says at its head what cannot be read, and where", async () => {
  const world = join(folder, "watched");
  cpSync(join(source, "demo"), world, { recursive: true });
  const out = join(folder, "watched_trouble.html"), map = join(world, "maps", "slipway.map.toml"), before = readFileSync(map, "utf8");
  const watch = spawn(tool, ["draw", join(world, "world.toml"), "--out", out, "--watch"], { stdio: "ignore" });
  for (let i = 0; i < 100 && !existsSync(out); ++i) await new Promise(done => setTimeout(done, 100));
  const page = await open(out);
  check(await page.locator("#trouble").isHidden(), "there is no trouble at first");
  writeFileSync(map, before.replace('name = "slipway"', 'name = "slipway'));
  await page.waitForFunction(() => !document.getElementById("trouble").hidden, null, { timeout: 20000 });
  const told = await page.locator("#trouble").innerText();
  check(/slipway\.map\.toml:2/.test(told) && /syntax/.test(told), `the place is told: ${told}`);
  check(await page.locator("#map").isVisible(), "the last picture stays");
  writeFileSync(map, before);
  await page.waitForFunction(() => document.getElementById("trouble").hidden, null, { timeout: 20000 });
  watch.kill();
  await page.context().close();
});

await browser.close();
rmSync(folder, { recursive: true, force: true });
console.log(failures === 0 ? "the page does what it should" : `${failures} failures`);
process.exit(failures === 0 ? 0 : 1);
