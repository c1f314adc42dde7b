import { expect, type Page } from '@playwright/test';
import { addFromKit, pickMaterial, saved, status, typeFigure } from './bench.js';
import { test } from './servers.js';

/**
 * Set-ups of the trade, each built by hand from a new set: by what is on the screen alone, without documents or files. A few
 * that have little in common are built at every test; all of them by `npm run test:setups`.
 */
const ALWAYS = new Set(['U15']);

const side = (page: Page) => page.getByRole('region', { name: 'On the set' });

/** A new set with its first picture there and nothing on it but table, background, room and camera. */
async function emptySet(page: Page): Promise<void> {
  await page.goto('/sets');
  await page.getByRole('button', { name: 'New set', exact: true }).click();
  await expect(status(page)).not.toHaveAttribute('data-shown', '0');
  for (const name of ['Gloss cylinder', /^tag A /]) {
    await take(page, name);
    await page.keyboard.press('Delete');
  }
}

/** Escape leaves a field, then what is selected. */
async function letGo(page: Page): Promise<void> {
  await expect(async () => {
    await page.keyboard.press('Escape');
    await expect(side(page)).toBeVisible({ timeout: 300 });
  }).toPass();
}

/** Takes hold of a thing by its row at the side, by keyboard. */
async function take(page: Page, name: string | RegExp): Promise<void> {
  await letGo(page);
  const row = side(page).getByRole('button', { name, exact: typeof name === 'string' });
  await row.focus();
  await page.keyboard.press('Enter');
  await expect(side(page)).toBeHidden();
}

/** A product of a usual form, by its measures. */
async function measure(page: Page, form: string, measures: Record<string, string> = {}): Promise<void> {
  await page.keyboard.press('Escape');
  await page.keyboard.press('a');
  await page.getByRole('button', { name: 'By measures' }).press('Enter');
  const dialog = page.getByRole('dialog', { name: 'A product by its measures' });
  await dialog.getByRole('radio', { name: form, exact: true }).press('Space');
  for (const [label, value] of Object.entries(measures)) {
    await dialog.getByLabel(label, { exact: true }).fill(value);
    await page.keyboard.press('Enter');
  }
  await dialog.getByRole('button', { name: 'Put it on the set' }).press('Enter');
  await expect(dialog).toBeHidden();
}

async function addPerson(page: Page): Promise<void> {
  await letGo(page);
  await page.keyboard.press('a');
  await press(page, 'A person');
}

/** Something of the kit at a bearing and a distance, and a height where it is given. */
async function stand(
  page: Page,
  entry: string,
  bearing: string,
  distance: string,
  height?: string,
): Promise<void> {
  await addFromKit(page, entry);
  await typeFigure(page, 'distance from centre', distance);
  await typeFigure(page, 'position', bearing);
  if (height) await typeFigure(page, 'height above table', height);
}

const press = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).press('Enter');
const across = (page: Page) => press(page, 'Put the same on the other side');
const choose = (page: Page, label: string, words: string) =>
  page.getByLabel(label, { exact: true }).selectOption(words);

/** The camera over the table, looking straight down. */
async function lookDown(page: Page): Promise<void> {
  await take(page, 'Camera');
  await typeFigure(page, 'height above table', '95 cm');
  await typeFigure(page, 'distance from centre', '1 cm');
  await typeFigure(page, 'aims at height', '0 cm');
}

interface SetUp {
  name: string;
  build(page: Page): Promise<void>;
  /** What then stands on the set, by tag or name. */
  has: readonly string[];
}

const SET_UPS: readonly SetUp[] = [
  {
    name: 'U1 a shiny can between two gradient cards under a gridded light, with a card round the lens',
    build: async (page) => {
      await measure(page, 'Drinks can');
      await stand(page, 'Standard dish 18 with 20° grid', '10 left', '30 cm', '70 cm');
      await stand(page, 'Printed gradient 20 x 30', '65 left', '14 cm');
      await across(page);
      await addFromKit(page, 'Black card with lens hole');
    },
    has: ['Drinks can', 'A', '1', '2', '3'],
  },
  {
    name: 'U2 a ring in a cone round the lens with two cheap lamps, and the self-timer',
    build: async (page) => {
      await measure(page, 'Ring');
      await addFromKit(page, 'Paper cone to the lens');
      await stand(page, 'LED floodlight 30 W', '80 left', '40 cm');
      await across(page);
      await take(page, 'Camera');
      await choose(page, 'released', 'self-timer');
    },
    has: ['Ring', '1', 'A', 'B'],
  },
  {
    name: 'U3 a bottle without a table: two strips, one through frost, a polarised spot on the label; takes',
    build: async (page) => {
      await addFromKit(page, 'Round bottle with liquid');
      await take(page, 'Table');
      await press(page, 'Remove from the set');
      await take(page, 'Background');
      await page.getByRole('radio', { name: 'flat, upright' }).click();
      await typeFigure(page, 'behind centre', '1 m');
      await stand(page, 'Strip 30 x 120', '100 left', '70 cm');
      await across(page);
      await page.keyboard.press('k');
      await stand(page, 'Full frost 50 x 60', '90 left', '35 cm');
      await stand(page, 'Standard dish 18 with 20° grid', '20 right', '60 cm', '40 cm');
      await page.keyboard.press('k');
    },
    has: ['Round bottle with liquid', 'A', 'B', 'C', '1'],
  },
  {
    name: 'U4 cups and a polished pot in a found place: a lamp, a ring light, a flag against a glare',
    build: async (page) => {
      await measure(page, 'Cup');
      await typeFigure(page, 'position', '90 left');
      await typeFigure(page, 'distance from centre', '10 cm');
      await measure(page, 'Jug');
      await pickMaterial(page, 'material', 'Polished steel');
      await stand(page, 'Table lamp with shade', '140 right', '60 cm');
      await addFromKit(page, 'Ring flash');
      await stand(page, 'Black flag 20 x 30', '100 right', '30 cm');
      await page.getByRole('button', { name: 'Only A' }).press('Enter');
    },
    has: ['Cup', 'Jug', 'A', 'B', '1'],
  },
  {
    name: 'U5 a row of jars before a mirror, with who works there',
    build: async (page) => {
      for (const [bearing, distance] of [
        ['90 left', '12 cm'],
        ['front', '0 cm'],
        ['90 right', '12 cm'],
      ] as const) {
        await measure(page, 'Jar', { width: '60', height: '80' });
        await typeFigure(page, 'distance from centre', distance);
        await typeFigure(page, 'position', bearing);
      }
      await take(page, 'Background');
      await page.getByRole('radio', { name: 'flat, upright' }).click();
      await pickMaterial(page, 'material', 'Mirror');
      await addPerson(page);
      await stand(page, 'Softbox 40 x 60', '60 left', '60 cm');
    },
    has: ['A', 'Person'],
  },
  {
    name: 'U6 a bottle by a window that fades, between two white cards',
    build: async (page) => {
      await addFromKit(page, 'Round bottle with liquid');
      await addFromKit(page, 'Window, overcast');
      await typeFigure(page, 'daylight changes by', '-0.5');
      await stand(page, 'White card 20 x 30', '80 right', '25 cm');
      await across(page);
    },
    has: ['Round bottle with liquid', 'A', '1', '2'],
  },
  {
    name: 'U7 a table of food from straight above',
    build: async (page) => {
      await measure(page, 'Plate');
      await addFromKit(page, 'Scattered berries');
      await stand(page, 'Softbox 60 x 90', '120 left', '80 cm', '60 cm');
      await lookDown(page);
    },
    has: ['Plate', 'Scattered berries', 'A'],
  },
  {
    name: 'U8 a jar in a light tent, with a black card round the lens',
    build: async (page) => {
      await addFromKit(page, 'Jar with lid');
      await addFromKit(page, 'Light tent 60');
      await stand(page, 'Softbox 60 x 90', '90 left', '80 cm');
      await across(page);
      await addFromKit(page, 'Black card with lens hole');
    },
    has: ['Jar with lid', '1', 'A', 'B', '2'],
  },
  {
    name: 'U9 black on black under a softbox, with a card under its chin and gradients at its edges',
    build: async (page) => {
      await measure(page, 'Tin');
      await pickMaterial(page, 'material', 'Matte black paint');
      await take(page, 'Background');
      await pickMaterial(page, 'material', 'Black velvet');
      await addFromKit(page, 'Softbox 60 x 90 overhead');
      await stand(page, 'White card 20 x 30', 'front', '20 cm', '3 cm');
      await typeFigure(page, 'tilted', '60 up');
      await stand(page, 'Printed gradient 20 x 30', '100 left', '15 cm');
      await across(page);
    },
    has: ['Tin', 'A', '1', '2', '3'],
  },
  {
    name: 'U10 one product from three heights, each a take',
    build: async (page) => {
      await measure(page, 'Pump bottle');
      await stand(page, 'Softbox 40 x 60', '50 left', '60 cm');
      for (const height of ['10 cm', '40 cm', '80 cm']) {
        await take(page, 'Camera');
        await typeFigure(page, 'height above table', height);
        await page.keyboard.press('k');
      }
    },
    has: ['Pump bottle', 'A'],
  },
  {
    name: 'U11 a mirroring bowl among folded boards under a roof, with camera and stands counted in',
    build: async (page) => {
      await measure(page, 'Bowl');
      await pickMaterial(page, 'material', 'Chrome');
      await stand(page, 'Folded V of white board', '70 left', '40 cm');
      await across(page);
      await addFromKit(page, 'Frost roof 60 x 60');
      await stand(page, 'Standard dish 18', 'behind', '10 cm', '110 cm');
      await take(page, 'Camera');
      await page.getByLabel('Mirrors and shades, with tripod').press('Space');
    },
    has: ['Bowl', '1', '2', '3', 'A'],
  },
  {
    name: 'U12 dark and moody: two flags keep the light off wall and table, velvet on the far side',
    build: async (page) => {
      await addFromKit(page, 'Round bottle with liquid');
      await stand(page, 'Strip 30 x 120 with grid', '100 left', '60 cm');
      await page.keyboard.press('Escape');
      await page.getByRole('tab', { name: 'Background' }).press('Enter');
      await press(page, 'Put the flags there');
      await stand(page, 'Velvet flag 50 x 70', '90 right', '40 cm');
    },
    has: ['Round bottle with liquid', 'A', '1', '2', '3'],
  },
  {
    name: 'U13 a dessert with one weak lamp from the back, foil in front',
    build: async (page) => {
      await addFromKit(page, 'Dish with heaped food');
      await stand(page, 'LED panel 30 x 20', '150 left', '50 cm', '35 cm');
      await stand(page, 'Crumpled foil 15 x 20', '30 right', '22 cm');
      await page.getByLabel('Shutter').first().selectOption('1/4');
    },
    has: ['Dish with heaped food', 'A', '1'],
  },
  {
    name: 'U14 a pour: who pours stands aside, the flash freezes it, liquid near electricity is minded',
    build: async (page) => {
      await measure(page, 'Bowl');
      await stand(page, 'Speedlight, bare head', '120 right', '50 cm', '40 cm');
      await addPerson(page);
      await typeFigure(page, 'position', '90 right');
      await page.keyboard.press('Escape');
      await page.getByRole('tab', { name: 'Movement' }).press('Enter');
      await page.getByLabel('what moves').selectOption('pour');
    },
    has: ['Bowl', 'A', 'Person'],
  },
  {
    name: 'U15 a watch on a mirror under a large sheet, with a disc of light on the background and water before it',
    build: async (page) => {
      await measure(page, 'Watch head');
      await stand(page, 'White acrylic 3 mm, 50 x 50', 'behind', '5 cm', '45 cm');
      await choose(page, 'faces', 'the nearest product');
      await stand(page, 'LED panel 30 x 20', 'behind', '8 cm', '75 cm');
      await stand(page, 'Mirror 5 x 8', 'front', '12 cm', '2 cm');
      await stand(page, 'Standard dish 18 with 20° grid', '120 right', '60 cm', '20 cm');
      await typeFigure(page, 'turned to', '170 left');
      await addFromKit(page, 'Tray of water');
      await take(page, 'Table');
      await pickMaterial(page, 'material', 'Mirror');
    },
    has: ['Watch head', 'Tray of water', 'A', 'B', '1', '2'],
  },
  {
    name: 'U16 a lifestyle picture: a pattern of leaves, soft against hard, and a hand',
    build: async (page) => {
      await measure(page, 'Tumbler');
      await stand(page, 'Projecting spot, leaves', '100 left', '120 cm', '60 cm');
      await stand(page, 'Octa 90', '40 right', '100 cm', '60 cm');
      await addPerson(page);
    },
    has: ['Tumbler', 'A', 'B', 'Person'],
  },
  {
    name: 'U17 a garment laid flat, raked from the side',
    build: async (page) => {
      await measure(page, 'Garment, laid flat');
      await stand(page, 'Strip 30 x 120', '90 left', '90 cm', '18 cm');
      await stand(page, 'White board 50 x 70', '90 right', '70 cm');
      await lookDown(page);
    },
    has: ['Garment, laid flat', 'A', '1'],
  },
  {
    name: 'U18 a drink: key in front, two lights behind, a softbox straight behind, a reflector cut to shape',
    build: async (page) => {
      await measure(page, 'Tumbler');
      await press(page, 'Put a reflector cut to its shape behind it');
      await expect(page.getByRole('heading', { name: 'Reflector cut to shape' })).toBeVisible();
      await stand(page, 'Softbox 40 x 60', '40 left', '60 cm');
      await stand(page, 'Strip 30 x 120', '140 left', '60 cm');
      await across(page);
      await stand(page, 'Softbox 40 x 60', 'behind', '70 cm');
    },
    has: ['Tumbler', '1', 'A', 'B', 'C', 'D'],
  },
  {
    name: 'U19 very cheap: a builder’s lamp through baking paper, black boards, and the heat is minded',
    build: async (page) => {
      await measure(page, 'Box');
      await stand(page, 'Builder’s lamp 150 W, halogen', '70 left', '80 cm', '40 cm');
      await stand(page, 'Two sheets of baking paper 38 x 50', '70 left', '40 cm');
      await stand(page, 'Velvet flag 50 x 70', '90 right', '40 cm');
      await page.keyboard.press('Escape');
      await expect(page.getByRole('region', { name: 'Cautions' })).toContainText(/hot|heat/i);
    },
    has: ['Box', 'A', '1', '2'],
  },
  {
    name: 'U20 a dark table from straight above, one octa at the side, a branch before it, black and white cards',
    build: async (page) => {
      await addFromKit(page, 'Dish with heaped food');
      await take(page, 'Table');
      await pickMaterial(page, 'material', 'Dark walnut');
      await take(page, 'Background');
      await press(page, 'Remove from the set');
      await stand(page, 'Octa 90', '120 left', '90 cm', '60 cm');
      await stand(page, 'Branch with leaves', '120 left', '45 cm', '35 cm');
      await stand(page, 'White card 20 x 30', '60 right', '35 cm');
      await stand(page, 'Black flag 20 x 30', '120 right', '35 cm');
      await lookDown(page);
    },
    has: ['Dish with heaped food', 'A', '1', '2', '3'],
  },
  {
    name: 'U21 a watch three ways: strip, modelling lamp, table lamp, each a take',
    build: async (page) => {
      await measure(page, 'Watch head');
      await stand(page, 'Strip 30 x 120', '60 left', '60 cm');
      await page.keyboard.press('k');
      for (const entry of ['LED lamp in a softbox 60 x 60', 'Table lamp with shade']) {
        await page.keyboard.press('Delete');
        await stand(page, entry, '60 left', '60 cm');
        await page.keyboard.press('k');
      }
    },
    has: ['Watch head', 'A'],
  },
  {
    name: 'U22 a chain that hangs, and a ring on a mirror with water, white boards round the lens hole',
    build: async (page) => {
      await measure(page, 'Chain');
      await typeFigure(page, 'lifted by', '15 cm');
      await measure(page, 'Ring');
      await addFromKit(page, 'Tray of water');
      await take(page, 'Table');
      await pickMaterial(page, 'material', 'Mirror');
      await stand(page, 'White board 50 x 70', '90 left', '40 cm');
      await across(page);
      await addFromKit(page, 'Black card with lens hole');
      await pickMaterial(page, 'front', 'White paper');
    },
    has: ['Chain', 'Ring', 'Tray of water', '1', '2', '3'],
  },
];

for (const { name, build, has } of SET_UPS) {
  test(name, { tag: ALWAYS.has(name.split(' ')[0] ?? '') ? [] : ['@more'] }, async ({ page }) => {
    await emptySet(page);
    await build(page);
    await letGo(page);
    const rows = side(page);
    for (const own of has) {
      const name = own.length < 3 ? new RegExp(`^tag ${own} `) : own;
      await expect(rows.getByRole('button', { name }).first()).toBeVisible();
    }
    await saved(page);
  });
}
