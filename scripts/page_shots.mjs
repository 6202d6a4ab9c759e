// Pictures of pages in a browser, for scripts/screenshots: `node page_shots.mjs PAGES OUT`.

import { createRequire } from "node:module";
import { join, resolve } from "node:path";
import { fileURLToPath } from "node:url";

const root = fileURLToPath(new URL("..", import.meta.url));
const { chromium } = createRequire(join(root, "tests", "npm", "page.mjs"))("playwright-core");
const [pages, out] = process.argv.slice(2);
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox"] });

async function shot(name, file, act) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto("file://" + resolve(pages, file));
  const drawn = () => page.waitForFunction(() => document.documentElement.dataset.drawn === "whole");
  await drawn();
  await act(page);
  await page.waitForTimeout(400);
  await drawn();
  await page.screenshot({ path: join(out, name) });
  await page.close();
}

await shot("page-broken.png", "broken.html", async page => {
  await page.locator("#findings button", { hasText: "spawn-blocked" }).click();
  await page.keyboard.press("0");
});
await shot("page.png", "station.html", async page => {
  await page.selectOption("#maps", "pump_house");
  await page.fill("#search", "valve");
  await page.mouse.click(440, 450);
  await page.mouse.move(441, 451);
});
await browser.close();
