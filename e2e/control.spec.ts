import { expect, type Page } from '@playwright/test';
import {
  count,
  deskAtRest,
  frames,
  imageInBand,
  openBench,
  openCopy,
  pointAt,
  readAt,
  saved,
  seriousFindings,
  status,
  thing,
} from './bench.js';
import { test } from './servers.js';

const width = async (page: Page, tag: string) => {
  const found = await imageInBand(page, tag);
  return found ? found.to - found.from : 0;
};

test('a highlight is made as wide as wanted, by moving what makes it; undo takes it back', async ({
  page,
}) => {
  await openCopy(page, 'gradient cards');
  await expect.poll(() => width(page, '1')).toBeGreaterThan(20);
  const before = await imageInBand(page, '1');
  await page.getByRole('button', { name: 'What 1 makes' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('From, %').fill('10');
  await dialog.getByLabel('To, %').fill('28');
  await dialog.getByRole('button', { name: 'By moving' }).click();
  await expect(page.getByText(/1 takes 18\.\d % now/)).toBeVisible();
  await expect.poll(async () => Math.abs((await width(page, '1')) - 18)).toBeLessThan(1);
  await page.keyboard.press('Control+z');
  await expect.poll(() => imageInBand(page, '1')).toEqual(before);
});

test('an edge of the band is moved by arrow keys and by dragging; the other edge stays', {
  tag: '@more',
}, async ({ page }) => {
  await openCopy(page, 'gradient cards');
  await expect.poll(() => width(page, '1')).toBeGreaterThan(20);
  const before = await imageInBand(page, '1');
  const edge = page.locator('[data-edge="1 to"]');
  await edge.focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await expect.poll(async () => (await imageInBand(page, '1'))?.to ?? 0).toBeLessThan((before?.to ?? 0) - 3);
  expect(Math.abs(((await imageInBand(page, '1'))?.from ?? 0) - (before?.from ?? 0))).toBeLessThan(1);
  const mid = await imageInBand(page, '1');
  const box = await page.locator('[data-edge="2 from"]').boundingBox();
  if (!box) throw new Error('the edge is drawn');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 40, box.y + box.height / 2, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => (await imageInBand(page, '2'))?.from ?? 0).toBeGreaterThan(74);
  expect((await imageInBand(page, '1'))?.to).toBeCloseTo(mid?.to ?? 0, 0);
});

test('the source of a glare is found and lost, and the way is measured', { tag: '@more' }, async ({
  page,
}) => {
  await openBench(page);
  // The strip of A on the left shoulder of the bottle.
  await expect.poll(() => width(page, 'A')).toBeGreaterThan(1);
  await page.getByRole('button', { name: 'What A makes' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Select it' }).click();
  await expect(page.getByRole('heading', { name: /Softbox/ })).toBeVisible();
  const found = await findOnPicture(page, 'A');
  await page.getByRole('button', { name: 'Lose this' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText(/Turn A \d/).first()).toBeVisible();
  await dialog.getByRole('button', { name: 'Do it' }).first().click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Undo' })).toBeEnabled();
  // The spot is read again by itself once the set rests.
  await expect(page.getByText('Read again once the set rests')).toHaveCount(0);
  await expect(page.getByTestId('pick-stops')).toBeVisible();
  await expect(page.getByTestId('part mirrored').getByRole('img', { name: 'tag A' })).toHaveCount(0);
  // Pointed at again, the same place mirrors something else.
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('part mirrored')).toHaveCount(0);
  await pointAt(page, found, 0.42);
  await expect(page.getByTestId('pick-stops')).toBeVisible();
  await expect(page.getByTestId('part mirrored').getByRole('img', { name: 'tag A' })).toHaveCount(0);
});

/** Points along the band's height until the spot mirrors a light. */
async function findOnPicture(page: Page, tag: string): Promise<number> {
  for (let across = 0.42; across < 0.58; across += 0.006) {
    await readAt(page, across, 0.42);
    const mirrored = page.getByTestId('part mirrored').getByRole('img', { name: `tag ${tag}` });
    if (await mirrored.count()) return across;
  }
  throw new Error(`${tag} is mirrored nowhere at this height`);
}

test('a highlight that is kept tells when it moves, and is put back', { tag: '@more' }, async ({ page }) => {
  await openCopy(page, 'gradient cards');
  await expect.poll(() => width(page, '1')).toBeGreaterThan(20);
  await page.getByRole('button', { name: 'What 1 makes' }).click();
  await page.getByRole('button', { name: 'Keep this highlight' }).click();
  await expect(page.getByTestId('kept 1')).toContainText('holds');
  await thing(page, 'sheet:1').focus();
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowLeft');
  await expect(page.getByTestId('kept 1')).toContainText('% now');
  await page.getByRole('button', { name: 'Put it back' }).click();
  await page.getByRole('button', { name: 'By moving' }).click();
  await expect(page.getByTestId('kept 1')).toContainText('holds');
});

test('each overlay is drawn by its key and says its figures', async ({ page }) => {
  await openCopy(page, 'Perry');
  for (const [key, name] of [
    ['m', 'mirrors'],
    ['t', 'through'],
    ['s', 'stops'],
    ['x', 'clipping'],
    ['f', 'focus'],
  ]) {
    await page.keyboard.press(key as string);
    await expect(page.getByRole('button', { name: name as string, exact: false }).first()).toHaveAttribute(
      'aria-pressed',
      'true',
    );
    await expect(page.getByTestId('lens').locator('canvas').nth(1)).toBeAttached();
    if (key === 'x') await expect(page.getByTestId('lost')).toContainText(/clip: [\d.]+ %/);
    if (key === 's') await expect(page.getByRole('img', { name: /Tone steps of one stop/ })).toBeAttached();
  }
  await page.keyboard.press('f');
  await expect(page.getByTestId('lens').locator('canvas')).toHaveCount(1);
  // Crops are drawn where there are formats, all or one of them alone.
  const mark = page.getByTestId('lens').locator('svg').getByText('upright story');
  await expect(mark).toBeVisible();
  await page.keyboard.press('c');
  await expect(mark).toHaveCount(0);
  await page.keyboard.press('c');
  await page.getByLabel('Format looked at').selectOption('upright story');
  await expect(page.getByTestId('lens').locator('svg path[fill-rule=evenodd]')).toBeAttached();
});

test('the picture is magnified to pixels of the sensor, by keys, wheel and buttons', async ({ page }) => {
  await openBench(page);
  const lens = page.getByTestId('lens');
  await page.keyboard.press('+');
  await expect(lens).toHaveAttribute('data-zoom', '2.00');
  await page.getByRole('button', { name: 'Pixels of the sensor' }).click();
  const zoom = Number(await lens.getAttribute('data-zoom'));
  const box = await lens.boundingBox();
  expect(zoom * (box?.width ?? 0)).toBeCloseTo(6000, -1);
  const shown = Number(await status(page).getAttribute('data-shown'));
  await expect.poll(async () => Number(await status(page).getAttribute('data-shown'))).toBeGreaterThan(shown);
  await lens.hover();
  await page.mouse.wheel(0, 300);
  await expect.poll(async () => Number(await lens.getAttribute('data-zoom'))).toBeLessThan(zoom);
  await page.keyboard.press('0');
  await expect(lens).toHaveAttribute('data-zoom', '1.00');
});

test('powers are solved for wanted tones, and set', { tag: '@more' }, async ({ page }) => {
  await openBench(page);
  await expect(page.getByTestId('spot label')).toContainText(/\d\.\d/);
  await page.getByRole('tab', { name: 'Exposure' }).click();
  const wanted = page.getByLabel('label, wanted');
  await wanted.fill('+0.3');
  await wanted.press('Enter');
  await page.getByRole('button', { name: 'Solve the powers' }).click();
  await expect(page.getByTestId('solved')).toContainText('in range');
  await page.getByRole('button', { name: 'Set these powers' }).click();
  await expect(page.getByTestId('spot label')).toContainText('+0.3');
  await wanted.fill('9');
  await wanted.press('Enter');
  await page.getByRole('button', { name: 'Solve the powers' }).click();
  await expect(page.getByTestId('solved')).toContainText('More from A, the cheapest first');
  await expect(page.getByTestId('solved')).toContainText(/flashes on one frame|ISO/);
  const dial = page.getByLabel('A power: 1/4 −0.3, 100 Ws, 8.3 or −2');
  await dial.fill('1/8');
  await expect(page.getByTestId('dial')).toContainText('1/8 = 7.0');
  await dial.fill('2/1');
  await expect(page.getByText('Not a power of this head')).toBeVisible();
});

test('a polariser is put on, and turned under the picture without a ray; undo turns it back', async ({
  page,
}) => {
  await page.setViewportSize({ width: 900, height: 700 });
  await openBench(page);
  await page.getByRole('tab', { name: 'Exposure' }).click();
  const filters = page.getByRole('region', { name: 'Filters and close focus' });
  await filters.getByRole('button', { name: 'none' }).click();
  await page.getByRole('button', { name: 'Put it on' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('filter-takes')).toContainText(/takes, in stops: .*label/);
  await expect(page.getByTestId('filter-turned')).toHaveText('90°');
  await expect(status(page)).toHaveAttribute('data-phase', 'refining');
  const samples = async () => Number(await status(page).getAttribute('data-samples'));
  await expect.poll(samples, { timeout: 120_000 }).toBeGreaterThan(3);
  const traced = await count(page, 'traced');
  await page.getByRole('slider', { name: 'Polariser turned from upright' }).fill('20');
  await expect(page.getByTestId('filter-turned')).toHaveText('20°');
  expect(await count(page, 'traced')).toBe(traced);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByTestId('filter-turned')).toHaveText('90°');
});

test('the background is read, its verdict follows the light, and the curve of a placement is worked out', {
  tag: '@more',
}, async ({ page }) => {
  await openCopy(page, 'Black pepper mill');
  await page.getByRole('tab', { name: 'Background' }).click();
  const verdict = page.getByTestId('ground-verdict');
  await expect(verdict).toContainText(/Grey|Black/);
  const first = await verdict.textContent();
  await page.getByRole('slider', { name: 'Power of A' }).fill('0');
  await expect(verdict).not.toHaveText(first ?? '');
  await page.getByLabel('try').selectOption('the background further back');
  await page.getByRole('button', { name: 'Work it out' }).click();
  await expect(page.getByTestId('curve')).toBeVisible({ timeout: 60_000 });
  await page.getByTestId('curve').getByRole('button', { name: 'As a table' }).click();
  const cells = await page.getByTestId('curve').locator('tbody tr td:nth-child(4)').allTextContents();
  const stops = cells.map((text) => Number.parseFloat(text) * (text.includes('under') ? -1 : 1));
  expect(stops.length).toBeGreaterThan(5);
  expect(stops.at(-1)).toBeLessThan(stops[0] ?? 0);
});

test('movement: speed, blur, tries follow from the fall', { tag: '@more' }, async ({ page }) => {
  await openBench(page);
  await page.getByRole('tab', { name: 'Movement' }).click();
  await expect(page.getByText('1.40 m/s')).toBeVisible();
  await expect(page.getByText(/1\.1 cm · \d+ px/)).toBeVisible();
  const height = page.getByLabel('falls, from spout to where it is seen');
  await height.fill('40 cm');
  await height.press('Enter');
  await expect(page.getByText('2.80 m/s')).toBeVisible();
  await page.getByText('duration not known').first().click();
  await page.getByRole('button', { name: /switched off early/ }).click();
  await expect(page.getByText(/t0\.1 1\//).first()).toBeVisible();
});

test('takes are kept, named, compared, gone back to and branched; all can be undone', async ({ page }) => {
  const id = await openBench(page);
  await page.keyboard.press('k');
  const first = page.getByRole('button', { name: /^Take Take 1/ });
  await expect(first).toBeVisible();
  await page.getByRole('button', { name: 'A a third of a stop down' }).click();
  await thing(page, 'sheet:1').focus();
  await page.keyboard.press('Shift+ArrowUp');
  await page.keyboard.press('k');
  await expect(
    page.getByRole('button', { name: /^Take Take 2: A −0\.3 .*1 .*(closer|farther|further|to)/ }),
  ).toBeVisible();
  await first.click();
  const card = page.getByRole('dialog', { name: 'Take Take 1' });
  await card.getByLabel('Name of the take').fill('flat light');
  await page.getByRole('dialog', { name: 'Take flat light' }).getByLabel('Name of the take').press('Enter');
  await page
    .getByRole('dialog', { name: 'Take flat light' })
    .getByRole('button', { name: 'Compare with now' })
    .click();
  const compare = page.getByTestId('compare');
  await expect(compare).toHaveAttribute('data-ready', 'yes', { timeout: 60_000 });
  await compare.getByRole('button', { name: 'difference in stops' }).click();
  await expect(page.getByTestId('difference')).toContainText(/darker [1-9]\d* %/, { timeout: 30_000 });
  await compare.getByRole('button', { name: 'Close' }).click();
  const position = await page.getByLabel('distance from centre', { exact: true }).inputValue();
  await page.getByRole('button', { name: /^Take flat light/ }).click();
  await page.getByRole('button', { name: 'Go back to it' }).click();
  await thing(page, 'sheet:1').focus();
  await expect(page.getByLabel('distance from centre', { exact: true })).not.toHaveValue(position);
  await page.keyboard.press('k');
  await saved(page);
  const stored = (await (await page.request.get(`/api/sets/${id}`)).json()) as {
    document: { takes: { name: string; from?: string }[] };
  };
  expect(stored.document.takes.map(({ from }) => from ?? null)).toEqual([null, 'take-1', 'take-1']);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: /^Take Take 3/ })).toHaveCount(0);
});

test('the set is walked round in three dimensions, and without WebGL the page says so and lives on', async ({
  page,
}) => {
  await openBench(page);
  await page.getByRole('tab', { name: 'Walk round' }).click();
  await expect(page.getByTestId('walk-round').locator('canvas')).toBeVisible();
  await page.getByRole('button', { name: 'from above', exact: true }).click();
  await expect(page.getByTestId('walk-round').locator('canvas')).toHaveAttribute(
    'data-viewpoint',
    'from above',
  );
  // The middle of the view is the product: it is grabbed and moved along the bench.
  const canvas = await page.getByTestId('walk-round').locator('canvas').boundingBox();
  if (!canvas) throw new Error('the set is drawn');
  const [x, y] = [canvas.x + canvas.width / 2, canvas.y + canvas.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 20, y, { steps: 4 });
  await page.mouse.move(x + 60, y, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByRole('heading', { name: /Damson cordial/ })).toBeVisible();
  await expect(page.getByLabel('distance from centre', { exact: true })).not.toHaveValue('0 cm');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByLabel('distance from centre', { exact: true })).toHaveValue('0 cm');
  await page.addInitScript(() => {
    const original = HTMLCanvasElement.prototype.getContext;
    HTMLCanvasElement.prototype.getContext = function (
      this: HTMLCanvasElement,
      kind: string,
      ...rest: unknown[]
    ) {
      return kind.startsWith('webgl')
        ? null
        : (original as (...args: unknown[]) => unknown).call(this, kind, ...rest);
    } as typeof original;
  });
  await page.reload();
  await expect(status(page)).not.toHaveAttribute('data-shown', '0');
  await page.getByRole('tab', { name: 'Walk round' }).click();
  await expect(page.getByRole('heading', { name: 'No third dimension here' })).toBeVisible();
  await page.getByRole('tab', { name: 'Plans' }).click();
  await expect(thing(page, 'light:A')).toBeVisible();
});

test('a person and the camera come into the mirrors when they are counted in', { tag: '@more' }, async ({
  page,
}) => {
  await openCopy(page, 'gradient cards');
  await page.getByRole('button', { name: 'Add' }).click();
  await page.getByRole('button', { name: 'A person' }).click();
  await expect(thing(page, 'person:Person')).toBeVisible();
  await expect(page.getByRole('switch', { name: 'Dark clothes' })).toBeChecked();
  await page.keyboard.press('Control+z');
  await expect(thing(page, 'person:Person')).toHaveCount(0);
  await expect(page.getByTestId('band')).toContainText(/camera|tripod/);
  await thing(page, 'camera:').focus();
  await page.getByRole('switch', { name: 'Mirrors and shades, with tripod' }).click();
  await expect(page.getByTestId('band')).not.toContainText(/camera|tripod/);
});

test('zones are drawn in both plans for the product and for a spot', { tag: '@more' }, async ({ page }) => {
  await openCopy(page, 'gradient cards');
  await page.keyboard.press('z');
  await expect(page.getByTestId('zone above')).toBeVisible();
  await expect(page.getByTestId('zone side')).toBeVisible();
  await pointAt(page, 0.46, 0.5);
  const whole = await page.getByTestId('zone above').getAttribute('href');
  await page.getByRole('button', { name: 'Where would it glare' }).click();
  await expect.poll(() => page.getByTestId('zone above').getAttribute('href')).not.toBe(whole);
});

test('the keys are listed by the question mark and by a button', async ({ page }) => {
  await openBench(page);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys of the bench' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Keys', exact: true }).click();
  await expect(page.getByRole('dialog', { name: 'Keys of the bench' })).toContainText('keep a take');
});

test('evenness of a field is read off a drag', { tag: '@more' }, async ({ page }) => {
  await openCopy(page, 'gradient cards');
  await page.keyboard.press('e');
  const box = await page.getByTestId('lens').boundingBox();
  if (!box) throw new Error('the lens view is drawn');
  await page.mouse.move(box.x + 0.6 * box.width, box.y + 0.1 * box.height);
  await page.mouse.down();
  await page.mouse.move(box.x + 0.9 * box.width, box.y + 0.4 * box.height, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByTestId('field')).toContainText(/brightest over darkest\d\.\d\d stops/);
});

test('an overlay costs the page little while a light is dragged: its pixels are worked out elsewhere', {
  tag: '@more',
}, async ({ page }) => {
  await openBench(page);
  const client = await page.context().newCDPSession(page);
  await client.send('Performance.enable', { timeDomain: 'threadTicks' });
  /** Processor time of the page's own thread, in seconds: what other processes take of the machine is not in it. */
  const spent = async () => {
    const { metrics } = await client.send('Performance.getMetrics');
    return metrics.find(({ name }) => name === 'TaskDuration')?.value ?? 0;
  };
  const drag = async () => {
    const box = await thing(page, 'light:A').boundingBox();
    if (!box) throw new Error('the light is drawn');
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    const before = await spent();
    await page.mouse.move(x, y);
    await page.mouse.down();
    for (let i = 0; i < 30; i++) {
      await page.mouse.move(x + i, y + (i % 7));
      await frames(page, 2);
    }
    await page.mouse.move(x, y);
    await page.mouse.up();
    return (await spent()) - before;
  };
  await drag();
  const without = await drag();
  await page.keyboard.press('s');
  await expect(page.getByRole('img', { name: /Tone steps/ })).toBeAttached();
  const withOverlay = await drag();
  expect(without).toBeGreaterThan(0);
  // Measured 0.87 to 1.03; pixel work of the overlay on this thread would be some 30 ms a frame on 55.
  expect(withOverlay / without).toBeLessThan(1.5);
});

test('axe finds nothing serious on any desk', { tag: '@more' }, async ({ page }) => {
  await openCopy(page, 'Sea-buckthorn');
  for (const tab of ['Exposure', 'Movement', 'Background', 'Walk round', 'Devices'] as const) {
    await page.getByRole('tab', { name: tab }).click();
    await deskAtRest(page);
    expect(await seriousFindings(page), tab).toEqual([]);
  }
});

test('on a phone the bench is one column and the takes can be reached', { tag: '@more' }, async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 800 });
  await openCopy(page, 'Sea-buckthorn');
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth + 1)).toBe(true);
  await page.getByRole('button', { name: 'Keep a take' }).scrollIntoViewIfNeeded();
  await expect(page.getByRole('button', { name: 'Keep a take' })).toBeVisible();
});
