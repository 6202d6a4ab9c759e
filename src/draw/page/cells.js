// What is drawn of cells: their grid and its numbers, the shapes of their tiles, helper tiles, flags and sides.

import { data, ringsInto } from "./data.js";
import { cellCorner, cellRing, columnsIn, isLookedAt, raise, strengthOf, toScreen, told } from "./places.js";
import { canvas, hidden, view } from "./state.js";

// The first of 1, 2, 5, 10, 20 … cells that is wide enough.
function every(cell, room) {
  for (let step = 1; ; step *= 10) for (const times of [1, 2, 5]) if (cell * step * times >= room) return step * times;
}

export function paintGrid(pen, map) {
  const step = every(map.cell[0] * view.zoom, 7), unit = 1 / view.zoom;
  /** @type {(c: number, r: number) => [number, number]} */
  const corner = (c, r) => {
    const [x, y] = cellCorner(map, c, r);
    return map.grid === "isometric" ? [x + map.cell[0] / 2, y] : [x, y];
  };
  for (const strong of [false, true]) {
    const lines = new Path2D(), asked = n => n % step === 0 && (n % (step * 10) === 0) === strong;
    for (let c = 0; c <= map.size[0]; ++c)
      if (asked(map.first[0] + c)) lines.moveTo(...corner(c, 0)), lines.lineTo(...corner(c, map.size[1]));
    for (let r = 0; r <= map.size[1]; ++r)
      if (asked(map.first[1] + r)) lines.moveTo(...corner(0, r)), lines.lineTo(...corner(map.size[0], r));
    pen.globalAlpha = strong ? 0.42 : 0.2, pen.strokeStyle = data.inks.lines, pen.lineWidth = unit;
    pen.stroke(lines);
  }
  pen.globalAlpha = 1;
}

// Calls for each cell that is seen, but not where cells are too small to tell anything.
function eachSeen(map, box, least, call) {
  if (map.cell[1] * view.zoom < least) return;
  for (let r = 0; r < map.size[1]; ++r) {
    const [first, last] = columnsIn(map, r, box);
    for (let c = first; c <= last; ++c) call(c, r);
  }
}

export function paintShapes(pen, map, box) {
  const unit = 1 / view.zoom;
  eachSeen(map, box, 6, (c, r) => {
    for (const layer of map.layers) {
      if (!layer.numbers || !layer.there || hidden.has(layer.name) || !isLookedAt(layer.storey)) continue;
      const parts = layer.parts[layer.numbers[r * map.size[0] + c]];
      if (!parts) continue;
      pen.save();
      pen.translate(...cellCorner(map, c, r)), pen.translate(0, -raise(map, layer.storey));
      for (const shape of parts) {
        const path = new Path2D();
        ringsInto(path, shape.rings || shape.line, !shape.line);
        pen.strokeStyle = pen.fillStyle = shape.colour;
        pen.lineWidth = (shape.carves ? 2 : 1.3) * unit;
        pen.setLineDash(shape.carves ? [2 * unit, 4 * unit] : []);
        pen.stroke(path);
        pen.globalAlpha = 0.14;
        if (!shape.carves && !shape.line) pen.fill(path, "evenodd");
        pen.globalAlpha = 1;
      }
      pen.restore();
    }
  });
  pen.setLineDash([]);
}

export function paintUnseen(pen, map, box) {
  const path = new Path2D();
  eachSeen(map, box, 4, (c, r) => {
    for (const layer of map.layers) {
      if (!layer.numbers || strengthOf(layer) === 0) continue;
      const [number] = map.palette[layer.numbers[r * map.size[0] + c]];
      if (number === undefined || !data.tiles[number].unseen) continue;
      /** @type {[number, number][]} */
      const ring = cellRing(map, c, r).map(([x, y]) => [x, y - raise(map, layer.storey)]);
      path.moveTo(...ring[0]), path.lineTo(...ring[1]), path.lineTo(...ring[2]), path.lineTo(...ring[3]), path.closePath();
      path.moveTo(...ring[0]), path.lineTo(...ring[2]), path.moveTo(...ring[1]), path.lineTo(...ring[3]);
    }
  });
  pen.strokeStyle = data.inks.lines, pen.lineWidth = 1 / view.zoom;
  pen.setLineDash([3 / view.zoom, 2 / view.zoom]);
  pen.stroke(path);
  pen.setLineDash([]);
}

// What a cell's flags and sides are on the storey that is told; nothing on one that the map does not have.
const saidOf = (map, c, r) => map.words[map.stack[r * map.size[0] + c]].on[map.storeys.indexOf(told())];

export function paintSides(pen, map, box) {
  const unit = 1 / view.zoom;
  pen.strokeStyle = data.inks.side, pen.lineWidth = 3 * unit;
  eachSeen(map, box, 6, (c, r) => {
    const sides = saidOf(map, c, r)?.sides;
    if (!sides) return;
    const ring = cellRing(map, c, r).map(([x, y]) => [x, y - raise(map, told())]);
    sides.forEach((side, i) => {
      if (side === "open") return;
      pen.setLineDash(side === "shut" ? [] : [5 * unit, 3 * unit]);
      pen.beginPath();
      pen.moveTo(...ring[i]), pen.lineTo(...ring[(i + 1) % 4]);
      pen.stroke();
    });
  });
  pen.setLineDash([]);
}

export function paintLetters(pen, map, box) {
  const size = Math.max(8, Math.min(14, map.cell[1] * view.zoom / 2.4));
  pen.font = `bold ${size}px "DejaVu Sans", system-ui, sans-serif`;
  pen.textAlign = "center", pen.lineWidth = 3, pen.strokeStyle = data.inks.paper, pen.fillStyle = data.inks.text;
  eachSeen(map, box, 9, (c, r) => {
    const letters = saidOf(map, c, r)?.letters;
    if (!letters) return;
    const [x, y] = cellCorner(map, c, r), [u, v] = toScreen(x + map.cell[0] / 2, y + map.cell[1] / 2 - raise(map, told()));
    pen.strokeText(letters, u, v + size / 3), pen.fillText(letters, u, v + size / 3);
  });
}

// Numbers of columns and rows: along the stage's upper and left edge, or the two upper sides of the great diamond.
export const numbersRoom = map => map.grid === "isometric" ? [0, 0] : [30, 15];   // px of the screen, to the left and above
export function paintNumbers(pen, map) {
  const [aside, above] = numbersRoom(map);
  if (aside === 0) return paintSlantingNumbers(pen, map);
  const [w, h] = map.cell, across = every(w * view.zoom, 30), down = every(h * view.zoom, 16);
  pen.font = '10px "DejaVu Sans", system-ui, sans-serif';
  const strip = (x, y, wide, high) => (pen.fillStyle = data.inks.paper, pen.fillRect(x, y, wide, high));
  strip(0, 0, canvas.clientWidth, above), strip(0, above, aside, canvas.clientHeight);
  pen.fillStyle = data.inks.soft, pen.textAlign = "center";
  for (let c = 0; c < map.size[0]; ++c) {
    const x = toScreen((map.first[0] + c + 0.5) * w, 0)[0];
    if ((map.first[0] + c) % across === 0 && x > 34 && x < canvas.clientWidth) pen.fillText(map.first[0] + c, x, 11);
  }
  pen.textAlign = "right";
  for (let r = 0; r < map.size[1]; ++r) {
    const y = toScreen(0, (map.first[1] + r + 0.5) * h)[1];
    if ((map.first[1] + r) % down === 0 && y > 22 && y < canvas.clientHeight) pen.fillText(map.first[1] + r, 27, y + 4);
  }
}

function paintSlantingNumbers(pen, map) {
  const step = every(map.cell[0] * view.zoom / 2, 22), [w, h] = map.cell;
  pen.font = '10px "DejaVu Sans", system-ui, sans-serif', pen.fillStyle = data.inks.soft;
  const along = (first, count, align, place) => {
    pen.textAlign = align;
    for (let n = 0; n < count; ++n) if ((first + n) % step === 0) pen.fillText(first + n, ...place(n));
  };
  along(map.first[0], map.size[0], "left", c => {
    const [left, top] = cellRing(map, c, 0)[0], [x, y] = toScreen(left + w / 4, top + h / 4);
    return [x + 5, y - 5];
  });
  along(map.first[1], map.size[1], "right", r => {
    const [left, top] = cellRing(map, 0, r)[0], [x, y] = toScreen(left - w / 4, top + h / 4);
    return [x - 5, y - 5];
  });
}
