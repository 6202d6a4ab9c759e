// Where the mover gets to, and its way to all goals.

import { data } from "./data.js";
import { toScreen } from "./places.js";
import { context, view } from "./state.js";

// Solid and tinted where the mover gets to, dotted where it does not, dashed where that is not decided.
export function walkStyles() {
  return { yes: [data.inks.roles[4], []], no: [data.inks.error, [1.5, 3]], not_decided: [data.inks.warning, [7, 3]] };
}
export function paintWalk(map) {
  const unit = 1 / view.zoom, styles = walkStyles();
  for (const { reached, area, line } of map.walked.places) {
    const [ink, dash] = styles[reached];
    context.fillStyle = ink, context.globalAlpha = 0.15, context.fill(area, "evenodd"), context.globalAlpha = 1;
    context.setLineDash([]), context.lineWidth = 6 * unit, context.strokeStyle = data.inks.paper, context.stroke(line);
    context.setLineDash(dash.map(part => part * unit)), context.strokeStyle = ink;
    context.lineWidth = 1.5 * unit, context.stroke(area);
    context.lineWidth = 3.5 * unit, context.stroke(line);
  }
  context.setLineDash([]), context.lineWidth = 4.5 * unit, context.strokeStyle = data.inks.paper;
  context.stroke(map.walked.ways);
  context.lineWidth = 2 * unit, context.strokeStyle = data.inks.note, context.stroke(map.walked.ways);
}

// Where each step ends; those that end at one place stand in one mark.
export function paintWalkNumbers(pen, map) {
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
