// Pointers, keys and buttons.

import { objectsAt } from "./at.js";
import { data } from "./data.js";
import { element } from "./dom.js";
import { changed, moved } from "./draw.js";
import { tellTip } from "./here.js";
import { choose, fit, follow, goTo, moveCursor, nextFinding, toggleRuler, zoomAt } from "./move.js";
import { lookAt } from "./panel.js";
import { cellCorner, toMap } from "./places.js";
import { tellFound } from "./search.js";
import { canvas, now, view } from "./state.js";

const pointers = new Map();
let travelled = 0;

canvas.onpointerdown = event => {
  canvas.setPointerCapture(event.pointerId);
  pointers.set(event.pointerId, [event.offsetX, event.offsetY]);
  travelled = 0;
};
canvas.onpointermove = event => {
  const before = pointers.get(event.pointerId), at = [event.offsetX, event.offsetY];
  if (!before) {
    if (now.ruler && now.ruler.from && !now.ruler.done) now.ruler.to = toMap(event.offsetX, event.offsetY), changed();
    return tellTip(event);
  }
  element("tip").hidden = true;
  if (pointers.size === 2) {   // two fingers
    const [other] = [...pointers].filter(([id]) => id !== event.pointerId).map(([, place]) => place);
    const gap = one => Math.max(10, Math.hypot(one[0] - other[0], one[1] - other[1]));
    zoomAt((at[0] + other[0]) / 2, (at[1] + other[1]) / 2, gap(at) / gap(before));
  }
  view.x -= (at[0] - before[0]) / view.zoom / pointers.size, view.y -= (at[1] - before[1]) / view.zoom / pointers.size;
  travelled += Math.hypot(at[0] - before[0], at[1] - before[1]);
  pointers.set(event.pointerId, at);
  canvas.classList.add("dragged");
  moved();
};
canvas.onpointerup = canvas.onpointercancel = event => {
  pointers.delete(event.pointerId);
  canvas.classList.remove("dragged");
  if (travelled > 4 || event.type === "pointercancel") return;
  const at = toMap(event.offsetX, event.offsetY);
  if (now.ruler && (!now.ruler.from || now.ruler.done)) now.ruler = { from: at, to: at };
  else if (now.ruler) now.ruler.to = at, now.ruler.done = true;
  choose(...at);
};
canvas.onpointerleave = () => element("tip").hidden = true;
canvas.ondblclick = event => {
  const link = objectsAt(view.map, ...toMap(event.offsetX, event.offsetY)).find(object => object.to);
  if (link) follow(link);
};
canvas.addEventListener("wheel", event => {
  event.preventDefault();
  zoomAt(event.offsetX, event.offsetY, Math.exp(-event.deltaY * (event.deltaMode === 1 ? 0.05 : 0.0016)));
}, { passive: false });

// ---- keys ----

const arrows = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
canvas.onkeydown = event => {
  const arrow = arrows[event.key];
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  if (arrow && event.shiftKey) view.x += arrow[0] * 80 / view.zoom, view.y += arrow[1] * 80 / view.zoom, moved();
  else if (arrow) moveCursor(...arrow);
  else if (event.key === "Enter" && now.cursor) {
    const [x, y] = cellCorner(view.map, ...now.cursor), link = objectsAt(view.map, x + view.map.cell[0] / 2, y + view.map.cell[1] / 2).find(object => object.to);
    if (link) follow(link);
  } else return;
  event.preventDefault();
};
document.onkeydown = event => {
  element("tip").hidden = true;
  if (event.target instanceof Element && event.target.matches("input[type=search], select") && event.key !== "Escape" || event.ctrlKey || event.metaKey || event.altKey) return;
  const middle = [canvas.clientWidth / 2, canvas.clientHeight / 2];
  if (event.key === "+" || event.key === "=") zoomAt(...middle, 1.4);
  else if (event.key === "-") zoomAt(...middle, 1 / 1.4);
  else if (event.key === "0") fit();
  else if (event.key === "n" || event.key === "N") nextFinding();
  else if (event.key === "r" || event.key === "R") toggleRuler();
  else if (event.key === "/") element("search").focus();
  else if (event.key === "Escape") {
    if (now.ruler) toggleRuler();
    now.cursor = null, element("search").value = "", tellFound(), changed(), canvas.focus();
  } else return;
  event.preventDefault();
};

element("closer").onclick = () => zoomAt(canvas.clientWidth / 2, canvas.clientHeight / 2, 1.4);
element("farther").onclick = () => zoomAt(canvas.clientWidth / 2, canvas.clientHeight / 2, 1 / 1.4);
element("fit").onclick = fit;
element("ruler").onclick = toggleRuler;
let nextFound = 0;   // of what the search found
element("search").oninput = () => (nextFound = 0, tellFound());
element("search").onkeydown = event => {   // Enter goes to the first that was found, again to the next
  if (event.key !== "Enter") return;
  const buttons = [...element("found").querySelectorAll("button")];
  if (buttons.length) buttons[nextFound++ % buttons.length].click(), element("search").focus();
  event.preventDefault();
};
element("maps").onchange = event => (goTo(data.maps.find(map => map.name === event.target.value)), canvas.focus());
element("storey").onchange = event => lookAt(event.target.value === "" ? null : Number(event.target.value));
element("art").oninput = event => (now.artStrength = event.target.value / 100, changed());
new ResizeObserver(changed).observe(element("stage"));
