import { defaultKit } from '@fendrix/catalogue';
import type { Light, SetDocument, SetDocumentInput, Spot, Vector } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  addTile,
  applyChange,
  bandProfile,
  createFilms,
  developFilms,
  displayWeights,
  flagGap,
  frostLampDistanceM,
  glareZones,
  illuminanceByLight,
  lampBehindFrost,
  loseGlare,
  mirrorBand,
  moreLight,
  onDial,
  placeForBand,
  prepareTracing,
  profileFigures,
  projectPoint,
  renderTile,
  type SetChange,
  SHUTTERS,
  solvePowers,
  solveSetting,
  spotReading,
  traceSpot,
  viewOf,
} from '../src/index.js';
import { matte, overheadSoftbox, surroundLight, testCamera, testSet } from './sets.js';

const gloss = { kind: 'coated' as const, reflectance: 0.3 };
const column = (radiusM: number, heightM: number) => ({
  kind: 'turned' as const,
  id: 'column',
  name: 'Column',
  positionM: [0, 0, 0] as Vector,
  material: gloss,
  profile: [
    { radiusM, heightM: 0 },
    { radiusM, heightM },
  ],
});
const card = (positionM: Vector, widthM = 0.3, heightM = 0.6) => ({
  kind: 'card' as const,
  tag: '1',
  name: 'Card',
  positionM,
  aimM: [0, 0, 0.2] as Vector,
  widthM,
  heightM,
  front: matte(0.85),
  back: matte(0.04),
});
const columnSet = () =>
  testSet({
    products: [column(0.04, 0.4)],
    sheets: [card([-0.5, -0.1, 0.2])],
    camera: { ...testCamera(), positionM: [0, -1.2, 0.2], aimM: [0, 0, 0.2], focusM: 1.2 },
  });

/** The set once an answer is taken. */
const taken = (set: SetDocument, answer: { change: SetChange } | null | undefined): SetDocument => {
  const changed = answer && applyChange(set, answer.change);
  if (!changed) throw new Error('there is no such answer');
  return changed;
};

const imageOf = (set: SetDocument, product: string, tag: string) => {
  const body = set.products.find(({ id }) => id === product);
  const band = body && mirrorBand(prepareTracing(set), body);
  const own = band?.lengths.filter(({ what }) => what === tag) ?? [];
  return own.length === 0 ? null : { from: own[0]?.from ?? 0, to: own.at(-1)?.to ?? 0 };
};

describe('a card placed for a length of the band', () => {
  test.each([
    [0.05, 0.2],
    [0.15, 0.3],
    [0.22, 0.26],
    [0.6, 0.8],
    [0.75, 0.97],
  ])('%f to %f of the width is met, as the traced band of the new set says', (from, to) => {
    const wish = { kind: 'sheet', key: '1', product: 'column', heightM: 0.2, from, to, by: 'move' } as const;
    const answer = placeForBand(columnSet(), wish);
    const image = imageOf(taken(columnSet(), answer), 'column', '1');
    expect(answer?.limited).toBeNull();
    expect(image?.from).toBeCloseTo(from, 2);
    expect(image?.to).toBeCloseTo(to, 2);
    expect(answer?.reached?.from).toBeCloseTo(image?.from ?? Number.NaN, 6);
  });

  test.each([
    [0.6, 0.8],
    [0.1, 0.3],
    [0.2, 0.24],
  ])('a tall strip aimed steeply down meets %f to %f too, lowered no more than it takes', (from, to) => {
    // As it comes nearer it tilts, and its lower end is no longer seen: the width of its image jumps.
    const strip = overheadSoftbox(0, {
      positionM: [-0.75, -0.27, 0.4],
      aimM: [0, 0, 0.09],
      widthM: 0.3,
      heightM: 1.2,
    });
    const set = testSet({
      products: [column(0.035, 0.2)],
      lights: [strip],
      camera: { ...testCamera(), positionM: [0, -1.2, 0.12], aimM: [0, 0, 0.085], focusM: 1.165 },
    });
    for (const heightM of [0.05, 0.09, 0.15]) {
      const wish = { kind: 'light', key: 'A', product: 'column', heightM, from, to, by: 'move' } as const;
      const answer = placeForBand(set, wish);
      expect(answer?.limited).toBeNull();
      expect(Math.abs((answer?.reached?.to ?? 0) - (answer?.reached?.from ?? 0) - (to - from))).toBeLessThan(
        0.012,
      );
    }
    const low = { kind: 'light', key: 'A', product: 'column', heightM: 0.09, from, to, by: 'move' } as const;
    const moved = taken(set, placeForBand(set, low)).lights[0];
    const height = moved && 'positionM' in moved ? moved.positionM[2] : 0;
    expect(height).toBeGreaterThan(to - from < 0.1 ? 0.399 : 0.15);
  });

  test('by its size it stays at its distance', () => {
    const wish = {
      kind: 'sheet',
      key: '1',
      product: 'column',
      heightM: 0.2,
      from: 0.1,
      to: 0.35,
      by: 'size',
    } as const;
    const answer = placeForBand(columnSet(), wish);
    const sheet = taken(columnSet(), answer).sheets[0];
    expect(answer?.reached?.to).toBeCloseTo(0.35, 2);
    expect(Math.hypot(sheet?.positionM[0] ?? 0, sheet?.positionM[1] ?? 0)).toBeCloseTo(
      Math.hypot(0.5, 0.1),
      3,
    );
    expect(answer?.widthM).toBeGreaterThan(0.3);
  });

  test('wider than it can be, it stands as near as it can and says so', () => {
    const small = { ...columnSet(), sheets: columnSet().sheets.map((sheet) => ({ ...sheet, widthM: 0.02 })) };
    const wish = {
      kind: 'sheet',
      key: '1',
      product: 'column',
      heightM: 0.2,
      from: 0.05,
      to: 0.45,
      by: 'move',
    } as const;
    const answer = placeForBand(small as SetDocument, wish);
    expect(answer?.limited).toBe('nearest');
    expect((answer?.reached?.to ?? 0) - (answer?.reached?.from ?? 0)).toBeLessThan(0.4);
  });

  test('far from a distant camera it stands at twice the angle of the surface', () => {
    const set = testSet({
      products: [column(0.002, 0.4)],
      sheets: [card([-2, -0.1, 0.2], 0.1, 6)],
      camera: { ...testCamera(), positionM: [0, -60, 0.2], aimM: [0, 0, 0.2], focusM: 60 },
    });
    const middle = 0.25;
    const wish = {
      kind: 'sheet',
      key: '1',
      product: 'column',
      heightM: 0.2,
      from: 0.24,
      to: 0.26,
      by: 'move',
    } as const;
    const [x, y] = taken(set, placeForBand(set, wish)).sheets[0]?.positionM ?? [0, 0];
    const bearing = Math.atan2(x, -y);
    expect(Math.sin(bearing / 2)).toBeCloseTo(2 * middle - 1, 2);
  });

  test('what is not there is no answer', () => {
    const wish = {
      kind: 'sheet',
      key: '9',
      product: 'column',
      heightM: 0.2,
      from: 0.1,
      to: 0.2,
      by: 'move',
    } as const;
    expect(placeForBand(columnSet(), wish)).toBeNull();
  });
});

describe('losing a glare', () => {
  test('every way out clears the spot, and the least turn is the least', () => {
    const set = testSet({
      products: [column(0.04, 0.4)],
      lights: [
        overheadSoftbox(0.2, { positionM: [-0.5, -0.3, 0.2], aimM: [0, 0, 0.2], widthM: 0.2, heightM: 0.2 }),
      ],
      camera: { ...testCamera(), positionM: [0, -1.2, 0.2], aimM: [0, 0, 0.2], focusM: 1.2 },
    });
    const tracing = prepareTracing(set);
    const image = imageOf(set, 'column', 'A');
    const product = set.products[0];
    const band = product && mirrorBand(tracing, product);
    if (!band || !image) throw new Error('the light is not mirrored');
    const across = band.left + ((image.from + image.to) / 2) * (band.right - band.left);
    const ways = loseGlare(set, across, band.down);
    expect(ways.map(({ how }) => how)).toEqual(expect.arrayContaining(['turn', 'lift', 'flag', 'off']));
    for (const way of ways.filter(({ how }) => how !== 'off' && how !== 'polarise')) {
      expect(way.mirrors?.key).not.toBe('A');
    }
    const turn = ways.find(({ how, amount }) => how === 'turn' && Number(amount) > 0);
    // The image must leave a spot in its middle and what lies round it: half of what the light spans as seen from the
    // column, and twice the angle that 3.5 mm round the spot take on a radius of 4 cm.
    const spansDeg = (2 * Math.atan(0.1 / Math.hypot(0.5, 0.3)) * 180) / Math.PI;
    expect(Number(turn?.amount)).toBeGreaterThan(spansDeg / 2 - 3);
    expect(Number(turn?.amount)).toBeLessThan(spansDeg / 2 + 13);
  });

  test('film and filter are offered but on metal, and take the image away from the picture', () => {
    const lit = (material: object) =>
      testSet({
        products: [
          {
            kind: 'box',
            id: 'plate',
            name: 'Plate',
            positionM: [0, 0, 0],
            widthM: 0.3,
            depthM: 0.02,
            heightM: 0.3,
            material,
          } as never,
        ],
        lights: [
          overheadSoftbox(0.15, {
            positionM: [0, -0.5, 0.15],
            aimM: [0, 0, 0.15],
            widthM: 0.8,
            heightM: 0.8,
          }),
        ],
        camera: { ...testCamera(), positionM: [0, -0.4, 0.15], aimM: [0, 0, 0.15], focusM: 0.4 },
      });
    const black = lit({ kind: 'coated', reflectance: 0.02, coatIndex: 1.5, roughness: 0 });
    const way = loseGlare(black, 0.5, 0.5).find(({ how }) => how === 'polarise');
    expect(way?.amount).toBeCloseTo(0.01 / 1.005, 6);
    const filmed = taken(black, way);
    expect(filmed.lights[0]).toMatchObject({ polarised: { axisDeg: 0, lossStops: 1.4 } });
    expect(filmed.camera.polariser?.axisDeg).toBe(90);
    expect(way?.losesStops).toEqual({ light: 2.9, others: 1.5 });
    // In black lacquer nearly all is image: of what film and filter alone would leave, little does.
    const spot = { x: 47, y: 31, width: 2, height: 2 };
    const luminance = (set: typeof black) => {
      const tracing = prepareTracing(set);
      const job = { width: 96, height: 64, tile: spot, firstSample: 0, samples: 64, seed: 1 };
      const films = createFilms(2, 2, tracing.scene.channelCount);
      addTile(films, { ...spot, x: 0, y: 0 }, renderTile(tracing, job), 64);
      const linear = new Float32Array(12);
      developFilms(linear, films, displayWeights(set));
      return linear.reduce((sum, value) => sum + value, 0);
    };
    const left = luminance(filmed) / luminance(black);
    expect(left).toBeLessThan(0.2 * 2 ** -2.9);
    expect(left).toBeGreaterThan(0.01 * 2 ** -2.9);
    // Nothing more to gain there; with another filter already on, the film is turned to it.
    expect(loseGlare(filmed, 0.5, 0.5).some(({ how }) => how === 'polarise')).toBe(false);
    const filtered = {
      ...black,
      camera: { ...black.camera, polariser: { axisDeg: 20, lossStops: 1.5, extinction: 0.005 } },
    };
    const turned = loseGlare(filtered, 0.5, 0.5).find(({ how }) => how === 'polarise');
    expect(taken(filtered, turned).lights[0]).toMatchObject({ polarised: { axisDeg: -70 } });
    expect(turned?.amount).toBeCloseTo(0.01 / 1.005, 6);

    const steel = lit({ kind: 'metal', metal: 'steel', roughness: 0.1 });
    const ways = loseGlare(steel, 0.5, 0.5).map(({ how }) => how);
    expect(ways).toContain('off');
    expect(ways).not.toContain('polarise');
  });

  test('a spot that mirrors no light or sheet has none', () => {
    expect(loseGlare(columnSet(), 0.5, 0.5)).toEqual([]);
  });
});

describe('zones of glare', () => {
  test('of an upright flat mirror they lie in the cone from the image of the lens', () => {
    const mirror = {
      kind: 'box' as const,
      id: 'plate',
      name: 'Plate',
      positionM: [0, 0, 0] as Vector,
      widthM: 0.1,
      depthM: 0.01,
      heightM: 0.2,
      material: { kind: 'mirror' as const, reflectance: 0.9 },
    };
    const camera = { ...testCamera(), positionM: [0.3, -1, 0.1] as Vector, aimM: [0, 0, 0.1] as Vector };
    const { above, rays } = glareZones(testSet({ products: [mirror], camera }), { product: 'plate' });
    expect(rays).toBeGreaterThan(100);
    // The lens at (0.3, -1) mirrors to (0.3, 0.99) behind the face at y = -0.005.
    const image: [number, number] = [0.3, 2 * -0.005 + 1];
    let seen = 0;
    for (let j = 0; j < above.along; j++) {
      for (let i = 0; i < above.across; i++) {
        const x = above.fromM[0] + (i + 0.5) * above.squareM;
        const y = above.fromM[1] + (j + 0.5) * above.squareM;
        if (y > -0.1 || y < -1.5) continue;
        const atFace = image[0] + ((x - image[0]) * (-0.005 - image[1])) / (y - image[1]);
        const share = above.share[j * above.across + i] ?? 0;
        if (Math.abs(atFace) > 0.05 + 0.04) expect(share).toBe(0);
        if (Math.abs(atFace) < 0.05 - 0.04) expect(share).toBeGreaterThan(0);
        if (share > 0) seen++;
      }
    }
    expect(seen).toBeGreaterThan(20);
  });
});

describe('profile across a product', () => {
  test('even light from everywhere gives an even mirror, by its reflectance', () => {
    const chrome = { ...column(0.04, 0.4), material: { kind: 'mirror' as const, reflectance: 0.8 } };
    const set = testSet({ products: [chrome], lights: [surroundLight] });
    const product = set.products[0];
    const profile = product && bandProfile(prepareTracing(set), product, { columns: 24, samples: 16 });
    for (let i = 0; i < 24; i++) expect(profile?.unit[3 * i]).toBeCloseTo(0.8, 2);
  });

  test('figures: a mirrored pair is symmetrical, one bright side is not; a step is steep', () => {
    const part = Array.from({ length: 100 }, (_, i) => (i + 0.5) / 100);
    const pair = part.map((s) => (Math.abs(s - 0.2) < 0.05 || Math.abs(s - 0.8) < 0.05 ? 2 : -3));
    const one = part.map((s) => (s < 0.5 ? 2 : -20));
    expect(profileFigures(part, pair).symmetry).toBeCloseTo(1, 6);
    expect(profileFigures(part, one).symmetry).toBeLessThan(0.01);
    expect(profileFigures(part, pair).steepest).toBeCloseTo(5, 6);
    expect(profileFigures(part, pair).brightPart).toBeCloseTo(0.2, 2);
    const soft = part.map((s) => 4 * s);
    expect(profileFigures(part, soft).steepest).toBeCloseTo(0.04, 6);
  });
});

describe('powers for wanted tones', () => {
  const twoLights = (powers: [number, number] = [-2, -2]) => {
    const dial = { leastStops: -6, stepStops: 0.1 };
    const box = (tag: string, x: number, powerStops: number) =>
      overheadSoftbox(0, {
        tag,
        positionM: [x, -0.4, 0.5],
        aimM: [0, 0, 0.1],
        widthM: 0.3,
        heightM: 0.3,
        powerStops,
        dial,
        output: { kind: 'flash-energy', energyJ: 400, modifierEfficiency: 0.5 },
      });
    const slab = (id: string, x: number, turnDeg: number) => ({
      kind: 'box' as const,
      id,
      name: id,
      positionM: [x, 0, 0] as Vector,
      widthM: 0.08,
      depthM: 0.08,
      heightM: 0.2,
      turnDeg,
      material: matte(0.5),
    });
    return testSet({
      products: [slab('left', -0.08, -40), slab('right', 0.08, 40)],
      lights: [box('A', -0.6, powers[0]), box('B', 0.6, powers[1])],
      spots: [
        { name: 'left', pointM: spotOn(-0.08, -40), normal: normalOf(-40) },
        { name: 'right', pointM: spotOn(0.08, 40), normal: normalOf(40) },
      ],
    });
  };
  const exactly = (spot: string, stops: number) => ({ spot, from: stops, to: stops });
  const normalOf = (deg: number): Vector => {
    const a = (deg * Math.PI) / 180;
    return [Math.sin(a), -Math.cos(a), 0];
  };
  const spotOn = (x: number, deg: number): Vector => {
    const [nx, ny] = normalOf(deg);
    return [x + 0.04 * nx, 0.04 * ny, 0.1];
  };
  const set = twoLights();
  const traces = set.spots.map((spot) => traceSpot(prepareTracing(set), spot, 256, 1));
  const tones = (of: SetDocument) =>
    traces.map((trace) => spotReading(of, trace).stopsFromMidTone ?? Number.NaN);

  test('any powers within the range are found again from their tones, to a step of the dial', () => {
    fc.assert(
      fc.property(fc.integer({ min: -55, max: 0 }), fc.integer({ min: -55, max: 0 }), (a, b) => {
        const wanted = tones(twoLights([a / 10, b / 10]));
        const wishes = set.spots.map(({ name }, i) => ({
          spot: name,
          from: wanted[i] ?? 0,
          to: wanted[i] ?? 0,
        }));
        const { tones: reached, lights } = solvePowers(set, traces, wishes);
        reached.forEach((tone) => {
          expect(tone.reachedStops).toBeCloseTo(tone.from, 1);
        });
        expect(lights.every(({ shortStops }) => shortStops === 0)).toBe(true);
      }),
      { numRuns: 30 },
    );
  });

  test('a light that runs out is named with what it is short of, and ways out that gain it', () => {
    const full = tones(twoLights([0, -3]));
    const wishes = set.spots.map(({ name }, i) => exactly(name, (full[i] ?? 0) + (i === 0 ? 1.5 : 0)));
    const { lights } = solvePowers(set, traces, wishes);
    const a = lights.find(({ tag }) => tag === 'A');
    expect(a?.powerStops).toBe(0);
    expect(a?.shortStops).toBeGreaterThan(1.3);
    const light = set.lights[0];
    const ways = light ? moreLight(light, set.camera, 1.5) : [];
    expect(ways.find(({ how }) => how === 'pops')?.amount).toBe(3);
    expect(ways.find(({ how }) => how === 'iso')?.amount).toBeGreaterThanOrEqual(280);
    const closer = ways.find(({ how }) => how === 'closer');
    expect(closer?.gainStops).toBeCloseTo(1.5, 1);
    expect(closer?.amount).toBeLessThan(0.83);
  });

  test('another modifier in its place does the same work: no snoot for a softbox because it is brighter', () => {
    const softbox = defaultKit().entries.find(({ id }) => id === 'softbox-60x90')?.thing as Light;
    const kit = defaultKit().entries.flatMap((entry) => (entry.what === 'light' ? [entry.thing] : []));
    const strong = kit.map((own) => ({
      ...own,
      output: { kind: 'flash-energy', energyJ: 2000, efficacyLmSPerJ: 35, modifierEfficiency: 0.6 },
    })) as Light[];
    const own = moreLight(softbox, set.camera, 1.5, strong).find(({ how }) => how === 'modifier');
    expect(own?.name).toMatch(/Softbox|Octa|umbrella/i);
    expect(own?.looksWider).toBeGreaterThan(1 / 1.8);
    expect(own?.looksWider).toBeLessThan(1.8);
    const closer = moreLight(softbox, set.camera, 1.5).find(({ how }) => how === 'closer');
    // Nearer it looks larger, and what stands behind its aim falls further behind.
    expect(closer?.looksWider).toBeGreaterThan(1.2);
    expect(closer?.fallsOffStops).toBeGreaterThan(0.1);
  });

  test('the shutter or the ISO is solved on its dial where powers cannot be turned; flash does not follow the shutter', () => {
    const window = {
      kind: 'window' as const,
      tag: 'W',
      name: 'Window',
      positionM: [-1.2, 0, 0.4] as Vector,
      aimM: [0, 0, 0.1] as Vector,
      widthM: 1,
      heightM: 1,
      output: { kind: 'luminance' as const, luminanceCdM2: 60000 },
    };
    const lit = (lights: SetDocumentInput['lights']) =>
      testSet({
        lights: lights ?? [],
        products: [column(0.04, 0.2)],
        spots: [{ name: 'front', pointM: [0, -0.04, 0.1], normal: [0, -1, 0] }],
      });
    const solved = (of: SetDocument, by: 'shutter' | 'iso') =>
      solveSetting(
        of,
        [traceSpot(prepareTracing(of), of.spots[0] as Spot, 256, 1)],
        [{ spot: 'front', from: 0, to: 0 }],
        by,
      );
    const daylight = lit([window]);
    for (const by of ['shutter', 'iso'] as const) {
      const answer = solved(daylight, by);
      expect(Math.abs(answer?.tones[0]?.reachedStops ?? 9)).toBeLessThan(0.18);
      expect(answer?.overSync).toBe(false);
    }
    const flash = lit([overheadSoftbox(0.6, { output: { kind: 'flash-energy', energyJ: 200 } })]);
    const [one, other] = [SHUTTERS[0], SHUTTERS[40]].map((step) => {
      const at = { ...flash, camera: { ...flash.camera, shutterS: step?.value ?? 1 } };
      return solved(at, 'shutter')?.tones[0]?.reachedStops;
    });
    expect(one).toBeCloseTo(other ?? 9, 6);
    expect(solved(flash, 'shutter')?.value).toBe(
      solved({ ...flash, camera: { ...flash.camera, iso: 100 } }, 'shutter')?.value,
    );
    const hidden = { ...daylight, spots: [{ ...daylight.spots[0], normal: [0, 1, 0] }] } as SetDocument;
    expect(solveSetting(hidden, [], [{ spot: 'front', from: 0, to: 0 }], 'iso')).toBeNull();
  });

  test('any tone within a range will do: powers that are in it stay', () => {
    const now = tones(set);
    const wishes = set.spots.map(({ name }, i) => ({ spot: name, from: -20, to: (now[i] ?? 0) + 0.2 }));
    const { lights } = solvePowers(set, traces, wishes);
    expect(lights.map(({ powerStops }) => powerStops)).toEqual([
      expect.closeTo(-2, 6),
      expect.closeTo(-2, 6),
    ]);
    const lower = set.spots.map(({ name }, i) => ({ spot: name, from: -20, to: (now[i] ?? 0) - 1 }));
    solvePowers(set, traces, lower).tones.forEach(({ reachedStops, to }) => {
      expect(reachedStops ?? 0).toBeLessThan(to + 0.1);
    });
  });

  test('a spot the lens does not see is told, not solved for', () => {
    const hidden = traces.map((trace) => ({ ...trace, seen: null }));
    expect(solvePowers(set, hidden, [exactly('left', 0)]).unseen).toEqual(['left']);
  });

  test('a dial keeps its range and steps', () => {
    const light = set.lights[0];
    if (!light) throw new Error('no light');
    expect(onDial(light, 0.7)).toBe(0);
    expect(onDial(light, -9)).toBe(-6);
    expect(onDial(light, -1.234)).toBeCloseTo(-1.2, 9);
  });
});

describe('a lamp behind frost', () => {
  test('the ideal frost: 0.6 m and 4 stops want 0.346 m', () => {
    expect(frostLampDistanceM(0.6, 4)).toBeCloseTo(0.3464, 3);
  });

  const frost = { kind: 'translucent' as const, reflectance: 0.3, transmittance: 0.5, haze: 1 };
  const frame = {
    kind: 'frame' as const,
    tag: '1',
    name: 'Frost',
    positionM: [0, 0.5, 0.3] as Vector,
    aimM: [0, 0, 0.3] as Vector,
    widthM: 0.6,
    heightM: 0.6,
    front: frost,
    back: frost,
  };
  const common = { tag: 'A', name: 'Lamp', positionM: [0, 1, 0.3] as Vector };
  const luminance = { kind: 'luminance' as const, luminanceCdM2: 1e5 };
  // Read 6 % within the edges. A ball shines evenly to all sides: cos^3 / d^2; a flat face: cos^4 / d^2.
  const length = 0.6 * (1 - 0.12);
  test.each([
    [
      'ball',
      { ...common, kind: 'bare-lamp' as const, radiusM: 0.005, output: luminance },
      length / Math.sqrt(2 ** (3 / 1.5) - 1),
    ],
    [
      'flat face',
      {
        ...common,
        kind: 'panel' as const,
        aimM: [0, 0.5, 0.3] as Vector,
        widthM: 0.01,
        heightM: 0.01,
        output: luminance,
      },
      frostLampDistanceM(length, 3),
    ],
  ])('a small %s behind even frost is placed where the ideal says, and measures so', (_, lamp, ideal) => {
    const set = testSet({ lights: [lamp], sheets: [frame] });
    const answer = lampBehindFrost(set, { light: 'A', sheet: '1', bright: 'bottom', differenceStops: 3 });
    if (!answer || 'refused' in answer) throw new Error('no gradient');
    expect(answer.limited).toBeNull();
    expect(answer.reachedStops).toBeCloseTo(3, 1);
    expect(answer.lampDistanceM / ideal).toBeGreaterThan(0.95);
    expect(answer.lampDistanceM / ideal).toBeLessThan(1.05);
  });

  const lamp = { ...common, kind: 'bare-lamp' as const, radiusM: 0.005, output: luminance };
  const wish = { light: 'A', sheet: '1', bright: 'bottom', differenceStops: 1 } as const;
  const boardAt = (y: number) => ({
    ...card([0, y, 0.3], 1.5, 1.5),
    tag: '2',
    aimM: [0, y - 1, 0.3] as Vector,
  });

  test('a lamp is never stood behind what stands behind the frost', () => {
    // One stop wants the lamp 0.83 m behind; a board stands 0.3 m behind.
    const set = testSet({ lights: [lamp], sheets: [frame, boardAt(frame.positionM[1] + 0.3)] });
    const answer = lampBehindFrost(set, wish);
    if (!answer || 'refused' in answer) throw new Error('no gradient');
    const stands = taken(set, answer).lights[0] as { positionM: Vector };
    expect(stands.positionM[1]).toBeLessThan(frame.positionM[1] + 0.3);
    expect(answer).toMatchObject({ limited: 'cramped', by: { key: '2' }, hiddenBy: null });
    expect(answer.reachedStops).toBeGreaterThan(1.2);
  });

  test('it is told where there is no place, where the sheet lets no light through, and where nothing shows it', () => {
    const at = (y: number) => testSet({ lights: [lamp], sheets: [frame, boardAt(frame.positionM[1] + y)] });
    expect(lampBehindFrost(at(0.06), wish)).toEqual({
      refused: 'no-room',
      by: expect.objectContaining({ key: '2' }),
    });
    const opaque = testSet({ lights: [lamp], sheets: [boardAt(0.5)] });
    expect(lampBehindFrost(opaque, { ...wish, sheet: '2' })).toEqual({ refused: 'opaque', by: null });
    expect(lampBehindFrost(at(-0.2), wish)).toMatchObject({ hiddenBy: { key: '2' } });
  });
});

describe('the gap between two flags', () => {
  test('leaves the product its whole light and takes it off the wall above', () => {
    const set = testSet({
      products: [column(0.04, 0.25)],
      lights: [
        overheadSoftbox(0, { positionM: [-0.9, 0.1, 0.5], aimM: [0, 0, 0.12], widthM: 0.3, heightM: 0.3 }),
      ],
    });
    const gap = flagGap(set, { light: 'A', product: 'column', part: 0.5, fromHeightM: 0.02 });
    if (!gap) throw new Error('no gap');
    const flagged = { ...set, sheets: gap.flags };
    const direct = (of: SetDocument, point: Vector, normal: Vector) =>
      illuminanceByLight(prepareTracing(of), point, normal, { samples: 2048, seed: 1, directOnly: true })[0]
        ?.direct ?? 0;
    for (const z of [0.03, 0.12, 0.24]) {
      const point: Vector = [-0.0401, 0, z];
      expect(direct(flagged, point, [-1, 0, 0])).toBeCloseTo(direct(set, point, [-1, 0, 0]), 9);
    }
    const high: Vector = [1.2, 0, 0.6];
    expect(direct(set, high, [-1, 0, 0])).toBeGreaterThan(0);
    expect(direct(flagged, high, [-1, 0, 0])).toBeLessThan(0.2 * direct(set, high, [-1, 0, 0]));
    expect(gap.gapM).toBeGreaterThan(0.2);
  });
});

test('a demo set is solved in its real surroundings', () => {
  const mill = demoSet('mill');
  const [product] = mill.products;
  const sheet = mill.sheets[0];
  const band = product && mirrorBand(prepareTracing(mill), product);
  if (!product || !sheet || !band) throw new Error('the mill has no band');
  const answer = placeForBand(mill, {
    kind: 'sheet',
    key: sheet.tag,
    product: product.id,
    heightM: band.heightM,
    from: 0.1,
    to: 0.3,
    by: 'move',
  });
  expect((answer?.reached?.to ?? 0) - (answer?.reached?.from ?? 0)).toBeCloseTo(0.2, 2);
  expect(projectPoint(viewOf(mill.camera), product.positionM)).not.toBeNull();
});
