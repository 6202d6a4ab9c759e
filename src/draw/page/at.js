// What is at a place, in the words of `probe`: what holds for the cell, the ground at the very point, objects, findings.

import { artAt, artReach } from "./art.js";
import { data } from "./data.js";
import { cellAt, drawn, has, isLookedAt, isTold, meets, raise } from "./places.js";
import { context, show, view } from "./state.js";

const areaHolds = (path, x, y) => path && context.isPointInPath(path, x, y, "evenodd");

function inMapPx(call) {   // paths are in px of the map, and the pen may be anywhere
  context.save();
  context.setTransform(1, 0, 0, 1, 0, 0);
  const result = call();
  context.restore();
  return result;
}

function solidsAt(map, x, y) {
  return inMapPx(() => [...new Set(map.pieces.filter(piece => {
    const { on } = map.groups[piece.group], v = y + raise(map, on);
    return isLookedAt(on) && meets(piece.box, [x, v, x, v]) && areaHolds(piece.fill, x, v);
  }).map(piece => map.groups[piece.group]).map(group => group.on > 0 ? `${group.storey}: ${group.name}` : group.name))]);
}
const holds = (object, x, y, near) => Math.hypot(object.at[0] - x, object.at[1] - y) <= near ||
  areaHolds(object.areaPath, x, y) || areaHolds(object.bodyPath, x, y);

// The cell of what is seen at a place: of the topmost picture there, which may reach out of its cell; else of the ground.
export function pointedCell(map, x, y) {
  const ground = cellAt(map, x, y), reaches = artReach(map) > 0;
  const top = show.art && reaches && view.zoom * map.cell[1] >= 6 ? artAt(map, x, y) : null;
  return !top ? ground : top.object ? cellAt(map, ...top.object.at) : top.cell;
}

export function objectsAt(map, x, y) {
  const near = 8 / Math.min(1, view.zoom);
  return inMapPx(() => map.objects.filter(object => drawn(map, object) && holds(object, x, y + raise(map, object.storey), near)));
}
function findingsAt(map, c, r) {
  return map.findings.filter(finding => finding.at && isTold(finding) && cellAt(map, ...finding.at).join() === `${c},${r}`);
}

// { place, parts: [[title, lines]] }
export function here(map, x, y) {
  const [c, r] = pointedCell(map, x, y), inside = has(map, c, r);
  const one = n => String(Math.round(n * 10) / 10);
  const place = `(${one(x)}, ${one(y)}) px, cell (${map.first[0] + c}, ${map.first[1] + r})${inside ? "" : ", outside of the map"}`;
  const words = inside ? map.words[map.stack[r * map.size[0] + c]] : { tiles: [], flags: [] };
  const parts = [["tiles, from the top", words.tiles.length ? words.tiles : ["no tile"]]];
  if (words.flags.length) parts.push(["passability", words.flags]);
  const solids = solidsAt(map, x, y);
  parts.push(["solid here", solids.length ? solids : ["nothing"]]);
  const objects = objectsAt(map, x, y);
  if (objects.length) parts.push(["objects here", objects.map(object => object.words.join("; "))]);
  const findings = findingsAt(map, c, r);
  if (findings.length) parts.push(["findings", findings.map(finding => `${finding.severity}: ${finding.message} [${finding.rule}]`)]);
  return { place, parts };
}

// Where all that is at a place is written: [what, file:line], from the top.
export function writtenAt(map, x, y) {
  const [c, r] = pointedCell(map, x, y), rows = [];
  for (const finding of findingsAt(map, c, r)) rows.push([finding.rule, finding.place]);
  for (const object of objectsAt(map, x, y)) rows.push([object.name || object.kind, object.place]);
  if (has(map, c, r))
    for (const layer of [...map.layers].reverse()) {
      const number = layer.numbers ? layer.numbers[r * map.size[0] + c] : 0;
      if (!number) continue;
      const tile = data.tiles[map.palette[number][0]];
      rows.push([`layer ${layer.name}`, layer.lines && `${layer.file}:${layer.lines[r]}`], [tile.name, tile.place]);
    }
  const known = new Set();
  return rows.filter(([, place]) => place && !known.has(place) && known.add(place));
}
