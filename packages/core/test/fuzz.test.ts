import { type SetDocumentInput, setDocument } from '@fendrix/contract';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { mirrorBand, mirrorMapTile, prepareTracing, renderTile } from '../src/index.js';
import { testSet } from './sets.js';

const place = fc.double({ min: -1, max: 1, noNaN: true });
const point = fc.tuple(place, place, place);
const size = fc.oneof(fc.constant(1e-4), fc.double({ min: 1e-4, max: 2, noNaN: true }), fc.constant(50));
const unit = fc.oneof(fc.constant(0), fc.constant(1), fc.double({ min: 0, max: 1, noNaN: true }));
const opaque = fc.oneof(
  fc.record({ kind: fc.constant('matte' as const), reflectance: unit }),
  fc.record({
    kind: fc.constant('coated' as const),
    reflectance: unit,
    coatIndex: fc.double({ min: 1, max: 3, noNaN: true }),
    roughness: unit,
  }),
  fc.record({ kind: fc.constant('mirror' as const), reflectance: unit }),
);
const glass = fc.record({
  kind: fc.constant('dielectric' as const),
  index: fc.double({ min: 1, max: 3, noNaN: true }),
  absorptionPerCm: fc.double({ min: 0, max: 1000, noNaN: true }),
});
const output = fc.constant({ kind: 'luminance' as const, luminanceCdM2: 100 });

const anySet = fc.record({
  lights: fc.tuple(
    fc.record({
      kind: fc.constant('softbox' as const),
      tag: fc.constant('A'),
      name: fc.constant('a'),
      positionM: point,
      aimM: point,
      widthM: size,
      heightM: size,
      hotCentre: fc.double({ min: 1, max: 10, noNaN: true }),
      output,
    }),
    fc.record({
      kind: fc.constant('bare-lamp' as const),
      tag: fc.constant('B'),
      name: fc.constant('b'),
      positionM: point,
      radiusM: fc.double({ min: 1e-4, max: 1, noNaN: true }),
      output,
    }),
  ),
  sheets: fc.tuple(
    fc.record({
      kind: fc.constant('card' as const),
      tag: fc.constant('1'),
      name: fc.constant('one'),
      positionM: point,
      aimM: point,
      widthM: size,
      heightM: size,
      front: opaque,
      back: opaque,
    }),
  ),
  products: fc.tuple(
    fc.record({
      kind: fc.constant('turned' as const),
      id: fc.constant('round'),
      name: fc.constant('round'),
      positionM: point,
      material: fc.oneof(opaque, glass),
      profile: fc
        .array(fc.record({ radiusM: size, rise: unit, smooth: fc.boolean() }), { minLength: 1, maxLength: 6 })
        .map((steps) => {
          let heightM = 0;
          return [
            { radiusM: 0.02, heightM: 0 },
            ...steps.map(({ radiusM, rise, smooth }) => {
              heightM += 1e-3 + rise * 0.3;
              return { radiusM, heightM, smooth };
            }),
          ];
        }),
    }),
    fc.record({
      kind: fc.constant('box' as const),
      id: fc.constant('box'),
      name: fc.constant('box'),
      positionM: point,
      turnDeg: fc.double({ min: -360, max: 360, noNaN: true }),
      material: fc.oneof(opaque, glass),
      widthM: size,
      depthM: size,
      heightM: size,
    }),
  ),
});

test('no set that the contract takes gives NaN or never ends', () => {
  fc.assert(
    fc.property(anySet, (parts) => {
      const whole = { ...testSet({}), ...parts } as SetDocumentInput;
      const checked = setDocument.safeParse(whole);
      fc.pre(checked.success);
      if (!checked.success) return;
      const tracing = prepareTracing(checked.data);
      const tile = { x: 0, y: 0, width: 6, height: 4 };
      const sums = renderTile(tracing, { width: 6, height: 4, tile, firstSample: 0, samples: 8, seed: 1 });
      expect(sums.every((value) => Number.isFinite(value) && value >= 0)).toBe(true);
      const map = mirrorMapTile(tracing, 6, 4, tile);
      expect(map.weight.every((value) => value >= 0 && value <= 1)).toBe(true);
      for (const product of checked.data.products) {
        const band = mirrorBand(tracing, product);
        if (!band) continue;
        expect(band.lengths.every(({ from, to }) => from >= 0 && to <= 1 && to >= from)).toBe(true);
      }
    }),
    { numRuns: 150, seed: 42 },
  );
});
