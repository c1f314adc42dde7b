import type { SetDocument, Vector } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  addTile,
  asItStands,
  channelsOf,
  createFilms,
  createNormal,
  developFilms,
  displayWeights,
  farMoves,
  layFrame,
  lessFound,
  likelyPlaces,
  type MovePictures,
  type MoveSearch,
  movedThings,
  movedTile,
  nearMoves,
  prepareTracing,
  type StoodThing,
  stokesOf,
  stoodThings,
  type TriedMove,
  toldThings,
  weighPlaces,
  windowOfProducts,
  withMoved,
} from '../src/index.js';

/** A window of a picture, drawn: a bright and a dark bar mirrored on grey, an outline, and a light that falls off to the side. */
const [WIDTH, HEIGHT] = [48, 40];

/** Where things stand, m; `away` widens the image of the card instead of moving it. */
interface Stood {
  card: readonly [right: number, away: number];
  flag: readonly [right: number, away: number];
  /** A card whose image is not in the window. */
  other: readonly [right: number, away: number];
  product: readonly [right: number, away: number];
}
const STOOD: Stood = { card: [0, 0], flag: [0, 0], other: [0, 0], product: [0, 0] };

/** Cells that an image goes for a metre, and edges as soft as a cell and a half. */
const CELLS_A_METRE = 90;
const edge = (x: number) => 1 / (1 + Math.exp(-x / 0.8));
const bar = (x: number, from: number, to: number) => edge(x - from) * edge(to - x);

/** @param noise of each value, a part of it  @param aside of all of it, cells  @param gain of the light */
function drawn(
  { card, flag, product }: Stood,
  { noise = 0, seed = 1, aside = 0, gain = 1 } = {},
): Float32Array {
  const normal = createNormal(seed);
  return Float32Array.from({ length: 3 * WIDTH * HEIGHT }, (_, i) => {
    const cell = Math.floor(i / 3);
    const x = (cell % WIDTH) - aside - product[0] * CELLS_A_METRE;
    const y = Math.floor(cell / WIDTH);
    const onProduct = bar(x, 6, 42) * bar(y, 4, 36);
    const right = card[0] * CELLS_A_METRE;
    const wider = card[1] * 40;
    const bright = 0.35 * bar(x, 13 + right - wider, 19 + right + wider);
    const dark = 0.7 * bar(x, 30 + flag[0] * CELLS_A_METRE, 35 + flag[0] * CELLS_A_METRE - flag[1] * 40);
    const own = (0.12 + bright) * (1 - dark);
    const light = 1 - 0.006 * x;
    return gain * light * (0.3 * (1 - onProduct) + own * onProduct) * (1 + noise * normal());
  });
}

const KEYS = ['card', 'flag', 'other'] as const;
const moveOf = (kind: 'sheet' | 'product', key: keyof Stood, way: 'right' | 'away', byM: number) => ({
  move: { part: { kind, key }, way, byM } as TriedMove,
  picture: drawn({ ...STOOD, [key]: way === 'right' ? [byM, 0] : [0, byM] }, { noise: 0.01 }),
});

const tries = [
  ...KEYS.flatMap((key) =>
    (['right', 'away'] as const).flatMap((way) =>
      [0.005, 0.025, 0.05].flatMap((byM) => [-byM, byM].map((by) => moveOf('sheet', key, way, by))),
    ),
  ),
  ...(['right', 'away'] as const).flatMap((way) =>
    [-0.003, 0.003].map((by) => moveOf('product', 'product', way, by)),
  ),
];
const triesBesideOther = tries.filter(({ move }) => move.part.key !== 'other');
const pictures: MovePictures = {
  width: WIDTH,
  height: HEIGHT,
  left: 30,
  top: 20,
  gridWidth: 120,
  gridHeight: 80,
  plan: drawn(STOOD),
  lights: [drawn(STOOD)],
  base: drawn(STOOD, { noise: 0.01 }),
  again: drawn(STOOD, { noise: 0.01, seed: 2 }),
  tries,
};

/** As built by tape: all a few millimetres off, the frame a cell aside, the light a tenth of a stop off. */
function built(seed: number, off: Partial<Stood>): Float32Array {
  const normal = createNormal(100 + seed);
  const mm = (by: readonly [number, number], deviation: number): [number, number] => [
    by[0] + deviation * normal(),
    by[1] + deviation * normal(),
  ];
  const stood: Stood = {
    card: mm(off.card ?? [0, 0], 0.004),
    flag: mm(off.flag ?? [0, 0], 0.004),
    other: mm(off.other ?? [0, 0], 0.004),
    product: mm([0, 0], 0.001),
  };
  return drawn(stood, { noise: 0.01, seed: 300 + seed, aside: normal(), gain: 2 ** (0.1 * normal()) });
}

/** What stands elsewhere, asked here and now. */
const searched = (
  own: MovePictures,
  frame: Float32Array,
  traced: (moves: readonly TriedMove[]) => Float32Array,
) => {
  const search: MoveSearch = {
    laid: async () => layFrame(own, frame),
    lessFound: async (laid, picture) => lessFound(laid, picture),
    likely: async (laid) => likelyPlaces(laid),
    weighed: async (laid, all, stepM) => weighPlaces(laid, all, stepM),
    traced: async (all) => all.map(traced),
  };
  return movedThings(search);
};

/** The window with things moved; `T` is a light that looks like the card. */
const drawnWith = (moves: readonly TriedMove[]): Float32Array => {
  const stood = structuredClone(STOOD) as unknown as Record<string, [number, number]>;
  for (const { part, way, byM } of moves) {
    const own = stood[part.key === 'T' ? 'card' : part.key] as [number, number];
    own[way === 'right' ? 0 : 1] += byM;
  }
  return drawn(stood as unknown as Stood, { noise: 0.01 });
};
const found = async (...asked: Parameters<typeof searched>) => (await searched(...asked)).things;
const foundIn = (frame: Float32Array, own = pictures) => found(own, frame, drawnWith);

/** A window of which the left is as good as black. */
const covered = (window: Float32Array): Float32Array =>
  window.map((value, i) => (Math.floor(i / 3) % WIDTH < 18 ? 0.02 * value : value));

const SEEDS = [1, 2, 3, 4, 5, 6];
const named = async (seed: number, off: Partial<Stood>) => {
  const all = await foundIn(built(seed, off));
  return all.length === 1 && all[0]?.isNamed ? all[0] : null;
};
/** Those seeds of which it is so. */
const seedsWhere = async (isSo: (seed: number) => Promise<boolean>): Promise<number[]> => {
  const all = await Promise.all(SEEDS.map(isSo));
  return SEEDS.filter((_, i) => all[i]);
};

describe('what stands elsewhere in a frame, drawn', () => {
  test('a picture tells of what it shows, and not of what it does not', () => {
    const keys = toldThings({ ...pictures, tries: tries.filter(({ move }) => Math.abs(move.byM) === 0.05) });
    expect(keys.map(({ key }) => key)).toEqual(['card', 'flag']);
    expect(keys.every(({ ways }) => ways.includes('right'))).toBe(true);
  });

  test('what comes on all of a sudden is not promised to be told, once nearer places are traced', () => {
    const steps = [0.005, 0.025, 0.05].flatMap((byM) =>
      [-byM, byM].map((by) => ({
        move: { part: { kind: 'sheet', key: 'other' }, way: 'right', byM: by } as TriedMove,
        picture: Math.abs(by) > 0.03 ? covered(pictures.base) : pictures.base,
      })),
    );
    const told = (from: number) =>
      toldThings({
        ...pictures,
        tries: [...triesBesideOther, ...steps].filter(({ move }) => Math.abs(move.byM) >= from),
      });
    const ofOther = (from: number) => told(from).find(({ key }) => key === 'other')?.ways;
    expect(ofOther(0.05)).toEqual(['right']);
    expect(ofOther(0)).toEqual([]);
    expect(told(0).find(({ key }) => key === 'card')?.ways).toContain('right');
  });

  test('what a few millimetres do alike on both sides is laid on building', () => {
    const bent = (window: Float32Array, byM: number) =>
      window.map((value, i) =>
        Math.floor(i / 3) % WIDTH < 18 ? value * 2 ** (-0.3 * (byM / 0.004) ** 2) : value,
      );
    const lengths = [-0.05, -0.025, -0.005, 0.005, 0.025, 0.05];
    const leftOf = (shown: (byM: number) => Float32Array) => {
      const steps = lengths.map((byM) => ({
        move: { part: { kind: 'sheet', key: 'other' }, way: 'right', byM } as TriedMove,
        picture: shown(byM),
      }));
      const laid = layFrame(
        { ...pictures, tries: [...triesBesideOther, ...steps] },
        bent(built(1, {}), 0.006),
      );
      return laid.cost / laid.expected;
    };
    const [known, unknown] = [leftOf((byM) => bent(pictures.base, byM)), leftOf(() => pictures.base)];
    expect(known).toBeLessThan(0.5 * unknown);
  });

  for (const [key, tags] of [
    ['card', []],
    ['flag', ['more']],
  ] as const)
    test(`a ${key} 4 cm aside is named, and by how much; in all but one`, { tags: [...tags] }, async () => {
      const right = await seedsWhere(async (seed) => {
        const byM = seed % 2 ? 0.04 : -0.04;
        const own = await named(seed, { [key]: [byM, 0] });
        const move = own?.moves[0];
        // It is built to 4 mm.
        return (
          own?.key === key &&
          move?.way === 'right' &&
          Math.abs(move.byM - byM) < 0.01 &&
          move.errorM > 0 &&
          move.errorM < 0.02
        );
      });
      expect(right.length).toBeGreaterThanOrEqual(5);
    });

  test('one that stands further off than anything was tried is followed there', async () => {
    const [own, ...others] = await foundIn(built(3, { card: [0.1, 0] }));
    expect([own?.key, own?.isNamed, others.length]).toEqual(['card', true, 0]);
    expect(own?.moves[0]?.byM).toBeCloseTo(0.1, 1.5);
  });

  test('nothing is named where all is built to its plan, nor where what is off is not seen', async () => {
    const quiet = await seedsWhere(async (seed) => (await foundIn(built(seed, {}))).length === 0);
    expect(quiet.length).toBeGreaterThanOrEqual(5);
    const told = await seedsWhere(async (seed) => (await named(seed, { other: [0.05, 0.05] })) !== null);
    expect(told).toEqual([]);
  });

  test('two things that would look alike are both told, and neither is named', async () => {
    const twin = tries
      .filter(({ move }) => move.part.key === 'card')
      .map(({ move, picture }) => ({
        move: { ...move, part: { kind: 'light' as const, key: 'T' } },
        picture,
      }));
    const all = await foundIn(built(3, { card: [0.04, 0] }), { ...pictures, tries: [...tries, ...twin] });
    expect(all.map(({ key }) => key).sort()).toEqual(['T', 'card']);
    expect(all.some(({ isNamed }) => isNamed)).toBe(false);
  });

  test('a thing that was tried far out alone is not named by itself', async () => {
    const far = tries.filter(({ move }) => move.part.key !== 'card' || Math.abs(move.byM) === 0.05);
    expect(await foundIn(built(3, { card: [0.04, 0] }), { ...pictures, tries: far })).toEqual([]);
  });

  test('where a part of the frame is clipped, the rest tells it', async () => {
    const clipped = built(1, { card: [0.04, 0] }).map((value, i) => {
      const [x, y] = [Math.floor(i / 3) % WIDTH, Math.floor(i / 3 / WIDTH)];
      return x > 28 && y < 16 ? Number.NaN : value;
    });
    const [own] = await foundIn(clipped);
    expect(own).toMatchObject({ key: 'card', isNamed: true });
    expect(own?.moves[0]?.byM).toBeCloseTo(0.04, 2);
    expect(own?.moves[0]?.errorM).toBeLessThan(0.01);
  });

  test('two things that stand elsewhere are both named, each by how much', { tags: ['more'] }, async () => {
    const right = await seedsWhere(async (seed) => {
      const all = await foundIn(built(seed, { card: [0.04, 0], flag: [-0.035, 0] }));
      const near = (key: string, byM: number) =>
        all.some((own) => own.key === key && own.isNamed && Math.abs((own.moves[0]?.byM ?? 0) - byM) < 0.012);
      return all.length === 2 && near('card', 0.04) && near('flag', -0.035);
    });
    expect(right.length).toBeGreaterThanOrEqual(5);
  });

  test('what comes on between the places that were tried is found by looking there', async () => {
    // Something dark that covers a third of the window from 3 cm to 4.5 cm on, and nothing before or after.
    const asMoved = (moves: readonly TriedMove[]): Float32Array => {
      const byM = moves.find(({ part, way }) => part.key === 'other' && way === 'right')?.byM ?? 0;
      const window = drawnWith(moves);
      return byM > 0.03 && byM < 0.045 ? covered(window) : window;
    };
    const lens = [0.005, 0.025, 0.05].flatMap((byM) =>
      [-byM, byM].map((by) => {
        const move: TriedMove = { part: { kind: 'sheet', key: 'other' }, way: 'right', byM: by };
        return { move, picture: asMoved([move]) };
      }),
    );
    const own = { ...pictures, tries: [...triesBesideOther, ...lens] };
    const all = await found(
      own,
      asMoved([{ part: { kind: 'sheet', key: 'other' }, way: 'right', byM: 0.036 }]),
      asMoved,
    );
    expect(all).toMatchObject([{ key: 'other', isNamed: true, moves: [{ way: 'right' }] }]);
    // It covers as much from 3 to 4.5 cm on: how far it stands is not known.
    expect(all[0]?.moves[0]?.errorM).toBeCloseTo(0.15, 6);
  });

  test('a frame that differs by more than anything that was moved explains says so, and names nothing', async () => {
    expect(await searched(pictures, covered(built(3, {})), drawnWith)).toEqual({
      things: [],
      isExplained: false,
    });
    expect((await searched(pictures, built(3, {}), drawnWith)).isExplained).toBe(true);
    expect((await searched(pictures, built(3, { card: [0.04, 0] }), drawnWith)).isExplained).toBe(true);
  });

  test('a frame that is clipped everywhere names nothing', async () => {
    const clipped = new Float32Array(3 * WIDTH * HEIGHT).fill(Number.NaN);
    expect(await foundIn(clipped)).toEqual([]);
  });
});

describe('what is moved', () => {
  const card: StoodThing = { kind: 'sheet', key: '1' };
  const set = demoSet('bottle');

  test('lights that are on and sheets, far; those that are told, near, with products and camera', () => {
    expect(stoodThings(set).map(({ key }) => key)).toEqual(['A', 'B', 'C', 'D', '1', '2', '3']);
    const off = { ...set, lights: set.lights.map((light) => ({ ...light, on: light.tag !== 'A' })) };
    expect(stoodThings(off as SetDocument).map(({ key }) => key)).not.toContain('A');
    expect(farMoves(set)).toHaveLength(7 * 4);
    expect(nearMoves(set, [card])).toHaveLength(8 + 2 + 4 * set.products.length + 6);
    // The card of the pepper mill lies on the table: it is not put into it.
    const lying = nearMoves(demoSet('pepper'), [card]);
    expect(lying.filter(({ part, way }) => part.kind === 'sheet' && way === 'up')).toEqual([]);
  });

  test('each alone, by so much, and back again is the plan', () => {
    for (const move of [...farMoves(set), ...nearMoves(set, stoodThings(set))]) {
      const moved = withMoved(set, [move]);
      expect(moved).not.toEqual(set);
      const back = withMoved(moved, [{ ...move, byM: -move.byM }]);
      const places = (of: SetDocument) =>
        [...of.lights, ...of.sheets, ...of.products, of.camera].map((one) =>
          'positionM' in one ? (one.positionM as Vector).map((part) => Math.round(part * 1e6)) : [],
        );
      expect(places(back)).toEqual(places(set));
    }
  });

  test('the window holds the products and little else; there is none where none is seen', () => {
    const window = windowOfProducts(set, { width: 240, height: 160 });
    expect(window?.width).toBeLessThan(80);
    expect(window?.height).toBeGreaterThan(100);
    const [x, y, z] = set.camera.positionM;
    const away = { ...set, camera: { ...set.camera, aimM: [x, y - 1, z] as Vector } };
    expect(windowOfProducts(away, { width: 240, height: 160 })).toBeNull();
    expect(windowOfProducts({ ...set, products: [] }, { width: 240, height: 160 })).toBeNull();
  });
});

test('traced: a card of the mill that stands 4 cm elsewhere is named, one that stands as planned is not', {
  tags: ['more'],
}, async () => {
  const set = demoSet('mill');
  const tracing = prepareTracing(set);
  const grid = { width: 120, height: 80 };
  const tile = windowOfProducts(set, grid);
  if (!tile) throw new Error('the mill is seen');
  const traced = (of: SetDocument, own: typeof tracing, moved: readonly TriedMove[], seed: number) => {
    const job = { ...grid, tile, firstSample: 0, samples: 8, seed };
    const films = createFilms(tile.width, tile.height, channelsOf(of).length, stokesOf(of.camera).length);
    addTile(films, { ...tile, x: 0, y: 0 }, movedTile(own, of, moved, job), job.samples);
    const out = new Float32Array(3 * tile.width * tile.height);
    developFilms(out, films, displayWeights(of));
    return out;
  };
  const thing: StoodThing = { kind: 'sheet', key: '1' };
  const moves = [...farMoves(set), ...nearMoves(set, [thing])].filter(
    ({ part }) => part.kind === 'product' || part.kind === 'camera' || part.key === '1' || part.key === '2',
  );
  const base = traced(set, tracing, [], 1);
  const pictures: MovePictures = {
    ...{ width: tile.width, height: tile.height, left: tile.x, top: tile.y },
    ...{ gridWidth: grid.width, gridHeight: grid.height },
    plan: base,
    lights: [base],
    base,
    again: traced(set, tracing, [], 2),
    tries: moves.map((move) => ({ move, picture: traced(set, tracing, [move], 1) })),
  };
  const frame = (off: Vector, seed: number) => {
    const real = asItStands(set, seed, { sheetByM: { 1: off } });
    return traced(real, prepareTracing(real), [], seed);
  };
  const foundIn = (off: Vector, seed: number) =>
    found(pictures, frame(off, seed), (own) => traced(set, tracing, own, 1));
  const all = await foundIn([0.04, 0, 0], 5);
  expect(all).toMatchObject([{ kind: 'sheet', key: '1', isNamed: true }]);
  expect(all[0]?.moves[0]?.byM).toBeGreaterThan(0.025);
  expect((await foundIn([0, 0, 0], 6)).filter(({ isNamed }) => isNamed)).toEqual([]);
});
