// Merged ground: hatched by barrier, with its edges, corners and ways. The pen is in px of the map; widths are in px of
// the screen, so they are divided by the zoom.

import { data, eachRing, stepsPerPx } from "./data.js";
import { isLookedAt, meets, raise } from "./places.js";
import { context, view } from "./state.js";

const hatchings = new Map();
// Laid over a barrier's own hatching, on storeys above the first: dots, crosses, squares, bars.
const storeySigns = ["M2 4a1 1 0 1 0 2 0a1 1 0 1 0 -2 0", "M2 2L6 6M6 2L2 6", "M2 2h4v4h-4z", "M1 1V7M3 1V7"];
export function hatching(group) {
  const sign = group.on > 0 ? storeySigns[(group.on - 1) % storeySigns.length] : "", key = group.colour + group.hatch + sign;
  if (!hatchings.has(key)) {
    const tile = new OffscreenCanvas(8, 8), pen = tile.getContext("2d"), path = new Path2D(group.hatch + sign);
    pen.strokeStyle = data.inks.paper, pen.globalAlpha = 0.55, pen.lineWidth = 3;
    pen.stroke(path);
    pen.strokeStyle = group.colour, pen.globalAlpha = 1, pen.lineWidth = 1.4;
    pen.stroke(path);
    hatchings.set(key, context.createPattern(tile, "repeat"));
  }
  return hatchings.get(key);
}
export const dashOf = (text, unit) => text === "none" ? [] : text.split(" ").map(n => n * unit);

export function paintGround(pen, map, box) {
  const unit = 1 / view.zoom, near = view.zoom * map.cell[0] >= 3, close = view.zoom * map.cell[0] >= 12;
  map.groups.forEach((group, number) => {
    if (!isLookedAt(group.on)) return;
    pen.save(), pen.translate(0, -raise(map, group.on));
    paintGroup(pen, map, box, group, number, unit, near, close);
    pen.restore();
  });
}
function paintGroup(pen, map, box, group, number, unit, near, close) {
  const up = raise(map, group.on), below = [box[0], box[1] + up, box[2], box[3] + up];
  const seen = map.pieces.filter(piece => piece.group === number && meets(piece.box, below));
  if (seen.length === 0) return;
  const fill = new Path2D();   // one path, so that chunks show no seams
  for (const piece of seen) fill.addPath(piece.fill);
  pen.globalAlpha = near ? 0.55 : 0.4;
  if (near) {
    const pattern = hatching(group);
    pattern.setTransform(new DOMMatrix().scale(unit));
    pen.fillStyle = pattern;
  } else {
    pen.fillStyle = group.colour;
  }
  pen.fill(fill, "evenodd");
  pen.globalAlpha = 1;
  if (!near) return;
  const edges = new Path2D(), lines = new Path2D();
  for (const piece of seen) edges.addPath(piece.edges), lines.addPath(piece.lines);
  pen.lineJoin = "round";
  pen.strokeStyle = data.inks.paper, pen.globalAlpha = 0.8, pen.lineWidth = 4 * unit;
  pen.stroke(edges);
  pen.globalAlpha = 1, pen.strokeStyle = group.colour, pen.lineWidth = 2 * unit;
  pen.setLineDash(dashOf(group.dash, unit));
  pen.stroke(edges);
  pen.setLineDash([]);
  edged(pen, lines, group.colour, 3 * unit, unit);
  if (group.way) for (const piece of seen) paintWay(pen, piece.lineList, group, unit);
  if (close) paintCorners(pen, seen, unit, below);
}

function paintCorners(pen, seen, unit, box) {
  const ticks = new Path2D(), corners = new Path2D();
  for (const piece of seen) {
    for (let i = 0; i < piece.ticks.length; i += 5) {
      const [x, y, dx, dy, length] = piece.ticks.slice(i, i + 5);
      if (length < 12 * unit || x < box[0] || x > box[2] || y < box[1] || y > box[3]) continue;
      ticks.moveTo(x, y);
      ticks.lineTo(x + dx * 6 * unit, y + dy * 6 * unit);
    }
    for (let i = 0; i < piece.corners.length; i += 2)
      corners.rect(piece.corners[i] - 2 * unit, piece.corners[i + 1] - 2 * unit, 4 * unit, 4 * unit);
  }
  pen.lineWidth = 1.5 * unit;
  pen.stroke(ticks);
  pen.lineWidth = unit, pen.fillStyle = data.inks.paper;
  pen.fill(corners);
  pen.stroke(corners);
}

// Arrows on one-way lines, the way that movers pass, with a pale edge.
function paintWay(pen, list, group, unit) {
  const [dx, dy] = { up: [0, -1], down: [0, 1], left: [-1, 0], right: [1, 0] }[group.way], arrows = new Path2D();
  eachRing(list, (all, at, count) => {
    for (let i = 0; i + 1 < count; ++i) {
      const [x, y, u, v] = [0, 1, 2, 3].map(k => all[at + 2 * i + k] / stepsPerPx);
      const times = Math.max(1, Math.floor(Math.hypot(u - x, v - y) / (96 * unit)));
      for (let k = 0; k < times; ++k) {
        const part = (k + 0.5) / times;
        /** @type {(a: number, b: number) => [number, number]} */
        const to = (a, b) => [x + (u - x) * part + (a * dx - b * dy) * unit, y + (v - y) * part + (a * dy + b * dx) * unit];
        arrows.moveTo(...to(-9, 0)), arrows.lineTo(...to(9, 0));
        arrows.moveTo(...to(4, -4)), arrows.lineTo(...to(9, 0)), arrows.lineTo(...to(4, 4));
      }
    }
  });
  edged(pen, arrows, group.colour, 2 * unit, unit);
}
function edged(pen, path, colour, width, unit) {
  pen.strokeStyle = data.inks.paper, pen.lineWidth = width + 3 * unit;
  pen.stroke(path);
  pen.strokeStyle = colour, pen.lineWidth = width;
  pen.stroke(path);
}

export function paintPieces(pen, map, box) {
  const cut = new Path2D();
  for (const piece of map.pieces) {
    const { on } = map.groups[piece.group], up = raise(map, on);
    if (isLookedAt(on) && meets(piece.box, [box[0], box[1] + up, box[2], box[3] + up]))
      cut.addPath(piece.cut, new DOMMatrix().translate(0, -up));
  }
  pen.strokeStyle = data.inks.paper, pen.lineWidth = 2.5 / view.zoom;
  pen.stroke(cut);
  pen.strokeStyle = data.inks.lines, pen.lineWidth = 1 / view.zoom;
  pen.stroke(cut);
}
