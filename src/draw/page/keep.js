// How a page keeps its place when it is loaded again, and sees that its file is another.

import { data } from "./data.js";
import { ready, settled } from "./maps.js";
import { held, hidden, now, show, view } from "./state.js";

let remembering = 0;
export function remember() {
  clearTimeout(remembering);
  remembering = setTimeout(keepPlace, 150);
}
function keepPlace() {
  const place = new URLSearchParams({ map: view.map.name, x: String(view.x), y: String(view.y), zoom: String(view.zoom),
    show: Object.keys(show).filter(thing => show[thing]).join(" "), hidden: [...hidden].join(" ") });
  if (now.storey !== null) place.set("storey", data.storeys[now.storey][0]);
  if (held.size || data.holds.length) place.set("facts", [...held].map(fact => data.facts[fact][0]).join(" "));
  if (now.mover !== null) place.set("mover", data.movers[now.mover]);
  if (now.cursor) place.set("cell", now.cursor.join(","));
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
  now.mover = asked < 0 ? null : asked;
}
export function recall() {
  const place = new URLSearchParams(location.hash.slice(1)), map = data.maps.find(one => one.name === place.get("map"));
  if (!map) return false;
  recallFacts(place);
  for (const name of (place.get("hidden") || "").split(" ")) if (name) hidden.add(name);
  view.map = settled(ready(map));
  for (const thing of Object.keys(show)) show[thing] = (place.get("show") || "").split(" ").includes(thing);
  const kept = data.storeys.findIndex(([name]) => name === place.get("storey"));
  now.storey = kept < 0 ? null : kept;
  const numbers = ["x", "y", "zoom"].map(name => parseFloat(place.get(name)));
  if (numbers.some(n => !Number.isFinite(n))) return false;
  [view.x, view.y, view.zoom] = numbers;
  const [column, row] = (place.get("cell") ?? "").split(",").map(Number);
  if (Number.isInteger(column) && Number.isInteger(row)) now.cursor = [column, row];
  return true;
}

// Looks every second whether the file is another: a frame that loads it again tells its stamp.
export function watchFile() {
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
