// Everything that is drawn over the art, from what is seen now. The pen is in px of the map; widths are in px of the
// screen, so they are divided by the zoom.

const hatchings = new Map();
// Laid over a barrier's own hatching, on storeys above the first: dots, crosses, squares, bars.
const storeySigns = ["M2 4a1 1 0 1 0 2 0a1 1 0 1 0 -2 0", "M2 2L6 6M6 2L2 6", "M2 2h4v4h-4z", "M1 1V7M3 1V7"];
function hatching(group) {
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
const dashOf = (text, unit) => text === "none" ? [] : text.split(" ").map(n => n * unit);
const meets = (a, b) => a[0] <= b[2] && b[0] <= a[2] && a[1] <= b[3] && b[1] <= a[3];

function paintGround(pen, map, box) {
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

function paintPieces(pen, map, box) {
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

// The first of 1, 2, 5, 10, 20 … cells that is wide enough.
function every(cell, room) {
  for (let step = 1; ; step *= 10) for (const times of [1, 2, 5]) if (cell * step * times >= room) return step * times;
}

function paintGrid(pen, map) {
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

function paintShapes(pen, map, box) {
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

function paintUnseen(pen, map, box) {
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

function paintSides(pen, map, box) {
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

// Of the areas that findings are about, where they are more than a place.
function paintOutlines(pen, map) {
  const unit = 1 / view.zoom;
  for (const finding of map.findings) {
    const { outline, severity, storey } = finding;
    if (!outline || !isTold(finding) || filteredOut.has(severity)) continue;
    const up = raise(map, storey), ink = data.inks[severity];
    pen.beginPath();
    outline.forEach(([x, y], i) => i ? pen.lineTo(x, y - up) : pen.moveTo(x, y - up));
    pen.closePath();
    pen.fillStyle = ink, pen.globalAlpha = 0.18, pen.fill(), pen.globalAlpha = 1;
    pen.strokeStyle = data.inks.paper, pen.lineWidth = 4 * unit, pen.stroke();
    pen.strokeStyle = ink, pen.lineWidth = 2 * unit, pen.setLineDash([2 * unit, 4 * unit]), pen.stroke();
    pen.setLineDash([]);
  }
}

const drawn = (map, object) => object.there && !hidden.has(map.layers[object.layer].name) && isLookedAt(object.storey);
// Where an object is seen.
/** @type {(map: any, object: any) => [number, number]} */
const placeOf = (map, object) => [object.at[0], object.at[1] - raise(map, object.storey)];

function paintObjects(pen, map, box) {
  const unit = 1 / view.zoom;
  for (const object of map.objects) {
    const [x, y] = placeOf(map, object), { reach } = object;
    if (!drawn(map, object) || !meets([x - reach, y - reach, x + reach, y + reach], box) || reach < 3 * unit) continue;
    if (!show.objects) continue;
    pen.save(), pen.translate(0, y - object.at[1]);
    pen.strokeStyle = pen.fillStyle = data.inks.roles[object.role];
    if (object.areaPath) {
      pen.globalAlpha = 0.16, pen.fill(object.areaPath, "evenodd"), pen.globalAlpha = 1;
      pen.lineWidth = 1.5 * unit, pen.setLineDash([5 * unit, 3 * unit]), pen.stroke(object.areaPath), pen.setLineDash([]);
    }
    pen.lineWidth = 1.2 * unit;
    if (object.bodyPath) pen.stroke(object.bodyPath);
    if (object.linePath) pen.stroke(object.linePath);
    if (object.movingPath) {
      pen.lineWidth = 1.5 * unit, pen.lineCap = "round", pen.setLineDash([unit, 4 * unit]);
      pen.stroke(object.movingPath);
    }
    pen.restore();
  }
}
