import { type Likeness, type SetDocument, setDocument } from '@fendrix/contract';
import { describe, expect, it } from 'vitest';
import {
  type Evidence,
  evidenceOf,
  judgeOne,
  likenessOf,
  prepareTracing,
  traceView,
  type VerdictCode,
} from '../src/index.js';
import { testCamera } from './sets.js';

/** A box with a label on a grey sweep, under one soft light. */
function set(box: { heightM?: number; positionM?: readonly number[] } = {}, more: object = {}): SetDocument {
  return setDocument.parse({
    format: 'fendrix-set',
    version: 3,
    name: 'Tea, the first',
    backdrop: {
      kind: 'sweep',
      widthM: 2,
      frontM: -0.6,
      backM: 0.6,
      radiusM: 0.3,
      heightM: 1.2,
      material: { kind: 'matte', reflectance: 0.3 },
    },
    products: [
      {
        kind: 'box',
        id: 'tea',
        name: 'Tea',
        positionM: [0, 0, 0],
        widthM: 0.08,
        depthM: 0.05,
        heightM: 0.12,
        material: { kind: 'matte', reflectance: 0.2 },
        label: {
          name: 'Label',
          widthM: 0.06,
          heightM: 0.05,
          centreHeightM: 0.06,
          material: { kind: 'matte', reflectance: 0.8 },
        },
        ...box,
      },
    ],
    lights: [
      {
        kind: 'softbox',
        tag: 'A',
        name: 'Softbox',
        positionM: [-0.7, -0.5, 0.6],
        aimM: [0, 0, 0.06],
        widthM: 0.5,
        heightM: 0.5,
        output: { kind: 'luminance', luminanceCdM2: 20_000 },
        colour: { temperatureK: 5600, gels: [] },
      },
    ],
    camera: {
      ...testCamera(),
      positionM: [0, -1.1, 0.25],
      aimM: [0, 0, 0.06],
      focusM: 1.1,
      fNumber: 11,
      shutterS: 0.02,
      whiteBalanceK: 5600,
    },
    ...more,
  });
}

const seen = (of: SetDocument): Evidence => evidenceOf(of, traceView(prepareTracing(of), of, { samples: 2 }));

function likeness(of: SetDocument): Likeness {
  const found = likenessOf(seen(of), of.name);
  if (!found) throw new Error('the box is seen');
  return found;
}

const wishing = (of: SetDocument, like: Likeness): SetDocument => ({ ...of, wishes: { ...of.wishes, like } });

const CODES: VerdictCode[] = ['unlike-size', 'unlike-place', 'unlike-angle', 'unlike-tone', 'unlike-colour'];
const told = (of: SetDocument) => {
  const evidence = seen(of);
  return CODES.flatMap((code) => judgeOne(evidence, code));
};

describe('a picture beside the first of its series', () => {
  const first = set();
  const like = likeness(first);

  it('is read as the figures of the main product, the camera and the ground', () => {
    expect(like.name).toBe('Tea, the first');
    expect(like.heightM).toBeCloseTo(0.12, 6);
    expect(like.downDeg).toBeCloseTo((180 / Math.PI) * Math.atan2(0.19, 1.1), 6);
    // By the pinhole: the front lower edge lies 1.075 m away level, 0.25 m below the lens.
    expect(like.outline.left).toBeCloseTo(1 - like.outline.right, 6);
    expect(like.outline.bottom).toBeGreaterThan(0.5);
    expect(like.groundRgb?.map((value) => Math.round(100 * value))).toEqual([100, 100, 100]);
    expect(setDocument.safeParse(wishing(first, like)).success).toBe(true);
  });

  it('is told nothing where nothing has changed, and nothing at all without the wish', () => {
    expect(told(wishing(first, like))).toEqual([]);
    expect(told(set({ positionM: [0.1, 0, 0] }))).toEqual([]);
  });

  it('may hold a smaller product at the same scale, or at the same height in the frame', () => {
    expect(told(wishing(set({ heightM: 0.09 }), like)).map(({ code }) => code)).toEqual([]);
    const nearer = set(
      { heightM: 0.09 },
      { camera: { ...first.camera, positionM: [0, -0.88, 0.2], focusM: 0.83 } },
    );
    expect(told(wishing(nearer, like)).map(({ code }) => code)).not.toContain('unlike-size');
    const between = set(
      { heightM: 0.09 },
      { camera: { ...first.camera, positionM: [0, -0.96, 0.22], focusM: 0.97 } },
    );
    expect(told(wishing(between, like)).map(({ code }) => code)).toContain('unlike-size');
  });

  it.each([
    ['unlike-place', set({ positionM: [0.05, 0, 0] })],
    ['unlike-angle', set({}, { camera: { ...first.camera, positionM: [0, -1.06, 0.36] } })],
    ['unlike-tone', set({}, { camera: { ...first.camera, shutterS: 0.04 } })],
    ['unlike-colour', set({}, { camera: { ...first.camera, whiteBalanceK: 4600 } })],
  ] as const)('tells %s of just that', (code, changed) => {
    expect(told(wishing(changed, like)).map((one) => one.code)).toEqual([code]);
  });

  it('counts a stop as a stop', () => {
    const [tone] = told(wishing(set({}, { camera: { ...first.camera, shutterS: 0.04 } }), like));
    expect(tone?.figure.value).toBeCloseTo(1, 1);
  });

  it('is no wish where no product is seen', () => {
    const away = set({}, { camera: { ...first.camera, aimM: [0, -2, 0.25], positionM: [0, -1.1, 0.25] } });
    expect(likenessOf(seen(away), 'away')).toBeNull();
  });
});

describe('engraved and embossed detail', () => {
  const label = { words: 'picked-out' };
  const under = (x: number, y: number, z: number) =>
    set({}, { lights: [{ ...set().lights[0], positionM: [x, y, z] }], wishes: label });
  const relief = (of: SetDocument) => judgeOne(seen(of), 'not-picked-out');

  it('is picked out by a light from the side and not by one beside the lens, by the tangent of its angle', () => {
    expect(relief(under(-0.9, -0.3, 0.06))).toEqual([]);
    const [told] = relief(under(0.3, -1.2, 0.06));
    // 0.3 aside over 1.175 before the front: twice the sine of 5 degrees times that tangent.
    expect(told?.figure.value).toBeCloseTo((2 * Math.sin(Math.PI / 36) * 0.3) / 1.175, 2);
    expect(told?.causes[0]?.thing.key).toBe('A');
  });

  it('is not asked for where it is not wished', () => {
    const open = under(0.3, -1.2, 0.06);
    expect(relief({ ...open, wishes: { ...open.wishes, words: 'readable' } })).toEqual([]);
  });
});
