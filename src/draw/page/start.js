// What the page knows, and what is looked at now.

const data = JSON.parse(document.getElementById("data").textContent);
/** @type {(id: string) => any} */
const element = id => document.getElementById(id);
const canvas = element("map"), context = canvas.getContext("2d");
const stepsPerPx = 256;

// Text as base64 of little-endian integers.
function bytesOf(text) {
  const raw = atob(text), bytes = new Uint8Array(raw.length);
  for (let i = 0; i < raw.length; ++i) bytes[i] = raw.charCodeAt(i);
  return bytes;
}
const intsOf = text => new Int32Array(bytesOf(text).buffer);
function countsOf(text, count) {   // 16 bits each where that was enough
  const bytes = bytesOf(text);
  return bytes.length === count * 2 ? new Uint16Array(bytes.buffer) : new Uint32Array(bytes.buffer);
}

// Calls with the points of each ring of a list: how many, then steps.
function eachRing(list, call, from = 0, flagged = false) {
  for (let at = from; at < list.length;) {
    const flags = flagged ? list[at++] : 0, count = list[at++];
    call(list, at, count, flags);
    at += 2 * count;
  }
}
function ringsInto(path, list, closed = true) {
  eachRing(list, (all, at, count) => {
    for (let i = 0; i < count; ++i) {
      const x = all[at + 2 * i] / stepsPerPx, y = all[at + 2 * i + 1] / stepsPerPx;
      i === 0 ? path.moveTo(x, y) : path.lineTo(x, y);
    }
    if (closed) path.closePath();
  });
  return path;
}

// Where an object moves to: a line, and what it covers at each place.
function addMoving(object) {
  const [x, y] = object.at;
  object.movingPath = new Path2D(), object.movingPath.moveTo(x, y);
  for (const [u, v] of object.path) object.movingPath.lineTo(u, v);
  for (const [u, v] of object.path)
    if (object.areaPath) object.movingPath.addPath(object.areaPath, new DOMMatrix().translate(u - x, v - y));
  object.reach += Math.max(...object.path.map(([u, v]) => Math.hypot(u - x, v - y)));
}

// Of a map: made ready when it is first looked at.
function ready(map) {
  if (map.stack) return map;
  const count = map.size[0] * map.size[1];
  map.stack = countsOf(map.stacks, count);
  for (const layer of map.layers) if (layer.cells) layer.numbers = countsOf(layer.cells, count);
  for (const object of map.objects) {
    if (object.area) object.areaPath = ringsInto(new Path2D(), object.area);
    if (object.body) object.bodyPath = ringsInto(new Path2D(), object.body);
    if (object.line) object.linePath = ringsInto(new Path2D(), object.line, false);
    object.reach = Math.max(8, ...[object.area, object.body, object.line].filter(Boolean).map(list => reachOf(list, object.at)),
      object.from ? 64 : 0);
    if (object.path) addMoving(object);
  }
  map.ground = [];   // by number of the page's list, made ready when it is first there
  map.base = { words: map.words, layers: map.layers.map(layer => layer.there), reach: map.reach,
    objects: map.objects.map(({ there, words }) => ({ there, words })), ground: map.chunks.slice(0, map.at_first).map((_, number) => number) };
  if (map.walk)
    map.walked = { ways: ringsInto(new Path2D(), intsOf(map.walk.ways), false), marks: map.walk.marks,
      places: ["no", "not_decided", "yes"].map(reached => ({ reached, area: ringsInto(new Path2D(), intsOf(map.walk[reached][0])),
        line: ringsInto(new Path2D(), intsOf(map.walk[reached][1]), false) })) };
  return settled(map);
}

// ---- facts and movers ----

const held = new Set(data.holds);   // facts, by number
let mover = null;                   // whose reach is told, by number; null: each map's own

// A list, with what differs in a state of the facts: [position, value].
function patched(list, changes) {
  if (!changes || changes.length === 0) return list;
  const other = [...list];
  for (const [at, value] of changes) other[at] = value;
  return other;
}
const stateOf = map => map.states.find(({ facts }) => map.switches.every(fact => held.has(fact) === facts.includes(fact))) ?? {};

// What is another of it without the layers that are hidden, where the page knows it so.
function withoutHidden(map, state) {
  const hiddenOnes = map.counting.reduce((bits, layer, i) => hidden.has(map.layers[layer].name) ? bits | 1 << i : bits, 0);
  return (state.less ?? map.less).find(({ set }) => set === hiddenOnes) ?? {};
}

// Makes a map what it is while the facts that are held hold, without the layers that are hidden.
function settled(map) {
  const state = stateOf(map), { base } = map, less = withoutHidden(map, state);
  map.words = patched(patched(base.words, state.words), less.words);
  patched(base.layers, state.layers).forEach((there, i) => map.layers[i].there = there);
  patched(base.objects, state.objects).forEach((object, i) => Object.assign(map.objects[i], object));
  map.pieces = (less.ground ?? state.ground ?? base.ground).map(number => map.ground[number] ??= ((([group, ...lists]) => groundOf(group, ...lists.map(intsOf)))(map.chunks[number])));
  const reach = patched(patched(base.reach, state.reach), less.reach);
  map.movers = [...new Set(reach.map(([number]) => number))];
  map.reachOf = map.movers.includes(mover) ? mover : map.mover;
  map.reachPaths = new Map(reach.filter(([number]) => number === map.reachOf).map(([, one, rings]) => [one, ringsInto(new Path2D(), intsOf(rings))]));
  return map;
}

// How far from a place rings reach, px.
function reachOf(list, [x, y]) {
  let reach = 0;
  eachRing(list, (all, at, count) => {
    for (let i = at; i < at + 2 * count; i += 2)
      reach = Math.max(reach, Math.abs(all[i] / stepsPerPx - x), Math.abs(all[i + 1] / stepsPerPx - y));
  });
  return reach;
}

// A chunk's ground of one group, with paths in px and the box around them.
function groundOf(group, regions, chains, lines, pieces) {
  const box = [Infinity, Infinity, -Infinity, -Infinity];
  const widen = (list, flagged) => eachRing(list, (all, at, count) => {
    for (let i = 0; i < count; ++i) {
      const x = all[at + 2 * i] / stepsPerPx, y = all[at + 2 * i + 1] / stepsPerPx;
      box[0] = Math.min(box[0], x), box[1] = Math.min(box[1], y);
      box[2] = Math.max(box[2], x), box[3] = Math.max(box[3], y);
    }
  }, 0, flagged);
  widen(regions), widen(lines);
  const edges = new Path2D(), ticks = [], corners = [];
  eachRing(chains, (all, at, count, flags) => {
    const closed = flags & 1, point = i => [all[at + 2 * (i % count)] / stepsPerPx, all[at + 2 * (i % count) + 1] / stepsPerPx];
    for (let i = 0; i < count; ++i) {
      const [x, y] = point(i);
      i === 0 ? edges.moveTo(x, y) : edges.lineTo(x, y);
      const goesOn = i === 0 && flags & 4 || i === count - 1 && flags & 8;   // no corner of the whole
      if (!goesOn) corners.push(x, y);
      if (flags & 2 || (!closed && i === count - 1)) continue;
      const [u, v] = point(i + 1), length = Math.hypot(u - x, v - y);
      ticks.push((x + u) / 2, (y + v) / 2, (v - y) / length, (x - u) / length, length);   // to the free side
    }
    if (closed) edges.closePath();
  }, 0, true);
  return { group, box, fill: ringsInto(new Path2D(), regions), edges, ticks, corners,
    cut: ringsInto(new Path2D(), pieces), lines: ringsInto(new Path2D(), lines, false), lineList: lines };
}

const view = { map: null, x: 0, y: 0, zoom: 1 };   // the px of the map at the stage's middle; css px to a px of the map
const show = Object.fromEntries(["art", "grid", "shapes", "merged", "pieces", "flags", "sides", "objects", "links",
  "findings", "reach", "walk"].map(thing => [thing, data.show.includes(thing)]));
const hidden = new Set();   // names of layers
let storey = data.storey;   // the one that is looked at; null: all of them
let artStrength = 1;        // how strongly art is drawn
let cursor = null;          // the cell that was chosen
/** @type {{ from: [number, number] | null, to: [number, number] | null, done?: boolean } | null} */
let ruler = null;           // { from, to }, px

// ---- storeys ----

const isLookedAt = one => storey === null || one < 0 || one === storey;
const isTold = finding => isLookedAt(finding.storey) && !hidden.has(finding.layer);
// The storey whose flags, sides and reach are told.
const told = () => storey ?? 0;
// How much higher than the ground a storey is drawn, px: on diamonds as high as it is.
const raise = (map, one) => map.grid === "isometric" && one > 0 ? data.storeys[one][1] : 0;
// How strongly a layer's art is drawn: not at all above the storey that is looked at, little below it.
function strengthOf(layer) {
  if (!layer.there || hidden.has(layer.name)) return 0;
  if (storey === null) return layer.opacity * (layer.storey > 0 ? 0.55 : 1);
  if (layer.storey === storey) return layer.opacity;
  return data.storeys[layer.storey][1] < data.storeys[storey][1] ? 0.35 * layer.opacity : 0;
}

// ---- places and cells, on both grids ----

// As maps count them, with fractions.
function cellPlace(map, x, y) {
  const u = x / map.cell[0], v = y / map.cell[1];
  return map.grid === "isometric" ? [u + v, v - u] : [u, v];
}
function cellAt(map, x, y) {   // counted from the data's top-left
  const [c, r] = cellPlace(map, x, y);
  return [Math.floor(c) - map.first[0], Math.floor(r) - map.first[1]];
}
/** @returns {[number, number]} */
function cellCorner(map, column, row) {   // of the box around it
  const [w, h] = map.cell, c = map.first[0] + column, r = map.first[1] + row;
  return map.grid === "isometric" ? [(c - r) * w / 2 - w / 2, (c + r) * h / 2] : [c * w, r * h];
}
function cellRing(map, column, row) {
  const [w, h] = map.cell, [x, y] = cellCorner(map, column, row);
  return map.grid === "isometric" ? [[x + w / 2, y], [x + w, y + h / 2], [x + w / 2, y + h], [x, y + h / 2]]
    : [[x, y], [x + w, y], [x + w, y + h], [x, y + h]];
}
const has = (map, c, r) => c >= 0 && r >= 0 && c < map.size[0] && r < map.size[1];

/** @type {(x: number, y: number) => [number, number]} */
const toScreen = (x, y) => [(x - view.x) * view.zoom + canvas.clientWidth / 2, (y - view.y) * view.zoom + canvas.clientHeight / 2];
/** @type {(x: number, y: number) => [number, number]} */
const toMap = (x, y) => [(x - canvas.clientWidth / 2) / view.zoom + view.x, (y - canvas.clientHeight / 2) / view.zoom + view.y];

// Columns, first and last, of a row whose cells' boxes meet a box of px.
function columnsIn(map, row, [left, top, right, bottom]) {
  const [w, h] = map.cell, [x, y] = cellCorner(map, 0, row);
  let first = 0, last = map.size[0] - 1;
  if (map.grid === "isometric") {
    first = Math.max(first, Math.ceil((left - w - x) / (w / 2)), Math.ceil((top - h - y) / (h / 2)));
    last = Math.min(last, Math.floor((right - x) / (w / 2)), Math.floor((bottom - y) / (h / 2)));
  } else {
    if (y > bottom || y + h < top) return [0, -1];
    first = Math.max(first, Math.floor((left - x) / w));
    last = Math.min(last, Math.floor((right - x) / w));
  }
  return [first, last];
}
