// npm run screenshots: one picture of each main view, made from the demo data, into docs/screenshots.
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { checkNode, ensureBrowser, ensureMade, ensurePackages, root, run } from './prepare.mjs';

checkNode();
ensurePackages();
ensureMade();
const port = '4293';
const address = `http://127.0.0.1:${port}`;
const folder = process.argv[2] ?? join(root, 'docs', 'screenshots');
const data = mkdtempSync(join(tmpdir(), 'fendrix-shots-'));
void run(process.execPath, ['scripts/serve.mjs', '--demo'], { FENDRIX_PORT: port, FENDRIX_DATA: data });
await untilAnswering(`${address}/api/health`);

const browser = await chromium.launch({
  executablePath: ensureBrowser(),
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, colorScheme: 'light' });
await page.goto(address);
await page.locator('[data-thing="light:A"]').first().focus();
await settled(45_000);
await page.screenshot({ path: join(folder, 'bench.png') });
await page.keyboard.press('v');
await page.locator('[data-verdict] [aria-expanded]').first().click();
await page.getByTestId('cures').waitFor();
await page.screenshot({ path: join(folder, 'bench-verdicts.png') });
await page.keyboard.press('Escape');
await page.keyboard.press('b');
const lens = await page.getByTestId('lens').boundingBox();
if (!lens) throw new Error('the lens view is drawn');
await page.mouse.click(lens.x + 0.5 * lens.width, lens.y + 0.6 * lens.height);
await page.getByRole('button', { name: 'Work it out' }).click();
await page
  .getByTestId('cards')
  .getByRole('button', { name: /^Show: / })
  .first()
  .click();
await page.locator('[data-testid="compare"][data-ready="yes"]').waitFor();
await page.waitForTimeout(6000);
await page.screenshot({ path: join(folder, 'bench-card.png') });
await page.goto(`${address}/sets`);
await page.getByRole('link', { name: /perry/i }).first().click();
await page.getByRole('tab', { name: 'Plates' }).click();
await page.getByRole('button', { name: /^Rims/ }).click();
await settled(60_000);
await page.screenshot({ path: join(folder, 'bench-plates.png') });
await page.goto(`${address}/sets`);
await page
  .getByRole('link', { name: /vinegar/i })
  .first()
  .click();
await page.getByTestId('picture-status').waitFor();
await settled(60_000);
await page.screenshot({ path: join(folder, 'bench-takes.png') });
await page.getByRole('tab', { name: 'Walk round' }).click();
await page.waitForTimeout(4000);
await page.screenshot({ path: join(folder, 'bench-walk.png') });
await page.getByRole('tab', { name: 'Exposure' }).click();
await page.getByRole('button', { name: 'Solve the powers' }).click();
await page.waitForTimeout(500);
await page.screenshot({ path: join(folder, 'bench-exposure.png') });
await page.goto(`${address}/kit`);
await page.getByText('Strip 30 x 120 with grid').click();
await page.screenshot({ path: join(folder, 'kit.png') });
// An hour with the stand-ins, with lamps and a camera that are off their figures.
await page.request.put(`${address}/api/devices/camera`, { data: { on: true, piecesSeed: 7 } });
await page.getByRole('link', { name: 'Calibrate by a card' }).click();
await page.getByLabel('Softbox 60 x 90', { exact: true }).click();
const hour = page.getByRole('heading', { name: /^The hour/ });
const [, steps] = /of (\d+)/.exec(await hour.textContent()) ?? [];
for (let done = 1; done <= Number(steps); done++) {
  await page.getByRole('button', { name: /^Stand-in (camera|meter)$/ }).click();
  await page.getByText(`${done} of ${steps} read`).waitFor();
}
await page.getByTestId('what the readings say').waitFor();
await page.waitForTimeout(9000);
await page.getByRole('button', { name: 'Take over what is ticked' }).scrollIntoViewIfNeeded();
await page.evaluate(() => window.scrollTo(0, 440));
await page.waitForTimeout(1000);
await page.screenshot({ path: join(folder, 'calibration.png') });
await page.goto(`${address}/room`);
await page.getByRole('group', { name: 'The room from above' }).waitFor();
// The swatches of its surfaces.
await page.waitForTimeout(15_000);
await page.screenshot({ path: join(folder, 'room.png') });
const jobs = await (await fetch(`${address}/api/jobs`)).json();
const job = `${address}/jobs/${jobs.jobs[0].id}`;
for (const [part, file] of [
  ['brief', 'brief.png'],
  ['pictures', 'pictures.png'],
  ['pictures/mill', 'camera.png'],
  ['day', 'day.png'],
]) {
  await page.goto(`${job}/${part}`);
  await page.getByRole('heading', { level: 1 }).waitFor();
  await page.waitForTimeout(file === 'pictures.png' || file === 'camera.png' ? 25_000 : 2000);
  await page.screenshot({ path: join(folder, file) });
}
// Set side, at the first light.
await page.goto(`${job}/set-side`);
await page.getByRole('heading', { level: 1 }).waitFor();
while (!(await page.getByRole('heading', { level: 1 }).textContent()).startsWith('A:'))
  await page.keyboard.press('PageDown');
await page.screenshot({ path: join(folder, 'set-side.png') });
// A frame of the stand-in camera, held against its plan.
await page.request.put(`${address}/api/devices/camera`, {
  data: { on: true, seed: 3, powerStops: { A: -0.7 } },
});
await page.goto(`${job}/frames`);
await page.getByRole('button', { name: 'Let frames come to this job' }).click();
await page.getByRole('button', { name: 'Take it' }).click();
await page.getByRole('region', { name: 'This frame' }).waitFor({ timeout: 90_000 });
await page.getByLabel('Of the picture').selectOption({ label: 'Damson cordial, hero' });
await page.getByRole('button', { name: 'Hold it against the plan' }).click({ timeout: 90_000 });
await page.getByRole('slider', { name: 'Frame wiped over its plan' }).waitFor({ timeout: 90_000 });
await page.getByText(/ stands elsewhere( by so much|: )|differs from its plan/).waitFor({ timeout: 240_000 });
await page.getByText('Stand-in devices').click();
await page
  .getByRole('region', { name: 'What stands elsewhere' })
  .evaluate((part) => part.scrollIntoView({ block: 'center' }));
await page.waitForTimeout(2000);
await page.screenshot({ path: join(folder, 'frames.png') });
await page.keyboard.press('k');
await page.waitForTimeout(1000);
// The same again as planned: the two held together.
await page.request.put(`${address}/api/devices/camera`, { data: { on: true, seed: 8 } });
await page.goto(`${job}/frames`);
await page.getByRole('button', { name: 'Take it' }).click();
await page.getByRole('heading', { name: 'Frames (2)' }).waitFor({ timeout: 90_000 });
await page.getByRole('button', { name: /JPG$/ }).first().click();
await page.getByLabel('Of the picture').selectOption({ label: 'Damson cordial, hero' });
await page.keyboard.press('k');
await page.waitForTimeout(1000);
await page.getByRole('link', { name: 'Hold the series together' }).click();
await page.getByRole('heading', { name: 'Redo these', exact: true }).waitFor({ timeout: 120_000 });
await page.waitForTimeout(1000);
await page.screenshot({ path: join(folder, 'series-match.png') });
await timeFirstPicture();
await page.goto(`${address}/log`);
await page.getByRole('button', { name: 'Minutes and verdicts' }).click();
await page.waitForTimeout(6000);
await page.screenshot({ path: join(folder, 'log.png') });
await page.goto(`${address}/sets`);
await page
  .getByRole('link', { name: /one soft light/i })
  .first()
  .click();
await page.getByRole('button', { name: 'Export' }).click();
await page.getByRole('menuitem', { name: /Set sheet/ }).click();
await page.getByTestId('sheet things').waitFor({ timeout: 180_000 });
await page.waitForFunction(() => [...document.images].every((image) => image.complete), undefined, {
  timeout: 120_000,
});
await page.screenshot({ path: join(folder, 'set-sheet.png') });
await browser.close();
process.kill(process.pid, 'SIGTERM');

/** As if its set had been built in half an hour. */
async function timeFirstPicture() {
  const at = `${address}/api${new URL(job).pathname}`;
  const { revision, document } = await (await page.request.get(at)).json();
  const before = (minutes) => new Date(Date.now() - 60_000 * minutes).toISOString();
  const shots = document.shots.map((shot, i) =>
    i === 0 ? { ...shot, done: true, begunAt: before(34), takenAt: before(-9) } : shot,
  );
  await page.request.put(at, { data: { revision, document: { ...document, shots } } });
}

async function settled(mostMs) {
  const start = Date.now();
  const status = page.getByTestId('picture-status');
  while (Date.now() - start < mostMs && (await status.getAttribute('data-phase')) !== 'done') {
    await page.waitForTimeout(500);
  }
}

async function untilAnswering(url) {
  for (let tries = 0; tries < 120; tries++) {
    const answer = await fetch(url).catch(() => null);
    if (answer?.ok) return;
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
  throw new Error(`${url} gave no answer`);
}
