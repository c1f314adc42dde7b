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

export const status = (page: Page): Locator => page.getByTestId('picture-status');

export const count = async (page: Page, name: 'shown' | 'traced'): Promise<number> =>
  Number(await status(page).getAttribute(`data-${name}`));

/** A thing in the plan from above. */
export const thing = (page: Page, name: string): Locator =>
  page.getByRole('group', { name: 'The set from above' }).locator(`[data-thing="${name}"]`);

export const numberField = (page: Page, label: string): Locator => page.getByLabel(label, { exact: true });

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
