import { defaultKit } from '@fendrix/catalogue';
import type { Light, SetDocument, Vector } from '@fendrix/contract';
import { demoNames, demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  evenedGround,
  type FieldTrace,
  fieldFigures,
  fieldStops,
  frameLevels,
  GROUND_KINDS,
  goodsFollowGround,
  greyNinths,
  groundLight,
  groundLights,
  judgeGround,
  KEPT_STOPS,
  overlaps,
  PAPER_WHITE_STOPS,
  PRODUCT_KINDS,
  poweredForGround,
  powersForGround,
  prepareTracing,
  productWhite,
  rimWrap,
  type SpotReading,
  traceField,
  traceRims,
  veiledDarkest,
  whiteGroundStops,
  whiteParts,
} from '../src/index.js';
import { matte, overheadSoftbox, testCamera, testSet } from './sets.js';

const FRAME = { left: 0, top: 0, right: 1, bottom: 1 };
const read = (set: SetDocument): FieldTrace =>
  traceField(prepareTracing(set), FRAME, { across: 18, down: 12, samples: 48 });
const dial = { leastStops: -8, stepStops: 0.1 };
const flash = { kind: 'flash-energy' as const, energyJ: 400, modifierEfficiency: 0.45 };

/** A cylinder before a white wall: a key for the products, and two lights at the sides of the wall. */
function studio({ left = -4, right = -4, key = -4, material = {} as object } = {}): SetDocument {
  const strip = (tag: string, x: number, powerStops: number) =>
    overheadSoftbox(0, {
      tag,
      positionM: [x, 0.75, 0.2],
      aimM: [0, 1.2, 0.2],
      widthM: 0.3,
      heightM: 0.6,
      output: flash,
      dial,
      powerStops,
    });
  return testSet({
    products: [
      {
        kind: 'turned',
        id: 'tin',
        name: 'Tin',
        positionM: [0, 0, 0] as Vector,
        material: { kind: 'matte', reflectance: 0.4, ...material } as never,
        profile: [
          { radiusM: 0.05, heightM: 0 },
          { radiusM: 0.05, heightM: 0.3 },
        ],
      },
    ],
    backdrop: {
      kind: 'panel',
      widthM: 2,
      heightM: 2,
      centreM: [0, 1.2, 0.5],
      turnDeg: 0,
      material: matte(0.85),
    },
    lights: [
      overheadSoftbox(0, {
        positionM: [-0.7, -0.9, 0.5],
        aimM: [0, 0, 0.15],
        widthM: 0.5,
        heightM: 0.5,
        output: flash,
        dial,
        powerStops: key,
      }),
      strip('B', -0.8, left),
      strip('C', 0.8, right),
    ],
    camera: { ...testCamera(), positionM: [0, -1.6, 0.15], aimM: [0, 0, 0.15], focusM: 1.6 },
  });
}

const meanOf = (set: SetDocument, field: FieldTrace, kinds: typeof GROUND_KINDS) =>
  fieldFigures(field, fieldStops(set, field), kinds)?.meanStops ?? Number.NaN;
const withPowers = (
  set: SetDocument,
  powers: readonly { tag: string; powerStops: number }[],
): SetDocument => ({
  ...set,
  lights: set.lights.map((light) => ({
    ...light,
    powerStops: powers.find(({ tag }) => tag === light.tag)?.powerStops ?? light.powerStops,
  })),
});

describe('a background with lights of its own', () => {
  const set = studio();
  const field = read(set);

  test('they are told from the light of the products', () => {
    const rows = groundLights(set, field);
    expect(rows.filter(({ own }) => own).map(({ tag }) => tag)).toEqual(['B', 'C']);
    expect(rows.find(({ tag }) => tag === 'A')?.ofProducts).toBeGreaterThan(0.5);
  });

  test.each([1, 2, PAPER_WHITE_STOPS + 0.1])(
    'is brought to %f and the products stay as they are, as read',
    (wanted) => {
      const change = powersForGround(set, field, wanted);
      if (!change) throw new Error('there is a change');
      const after = withPowers(set, change.powers);
      expect(meanOf(after, field, GROUND_KINDS)).toBeCloseTo(wanted, 0);
      expect(Math.abs(meanOf(after, field, GROUND_KINDS) - wanted)).toBeLessThan(0.1);
      const products = meanOf(after, field, PRODUCT_KINDS) - meanOf(set, field, PRODUCT_KINDS);
      expect(Math.abs(products)).toBeLessThanOrEqual(KEPT_STOPS);
      expect(change.productsChange).toBeCloseTo(products, 9);
      expect(change.limited).toBe(false);
    },
  );

  test('clear products show the background and cannot stay as it changes; opaque ones take their own light', () => {
    expect(goodsFollowGround(groundLights(set, field))).toBe(false);
    const air = { kind: 'dielectric' as const, index: 1, absorptionPerCm: 0 };
    const clear = testSet({ ...set, products: set.products.map((tin) => ({ ...tin, material: air })) });
    expect(goodsFollowGround(groundLights(clear, read(clear)))).toBe(true);
    // One light says nothing of it.
    const alone = { ...set, lights: set.lights.slice(0, 1) };
    expect(goodsFollowGround(groundLights(alone, read(alone)))).toBe(false);
  });

  test('where the products cannot stay it says by how much they change', () => {
    // Two stops more on the ground spill more on the products than the key gives them.
    const change = powersForGround(set, field, meanOf(set, field, GROUND_KINDS) + 2);
    expect(change?.productsChange).toBeGreaterThan(KEPT_STOPS);
  });

  test('two lights two stops apart are told and evened, with the background as bright as before', () => {
    const uneven = studio({ left: -3, right: -5 });
    const seen = read(uneven);
    const found = evenedGround(uneven, seen);
    expect(found).toMatchObject({ stronger: 'B', weaker: 'C' });
    expect(found?.byStops).toBeCloseTo(2, 0);
    const after = withPowers(uneven, found?.change.powers ?? []);
    expect(evenedGround(after, seen)).toBeNull();
    expect(meanOf(after, seen, GROUND_KINDS)).toBeCloseTo(meanOf(uneven, seen, GROUND_KINDS), 0);
    expect(evenedGround(set, field)).toBeNull();
  });

  test('a light that runs out on the way is said to', () => {
    expect(powersForGround(set, field, 9)?.limited).toBe(true);
  });

  test('its white parts are told region by region', () => {
    const grey = whiteParts(
      withPowers(set, [
        { tag: 'B', powerStops: -8 },
        { tag: 'C', powerStops: -8 },
      ]),
      field,
    );
    expect(grey.white).toBe(0);
    const change = powersForGround(set, field, PAPER_WHITE_STOPS + 0.8);
    const white = whiteParts(withPowers(set, change?.powers ?? []), field);
    expect(white.white).toBeGreaterThan(0.8 * white.ground);
    expect(white.ninths).toHaveLength(9);
    const half = withPowers(set, [
      { tag: 'B', powerStops: -3 },
      { tag: 'C', powerStops: -8 },
    ]);
    const left = whiteParts(half, field);
    expect((left.ninths[3] ?? 0) - (left.ninths[5] ?? 0)).toBeGreaterThan(0.3);
  });
});

describe('the verdict on a background', () => {
  const level = (meanStops: number, rangeStops = 0) => ({ meanStops, rangeStops });
  const white = (stops: number) => ({ spot: null, stops });
  const over = PAPER_WHITE_STOPS + 0.2;

  test.each([
    [level(-5), white(0), 'black'],
    [level(-4.9), white(0), 'grey'],
    [level(0.6), white(0), 'light-grey'],
    [level(over), white(over - 2), 'white-over-dark-products'],
    [level(over + 2), white(over), 'white-by-too-much'],
    [level(over), white(over - 0.3), 'white-by-too-little'],
    [level(over), white(over - 0.7), 'white'],
    [level(over), null, 'white-alone'],
  ] as const)('%o against the white of the products %o is %s', (ground, products, code) => {
    expect(judgeGround(ground, products).code).toBe(code);
  });

  test('carries what mends it', () => {
    expect(judgeGround(level(over + 2), white(over))).toMatchObject({ byStops: expect.closeTo(1, 6) });
    expect(judgeGround(level(over), white(over - 0.2))).toMatchObject({ byStops: expect.closeTo(0.3, 6) });
    expect(judgeGround(level(over, 0.2), white(over - 0.7))).toMatchObject({ unevenStops: null });
    expect(judgeGround(level(over, 0.6), white(over - 0.7))).toMatchObject({ unevenStops: 0.6 });
  });

  test('a white ground is paper white at least, and over the white of the products', () => {
    expect(whiteGroundStops(-2)).toBeCloseTo(PAPER_WHITE_STOPS + 0.1, 9);
    expect(whiteGroundStops(null)).toBe(whiteGroundStops(-2));
    expect(whiteGroundStops(PAPER_WHITE_STOPS)).toBeCloseTo(PAPER_WHITE_STOPS + 0.7, 9);
  });

  test('ninths that see no ground are not grey', () => {
    const ninths = [1, 0.97, null, 1, 1, 1, 1, 1, 0];
    expect(greyNinths({ ground: 1, white: 0.9, ninths })).toEqual([1, 8]);
  });

  test('the white of the products is the pinned spot, then the brightest on them, then their brightest place', () => {
    const set = studio();
    const levels = frameLevels(set, read(set));
    const spot = (name: string, pointM: Vector, stopsFromMidTone: number | null) =>
      ({ name, pointM, stopsFromMidTone }) as SpotReading;
    const readings = [
      spot('wall', [0.5, 1.2, 0.5], 3),
      spot('side', [0.05, 0, 0.1], 0.5),
      spot('front', [0, -0.05, 0.1], 1.5),
      spot('hidden', [0, 0.05, 0.1], null),
    ];
    const of = (chosen: string | null, among = readings) => productWhite(set, among, levels, chosen);
    expect(of(null)).toEqual({ spot: 'front', stops: 1.5 });
    expect(of('wall')).toEqual({ spot: 'wall', stops: 3 });
    expect(of('hidden')?.spot).toBeNull();
    expect(of('-')).toEqual({ spot: null, stops: levels.products?.mostStops });
    expect(productWhite(set, [], { ...levels, products: null }, null)).toBeNull();
    const veiled = veiledDarkest(levels, 0.02) as number;
    expect(veiled).toBeGreaterThan(levels.products?.leastStops as number);
    expect(veiledDarkest({ ...levels, products: null }, 0.02)).toBeNull();
  });

  test('lights added for it are powered to the tone, all others left', () => {
    const set = studio();
    const [key, ...added] = set.lights;
    const bare = { ...set, lights: [key as Light] };
    const field = read(set);
    const lights = poweredForGround(bare, added, field, 2);
    expect(meanOf({ ...bare, lights: [key as Light, ...(lights ?? [])] }, field, GROUND_KINDS)).toBeCloseTo(
      2,
      0,
    );
    const off = added.map((light) => ({ ...light, on: false }));
    expect(poweredForGround(bare, off, field, 2)).toBeNull();
  });
});

describe('what the edges get from behind', () => {
  const wrapOf = (set: SetDocument) => rimWrap(set, traceRims(prepareTracing(set)), new Set(['B', 'C']));

  test('grows with the light of the background, and is more on gloss than on matte', () => {
    const [dim, bright] = [studio({ left: -7, right: -7 }), studio({ left: -2, right: -2 })].map(wrapOf);
    expect(dim?.meanStops).toBeLessThan(bright?.meanStops ?? 0);
    const gloss = wrapOf(studio({ left: -4, right: -4, material: { kind: 'coated', reflectance: 0.05 } }));
    const matteOne = wrapOf(studio({ left: -4, right: -4, material: { kind: 'matte', reflectance: 0.4 } }));
    expect(gloss?.meanStops).toBeGreaterThan(matteOne?.meanStops ?? 9);
  });

  test('nothing comes from a background in the dark', () => {
    const set = studio();
    const dark = {
      ...set,
      lights: set.lights.map((light) => (light.tag === 'A' ? light : { ...light, on: false })),
    };
    expect(wrapOf(dark)?.mostStops).toBeLessThan(0.25);
    const { backdrop: _backdrop, ...bare } = set;
    expect(wrapOf(bare as SetDocument)).toBeNull();
  });
});

describe('a light made for the background', () => {
  const softLights = defaultKit().entries.flatMap((entry) => (entry.what === 'light' ? [entry.thing] : []));
  const withGround = demoNames.filter((name) => demoSet(name).backdrop);

  test.each(withGround)('stands clear of the table of %s, with the kit or without', (name) => {
    const set = demoSet(name);
    for (const kit of [softLights, []]) {
      for (const side of [-1, 1] as const) {
        const light = groundLight(set, 'Z', side, kit);
        if (!light) continue;
        const met = overlaps({ ...set, lights: [...set.lights, light] });
        const table = met.filter(({ key, other }) => key === 'Z' && other.kind === 'bench');
        expect(table).toEqual([]);
      }
    }
  });
});
