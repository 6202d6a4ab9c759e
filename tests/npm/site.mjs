// The site of docs (scripts/docs), searched in Chromium: `node site.mjs SITE`.
import { join } from "node:path";
import { chromium } from "playwright-core";

const site = process.argv[2];
let failed = 0;
const check = (holds, what) => {
  if (!holds) console.error(`failed: ${what}`), ++failed;
};
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox"] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.on("pageerror", error => check(false, `the page throws: ${error.message}`));
await page.goto("file://" + join(site, "index.html"));
await page.getByRole("link", { name: "Search all pages" }).first().click();
const found = async words => {
  await page.fill("#words", words);
  return page.locator("#words_found li").evaluateAll(rows => rows.map(row =>
    ({ heading: row.querySelector("a").textContent, link: row.querySelector("a").href, marks: row.querySelectorAll("mark").length })));
};

const rule = await found("spawn-blocked");
check(rule.length > 0 && rule[0].heading.startsWith("spawn-blocked"), "a rule is found by its name, its own section first");
const call = await found("set_fact chunks whose ground");
check(call.some(({ heading }) => heading.includes("set_fact")), "a call is found by words of its comment");
const text = await found("cellular automaton");
check(text.length === 1 && text[0].heading.includes("Performance") && text[0].marks >= 2, "words within a page are found, and marked");
check((await found("nothing_of_this_name")).length === 0, "what is nowhere is not found");
check((await page.locator("#words_count").textContent()) === "nothing found", "and that is said");
check((await found("")).length === 0, "no words find nothing");

for (const { link } of [...rule.slice(0, 2), ...call.slice(0, 2), ...text]) {   // a link leads to its section
  await page.goto(link);
  const anchor = link.split("#")[1];
  check(!anchor || await page.evaluate(id => document.getElementById(id) !== null, decodeURIComponent(anchor)), `${link} leads to its section`);
}
await page.goto("file://" + join(site, "words.html") + "#cellular%20automaton");
check(await page.locator("#words_found li").count() === 1, "the address keeps the words");
await browser.close();
if (failed === 0) console.log("the site can be searched");
process.exit(failed === 0 ? 0 : 1);
