import type { SetDocument } from '@fendrix/contract';
import {
  channelsOf,
  createFilms,
  type MovePictures,
  stokesOf,
  type ToldThing,
  type TriedMove,
} from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import { beforeEach, expect, test } from 'vitest';
import type { SetLight } from '../src/devices/setLight.js';
import { createMovesOfFrames } from '../src/frames/movedInFrame.js';

const set = demoSet('bottle');
const width = 480;
const height = 320;
const grey = () => new Float32Array(3 * width * height).fill(0.2);

/** What was asked of the light, and what it answers. */
let asked: {
  moves: (readonly TriedMove[])[][];
  frames: Float32Array[];
  pictures: MovePictures[];
  traced: Float32Array[];
};
/** What a search asks for. */
const elsewhere: TriedMove[] = [
  { part: { kind: 'sheet', key: '1' }, way: 'right', byM: 0.031 },
  { part: { kind: 'sheet', key: '1' }, way: 'away', byM: 0.012 },
];
let told: ToldThing[];
let fails: boolean;
let isExplained: boolean;
let held: Promise<void>;
beforeEach(() => {
  parts = [];
  held = Promise.resolve();
  asked = { moves: [], frames: [], pictures: [], traced: [] };
  told = [{ kind: 'sheet', key: '1', ways: ['right'] }];
  fails = false;
  isExplained = true;
});

/** Of one who waits; and how much of it is done. */
let parts: number[];
const asking = (signal = new AbortController().signal) => ({
  signal,
  onPart: (part: number) => void parts.push(part),
});

const light = {
  moved: async (
    of: SetDocument,
    tries: Parameters<SetLight['moved']>[1],
    run: Parameters<SetLight['moved']>[2],
  ) => {
    if (fails) throw new Error('out of memory');
    await held;
    run?.signal?.throwIfAborted();
    for (const _ of tries) run?.onDone?.();
    asked.moves.push(tries.map(({ moves }) => moves));
    return tries.map(({ job }) =>
      createFilms(job.tile.width, job.tile.height, channelsOf(of).length, stokesOf(of.camera).length),
    );
  },
  toldThings: async () => told,
  movedThings: async (...[, { pictures, seen }, traced]: Parameters<SetLight['movedThings']>) => {
    asked.pictures.push(pictures);
    asked.frames.push(seen);
    asked.traced.push(...(await traced([elsewhere, elsewhere])));
    const move = { way: 'right', byM: 0.04, errorM: 0.01 };
    return { things: [{ kind: 'sheet', key: '1', moves: [move], isNamed: true }], isExplained };
  },
} as unknown as SetLight;

test('a set is traced once for all of its frames, whatever its powers; names and what is untold are told', async () => {
  const moves = createMovesOfFrames(light);
  const found = await moves.of(set, { lit: set, seen: grey(), width }, asking());
  expect(found.moved).toEqual([
    {
      kind: 'sheet',
      tag: '1',
      name: set.sheets[0]?.name,
      moves: [{ way: 'right', byM: 0.04, errorM: 0.01 }],
      isNamed: true,
    },
  ]);
  // The one that is named is not told to be taped, though it is not told of both ways.
  expect(found.untold.map(({ tag, ways }) => `${tag} ${ways}`)).toEqual(
    ['A', 'B', 'C', 'D', '2', '3'].map((tag) => `${tag} right,away`),
  );
  // The plan four times, everything far, and near the one that is told, with products and camera.
  expect(asked.moves.map((own) => own.length)).toEqual([4, 28, 20, 2]);
  // What the search asks for is traced for the frame alone, both moves at once.
  expect(asked.moves[3]).toEqual([elsewhere, elsewhere]);
  expect(asked.traced.map((own) => own.length)).toEqual([asked.frames[0]?.length, asked.frames[0]?.length]);
  const lit = { ...set, lights: set.lights.map((own) => ({ ...own, powerStops: own.powerStops - 1 })) };
  await moves.of(set, { lit, seen: grey(), width }, asking());
  expect(asked.moves.slice(4).map((own) => own.length)).toEqual([2]);
  await moves.of({ ...set, sheets: set.sheets.slice(1) }, { lit: set, seen: grey(), width }, asking());
  expect(asked.moves.slice(5)).toHaveLength(4);
});

test('of a frame that stays unexplained the cards at the lens are told', async () => {
  const moves = createMovesOfFrames(light);
  const read = () => moves.of(set, { lit: set, seen: grey(), width }, asking());
  expect(await read()).toMatchObject({ isExplained: true, atLens: [] });
  isExplained = false;
  expect(await read()).toMatchObject({ isExplained: false, atLens: [{ kind: 'sheet', tag: '3' }] });
});

test('cells are means; one in which something is clipped tells nothing', async () => {
  const moves = createMovesOfFrames(light);
  const seen = grey();
  // The middle of the frame lies on the bottle.
  seen[3 * (160 * width + 240) + 1] = 0.99;
  await moves.of(set, { lit: set, seen, width }, asking());
  const [frame, pictures] = [asked.frames[0], asked.pictures[0]];
  if (!frame || !pictures) throw new Error('the frame was read');
  expect(frame).toHaveLength(3 * pictures.width * pictures.height);
  const clipped = [...frame.keys()].filter((i) => Number.isNaN(frame[i]));
  const cell = (80 - pictures.top) * pictures.width + 120 - pictures.left;
  expect(clipped).toEqual([3 * cell + 1]);
  expect(frame[0]).toBeCloseTo(0.2, 6);
});

test('where nothing is told, nothing is fitted; a failure is told and not kept', async () => {
  const moves = createMovesOfFrames(light);
  told = [];
  const found = await moves.of(set, { lit: set, seen: grey(), width }, asking());
  expect(found.moved).toEqual([]);
  expect(found.untold).toHaveLength(7);
  expect(asked.frames).toEqual([]);
  const bare = { ...set, products: [] };
  expect((await moves.of(bare, { lit: bare, seen: grey(), width }, asking())).moved).toEqual([]);
  fails = true;
  const other = { ...set, sheets: [] };
  await expect(moves.of(other, { lit: other, seen: grey(), width }, asking())).rejects.toThrow(
    'out of memory',
  );
  fails = false;
  told = [{ kind: 'light', key: 'A', ways: ['right', 'away'] }];
  expect((await moves.of(other, { lit: other, seen: grey(), width }, asking())).moved).toHaveLength(1);
});

test('how much of it is done is told to all who wait, and never goes back', async () => {
  const moves = createMovesOfFrames(light);
  await moves.of(set, { lit: set, seen: grey(), width }, asking());
  expect(parts).toHaveLength(4 + 28 + 20 + 2);
  expect(parts).toEqual([...parts].sort((a, b) => a - b));
  expect(parts.at(-3)).toBeCloseTo(0.7, 6);
  expect(parts.at(-1)).toBeGreaterThan(0.7);
  expect(parts.at(-1)).toBeLessThan(1);
});

test('one who leaves does not stop it for another; when all have left it is given up, and begun anew when asked', async () => {
  const moves = createMovesOfFrames(light);
  let letGo = () => {};
  const hold = () => {
    held = new Promise((resolve) => {
      letGo = resolve;
    });
  };
  const frame = { lit: set, seen: grey(), width };
  hold();
  const [left, stayed] = [new AbortController(), new AbortController()];
  const answers = [left, stayed].map(({ signal }) => moves.of(set, frame, asking(signal)));
  const leaving = expect(answers[0]).rejects.toThrow('gone');
  left.abort(new Error('gone'));
  letGo();
  expect((await answers[1])?.moved).toHaveLength(1);
  await leaving;

  const other = { ...set, sheets: set.sheets.slice(1) };
  hold();
  const both = [new AbortController(), new AbortController()];
  const given = both.map(({ signal }) => moves.of(other, { ...frame, lit: other }, asking(signal)));
  for (const one of both) one.abort(new Error('gone'));
  letGo();
  for (const one of given) await expect(one).rejects.toThrow('gone');
  expect((await moves.of(other, { ...frame, lit: other }, asking())).moved).toHaveLength(1);
});
