// npm run measure-drag [-- --quick]: drags every kind of thing on every demo set in the browser, and a light under every overlay; prints
// how soon the picture follows. Quick: a light of the first set alone. Needs the pages built.
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { ensureBrowser, root, run } from './prepare.mjs';

const quick = process.argv.includes('--quick');
const port = '4294';
const address = `http://127.0.0.1:${port}`;
const data = mkdtempSync(join(tmpdir(), 'fendrix-drag-'));
void run(process.execPath, ['--import', 'tsx', 'apps/server/src/main.ts'], {
  FENDRIX_PORT: port,
  FENDRIX_DATA: data,
  FENDRIX_DEMO: '1',
  FENDRIX_WEB: join(root, 'apps/web/dist'),
});
for (let tries = 0; tries < 60; tries++) {
  if ((await fetch(`${address}/api/health`).catch(() => null))?.ok) break;
  await new Promise((resolve) => setTimeout(resolve, 250));
}

const browser = await chromium.launch({
  executablePath: ensureBrowser(),
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });

/** Opens a set and waits for its first picture. */
async function open(id) {
  await page.goto(`${address}/sets/${id}`);
  await page.waitForSelector('[data-testid="picture-status"]:not([data-shown="0"])');
  await page.evaluate(() => {
    window.longTasks = [];
    new PerformanceObserver((list) => {
      for (const { startTime, duration } of list.getEntries()) window.longTasks.push({ startTime, duration });
    }).observe({ type: 'longtask' });
    window.shownAt = [];
    window.widths = [];
    const status = document.querySelector('[data-testid="picture-status"]');
    // A picture that follows is on the canvas when the one after it is begun.
    new MutationObserver(() => {
      window.shownAt.push(performance.now());
      window.widths.push(document.querySelector('canvas').width);
    }).observe(status, { attributeFilter: ['data-traced'] });
  });
  await page.waitForTimeout(1000);
}

/** Drags a thing of the plan for two seconds. */
async function drag(thing) {
  const box = await page.locator(`[data-thing="${thing}"]`).first().boundingBox();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  const start = await page.evaluate(() => performance.now());
  for (let i = 1; i <= 120; i++) {
    await page.mouse.move(
      box.x + box.width / 2 - 30 * Math.sin(i / 12),
      box.y + box.height / 2 + 20 * Math.sin(i / 19),
    );
    await page.waitForTimeout(16);
  }
  await page.mouse.up();
  const { shownAt, longTasks, widths } = await page.evaluate(() => ({
    shownAt: window.shownAt,
    longTasks: window.longTasks,
    widths: window.widths,
  }));
  await page.keyboard.press('ControlOrMeta+z');
  const gaps = shownAt
    .filter((time) => time > start)
    .map((time, i, all) => time - (i === 0 ? start : all[i - 1]));
  // The first picture of a drag is as wide as the refined one before it.
  const dragged = widths.slice(-gaps.length + 1);
  return {
    pictures: gaps.length,
    medianMs: at(gaps, 0.5),
    p95Ms: at(gaps, 0.95),
    widthPx: at(dragged, 0.5),
    longTasksMs: longTasks
      .filter(({ startTime }) => startTime > start)
      .map(({ duration }) => Math.round(duration))
      .join(' '),
  };
}

/** The value that a share of the others is not over. */
function at(values, share) {
  const sorted = values.toSorted((a, b) => a - b);
  return Math.round(sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? Number.NaN);
}

const { sets } = await (await fetch(`${address}/api/sets?limit=100`)).json();
const print = (...words) => console.log(words.map((word) => String(word).padEnd(14)).join(' '));
print('thing', 'overlay', 'pictures', 'median ms', '95 % ms', 'width px', 'long tasks ms, set');
/** Fewer pictures than this, and something else was taken hold of. */
const FEWEST = 10;
const tell = (set, thing, overlay, { pictures, medianMs, p95Ms, widthPx, longTasksMs }) =>
  pictures < FEWEST
    ? print(thing, overlay, `not dragged: another thing lies over it; ${set}`)
    : print(thing, overlay, pictures, medianMs, p95Ms, widthPx, `${longTasksMs || 'none'}; ${set}`);
for (const { id, name } of quick ? sets.slice(-1) : sets) {
  await open(id);
  const things = await page
    .locator('[data-thing]')
    .evaluateAll((all) => all.map((one) => one.getAttribute('data-thing')));
  const ofKind = (kind) => things.find((thing) => thing.startsWith(`${kind}:`));
  const kinds = quick ? ['light'] : ['light', 'sheet', 'product', 'camera'];
  for (const thing of kinds.map(ofKind).filter(Boolean)) tell(name, thing, 'none', await drag(thing));
}
if (!quick) {
  const [{ id, name }] = sets.slice(-1);
  for (const [overlay, key] of [
    ['mirrors', 'm'],
    ['through', 't'],
    ['stops', 's'],
    ['clipping', 'x'],
    ['focus', 'f'],
    ['glare', 'z'],
    ['crops', 'c'],
  ]) {
    await open(id);
    await page.keyboard.press(key);
    tell(name, 'light:A', overlay, await drag('light:A'));
  }
}
await browser.close();
process.kill(process.pid, 'SIGTERM');
