import { availableParallelism } from 'node:os';
import type { SetDocument } from '@fendrix/contract';
import {
  addTile,
  BAND_HEIGHTS,
  channelsOf,
  createFilms,
  developFilms,
  displayWeights,
  type Films,
  type FrameTones,
  type JudgedBy,
  type MirrorBand,
  type MovedInFrame,
  type MovePictures,
  type MoveSearch,
  movedThings,
  type PartMap,
  type RebuildWish,
  type Rebuilt,
  type SpotTrace,
  smoothFilms,
  stokesOf,
  type Thing,
  type TileJob,
  type ToldThing,
  type Tolerance,
  type TracedView,
  type TriedMove,
  traceKey,
  type Verdict,
  weightsOfChannels,
} from '@fendrix/core';
import {
  bakeSpread,
  partMapOf,
  renderProgressively,
  setTolerances,
  type WorkerPool,
  wholeFeatures,
} from '@fendrix/workers';
import { createNodePool } from '@fendrix/workers/node';

/** Threads that nobody needs for so long are let go, ms. */
const IDLE_MS = 60_000;
const MOST_THREADS = 4;
/** Samples at a spot: a hundredth of a stop on most. */
const SPOT_SAMPLES = 4096;
/** Paths a place in each batch, for verdicts: as the lists of sets judge. */
const VERDICT_SAMPLES = 1;
/** Priority of what takes a minute: it waits for the next frame, the next comparison; and of that what was asked last goes first. */
const BEHIND = -1e6;

export interface PictureSize {
  width: number;
  height: number;
}

/** The light of sets, traced on threads beside the server. */
export interface SetLight {
  /** Films of a set, smoothed. */
  films(set: SetDocument, size: PictureSize, samples: number, seed: number): Promise<Films>;
  /** Light at pinned spots. */
  spots(set: SetDocument, spots: SetDocument['spots'], seed: number): Promise<SpotTrace[]>;
  /** What the lens sees, down to labels, and what the numbers in that stand for. */
  parts(set: SetDocument, size: PictureSize): Promise<{ parts: PartMap; things: Thing[] }>;
  /** Mirror bands of all products at the heights that frames are held against. */
  bands(set: SetDocument): Promise<MirrorBand[]>;
  /** All verdicts on a set; with the tones of a frame of it where there is one. */
  verdicts(set: SetDocument, by: JudgedBy, frame?: FrameTones): Promise<Verdict[]>;
  /** What the lens sees, mirrors and how deep it lies, without light. */
  seen(set: SetDocument): Promise<TracedView>;
  /** Films of tiles of a set with things moved, of the light of the plan. */
  moved(
    set: SetDocument,
    tries: readonly { moves: readonly TriedMove[]; job: TileJob }[],
    run?: { signal?: AbortSignal; onDone?(): void },
  ): Promise<Films[]>;
  /** Which lights and sheets a picture tells if they stand elsewhere. */
  toldThings(set: SetDocument, pictures: MovePictures, signal?: AbortSignal): Promise<ToldThing[]>;
  /** Which of them stand elsewhere in a frame. @param traced pictures of the set with things moved, as the frame is lit */
  movedThings(
    set: SetDocument,
    frame: { pictures: MovePictures; seen: Float32Array },
    traced: MoveSearch['traced'],
    signal?: AbortSignal,
  ): Promise<MovedInFrame>;
  /** How far the figures of a set may be off, what has to be held closest first. */
  tolerances(set: SetDocument, seed: number, signal: AbortSignal): Promise<Tolerance[]>;
  /** The set with another product in it; null where it has not the one whose place that takes. */
  rebuilt(set: SetDocument, wish: RebuildWish): Promise<Rebuilt | null>;
  close(): void;
}

/** @param spotSamples paths at each pinned spot */
export function createSetLight({ spotSamples = SPOT_SAMPLES } = {}): SetLight {
  let pool: WorkerPool | null = null;
  let users = 0;
  /** Asked for so far of what goes behind all else. */
  let behind = 0;
  let idle: ReturnType<typeof setTimeout> | undefined;
  const letGo = () => {
    pool?.close();
    pool = null;
  };
  async function withPool<T>(work: (pool: WorkerPool) => Promise<T>): Promise<T> {
    clearTimeout(idle);
    users++;
    pool ??= createNodePool(Math.min(MOST_THREADS, availableParallelism()));
    try {
      return await work(pool);
    } finally {
      users--;
      if (users === 0) {
        idle = setTimeout(letGo, IDLE_MS);
        idle.unref();
      }
    }
  }

  return {
    films: (set, { width, height }, samples, seed) =>
      withPool(async (own) => {
        const keyed = { key: traceKey(set), set };
        const plain = await renderProgressively(own, keyed, { width, height, samples, seed });
        const smooth = createFilms(width, height, plain.channels, plain.stokes);
        smoothFilms(smooth, plain, await wholeFeatures(own, keyed, width, height));
        return smooth;
      }),
    spots: (set, spots, seed) =>
      withPool((own) =>
        own.run({ key: traceKey(set), set }, { kind: 'spots', spots, samples: spotSamples, seed }),
      ),
    parts: (set, size) =>
      withPool(async (own) => {
        const keyed = { key: traceKey(set), set };
        const [parts, things] = await Promise.all([
          partMapOf(own, keyed, size, { x: 0, y: 0, ...size }),
          own.run(keyed, { kind: 'things' }),
        ]);
        return { parts, things };
      }),
    bands: (set) =>
      withPool((own) => own.run({ key: traceKey(set), set }, { kind: 'bandsAt', parts: BAND_HEIGHTS })),
    verdicts: (set, by, frame) =>
      withPool((own) =>
        own.run(
          { key: traceKey(set), set },
          { kind: 'judge', samples: VERDICT_SAMPLES, by, ...(frame ? { frame } : {}) },
        ),
      ),
    seen: async (set) =>
      (await withPool((own) => own.run({ key: traceKey(set), set }, { kind: 'view', samples: 0 }))).view,
    moved: (set, tries, { signal, onDone } = {}) =>
      withPool(async (own) => {
        const keyed = { key: traceKey(set), set };
        const run = { priority: BEHIND + behind++, ...(signal ? { signal } : {}) };
        await bakeSpread(own, keyed, run);
        return Promise.all(
          tries.map(async ({ moves, job }) => {
            const { width, height } = job.tile;
            const films = createFilms(width, height, channelsOf(set).length, stokesOf(set.camera).length);
            const sums = await own.run(keyed, { kind: 'movedTile', moves, job }, run);
            addTile(films, { x: 0, y: 0, width, height }, sums, job.samples);
            onDone?.();
            return films;
          }),
        );
      }),
    toldThings: (set, pictures, signal) =>
      withPool((own) =>
        own.run({ key: traceKey(set), set }, { kind: 'toldThings', pictures }, signal ? { signal } : {}),
      ),
    movedThings: (set, { pictures, seen }, traced, signal) =>
      withPool((own) => {
        const keyed = { key: traceKey(set), set };
        const run = signal ? { signal } : {};
        return movedThings({
          laid: () => own.run(keyed, { kind: 'layFrame', pictures, frame: seen }, run),
          lessFound: (laid, picture) => own.run(keyed, { kind: 'lessFound', laid, picture }, run),
          likely: (laid) => own.run(keyed, { kind: 'likelyPlaces', laid }, run),
          weighed: (laid, all, stepM) =>
            own.run(keyed, { kind: 'weighPlaces', laid, pictures: all, stepM }, run),
          traced,
        });
      }),
    rebuilt: (set, wish) =>
      withPool((own) => own.run({ key: traceKey(set), set }, { kind: 'rebuild', wish })),
    tolerances: (set, seed, signal) =>
      withPool((own) => setTolerances(own, set, { samples: spotSamples, seed, signal })),
    close() {
      clearTimeout(idle);
      letGo();
    },
  };
}

/** Linear red, green, blue of a set by its films, mid-tone at 0.18; of one light alone where it is named by its number. */
export function developed(set: SetDocument, films: Films, light: number | null = null): Float32Array {
  const channels = channelsOf(set).flatMap((channel, index) => (channel.light === light ? [index] : []));
  const all = displayWeights(set);
  const weights = light === null ? all : weightsOfChannels(all, channels);
  const out = new Float32Array(films.width * films.height * 3);
  developFilms(out, films, weights);
  return out;
}

/** A picture as large as is wanted across, of the shape of the sensor. */
export function sizeOf({ camera: { body } }: SetDocument, across: number): PictureSize {
  return {
    width: across,
    height: Math.max(1, Math.round((across * body.sensorHeightM) / body.sensorWidthM)),
  };
}
