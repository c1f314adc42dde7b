import { existsSync } from 'node:fs';
import { stat } from 'node:fs/promises';
import { relative, sep } from 'node:path';
import { type FSWatcher, watch } from 'chokidar';
import type { Logger } from 'pino';
import type { Arrival, FrameFile, FrameStore } from './frameStore.js';
import { isFrameName, MOST_FRAME_BYTES, type ReadFrame, readFrame, UnreadableFrame } from './readFrame.js';

/** A file is whole when it has not grown for so long, ms. */
const STILL_MS = 600;
/** A folder that is not there is looked for so often, ms. */
const LOOK_MS = 2000;
/** Files read at once: each decodes a picture, and the server answers meanwhile. */
const AT_ONCE = 2;
/** What looks cut off is read again so often, with a rest between, ms. */
const TRIES = 4;
const REST_MS = 700;
const MOST_TOLD = 50;

export interface FolderState {
  there: boolean;
  reading: number;
  unreadable: { name: string; why: string }[];
}

export interface WatchedFolder {
  state(): FolderState;
  close(): Promise<void>;
}

/**
 * Watches a folder for picture files. Each is read once it is whole; what is known already is not read again, so that a
 * restart goes on where it was. A folder that goes and comes back is watched again.
 * @param found told of each frame that is new
 */
export function watchFolder(
  folder: string,
  store: Pick<FrameStore, 'known' | 'keep' | 'gone'>,
  found: (frame: NonNullable<Awaited<ReturnType<FrameStore['keep']>>>) => Promise<void>,
  log: Logger,
): WatchedFolder {
  const waiting: { path: string; arrived: Arrival }[] = [];
  const unreadable = new Map<string, string>();
  let reading = 0;
  let watcher: FSWatcher | null = null;
  let closed = false;
  const nameOf = (path: string) => relative(folder, path).split(sep).join('/');

  const take = (path: string, live: boolean) => {
    if (!isFrameName(path.slice(path.lastIndexOf(sep) + 1))) return;
    waiting.push({ path, arrived: { live, atMs: Date.now() } });
    work();
  };
  const work = () => {
    while (!closed && reading < AT_ONCE) {
      const next = waiting.shift();
      if (!next) return;
      reading++;
      void readOne(next.path, next.arrived)
        .catch((error) => log.error({ err: error }, 'a frame was not kept'))
        .finally(() => {
          reading--;
          work();
        });
    }
  };

  async function readOne(path: string, arrived: Arrival): Promise<void> {
    const name = nameOf(path);
    for (let tries = 1; !closed; tries++) {
      const file = await fileAt(path, name);
      // Gone again, or renamed: then it comes under its other name.
      if (!file) return;
      if (await store.known(file)) return;
      let read: ReadFrame;
      try {
        if (file.bytes > MOST_FRAME_BYTES) throw new UnreadableFrame('it is larger than 300 MB', false);
        read = await readFrame(path);
      } catch (error) {
        const { message, mayGrow } =
          error instanceof UnreadableFrame
            ? error
            : { message: 'this machine may not read it', mayGrow: existsSync(path) };
        if (mayGrow && tries < TRIES) {
          await new Promise((rested) => setTimeout(rested, REST_MS));
          continue;
        }
        if (unreadable.size < MOST_TOLD) unreadable.set(name, message);
        return;
      }
      unreadable.delete(name);
      // It was written to while it was read: what is kept is what is there.
      const after = await fileAt(path, name);
      if (after && (after.bytes !== file.bytes || after.writtenMs !== file.writtenMs)) continue;
      const frame = await store.keep(file, read, arrived);
      if (frame) await found(frame);
      return;
    }
  }

  function begin(): void {
    let isReady = false;
    const own = watch(folder, {
      awaitWriteFinish: { stabilityThreshold: STILL_MS, pollInterval: 150 },
      depth: 4,
      followSymlinks: false,
      ignored: (path, stats) =>
        Boolean(stats?.isFile()) && !isFrameName(path.slice(path.lastIndexOf(sep) + 1)),
    });
    watcher = own;
    own
      .on('ready', () => {
        isReady = true;
      })
      .on('add', (path) => take(path, isReady))
      .on('change', (path) => take(path, isReady))
      .on('unlink', (path) => {
        unreadable.delete(nameOf(path));
        void store.gone(nameOf(path)).catch((error) => log.error({ err: error }, 'a frame was not marked'));
      })
      .on('error', (error) => log.warn({ err: error }, 'the watched folder'));
  }
  const look = () => {
    const there = existsSync(folder);
    if (there && !watcher) begin();
    if (!there && watcher) {
      void watcher.close();
      watcher = null;
    }
  };
  look();
  const timer = setInterval(look, LOOK_MS);
  timer.unref();

  return {
    state: () => ({
      there: existsSync(folder),
      reading: reading + waiting.length,
      unreadable: [...unreadable].map(([name, why]) => ({ name, why })),
    }),
    async close() {
      closed = true;
      clearInterval(timer);
      await watcher?.close();
      while (reading > 0) await new Promise((rested) => setTimeout(rested, 20));
    },
  };
}

async function fileAt(path: string, name: string): Promise<FrameFile | null> {
  const found = await stat(path).catch(() => null);
  return found?.isFile() ? { name, bytes: found.size, writtenMs: Math.round(found.mtimeMs) } : null;
}
