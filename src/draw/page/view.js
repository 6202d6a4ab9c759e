// The view: what is drawn when, how it is moved, and how a page keeps its place when it is loaded again.

const leastZoom = 1 / 64, mostZoom = 32;
let pending = false, missingArt = false, slow = false, moving = false, settle = 0, picture = null;

function changed() {
  if (!pending) requestAnimationFrame(draw);
  pending = true;
}

// While the view moves and a whole picture takes long, the last one is moved along; the next is drawn when it rests.
function moved() {
  if (slow && picture) {
    moving = true;
    clearTimeout(settle);
    settle = setTimeout(() => (moving = false, changed()), 90);
  }
  changed();
  remember();
}

function draw() {
  pending = false;
  if (!view.map) return;
  const ratio = window.devicePixelRatio || 1, wide = Math.round(canvas.clientWidth * ratio), high = Math.round(canvas.clientHeight * ratio);
  if (canvas.width !== wide || canvas.height !== high) canvas.width = wide, canvas.height = high, moving = false;
  const write = writer(context);
  if (moving) {
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.fillStyle = data.inks.edge, context.fillRect(0, 0, wide, high);
    const scale = view.zoom / picture.zoom, [x, y] = toScreen(picture.x, picture.y);
    context.setTransform(scale, 0, 0, scale, x * ratio - scale * wide / 2, y * ratio - scale * high / 2);
    context.imageSmoothingEnabled = true;
    context.drawImage(picture.canvas, 0, 0);
  } else {
    const start = performance.now();
    drawMap(ratio, wide, high);
    paintSigns(context, view.map, write);
    slow = performance.now() - start > 14;
    if (slow) keepPicture(wide, high);
  }
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  paintCursor(context, view.map);
  paintRuler(context, view.map, write);
  if (show.grid) paintNumbers(context, view.map);
  document.documentElement.dataset.drawn = missingArt || moving ? "partly" : "whole";
  if (missingArt && !moving) changed();
}
function keepPicture(wide, high) {
  if (!picture || picture.canvas.width !== wide || picture.canvas.height !== high)
    picture = { canvas: new OffscreenCanvas(wide, high) };
  picture.canvas.getContext("2d").drawImage(canvas, 0, 0);
  picture.x = view.x, picture.y = view.y, picture.zoom = view.zoom;
}

function drawMap(ratio, wide, high) {
  const map = view.map, scale = view.zoom * ratio;
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.fillStyle = data.inks.edge, context.fillRect(0, 0, wide, high);
  context.setTransform(scale, 0, 0, scale, wide / 2 - view.x * scale, high / 2 - view.y * scale);
  const box = [...toMap(0, 0), ...toMap(canvas.clientWidth, canvas.clientHeight)];
  const corners = [cellRing(map, 0, 0)[0], cellRing(map, map.size[0] - 1, 0)[1],
    cellRing(map, map.size[0] - 1, map.size[1] - 1)[2], cellRing(map, 0, map.size[1] - 1)[3]];
  context.beginPath();
  corners.forEach(([x, y], i) => i ? context.lineTo(x, y) : context.moveTo(x, y));
  context.closePath();
  context.fillStyle = data.inks.ground, context.fill();
  missingArt = show.art ? drawArt(context, map, box, 24) : false;
  if (show.art) paintUnseen(context, map, box);
  if (show.grid) paintGrid(context, map);
  if (show.reach && map.reachPaths.has(told())) paintReach(map);
  if (show.merged) paintGround(context, map, box);
  if (show.pieces) paintPieces(context, map, box);
  if (show.shapes) paintShapes(context, map, box);
  if (show.sides) paintSides(context, map, box);
  if (show.walk && map.walked) paintWalk(map);
  paintObjects(context, map, box);
  if (show.findings) paintOutlines(context, map);
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  if (show.flags) paintLetters(context, map, box);
}

function paintReach(map) {
  const path = map.reachPaths.get(told());
  context.save(), context.translate(0, -raise(map, told()));
  context.fillStyle = context.strokeStyle = data.inks.reach;
  context.globalAlpha = 0.2, context.fill(path, "evenodd"), context.globalAlpha = 1;
  context.lineWidth = 1.5 / view.zoom, context.setLineDash([1 / view.zoom, 3 / view.zoom]);
  context.stroke(path);
  context.setLineDash([]), context.restore();
}

// Solid and tinted where the mover gets to, dotted where it does not, dashed where that is not decided.
function walkStyles() {
  return { yes: [data.inks.roles[4], []], no: [data.inks.error, [1.5, 3]], not_decided: [data.inks.warning, [7, 3]] };
}
function paintWalk(map) {
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
// ---- moving ----

function zoomAt(x, y, factor) {   // the place below (x, y) stays there
  const [u, v] = toMap(x, y);
  view.zoom = Math.max(leastZoom, Math.min(mostZoom, view.zoom * factor));
  const [p, q] = toMap(x, y);
  view.x += u - p, view.y += v - q;
  moved();
}
function fit() {   // beside the numbers along the edge
  const [left, top, right, bottom] = view.map.box, [aside, above] = numbersRoom(view.map);
  view.zoom = Math.max(leastZoom, Math.min(8, (canvas.clientWidth - aside) / (right - left + 2.4 * view.map.cell[0]),
    (canvas.clientHeight - above) / (bottom - top + 2.4 * view.map.cell[1])));
  view.x = (left + right - aside / view.zoom) / 2, view.y = (top + bottom - above / view.zoom) / 2;
  moved();
}
function goTo(map) {
  if (view.map === map) return;
  view.map = settled(ready(map));
  element("maps").value = map.name;
  cursor = null, ruler = null, element("tip").hidden = true, element("where").textContent = "";
  forgetHere();
  tellAll();
  fit();
}
// So that a place is seen well, and chosen.
function jump(x, y) {
  view.x = x, view.y = y;
  view.zoom = Math.max(view.zoom, Math.min(4, 40 / view.map.cell[1]));
  choose(x, y);
}
function jumpToCell(c, r) {
  const [x, y] = cellCorner(view.map, c, r);
  jump(x + view.map.cell[0] / 2, y + view.map.cell[1] / 2);
}
function choose(x, y) {
  cursor = pointedCell(view.map, x, y);
  tellHere(x, y);
  moved();
}
function moveCursor(dc, dr) {
  const map = view.map, [c, r] = cursor || cellAt(map, view.x, view.y).map((n, i) => n - [dc, dr][i]);
  const to = [Math.max(0, Math.min(map.size[0] - 1, c + dc)), Math.max(0, Math.min(map.size[1] - 1, r + dr))];
  const [x, y] = cellCorner(map, ...to);
  /** @type {[number, number]} */
  const middle = [x + map.cell[0] / 2, y + map.cell[1] / 2];
  const [u, v] = toScreen(...middle), edge = 40;
  if (u < edge || v < edge || u > canvas.clientWidth - edge || v > canvas.clientHeight - edge) view.x = middle[0], view.y = middle[1];
  if (ruler && ruler.from) ruler.to = middle;
  choose(...middle);
}
let lastFinding = -1;
function nextFinding() {
  const all = view.map.findings.filter(finding => finding.at && isTold(finding) && !filteredOut.has(finding.severity));
  if (all.length === 0) return say(view.map.findings.length === 0 ? "no findings on this map" : "no findings on this map are shown");
  lastFinding = (lastFinding + 1) % all.length;
  jump(...all[lastFinding].at);
}
function toggleRuler() {
  ruler = ruler ? null : { from: null, to: null };
  if (ruler && cursor && document.activeElement === canvas) {
    const [x, y] = cellCorner(view.map, ...cursor);
    ruler.from = ruler.to = [x + view.map.cell[0] / 2, y + view.map.cell[1] / 2];
  }
  element("ruler").setAttribute("aria-pressed", ruler !== null);
  changed();
}

// ---- pointers ----

const pointers = new Map();
let travelled = 0;

canvas.onpointerdown = event => {
  canvas.setPointerCapture(event.pointerId);
  pointers.set(event.pointerId, [event.offsetX, event.offsetY]);
  travelled = 0;
};
canvas.onpointermove = event => {
  const before = pointers.get(event.pointerId), now = [event.offsetX, event.offsetY];
  if (!before) {
    if (ruler && ruler.from && !ruler.done) ruler.to = toMap(event.offsetX, event.offsetY), changed();
    return tellTip(event);
  }
  element("tip").hidden = true;
  if (pointers.size === 2) {   // two fingers
    const [other] = [...pointers].filter(([id]) => id !== event.pointerId).map(([, at]) => at);
    const gap = at => Math.max(10, Math.hypot(at[0] - other[0], at[1] - other[1]));
    zoomAt((now[0] + other[0]) / 2, (now[1] + other[1]) / 2, gap(now) / gap(before));
  }
  view.x -= (now[0] - before[0]) / view.zoom / pointers.size, view.y -= (now[1] - before[1]) / view.zoom / pointers.size;
  travelled += Math.hypot(now[0] - before[0], now[1] - before[1]);
  pointers.set(event.pointerId, now);
  canvas.classList.add("dragged");
  moved();
};
canvas.onpointerup = canvas.onpointercancel = event => {
  pointers.delete(event.pointerId);
  canvas.classList.remove("dragged");
  if (travelled > 4 || event.type === "pointercancel") return;
  const at = toMap(event.offsetX, event.offsetY);
  if (ruler && (!ruler.from || ruler.done)) ruler = { from: at, to: at };
  else if (ruler) ruler.to = at, ruler.done = true;
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
  else if (event.key === "Enter" && cursor) {
    const [x, y] = cellCorner(view.map, ...cursor), link = objectsAt(view.map, x + view.map.cell[0] / 2, y + view.map.cell[1] / 2).find(object => object.to);
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
    if (ruler) toggleRuler();
    cursor = null, element("search").value = "", tellFound(), changed(), canvas.focus();
  } else return;
  event.preventDefault();
};

element("closer").onclick = () => zoomAt(canvas.clientWidth / 2, canvas.clientHeight / 2, 1.4);
element("farther").onclick = () => zoomAt(canvas.clientWidth / 2, canvas.clientHeight / 2, 1 / 1.4);
element("fit").onclick = fit;
element("ruler").onclick = toggleRuler;
element("search").oninput = () => (nextFound = 0, tellFound());
element("search").onkeydown = event => {   // Enter goes to the first that was found, again to the next
  if (event.key !== "Enter") return;
  const buttons = [...element("found").querySelectorAll("button")];
  if (buttons.length) buttons[nextFound++ % buttons.length].click(), element("search").focus();
  event.preventDefault();
};
element("maps").onchange = event => (goTo(data.maps.find(map => map.name === event.target.value)), canvas.focus());
element("storey").onchange = event => lookAt(event.target.value === "" ? null : Number(event.target.value));
element("art").oninput = event => (artStrength = event.target.value / 100, changed());
new ResizeObserver(changed).observe(element("stage"));

// ---- keeping one's place ----

let remembering = 0;
function remember() {
  clearTimeout(remembering);
  remembering = setTimeout(keepPlace, 150);
}
function keepPlace() {
  const place = new URLSearchParams({ map: view.map.name, x: String(view.x), y: String(view.y), zoom: String(view.zoom),
    show: Object.keys(show).filter(thing => show[thing]).join(" "), hidden: [...hidden].join(" ") });
  if (storey !== null) place.set("storey", data.storeys[storey][0]);
  if (held.size || data.holds.length) place.set("facts", [...held].map(fact => data.facts[fact][0]).join(" "));
  if (mover !== null) place.set("mover", data.movers[mover]);
  if (cursor) place.set("cell", cursor.join(","));
  try {
    history.replaceState(null, "", "#" + place);
  } catch (refused) {   // some browsers keep pages from files from it
    location.hash = place.toString();
  }
}
function recallFacts(place) {
  if (place.has("facts")) {
    const names = place.get("facts").split(" ");
    held.clear();
    data.facts.forEach(([name], fact) => names.includes(name) && held.add(fact));
  }
  const asked = data.movers.indexOf(place.get("mover"));
  mover = asked < 0 ? null : asked;
}
function recall() {
  const place = new URLSearchParams(location.hash.slice(1)), map = data.maps.find(one => one.name === place.get("map"));
  if (!map) return false;
  recallFacts(place);
  for (const name of (place.get("hidden") || "").split(" ")) if (name) hidden.add(name);
  view.map = settled(ready(map));
  for (const thing of Object.keys(show)) show[thing] = (place.get("show") || "").split(" ").includes(thing);
  const kept = data.storeys.findIndex(([name]) => name === place.get("storey"));
  storey = kept < 0 ? null : kept;
  const numbers = ["x", "y", "zoom"].map(name => parseFloat(place.get(name)));
  if (numbers.some(n => !Number.isFinite(n))) return false;
  [view.x, view.y, view.zoom] = numbers;
  if (place.has("cell")) cursor = place.get("cell").split(",").map(Number);
  return true;
}

// Looks every second whether the file is another: a frame that loads it again tells its stamp.
function watchFile() {
  let frame = null, count = 0;
  addEventListener("message", event => {
    if (!event.data || !event.data.stamp) return;
    if (frame) frame.remove(), frame = null;
    if (event.data.stamp === page.stamp) return;
    keepPlace();
    location.reload();
  });
  setInterval(() => {
    if (frame) frame.remove();
    frame = document.createElement("iframe");
    frame.hidden = true;
    frame.src = `${location.href.split(/[?#]/)[0]}?stamp${++count}-${Date.now()}`;
    document.body.append(frame);
  }, 1000);
}

let nextFound = 0;

// All storeys, or one of them.
function lookAt(one) {
  storey = one;
  forgetArt();
  tellAll(), changed(), remember();
  canvas.focus();
}

async function start() {
  data.storeys.forEach(([name], one) => element("storey").append(new Option(name, one)));
  element("storey_choice").hidden = data.storeys.length < 2;
  for (const map of data.maps) element("maps").append(new Option(map.title, map.name));
  await loadPictures();
  const known = recall();
  if (!view.map) view.map = ready(data.maps[0]);
  element("maps").value = view.map.name;
  tellAll();
  if (known) changed();
  else fit();
  tellAgain();
  element("trouble").hidden = page.trouble === null;
  element("trouble").textContent = page.trouble && `The world cannot be read as it is now; this is how it was before.\n${page.trouble}`;
  if (page.reloads) watchFile();
}
start();
