// The search: objects, findings and tiles by their names.

import { data } from "./data.js";
import { element, item, words } from "./dom.js";
import { ready } from "./maps.js";
import { goTo, jump, jumpToCell } from "./move.js";

const mostFound = 60;

// The first cell of a map that holds a tile of the page's list, and how many do.
function cellsOf(map, number) {
  let count = 0;
  /** @type {number | null} */
  let first = null;
  for (const layer of map.layers) {
    if (!layer.numbers) continue;
    const asked = map.palette.map(palette => palette[0] === number);
    layer.numbers.forEach((n, i) => {
      if (!asked[n]) return;
      first = first ?? i, ++count;
    });
  }
  return { count, at: first === null ? null : [first % map.size[0], Math.floor(first / map.size[0])] };
}

function find(text) {
  const asked = text.trim().toLowerCase(), rows = [];
  if (asked === "") return rows;
  const fits = (...names) => names.some(name => name && name.toLowerCase().includes(asked));
  for (const map of data.maps)
    for (const object of map.objects)
      if (fits(object.name, object.kind))
        rows.push([object.name || `(${object.kind})`, words(`${object.kind} on ${map.name}`, object.to && `→ ${object.to}`), () => (goTo(map), jump(...object.at))]);
  for (const map of data.maps)
    map.findings.forEach((finding, i) => {
      if (fits(finding.rule, finding.message))
        rows.push([`finding ${i + 1}: ${finding.rule}`, words(map.name, finding.message), () => (goTo(map), finding.at && jump(...finding.at))]);
    });
  data.tiles.forEach((tile, number) => {
    if (!fits(tile.name)) return;
    for (const map of data.maps) {
      const { count, at } = cellsOf(ready(map), number);
      if (count > 0) rows.push([tile.name, `${count} cells of ${map.name}`, () => (goTo(map), jumpToCell(...at))]);
    }
  });
  return rows;
}

export function tellFound() {
  const text = element("search").value, rows = find(text);
  element("found").replaceChildren(...rows.slice(0, mostFound).map(row => item(...row)));
  element("found_count").textContent = text.trim() === "" ? "" : rows.length > mostFound ? `${rows.length} found, the first ${mostFound} of them:`
    : rows.length === 0 ? "nothing has that in its name" : `${rows.length} found`;
}
