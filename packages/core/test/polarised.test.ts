import type { SetDocument, SetDocumentInput } from '@fendrix/contract';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { conductorMirrored, dielectricMirrored, dielectricPassed } from '../src/engine/fresnel.js';
import { Stokes } from '../src/engine/path/stokes.js';
import {
  channelsOf,
  exposureWeights,
  luminanceOf,
  luminanceWeights,
  pickSources,
  prepareTracing,
  rayThrough,
  renderTile,
  sceneKey,
  spotReading,
  traceKey,
  traceSpot,
  traceView,
} from '../src/index.js';
import { fresnelSplit } from '../src/optics/fresnel.js';
import { crossedResidue, fresnelConductorSplit, METAL_INDEX } from '../src/optics/metal.js';
import { radians } from '../src/units/angle.js';
import { surroundLight, testCamera, testSet } from './sets.js';

const LACQUER = { kind: 'coated', reflectance: 0, coatIndex: 1.5, roughness: 0 } as const;

/** A plate on the mark whose top is looked down on, at an angle of incidence. */
const plate = (material: object, incidenceDeg: number, more: Partial<SetDocumentInput> = {}): SetDocument => {
  const angle = radians(incidenceDeg);
  const top = 0.02;
  return testSet({
    products: [
      {
        kind: 'box',
        id: 'plate',
        name: 'Plate',
        positionM: [0, 0, 0],
        widthM: 3,
        depthM: 3,
        heightM: top,
        material,
      } as never,
    ],
    lights: [surroundLight],
    camera: {
      ...testCamera(),
      positionM: [0, -Math.sin(angle), top + Math.cos(angle)],
      aimM: [0, 0, top],
    },
    ...more,
  });
};

/** With a filter that has no loss but the half that any polariser takes, and passes nothing of crossed light. */
const filtered = (set: SetDocument, axisDeg: number): SetDocument => ({
  ...set,
  camera: { ...set.camera, polariser: { axisDeg, lossStops: 1, extinction: 0 } },
});

/** Luminance in the middle of the picture, as it comes through the filter, over that of unit luminance through none. */
function seen(set: SetDocument, samples = 64, which: 'best' | 'plain' = 'best'): number {
  const tracing = prepareTracing(set, which);
  const tile = { x: 60, y: 40, width: 1, height: 1 };
  const sums = renderTile(tracing, {
    width: 121,
    height: 81,
    tile,
    firstSample: 0,
    samples,
    seed: 1,
  } as never);
  const weights = exposureWeights(set);
  const plain = exposureWeights({ ...set, camera: { ...set.camera, polariser: undefined } });
  const rgb = [0, 0, 0];
  for (let k = 0; k < sums.length; k++)
    rgb[k % 3] = (rgb[k % 3] as number) + ((sums[k] as number) * (weights[k] as number)) / samples;
  return luminanceOf(...(rgb as [number, number, number])) / (plain[0] as number);
}

describe('a filter turned before lacquer', () => {
  test.each([20, 40, 56.31, 70, 80])(
    'at %d degrees: what lies across the plane of incidence, or in it',
    (deg) => {
      const { s, p } = fresnelSplit(Math.cos(radians(deg)), 1.5);
      const set = plate(LACQUER, deg);
      expect(seen(filtered(set, 90))).toBeCloseTo(s / 2, 3);
      expect(Math.abs(seen(filtered(set, 0)) - p / 2)).toBeLessThan(0.01 * s);
      expect(seen(filtered(set, 45))).toBeCloseTo((s + p) / 4, 3);
      expect(seen(set)).toBeCloseTo((s + p) / 2, 3);
    },
  );

  test('turned both ways alike, and not seen by what counts light without it', () => {
    const set = plate(LACQUER, 56.31);
    expect(seen(filtered(set, 30))).toBeCloseTo(seen(filtered(set, -30)), 4);
    expect(seen(filtered(set, 30), 32, 'plain')).toBeCloseTo(seen(filtered(set, 30), 32), 9);
    const { weights } = luminanceWeights(filtered(set, 30));
    expect(weights).toHaveLength(9);
    expect([...weights.subarray(3)]).toEqual([0, 0, 0, 0, 0, 0]);
  });

  test('with the camera rolled it turns with it', () => {
    const set = plate(LACQUER, 56.31);
    const rolled = { ...set, camera: { ...set.camera, rollDeg: 30 } };
    const { s } = fresnelSplit(Math.cos(radians(56.31)), 1.5);
    const most = Math.max(...[-60, 60, 120].map((deg) => seen(filtered(rolled, deg))));
    const least = Math.min(...[-30, 30].map((deg) => seen(filtered(rolled, deg))));
    expect(most).toBeCloseTo(s / 2, 3);
    expect(least).toBeLessThan(0.002);
  });

  test('of bare metal it takes little, by the split of its index', () => {
    const { n, k } = METAL_INDEX.steel;
    const set = plate({ kind: 'metal', metal: 'steel', roughness: 0 }, 70);
    // All colours by the index for green, within what the colours differ.
    const split = fresnelConductorSplit(Math.cos(radians(70)), n[1], k[1]);
    const [level, upright] = [90, 0].map((deg) => seen(filtered(set, deg))) as [number, number];
    expect((level - upright) / (level + upright)).toBeCloseTo((split.s - split.p) / (split.s + split.p), 3);
  });

  test('a matte board and what lies under a coat lose only what any light loses', () => {
    const board = plate({ kind: 'matte', reflectance: 0.5 }, 60);
    expect(seen(filtered(board, 0), 256)).toBeCloseTo(seen(filtered(board, 90), 256), 9);
    expect(seen(filtered(board, 0), 256)).toBeCloseTo(0.25, 2);
  });

  test('a satin coat is told by its facets: most of its lobe goes where the filter is upright', () => {
    const satin = plate({ ...LACQUER, roughness: 0.2 }, 56.31);
    const [level, upright] = [90, 0].map((deg) => seen(filtered(satin, deg), 2000)) as [number, number];
    expect(upright).toBeGreaterThan(0);
    expect(upright).toBeLessThan(0.12 * level);
  });
});

test('a clear pane passes what its two sides pass of each way of polarisation, all mirrored within it too', () => {
  const set = testSet({
    products: [
      {
        kind: 'box',
        id: 'pane',
        name: 'Pane',
        positionM: [0, 0, -2],
        turnDeg: 60,
        widthM: 4,
        depthM: 0.01,
        heightM: 4,
        material: { kind: 'dielectric', index: 1.5 },
      } as never,
    ],
    lights: [surroundLight],
  });
  const { s, p } = fresnelSplit(Math.cos(radians(60)), 1.5);
  // Seen with its mirror image of the same even light it is as bright as without it: what it mirrors is turned off.
  const tracing = prepareTracing(filtered(set, 0));
  const stokes = new Stokes();
  const how = new Float64Array(2);
  const cosine = Math.cos(radians(60));
  const inside = Math.sqrt(1 - (1 - cosine * cosine) / 2.25);
  stokes.begin(Float64Array.of(0, 1, 0), Float64Array.of(1, 0, 0));
  const normal = Float64Array.of(Math.sin(radians(60)), -cosine, 0);
  dielectricPassed(how, cosine, 1.5);
  stokes.meet(Float64Array.of(0, 1, 0), normal, how, 1);
  dielectricPassed(how, inside, 1 / 1.5);
  stokes.meet(Float64Array.of(0, 1, 0), normal, how, 1);
  const [ts, tp] = [(1 - s) ** 2, (1 - p) ** 2];
  // The plane of incidence is level: what lies across it is upright.
  expect((1 - (s + p) / 2) ** 2 * (stokes.rows[0] as number)).toBeCloseTo((ts + tp) / 2, 9);
  expect((1 - (s + p) / 2) ** 2 * (stokes.rows[3] as number)).toBeCloseTo((tp - ts) / 2, 9);
  expect(tracing.scene.channelCount).toBe(3);
  // Nothing is lost in an even surround, whichever way the filter is turned.
  for (const deg of [0, 45, 90]) expect(seen(filtered(set, deg), 400)).toBeCloseTo(0.5, 2);
});

describe('a film before the lamp', () => {
  /** A lamp that a plate mirrors into the lens at an angle of incidence. */
  const lampSet = (material: object, incidenceDeg: number, axisDeg: number): SetDocument => {
    const angle = radians(incidenceDeg);
    return plate(material, incidenceDeg, {
      lights: [
        {
          kind: 'softbox',
          tag: 'A',
          name: 'Softbox',
          positionM: [0, Math.sin(angle), 0.02 + Math.cos(angle)],
          aimM: [0, 0, 0.02],
          widthM: 0.4,
          heightM: 0.4,
          output: { kind: 'luminance', luminanceCdM2: 1 },
          polarised: { axisDeg, lossStops: 1 },
        } as never,
      ],
    });
  };

  test('crossed with the filter leaves nothing of lacquer where it lies along or across the plane of incidence', () => {
    const { s, p } = fresnelSplit(Math.cos(radians(35)), 1.5);
    // Level film: across the plane. The film takes a half, the filter none of what comes along it.
    const level = lampSet(LACQUER, 35, 90);
    expect(seen(filtered(level, 90))).toBeCloseTo(s, 3);
    expect(seen(filtered(level, 0))).toBeLessThan(1e-6);
    const upright = lampSet(LACQUER, 35, 0);
    expect(seen(filtered(upright, 0))).toBeCloseTo(p, 3);
    expect(seen(filtered(upright, 90))).toBeLessThan(1e-6);
  });

  test('slanted, bare metal leaves what its phase turns: the residue of its index', () => {
    const { n, k } = METAL_INDEX.steel;
    const cosine = Math.cos(radians(60));
    const set = lampSet({ kind: 'metal', metal: 'steel', roughness: 0 }, 60, 45);
    const at = [-45, 45].map((deg) => seen(filtered(set, deg))).sort((a, b) => a - b) as [number, number];
    const left = at[0] / (at[0] + at[1]);
    expect(left).toBeCloseTo(crossedResidue(cosine, n[1], k[1]), 3);
  });

  test('without a filter the films are as many as lights, and a film changes what lacquer mirrors', () => {
    const set = lampSet(LACQUER, 56.31, 0);
    expect(channelsOf(set)).toHaveLength(1);
    // Light in the plane of incidence is not mirrored there at all.
    expect(seen(set)).toBeLessThan(1e-3);
    expect(seen(lampSet(LACQUER, 56.31, 90))).toBeGreaterThan(0.1);
  });
});

describe('what asks for rays', () => {
  const set = filtered(plate(LACQUER, 50), 30);
  test('a filter put on does; one that is turned does not', () => {
    expect(traceKey(filtered(set, -70))).toBe(traceKey(set));
    expect(traceKey({ ...set, camera: { ...set.camera, polariser: undefined } })).not.toBe(traceKey(set));
    expect(channelsOf(set).map(({ stokes }) => stokes)).toEqual(['all', 'plane', 'slant']);
    // The scene of one without it has other films: it is not taken for that of the same things by another camera.
    const bare = { ...set, camera: { ...set.camera, polariser: undefined } };
    expect(sceneKey(bare)).not.toBe(sceneKey(set));
    expect(sceneKey(filtered(set, 10))).toBe(sceneKey(set));
  });

  test('a spot reads through the filter as the picture shows', () => {
    const spots = [
      {
        name: 'glare',
        pointM: [0, 0, 0.02] as [number, number, number],
        normal: [0, 0, 1] as [number, number, number],
      },
    ];
    const tones = [0, 90].map((deg) => {
      const own = { ...filtered(plate(LACQUER, 56.31), deg), spots } as SetDocument;
      const spot = traceSpot(prepareTracing(own), own.spots[0] as never, 512, 1);
      return spotReading(own, spot).stopsFromMidTone ?? Number.NEGATIVE_INFINITY;
    }) as [number, number];
    expect(tones[1] - tones[0]).toBeGreaterThan(5);
  });
});

describe('Stokes numbers along a way', () => {
  type Matrix = number[][];
  const times = (a: Matrix, b: Matrix): Matrix =>
    a.map((row) =>
      (b[0] as number[]).map((_, j) =>
        row.reduce((sum, value, k) => sum + value * ((b[k] as number[])[j] as number), 0),
      ),
    );
  const turned = (angle: number): Matrix => [
    [1, 0, 0],
    [0, Math.cos(2 * angle), Math.sin(2 * angle)],
    [0, -Math.sin(2 * angle), Math.cos(2 * angle)],
  ];

  test('are those of Mueller matrices, multiplied apart', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.double({ min: 0.1, max: 1.4, noNaN: true }),
            fc.double({ min: 0, max: 6.3, noNaN: true }),
          ),
          {
            minLength: 1,
            maxLength: 5,
          },
        ),
        (events) => {
          const stokes = new Stokes();
          let direction = Float64Array.of(0, 1, 0);
          stokes.begin(direction, Float64Array.of(1, 0, 0));
          let expected: Matrix = [
            [1, 0, 0],
            [0, 1, 0],
            [0, 0, 1],
          ];
          const how = new Float64Array(2);
          for (const [incidence, about] of events) {
            // A normal at this incidence, its plane turned by an angle from `level`.
            const { level } = stokes;
            const [d, e] = [[...direction], [...level]] as [number[], number[]];
            const f = [
              (d[1] as number) * (e[2] as number) - (d[2] as number) * (e[1] as number),
              (d[2] as number) * (e[0] as number) - (d[0] as number) * (e[2] as number),
              (d[0] as number) * (e[1] as number) - (d[1] as number) * (e[0] as number),
            ];
            const side = [0, 1, 2].map(
              (a) => Math.cos(about) * (e[a] as number) + Math.sin(about) * (f[a] as number),
            );
            const normal = Float64Array.from(
              [0, 1, 2].map(
                (a) => -Math.cos(incidence) * (d[a] as number) + Math.sin(incidence) * (side[a] as number),
              ),
            );
            dielectricMirrored(how, Math.cos(incidence), 1.5);
            const [parted, kept] = how as unknown as [number, number];
            // Across the plane of incidence lies direction x normal: a right angle on from `side`.
            expected = times(times(expected, turned(-(about + Math.PI / 2))), [
              [1, parted, 0],
              [parted, 1, 0],
              [0, 0, kept],
            ]);
            stokes.meet(direction, normal, how, 1);
            const along = normal.reduce((sum, value, a) => sum + value * (direction[a] as number), 0);
            direction = direction.map(
              (value, a) => value - 2 * along * (normal[a] as number),
            ) as typeof direction;
          }
          for (let i = 0; i < 9; i++)
            expect(stokes.rows[i]).toBeCloseTo((expected[Math.floor(i / 3)] as number[])[i % 3] as number, 6);
        },
      ),
    );
  });

  test('total reflection keeps all, and turns the slant by its phase', () => {
    const how = new Float64Array(2);
    dielectricMirrored(how, Math.cos(radians(51)), 1 / 1.5);
    expect(how[0]).toBe(0);
    // A Fresnel rhomb of index 1.5 turns by 45 degrees at about 50.2 and 53.2 degrees: between them a little more.
    expect(Math.acos(Math.abs(how[1] as number))).toBeCloseTo(radians(45.5), 1);
    conductorMirrored(how, 1, 0.2, 3.5);
    expect(how[0]).toBeCloseTo(0, 9);
    expect(how[1]).toBeCloseTo(-1, 9);
  });
});

describe('a spot that is pointed at through a filter', () => {
  test('tells what it mirrors as the picture shows it, across the plane of incidence and in it', () => {
    const { s } = fresnelSplit(Math.cos(radians(56.31)), 1.5);
    const mirrored = (axisDeg: number) => {
      const set = filtered(plate(LACQUER, 56.31), axisDeg);
      const tracing = prepareTracing(set);
      const direction = new Float64Array(3);
      rayThrough(direction, tracing.view, 0.5, 0.5);
      const weights = exposureWeights(set);
      const bare = exposureWeights({ ...set, camera: { ...set.camera, polariser: undefined } });
      return (
        pickSources(tracing, tracing.view.origin, direction, 64)
          .filter(({ how }) => how === 'mirrored')
          .reduce((sum, { channel, unit }) => sum + unit[1] * (weights[3 * channel + 1] as number), 0) /
        (bare[1] as number)
      );
    };
    expect(mirrored(90)).toBeCloseTo(s / 2, 3);
    expect(Math.abs(mirrored(0))).toBeLessThan(1e-3);
  });

  test('glare on a label goes where the filter is turned against it, and the words are read', () => {
    const label = (axisDeg: number) => {
      const set = filtered(
        testSet({
          products: [
            {
              kind: 'box',
              id: 'box',
              name: 'Box',
              positionM: [0, 0, 0],
              widthM: 0.3,
              depthM: 0.02,
              heightM: 0.2,
              material: { kind: 'matte', reflectance: 0.3 },
              label: {
                name: 'label',
                widthM: 0.28,
                heightM: 0.18,
                centreHeightM: 0.1,
                material: { kind: 'coated', reflectance: 0.7, roughness: 0 },
              },
            } as never,
          ],
          lights: [surroundLight],
          camera: { ...testCamera(), positionM: [0.83, -0.56, 0.1], aimM: [0, 0, 0.1] },
        }),
        axisDeg,
      );
      const view = traceView(prepareTracing(set), set, { samples: 1 });
      const weights = exposureWeights(set);
      const { places, unit } = view.glare;
      const sum = unit.reduce((all, value, k) => all + value * (weights[k % weights.length] as number), 0);
      return sum / places.length;
    };
    // Seen from the side the plane of incidence is level: an upright filter passes the glare, a level one does not.
    expect(label(90)).toBeLessThan(0.1 * label(0));
  });
});
