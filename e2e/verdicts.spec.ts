import { expect, type Page } from '@playwright/test';
import { openCopy, pointAt, seriousFindings, thing } from './bench.js';
import { test } from './servers.js';

const verdict = (page: Page, code: string) => page.locator(`[data-verdict="${code}"]`);
const verdictCount = (page: Page) => page.getByTestId('verdict-count');

/** Takes the first cure of a verdict, and sees it mended. */
async function mend(page: Page, code: string): Promise<void> {
  const own = verdict(page, code);
  const head = own.locator('[aria-expanded]');
  await head.click();
  await own.getByTestId('cures').getByRole('button').first().click();
  await expect(own).toHaveCount(0);
}

/** Wishes something else in two presses. */
async function wish(page: Page, label: string, choice: string): Promise<void> {
  const button = page.getByTestId('wishes').getByRole('button', { name: new RegExp(`^${label}:`) });
  if ((await button.count()) === 0)
    await page.getByTestId('wishes').getByRole('button', { name: 'more' }).click();
  await button.click();
  await page.getByRole('menuitem', { name: choice, exact: true }).click();
}

test('verdicts are followed to a sound picture, and all of it is undone', async ({ page }) => {
  await openCopy(page, 'Damson cordial, one soft light');
  await expect(verdictCount(page)).toHaveText('1 verdict');
  // Two more faults: a shutter that the flash does not keep up with, and another wish.
  await page.getByLabel('Shutter').first().selectOption({ label: '1/500' });
  await expect(verdict(page, 'over-sync')).toBeVisible();
  await wish(page, 'Background', 'white');
  await expect(verdict(page, 'ground-not-white')).toBeVisible();
  await expect(verdictCount(page)).toHaveText('3 verdicts');
  expect(await seriousFindings(page)).toEqual([]);

  await mend(page, 'over-sync');
  await wish(page, 'Background', 'as it comes');
  await mend(page, 'burnt');
  await expect(verdictCount(page)).toHaveText('nothing wrong');
  await expect(page.getByTestId('verdicts-none')).toBeVisible();

  const undo = page.getByRole('button', { name: 'Undo' });
  while (await undo.isEnabled()) await undo.click();
  await expect(verdictCount(page)).toHaveText('1 verdict');
  await expect(verdict(page, 'burnt')).toBeVisible();
});

test('by keyboard: V goes to the list, Enter looks at one, its place lights up, and it can be wanted so', async ({
  page,
}) => {
  await openCopy(page, 'Damson cordial, one soft light');
  await expect(verdictCount(page)).toHaveText('1 verdict');
  await page.keyboard.press('v');
  const head = verdict(page, 'burnt').locator('[aria-expanded]');
  await expect(head).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('verdict-places')).toBeAttached();
  await expect(verdict(page, 'burnt').getByTestId('cures')).toBeVisible();
  await verdict(page, 'burnt').getByRole('button', { name: 'I want this' }).click();
  await expect(verdictCount(page)).toHaveText('nothing wrong');
  await page.getByText('Settled, 1').click();
  await page.getByRole('button', { name: 'Open again' }).click();
  await expect(verdictCount(page)).toHaveText('1 verdict');
});

test('a flag keeps a light off the label: pointed out, worked out, shown, put there, undone', {
  tag: '@more',
}, async ({ page }) => {
  await openCopy(page, 'Damson cordial, one soft light');
  await page.getByRole('button', { name: 'Place a card or flag (B)' }).click();
  const panel = page.getByRole('region', { name: 'Card or flag' });
  await pointAt(page, 0.5, 0.6);
  await expect(panel.getByText(/^On Damson cordial bottle/)).toBeVisible();
  await panel.getByRole('button', { name: 'Work it out' }).click();
  const cards = panel.getByTestId('cards');
  await expect(cards).toBeVisible();
  await expect(cards).toContainText('to be cut to');
  expect(await seriousFindings(page)).toEqual([]);
  await cards
    .getByRole('button', { name: /^Show:/ })
    .first()
    .click();
  await expect(page.getByTestId('compare')).toHaveAttribute('data-ready', 'yes');
  await expect(page.getByTestId('proposed-above').locator('path').first()).toBeAttached();
  await cards.getByRole('button', { name: 'Put it there' }).first().click();
  await expect(panel).toBeHidden();
  await expect(thing(page, 'sheet:3')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(thing(page, 'sheet:3')).toHaveCount(0);
});

test('a picture is held against the first of its series: figures are read, told, and forgotten', {
  tag: '@more',
}, async ({ page }) => {
  await openCopy(page, 'Damson cordial, one soft light');
  await page.getByRole('button', { name: 'more', exact: true }).click();
  const like = page.getByTestId('like-picture');
  await like.getByRole('combobox').fill('between two frosts');
  await page.getByRole('option', { name: 'Damson cordial between two frosts' }).first().click();
  await expect(like).toContainText('Like “Damson cordial between two frosts”');
  const list = page.getByTestId('verdicts');
  await expect(list).toContainText('The tones are not those of the picture it is to be like');
  await page.getByRole('button', { name: 'not any more' }).click();
  await expect(list).not.toContainText('it is to be like');
  await expect(like.getByRole('combobox')).toBeVisible();
});

test('by keyboard alone: B, then the picture with arrows and Enter, Escape leaves', async ({ page }) => {
  await openCopy(page, 'Damson cordial, one soft light');
  await page.keyboard.press('b');
  const panel = page.getByRole('region', { name: 'Card or flag' });
  await expect(panel).toBeVisible();
  await page.getByTestId('lens').focus();
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Enter');
  await expect(panel.getByText(/^On Damson cordial bottle/)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(panel).toBeHidden();
});

test('a limit of the studio counts on every set; the pictures of a job tell what is open', {
  tag: '@more',
}, async ({ page }) => {
  test.slow();
  await openCopy(page, 'Damson cordial, one soft light');
  await expect(verdictCount(page)).toHaveText('1 verdict');
  const read = await page.request.get('/api/kit');
  const { revision, document } = (await read.json()) as { revision: number; document: object };
  const put = (verdicts: object, at: number) =>
    page.request.put('/api/kit', { data: { revision: at, document: { ...document, verdicts } } });
  const saved = await put({ burnt: { limit: 0.9 } }, revision);
  expect(saved.ok()).toBe(true);
  const { revision: next } = (await saved.json()) as { revision: number };
  try {
    await page.goto('/kit-tables');
    const row = page
      .getByRole('grid', { name: 'When verdicts are told' })
      .getByRole('row', { name: /Burnt out/ });
    await expect(row).toContainText('90');
    await page.goBack();
    await expect(verdictCount(page)).toHaveText('nothing wrong');
    await page.goto('/jobs');
    await page
      .getByRole('link', { name: /Oddvane Larder/ })
      .first()
      .click();
    await page.getByRole('link', { name: /Pictures/ }).click();
    const table = page.getByTestId('picture-verdicts');
    // Every picture is traced and judged, one after the other: longer than a page may take to answer.
    await expect(table.getByRole('row', { name: /Jelly mould in the tent/ })).toContainText('is not sharp', {
      timeout: 80_000,
    });
    await expect(page.getByTestId('retouching-minutes')).toHaveText('0');
    expect(await seriousFindings(page)).toEqual([]);
  } finally {
    await put({}, next);
  }
});

test('on a phone the verdicts stand under the picture', { tag: '@more' }, async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await openCopy(page, 'Damson cordial, one soft light');
  await expect(verdictCount(page)).toHaveText('1 verdict');
  const top = async (name: string) =>
    (await page.getByRole('region', { name }).boundingBox())?.y ?? Number.NaN;
  expect(await top('Verdicts')).toBeGreaterThan(await top('Lens view'));
  expect(await top('Verdicts')).toBeLessThan(await top('From above'));
});
