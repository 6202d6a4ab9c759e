// What all parts of pages use of the document.

/** @type {(id: string) => any} */
export const element = id => document.getElementById(id);

export function line(text, className) {
  const p = document.createElement("p");
  p.textContent = text;
  if (className) p.className = className;
  return p;
}

export const words = (...texts) => texts.filter(Boolean).join(" · ");

// A button in a list, with a smaller second line and the sign of a finding or a step, where it has them.
export function item(label, more, act, sign) {
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

// A switch with its label.
export function choice(label, checked, act, title = "") {
  const row = document.createElement("label"), box = document.createElement("input");
  row.title = title;
  box.type = "checkbox", box.checked = checked;
  box.onchange = () => act(box.checked);
  row.append(box, label);
  return row;
}

// A place in a file, that a click puts on the clipboard.
export function placeButton(what, place) {
  const row = document.createElement("p"), button = document.createElement("button");
  button.className = "place", button.textContent = place, button.title = "copy";
  button.setAttribute("aria-label", `copy ${place}`);
  button.onclick = async () => {
    try {
      await navigator.clipboard.writeText(place);
      button.title = "copied";
    } catch {   // not allowed to: it is chosen, to be copied by hand
      getSelection().selectAllChildren(button);
    }
    row.lastChild.textContent = button.title === "copied" ? " copied" : "";
  };
  row.append(`${what} `, button, document.createElement("span"));
  return row;
}

// Says something where a place is told otherwise.
export function say(text) {
  element("here").replaceChildren(line(text));
}
