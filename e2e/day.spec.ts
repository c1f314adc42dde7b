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

test('a set is built step by step at the table by keys alone, also after a reload', { tag: '@more' }, async ({
  page,
}) => {
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

test('a whole day with the stand-ins: late start, dead battery, wrong power, moved card, all pictures kept', {
  tag: '@more',
}, async ({ page }) => {
  test.setTimeout(540_000);
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
  await saved(page);
  await page.getByRole('link', { name: 'Frames' }).click();
  await page.getByRole('button', { name: 'Let frames come to this job' }).click();
  await expect(page.getByRole('button', { name: /Frames come here/ })).toBeVisible();

  const camera = (state: object) =>
    page.request.put('/api/devices/camera', { data: { on: true, seed: 4, ...state } });
  const step = page.getByTestId('set-side-step');
  const frame = page.getByRole('region', { name: 'This frame' });
  const count = (frames: number) =>
    expect(page.getByRole('heading', { name: `Frames (${frames})` })).toBeVisible();
  let taken = 0;
  const take = async (picture: string, plate?: string) => {
    // The day has the same choice: it may still be on the page.
    await count(taken);
    await page.getByLabel('Picture', { exact: true }).selectOption({ label: picture });
    if (plate) await page.getByLabel('Frame of').selectOption({ label: `plate “${plate}”` });
    await page.getByRole('button', { name: 'Take it' }).click();
    await count(++taken);
    await page.getByRole('region', { name: picture }).getByRole('button', { name: /JPG/ }).first().click();
  };
  const thought = { kept: 0, 'not kept': 0 };
  const keep = async (key: 'k' | 'r') => {
    const mark = key === 'k' ? 'kept' : 'not kept';
    await page.keyboard.press(key);
    await expect(page.getByRole('button', { name: new RegExp(`JPG, ${mark}$`) })).toHaveCount(
      ++thought[mark],
    );
  };

  await camera({});
  const pictures: string[] = [];
  for (let at = 0; at < 4; at++) {
    await page.getByRole('link', { name: 'Day' }).click();
    await page.getByRole('link', { name: /Set side/ }).click();
    await expect(step).toHaveText(/^step \d+ of/);
    const picture = (await page.getByRole('main').locator('strong').first().textContent()) ?? '';
    pictures.push(picture);
    const steps = Number(/of (\d+)/.exec((await step.textContent()) ?? '')?.[1]);
    for (let i = 0; i < steps; i++) await page.keyboard.press('PageDown');
    await expect(page.getByRole('heading', { name: /^Take it$|^All frames are taken$/ })).toBeVisible();
    await page.getByRole('link', { name: 'Back to the day' }).click();
    await saved(page);
    await page.getByRole('link', { name: 'Frames' }).click();
    if (at === 0) {
      await camera({ batteryPart: 0, powerStops: { A: -0.9 } });
      await page.reload();
      await page.getByLabel('Picture', { exact: true }).selectOption({ label: picture });
      await page.getByRole('button', { name: 'Take it' }).click();
      await expect(page.getByText(/battery of the camera is empty/)).toBeVisible();
      await page.getByRole('button', { name: /New battery/ }).click();
      await expect(page.getByText(/Battery 100 %/)).toBeVisible();
      await take(picture);
      await expect(frame).toContainText('By its time.');
      await frame.getByRole('button', { name: 'Hold it against the plan' }).click();
      await expect(
        frame.getByText(/Light A gives (0\.[6-9]|1\.[0-2]) stops less than planned/),
      ).toBeVisible();
      await expect(frame.getByRole('region', { name: 'Verdicts on the frame' })).toContainText(
        'Tones are those of the frame',
      );
      expect(await seriousFindings(page)).toEqual([]);
      await keep('r');
      await camera({});
    }
    if (picture === 'Nutmeg mill') {
      await camera({ sheetByM: { 1: [0.05, 0, 0] } });
      await take(picture);
      await frame.getByRole('button', { name: 'Hold it against the plan' }).click();
      // The picture of its products with each of its things moved: the longest answer of the day.
      await expect(frame.getByText(/^1 .* stands elsewhere: as if it stood /)).toBeVisible({
        timeout: 200_000,
      });
      await frame.getByRole('button', { name: 'difference in stops' }).click();
      await expect(frame.getByText(/^From plan to frame: /)).toBeVisible();
      await keep('r');
      await camera({});
    }
    await take(picture);
    await keep('k');
    if (picture === 'Damson cordial, hero') {
      for (const plate of ['Label', 'Liquid']) {
        await take(picture, plate);
        await frame.getByLabel('It is').selectOption({ label: `plate “${plate}”` });
        await keep('k');
      }
    }
    await page.getByRole('link', { name: 'Day' }).click();
    await page.getByRole('link', { name: /Set side/ }).click();
    await page.getByRole('button', { name: 'Taken' }).click();
    await page.getByRole('link', { name: 'Back to the day' }).click();
    await saved(page);
  }
  expect(new Set(pictures).size).toBe(4);
  await page.getByRole('link', { name: 'Frames' }).click();
  await expect(page.getByRole('button', { name: /JPG, kept$/ })).toHaveCount(6);
  await page.keyboard.press('k');
  await page.keyboard.press('u');
  await expect(page.getByRole('button', { name: /JPG, kept$/ })).toHaveCount(6);
  await page.getByRole('link', { name: 'Day' }).click();
  const table = page.getByRole('region', { name: /^Taken / });
  for (const picture of pictures) await expect(table.getByRole('rowheader', { name: picture })).toBeVisible();
});
