import { expect, type Page } from '@playwright/test';
import { count, numberField, openBench, seriousFindings, thing } from './bench.js';
import { test } from './servers.js';

const search = (page: Page) => page.getByLabel('Add: a name, or what it is for');
const STL = `solid t
facet normal 0 0 1
outer loop
vertex 0 0 0
vertex 60 0 0
vertex 0 40 50
endloop
endfacet
endsolid t`;

test('a light is found by what it is for, goes on the set by keyboard alone, and its figures can be changed', async ({
  page,
}) => {
  await openBench(page);
  const traced = await count(page, 'traced');
  await page.keyboard.press('a');
  await search(page).fill('edge');
  await expect(page.getByRole('button', { name: /^Strip 30 x 120 edge/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(thing(page, 'light:B')).toBeFocused();
  await expect(page.getByRole('heading', { name: 'Strip 30 x 120' })).toBeVisible();
  await expect.poll(() => count(page, 'traced')).toBeGreaterThan(traced);
  await page.getByText('All figures').click();
  const hot = numberField(page, 'hot centre');
  await expect(hot).toHaveValue('2');
  await hot.fill('1.2');
  await hot.press('Enter');
  await expect(hot).toHaveValue('1.2');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(hot).toHaveValue('2');
  // A figure beyond its limits is told and left.
  await hot.fill('40');
  await hot.press('Enter');
  await expect(page.getByText('It goes from 1 to 10.')).toBeVisible();
  await hot.press('Escape');
  await expect(hot).toHaveValue('2');
});

test('what stands on the set and is not in the kit is told, with what could stand in', {
  tag: '@more',
}, async ({ page }) => {
  await openBench(page);
  await page.getByRole('button', { name: '2 not in the kit' }).click();
  const gaps = page.getByRole('dialog', { name: 'Not in the kit' });
  await expect(gaps.getByText('black flag')).toBeVisible();
  await expect(gaps.getByText(/White card 20 x 30: another size/)).toBeVisible();
  await page.keyboard.press('Escape');
  await thing(page, 'sheet:2').focus();
  await page.keyboard.press('Delete');
  await expect(page.getByRole('button', { name: '1 not in the kit' })).toBeVisible();
});

test('a material goes on the selected product; a tent shows in all views', { tag: '@more' }, async ({
  page,
}) => {
  await openBench(page);
  await thing(page, 'product:bottle').focus();
  await page.keyboard.press('a');
  await search(page).fill('butter');
  // Hollow and filled: only what is clear or opaque will do, and the bench says so.
  await page.keyboard.press('Enter');
  await expect(page.getByText(/needs a clear or an opaque material/).first()).toBeVisible();
  await search(page).fill('green glass');
  await page.keyboard.press('Enter');
  await expect(search(page)).toBeHidden();
  await page.keyboard.press('a');
  await search(page).fill('light tent');
  await page.keyboard.press('Enter');
  await expect(thing(page, 'sheet:3')).toBeVisible();
  await expect(
    page.getByRole('group', { name: 'The set from the side' }).locator('[data-thing="sheet:3"]'),
  ).toBeVisible();
});

test('a body comes from a file with its unit; a damaged light file is refused with the line', {
  tag: '@more',
}, async ({ page }) => {
  await openBench(page);
  await page.getByRole('button', { name: 'Add' }).click();
  await page.getByRole('button', { name: 'From a file' }).click();
  const file = page.getByLabel('File to import');
  await file.setInputFiles({
    name: 'lamp.ies',
    mimeType: 'text/plain',
    buffer: Buffer.from('TILT=NONE\n1 1000 1 x'),
  });
  await page.getByRole('button', { name: 'Put on the set' }).click();
  await expect(page.getByText(/Line 2: "x" stands where/)).toBeVisible();
  await file.setInputFiles({ name: 'wedge.stl', mimeType: 'model/stl', buffer: Buffer.from(STL) });
  await page.getByLabel('Measured in').click();
  await page.getByRole('option', { name: 'millimetres' }).click();
  await page.getByRole('button', { name: 'Put on the set' }).click();
  await expect(thing(page, 'product:imported')).toBeVisible();
  await expect(page.getByText('imported body')).toBeVisible();
});

test('a spot pointed at tells where its light comes from', async ({ page }) => {
  await openBench(page);
  const picture = page.getByRole('img', { name: 'Picture as the camera would record it' });
  const box = await picture.boundingBox();
  if (!box) throw new Error('the picture is drawn');
  await page.mouse.click(box.x + box.width * 0.5, box.y + box.height * 0.5);
  const spot = page.getByRole('region', { name: 'This spot' });
  await expect(spot.getByText(/shows through|mirrors|its surface/).first()).toBeVisible();
  const shares = await spot.getByRole('button').allTextContents();
  const sum = shares.reduce((all, text) => all + Number(/(\d+) %/.exec(text)?.[1] ?? 0), 0);
  expect(sum).toBeGreaterThan(90);
  expect(sum).toBeLessThanOrEqual(102);
});

test('the kit is searched, edited, kept and put back; axe finds nothing serious', async ({ page }) => {
  await page.goto('/kit');
  await page.getByLabel(/Find by name/).fill('gobo');
  await page.getByRole('button', { name: /Projecting spot, leaves/ }).click();
  const field = numberField(page, 'field');
  const before = await field.inputValue();
  await field.fill('20°');
  await field.press('Enter');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('“Projecting spot, leaves” is saved.')).toBeVisible();
  await page.reload();
  await page.getByText('Projecting spot, leaves').click();
  await expect(field).toHaveValue('20°');
  await field.fill(before);
  await field.press('Enter');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.reload();
  await page.getByText('Projecting spot, leaves').click();
  await expect(field).toHaveValue('20°');
  expect(await seriousFindings(page)).toEqual([]);
  await page.getByRole('link', { name: 'Calibrate by a card' }).click();
  await page.getByLabel('Softbox 60 x 90', { exact: true }).click();
  for (const [device, done] of [
    ['camera', 1],
    ['meter', 2],
  ] as const) {
    await page.getByRole('button', { name: `Stand-in ${device}` }).click();
    await expect(page.getByRole('heading', { name: new RegExp(`^The hour: ${done} of`) })).toBeVisible();
  }
  await expect(page.getByTestId('what the readings say')).toContainText(/Gives more.*±.*stops/);
  expect(await seriousFindings(page)).toEqual([]);
});
