// Each view as Lighthouse sees it on a simulated slow phone, as JSON: the median of three loads.
import { existsSync } from "node:fs";
import { launch } from "chrome-launcher";
import lighthouse from "lighthouse";

const [address] = process.argv.slice(2);
const VIEWS = { today: "/", floor: "/floor", compose: "/compose", ledger: "/ledger", kit: "/kit" };
const CHROMIUM = ["/usr/bin/chromium", "/usr/bin/chromium-headless-shell"];
const LOADS = 3;
const CATEGORIES = ["performance", "accessibility", "best-practices"];
const TIMES = { first_paint_ms: "first-contentful-paint", largest_paint_ms: "largest-contentful-paint" };

const median = (numbers) => numbers.toSorted((a, b) => a - b)[Math.floor(numbers.length / 2)];

const chrome = await launch({
  chromePath: process.env.CHROME_PATH ?? CHROMIUM.find(existsSync),
  chromeFlags: ["--headless", "--no-sandbox", "--disable-gpu", "--no-first-run"],
});
const figures = {};
for (const [name, path] of Object.entries(VIEWS)) {
  const loads = [];
  for (let load = 0; load < LOADS; load++) {
    const { lhr } = await lighthouse(address + path, {
      port: chrome.port,
      onlyCategories: CATEGORIES,
      logLevel: "error",
    });
    loads.push(lhr);
  }
  const over = (read) => median(loads.map(read));
  figures[name] = {
    ...Object.fromEntries(CATEGORIES.map((each) => [each, over((lhr) => lhr.categories[each].score)])),
    ...Object.fromEntries(
      Object.entries(TIMES).map(([key, audit]) => [key, Math.round(over((lhr) => lhr.audits[audit].numericValue))]),
    ),
    blocked_ms: Math.round(over((lhr) => lhr.audits["total-blocking-time"].numericValue)),
    transferred_kb: Math.round(over((lhr) => lhr.audits["total-byte-weight"].numericValue) / 1000),
    failed: loads[0].categories["best-practices"].auditRefs
      .concat(loads[0].categories.accessibility.auditRefs)
      .filter(({ id, weight }) => weight > 0 && (loads[0].audits[id].score ?? 1) < 1)
      .map(({ id }) => id),
  };
}
await chrome.kill();
console.log(JSON.stringify(figures, null, 2));
