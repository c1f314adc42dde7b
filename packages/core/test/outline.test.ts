import type { Turned } from '@fendrix/contract';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { RAY_TO } from '../src/engine/layouts.js';
import { clipPiece, outlineAt } from '../src/geometry/products/outline.js';
import { contourAt, outlinePieces, prepareTracing, setRay, vector } from '../src/index.js';
import { testSet } from './sets.js';

const corner = (radiusM: number, heightM: number) => ({ radiusM, heightM, smooth: false });
const smooth = (radiusM: number, heightM: number) => ({ radiusM, heightM, smooth: true });

describe('turned outlines', () => {
  test('corners stay as written and open ends are closed with discs', () => {
    const pieces = outlinePieces([corner(0.04, 0), corner(0.03, 0.1)]);
    expect(pieces).toHaveLength(3);
    expect(pieces[0]?.lower).toMatchObject({ r: 0, z: 0, nz: -1 });
    expect(pieces[1]?.lower).toMatchObject({ r: 0.04, z: 0 });
    expect(pieces[1]?.upper).toMatchObject({ r: 0.03, z: 0.1 });
    expect(pieces[2]?.upper).toMatchObject({ r: 0, z: 0.1, nz: 1 });
    // Outward and square to the side.
    const side = pieces[1]?.lower;
    expect((side?.nr ?? 0) * -0.01 + (side?.nz ?? 0) * 0.1).toBeCloseTo(0, 12);
    expect(side?.nr).toBeGreaterThan(0);
  });

  test('a curve passes its points, joins without gap, and turns little in each piece', () => {
    const profile = [
      corner(0.03, 0),
      smooth(0.036, 0.02),
      smooth(0.036, 0.13),
      smooth(0.015, 0.19),
      corner(0.013, 0.22),
    ];
    const pieces = outlinePieces(profile, false);
    for (let i = 1; i < pieces.length; i++) {
      expect(pieces[i]?.lower.r).toBeCloseTo(pieces[i - 1]?.upper.r ?? 0, 12);
      expect(pieces[i]?.lower.z).toBeCloseTo(pieces[i - 1]?.upper.z ?? 0, 12);
    }
    for (const { radiusM, heightM } of profile) {
      const gaps = pieces
        .flatMap(({ lower, upper }) => [lower, upper])
        .map(({ r, z }) => Math.hypot(r - radiusM, z - heightM));
      expect(Math.min(...gaps)).toBeLessThan(1e-9);
    }
    for (const { lower, upper } of pieces.slice(1)) {
      const turn = Math.acos(Math.min(1, lower.nr * upper.nr + lower.nz * upper.nz));
      expect((turn * 180) / Math.PI).toBeLessThan(3.001);
    }
  });

  test('at a smooth point both sides have one normal, at a corner two', () => {
    const pieces = outlinePieces(
      [corner(0.03, 0), smooth(0.04, 0.05), corner(0.02, 0.1), corner(0.02, 0.2)],
      false,
    );
    const at = (z: number) => pieces.filter(({ lower, upper }) => lower.z === z || upper.z === z);
    const normalsAt = (z: number) => at(z).map(({ lower, upper }) => (lower.z === z ? lower.nz : upper.nz));
    const [below, above] = normalsAt(0.05);
    expect(below).toBeCloseTo(above ?? 9, 9);
    const [under, over] = normalsAt(0.1);
    expect(Math.abs((under ?? 0) - (over ?? 0))).toBeGreaterThan(0.1);
  });

  test('heights never fall and radii never go below 0, whatever the points', () => {
    const step = fc.record({
      radiusM: fc.double({ min: 0.001, max: 0.2, noNaN: true }),
      rise: fc.double({ min: 0, max: 0.1, noNaN: true }),
      smooth: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(step, { minLength: 2, maxLength: 8 }), (steps) => {
        let heightM = 0;
        const profile = steps.map(({ radiusM, rise, smooth: curved }, i) => {
          heightM += i === 0 ? 0 : rise + 1e-4;
          return { radiusM, heightM, smooth: curved };
        });
        for (const { lower, upper } of outlinePieces(profile)) {
          expect(upper.z).toBeGreaterThanOrEqual(lower.z);
          expect(Math.min(lower.r, upper.r)).toBeGreaterThanOrEqual(0);
          expect(Math.hypot(lower.nr, lower.nz)).toBeCloseTo(1, 6);
        }
      }),
    );
  });

  test('two equal radii stay a straight side, and no curve swings past its points', () => {
    const pieces = outlinePieces(
      [corner(0.03, 0), smooth(0.036, 0.01), smooth(0.036, 0.13), corner(0.01, 0.2)],
      false,
    );
    const widest = Math.max(...pieces.map(({ upper }) => upper.r));
    expect(widest).toBeCloseTo(0.036, 12);
    for (const { lower, upper } of pieces) {
      if (lower.z >= 0.01 && upper.z <= 0.13) expect(upper.r).toBeCloseTo(0.036, 12);
    }
  });

  test('a piece is cut between heights', () => {
    const piece = outlinePieces([corner(0.04, 0), corner(0.02, 0.1)])[1];
    if (!piece) throw new Error('the side is a piece');
    const cut = clipPiece(piece, 0.05, 9);
    expect(cut?.lower).toMatchObject({ z: 0.05 });
    expect(cut?.lower.r).toBeCloseTo(0.03, 12);
    expect(outlineAt(piece, 0.025).r).toBeCloseTo(0.035, 12);
    expect(clipPiece(piece, 0.2, 0.3)).toBeNull();
  });
});

const jar: Turned = {
  kind: 'turned',
  id: 'jar',
  name: 'Jar',
  positionM: [0, 0, 0],
  turnDeg: 30,
  material: { kind: 'dielectric', roughness: 0, scatteringPerCm: 0, index: 1.52, absorptionPerCm: 0 },
  profile: [corner(0.05, 0), corner(0.05, 0.1), corner(0.03, 0.1), corner(0.03, 0.12)],
  attached: [],
  parts: [{ name: 'lid', fromM: 0.1, toM: 0.12, material: { kind: 'matte', reflectance: 0.2 } }],
  labels: [
    {
      name: 'label',
      fromM: 0.02,
      toM: 0.06,
      centreBearingDeg: 0,
      widthDeg: 40,
      material: { kind: 'matte', reflectance: 0.8 },
    },
  ],
  hollow: {
    wallM: 0.004,
    baseM: 0.006,
    liquid: {
      material: { kind: 'dielectric', roughness: 0, scatteringPerCm: 0, index: 1.333, absorptionPerCm: 0 },
      fillToM: 0.07,
    },
  },
};

describe('a hollow jar with lid, label and liquid', () => {
  const { engine, scene } = prepareTracing(testSet({ products: [jar] }));
  /** Radii at which a level ray from the right meets surfaces, outermost first, down to the axis. */
  const radiiAt = (z: number, y = 0) => {
    const radii: number[] = [];
    let x = 0.5;
    for (let i = 0; i < 20; i++) {
      setRay(engine.ray, [x, y, z], [-1, 0, 0], x);
      if (engine.closestHit() < 0) break;
      x -= engine.ray[RAY_TO] as number;
      radii.push(x);
    }
    return radii;
  };

  test('glass, the liquid reaching into it, and its inside', () => {
    const radii = radiiAt(0.08);
    expect(radii).toHaveLength(2);
    expect(radii[0]).toBeCloseTo(0.05, 9);
    expect(radii[1]).toBeCloseTo(0.046, 9);
    const wet = radiiAt(0.04);
    expect(wet).toHaveLength(3);
    expect(wet[1]).toBeCloseTo(0.046 + 5e-5, 9);
    expect(wet[2]).toBeCloseTo(0.046, 9);
  });

  test('the label lies 0.1 mm over the glass where its bearing and the turn put it, and nowhere else', () => {
    const from = (bearingDeg: number) => {
      const bearing = (bearingDeg * Math.PI) / 180;
      const away = [Math.sin(bearing), -Math.cos(bearing), 0];
      setRay(
        engine.ray,
        [0.5 * (away[0] as number), 0.5 * (away[1] as number), 0.04],
        away.map((value) => -value),
      );
      engine.closestHit();
      return 0.5 - (engine.ray[RAY_TO] as number);
    };
    expect(from(30)).toBeCloseTo(0.0501, 9);
    expect(from(45)).toBeCloseTo(0.0501, 9);
    expect(from(55)).toBeCloseTo(0.05, 9);
    expect(from(0)).toBeCloseTo(0.05, 9);
  });

  test('the lid is opaque and closes the mouth from below', () => {
    setRay(engine.ray, [0.01, 0, 0.09], [0, 0, 1]);
    const hit = engine.closestHit();
    expect(0.09 + (engine.ray[RAY_TO] as number)).toBeCloseTo(0.1 + 1e-4, 6);
    const surface = scene.surfaces[scene.table.back[hit] as number];
    expect(surface?.r).toBe(0.2);
  });

  test('liquids come before glass among the media', () => {
    expect(scene.media.map(({ index }) => index)).toEqual([1.333, 1.52]);
  });
});

describe('contour that faces the camera', () => {
  test('of a cylinder ends at its silhouette', () => {
    const contour = contourAt(jar, 0.05, [0, -1, 0.05]);
    const left = contour?.at(0) ?? [0, 0, 0];
    // Where the line of sight touches the circle: x = -R sqrt(1 - (R/D)^2).
    expect(left[0]).toBeCloseTo(-0.05 * Math.sqrt(1 - 0.05 ** 2), 6);
    expect(vector.length([left[0], left[1], 0])).toBeCloseTo(0.05, 9);
    expect(contour?.at(0.5)[1]).toBeCloseTo(-0.05, 9);
  });

  test('is nothing on a top face, above the product or from inside', () => {
    expect(contourAt(jar, 0.5, [0, -1, 0.05])).toBeNull();
    expect(contourAt(jar, 0.05, [0, -0.01, 0.05])).toBeNull();
  });
});
