import { readFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import { unzipSync } from 'fflate';
import { openCopy, pointAt, saved, seriousFindings } from './bench.js';
import { test } from './servers.js';

test('a plate is lit, masked by pointing and painting, put together, saved as files, and undone', {
  tag: '@more',
}, async ({ page }) => {
  await openCopy(page, 'Perry');
  await page.getByRole('tab', { name: 'Plates' }).click();
  const lens = page.getByTestId('lens');
  await expect(lens.getByText(/^Put together with 1 plate/)).toBeVisible();
  await page.getByLabel('What the new plate gives').selectOption('other');
  await page.getByRole('button', { name: 'Add a plate' }).click();
  await expect(page.getByText(/the same as the frame of the set/)).toBeVisible();
  await page.getByLabel('A on for this plate').click();
  await expect(page.getByText(/the same as the frame of the set/)).toBeHidden();
  expect(await seriousFindings(page)).toEqual([]);

  const mask = page.getByRole('region', { name: 'What of it goes into the picture' });
  await mask.getByRole('button', { name: 'a label, liquid, cap' }).click();
  // The drink stands in the middle of the frame.
  await pointAt(page, 0.5, 0.4);
  await expect(mask.getByText(/^liquid of Perry/)).toBeVisible();
  await mask.getByRole('button', { name: 'paint' }).click();
  await lens.focus();
  await page.keyboard.press('Enter');
  await expect(mask.getByText(/painted, 1 dab/)).toBeVisible();
  await page.keyboard.press('Escape');
  await mask.getByRole('button', { name: 'Show the mask' }).click();
  await expect(page.getByRole('img', { name: /^What the plate takes/ })).toBeVisible();
  await saved(page);
  await page.reload();
  await page.getByRole('tab', { name: 'Plates' }).click();
  await page.getByRole('button', { name: /^Something else/ }).click();
  await expect(mask.getByText(/painted, 1 dab/)).toBeVisible();

  await expect(lens.getByText('Put together with 2 plates: L shows the set’s own frame')).toBeVisible({
    timeout: 150_000,
  });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save plates and masks' }).click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/plates\.zip$/);
  const files = unzipSync(readFileSync(await download.path()));
  expect(Object.keys(files).sort()).toEqual([
    '0 set as it stands.png',
    '1 Rims, mask.png',
    '1 Rims.png',
    '2 Something else, mask.png',
    '2 Something else.png',
    'list.txt',
    'put together.png',
  ]);
  await page.keyboard.press('Escape');
  await page.keyboard.press('l');
  await expect(lens.getByText(/^Put together/)).toBeHidden();
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(page.getByRole('list', { name: /^Plates/ }).getByRole('listitem')).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('list', { name: /^Plates/ }).getByRole('listitem')).toHaveCount(2);
});
