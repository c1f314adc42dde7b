import { type SetDocument, type SetDocumentInput, setDocument } from '@fendrix/contract';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { mirrorBand, mirrorMapTile, prepareTracing, renderTile } from '../src/index.js';
import { anyOf, kindsOf, schemaOf } from './anyDocument.js';
import { matte, overheadSoftbox, testSet } from './sets.js';

/** Runs of each kind, at every test and in `npm run test:more`. */
const [FEW, MANY] = [3, 40];

/** A lit set with a card and a box, for the thing under test to stand in. */
const stage = {
  lights: [overheadSoftbox(0.6, { tag: 'Z' })],
  sheets: [
    {
      kind: 'card' as const,
      tag: '9',
      name: 'card',
      positionM: [0.3, 0, 0.2] as [number, number, number],
      aimM: [0, 0, 0.1] as [number, number, number],
      widthM: 0.3,
      heightM: 0.4,
      front: matte(0.85),
      back: matte(0.04),
    },
  ],
  products: [
    {
      kind: 'box' as const,
      id: 'box',
      name: 'box',
      positionM: [0, 0, 0] as [number, number, number],
      widthM: 0.1,
      depthM: 0.1,
      heightM: 0.1,
      material: { kind: 'coated' as const, reflectance: 0.3 },
    },
  ],
};

/** Mends what ties fields together, where a schema cannot say it. */
function mended(thing: Record<string, unknown>): Record<string, unknown> {
  const made = { ...thing };
  const front = made.front as { kind: string } | undefined;
  const back = made.back as { kind: string } | undefined;
  const passes = (side?: { kind: string }) => side?.kind === 'translucent' || side?.kind === 'net';
  if (passes(front)) made.back = front;
  else if (passes(back)) made.front = back;
  for (const side of [made.front, made.back, made.material] as (Record<string, unknown> | undefined)[]) {
    if (side?.kind === 'translucent') side.transmittance = 0.4;
    if (side?.kind === 'translucent') side.reflectance = 0.5;
  }
  if (made.powerStops !== undefined) made.powerStops = 0;
  if (!JSON.stringify(made.output ?? '').includes('flash')) delete made.modelling;
  const table = made.distribution as
    | { verticalDeg: number[]; horizontalDeg: number[]; candela: number[][] }
    | undefined;
  if (table) {
    table.verticalDeg = table.verticalDeg.map((angle, i) => 7 * i + (i === 0 ? 0 : angle / 100));
    table.horizontalDeg = table.horizontalDeg.map((angle, i) => 90 * i + (i === 0 ? 0 : angle / 100));
    const value = table.candela.flat()[0] ?? 0;
    table.candela = table.horizontalDeg.map((_, row) =>
      table.verticalDeg.map((_, i) => 1 + value / (1 + row + i)),
    );
  }
  const profile = made.profile as { radiusM: number; heightM: number }[] | undefined;
  if (profile) {
    profile.sort((a, b) => a.heightM - b.heightM);
    (profile[0] as { heightM: number }).heightM = 0;
    for (const key of ['parts', 'labels', 'hollow', 'bandHeightM'])
      if (made.material !== undefined) delete made[key];
  }
  return made;
}

function checkSet(set: SetDocument): void {
  const tracing = prepareTracing(set);
  const tile = { x: 0, y: 0, width: 4, height: 3 };
  const sums = renderTile(tracing, { width: 4, height: 3, tile, firstSample: 0, samples: 4, seed: 1 });
  expect(sums.every((value) => Number.isFinite(value) && value >= 0)).toBe(true);
  const map = mirrorMapTile(tracing, 4, 3, tile);
  expect(map.weight.every((value) => value >= 0 && value <= 1)).toBe(true);
  for (const product of set.products) {
    const band = mirrorBand(tracing, product);
    if (!band) continue;
    expect(band.lengths.every(({ from, to }) => from >= 0 && to <= 1 && to >= from)).toBe(true);
  }
}

const cases = ['lights', 'sheets', 'products'].flatMap((list) =>
  kindsOf(list).map((kind) => [list, kind] as const),
);

for (const [runs, tags] of [
  [FEW, []],
  [MANY, ['more']],
] as const)
  for (const [list, kind] of cases)
    test(`${list} of kind ${kind}: whatever the contract takes gives numbers and ends, ${runs} times`, {
      tags: [...tags],
    }, () => {
      let taken = 0;
      fc.assert(
        fc.property(anyOf(schemaOf(list, kind)), (thing) => {
          const made = { ...mended(thing as Record<string, unknown>), kind };
          const set = { ...testSet({}), ...stage, [list]: [...stage[list as keyof typeof stage], made] };
          const checked = setDocument.safeParse(set as SetDocumentInput);
          fc.pre(checked.success);
          if (!checked.success) return;
          taken++;
          checkSet(checked.data);
        }),
        { numRuns: runs, seed: 42, maxSkipsPerRun: 300 },
      );
      expect(taken).toBe(runs);
    });
