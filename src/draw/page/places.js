// Storeys and cells: what is seen of them, and where, in px of the map and of the screen.

import { data } from "./data.js";
import { canvas, hidden, now, view } from "./state.js";

// ---- storeys ----

export const isLookedAt = one => now.storey === null || one < 0 || one === now.storey;
export const isTold = finding => isLookedAt(finding.storey) && !hidden.has(finding.layer);
// The storey whose flags, sides and reach are told.
export const told = () => now.storey ?? 0;
// How much higher than the ground a storey is drawn, px: on diamonds as high as it is.
export const raise = (map, one) => map.grid === "isometric" && one > 0 ? data.storeys[one][1] : 0;
// How strongly a layer's art is drawn: not at all above the storey that is looked at, little below it.
export function strengthOf(layer) {
  if (!layer.there || hidden.has(layer.name)) return 0;
  if (now.storey === null) return layer.opacity * (layer.storey > 0 ? 0.55 : 1);
  if (layer.storey === now.storey) return layer.opacity;
  return data.storeys[layer.storey][1] < data.storeys[now.storey][1] ? 0.35 * layer.opacity : 0;
}

// ---- places and cells, on both grids ----

// As maps count them, with fractions.
export function cellPlace(map, x, y) {
  const u = x / map.cell[0], v = y / map.cell[1];
  return map.grid === "isometric" ? [u + v, v - u] : [u, v];
}
export function cellAt(map, x, y) {   // counted from the data's top-left
  const [c, r] = cellPlace(map, x, y);
  return [Math.floor(c) - map.first[0], Math.floor(r) - map.first[1]];
}
/** @returns {[number, number]} */
export function cellCorner(map, column, row) {   // of the box around it
  const [w, h] = map.cell, c = map.first[0] + column, r = map.first[1] + row;
  return map.grid === "isometric" ? [(c - r) * w / 2 - w / 2, (c + r) * h / 2] : [c * w, r * h];
}
export function cellRing(map, column, row) {
  const [w, h] = map.cell, [x, y] = cellCorner(map, column, row);
  return map.grid === "isometric" ? [[x + w / 2, y], [x + w, y + h / 2], [x + w / 2, y + h], [x, y + h / 2]]
    : [[x, y], [x + w, y], [x + w, y + h], [x, y + h]];
}
export const has = (map, c, r) => c >= 0 && r >= 0 && c < map.size[0] && r < map.size[1];

/** @type {(x: number, y: number) => [number, number]} */
export const toScreen = (x, y) => [(x - view.x) * view.zoom + canvas.clientWidth / 2, (y - view.y) * view.zoom + canvas.clientHeight / 2];
/** @type {(x: number, y: number) => [number, number]} */
export const toMap = (x, y) => [(x - canvas.clientWidth / 2) / view.zoom + view.x, (y - canvas.clientHeight / 2) / view.zoom + view.y];

// Columns, first and last, of a row whose cells' boxes meet a box of px.
export function columnsIn(map, row, [left, top, right, bottom]) {
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

// Whether an object is seen; and where.
export const drawn = (map, object) => object.there && !hidden.has(map.layers[object.layer].name) && isLookedAt(object.storey);
/** @type {(map: any, object: any) => [number, number]} */
export const placeOf = (map, object) => [object.at[0], object.at[1] - raise(map, object.storey)];

// Whether two boxes meet.
export const meets = (a, b) => a[0] <= b[2] && b[0] <= a[2] && a[1] <= b[3] && b[1] <= a[3];
