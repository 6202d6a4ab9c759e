// The panel's list of findings.

import { data } from "./data.js";
import { choice, element, item, say, words } from "./dom.js";
import { changed } from "./draw.js";
import { goTo, jump } from "./move.js";
import { isTold } from "./places.js";
import { filteredOut, view } from "./state.js";

const mostTold = 200;   // findings in the list; the search finds the others
const severities = ["error", "warning", "note"];
const findingsOf = map => map.findings.filter(isTold);

// How many of each severity, as switches; then those of this map, then those about no map, then where others are.
export function tellFindings() {
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
