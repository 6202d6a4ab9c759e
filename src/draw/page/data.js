// What the page knows: what the program wrote into it, and how its lists of numbers are read.

export const data = JSON.parse(document.getElementById("data").textContent);
export const stepsPerPx = 256;

// Text as base64 of little-endian integers.
function bytesOf(text) {
  const raw = atob(text), bytes = new Uint8Array(raw.length);
  for (let i = 0; i < raw.length; ++i) bytes[i] = raw.charCodeAt(i);
  return bytes;
}
export const intsOf = text => new Int32Array(bytesOf(text).buffer);
export function countsOf(text, count) {   // 16 bits each where that was enough
  const bytes = bytesOf(text);
  return bytes.length === count * 2 ? new Uint16Array(bytes.buffer) : new Uint32Array(bytes.buffer);
}

// Calls with the points of each ring of a list: how many, then steps.
export function eachRing(list, call, from = 0, flagged = false) {
  for (let at = from; at < list.length;) {
    const flags = flagged ? list[at++] : 0, count = list[at++];
    call(list, at, count, flags);
    at += 2 * count;
  }
}
export function ringsInto(path, list, closed = true) {
  eachRing(list, (all, at, count) => {
    for (let i = 0; i < count; ++i) {
      const x = all[at + 2 * i] / stepsPerPx, y = all[at + 2 * i + 1] / stepsPerPx;
      i === 0 ? path.moveTo(x, y) : path.lineTo(x, y);
    }
    if (closed) path.closePath();
  });
  return path;
}
