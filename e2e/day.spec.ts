import { expect, type Page } from '@playwright/test';
import { saved, seriousFindings } from './bench.js';
import { test } from './servers.js';

/** The day of the demo job. */
async function openDay(page: Page): Promise<void> {
  await page.goto('/jobs');
  await page
    .getByRole('link', { name: /Oddvane Larder/ })
    .first()
    .click();
  await page.getByRole('link', { name: 'Day' }).click();
}

test('the day is put in order; an own order says what it costs and is undone', async ({ page }) => {
  await openDay(page);
  const day = page.getByTestId('day');
  await expect(day.getByRole('rowheader')).toHaveCount(4);
  await expect(page.getByText('No other order is over sooner.')).toBeVisible();
  expect(await seriousFindings(page)).toEqual([]);
  const best = await day.getByRole('rowheader').allInnerTexts();
  await day
    .getByRole('button', { name: /: later$/ })
    .first()
    .click();
  await expect(page.getByTestId('day-costs')).toContainText('more than the best');
  await page.getByRole('button', { name: 'Undo' }).click();
  expect(await day.getByRole('rowheader').allInnerTexts()).toEqual(best);
  const [csv] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export CSV' }).click(),
  ]);
  expect(csv.suggestedFilename()).toMatch(/day\.csv$/);
});

test('a set is built step by step at the table by keys alone, also after a reload', async ({ page }) => {
  await openDay(page);
  await expect(page.getByText(/0 of \d+ done, from an empty table/)).toBeVisible();
  await page.getByRole('link', { name: /Set side/ }).click();
  const step = page.getByTestId('set-side-step');
  await expect(step).toHaveText(/^step 1 of/);
  await page.keyboard.press('PageDown');
  await expect(step).toHaveText(/^step 2 of/);
  // From two metres: 40 px and more.
  const figure = page.getByTestId('set-side-numbers').locator('.number').first();
  const px = await figure.evaluate((element) => Number.parseFloat(getComputedStyle(element).fontSize));
  expect(px).toBeGreaterThanOrEqual(40);
  expect(await seriousFindings(page)).toEqual([]);
  // What was ticked is saved on the way back to the day.
  await page.getByRole('link', { name: 'Back to the day' }).click();
  await expect(page.getByText(/1 of \d+ done/)).toBeVisible();
  await saved(page);
  await page.getByRole('link', { name: /Set side/ }).click();
  await page.reload();
  await expect(step).toHaveText(/^step 2 of/);
  await page.keyboard.press('PageUp');
  await expect(step).toHaveText(/^step 1 of/);
  await page.setViewportSize({ width: 390, height: 780 });
  const wide = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(wide).toBeLessThanOrEqual(390);
});

test('a phone is let in by a code, ticks while its link is lost, and is thrown out', async ({
  page,
  browser,
}) => {
  await openDay(page);
  await page.getByRole('button', { name: 'Let a phone in' }).click();
  const words = (await page.getByTestId('pairing-words').textContent()) ?? '';
  await expect(page.getByRole('img', { name: /Code that a phone reads/ })).toBeVisible();
  expect(await seriousFindings(page)).toEqual([]);
  const asked = await page.request.get(`/api/pairing?job=${new URL(page.url()).pathname.split('/')[2]}`);
  const { addresses } = (await asked.json()) as { addresses: string[] };
  const held = await browser.newContext({ viewport: { width: 390, height: 780 }, hasTouch: true });
  const phone = await held.newPage();
  await phone.goto(addresses[0] ?? '');
  await phone.getByLabel('The three words').fill(words);
  expect(await seriousFindings(phone)).toEqual([]);
  await phone.getByRole('button', { name: 'Let me in' }).click();
  const step = phone.getByTestId('set-side-step');
  await expect(step).toHaveText(/^step \d+ of/);
  expect(await seriousFindings(phone)).toEqual([]);
  const before = Number(/\d+/.exec((await step.textContent()) ?? '')?.[0]);
  await held.setOffline(true);
  await phone.getByRole('button', { name: 'Done' }).tap();
  await expect(step).toHaveText(new RegExp(`^step ${before + 1} of`));
  await expect(phone.getByText(/The link is lost.*1 of what you did is kept/)).toBeVisible();
  await held.setOffline(false);
  await expect(phone.getByTestId('link')).toContainText('all is told');
  await expect(page.getByText(new RegExp(`${before} of \\d+ done`))).toBeVisible();
  await page.getByRole('button', { name: 'Throw out Device 1' }).click();
  await expect(phone.getByLabel('The three words')).toBeVisible();
  await page.getByRole('button', { name: 'Switch off' }).click();
  await expect(page.getByRole('button', { name: 'Let a phone in' })).toBeVisible();
  await held.close();
});

test('a day with the stand-in camera: a late start, a dead battery, a wrong power, a frame kept', async ({
  page,
}) => {
  await page.goto('/jobs');
  await page.getByRole('button', { name: 'From the demo' }).click();
  await expect(page.getByRole('heading', { name: 'Brief' })).toBeVisible();
  await page.getByRole('link', { name: 'Day' }).click();
  await expect(page.getByText('No other order is over sooner.')).toBeVisible();
  const now = new Date();
  const today = `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}`;
  await page.getByLabel('On', { exact: true }).fill(today);
  await page.getByRole('button', { name: 'Plan the rest from now' }).click();
  await expect(page.getByTestId('day-late')).toBeHidden();
  // All steps of the first picture are done; which one it is stands above them.
  await page.getByRole('link', { name: /Set side/ }).click();
  const step = page.getByTestId('set-side-step');
  await expect(step).toHaveText(/^step 1 of/);
  const picture = (await page.getByRole('main').locator('strong').first().textContent()) ?? '';
  const steps = Number(/of (\d+)/.exec((await step.textContent()) ?? '')?.[1]);
  for (let i = 0; i < steps; i++) await page.keyboard.press('PageDown');
  await expect(page.getByRole('heading', { name: 'Take it' })).toBeVisible();
  await page.getByRole('link', { name: 'Back to the day' }).click();
  await saved(page);

  await page.getByRole('link', { name: 'Frames' }).click();
  await page.getByRole('button', { name: 'Let frames come to this job' }).click();
  const camera = (state: object) =>
    page.request.put('/api/devices/camera', { data: { on: true, seed: 4, ...state } });
  await camera({ batteryPart: 0, powerStops: { A: -0.9 } });
  await page.reload();
  const take = page.getByRole('button', { name: 'Take it' });
  await page.getByLabel('Picture', { exact: true }).selectOption({ label: picture });
  await take.click();
  await expect(page.getByText(/battery of the camera is empty/)).toBeVisible();
  await page.getByRole('button', { name: /New battery/ }).click();
  await expect(page.getByText(/Battery 100 %/)).toBeVisible();
  await take.click();
  const frame = page.getByRole('region', { name: 'This frame' });
  await expect(frame).toContainText('By its time.');
  await frame.getByRole('button', { name: 'Hold it against the plan' }).click();
  await expect(
    frame.getByText(/Light A gives 0\.[6-9] stops less than planned|Light A gives 1\.[0-2]/),
  ).toBeVisible();
  expect(await seriousFindings(page)).toEqual([]);
  await page.keyboard.press('r');
  await expect(page.getByRole('button', { name: /JPG, not kept$/ })).toBeVisible();
  await camera({ powerStops: {} });
  await take.click();
  await expect(page.getByRole('heading', { name: 'Frames (2)' })).toBeVisible();
  await page.getByRole('button', { name: /JPG$/ }).click();
  await page.keyboard.press('k');
  await expect(page.getByRole('button', { name: /JPG, kept$/ })).toBeVisible();
  await page.keyboard.press('u');
  await expect(page.getByRole('button', { name: /JPG, kept$/ })).toHaveCount(0);
});
