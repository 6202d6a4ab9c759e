// Which tiles are shown: by what is searched for, a barrier, a flag.

import { element } from "./dom.js";

const tiles = [.../** @type {NodeListOf<HTMLElement>} */ (document.querySelectorAll(".tile"))];
const texts = tiles.map(tile => tile.textContent.toLowerCase());
const has = (tile, list, word) => word === "" || tile.dataset[list].split(" ").includes(word);

function choose() {
  const asked = element("search").value.trim().toLowerCase();
  let count = 0;
  tiles.forEach((tile, i) => {
    const shown = texts[i].includes(asked) && has(tile, "barriers", element("barrier").value) && has(tile, "flags", element("flag").value)
      && (!element("undecided").checked || tile.dataset.undecided === "true") && (!element("unused").checked || tile.dataset.cells === "0");
    tile.hidden = !shown;
    count += shown ? 1 : 0;
  });
  element("count").textContent = count === tiles.length ? `${count} tiles` : `${count} of ${tiles.length} tiles`;
}
for (const id of ["search", "barrier", "flag", "undecided", "unused"]) element(id).addEventListener("input", choose);
addEventListener("keydown", event => {
  if (event.key !== "/" || event.target === element("search")) return;
  event.preventDefault();
  element("search").focus();
});
choose();
