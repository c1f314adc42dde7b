import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import {
  addFromKit,
  count,
  imageInBand,
  newSetWith,
  numberField,
  pickMaterial,
  pictureMean,
  pointAt,
  readAt,
  saved,
  seriousFindings,
  thing,
  typeFigure,
} from './bench.js';
import { test } from './servers.js';

/** Tasks of a working day, each from a new set, with products and kit of their own. */

const throughThings = (page: Page) => page.getByRole('region', { name: 'Overlaps' });
const background = (page: Page) => page.getByRole('tab', { name: 'Background' }).click();
const rowOfDesk = (page: Page, words: string) => page.getByTestId('ground-lights').getByText(words);

/** Points along a height of the picture until the spot mirrors a light or sheet. */
async function pointAtImageOf(page: Page, tag: string, down: number): Promise<void> {
  for (let across = 0.42; across < 0.6; across += 0.008) {
    await readAt(page, across, down);
    if (
      await page
        .getByTestId('part mirrored')
        .getByRole('img', { name: `tag ${tag}` })
        .count()
    )
      return;
  }
  throw new Error(`${tag} is mirrored nowhere at this height`);
}

test('two products stand side by side, each with its own place, in one step of undo each', {
  tag: '@more',
}, async ({ page }) => {
  await newSetWith(page, 'Jar with lid');
  await typeFigure(page, 'distance from centre', '12 cm');
  await typeFigure(page, 'position', '90 left');
  await addFromKit(page, 'Box with label');
  await typeFigure(page, 'distance from centre', '12 cm');
  await typeFigure(page, 'position', '80 right');
  await expect(numberField(page, 'position')).toHaveValue('80° right');
  await thing(page, 'product:jar').focus();
  await expect(numberField(page, 'position')).toHaveValue('90° left');
  // Either side of the picture shows its own product.
  await pointAt(page, 0.2, 0.7);
  await expect(page.getByRole('status').filter({ hasText: 'Jar with lid' })).toBeVisible();
  await pointAt(page, 0.8, 0.7);
  await expect(page.getByRole('status').filter({ hasText: 'Box with label' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await thing(page, 'product:box').focus();
  await expect(numberField(page, 'position')).not.toHaveValue('80° right');
  await saved(page);
});

test('a glare is lost; a power set before the cure is taken stays', { tag: '@more' }, async ({ page }) => {
  await newSetWith(page, 'Jar with lid');
  await pointAtImageOf(page, 'A', 0.49);
  await page.getByRole('button', { name: 'Lose this' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText(/^Lift A by/)).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'A a third of a stop down' }).click();
  await thing(page, 'light:A').focus();
  const power = await numberField(page, 'power').inputValue();
  await pointAtImageOf(page, 'A', 0.49);
  await page.getByRole('button', { name: 'Lose this' }).click();
  await dialog
    .getByRole('listitem')
    .filter({ hasText: /^Lift A by/ })
    .getByRole('button')
    .click();
  await expect(dialog).toHaveCount(0);
  await thing(page, 'light:A').focus();
  await expect(numberField(page, 'power')).toHaveValue(power);
});

test('a strip is given a fifth of polished metal, though it stood too high to be mirrored so wide', {
  tag: '@more',
}, async ({ page }) => {
  await newSetWith(page, 'Polished cylinder');
  await addFromKit(page, 'Strip 30 x 120');
  await expect(throughThings(page)).toHaveCount(0);
  await typeFigure(page, 'position', '70 left');
  await typeFigure(page, 'height above table', '40 cm');
  await typeFigure(page, 'aims at height', '9 cm');
  await expect.poll(() => imageInBand(page, 'B')).not.toBeNull();
  await page.getByRole('button', { name: 'What B makes' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('From, %').fill('60');
  await dialog.getByLabel('To, %').fill('80');
  await dialog.getByRole('button', { name: 'By moving' }).click();
  await expect(page.getByText(/B takes (19|20)\.\d % now/)).toBeVisible();
  await expect.poll(async () => Math.round((await imageInBand(page, 'B'))?.from ?? 0)).toBe(60);
  expect((await imageInBand(page, 'B'))?.to).toBeCloseTo(80, 0);
});

test('a white background: lights of its own stand clear, make it white and leave opaque products dark', {
  tag: '@more',
}, async ({ page }) => {
  await newSetWith(page, 'Box with label');
  await background(page);
  const verdict = page.getByTestId('ground-verdict');
  await expect(verdict).toContainText('Light grey');
  await page.getByRole('button', { name: 'Give the background lights of its own' }).click();
  await expect(verdict).toContainText(/^White/, { timeout: 60_000 });
  await expect(throughThings(page)).toHaveCount(0);
  await expect(rowOfDesk(page, 'C gives')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(verdict).toContainText('Light grey');
});

test('a white background behind clear products: it says that they cannot stay as they are', {
  tag: '@more',
}, async ({ page }) => {
  await newSetWith(page, 'Jar with lid');
  await background(page);
  await page.getByRole('button', { name: 'Give the background lights of its own' }).click();
  await expect(page.getByTestId('ground-lights')).toContainText('they cannot stay as they are', {
    timeout: 60_000,
  });
  await expect(page.getByRole('button', { name: 'Give the background lights of its own' })).toHaveCount(0);
});

test('dark on dark: the background falls with its distance, and the place is taken from the curve', {
  tag: '@more',
}, async ({ page }) => {
  await newSetWith(page, 'Polished cylinder');
  await thing(page, 'backdrop:').focus();
  const behind = async () => Number.parseFloat(await numberField(page, 'upright behind centre').inputValue());
  const before = await behind();
  await background(page);
  await expect(page.getByTestId('ground-verdict')).toContainText('grey');
  await page.getByLabel('try').selectOption('the background further back');
  await page.getByRole('button', { name: 'Work it out' }).click();
  const curve = page.getByTestId('curve');
  await expect(curve).toContainText(/black velvet|under the products/, { timeout: 60_000 });
  await curve.getByRole('button', { name: 'As a table' }).click();
  await curve.getByRole('button', { name: /^Take/ }).last().click();
  await expect.poll(behind).toBeGreaterThan(before + 5);
});

test('a glowing liquid: a white card behind it is what the liquid shows', { tag: '@more' }, async ({
  page,
}) => {
  await newSetWith(page, 'Round bottle with liquid');
  await addFromKit(page, 'White card 20 x 30');
  await typeFigure(page, 'position', 'behind');
  await typeFigure(page, 'distance from centre', '14 cm');
  await pointAt(page, 0.46, 0.32);
  await expect(page.getByTestId('part through').getByRole('img', { name: 'tag 1' })).toBeVisible();
});

test('f/16 at the same exposure: the sensitivity follows, tones stay', { tag: '@more' }, async ({ page }) => {
  await newSetWith(page, 'Round bottle with liquid');
  await page.getByRole('tab', { name: 'Exposure' }).click();
  const ground = page.getByTestId('spot background');
  await expect(ground).toContainText(/\d\.\d/);
  const before = Number.parseFloat((await ground.textContent())?.match(/[+−-]\d\.\d/)?.[0] ?? 'NaN');
  await page
    .getByRole('row', { name: /^f\/16 200/ })
    .getByRole('button', { name: 'Take' })
    .click();
  await expect(page.getByLabel('f-stop', { exact: true })).toContainText('f/16');
  await expect
    .poll(async () =>
      Math.abs(Number.parseFloat((await ground.textContent())?.match(/[+−-]\d\.\d/)?.[0] ?? '9') - before),
    )
    .toBeLessThan(0.15);
});

test('a pour is frozen by the power that the desk names, with a head that can', { tag: '@more' }, async ({
  page,
}) => {
  await newSetWith(page, 'Stemmed glass');
  await page.getByRole('tab', { name: 'Movement' }).click();
  await typeFigure(page, 'falls, from spout to where it is seen', '5 cm');
  await expect(page.getByText('0.99 m/s')).toBeVisible();
  await expect(page.getByText(/residual-current device/).first()).toBeVisible();
  // This head only gets slower as it is turned down.
  await page
    .getByText(/px · (smeared|flowing)$/)
    .last()
    .click();
  await expect(page.getByText(/It does not freeze this at any power/)).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('tab', { name: 'Plans' }).click();
  await thing(page, 'light:A').focus();
  await page.keyboard.press('Delete');
  await page.getByRole('tab', { name: 'Movement' }).click();
  await addFromKit(page, 'Speedlight, bare head');
  await page
    .getByText(/px · (smeared|just soft)$/)
    .last()
    .click();
  await page.getByRole('button', { name: 'Set it' }).click();
  await expect(page.getByText(/px · frozen$/)).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText(/px · frozen$/)).toHaveCount(0);
});

test('a card with a lens hole stands at the lens: the picture stays, the metal mirrors the card', {
  tag: '@more',
}, async ({ page }) => {
  await newSetWith(page, 'Polished cylinder');
  const before = await pictureMean(page);
  await addFromKit(page, 'Black card with lens hole');
  await expect.poll(() => imageInBand(page, '1')).not.toBeNull();
  // Nothing of the frame is cut off: only what the card shades gets darker.
  expect(await pictureMean(page)).toBeGreaterThan(0.8 * before);
  await expect(throughThings(page)).toHaveCount(0);
});

test('the window of the room is put where it is, with the sun on request', { tag: '@more' }, async ({
  page,
}) => {
  await newSetWith(page, 'Dish with heaped food');
  const before = await pictureMean(page);
  await page.getByRole('button', { name: 'Add' }).click();
  await page.getByRole('button', { name: 'Window of the room' }).click();
  await expect(page.getByRole('heading', { name: 'Window', exact: true })).toBeVisible();
  await expect(numberField(page, 'turned to')).toHaveValue('90° right');
  await expect(throughThings(page)).toHaveCount(0);
  await page.getByLabel('Sun through it').click();
  await expect(page.getByLabel('Sun through it')).toBeChecked();
  await typeFigure(page, 'power', '+4');
  await expect.poll(() => pictureMean(page)).toBeGreaterThan(before);
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByRole('button', { name: 'Window of the room' })).toHaveCount(0);
});

test('a window: the shutter is solved for a wanted tone', { tag: '@more' }, async ({ page }) => {
  await newSetWith(page, 'Dish with heaped food');
  await thing(page, 'light:A').focus();
  await page.keyboard.press('Delete');
  await addFromKit(page, 'Window, overcast');
  await page.getByRole('tab', { name: 'Exposure' }).click();
  await page.getByLabel('background, wanted').fill('+1');
  await page.getByLabel('background, wanted').press('Enter');
  await page.getByRole('combobox', { name: 'solve' }).selectOption('the shutter (window, lamps)');
  await page.getByRole('button', { name: /^Solve the shutter/ }).click();
  await page.getByRole('button', { name: /^Set/ }).first().click();
  await expect(page.getByTestId('spot background')).toContainText(/\+(0\.9|1\.0|1\.1)/);
});

test('a gradient by a lamp behind frost is found in the real set and stood there', { tag: '@more' }, async ({
  page,
}) => {
  await newSetWith(page, 'Round bottle with liquid');
  await addFromKit(page, 'Full frost 50 x 60');
  await addFromKit(page, 'Softbox 40 x 60');
  await thing(page, 'light:A').focus();
  const stood = await numberField(page, 'distance from centre').inputValue();
  await background(page);
  await page.getByRole('button', { name: 'Find the place' }).click();
  await page.getByRole('button', { name: 'Stand it there' }).click();
  await expect(numberField(page, 'distance from centre')).not.toHaveValue(stood);
  await expect(throughThings(page)).toHaveCount(0);
});

test('a ring in a tent mirrors the tent, and its surface says how much of it', { tag: '@more' }, async ({
  page,
}) => {
  await newSetWith(page, 'Signet ring');
  await addFromKit(page, 'Light tent 60');
  // It has no upright side for a band: areas of all that the lens sees of it.
  const mirrored = page.getByRole('region', { name: 'What it mirrors' });
  await expect(mirrored.getByRole('img', { name: 'tag 1' }).first()).toBeVisible();
  await expect(mirrored).toContainText(/[1-9]\d\.\d %/);
  await expect(page.getByText('Signet ring is out of focus')).toBeVisible();
  await page.getByTestId('focus-note').getByRole('button').click();
  await expect(page.getByText('Signet ring is out of focus')).toHaveCount(0);
});

test('background, table and room are things: pointed at, changed, taken off and put back, by keyboard too', {
  tag: '@more',
}, async ({ page }) => {
  await newSetWith(page, 'Box with label');
  const light = await pictureMean(page);
  await thing(page, 'backdrop:').focus();
  await expect(page.getByRole('heading', { name: 'Background', level: 2 })).toBeVisible();
  await page.getByRole('radio', { name: 'flat, upright' }).click();
  await expect(page.getByRole('radio', { name: 'flat, upright' })).toBeChecked();
  // Undo and redo are the document's while a radio has the keyboard: nothing is typed there.
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('radio', { name: 'paper bent up behind' })).toBeChecked();
  await page.keyboard.press('Control+Shift+z');
  await expect(page.getByRole('radio', { name: 'flat, upright' })).toBeChecked();
  await pickMaterial(page, 'material', 'Black velvet');
  await typeFigure(page, 'turned', '20 right');
  await expect(numberField(page, 'turned')).toHaveValue('20°');
  await expect.poll(() => pictureMean(page)).toBeLessThan(0.7 * light);
  // What is pointed at in the picture is selected.
  await pointAt(page, 0.9, 0.95);
  await expect(page.getByRole('heading', { name: 'Table' })).toBeVisible();
  await pointAt(page, 0.9, 0.05);
  await expect(page.getByRole('heading', { name: 'Background', level: 2 })).toBeVisible();
  // A material says what it goes on.
  await thing(page, 'backdrop:').focus();
  await page.keyboard.press('a');
  await page.getByLabel('Add: a name, or what it is for').fill('linen');
  await expect(page.getByText('Materials: what Background becomes')).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('combobox', { name: 'material' })).toContainText('Linen');
  await thing(page, 'backdrop:').focus();
  await page.keyboard.press('Delete');
  await expect(thing(page, 'backdrop:')).toHaveCount(0);
  // A new set stands in the room of the studio: taken off, it is put back by one press.
  await thing(page, 'room:').focus();
  await expect(page.getByRole('heading', { name: 'Room', level: 2 })).toBeVisible();
  await page.keyboard.press('Delete');
  await expect(thing(page, 'room:')).toHaveCount(0);
  await page.keyboard.press('a');
  await page.getByRole('button', { name: 'The room of the studio' }).click();
  await expect(thing(page, 'room:')).toBeVisible();
  await pickMaterial(page, 'walls', 'dark');
  expect(await seriousFindings(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Add' }).click();
  await page.getByRole('button', { name: 'Background', exact: true }).click();
  await expect(page.getByRole('radio', { name: 'paper bent up behind' })).toBeChecked();
  await saved(page);
});

test('anything is aimed anywhere: at a thing, as bearing and tilt, by its handle; it keeps its direction on request', {
  tag: '@more',
}, async ({ page }) => {
  await newSetWith(page, 'Box with label');
  await thing(page, 'light:A').focus();
  const faces = page.getByRole('combobox', { name: 'faces' });
  await faces.selectOption('parallel to the background');
  await expect(numberField(page, 'turned to')).toHaveValue('behind');
  await expect(numberField(page, 'tilted')).toHaveValue('level');
  expect(await seriousFindings(page)).toEqual([]);
  await typeFigure(page, 'tilted', '30 down');
  await typeFigure(page, 'turned to', '120 right');
  await expect(faces).toHaveValue('own');
  await typeFigure(page, 'tilted', '120 up');
  await expect(page.getByText('It goes from -90° to 90°.')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByLabel('Keeps its direction when moved').click();
  await expect(page.getByLabel('Keeps its direction when moved')).toBeChecked();
  await typeFigure(page, 'distance from centre', '95 cm');
  await expect(numberField(page, 'turned to')).toHaveValue('120° right');
  await expect(numberField(page, 'tilted')).toHaveValue('30° down');
  // The handle stays under the pointer and takes the light's direction along; the light stays.
  const handle = page.getByRole('group', { name: 'The set from above' }).locator('[data-aim="light:A"]');
  const box = await handle.boundingBox();
  if (!box) throw new Error('the handle is drawn');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 20, y - 20, { steps: 4 });
  await page.mouse.up();
  const off = async () => {
    const after = await handle.boundingBox();
    return Math.hypot((after?.x ?? 0) - box.x - 20, (after?.y ?? 0) - box.y + 20);
  };
  await expect.poll(off).toBeLessThan(8);
  await expect(numberField(page, 'distance from centre')).toHaveValue('95 cm');
  await expect(numberField(page, 'turned to')).not.toHaveValue('120° right');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(numberField(page, 'turned to')).toHaveValue('120° right');
  await handle.focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(numberField(page, 'turned to')).not.toHaveValue('120° right');
  // The camera is aimed beside the products the same way.
  await thing(page, 'camera:').focus();
  await expect(page.getByRole('heading', { name: 'Camera' })).toBeVisible();
  await typeFigure(page, 'turned to', '175 right');
  await expect(numberField(page, 'turned to')).toHaveValue('175° right');
});

test('a light is judged alone and switched off by one key each; nothing of it is traced or kept', async ({
  page,
}) => {
  await newSetWith(page, 'Box with label');
  await addFromKit(page, 'Softbox 60 x 90');
  await expect.poll(() => count(page, 'shown')).toBeGreaterThan(2);
  const both = await pictureMean(page);
  await thing(page, 'light:A').focus();
  await page.keyboard.press('o');
  await expect(page.getByText('Only A, as if all other light were off')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Only A' })).toHaveAttribute('aria-pressed', 'true');
  await expect.poll(() => pictureMean(page)).toBeLessThan(0.95 * both);
  await expect(page.getByLabel('B on')).toBeChecked();
  await page.keyboard.press('o');
  await expect.poll(() => pictureMean(page)).toBeGreaterThan(0.97 * both);
  await page.keyboard.press('u');
  await expect(page.getByLabel('A on')).not.toBeChecked();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByLabel('A on')).toBeChecked();
});

test('what is seen goes out as files, and a set comes back in by being dropped or chosen', async ({
  page,
}) => {
  await newSetWith(page, 'Round bottle');
  await expect.poll(() => count(page, 'samples'), { timeout: 60_000 }).toBeGreaterThanOrEqual(4);
  const given = async (item: string) => {
    await page.getByRole('button', { name: 'Export', exact: true }).click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name: item, exact: true }).click(),
    ]);
    return readFileSync(await download.path());
  };
  const png = await given('Picture, PNG of 16 bits');
  expect(png.toString('latin1', 1, 4)).toBe('PNG');
  expect(png[24]).toBe(16);
  // What is given out is the picture as it is by then, small at first: of the shape of the sensor it always is.
  const shape = (file: Buffer) => file.readUInt32BE(16) / file.readUInt32BE(20);
  expect(shape(png)).toBeCloseTo(1.5, 1);
  const eight = await given('Picture, PNG');
  expect(eight[24]).toBe(8);
  expect(shape(eight)).toBeCloseTo(1.5, 1);
  expect((await given('Picture, JPEG')).readUInt16BE(0)).toBe(0xffd8);
  expect((await given('Plan from above to scale, SVG')).toString()).toContain('Scale 1:');
  const text = (await given('Set with its takes, JSON')).toString();
  expect(JSON.parse(text)).toMatchObject({
    format: 'fendrix-set',
    products: [{ name: 'Round bottle with liquid' }],
  });

  const address = page.url();
  const drop = (content: string) =>
    page.evaluate((own) => {
      const data = new DataTransfer();
      data.items.add(new File([own], 'dropped.json', { type: 'application/json' }));
      for (const type of ['dragover', 'drop'])
        window.dispatchEvent(new DragEvent(type, { dataTransfer: data, cancelable: true }));
    }, content);
  await drop('{"format":"fendrix-set","version":1}');
  await expect(page.getByText(/“dropped.json” was not read/)).toBeVisible();
  expect(page.url()).toBe(address);
  await drop(text);
  await expect(page).not.toHaveURL(address);
  await expect(thing(page, 'product:round-bottle')).toBeVisible();

  await page.goto('/sets');
  const rows = page.getByRole('listitem');
  await expect(rows.first()).toBeVisible();
  const before = await rows.count();
  await page
    .getByLabel('Set files to read')
    .setInputFiles({ name: 'set.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  await expect(page).toHaveURL(/\/sets\/[0-9a-f-]{36}$/);
  await page.goto('/sets');
  await expect(rows).toHaveCount(Math.min(20, before + 1));
});

test('a bottle is filled with milk, chosen by name: nothing is seen through it any more; undo takes it back', {
  tag: '@more',
}, async ({ page }) => {
  await newSetWith(page, 'Round bottle with liquid');
  const seenThrough = page.getByTestId('part through');
  // Above the label, below where the liquid ends.
  await pointAt(page, 0.5, 0.3);
  await expect(seenThrough).toBeVisible();
  await pickMaterial(page, 'liquid', 'Milk');
  await expect(page.getByRole('combobox', { name: 'liquid' })).toHaveText('Milk');
  await pointAt(page, 0.51, 0.3);
  await expect(page.getByTestId('part own')).toBeVisible();
  await expect(seenThrough).toBeHidden();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('combobox', { name: 'liquid' })).not.toHaveText('Milk');
  await pointAt(page, 0.5, 0.3);
  await expect(seenThrough).toBeVisible();
});
