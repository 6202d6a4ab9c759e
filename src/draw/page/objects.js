// What is drawn of objects: their areas and bodies in px of the map; signs, names and links in px of the screen.

import { data } from "./data.js";
import { drawn, meets, placeOf, toScreen } from "./places.js";
import { show, view } from "./state.js";

export const roles = ["spawn", "trigger", "link", "solid", "entity"];   // kinds of these names say no more than their sign
export const signs = [   // each role's own, of the screen's px
  (p, x, y) => (p.moveTo(x, y), p.lineTo(x, y - 14), p.lineTo(x + 9, y - 10), p.lineTo(x, y - 6)),
  (p, x, y) => (p.moveTo(x, y - 6), p.lineTo(x + 6, y), p.lineTo(x, y + 6), p.lineTo(x - 6, y), p.closePath()),
  (p, x, y) => [[-7, -2], [0, -2], [0, -6], [7, 0], [0, 6], [0, 2], [-7, 2]].forEach(([u, v], i) => i ? p.lineTo(x + u, y + v) : p.moveTo(x + u, y + v)),
  (p, x, y) => p.rect(x - 4, y - 4, 8, 8),
  (p, x, y) => p.arc(x, y, 5, 0, 2 * Math.PI)];

export function paintObjects(pen, map, box) {
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

// Of objects that are seen; of more the signs would cover the map.
export const mostNamed = 400;
const mostSigned = 1500;

export function paintMarks(pen, map, objects) {
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

export function paintNames(map, objects, write) {
  for (const object of objects) {
    const [x, y] = toScreen(...placeOf(map, object));
    if (object.name === "" && view.zoom * map.cell[1] < 24) continue;
    const end = show.links && object.to ? ` → ${object.to}` : "", name = object.name || `(${object.kind})`;
    const kind = object.name && object.name !== object.kind && !roles.includes(object.kind) ? ` (${object.kind})` : "";
    if (kind && write(name + kind + end, x, y - 16)) continue;
    for (const dy of [-16, 20, -30, 34]) if (write(name + end, x, y + dy)) break;
  }
}

export function paintLink(pen, map, object) {
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
