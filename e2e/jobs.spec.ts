import { readFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
import { numberField, saved, seriousFindings } from './bench.js';
import { test } from './servers.js';

/** An 8 x 8 grey PNG. */
const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAgAAAAICAAAAADhZOFXAAAADklEQVR4nGNogAIGyhgAgIQgAQ2AJGEAAAAASUVORK5CYII=',
  'base64',
);

const part = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Parts of the job' }).getByRole('link', { name });
const section = (page: Page, name: string) => page.getByRole('region', { name, exact: true });

const cell = (page: Page, name: string) => page.getByRole('gridcell', { name, exact: true });

/** A new job with a name of its own, opened at its brief. */
async function newJob(page: Page, name: string): Promise<void> {
  await page.goto('/jobs');
  await page.getByRole('button', { name: 'New job' }).click();
  const field = page.getByLabel('name of the job');
  await field.fill(name);
  await field.press('Enter');
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
}

async function addGoods(page: Page, search: string, entry: string): Promise<void> {
  await page.getByRole('button', { name: 'Add a product' }).click();
  await page.getByLabel(/A form that comes near/).fill(search);
  await page.getByRole('button', { name: entry }).first().click();
}

test('from a brief to a set: a newcomer gets from nothing to a placed camera', async ({ page }) => {
  await newJob(page, `Orchard shelf ${Date.now()}`);
  const questions = page.getByRole('heading', { name: /To ask the client/ });
  const before = Number((await questions.textContent())?.match(/\d+/)?.[0]);

  await page.getByRole('textbox', { name: 'client' }).fill('Oddvane Larder');
  await page.getByRole('textbox', { name: 'client' }).press('Enter');
  await page.getByLabel('due on', { exact: true }).fill('2027-02-12');
  await page.getByLabel('due on', { exact: true }).press('Enter');
  await numberField(page, 'pictures agreed').fill('3');
  await numberField(page, 'pictures agreed').press('Enter');
  await page.getByRole('button', { name: 'Add a format' }).click();
  await page.getByRole('button', { name: 'Add a format' }).click();
  await expect(cell(page, 'Square post')).toBeVisible();
  // A cell is edited where it stands, by keyboard.
  await cell(page, '1080').first().click();
  await page.keyboard.press('Enter');
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('1200');
  await page.keyboard.press('Enter');
  await expect(cell(page, '1200')).toBeVisible();
  // What is not understood, or too much, is told and leaves the cell as it was.
  for (const [typed, told] of [
    ['broad', /margin must be a number/],
    ['90 %', /margin must be at most 40 %/],
  ] as const) {
    await cell(page, '6 %').first().dblclick();
    await page.keyboard.press('ControlOrMeta+a');
    await page.keyboard.type(typed);
    await page.keyboard.press('Enter');
    await expect(page.getByText(told)).toBeVisible();
    await expect(cell(page, '6 %')).toHaveCount(2);
  }
  await page.getByLabel('Reference pictures to keep').setInputFiles({
    name: 'autumn light.png',
    mimeType: 'image/png',
    buffer: PNG,
  });
  await expect(page.getByRole('img', { name: 'autumn light' })).toBeVisible();
  const after = Number((await questions.textContent())?.match(/\d+/)?.[0]);
  expect(after).toBeLessThan(before - 3);
  expect(await seriousFindings(page)).toEqual([]);

  await part(page, 'Products').click();
  await addGoods(page, 'bottle', 'Round bottle with liquid');
  const shoulder = page.getByRole('button', { name: /^Point 4: / });
  await shoulder.focus();
  const was = await shoulder.getAttribute('aria-label');
  await page.keyboard.press('ArrowLeft');
  await expect(shoulder).not.toHaveAttribute('aria-label', was ?? '');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(shoulder).toHaveAttribute('aria-label', was ?? '');
  await page.getByRole('button', { name: 'Propose steps' }).click();
  await page.getByLabel('Done: Put on cotton gloves').check();
  await addGoods(page, 'ring', 'ring');
  await expect(page.getByRole('img', { name: /from the front and from above/ })).toBeVisible();
  expect(await seriousFindings(page)).toEqual([]);

  await part(page, 'Pictures').click();
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Add a picture' }).click();
  await expect(page.getByRole('heading', { name: 'Pictures (3)' })).toBeVisible();
  await cell(page, 'Round bottle with liquid').first().click();
  await expect(page.getByText('Level, suits best')).toBeVisible();
  await expect(page.getByTestId('small-picture').first()).not.toHaveAttribute('data-state', 'working');
  await page.getByRole('button', { name: 'Use this angle: A little from above' }).click();
  await expect(cell(page, '25°')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(cell(page, '25°')).toHaveCount(0);
  expect(await seriousFindings(page)).toEqual([]);

  await page.getByRole('link', { name: 'Lens and position' }).click();
  await expect(section(page, 'Camera position')).toBeVisible();
  const fills = numberField(page, 'product fills');
  await fills.fill('50 %');
  await fills.press('Enter');
  await expect(section(page, 'Camera position').getByText(/50 % up/)).toBeVisible();
  await expect(section(page, 'Position check').locator('[data-check="near-limit"]')).toHaveAttribute(
    'data-met',
    'true',
  );
  await expect(section(page, 'Depth').getByRole('img', { name: /^Worst blur/ })).toBeVisible();
  await section(page, 'Depth').getByRole('button', { name: 'As a table' }).first().click();
  await expect(section(page, 'Depth').getByRole('cell', { name: 'f/11', exact: true })).toBeVisible();
  await section(page, 'Arrangement').getByRole('button', { name: 'Check the picture' }).click();
  await expect(section(page, 'Arrangement').getByText(/middle is 0\.\d mm/)).toBeVisible({ timeout: 60_000 });
  expect(await seriousFindings(page)).toEqual([]);
  await page.getByRole('button', { name: 'Make a set for it' }).click();
  await expect(page.getByTestId('picture-status')).toBeVisible();
  await expect(page.getByLabel('Name of the set')).toHaveValue(/Orchard shelf.*Round bottle/);
  await page.goBack();
  await expect(page.getByRole('link', { name: 'Open its set' })).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(page.getByRole('link', { name: 'Open its set' })).toBeVisible();
});

test('a job goes out as one file and comes back; a bad file is refused in words', async ({ page }) => {
  await page.goto('/jobs');
  await page.getByRole('button', { name: 'From the demo' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Oddvane Larder, autumn shelf');
  await page.getByLabel('name of the job').fill(`Shelf to travel ${Date.now()}`);
  await page.getByLabel('name of the job').press('Enter');
  await saved(page);
  const name = (await page.getByRole('heading', { level: 1 }).textContent()) ?? '';
  await page.goto('/jobs');
  await page.getByLabel('Find by name or client').fill(name);
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: `Export ${name}` }).click();
  const path = await (await download).path();
  const buffer = await readFile(path);
  const file = page.getByLabel('Job archive to read');
  await file.setInputFiles({ name: 'job.zip', mimeType: 'application/zip', buffer: buffer.subarray(0, 900) });
  await expect(page.getByText(/was not read: it is damaged/)).toBeVisible();
  await file.setInputFiles({ name: 'job.zip', mimeType: 'application/zip', buffer });
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(name);
  await part(page, 'Pictures').click();
  await expect(page.getByRole('heading', { name: 'Pictures (4)' })).toBeVisible();

  await page.goto('/jobs');
  await page.getByLabel('Find by name or client').fill(name);
  await expect(page.getByRole('link', { name, exact: true })).toHaveCount(2);
  await page
    .getByRole('button', { name: `Archive ${name}` })
    .first()
    .click();
  await expect(page.getByRole('link', { name, exact: true })).toHaveCount(1);
  await page.getByLabel('Archived', { exact: true }).check();
  await page.getByRole('button', { name: `Delete ${name}` }).click();
  await expect(page.getByText(`“${name}” is deleted.`)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name, exact: true })).toBeVisible();
  expect(await seriousFindings(page)).toEqual([]);
});

test('a series tells order, risers and shares; overhead work is warned about', { tag: '@more' }, async ({
  page,
}) => {
  await page.goto('/jobs');
  await page.getByRole('button', { name: 'From the demo' }).click();
  await part(page, 'Series').click();
  const rows = page.getByRole('table', { name: 'Series' }).getByRole('row');
  await expect(rows).toHaveCount(5);
  await expect(rows.nth(1)).toContainText('Damson cordial');
  await page.getByLabel('in all pictures').selectOption('centre');
  await expect(rows.last()).toContainText(/cm|mm/);
  await page.getByRole('button', { name: 'Damson cordial' }).click();
  await expect(rows).toHaveCount(4);
  expect(await seriousFindings(page)).toEqual([]);

  await part(page, 'Pictures').click();
  await cell(page, 'Tart from above').click();
  await expect(page.getByRole('heading', { name: 'Tart from above' })).toBeVisible();
  await page.getByRole('link', { name: 'Lens and position' }).click();
  const ceiling = page.locator('[data-check="ceiling"]');
  await expect(ceiling).toHaveAttribute('data-met', 'true');
  await numberField(page, 'product fills').fill('40 %');
  await numberField(page, 'product fills').press('Enter');
  await expect(ceiling).toHaveAttribute('data-met', 'false');
  await ceiling.getByRole('button', { name: /^Take / }).click();
  await expect(ceiling).toHaveAttribute('data-met', 'true');
  await expect(page.getByText(/Nobody’s head under the arm/)).toBeVisible();
  await numberField(page, 'camera and lens').fill('9 kg');
  await numberField(page, 'camera and lens').press('Enter');
  await expect(page.getByText(/the stand is made for 5 kg/)).toBeVisible();
});

test('an outline is traced over a photograph with one known length', async ({ page }) => {
  await newJob(page, `Traced ${Date.now()}`);
  await part(page, 'Products').click();
  await addGoods(page, 'bottle', 'Round bottle with liquid');
  await page
    .getByLabel('Photograph to trace over')
    .setInputFiles({ name: 'bottle.png', mimeType: 'image/png', buffer: PNG });
  await page.getByRole('button', { name: 'Upper end of the known length' }).focus();
  await page.keyboard.press('ArrowUp');
  await numberField(page, 'known length').fill('24 cm');
  await numberField(page, 'known length').press('Enter');
  await page.getByRole('button', { name: 'Trace over it' }).click();
  await expect(page.getByRole('group', { name: 'Outline of the product' }).locator('image')).toHaveCount(1);
});

test('room and equipment: the table moves by keyboard, figures are edited in place, CSV is read', async ({
  page,
}) => {
  await page.goto('/room');
  const table = page.getByRole('button', { name: /^Table, / });
  const x = Number(await table.getAttribute('x'));
  await table.focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByText('The table is moved.')).toBeVisible();
  await expect.poll(async () => Number(await table.getAttribute('x'))).toBeCloseTo(x + 0.05, 5);
  expect(await seriousFindings(page)).toEqual([]);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => Number(await table.getAttribute('x'))).toBeCloseTo(x, 5);

  await page.goto('/kit-tables');
  await expect(cell(page, 'Tripod')).toBeVisible();
  await cell(page, '40 cm').first().dblclick();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('45 cm');
  await page.keyboard.press('Enter');
  await expect(page.getByText('“Softbox 40 x 60” is saved.')).toBeVisible();
  const before = await cell(page, '165 cm').count();
  await cell(page, '165 cm').first().dblclick();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('tall');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^“.+”.*highest.* must be a number\.$/)).toBeVisible();
  await expect(cell(page, '165 cm')).toHaveCount(before);
  await page.getByLabel('CSV file of equipment').setInputFiles({
    name: 'lenses.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('what,kind,name,lossStops,polarises\nequipment,filter,Grey filter 6 stops,6,false\n'),
  });
  await expect(page.getByText('1 added, 0 changed.')).toBeVisible();
  await expect(cell(page, 'Grey filter 6 stops')).toBeVisible();
  await page.getByLabel('CSV file of equipment').setInputFiles({
    name: 'lenses.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('what,kind,name,lossStops\nequipment,filter,Black,−6\n'),
  });
  await expect(page.getByText(/Row 2, lossStops/)).toBeVisible();
  expect(await seriousFindings(page)).toEqual([]);
});

test('on a phone the brief can be read', { tag: '@more' }, async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 800 });
  await page.goto('/jobs');
  await page.getByRole('button', { name: 'From the demo' }).click();
  await expect(page.getByRole('heading', { name: 'Brief' })).toBeVisible();
  const wide = await page.evaluate(() => document.documentElement.scrollWidth > window.innerWidth + 1);
  expect(wide).toBe(false);
});
