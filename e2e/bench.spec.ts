import { expect, type Page } from '@playwright/test';
import {
  count,
  frames,
  numberField,
  openBench,
  pictureMean,
  saved,
  seriousFindings,
  status,
  thing,
  valueAtRest,
} from './bench.js';
import { test } from './servers.js';

async function drag(page: Page, name: string, right: number, down: number, holdFrames = 0): Promise<void> {
  const box = await thing(page, name).boundingBox();
  if (!box) throw new Error(`${name} is drawn`);
  const x = box.x + box.width / 2;
  const y = box.y + box.height / 2;
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + right / 2, y + down / 2, { steps: 4 });
  await page.mouse.move(x + right, y + down, { steps: 4 });
  await frames(page, holdFrames);
  await page.mouse.up();
}

test('the first start opens the demo set with picture, band and stops', async ({ page }) => {
  await page.goto('/');
  await expect(page).toHaveURL(/\/sets\/[0-9a-f-]{36}$/);
  await expect(status(page)).not.toHaveAttribute('data-shown', '0');
  expect(await pictureMean(page)).toBeGreaterThan(60);
  const band = page.getByTestId('band');
  for (const tag of ['A', '1', '2']) await expect(band.getByText(new RegExp(`^${tag} \\d`))).toBeAttached();
  await expect(page.getByTestId('spot label')).toContainText(/[+−]\d\.\d|0\.0/);
});

test('dragging a light moves its numbers, the band and the picture; undo, redo and reload keep up', async ({
  page,
}) => {
  await openBench(page);
  await thing(page, 'light:A').focus();
  const distance = numberField(page, 'distance from centre');
  const before = await distance.inputValue();
  const band = await page.getByTestId('band').textContent();
  const traced = await count(page, 'traced');
  await drag(page, 'light:A', -30, 24);
  await expect(distance).not.toHaveValue(before);
  await expect.poll(() => count(page, 'traced')).toBeGreaterThan(traced);
  await expect(page.getByTestId('band')).not.toHaveText(band ?? '');
  const after = await valueAtRest(distance);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(distance).toHaveValue(before);
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
  await page.keyboard.press('Control+Shift+z');
  await expect(distance).toHaveValue(after);
  await saved(page);
  await page.reload();
  await thing(page, 'light:A').focus();
  await expect(numberField(page, 'distance from centre')).toHaveValue(after);
});

test('the band at the end of a drag is that of the set as it then is', { tag: '@more' }, async ({ page }) => {
  await openBench(page);
  const band = page.getByTestId('band');
  // A hand lets go at some time after the last move: while the picture of that move is being made, or before, or after.
  for (const wait of [0, 2, 5]) {
    await drag(page, 'light:A', -6, 5, wait);
    await saved(page);
    await expect(status(page)).not.toHaveAttribute('data-phase', 'following');
    const shown = await band.textContent();
    await page.reload();
    await expect(band).toHaveText(shown ?? '');
  }
});

test('card and flag can be dragged too, and the camera', { tag: '@more' }, async ({ page }) => {
  await openBench(page);
  for (const name of ['sheet:1', 'sheet:2', 'camera:', 'product:bottle']) {
    await thing(page, name).focus();
    const before = await numberField(page, 'distance from centre').inputValue();
    await drag(page, name, 14, -10);
    await expect(numberField(page, 'distance from centre')).not.toHaveValue(before);
  }
});

test('f-stop, ISO, power and switch change picture and stops and trace nothing', async ({ page }) => {
  // A small picture, so that the refining soon reaches its last part.
  await page.setViewportSize({ width: 900, height: 700 });
  await openBench(page);
  // Let the last picture of the refining begin: from then on only a moved set starts another one.
  await expect(status(page)).toHaveAttribute('data-phase', 'refining');
  const samples = async () => Number(await status(page).getAttribute('data-samples'));
  await expect.poll(samples, { timeout: 60_000 }).toBeGreaterThan(3);
  const traced = await count(page, 'traced');
  const mean = await pictureMean(page);
  const label = await page.getByTestId('spot label').textContent();
  await page.getByLabel('f-stop').selectOption({ label: 'f/22' });
  await expect.poll(() => pictureMean(page)).toBeLessThan(mean * 0.75);
  await expect(page.getByTestId('spot label')).not.toHaveText(label ?? '');
  await page.getByLabel('ISO').selectOption({ label: 'ISO 400' });
  await expect.poll(() => pictureMean(page)).toBeGreaterThan(mean * 0.9);
  await page.getByRole('button', { name: 'A a third of a stop down' }).click();
  await page.getByRole('switch', { name: 'A on' }).click();
  await expect.poll(() => pictureMean(page)).toBeLessThan(5);
  await expect(page.getByTestId('spot label')).toContainText('black');
  expect(await count(page, 'traced')).toBe(traced);
});

test('arrow keys nudge, a run of them is one step of undo', async ({ page }) => {
  await openBench(page);
  await thing(page, 'sheet:1').focus();
  const height = numberField(page, 'distance from centre');
  const before = await height.inputValue();
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowUp');
  await expect(height).not.toHaveValue(before);
  await page.keyboard.press('Control+z');
  await expect(height).toHaveValue(before);
});

test('numbers are typed with units; what is not understood or impossible is told and nothing lost', async ({
  page,
}) => {
  await openBench(page);
  await thing(page, 'light:A').focus();
  const height = numberField(page, 'height above table');
  await height.fill('18 in');
  await height.press('Enter');
  await expect(height).toHaveValue('45.7 cm');
  const stands = numberField(page, 'position');
  await stands.fill('30 right');
  await stands.press('Enter');
  await expect(stands).toHaveValue('30° right');
  await height.fill('wide');
  await height.press('Enter');
  await expect(page.getByRole('alert')).toContainText('Not understood');
  await height.press('Escape');
  await expect(height).toHaveValue('45.7 cm');
  await height.fill('20 m');
  await height.press('Enter');
  // Told at the field, where it stays to be mended.
  await expect(page.getByRole('alert')).toContainText('is outside of the room');
  await expect(height).toHaveValue('20 m');
  await height.press('Escape');
  await expect(height).toHaveValue('45.7 cm');
});

test('pointing tells what a spot mirrors; a spot is pinned, read and unpinned', async ({ page }) => {
  await openBench(page);
  const lens = page.getByTestId('lens');
  const box = await lens.boundingBox();
  if (!box) throw new Error('the lens view is drawn');
  await lens.click({ position: { x: box.width / 2, y: box.height * 0.42 } });
  await expect(page.getByText('Damson cordial bottle mirrors')).toBeVisible();
  await page.keyboard.press('p');
  await lens.click({ position: { x: box.width * 0.2, y: box.height * 0.9 } });
  const spot = page.getByTestId('spot spot 1');
  await expect(spot).toContainText(/\d\.\d/);
  await spot.getByRole('button').click();
  await expect(page.getByText('A flat incident meter here says')).toBeVisible();
  await page.getByRole('button', { name: 'Unpin spot 1' }).click();
  await expect(spot).toHaveCount(0);
});

test('the mirror overlay is drawn in hatches over the product', async ({ page }) => {
  await openBench(page);
  await page.keyboard.press('m');
  const overlay = page.getByTestId('lens').locator('canvas').nth(1);
  await expect(overlay).toBeAttached();
  const painted = () =>
    overlay.evaluate((element) => {
      const canvas = element as HTMLCanvasElement;
      const data = canvas.getContext('2d')?.getImageData(0, 0, canvas.width, canvas.height).data ?? [];
      let count = 0;
      for (let i = 3; i < data.length; i += 4) if (Number(data[i]) > 0) count++;
      return count;
    });
  await expect.poll(painted).toBeGreaterThan(2000);
  await expect(page.getByRole('button', { name: 'mirrors' })).toHaveAttribute('aria-pressed', 'true');
});

test('a light is added, taken off and put back by undo', async ({ page }) => {
  await openBench(page);
  await page.getByRole('button', { name: 'Add' }).click();
  await page.getByRole('button', { name: /^Softbox 40 x 60/ }).click();
  await expect(thing(page, 'light:B')).toBeVisible();
  await expect(page.getByRole('switch', { name: 'B on' })).toBeVisible();
  await page.getByRole('button', { name: 'Remove from the set' }).click();
  await expect(thing(page, 'light:B')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(thing(page, 'light:B')).toBeVisible();
});

for (const [kind, tag] of [
  ['browserWorker', []],
  ['developWorker', ['@more']],
  ['sessionWorker', ['@more']],
] as const)
  test(`a picture worker that dies is told of and started again: ${kind}`, { tag: [...tag] }, async ({
    page,
  }) => {
    await openBench(page);
    const workers = page.workers().filter((worker) => worker.url().includes(kind));
    expect(workers.length).toBeGreaterThan(0);
    await workers[0]?.evaluate(() => {
      setTimeout(() => {
        throw new Error('planted');
      }, 0);
    });
    await expect(page.getByText('It is started again')).toHaveCount(1);
    const status = page.getByTestId('picture-status');
    const shown = await status.getAttribute('data-shown');
    await thing(page, 'light:A').focus();
    await page.keyboard.press('Shift+ArrowUp');
    await expect(status).not.toHaveAttribute('data-shown', shown ?? '');
  });

test('a large mesh is shown simplified at first, then the whole one is refined without beginning anew', {
  tag: '@more',
}, async ({ page }) => {
  const list = await page.request.get('/api/sets?search=mill&limit=1');
  const { sets } = (await list.json()) as { sets: { id: string }[] };
  const read = await page.request.get(`/api/sets/${sets[0]?.id}`);
  const { document } = (await read.json()) as { document: Record<string, unknown> };
  const product = { kind: 'mesh', id: 'bust', name: 'Bust', positionM: [0, 0, 0], ...ripplyBall(110) };
  const made = await page.request.post('/api/sets', {
    data: {
      document: { ...document, name: `Bust ${Date.now()}`, spots: [], products: [product] },
    },
  });
  expect(made.status()).toBe(201);
  await page.goto(`/sets/${((await made.json()) as { id: string }).id}`);
  await expect(page.getByText('Large mesh shown simplified while things move')).toBeVisible();
  await expect(page.getByText(/simplified/)).toHaveCount(0, { timeout: 60_000 });
  const begun = await count(page, 'traced');
  const samples = async () => Number(await status(page).getAttribute('data-samples'));
  await expect.poll(samples, { timeout: 120_000 }).toBeGreaterThan(1);
  // What is told beside it pushes the picture to another size when it first comes, and not over and over.
  expect((await count(page, 'traced')) - begun).toBeLessThan(8);
});

/** A ball with ripples of 2 n² triangles. */
function ripplyBall(n: number) {
  const places = new Float32Array((n + 1) ** 2 * 3);
  const corners = new Uint32Array(n * n * 6);
  for (let row = 0; row <= n; row++) {
    for (let column = 0; column <= n; column++) {
      const [down, round] = [(Math.PI * row) / n, (2 * Math.PI * column) / n];
      const radius = 0.05 * (1 + 0.05 * Math.sin(9 * round) * Math.sin(7 * down));
      const across = radius * Math.sin(down);
      places.set(
        [across * Math.cos(round), across * Math.sin(round), 0.06 - radius * Math.cos(down)],
        3 * (row * (n + 1) + column),
      );
      if (row === n || column === n) continue;
      const at = row * (n + 1) + column;
      corners.set([at, at + 1, at + n + 1, at + 1, at + n + 2, at + n + 1], 6 * (row * n + column));
    }
  }
  const text = (numbers: Float32Array | Uint32Array) => Buffer.from(numbers.buffer).toString('base64');
  return {
    positionsBase64: text(places),
    trianglesBase64: text(corners),
    material: { kind: 'coated', reflectance: 0.4 },
  };
}

test('without the server the set is kept in the browser, and saved when it is back', async ({
  page,
  context,
}) => {
  await openBench(page);
  await saved(page);
  await context.setOffline(true);
  await thing(page, 'sheet:1').focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByTestId('save-state')).toHaveText('offline, kept in this browser');
  const distance = await numberField(page, 'distance from centre').inputValue();
  await context.setOffline(false);
  await saved(page);
  await page.reload();
  await thing(page, 'sheet:1').focus();
  await expect(numberField(page, 'distance from centre')).toHaveValue(distance);
});

test('a set changed elsewhere is asked about, not overwritten', async ({ page }) => {
  const id = await openBench(page);
  const stored = await (await page.request.get(`/api/sets/${id}`)).json();
  const document = { ...stored.document, note: 'changed elsewhere' };
  await page.request.put(`/api/sets/${id}`, { data: { revision: stored.revision, document } });
  await thing(page, 'sheet:1').focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('dialog')).toContainText('changed elsewhere');
  await page.getByRole('button', { name: 'Go on with mine' }).click();
  await saved(page);
  const now = await (await page.request.get(`/api/sets/${id}`)).json();
  expect(now.document.note).not.toBe('changed elsewhere');
});

for (const [colorScheme, tag] of [
  ['light', []],
  ['dark', ['@more']],
] as const) {
  test(`axe finds nothing serious on the bench, ${colorScheme}`, { tag: [...tag] }, async ({ page }) => {
    await page.emulateMedia({ colorScheme });
    await openBench(page);
    await thing(page, 'light:A').focus();
    expect(await seriousFindings(page)).toEqual([]);
  });
}

test('pointing and pinning work by keyboard alone', async ({ page }) => {
  await openBench(page);
  const lens = page.getByTestId('lens');
  await lens.focus();
  for (let i = 0; i < 2; i++) await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Shift+ArrowUp');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Damson cordial bottle mirrors')).toBeVisible();
  await page.keyboard.press('p');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('spot spot 1')).toContainText(/\d\.\d/);
});

test('where the keyboard is can be seen at every stop of the bench and of the lists', async ({ page }) => {
  await openBench(page);
  /** Stops at which nothing round the place of the keyboard is outlined. */
  const unseen = async (stops: number) => {
    const found: string[] = [];
    for (let i = 0; i < stops; i++) {
      await page.keyboard.press('Tab');
      const words = await page.evaluate(() => {
        const at = document.activeElement;
        if (!at || at === document.body) return '';
        // A switch or slider hides its field and shows its own knob.
        const shown = [at, at.parentElement, at.closest('.MuiSlider-thumb, .MuiSwitch-switchBase')];
        const outlined = shown.some((element) => {
          const { outlineStyle, outlineWidth } = getComputedStyle(element ?? document.body);
          return outlineStyle !== 'none' && Number.parseFloat(outlineWidth) >= 2;
        });
        return outlined ? '' : at.outerHTML.slice(0, 120);
      });
      if (words) found.push(words);
    }
    return found;
  };
  expect(await unseen(60)).toEqual([]);
  await page.goto('/sets');
  await expect(page.getByRole('button', { name: 'New set', exact: true })).toBeVisible();
  expect(await unseen(16)).toEqual([]);
});
