import { expect } from '@playwright/test';
import { seriousFindings, thing } from './bench.js';
import { test } from './servers.js';

test('a new set starts with something to move; it is copied, found, deleted and brought back', async ({
  page,
}) => {
  await page.goto('/sets');
  await page.getByRole('button', { name: 'New set' }).click();
  await expect(page).toHaveURL(/\/sets\/[0-9a-f-]{36}$/);
  await expect(thing(page, 'product:cylinder')).toBeVisible();
  const name = `Shelf ${Date.now()}`;
  await page.getByLabel('Name of the set').fill(name);
  await page.getByLabel('Name of the set').press('Enter');
  await expect(page.getByTestId('save-state')).toHaveText('saved');
  await page.getByRole('link', { name: 'Sets' }).click();
  await page.getByLabel('Find by name').fill(name);
  const rows = page.getByRole('listitem');
  await expect(rows).toHaveCount(1);
  await page.getByRole('button', { name: `Copy ${name}` }).click();
  await expect(rows).toHaveCount(2);
  await page.getByRole('button', { name: `Delete ${name}, copy` }).click();
  await expect(rows).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(rows).toHaveCount(2);
});

test('a new set stands in the room of the studio, also when it is asked for before the kit has arrived', async ({
  page,
}) => {
  let arrive = () => {};
  const asked = new Promise<void>((resolve) => {
    arrive = resolve;
  });
  await page.route('**/api/kit', async (route) => {
    await asked;
    await route.continue();
  });
  await page.goto('/sets');
  await page.getByRole('button', { name: 'New set', exact: true }).click();
  arrive();
  await expect(thing(page, 'room:')).toBeVisible();
  await thing(page, 'room:').focus();
  await expect(page.getByLabel('width', { exact: true })).toHaveValue('340 cm');
});

test('an address that leads nowhere says so', async ({ page }) => {
  await page.goto('/sets/00000000-0000-4000-8000-000000000000');
  await expect(page.getByText('There is no set with this address')).toBeVisible();
  await page.goto('/somewhere/else');
  await expect(page.getByRole('link', { name: 'All sets' })).toBeVisible();
});

test('a search without result teaches; axe finds nothing serious on the list', async ({ page }) => {
  await page.goto('/sets');
  await page.getByLabel('Find by name').fill('no such thing');
  await expect(page.getByText('No set has “no such thing” in its name')).toBeVisible();
  expect(await seriousFindings(page)).toEqual([]);
});
