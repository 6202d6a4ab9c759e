// The panel: findings, search, what is shown, the key.

const words = (...texts) => texts.filter(Boolean).join(" · ");

function item(label, more, act, sign) {
  const row = document.createElement("li"), button = document.createElement("button");
  if (sign) {
    const mark = document.createElement("span");
    mark.className = `sign ${sign.severity}`;
    mark.textContent = sign.number;
    mark.setAttribute("aria-label", `${sign.severity} ${sign.number}`);
    button.append(mark);
  }
  button.append(label);
  if (more) {
    const small = document.createElement("small");
    small.textContent = more;
    button.append(small);
  }
  button.onclick = act;
  row.append(button);
  return row;
}

const mostTold = 200;   // findings in the list; the search finds the others

const severities = ["error", "warning", "note"], filteredOut = new Set();
const findingsOf = map => map.findings.filter(isTold);

// How many of each severity, as switches; then those of this map, then those about no map, then where others are.
function tellFindings() {
  const list = element("findings"), map = view.map, here = findingsOf(map), all = [...here, ...data.general];
  element("severities").replaceChildren(...severities.map(severity => {
    const count = all.filter(finding => finding.severity === severity).length;
    return choice(`${count} ${severity}${count === 1 ? "" : "s"}`, !filteredOut.has(severity), on => {
      on ? filteredOut.delete(severity) : filteredOut.add(severity);
      tellFindings(), changed();
    });
  }));
  const order = element("order").value === "severity" ? [...here].sort((a, b) => severities.indexOf(a.severity) - severities.indexOf(b.severity)) : here;
  const asked = order.filter(finding => !filteredOut.has(finding.severity));
  const rows = asked.slice(0, mostTold).map(finding => item(`${finding.message} [${finding.rule}]`, words(finding.place, finding.hint),
    () => finding.at ? jump(...finding.at) : say(finding.message), { severity: finding.severity, number: map.findings.indexOf(finding) + 1 }));
  if (asked.length > mostTold)
    rows.push(item(`and ${asked.length - mostTold} more: search for a rule, or press N on the map`, "", () => element("search").focus()));
  for (const finding of data.general.filter(one => !filteredOut.has(one.severity)))
    rows.push(item(`${finding.message} [${finding.rule}]`, words(finding.place, finding.hint), () => say(finding.message),
      { severity: finding.severity, number: "–" }));
  for (const other of data.maps)
    if (other !== map && other.findings.length)
      rows.push(item(`${other.findings.length} more on map ${other.name}`, "", () => goTo(other)));
  list.replaceChildren(...rows);
  if (rows.length === 0) {
    const none = document.createElement("li");
    none.className = "none";
    none.textContent = all.length ? "none of these" : "none";
    list.append(none);
  }
}
element("order").onchange = tellFindings;

// ---- search ----

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

function tellFound() {
  const text = element("search").value, rows = find(text);
  element("found").replaceChildren(...rows.slice(0, mostFound).map(row => item(...row)));
  element("found_count").textContent = text.trim() === "" ? "" : rows.length > mostFound ? `${rows.length} found, the first ${mostFound} of them:`
    : rows.length === 0 ? "nothing has that in its name" : `${rows.length} found`;
}

// ---- what is shown ----

function choice(label, checked, act, title = "") {
  const row = document.createElement("label"), box = document.createElement("input");
  row.title = title;
  box.type = "checkbox", box.checked = checked;
  box.onchange = () => act(box.checked);
  row.append(box, label);
  return row;
}

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
  mover = Number(event.target.value), show.reach = true;
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

function tellAll() {
  element("storey").value = storey ?? "";
  document.title = `${view.map.title} – ${data.world}`;
  canvas.setAttribute("aria-label", `${view.map.title}, ${view.map.size[0]} x ${view.map.size[1]} cells`);
  tellFindings();
  tellChoices();
  tellKey();
  tellWay();
}
