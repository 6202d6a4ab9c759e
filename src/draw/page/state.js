// What is looked at now. Modules below this one say nothing of the panel: who has to follow what they do is entered here.

import { data } from "./data.js";
import { element } from "./dom.js";

export const canvas = element("map");
/** @type {CanvasRenderingContext2D} */
export const context = canvas.getContext("2d");

export const view = { map: null, x: 0, y: 0, zoom: 1 };   // the px of the map at the stage's middle; css px to a px of the map
export const show = Object.fromEntries(["art", "grid", "shapes", "merged", "pieces", "flags", "sides", "objects", "links",
  "findings", "reach", "walk"].map(thing => [thing, data.show.includes(thing)]));
export const hidden = new Set();           // names of layers
export const filteredOut = new Set();      // severities
export const held = new Set(data.holds);   // facts, by number
export const now = {
  /** @type {number | null} */
  storey: data.storey,   // the one that is looked at; null: all of them
  /** @type {number | null} */
  mover: null,           // whose reach is told, by number; null: each map's own
  artStrength: 1,        // how strongly art is drawn
  /** @type {[number, number] | null} */
  cursor: null,          // the cell that was chosen
  /** @type {{ from: [number, number] | null, to: [number, number] | null, done?: boolean } | null} */
  ruler: null,           // px
};

// Called when another map is looked at; when a place is chosen, with its px.
export const followers = {
  map: () => {},
  /** @type {(x: number, y: number) => void} */
  place: () => {},
};
