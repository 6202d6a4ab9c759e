// The search of all words (scripts/docs_words.py): sections that contain every word, those first that have them in
// their heading, or together. The address keeps the words.

const box = document.getElementById("words"), found = document.getElementById("words_found");
const most = 50, around = 110;   // sections shown; characters of text before and after the first word

const texts = sections.map(([, , title, heading, text]) => `${title} ${heading} ${text}`.toLowerCase());

function marked(text, words) {
  const pieces = [], pattern = new RegExp(words.map(word => word.replace(/[.*+?^${}()|[\]\\]/g, "\\$&")).join("|"), "gi");
  let at = 0;
  for (const match of text.matchAll(pattern)) {
    const mark = document.createElement("mark");
    mark.textContent = match[0];
    pieces.push(text.slice(at, match.index), mark);
    at = match.index + match[0].length;
  }
  return [...pieces, text.slice(at)];
}
function extract(text, words) {
  const first = Math.max(0, Math.min(...words.map(word => text.toLowerCase().indexOf(word)).filter(at => at >= 0)));
  const middle = Number.isFinite(first) ? first : 0;
  const from = middle <= around ? 0 : text.indexOf(" ", middle - around) + 1;   // between words
  const end = text.lastIndexOf(" ", from + 2 * around), to = from + 2 * around >= text.length ? text.length : end;
  return (from > 0 ? "… " : "") + text.slice(from, to) + (to < text.length ? " …" : "");
}
function row([page, anchor, title, heading, text], words) {
  const item = document.createElement("li"), link = document.createElement("a"), says = document.createElement("p");
  link.href = anchor ? `${page}#${anchor}` : page;
  link.append(...marked(heading === title ? title : `${heading} (${title})`, words));
  says.append(...marked(extract(text, words), words));
  item.append(link, says);
  return item;
}
function search() {
  const words = box.value.toLowerCase().split(/\s+/).filter(Boolean);
  const hits = words.length === 0 ? [] : sections.filter((_, i) => words.every(word => texts[i].includes(word)));
  const phrase = words.join(" ");
  const rank = ([, , , heading, text]) => 2 * words.filter(word => heading.toLowerCase().includes(word)).length +
    (text.toLowerCase().includes(phrase) ? 1 : 0);
  hits.sort((a, b) => rank(b) - rank(a));
  found.replaceChildren(...hits.slice(0, most).map(section => row(section, words)));
  document.getElementById("words_count").textContent = words.length === 0 ? "" : hits.length === 0 ? "nothing found"
    : hits.length > most ? `${hits.length} sections, the first ${most}` : `${hits.length} section${hits.length === 1 ? "" : "s"}`;
  history.replaceState(null, "", words.length === 0 ? location.pathname : `#${encodeURIComponent(box.value)}`);
}
box.oninput = search;
box.value = decodeURIComponent(location.hash.slice(1));
search();
