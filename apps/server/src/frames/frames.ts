import { join } from 'node:path';
import type {
  FrameAgainstPlan,
  FrameChange,
  FrameFigures,
  FrameList,
  FrameMoves,
  OfPlan,
  SetDocument,
  UnderWay,
} from '@fendrix/contract';
import { judgedBy, momentOf, type PlacedAmong, placeFrame, setOfPlate } from '@fendrix/core';
import type { Logger } from 'pino';
import type { Database } from '../db/database.js';
import type { SetLight } from '../devices/setLight.js';
import type { JobStore } from '../domain/jobs.js';
import type { KitStore } from '../domain/kit.js';
import type { SetStore } from '../domain/sets.js';
import { AppError } from '../errors.js';
import type { LogBook } from '../log/logBook.js';
import { createPlans } from './againstPlan.js';
import { createFrameStore } from './frameStore.js';
import { type WatchedFolder, watchFolder } from './watchFolder.js';

/** Pictures of a job are read again after this, ms: a thousand frames that come at once ask once. */
const FRESH_MS = 1500;

/** Frames of the watched folder, placed with the pictures of the job that they come to. */
export interface Frames {
  list(job: string | undefined, page: { limit: number; offset: number }): Promise<FrameList>;
  /** Frames come to a job from now on; those that came to none before do too. */
  setFramesTo(job: string | null): Promise<void>;
  change(id: string, change: FrameChange): ReturnType<ReturnType<typeof createFrameStore>['change']>;
  picture(id: string, size: 'small' | 'large'): Promise<Buffer>;
  /** What a frame shows against the plan of its set. */
  againstPlan(id: string): Promise<OfPlan<FrameAgainstPlan>>;
  /** Which lights and sheets of its set stand elsewhere in a frame. */
  moves(id: string): Promise<OfPlan<FrameMoves | UnderWay>>;
  /** What a frame shows of its product, for holding it beside others. */
  figures(id: string): Promise<FrameFigures>;
  /** The plan of a frame as a picture, WebP. */
  planPicture(id: string): Promise<Buffer>;
  close(): Promise<void>;
}

export interface FramesOptions {
  database: Database;
  jobs: JobStore;
  sets: SetStore;
  /** Folder that cameras write to. */
  folder: string;
  /** Folder of the small pictures. */
  kept: string;
  kit: Pick<KitStore, 'read'>;
  light: SetLight;
  /** Names of frames that show the card of a calibration: they are of no job. */
  cards(): Promise<ReadonlySet<string>>;
  /** Where frames that are kept are noted. */
  logBook: Pick<LogBook, 'kept' | 'putAside' | 'compared' | 'setOf'>;
  log: Logger;
}

export function createFrames({
  database,
  jobs,
  sets,
  folder,
  kept,
  kit,
  light,
  cards,
  logBook,
  log,
}: FramesOptions): Frames {
  const store = createFrameStore(database, folder, kept);
  let fresh: { job: string; at: number; among: Promise<PlacedAmong[]> } | null = null;

  function picturesOf(job: string): Promise<PlacedAmong[]> {
    if (fresh?.job !== job || Date.now() - fresh.at > FRESH_MS)
      fresh = { job, at: Date.now(), among: readPictures(job) };
    return fresh.among;
  }
  async function readPictures(job: string): Promise<PlacedAmong[]> {
    const { document } = await jobs.read(job);
    const order = document.day.order;
    const place = (id: string) => (order.includes(id) ? order.indexOf(id) : order.length);
    const inOrder = [...document.shots].sort((a, b) => place(a.id) - place(b.id));
    return Promise.all(
      inOrder.map(async (shot) => {
        const set = shot.setId ? await sets.read(shot.setId).catch(() => null) : null;
        return { shot, set: set?.document ?? null };
      }),
    );
  }
  const plans = createPlans(light, async () => judgedBy((await kit.read()).document));
  async function withSet(
    id: string,
  ): Promise<{ frame: Awaited<ReturnType<typeof store.find>>; set: SetDocument; setRevision: number }> {
    const frame = await store.find(id);
    const shots = frame.job === null ? [] : (await jobs.read(frame.job)).document.shots;
    const setId = shots.find((shot) => shot.id === frame.shot)?.setId;
    if (setId === undefined)
      throw new AppError('bad-input', 'This frame is of no picture that has a set.', {
        hint: 'Say which picture it is of.',
      });
    const { document, revision } = await sets.read(setId);
    const plate = document.plates.find((own) => own.id === frame.plate);
    return { frame, set: plate ? setOfPlate(document, plate) : document, setRevision: revision };
  }
  /** @throws {AppError} `bad-input` where the picture of a frame has no such plate */
  async function requirePlate(id: string, plate: string, job: string | null, shot?: string | null) {
    const own = shot === undefined ? (await store.find(id)).shot : shot;
    const { shots } = job === null ? { shots: [] } : (await jobs.read(job)).document;
    const setId = shots.find((other) => other.id === own)?.setId;
    const set = setId === undefined ? null : await sets.read(setId).catch(() => null);
    if (!set?.document.plates.some((other) => other.id === plate))
      throw new AppError('bad-input', 'The picture of this frame has no such plate.');
  }
  async function place(frame: Awaited<ReturnType<typeof store.find>>, job: string): Promise<void> {
    const among = await picturesOf(job).catch(() => []);
    const at = momentOf(frame, frame.live ? null : await store.clockOff(frame.body));
    const found = placeFrame(at, frame, among);
    await store.place(frame.id, {
      job,
      shot: found?.shot ?? null,
      plate: found?.plate ?? null,
      take: found?.take ?? null,
      placedBy: found?.by ?? null,
    });
  }
  /** @throws {AppError} `not-found` where the file is not there any more */
  function withFile<T extends { frame: { gone: boolean } }>(found: T): T {
    if (found.frame.gone)
      throw new AppError('not-found', 'The file of this frame is not in the folder any more.');
    return found;
  }
  const watched: WatchedFolder = watchFolder(
    folder,
    store,
    async (frame) => {
      const job = await store.framesTo();
      if (job !== null) await place(frame, job);
    },
    log,
  );

  return {
    async list(job, page) {
      const { there, reading, unreadable } = watched.state();
      return {
        folder: { path: folder, there },
        job: await store.framesTo(),
        reading,
        unreadable,
        ...(await store.list(job, page)),
      };
    },
    async setFramesTo(job) {
      if (job !== null) await jobs.read(job);
      await store.setFramesTo(job);
      if (job === null) return;
      const ofCards = await cards();
      for (const frame of await store.withoutJob()) if (!ofCards.has(frame.name)) await place(frame, job);
    },
    async change(id, change) {
      const job = change.job ?? (await store.find(id)).job;
      if (change.job !== undefined) await jobs.read(change.job);
      if (typeof change.shot === 'string') {
        const { shots } = job === null ? { shots: [] } : (await jobs.read(job)).document;
        if (!shots.some((shot) => shot.id === change.shot))
          throw new AppError('bad-input', 'The job of this frame has no such picture.');
      }
      if (typeof change.plate === 'string') await requirePlate(id, change.plate, job, change.shot);
      const changed = await store.change(id, change);
      // Kept now, or moved since: the log says of which picture it is.
      const isMoved = change.job !== undefined || change.shot !== undefined;
      if (changed.state === 'kept' && (change.state === 'kept' || isMoved))
        await logBook.kept(await store.find(id));
      if (change.state !== undefined && change.state !== 'kept') await logBook.putAside(id);
      return changed;
    },
    picture: store.picture,
    async againstPlan(id) {
      const { frame, set, setRevision } = withFile(await withSet(id));
      const found = await plans.compare(join(folder, frame.name), frame, set);
      await logBook.compared(await store.find(id), found);
      return { ...found, setRevision };
    },
    async moves(id) {
      const { frame, set, setRevision } = withFile(await withSet(id));
      return { ...(await plans.moves(join(folder, frame.name), frame, set)), setRevision };
    },
    async figures(id) {
      const { frame } = withFile({ frame: await store.find(id) });
      // A kept frame has its set as it was then, whatever became of it.
      const set = (await logBook.setOf(id)) ?? (await withSet(id)).set;
      const found = await plans.figures(join(folder, frame.name), frame, set);
      if (!found)
        throw new AppError('bad-input', 'The set of this frame shows no product.', {
          hint: 'Put its product on the bench first.',
        });
      return found;
    },
    async planPicture(id) {
      return plans.picture((await withSet(id)).set);
    },
    close: () => watched.close(),
  };
}
