// What is drawn in px of the screen, so that it is as large at every zoom: signs of objects, names, links, findings,
// letters of flags, numbers, the chosen cell and the ruler.

const roles = ["spawn", "trigger", "link", "solid", "entity"];   // kinds of these names say no more than their sign
const signs = [   // each role's own, of the screen's px
  (p, x, y) => (p.moveTo(x, y), p.lineTo(x, y - 14), p.lineTo(x + 9, y - 10), p.lineTo(x, y - 6)),
  (p, x, y) => (p.moveTo(x, y - 6), p.lineTo(x + 6, y), p.lineTo(x, y + 6), p.lineTo(x - 6, y), p.closePath()),
  (p, x, y) => [[-7, -2], [0, -2], [0, -6], [7, 0], [0, 6], [0, 2], [-7, 2]].forEach(([u, v], i) => i ? p.lineTo(x + u, y + v) : p.moveTo(x + u, y + v)),
  (p, x, y) => p.rect(x - 4, y - 4, 8, 8),
  (p, x, y) => p.arc(x, y, 5, 0, 2 * Math.PI)];

// Texts that would lie over one another are left out, and none sticks out; signs never.
function writer(pen) {
  const taken = [];
  return (text, x, y, { bold = false, ground = true, always = false, size = 12 } = {}) => {
    pen.font = `${bold ? "bold " : ""}${size}px "DejaVu Sans", system-ui, sans-serif`;
    const wide = pen.measureText(text).width, [aside] = numbersRoom(view.map);
    if (wide + aside + 8 < canvas.clientWidth) x = Math.max(aside + wide / 2 + 4, Math.min(canvas.clientWidth - wide / 2 - 4, x));
    const box = [x - wide / 2 - 2, y - size, x + wide / 2 + 2, y + 4];
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
  const seen = ([x, y], beyond = 40) => x > -beyond && y > -beyond && x < wide + beyond && y < high + beyond;
  if (show.links) for (const object of map.objects) if (drawn(map, object)) paintLink(pen, map, object);
  if (show.objects) {
    const objects = map.objects.filter(object => drawn(map, object) && seen(toScreen(...placeOf(map, object)), 0));
    paintMarks(pen, map, objects);
    if (objects.length <= mostNamed) for (const named of [true, false]) paintNames(map, objects.filter(object => (object.name !== "") === named), write);
  }
  if (show.walk && map.walked) paintWalkNumbers(pen, map);
  if (show.findings) paintFindings(pen, map, seen);
}

// Where each step ends; those that end at one place stand in one mark.
function paintWalkNumbers(pen, map) {
  const marks = new Map();
  for (const [number, x, y] of map.walked.marks) {
    const key = `${x},${y}`;
    marks.set(key, { x, y, text: marks.has(key) ? `${marks.get(key).text}, ${number}` : `${number}` });
  }
  pen.font = "bold 12px sans-serif", pen.textAlign = "center", pen.textBaseline = "middle";
  for (const mark of marks.values()) {
    const [x, y] = toScreen(mark.x, mark.y), half = Math.max(9, pen.measureText(mark.text).width / 2 + 5);
    pen.fillStyle = data.inks.note;
    pen.beginPath(), pen.roundRect(x - half, y - 21, 2 * half, 18, 9), pen.fill();
    pen.fillStyle = data.inks.sign_text, pen.fillText(mark.text, x, y - 12);
  }
}

const mostNamed = 400, mostSigned = 1500;   // of objects that are seen; of more the signs would cover the map

function paintMarks(pen, map, objects) {
  roles.forEach((_, role) => {
    const path = new Path2D();
    for (const object of objects) {
      if (object.role !== role) continue;
      const [x, y] = toScreen(...placeOf(map, object));
      if (objects.length > mostSigned) path.rect(x - 1, y - 1, 3, 3);
      else path.moveTo(x + 5, y), signs[role](path, x, y);
    }
    pen.fillStyle = data.inks.roles[role], pen.strokeStyle = data.inks.paper, pen.lineWidth = 1;
    pen.fill(path);
    if (objects.length <= mostSigned) pen.stroke(path);
  });
}

function paintNames(map, objects, write) {
  for (const object of objects) {
    const [x, y] = toScreen(...placeOf(map, object));
    if (object.name === "" && view.zoom * map.cell[1] < 24) continue;
    const end = show.links && object.to ? ` → ${object.to}` : "", name = object.name || `(${object.kind})`;
    const kind = object.name && object.name !== object.kind && !roles.includes(object.kind) ? ` (${object.kind})` : "";
    if (kind && write(name + kind + end, x, y - 16)) continue;
    for (const dy of [-16, 20, -30, 34]) if (write(name + end, x, y + dy)) break;
  }
}

// Those that would lie over one another are told as one, with how many they are and the worst of them.
function paintFindings(pen, map, seen) {
  const heaps = new Map(), room = 34, worst = ["note", "warning", "error"];
  map.findings.forEach((finding, i) => {
    if (!finding.at || !isTold(finding) || filteredOut.has(finding.severity)) return;
    const [x, y] = toScreen(finding.at[0], finding.at[1] - raise(map, finding.storey));
    if (!seen([x, y])) return;
    const key = `${Math.floor(x / room)},${Math.floor(y / room)}`, heap = heaps.get(key);
    if (!heap) heaps.set(key, { x, y, count: 1, severity: finding.severity, text: String(i + 1) });
    else {
      heap.text = ++heap.count > 3 ? `${heap.count}×` : `${heap.text}, ${i + 1}`;
      if (worst.indexOf(finding.severity) > worst.indexOf(heap.severity)) heap.severity = finding.severity;
    }
  });
  for (const heap of heaps.values()) paintFinding(pen, heap.severity, heap.text, heap.x, heap.y);
}

function paintFinding(pen, severity, text, x, y) {
  const path = new Path2D(), several = text.includes(",");
  pen.font = `bold ${text.length > 2 && !several ? 9 : 12}px "DejaVu Sans", system-ui, sans-serif`;
  const half = pen.measureText(text).width / 2 + 5;
  if (several) path.roundRect(x - half, y - 12, 2 * half, 20, { error: 0, warning: 3, note: 10 }[severity]);
  else if (severity === "error") path.moveTo(x, y - 16), path.lineTo(x + 14, y + 8), path.lineTo(x - 14, y + 8), path.closePath();
  else if (severity === "warning") path.roundRect(x - 10, y - 12, 20, 20, 3);
  else path.arc(x, y - 2, 11, 0, 2 * Math.PI);
  pen.fillStyle = data.inks[severity], pen.strokeStyle = data.inks.paper, pen.lineWidth = 2;
  pen.fill(path), pen.stroke(path);
  pen.fillStyle = data.inks.sign_text, pen.textAlign = "center";
  pen.fillText(text, x, y + (severity === "error" && !several ? 6 : 3));
}

function paintLink(pen, map, object) {
  if (!object.to || !object.to.startsWith(map.name + "/")) return;
  const target = map.objects.find(other => other.name === object.to.slice(map.name.length + 1));
  if (!target) return;
  const [x, y] = toScreen(...placeOf(map, object)), [u, v] = toScreen(...placeOf(map, target));
  const over = [(x + u) / 2 + (v - y) / 5, (y + v) / 2 - (u - x) / 5];   // to the left, so that the way back is another
  const angle = Math.atan2(v - over[1], u - over[0]);
  pen.strokeStyle = pen.fillStyle = data.inks.roles[2], pen.lineWidth = 2;
  pen.setLineDash([6, 4]);
  pen.beginPath();
  pen.moveTo(x, y), pen.quadraticCurveTo(...over, u, v);
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
    const letters = saidOf(map, c, r)?.letters;
    if (!letters) return;
    const [x, y] = cellCorner(map, c, r), [u, v] = toScreen(x + map.cell[0] / 2, y + map.cell[1] / 2 - raise(map, told()));
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
