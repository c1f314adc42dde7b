import type { SetDocumentInput, Vector } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import { illuminanceByLight, lightLuminance, prepareTracing } from '../src/index.js';
import { testSet } from './sets.js';

type LightInput = NonNullable<SetDocumentInput['lights']>[number];

const base = {
  tag: 'A',
  name: 'light',
  positionM: [0, 0, 0] as Vector,
  aimM: [0, 1, 0] as Vector,
  output: { kind: 'lumens' as const, lumens: 1000, modifierEfficiency: 0.4 },
};
const grid = { cutoffDeg: 60, lossStops: 0.5 };
const table = {
  verticalDeg: [0, 10, 25, 60, 90],
  horizontalDeg: [0, 90],
  candela: [
    [900, 700, 300, 50, 0],
    [900, 500, 100, 10, 0],
  ],
};

/** Directions spread evenly over a sphere (golden spiral). */
function spread(count: number): Vector[] {
  return Array.from({ length: count }, (_, i) => {
    const z = 1 - (2 * i + 1) / count;
    const phi = i * Math.PI * (3 - Math.sqrt(5));
    const side = Math.sqrt(1 - z * z);
    return [side * Math.cos(phi), side * Math.sin(phi), z];
  });
}

/** Illuminance that a light gives at a point, lx. */
function illuminance(light: LightInput, point: Vector, normal: Vector, samples = 16): number {
  return meterOf(light)(point, normal, samples);
}

function meterOf(light: LightInput) {
  const set = testSet({ lights: [light] });
  const tracing = prepareTracing(set);
  const unit = lightLuminance(set.lights[0] as (typeof set.lights)[0]).luminance;
  return (point: Vector, normal: Vector, samples = 16, seed = 1) => {
    const options = { samples, seed, directOnly: true };
    const [share] = illuminanceByLight(tracing, point, normal, options);
    return unit * (share?.direct ?? 0);
  };
}

/** Flux through a sphere round the light, lm. */
function fluxOf(light: LightInput, count = 12000): number {
  const meter = meterOf(light);
  const radius = 4;
  let sum = 0;
  spread(count).forEach(([x, y, z], i) => {
    sum += meter([radius * x, radius * y, radius * z], [-x, -y, -z], 16, i);
  });
  return (sum * 4 * Math.PI * radius ** 2) / count;
}

describe('each modifier lets out the part of the light that its efficiency says', () => {
  const kinds: [string, LightInput][] = [
    ['softbox with a hot centre', { ...base, kind: 'softbox', widthM: 0.6, heightM: 0.9, hotCentre: 2 }],
    ['octa', { ...base, kind: 'octa', diameterM: 0.9, hotCentre: 1.8 }],
    ['ring', { ...base, kind: 'ring', outerDiameterM: 0.3, innerDiameterM: 0.12 }],
    ['beauty dish', { ...base, kind: 'dish', diameterM: 0.5, deflectorDiameterM: 0.15, beamDeg: 80 }],
    ['standard dish', { ...base, kind: 'dish', diameterM: 0.18, beamDeg: 55 }],
    ['tube', { ...base, kind: 'tube', lengthM: 0.6, diameterM: 0.03 }],
    ['covered umbrella', { ...base, kind: 'umbrella', diameterM: 1 }],
    ['shoot-through umbrella', { ...base, kind: 'umbrella', diameterM: 1, backShare: 1 }],
    ['snoot', { ...base, kind: 'snoot', diameterM: 0.06, cutoffDeg: 30 }],
    ['LED panel', { ...base, kind: 'panel', widthM: 0.3, heightM: 0.2, beamDeg: 90 }],
    ['window', { ...base, kind: 'window', widthM: 1, heightM: 1.2, sky: 'even' }],
    [
      'measured intensities',
      { ...base, kind: 'ies', openingWidthM: 0.2, openingLengthM: 0.1, distribution: table },
    ],
    ['bare bulb', { tag: 'A', name: 'bulb', positionM: [0, 0, 0], output: base.output, kind: 'bare-lamp' }],
    [
      'projector without a drawing',
      {
        ...base,
        kind: 'projector',
        lensDiameterM: 0.08,
        fieldDeg: 40,
        focusM: 4,
        gobo: { kind: 'disc', part: 1 },
      },
    ],
  ];
  test.each(kinds)('%s: 1000 lm in, 400 lm out', (_name, light) => {
    // A projector's field ends at once: its rim asks for more directions.
    const count = light.kind === 'projector' ? 80000 : 12000;
    expect(Math.abs(fluxOf(light, count) / 400 - 1)).toBeLessThan(0.01);
  });

  test('a grid lets out less than comes in, and no more than its loss straight ahead', () => {
    const plain: LightInput = { ...base, kind: 'softbox', widthM: 0.6, heightM: 0.9 };
    const gridded: LightInput = { ...plain, grid };
    expect(fluxOf(gridded)).toBeLessThan(fluxOf(plain) * 2 ** -grid.lossStops);
    const ahead = illuminance(gridded, [0, 40, 0], [0, -1, 0]) / illuminance(plain, [0, 40, 0], [0, -1, 0]);
    expect(Math.log2(ahead)).toBeCloseTo(-grid.lossStops, 1);
  });

  test('an umbrella without cover sends back what it says', () => {
    const light: LightInput = { ...base, kind: 'umbrella', diameterM: 1, backShare: 0.8 };
    const front = illuminance(light, [0, 6, 0], [0, -1, 0], 256);
    const back = illuminance(light, [0, -6, 0], [0, 1, 0], 256);
    expect(back / front).toBeCloseTo(0.8, 2);
  });
});

describe('where beams end', () => {
  /** Illuminance on a far sphere at an angle from the axis, over that on the axis. */
  const atAngle = (light: LightInput, deg: number) => {
    const a = (deg * Math.PI) / 180;
    const at = (angle: number): [Vector, Vector] => [
      [30 * Math.sin(angle), 30 * Math.cos(angle), 0],
      [-Math.sin(angle), -Math.cos(angle), 0],
    ];
    return illuminance(light, ...at(a), 64) / illuminance(light, ...at(0), 64);
  };

  test('round cells: half the rated angle away nothing is left, at a quarter what two discs share', () => {
    const light: LightInput = { ...base, kind: 'dish', diameterM: 0.1, beamDeg: 120, grid };
    expect(atAngle(light, 31)).toBe(0);
    const q = Math.tan(Math.PI / 12) / Math.tan(Math.PI / 6);
    const shared = (2 / Math.PI) * (Math.acos(q) - q * Math.sqrt(1 - q * q));
    // The face itself is seen at a slant too.
    expect(atAngle(light, 15)).toBeCloseTo(shared * Math.cos(Math.PI / 12), 2);
  });

  test('square cells close evenly towards their cut-off', () => {
    const light: LightInput = { ...base, kind: 'softbox', widthM: 0.1, heightM: 0.1, grid };
    const open = 1 - Math.tan(Math.PI / 12) / Math.tan(Math.PI / 6);
    expect(atAngle(light, 15)).toBeCloseTo(open * Math.cos(Math.PI / 12), 2);
    expect(atAngle(light, 31)).toBe(0);
  });

  test('a snoot is dark beyond its cut-off', () => {
    const light: LightInput = { ...base, kind: 'snoot', diameterM: 0.05, cutoffDeg: 40 };
    expect(atAngle(light, 21)).toBe(0);
    expect(atAngle(light, 10)).toBeGreaterThan(0.1);
  });

  test('a dish falls to half at half its beam angle', () => {
    const light: LightInput = { ...base, kind: 'dish', diameterM: 0.1, beamDeg: 60 };
    expect(atAngle(light, 30)).toBeCloseTo(0.5, 2);
  });

  test('measured intensities come back where they were measured, between them in proportion', () => {
    const light: LightInput = {
      ...base,
      kind: 'ies',
      openingWidthM: 0.05,
      openingLengthM: 0.05,
      distribution: { ...table, candela: table.candela.map(() => table.candela[0] as number[]) },
    };
    expect(atAngle(light, 25)).toBeCloseTo(300 / 900, 3);
    expect(atAngle(light, 17.5)).toBeCloseTo(500 / 900, 3);
    expect(atAngle(light, 60)).toBeCloseTo(50 / 900, 3);
  });
});

describe('gobo', () => {
  const projector: LightInput = {
    ...base,
    kind: 'projector',
    lensDiameterM: 0.05,
    fieldDeg: 30,
    focusM: 2,
    gobo: { kind: 'disc', part: 0.5 },
  };
  const wall = 2;
  const fieldRadius = wall * Math.tan((15 * Math.PI) / 180);

  test('its image is as large as part and field say, sharp at the focus', () => {
    const edge = 0.5 * fieldRadius;
    const at = (x: number) => illuminance(projector, [x, wall, 0], [0, -1, 0], 256);
    expect(at(edge * 0.96)).toBeGreaterThan(0.9 * at(0));
    expect(at(edge * 1.04)).toBeLessThan(0.05 * at(0));
  });

  test('out of focus its edge is as wide as the lens says', () => {
    // Focused at 2 m, seen at 3 m: half the lens beside the middle moves the edge by D/2 x (3 - 2)/2.
    const far = 3;
    const edge = (0.5 * fieldRadius * far) / wall;
    const reach = (0.025 * (far - wall)) / wall;
    const at = (x: number) => illuminance(projector, [x, far, 0], [0, -1, 0], 1024);
    expect(at(edge - 1.3 * reach)).toBeGreaterThan(0.9 * at(0));
    expect(at(edge)).toBeGreaterThan(0.3 * at(0));
    expect(at(edge)).toBeLessThan(0.7 * at(0));
    expect(at(edge + 1.3 * reach)).toBeLessThan(0.02 * at(0));
  });

  test('bars lie at their places; a picture stands upright as the lamp sees it', () => {
    const bars: LightInput = { ...projector, gobo: { kind: 'bars', count: 4, open: 0.5 } };
    const across = meterOf(bars);
    const row = Array.from({ length: 81 }, (_, i) =>
      across([fieldRadius * 0.95 * (i / 40 - 1), wall, 0], [0, -1, 0], 64),
    );
    const most = Math.max(...row);
    const edges = row.filter(
      (value, i) => i > 0 && value > most / 2 !== (row[i - 1] as number) > most / 2,
    ).length;
    expect(edges).toBeGreaterThanOrEqual(6);
    expect(edges).toBeLessThanOrEqual(8);
    // A picture of two by two: only its top left is open.
    const picture: LightInput = {
      ...projector,
      gobo: { kind: 'picture', widthPx: 2, heightPx: 2, greyBase64: btoa('\xff\x00\x00\x00') },
    };
    const part = 0.5 * fieldRadius;
    const drawn = meterOf(picture);
    const at = (x: number, z: number) => drawn([x, wall, z], [0, -1, 0], 64);
    expect(at(-part, part)).toBeGreaterThan(100 * at(part, -part));
    expect(at(-part, part)).toBeGreaterThan(2 * at(-part, -part));
  });
});

describe('daylight', () => {
  test('an overcast sky gives 7/9 pi of its zenith to an open level plane; a wall sees sky and background', () => {
    // A level plane under a huge skylight, by the closed form of the overcast sky: E = pi Lz (7/9), Lhorizon = Lz/3.
    const light: LightInput = {
      ...base,
      kind: 'window',
      positionM: [0, 0, 1],
      aimM: [0, 0, 0],
      widthM: 90,
      heightM: 90,
      sky: 'overcast',
      output: { kind: 'luminance', luminanceCdM2: 3000 },
    };
    const set = testSet({ lights: [light] });
    const unit = lightLuminance(set.lights[0] as (typeof set.lights)[0]).luminance;
    const value = illuminance(light, [0, 0, 0], [0, 0, 1], 4096);
    // The output is the luminance straight on, which is the zenith here.
    expect(value / unit).toBeGreaterThan(0.7 * Math.PI);
    expect(value / 3000).toBeCloseTo((7 / 9) * Math.PI, 1);
  });

  test('the flux of a window counts with the way it faces, wherever it stands', () => {
    const facing = (aimM: Vector, positionM: Vector = [0, 0, 0]) => {
      const light = {
        ...base,
        kind: 'window' as const,
        positionM,
        aimM,
        widthM: 1,
        heightM: 1,
        sky: 'overcast' as const,
      };
      const [made] = testSet({ lights: [light] }).lights;
      return lightLuminance(made as NonNullable<typeof made>).luminance;
    };
    // Down from the zenith, the brightest part: more light for its luminance straight on than from the horizon.
    expect(facing([0, 0, -1])).not.toBeCloseTo(facing([0, 1, 0]), 0);
    expect(facing([0, 1, 0], [0, 0, 0])).toBeCloseTo(facing([3, 5, 1], [3, 4, 1]), 6);
  });

  test('the sun makes a patch on a film of its own, as bright as it says', () => {
    const light: LightInput = {
      ...base,
      kind: 'window',
      widthM: 1,
      heightM: 1,
      sun: { towards: [0, 1, -1], illuminanceLx: 50000 },
      output: { kind: 'luminance', luminanceCdM2: 1000 },
    };
    const tracing = prepareTracing(testSet({ lights: [light] }));
    const options = { samples: 64, seed: 1, directOnly: true };
    const s = Math.SQRT1_2;
    const [, lit] = illuminanceByLight(tracing, [0, 1, -1], [0, -s, s], options);
    const [, shaded] = illuminanceByLight(tracing, [0, 1, 1], [0, -s, s], options);
    expect(shaded?.direct).toBe(0);
    // The film is that of unit luminance of the sun's disc.
    const disc = Math.PI * Math.sin((0.266 * Math.PI) / 180) ** 2;
    expect((lit?.direct ?? 0) / disc).toBeCloseTo(1, 2);
  });
});
