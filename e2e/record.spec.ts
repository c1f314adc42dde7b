import { expect, type Page } from '@playwright/test';
import { seriousFindings } from './bench.js';
import { test } from './servers.js';

interface Listed {
  sets: { id: string; name: string }[];
}

/** A copy of a demo set with few things on it, so that its sheet is quickly worked out. */
async function smallCopy(page: Page, name: string): Promise<string> {
  const { sets } = (await (await page.request.get('/api/sets?search=Brass')).json()) as Listed;
  const { document } = await (await page.request.get(`/api/sets/${sets.at(-1)?.id}`)).json();
  const few = {
    ...document,
    ...{ name, sheets: [], highlights: [], spots: document.spots.slice(0, 1) },
    ...{ takes: [], takeId: undefined },
  };
  const made = await page.request.post('/api/sets', { data: { document: few } });
  return ((await made.json()) as { id: string }).id;
}

test('a set has a sheet: from the bench to a page to print and a PDF of either paper', {
  tag: '@more',
}, async ({ page }) => {
  const id = await smallCopy(page, 'Sheet trial');
  await page.goto(`/sets/${id}`);
  await page.getByRole('button', { name: 'Export' }).click();
  await page.getByRole('menuitem', { name: 'Set sheet, to print or as PDF' }).click();
  await expect(page.getByRole('progressbar', { name: 'The set sheet is being worked out' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Sheet trial' })).toBeVisible({ timeout: 90_000 });
  const light = page.getByTestId('sheet things').getByRole('row', { name: /^A: / });
  await expect(light).toContainText(/distance (at least )?[\d.]+ cm/);
  await expect(page.getByRole('img', { name: 'The set from above' })).toBeVisible();
  expect(await seriousFindings(page)).toEqual([]);
  for (const paper of ['A4', 'Letter']) {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: `PDF, ${paper}` }).click(),
    ]);
    expect(file.suggestedFilename()).toBe('Sheet trial, set sheet.pdf');
  }
  await page.getByRole('link', { name: 'Back to the bench' }).click();
  await expect(page).toHaveURL(new RegExp(`/sets/${id}$`));
  await page.getByRole('button', { name: 'Export' }).click();
  await page.getByRole('menuitem', { name: 'Rebuild with another product' }).click();
  await page.getByLabel('New product').selectOption({ label: 'Jar with lid' });
  await expect(page.getByText('The camera stays: same scale, same base line.')).toBeVisible();
  expect(await seriousFindings(page)).toEqual([]);
  await page.getByRole('button', { name: 'Make this set and build it' }).click();
  await page.getByRole('checkbox', { name: 'Jar with lid: done' }).click();
  await page.reload();
  await expect(page.getByRole('heading', { name: /^1 of \d+ done$/ })).toBeVisible();
  await page.getByLabel('There stands').selectOption({ label: '“Sheet trial”' });
  await expect(page.getByRole('rowheader', { name: /^Jar with lid: in the place of / })).toBeVisible();
  expect(await seriousFindings(page)).toEqual([]);
});

test('the studio is backed up, a set that was deleted comes back, and that can be undone', async ({
  page,
}) => {
  const id = await smallCopy(page, 'Backup trial');
  await page.goto('/sets');
  await page.getByRole('link', { name: 'Backups' }).click();
  await page.getByRole('button', { name: 'Make a backup' }).click();
  // The daily one may be there already.
  const made = page.getByTestId('backups').getByRole('row').filter({ hasText: 'by hand' }).first();
  await expect(made).toBeVisible();
  expect(await seriousFindings(page)).toEqual([]);
  await page.request.delete(`/api/sets/${id}`);
  await made.getByRole('button', { name: /^Look into/ }).click();
  const dialog = page.getByRole('dialog', { name: 'What would change' });
  await expect(dialog).toContainText('Backup trial');
  await dialog.getByRole('button', { name: 'Put it back' }).click();
  await expect(page.getByText('The studio is as it was in that backup.')).toBeVisible();
  await page.getByRole('link', { name: 'Sets', exact: true }).click();
  await expect(page.getByText('Backup trial').first()).toBeVisible();
  await page.goBack();
  const before = page
    .getByTestId('backups')
    .getByRole('row')
    .filter({ hasText: 'before one was put back' })
    .first();
  await expect(before).toBeVisible();
  await before.getByRole('button', { name: /^Remove that/ }).click();
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(before).toBeVisible();
});

test('a frame that is kept is found in the log, noted, and opens its set as it was', {
  tag: '@more',
}, async ({ page }) => {
  const parts = page.getByRole('navigation', { name: 'Parts of the job' });
  await page.goto('/jobs');
  await page.getByRole('button', { name: 'From the demo' }).click();
  await expect(page.getByRole('heading', { name: 'Brief' })).toBeVisible();
  await parts.getByRole('link', { name: 'Log' }).click();
  await expect(page.getByText(/Nothing is kept yet/)).toBeVisible();
  await parts.getByRole('link', { name: 'Frames' }).click();
  await page.getByRole('button', { name: 'Let frames come to this job' }).click();
  await expect(page.getByRole('button', { name: /Frames come here/ })).toBeVisible();
  await page.request.put('/api/devices/camera', { data: { on: true, seed: 4 } });
  await page.reload();
  await page.getByLabel('Picture', { exact: true }).selectOption({ label: 'Nutmeg mill' });
  await page.getByRole('button', { name: 'Take it' }).click();
  await page.getByRole('button', { name: /JPG/ }).first().click();
  await page.keyboard.press('k');
  await expect(page.getByRole('button', { name: /JPG, kept$/ })).toHaveCount(1);
  await page.request.put('/api/devices/camera', { data: { on: false } });
  await parts.getByRole('link', { name: 'Log' }).click();
  const entry = page.getByRole('region', { name: 'This kept frame' });
  await expect(entry).toContainText('Brass nutmeg mill');
  await entry.getByRole('textbox', { name: 'Note', exact: true }).fill('Rim a little hot');
  await entry.getByRole('textbox', { name: 'Note', exact: true }).blur();
  await page.getByLabel(/Find by product/).fill('brass rim');
  await expect(page.getByRole('list', { name: 'Kept frames' }).getByRole('button')).toHaveCount(1);
  await page.getByRole('button', { name: 'Minutes and verdicts' }).click();
  await expect(page.getByRole('region', { name: 'What a step takes you' })).toBeVisible();
  expect(await seriousFindings(page)).toEqual([]);
  await entry.getByRole('button', { name: 'Open the set as it was' }).click();
  await expect(page).toHaveURL(/\/sets\/[0-9a-f-]{36}$/);
});
