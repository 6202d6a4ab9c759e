// The panel about a place, and the tip beside the pointer.

import { here, objectsAt, writtenAt } from "./at.js";
import { element, line, placeButton } from "./dom.js";
import { follow } from "./move.js";
import { cellAt, cellCorner, has, toMap } from "./places.js";
import { now, view } from "./state.js";

// In the panel, which is read out loud: only where somebody chose a cell.
export function tellHere(x, y) {
  const { place, parts } = here(view.map, x, y), panel = element("here");
  panel.replaceChildren(line(place, "title"));
  for (const [title, lines] of parts) panel.append(line(title, "part"), ...lines.map(text => line(text)));
  const link = objectsAt(view.map, x, y).find(object => object.to);
  if (link) panel.append(linkButton(link));
  const written = writtenAt(view.map, x, y);
  if (written.length) panel.append(line("in the files", "part"), ...written.map(([what, place]) => placeButton(what, place)));
}
function linkButton(object) {
  const button = document.createElement("button");
  button.textContent = `Follow to ${object.to}`;
  button.onclick = () => follow(object);
  return button;
}

// Beside the pointer: the gist of it.
export function tellTip(event) {
  const tip = element("tip"), [x, y] = toMap(event.offsetX, event.offsetY);
  const { place, parts } = here(view.map, x, y);
  element("where").textContent = place;
  if (!has(view.map, ...cellAt(view.map, x, y))) {
    tip.hidden = true;
    return;
  }
  const rows = [place, ...parts.flatMap(([title, lines]) => lines.filter(text => !text.includes("no flags here"))
    .map(text => title === "solid here" ? `solid here: ${text}` : text))];
  tip.replaceChildren(...rows.map(text => {
    const row = document.createElement("div");
    row.textContent = text;
    return row;
  }));
  tip.hidden = false;
  const stage = element("stage");
  tip.style.left = Math.max(4, Math.min(event.offsetX + 16, stage.clientWidth - tip.offsetWidth - 4)) + "px";
  tip.style.top = (event.offsetY + 20 + tip.offsetHeight < stage.clientHeight ? event.offsetY + 16
    : Math.max(4, event.offsetY - tip.offsetHeight - 12)) + "px";
}

// Of the same place, after something has changed.
export function tellAgain() {
  if (!now.cursor || !has(view.map, ...now.cursor)) return forgetHere();
  const [x, y] = cellCorner(view.map, ...now.cursor);
  tellHere(x + view.map.cell[0] / 2, y + view.map.cell[1] / 2);
}
export function forgetHere() {
  element("here").replaceChildren(line("Point at a place, or choose one with the arrow keys."));
}
