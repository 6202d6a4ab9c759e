// What is at a place, in the words of `probe`: what holds for the cell, the ground at the very point, objects, findings.

const areaHolds = (path, x, y) => path && context.isPointInPath(path, x, y, "evenodd");

function inMapPx(call) {   // paths are in px of the map, and the pen may be anywhere
  context.save();
  context.setTransform(1, 0, 0, 1, 0, 0);
  const result = call();
  context.restore();
  return result;
}

function solidsAt(map, x, y) {
  return inMapPx(() => [...new Set(map.pieces.filter(piece => {
    const { on } = map.groups[piece.group], v = y + raise(map, on);
    return isLookedAt(on) && meets(piece.box, [x, v, x, v]) && areaHolds(piece.fill, x, v);
  }).map(piece => map.groups[piece.group]).map(group => group.on > 0 ? `${group.storey}: ${group.name}` : group.name))]);
}
const holds = (object, x, y, near) => Math.hypot(object.at[0] - x, object.at[1] - y) <= near ||
  areaHolds(object.areaPath, x, y) || areaHolds(object.bodyPath, x, y);

// The cell of what is seen at a place: of the topmost picture there, which may reach out of its cell; else of the ground.
function pointedCell(map, x, y) {
  const ground = cellAt(map, x, y), reaches = artReach(map) > 0;
  const top = show.art && reaches && view.zoom * map.cell[1] >= 6 ? artAt(map, x, y) : null;
  return !top ? ground : top.object ? cellAt(map, ...top.object.at) : top.cell;
}

function objectsAt(map, x, y) {
  const near = 8 / Math.min(1, view.zoom);
  return inMapPx(() => map.objects.filter(object => drawn(map, object) && holds(object, x, y + raise(map, object.storey), near)));
}
function findingsAt(map, c, r) {
  return map.findings.filter(finding => finding.at && isTold(finding) && cellAt(map, ...finding.at).join() === `${c},${r}`);
}

// { place, parts: [[title, lines]] }
function here(map, x, y) {
  const [c, r] = pointedCell(map, x, y), inside = has(map, c, r);
  const one = n => String(Math.round(n * 10) / 10);
  const place = `(${one(x)}, ${one(y)}) px, cell (${map.first[0] + c}, ${map.first[1] + r})${inside ? "" : ", outside of the map"}`;
  const words = inside ? map.words[map.stack[r * map.size[0] + c]] : { tiles: [], flags: [] };
  const parts = [["tiles, from the top", words.tiles.length ? words.tiles : ["no tile"]]];
  if (words.flags.length) parts.push(["passability", words.flags]);
  const solids = solidsAt(map, x, y);
  parts.push(["solid here", solids.length ? solids : ["nothing"]]);
  const objects = objectsAt(map, x, y);
  if (objects.length) parts.push(["objects here", objects.map(object => object.words.join("; "))]);
  const findings = findingsAt(map, c, r);
  if (findings.length) parts.push(["findings", findings.map(finding => `${finding.severity}: ${finding.message} [${finding.rule}]`)]);
  return { place, parts };
}

// Where all that is at a place is written: [what, file:line], from the top.
function writtenAt(map, x, y) {
  const [c, r] = pointedCell(map, x, y), rows = [];
  for (const finding of findingsAt(map, c, r)) rows.push([finding.rule, finding.place]);
  for (const object of objectsAt(map, x, y)) rows.push([object.name || object.kind, object.place]);
  if (has(map, c, r))
    for (const layer of [...map.layers].reverse()) {
      const number = layer.numbers ? layer.numbers[r * map.size[0] + c] : 0;
      if (!number) continue;
      const tile = data.tiles[map.palette[number][0]];
      rows.push([`layer ${layer.name}`, layer.lines && `${layer.file}:${layer.lines[r]}`], [tile.name, tile.place]);
    }
  const known = new Set();
  return rows.filter(([, place]) => place && !known.has(place) && known.add(place));
}

// A place in a file, that a click puts on the clipboard.
function placeButton(what, place) {
  const row = document.createElement("p"), button = document.createElement("button");
  button.className = "place", button.textContent = place, button.title = "copy";
  button.setAttribute("aria-label", `copy ${place}`);
  button.onclick = async () => {
    try {
      await navigator.clipboard.writeText(place);
      button.title = "copied";
    } catch {   // not allowed to: it is chosen, to be copied by hand
      getSelection().selectAllChildren(button);
    }
    row.lastChild.textContent = button.title === "copied" ? " copied" : "";
  };
  row.append(`${what} `, button, document.createElement("span"));
  return row;
}

function line(text, className) {
  const p = document.createElement("p");
  p.textContent = text;
  if (className) p.className = className;
  return p;
}

// In the panel, which is read out loud: only where somebody chose a cell.
function tellHere(x, y) {
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
function tellTip(event) {
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

// The way that a link leads: to the object, on its map.
function follow(object) {
  const [name, target] = object.to.split("/"), map = data.maps.find(other => other.name === name);
  if (!map) return say(`Map ${name} is not on this page`);
  goTo(map);
  const found = map.objects.find(other => other.name === target);
  if (!found) return say(`Map ${name} has no object ${target}`);
  jump(...found.at);
}
// Of the same place, after something has changed.
function tellAgain() {
  if (!cursor || !has(view.map, ...cursor)) return forgetHere();
  const [x, y] = cellCorner(view.map, ...cursor);
  tellHere(x + view.map.cell[0] / 2, y + view.map.cell[1] / 2);
}
function forgetHere() {
  element("here").replaceChildren(line("Point at a place, or choose one with the arrow keys."));
}
function say(text) {
  element("here").replaceChildren(line(text));
}
