import type { SetDocumentInput, Vector } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import { illuminanceByLight, prepareTracing } from '../src/index.js';
import { matte, overheadSoftbox, testSet } from './sets.js';
import { luminanceFrom, seenLuminance } from './tracing.js';

type SheetInput = NonNullable<SetDocumentInput['sheets']>[number];

const frost = { kind: 'translucent' as const, reflectance: 0.4, transmittance: 0.5, haze: 1 };
const sides = (material: SheetInput['front']) => ({ front: material, back: material });

/** A tiny even face at a distance behind a sheet in the plane y = 0, that shines along +y. */
function lampBehind(distance: number) {
  return {
    ...overheadSoftbox(1),
    positionM: [0, -distance, 0] as Vector,
    aimM: [0, 0, 0] as Vector,
    widthM: 0.01,
    heightM: 0.01,
  };
}

function frame(material: SheetInput['front'], more: object = {}): SheetInput {
  return {
    kind: 'frame',
    tag: '1',
    name: 'frost',
    positionM: [0, 0, 0],
    aimM: [0, 1, 0],
    widthM: 3,
    heightM: 3,
    ...sides(material),
    ...more,
  } as SheetInput;
}

/** Illuminance for each film at unit luminance, direct and indirect. */
function meter(parts: Partial<SetDocumentInput>, point: Vector, normal: Vector, samples = 4096) {
  const [share] = illuminanceByLight(prepareTracing(testSet(parts)), point, normal, {
    samples,
    seed: 1,
    directOnly: false,
  });
  if (!share) throw new Error('the set has a light');
  return share;
}

describe('frost', () => {
  test.each([0, 0.2, 0.5, 1])('a lamp behind it: luminance falls as cos^4 / d^2, %d m beside', (beside) => {
    const distance = 0.5;
    const set = testSet({ lights: [lampBehind(distance)], sheets: [frame(frost)] });
    const cos = distance / Math.hypot(distance, beside);
    const illuminance = (1e-4 * cos ** 4) / distance ** 2;
    const expected = (0.5 * illuminance) / Math.PI;
    const tracing = prepareTracing(set);
    const from: Vector = [beside, 0.4, 0];
    const target: Vector = [beside, 0, 0];
    expect(luminanceFrom(tracing, from, target) / expected).toBeCloseTo(1, 2);
    expect(luminanceFrom(tracing, from, target, { lightmaps: true }) / expected).toBeCloseTo(1, 2);
  });

  test('a thin one shows the lamp itself through it, at its straight part', () => {
    const thin = { ...frost, haze: 0.7 };
    const set = testSet({ lights: [lampBehind(0.5)], sheets: [frame(thin)] });
    const straight = 0.5 * 0.3;
    const spread = (0.5 * 0.7 * 1e-4) / 0.5 ** 2 / Math.PI;
    expect(seenLuminance(set, [0, 1, 0], [0, 0, 0], 4096)).toBeCloseTo(straight + spread, 3);
    // A shadow ray passes it too.
    const share = meter({ lights: [lampBehind(0.5)], sheets: [frame(thin)] }, [0, 1, 0], [0, -1, 0], 256);
    expect(share.direct / (1e-4 / 1.5 ** 2)).toBeCloseTo(straight, 3);
  });

  test('what is neither sent back nor let through is lost: a meter behind a large sheet reads its part', () => {
    const far = { ...overheadSoftbox(1), positionM: [0, -1, 0] as Vector, aimM: [0, 0, 0] as Vector };
    const lit = meter({ lights: [far], sheets: [frame(frost)] }, [0, 0.01, 0], [0, -1, 0], 16384);
    const free = meter({ lights: [far] }, [0, 0, 0], [0, -1, 0], 1024);
    expect(lit.indirect / free.direct).toBeCloseTo(0.5, 2);
  });
});

describe('cards and flags', () => {
  test('a printed gradient has its tones at its ends and its middle', () => {
    const printed = {
      ...matte(0.8),
      tone: { kind: 'gradient' as const, direction: 'across' as const, from: 0.1, to: 0.9, gamma: 1 },
    };
    const light = { ...overheadSoftbox(1), positionM: [0, 3, 0] as Vector, aimM: [0, 0, 0] as Vector };
    const set = testSet({ lights: [light], sheets: [frame(printed, { widthM: 1, heightM: 1 })] });
    const tracing = prepareTracing(set);
    const at = (x: number) => {
      const [share] = illuminanceByLight(tracing, [x, 1e-5, 0], [0, 1, 0], {
        samples: 256,
        seed: 1,
        directOnly: true,
      });
      return (luminanceFrom(tracing, [x, 1, 0], [x, 0, 0]) * Math.PI) / (share?.direct ?? 1);
    };
    // Seen from its front (+y), right is -x: the gradient runs from +x.
    const [left, middle, right] = [at(0.49), at(0), at(-0.49)] as [number, number, number];
    expect([left, right].sort()[0]).toBeCloseTo(0.108, 2);
    expect([left, right].sort()[1]).toBeCloseTo(0.892, 2);
    expect(middle).toBeCloseTo(0.5, 2);
    expect(left).toBeLessThan(right);
  });

  test('a card with a lens hole lets the lens through and nothing else', () => {
    const light = { ...overheadSoftbox(1), positionM: [0, -1, 0] as Vector, aimM: [0, 0, 0] as Vector };
    const card = frame(matte(0.04), { kind: 'card', holeDiameterM: 0.1 });
    const set = testSet({ lights: [light], sheets: [card] });
    expect(seenLuminance(set, [0.04, 1, 0], [0.04, 0, 0])).toBeCloseTo(1, 6);
    expect(seenLuminance(set, [0.06, 1, 0], [0.06, 0, 0])).toBeLessThan(1e-6);
  });

  test('a net takes its stops, a soft edge less and less', () => {
    const net = { kind: 'net' as const, openness: 0.5, softEdge: { side: 'right' as const, widthPart: 0.5 } };
    const set = { lights: [lampBehind(0.5)], sheets: [frame(net)] };
    const through = (x: number) => {
      const lamp = { ...lampBehind(1), positionM: [x, -1, 0] as Vector, aimM: [x, 0, 0] as Vector };
      return meter({ ...set, lights: [lamp] }, [x, 1, 0], [0, -1, 0], 64).direct / (1e-4 / 4);
    };
    const values = [1.4, 0.7, 0.3, -0.3, -1.4].map(through);
    const [a, e] = [values[0] as number, values[4] as number];
    expect(Math.min(a, e)).toBeCloseTo(0.5, 2);
    expect(Math.max(a, e)).toBeGreaterThan(0.9);
    const rising = a < e ? values : [...values].reverse();
    rising.forEach((value, i) => {
      if (i > 0) expect(value).toBeGreaterThanOrEqual((rising[i - 1] as number) - 1e-6);
    });
  });

  test('a folded V throws more forward than its two leaves alone, and light crosses between them', () => {
    const light = { ...overheadSoftbox(1), positionM: [0, 2, 0] as Vector, aimM: [0, 0, 0] as Vector };
    const fold = frame(matte(0.85), { kind: 'fold', widthM: 0.5, heightM: 1, openingDeg: 90 });
    const share = meter({ lights: [light], sheets: [fold] }, [0, 0.5, 0], [0, -1, 0], 16384);
    const flat = frame(matte(0.85), { kind: 'card', widthM: Math.SQRT1_2, heightM: 1 });
    const plain = meter({ lights: [light], sheets: [flat] }, [0, 0.5, 0], [0, -1, 0], 16384);
    expect(share.indirect).toBeGreaterThan(0);
    expect(plain.indirect).toBeGreaterThan(0);
    // Within the V each leaf sees half of the other: the hollow is brighter than its opening as a flat card.
    const set = testSet({ lights: [light], sheets: [fold] });
    const tracing = prepareTracing(set);
    expect(luminanceFrom(tracing, [0, 1, 0], [0.01, 0.01, 0], { samples: 4096 })).toBeGreaterThan(
      0.9 *
        luminanceFrom(prepareTracing(testSet({ lights: [light], sheets: [flat] })), [0, 1, 0], [0.01, 0, 0], {
          samples: 4096,
        }),
    );
  });
});

describe('closed spaces against the integrating sphere', () => {
  /** Mean irradiance inside of a closed shell that light enters through its wall: E = flux / (A (1 - r)). */
  const sphere = (fluxIn: number, area: number, reflectance: number) => fluxIn / (area * (1 - reflectance));

  test('a dome tent in even light holds what comes through, over and over', () => {
    // Even light of 1 cd/m2 from all round: pi lx on the outside of every patch.
    const tent: SheetInput = {
      kind: 'tent',
      tag: '1',
      name: 'tent',
      positionM: [0, 0, 0],
      aimM: [0, -1, 0],
      form: 'dome',
      widthM: 0.8,
      depthM: 0.8,
      heightM: 0.4,
      floor: true,
      opening: { widthM: 0.01, heightM: 0.01 },
      ...sides({ kind: 'translucent', reflectance: 0.5, transmittance: 0.4, haze: 1 }),
    };
    const lights: SetDocumentInput['lights'] = [
      { kind: 'surround', tag: 'S', name: 's', output: { kind: 'luminance', luminanceCdM2: 1 } },
    ];
    // All of its wall is alike, so the sphere's law holds for any shape: E = tau pi / (1 - rho).
    const expected = sphere(0.4 * Math.PI, 1, 0.5);
    const set = testSet({ lights, sheets: [tent] });
    const tracing = prepareTracing(set);
    const [share] = illuminanceByLight(tracing, [0, 0, 0.2], [0, 0, 1], {
      samples: 16384,
      seed: 1,
      directOnly: false,
    });
    expect(((share?.direct ?? 0) + (share?.indirect ?? 0)) / expected).toBeCloseTo(1, 1);
    const seen = luminanceFrom(tracing, [0, 0, 0.2], [0.3, 0.1, 0.35], { samples: 4096, lightmaps: true });
    expect(Math.abs((seen * Math.PI) / expected - 1)).toBeLessThan(0.02);
  });

  test('a paper cone round the lens lights its bottom evenly from its wall', () => {
    const cone: SheetInput = {
      kind: 'cone',
      tag: '1',
      name: 'cone',
      positionM: [0, 0, 0.3],
      aimM: [0, 0, 0],
      diameterM: 0.1,
      farDiameterM: 0.3,
      lengthM: 0.3,
      ...sides({ kind: 'translucent', reflectance: 0.5, transmittance: 0.4, haze: 1 }),
    };
    const lights: SetDocumentInput['lights'] = [
      { kind: 'surround', tag: 'S', name: 's', output: { kind: 'luminance', luminanceCdM2: 1 } },
    ];
    const wall = Math.PI * 0.2 * Math.hypot(0.3, 0.1);
    const openings = Math.PI * (0.05 ** 2 + 0.15 ** 2);
    // Openings let light in and send nothing back: E (A_all - rho A_wall) = pi (tau A_wall + A_open).
    const expected = (Math.PI * (0.4 * wall + openings)) / (wall * 0.5 + openings);
    const tracing = prepareTracing(testSet({ lights, sheets: [cone] }));
    const mean = [0.05, 0.1, 0.15, 0.2, 0.25]
      .map((z) => luminanceFrom(tracing, [0, 0, z], [1, 0.2, z], { samples: 2048 }))
      .map((seen) => (seen - (0.4 * Math.PI) / Math.PI) / (0.5 / Math.PI));
    for (const irradiance of mean) expect(Math.abs(irradiance / expected - 1)).toBeLessThan(0.1);
  });
});
