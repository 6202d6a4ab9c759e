// The rest of the panel: what is shown, whose reach, which facts, the key, the way.

import { forgetArt } from "./art.js";
import { data } from "./data.js";
import { choice, element, item } from "./dom.js";
import { changed } from "./draw.js";
import { tellFindings } from "./findings.js";
import { dashOf, hatching } from "./ground.js";
import { tellAgain } from "./here.js";
import { remember } from "./keep.js";
import { settled } from "./maps.js";
import { goTo, jump } from "./move.js";
import { roles, signs } from "./objects.js";
import { isLookedAt } from "./places.js";
import { canvas, held, hidden, now, show, view } from "./state.js";
import { walkStyles } from "./walk.js";

// "a", "a and b", "a, b and c".
const listed = texts => texts.length < 2 ? texts.join() : `${texts.slice(0, -1).join(", ")} and ${texts.at(-1)}`;

function tellChoices() {
  element("things").replaceChildren(...Object.keys(show)
    .filter(thing => (thing !== "reach" || view.map.reachPaths.size) && (thing !== "walk" || view.map.walked))
    .map(thing => choice(thing, show[thing], on => {
      show[thing] = on;
      if (thing === "walk") tellKey(), tellWay();
      changed(), remember();
    }, thing === "reach" ? `where the position of ${data.movers[view.map.reachOf]} cannot be` : "")));
  tellMovers(), tellFacts();
  element("layers").replaceChildren(...view.map.layers.map(layer => choice(
    layer.name + (layer.decor ? " (decor)" : layer.shown ? "" : " (helper)") + (layer.storey > 0 ? ` (storey ${data.storeys[layer.storey][0]})` : ""), !hidden.has(layer.name), on => {
      on ? hidden.delete(layer.name) : hidden.add(layer.name);
      settled(view.map), forgetArt();
      tellFindings(), tellAgain(), changed(), remember();
    })));
  const { of_all } = view.map, what = listed(of_all);
  element("layers_note").textContent = what && `${what[0].toUpperCase()}${what.slice(1)} ${of_all.at(-1) === "reach" && of_all.length === 1
    ? "is that" : "are those"} of all layers.`;
}

function tellMovers() {
  const { movers, reachOf } = view.map;
  element("mover_choice").hidden = movers.length < 2;
  element("mover").replaceChildren(...movers.map(number => new Option(data.movers[number], number, false, number === reachOf)));
}
element("mover").onchange = event => {
  now.mover = Number(event.target.value), show.reach = true;
  settled(view.map);
  tellChoices(), changed(), remember();
};

// Those with which something of the map comes or goes.
function tellFacts() {
  const { switches, fixed = [] } = view.map;
  element("facts_choice").hidden = switches.length + fixed.length === 0;
  element("fixed").textContent = fixed.length === 0 ? "" : `As they were when the page was made (--facts): ${fixed.map(fact =>
    `${data.facts[fact][0]} ${data.holds.includes(fact) ? "holds" : "does not hold"}`).join(", ")}.`;
  element("facts").replaceChildren(...switches.map(fact => choice(data.facts[fact][0], held.has(fact), on => {
    on ? held.add(fact) : held.delete(fact);
    settled(view.map), forgetArt();
    tellAgain(), changed(), remember();
  }, data.facts[fact][1])));
}

function tellKey() {
  const rows = view.map.groups.filter(group => isLookedAt(group.on)).map(group => {
    const row = document.createElement("li"), sample = document.createElement("canvas");
    sample.width = 34, sample.height = 16;
    const pen = sample.getContext("2d"), pattern = hatching(group);
    pattern.setTransform(new DOMMatrix());
    pen.fillStyle = pattern, pen.fillRect(1, 1, 32, 14);
    pen.strokeStyle = group.colour, pen.lineWidth = 2, pen.setLineDash(dashOf(group.dash, 1));
    pen.strokeRect(1, 1, 32, 14);
    row.append(sample, `${group.name}${data.storeys.length > 1 ? `, storey ${group.storey}` : ""}${group.way ? `, passed going ${group.way}` : ""}`);
    return row;
  });
  roles.forEach((role, i) => {
    const row = document.createElement("li"), sample = document.createElement("canvas");
    sample.width = 34, sample.height = 18;
    const pen = sample.getContext("2d"), path = new Path2D();
    signs[i](path, 16, i === 0 ? 16 : 9);
    pen.fillStyle = data.inks.roles[i], pen.fill(path);
    row.append(sample, role);
    rows.push(row);
  });
  if (show.walk && view.map.walked) rows.push(...walkKey());
  element("key").replaceChildren(...rows);
}

function walkKey() {
  const line = (label, paint) => {
    const row = document.createElement("li"), sample = document.createElement("canvas");
    sample.width = 34, sample.height = 16;
    paint(sample.getContext("2d"));
    row.append(sample, label);
    return row;
  };
  const stroke = (pen, ink, width, dash) => {
    pen.strokeStyle = ink, pen.lineWidth = width, pen.setLineDash(dash);
    pen.beginPath(), pen.moveTo(1, 8), pen.lineTo(33, 8), pen.stroke();
  };
  const labels = { yes: "where the mover gets to", no: "where it does not", not_decided: "not decided" };
  const rows = Object.entries(walkStyles()).map(([reached, [ink, dash]]) => line(labels[reached], pen => stroke(pen, ink, 3.5, dash)));
  if (view.map.walked.marks.length) rows.push(line("the way to all goals, step by step", pen => stroke(pen, data.inks.note, 2, [])));
  return rows;
}

// Over all maps, since links lead from one to another.
function tellWay() {
  const steps = data.maps.flatMap(map => (map.walk?.marks ?? []).map(([number, x, y, told]) => ({ map, number, x, y, told })))
    .sort((a, b) => a.number - b.number);
  element("way_section").hidden = !show.walk || steps.length === 0;
  element("way").replaceChildren(...steps.map(({ map, number, x, y, told }) => item(told, "", () => (goTo(map), jump(x, y)), { severity: "note", number })));
}

export function tellAll() {
  element("storey").value = now.storey ?? "";
  document.title = `${view.map.title} – ${data.world}`;
  canvas.setAttribute("aria-label", `${view.map.title}, ${view.map.size[0]} x ${view.map.size[1]} cells`);
  tellFindings();
  tellChoices();
  tellKey();
  tellWay();
}

// All storeys, or one of them.
export function lookAt(one) {
  now.storey = one;
  forgetArt();
  tellAll(), changed(), remember();
  canvas.focus();
}
