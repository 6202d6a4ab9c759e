// What is drawn, and when.

import { drawArt } from "./art.js";
import { paintGrid, paintLetters, paintNumbers, paintShapes, paintSides, paintUnseen } from "./cells.js";
import { data } from "./data.js";
import { paintFindings, paintOutlines } from "./finding_signs.js";
import { paintGround, paintPieces } from "./ground.js";
import { remember } from "./keep.js";
import { mostNamed, paintLink, paintMarks, paintNames, paintObjects } from "./objects.js";
import { cellRing, drawn, placeOf, raise, toMap, toScreen, told } from "./places.js";
import { paintCursor, paintRuler, writer } from "./signs.js";
import { canvas, context, show, view } from "./state.js";
import { paintWalk, paintWalkNumbers } from "./walk.js";

let pending = false, missingArt = false, slow = false, moving = false, settle = 0, picture = null;

export function changed() {
  if (!pending) requestAnimationFrame(draw);
  pending = true;
}

// While the view moves and a whole picture takes long, the last one is moved along; the next is drawn when it rests.
export function moved() {
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
