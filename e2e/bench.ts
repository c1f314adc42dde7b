import AxeBuilder from '@axe-core/playwright';
import { expect, type Locator, type Page } from '@playwright/test';

/** The bench of a fresh copy of a demo set, found by words of its name, with its first picture there. */
export async function openCopy(page: Page, words: string): Promise<string> {
  const list = await page.request.get(`/api/sets?search=${encodeURIComponent(words)}&limit=100`);
  const { sets } = (await list.json()) as { sets: { id: string; name: string }[] };
  const read = await page.request.get(`/api/sets/${sets.at(-1)?.id}`);
  const { document } = (await read.json()) as { document: Record<string, unknown> };
  const made = await page.request.post('/api/sets', {
    data: { document: { ...document, name: `Trial ${Date.now()}` } },
  });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`/sets/${id}`);
  await expect(status(page)).not.toHaveAttribute('data-shown', '0');
  return id;
}

/** The same of the set that is opened first. */
export const openBench = (page: Page): Promise<string> => openCopy(page, 'Damson cordial, one soft light');

/** A new set with its first picture there, and another product in the place of its cylinder. */
export async function newSetWith(page: Page, product: string): Promise<void> {
  await page.goto('/sets');
  await page.getByRole('button', { name: 'New set', exact: true }).click();
  await expect(status(page)).not.toHaveAttribute('data-shown', '0');
  await thing(page, 'product:cylinder').focus();
  await page.keyboard.press('Delete');
  await addFromKit(page, product);
}

/** Puts the first that the kit finds on the set, by keyboard alone; it is selected then. */
export async function addFromKit(page: Page, words: string): Promise<void> {
  await page.keyboard.press('Escape');
  await page.keyboard.press('a');
  const search = page.getByLabel('Add: a name, or what it is for');
  await search.fill(words);
  await expect(page.getByRole('button', { name: words }).first()).toBeVisible();
  await search.press('Enter');
  await expect(search).toBeHidden();
  await expect(page.getByRole('heading', { name: words })).toBeVisible();
}

/** Types a figure and sets it. */
export async function typeFigure(page: Page, label: string, value: string): Promise<void> {
  const field = numberField(page, label);
  await field.fill(value);
  await field.press('Enter');
}

/** Clicks at parts of the lens view's width and height. */
export async function pointAt(page: Page, across: number, down: number): Promise<void> {
  const box = await page.getByTestId('lens').boundingBox();
  if (!box) throw new Error('the lens view is drawn');
  await page.mouse.click(box.x + across * box.width, box.y + down * box.height);
}

/** The same, until the light of that place has been read. */
export async function readAt(page: Page, across: number, down: number): Promise<void> {
  const spot = page.getByRole('region', { name: 'This spot' });
  const before = (await spot.count()) > 0 ? await spot.getAttribute('data-at') : null;
  await pointAt(page, across, down);
  await expect(spot).not.toHaveAttribute('data-at', before ?? '');
  await expect(spot.getByTestId('pick-stops')).toBeVisible();
}

/** Lets the page draw so many frames. */
export const frames = (page: Page, count: number): Promise<void> =>
  page.evaluate(async (many) => {
    for (let i = 0; i < many; i++) await new Promise((drawn) => requestAnimationFrame(drawn));
  }, count);

/** Until all that the open tab of the desk shows has been fetched and read. */
export async function deskAtRest(page: Page): Promise<void> {
  await expect(page.getByLabel('Being fetched')).toHaveCount(0);
  await expect(page.getByText('Being read', { exact: true })).toHaveCount(0);
}

/** Ends of the first image of a tag in the mirror band, percent of the width. */
export async function imageInBand(page: Page, tag: string): Promise<{ from: number; to: number } | null> {
  const items = await page.getByTestId('band').locator('li').allTextContents();
  for (const words of items) {
    const match = new RegExp(`^${tag} (?:from behind )?([\\d.]+) to ([\\d.]+) %`).exec(words);
    if (match) return { from: Number(match[1]), to: Number(match[2]) };
  }
  return null;
}

export const status = (page: Page): Locator => page.getByTestId('picture-status');

export const count = async (page: Page, name: 'shown' | 'traced' | 'samples'): Promise<number> =>
  Number(await status(page).getAttribute(`data-${name}`));

/** A thing in the plan from above. */
export const thing = (page: Page, name: string): Locator =>
  page.getByRole('group', { name: 'The set from above' }).locator(`[data-thing="${name}"]`);

export const numberField = (page: Page, label: string): Locator => page.getByLabel(label, { exact: true });

/** What a field shows once it has stopped changing: on a busy machine it follows the hand a little later. */
export async function valueAtRest(field: Locator): Promise<string> {
  let shown = '';
  const comesToRest = async () => {
    const before = shown;
    shown = await field.inputValue();
    return shown === before;
  };
  await expect.poll(comesToRest, { intervals: [700] }).toBe(true);
  return shown;
}

export const saved = (page: Page): Promise<void> =>
  expect(page.getByTestId('save-state')).toHaveText('saved');

/** Mean of the picture's red, green and blue, 0 to 255. */
export function pictureMean(page: Page): Promise<number> {
  return page.getByRole('img', { name: 'Picture as the camera would record it' }).evaluate((element) => {
    const canvas = element as HTMLCanvasElement;
    const data = canvas.getContext('2d')?.getImageData(0, 0, canvas.width, canvas.height).data ?? [];
    let sum = 0;
    for (let i = 0; i < data.length; i += 4)
      sum += Number(data[i]) + Number(data[i + 1]) + Number(data[i + 2]);
    return sum / (data.length * 0.75);
  });
}

/**
 * What axe finds serious on the page as it is, each with the element. The pages have no frames: run in the page itself, without a
 * blank one for the report, axe takes 4.5 s of the largest table where it took 22.
 */
export async function seriousFindings(page: Page): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page })
    .setLegacyMode()
    .options({ resultTypes: ['violations'] })
    .analyze();
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' ')}`);
}

/** Takes a material from its list, by keyboard. */
export async function pickMaterial(page: Page, label: string, name: string): Promise<void> {
  await page.getByRole('combobox', { name: label, exact: true }).press('Enter');
  await page.getByRole('option', { name, exact: true }).press('Enter');
  await expect(page.getByRole('listbox')).toBeHidden();
}
