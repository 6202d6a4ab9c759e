// The page: all its parts, started.

import { loadPictures } from "./art.js";
import { data } from "./data.js";
import { element } from "./dom.js";
import { changed } from "./draw.js";
import "./input.js";
import { forgetHere, tellAgain, tellHere } from "./here.js";
import { recall, watchFile } from "./keep.js";
import { ready } from "./maps.js";
import { fit } from "./move.js";
import { tellAll } from "./panel.js";
import { followers, view } from "./state.js";

async function start() {
  followers.map = () => (forgetHere(), tellAll());
  followers.place = tellHere;
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
