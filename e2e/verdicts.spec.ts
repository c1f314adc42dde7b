import { expect, type Page, test } from '@playwright/test';
import { openCopy, seriousFindings } from './bench.js';

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
