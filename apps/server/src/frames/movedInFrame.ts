import { setMaxListeners } from 'node:events';
import type { FrameMoves, SetDocument } from '@fendrix/contract';
import {
  type Films,
  farMoves,
  LEVEL_WAYS,
  type MovePictures,
  type MoveSearch,
  nearMoves,
  type StoodThing,
  stoodThings,
  type Tile,
  type TileJob,
  type ToldThing,
  type TriedMove,
  traceKey,
  windowOfProducts,
} from '@fendrix/core';
import { developed, type PictureSize, type SetLight, sizeOf } from '../devices/setLight.js';
import type { OnPart } from './askedAgain.js';

/** The plan is 480 px across; what is compared are cells of so many of them, the finest of which the window has few enough. */
const [ACROSS_PX, CELLS_PX, MOST_CELLS] = [480, [2, 3, 4], 10_000] as const;
/** Paths a cell; those of the plan are traced four times, with other seeds. */
const SAMPLES = 8;
const SEEDS = [1, 2, 3, 4] as const;
/** Sets of which the moves are kept: some 50 MB each. */
const KEPT = 2;
/** Part of the work that is done once the set is traced; and after how many pictures of the search half of the rest is. */
const [TRACING, HALF_OF_REST] = [0.7, 20];
/** Of a cell with a brighter pixel in it nothing is told: it may be clipped. */
const CLIPPED = 0.96;

/** What moving each thing of a set does to the picture of its products. */
interface TracedMoves {
  grid: PictureSize;
  /** Pixels of the plan across a cell. */
  cellPx: number;
  window: Tile;
  /** The tile that is traced for each of them. */
  job: TileJob;
  plans: Films[];
  tries: { move: TriedMove; films: Films }[];
  told: ToldThing[];
}

/** What was read of a frame, and its set lit and exposed as it was. */
export interface LitFrame {
  lit: SetDocument;
  /** Linear red, green, blue, 480 px across. */
  seen: Float32Array;
  width: number;
}

/** Tracing the moves of a set; once all who asked for it have left, it is given up. */
interface Trace {
  moves: Promise<TracedMoves | null>;
  abort: AbortController;
  /** Those who wait. */
  users: Set<OnPart>;
}

export interface MovesAsked {
  /** Nobody wants it any more. */
  signal: AbortSignal;
  onPart: OnPart;
}

/** Finds what stands elsewhere in frames; a set is traced once, which takes half a minute. */
export function createMovesOfFrames(light: SetLight) {
  const kept = new Map<string, Trace>();
  async function movesOf(set: SetDocument, { signal, onPart }: MovesAsked): Promise<TracedMoves | null> {
    const key = traceKey(set);
    const trace = kept.get(key) ?? begun(key, set);
    kept.delete(key);
    kept.set(key, trace);
    for (const old of [...kept.keys()].slice(0, -KEPT)) kept.delete(old);
    trace.users.add(onPart);
    const leave = () => {
      trace.users.delete(onPart);
      if (trace.users.size > 0) return;
      if (kept.get(key) === trace) kept.delete(key);
      trace.abort.abort(signal.reason);
    };
    signal.addEventListener('abort', leave);
    try {
      return await trace.moves;
    } finally {
      signal.removeEventListener('abort', leave);
      trace.users.delete(onPart);
    }
  }

  function begun(key: string, set: SetDocument): Trace {
    const abort = new AbortController();
    // Each of its many questions listens.
    setMaxListeners(0, abort.signal);
    const users = new Set<OnPart>();
    const moves = traced(set, abort.signal, (part) => {
      for (const onPart of users) onPart(part);
    });
    const trace = { moves, abort, users };
    moves.catch(() => {
      if (kept.get(key) === trace) kept.delete(key);
    });
    return trace;
  }

  async function traced(set: SetDocument, signal: AbortSignal, onPart: OnPart): Promise<TracedMoves | null> {
    const sized = CELLS_PX.map((cellPx) => {
      const grid = sizeOf(set, Math.floor(ACROSS_PX / cellPx));
      return { cellPx, grid, window: windowOfProducts(set, grid) };
    });
    const fit =
      sized.find(({ window }) => window && window.width * window.height <= MOST_CELLS) ?? sized.at(-1);
    if (!fit?.window || stoodThings(set).length === 0) return null;
    const { grid, window, cellPx } = fit;
    const job = { ...grid, tile: window, firstSample: 0, samples: SAMPLES, seed: SEEDS[0] };
    const far = farMoves(set);
    // How many there will be near is known once it is known what is told; at most it is this.
    let all = SEEDS.length + far.length + nearMoves(set, stoodThings(set)).length;
    let done = 0;
    const run = {
      signal,
      onDone: () => onPart((TRACING * ++done) / all),
    };
    const plans = await light.moved(
      set,
      SEEDS.map((seed) => ({ moves: [], job: { ...job, seed } })),
      run,
    );
    const tried = async (moves: readonly TriedMove[]) => {
      const films = await light.moved(
        set,
        moves.map((move) => ({ moves: [move], job })),
        run,
      );
      return films.map((own, i) => ({ move: moves[i] as TriedMove, films: own }));
    };
    const triedFar = await tried(far);
    const shared = { grid, window, cellPx, job, plans };
    const toldBy = (tries: TracedMoves['tries']) =>
      light.toldThings(set, picturesOf(set, { ...shared, tries, told: [] }), signal);
    const toldFar = await toldBy(triedFar);
    if (toldFar.length === 0) return { ...shared, tries: triedFar, told: [] };
    const near = nearMoves(set, toldFar);
    all = SEEDS.length + far.length + near.length;
    const tries = [...triedFar, ...(await tried(near))];
    return { ...shared, tries, told: await toldBy(tries) };
  }

  return {
    async of(set: SetDocument, { lit, seen, width }: LitFrame, asked: MovesAsked): Promise<FrameMoves> {
      const named = ({ kind, key }: StoodThing) => ({
        kind,
        tag: key,
        name: (kind === 'light' ? set.lights : set.sheets).find(({ tag }) => tag === key)?.name ?? key,
      });
      const moves = await movesOf(set, asked);
      const told = moves?.told ?? [];
      const untold = stoodThings(set).flatMap((thing) => {
        const own = told.find(({ kind, key }) => kind === thing.kind && key === thing.key);
        const ways = LEVEL_WAYS.filter((way) => !own?.ways.includes(way));
        return ways.length > 0 ? [{ ...named(thing), ways: [...ways] }] : [];
      });
      if (!moves || told.length === 0) return { moved: [], isExplained: true, atLens: [], untold };
      const frame = cellsOf(seen, width, moves);
      // Each of its questions listens.
      setMaxListeners(0, asked.signal);
      let searched = 0;
      const run = {
        signal: asked.signal,
        // How many it will be nobody knows.
        onDone: () => {
          searched++;
          asked.onPart(TRACING + ((1 - TRACING) * searched) / (searched + HALF_OF_REST));
        },
      };
      const traced: MoveSearch['traced'] = async (all) => {
        const films = await light.moved(
          set,
          all.map((own) => ({ moves: own, job: moves.job })),
          run,
        );
        return films.map((own) => developed(lit, own));
      };
      const read = { pictures: picturesOf(lit, moves), seen: frame };
      const { things, isExplained } = await light.movedThings(set, read, traced, asked.signal);
      const moved = things.map(({ moves: ways, isNamed, ...thing }) => ({
        ...named(thing),
        moves: ways,
        isNamed,
      }));
      // What may be it beside another is told there.
      const isMoved = ({ kind, tag }: { kind: string; tag: string }) =>
        moved.some((own) => own.kind === kind && own.tag === tag);
      const atLens = isExplained ? [] : cardsAtLens(set);
      return { moved, isExplained, atLens, untold: untold.filter((own) => !isMoved(own)) };
    },
  };
}

/** Cards with a hole for the lens. */
const cardsAtLens = ({ sheets }: SetDocument): FrameMoves['atLens'] =>
  sheets.flatMap((sheet) =>
    'holeDiameterM' in sheet && sheet.holeDiameterM
      ? [{ kind: 'sheet' as const, tag: sheet.tag, name: sheet.name }]
      : [],
  );

/** All of it as light, as a set lights and exposes it. */
function picturesOf(lit: SetDocument, { grid, window, plans, tries }: TracedMoves): MovePictures {
  const meanOf = (light: number | null): Float32Array => {
    const all = plans.map((films) => developed(lit, films, light));
    return (all[0] as Float32Array).map(
      (_, i) => all.reduce((sum, own) => sum + (own[i] as number), 0) / all.length,
    );
  };
  return {
    width: window.width,
    height: window.height,
    left: window.x,
    top: window.y,
    gridWidth: grid.width,
    gridHeight: grid.height,
    plan: meanOf(null),
    lights: lit.lights.flatMap((own, i) => (own.on ? [meanOf(i)] : [])),
    base: developed(lit, plans[0] as Films),
    again: developed(lit, plans[1] as Films),
    tries: tries.map(({ move, films }) => ({ move, picture: developed(lit, films) })),
  };
}

/** Means of the cells of a window, NaN where something in one is clipped. */
function cellsOf(seen: Float32Array, width: number, { window, cellPx }: TracedMoves): Float32Array {
  const out = new Float32Array(3 * window.width * window.height);
  for (let y = 0; y < window.height * cellPx; y++) {
    for (let x = 0; x < window.width * cellPx; x++) {
      const from = 3 * ((window.y * cellPx + y) * width + window.x * cellPx + x);
      const to = 3 * (Math.floor(y / cellPx) * window.width + Math.floor(x / cellPx));
      for (let c = 0; c < 3; c++) {
        const value = seen[from + c] as number;
        out[to + c] = (out[to + c] as number) + (value > CLIPPED ? Number.NaN : value / (cellPx * cellPx));
      }
    }
  }
  return out;
}
