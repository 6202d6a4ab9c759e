// Everything that is drawn over the art, from what is seen now. The pen is in px of the map; widths are in px of the
// screen, so they are divided by the zoom.

const hatchings = new Map();
function hatching(group) {
  const key = group.colour + group.hatch;
  if (!hatchings.has(key)) {
    const tile = new OffscreenCanvas(8, 8), pen = tile.getContext("2d"), path = new Path2D(group.hatch);
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
    const seen = map.pieces.filter(piece => piece.group === number && meets(piece.box, box));
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
    pen.lineWidth = 3 * unit;
    pen.stroke(lines);
    if (group.way) for (const piece of seen) paintWay(pen, piece.lineList, group, unit);
    if (close) paintCorners(pen, seen, group, unit, box);
  });
}

function paintCorners(pen, seen, group, unit, box) {
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

// Arrows on one-way lines, the way that movers pass.
function paintWay(pen, list, group, unit) {
  const [dx, dy] = { up: [0, -1], down: [0, 1], left: [-1, 0], right: [1, 0] }[group.way];
  const arrows = new Path2D();
  eachRing(list, (all, at, count) => {
    for (let i = 0; i + 1 < count; ++i) {
      const x = (all[at + 2 * i] + all[at + 2 * i + 2]) / 2 / stepsPerPx, y = (all[at + 2 * i + 1] + all[at + 2 * i + 3]) / 2 / stepsPerPx;
      const to = (a, b) => [x + (a * dx - b * dy) * unit, y + (a * dy + b * dx) * unit];
      arrows.moveTo(...to(-9, 0)), arrows.lineTo(...to(9, 0));
      arrows.moveTo(...to(4, -4)), arrows.lineTo(...to(9, 0)), arrows.lineTo(...to(4, 4));
    }
  });
  pen.lineWidth = 2 * unit;
  pen.stroke(arrows);
}

function paintPieces(pen, map, box) {
  const cut = new Path2D();
  for (const piece of map.pieces) if (meets(piece.box, box)) cut.addPath(piece.cut);
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
  const unit = 1 / view.zoom, [w, h] = map.cell;
  eachSeen(map, box, 6, (c, r) => {
    for (const layer of map.layers) {
      if (!layer.numbers || !layer.there || layer.decor || hidden.has(layer.name)) continue;
      const [number, flipX, flipY, turns] = map.palette[layer.numbers[r * map.size[0] + c]];
      const shapes = number === undefined ? null : data.tiles[number].shapes;
      if (!shapes) continue;
      const [x, y] = cellCorner(map, c, r);
      pen.save();
      pen.translate(x + w / 2, y + h / 2);
      pen.rotate(turns * Math.PI / 2);
      pen.scale(flipX ? -1 : 1, flipY ? -1 : 1);
      pen.translate(-w / 2, -h / 2);
      for (const shape of shapes) {
        const path = new Path2D();
        if (shape.cell) cellRing(map, 0, 0).forEach(([u, v], i, ring) => {
          const at = [u - cellCorner(map, 0, 0)[0], v - cellCorner(map, 0, 0)[1]];
          i === 0 ? path.moveTo(...at) : path.lineTo(...at);
          if (i === ring.length - 1) path.closePath();
        });
        else ringsInto(path, shape.rings || shape.line, !shape.line);
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
      if (!layer.numbers || !layer.there || hidden.has(layer.name)) continue;
      const [number] = map.palette[layer.numbers[r * map.size[0] + c]];
      if (number === undefined || !data.tiles[number].unseen) continue;
      const ring = cellRing(map, c, r);
      path.moveTo(...ring[0]), path.lineTo(...ring[1]), path.lineTo(...ring[2]), path.lineTo(...ring[3]), path.closePath();
      path.moveTo(...ring[0]), path.lineTo(...ring[2]), path.moveTo(...ring[1]), path.lineTo(...ring[3]);
    }
  });
  pen.strokeStyle = data.inks.lines, pen.lineWidth = 1 / view.zoom;
  pen.setLineDash([3 / view.zoom, 2 / view.zoom]);
  pen.stroke(path);
  pen.setLineDash([]);
}

function paintSides(pen, map, box) {
  const unit = 1 / view.zoom;
  pen.strokeStyle = data.inks.side, pen.lineWidth = 3 * unit;
  eachSeen(map, box, 6, (c, r) => {
    const { sides } = map.words[map.stack[r * map.size[0] + c]];
    if (!sides) return;
    const ring = cellRing(map, c, r);
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

const signs = [   // each role's own, of the screen's px
  (p, x, y) => (p.moveTo(x, y), p.lineTo(x, y - 14), p.lineTo(x + 9, y - 10), p.lineTo(x, y - 6)),
  (p, x, y) => (p.moveTo(x, y - 6), p.lineTo(x + 6, y), p.lineTo(x, y + 6), p.lineTo(x - 6, y), p.closePath()),
  (p, x, y) => [[-7, -2], [0, -2], [0, -6], [7, 0], [0, 6], [0, 2], [-7, 2]].forEach(([u, v], i) => i ? p.lineTo(x + u, y + v) : p.moveTo(x + u, y + v)),
  (p, x, y) => p.rect(x - 4, y - 4, 8, 8),
  (p, x, y) => p.arc(x, y, 5, 0, 2 * Math.PI)];

const drawn = (map, object) => object.there && !hidden.has(map.layers[object.layer].name);

function paintObjects(pen, map) {
  const unit = 1 / view.zoom;
  for (const object of map.objects) {
    if (!drawn(map, object)) continue;
    const picture = pictures[object.picture];
    if (picture && show.art) {
      pen.imageSmoothingEnabled = view.zoom < 1;
      pen.drawImage(picture.image, object.at[0] + object.from[0], object.at[1] + object.from[1]);
    }
    if (!show.objects) continue;
    pen.strokeStyle = pen.fillStyle = data.inks.roles[object.role];
    if (object.areaPath) {
      pen.globalAlpha = 0.16, pen.fill(object.areaPath, "evenodd"), pen.globalAlpha = 1;
      pen.lineWidth = 1.5 * unit, pen.setLineDash([5 * unit, 3 * unit]), pen.stroke(object.areaPath), pen.setLineDash([]);
    }
    pen.lineWidth = 1.2 * unit;
    if (object.bodyPath) pen.stroke(object.bodyPath);
    if (object.linePath) pen.stroke(object.linePath);
  }
}

// ---- in px of the screen ----

// Texts that would lie over one another are left out; signs never.
function writer(pen) {
  const taken = [];
  return (text, x, y, { bold = false, ground = true, always = false, size = 12 } = {}) => {
    pen.font = `${bold ? "bold " : ""}${size}px "DejaVu Sans", system-ui, sans-serif`;
    const wide = pen.measureText(text).width, box = [x - wide / 2 - 2, y - size, x + wide / 2 + 2, y + 4];
    if (!always && taken.some(other => meets(other, box))) return false;
    taken.push(box);
    if (ground) {
      pen.fillStyle = data.inks.paper, pen.globalAlpha = 0.88;
      pen.fillRect(box[0], box[1], box[2] - box[0], box[3] - box[1]);
      pen.globalAlpha = 1;
    }
    pen.fillStyle = data.inks.text, pen.textAlign = "center";
    pen.fillText(text, x, y);
    return true;
  };
}

function paintSigns(pen, map, write) {
  const [wide, high] = [canvas.clientWidth, canvas.clientHeight];
  const seen = ([x, y]) => x > -40 && y > -40 && x < wide + 40 && y < high + 40;
  const objects = map.objects.filter(object => drawn(map, object));
  if (show.links) for (const object of objects) paintLink(pen, map, object);
  if (show.objects) {
    for (const object of objects) {
      const at = toScreen(...object.at);
      if (!seen(at)) continue;
      const path = new Path2D();
      signs[object.role](path, ...at);
      pen.fillStyle = data.inks.roles[object.role], pen.strokeStyle = data.inks.paper, pen.lineWidth = 1;
      pen.fill(path), pen.stroke(path);
    }
    for (const named of [true, false])
      for (const object of objects) {
        const [x, y] = toScreen(...object.at);
        if ((object.name !== "") !== named || !seen([x, y]) || (!named && view.zoom * map.cell[1] < 24)) continue;
        const text = (object.name || `(${object.kind})`) + (show.links && object.to ? ` → ${object.to}` : "");
        for (const dy of [-16, 20, -30, 34]) if (write(text, x, y + dy)) break;
      }
  }
  if (show.findings) paintFindings(pen, map, seen);
}

// Those that would lie over one another are told as one, with how many they are and the worst of them.
function paintFindings(pen, map, seen) {
  const heaps = new Map(), room = 34, worst = ["note", "warning", "error"];
  map.findings.forEach((finding, i) => {
    if (!finding.at) return;
    const [x, y] = toScreen(...finding.at);
    if (!seen([x, y])) return;
    const key = `${Math.floor(x / room)},${Math.floor(y / room)}`, heap = heaps.get(key);
    if (!heap) heaps.set(key, { x, y, count: 1, severity: finding.severity, text: String(i + 1) });
    else {
      heap.text = `${++heap.count}×`;
      if (worst.indexOf(finding.severity) > worst.indexOf(heap.severity)) heap.severity = finding.severity;
    }
  });
  for (const heap of heaps.values()) paintFinding(pen, heap.severity, heap.text, heap.x, heap.y);
}

function paintFinding(pen, severity, text, x, y) {
  const path = new Path2D();
  if (severity === "error") path.moveTo(x, y - 16), path.lineTo(x + 14, y + 8), path.lineTo(x - 14, y + 8), path.closePath();
  else if (severity === "warning") path.roundRect(x - 10, y - 12, 20, 20, 3);
  else path.arc(x, y - 2, 11, 0, 2 * Math.PI);
  pen.fillStyle = data.inks[severity], pen.strokeStyle = data.inks.paper, pen.lineWidth = 2;
  pen.fill(path), pen.stroke(path);
  pen.font = `bold ${text.length > 2 ? 9 : 12}px "DejaVu Sans", system-ui, sans-serif`;
  pen.fillStyle = data.inks.sign_text, pen.textAlign = "center";
  pen.fillText(text, x, y + (severity === "error" ? 6 : 3));
}

function paintLink(pen, map, object) {
  if (!object.to || !object.to.startsWith(map.name + "/")) return;
  const target = map.objects.find(other => other.name === object.to.slice(map.name.length + 1));
  if (!target) return;
  const [x, y] = toScreen(...object.at), [u, v] = toScreen(...target.at), bend = Math.hypot(u - x, v - y) / 5;
  const angle = Math.atan2(v - ((y + v) / 2 - bend), u - (x + u) / 2);
  pen.strokeStyle = pen.fillStyle = data.inks.roles[2], pen.lineWidth = 2;
  pen.setLineDash([6, 4]);
  pen.beginPath();
  pen.moveTo(x, y), pen.quadraticCurveTo((x + u) / 2, (y + v) / 2 - bend, u, v);
  pen.stroke();
  pen.setLineDash([]);
  pen.beginPath();
  pen.moveTo(u, v);
  for (const side of [-0.4, 0.4]) pen.lineTo(u - 12 * Math.cos(angle + side), v - 12 * Math.sin(angle + side));
  pen.fill();
}

function paintLetters(pen, map, box) {
  const size = Math.max(8, Math.min(14, map.cell[1] * view.zoom / 2.4));
  pen.font = `bold ${size}px "DejaVu Sans", system-ui, sans-serif`;
  pen.textAlign = "center", pen.lineWidth = 3, pen.strokeStyle = data.inks.paper, pen.fillStyle = data.inks.text;
  eachSeen(map, box, 9, (c, r) => {
    const { letters } = map.words[map.stack[r * map.size[0] + c]];
    if (!letters) return;
    const [x, y] = cellCorner(map, c, r), [u, v] = toScreen(x + map.cell[0] / 2, y + map.cell[1] / 2);
    pen.strokeText(letters, u, v + size / 3), pen.fillText(letters, u, v + size / 3);
  });
}

// Numbers of columns and rows: along the stage's upper and left edge, or the two upper sides of the great diamond.
const numbersRoom = map => map.grid === "isometric" ? [0, 0] : [30, 15];   // px of the screen, to the left and above
function paintNumbers(pen, map) {
  const [aside, above] = numbersRoom(map);
  if (aside === 0) return paintSlantingNumbers(pen, map);
  const [w, h] = map.cell, across = every(w * view.zoom, 30), down = every(h * view.zoom, 16);
  pen.font = '10px "DejaVu Sans", system-ui, sans-serif';
  const strip = (x, y, wide, high) => (pen.fillStyle = data.inks.paper, pen.globalAlpha = 0.85, pen.fillRect(x, y, wide, high), pen.globalAlpha = 1);
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
    const [x, y] = toScreen(...cellRing(map, c, 0)[0].map((n, i) => n + [w, h][i] / 4));
    return [x + 5, y - 5];
  });
  along(map.first[1], map.size[1], "right", r => {
    const [x, y] = toScreen(...cellRing(map, 0, r)[0].map((n, i) => n + [-w, h][i] / 4));
    return [x - 5, y - 5];
  });
}

function paintCursor(pen, map) {
  if (!cursor) return;
  const ring = cellRing(map, cursor[0], cursor[1]).map(([x, y]) => toScreen(x, y));
  pen.beginPath();
  ring.forEach(([x, y], i) => i ? pen.lineTo(x, y) : pen.moveTo(x, y));
  pen.closePath();
  pen.strokeStyle = data.inks.paper, pen.lineWidth = 5, pen.stroke();
  pen.strokeStyle = data.inks.text, pen.lineWidth = 2, pen.stroke();
}

function paintRuler(pen, map, write) {
  if (!ruler || !ruler.from) return;
  const [x, y] = toScreen(...ruler.from), [u, v] = toScreen(...ruler.to);
  pen.strokeStyle = data.inks.paper, pen.lineWidth = 5;
  pen.beginPath(), pen.moveTo(x, y), pen.lineTo(u, v), pen.stroke();
  pen.strokeStyle = data.inks.text, pen.lineWidth = 2, pen.stroke();
  write(rulerText(map), (x + u) / 2, (y + v) / 2 - 8, { bold: true, always: true });
}
function rulerText(map) {
  const px = Math.hypot(ruler.to[0] - ruler.from[0], ruler.to[1] - ruler.from[1]);
  const [c, r] = cellPlace(map, ...ruler.from), [d, s] = cellPlace(map, ...ruler.to);
  const one = n => String(Math.round(Math.abs(n) * 10) / 10);
  return `${one(px)} px, ${one(d - c)} x ${one(s - r)} cells`;
}
