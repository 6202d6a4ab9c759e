// How the view is moved, and what is chosen in it.

import { pointedCell } from "./at.js";
import { numbersRoom } from "./cells.js";
import { data } from "./data.js";
import { element, say } from "./dom.js";
import { changed, moved } from "./draw.js";
import { ready, settled } from "./maps.js";
import { cellAt, cellCorner, isTold, toMap, toScreen } from "./places.js";
import { canvas, filteredOut, followers, now, view } from "./state.js";

const leastZoom = 1 / 64, mostZoom = 32;

export function zoomAt(x, y, factor) {   // the place below (x, y) stays there
  const [u, v] = toMap(x, y);
  view.zoom = Math.max(leastZoom, Math.min(mostZoom, view.zoom * factor));
  const [p, q] = toMap(x, y);
  view.x += u - p, view.y += v - q;
  moved();
}
export function fit() {   // beside the numbers along the edge
  const [left, top, right, bottom] = view.map.box, [aside, above] = numbersRoom(view.map);
  view.zoom = Math.max(leastZoom, Math.min(8, (canvas.clientWidth - aside) / (right - left + 2.4 * view.map.cell[0]),
    (canvas.clientHeight - above) / (bottom - top + 2.4 * view.map.cell[1])));
  view.x = (left + right - aside / view.zoom) / 2, view.y = (top + bottom - above / view.zoom) / 2;
  moved();
}
export function goTo(map) {
  if (view.map === map) return;
  view.map = settled(ready(map));
  element("maps").value = map.name;
  now.cursor = null, now.ruler = null, element("tip").hidden = true, element("where").textContent = "";
  followers.map();
  fit();
}
// So that a place is seen well, and chosen.
export function jump(x, y) {
  view.x = x, view.y = y;
  view.zoom = Math.max(view.zoom, Math.min(4, 40 / view.map.cell[1]));
  choose(x, y);
}
export function jumpToCell(c, r) {
  const [x, y] = cellCorner(view.map, c, r);
  jump(x + view.map.cell[0] / 2, y + view.map.cell[1] / 2);
}
export function choose(x, y) {
  now.cursor = pointedCell(view.map, x, y);
  followers.place(x, y);
  moved();
}
export function moveCursor(dc, dr) {
  const map = view.map, [c, r] = now.cursor || cellAt(map, view.x, view.y).map((n, i) => n - [dc, dr][i]);
  const to = [Math.max(0, Math.min(map.size[0] - 1, c + dc)), Math.max(0, Math.min(map.size[1] - 1, r + dr))];
  const [x, y] = cellCorner(map, ...to);
  /** @type {[number, number]} */
  const middle = [x + map.cell[0] / 2, y + map.cell[1] / 2];
  const [u, v] = toScreen(...middle), edge = 40;
  if (u < edge || v < edge || u > canvas.clientWidth - edge || v > canvas.clientHeight - edge) view.x = middle[0], view.y = middle[1];
  if (now.ruler && now.ruler.from) now.ruler.to = middle;
  choose(...middle);
}
let lastFinding = -1;
export function nextFinding() {
  const all = view.map.findings.filter(finding => finding.at && isTold(finding) && !filteredOut.has(finding.severity));
  if (all.length === 0) return say(view.map.findings.length === 0 ? "no findings on this map" : "no findings on this map are shown");
  lastFinding = (lastFinding + 1) % all.length;
  jump(...all[lastFinding].at);
}
export function toggleRuler() {
  now.ruler = now.ruler ? null : { from: null, to: null };
  if (now.ruler && now.cursor && document.activeElement === canvas) {
    const [x, y] = cellCorner(view.map, ...now.cursor);
    now.ruler.from = now.ruler.to = [x + view.map.cell[0] / 2, y + view.map.cell[1] / 2];
  }
  element("ruler").setAttribute("aria-pressed", now.ruler !== null);
  changed();
}

// The way that a link leads: to the object, on its map.
export function follow(object) {
  const [name, target] = object.to.split("/"), map = data.maps.find(other => other.name === name);
  if (!map) return say(`Map ${name} is not on this page`);
  goTo(map);
  const found = map.objects.find(other => other.name === target);
  if (!found) return say(`Map ${name} has no object ${target}`);
  jump(...found.at);
}
