// Maps made ready to be drawn, and what they are while some facts hold and some layers are hidden.

import { countsOf, eachRing, intsOf, ringsInto, stepsPerPx } from "./data.js";
import { held, hidden, now } from "./state.js";

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
export function ready(map) {
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
export function settled(map) {
  const state = stateOf(map), { base } = map, less = withoutHidden(map, state);
  map.words = patched(patched(base.words, state.words), less.words);
  patched(base.layers, state.layers).forEach((there, i) => map.layers[i].there = there);
  patched(base.objects, state.objects).forEach((object, i) => Object.assign(map.objects[i], object));
  map.pieces = (less.ground ?? state.ground ?? base.ground).map(number => map.ground[number] ??= ((([group, ...lists]) => groundOf(group, ...lists.map(intsOf)))(map.chunks[number])));
  const reach = patched(patched(base.reach, state.reach), less.reach);
  map.movers = [...new Set(reach.map(([number]) => number))];
  map.reachOf = map.movers.includes(now.mover) ? now.mover : map.mover;
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
