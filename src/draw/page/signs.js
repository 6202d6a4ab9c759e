// What is drawn in px of the screen, so that it is as large at every zoom: texts, the chosen cell, the now.ruler.

import { numbersRoom } from "./cells.js";
import { data } from "./data.js";
import { cellPlace, cellRing, meets, toScreen } from "./places.js";
import { canvas, now, view } from "./state.js";

// Texts that would lie over one another are left out, and none sticks out; signs never.
export function writer(pen) {
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

export function paintCursor(pen, map) {
  if (!now.cursor) return;
  const ring = cellRing(map, now.cursor[0], now.cursor[1]).map(([x, y]) => toScreen(x, y));
  pen.beginPath();
  ring.forEach(([x, y], i) => i ? pen.lineTo(x, y) : pen.moveTo(x, y));
  pen.closePath();
  pen.strokeStyle = data.inks.paper, pen.lineWidth = 5, pen.stroke();
  pen.strokeStyle = data.inks.text, pen.lineWidth = 2, pen.stroke();
}

export function paintRuler(pen, map, write) {
  if (!now.ruler || !now.ruler.from) return;
  const [x, y] = toScreen(...now.ruler.from), [u, v] = toScreen(...now.ruler.to);
  pen.strokeStyle = data.inks.paper, pen.lineWidth = 5;
  pen.beginPath(), pen.moveTo(x, y), pen.lineTo(u, v), pen.stroke();
  pen.strokeStyle = data.inks.text, pen.lineWidth = 2, pen.stroke();
  write(rulerText(map), (x + u) / 2, (y + v) / 2 - 8, { bold: true, always: true });
}
function rulerText(map) {
  const px = Math.hypot(now.ruler.to[0] - now.ruler.from[0], now.ruler.to[1] - now.ruler.from[1]);
  const [c, r] = cellPlace(map, ...now.ruler.from), [d, s] = cellPlace(map, ...now.ruler.to);
  const one = n => String(Math.round(Math.abs(n) * 10) / 10);
  return `${one(px)} px, ${one(d - c)} x ${one(s - r)} cells`;
}
