import type { SetDocument, Vector } from '@fendrix/contract';
import {
  aimFacing,
  fromStand,
  parseBearingDeg,
  parseLengthM,
  parsePower,
  parseTiltDeg,
  planDrawing,
  prepareTracing,
  spotReading,
  type Tolerance,
  traceSpot,
} from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import { setSheetWords, sheetMarks } from '@fendrix/words';
import { describe, expect, test } from 'vitest';
import { type Paper, planSvg, plansPdf, setSheetPdf } from '../src/index.js';
import { runsOf, tableOf } from './printed.js';

/** A grey picture of one pixel, PNG. */
const PICTURE = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGNoAAAAggCBd81ytgAAAABJRU5ErkJggg==',
  'base64',
);
const tolerances: Tolerance[] = [
  {
    thing: { kind: 'light', key: 'A' },
    way: 'out',
    most: 0.0321,
    isBound: false,
    limit: { kind: 'spot', name: 'label' },
  },
  { thing: { kind: 'camera', key: '' }, way: 'up', most: null, isBound: false, limit: null },
];

const sheetOf = (set: SetDocument, paper: Paper = 'A4', link?: string) =>
  setSheetPdf(
    {
      words: setSheetWords(set, {
        spots: set.spots.map((spot) => spotReading(set, traceSpot(prepareTracing(set), spot, 64, 1))),
        tolerances,
        marks: sheetMarks(set),
      }),
      above: planDrawing('above', set),
      side: planDrawing('side', set),
      picture: { data: PICTURE, aspect: 1.5 },
      link,
      foot: 'Version 3 of 1 May 2026',
    },
    paper,
  );

/** A set as someone builds it who has nothing but the sheet: places, aims and powers as they are printed. */
function rebuilt(set: SetDocument, rows: readonly Record<string, string>[]): SetDocument {
  const rowOf = (begin: string) => {
    const row = rows.find(({ Thing = '' }) => Thing === begin || Thing.startsWith(`${begin}:`));
    if (!row) throw new Error(`${begin} is not on the sheet`);
    return row;
  };
  const figure = (value: number | null): number => {
    if (value === null) throw new Error('a figure cannot be read');
    return value;
  };
  const placeOf = ({ Stands = '', Height = '' }: Record<string, string>): Vector => {
    const [distance = '', bearing = ''] = Stands.split(', ');
    return fromStand({
      distanceM: figure(parseLengthM(distance)),
      bearingDeg: figure(parseBearingDeg(bearing)),
      heightM: figure(parseLengthM(Height)),
    });
  };
  const stood = <T extends { positionM?: unknown; aimM?: unknown }>(thing: T, begin: string): T => {
    const row = rowOf(begin);
    const positionM = placeOf(row);
    if (!('aimM' in thing)) return { ...thing, positionM };
    const [bearing = '', tilt = ''] = (row.Faces ?? '').split(', ');
    const facing = {
      bearingDeg: figure(parseBearingDeg(bearing)),
      tiltDeg: figure(parseTiltDeg(tilt)),
      distanceM: 1,
    };
    return { ...thing, positionM, aimM: aimFacing(positionM, facing) };
  };
  return {
    ...set,
    lights: set.lights.map((light) => {
      if (light.kind === 'surround' || light.kind === 'window') return light;
      const power = /Power (full|1\/\d+(?: [−+]\d+(?:\.\d+)?)?)/.exec(rowOf(light.tag)['Set to'] ?? '')?.[1];
      const stoodLight = stood(light, light.tag);
      return power ? { ...stoodLight, powerStops: figure(parsePower(power, light)) } : stoodLight;
    }),
    sheets: set.sheets.map((sheet) => stood(sheet, sheet.tag)),
    products: set.products.map((product) => ({ ...product, positionM: placeOf(rowOf(product.name)) })),
  };
}

describe('set sheets', () => {
  for (const [name, tags] of [
    ['cordial', ['more']],
    ['mill', ['more']],
    ['tart', ['more']],
  ] as const)
    test(`${name}, built again from its printed figures alone, has the same tones at its spots`, {
      tags: [...tags],
    }, async () => {
      const set = demoSet(name);
      const { pages, runs } = await runsOf(await sheetOf(set));
      expect(pages).toBe(2);
      const again = rebuilt(set, tableOf(runs));
      const tones = (of: SetDocument) =>
        of.spots.map((spot) => spotReading(of, traceSpot(prepareTracing(of), spot, 2048, 7)));
      const [before, after] = [tones(set), tones(again)];
      expect(before.length).toBeGreaterThan(1);
      before.forEach(({ illuminanceLx, flashExposureLxS }, i) => {
        const light = illuminanceLx * set.camera.shutterS + flashExposureLxS;
        const own = after[i];
        const now = (own?.illuminanceLx ?? 0) * set.camera.shutterS + (own?.flashExposureLxS ?? 0);
        expect(Math.abs(Math.log2(now / light))).toBeLessThan(0.1);
      });
    });

  test('built with a figure off, it has not', async () => {
    const set = demoSet('cordial');
    const rows = tableOf((await runsOf(await sheetOf(set))).runs);
    const wrong = rows.map((row) =>
      row.Thing?.startsWith('A:') ? { ...row, Stands: '90 cm, 72.1° left' } : row,
    );
    const [spot] = set.spots;
    if (!spot) throw new Error('the demo has spots');
    const at = (of: SetDocument) =>
      spotReading(of, traceSpot(prepareTracing(of), spot, 1024, 7)).flashExposureLxS;
    expect(Math.abs(Math.log2(at(rebuilt(set, wrong)) / at(set)))).toBeGreaterThan(0.1);
  });

  test.each(['A4', 'Letter'] as const)(
    '%s: text is text, its typeface comes with it, nothing in colour',
    async (paper) => {
      const set = demoSet('cordial');
      const pdf = await sheetOf(set, paper, 'http://127.0.0.1:4280/sets/1');
      const raw = Buffer.from(pdf).toString('latin1');
      const size = /MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/.exec(raw);
      const mm = [Number(size?.[1]), Number(size?.[2])].map((points) => (points / 72) * 25.4);
      expect(mm.map(Math.round)).toEqual(paper === 'A4' ? [210, 297] : [216, 279]);
      expect(raw).toMatch(/FontFile/);
      expect(raw).not.toMatch(/BaseFont \/Helvetica/);
      const { runs } = await runsOf(pdf);
      const text = runs.map((run) => run.text).join(' ');
      for (const words of [
        set.name,
        'From above',
        'Scale 1:',
        'distance 3.2 cm',
        'Order of building',
        'Local codes',
      ])
        expect(text).toContain(words);
      expect(text).toContain('then “label” has changed by a tenth of a stop');
      expect(text).not.toMatch(/undefined|NaN|null/);
    },
  );

  test('a set with nothing on it still gives a sheet', async () => {
    const set = {
      ...demoSet('cordial'),
      products: [],
      lights: [],
      sheets: [],
      spots: [],
      bench: undefined,
      backdrop: undefined,
    };
    const { runs } = await runsOf(await sheetOf(set as unknown as SetDocument));
    expect(runs.map(({ text }) => text).join(' ')).toContain('Camera, 100 mm');
  });
});

describe('plans to scale', () => {
  test('a metre of the set is as long on paper as the scale says', () => {
    const set = demoSet('cordial');
    const drawing = planDrawing('above', set);
    const { svg, scale } = planSvg(drawing, set.name);
    const table = drawing.outlines.findIndex(({ of }) => of === 'table');
    const path = /d="M([^"]+) Z"/.exec(svg.split('<path')[table + 1] ?? '')?.[1] ?? '';
    const across = path.split(' L').map((corner) => Number(corner.split(' ')[0]));
    const widthMm = Math.max(...across) - Math.min(...across);
    expect(widthMm).toBeCloseTo((1000 * (set.bench?.widthM ?? 0)) / scale, 1);
    expect(svg).toMatch(/width="[\d.]+mm"/);
  });

  test('names are no markup', () => {
    const drawing = planDrawing('side', demoSet('mill'));
    expect(planSvg(drawing, '<script>"&').svg).not.toContain('<script>');
  });
});

test('plans alone: a page each at one scale, the largest that the paper has room for', async () => {
  const set = demoSet('vinegar');
  const plans = (['above', 'side'] as const).map((kind) => ({
    title: kind,
    drawing: planDrawing(kind, set),
  }));
  const scales = await Promise.all(
    (['A4', 'Letter'] as const).map(async (paper) => {
      const { runs } = await runsOf(await plansPdf(set.name, plans, 'Version 1', paper));
      const text = runs.map(({ text: own }) => own).join(' ');
      expect(text).toContain('Page 2 of 2');
      for (const { tag } of set.lights) expect(text.split(/\s+/)).toContain(tag);
      const found = [...text.matchAll(/Scale 1:(\d+)/g)].map(([, scale]) => Number(scale));
      expect(found).toHaveLength(2);
      expect(new Set(found).size).toBe(1);
      return found[0] as number;
    }),
  );
  for (const scale of scales) {
    for (const { drawing } of plans) {
      const wideMm = (1000 * (drawing.high[0] - drawing.low[0])) / scale;
      expect(wideMm).toBeLessThan(216);
    }
  }
});
