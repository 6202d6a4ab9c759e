// Art: painted px by px into square blocks, at the whole scale below what is shown, so that large maps cost no more than
// the blocks that are seen. A block is painted once and kept; painting stops after some milliseconds and goes on later.

import { data } from "./data.js";
import { cellCorner, columnsIn, drawn, raise, strengthOf } from "./places.js";
import { now, view } from "./state.js";

const blockPx = 512, mostBlocks = 160;
const pictures = [];   // { width, height, px }: 32 bits a px, as ImageData has them
const blocks = new Map();
let scaled = new Map();

export async function loadPictures() {
  await Promise.all(data.pictures.map(async (address, i) => {
    const image = new Image();
    image.src = address;
    await image.decode();
    const sheet = new OffscreenCanvas(image.width, image.height), pen = sheet.getContext("2d");
    pen.drawImage(image, 0, 0);
    pictures[i] = { image, width: image.width, height: image.height,
      px: new Uint32Array(pen.getImageData(0, 0, image.width, image.height).data.buffer) };
  }));
}

// A tile's picture flipped and turned about its cell's middle, 2^level times smaller by averages.
function tilePicture(map, palette, level) {
  const key = `${map.cell[0]}x${map.cell[1]}:${palette.join(",")}:${level}`;
  if (scaled.has(key)) return scaled.get(key);
  const [number, flipX, flipY, turns] = palette, tile = data.tiles[number], picture = pictures[tile.picture];
  let result = null;
  if (picture) {
    const [w, h] = map.cell, at = tile.at || [0, 0];
    // px of the picture, counted from the middle of the cell, where they come to lie
    const place = (x, y) => {
      let u = x + at[0] + 0.5 - w / 2, v = y + at[1] + 0.5 - h / 2;
      if (flipX) u = -u;
      if (flipY) v = -v;
      for (let t = 0; t < turns; ++t) [u, v] = [-v, u];
      return [Math.floor(u + w / 2), Math.floor(v + h / 2)];
    };
    const corners = [place(0, 0), place(picture.width - 1, picture.height - 1)];
    const left = Math.min(corners[0][0], corners[1][0]), top = Math.min(corners[0][1], corners[1][1]);
    const wide = Math.abs(corners[0][0] - corners[1][0]) + 1, high = Math.abs(corners[0][1] - corners[1][1]) + 1;
    const whole = new Uint32Array(wide * high);
    for (let y = 0; y < picture.height; ++y)
      for (let x = 0; x < picture.width; ++x) {
        const [u, v] = place(x, y);
        whole[(v - top) * wide + u - left] = picture.px[y * picture.width + x];
      }
    result = smaller({ left, top, wide, high, px: whole }, level);
  }
  scaled.set(key, result);
  return result;
}
function smaller(from, level) {
  if (level === 0) return from;
  const size = 1 << level, wide = Math.max(1, Math.ceil(from.wide / size)), high = Math.max(1, Math.ceil(from.high / size));
  const px = new Uint32Array(wide * high);
  for (let y = 0; y < high; ++y)
    for (let x = 0; x < wide; ++x) {
      let r = 0, g = 0, b = 0, a = 0, n = 0;
      for (let v = y * size; v < Math.min((y + 1) * size, from.high); ++v)
        for (let u = x * size; u < Math.min((x + 1) * size, from.wide); ++u, ++n) {
          const c = from.px[v * from.wide + u], alpha = c >>> 24;
          r += (c & 255) * alpha, g += (c >> 8 & 255) * alpha, b += (c >> 16 & 255) * alpha, a += alpha;
        }
      if (a > 0) px[y * wide + x] = (Math.round(a / n) << 24 | Math.round(b / a) << 16 | Math.round(g / a) << 8 | Math.round(r / a)) >>> 0;
    }
  return { left: from.left, top: from.top, wide, high, px };
}

// One px over another.
function over(below, above, opacity) {
  const a = (above >>> 24) * opacity / 255, b = (below >>> 24) / 255, all = a + b * (1 - a);
  if (all === 0) return 0;
  const mix = shift => Math.round(((above >> shift & 255) * a + (below >> shift & 255) * b * (1 - a)) / all);
  return (Math.round(all * 255) << 24 | mix(16) << 16 | mix(8) << 8 | mix(0)) >>> 0;
}

function paintTile(target, tile, x, y, opacity) {
  for (let v = Math.max(0, -y); v < tile.high && y + v < blockPx; ++v)
    for (let u = Math.max(0, -x); u < tile.wide && x + u < blockPx; ++u) {
      const px = tile.px[v * tile.wide + u];
      if (px >>> 24 === 0) continue;
      const at = (y + v) * blockPx + x + u;
      target[at] = opacity === 1 && px >>> 24 === 255 ? px : over(target[at], px, opacity);
    }
}

// How far pictures reach out of their cells, px.
export function artReach(map) {
  if (map.artReach === undefined) {
    map.artReach = 0;
    for (const [number] of map.palette) {
      const tile = number === undefined ? null : data.tiles[number], picture = tile && pictures[tile.picture];
      if (picture && tile.at)
        map.artReach = Math.max(map.artReach, Math.abs(tile.at[0]) + picture.width, Math.abs(tile.at[1]) + picture.height);
    }
    for (const object of map.objects) {
      const picture = pictures[object.picture];
      if (picture) map.artReach = Math.max(map.artReach, Math.abs(object.from[0]) + picture.width, Math.abs(object.from[1]) + picture.height);
    }
    for (const layer of map.layers) {
      const [dx, dy] = layer.offset ?? [0, 0];
      map.artReach = Math.max(map.artReach, Math.abs(dx), Math.abs(dy));
    }
    map.artReach += Math.max(0, ...data.storeys.map((_, one) => raise(map, one)));
  }
  return map.artReach;
}

// An object's picture, 2^level times smaller, from its position.
function objectPicture(object, level) {
  const key = `object:${object.picture}:${object.from.join()}:${level}`;
  if (!scaled.has(key)) {
    const { width, height, px } = pictures[object.picture];
    scaled.set(key, smaller({ left: object.from[0], top: object.from[1], wide: width, high: height, px }, level));
  }
  return scaled.get(key);
}

const behind = 0, among = 1, infront = 2;   // bands

// When a tile of the palette is drawn in a layer; and all bands that a layer's tiles are drawn in.
const bandOf = (layer, palette) => data.tiles[palette[0]].band ?? layer.band;
const bandsOf = (map, layer) => layer.bands ??= new Set([...new Set(layer.numbers)].map(n => map.palette[n]).filter(p => p.length > 0).map(p => bandOf(layer, p)));

// Calls with all art that may reach into a box, in the order in which it is painted: layers behind the movers; what is
// drawn among them, and objects, those further away first; what is in front. Art says where its cell or position is.
function eachArt(map, box, call) {
  for (const band of [behind, among, infront]) {
    const items = [];
    const order = map.layers.map((layer, number) => [number + layer.order, number]).sort((a, b) => a[0] - b[0] || a[1] - b[1]);
    order.forEach(([, number]) => {
      const layer = map.layers[number], strength = layer.numbers && bandsOf(map, layer).has(band) ? strengthOf(layer) : 0;
      if (strength === 0) return;
      const [dx, dy] = layer.offset ?? [0, 0], up = raise(map, layer.storey);
      for (let r = 0; r < map.size[1]; ++r) {
        const [first, last] = columnsIn(map, r, box);
        for (let c = first; c <= last; ++c) {
          const palette = map.palette[layer.numbers[r * map.size[0] + c]];
          if (palette.length === 0 || bandOf(layer, palette) !== band) continue;
          const [x, y] = cellCorner(map, c, r);
          const item = { depth: y + map.cell[1] / 2 + layer.order, base: data.storeys[layer.storey][1], number, palette, strength, cell: [c, r], x: x + dx, y: y + dy - up };
          band === among ? items.push(item) : call(item);
        }
      }
    });
    for (const object of map.objects) {
      const of = map.layers[object.layer].band === infront ? infront : among;
      if (of !== band || !drawn(map, object) || !pictures[object.picture]) continue;
      const [x, y] = object.at, item = { depth: y + map.layers[object.layer].order, base: data.storeys[object.storey][1], number: object.layer, object, strength: 1, x, y: y - raise(map, object.storey) };
      items.push(item);
    }
    items.sort((a, b) => a.depth - b.depth || a.base - b.base || a.number - b.number);
    items.forEach(call);
  }
}
const pictureOf = (map, item, level) => item.object ? objectPicture(item.object, level) : tilePicture(map, item.palette, level);

function paintBlock(map, level, column, row) {
  const size = blockPx << level, scale = 1 / (1 << level);
  const image = new ImageData(blockPx, blockPx), target = new Uint32Array(image.data.buffer);
  const reach = artReach(map) + 1, left = column * size, top = row * size;
  eachArt(map, [left - reach, top - reach, left + size + reach, top + size + reach], item => {
    const picture = pictureOf(map, item, level);
    if (picture) paintTile(target, picture, Math.round((item.x + picture.left - left) * scale), Math.round((item.y + picture.top - top) * scale), item.strength);
  });
  const block = new OffscreenCanvas(blockPx, blockPx);
  block.getContext("2d").putImageData(image, 0, 0);
  return block;
}

// What is seen at a place: the topmost art whose px there can be seen; null where there is none.
export function artAt(map, x, y) {
  const reach = artReach(map) + 1;
  let top = null;
  eachArt(map, [x - reach, y - reach, x + reach, y + reach], item => {
    const picture = pictureOf(map, item, 0);
    if (!picture) return;
    const u = Math.floor(x - item.x - picture.left), v = Math.floor(y - item.y - picture.top);
    if (u >= 0 && v >= 0 && u < picture.wide && v < picture.high && picture.px[v * picture.wide + u] >>> 24 >= 64) top = item;
  });
  return top;
}

export function forgetArt() {
  blocks.clear();
}

// Draws what is seen of the art; returns whether something is still to be painted. The pen is in px of the map.
export function drawArt(pen, map, box, patience) {
  const ratio = window.devicePixelRatio || 1, level = Math.max(0, Math.min(8, Math.floor(-Math.log2(view.zoom * ratio) + 0.01)));
  const size = blockPx << level, end = performance.now() + patience;
  let missing = false;
  pen.imageSmoothingEnabled = view.zoom * ratio < 1, pen.globalAlpha = now.artStrength;
  for (let row = Math.floor(box[1] / size); row * size < box[3]; ++row)
    for (let column = Math.floor(box[0] / size); column * size < box[2]; ++column) {
      const outside = (column + 1) * size < map.box[0] - artReach(map) || column * size > map.box[2] + artReach(map) ||
        (row + 1) * size < map.box[1] - artReach(map) || row * size > map.box[3] + artReach(map);
      if (outside) continue;
      const key = `${map.name}:${level}:${column}:${row}`;
      let block = blocks.get(key);
      if (!block) {
        if (performance.now() > end) {
          missing = true;
          continue;
        }
        block = paintBlock(map, level, column, row);
        if (blocks.size >= mostBlocks) blocks.delete(blocks.keys().next().value);
      } else {
        blocks.delete(key);   // it is the youngest again
      }
      blocks.set(key, block);
      pen.drawImage(block, column * size, row * size, size, size);
    }
  pen.globalAlpha = 1;
  return missing;
}
