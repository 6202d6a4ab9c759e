// What is drawn of findings: the areas that they are about, and signs with their numbers.

import { data } from "./data.js";
import { isTold, raise, toScreen } from "./places.js";
import { filteredOut, view } from "./state.js";

// Of the areas that findings are about, where they are more than a place.
export function paintOutlines(pen, map) {
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

// Those that would lie over one another are told as one, with how many they are and the worst of them.
export function paintFindings(pen, map, seen) {
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
